/** A name that the sources have, told where they tell of another. */
import { PATTERNS } from '../../language/lexicon.ts';
import { stems } from '../../facts/centrality.ts';
import type { Kin } from '../../language/kin.ts';
import { accuse, type Check } from './fault.ts';
import type { Said, Word } from './text.ts';
import { CALENDAR } from './words.ts';

const TITLE = new RegExp(`^(?:${PATTERNS.title}|God)$`);
/** Names of people and places: no word of every day, and no title. */
const namesIn = (said: Said, lower: ReadonlySet<string>, kin: Kin | null): Word[] =>
  said.words.filter(
    (w, i) =>
      w.pos === 'PROPN' &&
      /^\p{Lu}\p{Ll}/u.test(w.text) &&
      !CALENDAR.test(w.text) &&
      !TITLE.test(w.text) &&
      !lower.has(w.text.toLowerCase()) &&
      // Behind "at", "in", "by" stand places and feasts.
      said.words[i - 1]?.pos !== 'ADP' &&
      // A word of every day is a name where it stands alone.
      ((kin?.of(stems(w.text)[0] ?? '').own.length ?? 0) === 0 ||
        ![said.words[i - 1], said.words[i + 1]].some((x) => x && /^\p{Lu}/u.test(x.text))),
  );
const key = (w: Word) => w.text.toLowerCase().replace(/['’]s$/, '');
/** Below this likeness it is not known what the line rests on. */
const SURE = 0.45;

export const elsewhere: Check = ({ told, evidence, stock, tools }) => {
  if (!evidence || evidence.likeness < SURE || told.question) return [];
  const { lower } = stock;
  const near = new Set(evidence.best.flatMap((s) => s.words).map((w) => key(w)));
  const own = namesIn(told, lower, tools.kin);
  const mine = new Set(own.map(key));
  const [first] = evidence.best;
  const others = namesIn(first, lower, tools.kin).filter((w) => !mine.has(key(w)));
  for (const w of own) {
    if (near.has(key(w)) || !stock.even.includes(key(w))) continue;
    // One part of a name is enough: "Idris" of "Idris Callow".
    const at = told.words.indexOf(w);
    if ([told.words[at - 1], told.words[at + 1]].some((x) => x && x.pos === 'PROPN' && near.has(key(x))))
      continue;
    // Somebody else stands in that very sentence, whom the line does not name.
    const rival = others.find((o) => !told.plain.toLowerCase().includes(key(o)));
    if (!rival) continue;
    return accuse('name', 'unsupported', w, `The source tells this of “${rival.text}”, not of “${w.text}”.`);
  }
  return [];
};
