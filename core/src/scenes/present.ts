/** Who is in a picture: those its words name, "she" and "I" among them, and those a clause goes on with. */
import type { Fact } from '../facts/facts.ts';
import { names, type CastEntry, type CastSource } from './cast.ts';
import { outsideQuotes, type Pronoun } from './looks.ts';
import { NARRATOR } from './unnamed.ts';

const SAYS: Readonly<Record<Pronoun, RegExp>> = {
  he: /\b(?:he|him|himself)\b/i,
  // "her" before a noun is what belongs to her.
  she: /\b(?:she|herself)\b|\bher\b(?!\s\p{L})/iu,
};
const I = /\bI\b/;
/** Facts back from a line's own in which its "she" is looked for. */
const BACK = 6;

export class Present {
  private readonly people: readonly CastEntry[];
  private readonly narrator: CastEntry | undefined;
  /** Whom the film is about: named in its title. */
  private readonly hero: CastEntry | undefined;
  private readonly at: ReadonlyMap<string, { facts: readonly Fact[]; i: number }>;
  /** Those named in the section so far, the latest last. */
  private lately: CastEntry[] = [];
  private before: readonly CastEntry[] = [];

  constructor(title: string, cast: readonly CastEntry[], sources: readonly CastSource[]) {
    this.people = cast.filter((c) => c.kind === 'person');
    this.narrator = this.people.find((c) => c.name === NARRATOR);
    this.hero = this.people.find((c) => names(c, title));
    this.at = new Map(
      sources.flatMap(({ letter, facts }) =>
        facts.map((f, i) => [`${letter} ${f.id}`, { facts, i }] as const),
      ),
    );
  }

  /** A new section: "she" is nobody of the last one, but whom the source names before. */
  opens(): void {
    this.lately = [];
    this.before = [];
  }

  /** Those in the picture of words, in order; `facts` are what they rest on, `goesOn` where they go on with the subject of the scene before. */
  of(text: string, facts: readonly string[], goesOn: boolean): CastEntry[] {
    const spoken = outsideQuotes(text);
    const here = this.people.filter((c) => c !== this.narrator && names(c, text));
    for (const pronoun of ['he', 'she'] as const) {
      if (!SAYS[pronoun].test(spoken)) continue;
      const fits = (c: CastEntry) => c !== this.narrator && (c.pronoun === null || c.pronoun === pronoun);
      const sure = (c: CastEntry) => c !== this.narrator && c.pronoun === pronoun;
      // "Mr Pell said that he…": whoever is named is meant.
      if (here.some(fits)) continue;
      const earlier = this.earlier(facts);
      const meant =
        this.lately.findLast(sure) ??
        earlier.findLast(sure) ??
        (this.hero && sure(this.hero) ? this.hero : null) ??
        this.lately.findLast(fits) ??
        earlier.findLast(fits);
      if (meant && !here.includes(meant)) here.push(meant);
    }
    if (this.narrator && I.test(spoken)) here.unshift(this.narrator);
    if (!here.length && goesOn) here.push(...this.before);
    this.lately = [...this.lately.filter((c) => !here.includes(c)), ...here];
    this.before = here;
    return here;
  }

  /** Those whom the source names before a line's own facts, the latest last. */
  private earlier(keys: readonly string[]): CastEntry[] {
    const found = keys.map((k) => this.at.get(k)).find(Boolean);
    if (!found) return [];
    const { facts, i } = found;
    return facts.slice(Math.max(0, i - BACK), i).flatMap((f) => this.people.filter((c) => names(c, f.text)));
  }
}
