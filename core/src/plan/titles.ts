/** Titles: proposed from facts, each with its reasons; one the writer typed is checked the same way. */
import { stems } from '../facts/centrality.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import type { Fact } from '../facts/facts.ts';
import type { Tagger } from '../language/tagged.ts';
import { plainClause, undated, whyClause } from './clause.ts';
import type { FactRef } from './kept.ts';
import {
  TENSION,
  capital,
  claimedStems,
  explained,
  factOf,
  ref,
  topicOf,
  type Material,
} from './material.ts';
import { isTitleCase } from './topic.ts';
import { LOOSE_END, proposalsOf, type Proposal } from './proposals.ts';

export const LONGEST_TITLE = 60;
/** A phone shows about this many letters of a title in a list (common practice, no published source). */
const PHONE_LETTERS = 42;
const TITLES = 10;
/** So many of one kind, and on one fact: ten titles should be ten. */
const MOST_OF_A_KIND = 3;
const MOST_ON_A_FACT = 2;
const MOST_OF: Readonly<Record<string, number>> = { 'a number': 1, 'a statement': 2 };

export interface Title {
  text: string;
  /** The fact that pays for it. */
  pays: FactRef;
  /** In computed terms. */
  reasons: readonly string[];
  letters: number;
  /** What the title must not claim. */
  mustNot: readonly string[];
  score: number;
  recommended: boolean;
  /** What a script under it must make good. */
  sentence: string;
}

/** What a title on this fact must not say. */
export function mustNotClaim(fact: Fact): string[] {
  return [
    ...(fact.modality === 'possible'
      ? [`that it is so: the source says “${fact.hedges[0]?.text ?? 'may'}”`]
      : []),
    ...(fact.modality === 'likely'
      ? [`that it is certain: the source says “${fact.hedges[0]?.text ?? 'probably'}”`]
      : []),
    ...(/\b(?:about|around|nearly|almost|more than|over|some)\s+\d/i.test(fact.text)
      ? ['an exact number: the source gives it roughly']
      : []),
    ...(fact.attribution ? [`it as a plain fact: ${fact.attribution.text} says so`] : []),
    ...(/\b(?:only one|small sample|in one|limitation)\b/i.test(fact.text)
      ? ['more than this one case']
      : []),
  ];
}

/** Pronouns point at nothing in a title. */
const POINTS = /\b(?:they|them|this|these|those|he|she|his|her|their|its|it)\b/i;
const tidied = (text: string) =>
  capital(
    undated(text)
      .replace(/\s+/g, ' ')
      .replace(/[.,;:]$/, '')
      .trim(),
  );
const usable = (text: string) =>
  text.length >= 8 &&
  text.length < LONGEST_TITLE &&
  !LOOSE_END.test(text.replace(/\?$/, '')) &&
  !/\b(?:the|an?) that\b/.test(text) &&
  !POINTS.test(text) &&
  !/[()]/.test(text);

/** What can be seen: a noun that is no quality, deed or measure by its ending, nor one of the commonest that aren't. */
const SEEN_NOT =
  /(?:tion|sion|ness|ment|ity|ance|ence|ism|ship|hood|ure|ing|age|th|cy)$|^(?:way|time|thing|reason|number|part|kind|day|year|week|month|hour|minute|cause|case|idea|fact|work|life|story|end|side|question|answer|trouble|problem|effect|error|study|trial|step|mistake|task|use|cost|price|loss|gain|change|result|rule|plan|test|run)$/;
const seenIn = (text: string, tagger: Tagger): string | null =>
  tagger(text)
    .find((t) => t.pos === 'NOUN' && !SEEN_NOT.test(t.lemma))
    ?.text.toLowerCase() ?? null;

