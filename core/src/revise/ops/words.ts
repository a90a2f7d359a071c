/** Words: one for another, simpler, shorter sentences, contractions, spelling. */
import { safeSplits } from '../../draft/split.ts';
import { FULL_FORMS, SHORT_FORMS, inForms, type FormPair } from '../../language/contractions.ts';
import { inflect, type VerbForm } from '../../language/inflect.ts';
import { outsideQuotes } from '../../draft/ear.ts';
import { spelled } from '../../draft/settle.ts';
import plain from '../../../data/plain-words.json';
import {
  mapLines,
  type Applied,
  type Operation,
  type ReviseContext,
  type ReviseTools,
  type Scope,
} from '../types.ts';
import { partedLine } from '../parting.ts';
import { changedText, escaped } from './cut.ts';

/** A capital where the word before it had one; an acronym's capitals say nothing of what stands in its place. */
const cased = (model: string, word: string) =>
  /^\p{Lu}/u.test(model) && !/^\p{Lu}{2}/u.test(model) ? word.charAt(0).toUpperCase() + word.slice(1) : word;

/** Every form of a verb or noun to the same form of another: "utilised" → "used", "boats" → "ships". */
function swapPairs(from: string, to: string, isVerb: boolean): [string, string][] {
  const pairs = new Map<string, string>([[from, to]]);
  if (!/\s/.test(from)) {
    if (isVerb)
      for (const form of ['third', 'past', 'participle', 'ing'] as VerbForm[])
        pairs.set(inflect(from, form), inflect(to, form));
    else {
      const plural = (w: string) =>
        /(?:s|x|ch|sh)$/.test(w) ? `${w}es` : /[^aeiou]y$/.test(w) ? `${w.slice(0, -1)}ies` : `${w}s`;
      if (/[a-z]$/.test(to)) pairs.set(plural(from), plural(to));
    }
  }
  return [...pairs].sort((a, b) => b[0].length - a[0].length);
}

function replacedWord(
  scope: Scope,
  from: string,
  to: string,
  context: ReviseContext,
  tools: ReviseTools,
): Applied {
  // A verb when the tagger says so in the lines where it stands.
  const lines = context.sections.flatMap((s) =>
    s.lines.filter((l) => scope.lines.includes(l.id)).map((l) => l.text),
  );
  const own = from.toLowerCase();
  const isVerb =
    lines.some((t) =>
      tools.tagger(t).some((x) => (x.lemma === own || x.text.toLowerCase() === own) && x.pos === 'VERB'),
    ) || /(?:ise|ize|ate|ify)$/.test(own);
  const pairs = swapPairs(own, to.toLowerCase() === to ? to : to, isVerb);
  const pattern = new RegExp(
    `(?<![\\p{L}’-])(?:(an?) )?(${pairs.map(([f]) => escaped(f)).join('|')})(?![\\p{L}-])`,
    'giu',
  );
  const result = changedText(
    scope,
    context,
    (text) =>
      outsideQuotes(text, (piece) =>
        piece.replace(pattern, (_, article: string | undefined, word: string) => {
          const by = cased(word, pairs.find(([f]) => f.toLowerCase() === word.toLowerCase())![1]);
          return article ? `${cased(article, /^[aeiou]/i.test(by) ? 'an' : 'a')} ${by}` : by;
        }),
      ),
    `“${from}” does not stand there.`,
  );
  return result;
}

export const splitLongLines = (
  scope: Scope,
  longest: number,
  context: ReviseContext,
  tools: ReviseTools,
): { sections: ReturnType<typeof mapLines>; n: number; left: number } => {
  let n = 0;
  let left = 0;
  const sections = mapLines(context.sections, new Set(scope.lines), (l) => {
    if (l.text.split(/\s+/).length <= longest) return l;
    const parts = safeSplits(l.text, tools.tagger(l.text), longest);
    if (parts.length === 1) {
      left++;
      return l;
    }
    n++;
    return partedLine(l, parts, context.fresh);
  });
  return { sections, n, left };
};

const PLAIN: readonly (readonly [RegExp, string])[] = plain.pairs.map(([from, to]) => [
  new RegExp(`(?<![\\p{L}’-])${from}(?![\\p{L}’-])`, 'giu'),
  to,
]);
export const simpler = (text: string): string =>
  outsideQuotes(text, (piece) =>
    PLAIN.reduce((t, [from, to]) => t.replace(from, (w) => cased(w, to)), piece),
  );

const asForms = (pairs: readonly FormPair[]) => (text: string) =>
  outsideQuotes(text, (piece) => inForms(piece, pairs));

