/** What words say of how somebody or some place looks, and which pronoun somebody is told by. */
import { TITLES } from '../language/lexicon.ts';
import { anyNoun } from '../language/classes.ts';
import { literal } from '../language/literal.ts';

export const LOOK_FIELDS = {
  person: ['role', 'age', 'hair', 'eyes', 'dress', 'other'],
  place: ['kind', 'looks', 'period', 'other'],
} as const;
export type LookField = (typeof LOOK_FIELDS)['person' | 'place'][number];
export type Looks = Partial<Record<LookField, string>>;
export type Pronoun = 'he' | 'she';

const HAIR =
  /\b((?:(?:long|short|curly|straight|wavy|thick|thin|dark|light|black|brown|red|grey|gray|white|blonde?|fair|silver|greying)[ -](?:and )?){1,3}hair)\b|\b(bald|grey-haired|gray-haired|white-haired|red-haired|dark-haired|fair-haired)\b|\bwith ((?:an? )?(?:\p{Ll}+ ){0,2}(?:beard|moustache|mustache))\b/iu;
const EYES =
  /\b((?:(?:dark|light|blue|green|brown|grey|gray|hazel|pale|bright|narrow|kind|tired)[ ,]+(?:and )?){1,2}eyes)\b/i;
const GARMENT = anyNoun('garment');
const PLACE_KIND = anyNoun('settlement', 'land');
const DRESS = new RegExp(
  `\\b(?:wore|worn|wears|wearing|dressed in|in)\\s+((?:an?|the|his|her|their)\\s+(?:same\\s)?(?:[\\p{L}-]+\\s){0,3}(?:${GARMENT})(?:\\s+and\\s+(?:an?\\s+)?(?:[\\p{L}-]+\\s){0,2}(?:${GARMENT}))?)\\b`,
  'iu',
);
/** What is so at one time only ("was six") holds for no other picture, and is left open. */
const AGE = /\b(?:aged?\s(\d{1,3})|(\d{1,3})[- ]years?[- ]old|, (\d{1,3}),|is\s(\d{1,3})(?=[.,]|\syears))/;
/** A forum's note of age and sex behind a person: "(34F)", "(M, 36)". */
const NOTE = '\\s?[(\\[]\\s?(?:(\\d{1,2})\\s?,?\\s?([MFmf])|([MFmf])\\s?,?\\s?(\\d{1,2}))\\s?[)\\]]';
const anyOf = (names: readonly string[]) => names.map(literal).join('|');
/** A description: "a tall, thin man with a white beard" with its commas between adjectives. */
const SAID = '(?:an?|the)\\s(?:[\\p{L}-]+,\\s(?=[\\p{L}-]+\\s))?[^,.;:“”]{3,70}?';
const END = '(?=[,.;]|\\s(?:and|who|which|that|where|but|because)\\b|$)';
/** What is so at one time only, or ranks: it tells nothing of how one looks. */
const NO_ROLE =
  /\b(?:now|today|then|again)$|^(?:an?|the)\s(?:first|last|only|same|one|best|most|reason|result|cause)\b/;

/** Age and pronoun that a forum's note tells of one who is called so. */
export function noteOf(text: string, names: readonly string[]): { age: string; pronoun: Pronoun } | null {
  const m = new RegExp(`(?<![\\p{L}])(?:${anyOf(names)})${NOTE}`, 'u').exec(text);
  if (!m) return null;
  return { age: `${m[1] ?? m[4]} years old`, pronoun: /m/i.test(m[2] ?? m[3]) ? 'he' : 'she' };
}

/** What a sentence that is about one says of how that one looks; `names` are the words it is called by. */
export function looksFrom(text: string, names: readonly string[], kind: 'person' | 'place'): Looks {
  const out: Looks = {};
  const name = anyOf(names);
  // "Okafor, a bridge engineer at Trent Polytechnic," and "Edith, her mother. She had been a night nurse".
  const apposition = new RegExp(`(?:${name}),\\s((?:an?|the)\\s[^,.;:“”]{3,70})(?=[,.;])`, 'u').exec(text);
  const copula = new RegExp(
    `(?:${name}|^(?:She|He|It))\\s(?:is|was|had been|has been)\\s(${SAID})${END}`,
    'u',
  ).exec(text);
  const who = new RegExp(
    `(?:${name}),\\s(who\\s(?:teaches|studies|leads|runs|owns|works|keeps|drives|built|designed|founded|mends|repairs)\\s[^,.;:“”]{3,60})(?=[,.;])`,
    'u',
  ).exec(text);
  const said = apposition?.[1] ?? copula?.[1];
  if (said && !NO_ROLE.test(said))
    out[kind === 'person' ? 'role' : 'kind'] = said
      .replace(/\s(?:whose|who|which|that|where|now)\b.*$/, '')
      .trim();
  if (kind === 'place') {
    // "in the river city of Marrowgate"
    const of = new RegExp(`\\b((?:\\p{Ll}+ )?${PLACE_KIND}) of (?:${name})`, 'u').exec(text);
    if (of && !out.kind) out.kind = `a ${of[1].replace(/^(?:the|a|an|in|of|off|on|from|near|to) /, '')}`;
    return out;
  }
  if (!out.role && who) out.role = who[1];
  const age = AGE.exec(text)?.slice(1).find(Boolean) ?? null;
  if (age) out.age = `${age} years old`;
  const hair = HAIR.exec(text)?.slice(1).find(Boolean);
  if (hair && !out.role?.includes(hair)) out.hair = hair;
  const eyes = EYES.exec(text)?.[1];
  if (eyes) out.eyes = eyes;
  const dress = DRESS.exec(text)?.[1];
  if (dress)
    out.dress = dress.replace(/^(?:his|her|their|the)\s(?:same\s)?/, (m) => (/same/.test(m) ? 'a ' : ''));
  return out;
}

const HE = new RegExp(`\\b(?:ex-|step)?${anyNoun('male')}(?:-in-law)?\\b`, 'i');
const SHE = new RegExp(`\\b(?:ex-|step)?${anyNoun('female')}(?:-in-law)?\\b`, 'i');
const HE_TITLE = new RegExp(`^(?:${TITLES.he.join('|')})\\b`);
const SHE_TITLE = new RegExp(`^(?:${TITLES.she.join('|')})\\b`);

/**
 * The pronoun somebody is told by: what titles and a role tell, and `told`, the sentences that are about that one alone.
 * Null where nothing tells, or as much for one as for the other.
 */
export function pronounOf(names: readonly string[], role = '', told: readonly string[] = []): Pronoun | null {
  const said = told.map(outsideQuotes).join(' ');
  const count = (pattern: RegExp) => said.match(pattern)?.length ?? 0;
  const he =
    names.filter((n) => HE_TITLE.test(n)).length + Number(HE.test(role)) + count(/\b(?:he|him|his)\b/gi);
  const she =
    names.filter((n) => SHE_TITLE.test(n)).length + Number(SHE.test(role)) + count(/\b(?:she|her)\b/gi);
  return he === she ? null : he > she ? 'he' : 'she';
}

/** Text without what stands between quotation marks: who says "I" there is somebody else. */
export const outsideQuotes = (text: string): string => text.replace(/[“"][^”"]*(?:[”"]|$)/g, ' ');
