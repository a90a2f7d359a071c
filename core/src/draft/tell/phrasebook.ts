/**
 * The phrasebook: frames of a few words said another way, each with the context in which that is right. It is kept for
 * the ear. An entry that fires is named, so that hits can be listed and judged.
 */
import book from '../../../data/phrasebook.json';
import { formOf, inflect } from '../../language/inflect.ts';
import { wordsValue } from '../../language/numbers.ts';
import { quotedSpans } from '../../language/quotes.ts';
import type { TaggedToken } from '../../language/tagged.ts';

interface Guard {
  what: 'next' | 'prev' | 'soon' | '%';
  not: boolean;
  /** Parts of speech in capitals, words in small letters, "@be" for its forms. */
  values: readonly string[];
}
export interface Phrase {
  id: string;
  find: readonly string[];
  say: readonly string[];
  guards: readonly Guard[];
  prevMatches: RegExp | null;
  start: boolean;
  notStart: boolean;
  active: boolean;
  third: boolean;
  /** Not where something is denied a few words before: "no more than", "could not take more than". */
  affirmed: boolean;
  /** The next word is a singular noun. */
  singular: boolean;
}

const BE = /^(?:am|is|are|was|were|be|been|being)$/;
const LONGEST_SLOT = 6;
/** How many words on a guard looks with `soon`. */
const SOON = 7;

function parsed(entry: string): Phrase | null {
  const [frame, guardText = ''] = entry.split(' | ');
  const [find, say] = frame.split(/ => ?/);
  const words = guardText.split(' ').filter(Boolean);
  if (words.includes('never')) return null;
  const regex = words.find((w) => w.startsWith('prev/:'));
  return {
    id: find,
    find: find.split(' '),
    say: say.split(' ').filter(Boolean),
    guards: words.flatMap((w) => {
      const m = /^(next|prev|soon|%)(!?):(.+)$/.exec(w);
      return m ? [{ what: m[1] as Guard['what'], not: m[2] === '!', values: m[3].split(',') }] : [];
    }),
    prevMatches: regex ? new RegExp(regex.slice(6)) : null,
    start: words.includes('start'),
    notStart: words.includes('start!'),
    active: words.includes('active'),
    third: words.includes('third'),
    affirmed: words.includes('affirmed'),
    singular: words.includes('singular'),
  };
}

/** Every entry in use, in the order of the file. */
export const PHRASES: readonly Phrase[] = book.entries.flatMap((e) => parsed(e) ?? []);

const first = new Map<string, Phrase[]>();
for (const phrase of PHRASES) {
  const [head] = phrase.find;
  const keys = head.startsWith('(') ? head.slice(1, -1).split('/') : [head];
  for (const key of keys) first.set(key, [...(first.get(key) ?? []), phrase]);
}

const isNumber = (t: TaggedToken) =>
  /^[£$€]?\d[\d,.]*$/.test(t.text) || (t.pos === 'NUM' && wordsValue(t.text) !== null);
const isYear = (t: TaggedToken) => /^1[0-9]\d\d$|^20\d\d$/.test(t.text);
const NOMINAL = new Set(['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM', 'PRON']);

type Caught = {
  element: string;
  text: string;
  lemma: string;
  form?: ReturnType<typeof formOf>;
  number?: string;
};

