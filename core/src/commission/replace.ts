/**
 * A reply in place of what stands, paragraph by paragraph: what is clean is taken in its order; a line that is refused
 * keeps its place as an open one, with its words and what is wrong in them, so that nothing that follows loses what it
 * points at. What stood there comes back only as a whole paragraph.
 */
import { leansOnBefore } from '../facts/references.ts';
import { openLine, placesIn, withOpenLine } from '../plan/openLines.ts';
import type { LineSource, PlainLine, PlainSection } from '../script/data.ts';
import type { CheckedReply, ReplyLine } from './check.ts';
import { stops } from './faults.ts';
import { keyOf, keysIn, keysOf } from './keys.ts';
import { rowsOf } from './rows.ts';
import {
  isKept,
  newLine,
  retakenLine,
  sharesFact,
  sourcesOf,
  type TakeOptions,
  type Taking,
} from './take.ts';
import type { CommissionContext } from './types.ts';

/** What became of a line of a reply. */
export type Became = 'taken' | 'mended' | 'kept open' | 'told by rule' | 'left out' | 'paragraph stays';

export interface Replaced {
  sections: PlainSection[];
  /** By the line's id. */
  became: ReadonlyMap<string, Became>;
  /** Facts that the writer marked to be said and no taken line says: each has a place kept. */
  owed: readonly string[];
}

export interface ReplaceOptions extends TakeOptions {
  /** Sections whose own lines stay, though the reply has something for them. */
  stays?: ReadonlySet<string>;
  /** Where a line is refused: its place is kept open, or our line of the same fact stands there, where nothing else tells it. */
  instead?: 'open' | 'ours';
}

