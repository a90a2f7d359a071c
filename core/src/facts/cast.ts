/** People and places with what is said of each, and hard words with the source's own explanation. */
import { PATTERNS } from '../language/lexicon.ts';
import { CARDINAL_WORD, wordsValue } from '../language/numbers.ts';
import { anyNoun } from '../language/classes.ts';
import type { Fact } from './facts.ts';
import type { Spanned } from './saying.ts';

export interface CastMember {
  name: string;
  /** Other ways the source names them: "Okafor", "Mrs Brody". */
  also: readonly string[];
  type: 'person' | 'place';
  /** Facts that name them. */
  facts: readonly string[];
  /** What is said of looks, age and dress, or of how a place looks: for pictures later. The source's own words. */
  looks: readonly { fact: string; text: string }[];
  age?: number;
}

/** What people are described by. */
const ON_THEM = `(?:hair|beard|moustache|eyes|face|hands|forehead|${anyNoun('garment')})`;
const LOOKS = new RegExp(
  `\\b(?:(?:with|in|wore|wearing|dressed in|has|had)\\s+(?:(?:an?|the|his|her|their)\\s*)?(?:\\w+\\s){0,3}${ON_THEM}\\b[^,.;”]*|(?:tall|short|thin|old|young|grey-haired|bald|bearded)\\s+${anyNoun('male', 'female')}|(?:is|was|are)\\s+(?:an?\\s+)?(?:\\w+\\s){0,2}(?:narrow|wide|tall|long|small|large|dark|bright|wooden|(?:made|built) of|${anyNoun('colour')})\\b[^,.;”]*)`,
  'i',
);
const AGE = new RegExp(
  String.raw`\b(?:aged?\s(\d{1,3})|(\d{1,3})[- ]years?[- ]old|, (\d{1,3}),|(?:was|is)\s(?:about\s)?(\d{1,3}|${CARDINAL_WORD})(?=[.,]|\sthen|\swhen))`,
);
/** Looks that only people have. */
const PERSONAL = new RegExp(`\\b(?:${ON_THEM}|${anyNoun('male', 'female')})\\b`, 'i');
const TITLED = new RegExp(`^(?:${PATTERNS.title}|The)\\.?\\s+`, 'i');
const bare = (name: string) => name.replace(TITLED, '');

/** The cast, most often named first. Names that end alike are one person. */
export function castOf(facts: readonly Pick<Fact, 'id' | 'text' | 'names'>[]): CastMember[] {
  const members: {
    names: string[];
    type: 'person' | 'place';
    facts: string[];
    looks: { fact: string; text: string }[];
    age?: number;
  }[] = [];
  const find = (name: string, type: string) =>
    members.find(
      (m) =>
        m.type === type &&
        m.names.some(
          (n) =>
            n === name ||
            (type === 'person' &&
              (bare(n).split(' ').at(-1) === bare(name).split(' ').at(-1) ||
                bare(n).split(' ')[0] === bare(name))),
        ),
    );
  for (const fact of facts)
    for (const name of fact.names) {
      if (name.type !== 'person' && name.type !== 'place') continue;
      const known = find(name.text, name.type);
      const member = known ?? { names: [], type: name.type, facts: [], looks: [] };
      if (!known) members.push(member);
      if (!member.names.includes(name.text)) member.names.push(name.text);
      if (!member.facts.includes(fact.id)) member.facts.push(fact.id);
      // Only where the fact is about them: theirs is the first name in it.
      if (fact.names[0] !== name) continue;
      const looks = LOOKS.exec(fact.text)?.[0];
      if (looks && !(member.type === 'place' && PERSONAL.test(looks)))
        member.looks.push({ fact: fact.id, text: looks.trim() });
      const age = member.type === 'person' ? AGE.exec(fact.text)?.slice(1).find(Boolean) : undefined;
      if (age && member.age === undefined) member.age = wordsValue(age) ?? Number(age);
    }
  return members
    .map(({ names, ...m }) => {
      const [name, ...also] = [...names].sort((a, b) => b.length - a.length);
      return { name, also, ...m };
    })
    .sort((a, b) => b.facts.length - a.facts.length);
}

export interface Term {
  term: string;
  /** The source's own explanation. */
  says: Spanned;
  fact: string;
}

const EXPLAINED: readonly RegExp[] = [
  // "an orrery, a model of the planets," and "wedges (blocks of oak)"
  /\ban?\s([\p{Ll}-]{4,}(?:\s[\p{Ll}-]{3,}){0,2}),\s((?:an?|which is|that is|or)\s[^,.;]{6,90})(?=[,.;])/gu,
  /\b([\p{Ll}-]{4,})\s\((?:that is,?\s|or\s)?((?:an?|the)\s[^()]{6,90})\)/gu,
  // "a box of water, called a trough"
  /\b(an?\s[\p{Ll}][^,.;]{4,60}?),?\s(?:which is |is |are |was |were )?(?:called|known as)\s(?:an?\s|the\s)?[“"]?([\p{Ll}-]{3,}(?:\s[\p{Ll}-]{3,}){0,2})[”"]?(?=[,.;]|$)/gu,
];

/** Terms that the source explains itself. */
export function glossaryOf(facts: readonly Fact[]): Term[] {
  const out = new Map<string, Term>();
  for (const fact of facts)
    EXPLAINED.forEach((pattern, k) => {
      for (const m of fact.text.matchAll(pattern)) {
        const [term, says] = k === 2 ? [m[2], m[1]] : [m[1], m[2]];
        // "an engine house, a boiler and a crew" is a list.
        if (
          /\band an?\b/.test(says) ||
          /^,\s*(?:an?\s[^,]+\s)?and\b/.test(fact.text.slice(m.index + m[0].length))
        )
          continue;
        const start = m.index + m[0].indexOf(says);
        if (!out.has(term.toLowerCase()))
          out.set(term.toLowerCase(), {
            term,
            says: { text: says, start, end: start + says.length },
            fact: fact.id,
          });
      }
    });
  return [...out.values()];
}
