/** Two states of a script side by side: lines kept, changed, moved, added, gone, with words and seconds. */
import type { PlainLine, PlainSection } from './data.ts';

export type LineChange = 'same' | 'changed' | 'moved' | 'added' | 'gone';
export interface ComparedLine {
  id: string;
  change: LineChange;
  /** Null where the line is not in that state. */
  before: string | null;
  after: string | null;
  beforeMs: number;
  afterMs: number;
}
export interface ComparedSection {
  id: string;
  title: string;
  change: 'same' | 'changed' | 'moved' | 'added' | 'gone';
  beforeMs: number;
  afterMs: number;
  lines: ComparedLine[];
}
export interface Comparison {
  sections: ComparedSection[];
  beforeMs: number;
  afterMs: number;
  beforeWords: number;
  afterWords: number;
  /** How many lines are not the same. */
  changed: number;
}

/** What `compareScripts` needs of a clock: milliseconds and words of every line, in order. */
export type Timing = (sections: readonly PlainSection[]) => { ms: number; words: number }[];

/** The longest rising run of positions (patience sorting): what is on it has kept its place, the rest was moved. */
export function keptPlaces(positions: readonly number[]): Set<number> {
  const tails: number[] = [];
  const before: number[] = [];
  positions.forEach((p, i) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (positions[tails[middle]] < p) low = middle + 1;
      else high = middle;
    }
    before[i] = low ? tails[low - 1] : -1;
    tails[low] = i;
  });
  const kept = new Set<number>();
  for (let i = tails.length ? tails[tails.length - 1] : -1; i >= 0; i = before[i]) kept.add(positions[i]);
  return kept;
}

/** Compares by id, lines that keep their words under a new id by their words. `after` gives the order; what is gone stands where it stood. */
export function compareScripts(
  before: readonly PlainSection[],
  after: readonly PlainSection[],
  timing: Timing,
): Comparison {
  const old = flat(before, timing);
  const now = flat(after, timing);
  const byId = new Map(old.map((l) => [l.line.id, l]));
  const nowIds = new Set(now.map((l) => l.line.id));
  /** Lines whose id is gone, by their words: each is found again once. */
  const byText = new Map<string, Flat[]>();
  for (const l of old)
    if (l.line.text && !nowIds.has(l.line.id))
      (byText.get(l.line.text) ?? byText.set(l.line.text, []).get(l.line.text)!).push(l);
  const pairs = now.map((l) => byId.get(l.line.id) ?? byText.get(l.line.text)?.shift());
  const kept = keptPlaces(pairs.flatMap((p) => (p ? [p.at] : [])));
  const used = new Set(pairs.flatMap((p) => (p ? [p.line.id] : [])));
  const sections = after.map((s): ComparedSection => {
    const lines: ComparedLine[] = [];
    const own = now.filter((l) => l.section === s.id);
    for (const l of own) {
      const was = pairs[l.at];
      const change: LineChange = !was
        ? 'added'
        : was.line.text !== l.line.text
          ? 'changed'
          : kept.has(was.at)
            ? 'same'
            : 'moved';
      lines.push({
        id: l.line.id,
        change,
        before: was?.line.text ?? null,
        after: l.line.text,
        beforeMs: was?.ms ?? 0,
        afterMs: l.ms,
      });
    }
    const was = before.find((b) => b.id === s.id);
    for (const g of was ? old.filter((l) => l.section === s.id && !used.has(l.line.id)) : []) {
      const previous = old
        .slice(0, g.at)
        .filter((l) => l.section === s.id)
        .reverse()
        .find((l) => lines.some((x) => x.id === l.line.id));
      const at = previous ? lines.findIndex((x) => x.id === previous.line.id) + 1 : 0;
      lines.splice(at, 0, gone(g));
    }
    const beforeMs = was ? sum(old.filter((l) => l.section === s.id)) : 0;
    return {
      id: s.id,
      title: s.title,
      change: !was
        ? 'added'
        : lines.every((l) => l.change === 'same') && was.title === s.title
          ? 'same'
          : 'changed',
      beforeMs,
      afterMs: sum(own),
      lines,
    };
  });
  const ids = new Set(after.map((s) => s.id));
  before.forEach((s, i) => {
    if (ids.has(s.id)) return;
    const own = old.filter((l) => l.section === s.id);
    const left = own.filter((l) => !used.has(l.line.id));
    sections.splice(Math.min(i, sections.length), 0, {
      id: s.id,
      title: s.title,
      change: 'gone',
      beforeMs: sum(own),
      afterMs: 0,
      lines: left.map(gone),
    });
  });
  return {
    sections,
    beforeMs: sum(old),
    afterMs: sum(now),
    beforeWords: old.reduce((n, l) => n + l.words, 0),
    afterWords: now.reduce((n, l) => n + l.words, 0),
    changed: sections.reduce((n, s) => n + s.lines.filter((l) => l.change !== 'same').length, 0),
  };
}

interface Flat {
  line: PlainLine;
  section: string;
  at: number;
  ms: number;
  words: number;
}

function flat(sections: readonly PlainSection[], timing: Timing): Flat[] {
  const times = timing(sections);
  let at = 0;
  return sections.flatMap((s) => s.lines.map((line) => ({ line, section: s.id, ...times[at], at: at++ })));
}

const sum = (lines: readonly Flat[]) => lines.reduce((n, l) => n + l.ms, 0);
const gone = (l: Flat): ComparedLine => ({
  id: l.line.id,
  change: 'gone',
  before: l.line.text,
  after: null,
  beforeMs: l.ms,
  afterMs: 0,
});

/** One word of a comparison of two texts. */
export interface WordChange {
  text: string;
  change: 'same' | 'added' | 'gone';
}

/** Two texts word by word, by the longest common subsequence (Hunt and McIlroy 1976, as a table: lines are short). */
export function compareWords(before: string, after: string): WordChange[] {
  const a = before.split(/(?<=\s)/);
  const b = after.split(/(?<=\s)/);
  const same = (x: string, y: string) => x.trim() === y.trim();
  const table = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      table[i][j] = same(a[i], b[j]) ? table[i + 1][j + 1] + 1 : Math.max(table[i + 1][j], table[i][j + 1]);
  const out: WordChange[] = [];
  const push = (text: string, change: WordChange['change']) => {
    if (!text) return;
    const last = out[out.length - 1];
    if (last?.change === change) last.text += text;
    else out.push({ text, change });
  };
  let i = 0;
  let j = 0;
  while (i < a.length || j < b.length) {
    if (i < a.length && j < b.length && same(a[i], b[j])) {
      push(b[j++], 'same');
      i++;
    } else if (j >= b.length || (i < a.length && table[i + 1][j] >= table[i][j + 1])) push(a[i++], 'gone');
    else push(b[j++], 'added');
  }
  return out;
}
