/** The last gate: whatever a reader let through, what is no speech is never told by itself. By form, not by subject. */
import { PATTERNS } from '../language/lexicon.ts';
import { hasFiniteVerb, isFiniteVerb, type TaggedToken } from '../language/tagged.ts';
import { ADDRESS, CREDIT, isStamp } from '../source/page/shapes.ts';

/** Signs that part rows of a page ("Home › News", "Prep 20 mins · Serves 4"); a dash or a colon parts sentences too. */
const PARTED = /\s[|·•»›→▸►]\s|::|\s->\s/;
/** What points at another place of the page or the book. */
const POINTS =
  /\b(?:see|cf\.?|in|from|as in) (?:also )?(?:the )?(?:sections?|chapters?|tables?|figures?|figs?\.?|appendix|box|equation|listing|example)\s\d|\b(?:see|in|as) (?:the )?(?:table|figure|chart|map|picture|photo(?:graph)?|diagram|list|box|video|gallery|link|panel|infobox) (?:below|above|opposite|overleaf|here|on the (?:left|right))\b|\bsee (?:the )?(?:section|chapter) (?:on|called|titled|[“"‘])/i;
/** Where more is told: "The Heart Board has more about it.", "For further details, visit …". */
const MORE_ELSEWHERE =
  /^[^,;“”"]{3,90} (?:has|have|offers?|provides?) (?:more|further|additional)(?: \p{L}+)? (?:about|on)\b[^,;]{2,60}\.$|^(?:for|to (?:find|get|read)) (?:more|further|additional|complete|full|the latest|all the latest)\b[^.]{0,60}\b(?:visit|see|go to|call|contact|write to|click|stay tuned|check out|follow|head to|tune in)\b/iu;
/** "Edit this article", "Share this story with a friend": what a page offers to do with itself (acts by schema.org's types of Action, from memory). */
const THIS_PAGE =
  /^(?:please )?(?:edit|share|print|save|email|e-mail|bookmark|cite|flag|report|rate|review|like|follow|subscribe to|comment on|download|discuss|recommend|tweet|forward|sign up for)(?: (?:and|or|&) \p{L}+)? (?:this|our) (?:article|page|post|story|entry|section|topic|thread|blog|newsletter|website|site)\b/iu;
const LONGEST_OFFER = 10;
/** "You can check out my book about it": to follow, to buy or to read elsewhere. */
const OFFERS =
  /^(?:you can (?:also )?|be sure to |make sure to |don[’']t forget to |please )?(?:check out|subscribe to|follow|like|join) (?:us|me|our|my)\b/iu;
/** "See also …": what a book of reference ends its entries with. */
const SEE_ALSO = /^(?:see|cf\.?) also\b/i;
/** An editor's note or a work that is cited: in brackets from its first letter to its last, or to the sentence's end. */
const BRACKETED = /^\[[^[\]]*(?:\]\W*)?$/;
/** A row of a table of dates: "1917 Taken down for scrap", "31 March 2024 The recording is played". */
const DATED_ROW = new RegExp(
  `^(?:(?:\\d{1,2} )?(?:${PATTERNS.month}) )?(?:1[0-9]|20)\\d\\d[:–—]? (?=\\p{Lu}\\p{Ll}*\\b)`,
  'u',
);
/** An equation, outside brackets; what a test of significance gave ("p = 0.03") is none. */
const EQUATION = /(?:^|\s)(?!(?:p|n|r|t)\s?=)[\p{L}\d^()+*/-]{1,12}\s?[=≤≥≈]\s?[\p{L}\d(]/iu;
/** Single letters that stand for something: so many beside an equation are a formula. */
const LETTERS = 3;
const isFormula = (text: string) => {
  const plain = text.replace(/\([^()]*\)|\[[^[\]]*\]/g, ' ');
  const letters = plain.match(/(?<![\p{L}\d’'.-])[B-HJ-Zb-z](?![\p{L}\d’'.-])/gu) ?? [];
  return EQUATION.test(plain) && letters.length >= LETTERS;
};
/** "Ann Ware is seen on June 5, 2013", "A barge is shown in this undated photo": words under a picture. */
const PICTURED = new RegExp(
  `\\b(?:is|are) (?:seen|pictured|shown)\\b[^.]{0,140}(?:${PATTERNS.month} \\d|\\d ${PATTERNS.month}|\\b(?:photo(?:graph)?|picture|image)\\b)|^(?:\\p{Lu}{2,}\\s)?[Tt]his (?:\\p{L}+ ){0,4}(?:photo(?:graph)?|picture|image|frame|footage|video)\\b.{0,160}\\b(?:shows|taken|released|provided)\\b`,
  'u',
);
/** Rights, and who wrote out or handed on what was broadcast; a copyright that is told of is followed by a small letter. */
const LEGAL =
  /\b[Cc]opyright (?:\d{4}|\(c\)|\p{Lu})|©|\b[Aa]ll rights reserved\b|^(?:Transcript|Report|Story|Article) (?:is )?(?:provided|courtesy|by|from)\b/u;
/** "(Reporting by Ann Ware; Editing by …)", "Ann Ware contributed to this report.": who worked on a piece, as agencies end theirs (common practice, no published source). */
const WORKED_ON =
  /^\(?(?:(?:Additional |Further )?[Rr]eporting|Writing|Editing|Research|Translation|Written|Edited|Reported|Compiled|Translated) by \p{Lu}/u;
const CONTRIBUTED = /\bcontributed (?:\p{L}+ )?to this (?:report|story|article|piece)\b/iu;
const LONGEST_LEGAL = 16;
/** Whether a text says who holds the rights in the piece. */
export const isLegal = (text: string): boolean =>
  LEGAL.test(text) && text.split(/\s+/).length <= LONGEST_LEGAL;
/** "Example 10.10.", "Figure 3. The gate": what a book calls its pictures and pieces of code. */
const NUMBERED = /^(?:Example|Figure|Fig\.|Table|Listing|Box|Plate|Chart)\s\d+(?:[.-]\d+)*(?:[.:](?:\s|$)|$)/;
const LABEL = /^\p{L}+(?:\s\p{L}+){0,2}\s?:$/u;
const VERBS = new Set(['VERB', 'AUX']);
/** Capitals alone, up to so many words: a place before a report, a label. */
const LONGEST_LABEL = 8;
/** A row shorter than this without a verb is a label, unless the writer ended it like a sentence. */
const SHORT_ROW = 12;

export const NO_VERB = 'it is a row without a verb';

/** Quotation marks that close what was never opened, or open what is never closed. */
export function quotesBalance(text: string): boolean {
  const straight = (text.match(/"/g) ?? []).length;
  const opened = (text.match(/“/g) ?? []).length;
  const closed = (text.match(/”/g) ?? []).length;
  return straight % 2 === 0 && opened === closed;
}

/** A date, then a word with a capital that no name explains: a name is followed by its verb ("1917 Revolution posters were …"). */
function isDatedRow(text: string, tokens: readonly TaggedToken[]): boolean {
  const date = DATED_ROW.exec(text);
  if (!date) return false;
  const at = tokens.findIndex((t) => t.start >= date[0].length);
  if (at < 0) return false;
  const named = tokens[at].pos === 'PROPN';
  return !(named && tokens.slice(at + 1, at + 5).some((_, k) => isFiniteVerb(tokens, at + 1 + k)));
}

/** Signs of code or of markup that was shown as text: many for its length, brackets with assignments, entities. */
const SHARE_OF_SIGNS = 0.08;
const isCode = (text: string) =>
  /[{}<>].*[;=]|[;=].*[{}<>]|&(?:[a-z]{2,6}|#\d+);/.test(text) ||
  ((text.match(/[=+{}()<>;&|\\?"]/g)?.length ?? 0) > Math.max(5, text.length * SHARE_OF_SIGNS) &&
    /[=+;|\\]/.test(text));

/** Why a sentence of a source is no speech, in words for the person; null where it can be said. */
export function notSpeech(text: string, tokens: readonly TaggedToken[]): string | null {
  const words = text.match(/[\p{L}\p{N}]+(?:['’][\p{L}]+)*/gu) ?? [];
  const letters = words.join('').replace(/\P{L}/gu, '').length;
  if (letters < 2 || (words.length === 1 && letters < 3)) return 'it is a fragment';
  if (/^[,;:.)\]]/.test(text)) return 'it is a fragment';
  if (LABEL.test(text)) return 'it is a label';
  if (isCode(text)) return 'it is code';
  if (!/\p{Ll}/u.test(text) && !/[?!]["'”’]?$/.test(text) && words.length <= LONGEST_LABEL && (text.includes(',') || !tokens.some((_, i) => isFiniteVerb(tokens, i)))) return 'it is a label'; // prettier-ignore
  if (PARTED.test(text)) return 'signs part it like a row of a page';
  if (ADDRESS.test(text)) return 'it holds an address or a handle';
  const ended = /[.!?…]["'”’)\]]*$/.test(text);
  const verbal = tokens.some((t) => VERBS.has(t.pos));
  if (isStamp(text) && words.length <= 12 && !(ended && verbal)) return 'it only says when';
  if (isDatedRow(text, tokens)) return 'it is a row of a table of dates';
  if (CREDIT.test(text) && words.length <= 14) return 'it says who made a picture';
  if (PICTURED.test(text) && words.length <= 48) return 'it says what a picture shows';
  if ((WORKED_ON.test(text) && !hasFiniteVerb(tokens)) || CONTRIBUTED.test(text)) return 'it says who worked on the piece'; // prettier-ignore
  if (isLegal(text)) return 'it says who holds the rights';
  if (/\bv\. .*\bNo\. ?\d/.test(text)) return 'it cites a case';
  if (isFormula(text)) return 'it is a formula';
  if (NUMBERED.test(text) && words.length <= 16) return 'it names a picture or a table';
  if (BRACKETED.test(text)) return 'it is a note in brackets';
  if (POINTS.test(text) || SEE_ALSO.test(text) || MORE_ELSEWHERE.test(text))
    return 'it points at another place of the page';
  if ((THIS_PAGE.test(text) && words.length <= LONGEST_OFFER) || OFFERS.test(text)) return 'it is what the page offers'; // prettier-ignore
  if (!ended && words.length < SHORT_ROW && !(verbal && (hasFiniteVerb(tokens) || tokens[0]?.pos === 'VERB')))
    return NO_VERB;
  // The end of somebody's words, without the words: "Rudkin.”"
  const closes = (text.match(/”/g) ?? []).length > (text.match(/“/g) ?? []).length;
  if (words.length <= 4 && closes && !verbal) return 'it is a fragment';
  return null;
}

/** Courtesies (Quirk et al. 1985, 11.54, formulaic utterances, from memory) that a poster says to those who read along. */
const COURTESY =
  /^(?:(?:ok(?:ay)?|so|and|right|well|oh|yes|anyway),? )?(?:sorry|apologies|my apologies|thanks|many thanks|thank you|thankyou|cheers|ta|hi|hello|hey|welcome|tl;?dr)\b(?! to (?:the|his|her|its|their|a|an|my|our|\p{Lu}))/iu;
const MOST_COURTEOUS = 22;

/** Whether a sentence of a board's story is said to the board's readers and tells nothing; why, or null. */
export const toTheBoard = (text: string): string | null =>
  COURTESY.test(text) && !/["“”]/.test(text) && text.split(/\s+/).length <= MOST_COURTEOUS
    ? 'it is said to the readers of the board'
    : null;

/** A question to whoever reads: it asks anybody, or you. */
const ASKS_READERS =
  /^(?:so,? |and |but )?(?:has|have|does|do|did|is|are|can|could|would|will|should)\b[^“”"]*\b(?:any(?:one|body)|some(?:one|body)|you)\b[^“”"]*\?$/iu;

/** Whether a story's last words ask the board something; why that is not told, or null. */
export const asksTheBoard = (text: string): string | null =>
  ASKS_READERS.test(text) ? 'it asks the readers of the board' : null;

/** Whether a sentence can open: it begins and ends like one, has a finite verb or asks, and its quotations are closed. */
export function isWhole(text: string, tokens: readonly TaggedToken[]): boolean {
  if (!/^["'“‘(]?[\p{Lu}\p{N}£$€]/u.test(text) || !/[.!?…]["'”’)]*$/.test(text) || !quotesBalance(text))
    return false;
  return /\?["'”’)]*$/.test(text) || hasFiniteVerb(tokens) || tokens[0]?.pos === 'VERB';
}
