/** Who does what to whom, turned round: the same verb between the same two, in the other order. */
import type { Kin } from '../../language/kin.ts';
import { accuse, type Check } from './fault.ts';
import { alike, type Said, type Word } from './text.ts';

interface Clause {
  verb: Word;
  /** The nominals before the verb and behind it, in order, by root; passives are turned. */
  doers: string[];
  done: string[];
}

/** Personal pronouns in one form each. */
const CASES: Readonly<Record<string, string>> = {
  i: 'i',
  me: 'i',
  my: 'i',
  mine: 'i',
  we: 'we',
  us: 'we',
  our: 'we',
  they: 'they',
  them: 'they',
  their: 'they',
};
const isNominal = (w: Word) =>
  CASES[w.text.toLowerCase()] !== undefined ||
  ((w.pos === 'NOUN' || w.pos === 'PROPN') && /\p{L}/u.test(w.text));
const nameOf = (w: Word) => {
  const person = CASES[w.text.toLowerCase()];
  return person ? `~${person}` : (w.root ?? w.text.toLowerCase());
};
/** Whether a preposition stands before a nominal, its articles and adjectives passed over. */
const isGoverned = (words: readonly Word[], i: number): boolean => {
  let k = i - 1;
  while (
    k >= 0 &&
    (['DET', 'ADJ', 'NUM'].includes(words[k].pos) || CASES[words[k].text.toLowerCase()] !== undefined)
  )
    k--;
  return words[k]?.pos === 'ADP';
};
const REACH = 9;
const ENDS_BEFORE = /^(?:[;:.]|and|but|so|because|when|while|if|that|who|which)$/i;
const ENDS_BEHIND = /^(?:[;:.,]|and|but|so|because|when|while|if)$/i;

function clausesIn({ words }: Said): Clause[] {
  return words.flatMap((verb, i): Clause[] => {
    if (verb.pos !== 'VERB' || !verb.root) return [];
    const before = words.slice(Math.max(0, i - REACH), i);
    const own = before.slice(before.findLastIndex((w) => ENDS_BEFORE.test(w.text)) + 1);
    const behind = words.slice(i + 1, i + 1 + REACH);
    const stop = behind.findIndex((w) => ENDS_BEHIND.test(w.text));
    const rest = stop < 0 ? behind : behind.slice(0, stop);
    const passive = own.slice(-3).some((w) => w.lemma === 'be') && !/ing$/i.test(verb.text);
    const by = rest.findIndex((w) => /^by$/i.test(w.text));
    if (passive && by < 0) return [];
    // "the shaft filled with mud": mud filled the shaft (the locative alternation, Levin 1993).
    if (/^with$/i.test(rest[0]?.text ?? '')) return [];
    // What stands behind "in" or "at" says where and when.
    const subjects = own.filter((w, k) => isNominal(w) && !isGoverned(own, k));
    const objects = rest.slice(passive ? by + 1 : 0).filter(isNominal);
    if (!subjects.length || !objects.length) return [];
    const [doers, done] = passive ? [objects, subjects] : [subjects, objects];
    return [{ verb, doers: doers.map(nameOf), done: done.map(nameOf) }];
  });
}

const among = (list: readonly string[], name: string, kin: Kin | null) =>
  list.some((x) => x === name || (!x.startsWith('~') && !name.startsWith('~') && alike(x, name, kin)));

export const roles: Check = ({ told, evidence, tools: { kin } }) => {
  if (!evidence || told.question) return [];
  const theirs = evidence.best.flatMap(clausesIn);
  for (const c of clausesIn(told)) {
    const of = theirs.filter((x) => alike(x.verb.root!, c.verb.root!, kin));
    // Each of two stands on the other side.
    const turned = of.some((x) =>
      c.doers.some(
        (a) =>
          among(x.done, a, kin) &&
          !among(x.doers, a, kin) &&
          !among(c.done, a, kin) &&
          c.done.some((b) => among(x.doers, b, kin) && !among(x.done, b, kin) && !among(c.doers, b, kin)),
      ),
    );
    // Who did it there has it done to him here, by somebody who does nothing there.
    const suffers = of.some((x) => {
      const doer = x.doers[x.doers.length - 1];
      return among(c.done.slice(0, 1), doer, kin) && !among(c.doers, doer, kin) && !among(x.done, doer, kin);
    });
    if (!turned && !suffers) continue;
    if (of.some((x) => among(x.doers.slice(-1), c.doers[c.doers.length - 1], kin) && among(x.done.slice(0, 1), c.done[0], kin))) continue; // prettier-ignore
    return accuse(
      'direction',
      'unsupported',
      c.verb,
      'The source has it the other way round: who does it, and to whom.',
    );
  }
  return [];
};
