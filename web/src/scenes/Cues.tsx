/** What is heard under a scene: each cue worded, moved, levelled or left out, and new ones of one's own. */
import { CUE_LEVELS, CUE_LIMITS, SOUND_KINDS, type SoundCue, type SoundKind } from '@ursprung/core/script';
import { useState, type KeyboardEvent } from 'react';

/** A cue as it is typed. */
interface Typed {
  kind: SoundKind;
  what: string;
  at: string;
  level: string;
  dip: string;
}
const typedOf = (cue?: SoundCue): Typed => ({
  kind: cue?.kind ?? 'effect',
  what: cue?.what ?? '',
  at: (cue?.at ?? 0).toFixed(1),
  level: String(cue?.level ?? CUE_LEVELS.effect),
  dip: String(cue?.dip ?? 0),
});

/** Why a cue can't be as typed, in the person's words; else the cue. `seconds`: how long its scene is. */
export function cueOf(typed: Typed, seconds: number): SoundCue | string {
  const what = typed.what.trim();
  const [at, level, dip] = [typed.at, typed.level, typed.dip].map((v) => (v.trim() ? Number(v.replace(',', '.')) : NaN)); // prettier-ignore
  if (!what) return 'A cue says what is heard.';
  if (!Number.isFinite(at) || at < 0 || at > seconds)
    return `It begins between 0 and ${seconds.toFixed(1)} s.`;
  const { level: loud, dip: down } = CUE_LIMITS;
  if (!(level >= loud[0] && level <= loud[1])) return `A level is ${loud[0]} to ${loud[1]} dB.`;
  if (!(dip >= down[0] && dip <= down[1])) return `Under speech it goes down by ${down[1]} to ${down[0]} dB.`;
  return { kind: typed.kind, what, at, level, dip };
}

export function Cues({
  cues,
  ms,
  onSave,
}: {
  cues: readonly SoundCue[];
  /** How long the scene is. */
  ms: number;
  onSave: (cues: SoundCue[]) => void;
}) {
  const [open, setOpen] = useState<number | 'new' | null>(null);
  const own = (change: (list: SoundCue[]) => SoundCue[]) => onSave(change(cues.map((c) => ({ ...c }))));
  return (
    <>
      {cues.length === 0 && open !== 'new' && <p className="text-ink3 text-[12.5px]">only the voice</p>}
      {cues.map((c, i) =>
        open === i ? (
          <CueFields
            key={i}
            cue={c}
            ms={ms}
            onDone={(cue) => (setOpen(null), cue && own((list) => list.with(i, cue)))}
          />
        ) : (
          <p key={i} className="text-[12.5px] leading-[17px] flex gap-2">
            <button
              className="flex-1 flex gap-2 text-left cursor-text hover:underline underline-offset-4 decoration-dotted"
              title="Word it, move it, set its level"
              onClick={() => setOpen(i)}
            >
              <span className="text-ink3 w-[60px] shrink-0">{c.kind}</span>
              <span>
                {c.what}
                <span className="text-ink3">
                  {' '}
                  at {c.at.toFixed(1)} s, {c.level} dB{c.dip ? `, ${c.dip} dB under speech` : ''}
                </span>
              </span>
            </button>
            <button
              className="textpress"
              aria-label={`Leave out ${c.what}`}
              onClick={() => own((list) => list.toSpliced(i, 1))}
            >
              Leave out
            </button>
          </p>
        ),
      )}
      {open === 'new' && (
        <CueFields ms={ms} onDone={(cue) => (setOpen(null), cue && own((list) => [...list, cue]))} />
      )}
      {open === null && cues.length < CUE_LIMITS.cues && (
        <button className="textpress" onClick={() => setOpen('new')}>
          Add a cue
        </button>
      )}
    </>
  );
}

/** One cue's fields; taken by Enter or “Keep it”, left by Escape. */
function CueFields({
  cue,
  ms,
  onDone,
}: {
  cue?: SoundCue;
  ms: number;
  onDone: (cue: SoundCue | null) => void;
}) {
  const [typed, setTyped] = useState(() => typedOf(cue));
  const [wrong, setWrong] = useState<string | null>(null);
  const set = (part: Partial<Typed>) => (setWrong(null), setTyped((old) => ({ ...old, ...part })));
  const take = () => {
    const made = cueOf(typed, ms / 1000);
    if (typeof made === 'string') setWrong(made);
    else onDone(made);
  };
  const keys = (e: KeyboardEvent) => {
    e.stopPropagation();
    if (e.key === 'Escape') onDone(null);
    if (e.key === 'Enter' && !(e.target instanceof HTMLButtonElement)) {
      e.preventDefault();
      take();
    }
  };
  const number = (label: string, part: 'at' | 'level' | 'dip', step: number) => (
    <label className="flex-1 text-ink3">
      {label}
      <input
        className="field w-full clock text-ink"
        type="number"
        step={step}
        value={typed[part]}
        onChange={(e) => set({ [part]: e.target.value })}
      />
    </label>
  );
  return (
    <div
      role="group"
      aria-label={cue ? `Cue: ${cue.what}` : 'A new cue'}
      className="py-1 my-1 border-y border-hair text-[12.5px] flex flex-col gap-1"
      onKeyDown={keys}
    >
      <div className="flex gap-2">
        <select
          className="field w-[86px]"
          aria-label="Kind of cue"
          value={typed.kind}
          onChange={(e) => {
            const kind = e.target.value as SoundKind;
            // A level that nobody typed follows the kind.
            const usual = Number(typed.level) === CUE_LEVELS[typed.kind];
            set({ kind, ...(usual ? { level: String(CUE_LEVELS[kind]) } : {}) });
          }}
        >
          {SOUND_KINDS.map((k) => (
            <option key={k}>{k}</option>
          ))}
        </select>
        <input
          className="field flex-1 min-w-0"
          aria-label="What is heard"
          placeholder="what is heard"
          autoFocus
          maxLength={CUE_LIMITS.letters}
          value={typed.what}
          onChange={(e) => set({ what: e.target.value })}
        />
      </div>
      <div className="flex gap-2">
        {number('at, s', 'at', 0.1)}
        {number('level, dB', 'level', 1)}
        {number('dips, dB', 'dip', 1)}
      </div>
      {wrong && (
        <p role="alert" className="finding">
          {wrong}
        </p>
      )}
      <div className="flex gap-3">
        <button className="textpress" onClick={take}>
          Keep it
        </button>
        <button className="textpress" onClick={() => onDone(null)}>
          Leave it
        </button>
      </div>
    </div>
  );
}
