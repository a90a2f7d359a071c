/** Sentences told by the rules of drafting without a script around them. */
import { manner, usualBrief } from '../plan/brief.ts';
import type { Tagger } from '../language/tagged.ts';
import type { Mood } from '../script/file.ts';
import type { SourceDocument } from '../source/document.ts';
import { makeTeller, tellSentence } from './tell/tell.ts';

/** Sentences told one by one in a mood, as if nothing else of their source were told; each as its lines. */
export function tellAlone(
  texts: readonly string[],
  kind: SourceDocument['kind'],
  mood: Mood,
  tagger: Tagger,
): string[][] {
  const teller = makeTeller({ kind, text: texts.join(' ') }, tagger, {
    words: 'own',
    ...manner({ ...usualBrief(), mood }),
  });
  return texts.map((text) => tellSentence(text, tagger(text), teller));
}
