/** Sentences of a note in which quotations, and words that are spoken of, are one letter each, so that no verb in them is read. */
import { escaped } from '../ops/cut.ts';
import { QUOTED } from '../plainly.ts';
import { lineSaying } from '../said.ts';
import type { ReviseContext } from '../types.ts';
import { maskAt } from './roles.ts';

/** A sentence, its quotations masked. */
export interface Sentence {
  text: string;
  quoted: readonly string[];
  /** So many of them, the first ones, stood in quotation marks. */
  marked: number;
}
/** "we'd be grateful if", and the second "if" of such a sentence. */
const HOPED = '\\b(?:grateful|glad|happy|happier|nice|nicer|easier|best|lovelier|great|good|lovely|helpful|wonderful|better|appreciate it|appreciated|love it|like it) if\\b'; // prettier-ignore
const HOPES = new RegExp(`${HOPED}|(?<=${HOPED}.*,? and )if\\b`, 'gi');
/** Whether the script writes a word in capitals among words that it doesn't. */
export const isAcronym = (word: string, { sections }: ReviseContext) =>
  sections.some((s) => s.lines.some((l) => new RegExp(`(?<![\\p{L}\\p{N}])${word}(?![\\p{L}\\p{N}])`, 'u').test(l.text) && /\p{Ll}{3}/u.test(l.text))); // prettier-ignore

/** A sentence of so few words may be words of the script. */
const FEW = 5;
/** A sentence with its quotations, and words of the script that it speaks of, as letters of their own. */
export function maskedSentence(part: string, context: ReviseContext): Sentence {
  const quoted: string[] = [];
  const mask = (words: string) => maskAt(quoted.push(words) - 1);
  const has = (word: string) => saysWord(word, context);
  // "Lanthorn Compendium? Never heard of it.": words of the script and nothing else.
  if (
    !part.match(QUOTED) &&
    part.split(' ').length <= FEW &&
    part.split(' ').length > 1 &&
    has(part.replace(/[?!.,]+$/, ''))
  )
    return { text: mask(part), quoted, marked: 0 };
  const plain = part
    .replace(/\p{Co}/gu, ' ')
    .replace(/\s*(?:\.{2,}|…)\s*/g, ' ')
    .replace(HOPES, 'please')
    .replace(QUOTED, (q) => mask(q.slice(1, -1).replace(/[.,]$/, '')));
  const marked = quoted.length;
  const text = plain
    .replace(/(?<![\p{L}\p{N}'’-])\p{Lu}{2,}(?:[;/&]\p{Lu}{2,})*(?![\p{L}\p{N}-])/gu, (w) =>
      isAcronym(w, context) ? mask(w) : w,
    )
    .replace(WRITTEN, (w) => (has(w) ? mask(w) : w))
    .replace(MENTIONED, (w) => (has(w) ? mask(w) : w));
  return { text, quoted, marked };
}

/** Words that are spoken of: "the word slane", "the name Dagny", "the 58", "nobody says slane". */
const MENTIONED =
  /(?<=\b(?:the|this|that) (?:word|name|term|phrase|expression) )[\p{L}][\p{L}’'-]*|(?<=\b(?:the|figure|number|hour|time|year|amount|age) )[£$€]?\d[\d.,:]*\d?(?=$|[,;?!]|\.(?:$|\s)| (?:out|away|off|please|in|as|should|could|can|must|and|or|is|are)\b)|^(?!(?:this|that|these|those|they|there|what|when|where|which|here|then|with|please|every|everything|nothing|some|such)\b)\p{L}{4,}(?: \p{L}{3,})?(?= (?:is|are|sounds?|trips?|reads?|feels?|means?) )|(?<=\b(?:says|knows|understands|pronounces?) (?:an? )?)\p{Ll}{4,}$/giu;
/** "where it says spring and first frost make it …" */
const WRITTEN =
  /(?<=\b(?:where|when) it says ).+?(?=,? (?:make|put|say|change|use|write|should|must|i)\b)/giu;
/** Whether a line of the script has a word, or words. */
export const saysWord = (word: string, { sections }: ReviseContext) => {
  const whole = new RegExp(`(?<![\\p{L}\\p{N}])${escaped(word)}(?![\\p{L}\\p{N}])`, 'iu');
  return sections.some((s) => s.lines.some((l) => whole.test(l.text)));
};

/** Whether a line has quoted words, or their beginning. */
export const spoken = (words: string, { sections }: ReviseContext) => {
  const line = lineSaying(words.split(/\s*(?:\.{3}|…)\s*/)[0], sections);
  return 'line' in line || line.times > 0;
};
