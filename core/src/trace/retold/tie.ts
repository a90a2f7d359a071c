/** What ties a telling to a part of its passage, so that a word found in both is said of the same thing. */
import type { Retelling } from './fault.ts';
import type { Said, Segment, Word } from './text.ts';

/** Something else that a telling and a part of the passage have in common: they are about the same. */
export const anchor = (
  told: readonly Word[],
  there: Segment,
  but: readonly (string | null)[],
  r: Retelling,
) =>
  r.passage.segments
    .filter((s) => Math.abs(s.index - there.index) <= REACH)
    .some((s) =>
      s.words.some(
        (x) =>
          x.root &&
          told.some(
            (w) =>
              w.root &&
              !but.includes(w.root) &&
              !but.includes(x.root) &&
              ((r.tools.kin?.likeness(x.root!, w.root) ?? 0) > 0 || x.root === w.root),
          ),
      ),
    );
/** Segments on either side that still belong to one statement. */
const REACH = 2;
/** All that is told stands in the passage: then nothing else need tie them together. */
export const within = (told: Said, passage: Said) =>
  told.roots.size > 0 && [...told.roots].every((x) => passage.roots.has(x));
export const segmentOf = (segments: readonly Segment[], w: Word) =>
  segments.find((s) => s.index === w.segment)!;
