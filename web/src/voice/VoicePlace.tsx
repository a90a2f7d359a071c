/** The page to speak from: one line lit, the rest around it; keys and presses large enough for a thumb. Works on a phone. */
import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, type Sheet } from '../api.ts';
import { Missing } from '../shell/Missing.tsx';
import { glyphPath } from '../strip/glyphs.tsx';
import { clockText } from '../text/clockText.ts';
import { Parts, Rest } from './Blocks.tsx';
import { joinWavs } from './wav.ts';

export function VoicePlace() {
  const { id = '' } = useParams();
  const sheet = useQuery({
    queryKey: ['sheet', id, null, 'voice'],
    queryFn: () => api.sheet(id, null),
    retry: 1,
    refetchOnWindowFocus: true,
  });
  const script = useQuery({ queryKey: ['voice-script', id], queryFn: () => api.script(id), retry: 1 });
  useEffect(() => void (sheet.data && (document.title = `${sheet.data.title} · Ursprung`)), [sheet.data]);
  if (sheet.isError) return <Missing what={sheet.error.message} />;
  if (!sheet.data || !script.data) return <div className="h-full bg-sheet" aria-busy="true" />;
  const roles = new Map<string, string>(
    ((script.data.doc as { content?: { attrs?: { id?: string; role?: string } }[] }).content ?? []).map(
      (s) => [s.attrs?.id ?? '', s.attrs?.role ?? 'ground'],
    ),
  );
  return (
    <Speaking
      id={id}
      sheet={sheet.data}
      pace={script.data.settings.pace}
      roleOf={(s) => roles.get(s) ?? 'ground'}
    />
  );
}

