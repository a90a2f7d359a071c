/** Layouts that say by their form what is spoken: captions, tables of columns, screenplays (Fountain). Each turns a draft into pieces, or passes. */
import Papa from 'papaparse';
import { isOnlyCut, restOf, spokenPieces } from './inline.ts';
import { withoutFrames } from './forms.ts';
import { cut, gap, type Piece } from './piece.ts';
import { freePieces } from './free.ts';
import { isNarratorLabel, isPictureLabel } from './labels.ts';

export interface Layout {
  id: string;
  /** Null when the draft is not laid out so. */
  read: (text: string) => Piece[] | null;
}

const rowsOf = (text: string) => text.split('\n');

// ---- captions (SubRip; WebVTT, W3C) --------------------------------------------------------------------------------

const CUE_TIME = /^\s*(?:\d{1,2}:)?\d{1,2}:\d{2}[.,]\d{1,3}\s*-->\s*(?:\d{1,2}:)?\d{1,2}:\d{2}[.,]\d{1,3}.*$/;

/** Who made the captions, in their first or last cue. */
const CREDIT =
  /^(?:closed )?(?:captions?|captioned|captioning|subtitles?|subtitled|subs|transcri(?:pt(?:ion)?|bed)|translat(?:ion|ed)|sync(?:hroni[sz])?(?:ed|ing)?|corrections?|timing)\b[^.!?]{0,12}(?:\bby\b|:)/i;

