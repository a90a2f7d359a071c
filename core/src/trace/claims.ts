/**
 * Whether what is told still claims what its source claims: values on the same thing, hedges and denials kept, who says
 * so, who did it, the order of events, part and whole, cause. Told and source are compared clause by clause; clauses
 * are aligned by the share of content words (Dice), after the monolingual aligner of Sultan, Bethard and Sumner (2014)
 * reduced to lemmas and numbers.
 */
import { DENIAL, JOINS, LIGHT } from '../language/closed.ts';
import { CARDINAL_WORD, ORDINAL_WORD } from '../language/numbers.ts';
import { anyNoun } from '../language/classes.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import { attributionOf } from '../facts/saying.ts';
import { outsideQuotes, quotedSpans } from '../language/quotes.ts';
import { isFiniteVerb, type TaggedToken, type Tagger } from '../language/tagged.ts';

export type FaultKind =
  | 'value'
  | 'thing'
  | 'hedge'
  | 'denial'
  | 'said'
  | 'subject'
  | 'order'
  | 'whole'
  | 'cause'
  | 'direction'
  | 'quote'
  | 'name';

export interface Fault {
  kind: FaultKind;
  /** What stands in the line, and what the source has; empty where nothing stands. */
  told: string;
  source: string;
}

/** What else the source says, made ready once: names and values from there may stand in for a pronoun. */
export interface ClaimContext {
  values: ReadonlySet<string>;
  /** Lower case, marks evened out. */
  even: string;
}

const even = (x: string) => x.toLowerCase().replace(/[’‘]/g, "'").replace(/[“”]/g, '"').replace(/\s+/g, ' ');

export const claimContext = (text: string): ClaimContext => ({
  values: new Set([...numbersIn(text).map(valueKey), ...datesIn(text).map((d) => d.iso.replace(/^-+/, ''))]),
  even: even(text),
});

