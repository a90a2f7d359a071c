/** A new channel: its name, and what its scripts start from. */
import { useMutation } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { api, type ChannelSettings } from '../api.ts';
import { FrameChoice, MoodChoice, USUAL_PACE } from '../brief/fields.tsx';
import { Choice } from '../shell/Choice.tsx';

export function ChannelForm({ onDone, onCancel }: { onDone: () => void; onCancel: () => void }) {
  const [name, setName] = useState('');
  const [frame, setFrame] = useState<ChannelSettings['frame']>('16:9');
  const [mood, setMood] = useState<ChannelSettings['mood']>('calm');
  const [pace, setPace] = useState('');
  const [longest, setLongest] = useState('');
  const [short, setShort] = useState<'yes' | 'no'>('yes');
  const [signOff, setSignOff] = useState('');
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
        ...(longest || short === 'no'
          ? {
              house: {
                ...(longest ? { longest: Number(longest) } : {}),
                ...(short === 'no' ? { contractions: false } : {}),
              },
            }
          : {}),
        ...(signOff.trim()
          ? { fixed: [{ id: 'sign-off', name: 'sign-off', text: signOff.trim(), where: 'end' as const }] }
          : {}),
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
      <label className="flex flex-col text-ink3">
        longest sentence, words
        <input
          className="field text-ink w-28 font-mono"
          inputMode="numeric"
          placeholder="26"
          value={longest}
          onChange={(e) => setLongest(e.target.value)}
        />
      </label>
      <div>
        <div className="text-ink3">“isn’t” and “it’s”</div>
        <Choice
          label="Contractions"
          value={short}
          onChange={setShort}
          options={[
            ['yes', 'said'],
            ['no', 'in full'],
          ]}
        />
      </div>
      <label className="flex flex-col text-ink3">
        sign-off
        <input
          className="field text-ink w-64"
          value={signOff}
          placeholder="words that end every script"
          maxLength={400}
          onChange={(e) => setSignOff(e.target.value)}
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
