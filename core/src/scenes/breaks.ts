/**
 * Scene breaks: one idea, one picture, by idea, length and clause. What is computed of a line depends on that line and the
 * short ones beside it, never on what stands far away, so an edit moves only what it must. Marks of the writer come first.
 */
import { z } from 'zod';
import { sceneOwnSchema, type SceneOwn } from '../script/sceneOwn.ts';
import type { CutMark, LineMark, PlainLine, PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock, TimedToken } from '../timing/clock.ts';
import { wantedMs, type PaceWanted } from './pace.ts';

/** A scene longer than this many times the wanted length is split. */
const TOO_LONG = 1.5;
/** A line shorter than this share of the wanted length may share a picture with its neighbour. */
const SHORT = 0.6;
/** …as long as both together stay under this share of it. */
const TOGETHER = 1.35;
/** Lines about one thing may share a picture for a little longer. */
const TOGETHER_SAME = 1.6;
/** Rounds of joining: after two, four short lines can be one scene. */
const ROUNDS = 2;
/** A planned rest as long as this is a scene of its own, without words. */
export const SILENT_REST_MS = 1500;
/** No computed picture is shorter than this share of the wanted length. */
const LEAST_SHARE = 0.45;
/** The shortest stretch either side of a computed cut inside a line, in words. */
const LEAST_WORDS = 3;

/** Why a scene begins where it does. */
export const SCENE_WHYS = [
  'section', 'sentence', 'idea', 'clause', 'phrase', 'speaker', 'writer', 'rest', 'silent', 'fixed',
] as const; // prettier-ignore
export type SceneWhy = (typeof SCENE_WHYS)[number];

export const sceneSchema = z.object({
  /** The writer's mark, or the line with its count of scenes: the same as long as the line stands. */
  id: z.string(),
  startMs: z.number().int(),
  endMs: z.number().int(),
  words: z.number().int(),
  section: z.string(),
  /** What is heard: line ids with the characters of each, [from, to). */
  parts: z.array(z.object({ line: z.string(), from: z.number().int(), to: z.number().int() })),
  text: z.string(),
  why: z.enum(SCENE_WHYS),
  /** How long a picture should stay here, in milliseconds. */
  wantedMs: z.number().int(),
  /** Nothing is said in it. */
  silent: z.boolean(),
  /** The writer's mark at its beginning. */
  mark: z.string().nullable(),
  held: z.boolean(),
  own: sceneOwnSchema,
  speaker: z.string(),
});
export type Scene = z.infer<typeof sceneSchema>;

interface Piece {
  line: PlainLine;
  from: number;
  to: number;
  ms: number;
  why: SceneWhy;
  /** The mark the piece begins with. */
  mark: CutMark | null;
  /** Begins a scene whatever its length. */
  firm: boolean;
  /** Never begins one: the writer joined it. */
  joined: boolean;
}

const CLAUSE_WORD =
  /^(?:and|but|so|because|which|who|when|while|where|until|before|after|if|that|as|since|although|or|then)$/i;
const PHRASE_WORD =
  /^(?:in|on|at|with|from|for|under|over|through|into|by|across|along|behind|between|inside|near|past|towards?|to)$/i;
/** How good a cut is: at a mark, before a clause, before "and", before a phrase. */
const GOOD = { mark: 1, clause: 0.6, and: 0.2, phrase: 0.05 } as const;

interface Place {
  at: number;
  good: number;
  why: 'clause' | 'phrase';
}
/** Where a stretch of words may be cut. */
function cutPlaces(tokens: readonly TimedToken[]): Place[] {
  const out: Place[] = [];
  for (let i = LEAST_WORDS; i <= tokens.length - LEAST_WORDS; i++) {
    const before = tokens[i - 1];
    const word = tokens[i].spoken;
    if (before.boundaryAfter !== 'none') out.push({ at: i, good: GOOD.mark, why: 'clause' });
    else if (joinsValues(before, tokens[i + 1])) continue;
    else if (CLAUSE_WORD.test(word))
      out.push({ at: i, good: /^(?:and|or)$/.test(word) ? GOOD.and : GOOD.clause, why: 'clause' });
    else if (PHRASE_WORD.test(word) && before.kind !== 'name')
      out.push({ at: i, good: GOOD.phrase, why: 'phrase' });
  }
  return out;
}

