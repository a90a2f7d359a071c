/** What can be wrong with a line of a reply, and what each is called. */
import { SLOT_OF, type Level, type RetoldKind } from '../trace/retold/fault.ts';

export const REPLY_KINDS = ['close', 'twice', 'never', 'old'] as const;
export type ReplyKind = RetoldKind | (typeof REPLY_KINDS)[number];

/** The name of each fault, as it leads its finding. */
export const FAULT_NAMES: Readonly<Record<ReplyKind, string>> = {
  value: 'Another value',
  thing: 'On the wrong thing',
  name: 'A name no source has',
  said: 'Who says so is lost',
  quote: 'Quotation altered',
  hedge: 'Not as sure',
  denial: 'The source says otherwise',
  direction: 'The other way round',
  cause: 'Another cause',
  whole: 'Part and whole',
  order: 'Order of events',
  invented: 'In no source',
  nothing: 'Rests on nothing',
  close: 'In the source’s words',
  twice: 'Said twice',
  never: 'Must not be said',
  old: 'An old figure',
};

/** The slot of a statement that each kind of fault is about. */
export const SLOTS: Readonly<Record<ReplyKind, string>> = {
  ...SLOT_OF,
  close: 'wording',
  twice: 'said before',
  never: 'ruled out',
  old: 'how much',
};

/** Whether a fault keeps its line out; one without support only marks it. */
export const stops = (fault: { level: Level }): boolean => fault.level === 'wrong';
