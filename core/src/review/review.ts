/** The Read-through: every rule over a script, the ones that judge a line by itself only where a line has changed. */
import { noveltyOf } from '../measure/novelty.ts';
import { readability } from '../measure/readability.ts';
import type { HouseStyle } from '../measure/style.ts';
import { loopsOf } from '../plan/loops.ts';
import type { Target } from '../script/file.ts';
import type { PlainSection } from '../script/data.ts';
import { overlap } from '../trace/overlap.ts';
import { linePreparer, prepareSources } from './prepare.ts';
import type {
  Finding,
  Found,
  PreparedSources,
  ReviewLine,
  ReviewScript,
  ReviewSource,
  ReviewTools,
  Rule,
} from './rule.ts';
import { RULES } from './rules/index.ts';

export interface ReviewInput {
  title: string;
  sections: readonly PlainSection[];
  target?: Target | null;
  pays?: { source: string; fact: string } | null;
  sources: readonly ReviewSource[];
  style?: HouseStyle | null;
  /** Rules the channel has switched off. */
  off?: readonly string[];
}
export interface Review {
  findings: Finding[];
  ms: number;
  words: number;
  grade: number | null;
  overlap: { share: number; longestRun: number } | null;
}
/** Waved off by the writer: stays while the words it is about stay. */
export interface Waiver {
  rule: string;
  line: string;
  text: string;
  reason: string;
}
export const isWaived = (f: Finding, waived: readonly Waiver[]): boolean =>
  waived.some((w) => w.rule === f.rule && w.line === f.line && w.text === (f.text ?? ''));

/** A reviewer keeps what it knows from one look to the next; the findings are those of a fresh one. */
export function makeReviewer(tools: ReviewTools): (input: ReviewInput) => Review {
  const prepareLines = linePreparer(tools);
  let preparedFrom: readonly ReviewSource[] | null = null;
  let prepared: PreparedSources | null = null;
  let style: HouseStyle | null = null;
  let memo: LineMemo = new Map();
  const gradeMemo = gradeOf(tools);
  return (input) => {
    if (input.sources !== preparedFrom) {
      prepared = input.sources.length ? prepareSources(input.sources, tools.kin ?? null) : null;
      preparedFrom = input.sources;
      memo = new Map();
    }
    if ((input.style ?? null) !== style) {
      style = input.style ?? null;
      memo = new Map();
    }
    const sections = prepareLines(input.sections);
    const lines = sections.flatMap((s) => s.lines);
    const free = lines.filter((l) => !l.fixed);
    const shared = prepared
      ? overlap(
          lines.map((l) => (l.fixed ? '' : l.text)),
          prepared.index,
        )
      : null;
    const ms = lines.reduce((n, l) => n + l.ms, 0);
    const script: ReviewScript = {
      title: input.title,
      sections,
      lines,
      ms,
      target: input.target ?? null,
      pays: input.pays ?? null,
      sources: prepared,
      style,
      overlap: shared,
      loops: loopsOf(input.sections),
      novelty: noveltyOf(lines),
      grade: gradeMemo(free),
    };
    const off = new Set(input.off);
    // What is kept of lines that are gone is let go.
    const current: LineMemo = new Map();
    for (const line of free) {
      const key = keyOf(line);
      current.set(key, memo.get(key) ?? new Map());
    }
    memo = current;
    const findings = RULES.filter((r) => !off.has(r.id)).flatMap((rule) => [
      ...(rule.line ? free.flatMap((line) => lineFindings(rule, line, tools, prepared, style, memo)) : []),
      ...(rule.script ? rule.script(script, tools).map((f) => finished(rule, f)) : []),
    ]);
    return {
      findings: inOrder(findings, lines),
      ms,
      words: lines.reduce((n, l) => n + l.words.length, 0),
      grade: script.grade,
      overlap: shared
        ? { share: Math.round(shared.share * 10_000) / 10_000, longestRun: shared.longestRun }
        : null,
    };
  };
}

/** What rules found in a line by itself, by everything that those rules look at; when it is heard is no part of that. */
type LineMemo = Map<string, Map<string, Found[]>>;
const keyOf = (l: ReviewLine) =>
  `${l.id}\0${l.text}\0${l.role}\0${l.locked}\0${l.from.map((f) => `${f.source}${f.fact}`).join()}`;

const finished = (rule: Rule, found: Found): Finding => ({
  rule: rule.id,
  area: rule.area,
  ...found,
  line: found.line ?? '',
});

function lineFindings(
  rule: Rule,
  line: ReviewLine,
  tools: ReviewTools,
  sources: PreparedSources | null,
  style: HouseStyle | null,
  memo: LineMemo,
): Finding[] {
  const own = memo.get(keyOf(line))!;
  let found = own.get(rule.id);
  if (!found) {
    found = rule.line!(line, tools, sources, style);
    own.set(rule.id, found);
  }
  return found.map((f) => finished(rule, { ...f, line: line.id }));
}

/** Grade from counts kept a line: syllables are looked up once a text. */
function gradeOf(tools: ReviewTools): (lines: readonly ReviewLine[]) => number | null {
  const memo = new Map<string, { sentences: number; words: number; syllables: number }>();
  return (lines) => {
    const sum = { sentences: 0, words: 0, syllables: 0 };
    for (const { text } of lines) {
      let own = memo.get(text);
      if (!own) {
        if (memo.size > 8000) memo.clear();
        own = readability(text, tools.pronouncer);
        memo.set(text, own);
      }
      sum.sentences += own.sentences;
      sum.words += own.words;
      sum.syllables += own.syllables;
    }
    if (!sum.words) return null;
    return (
      Math.round((0.39 * (sum.words / sum.sentences) + 11.8 * (sum.syllables / sum.words) - 15.59) * 10) / 10
    );
  };
}

/** Findings of the whole first, then by place. Order of rules among findings of one place. */
function inOrder(findings: Finding[], lines: readonly ReviewLine[]): Finding[] {
  const place = new Map(lines.map((l, i) => [l.id, i]));
  return findings
    .map((f, i) => ({
      f,
      i,
      at: f.line === '' ? -1 : (place.get(f.line) ?? lines.length),
      start: f.start ?? 0,
    }))
    .sort((a, b) => a.at - b.at || a.start - b.start || a.i - b.i)
    .map(({ f }) => f);
}
