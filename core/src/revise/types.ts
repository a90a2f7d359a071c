/** Changes asked for in plain words: what is understood, and what an operation is. */
import type { PaceHandle, PaceWanted } from '../scenes/pace.ts';
import type { Kin } from '../language/kin.ts';
import type { Pronouncer } from '../language/phones.ts';
import type { Tagger } from '../language/tagged.ts';
import type { PlainLine, PlainSection } from '../script/data.ts';
import type { Clock } from '../timing/clock.ts';
import type { ReviewSource } from '../review/rule.ts';
import type { Redone } from '../draft/redo.ts';
import type { HookKind } from '../plan/hooks.ts';

/** What part of the script is meant. */
export interface Scope {
  type: 'whole' | 'sections' | 'lines';
  /** In words: "the second section", "this line", "everything". */
  says: string;
  /** Ids of sections, for `sections` and `whole`. */
  sections: readonly string[];
  /** Ids of the lines it covers, in order. */
  lines: readonly string[];
}

export type Amount =
  | { type: 'share'; share: number; says: string }
  /** To this many milliseconds, or by this many. */
  | { type: 'to' | 'by'; ms: number; says: string };

/** What an outside drafter can do; absent without sources. */
export interface Teller {
  hook: (sections: readonly PlainSection[], kind?: HookKind) => Redone;
  section: (sections: readonly PlainSection[], id: string) => Redone;
  line: (sections: readonly PlainSection[], id: string) => Redone;
  fit: (sections: readonly PlainSection[]) => Redone;
}

export interface ReviseTools {
  clock: Clock;
  pronouncer: Pronouncer;
  tagger: Tagger;
  teller?: Teller;
  /** The same voice at another pace; absent where the pace can't be changed. */
  clockAt?: (pace: number) => Clock;
}
export interface Selection {
  section?: string;
  /** Ids of the lines that are selected, or the one the caret stands in. */
  lines: readonly string[];
  /** Whether words were marked: then a note without a place is about them, else about the whole. */
  marked?: boolean;
}
export interface ReviseContext {
  sections: readonly PlainSection[];
  selection: Selection | null;
  sources: readonly ReviewSource[];
  title: string;
  /** Words a minute, where it is known. */
  pace?: number;
  /** How long pictures are wanted; absent where they can't be asked for. */
  pictures?: PaceWanted;
  /** When each line begins, in milliseconds, and last when the script ends; absent where nothing is timed. */
  startsMs?: () => readonly number[];
  /** Which words mean much the same; absent where it isn't loaded. */
  kin?: Kin;
  /** A new id's random part. */
  fresh: () => string;
}

/** What a note can change of a script beside its lines. */
export interface ScriptSettings {
  /** Words a minute. */
  pace?: number;
  title?: string;
  /** The wanted curve of seconds a picture. */
  paceCurve?: PaceHandle[];
}

/** Named pieces of a note, by slot. */
export type Slots = Readonly<Record<string, string>>;

export type Applied =
  | {
      sections: PlainSection[];
      /** What changes of the script as a whole. */
      settings?: ScriptSettings;
      /** What the person should know: lines it left alone, and why. */
      notes?: string[];
    }
  | { refused: string; nearest?: string };

export interface Operation {
  id: string;
  /** As the answer says it: "leave out", "move". */
  says: string;
  /** Whole notes, with slots in braces: {scope}, {where}, {amount}, {text}, {word}, {by}, {n}, {about}. */
  patterns: readonly string[];
  /** The scope when none is named: what is selected, or the whole. */
  otherwise: 'selection' | 'whole' | 'opening' | 'ending';
  /** Whether lines outside the scope may change their place (never their words). */
  moves?: true;
  apply: (request: Request, context: ReviseContext, tools: ReviseTools) => Applied;
}

export interface Request {
  operation: Operation;
  scope: Scope;
  amount: Amount | null;
  slots: Slots;
  /** A second place: where to move to. */
  where: Where | null;
  /** Words that must stand where they stood: a line that would lose them stays as it is. */
  keep?: readonly string[];
}
export interface Where {
  /** Index of the section before which to go, counted without what moves. */
  side: 'start' | 'end' | 'before' | 'after';
  scope: Scope | null;
  says: string;
}

export const linesIn = (sections: readonly PlainSection[]): PlainLine[] =>
  sections.flatMap((s) => [...s.lines]);
export const mapLines = (
  sections: readonly PlainSection[],
  ids: ReadonlySet<string>,
  change: (line: PlainLine, section: PlainSection) => PlainLine | PlainLine[] | null,
): PlainSection[] =>
  sections.flatMap((s) => {
    if (!s.lines.some((l) => ids.has(l.id))) return [s];
    const lines = s.lines.flatMap((l) => {
      if (!ids.has(l.id) || isKept(l, s)) return [l];
      const next = change(l, s);
      return next === null ? [] : next;
    });
    return lines.length ? [{ ...s, lines }] : [];
  });
/** Locked, or a fixed part: never touched by anything automatic. */
export const isKept = (line: PlainLine, section: PlainSection): boolean =>
  line.locked || section.locked || line.fixed !== '';
export const withText = (line: PlainLine, text: string): PlainLine =>
  text === line.text ? line : { ...line, text, marks: [] };
