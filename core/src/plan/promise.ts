/**
 * The promise, before any script: angles, titles, the title picture, and the one sentence the script must make good.
 * Everything in it rests on facts; what no fact pays for is refused.
 */
import { castOf, type CastMember } from '../facts/cast.ts';
import { stems } from '../facts/centrality.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import type { Fact } from '../facts/facts.ts';
import { outlineOf } from '../facts/outline.ts';
import type { Tagger } from '../language/tagged.ts';
import type { SourceDocument } from '../source/document.ts';
import type { Clock } from '../timing/clock.ts';
import type { FactRef } from './kept.ts';
import { plainClause, thatPhrase, undated, whyClause, whyQuestion, type PlainClause } from './clause.ts';

/** A source with its facts, under its letter. */
export interface Material {
  letter: string;
  source: SourceDocument;
  facts: readonly Fact[];
}

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

export interface PictureIdea {
  /** What is in it, in the source's words. */
  shows: string;
  /** At most four words on it. */
  words: string;
  pays: FactRef;
}

export interface PromiseIdeas {
  angles: readonly Angle[];
  titles: readonly Title[];
  pictures: readonly PictureIdea[];
  /** The sentence a script under the recommended title must make good. */
  sentence: string;
}

export const LONGEST_TITLE = 60;
/** A phone shows about this many letters of a title in a list (common practice, no published source). */
const PHONE_LETTERS = 42;
const ANGLES_A_TIME = 5;
const TITLES = 10;
const WORDS_ON_PICTURE = 4;
/** A fact that is told takes about this share of its reading time longer with rests. */
const TENSION =
  /\b(?:but|not|no|never|nobody|without|only|until|failed|broke|broken|lost|wrong|refused|closed|shut|stopped|vanished|stuck|against|instead|still|last|first|secret|died|killed|missing|stolen|angry|ashamed|alone)\b/i;
const TROUBLE =
  /\b(?:failed|broke|broken|parted|collapsed?|fire|flood(?:ed)?|wreck(?:ed)?|lost|closed|shut|died|killed|stuck|stopped|missing|wrong|trouble|accident|refused|drowned|burned|slack|cracked?|swayed)\b/i;
const CAUSE = /\b(?:because|since it|due to|as a result|that is why|the reason|so that)\b/i;
const UNKNOWN =
  /\b(?:not (?:yet )?(?:known|clear|decided|settled)|unknown|unclear|nobody (?:knows|has found)|has not said)\b/i;
const DISPUTE =
  /\b(?:disputed?|argue[ds]?|critics?|opposed|rejected|denied|disagree\w*|warned|complain\w*|angry|not everyone|turned down|refused)\b/i;
const HOW = /\b(?:works?|worked|by means of|pulls?|turns?|pushes|lets?|opens?|through|so that|each|both)\b/i;

/** Whether a fact gives the reason for its own main clause: the clause stands before the "because". */
export function explained(f: Fact): boolean {
  const at = /,? \b(?:because|since it|due to)\b/i.exec(f.text)?.index ?? -1;
  const end = f.statement?.object?.end ?? f.statement?.verb.end ?? Infinity;
  return at > 0 && (f.statement?.verb.end ?? Infinity) <= at && end <= at + 12;
}

const ref = (m: Material, f: Fact): FactRef => ({ source: m.letter, fact: f.id });
const capital = (text: string) => text[0].toUpperCase() + text.slice(1);
const shorten = (text: string, most: number) => {
  if (text.length <= most) return text;
  const cut = text.slice(0, most).replace(/\s+\S*$/, '');
  return cut.replace(/[,;:]?\s+(?:and|or|of|the|a|an|in|on|to|by|for|with|that|which|at|from)$/i, '');
};

interface Group {
  id: string;
  says: string;
  facts: { m: Material; f: Fact }[];
}

/** The subject a source is about, as one would name it: its title without what comes after a colon, or its central noun phrase. */
export function topicOf(source: SourceDocument): string {
  const title = source.title
    .replace(/^How to /i, '')
    .split(/[:–—|]/)[0]
    .trim();
  return title.length <= 50 ? title : shorten(title, 50);
}

