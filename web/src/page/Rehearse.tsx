/** Rehearse: the page reads along on its own clock, silently or with the stand-in voice; a recording of yourself corrects the clock. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { api } from '../api.ts';
import { goTo } from '../script/goTo.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';

type Mode = 'off' | 'silent' | 'voice' | 'recording';

export function Rehearse({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const [mode, setMode] = useState<Mode>('off');
  const [said, setSaid] = useState<string | null>(null);
  const [measured, setMeasured] = useState<{ clockMs: number; tookMs: number } | null>(null);
  const pace = useSnapshot(session, (s) => s.settings.pace);
  const stop = useRef<() => void>(() => {});
  const recorder = useRef<MediaRecorder | null>(null);
  const began = useRef({ at: 0, fromMs: 0 });

  const halt = useCallback(() => {
    stop.current();
    stop.current = () => {};
    setMode('off');
  }, []);
  useEffect(() => () => stop.current(), []);

  /** From the chosen line on: which lines, and when each is heard. */
  const ahead = () => {
    const { sections, times, line } = session.snapshot;
    const all = sections.flatMap((s) => s.lines).filter((l) => l.text.trim());
    const at = Math.max(
      0,
      all.findIndex((l) => l.id === line),
    );
    return all.slice(at).flatMap((l) => {
      const time = times?.get(l.id);
      return time ? [{ id: l.id, text: l.text, restMs: l.restMs, ...time }] : [];
    });
  };

  const readAlong = (): (() => void) => {
    let lines = ahead();
    let start = performance.now();
    let at = -1;
    let frame = 0;
    const step = () => {
      if (!lines.length) {
        // The clock has not answered yet.
        lines = ahead();
        start = performance.now();
        frame = requestAnimationFrame(step);
        return;
      }
      const now = lines[0].startMs + performance.now() - start;
      const next = lines.findLastIndex((l) => l.startMs <= now);
      if (next !== at) {
        at = next;
        goTo(session, lines[at].id);
      }
      const last = lines[lines.length - 1];
      if (now > last.startMs + last.ms) halt();
      else frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  };

  /** The channel's way of saying words, for the voice as for the clock. */
  const asSaid = (text: string) =>
    (session.channel?.sayings ?? []).reduce(
      (t, { word, say }) =>
        t.replace(
          new RegExp(`(?<![\\p{L}])${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}])`, 'giu'),
          () => say,
        ),
      text,
    );

  const speak = (): (() => void) => {
    const lines = ahead();
    let stopped = false;
    const audio = new Audio();
    const urls: string[] = [];
    void (async () => {
      const fetchLine = (i: number) => (i < lines.length ? api.voice(asSaid(lines[i].text), pace) : null);
      try {
        let next = fetchLine(0);
        for (let i = 0; i < lines.length && !stopped; i++) {
          const blob = await next!;
          next = fetchLine(i + 1);
          next?.catch(() => {});
          if (stopped) return;
          goTo(session, lines[i].id);
          const url = URL.createObjectURL(blob);
          urls.push(url);
          audio.src = url;
          await audio.play();
          await new Promise<void>((resolve) => {
            audio.onended = () => resolve();
            audio.onpause = () => resolve();
          });
          if (lines[i].restMs && !stopped)
            await new Promise((resolve) => setTimeout(resolve, lines[i].restMs));
        }
        if (!stopped) halt();
      } catch (error) {
        setSaid((error as Error).message);
        halt();
      }
    })();
    return () => {
      stopped = true;
      audio.pause();
      urls.forEach((u) => URL.revokeObjectURL(u));
    };
  };

  const start = (what: 'silent' | 'voice') => {
    halt();
    setSaid(null);
    stop.current = what === 'silent' ? readAlong() : speak();
    setMode(what);
  };

  const record = async () => {
    halt();
    setSaid(null);
    setMeasured(null);
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      const made = new MediaRecorder(stream);
      recorder.current = made;
      made.onstop = () => stream.getTracks().forEach((t) => t.stop());
      made.start();
      began.current = { at: performance.now(), fromMs: ahead()[0]?.startMs ?? 0 };
      stop.current = () => made.state !== 'inactive' && made.stop();
      setMode('recording');
    } catch {
      setSaid('No microphone can be used here. You can read aloud and stop the clock by hand instead.');
      began.current = { at: performance.now(), fromMs: ahead()[0]?.startMs ?? 0 };
      setMode('recording');
    }
  };
  /** Up to and with the chosen line. */
  const finish = () => {
    const tookMs = performance.now() - began.current.at;
    const { line, times } = session.snapshot;
    const last = line ? times?.get(line) : undefined;
    const clockMs = last ? last.startMs + last.ms - began.current.fromMs : 0;
    halt();
    if (clockMs < 3000) setSaid('Put the caret in the last line you read, then press Done.');
    else setMeasured({ clockMs, tookMs });
  };
  const corrected = measured
    ? Math.round(Math.min(400, Math.max(40, (pace * measured.clockMs) / measured.tookMs)))
    : pace;
  return (
    <div
      className="flex items-center gap-5 px-6 py-1.5 bg-lit border-b border-hair"
      role="group"
      aria-label="Rehearse"
    >
      {mode === 'off' ? (
        <>
          <button className="textpress" onClick={() => start('silent')}>
            Read along
          </button>
          <button className="textpress" onClick={() => start('voice')}>
            with the stand-in voice
          </button>
          <button className="textpress" onClick={() => void record()}>
            Record yourself
          </button>
        </>
      ) : mode === 'recording' ? (
        <button className="press" onClick={finish}>
          Done: I have read to the chosen line
        </button>
      ) : (
        <button className="press" onClick={halt}>
          Stop
        </button>
      )}
      <span className="flex-1" role="status">
        {said}
        {measured && (
          <>
            You took {clockText(measured.tookMs)} where the clock says {clockText(measured.clockMs)}:{' '}
            {corrected} words a minute instead of {pace}.{' '}
            <button
              className="textpress"
              onClick={() => {
                void session.change({ pace: corrected });
                void session.changeChannel({ pace: corrected });
                setMeasured(null);
              }}
            >
              Set the clock to this
            </button>
          </>
        )}
      </span>
      <button className="quietpress" onClick={() => (halt(), onClose())}>
        Close
      </button>
    </div>
  );
}
