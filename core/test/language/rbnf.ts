/**
 * A small reader of Unicode CLDR's rule-based number formats (UTS #35 part 3, "Rule-Based Number Formatting"), enough
 * for the English spell-out rules, so that our words are checked against the published data itself.
 */
import { readFileSync } from 'node:fs';

const file = new URL('../../../node_modules/cldr-rbnf/rbnf/en.json', import.meta.url);
const rules = (
  JSON.parse(readFileSync(file, 'utf8')) as {
    rbnf: { rbnf: { SpelloutRules: Record<string, [string, string][]> } };
  }
).rbnf.rbnf.SpelloutRules;

/** Spells a whole number by a CLDR rule set such as "%spellout-cardinal-verbose". */
export function spell(n: number, set: string): string {
  let best: { base: number; radix: number; body: string } | null = null;
  for (const [key, body] of rules[set]) {
    const m = /^(\d+)(?:\/(\d+))?$/.exec(key);
    if (m && Number(m[1]) <= n) best = { base: Number(m[1]), radix: Number(m[2] ?? 10), body };
  }
  if (!best) throw new Error(`no rule for ${n} in ${set}`);
  const { base, radix } = best;
  // The divisor is the highest power of the radix not above the base value.
  let divisor = radix;
  while (divisor * radix <= base) divisor *= radix;
  if (base < radix) divisor = 1;
  const left = Math.floor(n / divisor);
  const right = n % divisor;
  const body = best.body
    .replace(/;$/, '')
    .replace(/^'/, '')
    .replace(/\[([^\]]*)\]/g, (_, part: string) => (right === 0 ? '' : part));
  return body
    .replace(/=(%[^=]+)=/g, (_, other: string) => spell(n, other))
    .replace(/←(%[^←]*)?←/g, (_, other?: string) => spell(left, other ?? set))
    .replace(/→(%[^→]*)?→/g, (_, other?: string) => spell(right, other ?? set));
}
