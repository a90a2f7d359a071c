/** Several sources beside one another: the same statement told twice, and where they disagree. */
import type { SourceDocument } from '../source/document.ts';
import { stems } from './centrality.ts';
import type { Fact } from './facts.ts';

export interface Told {
  /** The source's letter. */
  source: string;
  fact: string;
}
export interface SameStatement {
  /** One fact with its origins, the first telling first. */
  origins: readonly Told[];
}
export const DISAGREEMENTS = ['number', 'date', 'name', 'denial'] as const;
export interface Disagreement {
  about: (typeof DISAGREEMENTS)[number];
  /** What each says, in its own words. */
  sides: readonly (Told & { says: string; published?: string; publisher?: string })[];
  /** The side of the newer report on the same figure; absent when their days are unknown or equal. */
  newer?: number;
}
export interface Comparison {
  same: readonly SameStatement[];
  disagreements: readonly Disagreement[];
}

interface Entry extends Told {
  f: Fact;
  bag: ReadonlySet<string>;
  document: SourceDocument;
}

/** Shares of stems, by the overlap coefficient over the shorter of the two (Szymkiewicz 1934, Simpson 1943). */
const SAME = 0.72;
/** Below this two sentences are not about the same thing. */
const RELATED = 0.5;
const FEWEST_STEMS = 3;

function overlap(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  const [small, large] = a.size < b.size ? [a, b] : [b, a];
  if (small.size < FEWEST_STEMS) return 0;
  let shared = 0;
  for (const s of small) if (large.has(s)) shared++;
  // A short sentence inside a long one is not the same statement.
  return (shared / small.size) * Math.min(1, (small.size / large.size) * 1.8);
}

/** For an entry all that share a key with it which not everybody has. */
function sharing<E>(entries: readonly E[], keysOf: (entry: E) => ReadonlySet<string>): (entry: E) => Set<E> {
  const byKey = new Map<string, E[]>();
  for (const e of entries) for (const k of keysOf(e)) (byKey.get(k) ?? byKey.set(k, []).get(k)!).push(e);
  const common = Math.max(12, entries.length * 0.15);
  return (entry) => {
    const met = new Set<E>();
    for (const k of keysOf(entry)) {
      const list = byKey.get(k)!;
      if (list.length <= common) for (const e of list) met.add(e);
    }
    return met;
  };
}

/** Words without figures: a statement stays the same statement when its figure changes. */
const bagOf = (fact: Fact) => new Set(stems(fact.text.replace(/\d[\d.,]*/g, ' ')));
/** A figure with what it counts: its unit, or the next word. */
function inWords({ text, unit, end }: Fact['numbers'][number], fact: Fact): string {
  if (unit && text.includes(unit)) return text;
  if (unit && /^\p{L}/u.test(unit)) return `${text} ${unit}`;
  return text + (/^\s[\p{L}-]+/u.exec(fact.text.slice(end))?.[0] ?? '');
}
const unitOf = (unit: string | undefined) => (unit ?? '').toLowerCase().replace(/s$/, '');

/** So many counts with what they count make two sentences of one source the same news. */
const SAME_COUNTS = 2;
const LEAST_TO_REPEAT = 5;

/**
 * Facts of one source that say again what one before them said in another passage: in nearly the same words, or with the same
 * counts of the same things ("126 homes and 31 businesses"), as a lead and the text below it do. By id, with the id of the first.
 */
export function saidAgain(facts: readonly Fact[]): Map<string, string> {
  const entries = facts.map((f, at) => ({
    f,
    at,
    bag: bagOf(f),
    counts: [...new Set(f.numbers.map((n) => inWords(n, f).toLowerCase()))].filter((n) => / \p{L}/u.test(n)),
  }));
  const alike = sharing(entries, (e) => e.bag);
  const counted = sharing(entries, (e) => new Set(e.counts));
  const again = new Map<string, string>();
  for (const b of entries) {
    const before = (a: (typeof entries)[number]) => a.at < b.at && a.f.block !== b.f.block && !again.has(a.f.id);
    const first =
      (b.bag.size >= LEAST_TO_REPEAT &&
        [...alike(b)].find(
          (a) => before(a) && a.bag.size >= LEAST_TO_REPEAT && overlap(a.bag, b.bag) >= SAME && sameFigures(a.f, b.f),
        )) ||
      (b.counts.length >= SAME_COUNTS &&
        [...counted(b)].find((a) => before(a) && b.counts.filter((n) => a.counts.includes(n)).length >= SAME_COUNTS));
    if (first) again.set(b.f.id, first.f.id);
  }
  return again;
} // prettier-ignore