/** Matches a phrase at a token; what its slots caught and where it ends, or null. */
function match(
  phrase: Phrase,
  tokens: readonly TaggedToken[],
  at: number,
): { caught: Caught[]; end: number } | null {
  const caught: Caught[] = [];
  let i = at;
  for (let e = 0; e < phrase.find.length; e++) {
    const element = phrase.find[e];
    const t = tokens[i];
    if (!t) return null;
    const word = t.text.toLowerCase();
    if (element.startsWith('@')) {
      if (t.lemma !== element.slice(1) || (t.pos !== 'VERB' && t.pos !== 'AUX')) return null;
      if (element !== '@be' && t.pos !== 'VERB') return null;
      // A capital inside a sentence is a name's, and so may be a lone "Departing," that opens one.
      if (/^\p{Lu}/u.test(t.text) && (!opens(tokens, i) || (/ing$/.test(word) && tokens[i + 1]?.text === ','))) return null; // prettier-ignore
      const helper = helperBefore(tokens, i);
      if (helper === null && describes(tokens, i)) return null;
      caught.push({
        element: '@',
        text: t.text,
        lemma: t.lemma,
        form: formOf(t.text, t.lemma, helper !== null),
        number: word,
      });
      i++;
    } else if (element === '#' || element === '#y') {
      if (element === '#y' ? !isYear(t) : !isNumber(t)) return null;
      let text = t.text;
      i++;
      while (element === '#' && tokens[i] && isNumber(tokens[i]) && !/^\d/.test(tokens[i].text))
        text += `${tokens[i].start > tokens[i - 1].end ? ' ' : ''}${tokens[i++].text}`;
      if (
        /^(?:percent|%)$/.test(tokens[i]?.text ?? '') &&
        phrase.guards.some((g) => g.not && g.values.includes('%'))
      )
        return null;
      caught.push({ element: '#', text, lemma: '' });
    } else if (element === '~') {
      const from = i;
      const until = phrase.find[e + 1];
      while (
        i < tokens.length &&
        i - from < LONGEST_SLOT &&
        NOMINAL.has(tokens[i].pos) &&
        tokens[i].text.toLowerCase() !== until
      )
        i++;
      if (i === from) return null;
      const last = tokens[i - 1];
      caught.push({ element: '~', text: span(tokens, from, i - 1), lemma: last.lemma });
    } else if (element === '%') {
      if ((t.pos !== 'VERB' && t.pos !== 'AUX') || t.text !== t.lemma) return null;
      if (phrase.guards.some((g) => g.what === '%' && g.values.includes(t.lemma) === g.not)) return null;
      caught.push({ element: '%', text: t.text, lemma: t.lemma });
      i++;
    } else if (element.startsWith('(')) {
      if (!element.slice(1, -1).split('/').includes(word)) return null;
      caught.push({ element: '()', text: t.text, lemma: t.lemma });
      i++;
    } else {
      if (word !== element) return null;
      // A capital inside a sentence is a name's.
      if (i > 0 && /^\p{Lu}/u.test(t.text) && !opens(tokens, i)) return null;
      i++;
    }
  }
  return { caught, end: i };
}

const opens = (tokens: readonly TaggedToken[], i: number) => i === 0 || tokens[i - 1].text === '“';
const span = (tokens: readonly TaggedToken[], from: number, to: number) =>
  tokens
    .slice(from, to + 1)
    .map((t, k) => (k > 0 && t.start > tokens[from + k - 1].end ? ' ' : '') + t.text)
    .join('');

const BEFORE_ATTRIBUTE = new Set(['DET', 'ADP', 'ADJ', 'ADV', 'NUM', 'PART', 'CCONJ']);
/** "the selected boats", "leads to reduced output": a participle before its noun is no verb; behind "and" nobody can tell. */
const describes = (tokens: readonly TaggedToken[], i: number) =>
  /(?:ed|en|t)$/.test(tokens[i].text) &&
  tokens[i].text !== tokens[i].lemma &&
  BEFORE_ATTRIBUTE.has(tokens[i - 1]?.pos ?? '') &&
  ['NOUN', 'ADJ', 'PROPN'].includes(tokens[i + 1]?.pos ?? '');

