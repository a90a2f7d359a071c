/** What drafting takes over from the measured style of a channel. */
import type { HouseStyle } from '../measure/style.ts';
import type { House } from './brief.ts';

/** A habit is one when at least this share of cases shows it. */
const HABIT = 0.5;
/** Framing lines a minute that pass unnoticed, at most (measured on our own drafts). */
const MOST_FRAMING = 1.2;

/** The settings of a brief that a measured style stands for. */
export function houseOf(style: HouseStyle): House {
  const figure = (id: string) => style.measures.find((m) => m.id === id)?.middle ?? null;
  const contractions = figure('contractions');
  const questions = figure('questions');
  return {
    longest: Math.max(8, Math.min(40, style.limits.longestSentence)),
    ...(contractions === null ? {} : { contractions: contractions >= HABIT }),
    ...(questions === null ? {} : { framing: Math.min(MOST_FRAMING, questions) }),
  };
}
