/** The rules by name, without the rules themselves: what a page needs to switch them. A test keeps it equal to the registry. */
import type { Area } from './rule.ts';

export interface RuleEntry {
  id: string;
  area: Area;
  name: string;
}

export const RULES: readonly RuleEntry[] = [
  { id: 'unsourced-number', area: 'truth', name: 'A figure no source has' },
  { id: 'unsourced-date', area: 'truth', name: 'A date no source has' },
  { id: 'unsourced-name', area: 'truth', name: 'A name no source has' },
  { id: 'altered-quote', area: 'truth', name: 'A quote altered' },
  { id: 'stronger-than-source', area: 'truth', name: 'Surer than the source' },
  { id: 'contradicted', area: 'truth', name: 'The source says otherwise' },
  { id: 'wrong-thing', area: 'truth', name: 'A figure on the wrong thing' },
  { id: 'attribution-lost', area: 'truth', name: 'Who says so is lost' },
  { id: 'detail-added', area: 'truth', name: 'A detail no source has' },
  { id: 'cause-added', area: 'truth', name: 'A cause the source doesn’t give' },
  { id: 'old-figure', area: 'truth', name: 'An old figure' },
  { id: 'accusation', area: 'truth', name: 'An accusation without who says so' },
  { id: 'no-source', area: 'truth', name: 'A claim that rests on nothing' },
  { id: 'close-line', area: 'overlap', name: 'Still in a source’s words' },
  { id: 'late-promise', area: 'hold', name: 'Promise and stake in the opening' },
  { id: 'open-line', area: 'hold', name: 'Open lines: still to be written' },
  { id: 'open-loop', area: 'hold', name: 'Questions: never answered, at once, too late' },
  { id: 'late-turn', area: 'hold', name: 'Too long before the first turn' },
  { id: 'slack', area: 'hold', name: 'Nothing new' },
  { id: 'said-twice', area: 'hold', name: 'Said twice' },
  { id: 'same-section', area: 'hold', name: 'Two sections tell the same' },
  { id: 'weak-lead', area: 'hold', name: 'A lead that doesn’t lead' },
  { id: 'fading-end', area: 'hold', name: 'An ending that fades' },
  { id: 'over-length', area: 'hold', name: 'Over or under its length' },
  { id: 'greeting', area: 'language', name: 'Greeting' },
  { id: 'filler', area: 'language', name: 'Filler' },
  { id: 'stock-phrase', area: 'language', name: 'Stock phrases' },
  { id: 'spelling', area: 'language', name: 'Spelling' },
  { id: 'grammar', area: 'language', name: 'Grammar' },
  { id: 'doubled-word', area: 'language', name: 'A word twice' },
  { id: 'passive-chain', area: 'language', name: 'Passive after passive' },
  { id: 'same-opener', area: 'language', name: 'Lines that open alike' },
  { id: 'same-length', area: 'language', name: 'All sentences alike in length' },
  { id: 'hard-to-follow', area: 'language', name: 'Reading grade' },
  { id: 'longer-than-house', area: 'language', name: 'Longer than this channel speaks' },
  { id: 'contractions', area: 'language', name: 'Contractions unlike this channel’s' },
  { id: 'long-breath', area: 'speech', name: 'Too long for one breath' },
  { id: 'hard-cluster', area: 'speech', name: 'Hard to say' },
  { id: 'two-readings', area: 'speech', name: 'Two ways to read a word' },
  { id: 'symbol', area: 'speech', name: 'Abbreviations and signs' },
  { id: 'acronym', area: 'speech', name: 'Letters nobody has explained' },
  { id: 'hard-number', area: 'speech', name: 'Numbers hard to hear' },
  { id: 'number-crowd', area: 'speech', name: 'Too many numbers in ten seconds' },
  { id: 'parenthesis', area: 'speech', name: 'Brackets' },
  { id: 'unheard-quote', area: 'speech', name: 'A quote the ear can’t hear' },
  { id: 'ad-words', area: 'care', name: 'Words that cost advertising' },
  { id: 'private-name', area: 'care', name: 'A private person’s full name' },
  { id: 'bold-claim', area: 'care', name: 'Health and money without a hedge' },
];
