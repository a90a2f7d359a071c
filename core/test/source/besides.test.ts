/** What stands beside a text and is none of it, each told by how it is built. Written while the reader was: tests, no estimate of how a new page is read. */
import { expect } from 'chai';
import { readSource, type SourceDocument } from '../../src/source/index.ts';

const STORY = [
  'The clock of Tarn Hill stopped at ten past four on the first morning of the year, and it has not been wound since.',
  'It had run for 212 years. Three families kept it, each from father to daughter, and none of them was ever paid more than a sack of oats.',
  'The last keeper, Ottilie Brand, climbed the 96 steps every third day until her knees gave out. She was 81, and she counted the steps aloud.',
  'The town has asked for offers to put a motor in. Brand says she will pull the ladder up behind whoever brings it.',
];
const body = STORY.map((p) => `<p>${p}</p>`);
const page = (inside: string, head = '<title>The clock of Tarn Hill stops</title>') =>
  `<!doctype html><html><head>${head}</head><body><div class="n"><a href="/">Home</a> <a href="/t">Town</a></div><h1>The clock of Tarn Hill stops</h1>${inside}<div class="f"><a href="/c">Contact</a></div></body></html>`;
const own = (d: SourceDocument) => d.blocks.filter((b) => b.type !== 'reply').map((b) => b.text);
const told = async (inside: string, head?: string) => readSource(page(inside, head));
const whyOf = (d: SourceDocument, words: RegExp) => d.leftOut!.find((l) => words.test(l.text))?.why;

describe('beside a text', () => {
  it('a box under a heading of links ends with the box, and the text goes on behind it', async () => {
    const d = await told(
      `<div class="story">${body[0]}<div class="box"><h2>Related stories</h2><ul><li><a href="/1">The bell that cracked in the frost of 1963</a></li></ul></div>${body.slice(1).join('')}</div>`,
    );
    expect(own(d)).to.deep.equal(STORY);
  });

  it('comments that say who but not when are replies', async () => {
    const comments = [
      ['clockwork_kit', 'My grandmother carried oats up to the second Brand. She said the man never thanked her once.'],
      ['Fen', 'Leave the clock alone, it has earned its rest.'],
      ['RookAtNoon', 'A motor costs less than the lamps the council put up last year, and nobody asked for those.'],
    ].map(([by, says]) => `<div class="k"><a class="k1" href="/u">${by}</a><div class="k2"><p>${says}</p></div></div>`); // prettier-ignore
    const d = await told(
      `<div class="story">${body.join('')}</div><div class="ks"><span>3 comments</span>${comments.join('')}</div>`,
    );
    expect(own(d)).to.deep.equal(STORY);
    expect(d.blocks.filter((b) => b.type === 'reply').map((b) => b.speaker)).to.deep.equal([
      'clockwork_kit',
      'Fen',
      'RookAtNoon',
    ]);
  });

  it('a sentence set apart once more is not read twice', async () => {
    const d = await told(
      `${body.slice(0, 3).join('')}<div class="q">“She was 81, and she counted the steps aloud.”</div>${body[3]}`,
    );
    expect(own(d)).to.deep.equal(STORY);
    expect(whyOf(d, /counted the steps/)).to.equal('it repeats a sentence of the text');
  });

  it('who wrote it is told in the author’s place, not in the text', async () => {
    const d = await told(
      `<div>By Nils Arkady, 4 January 2024</div>${body.join('')}<p>Nils Arkady writes about towers and the people in them. He lives in one.</p>`,
    );
    expect(d.authors).to.deep.equal(['Nils Arkady']);
    expect(own(d)).to.deep.equal(STORY);
  });

  it('a name by itself beside a day is who wrote it; a row of the site is not', async () => {
    const by = async (row: string) => (await told(`<div><span>${row}</span></div><div>4 January 2024</div>${body.join('')}`)).authors; // prettier-ignore
    expect(await by('Nils Arkady')).to.deep.equal(['Nils Arkady']);
    expect(await by('Email Settings')).to.equal(undefined);
    expect(await by('Old Town')).to.equal(undefined);
  });

  it('scripts and data that a page lets through as text are no words of it', async () => {
    const d = await told(
      `${body.join('')}<div>{ "widget": {"id": "a12", "slots": [1, 2, 3]}, "lazy": true, "src": "w.js" }</div><div>https://cdn.example/a/b/c.js?v=12 https://cdn.example/d/e/f.js?v=13</div>`,
    );
    expect(own(d)).to.deep.equal(STORY);
  });

  it('what stands behind a paper is known by its heading (BioMed Central’s “Declarations”, from memory)', async () => {
    const behind = [
      [
        'Data availability',
        'All data are available from the author on request, and the tower is open on Sundays.',
      ],
      [
        'Competing interests',
        'The author declares that she owns a clock and has no other interest in the matter.',
      ],
      ['Funding', 'This work was supported by the guild of keepers, which had no part in its design.'],
    ];
    const tagged = await told(
      `${body.join('')}${behind.map(([h, p]) => `<section><h2>${h}</h2><p>${p}</p></section>`).join('')}`,
    );
    const plain = await told(
      `${STORY.map((p) => `<div class="t">${p}</div>`).join('')}${behind.map(([h, p]) => `<div class="h">${h}</div><div class="t">${p}</div>`).join('')}`,
    );
    for (const d of [tagged, plain]) expect(own(d)).to.deep.equal(STORY);
  });

  it('nothing hangs on tags that were left out: the tree is the HTML Standard’s (13.2)', async () => {
    const d = await readSource(
      `<!DOCTYPE html>\n<html xmlns:x="a">\n<meta charset="utf-8">\n<script>var a = "</p>";</script>\n<title>The clock of Tarn Hill stops</title><h1>The clock of Tarn Hill stops</h1>${STORY.map((p) => `<p>${p}`).join('\n')}`,
    );
    expect(own(d)).to.deep.equal(STORY);
  });
});

