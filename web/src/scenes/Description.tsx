/** What to make of a scene, in words for an artist: copied whole, or its beginning said otherwise. */
import { useEffect, useState } from 'react';
import type { Picture } from '@ursprung/core/scenes/desk';

export function Description({
  picture,
  own,
  onSave,
}: {
  picture: Picture;
  own: string | undefined;
  onSave: (text: string) => void;
}) {
  const [editing, setEditing] = useState(false);
  const { parts } = picture;
  const [text, setText] = useState(own ?? [parts.shot, parts.subject].filter(Boolean).join('. '));
  const [copied, setCopied] = useState(false);
  useEffect(() => {
    if (!copied) return;
    const timer = setTimeout(() => setCopied(false), 2000);
    return () => clearTimeout(timer);
  }, [copied]);
  if (editing)
    return (
      <textarea
        className="field w-full font-serif text-[14px]"
        rows={4}
        aria-label="Description; looks, place and style are added in full"
        autoFocus
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') setEditing(false);
        }}
        onBlur={() => {
          setEditing(false);
          if (text.trim() && text.trim() !== own) onSave(text.trim());
        }}
      />
    );
  return (
    <div>
      <p className="font-serif text-[14px] leading-[19px]" data-testid="description">
        <Marked text={picture.description} cast={parts.cast} setting={parts.setting} />
      </p>
      <button className="textpress" onClick={() => setEditing(true)}>
        Say it otherwise
      </button>
      <span className="inline-block w-4" />
      <button
        className="textpress"
        onClick={() => void navigator.clipboard.writeText(picture.description).then(() => setCopied(true))}
      >
        {copied ? 'Copied' : 'Copy'}
      </button>
    </div>
  );
}

/** Looks dotted and places dashed, the signs of names and places in Sources. */
function Marked({ text, cast, setting }: { text: string; cast: readonly string[]; setting: string }) {
  // A sentence begins with a capital where a narrator's name has none.
  const lower = text.toLowerCase();
  const spans = [
    ...cast.map((c) => ({ c, sign: 'decoration-dotted' })),
    ...(setting ? [{ c: setting, sign: 'decoration-dashed' }] : []),
  ]
    .map(({ c, sign }) => ({ at: lower.indexOf(c.toLowerCase()), length: c.length, sign }))
    .filter((s) => s.at >= 0)
    .sort((a, b) => a.at - b.at);
  const out = [];
  let at = 0;
  for (const s of spans) {
    if (s.at < at) continue;
    out.push(
      text.slice(at, s.at),
      <span key={s.at} className={`underline underline-offset-[3px] ${s.sign}`}>
        {text.slice(s.at, s.at + s.length)}
      </span>,
    );
    at = s.at + s.length;
  }
  return (
    <>
      {out}
      {text.slice(at)}
    </>
  );
}
