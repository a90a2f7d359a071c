/** Words made comparable between script and source: lower case, contractions opened, units in full. */
import { quotedSpans } from '../language/quotes.ts';
import { UNITS } from '../language/lexicon.ts';
import { writtenWords, type WordSpan } from '../language/sentences.ts';

export interface ComparedWord {
  key: string;
  start: number;
  end: number;
  /** A name or part of one: left out of overlap, and does not break a run. */
  name: boolean;
  /** Between quotation marks: left out, and breaks a run. */
  quoted: boolean;
}

const NEGATED: Record<string, string> = { "can't": 'can', "won't": 'will', "shan't": 'shall' };
const SUFFIX: Record<string, string> = { "'re": 'are', "'ve": 'have', "'ll": 'will', "'m": 'am' };

/** One written word as the keys it stands for ("didn't" → did, not). */
function keys(word: string): string[] {
  const lower = word.toLowerCase().replace(/’/g, "'");
  if (lower.endsWith("n't")) return [NEGATED[lower] ?? lower.slice(0, -3), 'not'];
  for (const [suffix, full] of Object.entries(SUFFIX))
    if (lower.endsWith(suffix)) return [lower.slice(0, -suffix.length), full];
  if (/^(?:it|that|there|he|she|what|here|who)'s$/.test(lower)) return [lower.slice(0, -2), 'is'];
  if (lower === 'cannot') return ['can', 'not'];
  return [UNITS.get(word)?.[1] ?? lower.replace(/'s$/, '').replace(/(?<=\d),(?=\d)/g, '')];
}

/** Lower-case words that are written with a capital in mid-sentence in this text: its names. */
export function nameWords(text: string): Set<string> {
  const out = new Set<string>();
  for (const m of text.matchAll(/(?<=[\p{Ll}\p{N},;] )\p{Lu}[\p{L}\p{M}'’-]+/gu))
    out.add(m[0].toLowerCase().replace(/[’']s$/, ''));
  for (const common of ['i', 'i’m', "i'm", 'january', 'monday']) out.delete(common);
  return out;
}

/** A day or a time in figures ("2000-10-30", "17:08") is one word: there is no other way to write it. */
const whole = (words: readonly WordSpan[], text: string): WordSpan[] =>
  words.reduce<WordSpan[]>((out, w) => {
    const last = out.at(-1);
    const figures = last && /\d$/.test(last.text) && /^\d+$/.test(w.text);
    if (figures && /^[-:/]$/.test(text.slice(last.end, w.start)))
      out[out.length - 1] = { text: text.slice(last.start, w.end), start: last.start, end: w.end };
    else out.push(w);
    return out;
  }, []);

/** The compared words of a text, with offsets. */
export function comparedWords(text: string, names: ReadonlySet<string>): ComparedWord[] {
  const quotes = quotedSpans(text);
  let q = 0;
  return whole(writtenWords(text), text).flatMap(({ text: word, start, end }) => {
    while (q < quotes.length && quotes[q][1] <= start) q++;
    const quoted = q < quotes.length && start >= quotes[q][0];
    const name = names.has(word.toLowerCase().replace(/[’']s$/, ''));
    return keys(word).map((key) => ({ key, start, end, name, quoted }));
  });
}
