/** Taking lines of a reply into the script: whole, by section or line by line. What was there stays a take; locked lines stay. */
import type { LineSource, Origin, PlainLine, PlainSection } from '../script/data.ts';
import { emptyLine } from '../script/schema.ts';
import type { CheckedReply, ReplyLine } from './check.ts';
import { stops } from './faults.ts';
import { followUp, type FailedParts } from './again.ts';
import { keyOf, keysOf } from './keys.ts';
import { rowsOf } from './rows.ts';
import type { CommissionContext, OrderedSection } from './types.ts';
import { readReply } from './read.ts';

/** What is taken of a reply line: its words, mended or as they came. */
export type Taking = ReadonlyMap<string, string>;

/**
 * Every line that is clean, and with `mended` every one that a mend makes clean. A line whose mend drops it is not taken.
 * `proved`: nor one in which anything is left to be looked at, because nobody looks at it.
 */
export function takeable(reply: CheckedReply, mended: boolean, proved = false): Map<string, string> {
  return new Map(
    reply.lines.flatMap((l) => {
      if (l.arriving || (proved && !l.proved)) return [];
      if (!l.faults.some(stops)) return [[l.id, l.text] as const];
      return mended && l.mended ? [[l.id, l.mended] as const] : [];
    }),
  );
}

export const isKept = (line: PlainLine, section: PlainSection): boolean =>
  line.locked || section.locked || line.fixed !== '' || (line.fixedMs !== null && !line.open?.length);

export interface TakeOptions {
  by: Origin;
  /** Makes the random part of new ids. */
  fresh: () => string;
}

/** What a line of a reply rests on, as a script's line keeps it. */
export const sourcesOf = (sources: CommissionContext['sources']): ((l: ReplyLine) => LineSource[]) => {
  const facts = new Map(sources.flatMap((s) => s.facts.map((f) => [keyOf(s.letter, f.id), f.text] as const)));
  return (l) =>
    l.facts.map((a) => ({ source: a.source, fact: a.fact, quote: facts.get(keyOf(a.source, a.fact)) ?? '' }));
};

/** Whether our line rests on a fact that the reply's tells. */
export const sharesFact = (ours: PlainLine, theirs: ReplyLine): boolean =>
  keysOf(ours.from).some((k) => theirs.facts.some((a) => k === keyOf(a.source, a.fact)));

/** The script with single lines of a reply in it, each in its place beside ours. Sections that take nothing are the same objects as before. */
export function takenIn(
  context: Pick<CommissionContext, 'sections' | 'sources'>,
  reply: CheckedReply,
  taking: Taking,
  options: TakeOptions,
): PlainSection[] {
  const from = sourcesOf(context.sources);
  return context.sections.map((section) => {
    const rows = rowsOf(section, reply);
    if (!rows.some((r) => r.reply && taking.has(r.reply.id))) return section;
    const lines: PlainLine[] = [];
    for (const { ours, reply: theirs } of rows) {
      const text = theirs ? taking.get(theirs.id) : undefined;
      if (ours && (text === undefined || isKept(ours, section))) {
        lines.push(ours);
        if (text !== undefined && !sharesFact(ours, theirs!)) lines.push(newLine(theirs!, text, from(theirs!), options)); // prettier-ignore
        continue;
      }
      if (text === undefined || !theirs) continue;
      lines.push(
        ours ? retakenLine(ours, text, from(theirs), options) : newLine(theirs, text, from(theirs), options),
      );
    }
    // The rest at the end of a section stays there.
    const rest = section.lines[section.lines.length - 1]?.restMs ?? 0;
    const last = lines[lines.length - 1];
    if (last && !isKept(last, section) && !last.restMs && rest)
      lines[lines.length - 1] = { ...last, restMs: rest };
    const whole = { name: 'before the reply', lines: section.lines.map(({ takes: _, ...l }) => l) };
    return { ...section, lines, takes: [...section.takes, whole] };
  });
}

/** Our line with a reply's words: what was there stays a take. A place that was kept is filled. */
export const retakenLine = (
  { by: before, open, ...ours }: PlainLine,
  text: string,
  from: LineSource[],
  { by }: TakeOptions,
): PlainLine => ({
  ...ours,
  text,
  from,
  by,
  ...(open?.length ? { fixedMs: null } : {}),
  marks: [],
  takes: ours.text.trim() ? [...ours.takes, { text: ours.text, from: ours.from, ...(before ? { by: before } : {}) }] : ours.takes, // prettier-ignore
});
export const newLine = (
  l: ReplyLine,
  text: string,
  from: LineSource[],
  { by, fresh }: TakeOptions,
): PlainLine => ({
  ...emptyLine(`L${fresh()}`),
  text,
  from,
  by,
  role: l.framing ? 'frame' : 'ground',
});

/** Whether, and how, a script was written outside: for a disclosure that is true. Counts words of lines as they were taken. */
export function originsIn(sections: readonly PlainSection[]): { by: Origin; lines: number; words: number }[] {
  const out = new Map<string, { by: Origin; lines: number; words: number }>();
  for (const l of sections.flatMap((s) => s.lines)) {
    if (!l.by) continue;
    const key = `${l.by.kind}\0${l.by.who}`;
    const entry = out.get(key) ?? { by: l.by, lines: 0, words: 0 };
    entry.lines++;
    entry.words += l.text.trim().split(/\s+/).length;
    if (l.by.at > entry.by.at) entry.by = l.by;
    out.set(key, entry);
  }
  return [...out.values()].sort((a, b) => b.words - a.words);
}

