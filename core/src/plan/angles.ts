/** Angles: what could be told of the sources, each on facts of its own. */
import { castOf, type CastMember } from '../facts/cast.ts';
import type { Fact } from '../facts/facts.ts';
import { outlineOf } from '../facts/outline.ts';
import type { Clock } from '../timing/clock.ts';
import { plainClause, undated, whyClause } from './clause.ts';
import type { FactRef } from './kept.ts';
import { isPerson, isThing } from './proposals.ts';
import { topicNoun } from './topic.ts';
import type { Tagger } from '../language/tagged.ts';
import {
  CAUSE,
  DISPUTE,
  HOW,
  TROUBLE,
  UNKNOWN,
  capital,
  explained,
  ref,
  topicOf,
  type Material,
} from './material.ts';

const ANGLES_A_TIME = 5;

export interface Angle {
  id: string;
  /** In one sentence. */
  says: string;
  facts: readonly FactRef[];
  /** What telling its facts takes. */
  ms: number;
  /** A fact in it that is far from what the source is mostly about. */
  lesserKnown: { text: string } & FactRef;
  /** What a second part could tell; null when nothing is left. */
  secondPart: { says: string; ms: number } | null;
}

interface Group {
  id: string;
  says: string;
  facts: { m: Material; f: Fact }[];
}

const people = (material: readonly Material[]): { m: Material; member: CastMember }[] =>
  material.flatMap((m) =>
    castOf(m.facts)
      .filter((c) => c.type === 'person' && isPerson(c, m.facts))
      .map((member) => ({ m, member })),
  );

/** Everything that could carry an angle, best first. */
function groups(material: readonly Material[], tagger?: Tagger): Group[] {
  const all = material.flatMap((m) => m.facts.map((f) => ({ m, f })));
  const out: Group[] = [];
  const add = (id: string, says: string, facts: Group['facts']) => {
    if (facts.length >= 2) out.push({ id, says, facts });
  };
  const holding = (test: (f: Fact) => boolean) => all.filter(({ f }) => test(f));
  const neighbours = (list: Group['facts']) => {
    const picked = new Set<Fact>();
    for (const { m, f } of list) {
      const i = m.facts.indexOf(f);
      for (const x of [m.facts[i - 1], f, m.facts[i + 1]]) if (x && x.block === f.block) picked.add(x);
    }
    return all.filter(({ f }) => picked.has(f));
  };
  const topic = tagger ? topicNoun(material[0].source, tagger) : topicOf(material[0].source);
  for (const { m, member } of people(material)) {
    const own = m.facts.filter((f) => member.facts.includes(f.id));
    add(
      `person:${m.letter}:${member.name}`,
      `Through one person: ${member.name}`,
      neighbours(own.map((f) => ({ m, f }))),
    );
  }
  const causes = holding((f) => CAUSE.test(f.text));
  const cause = causes
    .filter(({ f }) => explained(f))
    .map(({ f }) => plainClause(f))
    .find((c) => c !== null);
  add(
    'cause',
    cause ? `The question ${undated(whyClause(cause))}` : 'Why it came to this',
    neighbours(causes),
  );
  const trouble = holding((f) => TROUBLE.test(f.text));
  add('trouble', `What went wrong, and what came of it`, neighbours(trouble));
  add(
    'workings',
    `How it works, step by step`,
    holding((f) => f.type === 'step' || (HOW.test(f.text) && f.type === 'detail') || f.type === 'definition'),
  );
  const unknown = holding((f) => UNKNOWN.test(f.text) || f.modality === 'possible');
  add('unknown', 'What is known, and what nobody can say yet', neighbours(unknown));
  add('dispute', 'Who was against it, and on what grounds', neighbours(holding((f) => DISPUTE.test(f.text))));
  add(
    'figures',
    'Told by its numbers',
    holding((f) => f.numbers.length > 0 && f.parts.concrete >= 0.3),
  );
  const dated = holding((f) => f.dates.some((d) => /^\d{4}/.test(d.iso)));
  const years = dated.flatMap(({ f }) => f.dates.map((d) => d.iso.slice(0, 4))).sort();
  if (years.length && years[0] !== years.at(-1))
    add('time', `From ${years[0]} to ${years.at(-1)}, in order`, dated);
  add('words', 'In the words of those who were there', neighbours(holding((f) => f.quotes.length > 0)));
  add(
    'surprise',
    isThing(material[0].source, topic) ? `What few would expect of ${topic}` : 'What few would expect',
    neighbours(holding((f) => f.parts.surprising >= 0.45)),
  );
  for (const m of material)
    for (const part of outlineOf(m.source, m.facts))
      add(
        `part:${m.letter}:${part.id}`,
        `${capital(part.name)}`,
        m.facts.filter((f) => part.facts.includes(f.id)).map((f) => ({ m, f })),
      );
  for (const m of material) {
    const headings = new Map<string, Fact[]>();
    const blocks = new Map(m.source.blocks.map((b) => [b.id, b]));
    for (const f of m.facts) {
      const under = blocks.get(f.block)?.under;
      if (under) headings.set(under, [...(headings.get(under) ?? []), f]);
    }
    for (const [heading, facts] of headings)
      add(
        `under:${m.letter}:${heading}`,
        `“${heading}” alone`,
        facts.map((f) => ({ m, f })),
      );
  }
  return out;
}

