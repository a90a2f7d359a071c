/** Narration told by how its rows are set: in drafts whose narration is sentences, what is set otherwise and says none is for those who make the film. Common practice, no published source. */
import { cut, isSpoken, wordsOf, type JudgedRow } from './piece.ts';

/** What of a row is said, cues and comments taken off; a row that isn't spoken as it stands. */
const said = (r: JudgedRow) => r.pieces.map((p) => (p.type === 'spoken' ? p.text : '')).join(' ').trim() || r.row; // prettier-ignore
const isSentence = (r: JudgedRow) => /[.!?…]["”’)*_]*\s*$/.test(said(r)) && wordsOf(said(r)) >= 4;

/** Where a row begins and under which mark: rows of one shape are of one kind. */
const shapeOf = (row: string): string => {
  const [, blank, bullet] = /^([ \t]*)([-*•◦‣+](?=\s))?/.exec(row)!;
  return `${/\t| {4}/.test(blank) ? 'in' : bullet && blank ? 'below' : ''}${bullet ?? ''}`;
};

/** The narration has one shape and is sentences; rows of another that mostly are none stand among it in several places. */
export function byShape(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.flatMap((r, i) => (isSpoken(r) && !r.labelled ? [i] : []));
  const groups = new Map<string, number[]>();
  for (const i of spoken) {
    const shape = shapeOf(rows[i].row);
    const list = groups.get(shape);
    if (list) list.push(i);
    else groups.set(shape, [i]);
  }
  const size = (list: readonly number[]) => list.reduce((n, i) => n + wordsOf(rows[i].row), 0);
  const [main, ...others] = [...groups.values()].sort((a, b) => size(b) - size(a));
  if (!main || size(main.filter((i) => isSentence(rows[i]))) < size(main) * 0.85) return rows;
  const own = new Set(main);
  const before = new Map(spoken.map((i, k) => [i, spoken[k - 1]]));
  const quiet = new Set(
    others.filter((list) => {
      const fragments = list.filter((i) => !isSentence(rows[i])).length;
      // A list that is read out stands in one place, often behind a colon.
      const places = list.filter((i) => before.get(i) === undefined || own.has(before.get(i)!));
      const announced = places.some((i) => /:\s*$/.test(rows[before.get(i) ?? -1]?.row ?? ''));
      const apart = shapeOf(rows[list[0]].row).startsWith('in') !== shapeOf(rows[main[0]].row).startsWith('in');
      const short = apart && size(list) / list.length <= 7 && size(main) / main.length >= (2 * size(list)) / list.length;
      return list.length >= 3 && places.length >= 3 && !announced && (short || fragments >= list.length * 0.75);
    }).flat(),
  ); // prettier-ignore
  return quiet.size
    ? rows.map((r, i) => (quiet.has(i) ? { ...r, pieces: [cut('direction', r.row)] } : r))
    : rows;
}

/** Rows on top that are no sentences, in a draft that else is made of them: what the draft is called, by whom, which one it is. */
export function withoutHeadRows(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const worded = rows.flatMap((r, i) => (r.row.trim() ? [i] : []));
  const sentences = worded.filter((i) => isSentence(rows[i])).length;
  const spoken = worded.filter((i) => isSpoken(rows[i]));
  if (sentences < 4 || spoken.filter((i) => isSentence(rows[i])).length < spoken.length * 0.7) return rows;
  const out = new Set<number>();
  for (const i of worded) {
    const row = said(rows[i]);
    if (out.size >= 4 || /[.!?…:;,—–-]["”’)*_]*\s*$/.test(row) || wordsOf(row) > 9) break;
    out.add(i);
    // The block ends with a blank row: a first line that runs on is none of it.
    if (!rows[i + 1]?.row.trim()) break;
  }
  const last = Math.max(...out, -1);
  if (!out.size || rows[last + 1]?.row.trim()) return rows;
  return rows.map((r, i) => (out.has(i) && isSpoken(r) ? { ...r, pieces: [cut('brief', r.row)] } : r));
}
