/** The Read-through as the command line gives it: lines against sources, one plain result. */
import type { PlainSection } from '../script/data.ts';
import { emptyLine } from '../script/schema.ts';
import type { Target } from '../script/file.ts';
import { seconds } from '../timing/clock.ts';
import { stockOf, supportOf, unsupportedIn, type Unsupported } from '../trace/support.ts';
import type { Finding, ReviewSource, ReviewTools } from './rule.ts';
import type { Level } from '../trace/retold/index.ts';
import { provableIn, type ProvableClaim } from './provable.ts';
import { makeReviewer } from './review.ts';
import { SLOTS, unsourced } from './rules/unsourced.ts';
import { scoreOf } from './score.ts';

export interface CheckedLine {
  id: string;
  text: string;
  restMs?: number;
  endsSection?: boolean;
}
export interface CheckedFinding {
  rule: string;
  area: Finding['area'];
  line: string;
  reason: string;
  mend?: string;
  text?: string;
}
export interface CheckResult {
  words: number;
  seconds: number;
  grade: number | null;
  /** Null without a source: nobody can say what is true. */
  score: number | null;
  overlap: { share: number; longestRun: number } | null;
  /** Claims that no source has, and those that the sources contradict or don't say. */
  unsupported: {
    line: string;
    text: string;
    why: Unsupported['why'] | 'claim';
    slot: string;
    level: Level;
    says?: string;
  }[];
  /** Without a source: what would need proof. */
  claims: ProvableClaim[];
  findings: CheckedFinding[];
}

const UNSOURCED: ReadonlySet<string> = new Set(unsourced.map((r) => r.id));

/** Plain lines as sections: a section ends where a line says so. */
export function sectionsOfLines(lines: readonly CheckedLine[]): PlainSection[] {
  const out: PlainSection[] = [];
  let open = false;
  for (const l of lines) {
    if (!open)
      out.push({
        id: `S${out.length + 1}`,
        title: `Part ${out.length + 1}`,
        role: 'ground',
        plannedMs: 0,
        locked: false,
        takes: [],
        lines: [],
      });
    const last = out[out.length - 1];
    out[out.length - 1] = {
      ...last,
      lines: [...last.lines, { ...emptyLine(l.id), text: l.text, restMs: l.restMs ?? 0 }],
    };
    open = !l.endsSection;
  }
  return out;
}

/** Checks a script against sources. With no source overlap and score are null, nothing is unsupported, and what would need proof is listed. */
export function checkScript(
  script: { title: string; sections: readonly PlainSection[]; target?: Target },
  sources: readonly ReviewSource[],
  tools: ReviewTools,
  more: readonly Finding[] = [],
): CheckResult {
  const { title, sections, target } = script;
  const review = makeReviewer(tools)({ title, sections, sources, ...(target ? { target } : {}) });
  const findings = [...review.findings, ...more];
  const stock = sources.length ? stockOf(sources.map(supportOf)) : null;
  return {
    words: sections.reduce((n, s) => n + s.lines.reduce((k, l) => k + tools.clock.time(l.text).words, 0), 0),
    seconds: seconds(review.ms),
    grade: review.grade,
    score: sources.length ? scoreOf(findings).score : null,
    overlap: review.overlap,
    unsupported: stock
      ? [
          ...sections.flatMap((s) =>
            s.lines.flatMap(
              (l) =>
              unsupportedIn(l.text, stock).map((u) => ({ line: l.id, text: u.text, why: u.why, slot: SLOTS[u.why], level: 'wrong' as const })), // prettier-ignore
            ),
          ),
          ...findings.flatMap((f) =>
            f.claim && !UNSOURCED.has(f.rule)
              ? [{ line: f.line, text: f.text ?? '', why: 'claim' as const, ...f.claim, says: f.reason }]
              : [],
          ),
        ]
      : [],
    claims: stock ? [] : provableIn(sections.flatMap((s) => s.lines)),
    findings: findings.map((f) => ({
      rule: f.rule,
      area: f.area,
      line: f.line,
      reason: f.reason,
      ...(f.mend ? { mend: f.mend.says } : {}),
      ...(f.text ? { text: f.text } : {}),
    })),
  };
}
