/** What a picture shows: the words of its own scene, or what they lean on, told as a subject. */
import type { Tagger, TaggedToken } from '../language/tagged.ts';
import type { PlainSection } from '../script/data.ts';
import type { Action } from './action.ts';
import type { Scene } from './breaks.ts';
import { inFull, type CastEntry } from './cast.ts';
import type { Words } from './figures.ts';
import { outsideQuotes } from './looks.ts';
import { searchWords, type SearchWord } from './search.ts';

/** A clause that goes on with the subject of the one before: "and was used until 1971", "ran up the stairs". */
export function goesOn(scene: Scene, tokens: readonly TaggedToken[]): boolean {
  if (scene.why !== 'clause' && scene.why !== 'phrase') return false;
  const at = tokens.findIndex((t) => !['CCONJ', 'ADV', 'PUNCT'].includes(t.pos));
  return at >= 0 && ['VERB', 'AUX'].includes(tokens[at].pos);
}

/** Words that lean on what was shown before: the rest of a clause, "it", "they". */
export const leaning = (text: string, scene: Scene): boolean =>
  ((scene.why === 'clause' || scene.why === 'phrase') &&
    /\b(?:it|they|them|its|their)\b/i.test(outsideQuotes(text))) ||
  /^(?:It|They|This|That|These|Those|(?:So|But|And|Then|When|Where|If|As) (?:it|they))\b/.test(text);

/** The things that a sentence is about: those before its verb. */
export function topicOf(
  things: readonly SearchWord[],
  text: string,
  tokens: readonly TaggedToken[],
): SearchWord[] {
  const verb = tokens.findIndex((t, i) => i > 0 && (t.pos === 'AUX' || t.pos === 'VERB'));
  const end = verb < 0 ? text.length : tokens[verb].start;
  return things.filter((w) => {
    const at = text.indexOf(w.of);
    return at >= 0 && at < end;
  });
}

/** Things that have not been shown yet come first: a film of one boat is as dull as a talk about one. */
export function freshFirst(
  search: readonly SearchWord[],
  film: { hasShown: (key: string) => boolean },
): SearchWord[] {
  const things = search.filter((w) => w.why === 'thing');
  if (things.length < 2 || !film.hasShown(things[0].key)) return [...search];
  const fresh = things.find((w) => !film.hasShown(w.key));
  if (!fresh) return [...search];
  const ordered = [fresh, ...things.filter((w) => w !== fresh)];
  let k = 0;
  return search.map((w) => (w.why === 'thing' ? ordered[k++] : w));
}

/** What has no article though it is one: stuff, weather, food of which one eats some. */
const NO_ARTICLE = new Set(['27', '13']);
const COUNTED =
  /^(?:gale|storm|flood|flame|wave|apple|plum|egg|potato|carrot|cake|sandwich|loaf|banana|orange|lemon|pie|biscuit|onion|tomato|pizza|bean|nut|berry|pear|cherry)$/;
const MASS = /^(?:fire|smoke|fog|mist|snow|rain|wind|light|frost|lightning|thunder|electricity|grout|silicone|furniture|clothing|luggage|traffic|equipment|machinery|jewellery|pottery|scenery|foliage|grass|hair|glass|water|music|cash|money|land|ice|grain|dough|sourdough|yeast|seed|flour|wheat|corn|rice|mix|moss|bark|feed|mud|clay|chalk|dust|sawdust|coal|timber)$/; // prettier-ignore
/** Whether words say that a thing is one: "a damp sponge", "another box"; of "a glass of water" the water is not. */
function isOne(of: string, said: string): boolean {
  const at = said.indexOf(of);
  if (at < 0) return false;
  const [before, last] = [
    '',
    ...said
      .slice(Math.max(0, at - 40), at)
      .trim()
      .split(/\s+/),
  ].slice(-2);
  return ONE.test(last) || (ONE.test(before) && last !== 'of');
}
const ONE = /^(?:an?|another|each|every|one)$/i;

