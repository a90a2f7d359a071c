/** The Rundown: promise, sections with their seconds, hooks; beside them shape and brief. */
import { useCallback, useMemo, useState } from 'react';
import { openingCheck } from '@ursprung/core/desk';
import { useNavigate } from 'react-router';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { useActions } from '../shell/commands.tsx';
import { Foot } from '../shell/Foot.tsx';
import { clockText } from '../text/clockText.ts';
import { Hooks, Opens } from './Hooks.tsx';
import { Cover } from './Cover.tsx';
import { Spine } from './Spine.tsx';
import { PromiseRows } from './Promise.tsx';
import { Sections } from './Sections.tsx';
import { Side } from './Side.tsx';
import { usePromised, useRundown } from './useRundown.ts';

export function RundownPlace({
  session,
  onGo,
}: {
  session: ScriptSession;
  onGo: (sectionId: string) => void;
}) {
  const sections = useSnapshot(session, (s) => s.sections);
  const loops = useSnapshot(session, (s) => s.loops);
  const novelty = useSnapshot(session, (s) => s.novelty);
  const target = useSnapshot(session, (s) => s.settings.target);
  const times = useSnapshot(session, (s) => s.times);
  const title = useSnapshot(session, (s) => s.settings.title);
  const pays = useSnapshot(session, (s) => s.settings.promise?.pays);
  const check = useMemo(
    () =>
      openingCheck(
        title,
        sections
          .flatMap((s) => s.lines)
          .filter((l) => l.text.trim())
          .map((l) => ({ text: l.text, startMs: times?.get(l.id)?.startMs ?? 0, from: l.from })),
        pays,
      ),
    [sections, times, title, pays],
  );
  const [seed, setSeed] = useState(1);
  const promised = usePromised(session, { seed });
  const rundown = useRundown(session);
  const [chosen, setChosen] = useState<string | null>(null);
  const navigate = useNavigate();
  const { redo } = rundown;
  const actions = useMemo(
    () => [
      { id: 'fit', name: 'Fit every section to its plan', run: () => redo({ what: 'fit' }) },
      { id: 'hook', name: 'Another hook', run: () => redo({ what: 'hook' }) },
      ...(chosen
        ? [
            {
              id: 'take',
              name: 'Another take of the chosen section',
              run: () => redo({ what: 'section', section: chosen }),
            },
          ]
        : []),
      { id: 'page', name: 'Go to the Page', run: () => navigate(`/script/${session.script.id}/page`) },
    ],
    [redo, chosen, navigate, session],
  );
  useActions('rundown', actions);
  const open = useCallback((id: string) => onGo(id), [onGo]);
  const slack = novelty.filter((n) => n.slack);
  const unsettled = loops.filter((l) => l.to === null);
  return (
    <>
      <main className="stacks flex-1 min-h-0 grid grid-cols-[minmax(0,1fr)_clamp(260px,25vw,420px)]">
        <div className="overflow-auto px-6 pb-10">
          <PromiseRows session={session} promised={promised} onMore={() => setSeed((s) => s + 1)} />
          <Cover session={session} onGo={open} />
          {(rundown.refused || rundown.notes.length > 0) && (
            <div role="status" className="py-2 flex gap-4 items-baseline border-b border-hair">
              <span className="flex-1">
                {rundown.refused ? (
                  <>
                    <span className="finding">Left as it was.</span> {rundown.refused}
                  </>
                ) : (
                  rundown.notes.join(' ')
                )}
              </span>
              <button className="quietpress" onClick={rundown.clear}>
                Good
              </button>
            </div>
          )}
          <Sections
            sections={sections}
            loops={loops}
            msOf={session.msOf}
            targetMs={target.seconds * 1000}
            rundown={rundown}
            chosen={chosen}
            onChoose={setChosen}
            onOpen={open}
          />
          {(slack.length > 0 || unsettled.length > 0) && (
            <p className="m-0 pt-2">
              {unsettled.length > 0 && (
                <span>
                  <span className="finding">
                    {unsettled.length === 1 ? 'One question is' : `${unsettled.length} questions are`} never
                    settled:
                  </span>{' '}
                  {unsettled.map((l) => l.asks).join('; ')}.{' '}
                </span>
              )}
              {slack.length > 0 && (
                <span>
                  <span className="finding">Slack</span> at{' '}
                  {slack.map((n) => clockText(n.startMs, false)).join(', ')}: hardly anything new. Give the
                  section less time, or another take.
                </span>
              )}
            </p>
          )}
          <Spine session={session} spine={promised?.spine ?? []} />
          <Hooks
            hooks={promised?.hooks ?? (session.sources.length ? null : [])}
            opening={sections[0]}
            rundown={rundown}
          />
          {sections.some((s) => s.lines.some((l) => l.text.trim())) && <Opens check={check} />}
        </div>
        <Side session={session} promised={promised} rundown={rundown} />
      </main>
      <Foot
        keys={[
          ['U D', 'move'],
          ['+ −', 'one second'],
          ['L', 'lock'],
          ['T', 'another take'],
          ['Enter', 'to the Page'],
        ]}
      >
        {sections.length} sections, {sections.filter((s) => s.locked).length} locked
      </Foot>
    </>
  );
}
