/**
 * What to look for: words that a picture search takes literally, so only those that mean what the line means. Names first,
 * then things, then what stands for an idea; what would bring the wrong picture is named as a trap and left out.
 */
import { isA } from '../language/classes.ts';
import ideas from '../../data/ideas.json';
import { baseForm } from '../language/kin.ts';
import type { TaggedToken } from '../language/tagged.ts';
import { inflect } from '../language/inflect.ts';
import { canAct, verbOf, verbSeen } from './acts.ts';
import { SEEN, figuresIn, type Words } from './figures.ts';
import { borrowed } from './technical.ts';
import { retagged } from './tags.ts';
import { THINGS, besideOf, bodyOf, meant, type Meant } from './senses.ts';

export const SEARCH_WHYS = ['name', 'thing', 'action', 'stands for', 'about'] as const;
export interface SearchWord {
  text: string;
  why: (typeof SEARCH_WHYS)[number];
  /** The line's own words it is for. */
  of: string;
  /** The noun it turns on, as a dictionary lists it: what repeats are found by. */
  key: string;
  /** What a picture of it shows, where the words to search for say more to tell it apart. */
  shows?: string;
}
export interface Trap {
  /** The words as they stand in the scene. */
  words: string;
  /** What a search for them would bring. */
  would: string;
  why: 'figure' | 'two things';
}
export interface Found {
  search: SearchWord[];
  traps: Trap[];
  /** Spans of the text that show something else than they mean. */
  figures: readonly { start: number; end: number }[];
}

const MOST = 5;
/** Words for anything, which find anything. */
const EMPTY =
  /^(?:thing|part|unit|object|structure|whole|area|item|piece|kind|sort|type|group|number|place|side|end|top|bottom|front|back|inside|outside|edge|middle|way|line|point|spot|material|stuff|substance|system|device|equipment|artifact|body|person|one|other|somebody|someone|nobody|everybody|anybody|man|men|woman|women|people|set|pair|couple|row|lot|bit|rest|half|set|word|name|first|last|second|base|head|face|hand|pound|dollar|ton|tonne|kilogram|metre|meter|foot|inch|mile|yard|litre|gallon|percent|something|anything|nothing|everything|result|corner|opening|closing|load|bar|mother|father|sister|brother|son|daughter|aunt|uncle|wife|husband|parent|cousin|friend|boss|anyone|everyone|effect|record|count|centre|center|case|form|order|rule|upright|state|position|stance|respect|reflection|note|entry|approach|degree|scale|space|gap|view|level|range|same|own|air|passage|present|past)$/;
/** Whether a word stands for anything, and so shows nothing; people are shown by it. */
export const isEmpty = (lemma: string): boolean => EMPTY.test(lemma) && !SOMEBODY.test(lemma);
/** What is heard, felt or measured: nobody sees it, whatever stands before it. */
const UNSEEN =
  /^(?:noise|sound|silence|voice|smell|taste|effect|impact|hour|minute|day|week|month|year|age|time|condition|risk|cost|price|rate|percent|tide|low|high|treatment|training|work|job|power|speed|temperature|pressure|weight|height|depth|width|length|distance)$/;
/** People without a name: shown where nothing else is. */
const SOMEBODY = /^(?:man|woman|child|boy|girl|people|men|women|children|couple|crowd|baby|person|stranger)$/;
/** Words that say which of several: "the second floor" is not the film's "ground floor". */
const WHICH =
  /^(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|upper|lower|top|bottom|left|right|\d+(?:st|nd|rd|th))$/i;
/** Looks and stuff: the words a picture search may keep before its noun. */
const COLOUR_OR_STUFF =
  /^(?:black|white|grey|gray|red|green|blue|yellow|brown|orange|pink|purple|golden|silver|brass|iron|steel|wooden|stone|brick|glass|leather|paper|concrete|metal|copper|bronze|small|large|tall|narrow|wide|old|new|empty|broken|wet|frozen|rusty|dusty|heavy|long|short|round|square|steep|thick|thin|dark|lit|open|closed|covered|crowded|quiet|ancient|modern|medieval|victorian|wild|dead|young|elderly|bare|muddy|snowy|sunny)$/i;

export interface NamedIn {
  text: string;
  type: 'person' | 'place' | 'body' | 'other';
}

const word = (t: TaggedToken) => t.text.toLowerCase();

