/** What the script promises: its title, the fact that pays, where it is told, the picture. */
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { promiseKept } from '@ursprung/core/desk';
import { api, type Promised } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';
import { useFactNames } from '../text/factNames.ts';

export function PromiseRows({
  session,
  promised,
  onMore,
}: {
  session: ScriptSession;
  promised: Promised | null;
  onMore: () => void;
}) {
  const factName = useFactNames();
  const settings = useSnapshot(session, (s) => s.settings);
  const sections = useSnapshot(session, (s) => s.sections);
  const times = useSnapshot(session, (s) => s.times);
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const [first, ...others] = session.sources;
  const check = useMutation({
    mutationFn: (title: string) =>
      api.promise({
        sourceId: first.id,
        others: others.map((o) => o.id),
        voice: settings.voice,
        pace: settings.pace,
        title,
      }),
    onSuccess: (answer, title) => {
      if (answer.check?.paid)
        void session.change({
          title,
          promise: {
            ...settings.promise,
            pays: answer.check.pays,
            sentence: settings.promise?.sentence ?? '',
          },
        });
    },
  });
  const { promise } = settings;
  const lines = sections.flatMap((s) => s.lines);
  const keeps = promise?.pays ? promiseKept(promise.pays, lines) : null;
  const at = keeps ? times?.get(keeps)?.startMs : undefined;
  return (
    <section aria-label="Promise" className="border-b border-hair py-2">
      <div className="flex items-baseline gap-4">
        <span className="columnhead w-[92px]">promise</span>
        <span className="flex-1 font-serif text-[15.5px] leading-[21px]">
          {promise?.sentence || 'No promise yet: take a title that a fact pays for.'}
        </span>
        {promise?.pays && (
          <span className={keeps ? 'text-ink2' : 'finding'} data-testid="kept">
            {keeps ? `paid at ${clockText(at ?? 0, false)}` : 'not paid: its fact is not told'}
          </span>
        )}
        <button className="textpress" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : 'Titles and pictures'}
        </button>
      </div>
      {promise?.picture && (
        <div className="pl-[108px] text-ink2">
          title picture: {promise.picture.shows}; on it <strong>“{promise.picture.words}”</strong>
        </div>
      )}
      {open && (
        <div className="pl-[108px] pt-2">
          {!promised && (
            <p className="text-ink3">
              {first
                ? 'Reading what the sources could promise…'
                : 'Without a source nothing can be promised.'}
            </p>
          )}
          <ol className="m-0 p-0 list-none">
            {promised?.titles.map((t) => (
              <li
                key={t.text}
                className="grid grid-cols-[14px_minmax(0,1fr)_34px_64px] gap-x-2 py-1 border-b border-hair items-baseline"
              >
                <span aria-hidden="true">{settings.title === t.text ? '●' : ''}</span>
                <span>
                  <span className="font-serif text-[16px]">{t.text}</span>
                  {t.recommended && <span className="text-ink3"> · first choice</span>}
                  <span className="block text-[12px] text-ink3">
                    {factName(t.pays)}: {t.reasons.join('; ')}
                    {t.mustNot.length > 0 && (
                      <span className="text-copper"> · must not claim {t.mustNot.join(', ')}</span>
                    )}
                  </span>
                </span>
                <span className={`clock ${t.letters > 42 ? 'text-copper' : 'text-ink3'}`}>{t.letters}</span>
                <button
                  className="textpress"
                  onClick={() => {
                    const picture =
                      promised.pictures.find(
                        (p) => p.pays.fact === t.pays.fact && p.pays.source === t.pays.source,
                      ) ?? promised.pictures[0];
                    void session.change({
                      title: t.text,
                      promise: {
                        pays: t.pays,
                        sentence: t.recommended ? promised.sentence : `The script pays for “${t.text}”.`,
                        ...(picture ? { picture: { shows: picture.shows, words: picture.words } } : {}),
                      },
                    });
                  }}
                >
                  {settings.title === t.text ? 'in use' : 'Use'}
                </button>
              </li>
            ))}
          </ol>
          {promised && (
            <form
              className="flex gap-3 items-baseline pt-2"
              onSubmit={(e) => {
                e.preventDefault();
                if (typed.trim()) check.mutate(typed.trim());
              }}
            >
              <input
                className="field flex-1"
                aria-label="A title of your own"
                placeholder="or a title of your own"
                value={typed}
                maxLength={200}
                onChange={(e) => setTyped(e.target.value)}
              />
              <button className="textpress">Can it be paid?</button>
              <button type="button" className="quietpress" onClick={onMore}>
                Ten others
              </button>
            </form>
          )}
          {check.data?.check && (
            <p role="status" className="m-0 pt-1">
              {check.data.check.paid ? (
                <>
                  Paid for by {factName(check.data.check.pays)}; it is the title now.
                  {check.data.check.mustNot.length > 0 &&
                    ` It must not claim ${check.data.check.mustNot.join(', ')}.`}
                </>
              ) : (
                <>
                  <span className="finding">The sources can’t pay for it.</span> {check.data.check.why}
                </>
              )}
            </p>
          )}
          <div className="columnhead pt-2">title pictures</div>
          {promised?.pictures.map((p) => (
            <div key={`${p.shows}${p.words}`} className="flex gap-3 items-baseline py-0.5">
              <span className="flex-1">
                {p.shows}; on it <strong>“{p.words}”</strong>
              </span>
              <button
                className="textpress"
                onClick={() =>
                  void session.change({
                    promise: {
                      ...promise,
                      sentence: promise?.sentence ?? '',
                      picture: { shows: p.shows, words: p.words },
                    },
                  })
                }
              >
                Use
              </button>
            </div>
          ))}
        </div>
      )}
    </section>
  );
}
