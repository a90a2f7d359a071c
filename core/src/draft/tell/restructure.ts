/**
 * A sentence said in another order or in fewer words, the same claim: each operation is one that was found right nearly
 * always, with its guards. All work on one sentence outside quotations and return null where they don't apply.
 */
import { CURRENCIES, MONTHS, PATTERNS, WEEKDAYS } from '../../language/lexicon.ts';
import { quotedSpans } from '../../language/quotes.ts';
import { isMeasured } from '../ear.ts';
import { formOf, inflect } from '../../language/inflect.ts';
import { hasFiniteVerb, isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';

export interface Tagged {
  text: string;
  tokens: readonly TaggedToken[];
}

/** Words that open a sentence and are never a name's first. */
const SMALL =
  /^(?:The|An?|It|He|She|They|We|You|His|Her|Its|Their|Our|My|This|That|These|Those|Most|Some|Many|Few|Both|All|About|Almost|Nearly|Over|Around|Nobody|Everyone|There|No|Two|Three|Four|Five|Six|Seven|Eight|Nine|Ten)\b/;
export const lower = (text: string) =>
  SMALL.test(text) || !/^\p{Lu}(?:\b|\p{Lu}|[\p{Ll}’'-]+ \p{Lu})/u.test(text)
    ? text[0].toLowerCase() + text.slice(1)
    : text;
export const upper = (text: string) =>
  text.replace(/^(["“]?)(\p{Ll})/u, (_, q: string, c: string) => q + c.toUpperCase());
const MONTH = PATTERNS.month;
/** A time that stands alone: "in 1874", "on 9 October 1872", "in the same summer" does not (it points back). */
const TIME = `(?:(?:in|by|since|until) (?:the (?:spring|summer|autumn|winter) of )?(?:(?:early|late) )?(?:${MONTH} )?(?:1[0-9]\\d\\d|20\\d\\d)|on (?:\\d{1,2} ${MONTH}(?: \\d{4})?|(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day(?: (?:morning|afternoon|evening|night))?)|in ${MONTH}(?: \\d{4})?|between (?:1[0-9]\\d\\d|20\\d\\d) and (?:1[0-9]\\d\\d|20\\d\\d)|last (?:week|month|year|summer|winter|spring|autumn|${MONTH})|(?:each|every) (?:day|year|week|month|night|morning))`;
const CLAUSE_WORD =
  /\b(?:that|which|who|whose|where|when|while|because|although|though|if|after|before|until|since|as|so|but|whether|than|until|had)\b/i;

const quoted = (text: string) => quotedSpans(text).length > 0;
/** How many finite verbs stand in a stretch. */
const finite = (tokens: readonly TaggedToken[]) => tokens.filter((_, i) => isFiniteVerb(tokens, i)).length;

const TIME_WORD = new RegExp(
  `^(?:${[...WEEKDAYS, ...MONTHS].join('|')}|mornings?|afternoons?|evenings?|nights?|days?|weeks?|weekend|fortnight|months?|summers?|winters?|springs?|autumns?|years?|half|quarter)$`,
);

/** "It was built in 1872 on iron legs" → "In 1872 it was built on iron legs": the time first, from a clause with one verb. */
export function frontTime({ text, tokens }: Tagged): string | null {
  if (quoted(text) || /[;:?]/.test(text)) return null;
  const found = [...text.matchAll(new RegExp(`(,?) (${TIME})(?=[ ,.])`, 'gu'))];
  if (found.length !== 1) return null;
  const [m] = found;
  const at = m.index + m[1].length + 1;
  // "between 1840 and 1870 it wrecked" is in front already.
  if (
    at < 12 ||
    /^(?:In|On|By|Since|Until|Between|At|After|Before|During|From|Last|Each|Every|When|While|If|For|With|As)\b/.test(
      text,
    )
  )
    return null;
  const before = tokens.filter((t) => t.end <= m.index);
  const verb = before.findIndex((_, i) => isFiniteVerb(before, i));
  if (verb < 0 || finite(before) !== 1) return null;
  const head = text.slice(0, m.index);
  const tail = text.slice(m.index + m[0].length);
  // A clause word before it, or a noun right before it that it may belong to ("the flood of water in 1880", "a harbour in May").
  if (CLAUSE_WORD.test(head) || /[,“”]/.test(head)) return null;
  const last = before[before.length - 1];
  // "a study of samples published last month": the time of what is told of a thing.
  if (last.pos === 'VERB' && before.length - 1 > verb && before.slice(verb + 1, -1).some((t) => t.pos === 'NOUN' || t.pos === 'PROPN')) return null; // prettier-ignore
  if (/\baccording to\b/i.test(head)) return null;
  // "on the first Saturday in June": a time within a time.
  if (TIME_WORD.test(last.text)) return null;
  if (last.pos === 'NOUN' && before.slice(verb + 1).some((t) => t.pos === 'ADP')) return null;
  if (/^(?:last|each|every)$/.test(m[2].split(' ')[0]) && last.pos === 'ADP') return null;
  if (
    /^ (?:and|or|to|until|since|by|he|she|it|they|but|early|late)\b/.test(tail) ||
    /^,? (?:when|after|before|and|or|because|although|which)\b/.test(tail)
  )
    return null;
  if (
    /\bhad\b/.test(head) ||
    /\b(?:also|even|only|already|again|not|early|late|earlier|later|shortly|just|soon|long|right)$/.test(head)
  )
    return null;
  const subject = before[0];
  const start = subject.pos === 'PROPN' || /^I$/.test(subject.text) ? head : lower(head);
  return `${upper(m[2])}${m[2].split(' ').length > 3 ? ',' : ''} ${start}${tail}`;
}

/** "In 1884 the company advertised for designs." → "The company advertised for designs in 1884.": the time last, after one short clause. */
export function backTime({ text, tokens }: Tagged): string | null {
  if (quoted(text)) return null;
  const m = new RegExp(`^(${TIME}),? (?=\\p{L})`, 'iu').exec(text);
  if (!m) return null;
  const clause = text.slice(m[0].length);
  const rest = tokens.filter((t) => t.start >= m[0].length);
  if (clause.split(' ').length > 13 || finite(rest) !== 1 || CLAUSE_WORD.test(clause) || /[,;:]/.test(clause))
    return null;
  if (!['DET', 'PRON', 'PROPN', 'NOUN', 'NUM', 'ADJ'].includes(rest[0]?.pos ?? '')) return null;
  if (new RegExp(`\\b(?:${TIME}|for|since|until|during|by|at|per|every|each)\\b`, 'iu').test(clause))
    return null;
  const time = m[1][0].toLowerCase() + m[1].slice(1);
  return `${upper(clause.replace(/([.!])$/, ''))} ${time}${/[.!]$/.exec(text)?.[0] ?? '.'}`;
}

/** "a lamp that was lit by hand" → "a lamp lit by hand": the relative and its "be" left out before a participle that goes on. */
export function bareParticiple({ text, tokens }: Tagged): string | null {
  for (let i = 1; i < tokens.length - 2; i++) {
    if (!/^(?:that|which|who)$/.test(tokens[i].text) || !/^(?:is|are|was|were)$/.test(tokens[i + 1].text))
      continue;
    const participle = tokens[i + 2];
    const next = tokens[i + 3];
    if (participle.pos !== 'VERB' || !/(?:ed|en|t|de|ne|nt)$/.test(participle.text) || next?.pos !== 'ADP')
      continue;
    if (tokens[i - 1].pos !== 'NOUN' || inQuote(text, tokens[i].start)) continue;
    return text.slice(0, tokens[i].start) + text.slice(participle.start);
  }
  return null;
}

/** "she said that the link had passed" → "she said the link had passed". */
export function bareThat({ text, tokens }: Tagged): string | null {
  for (let i = 1; i < tokens.length - 2; i++) {
    if (tokens[i].text !== 'that' || inQuote(text, tokens[i].start)) continue;
    if (
      !/^(?:say|think|believe|know|hope|find|see|feel|notice|mean|suppose|tell)$/.test(tokens[i - 1].lemma) &&
      !/^(?:sure|certain|afraid)$/.test(tokens[i - 1].text)
    )
      continue;
    if (
      !['VERB', 'ADJ'].includes(tokens[i - 1].pos) ||
      !['DET', 'PRON', 'PROPN', 'NOUN'].includes(tokens[i + 1].pos)
    )
      continue;
    if (!hasFiniteVerb(tokens.slice(i + 1))) continue;
    // With a second "that" the first keeps the claims apart.
    if (/\b(?:and|or) that\b/.test(text) || /, (?:and|but)\b/.test(text.slice(tokens[i].end))) continue;
    return text.slice(0, tokens[i].start) + text.slice(tokens[i + 1].start);
  }
  return null;
}

/** "the rule that the board had made" → "the rule the board had made": a relative that is the object. */
export function bareRelative({ text, tokens }: Tagged): string | null {
  for (let i = 2; i < tokens.length - 3; i++) {
    if (
      !/^(?:that|which)$/.test(tokens[i].text) ||
      tokens[i - 1].pos !== 'NOUN' ||
      inQuote(text, tokens[i].start)
    )
      continue;
    const [subject, second] = [tokens[i + 1], tokens[i + 2]];
    const opens = subject.pos === 'PRON' && !/^(?:it|this|that|there|which)$/i.test(subject.text);
    if (!opens || !isFiniteVerb(tokens, i + 2) || second.pos === 'AUX') continue;
    return text.slice(0, tokens[i].start) + text.slice(subject.start);
  }
  return null;
}

/** Whose dollars, as Unicode CLDR writes them in English. */
const WHOSE: Readonly<Record<string, string>> = { A: 'Australian ', CA: 'Canadian ', C: 'Canadian ', HK: 'Hong Kong ', NZ: 'New Zealand ', US: 'US ' }; // prettier-ignore
/** "£38,000" as it is said, "38,000 pounds"; "on 9 October" as it is said, "on the 9th of October". */
export function spokenFigures(text: string): string {
  const spans = quotedSpans(text);
  let out = '';
  let at = 0;
  for (const [s, e] of [...spans, [text.length, text.length] as const]) {
    out += text
      .slice(at, s)
      .replace(
        /(?<!\p{L})((?:A|CA?|HK|NZ|US)(?=\$))?([£$€])(\d+(?:,\d{3})*(?:\.\d{1,2}(?= (?:million|billion|trillion))|\.\d)?)( (?:million|billion|trillion|thousand))?(?![\d.]?\d|\p{L})/gu,
        (
          whole: string,
          whose: string | undefined,
          sign: string,
          n: string,
          scale: string | undefined,
          from: number,
          part: string,
        ) => {
          const one =
            (n === '1' && !scale) || isMeasured(part.slice(0, from), part.slice(from + whole.length));
          return `${n}${scale ?? ''} ${whose ? WHOSE[whose] : ''}${CURRENCIES.get(sign)![one ? 0 : 1]}`;
        },
      )
      .replace(
        new RegExp(`\\b([Oo]n|[Uu]ntil|[Ss]ince|[Bb]y|of) (\\d{1,2}) (${MONTH})(?! \\d{1,2}\\b)`, 'gu'),
        (_, p: string, d: string, month: string) => `${p} the ${d}${ordinal(Number(d))} of ${month}`,
      );
    out += text.slice(s, e);
    at = e;
  }
  return out;
}
const ordinal = (n: number) =>
  n % 10 === 1 && n !== 11 ? 'st' : n % 10 === 2 && n !== 12 ? 'nd' : n % 10 === 3 && n !== 13 ? 'rd' : 'th';

const inQuote = (text: string, at: number) => quotedSpans(text).some(([s, e]) => at >= s && at < e);

/**
 * "It was built by two brothers in 1820." → "Two brothers built it in 1820.": active from passive when the agent is a
 * plain noun phrase that ends the clause or stands before a time or place.
 */
export function active({ text, tokens }: Tagged): string | null {
  if (quoted(text) || /[,;:]/.test(text) || finite(tokens) !== 1) return null;
  const by = tokens.flatMap((t, i) => (t.text === 'by' ? [i] : []));
  if (by.length !== 1) return null;
  const be = tokens.findIndex((t) => /^(?:was|were|is|are)$/.test(t.text));
  const verb = by[0] - 1;
  if (
    be < 1 ||
    be > 7 ||
    verb <= be ||
    verb - be > 2 ||
    tokens[verb].pos !== 'VERB' ||
    /ing$/.test(tokens[verb].text)
  )
    return null;
  if (verb - be === 2 && tokens[be + 1].pos !== 'ADV') return null;
  const subject = tokens.slice(0, be);
  if (
    !subject.every((t) => ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM', 'PRON'].includes(t.pos)) ||
    subject.length > 5
  )
    return null;
  let end = by[0] + 1;
  while (end < tokens.length && ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(tokens[end].pos)) end++;
  const agent = tokens.slice(by[0] + 1, end);
  if (agent.length < 2 && agent[0]?.pos !== 'PROPN') return null;
  // Nobody does it: by hand, by train, by the time, by two metres, by Monday.
  const head = agent.at(-1)!;
  if (
    !agent.length ||
    /^(?:hand|train|time|day|night|ship|boat|road|rail|law|mistake|accident|means|way|end|metre|kilometre|mile|pound|percent|half|third|year|years|century|now|then|law)$/.test(
      unitLike(head),
    ) ||
    /day$|^(?:19|20|18|17)\d\d$/.test(head.text) ||
    (agent[0].pos === 'NUM' && /^\d/.test(agent[0].text))
  )
    return null;
  const after = tokens[end];
  if (after && !['PUNCT', 'ADP'].includes(after.pos)) return null;
  if (after?.pos === 'ADP' && !/^(?:in|on|at)$/.test(after.text)) return null;
  if (after?.pos === 'ADP' && !new RegExp(`^(?:${TIME})[.]$`, 'u').test(text.slice(after.start))) return null;
  const form =
    tokens[be].text === 'was' || tokens[be].text === 'were' ? 'past' : agentPlural(agent) ? 'base' : 'third';
  const doer = text.slice(agent[0].start, head.end);
  const object = subjectAsObject(
    text.slice(0, subject.at(-1)!.end),
    subject,
    /^(?:were|are)$/.test(tokens[be].text),
  );
  if (!object) return null;
  const lemma = tokens[verb].lemma;
  if (formOf(tokens[verb].text, lemma, true) !== 'participle') return null;
  const adverb = verb - be === 2 ? `${tokens[be + 1].text} ` : '';
  return `${upper(doer)} ${adverb}${inflect(lemma, form)} ${object}${after?.pos === 'ADP' ? ' ' : ''}${text.slice(after?.start ?? head.end)}`;
}
/** A measure in its singular, so that one list serves: "two metres" → metre. */
const unitLike = (head: TaggedToken) => head.text.toLowerCase().replace(/s$/, '');
const agentPlural = (agent: readonly TaggedToken[]) =>
  /s$|men$|people$/.test(agent.at(-1)!.text) || agent.some((t) => t.pos === 'NUM' && t.text !== 'one');
function subjectAsObject(text: string, tokens: readonly TaggedToken[], plural: boolean): string | null {
  if (tokens.length === 1 && tokens[0].pos === 'PRON')
    return (
      { it: 'it', they: 'them', he: 'him', she: 'her', this: 'this', that: 'that' }[
        tokens[0].text.toLowerCase()
      ] ?? null
    );
  // "Passengers were woken": a bare plural that opens the sentence is taken for a name; families have "the".
  const bare = tokens.length === 1 && /[^s’']s$/.test(text) && plural;
  return tokens[0].pos === 'PROPN' && !bare ? text : lower(text);
}

/** Verbs that last: what does them is doing them. */
const LASTING =
  /^(?:run|stand|lie|lead|live|work|hang|belong|cross|face|cover|sell|use|hold|wait|sit|sleep|grow|feed|watch|carry|reach|stretch|join|link|connect|surround|serve|wear|stick|point|look|contain|bear|concern|describe|show|say|border|overlook|flow)$/;

/** "the pipe that ran beneath it" → "the pipe running beneath it": a relative with a verb that lasts. */
export function lastingRelative({ text, tokens }: Tagged): string | null {
  for (let i = 2; i < tokens.length - 2; i++) {
    if (
      !/^(?:that|which|who)$/.test(tokens[i].text) ||
      tokens[i - 1].pos !== 'NOUN' ||
      inQuote(text, tokens[i].start)
    )
      continue;
    const verb = tokens[i + 1];
    if (
      verb.pos !== 'VERB' ||
      !LASTING.test(verb.lemma) ||
      !/^(?:base|third|past)$/.test(formOf(verb.text, verb.lemma, false))
    )
      continue;
    if (/^(?:only|first|last)$/.test(tokens[i - 2]?.text ?? '')) continue;
    return `${text.slice(0, tokens[i].start)}${inflect(verb.lemma, 'ing')}${text.slice(verb.end)}`;
  }
  return null;
}

/** "The ferry will not run" → "The ferry is not going to run": the future as it is spoken. */
export function goingTo({ text, tokens }: Tagged): string | null {
  const at = tokens.findIndex((t) => t.text === 'will');
  if (at < 1 || inQuote(text, tokens[at].start) || /\bif\b/i.test(text)) return null;
  const subject = tokens[at - 1];
  if (!['NOUN', 'PRON'].includes(subject.pos) || /^(?:that|which|who|there)$/i.test(subject.text))
    return null;
  const next = tokens[at + 1]?.text === 'not' ? tokens[at + 2] : tokens[at + 1];
  if (next?.pos !== 'VERB' || next.text !== next.lemma) return null;
  // "the keeper of the locks will": the number is the head's, which stands further off.
  if (tokens.slice(Math.max(0, at - 5), at).some((t) => t.pos === 'ADP' || t.text === 'and')) return null;
  const word = subject.text.toLowerCase();
  const be =
    word === 'i'
      ? 'am'
      : /^(?:they|we|you)$/.test(word) ||
          (subject.pos === 'NOUN' && /(?:[^su]s|people|men|women|children)$/.test(word))
        ? 'are'
        : 'is';
  return `${text.slice(0, tokens[at].start)}${be}${tokens[at + 1].text === 'not' ? ' not' : ''} going to ${text.slice(next.start)}`;
}

export interface Operation {
  id: string;
  apply: (sentence: Tagged) => string | null;
}
/** In the order they are tried; all that apply are applied. */
export const OPERATIONS: readonly Operation[] = [
  { id: 'active', apply: active },
  { id: 'frontTime', apply: frontTime },
  { id: 'backTime', apply: backTime },
  { id: 'bareParticiple', apply: bareParticiple },
  { id: 'bareThat', apply: bareThat },
  { id: 'bareRelative', apply: bareRelative },
  { id: 'lastingRelative', apply: lastingRelative },
  { id: 'goingTo', apply: goingTo },
];
