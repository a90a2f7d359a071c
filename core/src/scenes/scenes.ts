/** Scene breaks: one idea, one picture, by length and clause. */
import { z } from 'zod';
import type { Frame } from '../script/file.ts';
import type { PlainSection } from '../script/schema.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock, TimedToken } from '../timing/clock.ts';

/**
 * Wanted seconds of one picture by frame: about 5 s in long form, 2 s in a vertical short, the opening faster (common
 * practice, no published source).
 */
const WANTED_MS: Readonly<Record<Frame, number>> = { '16:9': 5000, '9:16': 2000, '1:1': 3000 };
const OPENING_FACTOR = 0.75;
/** A scene longer than this many times the wanted length is split at a clause. */
const TOO_LONG = 1.5;
/** Two neighbouring lines share a picture while both together stay under this share of the wanted length. */
const JOIN_UNDER = 1.05;

export const sceneSchema = z.object({
  id: z.string(),
  startMs: z.number().int(),
  endMs: z.number().int(),
  words: z.number().int(),
  section: z.string(),
  /** What is heard: line ids with the characters of each, [from, to). */
  parts: z.array(z.object({ line: z.string(), from: z.number().int(), to: z.number().int() })),
  text: z.string(),
  /** Why it begins where it does. */
  why: z.enum(['section', 'sentence', 'clause', 'rest']),
});
export type Scene = z.infer<typeof sceneSchema>;

interface Piece {
  line: string;
  from: number;
  to: number;
  ms: number;
  text: string;
  why: Scene['why'];
  section: string;
}

const CLAUSE_WORD =
  /^(?:and|but|so|because|which|who|when|while|where|until|before|after|if|that|as|since|although|or)$/i;
/** The shortest stretch either side of a cut inside a line, in words. */
const LEAST_WORDS = 3;

/** Where a line may be cut: after a mark, or before a clause word; marks are the better places. */
function cutPlaces(tokens: readonly TimedToken[]): { at: number; good: number }[] {
  const out: { at: number; good: number }[] = [];
  for (let i = LEAST_WORDS; i <= tokens.length - LEAST_WORDS; i++) {
    const before = tokens[i - 1];
    if (before.boundaryAfter !== 'none') out.push({ at: i, good: 1 });
    else if (CLAUSE_WORD.test(tokens[i].spoken) && !joinsValues(before, tokens[i + 1]))
      out.push({ at: i, good: /^(?:and|or)$/.test(tokens[i].spoken) ? 0.2 : 0.6 });
  }
  return out;
}

/** "between 1821 and 1826": a word between two values joins them. */
const joinsValues = (before: TimedToken, after: TimedToken | undefined) =>
  before.kind !== 'word' && before.kind !== 'name' && after !== undefined && after.kind !== 'word';

/** Splits a line's tokens until each part is short enough or has no place to cut. */
function splitTokens(tokens: readonly TimedToken[], wantedMs: number): (readonly TimedToken[])[] {
  const total = tokens.reduce((sum, t) => sum + t.ms + t.pauseMs, 0);
  if (total <= wantedMs * TOO_LONG) return [tokens];
  const parts = Math.max(2, Math.round(total / wantedMs));
  const aim = total / parts;
  let best = { at: -1, score: -Infinity };
  for (const { at, good } of cutPlaces(tokens)) {
    const left = tokens.slice(0, at).reduce((sum, t) => sum + t.ms + t.pauseMs, 0);
    const score = good - Math.abs(left - aim * Math.max(1, Math.round(left / aim))) / aim;
    if (score > best.score) best = { at, score };
  }
  if (best.at < 0) return [tokens];
  return [
    ...splitTokens(tokens.slice(0, best.at), wantedMs),
    ...splitTokens(tokens.slice(best.at), wantedMs),
  ];
}

/** Scenes of a script in order; together they cover its whole time without gaps. Lines without a word join the scene before them. */
export function breakScenes(sections: readonly PlainSection[], clock: Clock, frame: Frame): Scene[] {
  const timed = clock.lines(clockLines(sections));
  const pieces: Piece[] = [];
  let at = 0;
  sections.forEach((section, s) => {
    const wantedMs = WANTED_MS[frame] * (s === 0 ? OPENING_FACTOR : 1);
    section.lines.forEach((line, l) => {
      const { ms } = timed[at++];
      const parts = line.fixedMs === null ? splitTokens(clock.tokens(line.text), wantedMs) : [];
      const own = parts.map((p) => p.reduce((sum, t) => sum + t.ms + t.pauseMs, 0));
      const sum = own.reduce((a, b) => a + b, 0);
      if (parts.length < 2 || !sum) {
        pieces.push({
          line: line.id,
          from: 0,
          to: line.text.length,
          ms,
          text: line.text,
          why: l === 0 ? 'section' : 'sentence',
          section: section.id,
        });
        return;
      }
      let given = 0;
      parts.forEach((part, k) => {
        const last = k === parts.length - 1;
        // The line's own time is shared out by what each part takes; the last takes what rounding and rests leave.
        const share = last ? ms - given : own[k];
        given += share;
        const from = k === 0 ? 0 : part[0].start;
        const to = last ? line.text.length : parts[k + 1][0].start;
        pieces.push({
          line: line.id,
          from,
          to,
          ms: share,
          text: line.text.slice(from, to),
          why: k > 0 ? 'clause' : l === 0 ? 'section' : 'sentence',
          section: section.id,
        });
      });
    });
  });
  return joinShort(pieces, sections, frame);
}

function joinShort(pieces: readonly Piece[], sections: readonly PlainSection[], frame: Frame): Scene[] {
  const first = sections[0]?.id;
  const scenes: (Scene & { ms: number })[] = [];
  let at = 0;
  for (const piece of pieces) {
    const wanted = WANTED_MS[frame] * (piece.section === first ? OPENING_FACTOR : 1);
    const last = scenes[scenes.length - 1];
    const start = at;
    at += piece.ms;
    const wordless = !/[\p{L}\p{N}]/u.test(piece.text);
    if (last && (wordless || (last.section === piece.section && last.ms + piece.ms <= wanted * JOIN_UNDER))) {
      last.ms += piece.ms;
      last.endMs = at;
      last.text = `${last.text.trim()} ${piece.text.trim()}`.trim();
      last.words = count(last.text);
      const open = last.parts[last.parts.length - 1];
      if (open.line === piece.line) open.to = piece.to;
      else last.parts.push({ line: piece.line, from: piece.from, to: piece.to });
      continue;
    }
    scenes.push({
      id: `C${scenes.length + 1}`,
      startMs: start,
      endMs: at,
      words: count(piece.text),
      section: piece.section,
      parts: [{ line: piece.line, from: piece.from, to: piece.to }],
      text: piece.text.trim(),
      why: piece.why,
      ms: piece.ms,
    });
  }
  return scenes.map(({ ms: _ms, ...scene }) => scene);
}

const count = (text: string) => text.split(/\s+/).filter((w) => /[\p{L}\p{N}]/u.test(w)).length;
