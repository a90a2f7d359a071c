/** How an order says what a channel sounds like, in the channel's own figures. */
import { asData } from './parts.ts';
import type { HouseStyle } from '../measure/style.ts';
import { genreSays, hasSubject, type Genre } from '../plan/genre.ts';
import { contracts, longestSentence, type Brief } from '../plan/brief.ts';
import type { CommissionContext } from './types.ts';

/** Sentences of an audience nobody measured, in words, middle to longest (as narrations of other hands have them: 8 to 12 of 26). */
const USUAL_SHARE = 0.42;
/** A habit is one when at least this share of cases shows it. */
const HABIT = 0.5;
const ADDRESS_LEAST = 0.4;
const EXAMPLES = 2;

const PERSON = {
  they: 'Tell it in the third person: the listener hears about them, and is not spoken to.',
  you: 'Speak to the listener as “you”.',
  i: 'The teller says “I”; the listener is not spoken to.',
} as const;
const TELLER =
  'It is one person’s own story: that person says “I” all through, and the others are “he”, “she” or “they”.';
const AUDIENCE = {
  anyone: 'anyone who happens by',
  newcomers: 'people who hear of it for the first time; explain every term in passing',
  children: 'children of about ten; short sentences, plain words',
  specialists: 'people who know the field; terms need no explaining',
} as const;

export interface Sound {
  audience: string;
  /** One sentence a row. */
  rows: readonly string[];
  /** Lines of the channel that show how it sounds. */
  examples: readonly string[];
}

const figure = (style: HouseStyle | null, id: string) =>
  style?.measures.find((m) => m.id === id)?.middle ?? null;
const round = (n: number) => Math.round(n);

/** Who listens, first in the writer's own words, with what they know already. */
const listenersOf = ({ audience, listener, known }: Brief): string => {
  const who = listener ? asData(listener, 300) : AUDIENCE[audience];
  return known.length ? `${who}; they know already: ${known.map((k) => asData(k, 120)).join('; ')}` : who;
};

const PIECE: Readonly<Record<Genre, string>> = {
  explainer: 'An explainer',
  story: 'A story',
  opinion: 'An opinion',
  portrait: 'A portrait',
  'how-to': 'A guide',
};
/** What kind of piece it is, as a row; empty when nobody said. */
const genreRows = ({ genre, whose }: Brief): string[] => {
  if (!genre) return [];
  const of = hasSubject(genre) && whose ? ` of ${asData(whose, 80)}` : '';
  return [`${PIECE[genre]}${of}: ${genreSays(genre)}.`];
};

const longestOf = (brief: Brief, style: HouseStyle | null) =>
  Math.min(longestSentence(brief), style?.limits.longestSentence ?? Infinity);
type Spoken = Pick<CommissionContext, 'brief' | 'style' | 'sources'>;
/** The usual length of a sentence, in words: the channel's own, or what such listeners are given. */
export const usualSentence = ({ brief, style }: Pick<Spoken, 'brief' | 'style'>): number =>
  figure(style, 'sentence') ?? longestOf(brief, style) * USUAL_SHARE;

/** Whom the channel's own scripts are used to naming: the listener, us, the teller. */
const addressOf = (style: HouseStyle | null) =>
  (['you', 'we', 'i'] as const).filter((id) => (figure(style, id) ?? 0) >= ADDRESS_LEAST);
/** Sources in which somebody says "I". */
const TELLERS: ReadonlySet<string> = new Set(['forum', 'interview', 'howto']);
/** Whether somebody says "I" in the telling: the teller of a source, or the narrator where the brief or the channel has it so. */
export const saysI = ({ brief, style, sources }: Spoken): boolean =>
  brief.person === 'i' ||
  brief.genre === 'opinion' ||
  sources.some((s) => TELLERS.has(s.kind)) ||
  addressOf(style).includes('i');

export function soundOf(context: Spoken): Sound {
  const { brief, style, sources } = context;
  const all = (kind: string) => sources.length > 0 && sources.every((s) => s.kind === kind);
  const longest = longestOf(brief, style);
  const usual = usualSentence(context);
  const contractions = figure(style, 'contractions');
  const short = contractions === null ? contracts(brief) : contractions >= HABIT;
  const past = figure(style, 'past');
  const questions = figure(style, 'questions');
  const figures = figure(style, 'figures');
  const grade = style?.limits.grade ?? null;
  const address = addressOf(style);
  const rows = [
    ...genreRows(brief),
    `Sentences of about ${round(usual)} words, none over ${longest}; now and then one of five or six.`,
    ...(grade === null
      ? []
      : [`School grade about ${round(grade)}: words that a listener takes in at once.`]),
    ...(brief.person
      ? [PERSON[brief.person]]
      : address.length
        ? [`It says ${address.map((a) => `“${a === 'i' ? 'I' : a}”`).join(' and ')} where that is natural.`]
        : [all('forum') ? TELLER : all('howto') ? PERSON.you : PERSON.they]),
    short ? 'Contractions (“it’s”, “didn’t”), as people speak.' : 'No contractions.',
    ...(past === null
      ? []
      : [past >= HABIT ? 'Past tense for what happened.' : 'Present tense for what happened.']),
    ...(questions === null ? [] : [questions < 0.5 ? 'Hardly ever a question to the listener.' : `About ${questions.toFixed(1)} questions a minute to the listener.`]), // prettier-ignore
    figures !== null && figures >= HABIT
      ? 'Numbers in figures, as many as the facts have and no more.'
      : 'Numbers as a voice says them; the values stay exact.',
    ...(brief.spelling === 'as written' ? [] : [`${brief.spelling} spelling.`]),
    'It is heard once and not read: no brackets, no abbreviations, nothing that needs eyes.',
  ];
  const lines = (style?.measures ?? []).flatMap((m) => m.examples).filter((l) => l.split(' ').length > 6);
  return {
    audience: listenersOf(brief),
    rows,
    examples: [...new Set(lines)].slice(0, EXAMPLES),
  };
}
