/** People named in full, with who they are, where the sentence that introduces them is not told. In the source's own words. */
import { isA } from '../language/classes.ts';
import { isLegal } from '../facts/speech.ts';
import { CLOSED, PREPOSITIONS } from '../language/closed.ts';
import { PATTERNS } from '../language/lexicon.ts';
import type { SourceDocument } from '../source/document.ts';
import { words } from './tell/sentence.ts';
import { LONG_LINE_WORDS } from './units.ts';

export interface Introduction {
  /** As it is said at first mention, without a closing comma: "the skipper, Maud Ferris", "Ines Pardo, a night nurse". */
  phrase: string;
  full: string;
  /** Whether a comma closes the phrase when the sentence goes on. */
  comma: boolean;
  /** The same as a sentence, where the source tells of today. */
  says?: string;
}

const NAME = String.raw`(?:(?:Dr|Sir|Lady|Professor|Councillor|Captain|Father|Sister) )?\p{Lu}\p{Ll}+(?: \p{Lu}\.)?(?: \p{Lu}(?:\p{Ll}|[’'-]?\p{Lu})[\p{L}’'-]*)+`;
const ROLE = String.raw`[\p{Ll}][\p{Ll}’' -]{2,40}`;
const BEFORE = new RegExp(
  String.raw`\b((?:[Tt]he|[Aa]n?|[Ii]ts|[Tt]heir) ${ROLE}), (${NAME})(?=[,.;])`,
  'gu',
);
const BEHIND = new RegExp(String.raw`\b(${NAME}), ((?:an?|the) [^,.;“”]{3,60})(?=[,.;])`, 'gu');
const TITLED = new RegExp(String.raw`\b(${NAME})\b`, 'gu');
/** A number, an order or a day is nobody's name. */
const NOBODY =
  /^(?:Once|Two|Three|Last|Next) |(?:day|January|February|March|April|May|June|July|August|September|October|November|December)$/;
/** "Our Curiosity", "Besides Orb": a word of the grammar that opens a sentence is no part of the name behind it. */
const opensSentence = (name: string) => {
  const first = name.split(' ')[0].toLowerCase();
  return CLOSED.has(first) || PREPOSITIONS.has(first);
};
/** "the skipper", "a nurse at the hospital": what is said of somebody names a person; "the virus" before a name is another thing. */
const ofSomebody = (role: string) => {
  const head = role
    .split(/,| (?:of|at|in|for|from|on|with|who|to|by|and) /)[0]
    .trim()
    .split(/[ -]/)
    .at(-1)!;
  return isA(head, 'person', 'kin') || isA(head.replace(/s$/, ''), 'person', 'kin');
};
const ofNobody = (name: string) => name.replace(/[’']s?$/, '');
const last = (name: string) =>
  name
    .split(' ')
    .at(-1)!
    .replace(/[’']s$/, '');

/** Introductions by last name: with a role before the name, behind it, or the full name alone. */
export function introductionsOf(source: {
  kind: string;
  blocks: readonly Pick<SourceDocument['blocks'][number], 'type' | 'text'>[];
}): Map<string, Introduction> {
  const out = new Map<string, Introduction>();
  // A box's rows are no sentences: "Genus: Petrorhina Hale, 1841" names nobody in full.
  const texts = source.blocks.filter((b) => b.type !== 'heading' && b.type !== 'box' && !isLegal(b.text)).map((b) => b.text); // prettier-ignore
  const add = (name: string, phrase: string, comma: boolean, role?: string) => {
    if (NOBODY.test(name) || opensSentence(name) || out.has(last(name))) return;
    const says = role && source.kind === 'news' && !/\bformer\b|\blate\b/.test(role);
    out.set(last(name), { phrase, full: name, comma, ...(says ? { says: `${name} is ${role}.` } : {}) });
  };
  for (const text of texts) {
    for (const m of text.matchAll(BEFORE))
      if (!/^(?:its|their)/i.test(m[1]) && ofSomebody(m[1]))
        add(m[2], `${m[1].replace(/^An?\b/i, 'the').replace(/^The\b/, 'the')}, ${m[2]}`, true);
    for (const m of text.matchAll(BEHIND)) if (ofSomebody(m[2])) add(m[1], `${m[1]}, ${m[2]}`, true, m[2]);
  }
  // "Besides Orla Marsh": the name begins behind the word that opens the sentence.
  const own = (name: string) => (opensSentence(name) ? name.slice(name.indexOf(' ') + 1) : name);
  for (const text of texts)
    for (const m of text.matchAll(TITLED)) {
      const name = own(ofNobody(m[1]));
      if (name.includes(' ')) add(name, name, false);
    }
  return out;
}

/**
 * The lines of a script with every person introduced at first mention: "Ms Ferris" becomes "the skipper, Maud Ferris,"
 * when her full name was not told before.
 */
export function introduced<L extends { text: string }>(
  lines: readonly L[],
  people: ReadonlyMap<string, Introduction>,
): L[] {
  const told = new Set<string>();
  return lines.map((line) => {
    let { text } = line;
    for (const [name, intro] of people) {
      if (!text.includes(name) || told.has(name)) continue;
      told.add(name);
      if (text.toLowerCase().includes(intro.full.toLowerCase())) continue;
      const at = new RegExp(`(?:\\b${PATTERNS.title}\\.? )?\\b${name}\\b(?!,?\\s\\p{Lu})([’']s?)?`, 'u').exec(
        text,
      );
      // "my uncle Rudi" is Uncle Rudi already.
      const [title] = intro.full.toLowerCase().split(' ');
      if (at && text.slice(0, at.index).toLowerCase().trimEnd().split(' ').at(-1) === title) continue;
      // In a quotation, or as part of a longer name, it stays.
      if (
        !at ||
        /[“"][^”"]*$/.test(text.slice(0, at.index)) ||
        (/\p{Lu}[\p{Ll}’']+ $/u.test(text.slice(0, at.index)) && at.index > 0)
      )
        continue;
      const possessive = at[1] ?? '';
      const rest = text.slice(at.index + at[0].length);
      const phrase = possessive
        ? `${intro.full}${possessive}`
        : intro.comma && !/^[.,;:!?]/.test(rest)
          ? `${intro.phrase},`
          : intro.phrase;
      const opens = at.index === 0 ? phrase[0].toUpperCase() + phrase.slice(1) : phrase;
      const named = text.slice(0, at.index) + opens + rest;
      // What no breath carries is two sentences: who it is, then what they did.
      text =
        words(named) > LONG_LINE_WORDS && at.index === 0 && !possessive && intro.says
          ? `${intro.says} ${text}`
          : named;
    }
    return text === line.text ? line : { ...line, text };
  });
}
