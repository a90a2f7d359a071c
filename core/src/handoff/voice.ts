/** The script for whoever speaks it: blocks with their seconds, where to breathe and rest, what to stress, how names and numbers are said. */
import { literal } from '../language/literal.ts';
import { ipaOf, respelled } from '../language/ipa.ts';
import type { Pronouncer } from '../language/phones.ts';
import { asksOf, type PlainLine, type PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { Clock, TimedToken } from '../timing/clock.ts';

export interface HowSaid {
  /** As written. */
  word: string;
  respelled: string;
  ipa: string;
  from: 'writer' | 'source' | 'dictionary' | 'guess';
}
export interface OwnSaying {
  word: string;
  say: string;
  ipa?: string;
}

export type VoicePart =
  | { type: 'text'; text: string; stress: boolean }
  | { type: 'said'; text: string; stress: boolean; say: string; ipa: string; from: HowSaid['from'] }
  /** A number, date or sign with the words to say for it. */
  | { type: 'number'; text: string; stress: boolean; say: string; kind: string }
  | { type: 'breath'; ms: number };

export interface VoiceLine {
  id: string;
  startMs: number;
  ms: number;
  speaker: string;
  parts: VoicePart[];
  /** The planned rest after it. */
  restMs: number;
  /** Nothing to say: how long to wait. */
  silentMs: number | null;
  /** What an open line must say once it is written; null for every other. */
  open: string | null;
  locked: boolean;
}
export interface VoiceBlock {
  section: string;
  title: string;
  startMs: number;
  ms: number;
  words: number;
  lines: VoiceLine[];
}

/** A breath at a mark once so much has been said since the last; without a mark, before a clause, after so much. */
const BREATH_AFTER_MS = 1700;
const BREATH_NEEDED_MS = 5200;
const CLAUSE =
  /^(?:and|but|so|because|which|who|when|while|where|until|before|after|if|that|as|since|although|or|then)$/i;

export interface VoiceTools {
  clock: Clock;
  pronouncer: Pronouncer;
  /** Whether a word is an everyday one, capital or not: "River", "Company". */
  everyday?: (word: string) => boolean;
  /** False for a text in another language: only the writer's own sayings hold. */
  english?: boolean;
}

/** Names and words that no dictionary has, each once, with how it is said. `sources` are looked through for what they say themselves. */
export function sayingsOf(
  sections: readonly PlainSection[],
  tools: VoiceTools,
  own: readonly OwnSaying[] = [],
  sources: readonly string[] = [],
): HowSaid[] {
  const out = new Map<string, HowSaid>();
  for (const { lines } of sections)
    for (const line of lines)
      for (const token of tools.clock.tokens(line.text)) {
        const word = line.text.slice(token.start, token.end).replace(/['’]s$/, '');
        const key = word.toLowerCase();
        if (out.has(key) || !/^\p{L}[\p{L}'’-]+$/u.test(word)) continue;
        const mine = own.find((o) => o.word.toLowerCase() === key);
        const known = tools.pronouncer.knows(key);
        // The pronouncer knows English letters only: of others it would say nonsense.
        if (!mine && (!/^[A-Za-z'’-]+$/.test(word) || tools.english === false)) continue;
        if (!mine && token.kind !== 'name' && known) continue;
        // A common word with a capital because it opens the sentence needs no help.
        if (!mine && token.kind === 'name' && known && (!isName(line.text, token) || tools.everyday?.(key)))
          continue;
        const codes = tools.pronouncer.phones(key);
        const told = mine ? null : saidInSource(word, sources);
        out.set(key, {
          word,
          respelled: mine?.say ?? told ?? respelled(codes),
          ipa: mine?.ipa ?? (mine || told ? '' : ipaOf(codes)),
          from: mine ? 'writer' : told ? 'source' : known ? 'dictionary' : 'guess',
        });
      }
  return [...out.values()];
}

const isName = (text: string, token: TimedToken) =>
  token.start > 0 &&
  !/[.!?:]["”’]?\s*$/.test(text.slice(0, token.start)) &&
  !/^[“"‘(]?$/.test(text.slice(0, token.start).trim());

/** "Orrin (pronounced OH-rin)", "Vey, which rhymes with day": what a source says of a name. */
function saidInSource(word: string, sources: readonly string[]): string | null {
  const name = literal(word);
  for (const text of sources) {
    const m = new RegExp(
      `${name}\\s*[(,]\\s*(?:is\\s)?(?:pronounced|said|rhymes with|rhyming with)\\s+(?:as\\s+)?[“"]?([\\p{L}-]{2,30})`,
      'u',
    ).exec(text);
    if (m) return /rhym/.test(m[0]) ? `rhymes with ${m[1]}` : m[1];
  }
  return null;
}

/** What stands on paper where nobody speaks: a silence, or what must still be written. */
export const unspoken = ({ open, silentMs }: Pick<VoiceLine, 'open' | 'silentMs'>): string => {
  const lasts = `${((silentMs ?? 0) / 1000).toFixed(1)} s`;
  return open === null ? `(silence, ${lasts})` : `(OPEN, ${lasts}, to be written: ${open})`;
};

/** The whole script in blocks, one a section. */
export function voiceBlocks(
  sections: readonly PlainSection[],
  tools: VoiceTools,
  sayings: readonly HowSaid[],
): VoiceBlock[] {
  const timed = tools.clock.lines(clockLines(sections));
  const by = new Map(sayings.map((s) => [s.word.toLowerCase(), s]));
  let i = 0;
  return sections.map((section) => {
    const startMs = timed[i]?.startMs ?? 0;
    const own = timed.slice(i, i + section.lines.length);
    const lines = section.lines.map((line): VoiceLine => {
      const time = timed[i++];
      const spoken = /[\p{L}\p{N}]/u.test(line.text);
      return {
        id: line.id,
        startMs: time.startMs,
        ms: time.ms,
        speaker: line.speaker,
        parts: spoken ? partsOf(line, tools.clock, by) : [],
        restMs: line.restMs,
        silentMs: spoken ? null : time.ms,
        open: asksOf(line),
        locked: line.locked,
      };
    });
    return {
      section: section.id,
      title: section.title,
      startMs,
      ms: own.reduce((n, t) => n + t.ms, 0),
      words: own.reduce((n, t) => n + t.words, 0),
      lines,
    };
  });
}

function partsOf(line: PlainLine, clock: Clock, sayings: ReadonlyMap<string, HowSaid>): VoicePart[] {
  const tokens = clock.tokens(line.text);
  const stressed = (at: number) =>
    (line.marks ?? []).some((m) => m.type === 'stress' && at >= m.start && at < m.end);
  const out: VoicePart[] = [];
  const text = (from: number, to: number, stress: boolean) => {
    if (to <= from) return;
    const last = out[out.length - 1];
    const words = line.text.slice(from, to);
    if (last?.type === 'text' && last.stress === stress) last.text += words;
    else out.push({ type: 'text', text: words, stress });
  };
  let at = 0;
  let since = 0;
  tokens.forEach((token, k) => {
    text(at, token.start, false);
    const end = token.end;
    const written = line.text.slice(token.start, end);
    const stress = stressed(token.start);
    const said = sayings.get(written.toLowerCase().replace(/['’]s$/, ''));
    if (said)
      out.push({ type: 'said', text: written, stress, say: said.respelled, ipa: said.ipa, from: said.from });
    else if (token.kind !== 'word' && token.kind !== 'name' && token.spoken !== written.toLowerCase())
      out.push({ type: 'number', text: written, stress, say: token.spoken, kind: token.kind });
    else text(token.start, end, stress);
    at = end;
    since += token.ms;
    const next = tokens[k + 1];
    if (!next) return;
    const marked = token.boundaryAfter !== 'none' && since >= BREATH_AFTER_MS;
    const needed = since >= BREATH_NEEDED_MS && CLAUSE.test(next.spoken);
    if (marked || needed) {
      // The mark itself stands before the breath.
      const marks = /^[^\s\p{L}\p{N}]*/u.exec(line.text.slice(at))![0].length;
      text(at, at + marks, false);
      at += marks;
      out.push({ type: 'breath', ms: Math.max(token.pauseMs, 150) });
      since = 0;
    }
  });
  text(at, line.text.length, false);
  return out;
}

export interface ProposedRest {
  line: string;
  restMs: number;
  why:
    'before a section' | 'before an item' | 'after an item’s number' | 'before the turn' | 'after a question';
}
/** Rests that a voice is thankful for, in milliseconds (common practice, no published source). */
const RESTS = { section: 700, item: 900, number: 400, turn: 600, question: 500 } as const;
const NUMBERED = /^(?:number|step|no\.?|first|second|third|fourth|fifth)\b|^\d{1,2}[.):]/i;

/** Rests where none or a shorter one is planned: round titles and numbered items, before the turn, after a question. Locked lines are left. */
export function proposedRests(sections: readonly PlainSection[]): ProposedRest[] {
  const out: ProposedRest[] = [];
  const wants = (line: PlainLine | undefined, restMs: number, why: ProposedRest['why']) => {
    if (
      line &&
      !line.locked &&
      line.fixedMs === null &&
      line.text.trim() &&
      line.restMs < restMs &&
      !out.some((o) => o.line === line.id)
    )
      out.push({ line: line.id, restMs, why });
  };
  sections.forEach((section, s) => {
    const before = sections[s - 1]?.lines.at(-1);
    const locked = section.locked || (sections[s - 1]?.locked ?? false);
    if (s > 0 && !locked)
      if (NUMBERED.test(section.title) || NUMBERED.test(section.lines[0]?.text ?? ''))
        wants(before, RESTS.item, 'before an item');
      else if (section.role === 'turn') wants(before, RESTS.turn, 'before the turn');
      else wants(before, RESTS.section, 'before a section');
    if (section.locked) return;
    section.lines.forEach((line, l) => {
      if (NUMBERED.test(line.text) && line.text.split(/\s+/).length <= 8)
        wants(line, RESTS.number, 'after an item’s number');
      const next = section.lines[l + 1];
      if (!next) return;
      if (/\?["”]?$/.test(line.text.trim()) && s === 0) wants(line, RESTS.question, 'after a question');
      if (/^(?:But|Then|Until|And then|Except)\b/.test(next.text) && next.role === 'strain')
        wants(line, RESTS.turn, 'before the turn');
    });
  });
  return out;
}
