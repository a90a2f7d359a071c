/** Length, frame, voice and pace of a script that exists; the clocks follow. */
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { rebalanced } from '@ursprung/core/desk';
import type { ScriptRowSettings } from '../api.ts';
import { FrameChoice, PaceSlider, TargetKindChoice, VoiceChoice, readLength } from '../brief/fields.tsx';
import { clockText } from '../text/clockText.ts';
import type { ScriptSession } from './session.ts';

export function LengthDialog({
  open,
  onClose,
  session,
  settings,
}: {
  open: boolean;
  onClose: () => void;
  session: ScriptSession;
  settings: ScriptRowSettings;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog p-6" aria-describedby={undefined}>
          <Dialog.Title className="font-serif text-[20px] pb-3">Length and pace</Dialog.Title>
          <Form session={session} settings={settings} onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Form({
  session,
  settings,
  onClose,
}: {
  session: ScriptSession;
  settings: ScriptRowSettings;
  onClose: () => void;
}) {
  const [kind, setKind] = useState(settings.target.kind);
  const [length, setLength] = useState(clockText(settings.target.seconds * 1000, false));
  const [frame, setFrame] = useState(settings.frame);
  const [voice, setVoice] = useState(settings.voice);
  const [pace, setPace] = useState(settings.pace);
  const { seconds, problem } = readLength(length);
  return (
    <form
      className="flex flex-col gap-4 items-start"
      onSubmit={(e) => {
        e.preventDefault();
        if (problem) return;
        void session.change({ target: { kind, seconds }, frame, voice, pace });
        // The plan follows the length; what is told follows the plan when it is fitted.
        if (seconds !== settings.target.seconds && session.snapshot.sections.some((s) => s.plannedMs))
          session.take(rebalanced(session.snapshot.sections, session.msOf, seconds * 1000));
        onClose();
      }}
    >
      <TargetKindChoice value={kind} onChange={setKind} />
      <label className="text-ink3">
        length{' '}
        <input
          className="field text-ink font-mono w-24 ml-2"
          value={length}
          onChange={(e) => setLength(e.target.value)}
        />
      </label>
      <FrameChoice value={frame} onChange={setFrame} />
      <VoiceChoice value={voice} onChange={setVoice} />
      <div className="text-ink3">
        pace <PaceSlider value={pace} onChange={setPace} />
      </div>
      {problem && (
        <p role="alert">
          <span className="finding">{problem}</span>
        </p>
      )}
      <div className="flex gap-5">
        <button className="press" disabled={Boolean(problem)}>
          Use
        </button>
        <button type="button" className="quietpress" onClick={onClose}>
          Leave it
        </button>
      </div>
    </form>
  );
}
