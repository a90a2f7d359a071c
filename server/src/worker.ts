/** The worker: reads sources and drafts scripts. Expected failures come back as values, so that only bugs throw. */
import type { MessagePort } from 'node:worker_threads';
import {
  DraftError,
  draftScript,
  fitToPlan,
  makePlan,
  moveSection,
  redoHook,
  redoLine,
  redoSection,
  reshaped,
  sourceCarries,
  type Carries,
  type Draft,
  type DraftOptions,
  type Redone,
} from '@ursprung/core/draft';
import { extractFacts, type Fact } from '@ursprung/core/facts';
import {
  checkTitle,
  hooksOf,
  promiseIdeas,
  promiseSentence,
  rankShapes,
  storyBeats,
  type StoryBeats,
  type Brief,
  type Hook,
  type HookKind,
  type OwnPart,
  type PromiseIdeas,
  type RankedShape,
  type ShapeId,
  type TitleCheck,
} from '@ursprung/core/plan';
import type { Mood, PlainSection, Target } from '@ursprung/core/script';
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
    favour?: string[];
    given?: string[];
    reveal?: string;
    others?: { letter: string; document: SourceDocument }[];
    brief?: Brief;
    fixed?: DraftOptions['fixed'];
    parts?: readonly OwnPart[];
    /** The kind of hook that is to open; the best of it is taken. */
    hook?: HookKind;
  };
}
export interface PromiseTask {
  sources: { letter: string; document: SourceDocument }[];
  voice: string;
  pace: number;
  page: number;
  seed: number;
  title?: string;
}
export interface Promised extends PromiseIdeas {
  hooks: Hook[];
  shapes: RankedShape[];
  check: TitleCheck | null;
  /** Where a first-person story turns and is explained; null for other kinds. */
  beats: StoryBeats | null;
}
export interface RedoTask extends DraftTask {
  what: 'hook' | 'section' | 'line' | 'fit' | 'move' | 'shape' | 'whole';
  sections: PlainSection[];
  section?: string;
  line?: string;
  to?: number;
  shape?: ShapeId;
  hook?: HookKind;
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

export const read = (task: ReadTask): Promise<WorkResult<{ document: SourceDocument; facts: Fact[] }>> =>
  expected(async () => {
    const document = await openSource(task.bytes, task.kind ? { kind: task.kind } : {});
    const tell = (stage: string, done: number, of: number) => task.port?.postMessage({ stage, done, of });
    tell(`${document.blocks.length} passages found`, 0, document.blocks.length);
    const facts = extractFacts(document, getTagger(), (done, of) => tell('taking it apart', done, of));
    return { document, facts };
  });

const drafting = async (document: SourceDocument, asked: Omit<DraftTask['options'], 'target'>) => {
  const { mood, pace, voice, seed, shape, hook: kind, ...rest } = asked;
  const tools = { tagger: getTagger(), clock: getClock(voice, pace), solver: await getSolver() };
  const options = { ...rest, mood, seed: seed ?? 1, ...(shape ? { shape: shape as ShapeId } : {}) };
  if (!kind) return { options, tools };
  const material = [{ letter: 'A', document }, ...(asked.others ?? [])].map((o) => ({
    letter: o.letter,
    source: o.document,
    facts: extractFacts(o.document, tools.tagger),
  }));
  const hook = hooksOf(material, tools, seed).find((h) => h.kind === kind);
  return { options: hook ? { ...options, hook } : options, tools };
};

export const draft = (task: DraftTask): Promise<WorkResult<Draft>> =>
  expected(async () => {
    const { options, tools } = await drafting(task.document, task.options);
    return draftScript(task.document, { ...options, target: task.options.target }, tools);
  });

export const carries = (task: DraftTask): Promise<WorkResult<Carries>> =>
  expected(async () => {
    const { options, tools } = await drafting(task.document, task.options);
    return sourceCarries(task.document, options, tools);
  });

export const promise = (task: PromiseTask): Promise<WorkResult<Promised>> =>
  expected(() => {
    const tools = { tagger: getTagger(), clock: getClock(task.voice, task.pace) };
    const material = task.sources.map((s) => ({
      letter: s.letter,
      source: s.document,
      facts: extractFacts(s.document, tools.tagger),
    }));
    const ideas = promiseIdeas(material, tools, { page: task.page, seed: task.seed });
    const check = task.title === undefined ? null : checkTitle(task.title, material);
    return {
      ...ideas,
      // Of the title that was asked about, when it can be paid for.
      sentence: check?.paid ? promiseSentence(material, check.pays) : ideas.sentence,
      hooks: hooksOf(material, tools, task.seed).slice(0, 14),
      shapes: rankShapes({ source: material[0].source, facts: material[0].facts, sources: material.length }),
      check,
      beats: material[0].source.kind === 'forum' ? storyBeats(material[0].facts) : null,
    };
  });

/** Changes to a script that tell something anew, or move what points at something. */
export const redo = (task: RedoTask): Promise<WorkResult<Redone>> =>
  expected(async () => {
    const { hook: kind, ...own } = task.options;
    const { options, tools } = await drafting(task.document, own);
    const whole = {
      source: task.document,
      sections: task.sections,
      options: { ...options, target: task.options.target },
    };
    switch (task.what) {
      case 'section':
        return redoSection(whole, task.section ?? '', tools);
      case 'line':
        return redoLine(whole, task.line ?? '', tools);
      case 'fit':
        return fitToPlan(whole, tools);
      case 'move':
        return moveSection(whole, task.section ?? '', task.to ?? 0, tools);
      case 'hook': {
        const wanted = task.hook ?? kind;
        const plan = makePlan(task.document, whole.options, tools);
        return redoHook(
          whole,
          tools,
          wanted ? hooksOf(plan.material, tools, options.seed).find((h) => h.kind === wanted) : undefined,
        );
      }
      default:
        return reshaped(
          { ...whole, options: { ...whole.options, ...(task.shape ? { shape: task.shape } : {}) } },
          tools,
        );
    }
  });
