/** Written text → what a voice says, token by token. */
import { numericRules } from './numeric.ts';
import { BOUNDARIES, type Boundary, type RuleContext, type SpokenRule, type TokenKind } from './rule.ts';
import { wordyRules } from './wordy.ts';

export { BOUNDARIES, type Boundary, type SpokenRule, type TokenKind } from './rule.ts';

export interface SpokenToken {
  /** Words as said, separated by single spaces. */
  spoken: string;
  /** Character offsets into the written text, [start, end). */
  start: number;
  end: number;
  kind: TokenKind;
  /** The rest after this token. */
  boundaryAfter: Boundary;
}

/** Every rule in the order it is tried. Ids are unique. */
export const spokenRules: readonly SpokenRule[] = [
  ...wordyRules.slice(0, 3),
  ...numericRules,
  ...wordyRules.slice(3),
];

const WORD = /\p{L}[\p{L}\p{M}]*(?:['’](?!s?['’])\p{L}[\p{L}\p{M}]*)*['’]?/uy;
const ANY_SPACE = /\s+/y;
const CONTEXT = 24;

/** Rests by mark. A closing quote or bracket adds nothing of its own. */
const MARKS: ReadonlyMap<string, Boundary> = new Map<string, Boundary>([
  [',', 'comma'], ['、', 'comma'], [';', 'clause'], [':', 'clause'], ['—', 'clause'], ['–', 'clause'], ['(', 'comma'], [')', 'comma'],
  ['.', 'sentence'], ['!', 'sentence'], ['?', 'sentence'], ['…', 'sentence'], ['。', 'sentence'], ['？', 'sentence'], ['！', 'sentence'],
]); // prettier-ignore

const stronger = (a: Boundary, b: Boundary): Boundary =>
  BOUNDARIES.indexOf(a) >= BOUNDARIES.indexOf(b) ? a : b;

/** Scripts written without spaces say about a syllable a character; here each character is one short word. */
const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

export interface SpokenOptions {
  /** Whether a lower-case word is in the pronouncing dictionary. */
  knows: (word: string) => boolean;
  /** The writer's own sayings: written form (lower case) → words to say. */
  sayings?: ReadonlyMap<string, string>;
}

/**
 * The spoken tokens of a text. Time is linear in its length. Paragraph breaks (a blank line) become `paragraph`
 * boundaries; a single line break is a space. The last token keeps the boundary its own mark gives it.
 */
export function spokenTokens(text: string, options: SpokenOptions): SpokenToken[] {
  const tokens: SpokenToken[] = [];
  let at = 0;
  const rest = (boundary: Boundary) => {
    const last = tokens[tokens.length - 1];
    if (last) last.boundaryAfter = stronger(last.boundaryAfter, boundary);
  };
  const add = (
    spoken: string,
    start: number,
    end: number,
    kind: TokenKind,
    boundaryAfter: Boundary = 'none',
  ) => {
    if (spoken) tokens.push({ spoken, start, end, kind, boundaryAfter });
  };
  while (at < text.length) {
    const char = text[at];
    ANY_SPACE.lastIndex = at;
    const space = ANY_SPACE.exec(text);
    if (space) {
      if (/\n[^\S\n]*\n|\u2029/.test(space[0])) rest('paragraph');
      at += space[0].length;
      continue;
    }
    const midWord = at > 0 && /[\p{L}\p{N}]/u.test(text[at - 1]) && /[\p{L}\p{N}]/u.test(char);
    const own = options.sayings?.size ? ownSaying(text, at, options.sayings) : null;
    if (own && !midWord) {
      add(own.say, at, at + own.length, 'word');
      at += own.length;
      continue;
    }
    const ruled = midWord ? null : applyRules(text, at, options);
    if (ruled) {
      add(ruled.say, at, at + ruled.length, ruled.kind, ruled.boundary);
      at += ruled.length;
      continue;
    }
    WORD.lastIndex = at;
    const word = WORD.exec(text);
    if (word && !UNSPACED.test(char)) {
      const plain = word[0].replace(/['’]$/, '').replace(/’/g, "'");
      const name = /^\p{Lu}/u.test(plain);
      add(name ? plain : plain.toLowerCase(), at, at + word[0].length, name ? 'name' : 'word');
      at += word[0].length;
      continue;
    }
    const code = text.codePointAt(at)!;
    const size = code > 0xffff ? 2 : 1;
    if (/\d/.test(char)) add(digitWord(char), at, at + 1, 'number');
    else if (UNSPACED.test(char)) add(char, at, at + size, 'word');
    else if (MARKS.has(char)) rest(markBoundary(text, at));
    else if (char === '-' && /\s/.test(text[at - 1] ?? ' ') && /\s|-/.test(text[at + 1] ?? ' '))
      rest('clause');
    else if (char === '-' && text[at + 1] === '-') rest('clause');
    at += size;
  }
  return tokens;
}

const DIGITS = 'zero one two three four five six seven eight nine'.split(' ');
const digitWord = (c: string) => DIGITS[Number(c)] ?? '';

function markBoundary(text: string, at: number): Boundary {
  const mark = text[at];
  // A stop inside a word ("node.js", "3.x") is no rest.
  if (mark === '.' && /[\p{L}\p{N}]/u.test(text[at + 1] ?? ' ')) return 'none';
  // Three dots followed by a lower-case word only linger.
  if (mark === '.' && text[at - 1] === '.' && /^\s+\p{Ll}/u.test(text.slice(at + 1, at + 4))) return 'clause';
  if (mark === '…' && /^\s*\p{Ll}/u.test(text.slice(at + 1, at + 4))) return 'clause';
  // A question or cry inside a sentence, as in “Why?” he asked.
  if (/[?!]/.test(mark) && /^["”’']?\s\p{Ll}/u.test(text.slice(at + 1, at + 4))) return 'comma';
  if (mark === '(' && !/\s/.test(text[at - 1] ?? ' ')) return 'none';
  if (mark === ')' && /[,.;:!?]/.test(text[at + 1] ?? '')) return 'none';
  return MARKS.get(mark)!;
}

function applyRules(text: string, at: number, options: SpokenOptions) {
  const char = text[at];
  let context: RuleContext | null = null;
  for (const rule of spokenRules) {
    if (!rule.first.test(char)) continue;
    rule.pattern.lastIndex = at;
    const match = rule.pattern.exec(text);
    if (!match) continue;
    context ??= {
      text,
      at,
      before: text.slice(Math.max(0, at - CONTEXT), at),
      after: '',
      knows: options.knows,
    };
    context.after = text.slice(at + match[0].length, at + match[0].length + CONTEXT);
    const said = rule.say(match, context);
    if (said) return { ...said, length: said.length ?? match[0].length };
  }
  return null;
}

function ownSaying(text: string, at: number, sayings: ReadonlyMap<string, string>) {
  if (!/[\p{L}\p{N}]/u.test(text[at])) return null;
  let best: { say: string; length: number } | null = null;
  for (const [written, say] of sayings) {
    const here = text.slice(at, at + written.length);
    const after = text[at + written.length] ?? ' ';
    if (
      here.toLowerCase() === written.toLowerCase() &&
      !/[\p{L}\p{N}]/u.test(after) &&
      written.length > (best?.length ?? 0)
    )
      best = { say, length: written.length };
  }
  return best;
}

/** The whole text as a voice would be given it: spoken words with the rests as plain marks. */
export function spokenText(tokens: readonly SpokenToken[]): string {
  const marks: Record<Boundary, string> = {
    none: '',
    comma: ',',
    clause: ';',
    sentence: '.',
    paragraph: '.\n\n',
  };
  return tokens
    .map((t) => t.spoken + marks[t.boundaryAfter])
    .join(' ')
    .replace(/\n\n /g, '\n\n')
    .trim();
}
