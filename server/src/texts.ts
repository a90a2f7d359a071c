/** Text work of the Page that runs in a worker thread: notes, style. Expected failures are values. */
import { lineTellings } from '@ursprung/core/draft';
import {
  againstStyle,
  houseStyle,
  styleFigures,
  type HouseStyle,
  type StyleDifference,
} from '@ursprung/core/measure';
import { propose, tellerOf, type Revised, type Selection } from '@ursprung/core/revise';
import type { PaceWanted } from '@ursprung/core/scenes';
import type { PlainSection } from '@ursprung/core/script';
import { frequencyOf } from './frequency.ts';
import { drafting, expected, type DraftTask, type WorkResult } from './drafting.ts';
import { reviewed, type SourceText } from './sourceText.ts';
import { getClock, getKin, getPronouncer, getTagger } from './tools.ts';

export interface ReviseTask {
  note: string;
  sections: PlainSection[];
  selection: Selection | null;
  title: string;
  voice: string;
  pace: number;
  sayings: readonly { word: string; say: string }[];
  pictures: PaceWanted;
  sources: ({ letter: string } & SourceText)[];
  /** To tell anew; absent without sources. */
  from?: DraftTask;
  /** Makes ids of new lines: another each time. */
  salt: string;
}
export interface StyleTask {
  scripts: PlainSection[][];
  voice: string;
  pace: number;
}
export interface AgainstTask {
  sections: PlainSection[];
  style: HouseStyle;
  voice: string;
  pace: number;
}

export const revise = (task: ReviseTask): Promise<WorkResult<Revised>> =>
  expected(async () => {
    const clock = getClock(task.voice, task.pace, task.sayings);
    let n = 0;
    const context = {
      sections: task.sections,
      selection: task.selection,
      sources: task.sources.map(reviewed),
      title: task.title,
      pace: task.pace,
      pictures: task.pictures,
      kin: getKin(),
      fresh: () => `${task.salt}${(n++).toString(36)}`,
    };
    const clockAt = (pace: number) => getClock(task.voice, pace, task.sayings);
    const tools = { clock, clockAt, pronouncer: getPronouncer(), tagger: getTagger() };
    if (!task.from) return propose(task.note, context, tools);
    const { source, options: asked } = task.from;
    const { options, tools: draftTools, document } = await drafting(source, asked);
    const teller = tellerOf(document, { ...options, target: asked.target }, draftTools);
    return propose(task.note, context, { ...tools, teller });
  });

export interface TellingsTask extends DraftTask {
  sections: PlainSection[];
  line: string;
}

/** A line in every other way its fact can be told safely. */
export const tellings = (task: TellingsTask): Promise<WorkResult<string[]>> =>
  expected(async () => {
    const { options, tools, document } = await drafting(task.source, task.options);
    const whole = {
      source: document,
      sections: task.sections,
      options: { ...options, target: task.options.target },
    };
    return lineTellings(whole, task.line, tools);
  });

const styleTools = (voice: string, pace: number) => ({
  clock: getClock(voice, pace),
  pronouncer: getPronouncer(),
  tagger: getTagger(),
  frequency: frequencyOf,
});

export const style = (task: StyleTask): Promise<WorkResult<HouseStyle>> =>
  expected(() => houseStyle(task.scripts, styleTools(task.voice, task.pace)));

export const against = (
  task: AgainstTask,
): Promise<WorkResult<{ figures: Record<string, number | null>; differences: StyleDifference[] }>> =>
  expected(() => {
    const figures = styleFigures(task.sections, styleTools(task.voice, task.pace));
    return { figures, differences: againstStyle(figures, task.style) };
  });
