/**
 * Words that show something else than they mean: set phrases, and the patterns in which a thing stands for an idea (Lakoff
 * and Johnson, Metaphors We Live By, 1980). Each rule sees one sentence's tags. What a word can show is WordNet's to say.
 */
import { isA } from '../language/classes.ts';
import data from '../../data/figures-of-speech.json';
import { baseForm } from '../language/kin.ts';
import type { TaggedToken } from '../language/tagged.ts';
import { retagged } from './tags.ts';
import { THINGS, bodyOf, shown, shownShare, type Senses } from './senses.ts';

export interface Figure {
  start: number;
  end: number;
  text: string;
  /** What a picture search for the words would bring. */
  would: string;
  rule: string;
}
export interface FigureRule {
  id: string;
  find: (tokens: readonly TaggedToken[], about: Words) => Figure[];
}

/** From this share of its uses on a noun can be shown; under the other it names an idea. */
export const SEEN = 0.5;
const IDEA = 0.3;

/** What the rules ask of words, with memory for one sentence's sake. */
export class Words {
  /** Search words, figures and actions ask for the same tokens one after another. */
  readonly retagged = new WeakMap<readonly TaggedToken[], readonly TaggedToken[]>();
  constructor(readonly senses: Senses) {}
  noun = (word: string) => this.senses.of(word, 'n');
  share = (word: string): number | null => (bodyOf(word) ? 1 : shownShare(this.noun(word)));
  thing = (word: string): boolean => {
    const [first] = this.noun(word);
    return (this.share(word) ?? 0) >= SEEN && first !== undefined;
  };
  /** Names an idea, a state, a feeling: nothing one can point at. Unknown words name no idea. */
  idea = (word: string): boolean => {
    const share = this.share(word);
    return share !== null && share < IDEA && !MEASURED.test(word) && this.noun(word)[0]?.file !== '28';
  };
  /** A body of people that acts as one: a company, a government, a market. */
  body = (word: string): boolean => this.noun(word)[0]?.file === '14' && !isA(word, 'crowd');
  file = (word: string): string => bodyOf(word) ?? this.noun(word)[0]?.file ?? '';
}

/** Nouns of measure and sense: "heavy weight", "bright light", "sharp sound" say what they mean. */
const MEASURED =
  /^(?:temperature|colou?r|light|weight|taste|smell|sound|noise|tone|voice|surface|side|edge|corner|angle|shape|size|end|length|height|width|depth|distance|speed|level|amount|number|part|way|place|money|cash|music|work|air|space|weather|water|climate|condition|season|sleep|meal|language|word|line|point|area|day|night|spot|patch|style|look|bit|lot|kind|sort|type|form|piece|use|race|drink|food|control|hand)$/;
/** "map of the future", "house of correction": the first word is what can be seen. */
const SHOWS =
  /^(?:book|map|picture|photo|photograph|painting|drawing|film|letter|page|list|sign|symbol|statue|room|office|house|hall|school|college|university|court|ministry|museum|cent(?:er|re)|city|town|country|place|side|part|end|top|bottom|front|back|edge|rest|middle|copy|report|record|document|chart|table|poster|model|museum|department|board|body|institute|church|temple|world|land|street|line|row|piece|pile|box|bag|tool|instrument|machine|engine|device|means|system|vehicle|work|product|course|field|area|man|woman|person|child|people|student|master|doctor|god|goddess|cost|price|figure|image|clock|bridge|weapon|scene|site|home|set|unit|base|point|structure|material|plant|key|building|ship|bell|gas|volume|paper|head|foot|back|stage|grounds?|form|note|result|effect|addition|setup|duplication|interface|screen|archive|workings|variable|network|track|store|shop|station|card|package|setting|zone)$/;
/** Parts of a body that name parts of other things. "head" and "back" are dead metaphors that nobody would search by. */
const BODY_PART =
  /^(?:heart|lungs?|jaws?|face|mouth|foot|arm|arms|eye|eyes|neck|shoulder|shoulders|lip|lips|tongue|tooth|teeth|belly|bowels|throat|brow|backbone|spine|lifeblood|nerve|nerves|veins?|arter(?:y|ies)|muscle|brain|skin|womb|fist|guts?|knees?|pulse|scars?|sinews?|fingers?|feet|claws?|wings)$/;
