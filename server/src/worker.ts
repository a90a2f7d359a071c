/** The worker: reads sources and drafts scripts. Expected failures come back as values, so that only bugs throw. */
import type { MessagePort } from 'node:worker_threads';
import {
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
  type Hook,
  type HookKind,
  type PromiseIdeas,
  type RankedShape,
  type ShapeId,
  type TitleCheck,
} from '@ursprung/core/plan';
import type { PlainSection } from '@ursprung/core/script';
import { openSource, type SourceDocument, type SourceKind } from '@ursprung/core/source';
import { drafting, expected, type DraftTask, type WorkResult } from './drafting.ts';
import { getClock, getTagger } from './tools.ts';

export type { DraftTask, WorkResult } from './drafting.ts';
export { against, clean, revise, style, tellings } from './texts.ts';
export { grammar } from './grammarTask.ts';
export { film, fromXliff, packKit, sheet, write } from './kits.ts';

export interface ReadTask {
  bytes: Uint8Array;
  kind?: SourceKind;
  /** Where progress goes. */
  port?: MessagePort;
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

export const read = (task: ReadTask): Promise<WorkResult<{ document: SourceDocument; facts: Fact[] }>> =>
  expected(async () => {
    const document = await openSource(task.bytes, task.kind ? { kind: task.kind } : {});
    const tell = (stage: string, done: number, of: number) => task.port?.postMessage({ stage, done, of });
    tell(`${document.blocks.length} passages found`, 0, document.blocks.length);
    const facts = extractFacts(document, getTagger(), (done, of) => tell('taking it apart', done, of));
    return { document, facts };
  });

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