function rated(
  { text, fact, kind }: Proposal,
  m: Material,
  material: readonly Material[],
  tagger: Tagger,
): Title {
  const number = numbersIn(text).length > 0;
  const seen = seenIn(text, tagger);
  const tension = TENSION.exec(text)?.[0] ?? null;
  const letters = [...text].length;
  const fits = letters <= PHONE_LETTERS;
  const mustNot = mustNotClaim(fact);
  const score =
    fact.strength +
    (number ? 0.15 : 0) +
    (seen ? 0.2 : 0) +
    (tension ? 0.25 : 0) +
    (fits ? 0.15 : 0) +
    (/^Why |\?$/.test(text) ? 0.15 : 0) -
    mustNot.length * 0.12 -
    (kind === 'the source’s own' ? 0.2 : kind === 'a thing and what it does' ? 0.12 : 0) -
    (kind === 'a number' ? 0.45 : kind === 'a sentence of its own' ? 0.4 : 0) -
    (kind === 'a day it went wrong' || kind === 'a statement' ? 0.3 : 0) +
    (kind === 'how it came about' || kind === 'a person and what they did' ? 0.15 : 0) -
    (kind === 'a place' || kind === 'what is not known' ? 0.1 : 0);
  return {
    text,
    pays: ref(m, fact),
    reasons: [
      `promises ${kind}`,
      ...(seen ? [`something to see: ${seen}`] : []),
      ...(number ? ['a number'] : []),
      ...(tension ? [`tension in “${tension.toLowerCase()}”`] : []),
      fits ? 'whole on a phone' : `cut after ${PHONE_LETTERS} letters on a phone`,
    ],
    letters,
    mustNot,
    score: Math.round(score * 1000) / 1000,
    recommended: false,
    sentence: promiseSentence(material, ref(m, fact)),
  };
}

/** Ten titles with reasons, the best recommended; `seed` 2 gives the ten behind them, and so on round until none is left. */
export function titlesOf(material: readonly Material[], tagger: Tagger, seed = 1): Title[] {
  const all = new Map<string, Title>();
  for (const m of material)
    for (const p of proposalsOf(m, tagger)) {
      const text = tidied(p.text);
      if (usable(text) && !all.has(text)) all.set(text, rated({ ...p, text }, m, material, tagger));
    }
  let left = [...all.values()]
    .filter((t) => t.score > 0)
    .sort((a, b) => b.score - a.score || (a.text < b.text ? -1 : 1));
  let ten = firstTen(left, material);
  for (let n = 1; n < seed; n++) {
    left = left.filter((t) => !ten.includes(t));
    const next = firstTen(left, material);
    if (!next.length) break;
    ten = next;
  }
  return ten.map((t, i) => ({ ...t, recommended: i === 0 }));
}

/** Above this share of the same words, of all words of both, two titles are one. */
const ALIKE = 0.6;

/** The best of them, few of a kind and few on a fact, no two alike, none that would be refused from a writer. */
function firstTen(titles: readonly Title[], material: readonly Material[]): Title[] {
  const check = titleChecker(material);
  const seen = new Map<string, number>();
  const kept: { title: Title; words: Set<string> }[] = [];
  for (const title of titles) {
    if (kept.length === TITLES) break;
    const [kind, fact] = [title.reasons[0], `${title.pays.source}:${title.pays.fact}`];
    const words = new Set(stems(title.text));
    const alike = kept.some((k) => {
      const shared = [...words].filter((w) => k.words.has(w)).length;
      return shared / Math.max(1, words.size + k.words.size - shared) > ALIKE;
    });
    if (
      alike ||
      (seen.get(kind) ?? 0) >= (MOST_OF[kind.replace('promises ', '')] ?? MOST_OF_A_KIND) ||
      (seen.get(fact) ?? 0) >= MOST_ON_A_FACT ||
      !check(title.text).paid
    )
      continue;
    for (const key of [kind, fact]) seen.set(key, (seen.get(key) ?? 0) + 1);
    kept.push({ title, words });
  }
  return kept.map((k) => k.title);
}