export interface SearchContext {
  /** The text around it. */
  beside: string;
  names: readonly NamedIn[];
  /** The film is about software. */
  technical?: boolean;
  /** What a bare noun is short for in this film: "lift" for "boat lift". */
  compounds: ReadonlyMap<string, string>;
}
const LEAST_USES = 2;
/** One name is the thing’s where it is used so many times as often as any other. */
const MORE = 1.5;
/** Two nouns that sources name one thing by, with their last noun alone elsewhere: "the lift" is the boat lift. */
export function compoundsOf(
  texts: readonly (readonly TaggedToken[])[],
  title: readonly TaggedToken[],
  sources: readonly string[],
  words: Words,
): Map<string, string> {
  const counts = new Map<string, Map<string, number>>();
  const count = (tokens: readonly TaggedToken[], by: number) => {
    for (let i = 1; i < tokens.length; i++) {
      const [a, b] = [tokens[i - 1], tokens[i]];
      if (
        a.pos !== 'NOUN' ||
        !['NOUN', 'VERB'].includes(b.pos) ||
        b.text !== b.lemma ||
        // "Court orders city to pay" is no kind of city.
        (word(a) !== a.lemma && /s$/.test(word(a))) ||
        b.start > a.end + 1 ||
        tokens[i + 1]?.pos === 'NOUN'
      )
        continue;
      const own = counts.get(b.lemma) ?? counts.set(b.lemma, new Map()).get(b.lemma)!;
      const name = `${word(a)} ${word(b)}`;
      own.set(name, (own.get(name) ?? 0) + by);
    }
  };
  for (const t of texts) count(retagged(t, words), 1);
  count(retagged(title, words), LEAST_USES);
  // Sources are not tagged again: an article, at most a name, and two words that are nouns before all else.
  for (const text of sources)
    for (const [, a, b] of text.matchAll(
      /\b(?:[Tt]he|[Aa]n?|[Tt]his)\s(?:\p{Lu}\p{Ll}+\s)?(\p{Ll}{3,})\s(\p{Ll}{3,})\b/gu,
    )) {
      // "the upper trough" is one of two, no kind of trough.
      if (!words.thing(a) || !words.noun(b).length || words.senses.of(a, 'a').length) continue;
      const own = counts.get(b) ?? counts.set(b, new Map()).get(b)!;
      own.set(`${a} ${b}`, (own.get(`${a} ${b}`) ?? 0) + 1);
    }
  const out = new Map<string, string>();
  for (const [head, names] of counts) {
    const [[name, n], second] = [...names].sort((x, y) => y[1] - x[1]);
    if (n >= LEAST_USES && n >= MORE * (second?.[1] ?? 0)) out.set(head, name);
  }
  return out;
}

/**
 * Search words of a stretch of text, best first. `beside` is the text around it, which tells a crane that lifts from one
 * that wades; `names` are the names that the sources know.
 */
