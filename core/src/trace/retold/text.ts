/** A telling and a passage made ready to be compared: segments with what they deny and doubt, roots of content words, values. */
import { DENIAL, JOINS, LIGHT } from '../../language/closed.ts';
import { looksCompared } from '../../language/classes.ts';
import { stems } from '../../facts/centrality.ts';
import { valuesOf, type Value } from './figures.ts';
import type { Kin } from '../../language/kin.ts';
import { outsideQuotes } from '../../language/quotes.ts';
import type { TaggedToken, Tagger } from '../../language/tagged.ts';

export interface RetoldTools {
  tagger: Tagger;
  kin: Kin | null;
}

/** How a question begins behind a colon: "something to settle: is ice heavier?" */
const ASKS =
  /^\s*(?:and |but |so )?(?:is|are|was|were|am|do|does|did|has|have|had|can|could|will|would|should|may|might|must|who|what|when|where|why|how|which|whose)\b/i;

/** A word with its content root; null for function words, light verbs and numbers. */
export interface Word extends TaggedToken {
  root: string | null;
  segment: number;
}
/** A stretch between commas, stops and joining words: about a clause. */
export interface Segment {
  index: number;
  words: readonly Word[];
  /** The words denied here. */
  denied: ReadonlySet<Word>;
  /** Whether anything is denied here. */
  denies: boolean;
  /** Opened by "if", "whether", "unless"…: what it says is not claimed. */
  open: boolean;
}
export interface Said {
  text: string;
  /** Quotations blanked out, marks evened out; the same length. */
  plain: string;
  words: readonly Word[];
  segments: readonly Segment[];
  roots: ReadonlySet<string>;
  values: readonly Value[];
  question: boolean;
}

const CONTENT = new Set(['NOUN', 'PROPN', 'VERB', 'ADJ', 'ADV']);
const BREAK = new RegExp(`^(?:[;:,.!?()–—]|${JOINS})$`, 'i');
const KEEPS = /^(?:keep|stop|prevent|protect|save|hinder)$/;
const OPENS_DOUBT = /^(?:if|whether|unless|whenever|until|till|when|before)$/i;
const DENIES = new RegExp(`^${DENIAL}$`, 'i');
/** Words that deny without a word of denial. */
const DENIES_BY_MEANING =
  /^(?:refuse|fail|forbid|ban|lack|stop|prevent|deny|avoid|miss|lose|unable|impossible|dismiss|rarely|only|free|instead|empty|blind)$/;

export const even = (text: string): string => text.replace(/[’‘]/g, "'").replace(/[“”]/g, '"');

/** Degrees that stand for themselves. */
const NO_DEGREE = /^(?:later|best|rather|further)$/;
/** "longer", "farthest" → the word itself, where it is known. */
const plainDegree = (lemma: string, kin: Kin | null) => {
  const m = /^(\w{2,}?)(?:i?er|i?est)$/.exec(lemma);
  if (!m || !kin || NO_DEGREE.test(lemma) || looksCompared(lemma)) return lemma;
  const forms = [m[1], `${m[1]}e`, `${m[1]}y`, m[1].replace(/(.)\1$/, '$1')];
  return forms.find((f) => kin.of(stems(f)[0] ?? '').own.length > 0) ?? lemma;
};

