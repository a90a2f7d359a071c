/** Hooks of the kinds whose facts are there; the one that opens is marked. */
import type { Hook, OpeningCheck } from '@ursprung/core/plan';
import { clockText } from '../text/clockText.ts';
import type { PlainSection } from '@ursprung/core/script';
import type { Rundown } from './useRundown.ts';
import { namesOf, useFactNames } from '../text/factNames.ts';

/** What the opening does by when. */
export function Opens({ check }: { check: OpeningCheck }) {
  const said = (name: string, ms: number | null, by: string) =>
    ms === null ? (
      <span className="finding">{`${name} not by ${by}`}</span>
    ) : (
      <span>{`${name} at ${clockText(ms, false)}`}</span>
    );
  return (
    <p className="m-0 pt-1 flex gap-5 text-ink2" aria-label="What the opening does">
      {said('what this is', check.whatMs, '0:15')}
      {said('what is at stake', check.stakeMs, '0:15')}
      {said('what the listener gets', check.getMs, '0:30')}
    </p>
  );
}

export function Hooks({
  hooks,
  opening,
  rundown,
}: {
  hooks: readonly Hook[] | null;
  opening: PlainSection;
  rundown: Rundown;
}) {
  const factName = useFactNames();
  const first = opening.lines.find((l) => !l.fixed && l.role !== 'frame');
  const opens = (h: Hook) =>
    Boolean(
      first &&
      (first.text === h.text ||
        (first.from.some((f) => f.source === h.rests.source && f.fact === h.rests.fact) &&
          (h.own || /\?$/.test(first.text) === /\?$/.test(h.text)))),
    );
  const kinds = [...new Map((hooks ?? []).map((h) => [h.kind, h])).values()];
  return (
    <section aria-label="Hook" className="pt-5">
      <div className="flex items-baseline gap-4 border-b border-hair pb-1">
        <strong>Hook</strong>
        <span className="text-ink3 flex-1">
          {hooks
            ? kinds.length
              ? `${kinds.length} of seven kinds have their facts`
              : 'the sources open it best themselves'
            : 'looking for hooks…'}
        </span>
        <button
          className="textpress"
          disabled={rundown.busy !== null || opening.locked}
          onClick={() => rundown.redo({ what: 'hook' })}
        >
          {rundown.busy === 'hook' ? 'Telling…' : 'Another'}
        </button>
      </div>
      {kinds.map((h) => (
        <div
          key={h.kind}
          className="grid grid-cols-[14px_94px_minmax(0,1fr)_48px_76px] gap-x-2 py-1.5 border-b border-hair items-baseline"
        >
          <span aria-hidden="true">{opens(h) ? '●' : ''}</span>
          <span className="text-ink2">{h.kind}</span>
          <span>
            <span className="font-serif text-[15.5px] leading-[21px]">{h.text}</span>
            <span className="block text-[12px] text-ink3">
              {factName(h.rests)}: {h.why}
              {h.pays.length > 0 && `; paid by ${namesOf(factName, h.pays).join(', ')}`}
            </span>
          </span>
          <span className="clock text-ink2">{(h.ms / 1000).toFixed(1)} s</span>
          {opens(h) ? (
            <span className="text-ink3">in the script</span>
          ) : (
            <button
              className="textpress text-left"
              disabled={rundown.busy !== null || opening.locked}
              onClick={() => rundown.redo({ what: 'hook', hook: h.kind })}
            >
              Use
            </button>
          )}
        </div>
      ))}
    </section>
  );
}