/** "a footbridge", "volunteers", "water": one of what can be counted has its article. */
export function withArticle({ text: asked, shows, key, of }: SearchWord, words: Words, said = ''): string {
  const text = shows ?? asked;
  const last = text.split(' ').at(-1)!;
  // The key is the word as a dictionary lists it.
  const plural =
    last !== key.split(' ').at(-1) && /(?:s|men|children|people|feet|teeth|mice|geese)$/.test(last);
  const one = isOne(of, said);
  // A magnifying glass is no glass.
  const thing = words.noun(text).length ? text : key;
  const stuff = MASS.test(thing) || (!one && !COUNTED.test(thing) && NO_ARTICLE.has(words.file(thing)));
  if (
    /^\p{Lu}/u.test(text) ||
    plural ||
    stuff ||
    /^(?:people|men|women|children)$/.test(last) ||
    /^(?:the|an?)\s/.test(text)
  )
    return text;
  if (
    /^(?:first|second|third|fourth|fifth|sixth|last|top|bottom|upper|lower|left|right|\d+(?:st|nd|rd|th))\s/.test(
      text,
    )
  )
    return `the ${text}`;
  return `${/^(?!uni|use|uti|eu|one\b)[aeiou]/i.test(text) ? 'an' : 'a'} ${text}`;
}

/** Whether a noun is said of one of those shown, or seen in the looks: "the chief engineer, Tomas Brandt". */
function isThem(w: SearchWord, text: string, shown: readonly CastEntry[], words: Words): boolean {
  if (shown.some((c) => c.name === w.of || inFull(c).includes(w.shows ?? w.text))) return true;
  // Their own hip is no thing beside them.
  if (words.file(w.key) === '08') return true;
  if (words.file(w.key) !== '18') return false;
  return shown.some((c) => {
    const name = text.indexOf(c.name.split(' ').at(-1)!);
    const noun = text.indexOf(w.of);
    if (name < 0 || noun < 0) return false;
    const between = text.slice(Math.min(name, noun), Math.max(name, noun));
    return (
      between.split(/\s+/).length <= 6 &&
      (/\b(?:is|was) an?\b/.test(between) || !/\b(?:and|to|with|for|told|asked|met|saw)\b/.test(between))
    );
  });
}

export function subjectOf(
  search: readonly SearchWord[],
  action: Action | null,
  shown: readonly CastEntry[],
  text: string,
  words: Words,
): string {
  const people = shown.map((c) => c.name).join(' and ');
  if (action?.theirs) return action.text;
  if (action) return people && !action.text.includes(people) ? `${people}; ${action.text}` : action.text;
  const things = search
    .filter((w) => w.why !== 'name' && w.why !== 'action' && !isThem(w, text, shown, words))
    // What somebody speaks of is not beside them.
    .filter((w) => !people || !text.includes(w.of) || outsideQuotes(text).includes(w.of))
    .filter((w, i, all) => i < 2 && (i === 0 || w.why !== 'stands for' || all[0].why !== 'stands for'))
    .map((w) => (w.why === 'stands for' ? w.text : withArticle(w, words, text)));
  if (people) return [people, ...things].join(', ');
  return things.join(' and ') || (search[0]?.text ?? '');
}

/** A scene's own words with what they are about; else what its section or the film's title shows. */
export function withAbout(
  found: readonly SearchWord[],
  about: readonly SearchWord[],
  home: PlainSection,
  input: { title: string; sections: readonly PlainSection[] },
  words: Words,
  tagger: Tagger,
): SearchWord[] {
  const own = found.filter((w) => w.why !== 'stands for');
  const seen = own.filter((w) => w.why !== 'name');
  const kept = about
    .filter((a) => !own.some((w) => w.key === a.key))
    .map((w): SearchWord => ({ ...w, why: 'about' }))
    .slice(0, 2);
  if (kept.length || seen.length)
    return [
      ...own.filter((w) => w.why === 'name'),
      ...seen,
      ...kept,
      ...(kept.length ? [] : found.filter((w) => w.why === 'stands for')),
    ].slice(0, 5);
  // A name that is nothing else is what is seen: a ship, an inn.
  if (found.some((w) => w.why === 'stands for') || own.length) return [...found];
  const next = input.sections[input.sections.indexOf(home) + 1];
  const places = [home, next].flatMap((x) => (x ? [x.lines.map((l) => l.text).join(' ')] : []));
  // Capitals of a title would be taken for names.
  for (const text of [...places, input.title.toLowerCase()]) {
    const more = searchWords(text, tagger(text), words, {
      beside: text,
      names: [],
      compounds: new Map(),
    }).search.filter((w) => w.why === 'thing');
    if (more.length) return [...more.slice(0, 2).map((w): SearchWord => ({ ...w, why: 'about' }))];
  }
  return [...found];
}