/** Letters that a word must have for a cut behind it, where no clause and no phrase begins: shorter ones lean on the next. */
const LONG_ENOUGH = 4;
/** Where words are best parted in two: at the clause nearest to their middle, else at a phrase, else behind a word that leans on nothing; null for too few words. */
export function partedAt(text: string): number | null {
  const words = [...text.matchAll(/[^\s]+/g)].map((m) => ({ at: m.index, said: m[0] }));
  const places = words.slice(1).map(({ at, said }, i) => ({ at, said, before: words[i].said }));
  const leans = (word: string) =>
    word.length < LONG_ENOUGH || CLAUSE_WORD.test(word) || PHRASE_WORD.test(word);
  const free = places.filter(({ before }) => /[,;:—–.!?]["'”’)]*$/u.test(before) || !leans(before));
  const tiers = [
    free.filter(({ before, said }) => /[,;:—–]["'”’)]*$/u.test(before) || CLAUSE_WORD.test(said)),
    free.filter(({ said }) => PHRASE_WORD.test(said)),
    free,
    places,
  ];
  const middle = text.length / 2;
  const near = (list: typeof places) => list.filter((p) => p.at > 2 && p.at < text.length - 3).sort((a, b) => Math.abs(a.at - middle) - Math.abs(b.at - middle))[0]?.at; // prettier-ignore
  return tiers.map(near).find((at) => at !== undefined) ?? null;
}

/** "between 1821 and 1826": a word between two values joins them. */
const joinsValues = (before: TimedToken, after: TimedToken | undefined) =>
  before.kind !== 'word' && before.kind !== 'name' && after !== undefined && after.kind !== 'word';

const lengthOf = (tokens: readonly TimedToken[]) => tokens.reduce((sum, t) => sum + t.ms + t.pauseMs, 0);
interface Stretch {
  tokens: readonly TimedToken[];
  why: 'clause' | 'phrase';
}

/** Splits words until each part is short enough or has no place to cut. */
function splitTokens(tokens: readonly TimedToken[], wanted: number, why: Stretch['why']): Stretch[] {
  const total = lengthOf(tokens);
  if (total <= wanted * TOO_LONG) return [{ tokens, why }];
  const aim = total / Math.max(2, Math.round(total / wanted));
  let best: { place: Place | null; score: number } = { place: null, score: -Infinity };
  for (const place of cutPlaces(tokens)) {
    // A phrase is a poor place: only where a picture would otherwise stay twice as long as it should.
    if (place.why === 'phrase' && total <= wanted * 2) continue;
    const left = lengthOf(tokens.slice(0, place.at));
    if (Math.min(left, total - left) < wanted * LEAST_SHARE) continue;
    const score = place.good - Math.abs(left - aim * Math.max(1, Math.round(left / aim))) / aim;
    if (score > best.score) best = { place, score };
  }
  if (!best.place) return [{ tokens, why }];
  const { at } = best.place;
  return [
    ...splitTokens(tokens.slice(0, at), wanted, why),
    ...splitTokens(tokens.slice(at), wanted, best.place.why),
  ];
}

const isCut = (m: LineMark): m is LineMark & { type: 'cut' } => m.type === 'cut';
const cutMark = ({ id, kind, held, own }: CutMark): CutMark => ({ id, kind, held, own });

/** The pieces of one line: between the writer's breaks, split by length unless held. */
function piecesOf(
  line: PlainLine,
  tokens: readonly TimedToken[],
  ms: number,
  wanted: number,
  first: boolean,
): Piece[] {
  // A mark belongs to the word it stands on, or to the next one where it stands on a space.
  const marks = new Map(
    (line.marks ?? []).filter(isCut).map((m) => [tokens.find((t) => t.end > m.start), m] as const),
  );
  const markAt = (token: TimedToken) => marks.get(token);
  const begins = first ? 'section' : 'sentence';
  const none = { mark: null, firm: first, joined: false };
  const whole = (why: SceneWhy): Piece => ({ line, from: 0, to: line.text.length, ms, why, ...none });
  if (!tokens.length)
    return [line.fixedMs ? { ...whole('silent'), firm: true } : { ...whole(begins), joined: !first }];
  // A fixed part has its own seconds: its words tell nothing of when they are said.
  if (line.fixedMs !== null) return [{ ...whole(first ? 'section' : 'fixed'), firm: true }];

  // What the pace wants of the whole line, then what the writer says of it: other cuts stay where they were.
  const places = new Map<TimedToken, Stretch['why']>();
  let held = markAt(tokens[0])?.held ?? false;
  const computed = new Map(splitTokens(tokens, wanted, 'clause').map((s) => [s.tokens[0], s.why] as const));
  for (const token of tokens.slice(1)) {
    const mark = markAt(token);
    if (mark?.kind === 'break') {
      places.set(token, 'clause');
      held = mark.held;
    } else if (!held && mark?.kind !== 'join' && computed.has(token)) places.set(token, computed.get(token)!);
  }
  const stretches: (Stretch & { mark: CutMark | null })[] = [];
  for (const token of tokens) {
    const mark = markAt(token);
    if (!stretches.length || places.has(token))
      stretches.push({
        tokens: [token],
        why: places.get(token) ?? 'clause',
        mark: mark ? cutMark(mark) : null,
      });
    else {
      const last = stretches[stretches.length - 1];
      last.tokens = [...last.tokens, token];
    }
  }

  let given = 0;
  const pieces = stretches.map((s, i): Piece => {
    const last = i === stretches.length - 1;
    // The line's own time is shared out by what each part takes; the last takes what rounding and rests leave.
    const own = last ? ms - given : lengthOf(s.tokens);
    given += own;
    const broken = s.mark?.kind === 'break';
    return {
      line,
      from: i === 0 ? 0 : s.tokens[0].start,
      to: last ? line.text.length : stretches[i + 1].tokens[0].start,
      ms: own,
      // A mark that only says something of the scene where one begins anyway sets no cut.
      why:
        !broken || (isSaid(s.mark) && (i === 0 || computed.has(s.tokens[0])))
          ? i > 0
            ? (computed.get(s.tokens[0]) ?? s.why)
            : begins
          : 'writer',
      mark: s.mark,
      firm: broken || i > 0 || first,
      joined: i === 0 && !first && s.mark?.kind === 'join',
    };
  });
  const last = pieces[pieces.length - 1];
  if (line.restMs >= SILENT_REST_MS && last.ms > line.restMs) {
    last.ms -= line.restMs;
    pieces.push({
      line,
      from: line.text.length,
      to: line.text.length,
      ms: line.restMs,
      why: 'rest',
      mark: null,
      firm: true,
      joined: false,
    });
  }
  return pieces;
}

/** Whether two lines are about one thing, as far as their facts and first words tell. */
function sameIdea(a: PlainLine, b: PlainLine): boolean {
  const facts = new Set(a.from.map((f) => `${f.source} ${f.fact ?? f.quote}`));
  if (b.from.some((f) => facts.has(`${f.source} ${f.fact ?? f.quote}`))) return true;
  return /^(?:It|They|He|She|This|That|These|Those)\b/.test(b.text);
}

interface Group {
  pieces: Piece[];
  ms: number;
}

/**
 * Joins neighbours that are too short for a picture each. In a round a pair joins when it wants to more than the pairs on
 * either side do; that depends on four lines at most, so an edit can't run through a whole section.
 */
function joinShort(pieces: readonly Piece[], wanted: number): Group[] {
  let groups: Group[] = [];
  for (const piece of pieces)
    if (piece.joined && groups.length) {
      groups[groups.length - 1].pieces.push(piece);
      groups[groups.length - 1].ms += piece.ms;
    } else groups.push({ pieces: [piece], ms: piece.ms });
  const wish = (a: Group | undefined, b: Group | undefined): number => {
    if (!a || !b) return -1;
    const [left, right] = [a.pieces[a.pieces.length - 1], b.pieces[0]];
    if (right.firm || left.why === 'rest' || left.why === 'silent' || left.mark?.held) return -1;
    if (left.line.speaker !== right.line.speaker || left.line.fixedMs !== null) return -1;
    const together = a.ms + b.ms;
    const most = wanted * (sameIdea(left.line, right.line) ? TOGETHER_SAME : TOGETHER);
    if (together > most || Math.min(a.ms, b.ms) >= wanted * SHORT) return -1;
    return 1 + (most - together) / most;
  };
  for (let round = 0; round < ROUNDS; round++) {
    const wishes = groups.map((g, i) => wish(groups[i - 1], g));
    const next: Group[] = [];
    groups.forEach((g, i) => {
      const mine = wishes[i];
      const best = mine > 0 && mine > (wishes[i - 1] ?? -1) && mine >= (wishes[i + 1] ?? -1);
      if (best) {
        const last = next[next.length - 1];
        next[next.length - 1] = { pieces: [...last.pieces, ...g.pieces], ms: last.ms + g.ms };
      } else next.push(g);
    });
    groups = next;
  }
  return groups;
}

/** Scenes of a script in order; together they cover its whole time without gaps, to the millisecond. */
export function breakScenes(sections: readonly PlainSection[], clock: Clock, pace: PaceWanted): Scene[] {
  const timed = clock.lines(clockLines(sections));
  const wanted = wantedMs(sections, pace);
  const scenes: Scene[] = [];
  const perLine = new Map<string, number>();
  // A line that was copied brings its mark along.
  const taken = new Set<string>();
  let at = 0;
  let start = 0;
  sections.forEach((section, s) => {
    const pieces = section.lines.flatMap((line, l) =>
      piecesOf(line, clock.tokens(line.text), timed[at++].ms, wanted[s], l === 0),
    );
    let before: PlainLine | null = null;
    for (const { pieces: own, ms } of joinShort(pieces, wanted[s])) {
      const [first] = own;
      const nth = (perLine.get(first.line.id) ?? 0) + 1;
      perLine.set(first.line.id, nth);
      const text = textOf(own);
      const silent = !/[\p{L}\p{N}]/u.test(text);
      const { mark, line } = first;
      // An empty line that takes no time shows nothing.
      if (silent && ms === 0) continue;
      scenes.push({
        id:
          mark?.kind === 'break' && !taken.has(mark.id) ? mark.id : nth === 1 ? line.id : `${line.id}/${nth}`,
        startMs: start,
        endMs: start + ms,
        words: count(text),
        section: section.id,
        parts: partsOf(own),
        text,
        why: whyOf(first, before),
        wantedMs: wanted[s],
        silent,
        mark: mark?.kind === 'break' ? mark.id : null,
        held: mark?.held ?? false,
        own: ownOf(first),
        speaker: line.speaker,
      });
      taken.add(scenes[scenes.length - 1].id);
      start += ms;
      before = own[own.length - 1].line;
    }
  });
  return scenes;
}

function whyOf(first: Piece, before: PlainLine | null): SceneWhy {
  if (first.why !== 'sentence' || !before) return first.why;
  if (first.line.speaker !== before.speaker) return 'speaker';
  return sameIdea(before, first.line) ? 'sentence' : 'idea';
}

/** A mark that holds nothing and says something of its scene. */
const isSaid = (mark: CutMark | null) => mark !== null && !mark.held && Object.keys(mark.own).length > 0;
const ownOf = ({ mark, line, from }: Piece): SceneOwn =>
  mark?.kind === 'break' ? mark.own : from === 0 ? (line.scene ?? {}) : {};

const textOf = (pieces: readonly Piece[]) =>
  pieces
    .map((p) => p.line.text.slice(p.from, p.to).trim())
    .filter(Boolean)
    .join(' ');

function partsOf(pieces: readonly Piece[]): Scene['parts'] {
  const out: Scene['parts'] = [];
  for (const { line, from, to } of pieces) {
    const last = out[out.length - 1];
    if (last?.line === line.id) last.to = to;
    else out.push({ line: line.id, from, to });
  }
  return out;
}

const count = (text: string) => text.split(/\s+/).filter((w) => /[\p{L}\p{N}]/u.test(w)).length;
