/** Values no source has, and values told of another thing than the source tells them of. */
import { replacedIn, type Check, type Retelling, type RetoldFault } from './fault.ts';
import { valuePut } from './put.ts';
import { alike, type Said } from './text.ts';
import type { Value } from './figures.ts';

/** Words that let a figure be near and not exact. */
const APPROX =
  /\b(?:about|around|some|roughly|approximately|nearly|almost|close to|or so|give or take|something like|more than|over|less than|under|just|barely|up to|at least|at most|maybe|perhaps|odd)\b/i;
const NEAR = 0.06;
/** Small numbers in words are often turns of speech ("two sides", "one of"). */
const SMALL = 3;
const YEAR_SLACK = 5;

const same = (a: Value, b: Value) =>
  Math.abs(a.value - b.value) < 1e-6 && (a.unit === b.unit || !a.unit || !b.unit);
const near = (a: Value, b: Value) =>
  (a.unit === b.unit || !a.unit || !b.unit) &&
  a.unit !== 'year' &&
  a.unit !== 'day' &&
  Math.abs(a.value - b.value) <= NEAR * Math.max(a.value, b.value);

/** A stretch of years between two that the sources name, or since one of them. */
function isSpan(v: Value, said: Said, r: Retelling): boolean {
  if (v.unit !== 'months' || v.value % 12) return false;
  const years = [...said.values.filter((x) => x.unit === 'year').map((x) => x.value), ...r.stock.values.filter((y) => y > 1000 && y < 2100)]; // prettier-ignore
  const span = v.value / 12;
  // "six hundred years, give or take": counted from a century.
  if (span >= 100 && APPROX.test(said.plain) && /\bcentury\b/i.test(r.stock.even)) return true;
  return years.some((a) =>
    years.some((b) => Math.abs(Math.abs(a - b) - span) <= (span > 20 ? YEAR_SLACK : 0)),
  );
}

/** What a value counts, or its unit: values of one kind can stand for one another. */
const kindred = (a: Value, b: Value, r: Retelling) =>
  a.unit || b.unit
    ? a.unit === b.unit
    : a.thing !== null && b.thing !== null && alike(a.thing, b.thing, r.tools.kin);

/** A fact elsewhere in the sources that has this value and tells of the same. */
const toldElsewhere = (v: Value, r: Retelling): boolean => {
  const segment = r.told.segments.find((s) => s.index === v.segment);
  const roots = (segment?.words ?? []).flatMap((w) =>
    w.root && (w.end <= v.start || w.start >= v.end) ? [w.root] : [],
  );
  return r.stock.facts.some((f) => {
    const said = r.stock.said(f);
    if (!said.values.some((x) => same(x, v))) return false;
    const shared = roots.filter((x) => said.roots.has(x)).length;
    return shared >= 2 || (shared === 1 && said.values.some((x) => same(x, v) && kindred(x, v, r)));
  });
};

/** "four of the eleven": the part of a whole. */
const OF_ALL = /^\s+(?:of|in|out of)\s+(?:the|all|these|those|every|them)?\s*/i;

function wrongValue(v: Value, r: Retelling): RetoldFault | null {
  const { told, passage, all, around, stock } = r;
  if (all.values.some((s) => same(s, v) || (APPROX.test(told.plain) && near(s, v)))) return null;
  if (isSpan(v, told, r)) return null;
  if (v.inWords && v.raw === 1 && /\bone\b/i.test(passage.plain)) return null;
  const rivals = passage.values.filter(
    (s) => kindred(s, v, r) && !told.values.some((t) => t !== v && same(t, s)),
  );
  const part = OF_ALL.exec(told.plain.slice(v.end));
  const ofAll =
    part &&
    told.values.find((t) => t.start === v.end + part[0].length && passage.values.some((s) => same(s, t)));
  const other = ofAll ? passage.values.filter((s) => !same(s, ofAll) && !s.unit) : [];
  const words = nearOf(v, told);
  const shared = (s: Value) => [...nearOf(s, passage)].filter((x) => words.has(x)).length;
  // Of several the one that is told of the same.
  const [likeliest, next] = [...rivals].sort((a, b) => shared(b) - shared(a));
  const clear = next === undefined || shared(likeliest) > shared(next);
  const rival = rivals.length > 0 && clear ? likeliest : ofAll && other.length === 1 ? other[0] : null;
  const small = v.inWords && v.raw <= SMALL;
  // A measure is known as that measure, a bare number wherever it stands.
  const known =
    stock.facts.some((f) => stock.said(f).values.some((x) => same(x, v) && (!v.unit || x.unit === v.unit))) ||
    ((!v.unit || v.unit === 'year') && stock.values.some((x) => Math.abs(x - v.raw) < 1e-6));
  // The figure may be told of the same somewhere else in the sources: then the line rests on more than one fact.
  if (rival && toldElsewhere(v, r)) return null;
  if (!rival && (v.unit === 'part' || v.unit === 'time')) return null;
  if (!rival && (small || known || around.values.some((s) => same(s, v)))) return null;
  const says = rival ? `The source says “${rival.text}”, not “${v.text}”.` : `No source has “${v.text}”.`;
  const mend = rival ? valuePut(told.text, v, rival) : null;
  return {
    kind: 'value',
    start: v.start,
    end: v.end,
    says,
    ...(mend !== null ? { mend, does: `Say “${rival!.text}”` } : {}),
  };
}

