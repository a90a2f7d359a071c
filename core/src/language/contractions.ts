/** Short forms and full ones, for changes that a person asks for and for a channel's habit. Drafting uses narrower ones of its own. */
export type FormPair = readonly [RegExp, string];

/** Full forms with their short ones; never before a stop or in front of a name. */
export const SHORT_FORMS: readonly FormPair[] = [
  [/\b(do|does|did|is|are|was|were|has|have|had|would|could|should) not\b(?=\s+[a-z])/gi, '$1n’t'],
  [/\bcan(?:not| not)\b(?=\s+[a-z])/gi, 'can’t'],
  [/\bwill not\b(?=\s+[a-z])/gi, 'won’t'],
  [/\b(they|we|you) are\b(?=\s+[a-z])/gi, '$1’re'],
  [/\bI am\b(?=\s+[a-z])/g, 'I’m'],
  [/\b(it|that|there|he|she|what) is\b(?=\s+[a-z])/gi, '$1’s'],
  [/\b(i|you|we|they) have\b(?=\s+(?:been|had|\w+ed|\w+en)\b)/gi, '$1’ve'],
];

/** Short forms with their full ones, where they have only one. */
export const FULL_FORMS: readonly FormPair[] = [
  [/\b(do|does|did|is|are|was|were|has|have|had|would|could|should)n[’']t\b/gi, '$1 not'],
  [/\bcan[’']t\b/gi, 'cannot'],
  [/\bwon[’']t\b/gi, 'will not'],
  [/\b(they|we|you)[’']re\b/gi, '$1 are'],
  [/\bI[’']m\b/g, 'I am'],
  [/\b(I|you|we|they)[’']ve\b/gi, '$1 have'],
  [/\b(I|you|we|they|he|she|it)[’']ll\b/gi, '$1 will'],
  [/\b(it|that|there|what|here)[’']s\b(?=\s+(?:a|an|the|not|no|in|on|still|so|too|[a-z]+ing)\b)/gi, '$1 is'],
];

/** What a match becomes, with the capital it had. */
export function formFor(match: RegExpExecArray, by: string): string {
  const made = by.replace('$1', match[1] ?? '');
  return /^\p{Lu}/u.test(match[0]) ? made.charAt(0).toUpperCase() + made.slice(1) : made;
}

/** Every match in its other form. */
export const inForms = (text: string, pairs: readonly FormPair[]): string =>
  pairs.reduce(
    (t, [from, by]) => t.replace(from, (...m: unknown[]) => formFor(m as unknown as RegExpExecArray, by)),
    text,
  );
