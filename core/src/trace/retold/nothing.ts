/** A line that rests on nothing: a claim whose words no fact has. Framing (questions, asides to the listener) is left alone. */
import type { Check, RetoldFault, Retelling } from './fault.ts';
import { coverage, type Said, type Word } from './text.ts';

const FEWEST_ROOTS = 3;
/** A claim of a whole line, and of a part of one, with less of its words in the sources than this, rests on nothing. */
const WHOLE_LEAST = 0.4;
const PART_LEAST = 0.2;
const PART_ROOTS = 4;
/** A line that was given a fact only by its place, with less of its words there than this, is looked at again. */
const LINE_LEAST = 0.4;
/** To the listener: an order, a guess, a question's shadow. */
const TO_LISTENER =
  /^(?:imagine|picture|think|call|ask|remember|look|listen|wait|stop|start|take|say|consider|suppose|let|here|there|so|now|and|but|well|that|this|what|why|how|who|where|when|which|because|sounds?|seems?|not|no|yes|or|maybe|perhaps)\b/i;
const FINITE = new Set(['VERB', 'AUX']);
const SUBJECTS = new Set(['NOUN', 'PROPN', 'PRON', 'DET', 'NUM', 'ADJ']);

/** A statement about somebody or something: a subject and a verb, not put to the listener. */
export function claims(said: Said): boolean {
  const { words, question } = said;
  if (question || TO_LISTENER.test(said.plain.trim())) return false;
  // "Kept under a stone, and needed in an afternoon": nobody does it.
  if (words[0]?.pos === 'VERB' && !/ing$/i.test(words[0].text)) return false;
  const verb = words.findIndex((w, i) => i > 0 && FINITE.has(w.pos) && !/ing$/.test(w.text));
  return verb > 0 && words.slice(0, verb).some((w) => (SUBJECTS.has(w.pos) || /ing$/i.test(w.text)) && !/^(?:it|you|we|i|what|that|this|there)$/i.test(w.text)); // prettier-ignore
}

/** A line without a fact. */
export function restsOnNothing(
  said: Said,
  stock: Retelling['stock'],
  tools: Retelling['tools'],
): RetoldFault[] {
  if (!claims(said) && !/\byou should (?:always|never)\b/i.test(said.plain)) return [];
  const roots = [...said.roots];
  if (roots.length < FEWEST_ROOTS) return [];
  const best = Math.max(0, ...stock.facts.map((f) => coverage(roots, stock.said(f).roots, tools.kin)));
  if (best >= WHOLE_LEAST + 0.2 && !said.values.length) return [];
  return [
    {
      kind: 'nothing',
      start: 0,
      end: said.text.length,
      says: 'No source says this.',
      mend: '',
      does: 'Drop the line',
    },
  ];
}

/** A part of a line whose words neither its passage nor what stands around it has. */
export const nothing: Check = ({ told, around, stock, tools }) => {
  if (told.question) return [];
  const roots = [...told.roots];
  if (roots.length >= PART_ROOTS && claims(told) && coverage(roots, around.roots, tools.kin) < LINE_LEAST)
    return restsOnNothing(told, stock, tools);
  const last = told.segments.length - 1;
  for (const s of told.segments) {
    const content = s.words.filter((w): w is Word & { root: string } => w.root !== null);
    if (s.index === 0 || content.length < PART_ROOTS || s.open) continue;
    if (!s.words.some((w) => FINITE.has(w.pos))) continue;
    const roots = content.map((w) => w.root);
    if (coverage(roots, around.roots, tools.kin) >= PART_LEAST || coverage(roots, stock.roots, null) > 0.5)
      continue;
    const from = s.words[0].start;
    const kept = told.text.slice(0, from).replace(/[\s,;:—–-]+$/, '');
    return [
      {
        kind: 'nothing',
        start: from,
        end: s.words[s.words.length - 1].end,
        says: 'No source says this part.',
        ...(s.index === last && kept.split(/\s+/).length >= 3
          ? { mend: `${kept}.`, does: `Stop after “${kept.split(/\s+/).slice(-2).join(' ')}”` }
          : {}),
      },
    ];
  }
  return [];
};
