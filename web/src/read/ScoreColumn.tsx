/** The score as a sum: a hundred, what each rule takes off, what is left; where the next point would come from. */
import type { ProvableClaim, Score } from '@ursprung/core/review';

/** Below this there is trouble, from the second on it is well (common practice, no published source). */
const TROUBLE = 85;
const AIM = 90;
const MOST_SHOWN = 20;

export function ScoreColumn({
  score,
  claims,
  chosen,
  only,
  onOnly,
  onMendAll,
  onCompare,
  safe,
  overlap,
  grade,
  said,
}: {
  /** Null while it is read, and where there is no source to hold the script against. */
  score: Score | null;
  /** Without a source: what would need proof. */
  claims: readonly ProvableClaim[] | null;
  chosen: string | null;
  only: string | null;
  onOnly: (rule: string | null) => void;
  onMendAll: () => void;
  onCompare: () => void;
  safe: number;
  overlap: { share: number } | null;
  grade: number | null;
  said: string | null;
}) {
  const place = (n: number) => `${((Math.max(50, n) - 50) / 50) * 100}%`;
  return (
    <div className="w-[248px] shrink-0 px-6 py-3 overflow-auto border-r border-hair" aria-label="Score">
      <p className="font-serif text-[58px] leading-[56px]" aria-live="polite" data-testid="score">
        {score ? score.score : '–'}
      </p>
      {score && (
        <>
          <div className="relative h-6 mt-2 border-t border-mark" aria-hidden>
            {[TROUBLE, AIM].map((n) => (
              <span key={n} className="absolute top-0 h-2 border-l border-ink" style={{ left: place(n) }} />
            ))}
            <span className="absolute -top-[5px] w-2 h-2 bg-ink -ml-1" style={{ left: place(score.score) }} />
            <span
              className="absolute top-2 clock text-ink3"
              style={{ left: `calc(${place(TROUBLE)} - 18px)` }}
            >
              85 90
            </span>
          </div>
          <table className="w-full mt-2">
            <tbody>
              <tr className="border-b border-hair">
                <td className="py-1">full marks</td>
                <td />
                <td className="text-right clock">100</td>
              </tr>
              {score.rows.map((r) => (
                <tr key={r.rule} className={`border-b border-hair ${r.rule === chosen ? 'bg-lit' : ''}`}>
                  <td className="py-0.5">
                    <button
                      className={`text-left cursor-pointer min-h-6 ${only === r.rule ? 'font-semibold' : ''}`}
                      aria-pressed={only === r.rule}
                      onClick={() => onOnly(only === r.rule ? null : r.rule)}
                    >
                      {r.name}
                    </button>
                  </td>
                  <td className="text-right clock text-ink3 pl-2">{r.count}</td>
                  <td className="text-right clock pl-3 whitespace-nowrap">−{r.cost}</td>
                </tr>
              ))}
              <tr className="font-semibold">
                <td className="py-1">score</td>
                <td />
                <td className="text-right clock">{score.score}</td>
              </tr>
            </tbody>
          </table>
          <p className="text-ink2 py-2">
            {score.next
              ? `Next: one “${score.next.name.toLowerCase()}” mended gives ${score.next.gives}.`
              : 'Nothing takes anything off.'}{' '}
            Below {TROUBLE} is trouble, {AIM} is the aim.
          </p>
        </>
      )}
      {!score && claims && (
        <div className="py-2">
          <p className="text-ink2">
            No score: this script has no source, so nobody can say what in it is true.{' '}
            {claims.length
              ? `${claims.length === 1 ? 'One claim' : `${claims.length} claims`} would need proof:`
              : 'It claims no figure, day or name.'}
          </p>
          <ul className="pt-2">
            {claims.slice(0, MOST_SHOWN).map((c, i) => (
              <li key={i} className="border-b border-hair py-0.5 flex gap-3">
                <span className="flex-1">{c.text}</span>
                <span className="text-ink3">{c.why}</span>
              </li>
            ))}
          </ul>
          {claims.length > MOST_SHOWN && (
            <p className="text-ink3 pt-1">and {claims.length - MOST_SHOWN} more</p>
          )}
        </div>
      )}
      {grade !== null && <p className="text-ink2">Reading grade {grade}.</p>}
      {overlap && <p className="text-ink2">{Math.round(overlap.share * 100)} % in the sources’ words.</p>}
      <p className="pt-3">
        <button className="press" onClick={onMendAll} disabled={!safe}>
          Mend {safe} safe
        </button>
      </p>
      <p className="pt-2">
        <button className="quietpress" onClick={onCompare}>
          Against the channel’s style
        </button>
      </p>
      {said && (
        <p className="pt-2 text-ink2" role="status">
          {said}
        </p>
      )}
    </div>
  );
}