/** The words near a value: those of its segment, and of the ones behind it that have no value of their own. */
function nearOf(v: Value, said: Said): Set<string> {
  if (v.whole) return new Set();
  const others = said.values.filter((x) => x.start !== v.start && !x.whole);
  const next = Math.min(...others.filter((x) => x.segment > v.segment).map((x) => x.segment), Infinity);
  const shared = others.filter((x) => x.segment === v.segment);
  return new Set(
    said.words.flatMap((w) => {
      if (w.root === null || w.segment < v.segment || w.segment >= next) return [];
      // Within one segment a word belongs to the value it stands next behind, or first before.
      const nearer = shared.some((o) => Math.abs(o.start - w.start) < Math.abs(v.start - w.start));
      return w.segment === v.segment && nearer ? [] : [w.root];
    }),
  );
}

/** "310 boats" where the source has 310 tonnes: a measure told as a count. */
function counted(v: Value, r: Retelling): RetoldFault | null {
  const mine = r.passage.values.filter(
    (s) => Math.abs(s.value - v.value) < 1e-6 || Math.abs(s.raw - v.raw) < 1e-6,
  );
  const measured = mine.length > 0 && mine.every((s) => s.unit && s.unit !== 'year' && s.unit !== 'day');
  if (v.unit || v.thing === null || !measured || r.passage.roots.has(v.thing)) return null;
  const end = r.told.words.find((w) => w.start >= v.end && w.root === v.thing)?.end ?? v.end;
  return {
    kind: 'thing',
    start: v.start,
    end,
    says: `The source says “${mine[0].text}”, not “${r.told.text.slice(v.start, end)}”.`,
    mend: replacedIn(r.told.text, v.start, end, mine[0].text),
    does: `Say “${mine[0].text}”`,
  };
}

/** A value of the passage told of what the passage tells of another value. */
function swapped(v: Value, r: Retelling): RetoldFault | null {
  const { told, passage, tools } = r;
  const mine = passage.values.filter((s) => same(s, v));
  if (!mine.length || v.range || mine.some((s) => s.range)) return null;
  const rivals = passage.values.filter(
    (s) => !mine.includes(s) && s.unit === v.unit && s.start !== mine[0].start,
  );
  if (!rivals.length) return null;
  const words = nearOf(v, told);
  if (!words.size) return null;
  const scoreOf = (t: Value, s: Value) => {
    const theirs = nearOf(s, passage);
    return [...nearOf(t, told)].filter((w) => [...theirs].some((x) => alike(x, w, tools.kin))).length;
  };
  const score = (s: Value) => scoreOf(v, s);
  const here = Math.max(...mine.map(score));
  const best = rivals.map((s) => ({ s, n: score(s) })).sort((a, b) => b.n - a.n)[0];
  if (
    here > 0 ||
    best.n === 0 ||
    (best.n < 2 &&
      words.size > 1 &&
      !mine.every((s) => s.whole) &&
      !(words.size === 2 && told.values.length === 1))
  )
    return null;
  // Both are told: they may only stand in another order.
  const other = told.values.find((t) => same(t, best.s));
  if (other && scoreOf(other, best.s) > 0) return null;
  return {
    kind: 'thing',
    start: v.start,
    end: v.end,
    says: `The source says this of “${best.s.text}”, not of “${v.text}”.`,
  };
}

/** "from A to B" told the other way round. */
function turned(r: Retelling): RetoldFault[] {
  const { told, passage } = r;
  const pairs = (s: Said) =>
    s.values.flatMap((a, i) => {
      const b = s.values[i + 1];
      return b &&
        a.unit === b.unit &&
        /^\D{0,12}\b(?:to|up to|down to)\s+$/.test(s.plain.slice(a.end, b.start))
        ? [[a, b] as const]
        : [];
    });
  return pairs(told).flatMap(([a, b]): RetoldFault[] => {
    const other = pairs(passage).find(([x, y]) => same(x, b) && same(y, a));
    return other
      ? [
          {
            kind: 'direction',
            start: a.start,
            end: b.end,
            says: `The source has it the other way: from ${other[0].text} to ${other[1].text}.`,
            mend: replacedIn(told.text, a.start, b.end, `${other[0].text} to ${other[1].text}`),
            does: 'Turn it round',
          },
        ]
      : [];
  });
}

/** "In 1908 it was 2.3 metres" where the source has 2.3 metres for 1900. */
function paired(r: Retelling): RetoldFault[] {
  const { told, passage } = r;
  const years = told.values.filter((v) => v.unit === 'year');
  const figures = told.values.filter((v) => v.unit !== 'year' && v.unit !== 'day');
  if (years.length !== 1 || figures.length !== 1) return [];
  const [year] = years;
  const [figure] = figures;
  const theirs = passage.values.find((s) => same(s, figure));
  if (!theirs || !passage.values.some((s) => same(s, year))) return [];
  const partners = passage.values.filter((s) => s.unit === 'year' && s.segment === theirs.segment);
  if (!partners.length || partners.some((s) => same(s, year))) return [];
  return [
    {
      kind: 'thing',
      start: year.start,
      end: year.end,
      says: `The source has “${theirs.text}” for ${partners[0].text}, not for ${year.text}.`,
      mend: replacedIn(told.text, year.start, year.end, partners[0].text),
      does: `Say “${partners[0].text}”`,
    },
  ];
}

export const values: Check = (r) => {
  const back = turned(r);
  if (back.length) return back;
  const wrong = r.told.values.flatMap((v) => wrongValue(v, r) ?? counted(v, r) ?? swapped(v, r) ?? []);
  return wrong.length ? wrong : paired(r);
};
