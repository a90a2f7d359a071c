/** What an order wants said exactly: values with their units, days, and quotations, as the source has them. */
import type { Fact } from '../facts/facts.ts';
import { asData } from './parts.ts';

/** What belongs to a figure on its left and right: a currency, a sign, a unit behind a hyphen, decimals. */
const LEFT = /[\p{Sc}\d.,/+−-]+$/u;
const RIGHT = /^(?:[.,/–-]?[\p{L}\d%°²³]+)+|^%/u;
/** A noun behind a figure that is its unit, where the figure itself names none. */
const UNIT = /^\s(?!(?:and|or|of|in|on|at|to|from|by|for|with|was|were|is|are|had|has|have|the|a|an|as|but|that|who|which|when|after|before|per)\b)(?:per cent|[\p{Ll}][\p{Ll}’'-]*)/u; // prettier-ignore

/** A value as it stands, whole: "34-metre", "€186,000", "208 occupied". */
function whole(text: string, start: number, end: number, withUnit = true): string {
  const left = LEFT.exec(text.slice(0, start))?.[0].length ?? 0;
  const right = RIGHT.exec(text.slice(end))?.[0].length ?? 0;
  const [from, to] = [start - left, end + right];
  const unit = right || !withUnit ? '' : (UNIT.exec(text.slice(to))?.[0] ?? '');
  return text
    .slice(from, to + unit.length)
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
        .map((n) => asData(whole(f.text, n.start, n.end), 60)),
      ...f.dates
        .filter((d) => /\d/.test(d.text) && !quoted(d.start))
        .map((d) => asData(whole(f.text, d.start, d.end, false), 60)),
    ];
  });
  return [...new Set(list)].filter(
    (x, i, all) => x && !all.some((y, k) => k !== i && y !== x && y.includes(x)),
  );
}