/** Words whose thing may be the literal answer: "the problem is a bolt". */
const PLACEHOLDER =
  /^(?:problem|answer|question|reason|result|cause|trick|secret|thing|solution|key|idea|goal|aim|difference|point|exception|example|method|way|evidence|proof|clue|name|sign|symbol|rest|one|part|kind|sort|type|cure|remedy|alternative|first|second|last|exhibit|prize|gift|choice|favourite|favorite|target|title|design|work|job|subject|surprise|product|outcome|rule|project|function|purpose|use|place|term|word|species|breed)$/;

const textOf = (tokens: readonly TaggedToken[], from: number, to: number) =>
  tokens
    .slice(from, to + 1)
    .map((t, i) => (i > 0 && t.start > tokens[from + i - 1].end ? ' ' : '') + t.text)
    .join('');
const figure = (
  tokens: readonly TaggedToken[],
  from: number,
  to: number,
  would: string,
  rule: string,
): Figure => ({
  start: tokens[from].start,
  end: tokens[to].end,
  text: textOf(tokens, from, to),
  would,
  rule,
});
const an = (word: string) => (/^[aeiou]/i.test(word) ? `an ${word}` : `a ${word}`);
const nounish = (t: TaggedToken | undefined) => t?.pos === 'NOUN' || t?.pos === 'PROPN';
const word = (t: TaggedToken) => t.text.toLowerCase();
/** The noun a token is, as a dictionary lists it. */
const lemmaOf = (t: TaggedToken) => (t.pos === 'PROPN' ? word(t) : t.lemma);

/** The head of the noun phrase that begins at `from`, or -1: determiners, adjectives and nouns are passed over. */
function headFrom(tokens: readonly TaggedToken[], from: number): number {
  let head = -1;
  for (let i = from; i < tokens.length && i < from + 7; i++) {
    const t = tokens[i];
    if (nounish(t)) head = i;
    else if (head >= 0 || !['DET', 'ADJ', 'NUM', 'ADV', 'PART', 'PRON'].includes(t.pos)) break;
    if (t.pos === 'PRON' && !/^(?:his|her|its|their|our|my|your)$/.test(word(t))) break;
  }
  return head;
}
/** The head noun of the subject that ends before `verb`, or -1. */
function subjectOf(tokens: readonly TaggedToken[], verb: number): number {
  let i = verb - 1;
  while (i >= 0 && ['AUX', 'ADV', 'PART'].includes(tokens[i].pos)) i--;
  if (!nounish(tokens[i])) return -1;
  // "prices of bread soared": what "of" hangs on is the subject.
  for (let k = i; k > 1; k--) {
    if (['DET', 'ADJ', 'NOUN', 'PROPN'].includes(tokens[k].pos)) continue;
    return word(tokens[k]) === 'of' && nounish(tokens[k - 1]) ? k - 1 : i;
  }
  return i;
}

// --- set phrases ----------------------------------------------------------------------------------------------------

const IDIOMS = new Map<string, string[][]>();
for (const idiom of data.idioms.flatMap((i) => (i.includes('-') ? [i, i.replace(/-/g, ' - ')] : [i]))) {
  const parts = idiom.split(' ');
  const known = IDIOMS.get(parts[0]);
  if (known) known.push(parts);
  else IDIOMS.set(parts[0], [parts]);
}
const GAP = 3;
const is = (t: TaggedToken, part: string) =>
  t.lemma === part || word(t) === part || baseForm(word(t)) === part;
function idiomEnd(tokens: readonly TaggedToken[], at: number, parts: readonly string[]): number {
  let i = at;
  for (let p = 0; p < parts.length; p++) {
    if (parts[p] !== '*') {
      if (!tokens[i] || !is(tokens[i], parts[p])) return -1;
      i++;
      continue;
    }
    const next = parts[p + 1];
    let skipped = 0;
    while (skipped <= GAP && tokens[i + skipped] && !is(tokens[i + skipped], next)) skipped++;
    if (skipped > GAP || !tokens[i + skipped]) return -1;
    i += skipped;
  }
  return i - 1;
}

const setPhrase: FigureRule = {
  id: 'set-phrase',
  find: (tokens) => {
    const out: Figure[] = [];
    tokens.forEach((token, i) => {
      for (const first of new Set([token.lemma, word(token), baseForm(word(token))]))
        for (const parts of IDIOMS.get(first) ?? []) {
          const end = idiomEnd(tokens, i, parts);
          if (end >= i) out.push(figure(tokens, i, end, 'what the words say one by one', 'set-phrase'));
        }
    });
    return out;
  },
};

