/** A reply checked line by line against the order and the sources, as it comes in: nothing of it is believed, nothing of it is obeyed. */
import { refsOf } from '../facts/ids.ts';
import { literal } from '../language/literal.ts';
import { stems } from '../facts/centrality.ts';
import { numbersIn } from '../facts/extract.ts';
import { leansOnBefore } from '../facts/references.ts';
import type { Kin } from '../language/kin.ts';
import type { Tagger } from '../language/tagged.ts';
import type { TakenOut } from '../script/clean/index.ts';
import type { Clock } from '../timing/clock.ts';
import { indexFacts, type Aligned } from '../trace/align.ts';
import { oldFigures } from '../trace/old.ts';
import { RUN, indexSources, overlap, type LineOverlap } from '../trace/overlap.ts';
import { makeRetoldChecker, replacedIn, type Level } from '../trace/retold/index.ts';
import { stops, type ReplyKind } from './faults.ts';
import { keyOf } from './keys.ts';
import { matchSections } from './match.ts';
import { readReply } from './read.ts';
import { saysI } from './sound.ts';
import type { CommissionContext, CommissionSource, OrderedFact, OrderedSection } from './types.ts';

export interface ReplyFault {
  kind: ReplyKind;
  /** `wrong` keeps the line out until it is mended; `unsupported` only marks it. */
  level: Level;
  /** The sentence of the source that it was held against. */
  passage?: { source: string; text: string } | null;
  start: number;
  end: number;
  /** One sentence: what the source, or the order, says. */
  says: string;
  /** The whole line without this fault; empty to drop the line. Absent where it would have to be guessed. */
  mend?: string;
  does?: string;
}

export interface ReplyLine {
  /** "R1", "R2"… in reading order. */
  id: string;
  number: number;
  text: string;
  section: string;
  facts: readonly Aligned[];
  /** Whether it claims nothing: a question, an aside to the listener. */
  framing: boolean;
  faults: readonly ReplyFault[];
  /** The line with every mend made, where that leaves it clean; empty to drop it; null where it can't be mended. */
  mended: string | null;
  /** Whether nothing at all is found in what would be taken of it: a mark that a person may overlook counts too. */
  proved: boolean;
  ms: number;
  mendedMs: number;
  words: number;
  /** Still being written: not judged. */
  arriving: boolean;
}
export interface SectionLength {
  section: string;
  ms: number;
  words: number;
  plannedMs: number;
  /** Over (+) or under (−) by more than is let pass; 0 within it. */
  offMs: number;
}
export interface CheckedReply {
  lines: ReplyLine[];
  cleaned: TakenOut[];
  /** Must-says that no line tells, once the reply is whole. */
  unsaid: OrderedFact[];
  /** Which line says each must-say, by "A:f3". */
  saidBy: Record<string, string>;
  lengths: SectionLength[];
  overlap: number;
  cut: boolean;
  done: boolean;
}

export interface ReplyTools {
  tagger: Tagger;
  kin: Kin | null;
  clock: Clock;
}
export interface ReplyOrder {
  sections: readonly OrderedSection[];
  never: readonly string[];
  /** Whether somebody says "I" in the telling; a line in which nobody's "I" speaks is the writer's own talk. */
  saysI: boolean;
}
/** What replies to an order of these sections are held against, beside the sources. */
export const replyOrder = (
  context: Pick<CommissionContext, 'brief' | 'style' | 'sources'>,
  sections: readonly OrderedSection[],
): ReplyOrder => ({ sections, never: context.brief.avoid, saysI: saysI(context) });
export interface ReplyChecker {
  /** `done`: nothing more will come; else the last line is taken for unfinished. */
  check: (reply: string, done: boolean) => CheckedReply;
}

/** A section may miss its seconds by this share, and always by a second. */
const LENGTH_SHARE = 0.08;
const LENGTH_MS = 1000;
const MOST_MENDS = 6;
/** So long an opening lasts: what it says ahead of its place may be said again there, in milliseconds (common practice, no published source). */
const OPENING_MS = 20_000;
/** From this share of its words a later line says an earlier one again. */
const AGAIN = 0.75;
const FEWEST_WORDS = 3;
/** So much of a fact must a line tell before it can tell nothing new of it. */
const FEWEST_COVERED = 2;
const MOST_KEPT = 4000;