/** The disclosure as one sentence; empty when every line was drafted or written here. */
export function disclosureOf(sections: readonly PlainSection[]): string {
  const origins = originsIn(sections);
  const all = sections.flatMap((s) => s.lines).filter((l) => l.text.trim()).length;
  const named = { person: '', service: ' (a text service)', 'stand-in': ' (a stand-in for a text service)' };
  return origins
    .map(
      ({ by, lines }) =>
        `${lines} of ${all} lines were first written by ${by.who}${named[by.kind]} on ${by.at.slice(0, 10)} and checked against the sources.`,
    )
    .join(' ');
}

/** Words of a section may differ by so many before a follow-up mentions them. */
const FEW_WORDS = 6;

/** What of a reply has to be asked for again (`proved`: also lines in which anything is left to be looked at): lines that no mend makes clean, must-says that are missing, lengths that are off once the mends are made. */
export function failedIn(
  reply: CheckedReply,
  sections: readonly OrderedSection[],
  proved = false,
): FailedParts {
  const facts = new Map(sections.flatMap((s) => s.facts.map((f) => [keyOf(f.source, f.fact), f] as const)));
  const lines = reply.lines.flatMap((l) =>
    l.faults.length && (l.mended === null || (proved && l.mended && !l.proved))
      ? [
          {
            number: l.number,
            text: l.text,
            why: l.faults.map((f) => f.says),
            facts: l.facts.flatMap((a) => {
              const f = facts.get(keyOf(a.source, a.fact));
              return f ? [{ ref: f.ref, text: f.text }] : [];
            }),
            words: l.words,
          },
        ]
      : [],
  );
  const lengths = reply.lengths.flatMap((x) => {
    const s = sections.find((o) => o.id === x.section)!;
    const ms = reply.lines.reduce((n, l) => n + (l.section === x.section ? l.mendedMs : 0), 0);
    const off = Math.round((ms - x.plannedMs) / s.msAWord);
    const words = s.words + off;
    return x.offMs && Math.abs(off) >= FEW_WORDS ? [{ section: s.number, words, want: s.words }] : [];
  });
  return {
    lines,
    unsaid: reply.unsaid.map(({ ref, text }) => ({ ref, text })),
    lengths,
    more: sections.flatMap((s) => {
      const length = lengths.find((x) => x.section === s.number);
      return length ? unsaidIn(s, reply, length.want - length.words) : [];
    }),
  };
}

/** Facts of a section that the reply hasn't said and needn't, those of the script before those that were only offered, until they fill so many words. */
function unsaidIn(s: OrderedSection, reply: CheckedReply, words: number): { ref: string; text: string }[] {
  const owed = new Set(reply.unsaid.map((f) => f.ref));
  const left = s.facts.filter((f) => !owed.has(f.ref) && !reply.saidBy[keyOf(f.source, f.fact)]);
  let filled = 0;
  return [...left.filter((f) => f.told), ...left.filter((f) => !f.told)].flatMap(({ ref, text }) => {
    const room = words - filled;
    const length = text.split(/\s+/).length;
    // A fact that is far longer than what is missing would make it too long.
    if (room < FEW_WORDS || length > room * 1.5) return [];
    filled += length;
    return [{ ref, text }];
  });
}

/** An order for just what failed; null when nothing did that could be asked for again. */
export function followUpOrder(
  context: CommissionContext,
  reply: CheckedReply,
  sections: readonly OrderedSection[],
  proved = false,
): string | null {
  const failed = failedIn(reply, sections, proved);
  return failed.lines.length || failed.unsaid.length || failed.more.length ? followUp(context, failed) : null;
}

/** A reply with a follow-up's lines put in: replaced by number, those for a fact behind what comes before it in its source. As text, marked by section. */
export function mergedReply(
  reply: CheckedReply,
  again: string,
  sections: readonly OrderedSection[],
  mendFirst = true,
): string {
  const rows = readReply(again, true).lines;
  const replaced = new Map<number, string[]>();
  const added = new Map<string, { ref: string; text: string }[]>();
  for (const { mark, text } of rows) {
    if (mark && /^\d+$/.test(mark)) put(replaced, Number(mark), text);
    else if (mark) {
      const place = sections.find((s) => s.facts.some((f) => f.ref === mark));
      if (place) put(added, place.id, { ref: mark, text });
    }
  }
  const out: string[] = [];
  for (const s of sections) {
    const own = reply.lines.filter((l) => l.section === s.id);
    const refOf = new Map(s.facts.map((f) => [keyOf(f.source, f.fact), f.ref] as const));
    const told = own.map((l) => ({
      refs: l.facts.flatMap((f) => refOf.get(keyOf(f.source, f.fact)) ?? []),
      texts: replaced.get(l.number) ?? (mendFirst && l.mended !== null ? [l.mended] : [l.text]),
    }));
    for (const { ref, text } of added.get(s.id) ?? []) {
      const before = told.findLastIndex((r) => r.refs.some((x) => x === ref || isBefore(x, ref)));
      // Behind what comes before it, else before what comes behind it.
      const behind = told.findIndex((r) => r.refs.some((x) => isBefore(ref, x)));
      const place = before >= 0 ? before + 1 : behind >= 0 ? behind : told.length;
      told.splice(place, 0, { refs: [ref], texts: [text] });
    }
    const all = told.flatMap((r) => r.texts).filter(Boolean);
    if (all.length) out.push(`[${s.number}]`, ...all, '');
  }
  return out.join('\n');
}
/** Whether a fact stands before another one in the same source, by their names in an order: "A7" before "A12". */
const isBefore = (ref: string, other: string) => ref[0] === other[0] && Number(ref.slice(1)) < Number(other.slice(1)); // prettier-ignore
const put = <K, V>(map: Map<K, V[]>, key: K, value: V) =>
  (map.get(key) ?? map.set(key, []).get(key)!).push(value);
