/** A reason of its own: what it explains is told as the source tells it, the reason stands nowhere near. */
import type { Check } from './fault.ts';
import { SO } from './linked.ts';
import { coverage, type Word } from './text.ts';

/** The reason comes behind these. */
const BEHIND = /\b(?:because(?: of)?|due to|thanks to|owing to)\b/i;
const LEAST = 0.34;
const EFFECT = 0.5;
const FEWEST = 2;

export const reason: Check = ({ told, evidence, tools: { kin } }) => {
  if (!evidence || told.question) return [];
  const because = BEHIND.exec(told.plain);
  const so = because ? null : SO.exec(told.plain);
  const m = because ?? so;
  if (!m) return [];
  const [start, end] = [m.index, m.index + m[0].length];
  // In front the reason ends at its comma.
  const comma = because && start < 3 ? told.plain.indexOf(',', end) : -1;
  const isReason = (w: Word) =>
    so ? w.end <= start : comma > 0 ? w.start >= end && w.end <= comma : w.start >= end;
  const rooted = told.words.filter((w) => w.root !== null);
  const own = rooted.filter(isReason).map((w) => w.root!);
  const effect = rooted.filter((w) => !isReason(w)).map((w) => w.root!);
  if (own.length < FEWEST || !effect.length) return [];
  const best = new Set(evidence.best.flatMap((s) => [...s.roots]));
  if (coverage(effect, best, kin) < EFFECT || coverage(own, evidence.near.roots, kin) >= LEAST) return [];
  const words = rooted.filter(isReason);
  return [
    {
      kind: 'cause',
      level: 'unsupported',
      start: words[0].start,
      end: words[words.length - 1].end,
      says: 'The source does not give this reason.',
    },
  ];
};
