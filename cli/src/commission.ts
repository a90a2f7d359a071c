/** `commission`: the order for an outside writer, or a script file with the writer's reply taken in. */
import {
  disclosureOf,
  failedIn,
  makeOrders,
  commissionSource,
  makeReplyChecker,
  mustIn,
  replyOrder,
  worthKeeping,
  SLOTS,
  stops,
  orderedSections,
  settleLength,
  takeable,
  replacedBy,
  type Became,
  type ReplyLine,
  type CommissionContext,
} from '@ursprung/core/commission';
import { DraftError, draftScript } from '@ursprung/core/draft';
import { extractFacts } from '@ursprung/core/facts';
import { briefSchema, promiseSchema, spineOf, usualBrief, type Brief } from '@ursprung/core/plan';
import {
  SHORTEST_TARGET,
  scriptFile,
  sectionsOfFile,
  type Frame,
  type Mood,
  type PlainSection,
  type ScriptFile,
  type Target,
} from '@ursprung/core/script';
import type { SourceDocument } from '@ursprung/core/source';
import type { Clock, Voice } from '@ursprung/core/timing';
import { getClock, getKin, getSolver, getTagger } from '@ursprung/server/tools';
import { UsageError } from './input.ts';
import { sourcesOfFile } from './sources.ts';

/** The file's own brief, or the usual one. */
function briefOf(file: ScriptFile): Brief {
  const read = briefSchema.safeParse(file.brief ?? {});
  return read.success ? read.data : usualBrief();
}

/** What an order for a script file is written from. Throws UsageError when its sources hold no passages. */
export function contextOfFile(file: ScriptFile, target = file.target): CommissionContext {
  const read = sourcesOfFile(file, getTagger());
  const sources = read.map((s) => commissionSource(s.letter, s.document, s.facts));
  if (!sources.length) throw new UsageError('This script has no source to write from.');
  const sections = sectionsOfFile(file);
  const scale = target.seconds / Math.max(1, file.seconds);
  const promise = promiseSchema.safeParse(file.promise ?? {}).data;
  return {
    title: file.title,
    promise: promise?.sentence ?? '',
    angle: promise?.angle?.says ?? '',
    spine: read.flatMap((s) => spineOf({ letter: s.letter, source: s.document, facts: s.facts })),
    channel: '',
    frame: file.frame,
    mood: file.mood ?? 'calm',
    pace: file.pace,
    target,
    brief: briefOf(file),
    style: null,
    // Another length than the script has is shared out as the script shares its own.
    sections:
      target === file.target
        ? sections
        : sections.map((s) => ({ ...s, plannedMs: Math.round(s.plannedMs * scale) })),
    sources,
    must: [],
    out: [],
  };
}

export interface DraftAsked {
  documents: readonly SourceDocument[];
  letters: readonly string[];
  target: Target;
  frame: Frame;
  mood: Mood;
  pace: number;
  voice: Voice;
  seed: number;
}

/** A draft's sections; where rules can't tell it in that time, those of the nearest they can, each with its share of the time asked for. */
function sectionsLike(target: Target, draft: (target: Target) => PlainSection[]): PlainSection[] {
  try {
    return draft(target);
  } catch (error) {
    if (!(error instanceof DraftError) || !['too-long', 'too-short'].includes(error.code)) throw error;
    const { shortestMs, longestMs } = error.carries;
    const ms = Math.min(longestMs, Math.max(shortestMs, target.seconds * 1000));
    if (!(ms >= SHORTEST_TARGET * 1000)) throw error;
    const seconds = error.code === 'too-long' ? Math.ceil(ms / 1000) : Math.floor(ms / 1000);
    const share = target.seconds / seconds;
    return draft({ kind: 'point', seconds }).map((s) => ({
      ...s,
      plannedMs: Math.round(s.plannedMs * share),
    }));
  }
}

/** What an order from sources alone is written from: the sections are those of a draft of that length. */
export async function contextOfSources(asked: DraftAsked): Promise<CommissionContext> {
  const { documents, letters, target, frame, mood, pace, voice, seed } = asked;
  const tools = { tagger: getTagger(), clock: getClock(voice, pace), solver: await getSolver() };
  const [first, ...others] = documents.map((document, i) => ({ letter: letters[i], document }));
  const sections = sectionsLike(
    target,
    (t) => draftScript(first.document, { target: t, mood, seed, others }, tools).sections,
  );
  const sources = documents.map((d, i) => commissionSource(letters[i], d, extractFacts(d, getTagger())));
  return {
    title: first.document.title,
    promise: '',
    angle: '',
    spine: documents.flatMap((source, i) => spineOf({ letter: letters[i], source, facts: sources[i].facts })),
    channel: '',
    frame,
    mood,
    pace,
    target,
    brief: usualBrief(),
    style: null,
    sections,
    sources,
    must: [],
    out: [],
  };
}

