/** What runs on from scene to scene of a film: where it is, when, what "it" is, and in which sizes things were shown. */
import type { Fact } from '../facts/facts.ts';
import type { ShotSize } from '../script/sceneOwn.ts';
import type { CastEntry } from './cast.ts';
import type { SearchWord } from './search.ts';
import { isToday, yearIn, yearOf } from './setting.ts';
import { varied } from './shot.ts';

export class Thread {
  /** What the last full sentence was about. */
  topic: readonly SearchWord[] = [];
  private place: CastEntry | null = null;
  /** The year told of last, in which passage of the source, and that of this sentence. */
  private year: string | null = null;
  private dated: string | null = null;
  private now: string | null = null;
  private readonly sizes: ShotSize[] = [];
  private readonly shown = new Map<string, Set<ShotSize>>();

  /** `homes` are where each section plays; `era` the one year of a film that tells of one event. */
  constructor(
    private readonly homes: ReadonlyMap<string, CastEntry | null>,
    private readonly era: string | null,
  ) {}

  /** A new section: no year is told of any more. */
  opens(): void {
    this.year = null;
    this.now = null;
  }

  /** Where a scene plays: at the place its words name, where the sentence is that it goes on, else where its section plays. */
  placeOf(section: string, named: CastEntry | undefined, goesOn: boolean): CastEntry | null {
    this.place = named ?? (goesOn ? this.place : null) ?? this.homes.get(section) ?? null;
    return this.place;
  }
  /** What is shown is somewhere else. */
  leaves(): null {
    this.place = null;
    return null;
  }

  /** The year of a scene that rests on facts; a clause has its sentence's, unless it tells of today. */
  yearOf(text: string, used: readonly Fact[], inSentence: boolean): string | null {
    // A year told of one thing is none of the next passage's.
    const passage = used[0]?.block ?? null;
    if (passage && this.dated && passage !== this.dated) this.year = null;
    if (!inSentence || yearIn(text)) this.now = yearOf(text, used, this.year ?? this.era);
    const own = inSentence && isToday(text) ? null : this.now;
    if (this.now && this.now !== this.year) this.dated = passage;
    this.year = this.now ?? this.year;
    return own;
  }

  /** The size of a thing among those that fit it, another than it has been shown in. */
  sizeOf(thing: string, fitting: readonly ShotSize[], set: ShotSize | undefined): ShotSize {
    const before = this.shown.get(thing) ?? new Set();
    const size = set ?? varied(fitting, this.sizes, before);
    this.sizes.push(size);
    if (thing) this.shown.set(thing, before.add(size));
    return size;
  }
  /** Whether a thing has been shown already. */
  hasShown(thing: string): boolean {
    return this.shown.has(thing);
  }
}