/** Whether the second gives no figure that the first doesn't give, and gives some if it does. */
const sameFigures = (a: Fact, b: Fact) => {
  const values = (f: Fact) => new Set(f.numbers.map((n) => n.value));
  const [x, y] = [values(a), values(b)];
  return (y.size > 0 || !x.size) && [...y].every((v) => x.has(v)) && a.polarity === b.polarity;
};

/** Compares every fact with every fact of the other sources. Cost: the product of their numbers, cut by shared rare stems. */
export function compareSources(
  sources: readonly { letter: string; document: SourceDocument; facts: readonly Fact[] }[],
): Comparison {
  const entries = sources.flatMap(({ letter, document, facts }) =>
    facts.map((f): Entry => ({ source: letter, fact: f.id, f, bag: bagOf(f), document })),
  );
  const near = sharing(entries, (e) => e.bag);
  const groupOf = new Map<Entry, Set<Entry>>();
  const disagreements: Disagreement[] = [];
  for (const a of entries) {
    let best: { b: Entry; share: number } | null = null;
    for (const b of near(a)) {
      if (b.source <= a.source) continue;
      const share = overlap(a.bag, b.bag);
      if (share >= RELATED && (!best || share > best.share)) best = { b, share };
    }
    if (!best) continue;
    const differs = difference(a, best.b);
    if (differs) disagreements.push(differs);
    else if (best.share >= SAME) {
      // What is told like either of the two is one statement with both.
      const group = new Set([a, best.b].flatMap((e) => [...(groupOf.get(e) ?? [e])]));
      for (const e of group) groupOf.set(e, group);
    }
  }
  // In the order of the sources, the first telling first.
  const origins = new Map<Set<Entry>, Told[]>();
  for (const e of entries) {
    const group = groupOf.get(e);
    if (!group) continue;
    const { source, fact } = e;
    (origins.get(group) ?? origins.set(group, []).get(group)!).push({ source, fact });
  }
  return {
    same: [...origins.values()].map((told) => ({ origins: told })),
    disagreements,
  };
}

function difference(a: Entry, b: Entry): Disagreement | null {
  const sides = (left: string, right: string): Disagreement['sides'] =>
    (
      [
        [a, left],
        [b, right],
      ] as const
    ).map(([e, says]) => ({
      source: e.source,
      fact: e.fact,
      says,
      ...(e.document.published ? { published: e.document.published } : {}),
      ...(e.document.publisher ? { publisher: e.document.publisher } : {}),
    }));
  const found = (about: Disagreement['about'], left: string, right: string): Disagreement => {
    const day = (e: Entry) => e.document.updated ?? e.document.published ?? '';
    const newer = day(a) && day(b) && day(a) !== day(b) ? (day(a) > day(b) ? 0 : 1) : undefined;
    return { about, sides: sides(left, right), ...(newer === undefined ? {} : { newer }) };
  };
  if (a.f.polarity !== b.f.polarity) return found('denial', a.f.text, b.f.text);
  for (const n of a.f.numbers) {
    const others = b.f.numbers.filter((m) => unitOf(m.unit) === unitOf(n.unit));
    if (
      others.length &&
      !others.some((m) => m.value === n.value) &&
      a.f.numbers.filter((m) => unitOf(m.unit) === unitOf(n.unit)).length === others.length
    )
      return found('number', inWords(n, a.f), inWords(others[0], b.f));
  }
  const [da, db] = [a.f.dates[0], b.f.dates[0]];
  if (da && db && a.f.dates.length === b.f.dates.length) {
    const short = Math.min(da.iso.length, db.iso.length);
    if (da.iso.slice(0, short) !== db.iso.slice(0, short)) return found('date', da.text, db.text);
  }
  const people = (e: Entry) => e.f.names.filter((n) => n.type === 'person').map((n) => n.text);
  const [pa, pb] = [people(a), people(b)];
  const last = (n: string) => n.split(' ').at(-1)!;
  if (pa.length === 1 && pb.length === 1 && last(pa[0]) !== last(pb[0])) return found('name', pa[0], pb[0]);
  return null;
}