const people = (material: readonly Material[]): { m: Material; member: CastMember }[] =>
  material.flatMap((m) =>
    castOf(m.facts)
      .filter((c) => c.type === 'person')
      .map((member) => ({ m, member })),
  );

/** Everything that could carry an angle, best first. */
function groups(material: readonly Material[]): Group[] {
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
  const topic = topicOf(material[0].source);
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
    `What few would expect of ${/^(?:the|a|an)\s/i.test(topic) ? topic[0].toLowerCase() + topic.slice(1) : topic}`,
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
export function anglesOf(material: readonly Material[], clock: Clock, page = 0): Angle[] {
  const ranked = groups(material)
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

const CONCRETE =
  /\b(?:bridge|lift|boat|ship|clock|well|lamp|door|house|wall|chain|link|ring|letter|book|piano|bus|train|tower|wheel|rope|cable|stone|water|river|fish|eel|bird|knife|window|key|box|roof|road|mill|engine|tin|felt|fork|fence|seed|tomato|violin|cricket|hedgehog|pharmacist|bell|shutter|fog|leg|ladder|bank|street|garden|library|ferry|glass|wood|iron|money|coin|gun|map|tree|dog|cat|horse|child|woman|man|nurse|keeper|skipper|owner)s?\b/i;

/** Ten titles with reasons, the best recommended. `seed` turns the order among equals. */
export function titlesOf(material: readonly Material[], tagger: Tagger, seed = 1): Title[] {
  const found = new Map<string, { m: Material; f: Fact; kind: string }>();
  const add = (text: string | null, m: Material, f: Fact, kind: string) => {
    if (!text) return;
    const clean = capital(
      undated(text)
        .replace(/\s+/g, ' ')
        .replace(/[.,;:]$/, '')
        .trim(),
    );
    if (
      clean.length < 8 ||
      clean.length >= LONGEST_TITLE ||
      /\b(?:it|they|them|this|these|those|he|she|his|her|their|its)\b/i.test(
        clean.replace(/^(?:It|They|This) /, 'x '),
      )
    )
      return;
    if (!found.has(clean)) found.set(clean, { m, f, kind });
  };
  for (const m of material) {
    const lead = [...m.facts].sort((a, b) => b.strength - a.strength)[0];
    if (!lead) continue;
    add(m.source.title, m, lead, 'the source’s own');
    // Its first clause, where the whole is too long.
    for (const part of [
      m.source.title.split(/, and |: | – | — /)[0],
      m.source.title.split(/ (?:after|when|while|because) /)[0],
    ])
      if (part !== m.source.title && part.split(' ').length >= 4)
        add(part, m, lead, 'the source’s own, cut short');
    const topic = topicOf(m.source);
    const named = /^(?:the|an?)\s/i.test(topic) ? topic : null;
    for (const f of m.facts) {
      const c = plainClause(f);
      if (c) {
        const short: PlainClause = {
          ...c,
          object: undated(c.object).split(/, | (?:when|after|before|while|although|that|which|who) /)[0],
        };
        if (explained(f) && !/^(?:may|might|could)\b/.test(c.verb)) {
          add(capital(whyClause(short)), m, f, 'a reason');
          add(whyQuestion(short, tagger), m, f, 'a question');
        }
        add(thatPhrase(short), m, f, 'a thing and what it does');
        if (short.object.split(' ').length > 1 && TENSION.test(`${short.verb} ${short.object}`))
          add(`${short.subject} ${short.verb} ${short.object}`, m, f, 'a statement');
        if (/^to\b|^by\b/.test(short.object) || f.type === 'step') add(null, m, f, '');
      }
      for (const n of f.numbers) {
        const noun = /^\s(?:\p{Ll}+\s){0,1}\p{Ll}{3,}/u.exec(f.text.slice(n.end))?.[0].trim();
        if (
          n.unit &&
          noun &&
          n.value > 3 &&
          topic.length <= 26 &&
          !/percent|%/.test(n.unit) &&
          f.strength > 0.2
        )
          add(
            `${capital(n.text)}${n.text.endsWith(noun) ? '' : ` ${noun.split(' ')[0] === n.unit ? n.unit : n.text.includes(n.unit) ? '' : noun}`}: ${topic}`.replace(
              / :/,
              ':',
            ),
            m,
            f,
            'a number',
          );
      }
      const sample = f.numbers.find(
        (n) =>
          n.unit &&
          n.value >= 5 &&
          /^\p{L}+s$/u.test(n.unit) &&
          !/^(?:years|months|weeks|days|hours|minutes|seconds|metres|grams|cents|kilometres|miles|pounds)$/.test(
            n.unit,
          ),
      );
      if (m.source.kind === 'abstract' && sample)
        add(
          `What ${sample.text.includes(sample.unit!) ? sample.text : `${sample.text} ${sample.unit}`} showed`,
          m,
          f,
          'a number',
        );
      for (const q of f.quotes)
        if (q.text.split(' ').length <= 8) add(`“${q.text.replace(/[.,]$/, '')}”`, m, f, 'somebody’s words');
      if (UNKNOWN.test(f.text))
        add(
          `What nobody knows about ${named ? named[0].toLowerCase() + named.slice(1) : topic}`,
          m,
          f,
          'what is not known',
        );
      if (TROUBLE.test(f.text) && f.names.some((n) => n.type === 'place'))
        add(`What happened at ${f.names.find((n) => n.type === 'place')!.text}`, m, f, 'a place');
    }
    for (const member of castOf(m.facts)
      .filter((x) => x.type === 'person')
      .slice(0, 3)) {
      const f = m.facts.find((x) => member.facts.includes(x.id))!;
      const noun = tagger(m.source.title)
        .find((t, i, all) => t.pos === 'NOUN' && all[i + 1]?.pos !== 'NOUN' && t.text === t.lemma)
        ?.text.toLowerCase();
      if (noun && / /.test(member.name) && !/^\p{Lu}\. /u.test(member.name))
        add(`${member.name} and the ${noun}`, m, f, 'a person');
    }
    const years = m.facts
      .flatMap((f) => f.dates.map((d) => ({ f, y: d.iso.slice(0, 4) })))
      .filter((x) => /^\d{4}$/.test(x.y) && TROUBLE.test(x.f.text));
    if (years[0]) add(`${topic}: what went wrong`, m, years[0].f, 'a day it went wrong');
    if (m.facts.some((f) => UNKNOWN.test(f.text)) && topic.length < 40)
      add(
        `${topic}: what is known`,
        m,
        m.facts.find((f) => UNKNOWN.test(f.text))!,
        'what is known and what is not',
      );
    const working = m.facts.find((f) => HOW.test(f.text) && f.type !== 'step');
    if (m.source.kind === 'encyclopedia' && working && topic.length < 40)
      add(
        `How the ${topic[0]}${topic.slice(1)} works`.replace(/the the/i, 'the'),
        m,
        working,
        'how it works',
      );
    const how = m.source.kind === 'howto' ? /^(?:how to\s+)(.+)$/i.exec(m.source.title)?.[1] : null;
    if (how) {
      const warning = m.facts.find((x) => x.type === 'warning');
      const steps = Math.max(0, ...m.facts.map((x) => x.step ?? 0));
      const reason = m.facts.find((x) => CAUSE.test(x.text));
      add(`${capital(how)}, step by step`, m, lead, 'the task');
      if (steps > 2)
        add(
          `${capital(how)} in ${steps} steps`,
          m,
          m.facts.find((x) => x.step)!,
          'the task',
        );
      if (reason) add(`${capital(how)}, and why each step matters`, m, reason, 'the task and its reasons');
      add(`Before you ${how}`, m, warning ?? lead, 'what to know first');
      for (const tool of m.source.blocks
        .filter((b) => b.type === 'item' && !b.step && /\bneed|tools?\b/i.test(b.under ?? ''))
        .slice(0, 3))
        add(
          `${capital(how)} with ${tool.text.replace(/\(.*?\)/g, '').trim()}`,
          m,
          m.facts.find((x) => x.block === tool.id) ?? lead,
          'a tool',
        );
      if (warning) add(`${capital(how)} without the usual mistake`, m, warning, 'the task and its trap');
    }
  }
  const rated = [...found].map(([text, { m, f, kind }]): Title => {
    const number = numbersIn(text).length > 0;
    const concrete = CONCRETE.exec(text)?.[0] ?? null;
    const tension = TENSION.exec(text)?.[0] ?? null;
    const letters = [...text].length;
    const fits = letters <= PHONE_LETTERS;
    const score =
      f.strength +
      (number ? 0.15 : 0) +
      (concrete ? 0.2 : 0) +
      (tension ? 0.25 : 0) +
      (fits ? 0.15 : 0) +
      (/^Why |\?$/.test(text) ? 0.15 : 0) -
      mustNotClaim(f).length * 0.12 -
      (kind.startsWith('the source’s own') ? 0.2 : 0) -
      (kind === 'a number' ? 0.25 : 0) -
      (/^What (?:happened|nobody)/.test(text) ? 0.1 : 0);
    return {
      text,
      pays: ref(m, f),
      reasons: [
        `promises ${kind}`,
        ...(concrete ? [`something to see: ${concrete.toLowerCase()}`] : []),
        ...(number ? ['a number'] : []),
        ...(tension ? [`tension in “${tension.toLowerCase()}”`] : []),
        fits ? 'whole on a phone' : `cut after ${PHONE_LETTERS} letters on a phone`,
      ],
      letters,
      mustNot: mustNotClaim(f),
      score: Math.round(score * 1000) / 1000,
      recommended: false,
      sentence: promiseSentence(material, ref(m, f)),
    };
  });
  // What would be refused from a writer is not proposed to one.
  // At most three of a kind, so that ten are ten.
  const kinds = new Map<string, number>();
  const facts = new Map<string, number>();
  const turn = (t: Title) => (((t.text.length * 31 + seed * 17) % 97) / 97) * 0.02;
  const chosen = rated
    .sort((a, b) => b.score + turn(b) - (a.score + turn(a)) || (a.text < b.text ? -1 : 1))
    .filter((t) => {
      const kind = t.reasons[0];
      kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
      const fact = `${t.pays.source}:${t.pays.fact}`;
      facts.set(fact, (facts.get(fact) ?? 0) + 1);
      return kinds.get(kind)! <= 3 && facts.get(fact)! <= 2;
    })
    .filter((t) => checkTitle(t.text, material).paid)
    .slice(0, TITLES);
  return chosen.map((t, i) => ({ ...t, recommended: i === 0 }));
}

/** Pictures for the title image: one thing or person, and at most four words that are in the fact. */
export function picturesOf(material: readonly Material[], titles: readonly Title[]): PictureIdea[] {
  const out: PictureIdea[] = [];
  for (const title of titles) {
    const m = material.find((x) => x.letter === title.pays.source)!;
    const f = m.facts.find((x) => x.id === title.pays.fact)!;
    const cast = castOf(m.facts).find((c) => c.facts.includes(f.id));
    const thing = plainClause(f)?.subject;
    const shows = cast
      ? `${cast.name}${cast.looks[0] ? `, ${cast.looks[0].text}` : ''}${thing && !thing.includes(cast.name) && thing.length < 50 ? `, with ${thing}` : ''}`
      : thing && thing.length < 60 && !/^(?:it|they|he|she|i|we|this|that)$/i.test(thing)
        ? thing
        : topicOf(m.source);
    const n = f.numbers[0];
    const words = n
      ? `${n.text}${n.unit && !n.text.includes(n.unit) && !/^[£$€%]$/.test(n.unit) ? ` ${n.unit}` : ''}`
      : TENSION.exec(f.text)
        ? phraseAround(f.text)
        : topicOf(m.source);
    const short = words
      .split(/\s+/)
      .slice(0, WORDS_ON_PICTURE)
      .join(' ')
      .replace(/(?:\s+(?:the|a|an|of|in|on|at|to|as|is|was|were|are|and|that|for|by|with))+$/i, '');
    if (!out.some((p) => p.words === short || p.shows === shows))
      out.push({ shows: capital(shows), words: capital(short.replace(/[.,;:]$/, '')), pays: title.pays });
    if (out.length === 3) break;
  }
  return out;
}

/** Up to four words from a word of tension on: "no engine", "never told". */
function phraseAround(text: string): string {
  const m = /\b(?:no|never|not|only|without|last|first|nobody)\b(?:\s+[\p{L}-]+){1,2}/iu.exec(text);
  return m ? m[0] : text.split(' ').slice(0, 3).join(' ');
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
  return f.quotes.length
    ? `The listener learns who said “${f.quotes[0].text.replace(/[.,]$/, '')}”, and why.`
    : `The listener learns how it came that ${/^(?:The|An?|It|They|He|She|In|On|At|About|Two|Three)\b/.test(text) ? text[0].toLowerCase() + text.slice(1) : text}.`;
}

const factOf = (material: readonly Material[], r: FactRef) =>
  material.find((m) => m.letter === r.source)?.facts.find((f) => f.id === r.fact);

export function promiseIdeas(
  material: readonly Material[],
  tools: { tagger: Tagger; clock: Clock },
  options: { page?: number; seed?: number } = {},
): PromiseIdeas {
  const titles = titlesOf(material, tools.tagger, options.seed);
  return {
    angles: anglesOf(material, tools.clock, options.page),
    titles,
    pictures: picturesOf(material, titles),
    sentence: titles[0] ? promiseSentence(material, titles[0].pays) : '',
  };
}

export type TitleCheck = { paid: true; pays: FactRef; mustNot: string[] } | { paid: false; why: string };

const FILLER = new Set(
  stems(
    'how why what when where who the a an and or of in on at to for from with by is are was were be been it its this that step story truth really inside behind every one day ever about happened nobody knows most people',
  ),
);

/** Whether the sources can pay for a title the writer typed; the reason when they can't. */
export function checkTitle(title: string, material: readonly Material[]): TitleCheck {
  const text = title.trim();
  if ([...text].length > LONGEST_TITLE)
    return { paid: false, why: `It has ${[...text].length} letters; a title has at most ${LONGEST_TITLE}.` };
  const whole = material.map((m) => `${m.source.title}\n${m.source.text}`).join('\n');
  const values = new Set([
    ...numbersIn(whole).map((n) => n.value),
    ...datesIn(whole).flatMap((d) => d.iso.split('-').map(Number)),
  ]);
  const number = [
    ...numbersIn(text),
    ...datesIn(text).map((d) => ({ text: d.text, value: Number(d.iso.slice(0, 4)) })),
  ].find((n) => !values.has(n.value));
  if (number) return { paid: false, why: `No source has ${number.text}.` };
  const lower = whole.toLowerCase();
  const name = [...text.matchAll(/(?<=\S )\p{Lu}[\p{L}’'-]+/gu)]
    .map((m) => m[0].replace(/[’']s$/, ''))
    .find((n) => !lower.includes(n.toLowerCase()) && text !== text.toUpperCase());
  if (name && !isTitleCase(text)) return { paid: false, why: `No source names ${name}.` };
  const words = stems(text).filter((s) => !FILLER.has(s));
  const best = material
    .flatMap((m) =>
      m.facts.map((f, i) => ({
        m,
        f,
        near: new Set(
          stems(`${m.source.title} ${m.facts[i - 1]?.text ?? ''} ${f.text} ${m.facts[i + 1]?.text ?? ''}`),
        ),
        own: new Set(stems(f.text)),
      })),
    )
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
}

const isTitleCase = (text: string) => {
  const words = text.split(/\s+/).filter((w) => /^\p{L}{4,}/u.test(w));
  return words.length > 2 && words.every((w) => /^\p{Lu}/u.test(w));
};
const list = (items: readonly string[]) =>
  items.length > 1 ? `${items.slice(0, -1).join(', ')} or ${items.at(-1)}` : items[0];
