/** A score that explains itself: 100 less what each rule's findings cost, each rule up to its most. */
import type { Area, Finding } from './rule.ts';
import { ruleById } from './rules/index.ts';

export interface ScoreRow {
  rule: string;
  name: string;
  area: Area;
  count: number;
  /** What it takes off. */
  cost: number;
  /** What mending one of its findings gives back now. */
  gives: number;
}
export interface Score {
  score: number;
  rows: readonly ScoreRow[];
  /** The rule whose next mend gives most; null at full marks. */
  next: ScoreRow | null;
}

export function scoreOf(findings: readonly Finding[]): Score {
  const counts = new Map<string, number>();
  for (const f of findings) counts.set(f.rule, (counts.get(f.rule) ?? 0) + 1);
  const rows = [...counts].map(([id, count]): ScoreRow => {
    const rule = ruleById(id)!;
    const cost = (n: number) => Math.min(rule.cost.most, rule.cost.each * n);
    return {
      rule: id,
      name: rule.name,
      area: rule.area,
      count,
      cost: tenth(cost(count)),
      gives: tenth(cost(count) - cost(count - 1)),
    };
  });
  rows.sort((a, b) => b.cost - a.cost || a.rule.localeCompare(b.rule));
  const off = rows.reduce((n, r) => n + r.cost, 0);
  const next = [...rows].sort((a, b) => b.gives - a.gives || a.count - b.count)[0] ?? null;
  return { score: Math.max(0, Math.round(100 - off)), rows, next: next && next.gives > 0 ? next : null };
}

const tenth = (n: number) => Math.round(n * 10) / 10;