describe('a page with little or nothing to read', () => {
  const why = (html: string) => readSource(html).then((d) => d.doubt, (error: Error) => error.message); // prettier-ignore
  const form =
    '<form><label>Name</label><input name="n"><label>Password</label><input type="password"><button>Log in</button></form>';
  it('says that it asks for a log-in, and what to do', async () => {
    expect(await why(page(`<p>Log in to go on.</p>${form}`))).to.match(/asks for a log-in .* paste it here/);
    const teaser = `<p>${STORY[0]} ${STORY[1].slice(0, 40)}…</p>`;
    expect(await why(page(`${teaser}${form}`))).to.match(/may go on behind it/);
  });
  it('says that it is a list of links, and gives them', async () => {
    const links = Array.from(
      { length: 30 },
      (_, i) => `<li><a href="/${i}">The ferry stops at quay ${i} in the fog</a></li>`,
    );
    const html = page(`<ul>${links.join('')}</ul>`);
    expect(await why(html)).to.match(/links to others/);
    expect((await readSource(html)).blocks.length).to.be.greaterThan(20);
  });
});

describe('the kind of a source', () => {
  const kindOf = async (inside: string) => (await told(inside)).kind;
  const quoted =
    '<p>“I was there, I saw it and I heard it,” said Brand on Tuesday. “I had my hand on the rope, and I thought I was done for. I told my sister so.”</p>';
  it('is not told by what people are quoted with', async () => {
    expect(await kindOf(`${body.slice(0, 2).join('')}${quoted}${quoted.replace('rope', 'rail')}`)).to.equal(
      'news',
    );
  });
  it('is no guide for a list that is numbered but tells nobody to do anything', async () => {
    const list = (items: readonly string[]) => `<div>By Nils Arkady, 4 January 2024</div>${body[0]}${body[1]}<ol>${items.map((i) => `<li>${i}</li>`).join('')}</ol>${body[3]}<p>The council announced on Monday that it had voted for a motor.</p>`; // prettier-ignore
    expect(await kindOf(list(['The clock at Holm, stopped in 1911.', 'The clock at Varn, stopped in 1940.', 'The clock at Tarn Hill, stopped this year.']))).to.equal('news'); // prettier-ignore
  });
});
