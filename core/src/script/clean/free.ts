/** A draft in free form: rows judged one by one, with labels that hold for the rows below them. */
import { isOnlyCut, restOf, spokenPieces } from './inline.ts';
import { cut, gap, type Piece } from './piece.ts';
import { ROW_RULES, type RowContext } from './rows.ts';

const TIME_PREFIX =
  /^\s*(?:[-*•]\s+)?(?:[[(]\s*)?\d{1,2}:\d{2}(?::\d{2})?(?:\s*(?:[–—-]|-->?|to)\s*\d{1,2}:\d{2}(?::\d{2})?)?(?:\s*[\])])?(?:\s*[:–—|-])?\s+(?=\S)/;
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
  const all = joined(text);
  const skip = front(all);
  const out: Piece[] = [];
  for (const row of all.slice(0, skip)) {
    const title = /^title\s*:\s*["']?([^"'\s].*?)["']?$/i.exec(row.trim());
    out.push(title ? { type: 'heading', level: 0, text: title[1] } : cut('brief', row));
  }
  const rows = all.slice(skip);
  const worded = rows.map((r) => /\S/.test(r));
  const speakers = repeatedSpeakers(rows);
  const onlyTop = rows.filter((r) => /^\s{0,3}#\s/.test(r)).length === 1;
  let before = 0;
  let left = worded.filter(Boolean).length;
  /** What the rows below a label on its own are. */
  let mode: 'spoken' | 'unspoken' = 'spoken';
  let modeFresh = false;
  let speaker: string | undefined;
  let directed = false;

  rows.forEach((raw, i) => {
    if (!worded[i]) {
      if (!modeFresh) mode = 'spoken';
      speaker = modeFresh ? speaker : undefined;
      directed = false;
      out.push(gap);
      return;
    }
    left--;
    const nextAt = worded.indexOf(true, i + 1);
    const context: RowContext = {
      before,
      after: left,
      onlyTop,
      speakers,
      next: nextAt < 0 ? null : rows[nextAt].trim(),
      gapAfter: nextAt < 0 || nextAt > i + 1,
      gapBefore: i === 0 || !worded[i - 1],
    };
    before++;
    modeFresh = false;
    let row = raw.replace(/^\s*(?:>\s?)+/, '');
    const timed = SPOKEN_TIME.test(row) ? null : TIME_PREFIX.exec(row);
    if (timed) {
      const rest = row.slice(timed[0].length);
      out.push(cut('timing', timed[0]));
      row = rest;
    }
    for (const rule of ROW_RULES) {
      const verdict = rule.read(row, context);
      if (!verdict) continue;
      directed = false;
      switch (verdict.type) {
        case 'cut':
          out.push(cut(verdict.kind, row));
          return;
        case 'heading':
          mode = 'spoken';
          out.push({ type: 'heading', level: verdict.level, text: verdict.text });
          return;
        case 'directs': {
          const rest = restOf(row);
          out.push(rest === null ? cut('direction', row) : { type: 'rest', ms: rest, text: row.trim() });
          if (!verdict.rest.replace(/\*/g, '').trim()) {
            mode = 'unspoken';
            modeFresh = true;
          } else directed = true;
          return;
        }
        case 'label':
          out.push(cut('speaker', `${verdict.label}:`));
          mode = 'spoken';
          speaker = verdict.speaker || undefined;
          if (!verdict.rest.replace(/\*/g, '').trim()) modeFresh = true;
          else out.push(...spokenPieces(verdict.rest, speaker));
          return;
      }
    }
    // A direction goes on over the end of its row when the next begins in small letters.
    if (mode === 'unspoken' || (directed && /^\s*\p{Ll}/u.test(row) && !context.gapBefore)) {
      out.push(cut('direction', row));
      return;
    }
    directed = false;
    if (/^\s*\d{1,4}\s*$/.test(row)) return void out.push(cut('mark', row));
    if (isOnlyCut(row)) {
      const cuts = spokenPieces(row).filter((p) => p.type !== 'spoken');
      out.push(...(cuts.length ? cuts : [cut(/[\p{L}\p{N}]/u.test(row) ? 'direction' : 'mark', row)]));
      return;
    }
    out.push(...spokenPieces(row, speaker));
  });
  return out;
}

/** Names that stand before a colon at the start of two rows or more. */
function repeatedSpeakers(rows: readonly string[]): Set<string> {
  const seen = new Map<string, number>();
  for (const row of rows) {
    const m = /^\W*([\p{Lu}][\p{L}.’' -]{0,28}?)(?:\s*\([^)]{0,40}\))?\s*:(?=\W*\s)/u.exec(row);
    if (m) seen.set(m[1].toLowerCase(), (seen.get(m[1].toLowerCase()) ?? 0) + 1);
  }
  return new Set([...seen].filter(([, n]) => n > 1).map(([name]) => name));
}