export function searchWords(
  text: string,
  tagged: readonly TaggedToken[],
  words: Words,
  context: SearchContext,
): Found {
  const tokens = retagged(tagged, words);
  const figures = figuresIn(tagged, words);
  const traps: Trap[] = figures.map((f) => ({ words: f.text, would: f.would, why: 'figure' }));
  const inFigure = (t: TaggedToken) => figures.some((f) => t.start < f.end && t.end > f.start);
  const stems = besideOf(`${context.beside} ${text}`);
  // Where software is told of, a screen shows more than a picture for an idea.
  const ideaOf = (lemma: string): string | undefined =>
    // "The constructor" is no idea of ours, though every object has one.
    context.technical || !Object.hasOwn(ideas.pictures, lemma)
      ? undefined
      : (ideas.pictures as Record<string, string>)[lemma];
  const things: SearchWord[] = [];
  const stands: SearchWord[] = [];
  const somebody: SearchWord[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const t = tokens[i];
    if (t.pos !== 'NOUN' || (tokens[i + 1] && modifies(tokens, i, words) && !inFigure(tokens[i + 1])))
      continue;
    // "is stranger", "stay upright": a bare word behind such a verb says how, not what.
    const previous = tokens[i - 1];
    if (
      previous &&
      t.text === t.lemma &&
      /^(?:be|stay|become|seem|remain|look|feel|keep|grow|get|turn)$/.test(baseForm(previous.lemma))
    )
      continue;
    // "He smelled of radiators": none is there.
    if (
      previous &&
      /^(?:of|like)$/.test(previous.text) &&
      /^(?:smell|taste|sound|remind|dream|speak|think)/.test(tokens[i - 2]?.lemma ?? '')
    )
      continue;
    if (inFigure(t)) {
      // "a mountain of debt": the debt is what is meant.
      const picture = ideaOf(t.lemma);
      if (picture) stands.push({ text: picture, why: 'stands for', of: t.text, key: t.lemma });
      continue;
    }
    const computing = context.technical ? borrowed(t.lemma) : null;
    if (computing) {
      if (computing.would) traps.push({ words: t.text, would: computing.would, why: 'figure' });
      if (!stands.some((s) => s.text === computing.picture))
        stands.push({ text: computing.picture, why: 'stands for', of: t.text, key: t.lemma });
      continue;
    }
    const compound = nounBefore(tokens, i, words) || dictionaryBefore(tokens, i, words);
    const which = previous && WHICH.test(previous.text);
    const full = compound || which || UNSEEN.test(t.lemma) ? '' : (context.compounds.get(t.lemma) ?? '');
    if (full) {
      things.push({ text: full, why: 'thing', of: t.text, key: t.lemma });
      continue;
    }
    const senses = words.noun(compound ? `${compound} ${t.lemma}` : t.lemma);
    const m = meant(senses.length ? senses : words.noun(t.lemma), stems);
    // "leather case": a word of stuff before it says that it is a thing.
    const ofStuff = compound !== '' && words.file(compound) === '27';
    const body = bodyOf(t.lemma);
    // "fish pass", "tram line": of what stands before it one kind of it can be seen.
    const kindOf =
      compound !== '' &&
      words.thing(compound) &&
      words.noun(t.lemma).some((s) => THINGS.has(s.file) || s.file === '15');
    const known = m && (body !== null || kindOf || m.shown >= SEEN - (compound ? 0.2 : 0) || ofStuff);
    if (SOMEBODY.test(t.lemma) && !compound) {
      const told = wearing(tokens, i);
      if (told) {
        things.push({ text: told.text, why: 'thing', of: t.text, key: t.lemma });
        i = told.last;
        continue;
      }
      const looks = previous?.pos === 'ADJ' && text[previous.start - 1] !== '-' ? `${word(previous)} ` : '';
      somebody.push({ text: `${looks}${word(t)}`, why: 'thing', of: t.text, key: t.lemma });
    } else if (
      known &&
      !UNSEEN.test(t.lemma) &&
      (!EMPTY.test(t.lemma) || compound) &&
      (ofStuff || kindOf || body !== null || filmable(m, t.lemma))
    ) {
      const before = tokens[i - (compound ? compound.split(' ').length : 0) - 1];
      const adjective =
        before?.pos === 'ADJ' &&
        COLOUR_OR_STUFF.test(before.text) &&
        !inFigure(before) &&
        // "a 58-year-old engineer" is no old engineer.
        text[before.start - 1] !== '-'
          ? word(before)
          : '';
      const base = [which && !compound ? word(previous) : adjective, compound, word(t)]
        .filter(Boolean)
        .join(' ');
      let query = base;
      if (m.rival && !compound) {
        const help = helper(tokens, i, words);
        traps.push({ words: t.text, would: `also ${m.rival.wider || 'something else'}`, why: 'two things' });
        if (help) query = `${base} ${help}`;
      }
      things.push({
        text: query,
        why: 'thing',
        of: t.text,
        key: t.lemma,
        ...(query === base ? {} : { shows: base }),
      });
    } else {
      const picture = ideaOf(t.lemma);
      if (picture && !stands.some((s) => s.text === picture))
        stands.push({ text: picture, why: 'stands for', of: t.text, key: t.lemma });
    }
  }
  // "the Great Fire of Vellmar" is a fire.
  for (const n of namesHere(text, context.names)) {
    const head = /^(?:\p{Lu}\p{L}+ )?(\p{Lu}\p{Ll}+) of /u.exec(n.text)?.[1].toLowerCase();
    if (
      head &&
      (words.share(head) ?? 0) >= NAMED_SEEN &&
      !EMPTY.test(head) &&
      !things.some((w) => w.key === head)
    )
      things.unshift({ text: head, why: 'thing', of: n.text, key: head });
  }
  const named = namesHere(text, context.names).map((n): SearchWord => ({
    text: n.text,
    why: 'name',
    of: n.text,
    key: n.text.toLowerCase(),
  }));
  const acted = actionOf(tokens, words, inFigure);
  // A body ("the council") and an unknown name find nothing by themselves as surely as a place does.
  const places = named.filter((n) => typeOf(n.text, context.names) === 'place');
  const others = named.filter((n) => !places.includes(n));
  return {
    search: unique([
      ...places,
      ...(things.length ? things : somebody).slice(0, 3),
      ...acted,
      ...others,
      ...stands.slice(0, things.length || somebody.length ? 0 : 2),
    ]).slice(0, MOST),
    traps,
    figures,
  };
}