/** The form of "be" or "have" a verb hangs on, past adverbs; null without one. */
function helperBefore(tokens: readonly TaggedToken[], i: number): string | null {
  let j = i - 1;
  while (j >= 0 && (tokens[j].pos === 'ADV' || /^(?:not|n['’]t|also)$/i.test(tokens[j].text))) j--;
  const word = tokens[j]?.text.toLowerCase() ?? '';
  return BE.test(word) || /^(?:has|have|had|having)$/.test(word) ? word : null;
}

function guarded(phrase: Phrase, tokens: readonly TaggedToken[], at: number, end: number): boolean {
  const next = tokens[end];
  const prev = tokens[at - 1];
  if (phrase.start && !opens(tokens, at)) return false;
  if (phrase.notStart && opens(tokens, at)) return false;
  if (phrase.active) {
    const helper = helperBefore(tokens, at);
    if (helper !== null && BE.test(helper)) return false;
    // "Asked whether", "when asked whether", "the boat, intended to", "it’s intended to": participles too.
    const before = tokens[at - 1];
    if (/(?:ed|en)$/.test(tokens[at].text) && (!before || ['PUNCT', 'SCONJ'].includes(before.pos) || /^(?:when|if|partly|in part|part|['’](?:s|re|m))$/i.test(before.text))) return false; // prettier-ignore
    // "the test carried out by": a participle behind its noun has no helper either.
    if (/(?:ed|en)$/.test(tokens[at].text) && tokens[end]?.text === 'by') return false;
  }
  if (
    phrase.affirmed &&
    tokens
      .slice(Math.max(0, at - 6), at)
      .some((t) => /^(?:not|n['’]t|no|never|without|nobody|cannot|\p{L}+n['’]t)$/iu.test(t.text))
  )
    return false;
  if (phrase.singular && !(next && next.text === next.lemma && !/(?:ed|s)$/.test(next.text))) return false;
  if (phrase.third && !/s$/.test(tokens[at].text)) return false;
  if (phrase.prevMatches && !(prev && phrase.prevMatches.test(prev.text.toLowerCase()))) return false;
  return phrase.guards.every(({ what, not, values }) => {
    if (what === '%') return true;
    if (what === 'soon')
      return tokens.slice(end, end + SOON).some((x) => values.includes(x.text.toLowerCase())) !== not;
    const t = what === 'next' ? next : prev;
    const hit = values.some((v) =>
      !t
        ? v === 'PUNCT'
        : v.startsWith('@')
          ? BE.test(t.text.toLowerCase())
          : /^[A-Z]+$/.test(v)
            ? t.pos === v
            : t.text.toLowerCase() === v,
    );
    return hit !== not;
  });
}

/** What is said in place of a match; null when it can't be formed. */
function said(phrase: Phrase, caught: readonly Caught[]): string | null {
  const left = [...caught];
  const take = (element: string) =>
    left.splice(
      Math.max(
        0,
        left.findIndex((c) => c.element === element),
      ),
      1,
    )[0];
  const words: string[] = [];
  let open: Caught | null = null;
  for (let k = 0; k < phrase.say.length; k++) {
    const word = phrase.say[k];
    if (word.startsWith('@')) {
      const verb = (open = take('@'));
      if (word === '@be') {
        if (verb.lemma === 'be') words.push(verb.number!);
        else if (verb.form === 'third') words.push('is');
        else return null;
      } else words.push(inflect(word.slice(1), verb.form!));
    } else if (word === '#' || word === '#y') words.push(take('#').text);
    else if (word === '~' || word === '()') words.push(take(word).text);
    else if (word === '%') words.push(take('%').text);
    else if (word === '%ing') words.push(inflect(take('%').lemma, 'ing'));
    else words.push(word);
  }
  // "be" said as another verb needs the number that "was" and "were" hide.
  if (
    open?.lemma === 'be' &&
    !phrase.say.includes('@be') &&
    /^(?:was|were|am|are|is)$/.test(open.number ?? '')
  ) {
    const form = open.number === 'is' ? 'third' : /^(?:was|were)$/.test(open.number!) ? 'past' : 'base';
    words[0] = inflect(phrase.say[0].slice(1), form);
  }
  return words.join(' ');
}

export interface Rephrased {
  text: string;
  /** Entries that fired, with what they replaced. */
  hits: { id: string; was: string; is: string }[];
}

/** Says a sentence with the phrasebook, outside quotations; `skip` decides hit by hit. */
export function rephrase(
  text: string,
  tokens: readonly TaggedToken[],
  skip: (id: string, nth: number) => boolean = () => false,
): Rephrased {
  const quotes = quotedSpans(text);
  const inQuote = (t: TaggedToken) => quotes.some(([s, e]) => t.start >= s && t.end <= e);
  const hits: Rephrased['hits'] = [];
  let out = '';
  let from = 0;
  for (let i = 0; i < tokens.length;) {
    const t = tokens[i];
    const found = inQuote(t) ? null : candidate(tokens, i);
    if (!found || skip(found.phrase.id, hits.length)) {
      i++;
      continue;
    }
    const end = tokens[found.end - 1].end;
    const was = text.slice(t.start, end);
    let is = found.say;
    if (/^\p{Lu}/u.test(was) && is) is = is[0].toUpperCase() + is.slice(1);
    out += text.slice(from, t.start) + is;
    from = end;
    if (!is) {
      // A dropped word takes its space with it; a dropped opener hands its capital on.
      out = out.replace(/ $/, '');
      if (out === '' && found.end < tokens.length) {
        const next = tokens[found.end];
        out = text[next.start].toUpperCase();
        from = next.start + 1;
      }
    }
    hits.push({ id: found.phrase.id, was, is });
    i = found.end;
  }
  return { text: articles(out + text.slice(from)), hits };
}

/** The longest entry that fits at a token with its context. */
function candidate(
  tokens: readonly TaggedToken[],
  i: number,
): { phrase: Phrase; end: number; say: string } | null {
  const t = tokens[i];
  const lists = [
    first.get(t.text.toLowerCase()),
    t.pos === 'VERB' || t.pos === 'AUX' ? first.get(`@${t.lemma}`) : undefined,
    isNumber(t) ? first.get('#') : undefined,
  ];
  let best: { phrase: Phrase; end: number; say: string } | null = null;
  for (const phrase of lists.flatMap((l) => l ?? [])) {
    const m = match(phrase, tokens, i);
    if (!m || (best && m.end <= best.end) || !guarded(phrase, tokens, i, m.end)) continue;
    const say = said(phrase, m.caught);
    // "over more than two decades" is not said "over over".
    if (say !== null && say.split(' ')[0].toLowerCase() === tokens[i - 1]?.text.toLowerCase()) continue;
    // "96 buckets, each holding 350 kilograms": a participle, however it is tagged.
    if (say === 'every' && /ing$/.test(tokens[m.end]?.text ?? '') && tokens[i - 1]?.text === ',') continue;
    if (say !== null) best = { phrase, end: m.end, say };
  }
  return best;
}

/** "a" and "an" as the next word sounds, where a swap changed it. */
export function articles(text: string): string {
  return text.replace(
    /\b([Aa])(n?) (?=(\p{L}+))/gu,
    (whole, a: string, n: string, next: string, at: number) => {
      // A capital within a sentence is a letter or a name: "hepatitis A illnesses".
      if (a === 'A' && !/(?:^|[.!?:]["”’)]?\s+)["“‘(]?$/.test(text.slice(0, at))) return whole;
      const vowel =
        /^(?:[aeio]|u(?!ni|nan|se|su|ti|k|r[aeiou])|hour|honest|heir|honou?r)/i.test(next) &&
        !/^(?:one|once|eu|uni|use)/i.test(next);
      // "a U.N. mandate", "an E. coli": letters are named, and the writer has heard them.
      if (/^\p{Lu}{2,}$/u.test(next) || /^\p{Lu}$/u.test(next)) return whole;
      return vowel === (n === 'n') ? whole : `${a}${vowel ? 'n' : ''} `;
    },
  );
}
