/** A quotation given to somebody who did not say it. */
import { SPOKE } from '../../language/reporting.ts';
import { literal } from '../../language/literal.ts';
import { quotedSpans } from '../../language/quotes.ts';
import { accuse, type Check } from './fault.ts';
import { bare } from './evidence.ts';

const PRONOUN =
  /^(?:he|she|they|it|i|we|you|him|her|them|me|us|that|who|one|somebody|someone|people|everyone)$/i;
const LIGHT =
  /^(?:the|a|an|mr|mrs|ms|dr|his|her|their|its|my|our|of|from|who|one|another|man|woman|retired|old|young)$/i;
/** Who speaks is named within so many sentences of the words. */
const REACH = 2;

const SHE = /\b(?:she|her|hers|herself|mrs|ms|miss)\b/gi;
const HE = /\b(?:he|him|his|himself|mr|sir)\b/gi;
type Gender = 'she' | 'he';
const BY_PRONOUN = new RegExp(`\\b(she|he) ${SPOKE}\\b|\\b${SPOKE} (she|he)\\b`, 'i');
/** Who says it, where the sentence says so by "she said" or "said he". */
function genderOf(text: string): Gender | null {
  const m = BY_PRONOUN.exec(text);
  return m ? ((m[1] ?? m[2]).toLowerCase() as Gender) : null;
}
/** As the sentences that name somebody, and those right behind them, speak of them; null where they don't or differ. */
function genderOfName(names: readonly string[], all: readonly { text: string }[]): Gender | null {
  let [she, he] = [0, 0];
  all.forEach((s, i) => {
    if (!names.some((n) => new RegExp(`\\b${literal(n.replace(/['’]s$/, ''))}\\b`).test(s.text))) return;
    for (const text of [s.text, all[i + 1]?.text ?? '']) {
      she += text.match(SHE)?.length ?? 0;
      he += text.match(HE)?.length ?? 0;
    }
  });
  return she + he < 1 || (she > 0 && he > 0 && Math.max(she, he) < 3 * Math.min(she, he))
    ? null
    : she > he
      ? 'she'
      : 'he';
}

const WHO = String.raw`(?:(?:the|a|an|his|her|their|my|our)\s+(?:\p{Ll}[\p{L}’'-]*\s+)?)?[\p{L}][\p{L}’'-]*(?:\s+\p{Lu}[\p{L}’'-]*)*`;
const BEHIND = new RegExp(`\\b${SPOKE}\\s+(${WHO})`, 'u');
const BEFORE = new RegExp(`(?:^|[,.;:]\\s*|\\s{2,})(${WHO})\\s+${SPOKE}\\b`, 'u');
/** Who the line says spoke the words in its quotation marks. */
function tagOf(plain: string): { text: string; start: number; end: number } | null {
  const m = BEHIND.exec(plain) ?? BEFORE.exec(plain);
  if (!m) return null;
  const start = m.index + m[0].indexOf(m[1]);
  return { text: m[1], start, end: start + m[1].length };
}

export const speaker: Check = ({ told, stock }) => {
  const own = tagOf(told.plain);
  if (!own || PRONOUN.test(own.text)) return [];
  const names = (own.text.match(/[\p{L}'’-]+/gu) ?? []).filter((w) => !LIGHT.test(w));
  if (!names.length) return [];
  for (const [start, end] of quotedSpans(told.text)) {
    const words = bare(told.text.slice(start, end));
    if (!words) continue;
    const places = stock.sentences.flatMap((s, i) => (s.bare.includes(words) ? [i] : []));
    if (!places.length) continue;
    const around = places
      .flatMap((i) =>
        stock.sentences.filter((s, k) => s.source === stock.sentences[i].source && Math.abs(k - i) <= REACH),
      )
      .map((s) => s.text)
      .join(' ')
      .toLowerCase();
    const said = places.map((i) => genderOf(stock.sentences[i].text)).find((g) => g !== null);
    const theirs = genderOfName(names, stock.sentences);
    const known = names.some((n) => around.includes(n.toLowerCase().replace(/['’]s$/, '')));
    if (known && !(said && theirs && said !== theirs)) continue;
    return accuse(
      'said',
      'wrong',
      own,
      `The source does not have these words from ${own.text.replace(/^The\b/, 'the')}.`,
    );
  }
  return [];
};