export function makeReplyChecker(
  sources: readonly CommissionSource[],
  order: ReplyOrder,
  tools: ReplyTools,
): ReplyChecker {
  const { tagger, kin, clock } = tools;
  const facts = sources.flatMap((s) => s.facts.map((f) => ({ source: s.letter, id: f.id, text: f.text })));
  const index = indexFacts(facts, kin);
  const retold = makeRetoldChecker(
    sources.map(({ letter, text, published, facts: own }) => ({ letter, text, facts: own, ...(published ? { published } : {}) })), // prettier-ignore
    { tagger, kin },
  );
  const shared = indexSources(sources.map((s) => s.text));
  const old = oldFigures(sources);
  const never = order.never.map((phrase) => ({ phrase, words: stems(phrase) })).filter((n) => n.words.length);
  const memo = new Map<string, ReplyFault[]>();
  const refs = refsOf(sources);
  const factText = new Map(facts.map((f) => [keyOf(f.source, f.id), f.text]));

  /** Faults that a line has by itself, with its facts and its neighbours. */
  const own = (text: string, aligned: readonly Aligned[], before: string, behind: string): ReplyFault[] => {
    const refs = aligned.map((a) => ({ source: a.source, fact: a.fact }));
    const key = `${text}\0${refs.map((r) => `${r.source}${r.fact}`).join()}\0${before}\0${behind}`;
    let known = memo.get(key);
    if (!known) {
      if (memo.size > MOST_KEPT) memo.clear();
      known = [
        ...retold.check({ text, facts: refs, before, behind }),
        ...oldIn(text, aligned),
        ...neverIn(text),
        ...writerIn(text, aligned),
      ];
      memo.set(key, known);
    }
    return known;
  };
  const oldIn = (text: string, aligned: readonly Aligned[]): ReplyFault[] =>
    aligned.flatMap((a) =>
      (old.get(keyOf(a.source, a.fact)) ?? []).flatMap(({ value, newer }): ReplyFault[] => {
        const here = numbersIn(text).find((n) => n.value === value);
        const now = numbersIn(newer.says)[0];
        if (!here || !now || numbersIn(text).some((n) => n.value === now.value)) return [];
        return [
          {
            kind: 'old',
            level: 'wrong',
            start: here.start,
            end: here.end,
            says: `Source ${newer.source} is newer and says ${newer.says}.`,
            mend: replacedIn(text, here.start, here.end, now.text),
            does: `Say “${now.text}”`,
          },
        ];
      }),
    );
  const neverIn = (text: string): ReplyFault[] => {
    const said = stems(text);
    return never.flatMap(({ phrase, words }): ReplyFault[] => {
      const at = said.findIndex((_, i) => words.every((w, k) => said[i + k] === w));
      if (at < 0) return [];
      const start = Math.max(0, text.toLowerCase().search(new RegExp(`(?<!\\p{L})${literal(phrase.toLowerCase().slice(0, 5))}`, 'u'))); // prettier-ignore
      const end = start + (/^[\p{L}’'-]+/u.exec(text.slice(start))?.[0].length ?? text.length);
      return [
        { kind: 'never', level: 'wrong', start, end, says: `The order says never to say “${phrase}”.` },
      ];
    });
  };
  /** Who writes, speaking for themselves: in a telling in which nobody says "I" it is talk, whatever it says. */
  const writerIn = (text: string, aligned: readonly Aligned[]): ReplyFault[] => {
    if (order.saysI || aligned.length) return [];
    const at = /(?<![\p{L}’'])(?:I|I[’'](?:m|ve|ll|d)|my|me)(?![\p{L}’'])/u.exec(text.replace(/[“"][^”"]*[”"]/g, (q) => ' '.repeat(q.length))); // prettier-ignore
    return at ? [{ kind: 'nothing', level: 'wrong', start: at.index, end: at.index + at[0].length, says: 'Nobody in this telling says “I”.', mend: '', does: 'Drop the line' }] : []; // prettier-ignore
  };
  /** Within the whole reply, where a quotation may run over several lines. */
  const closeIn = (line: LineOverlap, aligned: readonly Aligned[]): ReplyFault[] => {
    // A run that only begins or ends here is its neighbour's.
    if (line.shared < RUN) return [];
    return line.ranges.slice(0, 1).map((r): ReplyFault => {
      const fact = aligned[0] && factText.get(keyOf(aligned[0].source, aligned[0].fact));
      return {
        kind: 'close',
        level: 'wrong',
        start: r.start,
        end: r.end,
        says: `${line.shared} of its ${line.words} words run on as in ${fact ? (refs.get(keyOf(aligned[0].source, aligned[0].fact)) ?? 'a source') : 'a source'}.`,
      };
    });
  };

  /** The line mended until nothing is found in it; null where something can't be; empty where it rests on nothing that could be told instead. */
  const mendedOf = (
    text: string,
    aligned: readonly Aligned[],
    before: string,
    behind: string,
    held: boolean,
  ): string | null => {
    const given = aligned.length || held ? null : '';
    let now = text;
    for (let round = 0; round < MOST_MENDS; round++) {
      const found = own(now, aligned, before, behind).filter(stops);
      if (!found.length) return now;
      const next = found.find((f) => f.mend !== undefined && f.mend !== now);
      if (!next) return given;
      if (next.mend === '') return '';
      now = next.mend!;
    }
    return own(now, aligned, before, behind).some(stops) ? given : now;
  };

  const times = new Map<string, { ms: number; words: number }>();
  const timed = (text: string) => {
    let known = times.get(text);
    if (!known) {
      if (times.size > MOST_KEPT) times.clear();
      const { ms, words } = clock.time(text);
      times.set(text, (known = { ms, words }));
    }
    return known;
  };
  const wordSets = new Map<string, string[]>();
  /** Content words and values of a line or fact. */
  const wordsOf = (text: string): string[] => {
    let known = wordSets.get(text);
    if (!known) {
      if (wordSets.size > MOST_KEPT) wordSets.clear();
      wordSets.set(
        text,
        (known = [...new Set([...stems(text), ...numbersIn(text).map((n) => `#${n.value}`)])]),
      );
    }
    return known;
  };

  const check = (reply: string, done: boolean): CheckedReply => {
    const { lines: read, cleaned, cut } = readReply(reply);
    const texts = read.map((l) => l.text);
    const aligned = index.align(texts);
    const places = matchSections(read, aligned, order.sections);
    const unfinished = !done && !/[.!?…]["”’)]?\s*$/.test(reply.trimEnd()) ? texts.length - 1 : -1;
    const near = overlap(texts, shared);
    let [opening, openMs] = [0, 0];
    while (opening < texts.length && (openMs += timed(texts[opening]).ms) <= OPENING_MS) opening++;
    const again = saidAgain(texts, aligned, factText, kin, wordsOf, opening);
    const lines = read.map((l, i): ReplyLine => {
      const arriving = i === unfinished;
      const [before, behind] = [texts[i - 1] ?? '', texts[i + 1] ?? ''];
      const faults: ReplyFault[] = arriving
        ? []
        : [...own(l.text, aligned[i], before, behind), ...closeIn(near.lines[i], aligned[i])];
      const earlier = again.get(i);
      // From under a line that points at it nothing is dropped.
      const held = leansOnBefore(behind) && places[i + 1] === places[i];
      if (!arriving && earlier !== undefined)
        faults.push({ kind: 'twice', start: 0, end: l.text.length, says: `Said already in line ${earlier + 1}.`, ...(held ? { level: 'unsupported' } : { level: 'wrong', mend: '', does: 'Drop the line' }) }); // prettier-ignore
      const close = faults.some((f) => f.kind === 'close');
      const mended = !faults.some(stops) ? l.text : earlier !== undefined && !held ? '' : close ? null : mendedOf(l.text, aligned[i], before, behind, held); // prettier-ignore
      const { ms, words } = timed(l.text);
      return {
        id: `R${i + 1}`,
        number: i + 1,
        text: l.text,
        section: places[i],
        facts: aligned[i],
        framing: !aligned[i].length && !faults.some((f) => f.kind === 'nothing'),
        faults,
        mended,
        proved:
          Boolean(mended) &&
          (mended === l.text ? faults : own(mended!, aligned[i], before, behind)).every(
            (f) => f.kind === 'twice',
          ),
        ms,
        mendedMs: mended === null || mended === l.text ? ms : mended === '' ? 0 : timed(mended).ms,
        words,
        arriving,
      };
    });
    return {
      lines,
      cleaned,
      ...saysOf(lines, order.sections, done),
      lengths: lengthsOf(lines, order.sections),
      overlap: near.share,
      cut,
      done,
    };
  };
  return { check };
}

/** Which must-says are told, by which line. A faulty line says its fact all the same: what is wrong in it is said there. */
function saysOf(lines: readonly ReplyLine[], sections: readonly OrderedSection[], done: boolean) {
  const saidBy: Record<string, string> = {};
  for (const l of lines) for (const a of l.facts) saidBy[keyOf(a.source, a.fact)] ??= l.id;
  const must = sections.flatMap((s) => s.facts.filter((f) => f.must));
  return { saidBy, unsaid: done ? must.filter((f) => !saidBy[keyOf(f.source, f.fact)]) : [] };
}

function lengthsOf(lines: readonly ReplyLine[], sections: readonly OrderedSection[]): SectionLength[] {
  return sections.map((s) => {
    const own = lines.filter((l) => l.section === s.id);
    const ms = own.reduce((n, l) => n + l.ms, 0);
    const plannedMs = Math.round(s.seconds * 1000);
    const off = ms - plannedMs;
    const slack = Math.max(LENGTH_MS, plannedMs * LENGTH_SHARE);
    return { section: s.id, ms, words: own.reduce((n, l) => n + l.words, 0), plannedMs, offMs: Math.abs(off) > slack ? off : 0 }; // prettier-ignore
  });
}

/**
 * Lines that say an earlier one again: the same words, mostly the same or kin ones, or of its fact nothing that was not
 * told before.
 */
function saidAgain(
  texts: readonly string[],
  aligned: readonly (readonly Aligned[])[],
  factText: ReadonlyMap<string, string>,
  kin: Kin | null,
  wordsOf: (text: string) => string[],
  /** How many lines open. */
  opening: number,
): Map<number, number> {
  const words = texts.map(wordsOf);
  const bare = texts.map((t) => stems(t).join(' '));
  const out = new Map<number, number>();
  /** Earlier lines by word, so that only those that share one are compared. */
  const having = new Map<string, number[]>();
  /** What has been told of a fact so far, and by which line first. */
  const told = new Map<string, { by: number; words: Set<string> }>();
  const like = (a: string, b: string) => a === b || (kin !== null && kin.likeness(a, b) > 0);
  const share = (a: readonly string[], b: readonly string[]) => a.filter((x) => b.some((y) => like(x, y))).length / (a.length || 1); // prettier-ignore
  /** How many facts have all of these words. */
  const inSource = (own: readonly string[]) =>
    [...factText.values()].filter((t) => own.every((w) => wordsOf(t).includes(w))).length;
  words.forEach((own, i) => {
    // Only lines that share a third of their words as they stand are compared word by word.
    const sharing = new Map<number, number>();
    for (const w of own) for (const k of having.get(w) ?? []) sharing.set(k, (sharing.get(k) ?? 0) + 1);
    const near = [...sharing].flatMap(([k, n]) => (n * 3 >= own.length ? [k] : [])).sort((a, b) => a - b);
    // What the opening takes from the middle of the story is told again in its place; a reminder in a question repeats nothing.
    const recalls = (k: number) => /\?["”]?$/.test(texts[i]) || (k < opening && i >= opening);
    const again = near.find(
      (k) =>
        (!recalls(k) || bare[k] === bare[i]) &&
        ((own.length >= FEWEST_WORDS && Math.min(share(own, words[k]), share(words[k], own)) >= AGAIN) ||
        (/\s/.test(texts[i].trim()) && texts[i].length > 8 && bare[k].includes(bare[i]) && plainly(texts[k]).includes(plainly(texts[i])))), // prettier-ignore
    );
    // A few words may be said as often as the source says them ("So we flipped it"), but not a whole stretch again.
    const few = again !== undefined && own.length > 0 && own.length < FEWEST_WORDS && !out.has(i - 1);
    const mayBe = few && inSource(own) > bare.slice(0, i).filter((b) => b.includes(bare[i])).length;
    if (again !== undefined && !mayBe) out.set(i, again);
    for (const w of own) (having.get(w) ?? having.set(w, []).get(w)!).push(i);
    const [first] = aligned[i];
    if (!first || /\?["”]?$/.test(texts[i])) return;
    const key = keyOf(first.source, first.fact);
    const covered = wordsOf(factText.get(key) ?? '').filter((w) => own.some((x) => like(x, w)));
    const before = told.get(key);
    if (!before) told.set(key, { by: i, words: new Set(covered) });
    else {
      if (!recalls(before.by) && covered.length >= FEWEST_COVERED && covered.every((w) => before.words.has(w)) && !out.has(i)) out.set(i, before.by); // prettier-ignore
      for (const w of covered) before.words.add(w);
    }
  });
  return out;
}
const plainly = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N} ]/gu, '');
