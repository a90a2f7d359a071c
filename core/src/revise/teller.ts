/** What notes have told anew: the drafter's own redoing, on one set of sources. */
import type { DraftOptions, DraftTools } from '../draft/plan.ts';
import { makePlan } from '../draft/plan.ts';
import { fitToPlan, redoHook, redoLine, redoSection } from '../draft/redo.ts';
import { hooksOf } from '../plan/hooks.ts';
import type { PlainSection } from '../script/data.ts';
import type { SourceDocument } from '../source/document.ts';
import type { Teller } from './types.ts';

export function tellerOf(source: SourceDocument, options: DraftOptions, tools: DraftTools): Teller {
  const whole = (sections: readonly PlainSection[]) => ({ source, sections, options });
  return {
    hook: (sections, kind) => {
      if (!kind) return redoHook(whole(sections), tools);
      const plan = makePlan(source, options, tools);
      const hook = hooksOf(plan.material, tools, options.seed).find((h) => h.kind === kind);
      return hook
        ? redoHook(whole(sections), tools, hook)
        : { refused: `No fact of the sources carries an opening as a ${kind}.` };
    },
    section: (sections, id) => redoSection(whole(sections), id, tools),
    line: (sections, id) => redoLine(whole(sections), id, tools),
    fit: (sections) => fitToPlan(whole(sections), tools),
  };
}
