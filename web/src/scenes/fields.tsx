/** Fields of the chosen scene: shown as they are computed, said otherwise by the writer, back with one press. */
import { useEffect, useState } from 'react';

export function Head({ what, set, onReset }: { what: string; set: boolean; onReset: () => void }) {
  return (
    <h3 className="columnhead !px-0 mt-2 border-b border-hair flex justify-between">
      {what}
      {set && (
        <button className="textpress" onClick={onReset}>
          As computed
        </button>
      )}
    </h3>
  );
}

/** Rows of text: shown as they are, edited as a whole. */
export function Lines({
  label,
  value,
  notes,
  onSave,
}: {
  label: string;
  value: readonly string[];
  notes: readonly string[];
  onSave: (rows: string[]) => void;
}) {
  const [editing, setEditing] = useState(false);
  const [text, setText] = useState(value.join('\n'));
  if (!editing)
    return (
      <button
        className="block w-full text-left cursor-text py-[2px] hover:underline underline-offset-4 decoration-dotted"
        title={label}
        onClick={() => setEditing(true)}
      >
        {value.length ? (
          value.map((v, i) => (
            <span key={v} className="block leading-[18px]">
              {v} {notes[i] && <span className="text-ink3 text-[11.5px]">{notes[i]}</span>}
            </span>
          ))
        ) : (
          <span className="text-ink3">nothing</span>
        )}
      </button>
    );
  return (
    <textarea
      className="field w-full"
      rows={Math.max(2, value.length + 1)}
      aria-label={label}
      autoFocus
      value={text}
      onChange={(e) => setText(e.target.value)}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') setEditing(false);
      }}
      onBlur={() => {
        setEditing(false);
        const rows = text
          .split('\n')
          .map((r) => r.trim())
          .filter(Boolean);
        if (rows.join('\n') !== value.join('\n')) onSave(rows);
      }}
    />
  );
}

/** One word of the shot out of a fixed list. */
export function Choice<T extends string>({
  label,
  value,
  of,
  onSave,
}: {
  label: string;
  value: T;
  of: readonly T[];
  onSave: (value: T) => void;
}) {
  return (
    <>
      <dt className="text-ink3">{label}</dt>
      <dd>
        <select
          className="field w-full"
          aria-label={`${label[0].toUpperCase()}${label.slice(1)} of the shot`}
          value={value}
          onChange={(e) => onSave(e.target.value as T)}
        >
          {of.map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
      </dd>
    </>
  );
}

export function Word({
  label,
  value,
  placeholder,
  onSave,
  block = false,
}: {
  label: string;
  value: string;
  placeholder?: string;
  onSave: (v: string) => void;
  block?: boolean;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const input = (
    <input
      className="field w-full"
      aria-label={label}
      value={text}
      placeholder={placeholder}
      maxLength={200}
      onChange={(e) => setText(e.target.value)}
      onKeyDown={(e) => e.stopPropagation()}
      onBlur={() => text !== value && onSave(text.trim())}
    />
  );
  if (block)
    return (
      <label className="grid grid-cols-[64px_1fr] items-baseline text-[12.5px] mt-2">
        <span className="text-ink3">{label}</span>
        {input}
      </label>
    );
  return (
    <>
      <dt className="text-ink3">{label}</dt>
      <dd>{input}</dd>
    </>
  );
}
