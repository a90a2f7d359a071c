/** Whether an opening does its work: within 15 s what this is and what is at stake, by 30 s what the listener will get (common practice, no published source). */
import { stems } from '../facts/centrality.ts';

export interface OpeningCheck {
  /** Seconds at which each is first heard; null when it is not within its time. */
  whatMs: number | null;
  stakeMs: number | null;
  getMs: number | null;
}

export const WHAT_WITHIN_MS = 15_000;
export const GET_WITHIN_MS = 30_000;
const STAKE =
  /\b(?:but|not|no|never|nobody|without|only|until|failed|broke|broken|lost|wrong|refused|closed|shut|stopped|vanished|stuck|hurt|died|killed|missing|danger|last|first|alone|cost|can’t|won’t|isn’t|wasn’t|hasn’t|didn’t|don’t|before it)\b/i;

/** From the title, the fact that pays for it and the timed lines. `get` is heard when the subject of the promise, or a question on it, is. */
export function openingCheck(
  title: string,
  lines: readonly { text: string; startMs: number; from: readonly { source: string; fact?: string }[] }[],
  pays?: { source: string; fact: string },
): OpeningCheck {
  const subject = stems(title);
  const shares = (text: string, least: number) => {
    const own = new Set(stems(text));
    return subject.filter((s) => own.has(s)).length >= Math.min(least, subject.length);
  };
  const first = (test: (l: (typeof lines)[number]) => boolean, within: number) =>
    lines.find((l) => l.startMs < within && test(l))?.startMs ?? null;
  return {
    whatMs: first((l) => shares(l.text, 1), WHAT_WITHIN_MS),
    stakeMs: first((l) => STAKE.test(l.text) || /\?["”]?$/.test(l.text), WHAT_WITHIN_MS),
    getMs: first(
      (l) =>
        shares(l.text, 2) ||
        /\?["”]?$/.test(l.text) ||
        Boolean(pays && l.from.some((f) => f.source === pays.source && f.fact === pays.fact)),
      GET_WITHIN_MS,
    ),
  };
}
