/** Drafts laid out in columns: records, tables with pipes or tabs, columns set apart by blanks. Some columns are spoken, the others say what is seen, heard, or when. */
import Papa from 'papaparse';
import { isTalk } from './conventions.ts';
import { withoutFrames, withoutNumbers } from './forms.ts';
import { freePieces } from './free.ts';
import { spokenPieces } from './inline.ts';
import { bare, isNarratorLabel, isPictureLabel, isRule } from './labels.ts';
import { cut, gap, wordsOf, type Layout, type Piece } from './piece.ts';

interface Row {
  cells: string[];
  /** What stands over it outside the table, line by line; an empty line is ''. */
  above: string[];
  /** Lines right below it that no mark sets apart. */
  below?: string[];
}
interface Table {
  rows: Row[];
  after: string[];
}

const linesOf = (text: string) => text.split('\n');
const endsSentence = (text = '') => /[.!?…]["”’)]?$/.test(text.trim());
const wordCount = (text: string) => text.trim().split(/\s+/).length;

// ---- names of columns ------------------------------------------------------------------------------------------------

const SPOKEN_HEAD =
  /^\W*(?:audio|narration|narrator|voice[- ]?over|v\/?o|script|spoken|dialogue|words|copy|text to (?:read|say)|what (?:is|we) (?:said|say|hear)|audio\s*\/\s*(?:narration|v\/?o))\b/i;
const UNSPOKEN_HEAD =
  /^\W*(?:video|visuals?|pictures?|images?|shots?|scene|on[- ]?screen|b-?roll|time(?:code|stamp)?|duration|dur|sec(?:onds)?|length|notes?|music|sfx|sounds?|graphics?|#|no|nr|camera|action|what (?:is|we) (?:seen|see)|text on screen|words)\b/i;
const SEEN_HEAD = /^\W*(?:video|visuals?|pictures?|images?)\b/i;
const isName = (cell: string) => SPOKEN_HEAD.test(cell) || UNSPOKEN_HEAD.test(cell);

/** Names of columns, "sound" told from what is only heard where it stands beside pictures and no other column is spoken. */
const spokenNames = (labels: readonly string[]): string[] =>
  labels.some((l) => SPOKEN_HEAD.test(l)) || !labels.some((l) => SEEN_HEAD.test(l))
    ? [...labels]
    : labels.map((l) => (/^\W*sounds?\W*$/i.test(l) ? 'Narration' : l));

// ---- rows and cells --------------------------------------------------------------------------------------------------

/** Records whose fields are set apart by commas, semicolons or tabs (RFC 4180), under a row of names. */
function records(text: string): Table | null {
  const first = linesOf(text).find((l) => l.trim()) ?? '';
  const names = first.split(/[,;\t]/).map((c) => c.replace(/"/g, '').trim());
  if (names.length < 2 || names.some((c) => !c || wordCount(c) > 4 || /[.!?]$/.test(c))) return null;
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' });
  const rows = data.map((r) => ({ cells: r.map((c) => c.trim()), above: [] }));
  const width = rows[0]?.cells.length ?? 0;
  if (rows.length < 2 || rows.some((r) => r.cells.length > width)) return null;
  // Names that are known say so; else every record has as many fields, of which prose seldom has three in a row.
  const even = rows.length > 3 && width > 2 && rows.every((r) => r.cells.length === width);
  const short = rows.filter((r) => r.cells.length < width).length;
  const known =
    names.filter(isName).length * 2 >= names.length &&
    names.some((c) => SPOKEN_HEAD.test(c)) &&
    short * 5 <= rows.length;
  return known || even ? { rows, after: [] } : null;
}

/** A table whose cells came one below another, as when it is pasted as text: names of columns, then as many rows for each of its rows. */
function cellsBelow(text: string): Table | null {
  const rows = linesOf(text).map((r) => r.trim()).filter(Boolean); // prettier-ignore
  const named = (r: string) => wordCount(r) <= 3 && isName(r);
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
  if (table.filter((r) => endsSentence(r[spoken])).length * 3 < table.length * 2) return null;
  return {
    rows: [heads, ...table].map((row, i) => ({ cells: row, above: i ? [] : rows.slice(0, from) })),
    after: [],
  };
}

/** How the cells of a line are set apart; null for a line that has none. */
type Split = (line: string) => string[] | null;
const between =
  (mark: RegExp): Split =>
  (line) =>
    mark.test(line) ? line.split(mark).map((c) => c.trim()) : null;
const PIPE_END = /^\s*\|.*\|\s*$/;
const pipes: Split = (line) =>
  PIPE_END.test(line) || /\s\|\s/.test(line)
    ? line
        .trim()
        .replace(/^\||\|$/g, '')
        .split('|')
        .map((c) => c.replace(/\s*<br\s*\/?>\s*/gi, '\n').trim())
    : null;
/** A row of pipes that is broken before its last one is a row. */
function closed(lines: readonly string[]): string[] {
  const out: string[] = [];
  for (const line of lines) {
    const last = out.at(-1) ?? '';
    const open = /^\s*\|/.test(last) && !PIPE_END.test(last);
    if (open && line.trim() && !/^\s*\|/.test(line)) out[out.length - 1] = `${last} ${line.trim()}`;
    else out.push(line);
  }
  return out;
}
const bars = between(/\s\|\|\s/);
const slashes = between(/\s\/\s/);
const tabs: Split = (line) =>
  /\S\t/.test(line) || /\t\S/.test(line) ? line.split('\t').map((c) => c.trim()) : null;
/** Between what is seen and what is said. */
const arrows: Split = (line) =>
  between(/\s(?:→|⇒|➔|=>|->)\s/u)(line)?.map((c) => c.replace(/^["“](.*)["”]$/, '$1')) ?? null;

/**
 * A table of the lines that a mark sets apart. `runsOn`: a cell may go on over the lines below it, where the row has not
 * all its cells yet or nothing but more words comes. Null where fewer than `least` of all lines are rows.
 */
function table(lines: readonly string[], split: Split, least: number, runsOn = false): Table | null {
  const cells = lines.map((l) => (l.trim() ? split(l) : null));
  const set = cells.filter((c) => c !== null);
  const worded = lines.filter((l) => l.trim()).length;
  const widths = [...new Set(set.map((c) => c.length))];
  const share = (w: number) => set.filter((c) => c.length === w).length;
  // The first row names all columns also where rows are broken.
  const width = Math.max(
    0,
    ...widths.filter((w) => share(w) * 3 >= set.length),
    runsOn ? (set[0]?.length ?? 0) : 0,
  );
  if (set.length < 2 || width < 2) return null;
  const rows: Row[] = [];
  let above: string[] = [];
  let adjacent = false;
  lines.forEach((line, i) => {
    const own = cells[i];
    const last = rows.at(-1)?.cells;
    const goesOn = runsOn && last && adjacent && !/^\s*#/.test(line);
    if (!line.trim()) {
      adjacent = false;
      above.push('');
    } else if (goesOn && last.length < width && (own?.length ?? 1) + last.length - 1 <= width) {
      const [more, ...rest] = own ?? [line.trim()];
      last[last.length - 1] += `\n${more}`;
      last.push(...rest);
    } else if (own) {
      if (own.every((c) => /^:?-{2,}:?$/.test(c))) return;
      rows.push({ cells: own, above });
      above = [];
      adjacent = true;
    } else if (goesOn) (rows[rows.length - 1].below ??= []).push(line.trim());
    else above.push(line);
  });
  const inTable = worded - [...rows.flatMap((r) => r.above), ...above].filter((l) => l.trim()).length;
  return rows.length > 1 && inTable >= least * worded ? { rows, after: above } : null;
}

/** Rows of cells of a table with pipes, tabs, or columns set apart by three blanks or more. */
function cellsOf(text: string): Table | null {
  const lines = withoutFrames(linesOf(text));
  const found =
    steady(table(lines, bars, 2 / 3)) ??
    table(closed(lines), pipes, 1 / 2) ??
    atLeast(3, table(lines, arrows, 2 / 3)) ??
    steady(table(lines, slashes, 2 / 3));
  if (found) return found;
  const tabbed = table(lines, tabs, 2 / 3, true) ?? steady(table(lines, tabs, 1 / 3, true), 3);
  return tabbed ?? setApart(lines) ?? byRivers(lines);
}
const atLeast = (rows: number, found: Table | null) => (found && found.rows.length >= rows ? found : null);
/** A table whose rows have all as many cells, at least `width`. */
const steady = (found: Table | null, width = 2): Table | null => {
  const widths = new Set(found?.rows.map((r) => r.cells.length));
  return found && found.rows.length >= 3 && widths.size === 1 && !widths.has(1) && [...widths][0] >= width
    ? found
    : null;
};

const masked = (line: string) => line.replace(/\d+/g, '#').trim();
/** A short line in capitals, or a name of a part. */
const isPartName = (line: string) =>
  wordCount(line) <= 6 && !endsSentence(line) && /\p{Lu}/u.test(line) && line === line.toUpperCase();

/** A header of labels set apart by blanks; each column begins where its label does. */
function setApart(lines: readonly string[]): Table | null {
  const labelsOf = (l: string) => spokenNames(l.trim().split(/\s{3,}/));
  const head = lines.findIndex((l) => {
    const labels = labelsOf(l);
    return (
      labels.length >= 2 &&
      labels.length <= 5 &&
      labels.filter((label) => SPOKEN_HEAD.test(label)).length === 1 &&
      labels.some((label) => UNSPOKEN_HEAD.test(label)) &&
      labels.every(isName)
    );
  });
  if (head < 0) return null;
  const labels = labelsOf(lines[head]);
  const borders = [...lines[head].matchAll(/(?<=\S\s{3,})\S/g)].map((m) => m.index);
  const cellsIn = (line: string) =>
    labels.map((_, i) => line.slice(i ? borders[i - 1] : 0, borders[i]).trim());
  const front = lines.slice(0, head);
  const running = new Set(front.filter((l) => l.trim()).map(masked));
  // Where the writer speaks in capitals, they name no parts.
  const speaksLow = lines.filter((l) => /\p{Ll}/u.test(l)).length * 2 > lines.filter((l) => l.trim()).length;
  const rows: Row[] = [{ cells: labels, above: front }];
  let above: string[] = [];
  let open = false;
  let crossing = 0;
  lines.slice(head + 1).forEach((line, i, all) => {
    if (!line.trim()) open = false;
    else if (isRule(line)) return;
    // The head of a page comes again on the next one.
    else if (running.has(masked(line)) || masked(line) === masked(lines[head])) open = false;
    else if (
      speaksLow &&
      !open &&
      /^\S/.test(line) &&
      isPartName(line) &&
      !(all[i + 1] ?? '').trim() &&
      !/\S\s{3,}\S/.test(line)
    )
      above.push(line.trim());
    else {
      // A row that runs through a border is no row of columns: its words are kept as spoken.
      const through = borders.some((at) => /\S\S|\S \S/.test(line.slice(at - 2, at + 1)) && /\S/.test(line[at - 1] ?? ' ')); // prettier-ignore
      if (through) crossing++;
      const cells = through ? labels.map((l) => (SPOKEN_HEAD.test(l) ? line.trim() : '')) : cellsIn(line);
      const last = rows[rows.length - 1];
      if (open) last.cells = last.cells.map((c, k) => `${c} ${cells[k]}`.trim());
      else {
        rows.push({ cells, above });
        above = [];
      }
      open = true;
    }
  });
  return crossing > 1 ? null : { rows, after: above };
}

/** The least share of rows that a column set apart by blanks alone shows itself in. */
const RIVER_SHARE = 0.3;

/**
 * Columns that nothing names, set apart by blanks: where a row reaches so far, it is blank at the same place in all
 * rows. Lines before the first and behind the last row with a gap stand around the table.
 */
function byRivers(all: readonly string[]): Table | null {
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
  const rows: Row[] = [];
  let open = false;
  for (const line of lines.slice(from, to)) {
    if (!line.trim()) open = false;
    else {
      const cells = [0, ...borders].map((at, i) => line.slice(at, borders[i]).trim());
      const last = rows.at(-1);
      if (open && last) last.cells = last.cells.map((c, i) => `${c} ${cells[i]}`.trim());
      else rows.push({ cells, above: [] });
      open = true;
    }
  }
  // Names of who speaks before their words are labels and no column.
  const isLabel = (c: string) =>
    wordCount(c) <= 3 && (/:$/.test(c) || c === c.toUpperCase()) && /\p{L}/u.test(c);
  const first = worded.map((l) => l.slice(0, borders[0]).trim()).filter(Boolean);
  if (borders.length === 1 && first.filter(isLabel).length * 2 > first.length) return null;
  rows[0].above = all.slice(0, from);
  return { rows, after: all.slice(to) };
}

// ---- which of them are spoken ----------------------------------------------------------------------------------------

const proseWeight = (cells: readonly string[]) =>
  cells.reduce((n, c) => n + wordCount(c) * (endsSentence(c) ? 2 : 0.5), 0);
const columnOf = (body: readonly Row[], i: number) => body.map((r) => r.cells[i] ?? '');
const widthOf = (rows: readonly Row[]) => Math.max(...rows.map((r) => r.cells.length));

/** Names of columns in its first row: known ones, or in whatever words over a column of sentences. */
function isHead({ rows: [{ cells }, ...body] }: Table): boolean {
  if (cells.some(isName) && cells.every((c) => wordCount(c) <= 5)) return true;
  return (
    body.length > 2 &&
    cells.every((c) => c && wordCount(c) <= 3 && !/\d/.test(c) && !endsSentence(c)) &&
    cells.some((_, i) => columnOf(body, i).filter(endsSentence).length >= 0.9 * body.length)
  );
}

/** Columns of two or more who take turns: sentences in both, hardly ever in the same row. */
function turns(body: readonly Row[], width: number): number[] {
  const said = Array.from({ length: width }, (_, i) => i).filter((i) => {
    const filled = columnOf(body, i).filter(Boolean);
    return filled.length > 1 && filled.filter(endsSentence).length >= 0.8 * filled.length;
  });
  const once = body.filter((r) => said.filter((i) => r.cells[i]).length <= 1).length;
  return said.length > 1 && once >= 0.9 * body.length ? said : [];
}

const isNarrator = (name: string) => isNarratorLabel(`${name}: x`);
/** A column of a few short names that say of each row what it is: voice, picture, sound. -1 if there is none. */
function roleColumn(body: readonly Row[], spoken: number): number {
  return Array.from({ length: widthOf(body) }, (_, i) => i).findIndex((i) => {
    const names = columnOf(body, i).map((c) => c.toLowerCase());
    const kinds = new Set(names);
    return (
      i !== spoken &&
      kinds.size > 1 &&
      ((kinds.size <= 5 && names.length >= 2 * kinds.size) || names.filter(isNarrator).length > 1) &&
      names.every((n) => /^\p{L}[\p{L}. /-]{0,14}$/u.test(n)) &&
      spokenRoles(body, i, spoken).size < kinds.size &&
      toldShare(body, i, spoken) >= TOLD_AT_LEAST
    );
  });
}
/** Names that silence more than half of what reads as prose say something else. */
const TOLD_AT_LEAST = 0.5;
function toldShare(body: readonly Row[], role: number, spoken: number): number {
  const roles = spokenRoles(body, role, spoken);
  const told = body.filter((r) => roles.has((r.cells[role] ?? '').toLowerCase()));
  return proseWeight(columnOf(told, spoken)) / proseWeight(columnOf(body, spoken));
}
/** The names in it that are a narrator's, with others whose rows are sentences; or else those whose rows are sentences where no other's are. */
function spokenRoles(body: readonly Row[], role: number, spoken: number): Set<string> {
  const kinds = [...new Set(columnOf(body, role).map((c) => c.toLowerCase()))];
  const share = (k: string) => {
    const own = body.filter((r) => r.cells[role]?.toLowerCase() === k);
    return own.filter((r) => endsSentence(r.cells[spoken])).length / own.length;
  };
  if (kinds.some(isNarrator))
    return new Set(kinds.filter((k) => isNarrator(k) || (!isPictureLabel(`${k}: x`) && share(k) >= 0.5)));
  const said = kinds.filter((k) => share(k) >= 0.9);
  return kinds.every((k) => said.includes(k) || share(k) <= 0.1) ? new Set(said) : new Set();
}

/** A last row that adds the others up. */
const isTotal = ({ cells }: Row, spoken: number): boolean =>
  /^\W*(?:sub ?|grand )?(?:totals?|sum|run ?time|duration)\W*$/i.test(cells[spoken] ?? '') &&
  cells.every((c, i) => i === spoken || !c || /\d/.test(c));

interface Plan {
  head: string[] | null;
  spoken: number[];
  /** The column that names who is heard in each row, or -1. */
  role: number;
  roles: Set<string> | null;
  /** Narrator's words are labelled within their cells. */
  byLabels: boolean;
}

function planOf(found: Table): { plan: Plan; body: Row[] } {
  const width = widthOf(found.rows);
  const head = isHead(found) ? found.rows[0].cells : null;
  const body = found.rows.slice(head ? 1 : 0).filter((r) => !head || r.cells.join('|') !== head.join('|'));
  const columnsOf = Array.from({ length: width }, (_, i) => columnOf(body, i));
  // The narrowest label that says so wins; without a label, the column that reads as prose.
  const labelled = (cell: string) => cell.split('\n').some(isNarratorLabel);
  const withLabels = columnsOf.findIndex((cells) => cells.filter(labelled).length > 1);
  const named = head ? head.findIndex((c) => SPOKEN_HEAD.test(c) && !/^words$/i.test(c)) : -1;
  let spoken = [withLabels >= 0 ? withLabels : named];
  if (spoken[0] < 0) spoken = turns(body, width);
  if (!spoken.length) {
    // A column is called sound, notes or text for what is said, too: then sentences tell.
    const weights = columnsOf.map((c, i) => proseWeight(c) / (head && UNSPOKEN_HEAD.test(head[i] ?? '') ? 4 : 1)); // prettier-ignore
    spoken = [weights.indexOf(Math.max(...weights))];
  }
  const role = withLabels >= 0 || spoken.length > 1 ? -1 : roleColumn(body, spoken[0]);
  const roles = role < 0 ? null : spokenRoles(body, role, spoken[0]);
  for (const row of body) {
    if (!row.below) continue;
    // They belong to the last cell, but sentences belong to those that are spoken.
    const at = row.below.some(endsSentence) ? spoken[spoken.length - 1] : row.cells.length - 1;
    row.cells[at] = [row.cells[at], ...row.below].filter(Boolean).join('\n');
  }
  return { plan: { head, spoken, role, roles, byLabels: withLabels >= 0 }, body };
}

// ---- pieces ----------------------------------------------------------------------------------------------------------

const isTime = (cell: string) =>
  /^[[(]?\d{1,2}:\d{2}/.test(cell) || /^\d+(?:\s*[–-]\s*\d+)?\s*(?:s|sec(?:ond)?s?)?$/i.test(cell);
const LABEL = /^(?:narrator|narration|v\.?\/?o\.?|voice-?over|host)(?:\s*\([^)]*\))?\s*:\s*/i;

/** Labels in a cell hold for the lines below them, up to the next. */
function labelledPieces(cell: string): Piece[] {
  let narrates = false;
  return cell
    .split('\n')
    .filter(Boolean)
    .flatMap((part): Piece[] => {
      if (isNarratorLabel(part)) {
        narrates = true;
        return spokenPieces(part.replace(/^[^:]*:(?:\*\*|__)?\s*/, ''));
      }
      if (/^[^:]{1,40}:(?:\s|\*\*|__|$)/.test(bare(part)) || /^[[(]/.test(part)) narrates = false;
      return narrates ? spokenPieces(part) : [cut('direction', part)];
    });
}

/** A line of a cell that says what is heard or seen beside the words: "MUSIC: oud, low". */
const isCue = (line: string) =>
  isPictureLabel(line) && (!endsSentence(line) || /^[*_\s]*\p{Lu}{2,}\b/u.test(line));

function cellPieces(cell: string, speaker: string): Piece[] {
  const lines = cell.split('\n').filter(Boolean);
  const cues = lines.length > 1 ? lines.filter(isCue) : [];
  const words = lines.filter((l) => !cues.includes(l)).join(' ').replace(/^\*\*([^*]{1,40}:)\*\*/, '$1'); // prettier-ignore
  const label = LABEL.exec(words);
  return [
    ...cues.map((c) => cut('direction', c)),
    ...(label ? [cut('speaker', label[0])] : []),
    ...spokenPieces(label ? words.slice(label[0].length) : words, speaker ? { speaker } : {}),
  ];
}

function rowPieces(row: Row, { head, spoken, role, roles, byLabels }: Plan): Piece[] {
  const name = roles && (row.cells[role] ?? '');
  const told = name === null || roles!.has(name.toLowerCase());
  const out: Piece[] = [];
  row.cells.forEach((cell, i) => {
    if ((!spoken.includes(i) || !told) && cell) out.push(cut(isTime(cell) ? 'timing' : 'direction', cell));
  });
  if (!told) return out;
  for (const i of spoken) {
    const cell = row.cells[i] ?? '';
    const speaker = spoken.length > 1 ? (head?.[i] ?? '') : name && !isNarrator(name) ? name : '';
    if (isTotal(row, i)) out.push(cut('count', cell));
    else if (cell) out.push(...(byLabels ? labelledPieces(cell) : cellPieces(cell, speaker)), gap);
  }
  return out;
}

/** Prose of fewer words outside the table is about it. */
const PROSE_WORDS = 8;

/** What stands outside the table: names of parts, talk about the draft, or narration that no column holds. */
function aroundPieces(lines: readonly string[], first: boolean): Piece[] {
  const text = lines.join('\n').trim();
  if (!text) return [];
  const rows = lines.filter((l) => l.trim());
  const prose = rows.filter((l) => endsSentence(l) && wordsOf(l) >= PROSE_WORDS);
  if (prose.length && !rows.some(isTalk)) return freePieces(text);
  return rows.map((row): Piece => {
    const title = /^\s*(#{1,6})\s+(\S.*)$/.exec(row);
    if (title)
      return { type: 'heading', level: first || title[1].length === 1 ? 0 : 1, text: title[2].trim() };
    if (!first && isPartName(row)) return { type: 'heading', level: 1, text: row.trim() };
    return cut(/[.!?:]$/.test(row) ? 'chatter' : 'brief', row);
  });
}

export const columns: Layout = {
  id: 'columns',
  read: (text) => {
    // Numbers in the margin are no column.
    const lines = linesOf(text);
    if (!/[|\t]/.test(text) && withoutNumbers(lines) !== lines) return null;
    const found = records(text) ?? cellsBelow(text) ?? cellsOf(text);
    if (!found || found.rows.length < 2) return null;
    const width = widthOf(found.rows);
    if (width < 2) return null;
    // Times before the words of each row are no column.
    if (width === 2 && found.rows.every((r) => /^[[(]?\d{1,2}:\d{2}[\d:\s–—-]*[\])]?$/.test(r.cells[0]))) return null; // prettier-ignore
    const { plan, body } = planOf(found);
    if (!body.length) return null;
    // What reads as prose stands in the table, or it is none.
    const around = [...found.rows.flatMap((r) => r.above), ...found.after];
    const inside = plan.spoken.flatMap((i) => columnOf(body, i));
    if (proseWeight(around) > proseWeight(inside)) return null;
    const parts = found.rows.slice(1).some((r) => r.above.some((l) => isPartName(l) || /^\s*#/.test(l)));
    const out = aroundPieces(found.rows[0].above, !parts);
    if (plan.head) out.push(cut('mark', plan.head.join(' | ')));
    for (const row of found.rows) {
      if (row !== found.rows[0]) out.push(...aroundPieces(row.above, false));
      if (body.includes(row)) out.push(...rowPieces(row, plan));
    }
    out.push(...aroundPieces(found.after, false));
    return out;
  },
};
