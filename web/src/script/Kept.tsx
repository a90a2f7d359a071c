/** What the writer must know of words that are not with the server: they are not kept here, or they lost their place. */
import type { Stray } from './kept.ts';
import type { ScriptSession } from './session.ts';
import { useSnapshot } from './useSnapshot.ts';

const WHY: Record<Stray['why'], string> = {
  'place gone': 'The place where you wrote this was taken out elsewhere.',
  'written in what was taken out': 'Somebody wrote this in what you took out.',
  'does not fit': 'This was kept here and does not fit the script as it is now.',
};

export function Kept({ session }: { session: ScriptSession }) {
  const keeps = useSnapshot(session, (s) => s.keeps);
  const strays = useSnapshot(session, (s) => s.strays);
  if (keeps && !strays.length) return null;
  return (
    <div className="px-6 py-2 bg-lit border-b border-hair" role="status" data-testid="kept">
      {!keeps && (
        <p>
          <span className="finding">This browser keeps nothing here:</span> its storage is full or switched
          off. Wait for “Saved” before you leave this page.
        </p>
      )}
      {strays.map((stray) => (
        <div key={stray.id} className="flex gap-5 items-baseline">
          <p className="flex-1 min-w-0">
            <span className="finding">{WHY[stray.why]}</span>{' '}
            <span className="font-serif text-[16px]">“{stray.text}”</span>
          </p>
          <button className="press" onClick={() => session.putStray(stray)}>
            Put it at the caret
          </button>
          <button className="quietpress" onClick={() => session.dropStray(stray)}>
            Let it go
          </button>
        </div>
      ))}
    </div>
  );
}
