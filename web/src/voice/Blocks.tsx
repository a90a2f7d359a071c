/** The script to speak: one section a block, breaths and rests as bars on their true time, names and numbers as they are said. */
import type { VoiceLine, VoicePart } from '@ursprung/core/handoff/desk';
import type { Sheet } from '../api.ts';
import { clockText } from '../text/clockText.ts';

/** Pixels a second of silence. */
export const PX_PER_SECOND = 40;

export function Blocks({ sheet }: { sheet: Pick<Sheet, 'blocks'> }) {
  return (
    <>
      {sheet.blocks.map((b) => (
        <section key={b.section} aria-label={b.title} className="pt-4">
          <h3 className="flex justify-between items-baseline border-b border-ink pb-1">
            <strong>{b.title}</strong>
            <span className="clock">
              {(b.ms / 1000).toFixed(1)} s, {b.words} words
            </span>
          </h3>
          {b.lines.map((l) => (
            <Line key={l.id} line={l} />
          ))}
        </section>
      ))}
    </>
  );
}

function Line({ line }: { line: VoiceLine }) {
  if (line.silentMs !== null)
    return line.silentMs > 0 ? <Rest ms={line.silentMs} why="nobody speaks" /> : null;
  return (
    <div className="grid grid-cols-[56px_1fr] gap-2 py-1">
      <span className="clock pt-2">{clockText(line.startMs)}</span>
      <p className="font-serif text-[20px] leading-[29px]" dir="auto">
        {line.speaker && <strong className="font-sans text-[12px] uppercase mr-2">{line.speaker}</strong>}
        <Parts parts={line.parts} />
      </p>
      {line.restMs > 0 && (
        <span className="col-start-2">
          <Rest ms={line.restMs} />
        </span>
      )}
    </div>
  );
}

/** Words with stress, and what is said of them below; a breath is a short bar on the line of writing. */
export function Parts({ parts }: { parts: readonly VoicePart[] }) {
  return (
    <>
      {parts.map((p, i) => {
        if (p.type === 'breath')
          return (
            <span
              key={i}
              className="inline-block h-[6px] bg-mark mx-1 align-baseline"
              style={{ width: Math.max(8, Math.min(12, (p.ms / 1000) * PX_PER_SECOND)) }}
              role="img"
              aria-label="breath"
            />
          );
        const words = p.stress ? <strong className="font-[650]">{p.text}</strong> : p.text;
        if (p.type === 'text') return <span key={i}>{words}</span>;
        const say = p.type === 'number' ? p.say : p.say;
        return (
          <ruby key={i} className="said" title={p.type === 'said' && p.ipa ? `/${p.ipa}/` : undefined}>
            <span className="underline decoration-dotted underline-offset-4">{words}</span>
            <rt>
              {say}
              {p.type === 'said' && p.from === 'guess' ? ' ?' : ''}
            </rt>
          </ruby>
        );
      })}
    </>
  );
}

export function Rest({ ms, why }: { ms: number; why?: string }) {
  return (
    <span
      className="flex items-center gap-2 py-1"
      role="img"
      aria-label={`Rest of ${(ms / 1000).toFixed(1)} seconds`}
    >
      <span
        className="inline-block h-[7px] bg-mark"
        style={{ width: Math.min(240, (ms / 1000) * PX_PER_SECOND) }}
      />
      <span className="clock">{(ms / 1000).toFixed(1)}</span>
      {why && <span className="text-ink3 text-[12.5px]">{why}</span>}
    </span>
  );
}
