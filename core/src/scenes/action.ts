/** What somebody or something can be seen doing, told as a picture has it. */
import { inflect } from '../language/inflect.ts';
import type { TaggedToken } from '../language/tagged.ts';
import { canAct, verbDone, verbOf, verbSeen } from './acts.ts';
import { SEEN, type Words } from './figures.ts';
import { isEmpty } from './search.ts';
import { clauseStarts, orderAt, retagged } from './tags.ts';

const word = (t: TaggedToken) => t.text.toLowerCase();

/** What people in the picture do: the clause's own action, speaking where they are quoted, else nothing. */
export function peopleDo(text: string, action: Action | null, shown: boolean): string {
  if (shown && /[“"]|\b(?:said|says|told|asked|wrote)\b/.test(text)) return 'speaking';
  return action?.ing || (shown ? 'still' : 'none');
}

export interface Action {
  text: string;
  /** What people do in it; empty where a thing acts. */
  ing: string;
  /** Those in the picture do it themselves: `text` begins with their names. */
  theirs: boolean;
}
/** Those in the picture: how the one who says "I" is called, and the others; whether a clause without a subject goes on with them. */
export interface Doers {
  narrator: string;
  others: readonly string[];
  /** Who "they" are where nobody is named: "masons". */
  they: string;
  /** What "it" is that somebody is told to do something to: "the dough". */
  it: string;
  goesOn: boolean;
}
const NOT_SEEN = /^(?:not|n['’]t|never|hardly|could|would|should|might|may|will|can|must|to|’ll|'ll)$/i;
const HELPS = ['AUX', 'ADV', 'PART'];
const PARTICLE = /^(?:down|up|away|out|off|over|along|across|back|sideways|forward|ashore|aground|round)$/;

/** The first clause with something to see in it, as a picture has it: "a boat rising into the upper trough". */
export function actionIn(
  tagged: readonly TaggedToken[],
  words: Words,
  figures: readonly { start: number; end: number }[],
  doers: Doers,
): Action | null {
  const tokens = retagged(tagged, words);
  const inFigure = (t: TaggedToken) => figures.some((f) => t.start < f.end && t.end > f.start);
  const told = orderIn(tokens, words, inFigure, doers.it);
  if (told) return told;
  for (let i = 0; i < tokens.length; i++) {
    const verb = tokens[i];
    const lemma = verbOf(verb, words);
    if (verb.pos !== 'VERB' || inFigure(verb) || !verbSeen(lemma, words)) continue;
    // "turned out to be" shows nothing.
    if (lemma === 'turn' && /^(?:out|to|into|dark|cold)$/.test(tokens[i + 1]?.text ?? '')) continue;
    const helped = helpersBefore(tokens, i);
    if (!helped) continue;
    const { from, passive } = helped;
    const object = objectAfter(tokens, i, words, inFigure);
    // What it is done to can't be seen, so neither can the doing.
    if (!object && !passive && /^(?:DET|PRON|ADJ|NUM|NOUN|PROPN)$/.test(tokens[i + 1]?.pos ?? '')) continue;
    const after = tokens[i + 1] && PARTICLE.test(word(tokens[i + 1])) && !object ? word(tokens[i + 1]) : '';
    // "put down her fork": where the fork can't be told, the putting can't.
    if (after && /^(?:DET|PRON|NUM|NOUN|PROPN)$/.test(tokens[i + 2]?.pos ?? '')) continue;
    const ing = passive ? `being ${word(verb)}` : inflect(lemma, 'ing');
    const acted = [ing, after, object].filter(Boolean).join(' ');
    const who = byThose(tokens, from, doers);
    if (who) {
      if (passive || /^(?:go|come|get|leave)$/.test(lemma)) continue;
      // "set so that they touched nothing": of what was set nothing is told.
      const next = tokens[i + 1];
      if (
        !object &&
        !after &&
        next &&
        !['PUNCT', 'ADP', 'CCONJ'].includes(next.pos) &&
        !/ly$/.test(next.text)
      )
        continue;
      const own = acted.replace(
        /\bmy\b/g,
        who === doers.narrator ? 'their own' : `${doers.narrator || 'the narrator'}’s`,
      );
      return { text: `${who} ${own}`, ing: own, theirs: true };
    }
    if (from < 0 || (passive && NOTHING_DONE.test(lemma))) continue;
    const subject = subjectBefore(tokens, from);
    if (!subject || inFigure(tokens[subject.head])) continue;
    const head = tokens[subject.head];
    if (!passive && word(verb) === verb.lemma && head.text === head.lemma) continue;
    // "a box wrapped in paper": it does nothing.
    if (!passive && from === i - 1 && /(?:ed|en|t)$/.test(verb.text) && tokens[i + 1]?.pos === 'ADP' && !canAct(head.lemma, lemma, words)) continue; // prettier-ignore
    if ((words.share(head.lemma) ?? 0) < SEEN || isEmpty(head.lemma)) continue;
    if (!passive && !canAct(head.lemma, lemma, words)) continue;
    const people = words.file(head.lemma) === '18' || /^(?:people|crowd)$/.test(head.lemma);
    const named = joinWords(tokens.slice(subject.start, subject.end + 1)).replace(
      /^(?:the|this|that|these|those)\s/i,
      'the ',
    );
    return {
      text: `${named.charAt(0).toLowerCase()}${named.slice(1)} ${acted}`,
      ing: people ? acted : '',
      theirs: false,
    };
  }
  return null;
}

/** Done to a thing, it shows nothing: "the doors are left". */
const NOTHING_DONE =
  /^(?:leave|keep|let|make|use|give|take|find|see|get|put|have|set|hold|need|lose|stop|start|call|lead)$/;
/** What hands are told that shows no hands at work. */
const NO_HANDS =
  /^(?:start|begin|leave|let|keep|use|wait|make|do|be|have|get|give|take|see|look|go|come|try|remember|check|find|choose|read|allow|avoid|wear|need|want|stop|stay|buy|wash)$/;

/** What somebody is told to do, seen as hands that do it: "hands mixing the grout with water". */
function orderIn(
  tokens: readonly TaggedToken[],
  words: Words,
  inFigure: (t: TaggedToken) => boolean,
  it: string,
): Action | null {
  for (const from of clauseStarts(tokens)) {
    const i = orderAt(tokens, words, from);
    if (i < 0 || inFigure(tokens[i]) || NO_HANDS.test(tokens[i].lemma) || !verbDone(tokens[i].lemma, words))
      continue;
    const particle = tokens[i + 1] && PARTICLE.test(word(tokens[i + 1])) ? 1 : 0;
    const object = objectAfter(tokens, i + particle, words, inFigure, it).replace(/\byour /g, '');
    // "hands wetting hands".
    if (!object || /\bhands?\b/.test(object)) continue;
    const acted = [inflect(tokens[i].lemma, 'ing'), particle ? word(tokens[i + 1]) : '', object]
      .filter(Boolean)
      .join(' ');
    return { text: `hands ${acted}`, ing: acted, theirs: false };
  }
  return null;
}

/** Where the subject of a verb ends, past its helping verbs; null where what it says does not happen. */
function helpersBefore(
  tokens: readonly TaggedToken[],
  verb: number,
): { from: number; passive: boolean } | null {
  let passive = false;
  let from = verb - 1;
  for (; from >= 0 && HELPS.includes(tokens[from].pos); from--) {
    if (NOT_SEEN.test(tokens[from].text)) return null;
    passive ||=
      /^(?:is|are|was|were|been|be)$/i.test(tokens[from].text) &&
      /(?:ed|en|t|n)$/.test(tokens[verb].text) &&
      !/ing$/.test(tokens[verb].text);
  }
  return { from, passive };
}

/** Those in the picture who do it: by name, as "she" or "I", or in a clause that goes on without naming anybody. */
function byThose(
  tokens: readonly TaggedToken[],
  from: number,
  { narrator, others, they, goesOn }: Doers,
): string {
  const all = [...(narrator ? [narrator] : []), ...others].join(' and ');
  const subject = tokens[from];
  if (!subject || (from === 0 && subject.pos === 'CCONJ')) return goesOn ? all || they : '';
  if (subject.pos === 'PROPN') return others.find((o) => o.split(' ').includes(subject.text)) ?? '';
  // "My cousin laughed".
  if (subject.pos === 'NOUN' && /^my$/i.test(tokens[from - 1]?.text ?? ''))
    return others.find((o) => o === `the narrator’s ${word(subject)}`) ?? '';
  if (/^I$/.test(subject.text)) return narrator;
  if (/^we$/i.test(subject.text)) return all;
  if (/^they$/i.test(subject.text) && !others.length) return they;
  return /^(?:he|she|they)$/i.test(subject.text) ? others.join(' and ') : '';
}

/** The noun phrase that ends at `at`; of "a barrack on iron legs" the barrack is its head. */
function subjectBefore(
  tokens: readonly TaggedToken[],
  at: number,
): { start: number; head: number; end: number } | null {
  if (tokens[at].pos !== 'NOUN') return null;
  let head = at;
  let start = phraseStart(tokens, at);
  // What hangs on a preposition is told of the noun before it.
  while (start > 0 && tokens[start - 1].pos === 'ADP') {
    const before = start - 2;
    if (tokens[before]?.pos !== 'NOUN') return null;
    head = before;
    start = phraseStart(tokens, before);
  }
  // "a baker whose shop stands", "where the ropewalk had stood": said by the way.
  if (
    /^(?:whose|where|which|that|who)$/i.test(tokens[start]?.text ?? '') ||
    /^(?:whose|where|which|that|who)$/i.test(tokens[start - 1]?.text ?? '')
  )
    return null;
  return { start, head, end: at };
}
function phraseStart(tokens: readonly TaggedToken[], at: number): number {
  let start = at;
  while (
    start > 0 &&
    ['ADJ', 'NOUN', 'DET', 'NUM', 'PROPN'].includes(tokens[start - 1].pos) &&
    // "Last Tuesday a woman came in".
    !/day$/.test(tokens[start - 1].text) &&
    // "Every spring the miller": an article begins the phrase.
    tokens[start].pos !== 'DET' &&
    !/^whose$/i.test(tokens[start].text)
  )
    start--;
  return start;
}

const QUANTITY = /^(?:row|pair|group|couple|set|pile|stack|box|bag|bunch|line|number|lot|piece|slice|cup|glass|bottle|bucket|gram|kilogram|litre|metre|spoonful|handful)$/; // prettier-ignore
/** What it is done to, up to the last noun that can be seen: "the old grout" of "to a depth of three millimetres". */
function objectAfter(
  tokens: readonly TaggedToken[],
  verb: number,
  words: Words,
  inFigure: (t: TaggedToken) => boolean,
  it = '',
): string {
  if (it && /^(?:it|them)$/i.test(tokens[verb + 1]?.text ?? ''))
    return [it, objectAfter(tokens, verb + 1, words, inFigure)].filter(Boolean).join(' ');
  let end = -1;
  for (let k = verb + 1; k < tokens.length && k < verb + 10; k++) {
    const t = tokens[k];
    if (['VERB', 'AUX', 'SCONJ', 'CCONJ', 'PUNCT'].includes(t.pos) || inFigure(t)) break;
    if (t.pos === 'PRON' && !/^(?:his|her|its|their|my|our|your)$/.test(word(t))) break;
    if ((t.pos !== 'NOUN' && t.pos !== 'PROPN') || tokens[k + 1]?.pos === 'NOUN') continue;
    // "a row of houses": so many of what can be seen.
    if (QUANTITY.test(t.lemma) && tokens[k + 1]?.text === 'of') continue;
    if (t.pos === 'NOUN' && (words.share(t.lemma) ?? 0) < SEEN) break;
    end = k;
  }
  return end < 0 ? '' : joinWords(tokens.slice(verb + 1, end + 1));
}
const joinWords = (tokens: readonly TaggedToken[]) =>
  tokens.map((t, i) => (i > 0 && t.start > tokens[i - 1].end ? ' ' : '') + t.text).join('');
