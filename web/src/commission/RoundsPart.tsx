/** Telling in one go: what it does and costs at most, how it goes, what came of it. */
import { useState } from 'react';
import { MOST_ROUNDS, type OrderScope } from '@ursprung/core/commission/desk';
import { moneyText } from './costs.ts';
import type { RoundsView } from '../api.ts';

const USUAL_ROUNDS = 3;

export function RoundsPart({
  last,
  running,
  scope,
  host,
  tokens,
  cost,
  onStart,
  onStop,
}: {
  /** The newest one of this script. */
  last: RoundsView | null;
  running: boolean;
  scope: OrderScope;
  host: string;
  /** What one round takes at most, in tokens and in the service's money. */
  tokens: number;
  cost: number | null;
  onStart: (most: number) => void;
  onStop: () => void;
}) {
  const [most, setMost] = useState(USUAL_ROUNDS);
  const what = scope.line ? 'the line' : scope.section ? 'the section' : 'the script';
  const ours =
    last !== null &&
    (last.scope.section ?? '') === (scope.section ?? '') &&
    (last.scope.line ?? '') === (scope.line ?? '');
  return (
    <div className="pt-2">
      {running ? (
        <button className="press" onClick={onStop}>
          Stop telling
        </button>
      ) : (
        <>
          <button className="press text-left" onClick={() => onStart(most)}>
            Have {what} told by {host}
          </button>
          <label className="block pt-1 text-ink3">
            asked at most{' '}
            <select
              className="field text-ink"
              aria-label="Rounds at most"
              value={most}
              onChange={(e) => setMost(Number(e.target.value))}
            >
              {Array.from({ length: MOST_ROUNDS }, (_, i) => i + 1).map((n) => (
                <option key={n} value={n}>
                  {n === 1 ? 'once' : `${n} times`}
                </option>
              ))}
            </select>
            , at most about {(tokens * most).toLocaleString('en')} tokens
            {cost !== null && `, ${moneyText(cost * most)} in its money`}. Each line is checked; what fails is
            asked again. What still fails stays by rule, or open and marked.
          </label>
        </>
      )}
      <p className="text-ink2 m-0 pt-1" role="status" aria-live="polite">
        {running && last
          ? last.state === 'waiting'
            ? 'Waiting its turn.'
            : `Round ${last.round} of at most ${last.most}${last.came > 0 ? `: ${last.came} sentences have come` : ': asked'}.`
          : ours && last && (last.says ?? '')}
        {ours && last?.message && (
          <span className={last.state === 'failed' ? 'finding' : ''}> {last.message}</span>
        )}
      </p>
      {ours && !running && last?.outcome && last.outcome.refused.length > 0 && (
        <details className="text-ink2">
          <summary className="cursor-pointer min-h-6">
            {last.outcome.refused.length} lines were refused
          </summary>
          {last.outcome.refused.map((r, i) => (
            <p key={i} className="m-0 py-1 border-b border-hair">
              <s>{r.text}</s> {r.why} <span className="text-ink3">{r.became}</span>
            </p>
          ))}
        </details>
      )}
    </div>
  );
}
