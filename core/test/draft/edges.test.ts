/** Every whole second that a source is said to carry can be told, the first and the last of them too. */
import { expect } from 'chai';
import fc from 'fast-check';
import { draftScript, sourceCarries, type DraftOptions, type DraftTools } from '../../src/draft/index.ts';
import { SHORTEST_TARGET } from '../../src/script/index.ts';
import { clockText } from '../../src/timing/index.ts';
import { hooksOf, rankShapes } from '../../src/plan/index.ts';
import { taggedFacts } from '../../src/facts/index.ts';
import { clock, solver, tagger } from '../tools.ts';
import { LONG_PAGES, SHORT_PAGES } from './pages.ts';

type Way = Omit<DraftOptions, 'target'>;

const PAGES = [...LONG_PAGES, ...SHORT_PAGES].map((page) => ({
  ...page,
  tagged: taggedFacts(page.source, tagger),
}));

/** A page told in some way: a shape that suits it, a mood, a hook, ticked facts, or what a first part left. */
function waysOf({ source, tagged }: (typeof PAGES)[number], tools: DraftTools): Way[] {
  const facts = tagged.map((t) => t.fact);
  const base: Way = { mood: 'calm', seed: 1, tagged };
  const first = sourceCarries(source, base, tools).shortestMs / 1000;
  const told = draftScript(source, { ...base, target: { kind: 'point', seconds: first } }, tools)
    .sections.flatMap((s) => s.lines)
    .flatMap((l) => l.from.flatMap((f) => f.fact ?? []));
  const speakable = facts.filter((f) => !f.silent);
  return [
    base,
    { ...base, mood: 'brisk' },
    { ...base, mood: 'grave' },
    {
      ...base,
      must: speakable
        .filter((_, i) => i % 7 === 3)
        .map((f) => f.id)
        .slice(0, 3),
    },
    ...rankShapes({ source, facts, sources: 1 })
      .filter((r) => r.score > 0)
      .map((r): Way => ({ ...base, shape: r.id })),
    ...hooksOf([{ letter: 'A', source, facts }], tools)
      .slice(0, 3)
      .map((hook): Way => ({ ...base, hook })),
    ...(new Set(told).size < speakable.length ? [{ ...base, given: told }] : []),
  ];
}

describe('the length of a draft', () => {
  it('can be any whole second between the two that are shown, in every way of telling', async function () {
    const tools = { tagger, clock, solver: await solver() };
    const ways = new Map<string, Way[]>();
    const inRange = fc
      .integer({ min: 0, max: 1000 })
      .map((n) => (n < 250 ? 0 : n > 750 ? 1 : (n - 250) / 500));
    fc.assert(
      fc.property(fc.nat(PAGES.length - 1), fc.nat(), inRange, (p, w, at) => {
        const page = PAGES[p];
        if (!ways.has(page.name)) ways.set(page.name, waysOf(page, tools));
        const own = ways.get(page.name)!;
        const way = own[w % own.length];
        const { shortestMs, longestMs } = sourceCarries(page.source, way, tools);
        expect(shortestMs % 1000).to.equal(0);
        expect(longestMs % 1000).to.equal(0);
        // Less than the shortest script can't be asked for.
        fc.pre(longestMs >= SHORTEST_TARGET * 1000);
        const seconds = Math.max(
          SHORTEST_TARGET,
          Math.round((shortestMs + at * (longestMs - shortestMs)) / 1000),
        );
        const says = `${page.name}, ${JSON.stringify({ ...way, tagged: 0 })}, ${clockText(seconds * 1000)}`;
        let draft;
        try {
          draft = draftScript(page.source, { ...way, target: { kind: 'point', seconds } }, tools);
        } catch (error) {
          throw new Error(says, { cause: error });
        }
        expect(Math.abs(draft.ms - seconds * 1000), says).to.be.at.most(200);
        expect(
          draft.notes.filter((n) => /^Told whole/.test(n)),
          says,
        ).to.deep.equal([]);
        const texts = draft.sections.flatMap((s) => s.lines.map((l) => l.text));
        expect(new Set(texts).size, `${says}: no line twice`).to.equal(texts.length);
      }),
      { numRuns: 80, seed: 20 },
    );
  });

  it('is kept a little over a floor and under a ceiling, but within what can be told', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const page = PAGES.find((p) => p.name === 'news-ferry')!;
    const way: Way = { mood: 'calm', seed: 1, tagged: page.tagged };
    const { shortestMs, longestMs } = sourceCarries(page.source, way, tools);
    const at = (kind: 'floor' | 'ceiling', ms: number) =>
      draftScript(page.source, { ...way, target: { kind, seconds: ms / 1000 } }, tools).ms;
    expect(at('ceiling', shortestMs)).to.be.at.most(shortestMs);
    expect(at('floor', longestMs)).to.be.at.least(longestMs);
    expect(at('floor', shortestMs)).to.be.at.least(shortestMs);
    expect(at('ceiling', longestMs)).to.be.at.most(longestMs);
  });
});
