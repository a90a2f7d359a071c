/** What the workers' tasks share: failures as values, and a drafting task with the tools it needs. */
import { DraftError, type DraftOptions } from '@ursprung/core/draft';
import { taggedOf, type StoredFacts } from '@ursprung/core/facts';
import {
  hooksOf,
  type Brief,
  type HookKind,
  type Material,
  type OwnPart,
  type ShapeId,
} from '@ursprung/core/plan';
import type { Mood, Target } from '@ursprung/core/script';
import { SourceError, type SourceDocument } from '@ursprung/core/source';
import { openedText, type SourceText } from './sourceText.ts';
import { getClock, getSolver, getTagger } from './tools.ts';

export type WorkResult<T> =
  | { ok: true; value: T }
  | {
      ok: false;
      code: 'source-unreadable' | 'length-not-possible';
      message: string;
      extra: Record<string, unknown>;
    };

/** A source as it is stored: taken apart when it was read, not again. */
export interface StoredSource extends StoredFacts {
  document: SourceDocument;
  own: StoredFacts;
}
export interface DraftTask {
  source: SourceText;
  options: {
    target: Target;
    mood: Mood;
    pace: number;
    voice: string;
    /** How the channel says words. */
    sayings?: readonly { word: string; say: string }[];
    seed?: number;
    shape?: string;
    asked?: boolean;
    must?: string[];
    out?: string[];
    favour?: string[];
    given?: string[];
    reveal?: string;
    others?: ({ letter: string } & SourceText)[];
    brief?: Brief;
    fixed?: DraftOptions['fixed'];
    parts?: readonly OwnPart[];
    /** The kind of hook that is to open; the best of it is taken. */
    hook?: HookKind;
    /** For a vertical film: a hook of its own, and the event. */
    short?: boolean;
  };
}
export async function expected<T>(work: () => T | Promise<T>): Promise<WorkResult<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    if (error instanceof SourceError)
      return { ok: false, code: 'source-unreadable', message: error.message, extra: { reason: error.code } };
    if (error instanceof DraftError)
      return {
        ok: false,
        code: 'length-not-possible',
        message: error.message,
        extra: { reason: error.code, carries: error.carries, ways: error.ways },
      };
    // Markup nested deeper than the parser's stack.
    if (error instanceof RangeError && /stack/i.test(error.message))
      return {
        ok: false,
        code: 'source-unreadable',
        message: 'This page is nested too deeply to be read. Paste the words of the article instead.',
        extra: {},
      };
    throw error;
  }
}

/** A stored source with its facts and tags, as the core tells from it. */
export const readSourceOf = (s: StoredSource) => ({
  document: s.document,
  tagged: taggedOf(s, getTagger()),
  own: taggedOf(s.own, getTagger()),
});
/** What titles, hooks and angles are made of. */
export const materialOf = (sources: readonly ({ letter: string } & StoredSource)[]): Material[] =>
  sources.map((s) => ({
    letter: s.letter,
    source: s.document,
    facts: [...s.facts, ...s.own.facts.filter((f) => f.own === 'known')],
  }));

export const drafting = async (text: SourceText, asked: Omit<DraftTask['options'], 'target'>) => {
  const { mood, pace, voice, sayings, seed, shape, hook: kind, others: beside, ...rest } = asked;
  const source = openedText(text);
  const others = beside?.map((o) => ({ letter: o.letter, ...openedText(o) }));
  const { tagged, own, document } = readSourceOf(source);
  const tools = { tagger: getTagger(), clock: getClock(voice, pace, sayings), solver: await getSolver() };
  const options = {
    ...rest,
    tagged,
    own,
    ...(others ? { others: others.map((o) => ({ letter: o.letter, ...readSourceOf(o) })) } : {}),
    mood,
    seed: seed ?? 1,
    ...(shape ? { shape: shape as ShapeId } : {}),
  };
  if (!kind) return { options, tools, document };
  const material = materialOf([{ letter: 'A', ...source }, ...(others ?? [])]);
  const hook = hooksOf(material, tools, seed).find((h) => h.kind === kind);
  return { options: hook ? { ...options, hook } : options, tools, document };
};