/** Ideas, feelings, states and relations: the files of what nobody can film. */
const UNSEEN_FILES = new Set(['09', '12', '24', '26', '07']);
const PLAIN_WIDER =
  /disease|disorder|illness|condition|injury|level|price|ability|property|extent|infection|failure|inflammation|ill health|distress|physical|pathology|measure|power|rate|magnitude|size|quality/;
const dictionaryPhrase: FigureRule = {
  id: 'dictionary-phrase',
  find: (tokens, about) => {
    const out: Figure[] = [];
    for (let i = 0; i < tokens.length - 1; i++)
      for (let to = Math.min(tokens.length - 1, i + 3); to > i; to--) {
        const span = tokens.slice(i, to + 1);
        if (span.some((t) => t.pos === 'PUNCT' || t.pos === 'PROPN')) continue;
        const [first, last] = [span[0], span[span.length - 1]];
        const seen = span.filter(
          (t) => t.pos === 'NOUN' && THINGS.has(about.file(t.lemma)) && about.thing(t.lemma),
        );
        if (!seen.length) continue;
        const verb = first.pos === 'VERB' && span.length > 2 && last.pos === 'NOUN';
        const key = verb
          ? [first.lemma, ...span.slice(1).map(word)].join(' ')
          : first.pos === 'NOUN' && last.pos === 'NOUN'
            ? [...span.slice(0, -1).map(word), last.lemma].join(' ')
            : '';
        if (!key) continue;
        const senses = about.senses.of(key, verb ? 'v' : 'n');
        if (
          !senses.length ||
          (!verb && !senses.every((s) => UNSEEN_FILES.has(s.file) && !PLAIN_WIDER.test(s.wider)))
        )
          continue;
        out.push(figure(tokens, i, to, an(seen[0].lemma), 'dictionary-phrase'));
        break;
      }
    return out;
  },
};

// --- a thing for an idea --------------------------------------------------------------------------------------------

const HEADS = new Set(data.metaphorHeads.words);
const TAILS = new Set(data.metaphorTails.words);
const WEATHER = new Set(data.weatherHeads.words);
const STUFF = new Set(data.weatherHeads.stuff);
/** Files of things that may stand for ideas: artifacts, bodies, objects, plants, weather, places, groups. */
const STAND_INS = new Set(['06', '08', '17', '19', '20', '05', '15', '14']);
const thingOfIdea: FigureRule = {
  id: 'thing-of-idea',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      const thing = tokens[i - 1];
      if (!thing || !(word(t) === 'of' || (word(t) === 'to' && word(thing) === 'key'))) return [];
      const head = headFrom(tokens, i + 1);
      if (head < 0 || tokens[head].pos === 'PROPN') return [];
      // "a boat of forty tonnes" is measured.
      if (tokens.slice(i + 1, head).some((x) => x.pos === 'NUM')) return [];
      const [lemma, of] = [lemmaOf(thing), tokens[head].lemma];
      const hit = figure(tokens, i - 1, head, an(lemma), 'thing-of-idea');
      const share = about.share(of) ?? 1;
      if (word(thing) === 'key') return share < SEEN ? [hit] : [];
      if (!nounish(thing) || (thing.pos === 'PROPN' && i > 1)) return [];
      // What the word can be made of: "a wall of brick", "a sea of people" is a figure, "a web of wire" is none.
      if (WEATHER.has(lemma)) return STUFF.has(of) ? [] : [hit];
      if (HEADS.has(lemma))
        return !SHOWS.test(of) &&
          !MEASURED.test(of) &&
          (share < 0.55 ||
            ['18', '14'].includes(about.file(of)) ||
            (about.file(of) === '08' && about.file(lemma) === '17'))
          ? [hit]
          : [];
      if (SHOWS.test(lemma) || !STAND_INS.has(about.file(lemma))) return [];
      return (about.share(lemma) ?? 0) >= SEEN && about.idea(of) ? [hit] : [];
    }),
};

const partOfBody: FigureRule = {
  id: 'part-of-body',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      if (t.pos !== 'NOUN' || !BODY_PART.test(word(t))) return [];
      const bodiless = (k: number) =>
        k >= 0 &&
        nounish(tokens[k]) &&
        !['18', '05', '08', ''].includes(about.file(lemmaOf(tokens[k]))) &&
        !isA(lemmaOf(tokens[k]), 'crowd');
      if (word(tokens[i + 1] ?? t) === 'of') {
        const head = headFrom(tokens, i + 2);
        if (bodiless(head)) return [figure(tokens, i, head, an(t.lemma), 'part-of-body')];
      }
      // "the city's heart", "the law's long arm".
      let k = i - 1;
      while (k > 0 && tokens[k].pos === 'ADJ') k--;
      if (/^['’]s$/.test(tokens[k]?.text ?? '') && bodiless(k - 1))
        return [figure(tokens, k - 1, i, an(t.lemma), 'part-of-body')];
      return [];
    }),
};

