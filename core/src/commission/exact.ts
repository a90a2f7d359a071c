/** What an order wants said exactly: values with their units, days, and quotations, as the source has them. */
import type { Fact } from '../facts/facts.ts';
import { asData } from './parts.ts';

/** What belongs to a figure on its left and right: a currency, a sign, a unit behind a hyphen, decimals. */
const LEFT = /[\p{Sc}\d.,/+−-]+$/u;
const RIGHT = /^(?:[.,/–-]?[\p{L}\d%°²³]+)+|^%/u;
/** What is counted stands in the plural; a word that only describes it is no unit. */
const COUNTED = /(?:s|people|men|women|children|feet)$/;

/** A small figure that nothing is known to be counted by: half of a span ("3 and 4 a.m."), a mark. */
const BARE = /^\d{1,2}$/;

/** A value as it stands, whole: "34-metre", "€186,000", "46,000 bolts". */
function whole(
  text: string,
  { start, end, unit = '' }: { start: number; end: number; unit?: string },
): string {
  const left = LEFT.exec(text.slice(0, start))?.[0].length ?? 0;
  const right = RIGHT.exec(text.slice(end))?.[0].length ?? 0;
  const behind = text.slice(end + right);
  const counted = !right && COUNTED.test(unit) && behind.startsWith(` ${unit}`) ? unit.length + 1 : 0;
  return text
    .slice(start - left, end + right + counted)
    .replace(/^[.,/+-]+/, '')
    .trim();
}

/** Values and quotations of facts, each once, none inside another. Small numbers that are written as words are left to the writer. */
export function exactIn(facts: readonly Fact[]): string[] {
  const list = facts.flatMap((f) => {
    const quoted = (at: number) => f.quotes.some((q) => at >= q.start && at < q.end);
    const dated = (at: number) => f.dates.some((d) => at >= d.start && at < d.end);
    return [
      ...f.quotes.map((q) => `“${asData(q.text.replace(/[,.]$/, ''), 300)}”`),
      ...f.numbers
        .filter((n) => /\d/.test(n.text) && !quoted(n.start) && !dated(n.start))
        .map((n) => asData(whole(f.text, n), 60))
        .filter((value) => !BARE.test(value)),
      ...f.dates
        .filter((d) => /\d/.test(d.text) && !quoted(d.start))
        .map((d) => asData(whole(f.text, d), 60)),
    ];
  });
  return [...new Set(list)].filter(
    (x, i, all) => x && !all.some((y, k) => k !== i && y !== x && y.includes(x)),
  );
}
