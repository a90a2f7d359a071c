/** Titles: proposed from facts, each with its reasons; one the writer typed is checked the same way. */
import { castOf } from '../facts/cast.ts';
import { stems } from '../facts/centrality.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import type { Fact } from '../facts/facts.ts';
import type { Tagger } from '../language/tagged.ts';
import { plainClause, thatPhrase, undated, whyClause, whyQuestion, type PlainClause } from './clause.ts';
import type { FactRef } from './kept.ts';
import {
  CAUSE,
  HOW,
  TENSION,
  TROUBLE,
  UNKNOWN,
  capital,
  explained,
  factOf,
  ref,
  topicOf,
  type Material,
} from './material.ts';

export const LONGEST_TITLE = 60;
/** A phone shows about this many letters of a title in a list (common practice, no published source). */
const PHONE_LETTERS = 42;
const TITLES = 10;
/** So many of one kind, and on one fact: ten titles should be ten. */
const MOST_OF_A_KIND = 3;
const MOST_ON_A_FACT = 2;

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

/** A title that could be made, and what it rests on. */
interface Proposal {
  text: string;
  fact: Fact;
  /** What it promises, in words. */
  kind: string;
}

/** Why, a question, a thing and what it does, a statement: from a fact's own clause. */
function fromClause(fact: Fact, tagger: Tagger): Proposal[] {
  const clause = plainClause(fact);
  if (!clause) return [];
  const short: PlainClause = {
    ...clause,
    object: undated(clause.object).split(/, | (?:when|after|before|while|although|that|which|who) /)[0],
  };
  const tense = short.object.split(' ').length > 1 && TENSION.test(`${short.verb} ${short.object}`);
  const reason = explained(fact) && !/^(?:may|might|could)\b/.test(clause.verb);
  const found: [string | null, string][] = [
    [reason ? whyClause(short) : null, 'a reason'],
    [reason ? whyQuestion(short, tagger) : null, 'a question'],
    [thatPhrase(short), 'a thing and what it does'],
    [tense ? `${short.subject} ${short.verb} ${short.object}` : null, 'a statement'],
  ];
  return found.flatMap(([text, kind]) => (text ? [{ text, fact, kind }] : []));
}

const MEASURES =
  /^(?:years|months|weeks|days|hours|minutes|seconds|metres|grams|cents|kilometres|centimetres|tonnes|litres|miles|pounds|percent|%)$/;

/** A number with what it counts; in a study, how many were looked at. */
function fromNumbers(fact: Fact, topic: string, study: boolean): Proposal[] {
  return fact.numbers.flatMap((n): Proposal[] => {
    if (!n.unit || n.value <= 3) return [];
    const counted = n.text.includes(n.unit) ? n.text : `${n.text} ${n.unit}`;
    if (study)
      return n.value >= 5 && /^\p{L}+s$/u.test(n.unit) && !MEASURES.test(n.unit)
        ? [{ text: `What ${counted} showed`, fact, kind: 'a number' }]
        : [];
    return topic.length <= 26 && !/percent|%|[£$€]/.test(n.unit) && fact.strength > 0.2
      ? [{ text: `${capital(counted)}: ${topic}`, fact, kind: 'a number' }]
      : [];
  });
}

const LONGEST_QUOTE = 8;

function fromFact(fact: Fact, m: Material, tagger: Tagger): Proposal[] {
  const topic = topicOf(m.source);
  const named = /^(?:the|an?)\s/i.test(topic) ? topic[0].toLowerCase() + topic.slice(1) : topic;
  const place = fact.names.find((n) => n.type === 'place');
  return [
    ...fromClause(fact, tagger),
    ...fromNumbers(fact, topic, m.source.kind === 'abstract'),
    ...fact.quotes
      .filter((q) => q.text.split(' ').length <= LONGEST_QUOTE)
      .map((q) => ({ text: `“${q.text.replace(/[.,]$/, '')}”`, fact, kind: 'somebody’s words' })),
    ...(UNKNOWN.test(fact.text)
      ? [{ text: `What nobody knows about ${named}`, fact, kind: 'what is not known' }]
      : []),
    ...(place && TROUBLE.test(fact.text)
      ? [{ text: `What happened at ${place.text}`, fact, kind: 'a place' }]
      : []),
  ];
}

