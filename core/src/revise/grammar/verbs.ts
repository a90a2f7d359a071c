/** The verbs in which changes are asked for (`core/data/note-verbs.json`, made by `scripts/pack-acts.ts`), in all their forms. */
import { acts } from '../../../data/note-verbs.json';
import { inflect, type VerbForm } from '../../language/inflect.ts';
import { literal } from '../../language/literal.ts';

export type VerbClass = keyof typeof acts;

/** Words that may stand between a verb and its particle: "take the rivets line out". */
const BETWEEN = '(?: \\S+){0,12}?';
/** Behind these stands a noun: "in place of", "the cut". */
const NO_NOUN = '(?<!\\b(?:the|an?|this|that|these|those|in|of|no|his|her|its|our|your|their|my)\\s)';

const verbsOf = (name: VerbClass): string[] => acts[name].split(', ');

/** What makes a participle a wish: "should be moved", "I'd like the vote moved"; a gerund: "would you mind removing". */
const WISHED =
  '(?<=\\b(?:be|been|being|gets?|have|has|having|wants?|needs?|like|love|prefer|see|rather)\\b.*)';
const GERUND =
  '(?<=^|\\b(?:mind|consider|suggest|suggested|recommend|about|of|for|by|worth|needs?|try|than|prefer|start|keep)(?: \\p{L}+ly)? )';
/** A verb as an order, or as a wish: what was done, or is going on, asks for nothing. */
const asked = (verb: string): string => {
  const [base, ing, ...past] = ['base', 'ing', 'past', 'participle'].map((form) => literal(inflect(verb, form as VerbForm)));
  const done = [...new Set(past)].filter((p) => p !== base).join('|');
  return [base, `${GERUND}${ing}`, ...(done ? [`${WISHED}(?:${done})`, `(?:${done})(?=\\s*$|,)`] : [])].join('|');
}; // prettier-ignore

/** A pattern's source for the verbs of some classes, but for those named. */
export function verbs(names: readonly VerbClass[], but: readonly string[] = []): string {
  const all = [...new Set(names.flatMap(verbsOf))].filter((v) => !but.includes(v));
  const single = all.filter((v) => !v.includes(' '));
  const apart = all
    .filter((v) => v.includes(' '))
    .map((v) => {
      const [first, ...rest] = v.split(' ');
      return `(?:${asked(first)})${rest.length === 1 ? BETWEEN : ''} ${rest.join(' ')}`;
    });
  const parts = [...(single.length ? [`${NO_NOUN}(?:${single.map(asked).join('|')})`] : []), ...apart];
  return `(?:${parts.join('|')})`;
}

/** All verbs of change that are one word: what an order begins with; "title" is what one is about. */
export const FIRST_WORDS: readonly string[] = [...new Set((Object.keys(acts) as VerbClass[]).flatMap(verbsOf).filter((v) => !v.includes(' ') && v !== 'title'))]; // prettier-ignore
