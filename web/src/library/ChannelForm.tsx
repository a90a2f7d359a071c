/** A new channel: its name, and what its scripts start from. */
import { useMutation } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { api, type ChannelSettings } from '../api.ts';
import { FrameChoice, MoodChoice, USUAL_PACE } from '../brief/fields.tsx';

export function ChannelForm({ onDone, onCancel }: { onDone: () => void; onCancel: () => void }) {
  const [name, setName] = useState('');
  const [frame, setFrame] = useState<ChannelSettings['frame']>('16:9');
  const [mood, setMood] = useState<ChannelSettings['mood']>('calm');
  const [pace, setPace] = useState('');
  const add = useMutation({ mutationFn: api.addChannel, onSuccess: onDone });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const usual = frame === '9:16' ? { from: 30, to: 90 } : { from: 300, to: 600 };
    add.mutate({
      name,
      settings: {
        frame,
        mood,
        pace: pace ? Number(pace) : USUAL_PACE[frame],
        voice: frame === '9:16' ? 'quick' : 'even',
        usual,
      },
    });
  };
  return (
    <form
      className="px-6 py-5 border-y border-ink bg-lit flex flex-wrap gap-x-10 gap-y-4 items-end"
      onSubmit={submit}
    >
      <label className="flex flex-col text-ink3">
        name
        <input
          className="field text-ink w-64 font-serif text-[18px]"
          value={name}
          onChange={(e) => setName(e.target.value)}
          autoFocus
          maxLength={80}
        />
      </label>
      <div>
        <div className="text-ink3">frame</div>
        <FrameChoice value={frame} onChange={setFrame} />
      </div>
      <div>
        <div className="text-ink3">mood</div>
        <MoodChoice value={mood} onChange={setMood} />
      </div>
      <label className="flex flex-col text-ink3">
        pace, words a minute
        <input
          className="field text-ink w-28 font-mono"
          inputMode="numeric"
          placeholder={String(USUAL_PACE[frame])}
          value={pace}
          onChange={(e) => setPace(e.target.value)}
        />
      </label>
      <button className="press" disabled={!name.trim() || add.isPending}>
        Add {name.trim() || 'channel'}
      </button>
      <button type="button" className="quietpress" onClick={onCancel}>
        Leave it
      </button>
      {add.isError && (
        <p className="w-full" role="alert">
          <span className="finding">The channel was not added.</span> {add.error.message}
        </p>
      )}
    </form>
  );
}
