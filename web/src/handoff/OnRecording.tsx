/** Whether everything is timed by the clock or by a recording, and what has changed since it was read. */
import { changedSinceRead } from '@ursprung/core/handoff/desk';
import type { PlainSection } from '@ursprung/core/script';
import type { HandoffSettings } from '../api.ts';
import { clockText } from '../text/clockText.ts';

export function OnRecording({
  own: { recording },
  sections,
  onChange,
}: {
  own: HandoffSettings;
  sections: readonly PlainSection[];
  onChange: (change: Partial<HandoffSettings>) => void;
}) {
  if (!recording) return null;
  const changed = changedSinceRead(recording, sections);
  return (
    <section className="border-t border-hair pr-3 pb-2 text-[12.5px]" aria-label="Timed by a recording">
      <p className="columnhead !px-0">timed by</p>
      <p className="break-words">
        <strong>{recording.name}</strong> <span className="clock">{clockText(recording.ms)}</span>
      </p>
      {changed > 0 && (
        <p className="finding">
          {changed} {changed === 1 ? 'line is' : 'lines are'} no longer as read.
        </p>
      )}
      <button className="textpress" onClick={() => onChange({ recording: null })}>
        Time it by the clock
      </button>
    </section>
  );
}
