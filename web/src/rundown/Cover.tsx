/** What the writer wants covered: when each point is told, that a fact has it and no line tells it, or that no source does. */
import { useMemo, useState } from 'react';
import { useMutation } from '@tanstack/react-query';
import { briefSchema, coverOf, pointFinder } from '@ursprung/core/desk';
import { api } from '../api.ts';
import { CoverField } from '../brief/fields.tsx';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';
import { namesOf, useFactNames } from '../text/factNames.ts';

export function Cover({ session, onGo }: { session: ScriptSession; onGo: (sectionId: string) => void }) {
  const factName = useFactNames();
  const settings = useSnapshot(session, (s) => s.settings);
  const sections = useSnapshot(session, (s) => s.sections);
  const times = useSnapshot(session, (s) => s.times);
  const sources = useSnapshot(session, (s) => s.sources);
  const [open, setOpen] = useState(false);
  const brief = useMemo(
    () => briefSchema.parse({ ...(settings.brief ?? {}), mood: settings.mood }),
    [settings.brief, settings.mood],
  );
  const find = useMemo(
    () => pointFinder(sources.map((s) => ({ letter: s.letter, source: s.document, facts: s.facts }))),
    [sources],
  );
  const rows = useMemo(
    () =>
      coverOf(
        brief.cover,
        sections.flatMap((s) => s.lines),
        find,
      ),
    [brief.cover, sections, find],
  );
  const tick = useMutation({
    mutationFn: ({ source, fact }: { source: string; fact: string }) =>
      api.changeSource(sources.find((s) => s.letter === source)!.id, { marks: { [fact]: { mark: 'must' } } }),
    onSuccess: (next) => session.sourceChanged(next),
  });
  const left = rows.filter((r) => r.told === null).length;
  return (
    <section aria-label="To cover" className="border-b border-hair py-2">
      <div className="flex items-baseline gap-4">
        <span className="columnhead w-[92px]">to cover</span>
        <span className="flex-1">
          {rows.length === 0 ? (
            <span className="text-ink3">No points or keywords listed.</span>
          ) : left ? (
            <span className="finding">
              {left} of {rows.length} not told
            </span>
          ) : (
            `${rows.length === 1 ? 'the point is' : `all ${rows.length} points are`} told`
          )}
        </span>
        <button className="textpress" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : rows.length ? 'Change the points' : 'List points'}
        </button>
      </div>
      {open && (
        <div className="pl-[108px] pt-2">
          <CoverField
            value={brief.cover}
            onChange={(cover) => void session.change({ brief: { ...brief, cover } })}
          />
        </div>
      )}
      <ul className="m-0 p-0 pl-[108px] list-none">
        {rows.map(({ point, told, facts }) => {
          const at = told === null ? undefined : times?.get(told)?.startMs;
          const [best] = facts;
          const must =
            best && sources.find((s) => s.letter === best.source)?.marks[best.fact]?.mark === 'must';
          return (
            <li key={point} className="flex gap-4 items-baseline py-1 border-t border-hair first:border-0">
              <span className="font-serif text-[15.5px] flex-1 min-w-0">
                {point}
                {told === null && best && (
                  <span className="block truncate text-ink3 text-[14px]">{best.quote}</span>
                )}
              </span>
              {told !== null ? (
                <button
                  className="quietpress"
                  onClick={() => onGo(sections.find((s) => s.lines.some((l) => l.id === told))!.id)}
                >
                  told {at === undefined ? '' : `at ${clockText(at, false)}`}
                </button>
              ) : best ? (
                <>
                  <span className="text-copper">
                    not told; in {namesOf(factName, facts).slice(0, 3).join(', ')}
                  </span>
                  {must ? (
                    <span className="text-ink2">ticked: told with the next take</span>
                  ) : (
                    <button
                      className="textpress"
                      disabled={tick.isPending}
                      onClick={() => tick.mutate(best)}
                      aria-label={`Tick its fact: ${point}`}
                    >
                      Tick its fact
                    </button>
                  )}
                </>
              ) : (
                <span className="finding">no source says it</span>
              )}
            </li>
          );
        })}
      </ul>
      {tick.isError && (
        <p role="alert" className="m-0 pl-[108px]">
          <span className="finding">Not ticked.</span> {tick.error.message}
        </p>
      )}
    </section>
  );
}
