/** Counts on a live page that a later entry replaces: told by themselves they would be wrong by now. */
import type { Block } from '../source/document.ts';
import type { TaggedToken } from '../language/tagged.ts';
import { stems } from './centrality.ts';
import type { TaggedSentence } from './facts.ts';

/** What a later entry says instead, in words for the person. */
export const laterSays = (words: string) => `a later entry says ${words}`;

interface Count {
  sentence: number;
  value: number;
  words: string;
  /** What is counted. */
  noun: string;
  /** Entry of the live page, from the oldest; what stands outside the entries sums them up. */
  entry: number;
  /** What else the sentence is about. */
  about: ReadonlySet<string>;
}

const isNoun = (t: TaggedToken) => t.pos === 'NOUN' || t.pos === 'PROPN';

/** A later entry says itself that it corrects a count: "Earlier we reported 40". */
const CORRECTS =
  /\b(?:earlier|previously|at first|initially|this (?:morning|afternoon)|last night)\b[^.;]{0,40}\b(?:reported|said|put|gave|had|counted|thought|believed)\b/i;

/** Counted things with the noun behind the number: measures are readings of their time, not counts, and stay. */
function countsOf(tagged: readonly TaggedSentence[], blocks: ReadonlyMap<string, Block>): Count[] {
  return tagged.flatMap(({ fact, tokens }, sentence) => {
    const block = blocks.get(fact.block);
    if (!block || block.type === 'row' || block.type === 'box' || CORRECTS.test(fact.text)) return [];
    return fact.numbers.flatMap((n): Count[] => {
      const at = tokens.findIndex((t) => t.start >= n.end || (t.start >= n.start && n.unit === t.text));
      const near = at < 0 ? [] : tokens.slice(at, at + 3);
      const last = near.findIndex((t, k) => isNoun(t) && !(near[k + 1] && isNoun(near[k + 1])));
      const named = last >= 0 && near.slice(0, last).every((t) => t.pos === 'ADJ' || isNoun(t));
      if (!named || near[last].start - n.end > 24 || !/^\p{Ll}{3,}s$|^people$/u.test(near[last].text))
        return [];
      return [
        {
          sentence,
          value: n.value,
          words: fact.text.slice(n.start, near[last].end),
          noun: stems(near[last].text)[0] ?? near[last].text,
          entry: block.entry ?? Infinity,
          about: new Set(stems(fact.text.replace(/\d[\d.,]*/g, ' '))),
        },
      ];
    });
  });
}

/**
 * Which sentences of a live page give a count that a later entry replaces → the later words. Two counts are of the same thing when
 * they count the same noun and their sentences share another content word, or where the later entry says that it corrects one.
 * The last word stands; a sentence that itself says that a count was earlier is none.
 */
export function superseded(tagged: readonly TaggedSentence[], blocks: readonly Block[]): Map<number, string> {
  const out = new Map<number, string>();
  if (!blocks.some((b) => b.entry)) return out;
  const counts = countsOf(tagged, new Map(blocks.map((b) => [b.id, b])));
  const corrected = tagged.flatMap(({ fact }) =>
    CORRECTS.test(fact.text) ? fact.numbers.map((n) => n.value) : [],
  );
  for (const c of counts) {
    const later = counts
      .filter((d) => d.entry > c.entry && d.noun === c.noun)
      .sort((a, b) => b.entry - a.entry)
      .find((d) => d.value !== c.value && (corrected.includes(c.value) || [...d.about].filter((s) => s !== c.noun && c.about.has(s)).length > 0)); // prettier-ignore
    // A count that the page comes back to is still true.
    const stands = counts.some((d) => d.entry > c.entry && d.noun === c.noun && d.value === c.value);
    if (later && !stands) out.set(c.sentence, later.words);
  }
  return out;
}
