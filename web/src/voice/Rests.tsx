/** Rests that a voice is thankful for: computed, shown with the reason, taken one by one or all that fit the length. */
import type { ProposedRest } from '@ursprung/core/handoff/desk';
import { overMs, toleranceMs } from '@ursprung/core/script';
import type { ScriptSession } from '../script/session.ts';

export function Rests({ session, rests }: { session: ScriptSession; rests: readonly ProposedRest[] }) {
  const { sections, settings, totalMs } = session.snapshot;
  const lines = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, l] as const)));
  const more = (r: ProposedRest) => r.restMs - (lines.get(r.line)?.restMs ?? r.restMs);
  const open = rests.filter((r) => more(r) > 0);
  if (!open.length) return null;
  const take = (chosen: readonly ProposedRest[]) => {
    const by = new Map(chosen.map((r) => [r.line, r.restMs]));
    session.take(
      sections.map((s) => ({
        ...s,
        lines: s.lines.map((l) => (by.has(l.id) ? { ...l, restMs: by.get(l.id)! } : l)),
      })),
      'rests',
    );
  };
  const sum = (chosen: readonly ProposedRest[]) => chosen.reduce((n, r) => n + more(r), 0);
  const fits = (chosen: readonly ProposedRest[]) =>
    overMs(settings.target, totalMs + sum(chosen)) <= toleranceMs(settings.target.seconds);
  // In reading order, as many as leave the script at its length.
  const fitting = open.reduce<ProposedRest[]>((all, r) => (fits([...all, r]) ? [...all, r] : all), []);
  const over = overMs(settings.target, totalMs + sum(open));
  return (
    <div className="py-2 border-b border-hair flex gap-3 items-baseline">
      <details className="flex-1 min-w-0">
        <summary className="cursor-pointer min-h-6">
          <strong>{open.length === 1 ? 'One rest' : `${open.length} rests`}</strong> would help the voice,{' '}
          {(sum(open) / 1000).toFixed(1)} s in all
          {fitting.length < open.length &&
            `; with all of them the script is ${(over / 1000).toFixed(1)} s over`}
          .
        </summary>
        {open.map((r) => (
          <p key={r.line} className="flex gap-3 items-baseline border-t border-hair py-1">
            <span className="clock w-10">{(r.restMs / 1000).toFixed(1)}</span>
            <span className="text-ink3 w-36">{r.why}</span>
            <span className="font-serif flex-1 truncate">after “{lines.get(r.line)?.text.slice(-60)}”</span>
            <button className="textpress" onClick={() => take([r])}>
              Take it
            </button>
          </p>
        ))}
      </details>
      {fitting.length > 0 && (
        <button className="textpress" onClick={() => take(fitting)}>
          {fitting.length === open.length ? 'Take them all' : `Take the ${fitting.length} that fit`}
        </button>
      )}
    </div>
  );
}
