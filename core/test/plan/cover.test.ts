/** Points and keywords to be covered, the kind of piece, what a source lacks, and what moods make of a line. */
import { expect } from 'chai';
import fc from 'fast-check';
import { DraftError, draftScript, makePlan, moodLines, type DraftOptions } from '../../src/draft/index.ts';
import { extractFacts, taggedFacts } from '../../src/facts/index.ts';
import {
  briefSchema,
  coverOf,
  pointFinder,
  pointsFrom,
  spineOf,
  toAdd,
  toAddSays,
  type BriefInput,
} from '../../src/plan/index.ts';
import { emptyLine } from '../../src/script/index.ts';
import { readSource } from '../../src/source/index.ts';
import { LONG_PAGES, SHORT_PAGES } from '../draft/pages.ts';
import { clock, solver, tagger } from '../tools.ts';

const material = async (text: string) => {
  const source = await readSource(text, { kind: 'news' });
  return [{ letter: 'A', source, facts: extractFacts(source, tagger) }];
};
const TEXT = [
  'The lock at Harrow Bend was shut on Monday after a beam cracked.',
  'The beam had been fitted in 1911 by the canal company.',
  'Mira Holt, who keeps the lock, heard it go at four in the morning.',
  'Boats must wait until a new beam comes from the yard at Tarn, she said.',
].join('\n\n');

describe('points to cover', () => {
  it('are a line each, or parted by semicolons; marks of lists go', () => {
    expect(pointsFrom('- the beam\n2. who heard it; 1911\n\n•  Tarn \nthe beam')).to.deep.equal([
      'the beam',
      'who heard it',
      '1911',
      'Tarn',
    ]);
  });

  it('are found in facts by their words in any form, a figure only as it is', async () => {
    const find = pointFinder(await material(TEXT));
    const texts = (point: string) => find(point).map((f) => f.quote);
    expect(texts('cracked beams')[0]).to.match(/a beam cracked/);
    expect(texts('why the beam cracked')[0]).to.match(/a beam cracked/);
    expect(texts('1911')[0]).to.match(/fitted in 1911/);
    expect(texts('1912')).to.deep.equal([]);
    expect(texts('the beam of 1912')).to.deep.equal([]);
    expect(texts('a dragon')).to.deep.equal([]);
    // Of a longer point some may stand beside it.
    expect(texts('the canal company fitted the beam at the lock')[0]).to.match(/canal company/);
  });

  it('are told by a line’s words, or by what it rests on; else the fact that has them is named, or none', async () => {
    const m = await material(TEXT);
    const heard = m[0].facts.find((f) => f.text.includes('Mira'))!;
    const lines = [
      { ...emptyLine('L1'), text: 'One beam cracked, and the lock was shut.' },
      { ...emptyLine('L2'), text: 'She was awake.', from: [{ source: 'A', fact: heard.id, quote: heard.text }] },
    ]; // prettier-ignore
    const rows = coverOf(['the cracked beam', 'Mira Holt', 'Tarn', 'dragons'], lines, pointFinder(m));
    expect(rows.map((r) => [r.told, r.facts.length > 0])).to.deep.equal([
      ['L1', true],
      ['L2', true],
      [null, true],
      [null, false],
    ]);
  });

  it('never fail, whatever is typed', async () => {
    const find = pointFinder(await material(TEXT));
    fc.assert(fc.property(fc.string(), (typed) => pointsFrom(typed).every((p) => Array.isArray(find(p)))));
  });
});

describe('a brief with points, a listener and a genre', function () {
  const page = (name: string) => [...LONG_PAGES, ...SHORT_PAGES].find((p) => p.name === name)!.source;
  const told = async (name: string, brief: BriefInput, more: Partial<DraftOptions> = {}) => {
    const { sections, notes, shape } = draftScript(
      page(name),
      { target: { kind: 'point', seconds: 100 }, mood: 'calm', seed: 1, brief: briefSchema.parse(brief), ...more },
      { tagger, clock, solver: await solver() },
    );
    const from = sections.flatMap((s) => s.lines.flatMap((l) => l.from.map((f) => f.fact!)));
    return { from: new Set(from), notes: notes.join(' '), shape, first: sections[0].lines[0].text };
  }; // prettier-ignore

  it('tells facts that have a point, and says which points it could not cover', async () => {
    const plain = await told('news-ferry', {});
    const source = page('news-ferry');
    const find = pointFinder([{ letter: 'A', source, facts: extractFacts(source, tagger) }]);
    const untold = extractFacts(source, tagger).filter(
      (f) => !f.silent && !plain.from.has(f.id) && !f.leans.length && find(f.text)[0]?.fact === f.id,
    );
    expect(untold.length).to.be.at.least(2);
    const { from, notes } = await told('news-ferry', {
      cover: [...untold.slice(0, 2).map((f) => f.text.slice(0, 200)), 'nine dragons'],
    });
    expect(untold.slice(0, 2).filter((f) => from.has(f.id)).length).to.be.greaterThan(0);
    expect(notes).to.match(/No source says anything of “nine dragons”/);
  });

  it('tells less of what the listener knows', async () => {
    const [known, still] = [[], []] as [string[], string[]];
    for (const name of ['enc-lighthouse', 'enc-cricket', 'news-well']) {
      const plain = await told(name, {});
      const some = extractFacts(page(name), tagger)
        .filter((f) => plain.from.has(f.id) && !f.silent)
        .slice(2, 6);
      const less = await told(name, { known: some.map((f) => f.text.slice(0, 200)) });
      known.push(...some.map((f) => f.id));
      still.push(...some.filter((f) => less.from.has(f.id)).map((f) => f.id));
    }
    expect(known.length).to.equal(12);
    expect(still.length).to.be.at.most(8);
  });

  it('tells another choice of facts for another kind of piece, and a portrait of whom it is', async () => {
    const pages = ['news-ferry', 'enc-lighthouse', 'news-library'];
    let apart = 0;
    for (const name of pages) {
      const [explainer, story] = [
        await told(name, { genre: 'explainer' }),
        await told(name, { genre: 'story' }),
      ];
      if ([...explainer.from].some((f) => !story.from.has(f))) apart++;
    }
    expect(apart).to.equal(pages.length);
    const source = page('news-library');
    const facts = extractFacts(source, tagger);
    const person = facts.flatMap((f) => f.names).find((n) => n.type === 'person')!.text;
    const last = person.split(' ').at(-1)!;
    const naming = (from: ReadonlySet<string>) => facts.filter((f) => from.has(f.id) && f.text.includes(last)).length; // prettier-ignore
    const [plain, portrait] = [
      await told('news-library', {}),
      await told('news-library', { genre: 'portrait', whose: last }),
    ];
    expect(naming(portrait.from)).to.be.at.least(naming(plain.from));
  });
});

