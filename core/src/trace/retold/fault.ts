/** What a check of a retold line finds, and what it is given. */
import type { Evidence, SourceSentence } from './evidence.ts';
import type { Said, RetoldTools } from './text.ts';

export const RETOLD_KINDS = [
  'value',
  'thing',
  'name',
  'said',
  'quote',
  'hedge',
  'denial',
  'direction',
  'cause',
  'whole',
  'order',
  'invented',
  'nothing',
] as const;
export type RetoldKind = (typeof RETOLD_KINDS)[number];

/** The slot of a statement that each kind of fault is about. */
export const SLOT_OF: Readonly<Record<RetoldKind, string>> = {
  value: 'how much',
  thing: 'of what',
  name: 'who',
  said: 'said by whom',
  quote: 'quoted words',
  hedge: 'how sure',
  denial: 'denied or not',
  direction: 'who does what to whom',
  cause: 'because of',
  whole: 'how many of all',
  order: 'when',
  invented: 'what',
  nothing: 'all of it',
};

/** `wrong`: the source says otherwise; `unsupported`: nothing says so. */
export type Level = 'wrong' | 'unsupported';

export interface RetoldFault {
  kind: RetoldKind;
  /** Where a check doesn't say, its kind does. */
  level?: Level;
  /** The words it is about. */
  start: number;
  end: number;
  /** One sentence: what the source says. */
  says: string;
  /** The line without the fault, where that can be made without guessing; empty to drop the line. */
  mend?: string;
  /** What the mend does, as a press says it. */
  does?: string;
}

/** A fault with its level, as it leaves the room. */
export type JudgedFault = RetoldFault & {
  level: Level;
  /** The sentence of the source that it was held against, or null. */
  passage: { source: string; text: string } | null;
};

/** A fact that a line may rest on. */
export interface PassageFact {
  source: string;
  id: string;
  text: string;
  /** Who says so, where the source names it. */
  speaker: string | null;
  step: number | null;
}

export interface Retelling {
  told: Said;
  /** The fact that the line rests on first: what it is held to. */
  passage: Said;
  /** With the other facts it uses: what it may say. */
  all: Said;
  facts: readonly PassageFact[];
  /** The passage with the facts before and behind it. */
  around: Said;
  /** The sentences it rests on, or null. */
  evidence: Evidence | null;
  /** Everything the sources say. */
  stock: Stock;
  /** The lines before and behind, as they are told. */
  before: string;
  behind: string;
  tools: RetoldTools;
}

export interface Stock {
  values: readonly number[];
  roots: ReadonlySet<string>;
  /** Lower-case words. */
  words: ReadonlySet<string>;
  /** Words that stand there in lower case. */
  readonly lower: ReadonlySet<string>;
  /** Lower case, marks evened out. */
  even: string;
  quotes: readonly string[];
  sentences: readonly SourceSentence[];
  /** Everything they say, as one. */
  readonly page: Said;
  /** Every fact, made ready when first asked for. */
  facts: readonly PassageFact[];
  said: (fact: PassageFact) => Said;
}

export type Check = (r: Retelling) => RetoldFault[];

/** Where a pattern matched. */
export const matched = (m: RegExpExecArray | RegExpMatchArray) => ({
  start: m.index!,
  end: m.index! + m[0].length,
});

/** One accusation, as a check gives it back. */
export const accuse = (
  kind: RetoldKind,
  level: Level,
  { start, end }: { start: number; end: number },
  says: string,
): RetoldFault[] => [{ kind, level, start, end, says }];

/** A line with a stretch replaced, spaces and capitals at the edges evened out. */
export function replacedIn(text: string, start: number, end: number, by: string): string {
  const out = `${text.slice(0, start)}${by}${text.slice(end)}`
    .replace(/\s+([,.;:!?])/g, '$1')
    .replace(/\s{2,}/g, ' ')
    .trim();
  return /^\s*$/.test(text.slice(0, start)) ? out.charAt(0).toUpperCase() + out.slice(1) : out;
}
