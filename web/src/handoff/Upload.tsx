/** The upload, part by part: computed, worded otherwise where the writer likes, copied one by one. */
import { useState } from 'react';
import { chapterClock, type UploadPart } from '@ursprung/core/handoff/desk';
import type { PreviewProps } from './Preview.tsx';

const NAMES: readonly [UploadPart, string, number][] = [
  ['summary', 'description', 4],
  ['hashtags', 'hashtags', 1],
  ['searchWords', 'search words', 2],
  ['question', 'question for the comments', 1],
  ['pinned', 'comment to pin', 2],
  ['endPointer', 'where to go at the end', 1],
  ['credits', 'picture and music credits', 2],
  ['disclosure', 'what was made by a computer', 1],
];

export function Upload({ sheet, own, session, onChange }: PreviewProps) {
  const { upload } = sheet;
  const say = (part: UploadPart, text: string | undefined) => {
    const next = { ...own.upload };
    if (text === undefined) delete next[part];
    else next[part] = text;
    onChange({ upload: next });
  };
  return (
    <>
      <h3 className="columnhead !px-0 mt-2">titles</h3>
      {upload.titles.map((t) => (
        <p key={t.text} className="border-b border-hair py-[3px] flex gap-3 items-baseline">
          <button
            className={`w-[11px] h-[11px] rounded-full border shrink-0 cursor-pointer ${t.used ? 'bg-ink border-ink' : 'border-mark'}`}
            aria-pressed={t.used}
            aria-label={`Use “${t.text}”`}
            onClick={() => !t.used && void session.change({ title: t.text })}
          />
          <span className={`flex-1 ${t.used ? 'font-semibold' : ''}`}>{t.text}</span>
          <span className="text-ink3 text-[12px] max-w-[240px]">{t.used ? '' : t.reason}</span>
          <span className={`clock ${t.letters > 60 ? 'text-copper' : ''}`}>{t.letters}</span>
        </p>
      ))}
      {NAMES.map(([part, name, rows]) => (
        <Part
          key={`${part} ${upload.parts[part]}`}
          name={name}
          rows={rows}
          text={upload.parts[part]}
          own={upload.set.includes(part)}
          onSay={(t) => say(part, t)}
        />
      ))}
      <h3 className="columnhead !px-0 mt-3">chapters</h3>
      {'refused' in upload.chapters ? (
        <p>
          <span className="finding">None.</span> {upload.chapters.refused}
        </p>
      ) : (
        <>
          {upload.chapters.chapters.map((c) => (
            <p key={c.startMs} className="flex gap-3 border-b border-hair py-[2px]">
              <span className="clock w-12">{chapterClock(c.startMs)}</span> {c.title}
            </p>
          ))}
          {upload.chapters.joined.map((j) => (
            <p key={j} className="text-ink3 text-[12.5px]">
              {j}
            </p>
          ))}
        </>
      )}
      <h3 className="columnhead !px-0 mt-3">sources</h3>
      {upload.sources.map((s) => (
        <p key={s} className="text-[13px]">
          {s}
        </p>
      ))}
      <h3 className="columnhead !px-0 mt-3">for the title picture</h3>
      {upload.pictures.map((p) => (
        <p key={p.shows} className="border-b border-hair py-1">
          {p.shows}; on it <strong>{p.words}</strong> <span className="text-ink3 text-[12.5px]">{p.why}</span>
        </p>
      ))}
    </>
  );
}

function Part({
  name,
  rows,
  text,
  own,
  onSay,
}: {
  name: string;
  rows: number;
  text: string;
  own: boolean;
  onSay: (text: string | undefined) => void;
}) {
  const [value, setValue] = useState(text);
  const [copied, setCopied] = useState(false);
  return (
    <div className="mt-3">
      <span className="columnhead !px-0 flex gap-4 items-baseline">
        <span className="flex-1">{name}</span>
        {own && (
          <button className="textpress" onClick={() => onSay(undefined)}>
            As computed
          </button>
        )}
        <button
          className="textpress"
          onClick={() => void navigator.clipboard.writeText(value).then(() => setCopied(true))}
        >
          {copied ? 'Copied' : 'Copy'}
        </button>
      </span>
      <textarea
        className="field w-full"
        rows={rows}
        aria-label={name}
        value={value}
        placeholder="nothing"
        maxLength={4000}
        onChange={(e) => setValue(e.target.value)}
        onBlur={() => value !== text && onSay(value)}
      />
    </div>
  );
}
