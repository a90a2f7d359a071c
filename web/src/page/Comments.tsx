/** Remarks on the manuscript: in order, with the words they are about; settled ones stay readable. */
import { useState } from 'react';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { goTo } from '../script/goTo.ts';
import { addComment, changeComment } from './commands.ts';
import { Side } from './Side.tsx';

interface Shown {
  id: string;
  text: string;
  at: string;
  done: boolean;
  line: string;
  words: string;
}

export function Comments({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const sections = useSnapshot(session, (s) => s.sections);
  const [text, setText] = useState('');
  const all: Shown[] = sections.flatMap((s) =>
    s.lines.flatMap((l) =>
      (l.marks ?? []).flatMap((m) =>
        m.type === 'comment'
          ? [
              {
                id: m.id,
                text: m.text,
                at: m.at,
                done: m.done,
                line: l.id,
                words: l.text.slice(m.start, m.end),
              },
            ]
          : [],
      ),
    ),
  );
  const shown = all.filter((c, i) => all.findIndex((x) => x.id === c.id) === i);
  const add = () => {
    if (!text.trim()) return;
    const id = `C${crypto.randomUUID().slice(0, 8)}`;
    if (session.run(addComment(id, text.trim(), new Date().toISOString()))) setText('');
  };
  return (
    <Side
      title={`Comments (${shown.filter((c) => !c.done).length} open)`}
      onClose={onClose}
      foot={
        <form
          className="flex gap-3 items-end"
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <label className="flex-1 text-ink3">
            on the selected words, or the chosen line
            <input
              className="field w-full text-ink"
              value={text}
              maxLength={600}
              autoFocus
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          <button className="press" disabled={!text.trim()}>
            Comment
          </button>
        </form>
      }
    >
      {!shown.length && (
        <p className="text-ink3">No comments yet. Select words on the page and write one below.</p>
      )}
      {shown.map((c) => (
        <div key={c.id} className="py-2 border-b border-hair">
          <p className={`take ${c.done ? 'text-ink3' : ''}`}>“{c.words}”</p>
          <p className={c.done ? 'text-ink3 line-through' : ''}>{c.text}</p>
          <p className="flex gap-4 items-baseline">
            <time className="clock text-ink3 flex-1" dateTime={c.at}>
              {new Date(c.at).toLocaleString()}
            </time>
            <button className="quietpress" onClick={() => (goTo(session, c.line), session.view?.focus())}>
              Go there
            </button>
            <button className="textpress" onClick={() => session.run(changeComment(c.id, { done: !c.done }))}>
              {c.done ? 'Open again' : 'Settled'}
            </button>
            <button className="quietpress" onClick={() => session.run(changeComment(c.id, null))}>
              Take off
            </button>
          </p>
        </div>
      ))}
    </Side>
  );
}