const SENSORY = new Set(data.sensory);
const sensedIdea: FigureRule = {
  id: 'sensed-idea',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      const next = tokens[i + 1];
      if (
        !SENSORY.has(word(t)) ||
        (t.pos === 'PROPN' && i > 0) ||
        !next ||
        !['NOUN', 'ADJ'].includes(next.pos)
      )
        return [];
      // "a cold war film": what is cold is the film's subject, and the head can be seen.
      if (tokens[i + 2]?.pos === 'NOUN' && about.thing(tokens[i + 2].lemma)) return [];
      return about.idea(next.lemma) && !MEASURED.test(next.lemma)
        ? [figure(tokens, i, i + 1, `something ${word(t)}`, 'sensed-idea')]
        : [];
    }),
};

const PHYSICAL = new Set(data.physicalVerbs);
const ideaActs: FigureRule = {
  id: 'idea-acts',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      if (t.pos !== 'VERB' || !PHYSICAL.has(t.lemma)) return [];
      const subject = subjectOf(tokens, i);
      const noun = subject >= 0 && tokens[subject].pos === 'NOUN' ? tokens[subject].lemma : '';
      const object = headFrom(tokens, i + 1);
      const acted = object >= 0 && tokens[object].pos === 'NOUN' ? tokens[object].lemma : '';
      if (noun && (about.idea(noun) || about.body(noun)))
        return [figure(tokens, subject, i, `something that ${t.lemma}s`, 'idea-acts')];
      if (acted && about.idea(acted) && !about.body(acted))
        return [figure(tokens, i, object, `something to ${t.lemma}`, 'idea-acts')];
      return [];
    }),
};

/** "the proof is a letter": what shows or records is the thing itself. */
const RECORD =
  /^(?:book|map|picture|photo|photograph|painting|drawing|film|letter|page|list|sign|symbol|report|record|document|machine|tool|system|program|package|card|file|button|box|number|person|man|woman|interface|device|screen|window|server|scheduler|member|user|author|owner|reader)$/;
const isThing: FigureRule = {
  id: 'is-a-thing',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      if (!/^(?:is|are|was|were|be|become|became|becomes|remains?|remained)$/.test(word(t))) return [];
      if (!/^(?:a|an|the|its|their|our|his|her)$/.test(word(tokens[i + 1] ?? t))) return [];
      const head = headFrom(tokens, i + 1);
      if (head < 0 || tokens[head].pos !== 'NOUN' || RECORD.test(tokens[head].lemma)) return [];
      const y = tokens[head].lemma;
      const [file, hit] = [about.file(y), figure(tokens, i + 1, head, an(y), 'is-a-thing')];
      if (!about.thing(y)) return [];
      const before = tokens[i - 1];
      if (before && /^(?:he|she|i|you)$/.test(word(before)))
        return ['05', '06', '17', '20', '27'].includes(file) ? [hit] : [];
      const subject = subjectOf(tokens, i);
      if (subject < 0) return [];
      const x = tokens[subject];
      if (about.file(x.lemma) === '18') return ['05', '06', '17', '20'].includes(file) ? [hit] : [];
      const idea = x.pos === 'NOUN' && about.idea(x.lemma) && !PLACEHOLDER.test(x.lemma);
      return idea && (THINGS.has(file) || file === '18' || file === '15') ? [hit] : [];
    }),
};

/** "the law has no teeth", "the union showed its claws": a part of a body had by what has no body. */
const bodiless: FigureRule = {
  id: 'bodiless',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      if (t.pos !== 'VERB' && t.pos !== 'AUX') return [];
      const subject = subjectOf(tokens, i);
      const head = headFrom(tokens, i + 1);
      if (subject < 0 || tokens[subject].pos !== 'NOUN') return [];
      const x = tokens[subject].lemma;
      if (!about.idea(x) && !about.body(x)) return [];
      // "the firm was on its knees".
      const owned = tokens.findIndex(
        (o, k) =>
          k > i && k < i + 5 && /^(?:its|their)$/.test(word(o)) && BODY_PART.test(word(tokens[k + 1] ?? o)),
      );
      if (owned >= 0) return [figure(tokens, i, owned + 1, an(tokens[owned + 1].lemma), 'bodiless')];
      return head >= 0 && BODY_PART.test(word(tokens[head]))
        ? [figure(tokens, i, head, an(tokens[head].lemma), 'bodiless')]
        : [];
    }),
};

