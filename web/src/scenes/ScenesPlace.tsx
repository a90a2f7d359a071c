/** Scenes: the film at a glance, how long each picture stays, and for the chosen one what to look for, make and hear. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { LONG_SCENE_MS, type Scene } from '@ursprung/core/scenes/desk';
import { toleranceMs } from '@ursprung/core/script';
import { goTo } from '../script/goTo.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { useActions } from '../shell/commands.tsx';
import { Foot } from '../shell/Foot.tsx';
import { CastDialog } from './CastDialog.tsx';
import { ContactSheet } from './ContactSheet.tsx';
import { PaceBand } from './PaceBand.tsx';
import { PictureCount } from './PictureCount.tsx';
import { FrameDefs } from './SceneFrame.tsx';
import { ScenePanel, WHY } from './ScenePanel.tsx';
import {
  addSilent,
  asComputed,
  breakAt,
  joinBefore,
  moveCut,
  sayOfScene,
  silentSeconds,
  splitPlace,
  toggleHeld,
} from './commands.ts';
import { useFilm } from './useFilm.ts';

const PANEL = 324;
type Only = 'all' | 'traps' | 'repeats' | 'long' | 'silent';

export function ScenesPlace({ session }: { session: ScriptSession }) {
  const { scenes, sections, settings, totalMs, line } = useSnapshot(session, (s) => s);
  const { film, pictures, waiting, error } = useFilm(session);
  const navigate = useNavigate();
  const [asked, setAsked] = useState<{ id: string; line: string; from: number } | null>(null);
  const [casting, setCasting] = useState<{ first: string | null } | null>(null);
  const [only, setOnly] = useState<Only>('all');
  const box = useRef<HTMLElement>(null);
  const width = useWidth(box);
  const long = LONG_SCENE_MS[settings.frame];
  // A scene that is given a mark gets the mark's id: it is still where it was.
  const chosen =
    scenes.find((s) => s.id === asked?.id) ??
    scenes.find((s) => s.parts[0].line === asked?.line && s.parts[0].from === asked.from) ??
    // Taken in by the one before it: the words that were looked at are there.
    scenes.find((s) =>
      s.parts.some((p) => p.line === asked?.line && p.from <= asked.from && asked.from < p.to),
    ) ??
    scenes.find((s) => s.parts.some((p) => p.line === line)) ??
    scenes[0];
  const setChosen = useCallback(
    (id: string) => {
      const scene = session.snapshot.scenes.find((s) => s.id === id);
      if (scene) setAsked({ id, line: scene.parts[0].line, from: scene.parts[0].from });
    },
    [session],
  );
  const numbers = useMemo(() => new Map(scenes.map((s, i) => [s.id, i + 1])), [scenes]);
  const numberOf = useCallback((id: string) => numbers.get(id) ?? 0, [numbers]);
  const textOf = useCallback(
    (id: string) => session.snapshot.sections.flatMap((s) => s.lines).find((l) => l.id === id)?.text ?? '',
    [session],
  );
  const counts = {
    traps: scenes.filter((s) => pictures.get(s.id)?.traps.length).length,
    repeats: scenes.filter((s) => pictures.get(s.id)?.repeat).length,
    long: scenes.filter((s) => s.endMs - s.startMs > long).length,
    silent: scenes.filter((s) => s.silent).length,
  };
  const shown =
    only === 'all'
      ? scenes
      : scenes.filter((s) =>
          only === 'traps'
            ? pictures.get(s.id)?.traps.length
            : only === 'repeats'
              ? pictures.get(s.id)?.repeat
              : only === 'long'
                ? s.endMs - s.startMs > long
                : s.silent,
        );

  const step = useCallback(
    (by: number) => {
      const at = scenes.findIndex((s) => s.id === chosen?.id);
      const next = scenes[Math.max(0, Math.min(scenes.length - 1, at + by))];
      if (!next) return;
      setChosen(next.id);
      requestAnimationFrame(() =>
        box.current?.querySelector<HTMLElement>(`[data-scene="${CSS.escape(next.id)}"]`)?.focus(),
      );
    },
    [scenes, chosen, setChosen],
  );
  const acts = useMemo(() => {
    const on = (run: (scene: Scene) => void) => () => chosen && run(chosen);
    return {
      split: on((s) => {
        const place = splitPlace(s, textOf);
        if (place) session.run(breakAt(place.line, place.at));
      }),
      join: on((s) => {
        // It goes with the one before it, which is then the one that is looked at.
        const before = scenes[scenes.findIndex((x) => x.id === s.id) - 1];
        if (session.run(joinBefore(s)) && before) setAsked({ id: before.id, line: before.parts[0].line, from: before.parts[0].from }); // prettier-ignore
      }),
      hold: on((s) => void session.run(toggleHeld(s))),
      earlier: on((s) => void session.run(moveCut(s, -1))),
      later: on((s) => void session.run(moveCut(s, 1))),
      silent: on((s) => void session.run(addSilent(s))),
      computed: on((s) => void session.run(asComputed(s))),
      other: on((s) => {
        const repeat = pictures.get(s.id)?.repeat;
        const search = pictures.get(s.id)?.search.map((w) => w.text) ?? [];
        // Another picture: the one that is proposed, or the next search word first.
        const next = repeat
          ? [repeat.instead, ...search]
          : search.length > 1
            ? [...search.slice(1), search[0]]
            : null;
        if (next) session.run(sayOfScene(s, { search: next.slice(0, 12) }));
      }),
      page: on((s) => {
        goTo(session, s.parts[0].line);
        void navigate(`/script/${session.script.id}/page`);
      }),
    };
  }, [chosen, scenes, session, textOf, pictures, navigate]);
  useActions(
    'scenes',
    useMemo(
      () => [
        { id: 'scene-split', name: 'Scene: split at a clause', keys: 'S', run: acts.split },
        { id: 'scene-join', name: 'Scene: join with the one before', keys: 'J', run: acts.join },
        { id: 'scene-earlier', name: 'Scene: cut a word earlier', keys: '[', run: acts.earlier },
        { id: 'scene-later', name: 'Scene: cut a word later', keys: ']', run: acts.later },
        { id: 'scene-hold', name: 'Scene: hold it as one picture', keys: 'L', run: acts.hold },
        { id: 'scene-silent', name: 'Scene: add one without words behind it', keys: 'N', run: acts.silent },
        { id: 'scene-other', name: 'Scene: another picture', keys: 'P', run: acts.other },
        { id: 'scene-computed', name: 'Scene: break as computed', run: acts.computed },
        { id: 'cast', name: 'Cast and places', keys: 'K', run: () => setCasting({ first: null }) },
      ],
      [acts],
    ),
  );
  const onKey = (e: React.KeyboardEvent) => {
    if (
      e.ctrlKey ||
      e.metaKey ||
      e.altKey ||
      /^(?:INPUT|TEXTAREA|SELECT)$/.test((e.target as HTMLElement).tagName)
    )
      return;
    const run: Record<string, () => void> = {
      s: acts.split,
      j: acts.join,
      l: acts.hold,
      n: acts.silent,
      p: acts.other,
      '[': acts.earlier,
      ']': acts.later,
      k: () => setCasting({ first: null }),
      ArrowRight: () => step(1),
      ArrowDown: () => step(1),
      ArrowLeft: () => step(-1),
      ArrowUp: () => step(-1),
      Enter: acts.page,
      Home: () => step(-scenes.length),
      End: () => step(scenes.length),
    };
    const act = run[e.key.length === 1 ? e.key.toLowerCase() : e.key];
    if (!act) return;
    e.preventDefault();
    act();
  };
  const wholeMs =
    Math.max(totalMs, settings.target.seconds * 1000 + toleranceMs(settings.target.seconds), 15_000) * 1.03;

  return (
    <>
      <FrameDefs />
      {scenes.length > 0 && (
        <PaceBand
          scenes={scenes}
          wholeMs={wholeMs}
          totalMs={totalMs}
          longMs={long}
          handles={settings.paceCurve ?? []}
          onHandles={(h) => void session.change({ paceCurve: h ?? [] })}
        />
      )}
      <div className="stacks flex-1 min-h-0 flex">
        <main
          ref={box}
          className="flex-1 min-w-0 overflow-auto px-6 pb-16"
          aria-label="Scenes"
          onKeyDown={onKey}
        >
          {!scenes.length && (
            <p className="p-10 font-serif text-[20px] text-ink2">
              There are no words to break into scenes yet.
            </p>
          )}
          {scenes.length > 0 && (
            <div className="columnhead !px-0 flex flex-wrap gap-x-4 min-h-8 items-center">
              <span className="grow basis-60">
                scenes 1 to {scenes.length}; a second is as long in every row
                {waiting ? ', pictures are being worked out' : ''}
              </span>
              <PictureCount
                count={scenes.length}
                totalMs={totalMs}
                onCount={(n) => void session.askPictures(n)}
              />
              {error && <span className="finding">{error}</span>}
              {(['traps', 'repeats', 'long', 'silent'] as const).map((k) =>
                counts[k] ? (
                  <button
                    key={k}
                    className={`${k === 'silent' ? '' : 'finding'} underline underline-offset-4 cursor-pointer ${only === k ? 'font-bold' : ''}`}
                    aria-pressed={only === k}
                    onClick={() => setOnly(only === k ? 'all' : k)}
                  >
                    {counts[k]} {counts[k] === 1 ? k.replace(/s$/, '') : k}
                  </button>
                ) : null,
              )}
              <button className="textpress" onClick={() => setCasting({ first: null })}>
                Cast and places
              </button>
            </div>
          )}
          <ContactSheet
            scenes={shown}
            pictures={pictures}
            sections={sections}
            ratio={settings.frame}
            width={width}
            longMs={long}
            chosen={chosen?.id ?? null}
            numberOf={numberOf}
            onChoose={setChosen}
            onMove={(scene, byMs) =>
              session.run(moveCut(scene, Math.round((byMs * settings.pace) / 60_000) || Math.sign(byMs)))
            }
          />
        </main>
        {chosen && (
          <ScenePanel
            key={`${chosen.parts[0].line} ${chosen.parts[0].from}`}
            scene={chosen}
            number={numberOf(chosen.id)}
            picture={pictures.get(chosen.id)}
            cast={film?.cast ?? []}
            ratio={settings.frame}
            numberOf={numberOf}
            onSay={(change) => session.run(sayOfScene(chosen, change))}
            onCast={(first) => setCasting({ first })}
            onSilent={(ms) => session.run(silentSeconds(chosen, ms))}
          />
        )}
      </div>
      {casting && (
        <CastDialog
          cast={film?.cast ?? []}
          session={session}
          first={casting.first}
          onClose={() => setCasting(null)}
        />
      )}
      <Foot
        keys={[
          ['S', 'split'],
          ['J', 'join'],
          ['[ ]', 'move the cut'],
          ['L', 'hold'],
          ['P', 'another picture'],
          ['N', 'silent scene'],
        ]}
      >
        {chosen ? (
          <>
            <strong>Scene {numberOf(chosen.id)}</strong> begins for {WHY[chosen.why]};{' '}
            {((chosen.endMs - chosen.startMs) / 1000).toFixed(1)} s, wanted{' '}
            {(chosen.wantedMs / 1000).toFixed(1)}
          </>
        ) : (
          'no scenes'
        )}
      </Foot>
    </>
  );
}

/** The width of the sheet, followed as the window changes; the panel beside it is not part of it. */
function useWidth(box: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(window.innerWidth - PANEL - 80);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry.contentRect.width));
    observer.observe(element);
    return () => observer.disconnect();
  }, [box]);
  return width;
}