const weight = (g: Group) => {
  const strength =
    g.facts.reduce((n, { f }) => n + f.strength + 0.4 * f.parts.surprising, 0) / g.facts.length;
  return (
    strength *
    Math.min(1, g.facts.length / 5) *
    (g.id.startsWith('person')
      ? 1.25
      : /^(?:cause|trouble|dispute|unknown)$/.test(g.id)
        ? 1.2
        : /^(?:part|under|figures)/.test(g.id)
          ? 0.8
          : 1)
  );
};

/** Angles five at a time; `page` 1 is the next five. Two angles never rest on nearly the same facts. */
export function anglesOf(material: readonly Material[], clock: Clock, page = 0, tagger?: Tagger): Angle[] {
  const ranked = groups(material, tagger)
    .map((g) => ({ g, w: weight(g) }))
    .sort((a, b) => b.w - a.w || (a.g.id < b.g.id ? -1 : 1));
  const kept: Group[] = [];
  const sameFacts = (a: Group, b: Group) => {
    const ids = new Set(a.facts.map(({ f }) => f));
    const shared = b.facts.filter(({ f }) => ids.has(f)).length;
    return (
      shared / Math.min(a.facts.length, b.facts.length) > 0.8 &&
      a.facts.length / b.facts.length < 1.6 &&
      b.facts.length / a.facts.length < 1.6
    );
  };
  for (const { g } of ranked) if (!kept.some((k) => sameFacts(k, g))) kept.push(g);
  const ms = (facts: Group['facts']) => facts.reduce((n, { f }) => n + clock.time(f.text).ms, 0);
  return kept.slice(page * ANGLES_A_TIME, (page + 1) * ANGLES_A_TIME).map((g): Angle => {
    const lesser =
      [...g.facts]
        .sort(
          (a, b) =>
            a.f.parts.central + a.f.parts.title - (b.f.parts.central + b.f.parts.title) ||
            b.f.parts.concrete - a.f.parts.concrete,
        )
        .find(({ f }) => f.parts.concrete > 0 || f.parts.surprising > 0) ?? g.facts[0];
    const own = new Set(g.facts.map(({ f }) => f));
    const next = kept
      .filter((k) => k !== g)
      .map((k) => ({ k, left: k.facts.filter(({ f }) => !own.has(f)) }))
      .sort((a, b) => b.left.length - a.left.length)[0];
    return {
      id: g.id,
      says: g.says,
      facts: g.facts.map(({ m, f }) => ref(m, f)),
      ms: ms(g.facts),
      lesserKnown: { text: lesser.f.text, ...ref(lesser.m, lesser.f) },
      secondPart: next && next.left.length >= 3 ? { says: next.k.says, ms: ms(next.left) } : null,
    };
  });
}
