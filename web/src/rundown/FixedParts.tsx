/** Words or seconds that stay as they are: sign-off, sponsor's message, sting, breaks. */
import { useState } from 'react';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Choice } from '../shell/Choice.tsx';
import { lengthMs } from '../text/clockText.ts';
import type { Rundown } from './useRundown.ts';

type Where = 'start' | 'middle' | 'end';

export function FixedParts({ session, rundown }: { session: ScriptSession; rundown: Rundown }) {
  const fixed = useSnapshot(session, (s) => s.settings.fixed) ?? [];
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const [length, setLength] = useState('');
  const [where, setWhere] = useState<Where>('end');
  const ms = length.trim() ? lengthMs(length) : null;
  const able = name.trim() && (text.trim() || (ms !== null && Number.isFinite(ms)));
  return (
    <>
      <div className="columnhead border-b border-hair mt-5">fixed parts</div>
      {fixed.map((f) => (
        <div key={f.id} className="flex gap-3 py-1 border-b border-hair items-baseline">
          <span className="flex-1">
            <strong className="font-semibold">{f.name}</strong> <span className="text-ink3">{f.where}</span>
            <span className="block text-ink2 truncate">
              {f.text || `${((f.ms ?? 0) / 1000).toFixed(1)} s without words`}
            </span>
          </span>
          <button
            className="quietpress"
            onClick={() => void session.change({ fixed: fixed.filter((x) => x.id !== f.id) })}
          >
            take out
          </button>
        </div>
      ))}
      <form
        className="flex flex-col gap-1 pt-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (!able) return;
          void session.change({
            fixed: [
              ...fixed,
              {
                id: `x${Date.now().toString(36)}`,
                name: name.trim(),
                text: text.trim(),
                where,
                ...(ms !== null && Number.isFinite(ms) ? { ms } : {}),
              },
            ],
          });
          setName('');
          setText('');
          setLength('');
        }}
      >
        <div className="flex gap-3">
          <input
            className="field flex-1"
            aria-label="Name of the fixed part"
            placeholder="sign-off, sponsor, sting, break"
            value={name}
            maxLength={60}
            onChange={(e) => setName(e.target.value)}
          />
          <input
            className="field w-16 clock"
            aria-label="Its own time"
            placeholder="0:05"
            value={length}
            onChange={(e) => setLength(e.target.value)}
          />
        </div>
        <input
          className="field"
          aria-label="Words of the fixed part"
          placeholder="its words; empty for seconds only"
          value={text}
          maxLength={2000}
          onChange={(e) => setText(e.target.value)}
        />
        <Choice
          label="Where it stands"
          value={where}
          onChange={setWhere}
          options={[
            ['start', 'at the start'],
            ['middle', 'in the middle'],
            ['end', 'at the end'],
          ]}
        />
        <div className="flex gap-4">
          <button className="textpress" disabled={!able}>
            Add
          </button>
          {fixed.length > 0 && (
            <button
              type="button"
              className="quietpress"
              disabled={rundown.busy !== null}
              onClick={() => rundown.redo({ what: 'whole' })}
            >
              Plan around them
            </button>
          )}
        </div>
      </form>
    </>
  );
}