/** Sections for which the reply has nothing keep what it doesn't tell elsewhere; those that stay are the same objects as before. */
export function replacedBy(
  context: Pick<CommissionContext, 'sections' | 'sources' | 'must'>,
  reply: CheckedReply,
  taking: Taking,
  options: ReplaceOptions,
): Replaced {
  const became = new Map<string, Became>();
  const from = sourcesOf(context.sources);
  const at = new Map(reply.lines.map((l, i) => [l.id, i]));
  /** The line behind one, where it points at it. */
  const leaning = (line: ReplyLine): ReplyLine | null => {
    const next = reply.lines[at.get(line.id)! + 1] as ReplyLine | undefined;
    return next?.section === line.section && leansOnBefore(next.text) ? next : null;
  };
  const leanedOn = (line: ReplyLine) => taking.has(leaning(line)?.id ?? '');
  /** Facts whose place is kept where a line is refused: its own, else those of the line that leans on it. */
  const asksFor = (line: ReplyLine): LineSource[] => {
    const next = leaning(line);
    return line.facts.length ? from(line) : next ? from(next) : [];
  };
  const placeOf = (line: ReplyLine): PlainLine | null => {
    // What only says something again may go; what is wrong in it is no loss.
    if (line.mended === '' && !leanedOn(line)) return null;
    const asks = asksFor(line);
    if (!asks.length) return null;
    const why = line.faults.filter(stops).map((f) => f.says).join(' '); // prettier-ignore
    return {
      ...openLine(`L${options.fresh()}`, { asks, ms: line.ms }),
      takes: [{ text: line.text, from: from(line), by: options.by, why }],
    };
  };
  const told = new Set(
    reply.lines.flatMap((l) => (taking.has(l.id) ? l.facts.map((a) => keyOf(a.source, a.fact)) : [])),
  );
  /** Facts for which a line of ours stands. */
  const used = new Set<string>();
  const answered = new Set(reply.lines.map((l) => l.section));
  /** A section that a reply to several has nothing for: what is told in another one isn't said again. */
  const leftOver = (section: PlainSection): PlainSection => {
    if (answered.size < 2 || section.locked || options.stays?.has(section.id)) return section;
    const elsewhere = (l: PlainLine) => l.text.trim() && keysOf(l.from).length > 0 && keysOf(l.from).every((k) => told.has(k)); // prettier-ignore
    const lines = section.lines.filter((l) => isKept(l, section) || !elsewhere(l));
    if (lines.length === section.lines.length) return section;
    // What claims nothing goes with the lines that it led to.
    const claims = lines.some((l) => isKept(l, section) || keysIn(l).length || !l.text.trim());
    return { ...section, lines: claims ? lines : [] };
  };
  const replaced = context.sections.map((section) => {
    const own = reply.lines.filter((l) => l.section === section.id);
    if (!own.length) return leftOver(section);
    if (options.stays?.has(section.id) || section.locked) {
      for (const l of own) became.set(l.id, 'paragraph stays');
      return section;
    }
    const rows = rowsOf(section, reply);
    /** Lines of ours in whose place one of the reply's stands. */
    const taken = new Set(
      rows.flatMap((r) => (r.ours && r.reply && taking.has(r.reply.id) ? [r.ours.id] : [])),
    );
    const lines = rows.flatMap(({ ours, reply: theirs }): PlainLine[] => {
      if (!theirs) return ours && isKept(ours, section) ? [ours] : [];
      const text = taking.get(theirs.id);
      const stays = ours && isKept(ours, section) ? [ours] : [];
      if (text === undefined && options.instead === 'ours') {
        const [first] = theirs.facts.map((f) => keyOf(f.source, f.fact));
        if (first && !leanedOn(theirs)) {
          if (told.has(first)) {
            became.set(theirs.id, used.has(first) ? 'told by rule' : 'left out');
            return stays;
          }
          const own = section.lines.find(
            (l) => l.text.trim() && !isKept(l, section) && !taken.has(l.id) && keysOf(l.from).includes(first),
          );
          if (own) {
            for (const k of keysOf(own.from)) {
              told.add(k);
              used.add(k);
            }
            became.set(theirs.id, 'told by rule');
            return [...stays, own];
          }
        }
      }
      if (text === undefined) {
        const place = placeOf(theirs);
        became.set(theirs.id, place ? 'kept open' : 'left out');
        return [...stays, ...(place ? [place] : [])];
      }
      if (stays.length && sharesFact(stays[0], theirs)) {
        became.set(theirs.id, 'paragraph stays');
        return stays;
      }
      became.set(theirs.id, text === theirs.text ? 'taken' : 'mended');
      return ours && !stays.length
        ? [retakenLine(ours, text, from(theirs), options)]
        : [...stays, newLine(theirs, text, from(theirs), options)];
    }); // prettier-ignore
    if (!lines.length) return section;
    const rest = section.lines.at(-1)?.restMs ?? 0;
    const last = lines[lines.length - 1];
    if (!isKept(last, section) && !last.restMs && rest) lines[lines.length - 1] = { ...last, restMs: rest };
    const whole = { name: 'before the reply', lines: section.lines.map(({ takes: _, ...l }) => l) };
    return { ...section, lines, takes: [...section.takes, whole] };
  });
  const emptied = (s: PlainSection, i: number) => !s.lines.length && context.sections[i].lines.length > 0;
  const sections = replaced.filter((s, i) => !emptied(s, i));
  const said = new Set(sections.flatMap((s) => s.lines.flatMap((l) => keysIn(l)))); // prettier-ignore
  const owed = context.must.filter((k) => !said.has(k));
  return { sections: withPlaces(context, sections, owed, options), became, owed };
}

/** What a word takes in a place whose words nobody knows yet, in milliseconds. */
const MS_A_WORD = 400;

function withPlaces(
  { sources }: Pick<CommissionContext, 'sources'>,
  sections: PlainSection[],
  owed: readonly string[],
  { fresh }: TakeOptions,
): PlainSection[] {
  const facts = new Map(sources.flatMap((s) => s.facts.map((f) => [keyOf(s.letter, f.id), f] as const)));
  const placeOf = placesIn(sources);
  return owed.reduce<PlainSection[]>((now, key) => {
    const fact = facts.get(key);
    if (!fact) return now;
    const [source] = key.split(':');
    const ms = fact.text.split(/\s+/).length * MS_A_WORD;
    const line = openLine(`L${fresh()}`, { asks: [{ source, fact: fact.id, quote: fact.text }], ms });
    return [...withOpenLine(now, line, placeOf)];
  }, sections);
}