function Speaking({
  id,
  sheet,
  pace,
  roleOf,
}: {
  id: string;
  sheet: Sheet;
  pace: number;
  roleOf: (section: string) => string;
}) {
  const lines = useMemo(
    () =>
      sheet.blocks.flatMap((b) => b.lines.filter((l) => l.silentMs !== 0).map((l) => ({ ...l, block: b }))),
    [sheet],
  );
  const [at, setAt] = useState(0);
  const [sayings, setSayings] = useState(false);
  const { playing, error, hear, keep, stop } = useVoice(pace);
  const box = useRef<HTMLDivElement>(null);
  const current = lines[Math.min(at, lines.length - 1)];
  const go = useCallback(
    (to: number) => {
      const next = Math.max(0, Math.min(lines.length - 1, to));
      setAt(next);
      requestAnimationFrame(() =>
        box.current?.querySelector(`[data-at="${next}"]`)?.scrollIntoView({
          block: 'center',
          behavior: matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth',
        }),
      );
    },
    [lines.length],
  );
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (
        e.ctrlKey ||
        e.metaKey ||
        e.altKey ||
        /^(?:INPUT|TEXTAREA|BUTTON|A|SUMMARY)$/.test((e.target as HTMLElement).tagName)
      )
        return;
      if (e.key === ' ' || e.key === 'ArrowDown' || e.key === 'PageDown') go(at + 1);
      else if (e.key === 'ArrowUp' || e.key === 'PageUp') go(at - 1);
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [at, go]);
  if (!current) return <Missing what="There are no words to speak yet." />;
  const number = sheet.blocks.findIndex((b) => b.section === current.block.section) + 1;
  const textOf = (parts: typeof current.parts) =>
    parts
      .map((p) =>
        p.type === 'breath'
          ? ''
          : p.type === 'text'
            ? p.text
            : p.type === 'number'
              ? p.say
              : p.from === 'writer'
                ? p.say
                : p.text,
      )
      .join('');
  const textsOf = (what: What) =>
    (what === 'line'
      ? [current]
      : what === 'section'
        ? lines.filter((l) => l.block.section === current.block.section)
        : lines
    )
      .map((l) => textOf(l.parts))
      .filter(Boolean);
  return (
    <div className="h-full flex flex-col bg-sheet">
      <header className="bg-bench border-b border-mark px-4 py-3 shrink-0">
        <div className="flex justify-between items-start gap-3 max-w-[760px] mx-auto">
          <div className="min-w-0">
            <h1 className="font-semibold truncate">{current.block.title || sheet.title}</h1>
            <p className="text-ink2">
              section {number} of {sheet.blocks.length},{' '}
              <span className="clock">{clockText(current.block.ms, false)}</span>
            </p>
          </div>
          <div className="flex gap-4 shrink-0">
            <button className="voicepress" aria-expanded={sayings} onClick={() => setSayings(!sayings)}>
              {sheet.sayings.length} sayings
            </button>
            <Link className="voicepress" to={`/script/${id}/handoff?for=voice`}>
              Back
            </Link>
          </div>
        </div>
        <div className="flex mt-2 max-w-[760px] mx-auto overflow-x-auto" role="group" aria-label="Sections">
          {sheet.blocks.map((b) => (
            <button
              key={b.section}
              className={`h-7 border border-mark min-w-[24px] cursor-pointer grid place-items-center overflow-hidden ${b.section === current.block.section ? 'bg-lit border-edge' : ''}`}
              style={{ flexGrow: Math.max(1, b.ms), flexBasis: 0 }}
              aria-label={`${b.title}, ${clockText(b.ms, false)}`}
              aria-current={b.section === current.block.section}
              onClick={() => go(lines.findIndex((l) => l.block.section === b.section))}
            >
              <svg width="14" height="14" aria-hidden="true">
                <path d={glyphPath(roleOf(b.section))} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
              </svg>
            </button>
          ))}
        </div>
      </header>
      <div ref={box} className="flex-1 overflow-auto" tabIndex={0} aria-label="The script">
        {sayings && (
          <ul className="px-4 py-2 bg-lit border-b border-edge max-w-[760px] mx-auto">
            {sheet.sayings.map((s) => (
              <li key={s.word} className="py-2 border-b border-hair flex justify-between gap-3">
                <strong>{s.word}</strong>
                <span>
                  {s.respelled} {s.ipa && <span className="text-ink3">/{s.ipa}/</span>}{' '}
                  {s.from === 'guess' && <span className="finding">a guess: ask</span>}
                </span>
              </li>
            ))}
            {!sheet.sayings.length && <li className="text-ink2">Every name is said as it is written.</li>}
          </ul>
        )}
        <div className="max-w-[760px] mx-auto pb-40">
          {lines.map((l, i) => (
            <div
              key={l.id}
              data-at={i}
              aria-current={i === at}
              className={`grid grid-cols-[44px_10px_1fr] gap-x-2 px-3 py-3 cursor-pointer ${i === at ? 'bg-lit border-y border-edge' : 'border-y border-transparent'}`}
              onClick={() => go(i)}
            >
              <span className={`clock pt-2 ${i === at ? 'font-semibold text-ink' : ''}`}>
                {clockText(l.startMs, false)}
              </span>
              <TimeRule ms={l.ms} />
              <div>
                {l.silentMs !== null ? (
                  <Rest ms={l.silentMs} why="nobody speaks" />
                ) : (
                  <>
                    <p
                      className={`font-serif ${i === at ? 'text-[26px] leading-[40px]' : 'text-[24px] leading-[37px]'} ${i < at ? 'text-ink3' : ''}`}
                      dir="auto"
                    >
                      {l.speaker && (
                        <strong className="font-sans text-[13px] uppercase mr-2">{l.speaker}</strong>
                      )}
                      <Parts parts={l.parts} />
                    </p>
                    {i === at && <p className="text-ink2 text-[13px]">{(l.ms / 1000).toFixed(1)} s</p>}
                    {l.restMs > 0 && <Rest ms={l.restMs} />}
                  </>
                )}
              </div>
            </div>
          ))}
        </div>
      </div>
      {error && (
        <p className="finding px-4 py-1 bg-lit" role="alert">
          {error}
        </p>
      )}
      <footer className="bg-bench border-t border-mark shrink-0 px-3 py-3">
        <div className="flex gap-2 items-center max-w-[760px] mx-auto">
          <button className="voicepress flex-1" onClick={() => go(at - 1)}>
            Back a line
          </button>
          <span className="text-center w-[76px]">
            <strong className="clock block text-[14px]">{clockText(current.startMs, false)}</strong>
            <span className="text-ink3 text-[12px]">of {clockText(sheet.totalMs, false)}</span>
          </span>
          <HearMenu
            playing={playing}
            onStop={stop}
            onHear={(what) => void hear(textsOf(what))}
            onKeep={(what) => void keep(textsOf(what), `${sheet.title} ${what === 'all' ? '' : what}`)}
          />
          <button className="voicepress main flex-1" onClick={() => go(at + 1)}>
            Said
          </button>
        </div>
      </footer>
    </div>
  );
}

