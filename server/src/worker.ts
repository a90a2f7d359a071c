/** The worker: reads sources and drafts scripts. Expected failures come back as values, so that only bugs throw. */
import type { MessagePort } from 'node:worker_threads';
import { DraftError, draftScript, sourceCarries, type Carries, type Draft } from '@ursprung/core/draft';
import { extractFacts, type Fact } from '@ursprung/core/facts';
import type { ShapeId } from '@ursprung/core/plan';
import type { Mood, Target } from '@ursprung/core/script';
import { SourceError, openSource, type SourceDocument, type SourceKind } from '@ursprung/core/source';
import { getClock, getSolver, getTagger } from './tools.ts';

export type WorkResult<T> =
  | { ok: true; value: T }
  | {
      ok: false;
      code: 'source-unreadable' | 'length-not-possible';
      message: string;
      extra: Record<string, unknown>;
    };

export interface ReadTask {
  bytes: Uint8Array;
  kind?: SourceKind;
  /** Where progress goes. */
  port?: MessagePort;
}
export interface DraftTask {
  document: SourceDocument;
  options: {
    target: Target;
    mood: Mood;
    pace: number;
    voice: string;
    seed?: number;
    shape?: string;
    must?: string[];
    out?: string[];
    others?: { letter: string; document: SourceDocument }[];
  };
}

async function expected<T>(work: () => T | Promise<T>): Promise<WorkResult<T>> {
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
        extra: { reason: error.code, carries: error.carries },
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

export const read = (task: ReadTask): Promise<WorkResult<{ document: SourceDocument; facts: Fact[] }>> =>
  expected(async () => {
    const document = await openSource(task.bytes, task.kind ? { kind: task.kind } : {});
    const tell = (stage: string, done: number, of: number) => task.port?.postMessage({ stage, done, of });
    tell(`${document.blocks.length} passages found`, 0, document.blocks.length);
    const facts = extractFacts(document, getTagger(), (done, of) => tell('taking it apart', done, of));
    return { document, facts };
  });

const drafting = async ({
  mood,
  pace,
  voice,
  seed,
  shape,
  must,
  out,
  others,
}: Omit<DraftTask['options'], 'target'>) => ({
  options: {
    mood,
    seed: seed ?? 1,
    ...(shape ? { shape: shape as ShapeId } : {}),
    ...(must ? { must } : {}),
    ...(out ? { out } : {}),
    ...(others ? { others } : {}),
  },
  tools: { tagger: getTagger(), clock: getClock(voice, pace), solver: await getSolver() },
});

export const draft = (task: DraftTask): Promise<WorkResult<Draft>> =>
  expected(async () => {
    const { options, tools } = await drafting(task.options);
    return draftScript(task.document, { ...options, target: task.options.target }, tools);
  });

export const carries = (task: DraftTask): Promise<WorkResult<Carries>> =>
  expected(async () => {
    const { options, tools } = await drafting(task.options);
    return sourceCarries(task.document, options, tools);
  });