const OPENED: Readonly<Record<string, string>> = {
  'can’t': 'can not',
  'won’t': 'will not',
  'shan’t': 'shall not',
  cannot: 'can not',
};
/** Contractions in full and signs in words, so that two ways of writing compare alike. */
const opened = (text: string) =>
  text
    .replace(/'/g, '’')
    .replace(/\b(?:can’t|won’t|shan’t|cannot)\b/gi, (w) => OPENED[w.toLowerCase()])
    .replace(/n’t\b/g, ' not')
    .replace(/\b(it|that|there|he|she|what|here|who)’s(?=\s)/gi, '$1 is')
    .replace(
      /([£$€])(\d[\d,.]*\d|\d)( (?:million|billion|thousand))?/g,
      (_, sign: string, n: string, scale = '') =>
        `${n}${scale} ${{ '£': 'pounds', $: 'dollars', '€': 'euros' }[sign]}`,
    )
    .replace(/\b(no one)\b/gi, 'nobody')
    .replace(/\ball the same\b/gi, 'still');

interface Clause {
  tokens: readonly TaggedToken[];
  /** Content lemmas and numbers. */
  content: ReadonlySet<string>;
  verb: TaggedToken | null;
  subject: TaggedToken | null;
  agent: TaggedToken | null;
  denied: boolean;
}

const CONTENT = new Set(['NOUN', 'PROPN', 'VERB', 'ADJ', 'NUM', 'ADV']);
const DENIES = new RegExp(`^${DENIAL}$`, 'i');
const BOUNDARY = new RegExp(`^(?:[;:,]|${JOINS})$`, 'i');

const key = (t: TaggedToken) => t.lemma.replace(/[’']s$/, '');
const isContent = (t: TaggedToken) => CONTENT.has(t.pos) && !LIGHT.has(t.lemma) && /[\p{L}\d]/u.test(t.text);

/** The clauses of a text: one a finite verb, from one boundary to the next. Quotations are left out. */
export function clausesOf(text: string, tagger: Tagger): Clause[] {
  const quotes = quotedSpans(text);
  const tokens = tagger(text).filter((t) => !quotes.some(([s, e]) => t.start > s && t.end < e));
  const verbs = tokens.flatMap((_, i) =>
    isFiniteVerb(tokens, i) &&
    !(tokens[i].pos === 'AUX' && followedByVerb(tokens, i)) &&
    !helpedBefore(tokens, i)
      ? [i]
      : [],
  );
  // Auxiliaries go with the verb they help.
  const heads = verbs.length ? verbs : tokens.length ? [-1] : [];
  return heads.map((v, k): Clause => {
    const from = k === 0 ? 0 : boundaryBefore(tokens, heads[k - 1] + 1, v);
    const to = k + 1 < heads.length ? boundaryBefore(tokens, v + 1, heads[k + 1]) : tokens.length;
    const own = tokens.slice(from, to);
    const verb = v >= 0 ? tokens[v] : null;
    return {
      tokens: own,
      content: new Set(own.filter(isContent).map(key)),
      verb,
      subject: verb ? subjectOf(tokens, from, v) : null,
      agent: agentOf(own),
      denied: own.some(
        (t, i) =>
          DENIES.test(t.text) &&
          !(/^no$/i.test(t.text) && /^(?:more|less|longer|later|fewer)$/i.test(own[i + 1]?.text ?? '')) &&
          !(/^not$/i.test(t.text) && own[i + 1]?.text === 'only'),
      ),
    };
  });
}

/** "may have cost": the first auxiliary heads them all. */
const helpedBefore = (tokens: readonly TaggedToken[], i: number) => {
  let k = i - 1;
  while (k >= 0 && (tokens[k].pos === 'ADV' || tokens[k].pos === 'PART')) k--;
  return tokens[i].pos === 'AUX' && tokens[k]?.pos === 'AUX';
};

/** Whether an auxiliary helps a verb close behind it. */
const followedByVerb = (tokens: readonly TaggedToken[], i: number) => {
  for (let j = i + 1; j < Math.min(tokens.length, i + 4); j++) {
    if (tokens[j].pos === 'VERB') return isFiniteVerb(tokens, j);
    if (!['ADV', 'PART', 'AUX'].includes(tokens[j].pos)) return false;
  }
  return false;
};

function boundaryBefore(tokens: readonly TaggedToken[], from: number, verb: number): number {
  for (let j = verb - 1; j >= from; j--)
    if (BOUNDARY.test(tokens[j].text) || /^[.!?]$/.test(tokens[j].text)) return j;
  return from;
}

/** The noun a verb hangs on: the last nominal before it that no preposition governs; a relative's is its antecedent. */
function subjectOf(tokens: readonly TaggedToken[], from: number, verb: number): TaggedToken | null {
  let found: TaggedToken | null = null;
  for (let j = from; j < verb; j++) {
    const t = tokens[j];
    if (!['NOUN', 'PROPN', 'PRON', 'NUM'].includes(t.pos)) continue;
    let d = j - 1;
    while (d >= from && ['DET', 'ADJ', 'NUM', 'PROPN', 'NOUN', 'ADV'].includes(tokens[d].pos)) d--;
    if (d >= from && tokens[d].pos === 'ADP' && found) continue;
    if (d >= from && tokens[d].pos === 'ADP' && !found) continue;
    found = t;
  }
  if (found && /^(?:that|which|who)$/i.test(found.text)) found = null;
  if (found) return found;
  // "It sank. That is according to her.": no relative of the sentence before.
  if (/^[.!?]$/.test(tokens[from - 1]?.text ?? '')) return null;
  for (let j = from - 1; j >= 0; j--)
    if (
      ['NOUN', 'PROPN', 'PRON'].includes(tokens[j].pos) &&
      /^(?:that|which|who)$/i.test(tokens[from]?.text ?? '')
    )
      return tokens[j];
  return null;
}

const agentOf = (tokens: readonly TaggedToken[]): TaggedToken | null => {
  const by = tokens.findIndex((t) => t.text === 'by');
  if (by < 0) return null;
  let last: TaggedToken | null = null;
  for (
    let j = by + 1;
    j < tokens.length && ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(tokens[j].pos);
    j++
  )
    last = tokens[j];
  return last;
};

const dice = (a: ReadonlySet<string>, b: ReadonlySet<string>) => {
  if (!a.size || !b.size) return 0;
  let shared = 0;
  for (const x of a) if (b.has(x)) shared++;
  return (2 * shared) / (a.size + b.size);
};

/** Below this two clauses are not taken for the same claim. */
const ALIGNED = 0.34;

/** For each told clause the source clause it says again, or null. */
function align(told: readonly Clause[], source: readonly Clause[]): (Clause | null)[] {
  return told.map((t) => {
    const best = source
      .map((s) => ({
        s,
        d:
          dice(t.content, s.content) +
          (t.verb && s.verb && t.verb.lemma === s.verb.lemma && !LIGHT.has(t.verb.lemma) ? 0.15 : 0),
      }))
      .sort((a, b) => b.d - a.d)[0];
    return best && best.d >= ALIGNED ? best.s : null;
  });
}

/** What "about" and "over" limit: a figure, money, one of a unit, a share. */
const AMOUNT = String.raw`\d[\d,.]*|[£$€]\d|${CARDINAL_WORD}\b|an? (?:half|quarter|hundred|thousand|million|billion|dozen|${ORDINAL_WORD}|${anyNoun('measure', 'time')})\b`;
const HEDGE_CLASSES: readonly (readonly [string, RegExp])[] = [
  [
    'possible',
    /\b(?:may|might|could|perhaps|maybe|possibl[ey]|unclear|unknown|not (?:yet )?known|nobody knows|nobody knew|no one can say|nobody can say|alleged(?:ly)?|reportedly|rumou?red)\b/giu,
  ],
  [
    'likely',
    /\b(?:probabl[ey]|likely|appears?|appeared|seems?|seemed|suggests?|suggested|thought to|believed to|expected to|estimated|presumably|tends? to|said to|thinks?|believes?|hopes? to|hoped to|people say)\b/giu,
  ],
  [
    'about',
    new RegExp(
      String.raw`\b(?:about|around|roughly|approximately|some|something like|or so)(?=\s+(?:${AMOUNT}|half\b|twice\b))`,
      'giu',
    ),
  ],
  ['nearly', /\b(?:nearly|almost|just under|close to)\b/giu],
  [
    'over',
    new RegExp(
      String.raw`\b(?:over(?=\s+(?:${AMOUNT}|half\b))|more than|at least|no (?:fewer|less) than|upwards of)\b`,
      'giu',
    ),
  ],
  [
    'under',
    new RegExp(
      String.raw`\b(?:within|under(?=\s+(?:${AMOUNT}|half\b))|less than|fewer than|at most|no more than|not more than|up to|as many as)\b`,
      'giu',
    ),
  ],
];

/** Classes that limit the value behind them. */
const OF_VALUES = new Set(['about', 'nearly', 'over', 'under']);

/** "May" as a month: before a day or year, or with a capital in mid-sentence. A pattern that folds case can't tell. */
const isMonth = (text: string, m: RegExpExecArray) =>
  m[0] === 'May' && (/^\s+\d/.test(text.slice(m.index + 3)) || /[^.!?\s”"]\s+$/.test(text.slice(0, m.index)));

const hedgesOf = (text: string) => {
  const plain = outsideQuotes(text);
  return new Map(
    HEDGE_CLASSES.map(([name, pattern]) => [
      name,
      [...plain.matchAll(pattern)].filter((m) => !isMonth(plain, m)).map((m) => m[0]),
    ]),
  );
};

const PARTS: readonly (readonly [string, RegExp])[] = [
  ['all', /^(?:all|every|each|both|everyone|everybody|whole|entire)$/i],
  ['most', /^most$/i],
  ['many', /^(?:many|numerous)$/i],
  ['some', /^(?:some|several|certain)$/i],
  ['few', /^(?:few)$/i],
  ['half', /^half$/i],
  ['none', /^(?:no|none|neither)$/i],
  ['only', /^only$/i],
];
const NUMBER_LIKE = /^(?:\d|one$|two$|three$|four$|five$|six$|seven$|eight$|nine$|ten$)/i;
const partOfWord = (word: string) => PARTS.find(([, p]) => p.test(word))?.[0] ?? null;

/** The quantity words that stand before each noun, with adjectives between. */
function quantified(tokens: readonly TaggedToken[]): Map<string, Set<string>> {
  const out = new Map<string, Set<string>>();
  tokens.forEach((t, i) => {
    const part = partOfWord(t.text);
    if (!part || part === 'only') return;
    for (let j = i + 1; j < Math.min(tokens.length, i + 6); j++)
      if (tokens[j].pos === 'NOUN') {
        if (tokens[j + 1]?.pos === 'NOUN' && !helped(tokens, j + 1)) continue;
        (out.get(key(tokens[j])) ?? out.set(key(tokens[j]), new Set()).get(key(tokens[j]))!).add(part);
        break;
      } else if (!['DET', 'ADJ', 'ADP', 'NUM', 'PRON', 'ADV', 'PROPN'].includes(tokens[j].pos)) break;
  });
  return out;
}

/** A verb the tagger took for a noun: it has an object behind it, and its subject before it. */
const helped = (tokens: readonly TaggedToken[], i: number) =>
  tokens[i + 1]?.pos === 'DET' || tokens[i + 1]?.pos === 'PRON';

const CAUSES =
  /\b(?:because|due to|owing to|caused|causes|led to|leads to|as a result|therefore|that is why|that’s why|which is why|the reason|thanks to|consequently|since (?:it|he|she|they|the)|, so\b|^So\b)/i;
const MAY_CAUSE =
  /\b(?:because|since|as|so|due to|owing to|caus\w+|led to|leads? to|result\w*|therefore|why|reason|thanks to|meant|means|for (?:this|that)|after|made|makes|from|by|to)\b/i;
const OPPOSITES: readonly (readonly [RegExp, RegExp])[] = [
  [
    /^(?:rise|rose|risen|increase|grow|grew|climb|up)$/i,
    /^(?:fall|fell|fallen|decrease|drop|shrink|decline|down)$/i,
  ],
  [
    /^(?:more|longer|higher|larger|bigger|greater|faster|better|earlier|above)$/i,
    /^(?:less|fewer|shorter|lower|smaller|slower|worse|later|below)$/i,
  ],
  [/^(?:first)$/i, /^(?:last)$/i],
  [/^(?:north|northern)$/i, /^(?:south|southern)$/i],
  [/^(?:east|eastern)$/i, /^(?:west|western)$/i],
  [/^(?:left)$/i, /^(?:right)$/i],
  [/^(?:open|opened)$/i, /^(?:shut|close|closed)$/i],
  [/^(?:win|won)$/i, /^(?:lose|lost)$/i],
  [/^(?:accept|approve)$/i, /^(?:refuse|reject|decline)$/i],
];

/** Events tied by a word of time: [verb, relation, verb] with the earlier one first. */
function orders(text: string, tagger: Tagger): [string, string][] {
  const tokens = tagger(outsideQuotes(text));
  const out: [string, string][] = [];
  const verbNear = (from: number, step: 1 | -1) => {
    for (let j = from, n = 0; j >= 0 && j < tokens.length && n < 14; j += step, n++) {
      if (tokens[j].pos === 'VERB' && !LIGHT.has(tokens[j].lemma)) return tokens[j].lemma;
      if (/^[.;]$/.test(tokens[j].text)) return null;
    }
    return null;
  };
  tokens.forEach((t, i) => {
    const word = t.text.toLowerCase();
    if (!/^(?:after|before|until)$/.test(word)) return;
    const front = i === 0 || /^[.;]$/.test(tokens[i - 1].text);
    const inner = verbNear(i + 1, 1);
    const comma = tokens.findIndex((x, j) => j > i && x.text === ',');
    const outer = front ? (comma > 0 ? verbNear(comma + 1, 1) : null) : verbNear(i - 1, -1);
    if (!inner || !outer || inner === outer) return;
    out.push(word === 'after' ? [inner, outer] : [outer, inner]);
  });
  return out;
}

const valueKey = (n: { value: number }) => String(Math.abs(n.value));

/** Content lemmas near an offset. */
function around(
  tokens: readonly TaggedToken[],
  start: number,
  end: number,
): { near: Set<string>; thing: string | null } {
  const at = tokens.findIndex((t) => t.end > start);
  const last = tokens.findIndex((t) => t.start >= end);
  const stop = last < 0 ? tokens.length : last;
  const near = new Set<string>();
  const isBreak = (t: TaggedToken) => /^[;,.:]$/.test(t.text) || /^(?:and|but)$/.test(t.text);
  for (let j = at - 1, n = 0; j >= 0 && n < 4; j--) {
    if (isBreak(tokens[j])) break;
    if (isContent(tokens[j]) && tokens[j].pos !== 'NUM') {
      near.add(key(tokens[j]));
      n++;
    }
  }
  let thing: string | null = null;
  for (let j = stop, n = 0; j < tokens.length && n < 4; j++) {
    if (isBreak(tokens[j])) break;
    if (isContent(tokens[j]) && tokens[j].pos !== 'NUM') {
      near.add(key(tokens[j]));
      n++;
      if (!thing && j - stop < 3 && tokens[j].pos === 'NOUN') thing = key(tokens[j]);
    }
  }
  return { near, thing };
}

/** Values that stand in a text outside quotations, with what is near them. */
function valuesOf(text: string, tagger: Tagger) {
  const plain = outsideQuotes(text);
  const tokens = tagger(plain);
  const list = [
    ...numbersIn(plain).map((n) => ({ key: valueKey(n), text: n.text, ...around(tokens, n.start, n.end) })),
    ...datesIn(plain).map((d) => ({
      key: d.iso.replace(/^-+/, ''),
      text: d.text,
      ...around(tokens, d.start, d.end),
    })),
  ];
  return list;
}

/** Small numbers in words are often turns of speech. */
const SMALL = /^(?:1|2|3)$/;

/** What a telling of one fact claims that its words in the source don't. */
export function faultsIn(
  toldText: string,
  sourceText: string,
  context: ClaimContext,
  tagger: Tagger,
): Fault[] {
  const told = opened(toldText);
  const source = opened(sourceText);
  const out: Fault[] = [];
  const add = (kind: FaultKind, t: string, s: string) => out.push({ kind, told: t, source: s });
  const toldClauses = clausesOf(told, tagger);
  const sourceClauses = clausesOf(source, tagger);
  const pairs = align(toldClauses, sourceClauses);

  // Values, and the thing each belongs to.
  const theirs = valuesOf(source, tagger);
  for (const v of valuesOf(told, tagger)) {
    const same = theirs.filter((s) => s.key === v.key || s.key.startsWith(`${v.key}-`));
    if (!same.length) {
      if (!context.values.has(v.key) && !(SMALL.test(v.key) && !/\d/.test(v.text))) add('value', v.text, '');
      continue;
    }
    const score = (s: (typeof theirs)[number]) =>
      dice(v.near, s.near) + (v.thing && s.thing === v.thing ? 0.3 : 0);
    const here = Math.max(...same.map(score));
    const other = theirs
      .filter((s) => s.key !== v.key && !same.some((x) => x.near.size === 0))
      .map((s) => ({ s, d: score(s) }))
      .sort((a, b) => b.d - a.d)[0];
    if (other && other.d > here + 0.25) add('thing', v.text, other.s.text);
    else if (
      !/-|^(?:1[0-9]|20)\d\d$/.test(v.key) &&
      v.thing &&
      same.every((s) => s.thing && s.thing !== v.thing) &&
      !same.some((s) => s.near.has(v.thing!))
    )
      add('thing', `${v.text} ${v.thing}`, `${same[0].text} ${same[0].thing}`);
  }

  // How sure, by class; only where the clause that hedges is told.
  // A source of one clause is what is told, whatever the tagger made of it.
  const covered = sourceClauses.length === 1 ? sourceClauses : sourceClauses.filter((s) => pairs.includes(s));
  const coveredText = covered.map((c) => c.tokens.map((t) => t.text).join(' ')).join(' . ');
  const toldHedges = hedgesOf(told);
  const allHedges = hedgesOf(source);
  /** Whether what each of these words limits, a value or the words next to it, is left out with it. */
  const gone = (name: string, list: readonly string[]) => {
    const [saidTokens, theirTokens] = [tagger(told), tagger(source)];
    const toldValues = new Set(valuesOf(told, tagger).map((v) => v.key));
    const toldRoots = new Set(saidTokens.map((t) => t.lemma));
    return list.every((word) => {
      const at = source.indexOf(word);
      if (at < 0) return false;
      if (OF_VALUES.has(name)) {
        const limited = valuesOf(source.slice(at + word.length), tagger)[0];
        return limited !== undefined && !toldValues.has(limited.key);
      }
      const near = theirTokens
        .filter((t) => t.start >= at + word.length && ['NOUN', 'VERB', 'PROPN', 'ADJ'].includes(t.pos))
        .slice(0, 3);
      // Left out, not said in other words: then there would be as many.
      const shorter = saidTokens.length + near.length < theirTokens.length;
      return shorter && near.length > 0 && near.every((t) => !toldRoots.has(t.lemma));
    });
  };
  for (const [name, list] of hedgesOf(coveredText)) {
    const have = toldHedges.get(name)!.length;
    if (
      list.length &&
      !have &&
      !(name === 'likely' && toldHedges.get('possible')!.length) &&
      !gone(name, list)
    )
      add('hedge', '', list[0]);
  }
  for (const [name, list] of toldHedges)
    if (
      list.length > allHedges.get(name)!.length &&
      !allHedges.get(name)!.length &&
      !(name === 'over' && /\babove\b/.test(source))
    )
      add('hedge', list[0], '');

  // Denials, subjects, directions, clause by clause.
  toldClauses.forEach((t, i) => {
    const s = pairs[i];
    if (!s) return;
    if (t.denied !== s.denied && dice(t.content, s.content) >= 0.5)
      add('denial', t.denied ? 'not' : '', s.denied ? 'not' : '');
    if (t.verb && t.subject && !['PRON'].includes(t.subject.pos)) {
      // The source clause with the same verb, when there is just one.
      const sameVerb = sourceClauses.filter((c) => c.verb?.lemma === t.verb!.lemma);
      const c = sameVerb.length === 1 && !LIGHT.has(t.verb.lemma) ? sameVerb[0] : s;
      const subjects = [c.subject, c.agent, t.verb.lemma === c.verb?.lemma ? null : s.subject].flatMap((x) =>
        x ? [key(x)] : [],
      );
      const nouns = new Set([...c.content]);
      if (
        c.subject &&
        c.subject.pos !== 'PRON' &&
        subjects.length &&
        !subjects.includes(key(t.subject)) &&
        !nouns.has(key(t.subject)) &&
        sourceClauses.some((x) => x !== c && x.content.has(key(t.subject!)))
      )
        add('subject', t.subject.text, c.subject.text);
      else if (
        c.subject &&
        c.subject.pos !== 'PRON' &&
        t.verb.lemma === c.verb?.lemma &&
        !t.agent &&
        !c.agent &&
        key(t.subject) !== key(c.subject) &&
        objectsOf(c).has(key(t.subject)) &&
        !LIGHT.has(t.verb.lemma)
      )
        add('subject', t.subject.text, c.subject.text);
    }
    for (const [a, b] of OPPOSITES) {
      const has = (clause: Clause, p: RegExp) => clause.tokens.some((x) => p.test(x.lemma) || p.test(x.text));
      if (
        (has(t, a) && !has(t, b) && has(s, b) && !has(s, a)) ||
        (has(t, b) && !has(t, a) && has(s, a) && !has(s, b))
      )
        add(
          'direction',
          t.tokens.find((x) => a.test(x.text) || b.test(x.text) || a.test(x.lemma) || b.test(x.lemma))!.text,
          s.tokens.find((x) => a.test(x.text) || b.test(x.text) || a.test(x.lemma) || b.test(x.lemma))!.text,
        );
    }
  });

  // Part and whole.
  const toldTokens = tagger(outsideQuotes(told));
  const sourceTokens = tagger(outsideQuotes(source));
  const parts = quantified(sourceTokens);
  const toldParts = quantified(toldTokens);
  for (const [noun, set] of toldParts) {
    const have = parts.get(noun);
    for (const part of set)
      if (
        have
          ? !have.has(part) &&
            !(part === 'many' && have.has('some')) &&
            !(part === 'some' && have.has('many'))
          : part !== 'none' &&
            part !== 'some' &&
            sourceTokens.some((t) => key(t) === noun) &&
            !(part === 'all' && numberBefore(sourceTokens, noun))
      )
        add('whole', `${part} ${noun}`, have ? [...have][0] : noun);
  }
  for (const [noun, set] of parts) {
    const weak = [...set].filter((p) => ['most', 'some', 'few', 'half', 'many'].includes(p));
    if (weak.length && weak.length === set.size && !toldParts.has(noun) && pluralTold(toldTokens, noun))
      add('whole', noun, `${weak[0]} ${noun}`);
  }
  const onlyLost =
    /\bonly\b/i.test(outsideQuotes(source)) &&
    !/\b(?:only|just|merely|no more than|alone|sole|nothing but)\b/i.test(outsideQuotes(told)) &&
    pairs.some((p) => p?.tokens.some((t) => /^only$/i.test(t.text)));
  if (onlyLost) add('whole', '', 'only');

  // The order of events.
  const toldOrders = orders(told, tagger);
  const sourceOrders = orders(source, tagger);
  for (const [a, b] of toldOrders)
    if (sourceOrders.some(([x, y]) => x === b && y === a)) add('order', `${a}, ${b}`, `${b}, ${a}`);

  // A cause the source does not give.
  const plainTold = outsideQuotes(told);
  if (CAUSES.test(plainTold) && !MAY_CAUSE.test(outsideQuotes(source)))
    add('cause', CAUSES.exec(plainTold)![0], '');

  // Who says so.
  const speaker = attributionOf(source, tagger(source));
  if (speaker && !/^(?:I|we)$/i.test(speaker.text) && pairs.some(Boolean)) {
    const last = speaker.text
      .replace(/^(?:the|a|an|his|her|its|their)\s/i, '')
      .split(' ')
      .at(-1)!;
    const told_ = told.toLowerCase();
    const said =
      /\b(?:sa(?:id|ys)|told|tells|accord\w+|wrote|writes|think|thinks|thought|believe\w*|argue\w*|found|find|claim\w*|warn\w*|report\w*|explain\w*|add\w*|answer\w*|asked|called|puts? it|noted|conclud\w*|estimate\w*|den(?:y|ied|ies)|announced|admitted|insist\w*|confirm\w*|recorded|recalled|show\w*|suggest\w*)\b/i;
    if (!told_.includes(last.toLowerCase()) && !(/\b(?:he|she|they|it|who)\b/i.test(told) && said.test(told)))
      add('said', '', speaker.text);
    else if (!said.test(told)) add('said', '', speaker.text);
  }

  // Quotations to the letter, names that are there.
  const stock = `${even(source)} ${context.even}`;
  for (const [s, e] of quotedSpans(told)) {
    const inner = even(told.slice(s + 1, e - 1))
      .replace(/[.,!?;:]+$/, '')
      .trim();
    if (inner.split(' ').length > 2 && !stock.includes(inner)) add('quote', told.slice(s, e), '');
  }
  for (const t of toldTokens)
    if (
      t.pos === 'PROPN' &&
      t.start > 0 &&
      /^\p{Lu}\p{Ll}+/u.test(t.text) &&
      !stock.includes(even(t.text.replace(/[’']s$/, '')))
    )
      add('name', t.text, '');
  return out;
}

const objectsOf = (c: Clause) =>
  new Set(
    c.tokens
      .filter((t) => c.verb && t.start > c.verb.start && (t.pos === 'NOUN' || t.pos === 'PROPN'))
      .map(key),
  );
const numberBefore = (tokens: readonly TaggedToken[], noun: string) =>
  tokens.some((t, i) => NUMBER_LIKE.test(t.text) && tokens.slice(i + 1, i + 4).some((x) => key(x) === noun));
const pluralTold = (tokens: readonly TaggedToken[], noun: string) =>
  tokens.some(
    (t, i) =>
      key(t) === noun &&
      t.text !== t.lemma &&
      !NUMBER_LIKE.test(tokens[i - 1]?.text ?? '') &&
      !tokens
        .slice(Math.max(0, i - 4), i)
        .some((x) => /^(?:a|number|lot|share|part|third|quarter|bit|few|handful)$/i.test(x.text)),
  );