/** The one sentence a script must make good. */
export function promiseSentence(material: readonly Material[], pays: FactRef): string {
  const f = factOf(material, pays);
  if (!f) return '';
  const guide = material.find((m) => m.letter === pays.source && m.source.kind === 'howto');
  if (guide)
    return `Afterwards the listener can ${topicOf(guide.source)[0].toLowerCase()}${topicOf(guide.source).slice(1)}.`;
  const c = plainClause(f);
  if (c && explained(f)) return `The listener learns ${whyClause({ ...c, object: undated(c.object) })}.`;
  const text = f.text.replace(/[.!?]$/, '');
  if (f.quotes.length)
    return `The listener learns who said “${f.quotes[0].text.replace(/[.,]$/, '')}”, and why.`;
  const named = /^I\b/.test(text) || f.names.some((n) => n.start === 0);
  return `The listener learns that ${named ? text : text[0].toLowerCase() + text.slice(1)}.`;
}

export type TitleCheck = { paid: true; pays: FactRef; mustNot: string[] } | { paid: false; why: string };

/** Whether the sources can pay for a title the writer typed; the reason when they can't. */
export const checkTitle = (title: string, material: readonly Material[]): TitleCheck =>
  titleChecker(material)(title);

/** The same for many titles: the sources are gone through once. */
function titleChecker(material: readonly Material[]): (title: string) => TitleCheck {
  const whole = material.map((m) => `${m.source.title}\n${m.source.text}`).join('\n');
  const lower = whole.toLowerCase();
  const values = new Set([
    ...numbersIn(whole).map((n) => n.value),
    ...datesIn(whole).flatMap((d) => d.iso.split('-').map(Number)),
  ]);
  const facts = material.flatMap((m) => {
    const [title, own] = [stems(m.source.title), m.facts.map((f) => stems(f.text))];
    return m.facts.map((f, i) => ({
      m,
      f,
      near: new Set([...title, ...(own[i - 1] ?? []), ...own[i], ...(own[i + 1] ?? [])]),
      own: new Set(own[i]),
    }));
  });
  return (title) => {
    const text = title.trim();
    if ([...text].length > LONGEST_TITLE)
      return {
        paid: false,
        why: `It has ${[...text].length} letters; a title has at most ${LONGEST_TITLE}.`,
      };
    const number = [
      ...numbersIn(text),
      ...datesIn(text).map((d) => ({ text: d.text, value: Number(d.iso.slice(0, 4)) })),
    ].find((n) => !values.has(n.value));
    if (number) return { paid: false, why: `No source has ${number.text}.` };
    const name = [...text.matchAll(/(?<=\S )\p{Lu}[\p{L}’'-]+/gu)]
      .map((m) => m[0].replace(/[’']s$/, ''))
      .find((n) => !lower.includes(n.toLowerCase()) && text !== text.toUpperCase());
    if (name && !isTitleCase(text)) return { paid: false, why: `No source names ${name}.` };
    const words = claimedStems(text);
    const best = facts
      .map((x) => ({
        ...x,
        hit: words.filter((w) => x.near.has(w)).length + 0.5 * words.filter((w) => x.own.has(w)).length,
      }))
      .sort((a, b) => b.hit - a.hit || b.f.strength - a.f.strength)[0];
    if (!best || !words.length) return { paid: false, why: 'It promises nothing that a fact could pay for.' };
    const missing = words.filter((w) => !best.near.has(w));
    if (missing.length > words.length / 2) {
      const shown = text.split(/[^\p{L}\p{N}’'-]+/u).filter((w) => stems(w).some((s) => missing.includes(s)));
      return {
        paid: false,
        why: `No fact says anything of ${list(shown.slice(0, 3).map((w) => `“${w.toLowerCase()}”`))}.`,
      };
    }
    const superlative =
      /\b(?:biggest|largest|worst|best|oldest|first|last|only|most|deadliest|greatest|fastest)\b/i.exec(
        text,
      )?.[0];
    if (superlative && !new RegExp(`\\b${superlative}\\b`, 'i').test(whole))
      return { paid: false, why: `No source says “${superlative.toLowerCase()}”.` };
    return { paid: true, pays: ref(best.m, best.f), mustNot: mustNotClaim(best.f) };
  };
}

const list = (items: readonly string[]) =>
  items.length > 1 ? `${items.slice(0, -1).join(', ')} or ${items.at(-1)}` : items[0];
