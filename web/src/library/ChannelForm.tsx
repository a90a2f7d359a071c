/** A new channel: its name, and what its scripts start from. */
import { useMutation } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { api } from '../api.ts';
import { ChannelFields, settingsOf, useChannelDraft, wrongWith } from './channelFields.tsx';

export function ChannelForm({ onDone, onCancel }: { onDone: () => void; onCancel: () => void }) {
  const [name, setName] = useState('');
  const { draft, change } = useChannelDraft();
  const add = useMutation({ mutationFn: api.addChannel, onSuccess: onDone });
  const wrong = wrongWith(draft);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate({ name, settings: settingsOf(draft) });
  };
  return (
    <form
      className="px-6 py-5 border-y border-ink bg-lit flex flex-wrap gap-x-10 gap-y-4 items-start"
      onSubmit={submit}
    >
      <label className="flex flex-col gap-0.5 text-ink3">
        name
        <input
          className="field text-ink w-64 font-serif text-[18px]"
          value={name}
          onChange={(e) => setName(e.target.value)}
          autoFocus
          maxLength={80}
        />
      </label>
      <ChannelFields draft={draft} onChange={change} />
      <button className="press" disabled={!name.trim() || wrong !== null || add.isPending}>
        Add {name.trim() || 'channel'}
      </button>
      <button type="button" className="quietpress" onClick={onCancel}>
        Leave it
      </button>
      {(wrong || add.isError) && (
        <p className="w-full" role="alert">
          <span className="finding">{wrong ? 'Not yet.' : 'The channel was not added.'}</span>{' '}
          {wrong ?? add.error?.message}
        </p>
      )}
    </form>
  );
}
