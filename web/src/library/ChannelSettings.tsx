/** What a channel that is there starts its scripts from, and its name; scripts that are written keep theirs. */
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type ChannelSettings as Settings } from '../api.ts';
import { ChannelFields, settingsOf, useChannelDraft, wrongWith } from './channelFields.tsx';

export function ChannelSettings({
  channel,
  onDone,
  onCancel,
}: {
  channel: { id: string; name: string; settings: Settings };
  onDone: (next: Awaited<ReturnType<typeof api.patchChannel>>) => void;
  onCancel: () => void;
}) {
  const [name, setName] = useState(channel.name);
  const { draft, change } = useChannelDraft(channel.settings);
  const save = useMutation({
    mutationFn: () =>
      api.patchChannel(channel.id, { name: name.trim(), settings: settingsOf(draft, channel.settings) }),
    onSuccess: onDone,
  });
  const wrong = wrongWith(draft);
  return (
    <form
      aria-label="What its scripts start from"
      className="px-6 py-4 border-b border-mark bg-lit flex flex-wrap gap-x-10 gap-y-3 items-start"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
      onKeyDown={(e) => e.key === 'Escape' && onCancel()}
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
      <div className="w-full flex flex-wrap gap-x-4 gap-y-2 items-baseline">
        <button className="press" disabled={!name.trim() || wrong !== null || save.isPending}>
          Keep it
        </button>
        <button type="button" className="quietpress" onClick={onCancel}>
          Leave it
        </button>
        <span className="text-ink3">
          New scripts start from this. Scripts that are there keep what they have.
        </span>
      </div>
      {(wrong || save.isError) && (
        <p className="w-full" role="alert">
          <span className="finding">{wrong ? 'Not yet.' : 'Not kept.'}</span> {wrong ?? save.error?.message}
        </p>
      )}
    </form>
  );
}
