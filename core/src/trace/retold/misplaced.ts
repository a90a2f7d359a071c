/** A figure or a month that the sources have, told where they give another one. */
import { MONTHS, WEEKDAYS } from '../../language/lexicon.ts';
import { accuse, matched, type Check } from './fault.ts';
import { asDigits, digitsOf, type Value } from './figures.ts';

/** Below this likeness it is not known what the line rests on. */
const SURE = 0.4;
const CALENDAR =
  /\b(?:(?:Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec)(?:\p{Ll}*)\b|May\b|(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun)\p{Ll}*)/gu;
const full = (short: string) =>
  [...MONTHS, ...WEEKDAYS].find((d) => d.startsWith(short.slice(0, 3))) ?? short;
const calendarIn = (text: string) => (text.match(CALENDAR) ?? []).map(full);
const same = (a: Value, b: Value) => Math.abs(a.value - b.value) < 1e-6 || Math.abs(a.raw - b.raw) < 1e-6;

export const misplaced: Check = ({ told, evidence }) => {
  if (!evidence || evidence.likeness < SURE || told.question) return [];
  const [first] = evidence.best;
  const there = evidence.best.flatMap((s) => s.values);
  for (const v of told.values) {
    if (v.unit === 'part' || v.whole || there.some((x) => same(x, v)) || digitsIn(evidence.best, v)) continue;
    if (v.inWords && v.raw <= 2) continue;
    // Another of the same kind stands in that very sentence, and the line has none of them.
    const rivals = first.values.filter((x) => x.unit === v.unit && !told.values.some((t) => same(t, x)));
    const others = told.values.filter((t) => t !== v && t.unit === v.unit);
    if (rivals.length !== 1 || others.some((t) => !there.some((x) => same(x, t)))) continue;
    if (evidence.near.values.some((x) => same(x, v) && (x.unit || !v.unit)) && !v.unit) continue;
    return accuse('thing', 'unsupported', v, `The source says “${rivals[0].text}” here, not “${v.text}”.`);
  }
  const days = new Set(evidence.best.flatMap((s) => calendarIn(s.plain)));
  const near = new Set(calendarIn(evidence.near.plain));
  const own = new Set(calendarIn(told.plain));
  for (const m of told.plain.matchAll(CALENDAR)) {
    const kind = (MONTHS as readonly string[]).includes(full(m[0])) ? MONTHS : WEEKDAYS;
    const rival = [...days].find((d) => (kind as readonly string[]).includes(d));
    if (!rival || near.has(full(m[0])) || own.has(rival)) continue;
    return accuse('value', 'wrong', matched(m), `The source says “${rival}”, not “${m[0]}”.`);
  }
  return [];
};

/** The figure stands there in digits, whatever it was read as. */
const digitsIn = (best: readonly { text: string }[], v: Value): boolean => {
  const digits = digitsOf(v.text);
  return digits !== undefined && best.some((s) => new RegExp(asDigits(digits)).test(s.text));
};
