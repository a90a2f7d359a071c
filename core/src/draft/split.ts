/** Safe splits of long sentences: at a semicolon, a colon, and before ", and / but / so" with a clause of its own. */
import { hasFiniteVerb, isFiniteVerb, type TaggedToken } from '../language/tagged.ts';
import { quotedSpans } from '../language/quotes.ts';

/** Sentences up to this many words are left whole: they are easy to hear. */
const EASY = 16;

const OPENED_BY =
  /^(?:if|when|whenever|since|although|though|while|because|as|after|before|once|unless|until|whether|so that|even)\b/i;
const SCOPE =
  /\b(?:said|says|say|told|tells|claim(?:s|ed)?|believ(?:e|es|ed)|thought|thinks|argue[sd]?|report(?:s|ed)?|according to|wrote|writes|announced|suggest(?:s|ed)?|showed|shows|found|hoped?|fear(?:s|ed)?|asked|so that|such that|not only|neither(?= .* nor)|either|both|whether)\b/i;
const SUBJECT = new Set(['DET', 'PRON', 'PROPN', 'NOUN', 'NUM', 'ADJ']);

const wordsIn = (text: string) => text.split(/\s+/).filter(Boolean).length;
const capital = (text: string) =>
  text.replace(/^(["“]?)(\p{Ll})/u, (_, q: string, c: string) => q + c.toUpperCase());
const closed = (text: string) => (/[.!?…]["”]?$/.test(text) ? text : `${text.replace(/[,;:]$/, '')}.`);

/** Parts of a sentence that can be told as sentences of their own; the sentence alone when none is safe. */
export function safeSplits(text: string, tokens: readonly TaggedToken[], easy = EASY): string[] {
  if (wordsIn(text) <= easy) return [text];
  const cut = findCut(text, tokens);
  if (!cut) return [text];
  const left = closed(text.slice(0, cut.end).trim());
  const from = cut.start + (/^\s*/.exec(text.slice(cut.start))?.[0].length ?? 0);
  const right = capital(text.slice(from).trim());
  const rest = tokens
    .filter((t) => t.start >= from)
    .map((t) => ({ ...t, start: t.start - from, end: t.end - from }));
  return [left, ...safeSplits(right, rest, easy)];
}

/** The first safe place: `end` closes the left part, `start` opens the right one. */
function findCut(text: string, tokens: readonly TaggedToken[]): { end: number; start: number } | null {
  const quotes = quotedSpans(text);
  // Several semicolons may part a list.
  const lone = tokens.filter((t) => t.text === ';').length === 1;
  const quoted = (at: number) => quotes.some(([s, e]) => at > s && at < e);
  for (let i = 1; i < tokens.length - 2; i++) {
    const token = tokens[i];
    if (quoted(token.start)) continue;
    // What is quoted has verbs of its own: "“…,” the study’s author Ann Ware of the Board and the College said".
    const left = tokens.slice(0, i).filter((t) => !quoted(t.start));
    const right = tokens.slice(i + 1);
    const leftText = text.slice(0, token.start);
    if (wordsIn(leftText) < (token.text === ':' ? 3 : 4) || wordsIn(text.slice(token.end)) < 4) continue;
    if (token.text === ';' && hasFiniteVerb(left) && (clauseOpens(right) || (lone && clauseUpToMark(right))))
      return { end: token.start, start: token.end };
    if (
      token.text === ':' &&
      hasFiniteVerb(left) &&
      (clauseOpens(right) || clauseBehindPhrase(right)) &&
      !/["“]/.test(text.slice(token.end)) &&
      !isList(right)
    )
      return { end: token.start, start: token.end };
    // "… too many kinds and it is hard to choose": a pronoun begins a clause without a comma too.
    if (
      /^(?:and|but)$/.test(token.text) &&
      tokens[i - 1].text !== ',' &&
      !/^\p{Lu}/u.test(tokens[i - 1].text) &&
      // "so she and I stayed": two subjects of one verb.
      !/^(?:he|she|they|we|you)$/.test(tokens[i - 1].text) &&
      pronounClause(right)
    ) {
      if (!hasFiniteVerb(left) || OPENED_BY.test(leftText) || SCOPE.test(leftText)) continue;
      if (left.some((t) => /^(?:that|which|who|whose|where|when|if|because|than|as)$/.test(t.text))) continue;
      return { end: token.start, start: token.text === 'and' ? right[0].start : token.start };
    }
    // "It comes at noon, it has a pitch, and it stays": clauses in a row, of which one begins here.
    if (token.text === ',' && pronounClause(right) && hasFiniteVerb(left) && !OPENED_BY.test(leftText) && !SCOPE.test(leftText) && clausesInRow(right) && !left.some((t) => t.text === ',')) return { end: token.start, start: token.end }; // prettier-ignore
    if (token.text !== ',' || !/^(?:and|but|so)$/.test(right[0]?.text ?? '')) continue;
    const word = right[0].text;
    const clause = right.slice(1);
    if (clause[0]?.text.toLowerCase() === 'that' || OPENED_BY.test(leftText) || SCOPE.test(leftText))
      continue;
    if (!hasFiniteVerb(left) || !(clauseOpens(clause) || clauseBehindAnother(clause))) continue;
    // A second comma before the next verb may be a list; a relative clause left open would lose its noun.
    if (
      /,\s(?:which|who|whose|where)\b[^,]*$/.test(leftText) ||
      (/\bnot\b[^,]*$/.test(leftText) && word === 'but')
    )
      continue;
    // "a replay of the day when one, trained by her, and another met": a clause that has no verb yet goes on.
    const opened = left.findLastIndex((t) =>
      /^(?:when|where|while|if|because|although|whose|what|who|how|why)$/.test(t.text),
    );
    if (opened >= 0 && !left.some((_, k) => k > opened && isFiniteVerb(left, k) && left[k + 1]?.text !== 'by')) continue; // prettier-ignore
    return { end: token.start, start: word === 'and' ? clause[0].start : right[0].start };
  }
  return null;
}

/** Whether tokens begin with a subject and its finite verb within a few words, with no clause word in between. */
export function clauseOpens(tokens: readonly TaggedToken[]): boolean {
  if (
    /^(?:at least|more than|up to|at most|less than|fewer than|as many as) /.test(
      tokens
        .slice(0, 3)
        .map((t) => `${t.text} `)
        .join(''),
    )
  )
    return hasFiniteVerb(tokens.slice(2, 14));
  if (
    !tokens.length ||
    // "painted pebbles": a participle before its noun.
    !(SUBJECT.has(tokens[0].pos) || (/(?:ed|en)$/.test(tokens[0].text) && tokens[1]?.pos === 'NOUN')) ||
    /^(?:that|which|who|whose|whom|to)$/i.test(tokens[0].text)
  )
    return false;
  // "street lamps, which stayed on, may": what is told of the subject stands between.
  const comma = tokens.findIndex((t) => t.text === ',');
  if (comma > 0 && comma < 5 && /^(?:who|which)$/.test(tokens[comma + 1]?.text ?? '')) {
    const close = tokens.findIndex((t, i) => i > comma + 1 && t.text === ',');
    return close > 0 && close - comma < 18 && isFiniteVerb(tokens, close + 1);
  }
  for (let i = 1; i < Math.min(tokens.length, 9); i++) {
    // "an entirely stock version": no verb stands between an article and its noun.
    const unnamed = /^(?:an?|the)$/i.test(tokens[0].text) && tokens.slice(1, i).every((t) => t.pos === 'ADV');
    if (isFiniteVerb(tokens, i) && !unnamed) return true;
    if (/^(?:[,;:–—]|--)$/.test(tokens[i].text) || ['SCONJ', 'CCONJ'].includes(tokens[i].pos)) return false;
    // "a division that mends lamps": what is told of a thing is no clause of its own.
    if (/^(?:that|which|who|whose|whom|where)$/.test(tokens[i].text)) return false;
  }
  return false;
}

/** Whether another clause with a pronoun for its subject follows behind ", and". */
const clausesInRow = (tokens: readonly TaggedToken[]) =>
  tokens.some(
    (t, i) => t.text === ',' && tokens[i + 1]?.text === 'and' && pronounClause(tokens.slice(i + 2)),
  );

/** A pronoun or a full name, and its verb. */
const pronounClause = (tokens: readonly TaggedToken[]) =>
  (tokens[0]?.pos === 'PROPN' &&
    tokens[1]?.pos === 'PROPN' &&
    (isFiniteVerb(tokens, 2) || (tokens[2]?.pos === 'PROPN' && isFiniteVerb(tokens, 3)))) ||
  (/^(?:it|he|she|they|we|I|these|those)$/.test(tokens[0]?.text ?? '') &&
    (isFiniteVerb(tokens, 1) || (tokens[1]?.pos === 'ADV' && isFiniteVerb(tokens, 2))));

/** ", but because the well was dry, they left": a clause that another one opens. */
function clauseBehindAnother(tokens: readonly TaggedToken[]): boolean {
  if (!/^(?:because|when|if|although|though|while|after|before|once|as)$/.test(tokens[0]?.text ?? ''))
    return false;
  const comma = tokens.findIndex((t) => t.text === ',');
  return (
    comma > 3 && comma < 22 && hasFiniteVerb(tokens.slice(1, comma)) && clauseOpens(tokens.slice(comma + 1))
  );
}

/** Behind a semicolon: a stretch with a verb of its own that nothing joins to what stands before. */
function clauseUpToMark(tokens: readonly TaggedToken[]): boolean {
  const end = tokens.findIndex((t) => /^[;:]$/.test(t.text));
  const own = end < 0 ? tokens : tokens.slice(0, end);
  return (
    [...SUBJECT, 'ADP', 'ADV'].includes(own[0]?.pos ?? '') &&
    !/^(?:that|which|who|whose|whom|to|with|including|such|especially|particularly|as|also|never|often|not)$/i.test(
      own[0].text,
    ) &&
    own.some((_, i) => i > 0 && isFiniteVerb(own, i)) &&
    !own.some((t) => /^(?:which|who|that|whose|where)$/.test(t.text))
  );
}

/** "; on the other days the gap shrank": a clause that a phrase of time or place opens, up to the next mark. */
function clauseBehindPhrase(tokens: readonly TaggedToken[]): boolean {
  if (tokens[0]?.pos !== 'ADP') return false;
  const end = tokens.findIndex((t) => /^[;:]$/.test(t.text));
  const own = end < 0 ? tokens : tokens.slice(0, end);
  return (
    own.some((_, i) => i > 2 && isFiniteVerb(own, i)) && !own.some((t) => /^(?:which|who|that)$/.test(t.text))
  );
}

/** Several commas, and no verb before the first: things counted up. */
const isList = (tokens: readonly TaggedToken[]) => {
  const comma = tokens.findIndex((t) => t.text === ',');
  return tokens.filter((t) => t.text === ',').length > 1 && !hasFiniteVerb(tokens.slice(0, comma));
};
