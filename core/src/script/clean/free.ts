/** A draft in free form: rows judged one by one, with labels that hold for the rows below them. */
import { keptToConventions, rowsAside, sentInChat } from './conventions.ts';
import { isBeside, usualForm } from './forms.ts';
import { isOnlyCut, restOf, spokenPieces, starsDirect } from './inline.ts';
import { SECTION_LABEL, bare, isLabelled, isNarratorLabel } from './labels.ts';
import { cut, gap, type CutKind, type JudgedRow, type Piece } from './piece.ts';
import { ROW_RULES, type RowContext } from './rows.ts';

const TIME_PREFIX =
  /^[\s\p{Extended_Pictographic}\uFE0F]*(?:[-*•]\s+)?(?:[[(]\s*)?(?:\d{1,2}:\d{2}(?::\d{2})?(?:[:;.]\d{2})?(?:\s*(?:[–—-]|-->?|to)\s*\d{1,2}:\d{2}(?::\d{2})?)?|\d{1,3}\s*[–—-]\s*\d{1,3}\s*s(?:ec(?:ond)?s?)?)(?:\s*[\])])?(?:\s*[:–—|-])?\s+(?=\S)/u;
/** A time that begins a sentence is spoken: "8:16 was when it fell." */
const SPOKEN_TIME =
  /^\s*\d{1,2}:\d{2}\s+(?:was|is|came|on|in the|that|a\.?m|p\.?m|o[’']clock|and|every|sharp)\b/i;

/** A bracket that opens on one row and closes within four is one row; so is a heading underlined. */
function joined(text: string): string[] {
  const rows = text.split('\n');
  const out: string[] = [];
  for (let i = 0; i < rows.length; i++) {
    let row = rows[i];
    const opens = (r: string, a: string, b: string) => r.split(a).length - r.split(b).length;
    let k = 0;
    while (k < 4 && i + 1 < rows.length && rows[i + 1].trim() && opens(row, '[', ']') > 0) {
      row = `${row} ${rows[++i].trim()}`;
      k++;
    }
    if (opens(row, '[', ']') > 0 && k) {
      i -= k;
      row = rows[i];
    }
    if (
      /^\s*(?:={3,}|-{3,})\s*$/.test(rows[i + 1] ?? '') &&
      row.trim() &&
      row.trim().split(/\s+/).length <= 9 &&
      !/[.!?,;]$/.test(row.trim()) &&
      !/^\s*#/.test(row)
    ) {
      out.push(`# ${row.trim()}`);
      i++;
    } else out.push(row);
  }
  return out;
}

/** The front of a file that gives settings between two rules. */
function front(rows: readonly string[]): number {
  if (rows[0]?.trim() !== '---') return 0;
  const end = rows.findIndex((r, i) => i > 0 && r.trim() === '---');
  return end > 0 && end < 30 && rows.slice(1, end).every((r) => /^\s*(?:[\w-]+\s*:|-\s|$)/.test(r))
    ? end + 1
    : 0;
}

export function freePieces(text: string): Piece[] {
  const lines = text.replace(/^\s*\n/, '').split('\n');
  const skip = front(lines);
  const all = joined(lines.slice(skip).join('\n'));
  const out: Piece[] = [];
  for (const row of lines.slice(0, skip)) {
    const title = /^title\s*:\s*["']?([^"'\s].*?)["']?$/i.exec(row.trim());
    out.push(title ? { type: 'heading', level: 0, text: title[1] } : cut('brief', row));
  }
  const rows = usualForm(all);
  const aside = rowsAside(rows);
  const sent = sentInChat(rows);
  if (sent) rows[sent.from] = rows[sent.from].slice(sent.head);
  const judged = judgedRows(rows, aside);
  for (const { pieces } of keptToConventions(judged)) out.push(...pieces);
  return out;
}

/** Each row as the rules for rows see it. */
function judgedRows(rows: readonly string[], aside: ReadonlyMap<number, CutKind>): JudgedRow[] {
  const worded = rows.map((r) => /\S/.test(r));
  const counts = rows.map((_, i) => worded[i] && !aside.has(i));
  const speakers = repeatedSpeakers(rows);
  const cues = repeatedCues(rows, speakers);
  const narrators = rows.filter(isNarratorLabel).length;
  const labels = rows.filter(isLabelled).length;
  const lowercase = rows.filter((r) => /\p{Ll}/u.test(r)).length * 2 > worded.filter(Boolean).length;
  const onlyTop = rows.filter((r) => /^\s{0,3}#\s/.test(r)).length === 1;
  const directing = starsDirect(rows);
  const titles = plainTitles(rows);
  const timedNames = repeatedBehindTimes(rows);
  const timesHead = timesStandOverParts(rows);
  const sectionLabels = rows.filter((r) => SECTION_LABEL.test(bare(r))).length;
  let before = 0;
  let left = counts.filter(Boolean).length;
  /** What the rows below a label on its own are. */
  let mode: 'spoken' | 'unspoken' = 'spoken';
  let modeFresh = false;
  let speaker: string | undefined;
  let labelled = false;
  let directed = false;

  const piecesOf = (raw: string, i: number): Piece[] => {
    if (!worded[i]) {
      if (!modeFresh) mode = 'spoken';
      if (!modeFresh) [speaker, labelled] = [undefined, false];
      directed = false;
      return [gap];
    }
    if (aside.has(i)) {
      [mode, modeFresh, labelled, speaker, directed] = ['spoken', false, false, undefined, false];
      return [cut(aside.get(i)!, raw)];
    }
    left--;
    const nextAt = counts.indexOf(true, i + 1);
    const out: Piece[] = [];
    let row = raw.replace(/^\s*(?:>\s?)+/, '');
    const timed = SPOKEN_TIME.test(row) ? null : TIME_PREFIX.exec(row);
    if (timed) {
      out.push(cut('timing', timed[0]));
      row = row.slice(timed[0].length);
    }
    const context: RowContext = {
      before,
      after: left,
      onlyTop,
      speakers,
      cues,
      narrators,
      labels,
      lowercase,
      timed: timed !== null,
      timedNames,
      timesHead,
      plainTitle: titles.get(i) ?? null,
      sectionLabels,
      next: nextAt < 0 ? null : rows[nextAt].trim(),
      gapAfter: nextAt < 0 || nextAt > i + 1,
      gapBefore: i === 0 || !worded[i - 1],
    };
    before++;
    modeFresh = false;
    for (const rule of ROW_RULES) {
      const verdict = rule.read(row, context);
      if (!verdict) continue;
      directed = false;
      switch (verdict.type) {
        case 'cut':
          return [...out, cut(verdict.kind, row)];
        case 'heading':
          [mode, labelled] = ['spoken', false];
          return [...out, { type: 'heading', level: verdict.level, text: verdict.text }];
        case 'headed':
          [mode, labelled] = ['spoken', false];
          return [
            ...out,
            { type: 'heading', level: 1, text: verdict.text },
            ...spokenPieces(verdict.rest, { speaker, directing }),
          ];
        case 'said':
          mode = 'spoken';
          return [gap, ...spokenPieces(verdict.rest, { speaker, directing }), gap];
        case 'directs': {
          const rest = restOf(row);
          out.push(rest === null ? cut('direction', row) : { type: 'rest', ms: rest, text: row.trim() });
          if (!verdict.rest.replace(/\*/g, '').trim()) {
            mode = 'unspoken';
            modeFresh = true;
          } else directed = true;
          return out;
        }
        case 'label':
          out.push(cut('speaker', `${verdict.label}:`));
          mode = 'spoken';
          labelled = true;
          speaker = verdict.speaker || undefined;
          if (!verdict.rest.replace(/\*/g, '').trim()) modeFresh = true;
          else out.push(...spokenPieces(verdict.rest, { speaker, directing }));
          return out;
      }
    }
    // A direction goes on over the end of its row when the next begins in small letters.
    if (mode === 'unspoken' || (directed && /^\s*\p{Ll}/u.test(row) && !context.gapBefore))
      return [...out, cut('direction', row)];
    directed = false;
    if (/^\s*\d{1,4}\s*$/.test(row)) return [...out, cut('mark', row)];
    if (isOnlyCut(row, directing)) {
      const cuts = spokenPieces(row, { directing }).filter((p) => p.type !== 'spoken');
      return [...out, ...(cuts.length ? cuts : [cut(/[\p{L}\p{N}]/u.test(row) ? 'direction' : 'mark', row)])];
    }
    return [...out, ...spokenPieces(row, { speaker, directing })];
  };
  return rows.map((row, i) => {
    const pieces = piecesOf(row, i);
    return { row, pieces, labelled };
  });
}

/** Names that stand before a colon at the start of two rows or more. */
function repeatedSpeakers(rows: readonly string[]): Set<string> {
  const seen = new Map<string, number>();
  for (const row of rows) {
    const m = /^\W*([\p{Lu}][\p{L}.’' -]{0,28}?)(?:\s*\([^)]{0,40}\)|\s?\d{1,3})?\s*:(?=\W*\s)/u.exec(row);
    if (m) seen.set(m[1].toLowerCase(), (seen.get(m[1].toLowerCase()) ?? 0) + 1);
  }
  return new Set([...seen].filter(([, n]) => n > 1).map(([name]) => name));
}

/** Of the names that come again, those behind which no sentence stands, where behind another nearly all are sentences. */
function repeatedCues(rows: readonly string[], names: ReadonlySet<string>): Set<string> {
  const counts = new Map<string, { all: number; sentences: number }>();
  for (const row of rows) {
    const m = /^\W*([\p{Lu}][\p{L}.’' -]{0,28}?)(?:\s*\([^)]{0,40}\)|\s?\d{1,3})?\s*:\s+(\S.*)$/u.exec(row);
    const name = m?.[1].toLowerCase();
    if (!m || !name || !names.has(name)) continue;
    const own = counts.get(name) ?? { all: 0, sentences: 0 };
    own.all++;
    if (/[.!?…]["”’)*_]*\s*$/.test(m[2])) own.sentences++;
    counts.set(name, own);
  }
  const told = [...counts.values()].some((c) => c.all > 2 && c.sentences >= c.all * 0.9);
  return new Set(told ? [...counts].filter(([, c]) => c.all > 2 && c.sentences <= c.all * 0.1).map(([n]) => n) : []); // prettier-ignore
}

/** Whether the rows that begin with a time are few words without a stop, all but one of three or more: names of parts. */
function timesStandOverParts(rows: readonly string[]): boolean {
  const rests = rows.flatMap((row) => {
    const m = SPOKEN_TIME.test(row) ? null : TIME_PREFIX.exec(row);
    return m ? [row.slice(m[0].length).trim()] : [];
  });
  const names = rests.filter((r) => r.split(/\s+/).length <= 6 && !/[.!?…]["”’)]*$/.test(r));
  return rests.length >= 3 && names.length >= rests.length - 1;
}

/** What stands behind times on two rows or more: who speaks. */
function repeatedBehindTimes(rows: readonly string[]): Set<string> {
  const seen = new Map<string, number>();
  for (const row of rows) {
    const m = TIME_PREFIX.exec(row);
    const rest = m ? row.slice(m[0].length).trim().toLowerCase() : '';
    if (rest && rest.split(/\s+/).length <= 4) seen.set(rest, (seen.get(rest) ?? 0) + 1);
  }
  return new Set([...seen].filter(([, n]) => n > 1).map(([name]) => name));
}

/**
 * Titles that have no mark: where nearly all rows end as sentences do, short rows of their own that don't, with prose below.
 * The first may be the whole's.
 */
function plainTitles(rows: readonly string[]): Map<number, 0 | 1> {
  const blank = (i: number) => !/\S/.test(rows[i] ?? '');
  const prose = (r: string) => /[.!?…]["”’)*_]*\s*$/.test(r) && r.trim().split(/\s+/).length >= 4;
  const next: number[] = [];
  for (let i = rows.length - 1, at = -1; i >= 0; i--) {
    next[i] = at;
    if (!blank(i) && !isBeside(rows[i])) at = i;
  }
  const isTitle = (i: number) => {
    const below = next[i];
    return (
      /^\s*\p{Lu}[^.!?…:;|<>#*_[\](){}=]{1,70}$/u.test(rows[i]) &&
      !/[,"”’]\s*$/.test(rows[i]) &&
      rows[i].trim().split(/\s+/).length <= 9 &&
      (blank(i - 1) || i === 0) &&
      (prose(rows[below] ?? '') || (i === 0 && /^(?:written |story )?by\s/i.test(rows[below] ?? '')))
    );
  };
  const found = rows.flatMap((_, i) => (isTitle(i) ? [i] : []));
  const known = new Set(found);
  const others = rows.filter((r, i) => /\S/.test(r) && !known.has(i));
  const first = rows.findIndex((r) => /\S/.test(r));
  const out = new Map<number, 0 | 1>();
  if (others.filter(prose).length < 0.8 * others.length - 1 || others.filter(prose).length < 2) return out;
  const parts = found.filter((i) => i !== first);
  const capitals = (i: number) => !/\p{Ll}/u.test(rows[i]);
  const alike = parts.length > 1 && (!blank(first + 1) || (capitals(first) && parts.every(capitals)));
  if (found.includes(first)) out.set(first, alike ? 1 : 0);
  if (parts.length > 1 || (parts.length === 1 && found.includes(first))) for (const i of parts) out.set(i, 1);
  return out;
}
