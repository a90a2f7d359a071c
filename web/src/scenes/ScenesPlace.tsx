/** Scenes: where the picture changes, how long each holds, and why it breaks there. */
import { useNavigate } from 'react-router';
import { goTo } from '../script/goTo.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { clockText } from '../text/clockText.ts';

const WHY: Record<string, string> = {
  section: 'a new section',
  sentence: 'a new sentence',
  clause: 'too long for one picture, cut at a clause',
  rest: 'a rest',
};
const PX_PER_SECOND = 16;
/** A picture held longer than this tires (common practice, no published source), by frame. */
const LONG_MS: Record<string, number> = { '16:9': 12_000, '9:16': 5000, '1:1': 8000 };

export function ScenesPlace({ session }: { session: ScriptSession }) {
  const snapshot = useSnapshot(session, (s) => s);
  const navigate = useNavigate();
  const { scenes, sections } = snapshot;
  const long = LONG_MS[snapshot.settings.frame];
  const longScenes = scenes.filter((s) => s.endMs - s.startMs > long).length;
  const numbered = scenes.map((scene, i) => ({ scene, number: i + 1 }));
  return (
    <>
      <div className="columnhead grid grid-cols-[44px_64px_56px_220px_1fr_52px_260px] gap-3 px-6 border-b border-hair">
        <span>scene</span>
        <span className="text-right">from</span>
        <span className="text-right">seconds</span>
        <span>length</span>
        <span>what is heard</span>
        <span className="text-right">words</span>
        <span>breaks there for</span>
      </div>
      <main className="flex-1 overflow-auto pb-16" tabIndex={0} aria-label="Scenes">
        {!scenes.length && (
          <p className="p-10 font-serif text-[20px] text-ink2">
            There are no words to break into scenes yet.
          </p>
        )}
        {sections.map((section) => {
          const own = numbered.filter(({ scene }) => scene.section === section.id);
          if (!own.length) return null;
          return (
            <section key={section.id} aria-label={section.title}>
              <h2 className="px-6 pt-4 pb-1 border-b border-ink font-semibold">
                <span className="font-normal text-ink2">{section.role}</span> {section.title}
              </h2>
              {own.map(({ scene, number }) => {
                const ms = scene.endMs - scene.startMs;
                return (
                  <div
                    key={scene.id}
                    className="grid grid-cols-[44px_64px_56px_220px_1fr_52px_260px] gap-3 px-6 py-1 border-b border-hair items-baseline hover:bg-lit"
                    data-testid="scene"
                  >
                    <strong className="clock">{number}</strong>
                    <button
                      className="clock text-right underline underline-offset-4 cursor-pointer"
                      aria-label={`${clockText(scene.startMs)}, scene ${number} on the Page`}
                      onClick={() => {
                        goTo(session, scene.parts[0].line);
                        navigate(`/script/${session.script.id}/page`);
                      }}
                    >
                      {clockText(scene.startMs)}
                    </button>
                    <span className={`clock text-right ${ms > long ? 'finding' : ''}`}>
                      {(ms / 1000).toFixed(1)}
                    </span>
                    <svg width="220" height="10" aria-hidden="true">
                      <rect
                        y="3"
                        width={Math.min(220, (ms / 1000) * PX_PER_SECOND)}
                        height="4"
                        fill={ms > long ? 'var(--copper)' : 'var(--ink2)'}
                      />
                      {Array.from({ length: Math.min(13, Math.floor(ms / 1000)) }, (_, i) => (
                        <line
                          key={i}
                          x1={(i + 1) * PX_PER_SECOND}
                          x2={(i + 1) * PX_PER_SECOND}
                          y1="0"
                          y2="10"
                          stroke="var(--sheet)"
                        />
                      ))}
                    </svg>
                    <span className="font-serif text-[15.5px] leading-[21px]">{scene.text}</span>
                    <span className="clock text-right">{scene.words}</span>
                    <span className="text-ink3">{WHY[scene.why]}</span>
                  </div>
                );
              })}
            </section>
          );
        })}
      </main>
      <Foot keys={[]}>
        {scenes.length} scenes
        {scenes.length
          ? `, ${(snapshot.totalMs / scenes.length / 1000).toFixed(1)} s on average, ${longScenes} held longer than ${long / 1000} s`
          : ''}
      </Foot>
    </>
  );
}
