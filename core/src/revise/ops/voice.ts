/** Who speaks and when: person and tense. Done where it is sure; what is not is left and said. */
import { inflect, formOf } from '../../language/inflect.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import { quotedSpans } from '../../language/quotes.ts';
import {
  mapLines,
  withText,
  type Applied,
  type Operation,
  type ReviseContext,
  type ReviseTools,
  type Scope,
} from '../types.ts';
import { outsideQuotes } from '../../draft/ear.ts';
import { active } from '../../draft/tell/restructure.ts';
import { changedText } from './cut.ts';

const cased = (model: string, word: string) =>
  /^\p{Lu}/u.test(model) && model !== 'I' ? word.charAt(0).toUpperCase() + word.slice(1) : word;
type Swap = readonly [RegExp, string];

const TO_YOU: readonly Swap[] = [
  [/\bI am\b|\bI[’']m\b/g, 'you are'],
  [/\bI was\b/g, 'you were'],
  [/\b(?:I|we)[’']ve\b/gi, 'you’ve'],
  [/\b(?:I|we)[’']ll\b/gi, 'you’ll'],
  [/\b(?:I|we)[’']d\b/gi, 'you’d'],
  [/\bwe[’']re\b/gi, 'you’re'],
  [/\bmyself\b/g, 'yourself'],
  [/\bourselves\b/gi, 'yourselves'],
  [/\bmine\b/g, 'yours'],
  [/\bours\b/gi, 'yours'],
  [/\b(?:my|our)\b/gi, 'your'],
  [/\b(?:me|us)\b/g, 'you'],
  [/\b(?:I|we)\b/gi, 'you'],
  [/\b(?:the (?:user|viewer|listener|reader|owner)|one) (?:should|must|has to) /gi, 'you should '],
  [/\b(?:the (?:user|viewer|listener|reader)|one) (can|could|may|might|will|would)\b/gi, 'you $1'],
];
const TO_I: readonly Swap[] = [
  [/\byou are\b|\byou[’']re\b/gi, 'I am'],
  [/\byou were\b/gi, 'I was'],
  [/\byou[’']ve\b/gi, 'I’ve'],
  [/\byou[’']ll\b/gi, 'I’ll'],
  [/\byou[’']d\b/gi, 'I’d'],
  [/\byourself\b/gi, 'myself'],
  [/\byours\b/gi, 'mine'],
  [/\byour\b/gi, 'my'],
  [
    /\b(to|for|with|at|on|of|by|from|behind|between|tell|tells|told|show|shows|gave|give|gives|help|helps|let|lets|make|makes) you\b/gi,
    '$1 me',
  ],
  [/\byou\b/gi, 'I'],
];
const TO_WE: readonly Swap[] = [
  [/\bI am\b|\bI[’']m\b/g, 'we are'],
  [/\bI was\b/g, 'we were'],
  [/\b(?:I|you)[’']ve\b/gi, 'we’ve'],
  [/\b(?:I|you)[’']ll\b/gi, 'we’ll'],
  [/\byou[’']re\b/gi, 'we’re'],
  [/\bmyself|yourself\b/gi, 'ourselves'],
  [/\b(?:my|your)\b/gi, 'our'],
  [/\bme\b/g, 'us'],
  [
    /\b(to|for|with|at|on|of|by|from|tell|tells|told|show|shows|gave|give|gives|help|helps|let|lets|make|makes) you\b/gi,
    '$1 us',
  ],
  [/\b(?:I|you)\b/gi, 'we'],
];
const swapped = (pairs: readonly Swap[]) => (text: string) =>
  outsideQuotes(text, (piece) =>
    pairs.reduce(
      (t, [from, to]) =>
        t.replace(from, (...m: unknown[]) =>
          cased(String(m[0]), to.replace('$1', typeof m[1] === 'string' ? m[1] : '')),
        ),
      piece,
    ),
  )
    .replace(/^\p{Ll}/u, (c) => c.toUpperCase())
    .replace(/([.!?]["”]?\s+)(\p{Ll})/gu, (_, s: string, c: string) => s + c.toUpperCase());

// ---- tense -----------------------------------------------------------------------------------------------------------

const PLURAL_PRONOUN = /^(?:they|we|you|these|those|both|many|few|several|all|most|some)$/i;

/** Whether the subject before a verb is plural; null where that is not plain. */
function plural(tokens: readonly TaggedToken[], v: number): boolean | null {
  for (let i = v - 1; i >= 0; i--) {
    const t = tokens[i];
    if (t.pos === 'ADV' || t.pos === 'PART') continue;
    if (t.pos === 'PRON')
      return /^(?:who|which|that)$/i.test(t.text)
        ? null
        : /^I$/.test(t.text)
          ? true
          : PLURAL_PRONOUN.test(t.text);
    if (t.pos === 'CCONJ') return plural(tokens, i);
    if (t.pos === 'PROPN')
      return tokens.slice(Math.max(0, i - 3), i).some((x) => x.pos === 'CCONJ') ? null : false;
    if (t.pos === 'NOUN') {
      // "the men in the boat went": the noun behind a preposition is no subject.
      const before = tokens.slice(0, i).reverse();
      const stop = before.findIndex((x) => !['DET', 'ADJ', 'NOUN', 'NUM', 'PROPN'].includes(x.pos));
      if (
        stop >= 0 &&
        before[stop].pos === 'ADP' &&
        !/^(?:in|at|on|after|before|by|during|for|of)$/i.test(before[stop].text)
      )
        return null;
      if (stop >= 0 && before[stop].pos === 'ADP') {
        const comma = before[stop - 1]?.pos;
        if (/^of$/i.test(before[stop].text)) return plural(tokens, i - stop - 1 + 0) ?? null;
        return comma === undefined ? null : null;
      }
      // "the nurse and the guard went", not "it moved, and the guard went".
      if (before[stop]?.pos === 'CCONJ' && /^(?:NOUN|PROPN)$/.test(before[stop + 1]?.pos ?? '')) return true;
      return t.lemma !== t.text.toLowerCase() || /^(?:people|men|women|children|police)$/i.test(t.text);
    }
    return null;
  }
  return null;
}

const BE_PRESENT: Readonly<Record<string, string>> = {
  was: 'is',
  were: 'are',
  wasn: 'isn',
  weren: 'aren',
  had: 'has',
  did: 'does',
};
const BE_PAST: Readonly<Record<string, string>> = {
  is: 'was',
  are: 'were',
  am: 'was',
  has: 'had',
  have: 'had',
  does: 'did',
  do: 'did',
  can: 'could',
  will: 'would',
  'isn’t': 'wasn’t',
  'aren’t': 'weren’t',
  'can’t': 'couldn’t',
  'won’t': 'wouldn’t',
  'doesn’t': 'didn’t',
  'don’t': 'didn’t',
  'hasn’t': 'hadn’t',
  'haven’t': 'hadn’t',
};

const inBrackets = (text: string, at: number) => /\([^)]*$/.test(text.slice(0, at));

/** A line in the present, or null when a verb of it is not sure. */
function toPresent(text: string, tools: ReviseTools): string | null {
  const quotes = quotedSpans(text);
  const tokens = tools.tagger(text);
  const edits: { start: number; end: number; by: string }[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const t = tokens[i];
    if (quotes.some(([s, e]) => t.start > s && t.end < e) || inBrackets(text, t.start)) continue;
    const word = t.text.toLowerCase().replace("'", '’');
    const put = (by: string) => edits.push({ start: t.start, end: t.end, by: cased(t.text, by) });
    if (word === 'was' && /^I$/.test(tokens[i - 1]?.text ?? '')) put('am');
    else if (word === 'was' || word === 'were') put(BE_PRESENT[word]);
    else if (word === 'wasn’t' || word === 'weren’t') put(word === 'wasn’t' ? 'isn’t' : 'aren’t');
    else if (/^(?:had|did|didn’t|hadn’t)$/.test(word) && (t.pos === 'AUX' || t.pos === 'VERB')) {
      // "had gone" before the story's present stays a past: "has gone" would be another time.
      if (word.startsWith('had') && tokens.slice(i + 1, i + 4).some((x) => x.pos === 'VERB')) return null;
      const many = plural(tokens, i);
      if (many === null) return null;
      put(
        {
          had: many ? 'have' : 'has',
          did: many ? 'do' : 'does',
          'didn’t': many ? 'don’t' : 'doesn’t',
          'hadn’t': many ? 'haven’t' : 'hasn’t',
        }[word]!,
      );
    } else if (/^(?:could|would|might)$/.test(word))
      put({ could: 'can', would: 'will', might: 'may' }[word]!);
    else if (/^(?:couldn’t|wouldn’t)$/.test(word)) put(word === 'couldn’t' ? 'can’t' : 'won’t');
    else if (t.pos === 'VERB' && isFiniteVerb(tokens, i)) {
      const form = formOf(word, t.lemma, false);
      if (form !== 'past') continue;
      const many = plural(tokens, i);
      if (many === null) return null;
      put(many ? t.lemma : inflect(t.lemma, 'third'));
    } else if (
      t.pos === 'VERB' &&
      formOf(word, t.lemma, false) === 'past' &&
      i > 0 &&
      tokens[i - 1].pos === 'NOUN' &&
      !tokens.some((_, k) => k > i && isFiniteVerb(tokens, k))
    )
      return null;
  }
  if (!edits.length) return text;
  return edits.reverse().reduce((out, e) => out.slice(0, e.start) + e.by + out.slice(e.end), text);
}

function toPast(text: string, tools: ReviseTools): string | null {
  const quotes = quotedSpans(text);
  const tokens = tools.tagger(text);
  const edits: { start: number; end: number; by: string }[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const t = tokens[i];
    if (quotes.some(([s, e]) => t.start > s && t.end < e)) continue;
    const word = t.text.toLowerCase().replace("'", '’');
    if (BE_PAST[word] && (t.pos === 'AUX' || t.pos === 'VERB')) {
      if (
        word === 'have' &&
        /^(?:to|will|would|may|might|must|should|could|can)$/i.test(tokens[i - 1]?.text ?? '')
      )
        continue;
      edits.push({ start: t.start, end: t.end, by: cased(t.text, BE_PAST[word]) });
    } else if (t.pos === 'VERB' && isFiniteVerb(tokens, i)) {
      const form = formOf(word, t.lemma, false);
      if (form === 'third' || (form === 'base' && plural(tokens, i)))
        edits.push({ start: t.start, end: t.end, by: cased(t.text, inflect(t.lemma, 'past')) });
      else if (form === 'base' && plural(tokens, i) === null) return null;
    }
  }
  if (!edits.length) return text;
  return edits.reverse().reduce((out, e) => out.slice(0, e.start) + e.by + out.slice(e.end), text);
}

function retensed(
  scope: Scope,
  context: ReviseContext,
  change: (text: string) => string | null,
  already: string,
): Applied {
  let changed = 0;
  const unsure: string[] = [];
  const sections = mapLines(context.sections, new Set(scope.lines), (l) => {
    const text = change(l.text);
    if (text === null) {
      unsure.push(l.text);
      return l;
    }
    if (text !== l.text) changed++;
    return withText(l, text);
  });
  const left = unsure.length
    ? `${unsure.length === 1 ? 'One line is' : `${unsure.length} lines are`} left as ${unsure.length === 1 ? 'it is' : 'they are'}, because a verb there is not sure: “${unsure[0].slice(0, 60)}…”`
    : '';
  if (!changed) return { refused: unsure.length ? left : already };
  return { sections, notes: left ? [left] : [] };
}

export const voiceOps: readonly Operation[] = [
  {
    id: 'second-person',
    says: 'address the listener as you',
    otherwise: 'whole',
    patterns: [
      '(?:put |make |write |turn |change |tell |do )?(?:{scope} )?(?:in|into|to) (?:the )?(?:second person|you[- ]form)',
      '(?:the )?second person',
      '(?:use|say|write) [“"‘\']?you[”"’\']? (?:instead of|not|for|rather than) (?:[“"‘\']?(?:i|we|one|they|the user)[”"’\']?)(?: in {scope})?',
      '(?:address|speak to|talk to) (?:the )?(?:listener|viewer|audience|reader)s?(?: directly)?(?: in {scope})?',
      '(?:tell|address) {scope} to the (?:listener|viewer|audience)',
      '(?:change|turn|make) (?:the |every |all )?[“"‘\']?(?:i|we|one)[”"’\']? (?:to|into) [“"‘\']?you[”"’\']?(?: in {scope})?',
    ],
    apply: ({ scope }, context) =>
      changedText(
        scope,
        context,
        swapped(TO_YOU),
        'Nobody there says “I”, “we” or “one”; who would become “you” is not plain.',
      ),
  },
  {
    id: 'first-person',
    says: 'tell it as I',
    otherwise: 'whole',
    patterns: [
      '(?:change|turn|make) (?:the |every |all )?[“"‘\']?(?:you|we)[”"’\']? (?:to|into) [“"‘\']?i[”"’\']?(?: in {scope})?',
      '(?:put |make |write |turn |change |tell |do )?(?:{scope} )?(?:in|into|to) (?:the )?(?:first person(?: singular)?|i[- ]form)',
      '(?:the )?first person(?: singular)?',
      '(?:use|say|write) [“"‘\']?i[”"’\']? (?:instead of|not|for|rather than) [“"‘\']?you[”"’\']?(?: in {scope})?',
    ],
    apply: ({ scope }, context) =>
      changedText(
        scope,
        context,
        swapped(TO_I),
        'Nobody there is addressed as “you”. Who would become “I” needs a person.',
      ),
  },
  {
    id: 'we-person',
    says: 'tell it as we',
    otherwise: 'whole',
    patterns: [
      '(?:change|turn|make) (?:the |every |all )?[“"‘\']?(?:i|you)[”"’\']? (?:to|into) [“"‘\']?we[”"’\']?(?: in {scope})?',
      '(?:put |make |write |turn |change |tell |do )?(?:{scope} )?(?:in|into|to) (?:the )?(?:first person plural|we[- ]form)',
      '(?:use|say|write) [“"‘\']?we[”"’\']? (?:instead of|not|for|rather than) [“"‘\']?(?:i|you)[”"’\']?(?: in {scope})?',
    ],
    apply: ({ scope }, context) =>
      changedText(scope, context, swapped(TO_WE), 'Nobody there says “I” or “you”.'),
  },
  {
    id: 'third-person',
    says: 'tell it of them',
    otherwise: 'whole',
    patterns: [
      '(?:put |make |write |turn |change |tell |do )?(?:{scope} )?(?:in|into|to) (?:the )?third person',
      '(?:the )?third person',
    ],
    apply: () => ({
      refused: 'Who “I” is, no rule can tell: he, she, or a name. That needs a person.',
      nearest: 'second person',
    }),
  },
  {
    id: 'to-present',
    says: 'tell it in the present',
    otherwise: 'whole',
    patterns: [
      '(?:put |make |write |turn |change |tell )?(?:{scope} )?(?:from )?(?:the )?past (?:tense )?(?:to|into) (?:the )?present(?: tense)?',
      '(?:put|make|write|turn|change|tell) {scope} (?:in|into|to) (?:the )?present(?: tense)?',
      '(?:use |in )?(?:the )?present tense(?: (?:in|for) {scope})?',
      '{scope} in (?:the )?present(?: tense)?',
    ],
    apply: ({ scope }, context, tools) =>
      retensed(scope, context, (t) => toPresent(t, tools), 'It is in the present already.'),
  },
  {
    id: 'to-past',
    says: 'tell it in the past',
    otherwise: 'whole',
    patterns: [
      '(?:put |make |write |turn |change |tell )?(?:{scope} )?(?:from )?(?:the )?present (?:tense )?(?:to|into) (?:the )?past(?: tense)?',
      '(?:put|make|write|turn|change|tell) {scope} (?:in|into|to) (?:the )?past(?: tense)?',
      '(?:use |in )?(?:the )?past tense(?: (?:in|for) {scope})?',
      '{scope} in (?:the )?past(?: tense)?',
    ],
    apply: ({ scope }, context, tools) =>
      retensed(scope, context, (t) => toPast(t, tools), 'It is in the past already.'),
  },
  {
    id: 'active',
    says: 'say who does it',
    otherwise: 'selection',
    patterns: [
      '(?:make|put|turn|say|write) {scope} (?:in(?:to)? )?(?:the )?active(?: voice)?',
      '(?:use )?(?:the )?active(?: voice)?(?: (?:in|for) {scope})?',
      '(?:no|without|avoid(?: the)?|fewer) passives?(?: voice)?(?: (?:in|for) {scope})?',
    ],
    apply: ({ scope }, context, { tagger }) =>
      changedText(
        scope,
        context,
        (text) => active({ text, tokens: tagger(text) }) ?? text,
        'No sentence there says by whom it is done, in a way that can be turned safely.',
      ),
  },
];
