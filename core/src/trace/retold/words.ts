/** Names no source has, and a word put in the place of the source's. */
import { PATTERNS } from '../../language/lexicon.ts';
import { stems } from '../../facts/centrality.ts';
import type { Check, Retelling, RetoldFault } from './fault.ts';
import { replacedIn } from './fault.ts';
import { isIn, type Word } from './text.ts';

export const CALENDAR =
  /^(?:January|February|March|April|May|June|July|August|September|October|November|December|(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day)s?$/;
/** What speakers are called in front of their names. */
const TITLE = new RegExp(`^(?:${PATTERNS.title}|God|English|I)$`);

const isCapital = (t: string) => /^\p{Lu}[\p{L}'’-]+$/u.test(t);
const opens = (words: readonly Word[], i: number) => i === 0 || /^[.!?:"“‘]$/.test(words[i - 1].text);

export const names: Check = ({ told, stock, tools }) => {
  const out: RetoldFault[] = [];
  const { words } = told;
  const strange = (w: Word) =>
    isCapital(w.text) &&
    !CALENDAR.test(w.text) &&
    !TITLE.test(w.text) &&
    !stock.words.has(w.text.toLowerCase().replace(/['’]s$/, ''));
  for (let i = 0; i < words.length; i++) {
    const w = words[i];
    if (!strange(w)) continue;
    // At the start of a sentence a capital says nothing: the word must be a name by its tag, and unknown as a word.
    if (opens(words, i) && !(w.pos === 'PROPN' && isCapital(words[i + 1]?.text ?? ''))) continue;
    if (/^I['’]/.test(w.text)) continue;
    if (opens(words, i) && (tools.kin?.of(w.text.toLowerCase()).own.length ?? 0) > 0 && !strange(words[i + 1])) continue; // prettier-ignore
    let j = i;
    while (words[j + 1] && isCapital(words[j + 1].text)) j++;
    let from = i;
    while (from > 0 && TITLE.test(words[from - 1].text)) from--;
    // What somebody is, in a word of every day before a known name, names nobody.
    const isWord = (p: string) => {
      const { own = [], wider = [] } = tools.kin?.of(stems(p)[0] ?? '') ?? {};
      return own.length + wider.length > 0;
    };
    const parts = words
      .slice(i, j + 1)
      .flatMap((x) => x.text.split(/[-–]/).map((p) => p.toLowerCase().replace(/['’]s$/, '')));
    if (parts.every((p) => stock.words.has(p) || isWord(p)) && parts.some((p) => stock.words.has(p))) {
      i = j;
      continue;
    }
    const text = told.text.slice(words[from].start, words[j].end);
    out.push({
      kind: 'name',
      start: words[from].start,
      end: words[j].end,
      says: `No source names “${text}”.`,
    });
    i = j;
  }
  return out;
};

/** The verb and the preposition before, articles passed over: "made of _". */
const slot = (words: readonly Word[], i: number): string | null => {
  const before = words
    .slice(0, i)
    .filter((w) => w.segment === words[i].segment && !['DET', 'ADJ', 'PUNCT'].includes(w.pos))
    .slice(-2);
  return before.length === 2 && before[0].pos === 'VERB' && before[1].pos === 'ADP'
    ? before.map((w) => w.lemma).join(' ')
    : null;
};

/** "made of steel" where the source says "made of brass". */
export const substituted: Check = ({ told, passage, stock, tools }: Retelling) => {
  const nouns = (words: readonly Word[]) => words.flatMap((w, i) => (w.pos === 'NOUN' && w.root ? [{ w, slot: slot(words, i) }] : [])); // prettier-ignore
  const theirs = nouns(passage.words);
  for (const { w, slot: own } of nouns(told.words)) {
    if (!own || stock.roots.has(w.root!) || told.question || isIn(w.root!, passage.roots, tools.kin))
      continue;
    const rival = theirs.find(
      (t) =>
        t.slot === own && !told.roots.has(t.w.root!) && (tools.kin?.likeness(t.w.root!, w.root!) ?? 0) === 0,
    );
    if (rival)
      return [
        {
          kind: 'thing',
          level: 'wrong',
          start: w.start,
          end: w.end,
          says: `The source says “${rival.w.text}”, not “${w.text}”.`,
          mend: replacedIn(told.text, w.start, w.end, rival.w.text),
          does: `Say “${rival.w.text}”`,
        },
      ];
  }
  return [];
};
