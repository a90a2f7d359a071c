/** Rules for what starts with a letter or a sign: addresses, abbreviations, initials, letters, Roman numerals, symbols. */
import { ABBREVIATIONS, PATTERNS, SAID_AS_LETTERS, SAID_AS_WORD, STATES } from '../lexicon.ts';
import { numberWords, ordinal, romanValue, year, cardinal } from '../numbers.ts';
import type { Said, SpokenRule } from './rule.ts';

const sticky = (source: string) => new RegExp(source, 'uy');
const EDGE = String.raw`(?![\p{L}\p{N}])`;
const LETTER = /\p{L}/u;
const spell = (letters: string) => [...letters.toLowerCase()].join(' ');

/** Names that are counted with a Roman numeral said as a plain number, not as "the second". */
const COUNTED =
  /(?:war|chapter|part|act|volume|book|phase|type|section|figure|table|level|article|title|mark|scene|grade|class|stage|appendix)\s$/i;

/** An address with its marks said: "example.org/a" → "example dot org slash a". */
function addressWords(address: string): string {
  return address
    .replace(/^https?:\/\//i, '')
    .replace(/\/$/, '')
    .replace(/([./@_\-:?=&#~%+])/g, (_, sign: string) => {
      const said: Record<string, string> = {
        '.': 'dot',
        '/': 'slash',
        '@': 'at',
        _: 'underscore',
        '-': 'dash',
        ':': 'colon',
      };
      return ` ${said[sign] ?? ''} `;
    })
    .replace(/\bwww\b/gi, 'w w w')
    .replace(
      /\d+/g,
      (d) => ` ${d.length > 4 ? spell(d).replace(/\d/g, (c) => cardinal(Number(c))) : numberWords(d)} `,
    )
    .replace(/\s+/g, ' ')
    .trim();
}

function abbreviation(written: string, before: string, after: string): Said | null {
  const form = written.toLowerCase().replace(/\s/g, '');
  const entry = (/\p{L},\s$/u.test(before) && STATES.get(form)) || ABBREVIATIONS.get(form);
  if (!entry || (entry.name && !/^\p{Lu}/u.test(written))) return null;
  // "No." and single letters are words of their own unless a figure or a name follows.
  if (/^(no|nos|p|pp|c|ca|ch|sec|fig|figs|vol)\.$/i.test(written) && !/^\s?\d/.test(after)) return null;
  if (/^v\.$/i.test(written) && !/^\s\p{Lu}/u.test(after)) return null;
  if (/^(mar|sen|col|gen|est|ed|eds|dec|oct|nov|sep|sept|jan|feb|apr|aug|rev|hon|mt|lt)\.$/.test(written))
    return null;
  const closes = entry.ends && (/^\s*$/.test(after) || /^\s+["'“‘(]?\p{Lu}/u.test(after));
  return { say: entry.say, kind: 'abbreviation', ...(closes ? { boundary: 'sentence' as const } : {}) };
}

/** A run of capitals: as letters, or as a word where people say one. */
function capitals(run: string, knows: (w: string) => boolean, before: string, after: string): string | null {
  if (SAID_AS_WORD.has(run)) return run.toLowerCase();
  if (SAID_AS_LETTERS.has(run)) return spell(run);
  if (!/[AEIOUY]/.test(run) || run.length === 2) return spell(run);
  // A shouted passage is words, not letters.
  const shouting = /\p{Lu}{3}[^\p{Ll}]*$/u.test(before) || /^[^\p{Ll}]*\p{Lu}{3,}/u.test(after);
  if (shouting) return knows(run.toLowerCase()) ? run.toLowerCase() : null;
  if (run.length >= 4 && knows(run.toLowerCase())) return run.toLowerCase();
  return run.length <= 5 ? spell(run) : null;
}

export const wordyRules: readonly SpokenRule[] = [
  {
    id: 'web-address',
    first: /[hHwW]/,
    pattern: sticky(String.raw`(?:https?:\/\/|www\.)[^\s<>"”’)\]]+?(?=[.,;:!?]*(?:[\s<>"”’)\]]|$))`),
    say: (m) => ({ say: addressWords(m[0]), kind: 'url' }),
  },
  {
    id: 'mail-address',
    first: LETTER,
    pattern: sticky(String.raw`[A-Za-z0-9._%+-]{1,64}@[A-Za-z0-9-]{1,63}(?:\.[A-Za-z0-9-]{1,63}){1,4}`),
    say: (m) => ({ say: addressWords(m[0]), kind: 'url' }),
  },
  {
    id: 'bare-domain',
    first: /[a-z]/,
    pattern: sticky(
      String.raw`[a-z0-9-]{2,63}(?:\.[a-z0-9-]{2,63}){0,3}\.(?:com|org|net|edu|gov|io|info|uk|de|fr|eu)(?:\/[^\s<>"”’)\]]*?)?(?=[.,;:!?]*(?:[\s<>"”’)\]]|$))`,
    ),
    say: (m) => ({ say: addressWords(m[0]), kind: 'url' }),
  },
  {
    id: 'month-day',
    first: /[JFMASOND]/,
    pattern: sticky(`(${PATTERNS.month})\\s(\\d{1,2})(?:st|nd|rd|th)?(?:,?\\s(\\d{4}))?${EDGE}`),
    say: (m) => {
      const day = Number(m[2]);
      if (day < 1 || day > 31) return null;
      const month = ABBREVIATIONS.get(`${m[1].toLowerCase().replace('.', '')}.`)?.say ?? m[1];
      return { say: `${month} ${ordinal(day)}${m[3] ? ` ${year(Number(m[3]))}` : ''}`, kind: 'date' };
    },
  },
  {
    id: 'abbreviation',
    first: LETTER,
    pattern: sticky(
      String.raw`(?:[A-Za-z]\.\s?){2,4}(?![\p{L}\p{N}])|et al\.|[A-Za-z]{1,6}\.(?:[A-Za-z]\.)?`,
    ),
    say: (m, c) => {
      const known =
        abbreviation(m[0].trim(), c.before, c.after) ??
        (m[0].endsWith(' ') ? abbreviation(m[0].trim(), c.before, ` ${c.after}`) : null);
      if (known) return { ...known, length: m[0].trimEnd().length };
      return null;
    },
  },
  {
    id: 'initials',
    first: /\p{Lu}/u,
    pattern: sticky(String.raw`(?:\p{Lu}\.\s?)+(?=\p{Lu}[\p{L}'’])|(?:\p{Lu}\.){2,}`),
    say: (m, c) => {
      const letters = m[0].replace(/[^\p{L}]/gu, '');
      // "It was plan B. The rest…": one letter after a lower-case word closes a sentence.
      if (
        letters.length === 1 &&
        /\p{Ll}\s$/u.test(c.before) &&
        !/\b(and|by|with|for|of|to|said|mr|mrs)\s$/i.test(c.before)
      )
        return null;
      return { say: spell(letters), kind: 'letters', length: m[0].trimEnd().length };
    },
  },
  {
    id: 'roman',
    first: /[IVXLCDM]/,
    pattern: sticky(String.raw`([IVXLCDM]+)(?![\p{L}\p{N}’'-])`),
    say: (m, c) => {
      const value = romanValue(m[1]);
      if (value === null) return null;
      if (/^\s+(?:century|dynasty)\b/i.test(c.after)) return { say: ordinal(value), kind: 'roman' };
      if (COUNTED.test(c.before)) return { say: cardinal(value), kind: 'roman' };
      const afterName = /(?:^|[\s“"(])\p{Lu}\p{Ll}{2,}\s$/u.exec(c.before);
      if (m[1] === 'I' || !afterName || value > 30) return null;
      // A single letter after a name is more often an initial ("Malcolm X") than a numeral, but for V after a monarch's name.
      if (m[1].length === 1 && m[1] !== 'V') return null;
      return { say: `the ${ordinal(value)}`, kind: 'roman' };
    },
  },
  {
    id: 'letters-and-figures',
    first: /[\p{L}\d]/u,
    pattern: sticky(
      String.raw`(\p{Lu}{1,4})[-]?(\d{1,4})(\p{Lu}{0,2})(?![\p{L}\p{N}])|(\d{1,3})(\p{Lu}{1,3})(?![\p{L}\p{N}])`,
    ),
    say: (m) => {
      const head = m[1] ? spell(m[1]) : numberWords(m[4]);
      const tail = m[1] ? `${numberWords(m[2])}${m[3] ? ` ${spell(m[3])}` : ''}` : spell(m[5]);
      return { say: `${head} ${tail}`, kind: 'letters' };
    },
  },
  {
    id: 'figures-and-word',
    first: /\d/,
    pattern: sticky(String.raw`(\d{1,9})(\p{Ll}{1,8})(?![\p{L}\p{N}])`),
    say: (m, c) => ({
      say: `${numberWords(m[1])} ${m[2].length > 2 && c.knows(m[2]) ? m[2] : spell(m[2])}`,
      kind: 'letters',
    }),
  },
  {
    id: 'letter-and-signs',
    first: /[A-Z]/,
    pattern: sticky(String.raw`([A-Z])(\+\+|#)`),
    say: (m) => ({ say: `${spell(m[1])} ${m[2] === '#' ? 'sharp' : 'plus plus'}`, kind: 'letters' }),
  },
  {
    id: 'capitals',
    first: /\p{Lu}/u,
    pattern: sticky(String.raw`(\p{Lu}{2,})((?:['’]?s)?)(?![\p{L}\p{N}])`),
    say: (m, c) => {
      const said = capitals(m[1], c.knows, c.before, c.after);
      return said === null ? null : { say: said + (m[2] ? "'s" : ''), kind: 'letters' };
    },
  },
  {
    id: 'number-sign',
    first: /[#№]/u,
    pattern: sticky(String.raw`[#№]\s?(?=\d)`),
    say: () => ({ say: 'number', kind: 'symbol' }),
  },
  {
    id: 'symbol',
    first: /[&+=@§©®™×÷±≈<>°*~^|/\\%£$€]/u,
    pattern: sticky(String.raw`[&+=@§©®™×÷±≈<>°*~^|/\\%£$€]`),
    say: (m, c) => {
      const always: Record<string, string> = {
        '&': 'and',
        '§': 'section',
        '±': 'plus or minus',
        '≈': 'about',
        '÷': 'divided by',
        '%': 'percent',
      };
      const between: Record<string, string> = {
        '+': 'plus',
        '=': 'equals',
        '@': 'at',
        '×': 'times',
        '<': 'less than',
        '>': 'more than',
      };
      // Marks of layout ("**", "~", "|") are silent; signs of sums are said only where they stand between two things.
      const inside = /[\p{L}\p{N})]\s?$/u.test(c.before) && /^\s?[\p{L}\p{N}(]/u.test(c.after);
      return { say: always[m[0]] ?? (inside ? (between[m[0]] ?? '') : ''), kind: 'symbol' };
    },
  },
];
