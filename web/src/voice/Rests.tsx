/** Rests that a voice is thankful for: computed, shown with the reason, taken one by one or all. */
import type { ProposedRest } from '@ursprung/core/handoff/desk';
import type { ScriptSession } from '../script/session.ts';

export function Rests({ session, rests }: { session: ScriptSession; rests: readonly ProposedRest[] }) {
  const lines = new Map(session.snapshot.sections.flatMap((s) => s.lines.map((l) => [l.id, l] as const)));
  const open = rests.filter((r) => (lines.get(r.line)?.restMs ?? r.restMs) < r.restMs);
  if (!open.length) return null;
  const take = (chosen: readonly ProposedRest[]) => {
    const by = new Map(chosen.map((r) => [r.line, r.restMs]));
    session.take(
      session.snapshot.sections.map((s) => ({
        ...s,
        lines: s.lines.map((l) => (by.has(l.id) ? { ...l, restMs: by.get(l.id)! } : l)),
      })),
      'rests',
    );
  };
  const sum = open.reduce((n, r) => n + r.restMs - (lines.get(r.line)?.restMs ?? 0), 0);
  return (
    <details className="py-2 border-b border-hair">
      <summary className="cursor-pointer">
        <strong>{open.length} rests</strong> would help the voice, {(sum / 1000).toFixed(1)} s in all.{' '}
        <button
          className="textpress"
          onClick={(e) => {
            e.preventDefault();
            take(open);
          }}
        >
          Take them all
        </button>
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
  );
}