describe('what a source lacks', () => {
  it('is said with the seconds that are missing, links that nothing says, and words to look for', async () => {
    const add = toAdd(await material(TEXT), tagger);
    // Nothing in it says why; the beam that cracked is trouble, and that boats must wait is no decision.
    expect(add.links).to.include('why it came to it');
    expect(add.named).to.include('Mira Holt');
    const says = toAddSays(add, 90_000, 150).join(' ');
    expect(says).to.match(/^90 s are missing: about 230 words/);
    expect(says).to.match(/Words to look for: “/);
    // Once the reason is there, it isn't asked for.
    const more = await material(`${TEXT}\n\nThe beam cracked because nobody had oiled it.`);
    expect(toAdd(more, tagger).links).to.not.include('why it came to it');
  });

  it('stands behind the refusal of a length that no telling reaches', async () => {
    const source = LONG_PAGES.find((p) => p.name === 'news-well')!.source;
    let ways: readonly string[] = [];
    try {
      draftScript(
        source,
        { target: { kind: 'point', seconds: 1400 }, mood: 'calm', seed: 1 },
        { tagger, clock, solver: await solver() },
      );
    } catch (error) {
      ({ ways } = error as { ways: readonly string[] });
    }
    expect(ways[0]).to.match(/^\d+ s are missing: about \d+ words/);
  });
});

describe('lines of moods', () => {
  it('show a sentence as it stands evenly and as the mood tells it', () => {
    const { source } = LONG_PAGES.find((p) => p.name === 'news-well')!;
    const lines = moodLines(source, taggedFacts(source, tagger), tagger);
    expect(Object.keys(lines)).to.include.members(['calm', 'grave']);
    for (const line of Object.values(lines)) expect(line.after).to.not.equal(line.before);
    expect(lines.grave!.after.replace(/“[^”]*”/g, '')).to.not.match(/n’t\b/);
  });
});

describe('a short', () => {
  it('opens on a hook of its own where one stands alone, and tells the strongest thing that happens', async () => {
    const tools = { tagger, clock, solver: await solver() };
    let [own, made, told] = [0, 0, 0];
    for (const { source } of LONG_PAGES.filter((p) => /^(?:news|enc)/.test(p.name))) {
      const facts = extractFacts(source, tagger);
      const links = spineOf({ letter: 'A', source, facts }).map((l) => l.fact);
      const draft = (short: boolean) => {
        try {
          return draftScript(source, { target: { kind: 'ceiling', seconds: 58 }, mood: 'calm', seed: 1, short }, tools).sections;
        } catch (error) {
          if (error instanceof DraftError) return null;
          throw error;
        }
      };
      const [film, short] = [draft(false), draft(true)];
      if (!film || !short) continue;
      made++;
      if (short[0].lines[0].text !== film[0].lines[0].text) own++;
      const { event, units } = makePlan(source, { target: { kind: 'ceiling', seconds: 58 }, mood: 'calm', seed: 1, short: true }, tools);
      const fact = units[event!].sentence.fact;
      // It is a link of what the telling hangs on, in nobody's mouth.
      expect(links).to.include(fact.id);
      expect(fact.quotes).to.deep.equal([]);
      if (short.some((s) => s.lines.some((l) => l.from.some((f) => f.fact === fact.id)))) told++;
    }
    expect(made).to.be.greaterThan(2);
    expect(own).to.be.greaterThan(0);
    expect(told / made, `${told} of ${made}`).to.be.at.least(0.75);
  }); // prettier-ignore
});
