/** A member of a set told in the place of another: "brother" for "husband", "steel" for "brass", "Tuesday" for "Wednesday". */
import sets from '../../../data/exclusive-sets.json';
import { replacedIn, type Check } from './fault.ts';

/** Each word: its set, and its place in it. */
const MEMBERS = new Map(
  sets.sets.flatMap((set, s) =>
    set.flatMap((words, place) => words.split(' ').map((w) => [w, { set: s, place }] as const)),
  ),
);
const memberOf = (word: { text: string; lemma: string }) =>
  MEMBERS.get(word.text.toLowerCase()) ??
  MEMBERS.get(word.lemma) ??
  MEMBERS.get(word.text.toLowerCase().replace(/s$/, ''));

export const exclusive: Check = ({ told, passage, around }) => {
  if (told.question) return [];
  const nearby = around.words.flatMap((w) => memberOf(w) ?? []);
  for (const w of told.words) {
    const mine = memberOf(w);
    if (!mine || w.pos === 'ADP') continue;
    if (nearby.some((m) => m.set === mine.set && m.place === mine.place)) continue;
    const rivals = passage.words.filter((p) => memberOf(p)?.set === mine.set && p.pos === w.pos);
    const [rival] = rivals;
    if (!rival || told.words.some((t) => t !== w && memberOf(t)?.set === mine.set)) continue;
    if (new Set(rivals.map((x) => memberOf(x)!.place)).size > 1) continue;
    const by = w.pos === 'PROPN' ? rival.text : rival.text.toLowerCase();
    return [
      {
        kind: 'thing',
        level: 'wrong',
        start: w.start,
        end: w.end,
        says: `The source says “${rival.text}”, not “${w.text}”.`,
        mend: replacedIn(told.text, w.start, w.end, by),
        does: `Say “${by}”`,
      },
    ];
  }
  return [];
};