const rootOf = (t: TaggedToken, kin: Kin | null): string | null => {
  if (!CONTENT.has(t.pos) || LIGHT.has(t.lemma) || !/\p{L}{2}/u.test(t.text)) return null;
  const lemma = t.pos === 'ADJ' || t.pos === 'ADV' ? plainDegree(t.lemma, kin) : t.lemma;
  return stems(lemma.replace(/'s$/, ''))[0] ?? null;
};

export function saidOf(text: string, { tagger, kin }: RetoldTools): Said {
  const plain = even(outsideQuotes(text));
  const tokens = tagger(plain).filter((t) => t.pos !== 'SPACE' && /\S/.test(t.text));
  let segment = 0;
  const words: Word[] = [];
  tokens.forEach((t, i) => {
    if (i > 0 && BREAK.test(t.text) && words.some((w) => w.segment === segment)) segment++;
    words.push({ ...t, root: rootOf(t, kin), segment });
  });
  const bySegment = new Map<number, Word[]>();
  for (const w of words) (bySegment.get(w.segment) ?? bySegment.set(w.segment, []).get(w.segment)!).push(w);
  const segments = [...bySegment].map(([index, own]): Segment => {
    const denied = deniedIn(own);
    return {
      index,
      words: own,
      denied,
      denies: denied.size > 0 || own.some((_, i) => isDenial(own, i)),
      open: OPENS_DOUBT.test(own.find((w) => w.pos !== 'PUNCT')?.text ?? ''),
    };
  });
  // "never the glass or the bars": what "or" adds is denied with it.
  segments.forEach((seg, i) => {
    const before = segments[i - 1] as Segment | undefined;
    if (!before || !/^(?:or|nor)$/i.test(seg.words[0].text) || seg.words.some((w) => w.pos === 'VERB'))
      return;
    if (before.denies)
      segments[i] = { ...seg, denies: true, denied: new Set(seg.words.filter((w) => w.root !== null)) }; // prettier-ignore
    else if (before.open) segments[i] = { ...seg, open: true };
  });
  return {
    text,
    plain,
    words,
    segments,
    roots: new Set(words.flatMap((w) => w.root ?? [])),
    values: valuesOf(plain, words),
    question:
      /\?["”']?\s*$/.test(text) &&
      !/“/.test(text) &&
      (!text.includes(':') || ASKS.test(text.split(':').at(-1)!)),
  };
}

function isDenial(words: readonly Word[], i: number): boolean {
  const t = words[i];
  if (!DENIES.test(t.text)) return false;
  const next = words[i + 1]?.text.toLowerCase() ?? '';
  if (/^no$/i.test(t.text) && /^(?:more|less|fewer|later|doubt|matter)$/.test(next)) return false;
  return !(/^not$/i.test(t.text) && /^(?:only|just|merely|long)$/.test(next));
}

/** What words of denial deny: the verb or adjective behind "not", the noun behind "no", the verb of "nobody" and "nothing". */
function deniedIn(words: readonly Word[]): Set<Word> {
  const out = new Set<Word>();
  words.forEach((t, i) => {
    if (!isDenial(words, i)) return;
    const behind = words.slice(i + 1).find((w) => w.root !== null);
    const before = words.slice(0, i).findLast((w) => w.root !== null && w.pos === 'VERB');
    if (/^(?:nothing|nobody|none|nowhere)$/i.test(t.text)) {
      const next = words[i + 1];
      const subject = next !== undefined && (next.pos === 'VERB' || next.pos === 'AUX');
      const following = words.slice(i + 1).find((w) => w.root !== null && w.pos === 'VERB');
      // "nobody asked": the verb behind; "saw nothing": the one before.
      const verb = subject ? following : (before ?? following);
      if (verb) out.add(verb);
    } else if (behind && (behind.pos !== 'NOUN' || !/^not$/i.test(t.text) || words[i - 1]?.lemma === 'be')) {
      // "the face and not the edges" denies no edges.
      out.add(behind);
    }
  });
  // "keep the seed from sprouting": it does not sprout.
  const from = words.findIndex((w) => /^from$/i.test(w.text));
  if (from > 0 && words.slice(0, from).some((w) => KEEPS.test(w.lemma))) {
    const kept = words.slice(from + 1).find((w) => w.root !== null);
    if (kept && /ing$/.test(kept.text)) out.add(kept);
  }
  return out;
}

/** Whether a segment denies by meaning: "stops cutting". */
export const deniesByMeaning = (s: Segment, but?: Word): boolean =>
  s.words.some((w) => w !== but && DENIES_BY_MEANING.test(w.lemma));

/** Whether anything in a text denies, by a word of denial or by meaning. */
export const deniesAtAll = (said: Said): boolean =>
  said.segments.some((s) => s.denies) ||
  said.words.some((w) => DENIES_BY_MEANING.test(w.lemma)) ||
  /\b(?:gone|missing|too \w+ (?:to|for))\b/i.test(said.plain);

/** Whether two roots say much the same. */
export const alike = (a: string, b: string, kin: Kin | null): boolean =>
  a === b || (kin !== null && kin.likeness(a, b) === 1);

/** Whether a root, or one much like it, is among others. */
export const isIn = (root: string, roots: ReadonlySet<string>, kin: Kin | null): boolean =>
  roots.has(root) || (kin !== null && [...roots].some((r) => kin.likeness(r, root) > 0));

/** How much of some roots is among others: 0 to 1; 1 for none. */
export const coverage = (roots: readonly string[], by: ReadonlySet<string>, kin: Kin | null): number =>
  roots.length ? roots.filter((r) => isIn(r, by, kin)).length / roots.length : 1;

/** The words of a segment as they stand, without the marks at their ends. */
export const wordsOfSegment = ({ text }: Said, { words }: Segment): string =>
  text.slice(words[0].start, words[words.length - 1].end).replace(/^[\s,;:.–—-]+|[\s,;:.]+$/g, '');
