/**
 * What a word names and in which sense it is mostly meant: WordNet 3.1's senses (Fellbaum 1998) with its lexicographer
 * files and the counts of its tagged texts, packed at build time. A row is `word TAB n|v|a TAB sense|sense…`; a sense is
 * `file:count:next wider word:stems of its gloss`, the most used first.
 */
import { stems } from '../facts/centrality.ts';

export type SensePos = 'n' | 'v' | 'a';
export interface Sense {
  /** Number of the lexicographer file (WordNet, lexnames(5)): 06 artifact, 09 cognition, 17 object… */
  file: string;
  count: number;
  /** A word of the next wider synset: "wading bird". */
  wider: string;
  gloss: readonly string[];
  /** A name of one thing: a person, a constellation. */
  instance: boolean;
}
export interface Senses {
  /** Senses of a word or a phrase of up to four words in lower case; none for an unknown one. */
  of: (word: string, pos: SensePos) => readonly Sense[];
}

/** Opens the packed rows. They are looked up by halving and read only when asked for. */
export function openSenses(packed: string): Senses {
  const kept = new Map<string, readonly Sense[]>();
  return {
    of: (word, pos) => {
      const key = `${word}\t${pos}\t`;
      const known = kept.get(key);
      if (known) return known;
      const row = find(packed, key);
      const senses = row ? row.slice(key.length).split('|').map(sense) : [];
      if (kept.size > 20_000) kept.clear();
      kept.set(key, senses);
      return senses;
    },
  };
}

function sense(cell: string): Sense {
  const [file, count, wider = '', gloss = ''] = cell.split(':');
  return {
    file: file.slice(0, 2),
    instance: file.endsWith('i'),
    count: Number(count),
    wider,
    gloss: gloss ? gloss.split(' ') : [],
  };
}

/** The row that begins with a key; rows are in the order of their characters. */
function find(packed: string, key: string): string | null {
  let low = 0;
  let high = packed.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    const start = packed.lastIndexOf('\n', middle - 1) + 1;
    let end = packed.indexOf('\n', middle);
    if (end < 0) end = packed.length;
    const row = packed.slice(start, end);
    if (row.startsWith(key)) return row;
    if (row < key) low = end + 1;
    else high = start;
  }
  return null;
}

/**
 * How far a picture can show what a sense names, by its lexicographer file: artifacts, animals, bodies, food, natural
 * objects, people, plants and stuff whole; groups, places, weather partly; acts, events and shapes a little; else nothing.
 */
const SHOWN: Readonly<Record<string, number>> = {
  '05': 1, '06': 1, '08': 1, '13': 1, '17': 1, '18': 1, '20': 1, '27': 0.9,
  '14': 0.5, '15': 0.6, '19': 0.7, '04': 0.25, '11': 0.35, '25': 0.4,
}; // prettier-ignore
/** Writings, money, fire and feasts: WordNet files them by what they say, are worth or do, but each has a body to look at. */
const WRITTEN =
  /^(?:coin|banknote|letter|ledger|ticket|newspaper|poster|note|passport|document|diary|drawing|book|magazine|cheque|receipt|postcard|notebook|telegram|manual|calendar|certificate|leaflet|brochure|pamphlet|booklet|catalogue|menu|invoice|timetable|textbook|novel|dictionary|encyclopedia|atlas|logbook|notepad|blueprint|sketch|banner|placard|billboard|crossword|voucher|scroll|manuscript)$/;
const FEAST = /^(?:wedding|funeral|parade|concert|procession|ceremony|carnival|race|dance|picnic|feast)$/;
/** The file of things that a word belongs to by what is seen of it; null where WordNet's own file tells. */
export const bodyOf = (word: string): string | null =>
  WRITTEN.test(word) ? '06' : /^(?:fire|flame|spark)$/.test(word) ? '19' : FEAST.test(word) ? '11' : null;

/** Files whose things have a body one can point a camera at. */
export const THINGS: ReadonlySet<string> = new Set(['05', '06', '08', '13', '17', '20', '27']);
export const shown = (s: Sense): number => (s.instance ? 0 : (SHOWN[s.file] ?? 0));

/** What a sense weighs: its uses, smoothed so that untagged words go by their order. */
const weight = (s: Sense, rank: number) => (s.count + 1) / (1 + rank * 0.5);
/** What a word of the gloss beside the word adds (simplified Lesk: Kilgarriff and Rosenzweig 2000). */
const LESK = 1.5;

/** Stuff: "glass", "water" bring their many shapes, which a searcher expects. */
const STUFF = '27';
/** Files of what is one picture: the plum and the plum tree, the hen and the dish. */
const ALIKE: readonly (readonly string[])[] = [['13', '20'], ['13', '05'], ['20', '27'], ['06', '15'], ['18', '05']]; // prettier-ignore
const alike = (a: Sense, b: Sense) => ALIKE.some((files) => files.includes(a.file) && files.includes(b.file));
/** From this share of the meant sense's weight on, another thing turns up as readily. */
const RIVALS = 0.45;

export interface Meant {
  sense: Sense;
  /** 0 to 1: how far it can be shown, over all senses by their weight. */
  shown: number;
  /** Another thing that the bare word would find as readily; null when none. */
  rival: Sense | null;
}

/** The sense a noun is meant in beside other words (stems), and what else it could show. Null for an unknown word. */
export function meant(senses: readonly Sense[], beside: ReadonlySet<string>): Meant | null {
  const own = senses.filter((s) => !s.instance);
  if (!own.length) return null;
  const scored = own.map((s, i) => {
    const prior = weight(s, i);
    return { s, prior, score: prior * (1 + LESK * s.gloss.filter((g) => beside.has(g)).length) };
  });
  const sum = scored.reduce((n, x) => n + x.score, 0);
  const [best] = [...scored].sort((a, b) => b.score - a.score);
  // A search knows nothing of the text around the word: what else it brings goes by use alone.
  const rival = scored
    .filter(
      ({ s }) =>
        s !== best.s && THINGS.has(s.file) && s.file !== STUFF && s.file !== best.s.file && !alike(s, best.s),
    )
    .sort((a, b) => b.prior - a.prior)[0];
  return {
    sense: best.s,
    shown: scored.reduce((n, x) => n + shown(x.s) * x.score, 0) / sum,
    rival: rival && best.s.file !== STUFF && rival.prior >= best.prior * RIVALS ? rival.s : null,
  };
}

/** The share of a word's uses that can be shown, whatever stands beside it; null for an unknown word. */
export const shownShare = (senses: readonly Sense[]): number | null =>
  meant(senses, new Set())?.shown ?? null;
/** Stems of a text, as the glosses have them. */
export const besideOf = (text: string): ReadonlySet<string> => new Set(stems(text));