export const wordOps: readonly Operation[] = [
  {
    id: 'replace-word',
    says: 'say one word for another',
    otherwise: 'whole',
    patterns: [
      '(?:change|turn|make|replace|swap)?\\s?(?:every|each|all|all the|any)(?: uses? of| instances? of)? [“"‘\']?{word} (?:to|into|with|by|becomes?|should be) {by}(?: in {scope})?',
      '(?:replace|change|swap|substitute) [“"‘\']{word} (?:with|to|for|by|into) {by}(?: (?:in|throughout) {scope})?',
      '(?:replace|change|swap|substitute)(?: the word)? {word} (?:with|to|for|by) {by}(?: (?:everywhere|throughout|in {scope}))?',
      '(?:say|use|write) {by} (?:instead of|rather than|in place of) {word}(?: (?:in|throughout) {scope})?',
      '[“"‘\']{word} should (?:be|read|become) {by}(?: everywhere)?',
    ],
    apply: ({ scope, slots }, context, tools) =>
      replacedWord(scope, slots.word.trim(), slots.by.trim(), context, tools),
  },
  {
    id: 'for-children',
    says: 'say it more simply',
    otherwise: 'whole',
    patterns: [
      '(?:say|tell|put|write|rewrite|make|explain|do) (?:it|{scope}) (?:for|so that|suitable for|understandable for) (?:children|kids|a child|a ten[- ]year[- ]old|young people|beginners|newcomers|everyone|lay people)(?: (?:understand|get|can understand)(?: it)?)?',
      '(?:simplify) {scope}',
      '(?:use )?(?:simpler|easier|plainer|plain) (?:words|language|english)(?: (?:in|for) {scope})?',
      '(?:make|say|put) {scope} (?:simpler|easier|plainer|more simply|in simpler words|in plain (?:words|english|language)|easier to (?:follow|understand))',
      '(?:for|aimed at) (?:children|kids|beginners)',
    ],
    apply: ({ scope }, context, tools) => {
      const worded = changedText(scope, context, simpler, '');
      const first = 'sections' in worded ? worded.sections : [...context.sections];
      const { sections, n, left } = splitLongLines(scope, 14, { ...context, sections: first }, tools);
      if (!('sections' in worded) && !n)
        return {
          refused: left
            ? `${left} long lines can’t be cut safely; they need a person.`
            : 'The words are simple and the sentences short already.',
        };
      return {
        sections,
        notes: left
          ? [
              `${left === 1 ? 'One long line' : `${left} long lines`} can’t be cut safely and need${left === 1 ? 's' : ''} a person.`,
            ]
          : [],
      };
    },
  },
  {
    id: 'shorter-sentences',
    says: 'make sentences shorter',
    otherwise: 'whole',
    patterns: [
      '(?:use )?shorter sentences(?: in {scope})?',
      '(?:split|break up|cut up|break)(?: up)? (?:the |any )?long (?:sentences|lines|breaths)(?: in {scope})?',
      '(?:make|keep) the sentences (?:in {scope} )?shorter',
      '(?:the )?sentences (?:in {scope} )?are too long',
      '(?:fix|mend) the long (?:sentences|breaths|lines)(?: in {scope})?',
    ],
    apply: ({ scope }, context, tools) => {
      const { sections, n, left } = splitLongLines(scope, 15, context, tools);
      const notes = left
        ? [`${left === 1 ? 'One long sentence' : `${left} long sentences`} can’t be cut safely.`]
        : [];
      return n
        ? { sections, notes }
        : {
            refused: left
              ? `${left === 1 ? 'One sentence is' : `${left} sentences are`} long but can’t be cut safely; that needs a person.`
              : 'No sentence there is long.',
          };
    },
  },
  {
    id: 'contract',
    says: 'use contractions',
    otherwise: 'whole',
    patterns: [
      '(?:use|add|with|more) contractions(?: in {scope})?',
      '(?:make|sound)(?: {scope})? (?:less formal|more casual|more conversational|more spoken|more natural)',
      'contract (?:the verbs|everything|it)',
    ],
    apply: ({ scope }, context) =>
      changedText(scope, context, asForms(SHORT_FORMS), 'Nothing there can be said shorter.'),
  },
  {
    id: 'expand',
    says: 'say contractions in full',
    otherwise: 'whole',
    patterns: [
      "(?:no|without|avoid|drop the|remove the|remove all|expand(?: the| all)?|spell out(?: the)?|don[’']t use) contractions(?: in {scope})?",
      '(?:make|sound)(?: {scope})? more formal',
    ],
    apply: ({ scope }, context) =>
      changedText(scope, context, asForms(FULL_FORMS), 'There are no contractions there.'),
  },
  {
    id: 'spelling',
    says: 'spell as British or American English',
    otherwise: 'whole',
    patterns: [
      '(?:use|in|switch to|change to|make it)? ?(?<variety>british|american|us|uk) (?:spelling|english|spellings)(?: (?:in|throughout) {scope})?',
      'spell (?:it )?(?:the )?(?<variety>british|american)(?: way)?',
    ],
    apply: ({ scope, slots }, context) => {
      const to = /british|uk/i.test(slots.variety) ? 'British' : 'American';
      return changedText(
        scope,
        context,
        (t) => spelled(t, to),
        `It is spelled ${to} already, as far as our list goes.`,
      );
    },
  },
  {
    id: 'no-opening-and',
    says: 'don’t open sentences with a linking word',
    otherwise: 'whole',
    patterns: [
      "(?:don[’']t|do not|never|no) (?:start|open|begin|starting)(?: (?:sentences|lines))? with [“\"‘']?(?<link>and|but|so|then)[”\"’']?(?: in {scope})?",
      '(?:no|fewer) sentences (?:that )?(?:start|open|begin)(?:ing)? with [“"‘\']?(?<link>and|but|so|then)[”"’\']?',
    ],
    apply: ({ scope, slots }, context) => {
      const pattern = new RegExp(`^${slots.link},?\\s+`, 'i');
      return changedText(
        scope,
        context,
        (t) => (pattern.test(t) ? cased('A', t.replace(pattern, '')) : t),
        `No line there opens with “${slots.link}”.`,
      );
    },
  },
];
