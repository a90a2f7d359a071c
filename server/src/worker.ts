/** The worker: drafts scripts from sources that were read. Expected failures come back as values, so that only bugs throw. */
import {
  draftScript,
  fitToPlan,
  makePlan,
  carryLine,
  moodLines,
  moveSection,
  redoHook,
  redoLine,
  redoSection,
  reshaped,
  sourceCarries,
  type Carries,
  type Draft,
  type MoodLine,
  type Redone,
} from '@ursprung/core/draft';
import { compareSources, type Fact } from '@ursprung/core/facts';
import {
  checkTitle,
  hooksOf,
  spineOf,
  type SpineLink,
  promiseIdeas,
  promiseSentence,
  rankShapes,
  toAdd,
  storyBeats,
  type StoryBeats,
  type Hook,
  type HookKind,
  type PromiseIdeas,
  type RankedShape,
  type ShapeId,
  type TitleCheck,
  type ToAdd,
} from '@ursprung/core/plan';
import type { Mood, PlainSection } from '@ursprung/core/script';
import type { SourceDocument } from '@ursprung/core/source';
import type { StoredOwnFact } from './db/models.ts';
import { drafting, expected, materialOf, readSourceOf, type DraftTask, type WorkResult } from './drafting.ts';
import { chosenWords, ownMade } from './ownFacts.ts';
import { openedText, outlookOf, type SourceText } from './sourceText.ts';
import { getClock, getTagger } from './tools.ts';

export type { DraftTask, WorkResult } from './drafting.ts';
export { against, revise, style, tellings } from './texts.ts';
export { grammar } from './grammarTask.ts';
export { nextAsked, takeByHand, takeRounds } from './roundsTask.ts';
export { film, packKit, sheet, write } from './kits.ts';
export { summaries } from './summaries.ts';

export interface PromiseTask {
  sources: ({ letter: string } & SourceText)[];
  voice: string;
  pace: number;
  page: number;
  seed: number;
  title?: string;
  moods?: boolean;
}
export interface Promised extends PromiseIdeas {
  hooks: Hook[];
  /** What a telling hangs on, source by source. */
  spine: (SpineLink & { ms: number })[];
  shapes: RankedShape[];
  /** What the sources lack for a longer telling. */
  toAdd: ToAdd;
  /** What a mood makes of a sentence of the first source, where that was asked. */
  moodLines: Partial<Record<Mood, MoodLine>>;
  check: TitleCheck | null;
  /** Where a first-person story turns and is explained; null for other kinds. */
  beats: StoryBeats | null;
}
export interface RedoTask extends DraftTask {
  what: 'hook' | 'section' | 'line' | 'fit' | 'move' | 'carry' | 'shape' | 'whole';
  sections: PlainSection[];
  section?: string;
  line?: string;
  to?: number;
  shape?: ShapeId;
  hook?: HookKind;
}

export interface OwnTask {
  document: string;
  /** Words, or where they stand in the source. */
  own: readonly ({ text: string; start?: number; end?: number } | { start: number; end: number })[];
}

export const ping = (): WorkResult<null> => ({ ok: true, value: null });

/** What the writer knows, or chose of a source's words, as it is stored; null for chosen words that are none. */
export const own = (task: OwnTask): Promise<WorkResult<(Omit<StoredOwnFact, 'id'> | null)[]>> =>
  expected(() => {
    const document = JSON.parse(task.document) as SourceDocument;
    return task.own.map((o) => {
      const words = 'text' in o ? o : chosenWords(document, o);
      return words && { ...words, made: ownMade(document, { ...words, id: 'w0' }) };
    });
  });

/** What is worked out of a source once, for one that was read before that was stored. */
export const outlook = (task: {
  document: string;
  facts: string;
}): Promise<WorkResult<{ outlook: string; summary: string }>> =>
  expected(() => {
    const made = outlookOf(JSON.parse(task.document) as SourceDocument, JSON.parse(task.facts) as Fact[]);
    return { outlook: JSON.stringify(made.outlook), summary: JSON.stringify(made.summary) };
  });

/** Sources beside one another, as JSON. */
export const compare = (task: {
  sources: ({ letter: string } & SourceText)[];
}): Promise<WorkResult<string>> =>
  expected(() =>
    JSON.stringify(
      compareSources(
        task.sources.map(({ letter, ...text }) => {
          const { document, facts, own } = openedText(text);
          return { letter, document, facts: [...facts, ...own.facts] };
        }),
      ),
    ),
  );

export const draft = (task: DraftTask): Promise<WorkResult<Draft>> =>
  expected(async () => {
    const { options, tools, document } = await drafting(task.source, task.options);
    return draftScript(document, { ...options, target: task.options.target }, tools);
  });

export const carries = (task: DraftTask): Promise<WorkResult<Carries>> =>
  expected(async () => {
    const { options, tools, document } = await drafting(task.source, task.options);
    return sourceCarries(document, options, tools);
  });

export const promise = (task: PromiseTask): Promise<WorkResult<Promised>> =>
  expected(() => {
    const tools = { tagger: getTagger(), clock: getClock(task.voice, task.pace) };
    const sources = task.sources.map((s) => ({ letter: s.letter, ...openedText(s) }));
    const material = materialOf(sources);
    const ideas = promiseIdeas(material, tools, { page: task.page, seed: task.seed });
    const check = task.title === undefined ? null : checkTitle(task.title, material);
    return {
      ...ideas,
      // Of the title that was asked about, when it can be paid for.
      sentence: check?.paid ? promiseSentence(material, check.pays) : ideas.sentence,
      toAdd: toAdd(material, tools.tagger),
      moodLines: task.moods
        ? moodLines(sources[0].document, readSourceOf(sources[0]).tagged, tools.tagger)
        : {},
      hooks: hooksOf(material, tools, task.seed).slice(0, 14),
      spine: material.flatMap(spineOf).map((l) => ({ ...l, ms: tools.clock.time(l.text).ms })),
      shapes: rankShapes({
        source: material[0].source,
        facts: sources[0].facts,
        sources: material.length,
      }),
      check,
      beats: material[0].source.kind === 'forum' ? storyBeats(sources[0].facts) : null,
    };
  });

/** Changes to a script that tell something anew, or move what points at something. */
export const redo = (task: RedoTask): Promise<WorkResult<Redone>> =>
  expected(async () => {
    const { hook: kind, ...asked } = task.options;
    const { options, tools, document } = await drafting(task.source, asked);
    const whole = {
      source: document,
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
      case 'carry':
        return carryLine(whole, task.line ?? '', task.section ?? '', tools);
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
          {
            ...whole,
            options: { ...whole.options, ...(task.shape ? { shape: task.shape, asked: true } : {}) },
          },
          tools,
        );
    }
  });
