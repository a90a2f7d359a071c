/** Forms of English verbs: which form a word is, and a verb in the form of another. */
import verbs from '../../data/verbs.json';

export const VERB_FORMS = ['base', 'third', 'past', 'participle', 'ing'] as const;
export type VerbForm = (typeof VERB_FORMS)[number];

const IRREGULAR = new Map(
  verbs.irregular.map((row) => {
    const [base, past, participle] = row.split(' ');
    return [base, { past, participle }] as const;
  }),
);
/** A last letter is doubled behind one short vowel that is stressed: all of one syllable, and those of more listed here. */
const SHORT = /^(?:[^aeiou]*|[^aeiou]*qu)[aeiou][^aeiouwxy]$/;
const DOUBLED =
  /^(?:begin|upset|regret|control|travel|label|fuel|forget|patrol|equip|unzip|reset)$|[^f]fer$|..mit$|.cur$|..pel$/;
const doubles = (lemma: string) => SHORT.test(lemma) || DOUBLED.test(lemma);
const vowelY = /[aeiou]y$/;

/** A verb in a form; the first word of a phrasal verb is inflected ("go on" → "went on"). "was" is the past of "be": its number is the caller's. */
export function inflect(verb: string, form: VerbForm): string {
  const [lemma, ...particles] = verb.split(' ');
  return [one(lemma, form), ...particles].join(' ');
}

function one(lemma: string, form: VerbForm): string {
  if (form === 'base') return lemma;
  if (lemma === 'be' && form === 'third') return 'is';
  if (lemma === 'have' && form === 'third') return 'has';
  if (form === 'third') {
    if (/(?:s|sh|ch|x|z|o)$/.test(lemma)) return `${lemma}es`;
    return /y$/.test(lemma) && !vowelY.test(lemma) ? `${lemma.slice(0, -1)}ies` : `${lemma}s`;
  }
  const stem = doubles(lemma) ? lemma + lemma.at(-1)! : lemma;
  if (form === 'ing') {
    if (/ie$/.test(lemma)) return `${lemma.slice(0, -2)}ying`;
    return /[^eoy]e$/.test(lemma) && lemma !== 'be' ? `${lemma.slice(0, -1)}ing` : `${stem}ing`;
  }
  const irregular = IRREGULAR.get(lemma);
  if (irregular) return irregular[form];
  if (/e$/.test(lemma)) return `${lemma}d`;
  return /y$/.test(lemma) && !vowelY.test(lemma) ? `${lemma.slice(0, -1)}ied` : `${stem}ed`;
}

/**
 * Which form of its lemma a verb is. A past that is also the participle ("built") counts as one after a form of "have"
 * or "be" (`helped`), else as a past.
 */
export function formOf(word: string, lemma: string, helped: boolean): VerbForm {
  const w = word.toLowerCase();
  if (/ing$/.test(w) && w !== lemma) return 'ing';
  const irregular = IRREGULAR.get(lemma);
  const past = irregular?.past ?? one(lemma, 'past');
  const participle = irregular?.participle ?? past;
  if (helped && w === participle) return 'participle';
  if (w === lemma && !(helped && past === lemma)) return 'base';
  if (w === one(lemma, 'third')) return 'third';
  if (w === past) return helped && past === participle ? 'participle' : 'past';
  if (w === participle) return 'participle';
  return /s$/.test(w) ? 'third' : /ed$/.test(w) ? (helped ? 'participle' : 'past') : 'base';
}
