/** Several lines of one, and one of several: what belongs to a line stays with it once. */
import { safeSplits } from '../draft/split.ts';
import type { PlainLine } from '../script/data.ts';
import {
  linesIn,
  mapLines,
  type Applied,
  type ReviseContext,
  type ReviseTools,
  type Scope,
} from './types.ts';

/** A line parted into these texts: its takes and notes stay with the first, its rest with the last. */
export const partedLine = (line: PlainLine, texts: readonly string[], fresh: () => string): PlainLine[] =>
  texts.map((text, i) => ({
    ...line,
    id: i === 0 ? line.id : `L${fresh()}`,
    text,
    marks: [],
    takes: i === 0 ? line.takes : [],
    notes: i === 0 ? (line.notes ?? []) : [],
    restMs: i === texts.length - 1 ? line.restMs : 0,
  }));

/** Lines joined into one that says `text` and rests on all that they rest on. */
export const joinedLine = (lines: readonly PlainLine[], text: string): PlainLine => ({
  ...lines[0],
  text,
  from: lines
    .flatMap((l) => l.from)
    .filter((f, i, all) => all.findIndex((x) => x.source === f.source && x.fact === f.fact) === i),
  restMs: lines[lines.length - 1].restMs,
  marks: [],
});

/** Shares of a sentence's words that its longest part may have, the evenest tried first. */
const SHARES = [0.6, 0.75, 0.9];

/** One sentence as two, where that is safe. */
export function twoSentences(
  scope: Scope,
  context: ReviseContext,
  tools: Pick<ReviseTools, 'tagger'>,
): Applied {
  const lines = linesIn(context.sections).filter((l) => scope.lines.includes(l.id));
  if (lines.length !== 1) return { refused: 'One line at a time can be made two.' };
  const [line] = lines;
  const words = line.text.split(/\s+/).length;
  const tokens = tools.tagger(line.text);
  const parts = SHARES.map((share) => safeSplits(line.text, tokens, Math.ceil(words * share))).find(
    (p) => p.length > 1,
  );
  if (!parts) return { refused: 'It can’t be cut safely; quote the words to split after.' };
  const sections = mapLines(context.sections, new Set([line.id]), (l) => partedLine(l, parts, context.fresh));
  const same = linesIn(sections).some((l) => l.id === line.id && l.text === line.text);
  return same ? { refused: 'That line is locked.' } : { sections };
}
