/** Words that stand on the screen. */
import { numbersIn, quotesIn } from '../facts/extract.ts';
import type { PlainSection } from '../script/data.ts';
import { names, type CastEntry } from './cast.ts';

const SHORT_QUOTE = 8;
/** Measures are worth reading however small. */
const SCREEN_UNIT =
  /^(?:m|km|cm|mm|met(?:re|er)s?|centimet(?:re|er)s?|millimet(?:re|er)s?|kilomet(?:re|er)s?|tonnes?|tons?|kilograms?|kg|lit(?:re|er)s?|miles?|feet|degrees?|per cent|percent|hertz|volts?|watts?)$/i;
/** Names when first heard, figures with their unit, short quotations, the number of an item. */
export function onScreen(
  text: string,
  shown: readonly CastEntry[],
  said: Set<string>,
  home: PlainSection,
  opens: boolean,
): string[] {
  const out: string[] = [];
  const item =
    /^(?:number |step |no\. ?)?(\d{1,2}|one|two|three|four|five|six|seven|eight|nine|ten)\b[.:,]?/i.exec(
      home.title,
    );
  if (opens && item) out.push(home.title);
  for (const c of shown)
    // Who has no name has nothing to be read.
    if (/^\p{Lu}/u.test(c.name) && !said.has(c.name) && names(c, text)) {
      said.add(c.name);
      out.push(
        c.looks.role &&
          c.looks.role.text.length < 40 &&
          !/^who\b|\b(?:man|woman|boy|girl|narrator)\b/.test(c.looks.role.text)
          ? `${c.name}, ${c.looks.role.text.replace(/^(?:an?|the)\s/, '')}`
          : c.name,
      );
    }
  for (const q of quotesIn(text))
    if (q.text.split(/\s+/).length <= SHORT_QUOTE)
      out.push(`“${q.text.replace(/[“”"]/g, '').replace(/[.,]$/, '')}”`);
  for (const n of numbersIn(text)) {
    // "18 percent" has its unit; "87 cubic" lacks the noun of it.
    const said = n.unit && (n.text.includes(n.unit) || (n.unit === '%' && /per\s?cent/.test(n.text)));
    const more = /^(?:cubic|square)$/.test(n.unit ?? '')
      ? /^\s\p{L}+\s(\p{Ll}+)/u.exec(text.slice(n.end))?.[1]
      : '';
    const unit = n.unit && !said && !/^[£$€]$/.test(n.unit) ? [n.unit, more].filter(Boolean).join(' ') : '';
    if (
      SCREEN_UNIT.test(n.unit ?? '') ||
      /[£$€%]/.test(n.text) ||
      (/\d/.test(n.text) ? n.value > 12 : n.value >= 20 && n.unit)
    )
      out.push([n.text, unit].filter(Boolean).join(' '));
  }
  return [...new Set(out)].slice(0, 2);
}
