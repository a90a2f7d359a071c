/** Captions with their reading speed: what is hurried is marked, what nobody can follow is a finding with shorter wording. */
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, type Sheet } from '../api.ts';
import { goTo } from '../script/goTo.ts';
import type { ScriptSession } from '../script/session.ts';
import { clockText } from '../text/clockText.ts';

export function Captions({ sheet, session }: { sheet: Sheet; session: ScriptSession }) {
  const navigate = useNavigate();
  const faults = new Map(sheet.captionFaults.map((f) => [f.at, f]));
  const fast = sheet.captionFaults.filter((f) => f.fault === 'too fast').length;
  const hurried = sheet.captionFaults.filter((f) => f.fault === 'hurried').length;
  const { limits } = sheet;
  return (
    <>
      <p className="py-2 text-ink2">
        {sheet.captions.length} captions, at most {limits.lines} rows of {limits.lineCharacters} characters
        and {limits.charactersPerSecond} a second. {hurried + fast === 0 ? 'No rule is broken.' : ''}
        {hurried > 0 && <span className="finding mr-2">{hurried} hurried.</span>}
        {fast > 0 && <span className="finding">{fast} too fast to read.</span>}
      </p>
      {sheet.captions.map((c, i) => {
        const fault = faults.get(i);
        const speed = (c.rows.join(' ').length * 1000) / (c.endMs - c.startMs);
        return (
          <div
            key={c.startMs}
            className="grid grid-cols-[64px_1fr_120px] gap-3 border-b border-hair py-1 items-baseline"
          >
            <button
              className="clock text-left underline underline-offset-4 cursor-pointer"
              onClick={() => {
                goTo(session, c.lines[0]);
                void navigate(`/script/${session.script.id}/page`);
              }}
            >
              {clockText(c.startMs)}
            </button>
            <span className="text-[14px] leading-[19px]" dir="auto">
              {c.speaker && <strong className="text-[12px] uppercase mr-1">{c.speaker}</strong>}
              {c.rows.map((r) => (
                <span key={r} className="block">
                  {r}
                </span>
              ))}
              {fault?.fault === 'too fast' && <Shorter line={c.lines[0]} session={session} />}
            </span>
            <span className={`clock text-right ${fault ? 'text-copper' : ''}`}>
              {speed.toFixed(1)} a second
              {fault && <span className="finding block font-sans">{fault.fault}</span>}
            </span>
          </div>
        );
      })}
    </>
  );
}

/** Shorter ways to tell the line, from the same safe tellings that the Page offers. */
function Shorter({ line, session }: { line: string; session: ScriptSession }) {
  const { sections } = session.snapshot;
  const text = sections.flatMap((s) => s.lines).find((l) => l.id === line)?.text ?? '';
  const { data } = useQuery({
    queryKey: ['tellings', session.script.id, line, text],
    queryFn: () => api.tellings(session.script.id, line, sections),
    retry: false,
  });
  const shorter = (data?.tellings ?? [])
    .filter((t) => t.length < text.length - 3)
    .sort((a, b) => a.length - b.length)[0];
  if (!shorter)
    return data ? (
      <span className="block text-ink3 text-[12.5px]">
        No shorter telling is safe; cut the line, or slow the pace.
      </span>
    ) : null;
  return (
    <span className="block text-[12.5px]">
      Shorter:{' '}
      <button
        className="textpress text-left"
        onClick={() =>
          session.take(
            sections.map((s) => ({
              ...s,
              lines: s.lines.map((l) =>
                l.id === line
                  ? { ...l, text: shorter, takes: [{ text: l.text, from: l.from }, ...l.takes] }
                  : l,
              ),
            })),
            'captions',
          )
        }
      >
        {shorter}
      </button>
    </span>
  );
}