/** From the source as a whole: its own title, its people, what went wrong, how it works, a guide's task. */
function fromSource(m: Material, tagger: Tagger): Proposal[] {
  const { source, facts } = m;
  const [lead] = [...facts].sort((a, b) => b.strength - a.strength);
  if (!lead) return [];
  const topic = topicOf(source);
  const cuts = [/, and |: | – | — /, / (?:after|when|while|because) /].map((at) => source.title.split(at)[0]);
  const noun = tagger(source.title)
    .find((t, i, all) => t.pos === 'NOUN' && all[i + 1]?.pos !== 'NOUN' && t.text === t.lemma)
    ?.text.toLowerCase();
  const people = castOf(facts)
    .filter((c) => c.type === 'person' && / /.test(c.name) && !/^\p{Lu}\. /u.test(c.name))
    .slice(0, 3);
  const wrong = facts.find((f) => TROUBLE.test(f.text) && f.dates.some((d) => /^\d{4}/.test(d.iso)));
  const unknown = facts.find((f) => UNKNOWN.test(f.text));
  const works =
    source.kind === 'encyclopedia' ? facts.find((f) => HOW.test(f.text) && f.type !== 'step') : undefined;
  return [
    { text: source.title, fact: lead, kind: 'the source’s own' },
    ...cuts
      .filter((part) => part !== source.title && part.split(' ').length >= 4)
      .map((text) => ({ text, fact: lead, kind: 'the source’s own, cut short' })),
    ...people.flatMap((c) => {
      const fact = facts.find((f) => c.facts.includes(f.id));
      return noun && fact ? [{ text: `${c.name} and the ${noun}`, fact, kind: 'a person' }] : [];
    }),
    ...(wrong ? [{ text: `${topic}: what went wrong`, fact: wrong, kind: 'a day it went wrong' }] : []),
    ...(unknown && topic.length < 40
      ? [{ text: `${topic}: what is known`, fact: unknown, kind: 'what is known and what is not' }]
      : []),
    ...(works && topic.length < 40
      ? [{ text: `How the ${topic.replace(/^the /i, '')} works`, fact: works, kind: 'how it works' }]
      : []),
    ...fromGuide(m, lead),
  ];
}

function fromGuide({ source, facts }: Material, lead: Fact): Proposal[] {
  const task = source.kind === 'howto' ? /^how to\s+(\S.*)$/i.exec(source.title)?.[1] : undefined;
  if (!task) return [];
  const steps = Math.max(0, ...facts.map((f) => f.step ?? 0));
  const warning = facts.find((f) => f.type === 'warning');
  const reason = facts.find((f) => CAUSE.test(f.text));
  const tools = source.blocks.filter(
    (b) => b.type === 'item' && !b.step && /\bneed|tools?\b/i.test(b.under ?? ''),
  );
  return [
    { text: `${task}, step by step`, fact: lead, kind: 'the task' },
    ...(steps > 2
      ? [{ text: `${task} in ${steps} steps`, fact: facts.find((f) => f.step)!, kind: 'the task' }]
      : []),
    ...(reason
      ? [{ text: `${task}, and why each step matters`, fact: reason, kind: 'the task and its reasons' }]
      : []),
    { text: `Before you ${task}`, fact: warning ?? lead, kind: 'what to know first' },
    ...tools.slice(0, 3).map((t) => ({
      text: `${task} with ${t.text.replace(/\(.*?\)/g, '').trim()}`,
      fact: facts.find((f) => f.block === t.id) ?? lead,
      kind: 'a tool',
    })),
    ...(warning
      ? [{ text: `${task} without the usual mistake`, fact: warning, kind: 'the task and its trap' }]
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
  text.length >= 8 && text.length < LONGEST_TITLE && !POINTS.test(text) && !/[()]/.test(text);

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
    (kind === 'a number' ? 0.25 : 0) -
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
    for (const p of [...fromSource(m, tagger), ...m.facts.flatMap((f) => fromFact(f, m, tagger))]) {
      const text = tidied(p.text);
      if (usable(text) && !all.has(text)) all.set(text, rated({ ...p, text }, m, material, tagger));
    }
  let left = [...all.values()].sort((a, b) => b.score - a.score || (a.text < b.text ? -1 : 1));
  let ten = firstTen(left, material);
  for (let n = 1; n < seed; n++) {
    left = left.filter((t) => !ten.includes(t));
    const next = firstTen(left, material);
    if (!next.length) break;
    ten = next;
  }
  return ten.map((t, i) => ({ ...t, recommended: i === 0 }));
}

/** The best of them, few of a kind and few on a fact, none that would be refused from a writer. */
function firstTen(titles: readonly Title[], material: readonly Material[]): Title[] {
  const check = titleChecker(material);
  const seen = new Map<string, number>();
  const count = (key: string) => {
    seen.set(key, (seen.get(key) ?? 0) + 1);
    return seen.get(key)!;
  };
  return titles
    .filter(
      (t) =>
        count(t.reasons[0]) <= MOST_OF_A_KIND && count(`${t.pays.source}:${t.pays.fact}`) <= MOST_ON_A_FACT,
    )
    .filter((t) => check(t.text).paid)
    .slice(0, TITLES);
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

const FILLER = new Set(
  stems(
    'how why what when where who the a an and or of in on at to for from with by is are was were be been it its this that step story truth really inside behind every one day ever about happened nobody knows most people',
  ),
);

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
    const words = stems(text).filter((s) => !FILLER.has(s));
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

const isTitleCase = (text: string) => {
  const words = text.split(/\s+/).filter((w) => /^\p{L}{4,}/u.test(w));
  return words.length > 2 && words.every((w) => /^\p{Lu}/u.test(w));
};
const list = (items: readonly string[]) =>
  items.length > 1 ? `${items.slice(0, -1).join(', ')} or ${items.at(-1)}` : items[0];
