/** Another take of the chosen line, and the way back to earlier ones: in the foot, by key, in the command list. */
import { useMutation } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import type { PlainSection } from '@ursprung/core/script';
import { api } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { useActions } from '../shell/commands.tsx';

/** The line with its latest earlier take in its place; the one that stood there goes to the end of the takes. */
export function earlierTake(sections: readonly PlainSection[], id: string): PlainSection[] {
  return sections.map((s) => ({
    ...s,
    lines: s.lines.map((l) => {
      const [back, ...rest] = l.id === id ? l.takes : [];
      return back
        ? { ...l, text: back.text, from: back.from, takes: [...rest, { text: l.text, from: l.from }] }
        : l;
    }),
  }));
}

export function LineTakes({ session }: { session: ScriptSession }) {
  const id = useSnapshot(session, (s) => s.line);
  const takes = useSnapshot(
    session,
    (s) => s.sections.flatMap((x) => x.lines).find((l) => l.id === s.line)?.takes.length ?? 0,
  );
  const another = useMutation({
    mutationFn: async (line: string) => {
      const on = session.mark();
      const answer = await api.redo(session.script.id, { what: 'line', line, sections: on.sections });
      if ('sections' in answer) session.take(answer.sections, 'take', on);
      return answer;
    },
  });
  const { mutate } = another;
  const actions = useMemo(
    () => [
      {
        id: 'line-take',
        name: 'Another take of this line',
        keys: 'Ctrl ;',
        run: () => session.snapshot.line && mutate(session.snapshot.line),
      },
      {
        id: 'line-back',
        name: 'Earlier take of this line',
        keys: 'Ctrl Shift ;',
        run: () =>
          session.snapshot.line &&
          session.take(earlierTake(session.snapshot.sections, session.snapshot.line)),
      },
    ],
    [session, mutate],
  );
  useActions('line-takes', actions);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || (e.key !== ';' && e.key !== ':')) return;
      e.preventDefault();
      (e.shiftKey ? actions[1] : actions[0]).run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions]);
  if (!id || !session.sources.length) return null;
  const refused = another.data && 'refused' in another.data ? another.data.refused : another.error?.message;
  return (
    <span className="ml-4" role="status">
      <button
        className="cursor-pointer text-ink2 underline underline-offset-4 decoration-mark mr-4"
        disabled={another.isPending}
        onClick={actions[0].run}
      >
        {another.isPending ? 'telling…' : 'another take'}
      </button>
      {takes > 0 && (
        <button
          className="cursor-pointer text-ink2 underline underline-offset-4 decoration-mark mr-4"
          onClick={actions[1].run}
        >
          earlier take ({takes})
        </button>
      )}
      {refused && <span className="text-ink3">{refused}</span>}
    </span>
  );
}