const likeness: FigureRule = {
  id: 'likeness',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      const w = word(t);
      const asAs = w === 'as' && tokens[i + 1]?.pos === 'ADJ' && word(tokens[i + 2] ?? t) === 'as';
      // "no bigger than a bar of soap", "the shape of a thumb".
      const than =
        w === 'than' ||
        (w === 'of' && /^(?:shape|size|colou?r|height|weight|length|width)$/.test(word(tokens[i - 1] ?? t)));
      const from = (w === 'like' && t.pos !== 'VERB') || than ? i + 1 : asAs ? i + 3 : -1;
      if (from < 0 || !tokens[from]) return [];
      // "like honey", "as cold as ice": stuff has no article.
      const bare =
        tokens[from].pos === 'NOUN' &&
        !nounish(tokens[from + 1]) &&
        (asAs || /^[.,;:!?]?$/.test(tokens[from + 1]?.text ?? ''));
      const indefinite = /^(?:a|an)$/.test(word(tokens[from])) || bare;
      if (!indefinite) return [];
      const head = headFrom(tokens, from);
      if (
        head < 0 ||
        !about.thing(tokens[head].lemma) ||
        RECORD.test(tokens[head].lemma) ||
        !THINGS.has(about.file(tokens[head].lemma))
      )
        return [];
      const of = word(tokens[head + 1] ?? t) === 'of' ? headFrom(tokens, head + 2) : -1;
      return [figure(tokens, i, Math.max(head, of), an(tokens[head].lemma), 'likeness')];
    }),
};

/** "a debt mountain", "a crime wave": nature behind an idea. */
const NATURE = new Set(['17', '19', '05', '20']);
const ideaThing: FigureRule = {
  id: 'idea-thing',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      const next = tokens[i + 1];
      if (t.pos !== 'NOUN' || next?.pos !== 'NOUN') return [];
      const nature = NATURE.has(about.file(next.lemma)) && about.thing(next.lemma) && !SHOWS.test(next.lemma);
      if (
        !about.idea(t.lemma) ||
        !(nature || TAILS.has(next.lemma)) ||
        /^(?:agent|world|cat|point)$/.test(next.lemma)
      )
        return [];
      if (about.senses.of(`${t.lemma} ${next.lemma}`, 'n').some((s) => shown(s) >= SEEN)) return [];
      return [figure(tokens, i, i + 1, an(next.lemma), 'idea-thing')];
    }),
};

/** "My girlfriend called him the lighthouse": he is none. */
const calledThing: FigureRule = {
  id: 'called-a-thing',
  find: (tokens, about) =>
    tokens.flatMap((t, i) => {
      if (t.pos !== 'VERB' || !/^(?:call|name|dub|label)$/.test(t.lemma)) return [];
      if (!/^(?:him|her|me|them|us|you|it)$/.test(word(tokens[i + 1] ?? t))) return [];
      if (!/^(?:an?|the|their|his|her|our)$/.test(word(tokens[i + 2] ?? t))) return [];
      const head = headFrom(tokens, i + 2);
      return head >= 0 &&
        about.thing(tokens[head].lemma) &&
        THINGS.has(about.file(tokens[head].lemma)) &&
        about.file(tokens[head].lemma) !== '18'
        ? [figure(tokens, i + 2, head, an(tokens[head].lemma), 'called-a-thing')]
        : [];
    }),
};

/** Every rule, in the order in which it is asked. Ids are unique. */
export const figureRules: readonly FigureRule[] = [
  setPhrase, dictionaryPhrase, thingOfIdea, partOfBody, sensedIdea, ideaActs, isThing, bodiless, likeness, ideaThing, calledThing,
]; // prettier-ignore

/** The figures of a sentence, in order; of two that share words the longer stays. */
export function figuresIn(tagged: readonly TaggedToken[], words: Words): Figure[] {
  const tokens = retagged(tagged, words);
  const found = figureRules.flatMap((r) => r.find(tokens, words));
  const kept: Figure[] = [];
  for (const f of found.sort((a, b) => b.end - b.start - (a.end - a.start)))
    if (!kept.some((k) => f.start < k.end && f.end > k.start)) kept.push(f);
  return kept.sort((a, b) => a.start - b.start);
}
