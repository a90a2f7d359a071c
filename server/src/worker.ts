/** The worker: drafts scripts from sources that were read. Expected failures come back as values, so that only bugs throw. */
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
import { ownTagged, packTags, type Fact, type OwnFact, type PackedTags } from '@ursprung/core/facts';
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
import type { SourceDocument } from '@ursprung/core/source';
import {
  drafting,
  expected,
  materialOf,
  type DraftTask,
  type StoredSource,
  type WorkResult,
} from './drafting.ts';
import { getClock, getTagger } from './tools.ts';

export type { DraftTask, WorkResult } from './drafting.ts';
export { against, revise, style, tellings } from './texts.ts';
export { grammar } from './grammarTask.ts';
export { film, packKit, sheet, write } from './kits.ts';

export interface PromiseTask {
  sources: ({ letter: string } & StoredSource)[];
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

export interface OwnTask {
  document: SourceDocument;
  own: OwnFact[];
}

export const ping = (): WorkResult<null> => ({ ok: true, value: null });

/** What the writer knows or chose, as facts; null for one that says nothing. */
export const own = (task: OwnTask): Promise<WorkResult<({ fact: Fact; tags: PackedTags } | null)[]>> =>
  expected(() =>
    task.own.map((o) => {
      const [made] = ownTagged(task.document, [o], getTagger());
      return made ? { fact: made.fact, tags: packTags(made.tokens) } : null;
    }),
  );

export const draft = (task: DraftTask): Promise<WorkResult<Draft>> =>
  expected(async () => {
    const { options, tools } = await drafting(task.source, task.options);
    return draftScript(task.source.document, { ...options, target: task.options.target }, tools);
  });

export const carries = (task: DraftTask): Promise<WorkResult<Carries>> =>
  expected(async () => {
    const { options, tools } = await drafting(task.source, task.options);
    return sourceCarries(task.source.document, options, tools);
  });

export const promise = (task: PromiseTask): Promise<WorkResult<Promised>> =>
  expected(() => {
    const tools = { tagger: getTagger(), clock: getClock(task.voice, task.pace) };
    const material = materialOf(task.sources);
    const ideas = promiseIdeas(material, tools, { page: task.page, seed: task.seed });
    const check = task.title === undefined ? null : checkTitle(task.title, material);
    return {
      ...ideas,
      // Of the title that was asked about, when it can be paid for.
      sentence: check?.paid ? promiseSentence(material, check.pays) : ideas.sentence,
      hooks: hooksOf(material, tools, task.seed).slice(0, 14),
      shapes: rankShapes({
        source: material[0].source,
        facts: task.sources[0].facts,
        sources: material.length,
      }),
      check,
      beats: material[0].source.kind === 'forum' ? storyBeats(task.sources[0].facts) : null,
    };
  });

/** Changes to a script that tell something anew, or move what points at something. */
export const redo = (task: RedoTask): Promise<WorkResult<Redone>> =>
  expected(async () => {
    const { hook: kind, ...asked } = task.options;
    const { options, tools } = await drafting(task.source, asked);
    const whole = {
      source: task.source.document,
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
        const plan = makePlan(whole.source, whole.options, tools);
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
