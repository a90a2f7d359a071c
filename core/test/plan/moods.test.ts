/** Moods are heard: what is told, how it opens, how often it asks, how long it rests. Measured on fifteen pages of five kinds. */
import { expect } from 'chai';
import { draftScript, sourceCarries, type Draft } from '../../src/draft/index.ts';
import { taggedFacts, type Fact } from '../../src/facts/index.ts';
import { MOOD_RULES, briefSchema, hooksOf, moodRows, type Hook } from '../../src/plan/index.ts';
import { TROUBLE } from '../../src/plan/material.ts';
import { MOODS, type Mood } from '../../src/script/index.ts';
import { LONG_PAGES } from '../draft/pages.ts';
import { clock, solver, tagger } from '../tools.ts';

const facts: (readonly Fact[])[] = [];
const hooks: (readonly Hook[])[] = [];
const drafts = new Map<Mood, Draft[]>();
const linesOf = (d: Draft) => d.sections.flatMap((s) => s.lines);
const share = (mood: Mood, test: RegExp) => {
  const lines = drafts.get(mood)!.flatMap(linesOf);
  return lines.filter((l) => test.test(l.text)).length / lines.length;
};
const restsOf = (mood: Mood) =>
  drafts
    .get(mood)!
    .flatMap((d) => d.sections.slice(0, -1).map((s) => s.lines.at(-1)!.restMs))
    .sort((a, b) => a - b);
const middle = (list: readonly number[]) => list[Math.floor(list.length / 2)];

describe('a mood', () => {
  before(async function () {
    this.timeout(120_000);
    const tools = { tagger, clock, solver: await solver() };
    for (const { source } of LONG_PAGES) {
      const tagged = taggedFacts(source, tagger);
      facts.push(tagged.map((t) => t.fact));
      hooks.push(hooksOf([{ letter: 'A', source, facts: facts.at(-1)! }], tools));
      const { shortestMs, longestMs } = sourceCarries(source, { mood: 'calm', seed: 1, tagged }, tools);
      // Where most can be left out: moods are for what to tell.
      const seconds = Math.round((3 * shortestMs + longestMs) / 4000);
      for (const mood of MOODS) {
        const brief = briefSchema.parse({ mood });
        const target = { kind: 'point', seconds } as const;
        const draft = draftScript(source, { mood, seed: 1, tagged, target, brief }, tools);
        drafts.set(mood, [...(drafts.get(mood) ?? []), draft]);
      }
    }
  });

  it('tells more of what it asks for, and less of what it does not', () => {
    const told = (mood: Mood, test: (fact: Fact) => boolean) =>
      drafts.get(mood)!.reduce((n, draft, i) => {
        const ids = new Set(linesOf(draft).flatMap((l) => l.from.map((f) => f.fact)));
        return n + facts[i].filter((f) => ids.has(f.id) && test(f)).length;
      }, 0);
    const figures = (mood: Mood) => told(mood, (f) => f.numbers.length > 0);
    const quotations = (mood: Mood) => told(mood, (f) => f.quotes.length > 0);
    const trouble = (mood: Mood) => told(mood, (f) => TROUBLE.test(f.text));
    expect(figures('dry'), 'figures').to.be.greaterThan(1.1 * figures('calm'));
    expect(figures('calm'), 'figures').to.be.greaterThan(1.1 * figures('warm'));
    expect(quotations('warm'), 'quotations').to.be.greaterThan(quotations('brisk'));
    expect(trouble('grave'), 'trouble').to.be.greaterThan(trouble('light'));
  });

  it('speaks in full where it is grave or dry, and contracts elsewhere', () => {
    const CONTRACTED = /\b\p{L}+(?:n’t|’s (?:a|the|not|been)|’re|’ve)\b/u;
    for (const mood of MOODS)
      if (MOOD_RULES[mood].contractions) expect(share(mood, CONTRACTED), mood).to.be.greaterThan(0);
    const own = (mood: Mood) => share(mood, /^[^“]*\b(?:isn|wasn|didn|couldn|hasn)’t/);
    for (const mood of ['grave', 'dry'] as const) expect(own(mood), mood).to.equal(0);
  });

  it('rests as long between sections as its rule says, near enough for the seconds to come out', () => {
    const [brisk, calm, grave] = (['brisk', 'calm', 'grave'] as const).map((m) => middle(restsOf(m)));
    expect(brisk).to.be.lessThan(calm);
    expect(calm).to.be.lessThan(grave);
  });

  it('opens with a kind of hook that its rule names, or as the source does', () => {
    const openings = (mood: Mood) => drafts.get(mood)!.map((d) => linesOf(d)[0].text);
    const own = openings('calm');
    for (const mood of MOODS.filter((m) => MOOD_RULES[m].opens.length)) {
      const hooked = openings(mood).flatMap((text, i) => (text === own[i] ? [] : [i]));
      expect(hooked.length, mood).to.be.greaterThan(0);
      // Some differ in their words alone; those that rest on another fact open with a hook of the mood's kinds.
      for (const i of hooked) {
        const fact = (m: Mood) => linesOf(drafts.get(m)![i])[0].from[0]?.fact;
        if (fact(mood) === fact('calm')) continue;
        expect(
          hooks[i].filter((h) => MOOD_RULES[mood].opens.includes(h.kind)).map((h) => h.rests.fact),
          mood,
        ).to.include(fact(mood));
      }
    }
  });

  it('is no other one: any two differ in more than a tenth of their lines, on average in nearly a fifth', () => {
    const differ: number[] = [];
    MOODS.forEach((a, i) =>
      MOODS.slice(i + 1).forEach((b) => {
        const each = drafts.get(a)!.map((d, k) => {
          const others = new Set(linesOf(drafts.get(b)![k]).map((l) => l.text));
          const lines = linesOf(d);
          return lines.filter((l) => !others.has(l.text)).length / lines.length;
        });
        const mean = each.reduce((n, x) => n + x, 0) / each.length;
        expect(mean, `${a} and ${b}`).to.be.greaterThan(0.1);
        differ.push(mean);
      }),
    );
    expect(differ.reduce((n, d) => n + d, 0) / differ.length).to.be.greaterThan(0.18);
  });

  it('says its rules in words', () => {
    for (const mood of MOODS) expect(moodRows(mood).join(' '), mood).to.not.match(/undefined|NaN|null| {2}/);
    expect(moodRows('warm').join(' ')).to.contain('More quotations and people, fewer figures.');
    expect(moodRows('dry').join(' ')).to.contain('Opens with a figure or a contradiction.');
  });
});
