/** The order of events: "A, and then B" where the source has B before A. */
import type { Check, Retelling } from './fault.ts';
import type { Kin } from '../../language/kin.ts';
import { alike, coverage, type Said, type Word } from './text.ts';

/** Where a telling says what came after what: the earlier part, the later part. */
const FORMS: readonly { form: RegExp; earlierFirst: boolean }[] = [
  { form: /,?\s+(?:and )?(?:only )?(?:then|afterwards|after that|later)\b,?\s+/gi, earlierFirst: true },
  { form: /[,;]?\s+(?:and )?only (?:then|afterwards)\s+/gi, earlierFirst: true },
  { form: /\s+before\s+/gi, earlierFirst: true },
  { form: /\s+after\s+/gi, earlierFirst: false },
];

const parts = (text: string): [string, string][] =>
  FORMS.flatMap(({ form, earlierFirst }) =>
    [...text.matchAll(form)].map((m): [string, string] => {
      const [a, b] = [text.slice(0, m.index), text.slice(m.index + m[0].length)];
      return earlierFirst ? [a, b] : [b, a];
    }),
  ).filter(([a, b]) => /\s/.test(a.trim()) && /\s/.test(b.trim()));

const contentOf = (text: string, said: Said): string[] => {
  const at = said.plain.indexOf(text);
  return at < 0
    ? []
    : said.words.flatMap((w) => (w.root && w.start >= at && w.end <= at + text.length ? [w.root] : []));
};

const KNOWN = 0.6;
/** A date as one number that can be compared, where both have the same exactness. */
const yearOf = (s: Said) => s.values.find((v) => v.unit === 'year')?.value ?? null;

export const order: Check = (r) => {
  const { told } = r;
  if (told.question) return [];
  for (const [earlier, later] of parts(told.plain)) {
    const [a, b] = [contentOf(earlier, told), contentOf(later, told)];
    if (!a.length || !b.length) continue;
    const wrong = inPassage(a, b, r) ?? betweenFacts(a, b, r);
    if (wrong) return [{ kind: 'order', start: 0, end: told.text.length, says: wrong }];
  }
  return [];
};

/** The passage itself says which came first: "after", "before", or steps and dates in turn. */
function inPassage(a: readonly string[], b: readonly string[], { passage, tools }: Retelling): string | null {
  const pairs = parts(passage.plain).map(([x, y]) => [new Set(contentOf(x, passage)), new Set(contentOf(y, passage))] as const); // prettier-ignore
  const score = (roots: readonly string[], by: ReadonlySet<string>) => coverage(roots, by, tools.kin);
  if (pairs.some(([x, y]) => score(a, x) >= KNOWN && score(b, y) >= KNOWN)) return null;
  for (const [x, y] of pairs) {
    if (
      score(a, y) >= KNOWN &&
      score(b, x) >= KNOWN &&
      score(a, x) < score(a, y) &&
      score(b, y) < score(b, x)
    )
      return `The source has it the other way: “${passage.text.replace(/[.!?]$/, '')}”.`;
  }
  return null;
}

/** Two facts in turn: steps by their place, events by their dates, a story by its telling. */
function betweenFacts(
  a: readonly string[],
  b: readonly string[],
  { stock, tools, facts }: Retelling,
): string | null {
  const best = (roots: readonly string[], near?: number) =>
    stock.facts
      .map((f, i) => ({ f, i, n: sumOf(roots, stock.said(f).roots, tools.kin) }))
      // A fact that has both says nothing of their order.
      .filter(
        ({ f }) =>
          !(
            sumOf(a, stock.said(f).roots, tools.kin) > a.length / 2 &&
            sumOf(b, stock.said(f).roots, tools.kin) > b.length / 2
          ),
      )
      .filter(({ f, n }) => f.source === facts[0]?.source && n >= Math.max(0.9, roots.length / 2))
      .sort((p, q) => q.n - p.n || Math.abs(p.i - (near ?? 0)) - Math.abs(q.i - (near ?? 0)))[0];
  const p = best(a);
  const q = p && best(b, p.i);
  if (!p || !q || p.i <= q.i) return null;
  const [sp, sq] = [stock.said(p.f), stock.said(q.f)];
  const [yp, yq] = [yearOf(sp), yearOf(sq)];
  const steps = p.f.step !== null && q.f.step !== null;
  if (yp !== null && yq !== null && yp <= yq) return null;
  // Without steps or dates the source must tell one close behind the other, and look back with no "had".
  const told = p.i - q.i <= 2 && !hadIn(sp) && !/\b(?:after|before|until|since)\b/i.test(sp.plain);
  if (!steps && !(yp !== null && yq !== null) && !told) return null;
  return `The source has “${short(sq.text)}” first.`;
}
const sumOf = (roots: readonly string[], by: ReadonlySet<string>, kin: Kin | null) =>
  roots.reduce((n, x) => n + (by.has(x) ? 1 : [...by].some((y) => alike(x, y, kin)) ? KIN : 0), 0);
const KIN = 0.6;
const hadIn = (s: Said) => s.words.some((w: Word) => w.segment === 0 && /^had$/i.test(w.text));
const short = (text: string) =>
  text.length <= 70 ? text.replace(/[.!?]$/, '') : `${text.slice(0, 68).replace(/\s+\S*$/, '')} …`;
