/** Over told as under, warmer as colder: a comparison turned round beside the same figure. */
import { accuse, type Check } from './fault.ts';
import type { Said } from './text.ts';

/** Dimensional words by their direction (the poles of Bierwisch and Lang, "Dimensional Adjectives", 1989), from memory. */
const UP =
  /^(?:over|above|more|higher|warmer|hotter|longer|later|larger|bigger|greater|taller|heavier|faster|older|wider|deeper|up|upward|rise|rose|climb|climbed|gain|gained|increase|increased|exceed|exceeded|plus)$/i;
const DOWN =
  /^(?:under|below|less|fewer|lower|colder|cooler|shorter|earlier|smaller|lighter|slower|younger|narrower|shallower|down|downward|fall|fell|drop|dropped|lose|lost|decrease|decreased|minus)$/i;
const REACH = 4;

function direction(said: Said, value: number): 'up' | 'down' | null {
  for (const v of said.values) {
    if (said.segments.some((s) => s.index === v.segment && s.denies)) continue;
    if (Math.abs(v.value - value) > 1e-6 && Math.abs(v.raw - value) > 1e-6) continue;
    const first = said.words.findIndex((w) => w.start >= v.start);
    const last = said.words.findLastIndex((w) => w.end <= v.end);
    if (first < 0) continue;
    const near = said.words.slice(Math.max(0, first - REACH), Math.max(last, first) + 1 + REACH);
    const [up, down] = [near.some((w) => UP.test(w.text)), near.some((w) => DOWN.test(w.text))];
    if (up !== down) return up ? 'up' : 'down';
  }
  return null;
}

export const compared: Check = ({ told, evidence }) => {
  if (!evidence || told.question) return [];
  for (const v of told.values) {
    const own = direction(told, v.raw);
    if (!own) continue;
    const there = evidence.best.map((s) => direction(s, v.raw)).filter((d) => d !== null);
    if (!there.length || there.includes(own)) continue;
    return accuse('direction', 'wrong', v, `The source has it the other way round beside “${v.text}”.`);
  }
  return [];
};
