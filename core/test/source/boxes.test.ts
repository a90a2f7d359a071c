/** The box of facts beside an article: rows of their own, facts that no draft reads aloud. Written with the rules: tests, no estimate. */
import { expect } from 'chai';
import { extractFacts } from '../../src/facts/index.ts';
import { readSource, type SourceDocument } from '../../src/source/index.ts';
import { tagger } from '../tools.ts';

const STORY = [
  'Tarn Hill clock is a tower clock in the market town of Tarn, and the oldest in the valley that still has its first works.',
  'It was built by the smith Aldous Brand, who had never made a clock before, and it has run for 212 years with two pauses.',
  'The town paid him in oats. His daughter kept it after him, then hers, and the family has the key to the tower to this day.',
];
const html = (box: string) =>
  `<!doctype html><html><head><title>Tarn Hill clock - Valley Book</title></head><body><div><a href="/">Start</a> <a href="/r">Any page</a></div><h1>Tarn Hill clock</h1>${box}${STORY.map((p) => `<p>${p}</p>`).join('')}</body></html>`;
const boxOf = (d: SourceDocument) => d.blocks.filter((b) => b.type === 'box').map((b) => b.text);
const textOf = (d: SourceDocument) => d.blocks.filter((b) => b.type !== 'box').map((b) => b.text);

describe('a box of facts beside an article', () => {
  for (const [said, box] of [
    [
      'a table headed by the subject',
      '<table class="side7"><tr><th colspan="2">Tarn Hill clock</th></tr><tr><td colspan="2"><img src="a.jpg" alt=""></td></tr><tr><th>Built</th><td>1812</td></tr><tr><th>Height</th><td>24 m (79 ft)[2]</td></tr><tr><th>Keeper</th><td>Ottilie Brand</td></tr></table>',
    ],
    [
      'terms in a box that calls itself one',
      '<aside class="fact-box"><dl><dt>Built</dt><dd>1812</dd><dt>Height</dt><dd>24 m (79 ft)</dd><dt>Keeper</dt><dd>Ottilie Brand</dd></dl></aside>',
    ],
    [
      'rows with labels under a heading that says so',
      '<div><h3>At a glance</h3><ul><li><b>Built:</b> 1812</li><li><b>Height:</b> 24 m (79 ft)</li><li><b>Keeper:</b> Ottilie Brand</li></ul></div>',
    ],
  ] as const)
    // prettier-ignore
    it(`is read row by row: ${said}`, async () => {
      const d = await readSource(html(box));
      expect(boxOf(d)).to.deep.equal(['Built: 1812', 'Height: 24 m (79 ft)', 'Keeper: Ottilie Brand']);
      expect(textOf(d)).to.deep.equal(STORY);
      expect(d.leftOut!.map((l) => l.text)).to.not.include.members(['Built', '1812']);
    });

  it('gives facts with their values, none of which is told by itself', async () => {
    const d = await readSource(
      html('<table class="infobox"><tr><th>Built</th><td>1812</td></tr><tr><th>Height</th><td>24 metres</td></tr><tr><th>Keepers so far</th><td>5</td></tr></table>'), // prettier-ignore
    );
    const rows = new Set(d.blocks.filter((b) => b.type === 'box').map((b) => b.id));
    const facts = extractFacts(d, tagger).filter((f) => rows.has(f.block));
    expect(facts.map((f) => f.silent)).to.deep.equal(Array(3).fill('it stands in a box beside the text'));
    expect(facts[0].dates.map((x) => x.iso)).to.deep.equal(['1812']);
    expect(facts[1].numbers.map((n) => [n.value, n.unit])).to.deep.equal([[24, 'metres']]);
  });

  it('is the box of wikitext too, without what is for the page alone', async () => {
    const d = await readSource(
      `{{Infobox clock\n| name = Tarn Hill clock\n| image = Clock.jpg\n| image_size = 200px\n| built = 1812\n| height = {{convert|24|m}}\n| keeper = [[Ottilie Brand]]\n}}\n'''Tarn Hill clock''' is a tower clock in the market town of [[Tarn]].\n\n== History ==\n${STORY[1]}\n`,
    );
    expect(boxOf(d)).to.deep.equal(['Built: 1812', 'Height: 24 m', 'Keeper: Ottilie Brand']);
  });

  it('is neither a form, a table of figures in the text, nor two rows about the page', async () => {
    const figures = '<table><tr><th>Year</th><th>Stops</th></tr><tr><td>1860</td><td>2</td></tr><tr><td>1931</td><td>1</td></tr><tr><td>1962</td><td>4</td></tr></table>'; // prettier-ignore
    for (const box of [figures, '<div class="meta"><p>Updated: 3 May</p><p>Words: 412</p></div>'])
      expect(boxOf(await readSource(html(box)))).to.deep.equal([]);
  });
});
