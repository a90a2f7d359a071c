/**
 * Which words mean much the same: WordNet's synsets (Fellbaum 1998), packed at build time for common words. A row of the
 * packed file is a stem, the synsets it is in, the next wider ones, and those it is the opposite of, then "thing" for
 * a noun that most often means something that can be seen or touched, parted by tabs.
 */
import verbs from '../../data/verbs.json';

export interface Kin {
  /** Synsets that a stem is in, at full weight, and the next wider ones; empty for a word that is not kept. */
  of: (stem: string) => { own: readonly string[]; wider: readonly string[] };
  /** 1 for the same synset, 0.6 where one is the next wider of the other, else 0. Symmetric. */
  likeness: (a: string, b: string) => number;
  /** Whether one is the opposite of the other in a common sense; of adjectives also by the one they are like ("enormous" by "large"). */
  opposed: (a: string, b: string) => boolean;
  /** Whether a stem most often names something that can be seen or touched: an animal, a tool, a food. */
  isThing: (stem: string) => boolean;
}

const WIDER = 0.6;
interface Entry {
  own: readonly string[];
  wider: readonly string[];
  opposite: readonly string[];
  thing: boolean;
}
const NONE: Entry = { own: [], wider: [], opposite: [], thing: false };
const list = (words: string | undefined) => (words ? words.split(' ') : []);

export function openKin(packed: string): Kin {
  const entries = new Map<string, Entry>();
  for (const row of packed.split('\n')) {
    const [stem, own, wider, opposite, thing] = row.split('\t');
    if (stem)
      entries.set(stem, {
        own: list(own),
        wider: list(wider),
        opposite: list(opposite),
        thing: thing === 'thing',
      });
  }
  const entry = (stem: string) => entries.get(stem) ?? NONE;
  const shares = (a: readonly string[], b: readonly string[]) => a.some((id) => b.includes(id));
  return {
    of: entry,
    likeness: (a, b) => {
      if (a === b) return 1;
      const [x, y] = [entry(a), entry(b)];
      if (shares(x.own, y.own)) return 1;
      return shares(x.own, y.wider) || shares(x.wider, y.own) ? WIDER : 0;
    },
    isThing: (stem) => entry(stem).thing,
    opposed: (a, b) => {
      const [x, y] = [entry(a), entry(b)];
      return shares(x.own, y.opposite) || shares(y.own, x.opposite);
    },
  };
}

const BASE = new Map(
  verbs.irregular.flatMap((row) => {
    const [base, ...forms] = row.split(' ');
    return forms.flatMap((f) => f.split('/').map((form) => [form, base] as const));
  }),
);
/** An irregular form as its base ("slept" → "sleep"); any other word as it is. */
export const baseForm = (word: string): string => BASE.get(word) ?? word;