const captions: Layout = {
  id: 'captions',
  read: (text) => {
    const rows = rowsOf(text);
    if (
      rows.filter((r) => CUE_TIME.test(r)).length < 1 ||
      (rows.filter((r) => CUE_TIME.test(r)).length < 2 && rows.filter((r) => r.trim()).length > 8)
    )
      return null;
    const out: Piece[] = [];
    let inside = false;
    let skip = false;
    rows.forEach((row, i) => {
      if (/^\uFEFF?WEBVTT|^(?:NOTE|STYLE|REGION)\b/.test(row)) skip = true;
      if (!row.trim()) {
        skip = false;
        inside = false;
      } else if (skip) out.push(cut('mark', row));
      else if (CUE_TIME.test(row)) {
        inside = true;
        out.push(cut('timing', row));
      } else if (!inside && CUE_TIME.test(rows[i + 1] ?? '')) out.push(cut('mark', row));
      else {
        const voice = /<v(?:\.[\w.]+)?\s+([^>]{1,60})>/.exec(row)?.[1];
        const named = /^(?:-\s*|>>\s*)?([A-Z][A-Z .’'-]{1,28}):\s+(?=\S)/.exec(row);
        const words = (named ? row.slice(named[0].length) : row).replace(/^\s*(?:>>+|-)\s+/, '');
        if (CREDIT.test(words) && (i < 12 || i > rows.length - 12)) out.push(cut('brief', words));
        else if (isOnlyCut(words)) out.push(cut('direction', words));
        else out.push(...spokenPieces(words, { speaker: voice ?? named?.[1] }));
      }
    });
    return out;
  },
};

// ---- columns -------------------------------------------------------------------------------------------------------

const SPOKEN_HEAD =
  /^\W*(?:audio|narration|narrator|voice[- ]?over|v\/?o|script|spoken|dialogue|words|copy|text to (?:read|say)|what (?:is|we) (?:said|say|hear)|audio\s*\/\s*(?:narration|v\/?o))\b/i;
const UNSPOKEN_HEAD =
  /^\W*(?:video|visuals?|pictures?|images?|shots?|scene|on[- ]?screen|b-?roll|time(?:code|stamp)?|duration|dur|sec(?:onds)?|length|notes?|music|sfx|sounds?|graphics?|#|no|nr|camera|action|what (?:is|we) (?:seen|see)|text on screen|words)\b/i;

/** Records whose fields are set apart by commas, semicolons or tabs (RFC 4180), under a row of names. */
function records(text: string): { rows: string[][]; around: string[] } | null {
  const first = rowsOf(text).find((l) => l.trim()) ?? '';
  const names = first.split(/[,;\t]/).map((c) => c.replace(/"/g, '').trim());
  if (names.some((c) => c.split(/\s+/).length > 4)) return null;
  const known = names.filter((c) => SPOKEN_HEAD.test(c) || UNSPOKEN_HEAD.test(c)).length;
  if (names.length < 2 || known * 2 < names.length || !names.some((c) => SPOKEN_HEAD.test(c))) return null;
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' });
  const rows = data.map((r) => r.map((c) => c.trim()));
  return rows.length > 1 && rows.every((r) => r.length <= rows[0].length) ? { rows, around: [] } : null;
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
  if (tabs.length >= 2 && tabs.length * 3 >= lines.filter((l) => l.trim()).length * 2)
    return {
      rows: tabs.map((l) => l.split('\t').map((c) => c.trim())),
      around: lines.filter((l) => l.trim() && !tabs.includes(l)),
    };
  return setApart(lines);
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
  let open = false;
  let crossing = 0;
  for (const line of lines.slice(head + 1)) {
    if (!line.trim()) {
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
  return crossing > 1 ? null : { rows, around: lines.slice(0, head).filter((l) => l.trim()) };
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

/** A last row that adds the others up. */
const isTotal = (row: readonly string[], spoken: number): boolean =>
  /^\W*(?:sub ?|grand )?(?:totals?|sum|run ?time|duration)\W*$/i.test(row[spoken] ?? '') &&
  row.every((c, i) => i === spoken || !c || /\d/.test(c));

const columns: Layout = {
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
      rows[0].some((c) => SPOKEN_HEAD.test(c) || UNSPOKEN_HEAD.test(c)) &&
      rows[0].every((c) => c.split(/\s+/).length <= 5);
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

// ---- screenplay (Fountain, fountain.io/syntax) -------------------------------------------------------------------

const NARRATES = /^(?:narrator|narration|v\.?o\.?|voice-?over|host)$/i;
const SCENE_HEAD = /^(?:\.(?=[A-Z])|(?:INT|EXT|EST|INT\.?\/EXT|I\/E)[. ])/i;
const CHARACTER =
  /^@?(?=.*[A-Z])([A-Z][A-Z\d .’'-]{1,34}|@.{1,40})(?:\s*\((?:V\.?O\.?|O\.?S\.?|O\.?C\.?|CONT['’]?D|[A-Z .’']{2,20}|[a-z ,.’']{2,30})\))*\s*\^?$/;
const TRANSITION = /^(?:>.*[^<]|[A-Z ]+ TO:|FADE (?:IN|OUT)[.:]?|CUT TO BLACK\.?)$/;
const TITLE_KEY =
  /^(?:title|credit|author|authors|source|draft date|date|contact|copyright|notes?|revision)\s*:/i;

const screenplay: Layout = {
  id: 'screenplay',
  read: (text) => {
    const rows = rowsOf(
      text
        .replace(/\/\*[\s\S]*?\*\//g, '')
        .replace(/\[\[[\s\S]*?\]\]/g, (n) => `\n${n.replace(/\s+/g, ' ')}\n`),
    );
    const heads = rows.filter((r) => SCENE_HEAD.test(r.trim())).length;
    const cues = rows.filter(
      (r, i) =>
        CHARACTER.test(r.trim()) &&
        !SCENE_HEAD.test(r.trim()) &&
        (rows[i + 1] ?? '').trim() &&
        !(rows[i - 1] ?? '').trim(),
    ).length;
    if (!((heads >= 1 && cues >= 1) || (cues >= 3 && rows.every((r) => !/^\s*#{1,6}\s/.test(r)))))
      return null;
    // Names that come once each over prose are headings and no characters.
    const names = rows
      .filter((r, i) => CHARACTER.test(r.trim()) && (rows[i + 1] ?? '').trim() && !(rows[i - 1] ?? '').trim())
      .map((r) => r.replace(/\s*\(.*$/, '').trim());
    if (heads === 0 && new Set(names).size === names.length && !names.some((n) => NARRATES.test(n)))
      return null;
    // Labels of picture and sound over their words are no characters.
    if (heads === 0 && rows.some((r) => CHARACTER.test(r.trim()) && isPictureLabel(`${r.trim()}: x`)))
      return null;
    const out: Piece[] = [];
    let i = 0;
    // The title page: keys with values, up to the first blank row.
    if (TITLE_KEY.test(rows.find((r) => r.trim()) ?? '')) {
      while (i < rows.length && (!rows[i].trim() || TITLE_KEY.test(rows[i]) || /^\s{2,}\S/.test(rows[i]))) {
        const title = /^title\s*:\s*(\S.*)$/i.exec(rows[i]);
        if (title) out.push({ type: 'heading', level: 0, text: title[1].replace(/[*_]/g, '').trim() });
        else if (rows[i].trim()) out.push(cut('brief', rows[i]));
        i++;
        if (!rows[i]?.trim() && !TITLE_KEY.test(rows[i + 1] ?? '')) break;
      }
    }
    const sectioned = rows.some((r) => /^#{1,6}\s/.test(r.trim()));
    let speaker: string | null = null;
    let blankBefore = true;
    for (; i < rows.length; i++) {
      const row = rows[i].trim();
      if (!row) {
        speaker = null;
        blankBefore = true;
        out.push(gap);
        continue;
      }
      if (/^\[\[.*\]\]$/.test(row)) out.push(cut('direction', row));
      else if (/^={3,}$/.test(row)) out.push(cut('mark', row));
      else if (/^=\s/.test(row)) out.push(cut('brief', row));
      else if (/^#{1,6}\s/.test(row))
        out.push({ type: 'heading', level: 1, text: row.replace(/^#+\s*/, '') });
      else if (SCENE_HEAD.test(row))
        // Where the writer gives sections names of their own, a place is no name of one.
        out.push(
          sectioned ? cut('direction', row) : { type: 'heading', level: 1, text: row.replace(/^\./, '') },
        );
      else if (TRANSITION.test(row) && speaker === null) out.push(cut('direction', row));
      else if (speaker === null && blankBefore && CHARACTER.test(row) && (rows[i + 1] ?? '').trim()) {
        speaker = row
          .replace(/^@/, '')
          .replace(/\s*\(.*$/, '')
          .replace(/\s*\^$/, '')
          .trim();
        out.push(cut('speaker', row));
      } else if (speaker !== null) {
        const rest = /^\(.*\)$/.test(row) ? restOf(row) : null;
        if (rest !== null) out.push({ type: 'rest', ms: rest, text: row });
        else if (/^\(.*\)$/.test(row)) out.push(cut('direction', row));
        else out.push(...spokenPieces(row.replace(/^~\s*/, ''), NARRATES.test(speaker) ? {} : { speaker }));
      } else out.push(cut('direction', row));
      blankBefore = false;
    }
    return out;
  },
};

// ---- data with fields --------------------------------------------------------------------------------------------

/** Names of fields that hold what is spoken. */
const SPOKEN_FIELD =
  /^(?:narration|narrator|voice_?-?over(?:_?text)?|vo|spoken(?:_?text)?|audio|script|dialogue|speech|copy|line|say|text)$/i;
const NAME_FIELD = /^(?:title|heading|name|section|scene_?title)$/i;

/** Leaf elements of markup, or values of JSON, by the names of their fields, in order. */
function fieldsOf(text: string): { name: string; value: string }[] | null {
  const trimmed = text.trim().replace(/^`{3,}\w*\s*|\s*`{3,}$/g, '');
  if (/^[[{]/.test(trimmed)) {
    let data: unknown;
    try {
      data = JSON.parse(trimmed);
    } catch {
      return null;
    }
    const out: { name: string; value: string }[] = [];
    const walk = (value: unknown, name: string, depth: number): void => {
      if (depth > 12) return;
      if (Array.isArray(value)) value.forEach((v) => walk(v, name, depth + 1));
      else if (typeof value === 'object' && value !== null)
        for (const [k, v] of Object.entries(value)) walk(v, k, depth + 1);
      else out.push({ name, value: String(value) });
    };
    walk(data, '', 0);
    return out;
  }
  if (!/^<[?\w]/.test(trimmed)) return null;
  return [...trimmed.matchAll(/<([A-Za-z][\w:-]{0,40})(?:\s[^<>]{0,300})?>([^<]{1,20000})<\/\1>/g)].map(
    (m) => ({
      name: m[1],
      value: m[2],
    }),
  );
}

const fields: Layout = {
  id: 'fields',
  read: (text) => {
    const found = fieldsOf(text);
    // Of several fields that may be spoken the one that says so most clearly, in the order of the pattern.
    const names = [...new Set(found?.map((f) => f.name.toLowerCase()))].filter((n) => SPOKEN_FIELD.test(n));
    if (!found || !names.length || found.length < 2) return null;
    const clear = names.find((n) => !/^(?:audio|script|line|text|copy|say)$/.test(n)) ?? names[0];
    if (found.filter((f) => f.name.toLowerCase() === clear).length * 12 < found.length) return null;
    return found.flatMap(({ name, value }): Piece[] =>
      name.toLowerCase() === clear
        ? [...spokenPieces(value), gap]
        : NAME_FIELD.test(name)
          ? [{ type: 'heading', level: 1, text: value.trim() }]
          : [cut('direction', `${name}: ${value}`)],
    );
  },
};

// ---- speech marked up (SSML 1.1, W3C) ------------------------------------------------------------------------------

/** Text to be spoken, breaks as rests; what plays in a recording's place, and names of marks, are not spoken. */
const speech: Layout = {
  id: 'speech markup',
  read: (text) => {
    if (!/^\s*(?:<\?xml[^>]*>\s*)?<speak[\s>]/.test(text)) return null;
    const plain = text
      .replace(/<!--[\s\S]*?-->|<\?[^>]*>/g, '')
      .replace(/<(audio|desc|metadata|lexicon)\b[^>]*>[\s\S]*?<\/\1>/g, '')
      .replace(
        /<break\b[^>]*time=["'](\d+(?:\.\d+)?)(ms|s)["'][^>]*>/g,
        (_, n: string, unit: string) => ` [pause ${unit === 'ms' ? Number(n) / 1000 : n} s] `,
      )
      .replace(/<break\b[^>]*>/g, ' [pause] ')
      .replace(/<\/(?:p|s|speak)>|<(?:p|s)\b[^>]*>/g, '\n\n')
      .replace(/<[^>]*>/g, '')
      .replace(
        /&(amp|lt|gt|quot|apos);/g,
        (_, name: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" })[name]!,
      );
    return freePieces(plain);
  },
};

export const LAYOUTS: readonly Layout[] = [speech, fields, captions, screenplay, columns];
