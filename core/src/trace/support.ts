/** What a line claims that no source has: values, names, altered quotes. */
import type { Fact } from '../facts/facts.ts';
import { datesIn, numbersIn } from '../facts/extract.ts';
import { quotedSpans } from '../language/quotes.ts';

export interface SourceStock {
  values: ReadonlySet<number>;
  words: ReadonlySet<string>;
  /** The text with white space and quotation marks evened out, for finding quotes. */
  even: string;
}

export interface Unsupported {
  /** Range in the line. */
  start: number;
  end: number;
  text: string;
  why: 'number' | 'date' | 'name' | 'quote';
}

const even = (text: string) =>
  text.toLowerCase().replace(/[’‘]/g, "'").replace(/[“”]/g, '"').replace(/\s+/g, ' ');

/** A source's words together with what the writer knows beside it: what a line may claim. */
export const supportOf = (source: { text: string; facts?: readonly Fact[] }): string =>
  [source.text, ...(source.facts ?? []).filter((f) => f.own === 'known').map((f) => f.text)].join('\n');

/** The stock of values, words and quotes of all sources together. */
export function stockOf(texts: readonly string[]): SourceStock {
  const values = new Set<number>();
  const words = new Set<string>();
  for (const text of texts) {
    for (const n of numbersIn(text)) values.add(Math.abs(n.value));
    for (const d of datesIn(text))
      for (const part of d.iso.replace(/^--/, '').split('-')) values.add(Number(part));
    for (const w of text.toLowerCase().match(/[\p{L}\p{M}]+/gu) ?? []) words.add(w);
    // Figures inside other forms ("MRT-4", "9:30") still stand in the source.
    for (const d of text.match(/\d+/g) ?? []) values.add(Number(d));
  }
  return { values, words, even: even(texts.join('\n\n')) };
}

const NAME = /(?<![.!?…:“"‘]["”’]? )(?<=\S )\p{Lu}[\p{L}\p{M}]+(?:[’'-]\p{L}+)*/gu;

/** Small numbers in words are often turns of speech ("one of", "two sides") and are not claims by themselves. */
const SMALL = 3;

/** Claims of one line without support in the sources, in order. */
export function unsupportedIn(line: string, stock: SourceStock): Unsupported[] {
  const out: Unsupported[] = [];
  const add = (start: number, end: number, why: Unsupported['why']) =>
    out.push({ start, end, text: line.slice(start, end), why });
  for (const d of datesIn(line))
    if (
      d.iso
        .replace(/^--/, '')
        .split('-')
        .some((part) => !stock.values.has(Number(part)))
    )
      add(d.start, d.end, 'date');
  for (const n of numbersIn(line)) {
    const inWords = !/\d/.test(n.text);
    if (!stock.values.has(Math.abs(n.value)) && !(inWords && n.value <= SMALL)) add(n.start, n.end, 'number');
  }
  for (const m of line.matchAll(NAME)) {
    if (/^(?:I|I[’'].+)$/.test(m[0])) continue;
    const parts = m[0].toLowerCase().match(/[\p{L}\p{M}]+/gu) ?? [];
    if (parts.filter((p) => p !== 's').some((p) => !stock.words.has(p)))
      add(m.index, m.index + m[0].length, 'name');
  }
  for (const [start, end] of quotedSpans(line)) {
    const inner = even(line.slice(start + 1, end - 1))
      .replace(/[.,!?;:]+$/, '')
      .trim();
    if (inner.split(' ').length > 2 && !stock.even.includes(inner)) add(start, end, 'quote');
  }
  return out.sort((a, b) => a.start - b.start);
}
