/** One script on the desk: the strip above, its places below. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { NavLink, Navigate, Route, Routes, useLocation, useNavigate, useParams } from 'react-router';
import { resized } from '@ursprung/core/desk';
import { overMs } from '@ursprung/core/script';
import { api, type ScriptView } from '../api.ts';
import { HandoffPlace } from '../handoff/HandoffPlace.tsx';
import { CommissionPlace } from '../commission/CommissionPlace.tsx';
import { PagePlace } from '../page/PagePlace.tsx';
import { ScenesPlace } from '../scenes/ScenesPlace.tsx';
import { Missing } from '../shell/Missing.tsx';
import { Rail } from '../shell/Rail.tsx';
import { useActions } from '../shell/commands.tsx';
import { applyTheme } from '../shell/theme.ts';
import { SourcesPlace } from '../sources/SourcesPlace.tsx';
import { ReadThrough } from '../read/ReadThrough.tsx';
import { RundownPlace } from '../rundown/RundownPlace.tsx';
import { RunStrip } from '../strip/RunStrip.tsx';
import { FactNames, factNamesOf } from '../text/factNames.ts';
import { Kept } from './Kept.tsx';
import { goTo } from './goTo.ts';
import { LengthDialog } from './LengthDialog.tsx';
import { ScriptSession, type Snapshot } from './session.ts';
import { useSnapshot } from './useSnapshot.ts';

export function ScriptDesk() {
  const { id } = useParams();
  const script = useQuery({
    queryKey: ['script', id],
    queryFn: () => api.script(id!),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  if (script.isError) return <Missing what={script.error.message} />;
  if (!script.data) return <div className="h-full bg-sheet" aria-busy="true" />;
  return <Desk key={script.data.id} script={script.data} />;
}

/** The open session, or why it is not open yet: nothing can be written before what was kept here stands in the script. */
function useSession(script: ScriptView): { session: ScriptSession | null; wait: string | null } {
  const [session, setSession] = useState<ScriptSession | null>(null);
  const [wait, setWait] = useState<string | null>(null);
  useEffect(() => {
    const ending = new AbortController();
    let made: ScriptSession | null = null;
    ScriptSession.open(script, (why) => ending.signal.aborted || setWait(why), ending.signal).then(
      (opened) => {
        made = opened;
        if (ending.signal.aborted) opened?.close();
        else setSession(opened);
      },
      (error: Error) => setWait(error.message),
    );
    return () => {
      ending.abort();
      made?.close();
      setSession(null);
    };
  }, [script]);
  return { session, wait };
}

function Desk({ script }: { script: ScriptView }) {
  const { session, wait } = useSession(script);
  if (session) return <Open session={session} script={script} />;
  return (
    <div className="h-full bg-sheet" aria-busy="true">
      {wait && (
        <p className="p-6" role="status">
          <span className="finding">What you wrote last is being brought back.</span> {wait} It is tried again
          by itself.
        </p>
      )}
    </div>
  );
}

const SAVED: Record<Snapshot['save'], string> = {
  saved: 'Saved',
  saving: 'Saving…',
  'kept-here': 'Kept here',
  refused: 'Not saved',
};
const PLACES = [
  ['sources', 'Sources'],
  ['rundown', 'Rundown'],
  ['page', 'Page'],
  ['scenes', 'Scenes'],
  ['read', 'Read-through'],
] as const;

