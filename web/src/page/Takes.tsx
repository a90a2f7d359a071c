/** Takes side by side: of the chosen line and of its section, with words and seconds; choose, mix line by line, go back. */
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { LineTake, PlainLine, PlainSection, SectionTake } from '@ursprung/core/script';
import { api } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useLengths } from '../script/useLengths.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Side } from './Side.tsx';

/** A line's take in its place; the words that stood there become a take. */
export function withLineTake(sections: readonly PlainSection[], id: string, take: LineTake): PlainSection[] {
  return sections.map((s) => ({
    ...s,
    lines: s.lines.map((l) =>
      l.id !== id || l.locked || s.locked
        ? l
        : {
            ...l,
            text: take.text,
            from: take.from,
            marks: [],
            takes: [...l.takes.filter((t) => t.text !== take.text), { text: l.text, from: l.from }],
          },
    ),
  }));
}

/** A section's take in its place; what stood there becomes one. */
export function withSectionTake(
  sections: readonly PlainSection[],
  id: string,
  take: SectionTake,
): PlainSection[] {
  return sections.map((s) =>
    s.id !== id || s.locked
      ? s
      : {
          ...s,
          lines: take.lines.map((l) => ({ ...l, takes: [] }) as PlainLine),
          takes: [
            ...s.takes.filter((t) => t !== take),
            { name: `before “${take.name}”`, lines: s.lines.map(({ takes: _, ...l }) => l) },
          ],
        },
  );
}

export function Takes({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const lineId = useSnapshot(session, (s) => s.line);
  const sections = useSnapshot(session, (s) => s.sections);
  const section = sections.find((s) => s.lines.some((l) => l.id === lineId));
  const line = section?.lines.find((l) => l.id === lineId);
  const { id: scriptId } = session.script;
  const [others, setOthers] = useState<{ line: string; list: string[] } | null>(null);
  const redo = useMutation({
    mutationFn: async (what: 'line' | 'section' | 'whole') => {
      const on = session.mark();
      const answer = await api.redo(scriptId, {
        what,
        sections: on.sections,
        ...(what === 'line' && lineId ? { line: lineId } : {}),
        ...(what === 'section' && section ? { section: section.id } : {}),
        ...(what === 'whole' ? { seed: 1 + Math.floor(Math.random() * 1e6) } : {}),
      });
      if ('sections' in answer) session.take(answer.sections, 'take', on);
      return answer;
    },
  });
  useEffect(() => {
    if (!lineId || !session.sources.length) return;
    let current = true;
    const timer = setTimeout(() => {
      api
        .tellings(scriptId, lineId, session.snapshot.sections)
        .then(({ tellings }) => current && setOthers({ line: lineId, list: tellings }))
        .catch(() => current && setOthers(null));
    }, 250);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [session, scriptId, lineId]);
  const told: LineTake[] = line
    ? [
        ...line.takes,
        ...(others?.line === line.id ? others.list : [])
          .filter((t) => t !== line.text && !line.takes.some((x) => x.text === t))
          .map((text) => ({ text, from: line.from })),
      ]
    : [];
  const lengths = useLengths(session, [
    line?.text ?? '',
    ...told.map((t) => t.text),
    ...(section?.takes ?? []).flatMap((t) => t.lines.map((l) => l.text)),
  ]);
  const says = (text: string) => {
    const l = lengths.get(text);
    return l ? `${l.words} words, ${(l.ms / 1000).toFixed(1)} s` : '';
  };
  const sum = (texts: readonly string[]) => texts.reduce((n, t) => n + (lengths.get(t)?.ms ?? 0), 0);
  const locked = Boolean(line?.locked || section?.locked);
  const refused = redo.data && 'refused' in redo.data ? redo.data.refused : redo.error?.message;
  return (
    <Side
      title="Takes"
      onClose={onClose}
      foot={
        <div className="flex gap-4 flex-wrap items-baseline">
          <button
            className="textpress"
            disabled={!line || locked || redo.isPending}
            onClick={() => redo.mutate('line')}
          >
            Another of this line
          </button>
          <button
            className="textpress"
            disabled={!section || locked || redo.isPending}
            onClick={() => redo.mutate('section')}
          >
            of this section
          </button>
          <button className="textpress" disabled={redo.isPending} onClick={() => redo.mutate('whole')}>
            of the whole
          </button>
          <span className="text-ink2" role="status">
            {redo.isPending ? 'telling…' : (refused ?? '')}
          </span>
        </div>
      }
    >
      {!line && <p className="text-ink3">Put the caret in a line to see its takes.</p>}
      {line && (
        <>
          <h3 className="columnhead">this line {locked && '(locked)'}</h3>
          <div className="py-2 border-b border-hair">
            <p className="take">{line.text || '(empty)'}</p>
            <p className="clock text-ink3">in use, {says(line.text)}</p>
          </div>
          {told.map((t, i) => (
            <div key={`${i}${t.text}`} className="py-2 border-b border-hair">
              <p className="take">{t.text}</p>
              <p className="flex gap-4 items-baseline">
                <span className="clock text-ink3 flex-1">
                  {i < line.takes.length ? 'earlier' : 'another way'}, {says(t.text)}
                </span>
                <button
                  className="textpress"
                  disabled={locked}
                  onClick={() => session.take(withLineTake(session.snapshot.sections, line.id, t))}
                >
                  Use
                </button>
              </p>
            </div>
          ))}
          {!told.length && <p className="py-2 text-ink3">No other way to tell it is kept or known.</p>}
        </>
      )}
      {section && section.takes.length > 0 && (
        <>
          <h3 className="columnhead pt-4">
            “{section.title}”, {(sum(section.lines.map((l) => l.text)) / 1000).toFixed(1)} s in use
          </h3>
          {section.takes.map((t, i) => (
            <div key={i} className="py-2 border-b border-hair">
              <p className="flex gap-4 items-baseline">
                <strong className="flex-1">{t.name}</strong>
                <span className="clock text-ink3">
                  {(sum(t.lines.map((l) => l.text)) / 1000).toFixed(1)} s
                </span>
                <button
                  className="textpress"
                  disabled={section.locked}
                  onClick={() => session.take(withSectionTake(session.snapshot.sections, section.id, t))}
                >
                  Use all
                </button>
              </p>
              {t.lines.map((l) => (
                <p key={l.id} className="flex gap-3 items-baseline py-0.5">
                  <span className="take flex-1">{l.text}</span>
                  {line && l.text !== line.text && (
                    <button
                      className="quietpress"
                      disabled={locked}
                      aria-label={`Use “${l.text.slice(0, 60)}” for this line`}
                      onClick={() =>
                        session.take(
                          withLineTake(session.snapshot.sections, line.id, { text: l.text, from: l.from }),
                        )
                      }
                    >
                      for this line
                    </button>
                  )}
                </p>
              ))}
            </div>
          ))}
        </>
      )}
    </Side>
  );
}
