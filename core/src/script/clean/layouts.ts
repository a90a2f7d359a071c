/** Layouts that say by their form what is spoken: captions, tables of columns, screenplays (Fountain). Each turns a draft into pieces, or passes. */
import { columns } from './columns.ts';
import { isOnlyCut, restOf, spokenPieces } from './inline.ts';
import { cut, gap, type Layout, type Piece } from './piece.ts';
import { freePieces } from './free.ts';
import { isPictureLabel } from './labels.ts';

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
/** Fields of parts that are spoken too where they hold sentences, beside those that hold the narration. */
const PART_FIELD =
  /^(?:cold_?open|teaser|hook|intro(?:duction)?|opening(?:_?line)?|outro|ending|closing(?:_?line)?|cta|call_?to_?action|conclusion)(?:_?(?:text|line|narration))?$/i;
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
      name.toLowerCase() === clear || (PART_FIELD.test(name) && /[.!?…]["”’]?$/.test(value.trim()))
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
