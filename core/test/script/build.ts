/** Sections and lines for tests, everything but what a case is about as it usually is. */
import { emptyLine, type PlainLine, type PlainSection } from '../../src/script/index.ts';

export const line = (id: string, text: string, more: Partial<PlainLine> = {}): PlainLine => ({
  ...emptyLine(id),
  text,
  ...more,
});
export const section = (id: string, lines: PlainLine[], more: Partial<PlainSection> = {}): PlainSection => ({
  id,
  title: id,
  role: 'ground',
  plannedMs: 0,
  locked: false,
  takes: [],
  lines,
  ...more,
});
