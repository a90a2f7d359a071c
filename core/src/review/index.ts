/** What a script needs before it is handed over: findings with place and reason, and a score that is a plain sum. */
import type { Pronouncer } from '../language/phones.ts';
import { readability } from '../measure/index.ts';
import { overMs, toleranceMs, type Target } from '../script/file.ts';
import { indexSources, isClose, overlap } from '../trace/overlap.ts';
import { stockOf, unsupportedIn, type Unsupported } from '../trace/support.ts';
import type { Clock } from '../timing/clock.ts';
import { seconds } from '../timing/clock.ts';
import { clockText } from '../timing/clockText.ts';

export const AREAS = ['speech', 'language', 'hold', 'truth', 'overlap', 'care'] as const;
export type Area = (typeof AREAS)[number];

export interface Finding {
  rule: string;
  area: Area;
  /** A line's id; the whole script when empty. */
  line: string;
  reason: string;
  mend?: string;
}

export interface CheckedLine {
  id: string;
  text: string;
  restMs?: number;
  endsSection?: boolean;
}

export interface CheckResult {
  words: number;
  seconds: number;
  grade: number | null;
  score: number;
  overlap: { share: number; longestRun: number } | null;
  unsupported: { line: string; text: string; why: Unsupported['why'] }[];
  findings: Finding[];
}

/** What each finding takes off the score of 100, by rule, and at most. */
const COST: Readonly<Record<string, { each: number; most: number }>> = {
  'unsourced-number': { each: 5, most: 25 },
  'unsourced-date': { each: 5, most: 25 },
  'unsourced-name': { each: 4, most: 20 },
  'altered-quote': { each: 6, most: 24 },
  'close-line': { each: 0.6, most: 15 },
  'long-breath': { each: 1.5, most: 12 },
  'over-length': { each: 8, most: 8 },
  'hard-to-follow': { each: 6, most: 6 },
};

/** A breath longer than this is hard to speak, in milliseconds (common practice, no published source). */
const LONG_BREATH_MS = 9000;
/** Reading grade that narration stays under (about 7 is aimed at; common practice, no published source). */
const HIGHEST_GRADE = 10;
/** Overlap up to this share is fine (common practice, no published source). */
export const FINE_OVERLAP = 0.1;

const SUPPORT_RULE = {
  number: 'unsourced-number',
  date: 'unsourced-date',
  name: 'unsourced-name',
  quote: 'altered-quote',
} as const;
const SUPPORT_REASON = {
  number: (t: string) => `No source has the figure “${t}”.`,
  date: (t: string) => `No source has the date “${t}”.`,
  name: (t: string) => `No source has the name “${t}”.`,
  quote: () => 'These words stand in quotation marks but in no source.',
} as const;

/** Checks lines against sources. With no source overlap is null and nothing is unsupported. */
export function checkScript(
  lines: readonly CheckedLine[],
  sources: readonly string[],
  clock: Clock,
  pronouncer: Pronouncer,
  target?: Target,
): CheckResult {
  const timed = clock.lines(lines);
  const text = lines.map((l) => l.text).join('\n');
  const ms = timed.reduce((sum, l) => sum + l.ms, 0);
  const findings: Finding[] = [];
  const unsupported: CheckResult['unsupported'] = [];
  const shared = sources.length
    ? overlap(
        lines.map((l) => l.text),
        indexSources(sources),
      )
    : null;
  if (sources.length) {
    const stock = stockOf(sources);
    for (const line of lines)
      for (const u of unsupportedIn(line.text, stock)) {
        unsupported.push({ line: line.id, text: u.text, why: u.why });
        findings.push({
          rule: SUPPORT_RULE[u.why],
          area: 'truth',
          line: line.id,
          reason: SUPPORT_REASON[u.why](u.text),
        });
      }
    shared!.lines.forEach(
      (o, i) =>
        isClose(o) &&
        shared!.share > FINE_OVERLAP &&
        findings.push({
          rule: 'close-line',
          area: 'overlap',
          line: lines[i].id,
          reason: 'Still in the source’s words.',
          mend: 'Say it in your own words.',
        }),
    );
  }
  lines.forEach((line) => {
    const breath = longestBreath(line.text, clock);
    if (breath > LONG_BREATH_MS)
      findings.push({
        rule: 'long-breath',
        area: 'speech',
        line: line.id,
        reason: `${(breath / 1000).toFixed(1)} s without a rest.`,
        mend: 'Stop in the middle.',
      });
  });
  const grade = readability(text, pronouncer).grade;
  if (grade !== null && grade > HIGHEST_GRADE)
    findings.push({
      rule: 'hard-to-follow',
      area: 'language',
      line: '',
      reason: `Reading grade ${grade}; a listener can’t look back.`,
    });
  if (target) {
    const over = overMs(target, ms);
    if (Math.abs(over) > toleranceMs(target.seconds))
      findings.push({
        rule: 'over-length',
        area: 'hold',
        line: '',
        reason: `${clockText(Math.abs(over))} ${over > 0 ? 'over' : 'under'} ${clockText(target.seconds * 1000, false)}.`,
      });
  }
  return {
    words: timed.reduce((sum, l) => sum + l.words, 0),
    seconds: seconds(ms),
    grade,
    score: scoreOf(findings),
    overlap: shared
      ? { share: Math.round(shared.share * 10_000) / 10_000, longestRun: shared.longestRun }
      : null,
    unsupported,
    findings,
  };
}

/** 100 less what each rule's findings cost, each rule up to its most; never below 0. */
export function scoreOf(findings: readonly Finding[]): number {
  const sums = new Map<string, number>();
  for (const f of findings) {
    const cost = COST[f.rule];
    sums.set(f.rule, Math.min(cost.most, (sums.get(f.rule) ?? 0) + cost.each));
  }
  return Math.max(0, Math.round(100 - [...sums.values()].reduce((a, b) => a + b, 0)));
}

/** The longest stretch of a line without any rest, in milliseconds. */
function longestBreath(text: string, clock: Clock): number {
  let longest = 0;
  let ms = 0;
  for (const token of clock.tokens(text)) {
    ms += token.ms;
    longest = Math.max(longest, ms);
    if (token.pauseMs) ms = 0;
  }
  return longest;
}
