/** Drafts laid out in columns: records, tables with pipes or tabs, columns set apart by blanks. One column is spoken, the others say what is seen, heard, or when. */
import Papa from 'papaparse';
import { spokenPieces } from './inline.ts';
import { withoutFrames } from './forms.ts';
import { cut, gap, type Layout, type Piece } from './piece.ts';
import { isNarratorLabel } from './labels.ts';

const rowsOf = (text: string) => text.split('\n');

const SPOKEN_HEAD =
  /^\W*(?:audio|narration|narrator|voice[- ]?over|v\/?o|script|spoken|dialogue|words|copy|text to (?:read|say)|what (?:is|we) (?:said|say|hear)|audio\s*\/\s*(?:narration|v\/?o))\b/i;
const UNSPOKEN_HEAD =
  /^\W*(?:video|visuals?|pictures?|images?|shots?|scene|on[- ]?screen|b-?roll|time(?:code|stamp)?|duration|dur|sec(?:onds)?|length|notes?|music|sfx|sounds?|graphics?|#|no|nr|camera|action|what (?:is|we) (?:seen|see)|text on screen|words)\b/i;

/** Records whose fields are set apart by commas, semicolons or tabs (RFC 4180), under a row of names. */
function records(text: string): { rows: string[][]; around: string[] } | null {
  const first = rowsOf(text).find((l) => l.trim()) ?? '';
  const names = first.split(/[,;\t]/).map((c) => c.replace(/"/g, '').trim());
  if (names.length < 2 || names.some((c) => !c || c.split(/\s+/).length > 4 || /[.!?]$/.test(c))) return null;
  const known = names.filter((c) => SPOKEN_HEAD.test(c) || UNSPOKEN_HEAD.test(c)).length;
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' });
  const rows = data.map((r) => r.map((c) => c.trim()));
  if (rows.length < 2 || rows.some((r) => r.length > rows[0].length)) return null;
  // Names that are known say so; else every record has as many fields, of which prose seldom has three in a row.
  const even = rows.length > 3 && rows[0].length > 2 && rows.every((r) => r.length === rows[0].length);
  const named = known * 2 >= names.length && names.some((c) => SPOKEN_HEAD.test(c));
  return named || even ? { rows, around: [] } : null;
}

/** A table whose cells came one below another, as when it is pasted as text: names of columns, then as many rows for each of its rows. */
function cellsBelow(text: string): { rows: string[][]; around: string[] } | null {
  const rows = rowsOf(text).map((r) => r.trim()).filter(Boolean); // prettier-ignore
  const named = (r: string) => r.split(/\s+/).length <= 3 && (SPOKEN_HEAD.test(r) || UNSPOKEN_HEAD.test(r));
  const from = rows.findIndex((r, i) => named(r) && named(rows[i + 1] ?? ''));
  if (from < 0 || from > 6) return null;
  let to = from;
  while (to < rows.length && named(rows[to])) to++;
  const width = to - from;
  const cells = rows.slice(to);
  const heads = rows.slice(from, to);
  const spoken = heads.findIndex((h) => SPOKEN_HEAD.test(h));
  if (width > 6 || spoken < 0 || cells.length < 2 * width || cells.length % width) return null;
  const table = Array.from({ length: cells.length / width }, (_, k) =>
    cells.slice(k * width, (k + 1) * width),
  );
  // The column that is said to be spoken reads so.
  return table.filter((r) => /[.!?…]["”’)]?$/.test(r[spoken])).length * 3 >= table.length * 2
    ? { rows: [heads, ...table], around: rows.slice(0, from) }
    : null;
}

/** Between what is seen and what is said. */
const ARROW = /\s(?:→|⇒|➔|=>|->)\s/u;

/** Rows of cells of a table with pipes, tabs, or columns set apart by three blanks or more. */
function cellsOf(text: string): { rows: string[][]; around: string[] } | null {
  const lines = withoutFrames(rowsOf(text));
  const pipes = lines.filter((l) => /^\s*\|.*\|\s*$/.test(l) || (l.match(/\s\|\s/g) ?? []).length > 0);
  if (pipes.length >= 2 && pipes.length * 2 >= lines.filter((l) => l.trim()).length)
    return {
      rows: pipes
        .map((l) =>
          l
            .trim()
            .replace(/^\||\|$/g, '')
            .split('|')
            .map((c) => c.replace(/\s*<br\s*\/?>\s*/gi, '\n').trim()),
        )
        .filter((r) => !r.every((c) => /^:?-{2,}:?$/.test(c))),
      around: lines.filter((l) => l.trim() && !pipes.includes(l)),
    };
  const arrows = lines.filter((l) => ARROW.test(l));
  if (arrows.length >= 3 && arrows.length * 3 >= lines.filter((l) => l.trim()).length * 2)
    return {
      rows: arrows.map((l) => l.split(ARROW).map((c) => c.trim().replace(/^["“](.*)["”]$/, '$1'))),
      around: lines.filter((l) => l.trim() && !arrows.includes(l)),
    };
  const tabs = lines.filter((l) => /\S\t+\S/.test(l));
  // Labels in a first column say of each row what it is.
  const labels = tabs.filter((l) => isNarratorLabel(`${l.split('\t')[0].trim()}: x`));
  if (labels.length > 1) return null;
  const widths = new Set(tabs.map((l) => l.split('\t').length));
  if (
    (tabs.length >= 2 && tabs.length * 3 >= lines.filter((l) => l.trim()).length * 2) ||
    (tabs.length >= 3 && widths.size === 1 && !widths.has(2))
  )
    return {
      rows: tabs.map((l) => l.split('\t').map((c) => c.trim())),
      around: lines.filter((l) => l.trim() && !tabs.includes(l)),
    };
  return setApart(lines) ?? byRivers(lines);
}

const SEEN_HEAD = /^\W*(?:video|visuals?|pictures?|images?)\b/i;
/** Names of columns, "sound" told from what is only heard where it stands beside pictures and no other column is spoken. */
const spokenNames = (labels: readonly string[]): string[] =>
  labels.some((l) => SPOKEN_HEAD.test(l)) || !labels.some((l) => SEEN_HEAD.test(l))
    ? [...labels]
    : labels.map((l) => (/^\W*sounds?\W*$/i.test(l) ? 'Narration' : l));

/** A header of labels set apart by blanks; each column begins where its label does. */
function setApart(lines: readonly string[]): { rows: string[][]; around: string[] } | null {
  const labelsOf = (l: string) => spokenNames(l.trim().split(/\s{3,}/));
  const head = lines.findIndex((l) => {
    const labels = labelsOf(l);
    return (
      labels.length >= 2 &&
      labels.length <= 5 &&
      labels.filter((label) => SPOKEN_HEAD.test(label)).length === 1 &&
      labels.some((label) => UNSPOKEN_HEAD.test(label)) &&
      labels.every((label) => SPOKEN_HEAD.test(label) || UNSPOKEN_HEAD.test(label))
    );
  });
  if (head < 0) return null;
  const labels = labelsOf(lines[head]);
  const borders = [...lines[head].matchAll(/(?<=\S\s{3,})\S/g)].map((m) => m.index);
  const cellsIn = (line: string) =>
    labels.map((_, i) => line.slice(i ? borders[i - 1] : 0, borders[i]).trim());
  const rows: string[][] = [labels];
  const around = lines.slice(0, head).filter((l) => l.trim());
  const masked = (l: string) => l.replace(/\d+/g, '#').trim();
  const running = new Set([...around, lines[head]].map(masked));
  let open = false;
  let crossing = 0;
  for (const line of lines.slice(head + 1)) {
    if (!line.trim()) {
      open = false;
      continue;
    }
    // The head of a page comes again on the next one.
    if (running.has(masked(line))) {
      around.push(line);
      open = false;
      continue;
    }
    if (/^\s*(?:[-=_]\s*){3,}$/.test(line)) continue;
    // A row that runs through a border is no row of columns: its words are kept as spoken.
    const through = borders.some((at) => /\S\S|\S \S/.test(line.slice(at - 2, at + 1)) && /\S/.test(line[at - 1] ?? ' ')); // prettier-ignore
    if (through) crossing++;
    const cells = through ? labels.map((l) => (SPOKEN_HEAD.test(l) ? line.trim() : '')) : cellsIn(line);
    if (open) rows[rows.length - 1] = rows[rows.length - 1].map((c, i) => `${c} ${cells[i]}`.trim());
    else rows.push(cells);
    open = true;
  }
  return crossing > 1 ? null : { rows, around };
}

/** The least of all rows that a column set apart by blanks alone shows itself in. */
const RIVER_SHARE = 0.3;

/**
 * Columns that nothing names, set apart by blanks: where a row reaches so far, it is blank at the same place in all
 * rows. Lines before the first and behind the last row with a gap stand around the table.
 */
function byRivers(all: readonly string[]): { rows: string[][]; around: string[] } | null {
  const lines = all.map((l) => l.replace(/\t/g, '    ').trimEnd());
  const gapped = lines.map((l) => /\S {2,}\S/.test(l));
  const from = gapped.indexOf(true);
  const to = gapped.lastIndexOf(true) + 1;
  const worded = lines.slice(from, to).filter((l) => l.trim());
  if (from < 0 || worded.length < 6) return null;
  const starts = worded.map((l) => [...l.matchAll(/(?<=^ {4,}| {2})\S/g)].map((m) => m.index));
  const borders: number[] = [];
  for (let at = 3; at < Math.max(...worded.map((l) => l.length)); at++) {
    if (worded.some((l) => (l[at - 1] ?? ' ') !== ' ')) continue;
    // What is set may begin a few letters further right, as words set full do.
    const begins = starts.filter((s) => s.some((p) => p >= at && p < at + 4)).length;
    const reach = worded.filter((l) => l.slice(0, at).trim() && l.slice(at).trim()).length;
    const near = borders.at(-1);
    if (begins < Math.max(3, worded.length * RIVER_SHARE) || reach < worded.length * RIVER_SHARE) continue;
    if (near !== undefined && !worded.some((l) => l.slice(near, at).trim())) borders[borders.length - 1] = at;
    else borders.push(at);
  }
  if (!borders.length || borders.length > 4) return null;
  const rows: string[][] = [];
  let open = false;
  for (const line of lines.slice(from, to)) {
    if (!line.trim()) open = false;
    else {
      const cells = [0, ...borders].map((at, i) => line.slice(at, borders[i]).trim());
      if (open) rows[rows.length - 1] = rows[rows.length - 1].map((c, i) => `${c} ${cells[i]}`.trim());
      else rows.push(cells);
      open = true;
    }
  }
  // Names of who speaks before their words are labels and no column.
  const first = rows.map((r) => r[0]);
  const isName = (c: string) =>
    c.split(/\s+/).length <= 3 && (/:$/.test(c) || c === c.toUpperCase()) && /\p{L}/u.test(c);
  if (borders.length === 1 && first.filter(isName).length * 2 > first.length) return null;
  return { rows, around: [...lines.slice(0, from), ...lines.slice(to)].filter((l) => l.trim()) };
}

const proseWeight = (cells: readonly string[]) =>
  cells.reduce((n, c) => n + c.split(/\s+/).length * (/[.!?]["”]?$/.test(c) ? 2 : 0.5), 0);

/** A column of a few short names that say of each row what it is: voice, picture, sound. -1 if there is none. */
function roleColumn(body: readonly (readonly string[])[], spoken: number): number {
  const width = Math.max(...body.map((r) => r.length));
  return Array.from({ length: width }, (_, i) => i).findIndex((i) => {
    const names = body.map((r) => (r[i] ?? '').toLowerCase());
    const kinds = new Set(names);
    return (
      i !== spoken &&
      kinds.size > 1 &&
      kinds.size <= 5 &&
      names.length >= 2 * kinds.size &&
      names.every((n) => /^\p{L}[\p{L}. /-]{0,14}$/u.test(n)) &&
      spokenRoles(body, i, spoken).size > 0 &&
      spokenRoles(body, i, spoken).size < kinds.size
    );
  });
}
/** The names in it that are a narrator's, or else those whose rows are sentences where no other's are. */
function spokenRoles(body: readonly (readonly string[])[], role: number, spoken: number): Set<string> {
  const kinds = [...new Set(body.map((r) => r[role].toLowerCase()))];
  const labelled = kinds.filter((k) => isNarratorLabel(`${k}: x`));
  if (labelled.length) return new Set(labelled);
  const share = (k: string) => {
    const own = body.filter((r) => r[role].toLowerCase() === k);
    return own.filter((r) => /[.!?…]["”’)]?$/.test(r[spoken] ?? '')).length / own.length;
  };
  const said = kinds.filter((k) => share(k) >= 0.9);
  return kinds.every((k) => said.includes(k) || share(k) <= 0.1) ? new Set(said) : new Set();
}

/** A first row of short names over a column of sentences, in whatever words. */
function isHead([first, ...body]: readonly (readonly string[])[]): boolean {
  const ends = (c = '') => /[.!?…]["”’)]?$/.test(c);
  return (
    body.length > 2 &&
    first.every((c) => c && c.split(/\s+/).length <= 3 && !/\d/.test(c) && !ends(c)) &&
    first.some((_, i) => body.filter((r) => ends(r[i])).length >= 0.9 * body.length)
  );
}

/** A last row that adds the others up. */
const isTotal = (row: readonly string[], spoken: number): boolean =>
  /^\W*(?:sub ?|grand )?(?:totals?|sum|run ?time|duration)\W*$/i.test(row[spoken] ?? '') &&
  row.every((c, i) => i === spoken || !c || /\d/.test(c));

export const columns: Layout = {
  id: 'columns',
  read: (text) => {
    const table = records(text) ?? cellsBelow(text) ?? cellsOf(text);
    if (!table) return null;
    const { rows, around } = table;
    const width = Math.max(...rows.map((r) => r.length));
    if (width < 2 || rows.length < 2) return null;
    // Times before the words of each row are no column.
    if (width === 2 && rows.every((r) => /^[[(]?\d{1,2}:\d{2}[\d:\s–—-]*[\])]?$/.test(r[0]))) return null;
    const head =
      (rows[0].some((c) => SPOKEN_HEAD.test(c) || UNSPOKEN_HEAD.test(c)) &&
        rows[0].every((c) => c.split(/\s+/).length <= 5)) ||
      isHead(rows);
    const body = head ? rows.slice(1) : rows;
    // The narrowest label that says so wins; without a label, the column that reads as prose.
    const labelled = (cell = '') => cell.split('\n').some((part) => isNarratorLabel(part));
    let spoken = Array.from({ length: width }, (_, i) => body.filter((r) => labelled(r[i])).length).findIndex((n) => n > 1); // prettier-ignore
    const byLabels = spoken >= 0;
    if (!byLabels) spoken = head ? rows[0].findIndex((c) => SPOKEN_HEAD.test(c) && !/^words$/i.test(c)) : -1;
    if (spoken < 0) {
      // A column is called sound, notes or text for what is said, too: then sentences tell.
      const weights = Array.from({ length: width }, (_, i) => proseWeight(body.map((r) => r[i] ?? '')));
      const open = weights.map((w, i) => (head && UNSPOKEN_HEAD.test(rows[0][i] ?? '') ? w / 4 : w));
      spoken = open.indexOf(Math.max(...open));
    }
    const role = byLabels ? -1 : roleColumn(body, spoken);
    const roles = role < 0 ? null : spokenRoles(body, role, spoken);
    const told = (row: readonly string[]) => !roles || roles.has(row[role].toLowerCase());
    // What reads as prose stands in the table, or it is none.
    if (proseWeight(around) > proseWeight(body.map((r) => r[spoken] ?? ''))) return null;
    const out: Piece[] = around.map((r) => cut(/[.!?:]$/.test(r) ? 'chatter' : 'brief', r));
    if (head) out.push(cut('mark', rows[0].join(' | ')));
    for (const row of body) {
      row.forEach((cell, i) => {
        if ((i === spoken && told(row)) || !cell) return;
        const time =
          /^[[(]?\d{1,2}:\d{2}/.test(cell) || /^\d+(?:\s*[–-]\s*\d+)?\s*(?:s|sec(?:ond)?s?)?$/i.test(cell);
        out.push(cut(time ? 'timing' : 'direction', cell));
      });
      if (!told(row)) continue;
      if (isTotal(row, spoken)) {
        out.push(cut('count', row[spoken]));
        continue;
      }
      if (byLabels) {
        for (const part of (row[spoken] ?? '').split('\n').filter(Boolean)) {
          const words = isNarratorLabel(part) ? part.replace(/^[^:]*:(?:\*\*|__)?\s*/, '') : null;
          out.push(...(words === null ? [cut('direction', part)] : spokenPieces(words)));
        }
        out.push(gap);
        continue;
      }
      const cell = (row[spoken] ?? '').replace(/^\*\*([^*]{1,40}:)\*\*/, '$1');
      const label = /^(?:narrator|narration|v\.?\/?o\.?|voice-?over|host)(?:\s*\([^)]*\))?\s*:\s*/i.exec(
        cell,
      );
      if (label) out.push(cut('speaker', label[0]));
      const pieces = spokenPieces(label ? cell.slice(label[0].length) : cell);
      out.push(...pieces, gap);
    }
    return out;
  },
};
