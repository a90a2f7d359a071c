/** What an order is written from, of a script's settings, its channel and the writer's marks: the same for page, server and command line. */
import type { Fact } from '../facts/facts.ts';
import type { HouseStyle } from '../measure/style.ts';
import { usualBrief, type Brief } from '../plan/brief.ts';
import type { FactRef } from '../plan/kept.ts';
import type { PlainSection } from '../script/data.ts';
import type { Frame, Mood, Target } from '../script/file.ts';
import type { SourceDocument } from '../source/document.ts';
import { keyOf } from './keys.ts';
import type { CommissionContext, CommissionSource } from './types.ts';

/** A read source as orders and checks take it. */
export const commissionSource = (
  letter: string,
  document: SourceDocument,
  facts: readonly Fact[],
): CommissionSource => ({
  letter,
  title: document.title,
  kind: document.kind,
  text: document.text,
  facts,
  ...(document.publisher ? { publisher: document.publisher } : {}),
  ...(document.published ? { published: document.published } : {}),
});

export interface OrderSettings {
  title: string;
  frame: Frame;
  mood: Mood;
  /** Words a minute. */
  pace: number;
  target: Target;
  brief?: Brief | undefined;
  promise?:
    { sentence?: string; angle?: { says: string } | undefined; pays?: FactRef | undefined } | undefined;
}
/** A source's marks, by fact. */
interface Marked {
  letter: string;
  marks: Readonly<Record<string, { mark: string }>>;
}
/** Marks by which a fact is kept out of a script. */
const OUT: ReadonlySet<string> = new Set(['out', 'wrong', 'wait']);

/** All of a context but what its sections and sources give. */
export function contextOfSettings(
  settings: OrderSettings,
  channel: { name: string; style: HouseStyle | null },
  marked: readonly Marked[],
): Omit<CommissionContext, 'sections' | 'sources' | 'spine'> {
  const having = (test: (mark: string) => boolean) =>
    marked.flatMap((s) =>
      Object.entries(s.marks).flatMap(([fact, { mark }]) => (test(mark) ? [keyOf(s.letter, fact)] : [])),
    );
  const { promise } = settings;
  return {
    title: settings.title,
    promise: promise?.sentence ?? '',
    angle: promise?.angle?.says ?? '',
    channel: channel.name,
    frame: settings.frame,
    mood: settings.mood,
    pace: settings.pace,
    target: settings.target,
    brief: settings.brief ?? { ...usualBrief(), mood: settings.mood },
    style: channel.style,
    must: [
      ...having((m) => m === 'must'),
      ...(promise?.pays ? [keyOf(promise.pays.source, promise.pays.fact)] : []),
    ],
    out: having((m) => OUT.has(m)),
  };
}

/** Sections without a plan are ordered as long as they are; `msOf`: how long a line lasts. */
export const plannedSections = (
  sections: readonly PlainSection[],
  msOf: (line: PlainSection['lines'][number]) => number,
): PlainSection[] =>
  sections.map((s) =>
    s.plannedMs > 0 ? s : { ...s, plannedMs: s.lines.reduce((ms, l) => ms + msOf(l), 0) },
  );
