/** A shape of the writer's own: parts by name, role and share. */
import { useState } from 'react';
import { SECTION_ROLES, type SectionRole } from '@ursprung/core/script';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import type { Rundown } from './useRundown.ts';

export function OwnParts({ session, rundown }: { session: ScriptSession; rundown: Rundown }) {
  const parts = useSnapshot(session, (s) => s.settings.parts) ?? [];
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [role, setRole] = useState<SectionRole>('ground');
  const [share, setShare] = useState('25');
  const total = parts.reduce((n, p) => n + p.share, 0);
  const save = (next: typeof parts) => void session.change({ parts: next });
  return (
    <div className="pt-1">
      <button className="textpress" aria-expanded={open} onClick={() => setOpen(!open)}>
        Your own shape
      </button>
      {open && (
        <>
          {parts.map((p, i) => (
            <div key={i} className="flex gap-3 py-1 border-b border-hair items-baseline">
              <span className="flex-1">{p.name}</span>
              <span className="text-ink3">{p.role}</span>
              <span className="clock">{total ? Math.round((p.share / total) * 100) : 0} %</span>
              <button
                className="quietpress"
                aria-label={`Take out ${p.name}`}
                onClick={() => save(parts.filter((_, k) => k !== i))}
              >
                out
              </button>
            </div>
          ))}
          <form
            className="flex gap-2 items-baseline pt-1"
            onSubmit={(e) => {
              e.preventDefault();
              const n = Number(share);
              if (!name.trim() || !(n > 0)) return;
              save([...parts, { name: name.trim(), role, share: Math.min(100, n) }]);
              setName('');
            }}
          >
            <input
              className="field flex-1 min-w-0"
              aria-label="Name of the part"
              placeholder="a part"
              value={name}
              maxLength={60}
              onChange={(e) => setName(e.target.value)}
            />
            <select
              className="field"
              aria-label="Role of the part"
              value={role}
              onChange={(e) => setRole(e.target.value as SectionRole)}
            >
              {SECTION_ROLES.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </select>
            <input
              className="field w-10 clock"
              aria-label="Its share of the time"
              value={share}
              onChange={(e) => setShare(e.target.value)}
            />
            <button className="textpress">Add</button>
          </form>
          {parts.length > 1 && (
            <button
              className="press mt-2"
              disabled={rundown.busy !== null}
              onClick={() => rundown.redo({ what: 'shape', shape: 'own' })}
            >
              Tell it in this shape
            </button>
          )}
        </>
      )}
    </div>
  );
}