/** The orders as one text; several are parted by a line of equals signs. */
export function ordersText(
  context: CommissionContext,
  section: string | undefined,
  letters: number | undefined,
  clock: Clock,
): { out: string; notes: string[] } {
  const orders = makeOrders(
    context,
    section ? { section } : {},
    { clock, tagger: getTagger() },
    letters === undefined ? {} : { letters },
  );
  const dropped = orders.reduce((n, o) => n + o.dropped, 0);
  return {
    out: orders.map((o) => o.text).join(`\n${'='.repeat(72)}\n\n`),
    notes: [
      ...(orders.length > 1
        ? [`${orders.length} orders, each to be answered by itself; put the replies into one file.`]
        : []),
      ...(dropped ? [`${dropped} of the weaker facts were left out to keep to the length.`] : []),
    ],
  };
}

/** What became of a reply, line by line. */
export interface ReplyReport {
  lines: {
    text: string;
    /** The number of the section it was written for. */
    section: number;
    /** What became of it: "kept open" is a place for what it was to say, with its seconds. */
    became: Became | 'left out for length';
    /** What is wrong in it, where it could not be taken as it came. */
    why: string;
    taken: boolean;
    mend: { from: string; to: string } | null;
    accusations: {
      slot: string;
      level: 'wrong' | 'unsupported';
      says: string;
      source: { letter: string; text: string } | null;
    }[];
  }[];
  leftOutForLength: string[];
  seconds: number;
  /** The share of words that run on as in a source, 0 to 1. */
  overlap: number;
}

/** Takes in every line of a reply that is clean, or that a safe mend makes clean. */
export function replyTaken(
  file: ScriptFile,
  reply: string,
  who: string,
  at: string,
  voice: Voice,
): { script: ScriptFile; notes: string[]; report: ReplyReport } {
  const context = contextOfFile(file);
  const clock = getClock(voice, file.pace);
  const sections = orderedSections(context, clock);
  const checker = makeReplyChecker(context.sources, replyOrder(context, sections), {
    tagger: getTagger(),
    kin: getKin(),
    clock,
  });
  const checked = checker.check(reply, true);
  if (!checked.lines.length) throw new UsageError('Nothing spoken was found in this reply.');
  let n = 0;
  const taking = takeable(checked, true);
  const replaced = replacedBy(context, checked, taking, {
    by: { kind: 'person', who, at },
    fresh: () => `r${(n++).toString(36)}`,
  });
  const settled = settleLength(
    replaced.sections,
    file.target,
    context.mood,
    clock,
    worthKeeping(context, mustIn(sections, context.must)),
  );
  const failed = failedIn(checked, sections);
  const droppedFor = new Set(settled.dropped.map((l) => l.text));
  const becameOf = (l: ReplyLine) =>
    droppedFor.has(taking.get(l.id) ?? '')
      ? 'left out for length'
      : (replaced.became.get(l.id) ?? 'left out');
  const script = scriptFile({ ...file, mood: context.mood }, settled.sections, clock, file.sources);
  const report: ReplyReport = {
    lines: checked.lines.map((l) => ({
      text: l.text,
      section: sections.findIndex((s) => s.id === l.section) + 1,
      became: becameOf(l),
      why: l.faults
        .filter(stops)
        .map((f) => f.says)
        .join(' '),
      taken: taking.has(l.id),
      mend: taking.has(l.id) && taking.get(l.id) !== l.text ? { from: l.text, to: taking.get(l.id)! } : null,
      accusations: l.faults.map((f) => ({
        slot: SLOTS[f.kind],
        level: f.level,
        says: f.says,
        source: f.passage ? { letter: f.passage.source, text: f.passage.text } : null,
      })),
    })),
    leftOutForLength: settled.dropped.map((l) => l.text),
    seconds: script.seconds,
    overlap: checked.overlap,
  };
  return {
    script,
    report,
    notes: [
      `${taking.size} of ${checked.lines.length} lines taken, ${report.lines.filter((l) => l.mend).length} of them mended.`,
      ...report.lines.flatMap((l) =>
        l.became === 'kept open'
          ? [`Not taken, its place is kept: “${l.text}” ${l.why}`]
          : l.became === 'left out' || l.became === 'paragraph stays'
            ? [
                `Not taken: “${l.text}” ${l.became === 'left out' ? l.why : 'A line that stays says so already.'}`,
              ]
            : [],
      ),
      ...report.lines.flatMap((l) => (l.mend ? [`Mended: “${l.mend.from}” is now “${l.mend.to}”`] : [])),
      ...checked.lines.flatMap((l) =>
        taking.has(l.id) && l.faults.length && !l.faults.some(stops)
          ? [`Nothing says so: “${l.text}” ${l.faults.map((f) => f.says).join(' ')}`]
          : [],
      ),
      ...failed.unsaid.map((f) => `Not said: ${f.ref} “${f.text}”.`),
      ...(settled.dropped.length
        ? [`Left out for length: ${settled.dropped.map((l) => `“${l.text}”`).join(' ')}`]
        : []),
      ...(Math.abs(settled.offMs) > 10
        ? [`${(Math.abs(settled.offMs) / 1000).toFixed(1)} s ${settled.offMs > 0 ? 'over' : 'short'}.`]
        : []),
      disclosureOf(settled.sections),
    ].filter(Boolean),
  };
}
