/** Where and when scenes play: a place is shown where words say that something happens there, a year where something happens in it. */
import { isA } from '../language/classes.ts';
import { stems } from '../facts/centrality.ts';
import type { Fact } from '../facts/facts.ts';
import type { PlainSection } from '../script/data.ts';
import { names, nameIn, type CastEntry } from './cast.ts';
import type { SearchWord } from './search.ts';
import { outsideQuotes } from './looks.ts';
import { NARRATOR } from './unnamed.ts';

/** A whole film plays where its title says, or where this share of its lines says, three at least. */
const HOME_SHARE = 0.12;
const HOME_LINES = 3;
const SECTION_LINES = 2;
/** "near Lodz", "from Vestby", "the coast of Carrow": not there. */
const THERE = /(?:^|[\s“(])(?:in|at|on|inside|outside|above|below|under|across|through|along|into|onto|to|beside|behind|by|off|around|over|between)\s+(?:the\s+|my\s+|our\s+|this\s+|an?\s+(?:\p{L}+\s+){0,2}|\p{L}+\s+(?:island|village|town|city|port|river|street|reef)\s+of\s+)?$/iu; // prettier-ignore
const ISLE_OF = /\b(?:island|isle|village|town|city|port|river|reef|bay)\s+of\s+$/iu;
const OPENS = /^\s*(?:the\s+|my\s+|our\s+|this\s+)?$/i;

/** Whether words say that something is or happens at a place, or tell of the place itself. */
export function playsAt(place: CastEntry, text: string): boolean {
  return nameIn(place, text).some((at) => {
    const before = text.slice(0, at);
    return THERE.test(before) || ISLE_OF.test(before) || OPENS.test(before);
  });
}

const named = (p: CastEntry) => /^\p{Lu}/u.test(p.name);
/** Where each section plays: the place its own lines say; else the film's; null where nothing tells. */
export function homesOf(
  title: string,
  sections: readonly PlainSection[],
  cast: readonly CastEntry[],
): Map<string, CastEntry | null> {
  // "The museum" is where a story plays that somebody tells; elsewhere it is one place of several.
  const story = cast.some((c) => c.name === NARRATOR);
  const places = cast.filter((c) => c.kind === 'place' && (story || c.own || named(c)));
  const most = (texts: readonly string[], least: number) =>
    places
      .map((p) => ({ p, n: texts.filter((t) => names(p, t)).length }))
      .filter(({ p, n }) => n >= least && texts.some((t) => playsAt(p, t)))
      .sort((a, b) => b.n - a.n)[0]?.p ?? null;
  const lines = sections.flatMap((s) => s.lines.map((l) => l.text)).filter((t) => t.trim());
  const titled = places.filter((p) => names(p, title) && lines.some((t) => playsAt(p, t)));
  // "The Lighthouse of Brannock is a lighthouse on Brannock Rock": what the title names stands there.
  const about = new Set(stems(title));
  const stands = lines
    .slice(0, 2)
    .filter((t) => /\b(?:is|was|stands|stood|lies|lay)\b/.test(t) && stems(t).some((s) => about.has(s)))
    .flatMap((t) => places.filter((p) => playsAt(p, t)))[0];
  const enough = Math.max(HOME_LINES, Math.ceil(lines.length * HOME_SHARE));
  const film = titled.length === 1 ? titled[0] : (stands ?? most(lines, enough));
  return new Map(
    sections.map((s) => {
      const own = s.lines.map((l) => l.text);
      return [s.id, most(own, SECTION_LINES) ?? film];
    }),
  );
}

/** Kinds of place that are somewhere else than a shop or a flat of the story. */
const isElsewhere = (noun: string) =>
  (isA(noun, 'building', 'land', 'settlement', 'vehicle') && !/^(?:flat|shop|room)$/.test(noun)) ||
  /^(?:station|street|road|bridge|roof|yard)$/.test(noun);
/** Whether what is shown is at another place than the one without a name that the story plays at. */
export const elsewhere = (place: CastEntry, things: readonly SearchWord[]): boolean =>
  !named(place) && things.some((w) => isElsewhere(w.key) && !names(place, w.text));

const YEAR = '1[0-9]\\d\\d|20\\d\\d';
const IN_YEAR = new RegExp(`\\b(?:[Ii]n|[Oo]n|[Bb]etween|[Aa]t) (?:(?!(?:since|until|before|after|by|than|from) )[^.;,\\d]|\\d{1,2}(?!\\d)){0,28}?(${YEAR})\\b`, 'gu'); // prettier-ignore
/** "…, built in 1987," tells when it was made, "since it was measured in 1902" how long. */
const OTHER_TIME = /(?:,|\()\s?(?:\p{Ll}+ly )?(?:built|founded|born|made|opened|written|launched|dating|painted|established|designed|bought|first \p{Ll}+ed) $|\b(?:since|until|before|after|than|as|when|had)\b[^,;]*$/u; // prettier-ignore
/** Told of today: nothing of it is in the year that was told of last. */
const TODAY =
  /\b(?:is|are|has|have|now|today|still|nowadays|isn[’']t|hasn[’']t|can|will|lives?|leans|remains?)\b/;

/** Whether words tell of today. */
export const isToday = (text: string): boolean => TODAY.test(outsideQuotes(text));

/** The year in which what words tell happens; null where they tell none, or of another time. */
export function yearIn(text: string): string | null {
  for (const m of text.matchAll(IN_YEAR)) if (!OTHER_TIME.test(text.slice(0, m.index))) return m[1];
  return null;
}

/** The years of one event lie this close together. */
const ONE_EVENT = 5;
/** A film of one event says in its first line when it was. */
const OPENING_LINES = 1;
/** The year of a film that tells of one event and says so at once; null where it tells of several times, or of none. */
export function eraOf(sections: readonly PlainSection[]): string | null {
  const lines = sections.flatMap((s) => s.lines.map((l) => l.text));
  const years = lines.flatMap((t) => yearIn(t) ?? []);
  const numbers = years.map(Number);
  const opens = lines.slice(0, OPENING_LINES).some((t) => yearIn(t));
  return opens && Math.max(...numbers) - Math.min(...numbers) <= ONE_EVENT ? years[0] : null;
}

/** The year a picture is of: its own words', its facts', or the one that the section told of last while it tells of the past. */
export function yearOf(text: string, used: readonly Fact[], last: string | null): string | null {
  const own = yearIn(text);
  if (own) return own;
  // "by 1950": neither then nor in the year told of last.
  if (isToday(text) || new RegExp(`\\b(?:${YEAR})\\b`).test(text)) return null;
  return used.map((f) => yearIn(f.text)).find(Boolean) ?? last;
}