/** A name says that its noun is a thing: less of its uses need to be one. */
const NAMED_SEEN = 0.3;
/** A body that is mostly seen as something else: a hive. */
const MOSTLY_THING = 0.6;
const filmable = ({ sense: { file }, shown }: Meant, lemma: string) =>
  THINGS.has(file) ||
  ['15', '18', '19', '11', '04'].includes(file) ||
  (file === '14' && (isA(lemma, 'crowd') || shown > MOSTLY_THING));

const typeOf = (name: string, names: readonly NamedIn[]) =>
  names.find((n) => n.text === name)?.type ?? 'other';

/**
 * Whether a noun makes one thing with the noun behind it: "clock" in "clock shop". One in the plural does so only in the
 * dictionary: in "Cormorants nest in the lantern" the second word is a verb that was taken for a noun.
 */
function modifies(tokens: readonly TaggedToken[], i: number, words: Words): boolean {
  const [t, next] = [tokens[i], tokens[i + 1]];
  if (t?.pos !== 'NOUN' || next?.pos !== 'NOUN' || next.start > t.end + 1) return false;
  const plural = word(t) !== t.lemma && /s$/.test(word(t));
  return !plural || words.noun(`${word(t)} ${next.lemma}`).length > 0;
}
const DAY_PART = /^(?:morning|afternoon|evening|night)$/;
/** Nouns straight before, which make one thing with it. */
function nounBefore(tokens: readonly TaggedToken[], i: number, words: Words): string {
  const out: string[] = [];
  for (let k = i - 1; k >= 0 && modifies(tokens, k, words) && out.length < 2; k--) {
    // "On Thursday evening residents hung": the evening is Thursday's.
    if (DAY_PART.test(word(tokens[k])) && /day$|^(?:that|this|last)$/i.test(tokens[k - 1]?.text ?? '')) break;
    // "silver-line moth"
    const hyphen = tokens[k - 1]?.text === '-' && k > 1 ? `${word(tokens[k - 2])}-` : '';
    out.unshift(`${hyphen}${word(tokens[k])}`);
  }
  return out.join(' ');
}

/** A word before that makes one entry of the dictionary with it: "magnifying" in "magnifying glass". */
function dictionaryBefore(tokens: readonly TaggedToken[], i: number, words: Words): string {
  const before = tokens[i - 1];
  if (!before || !['ADJ', 'VERB', 'NOUN'].includes(before.pos) || before.end + 1 < tokens[i].start) return '';
  // "a 58-year-old man" is no old man.
  if (tokens[i - 2]?.text === '-' || before.text.includes('-')) return '';
  return words.noun(`${word(before)} ${tokens[i].lemma}`).length ? word(before) : '';
}

/** Files of places and natural things: where something is tells best what it is. */
const PLACES = new Set(['15', '17']);
/** What lies anywhere tells nothing. */
const NO_HELP =
  /^(?:ground|floor|leak|hole|gap|crack|earth|world|land|sky|sun|moon|star|line|spot|rock|stone|foot|water)$/;
