/** Verbs that a camera sees, and who or what can be seen doing them. */
import { isA } from '../language/classes.ts';
import { baseForm } from '../language/kin.ts';
import type { TaggedToken } from '../language/tagged.ts';
import type { Words } from './figures.ts';

/** The verb a token is: "felled" is to fell, not to fall. */
export const verbOf = (t: TaggedToken, words: Words): string =>
  words.senses.of(t.lemma, 'v').length && t.text.toLowerCase() !== t.lemma ? t.lemma : baseForm(t.lemma);

/** Verbs of moving, touching, making, eating, the body, weather (WordNet's verb files). */
const SEEN_VERBS = new Set(['38', '35', '36', '34', '29', '43']);
export const verbSeen = (lemma: string, words: Words): boolean => {
  const [first] = words.senses.of(lemma, 'v');
  // Making is seen, but not what is made in the mind.
  if (/^(?:imagine|invent|create|design|compose|cause|produce|originate|develop)$/.test(lemma)) return false;
  return first !== undefined && SEEN_VERBS.has(first.file);
};

/** What hands do when they are told to, though nothing else is seen doing it: filling, cleaning, changing (WordNet's verbs of change). */
export const verbDone = (lemma: string, words: Words): boolean =>
  verbSeen(lemma, words) ||
  words.senses
    .of(lemma, 'v')
    .slice(0, FIRST_SENSES)
    .some((s) => s.file === '30' || s.file === '36');
/** "Shape it into a ball" is a verb's second sense. */
const FIRST_SENSES = 2;

/** Files of those who act by themselves: animals and people. */
const ALIVE = new Set(['05', '18']);
/** What things do by themselves, without anybody. */
const BY_ITSELF =
  /^(?:rise|fall|float|sink|lean|burn|melt|roll|turn|spin|swing|slide|flow|drip|leak|shake|sway|collapse|break|crack|burst|explode|freeze|bloom|grow|glow|shine|flash|flicker|drift|tilt|bend|boil|steam|smoke|rot|rust|tremble|vibrate|stand|hang|tick|blow|pour|sparkle|fade|tumble|bounce|rotate|crumble|wobble)$/;
/** Coming and going is seen of those alone who move. */
const MOVING = /^(?:come|go|arrive|return|leave|move|run|pass|travel|cross|land|sail|climb|descend|enter|reach|follow|approach|stop|start|race|wander|carry|bring|tow|pull|push)$/; // prettier-ignore
const CARRIED = /^(?:carry|bring|tow|pull|push|hold|lift)$/;

/** Whether what a noun names can be seen doing what a verb says. */
export function canAct(noun: string, verb: string, words: Words): boolean {
  const file = words.file(noun);
  if (ALIVE.has(file) || isA(noun, 'crowd')) return true;
  if (isA(noun, 'vehicle')) return MOVING.test(verb) || CARRIED.test(verb) || BY_ITSELF.test(verb);
  // Water, wind and fire move too.
  if (file === '19' || /^(?:water|wave|tide|river|stream|wind|fire|smoke|snow|rain)$/.test(noun))
    return BY_ITSELF.test(verb) || /^(?:run|move|rush)$/.test(verb);
  return BY_ITSELF.test(verb);
}
