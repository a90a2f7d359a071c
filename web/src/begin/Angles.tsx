/** Before any script: what could be told of these sources, and under which title. */
import { useState } from 'react';
import type { Angle } from '@ursprung/core/plan';
import type { Promised } from '../api.ts';
import { clockText } from '../text/clockText.ts';
import { useFactNames } from '../text/factNames.ts';

export function Angles({
  promised,
  page,
  chosen,
  title,
  onPage,
  onAngle,
  onTitle,
}: {
  promised: Promised | null;
  page: number;
  chosen: string | null;
  title: string;
  onPage: (page: number) => void;
  onAngle: (angle: Angle | null) => void;
  onTitle: (title: Promised['titles'][number]) => void;
}) {
  const [all, setAll] = useState(false);
  const factName = useFactNames();
  if (!promised) return <p className="text-ink3 pt-3">Looking for angles and titles…</p>;
  const titles = all ? promised.titles : promised.titles.slice(0, 4);
  return (
    <>
      <div className="columnhead border-b border-hair mt-5 flex">
        <span className="flex-1">angles; take one and its facts are told before others</span>
        <button className="quietpress" onClick={() => onPage(page ? 0 : 1)}>
          {page ? 'The first five' : 'Five others'}
        </button>
      </div>
      {promised.angles.map((a) => (
        <button
          key={a.id}
          className={`block w-full text-left py-1.5 border-b cursor-pointer ${chosen === a.id ? 'bg-lit border-y border-ink' : 'border-hair hover:bg-lit'}`}
          aria-pressed={chosen === a.id}
          onClick={() => onAngle(chosen === a.id ? null : a)}
        >
          <span className="flex gap-3 items-baseline">
            <span className="font-serif text-[15.5px] flex-1">{a.says}</span>
            <span className="text-[12px] text-ink3">{a.facts.length} facts</span>
            <span className="clock text-ink2">{clockText(a.ms, false)}</span>
          </span>
          {chosen === a.id && (
            <span className="block text-[12.5px] text-ink2 pt-1">
              lesser known: {a.lesserKnown.text}
              {a.secondPart && (
                <span className="block">
                  a second part: {a.secondPart.says}, {clockText(a.secondPart.ms, false)}
                </span>
              )}
            </span>
          )}
        </button>
      ))}
      {promised.angles.length === 0 && (
        <p className="text-ink3 m-0 py-1">No further angle: the facts are used up.</p>
      )}
      <div className="columnhead border-b border-hair mt-4 flex">
        <span className="flex-1">titles the sources can pay for</span>
        {promised.titles.length > 4 && (
          <button className="quietpress" onClick={() => setAll(!all)}>
            {all ? 'Fewer' : `All ${promised.titles.length}`}
          </button>
        )}
      </div>
      {titles.map((t) => (
        <button
          key={t.text}
          className={`block w-full text-left py-1.5 border-b border-hair cursor-pointer hover:bg-lit ${title === t.text ? 'bg-lit' : ''}`}
          aria-pressed={title === t.text}
          onClick={() => onTitle(t)}
        >
          <span className="flex gap-3 items-baseline">
            <span className="font-serif text-[15.5px] flex-1">{t.text}</span>
            {t.recommended && <span className="text-[12px] text-ink3">first choice</span>}
            <span className="clock text-ink3">{t.letters}</span>
          </span>
          <span className="block text-[12px] text-ink3">
            {factName(t.pays)}: {t.reasons.join('; ')}
            {t.mustNot.length > 0 && ` · must not claim ${t.mustNot.join(', ')}`}
          </span>
        </button>
      ))}
    </>
  );
}
