/** Who does what to whom, turned round: the same verb between the same two, in the other order. */
import type { Check } from './fault.ts';
import { alike, type Said, type Word } from './text.ts';
import type { Kin } from '../../language/kin.ts';

interface Clause {
  verb: Word;
  /** What stands next before the verb and next behind it, by root; passives are turned. */
  doer: string;
  done: string;
  start: number;
  end: number;
}

/** A name or a thing: its last word. */
const isNominal = (w: Word) =>
  (w.pos === 'NOUN' || w.pos === 'PROPN' || w.pos === 'PRON') && /\p{L}/u.test(w.text);
const nameOf = (w: Word) => (w.pos === 'PRON' ? `~${w.lemma}` : (w.root ?? w.text.toLowerCase()));
const REACH = 7;

function clausesIn({ words }: Said): Clause[] {
  return words.flatMap((verb, i): Clause[] => {
    if (verb.pos !== 'VERB' || !verb.root) return [];
    const before = words.slice(Math.max(0, i - REACH), i);
    const cut = before.findLastIndex((w) =>
      /^(?:[;:.]|and|but|so|because|when|while|if|that)$/i.test(w.text),
    );
    const subject = before.slice(cut + 1).find(isNominal);
    const behind = words.slice(i + 1, i + 1 + REACH);
    const stop = behind.findIndex((w) => /^(?:[;:.,]|and|but|so|because|when|while|if)$/i.test(w.text));
    const rest = stop < 0 ? behind : behind.slice(0, stop);
    const passive = before.slice(cut + 1).some((w) => w.lemma === 'be') && /(?:ed|en|t|d|n)$/.test(verb.text);
    const by = rest.findIndex((w) => /^by$/i.test(w.text));
    if (passive) {
      const agent = by < 0 ? undefined : rest.slice(by + 1).find(isNominal);
      return subject && agent ? [{ verb, doer: nameOf(agent), done: nameOf(subject), start: subject.start, end: agent.end }] : []; // prettier-ignore
    }
    const object = rest[0] && /^(?:to|from|in|at|by|with|for|of|as|into)$/i.test(rest[0].text) && rest[0].text.toLowerCase() !== 'on' ? undefined : rest.find(isNominal); // prettier-ignore
    return subject && object
      ? [{ verb, doer: nameOf(subject), done: nameOf(object), start: subject.start, end: object.end }]
      : [];
  });
}

const same = (a: string, b: string, kin: Kin | null) =>
  a === b || (!a.startsWith('~') && !b.startsWith('~') && alike(a, b, kin));

export const roles: Check = ({ told, evidence, tools }) => {
  if (!evidence || told.question) return [];
  const theirs = evidence.best.flatMap(clausesIn);
  for (const c of clausesIn(told)) {
    if (c.doer === c.done) continue;
    const of = theirs.filter((x) => alike(x.verb.root!, c.verb.root!, tools.kin));
    if (of.some((x) => same(x.doer, c.doer, tools.kin) || same(x.done, c.done, tools.kin))) continue;
    const turned = of.find((x) => same(x.doer, c.done, tools.kin) && same(x.done, c.doer, tools.kin));
    if (!turned) continue;
    return [
      {
        kind: 'direction',
        level: 'wrong',
        start: c.start,
        end: c.end,
        says: 'The source has it the other way round.',
      },
    ];
  }
  return [];
};
