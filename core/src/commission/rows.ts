/** Ours and the reply beside one another: lines stand level where both rest on the same fact. */
import { isOpen, type PlainLine, type PlainSection } from '../script/data.ts';
import { keyOf, keysIn } from './keys.ts';
import type { CheckedReply, ReplyLine } from './check.ts';

export interface ReplyRow {
  section: string;
  ours: PlainLine | null;
  reply: ReplyLine | null;
  /** The fact that both, or the one, rest on first; null for framing. */
  fact: { source: string; fact: string } | null;
}

const BOTH_FIRST = 3;
const SHARED = 2;
/** Framing lines stand level only where nothing else speaks against it. */
const FRAMING = 0.2;

const replyKeys = (l: ReplyLine) => l.facts.map((f) => keyOf(f.source, f.fact));

function likeness(ours: PlainLine, reply: ReplyLine): number {
  const [a, b] = [keysIn(ours), replyKeys(reply)];
  if (!a.length && !b.length) return FRAMING;
  if (a[0] !== undefined && a[0] === b[0]) return BOTH_FIRST;
  return a.some((k) => b.includes(k)) ? SHARED : 0;
}

/** The rows of one section, by the longest common course of facts (dynamic programming, Needleman and Wunsch 1970). */
export function rowsOf(section: PlainSection, reply: CheckedReply): ReplyRow[] {
  const ours = section.lines.filter((l) => l.text.trim() || isOpen(l));
  const theirs = reply.lines.filter((l) => l.section === section.id);
  const best = Array.from({ length: ours.length + 1 }, () => new Float64Array(theirs.length + 1));
  for (let i = ours.length - 1; i >= 0; i--)
    for (let k = theirs.length - 1; k >= 0; k--) {
      const both = likeness(ours[i], theirs[k]);
      best[i][k] = Math.max(best[i + 1][k], best[i][k + 1], both > 0 ? both + best[i + 1][k + 1] : 0);
    }
  const out: ReplyRow[] = [];
  const factOf = (o: PlainLine | null, r: ReplyLine | null): ReplyRow['fact'] => {
    const own = o?.from.find((f) => f.fact);
    const theirs = r?.facts[0];
    return theirs
      ? { source: theirs.source, fact: theirs.fact }
      : own
        ? { source: own.source, fact: own.fact! }
        : null;
  };
  const add = (o: PlainLine | null, r: ReplyLine | null) =>
    out.push({ section: section.id, ours: o, reply: r, fact: factOf(o, r) });
  let [i, k] = [0, 0];
  while (i < ours.length || k < theirs.length) {
    if (i === ours.length) add(null, theirs[k++]);
    else if (k === theirs.length) add(ours[i++], null);
    else {
      const both = likeness(ours[i], theirs[k]);
      if (both > 0 && best[i][k] === both + best[i + 1][k + 1]) add(ours[i++], theirs[k++]);
      else if (best[i + 1][k] >= best[i][k + 1]) add(ours[i++], null);
      else add(null, theirs[k++]);
    }
  }
  return out;
}
