/** Length, frame, voice and pace of a script that exists; the clocks follow. */
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { ScriptRowSettings } from '../api.ts';
import { Choice } from '../shell/Choice.tsx';
import { clockText, lengthMs } from '../text/clockText.ts';
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
  const seconds = (lengthMs(length) ?? NaN) / 1000;
  const wrong = Number.isNaN(seconds)
    ? 'A length is written like 3:00 or 180.'
    : seconds < 15 || seconds > 1500
      ? 'A length is between 0:15 and 25:00.'
      : null;
  return (
    <form
      className="flex flex-col gap-4 items-start"
      onSubmit={(e) => {
        e.preventDefault();
        if (wrong) return;
        void session.change({ target: { kind, seconds }, frame, voice, pace });
        onClose();
      }}
    >
      <Choice
        label="Length is"
        value={kind}
        onChange={setKind}
        options={[
          ['point', 'about'],
          ['floor', 'at least'],
          ['ceiling', 'at most'],
        ]}
      />
      <label className="text-ink3">
        length{' '}
        <input
          className="field text-ink font-mono w-24 ml-2"
          value={length}
          onChange={(e) => setLength(e.target.value)}
        />
      </label>
      <Choice
        label="Frame"
        value={frame}
        onChange={setFrame}
        options={[
          ['16:9', '16:9'],
          ['9:16', '9:16'],
          ['1:1', '1:1'],
        ]}
      />
      <Choice
        label="Voice"
        value={voice}
        onChange={setVoice}
        options={[
          ['even', 'even'],
          ['quick', 'quick'],
          ['plain', 'plain'],
        ]}
      />
      <label className="text-ink3">
        pace{' '}
        <input
          type="range"
          min={105}
          max={215}
          step={5}
          value={pace}
          onChange={(e) => setPace(Number(e.target.value))}
          className="accent-(--spruce) mx-2 align-middle"
        />
        <span className="clock text-ink">{pace} wpm</span>
      </label>
      {wrong && (
        <p role="alert">
          <span className="finding">{wrong}</span>
        </p>
      )}
      <div className="flex gap-5">
        <button className="press" disabled={Boolean(wrong)}>
          Use
        </button>
        <button type="button" className="quietpress" onClick={onClose}>
          Leave it
        </button>
      </div>
    </form>
  );
}
