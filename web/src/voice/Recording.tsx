/** A recording laid against the script: lines re-timed by its silences or its captions, with the doubt shown; the pace corrected by it, and everything handed over on its time. */
import { useState } from 'react';
import { DOUBTFUL, keptOf } from '@ursprung/core/handoff/desk';
import { handoffOf } from '../handoff/settings.ts';
import type { LaidRecording } from '../text/messages.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';

export function Recording({ session }: { session: ScriptSession }) {
  const pace = useSnapshot(session, (s) => s.settings.pace);
  const [laid, setLaid] = useState<LaidRecording | null>(null);
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const lines = new Map(
    session.snapshot.sections.flatMap((s) => s.lines.map((l) => [l.id, l.text] as const)),
  );
  const open = async (files: FileList | null) => {
    if (!files?.length) return;
    setBusy(true);
    setError(null);
    try {
      const wav = [...files].find((f) => /\.wav$/i.test(f.name) || f.type.includes('wav'));
      const captions = [...files].find((f) => /\.(?:srt|vtt)$/i.test(f.name));
      if (!wav && !captions) throw new Error('A recording is a WAV file, its captions an SRT or VTT file.');
      setName((wav ?? captions)!.name);
      setLaid(
        await session.layRecording({
          ...(wav ? { wav: await wav.arrayBuffer() } : {}),
          ...(captions ? { captions: await captions.text() } : {}),
        }),
      );
    } catch (e) {
      setLaid(null);
      setError((e as Error).message);
    }
    setBusy(false);
  };
  return (
    <details className="py-2 border-b border-hair" open={!!laid || !!error}>
      <summary className="cursor-pointer">
        <strong>A recording</strong>{' '}
        <span className="text-ink2">can be laid against the script: WAV, or WAV with its captions.</span>
      </summary>
      <label className="textpress cursor-pointer inline-block my-2">
        {busy ? 'Listening…' : 'Choose the recording'}
        <input
          type="file"
          multiple
          accept=".wav,.srt,.vtt,audio/wav"
          className="sr-only"
          onChange={(e) => void open(e.target.files)}
        />
      </label>
      {error && (
        <p className="finding" role="alert">
          {error}
        </p>
      )}
      {laid && (
        <div>
          <p className="pb-2" role="status">
            {clockText(laid.laid.ms)} of sound; read at {laid.pace} words a minute, the script has{' '}
            {Math.round(pace)}.{' '}
            {laid.by === 'silence'
              ? 'Placed by its silences alone: nothing is known of the words.'
              : `${laid.laid.differs.length} places were said otherwise.`}{' '}
            {laid.laid.doubtful > 0 && <span className="finding">{laid.laid.doubtful} lines in doubt.</span>}{' '}
            <a
              className="textpress mr-3"
              href={`data:application/x-subrip;charset=utf-8,${encodeURIComponent(laid.srt)}`}
              download="captions-of-the-recording.srt"
            >
              Save captions on its time
            </a>
            <button
              className="textpress mr-3"
              onClick={() =>
                void session.change({
                  handoff: {
                    ...handoffOf(session.snapshot.settings),
                    recording: keptOf(laid.laid, session.snapshot.sections, name, laid.by),
                  },
                })
              }
            >
              Hand over on its time
            </button>
            {laid.pace !== Math.round(pace) && (
              <button className="textpress" onClick={() => void session.change({ pace: laid.pace })}>
                Use its pace
              </button>
            )}
          </p>
          {laid.laid.lines.map((l) => (
            <p
              key={l.line}
              className="grid grid-cols-[56px_48px_1fr_90px] gap-2 border-t border-hair py-[2px] items-baseline"
            >
              <span className="clock">{clockText(l.startMs)}</span>
              <span className="clock">{((l.endMs - l.startMs) / 1000).toFixed(1)}</span>
              <span className="font-serif truncate">{lines.get(l.line)}</span>
              <span className={l.doubt > DOUBTFUL ? 'finding' : 'text-ink3'}>
                {l.doubt > DOUBTFUL ? 'in doubt' : l.doubt > 0.12 ? 'nearly sure' : 'sure'}
              </span>
            </p>
          ))}
          {laid.laid.differs.length > 0 && (
            <>
              <h4 className="columnhead !px-0 mt-2">said otherwise</h4>
              {laid.laid.differs.slice(0, 60).map((d, i) => (
                <p key={i} className="text-[13px]">
                  <span className="line-through text-ink3">{d.written || 'nothing'}</span>{' '}
                  {d.said || 'left out'}
                </p>
              ))}
            </>
          )}
        </div>
      )}
    </details>
  );
}