function Open({ session, script }: { session: ScriptSession; script: ScriptView }) {
  const settings = useSnapshot(session, (s) => s.settings);
  const save = useSnapshot(session, (s) => s.save);
  const message = useSnapshot(session, (s) => s.message);
  const names = useSnapshot(session, (s) => JSON.stringify(s.sections.map((x) => [x.id, x.title])));
  const sources = useSnapshot(session, (s) => s.sources);
  const factNames = useMemo(() => factNamesOf(sources), [sources]);
  const navigate = useNavigate();
  const location = useLocation();
  const client = useQueryClient();
  const [lengthening, setLengthening] = useState(false);
  const [notes, setNotes] = useState<readonly string[]>(
    (location.state as { notes?: string[] } | null)?.notes ?? [],
  );
  const base = `/script/${script.id}`;

  useEffect(() => void (document.title = `${settings.title} · Ursprung`), [settings.title]);
  // The library shows what was just written.
  useEffect(() => () => void client.invalidateQueries({ queryKey: ['library'] }), [client]);

  const goToSection = useCallback(
    (sectionId: string) => {
      goTo(session, sectionId);
      void navigate(`${base}/page`);
      requestAnimationFrame(() => session.view?.focus());
    },
    [session, navigate, base],
  );

  /** The order for the section of the caret. */
  const commission = useCallback(() => {
    const { sections, line } = session.snapshot;
    const here = sections.find((s) => s.lines.some((l) => l.id === line));
    void navigate(`${base}/commission${here ? `?section=${encodeURIComponent(here.id)}` : ''}`);
  }, [session, navigate, base]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey) return;
      // Fields and the Page's editor take back their own typing; anywhere else the last step of the script is taken back.
      const typed = e.target instanceof HTMLElement && (e.target.isContentEditable || e.target.closest('[role=dialog]') || /^(?:INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName)); // prettier-ignore
      if (/^[zy]$/i.test(e.key) && !typed && !e.defaultPrevented) {
        e.preventDefault();
        void (e.key === 'z' ? session.undo() : session.redo());
        return;
      }
      if (!e.shiftKey) return;
      if (e.code === 'Quote') commission();
      else if (e.code === 'Comma') void navigate(`${base}/handoff`);
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [session, commission, navigate, base]);

  const actions = useMemo(
    () => [
      ...PLACES.map(([path, name]) => ({
        id: `go-${path}`,
        name: `Go to ${name}`,
        run: () => navigate(`${base}/${path}`),
      })),
      {
        id: 'commission',
        name: 'Commission: order this section from a writer',
        keys: "Ctrl Shift '",
        run: commission,
      },
      {
        id: 'handoff',
        name: 'Handoff: files for the next people',
        keys: 'Ctrl Shift ,',
        run: () => navigate(`${base}/handoff`),
      },
      { id: 'speak', name: 'The page to speak from', run: () => navigate(`${base}/voice`) },
      { id: 'length', name: 'Change length and pace', run: () => setLengthening(true) },
      { id: 'undo', name: 'Undo', keys: 'Ctrl Z', run: () => void session.undo() },
      { id: 'redo', name: 'Redo', keys: 'Ctrl Y', run: () => void session.redo() },
      { id: 'library', name: 'Go to the library', run: () => navigate('/') },
      { id: 'begin', name: 'Begin a script', run: () => navigate('/begin') },
      {
        id: 'theme',
        name: 'Change between light and dark',
        run: () => applyTheme(document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark'),
      },
      ...(JSON.parse(names) as [string, string][]).map(([sectionId, title]) => ({
        id: `section-${sectionId}`,
        name: `Go to section ${title}`,
        run: () => goToSection(sectionId),
      })),
    ],
    [session, navigate, base, names, goToSection, commission],
  );
  useActions('script', actions);

  return (
    <div className="screen">
      <a className="skip" href="#place">
        Skip to the script
      </a>
      <Rail channel={script.channelName} />
      <div className="flex-1 min-w-0 flex flex-col">
        <header className="deskhead">
          <Title
            key={settings.title}
            title={settings.title}
            onChange={(title) => void session.change({ title })}
          />
          <nav className="places" aria-label="Places">
            {PLACES.map(([path, name]) => (
              <NavLink
                key={path}
                to={`${base}/${path}`}
                className={({ isActive }) =>
                  `h-11 flex items-center border-b-[3px] ${isActive || (path === 'page' && location.pathname.endsWith('/commission')) ? 'border-ink font-bold text-ink' : 'border-transparent font-medium text-ink2'}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          <span
            className={`w-[84px] max-sm:w-auto text-right ${save === 'refused' ? 'finding' : 'text-ink3'}`}
            data-testid="save"
            role="status"
          >
            {SAVED[save]}
          </span>
          <NavLink
            className={({ isActive }) =>
              `press ${isActive ? 'outline outline-2 outline-offset-2 outline-ink' : ''}`
            }
            to={`${base}/handoff`}
          >
            Handoff
          </NavLink>
        </header>
        <Strip session={session} onGo={goToSection} />
        <Kept session={session} />
        {(message || notes.length > 0) && (
          <div className="px-6 py-2 bg-lit border-b border-hair flex gap-4" role="status">
            <span className="flex-1">
              {message ? <span className="finding">{message}</span> : notes.join(' ')}
            </span>
            {!message && (
              <button className="quietpress" onClick={() => setNotes([])}>
                Good
              </button>
            )}
          </div>
        )}
        <div id="place" className="flex-1 min-h-0 flex flex-col">
          <FactNames value={factNames}>
            <Routes>
              <Route path="sources" element={<SourcesPlace session={session} />} />
              <Route path="rundown" element={<RundownPlace session={session} onGo={goToSection} />} />
              <Route path="page" element={<PagePlace session={session} />} />
              <Route path="commission" element={<CommissionPlace session={session} />} />
              <Route path="scenes" element={<ScenesPlace session={session} />} />
              <Route path="handoff" element={<HandoffPlace session={session} />} />
              <Route path="read" element={<ReadThrough session={session} />} />
              <Route path="*" element={<Navigate to={`${base}/page`} replace />} />
            </Routes>
          </FactNames>
        </div>
      </div>
      <LengthDialog
        open={lengthening}
        onClose={() => setLengthening(false)}
        session={session}
        settings={settings}
      />
    </div>
  );
}

function Strip({ session, onGo }: { session: ScriptSession; onGo: (sectionId: string) => void }) {
  const { sections, times, traces, line, totalMs, words, scenes, settings, loops, novelty } = useSnapshot(
    session,
    (s) => s,
  );
  const { target } = settings;
  const claiming = sections.flatMap((s) => s.lines).filter((l) => l.text.trim());
  const close =
    session.sources.length && traces.size
      ? { lines: claiming.filter((l) => traces.get(l.id)?.close).length, of: claiming.length }
      : null;
  return (
    <RunStrip
      sections={sections.map((s) => ({
        id: s.id,
        title: s.title,
        role: s.role,
        locked: s.locked,
        plannedMs: s.plannedMs,
        ms: s.lines.reduce((sum, l) => sum + (times?.get(l.id)?.ms ?? 0), 0),
      }))}
      totalMs={totalMs}
      target={target}
      cuts={scenes.slice(1).map((s) => s.startMs)}
      readingMs={line ? (times?.get(line)?.startMs ?? null) : null}
      currentSection={sections.find((s) => s.lines.some((l) => l.id === line))?.id ?? null}
      words={words}
      scenes={scenes.length}
      overMs={times ? overMs(target, totalMs) : 0}
      onGo={onGo}
      close={close}
      loops={loops.map((l) => ({
        from: times?.get(l.from)?.startMs ?? 0,
        to: l.to === null ? null : (times?.get(l.to)?.startMs ?? 0),
        asks: l.asks,
      }))}
      novelty={novelty}
      onEdge={(id, byMs) => {
        const section = session.snapshot.sections.find((s) => s.id === id);
        if (!section) return;
        const heard = section.lines.reduce((n, l) => n + session.msOf(l.id), 0);
        session.take(
          resized(
            session.snapshot.sections,
            id,
            (section.plannedMs || heard) + byMs,
            session.msOf,
            target.seconds * 1000,
          ),
        );
      }}
    />
  );
}

function Title({ title, onChange }: { title: string; onChange: (title: string) => void }) {
  const [text, setText] = useState(title);
  return (
    <h1 className="flex-1 min-w-0">
      <input
        className="field w-full border-transparent font-serif text-[18px] font-medium truncate"
        value={text}
        aria-label="Title"
        maxLength={200}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => (text.trim() && text.trim() !== title ? onChange(text.trim()) : setText(title))}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
    </h1>
  );
}
