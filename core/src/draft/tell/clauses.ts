/**
 * Long sentences of several clauses, parted where each has its own subject or can be given one: a speaker or a relative
 * clause between them, what kind of thing was just told of, a clause that a phrase of time or place opens. Guards as in
 * `breath`: where one fails the sentence stays whole.
 */
import { ASSERTS, THINKS } from '../../language/reporting.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import { quotedSpans } from '../../language/quotes.ts';
import { clauseOpens } from '../split.ts';
import { GOVERNS, finiteIn } from './breath.ts';
import type { Subject } from './decompose.ts';
import { upper, type Tagged } from './restructure.ts';
import { closed, inQuote, small, words } from './sentence.ts';

const SAYS = new RegExp(`^(?:${ASSERTS}|${THINKS})$`);
const LEAST = 5;
const isName = (list: readonly TaggedToken[]) =>
  list.length > 0 && list.every((t) => t.pos === 'PROPN') && /^\p{Lu}\p{Ll}/u.test(list.at(-1)!.text);
const short = (text: string) => words(text) < LEAST;
/** A pronoun as it owns something. */
const POSSESSIVE: Readonly<Record<string, string>> = { He: 'His', She: 'Her', They: 'Their', It: 'Its' };

/** "Odile Brandt, 71, who spent nights there, said: “…”" → "Odile Brandt, 71, spent nights there. She said: “…”" */
export function whoSpeaks({ text, tokens }: Tagged, carry: Subject): string[] | null {
  const who = tokens.findIndex((t, i) => t.text === 'who' && tokens[i - 1]?.text === ',');
  if (who < 2 || who > 8 || !isFiniteVerb(tokens, who + 1)) return null;
  // A name, and an age in commas.
  const aged = who > 4 && tokens[who - 2].pos === 'NUM' && tokens[who - 3].text === ',';
  const name = tokens.slice(0, aged ? who - 3 : who - 1);
  if (!isName(name) || name.length < 2) return null;
  const close = tokens.findIndex(
    (t, i) => i > who + 2 && t.text === ',' && SAYS.test(tokens[i + 1]?.text ?? ''),
  );
  if (close < 0) return null;
  const clause = text.slice(tokens[who + 1].start, tokens[close].start);
  if (/[“”"():;,]/.test(clause) || short(clause)) return null;
  const last = name.at(-1)!;
  const carried = carry(text.slice(0, last.end), name) ?? last.text;
  const age = aged ? `${text.slice(last.end, tokens[who - 1].start)},` : '';
  return [
    closed(`${text.slice(0, last.end)}${age} ${clause}`),
    `${carried} ${text.slice(tokens[close + 1].start)}`.trim(),
  ];
}

/** "Rehn, whose department called it a hat stand, told a meeting …" → "Rehn told a meeting … His department called it a hat stand." */
export function whoseClause({ text, tokens }: Tagged, carry: Subject): string[] | null {
  const whose = tokens.findIndex((t, i) => t.text === 'whose' && tokens[i - 1]?.text === ',');
  if (whose < 2 || whose > 9) return null;
  const subject = tokens.slice(0, whose - 1);
  const named = subject.at(-1)!.pos === 'PROPN';
  if (!subject.every((t) => ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(t.pos))) return null;
  // The comma that closes it, outside what is quoted, before the main verb.
  const close = tokens.findIndex(
    (t, i) =>
      i > whose + 2 &&
      t.text === ',' &&
      !inQuote(text, t.start) &&
      (isFiniteVerb(tokens, i + 1) || (tokens[i + 1]?.pos === 'ADV' && isFiniteVerb(tokens, i + 2))),
  );
  if (close < 0 || !finiteIn(tokens, whose + 1, close).length) return null;
  const between = text.slice(tokens[whose + 1].start, tokens[close].start);
  if (
    /[:;()]/.test(between) ||
    tokens.slice(whose + 1, close).some((t) => t.text === ',' && !inQuote(text, t.start))
  )
    return null;
  const phrase = text.slice(0, subject.at(-1)!.end);
  const rest = text.slice(tokens[close + 1].start);
  if (short(between) || short(rest) || /[“"]/.test(rest)) return null;
  const carried = carry(phrase, subject);
  // Whoever or whatever it is: by the whole name where no pronoun is known.
  const name = subject.slice(subject.findLastIndex((t) => t.pos !== 'PROPN') + 1);
  const owner =
    carried && POSSESSIVE[carried]
      ? POSSESSIVE[carried]
      : named
        ? `${text.slice(name[0].start, name.at(-1)!.end)}’s`
        : null;
  return owner === null ? null : [closed(`${phrase} ${rest}`), closed(`${owner} ${between}`)];
}

/** "It has two cracks, he said, and a net could be fitted." → "It has two cracks, he said. A net could be fitted, he said.": both stay his. */
export function saidBetween({ text, tokens }: Tagged): string[] | null {
  if (quotedSpans(text).length || /[?:;“”"()]/.test(text)) return null;
  for (let i = 4; i < tokens.length - 6; i++) {
    if (tokens[i].text !== ',') continue;
    const said = tokens.findIndex((t, k) => k > i + 1 && k <= i + 4 && SAYS.test(t.text));
    if (said < 0 || tokens[said + 1]?.text !== ',' || !/^(?:and|but)$/.test(tokens[said + 2]?.text ?? ''))
      continue;
    const who = tokens.slice(i + 1, said);
    if (!isName(who) && !(who.length === 1 && /^(?:he|she|they)$/.test(who[0].text))) return null;
    const rest = tokens.slice(said + 3);
    if (!clauseOpens(rest) || rest.slice(0, -1).some((t) => t.text === ',') || !finiteIn(tokens, 0, i).length)
      return null;
    const tag = text.slice(tokens[i].start, tokens[said].end);
    const behind = text.slice(rest[0].start).replace(/\.$/, '');
    if (short(behind)) return null;
    return [
      closed(text.slice(0, tokens[said].end)),
      `${tokens[said + 2].text === 'but' ? `But ${behind}` : upper(behind)}${tag}.`,
    ];
  }
  return null;
}

/** A pronoun or "there" that can only be the subject of what follows. */
const PLAIN_SUBJECT = /^(?:it|he|she|they|we|I|there)$/;

/** "…, and for more than a century it was brought down …" → "For more than a century it was brought down …": a clause of its own that a phrase opens. */
export function phraseThenClause({ text, tokens }: Tagged): string[] | null {
  if (/[?:;]/.test(text)) return null;
  for (let i = 4; i < tokens.length - 6; i++) {
    if (tokens[i].text !== ',' || !/^(?:and|but)$/.test(tokens[i + 1].text) || inQuote(text, tokens[i].start))
      continue;
    const from = i + 2;
    if (tokens[from].pos !== 'ADP' || /^(?:of|to)$/.test(tokens[from].text)) continue;
    const subject = tokens.findIndex((t, k) => k > from + 1 && k <= from + 14 && PLAIN_SUBJECT.test(t.text));
    if (
      subject < 0 ||
      !(
        isFiniteVerb(tokens, subject + 1) ||
        (tokens[subject + 1]?.pos === 'ADV' && isFiniteVerb(tokens, subject + 2))
      )
    )
      continue;
    const opener = tokens.slice(from, subject);
    if (
      opener.some(
        (t) =>
          t.pos !== 'DET' && /^(?:which|who|that|whose|where|when|whether|how|what|and|but|or)$/.test(t.text),
      ) ||
      finiteIn(tokens, from, subject).length
    )
      continue;
    const before = tokens.slice(0, i);
    // "One is red, the last is blue, and in between …": of several clauses in a row none goes.
    const comma = before.findIndex((t) => t.text === ',');
    if (
      comma > 0 &&
      finiteIn(tokens, 0, comma).length &&
      finiteIn(tokens, comma, i).length &&
      !/^(?:which|who|where|when)$/.test(tokens[comma + 1].text)
    )
      return null;
    if (
      !finiteIn(tokens, 0, i).length ||
      before.some((t) => GOVERNS.test(t.text) && t.text !== 'since') ||
      before.some((t) => SAYS.test(t.text))
    )
      return null;
    const but = tokens[i + 1].text === 'but';
    const behind = text.slice(tokens[from].start);
    return [closed(text.slice(0, tokens[i].start)), closed(but ? `But ${small(behind)}` : upper(behind))];
  }
  return null;
}
