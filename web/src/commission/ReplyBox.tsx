/** Where a reply is pasted or opened, in whatever state it comes. */
import { useRef, useState } from 'react';
import type { CommissionView } from '../api.ts';

export function ReplyBox({
  waitingFor,
  onReply,
  onFile,
}: {
  waitingFor: CommissionView | null;
  onReply: (text: string, who: string) => void;
  onFile: (file: File) => void;
}) {
  const [text, setText] = useState('');
  const [who, setWho] = useState('');
  const file = useRef<HTMLInputElement>(null);
  return (
    <form
      className="px-5 py-3 border-t border-hair bg-bench"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) onReply(text, who);
      }}
    >
      {waitingFor?.message && (
        <p role="alert" className="pb-2">
          <span className="finding">No reply.</span> {waitingFor.message}
        </p>
      )}
      <textarea
        className="w-full h-28 bg-lit border border-mark p-3 font-serif text-[15.5px] leading-[22px] text-ink"
        placeholder={
          waitingFor?.scope.after
            ? 'Paste the lines that were written again, with their marks'
            : 'Paste the reply, in whatever state it comes: talk, headings, lists and counts are taken out'
        }
        aria-label="Paste the reply"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="flex flex-wrap items-baseline gap-5 pt-1">
        <button className="press" disabled={!text.trim()}>
          Check this reply
        </button>
        <button type="button" className="quietpress" onClick={() => file.current?.click()}>
          Open a file
        </button>
        <label className="text-ink3">
          written by{' '}
          <input
            className="field w-44 text-ink"
            value={who}
            maxLength={120}
            placeholder="a person or a program"
            onChange={(e) => setWho(e.target.value)}
          />
        </label>
        <span className="text-ink3">The name stays with every line that is used.</span>
        <input
          ref={file}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label="A reply file"
          accept=".txt,.md,.docx,.html,.htm"
          onChange={(e) => e.target.files?.[0] && onFile(e.target.files[0])}
        />
      </div>
    </form>
  );
}
