/** A short line that says another thing of the same: what it is or was done to stands nowhere near, all else does. Other verbs have too many ways of being said. */
import type { Check } from './fault.ts';
import { coverage, isIn, type Word } from './text.ts';

const MOST_ROOTS = 4;
/** What the rest of the line must share with its passage. */
const SHARED = 0.99;

export const predicate: Check = ({ told, passage, around, tools }) => {
  if (
    told.question ||
    told.segments.some((s) => s.denies) ||
    told.roots.size > MOST_ROOTS ||
    !told.words.length
  )
    return [];
  const main = mainOf(told.words);
  if (!main?.root || isIn(main.root, around.roots, tools.kin)) return [];
  const rest = [...told.roots].filter((x) => x !== main.root && !/ly$/.test(x) && x !== 'complete');
  if (!rest.length || coverage(rest, passage.roots, tools.kin) < SHARED) return [];
  if (!rest.some((x) => passage.roots.has(x))) return [];
  return [
    {
      kind: 'denial',
      start: main.start,
      end: main.end,
      says: `The source says something else: “${passage.text.replace(/[.!?]$/, '')}”.`,
    },
  ];
};

/** The adjective or participle behind "be". */
function mainOf(words: readonly Word[]): Word | undefined {
  const be = words.findIndex((w) => w.lemma === 'be');
  const behind =
    be < 0 ? undefined : words.slice(be + 1).find((w) => w.root && (w.pos === 'ADJ' || w.pos === 'VERB'));
  return behind;
}
