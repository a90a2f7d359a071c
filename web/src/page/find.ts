/** Find and replace over the lines of the manuscript: whole words, case, patterns. */
import type { Node } from 'prosemirror-model';
import { TextSelection, type Command } from 'prosemirror-state';

export interface FindOptions {
  text: string;
  whole: boolean;
  matchCase: boolean;
  /** The text is a regular expression. */
  pattern: boolean;
}
export interface Match {
  from: number;
  to: number;
  /** The line it stands in, and whether that is locked. */
  line: string;
  locked: boolean;
  /** What `$1`, `$2`… stand for. */
  groups: readonly string[];
}
const MOST_MATCHES = 5000;

/** The expression a search stands for; null when there is nothing to look for. Throws SyntaxError on a broken pattern. */
export function expressionOf({ text, whole, matchCase, pattern }: FindOptions): RegExp | null {
  if (!text) return null;
  const source = pattern ? text : text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/['’]/g, "['’]");
  return new RegExp(
    whole ? `(?<![\\p{L}\\p{N}])(?:${source})(?![\\p{L}\\p{N}])` : source,
    `g${matchCase ? '' : 'i'}u`,
  );
}

export function matchesIn(doc: Node, options: FindOptions): Match[] {
  const expression = expressionOf(options);
  if (!expression) return [];
  const out: Match[] = [];
  doc.forEach((section, sectionPos) =>
    section.forEach((line, offset) => {
      const start = sectionPos + 1 + offset + 1;
      for (const m of line.textContent.matchAll(expression)) {
        if (!m[0] || out.length >= MOST_MATCHES) continue;
        out.push({
          from: start + m.index,
          to: start + m.index + m[0].length,
          line: line.attrs.id as string,
          locked: (line.attrs.locked || section.attrs.locked) as boolean,
          groups: [...m].map((g) => g ?? ''),
        });
      }
    }),
  );
  return out;
}

/** What stands in a match's place: in a pattern, $1 is its first group and $& the whole. */
export const replacementFor = (match: Match, by: string, pattern: boolean): string =>
  pattern
    ? by.replace(/\$(\d|&)/g, (_, k: string) =>
        k === '&' ? match.groups[0] : (match.groups[Number(k)] ?? ''),
      )
    : by;

/** Replaces matches as one change; those in locked lines stay. */
export const replaceMatches =
  (matches: readonly Match[], by: string, pattern: boolean): Command =>
  (state, dispatch) => {
    const free = matches.filter((m) => !m.locked);
    if (!free.length) return false;
    if (dispatch) {
      const tr = state.tr;
      for (const m of [...free].reverse()) {
        const text = replacementFor(m, by, pattern);
        if (text) tr.insertText(text, m.from, m.to);
        else tr.delete(m.from, m.to);
      }
      dispatch(tr.setMeta('ownStep', true).setMeta('origin', 'replace'));
    }
    return true;
  };

export const selectMatch =
  (match: Match): Command =>
  (state, dispatch) => {
    dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, match.from, match.to)).scrollIntoView());
    return true;
  };