/** "men in orange jackets", "an old woman with a stick": somebody is known by what is worn or held. */
function wearing(tokens: readonly TaggedToken[], i: number): { text: string; last: number } | null {
  if (!/^(?:in|with)$/.test(tokens[i + 1]?.text ?? '')) return null;
  let k = i + 2;
  if (/^(?:an?|the|his|her|their)$/.test(tokens[k]?.text ?? '')) k++;
  const from = k;
  while (['ADJ', 'NOUN'].includes(tokens[k]?.pos ?? '')) k++;
  if (
    k === from ||
    tokens[k - 1].pos !== 'NOUN' ||
    k - from > 3 ||
    !(isA(tokens[k - 1].lemma, 'garment') || CARRIED.test(tokens[k - 1].lemma))
  )
    return null;
  const start = tokens[i - 1]?.pos === 'ADJ' ? i - 1 : i;
  const said = tokens.slice(start, k).filter((t) => !/^(?:the|his|her|their)$/.test(t.text));
  return { text: said.map(word).join(' '), last: k - 1 };
}
/** What people wear besides clothes, carry and lead. */
const CARRIED =
  /^(?:glass|beard|moustache|hair|stick|umbrella|basket|bag|lantern|torch|rifle|gun|camera|dog|child|baby|pram|bicycle|suitcase)$/;

/** A place nearby that tells a word of two meanings apart. */
function helper(tokens: readonly TaggedToken[], i: number, words: Words): string {
  const near = [...tokens]
    .map((t, k) => ({ t, k }))
    .filter(
      ({ t, k }) =>
        k !== i &&
        t.pos === 'NOUN' &&
        !EMPTY.test(t.lemma) &&
        !NO_HELP.test(t.lemma) &&
        PLACES.has(words.file(t.lemma)) &&
        (words.share(t.lemma) ?? 0) >= SEEN,
    )
    .sort((a, b) => Math.abs(a.k - i) - Math.abs(b.k - i))[0];
  return near?.t.lemma ?? '';
}

function namesHere(text: string, names: readonly NamedIn[]): NamedIn[] {
  const out: NamedIn[] = [];
  for (const n of [...names].sort((a, b) => b.text.length - a.text.length)) {
    const at = text.indexOf(n.text);
    if (at < 0 || /[\p{L}]/u.test(text[at - 1] ?? '') || /[\p{L}]/u.test(text[at + n.text.length] ?? ''))
      continue;
    // "Vey" is Ambrose Vey.
    const whole =
      names.find((o) => o.type === n.type && n.type === 'person' && o.text.endsWith(` ${n.text}`)) ?? n;
    if (!out.some((o) => o.text.includes(n.text))) out.push(whole);
  }
  return out;
}

const NO_ACTION =
  /^(?:be|have|do|go|come|get|take|give|make|put|keep|let|become|stay|leave|set|turn|end|begin|start|stop|use|happen|work|find|lie|stand|hold|cover|produce|cause|change|join|meet|move|need|create|connect|pass|bring|send|fit|reach|follow|add|close|open|rest|carry|reduce|raise|lift)$/;

/** Who or what can be seen doing something, in one query: "crowd walking", "boat rising". */
function actionOf(
  tokens: readonly TaggedToken[],
  words: Words,
  skip: (t: TaggedToken) => boolean,
): SearchWord[] {
  for (let i = 1; i < tokens.length; i++) {
    const t = tokens[i];
    const verb = verbOf(t, words);
    if (t.pos !== 'VERB' || skip(t) || NO_ACTION.test(verb) || !verbSeen(verb, words)) continue;
    const subject = [...tokens.slice(0, i)].reverse().find((x) => x.pos === 'NOUN' || x.pos === 'VERB');
    if (!subject || subject.pos !== 'NOUN' || skip(subject) || EMPTY.test(subject.lemma)) continue;
    // "a means of passing boats that consumes water": the boats don't.
    const between = tokens.slice(tokens.indexOf(subject) + 1, i);
    if (between.some((x) => x.pos !== 'AUX' && x.pos !== 'ADV')) continue;
    // "was built": what is done to it, nobody sees it doing.
    if (
      tokens
        .slice(0, i)
        .reverse()
        .find((x) => x.pos === 'AUX' || x.pos === 'NOUN')?.pos === 'AUX'
    )
      continue;
    if ((words.share(subject.lemma) ?? 0) < SEEN || !canAct(subject.lemma, verb, words)) continue;
    return [
      {
        text: `${subject.lemma} ${inflect(verb, 'ing')}`,
        why: 'action',
        of: `${subject.text} ${t.text}`,
        key: subject.lemma,
      },
    ];
  }
  return [];
}

function unique(list: readonly SearchWord[]): SearchWord[] {
  const out: SearchWord[] = [];
  for (const w of list)
    if (
      !out.some((o) => o.text.toLowerCase() === w.text.toLowerCase() || (o.key === w.key && o.why === w.why))
    )
      out.push(w);
  return out;
}
