/** What somebody or something can be seen doing, told as a picture has it. */
import { inflect } from '../language/inflect.ts';
import { baseForm } from '../language/kin.ts';
import type { TaggedToken } from '../language/tagged.ts';
import { SEEN, type Words } from './figures.ts';
import { verbSeen } from './search.ts';

const word = (t: TaggedToken) => t.text.toLowerCase();

/** What people in the picture do: the clause's own action, speaking where they are quoted, else nothing. */
export function peopleDo(text: string, action: Action | null, shown: boolean): string {
  if (shown && /[“"]|\b(?:said|says|told|asked|wrote)\b/.test(text)) return 'speaking';
  return action?.ing || (shown ? 'still' : 'none');
}

export interface Action {
  text: string;
  ing: string;
}
/** The first clause with something to see in it, as a picture has it: "a boat rising into the upper trough". */
export function actionIn(
  tokens: readonly TaggedToken[],
  words: Words,
  figures: readonly { start: number; end: number }[],
): Action | null {
  const inFigure = (t: TaggedToken) => figures.some((f) => t.start < f.end && t.end > f.start);
  for (let i = 1; i < tokens.length; i++) {
    const verb = tokens[i];
    const lemma = baseForm(verb.lemma);
    if (verb.pos !== 'VERB' || inFigure(verb) || !verbSeen(lemma, words)) continue;
    // "turned out to be" shows nothing.
    if (lemma === 'turn' && tokens[i + 1]?.text === 'out') continue;
    let from = i - 1;
    let passive = false;
    while (from >= 0 && ['AUX', 'ADV', 'PART'].includes(tokens[from].pos)) {
      passive ||=
        /^(?:is|are|was|were|been|be)$/i.test(tokens[from].text) &&
        /(?:ed|en|t|n)$/.test(verb.text) &&
        !/ing$/.test(verb.text);
      // "did not move": what does not happen is not seen.
      if (
        /^(?:not|n['’]t|never|hardly)$/i.test(tokens[from].text) ||
        /^(?:could|would|should|might|may)$/i.test(tokens[from].text)
      )
        from = -2;
      else from--;
    }
    if (from < 0 || tokens[from].pos !== 'NOUN' || inFigure(tokens[from])) continue;
    if (!passive && word(verb) === verb.lemma && tokens[from].text === tokens[from].lemma) continue;
    // "one trough of water goes down": the trough does.
    const of = tokens[from - 1]?.text === 'of' ? from - 2 : tokens[from - 2]?.text === 'of' ? from - 3 : -1;
    const head = of >= 0 && tokens[of]?.pos === 'NOUN' ? of : from;
    let start = head;
    while (start > 0 && ['ADJ', 'NOUN', 'DET', 'NUM'].includes(tokens[start - 1].pos)) start--;
    if ((words.share(tokens[head].lemma) ?? 0) < SEEN) continue;
    const object = objectAfter(tokens, i, words, inFigure);
    // What it is done to can't be seen, so neither can the doing.
    if (!object && !passive && /^(?:DET|PRON|ADJ|NUM|NOUN)$/.test(tokens[i + 1]?.pos ?? '')) continue;
    const after =
      tokens[i + 1] &&
      /^(?:down|up|away|out|off|over|along|across|back|sideways|forward)$/.test(word(tokens[i + 1])) &&
      !object
        ? word(tokens[i + 1])
        : '';
    const people =
      words.file(tokens[head].lemma) === '18' ||
      /^(?:people|crowd|man|woman|child|men|women|children)$/.test(tokens[head].lemma);
    const subject = joinWords(tokens.slice(start, from + 1)).replace(
      /^(?:the|this|that|these|those)\s/i,
      'the ',
    );
    const ing = passive ? `being ${verb.text.toLowerCase()}` : inflect(lemma, 'ing');
    const acted = [ing, after, object].filter(Boolean).join(' ');
    return {
      text: `${subject.charAt(0).toLowerCase()}${subject.slice(1)} ${acted}`,
      ing: people ? acted : '',
    };
  }
  return null;
}
function objectAfter(
  tokens: readonly TaggedToken[],
  verb: number,
  words: Words,
  inFigure: (t: TaggedToken) => boolean,
): string {
  let end = -1;
  for (let k = verb + 1; k < tokens.length && k < verb + 9; k++) {
    const t = tokens[k];
    if (['VERB', 'AUX', 'SCONJ', 'CCONJ', 'PUNCT'].includes(t.pos) || inFigure(t)) break;
    if (t.pos === 'PRON') break;
    if (t.pos === 'NOUN' || t.pos === 'PROPN') end = k;
  }
  if (end < 0) return '';
  const head = tokens[end];
  if (head.pos === 'NOUN' && (words.share(head.lemma) ?? 0) < SEEN) return '';
  return joinWords(tokens.slice(verb + 1, end + 1));
}
const joinWords = (tokens: readonly TaggedToken[]) =>
  tokens.map((t, i) => (i > 0 && t.start > tokens[i - 1].end ? ' ' : '') + t.text).join('');
