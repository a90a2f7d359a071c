/** A thing that no source names, nor anything much like it: the detail that a teller makes up. */
import type { Check } from './fault.ts';
import { UNIT_NAMES } from '../../language/lexicon.ts';
import { isIn, type Word } from './text.ts';

/** Units, ordinals and spans of time are values, and checked as such. */
const NO_THING = /^\d|\d(?:st|nd|rd|th)$/;

export const invented: Check = ({ told, stock, tools }) => {
  if (told.question) return [];
  const { kin } = tools;
  if (!kin) return [];
  const units = new Set(told.values.flatMap((v) => (v.unit ? v.text.toLowerCase().split(/[\s-]+/) : [])));
  const inValue = (w: Word) =>
    units.has(w.text.toLowerCase()) || told.values.some((v) => w.start < v.end + 1 && w.end > v.start - 1);
  // What a narrator calls the telling itself, and shapes of it, are no things in it.
  const strange = told.words.filter(
    (w, i) =>
      w.pos === 'NOUN' &&
      // "a piece of" measures what comes behind it.
      !/^of$/i.test(told.words[i + 1]?.text ?? '') &&
      w.root !== null &&
      !NO_THING.test(w.text) &&
      !inValue(w) &&
      kin.isThing(w.root) &&
      !UNIT_NAMES.has(w.text.toLowerCase()) &&
      !isIn(w.root, stock.page.roots, kin) &&
      !derived(w.text, stock.page.roots),
  );
  return strange.slice(0, 1).map((w) => ({
    kind: 'invented' as const,
    level: 'unsupported' as const,
    start: w.start,
    end: w.end,
    says: `No source speaks of “${w.text}”.`,
  }));
};

/** "measurers" of "measure", "beekeepers" of "bee": made of words that the source has. */
const FEWEST_LETTERS = 3;
function derived(word: string, roots: ReadonlySet<string>): boolean {
  const plain = word.toLowerCase().replace(/s$/, '');
  for (const root of roots)
    if (root.length >= FEWEST_LETTERS && root.length * 2 >= plain.length - 2 && plain.startsWith(root))
      return true;
  return false;
}
