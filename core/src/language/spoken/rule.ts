/** What every spoken-form rule is made of. */
export type TokenKind =
  | 'word'
  | 'name'
  | 'letters'
  | 'number'
  | 'year'
  | 'decade'
  | 'ordinal'
  | 'currency'
  | 'percent'
  | 'unit'
  | 'date'
  | 'time'
  | 'range'
  | 'fraction'
  | 'roman'
  | 'abbreviation'
  | 'url'
  | 'symbol';

/** Where a voice rests after a token, weakest first. */
export const BOUNDARIES = ['none', 'comma', 'clause', 'sentence', 'paragraph'] as const;
export type Boundary = (typeof BOUNDARIES)[number];

export interface RuleContext {
  text: string;
  /** Where the match begins in the text. */
  at: number;
  /** What stands before the match, at most 24 characters. */
  before: string;
  /** What stands behind the match, at most 24 characters. */
  after: string;
  /** Whether a word is in the pronouncing dictionary (lower case). */
  knows: (word: string) => boolean;
}

export interface Said {
  /** Words as a voice says them, lower case or names as written, single spaces. Empty: said as nothing. */
  say: string;
  kind: TokenKind;
  /** A rest that belongs to the matched text itself, such as the full stop of "etc." at a sentence's end. */
  boundary?: Boundary;
  /** How many characters of the match are used; all of them when left out. */
  length?: number;
}

export interface SpokenRule {
  id: string;
  /** Sticky: tried at one place only. Must match at least one character. */
  pattern: RegExp;
  /** The first character of any match, to skip the rule cheaply. */
  first: RegExp;
  /** The spoken form, or null when the rule does not hold here after all. */
  say: (match: RegExpExecArray, context: RuleContext) => Said | null;
}
