/** What is different since something was handed over, in plain words. */
import { compareScripts, type Timing } from '../script/compare.ts';
import type { PlainSection } from '../script/data.ts';

export interface Changed {
  /** Nothing a recipient would notice. */
  same: boolean;
  /** One sentence each. */
  says: readonly string[];
  lines: readonly { section: string; before: string | null; after: string | null; change: string }[];
  byMs: number;
}
const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;
const seconds = (ms: number) => `${(Math.abs(ms) / 1000).toFixed(1)} s`;

/** Compares what was handed over with what is there now. */
export function changedSince(
  before: { title: string; sections: readonly PlainSection[] },
  after: { title: string; sections: readonly PlainSection[] },
  timing: Timing,
): Changed {
  const compared = compareScripts(before.sections, after.sections, timing);
  const lines = compared.sections.flatMap((s) =>
    s.lines
      .filter((l) => l.change !== 'same')
      .map((l) => ({ section: s.title, before: l.before, after: l.after, change: l.change })),
  );
  const of = (change: string) => lines.filter((l) => l.change === change).length;
  const titles = new Map(before.sections.map((s) => [s.id, s.title]));
  const renamed = after.sections.filter((s) => titles.has(s.id) && titles.get(s.id) !== s.title);
  const rests = restsChanged(before.sections, after.sections);
  const byMs = compared.afterMs - compared.beforeMs;
  const parts = [
    of('changed') ? `${count(of('changed'), 'line')} changed` : '',
    of('added') ? `${count(of('added'), 'line')} new` : '',
    of('gone') ? `${count(of('gone'), 'line')} gone` : '',
    of('moved') ? `${count(of('moved'), 'line')} moved` : '',
  ].filter(Boolean);
  const says = [
    ...(before.title !== after.title ? [`The title was “${before.title}” and is “${after.title}”.`] : []),
    ...(parts.length ? [`${parts.join(', ')}.`] : []),
    ...renamed.map((s) => `Section “${titles.get(s.id)}” is called “${s.title}”.`),
    ...(rests ? [`${count(rests, 'rest')} of another length.`] : []),
    ...(Math.abs(byMs) >= 50 ? [`${seconds(byMs)} ${byMs > 0 ? 'longer' : 'shorter'}.`] : []),
  ];
  return { same: says.length === 0, says, lines, byMs };
}

function restsChanged(before: readonly PlainSection[], after: readonly PlainSection[]): number {
  const was = new Map(before.flatMap((s) => s.lines.map((l) => [l.id, l.restMs] as const)));
  return after.flatMap((s) => s.lines).filter((l) => was.has(l.id) && was.get(l.id) !== l.restMs).length;
}
