/** What the writer wants covered, in points and keywords: where each is told, which facts have it, or that no source does. */
import { stems } from '../facts/centrality.ts';
import { claimedStems, type Material } from './material.ts';

/** Points are written with spaces, commas and full stops in them: a line or a semicolon parts them. */
export const pointsFrom = (typed: string): string[] => [
  ...new Set(
    typed
      .split(/[\n;]+/)
      .map((p) => p.replace(/^\s*(?:[-*•–]|\d+[.)])\s+/, '').trim())
      .filter((p) => p.length > 1),
  ),
];

export interface Covered {
  point: string;
  /** The first line that says it; null while none does. */
  told: string | null;
  /** Facts that have it, the best first. */
  facts: readonly { source: string; fact: string; quote: string }[];
}

/** Of a point with three content words or more so many must stand together; of a shorter one all. */
const SHARE = 0.6;
/** Of these at least so many in the sentence itself: the rest may stand beside it or in the title. */
const IN_ITSELF = 0.5;
/** So many facts are named for a point. */
const MOST_FACTS = 5;

/** How much of a point a sentence says, 0 when it doesn't: its words in the sentence, with what its neighbours name. */
function says(point: readonly string[], own: ReadonlySet<string>, near: ReadonlySet<string>): number {
  const inIt = point.filter((s) => own.has(s)).length;
  // A figure is said or it isn't.
  if (!inIt || point.some((s) => /^\d/.test(s) && !own.has(s))) return 0;
  if (point.length < 3) return inIt === point.length ? inIt : 0;
  const beside = point.filter((s) => own.has(s) || near.has(s)).length;
  return beside >= Math.ceil(SHARE * point.length) && inIt >= IN_ITSELF * point.length
    ? inIt + (beside - inIt) / 2
    : 0;
}

/** Each sentence with its stems and those of the sentence before and of the title. */
const indexed = <T extends { text: string }>(list: readonly T[], title = '') => {
  const named = stems(title);
  const own = list.map((x) => stems(x.text));
  return list.map((item, i) => ({
    item,
    own: new Set(own[i]),
    near: new Set([...named, ...(own[i - 1] ?? [])]),
  }));
};

/** Looks for points in the facts of sources, which are gone through once; a title stands beside every fact of its source. */
export function pointFinder(
  material: readonly {
    letter: string;
    source: Pick<Material['source'], 'title'>;
    facts: Material['facts'];
  }[],
): (point: string) => Covered['facts'] {
  const all = () =>
    material.flatMap((m) =>
      indexed(
        m.facts.filter((f) => !f.silent),
        m.source.title,
      ).map((x) => ({ ...x, source: m.letter })),
    );
  // Most briefs list no points: nothing is gone through for them.
  let facts: ReturnType<typeof all> | undefined;
  return (point) => {
    const words = claimedStems(point);
    return (facts ??= all())
      .map((x) => ({ ...x, said: says(words, x.own, x.near) }))
      .filter((x) => x.said > 0)
      .sort((a, b) => b.said - a.said || b.item.strength - a.item.strength)
      .slice(0, MOST_FACTS)
      .map(({ item, source }) => ({ source, fact: item.id, quote: item.text }));
  };
}

/** What became of each point: told by a line's own words, or by one that rests on the fact that has it best. */
export function coverOf(
  points: readonly string[],
  lines: readonly {
    id: string;
    text: string;
    from: readonly { source: string; fact?: string | undefined }[];
  }[],
  factsWith: (point: string) => Covered['facts'],
): Covered[] {
  const spoken = indexed(lines.filter((l) => l.text.trim()));
  return points.map((point) => {
    const words = claimedStems(point);
    const facts = factsWith(point);
    const line =
      spoken.find((x) => says(words, x.own, x.near)) ??
      spoken.find((x) => x.item.from.some((f) => f.source === facts[0]?.source && f.fact === facts[0]?.fact));
    return { point, told: line?.item.id ?? null, facts };
  });
}
