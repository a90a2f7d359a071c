/** One sentence as two, where that is safe. */
import { safeSplits } from '../draft/split.ts';
import {
  linesIn,
  mapLines,
  withText,
  type Applied,
  type ReviseContext,
  type ReviseTools,
  type Scope,
} from './types.ts';

/** Shares of a sentence's words that its longest part may have, the evenest tried first. */
const SHARES = [0.6, 0.75, 0.9];

export function twoSentences(
  scope: Scope,
  context: ReviseContext,
  tools: Pick<ReviseTools, 'tagger'>,
): Applied {
  const lines = linesIn(context.sections).filter((l) => scope.lines.includes(l.id));
  if (lines.length !== 1) return { refused: 'One line at a time can be made two.' };
  const [line] = lines;
  const words = line.text.split(/\s+/).length;
  const parts = SHARES.map((share) =>
    safeSplits(line.text, tools.tagger(line.text), Math.ceil(words * share)),
  ).find((p) => p.length > 1);
  if (!parts) return { refused: 'It can’t be cut safely; quote the words to split after.' };
  const sections = mapLines(context.sections, new Set([line.id]), (l) =>
    parts.map((text, i) => ({
      ...withText(l, text),
      ...(i ? { id: `L${context.fresh()}`, takes: [] } : {}),
      restMs: i === parts.length - 1 ? l.restMs : 0,
    })),
  );
  const same = linesIn(sections).some((l) => l.id === line.id && l.text === line.text);
  return same ? { refused: 'That line is locked.' } : { sections };
}