/** A tick a second down the line's side, longer at five. */
function TimeRule({ ms }: { ms: number }) {
  const seconds = ms / 1000;
  return (
    <svg
      className="h-full w-[10px] min-h-[30px]"
      viewBox="0 0 10 100"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path d="M2 0V100" stroke="var(--mark)" vectorEffect="non-scaling-stroke" />
      {Array.from({ length: Math.floor(seconds) + 1 }, (_, i) => (
        <path
          key={i}
          d={`M2 ${((i / seconds) * 100).toFixed(1)}h${i % 5 ? 4 : 8}`}
          stroke="var(--mark)"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

type What = 'line' | 'section' | 'all';
const SAYS: readonly [What, string][] = [
  ['line', 'this line'],
  ['section', 'this section'],
  ['all', 'the whole script'],
];
function HearMenu({
  playing,
  onHear,
  onKeep,
  onStop,
}: {
  playing: boolean;
  onHear: (what: What) => void;
  onKeep: (what: What) => void;
  onStop: () => void;
}) {
  const [open, setOpen] = useState(false);
  if (playing)
    return (
      <button className="voicepress" onClick={onStop}>
        Stop
      </button>
    );
  return (
    <span className="relative">
      <button className="voicepress" aria-haspopup="menu" aria-expanded={open} onClick={() => setOpen(!open)}>
        Hear it
      </button>
      {open && (
        <span role="menu" className="absolute bottom-[54px] right-0 bg-lit border border-edge w-[190px] z-10">
          {SAYS.map(([what, name]) => (
            <button
              key={what}
              role="menuitem"
              className="block w-full text-left px-3 py-3 border-b border-hair cursor-pointer"
              onClick={() => (setOpen(false), onHear(what))}
            >
              {name}
            </button>
          ))}
          {SAYS.map(([what, name]) => (
            <button
              key={`keep ${what}`}
              role="menuitem"
              className="block w-full text-left px-3 py-3 border-b border-hair cursor-pointer text-ink2"
              onClick={() => (setOpen(false), onKeep(what))}
            >
              save {name} as WAV
            </button>
          ))}
        </span>
      )}
    </span>
  );
}

/** What the stand-in is given at once. */
const LONGEST = 5500;
/** The stand-in voice, played in the page and kept as a WAV to save. */
function useVoice(pace: number) {
  const [playing, setPlaying] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const audio = useRef<HTMLAudioElement | null>(null);
  const stopped = useRef(false);
  const stop = () => {
    stopped.current = true;
    audio.current?.pause();
    setPlaying(false);
  };
  useEffect(() => () => audio.current?.pause(), []);
  /** What the stand-in says of texts, a recording for as much as it takes at once. */
  async function* said(texts: readonly string[]): AsyncGenerator<Blob> {
    const parts: string[] = [];
    for (const t of texts)
      if (parts.length && parts[parts.length - 1].length + t.length < LONGEST)
        parts[parts.length - 1] += `\n${t}`;
      else parts.push(t);
    for (const part of parts) {
      if (stopped.current) return;
      yield await api.voice(part, pace);
    }
  }
  const during = async (work: () => Promise<void>) => {
    setError(null);
    stopped.current = false;
    setPlaying(true);
    try {
      await work();
    } catch (e) {
      setError((e as Error).message);
    }
    setPlaying(false);
  };
  const hear = (texts: readonly string[]) =>
    during(async () => {
      for await (const sound of said(texts)) {
        const address = URL.createObjectURL(sound);
        const player = new Audio(address);
        audio.current = player;
        await new Promise<void>((resolve, reject) => {
          player.onended = () => resolve();
          player.onpause = () => resolve();
          player.onerror = () => reject(new Error('The stand-in voice can’t be played here.'));
          void player.play().catch(reject);
        });
        URL.revokeObjectURL(address);
      }
    });
  const keep = (texts: readonly string[], name: string) =>
    during(async () => {
      const wavs: Uint8Array[] = [];
      for await (const sound of said(texts)) wavs.push(new Uint8Array(await sound.arrayBuffer()));
      if (stopped.current || !wavs.length) return;
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob([joinWavs(wavs) as BlobPart], { type: 'audio/wav' }));
      link.download = `${
        name
          .normalize('NFD')
          .replace(/\p{M}/gu, '')
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-')
          .replace(/^-|-$/g, '')
          .slice(0, 60) || 'voice'
      }.wav`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    });
  return { playing, error, hear, keep, stop };
}
