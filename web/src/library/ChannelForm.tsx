/**
 * A channel's name and what its scripts start from: of a new one, or of one that is there. Scripts that are written keep
 * what they have.
 */
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type ChannelSettings } from '../api.ts';
import { ChannelFields, draftOf, settingsOf, Typed, wrongWith, type ChannelDraft } from './channelFields.tsx';

type Channel = Awaited<ReturnType<typeof api.patchChannel>>;

export function ChannelForm({
  channel,
  onDone,
  onCancel,
}: {
  channel?: { id: string; name: string; settings: ChannelSettings };
  onDone: (kept: Channel) => void;
  onCancel: () => void;
}) {
  const [name, setName] = useState(channel?.name ?? '');
  const [draft, setDraft] = useState(() => draftOf(channel?.settings));
  const change = (part: Partial<ChannelDraft>) => setDraft((old) => ({ ...old, ...part }));
  const keep = useMutation({
    mutationFn: (): Promise<Channel> => {
      const typed = { name: name.trim(), settings: settingsOf(draft, channel?.settings) };
      return channel ? api.patchChannel(channel.id, typed) : api.addChannel(typed);
    },
    onSuccess: onDone,
  });
  const wrong = wrongWith(draft);
  return (
    <form
      aria-label={channel ? 'What its scripts start from' : 'A new channel'}
      className="px-6 py-4 border-y border-mark bg-lit flex flex-wrap gap-x-10 gap-y-3 items-start"
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate();
      }}
      onKeyDown={(e) => e.key === 'Escape' && onCancel()}
    >
      <Typed
        label="name"
        className="w-64 font-serif text-[18px]"
        maxLength={80}
        autoFocus
        value={name}
        onChange={setName}
      />
      <ChannelFields draft={draft} onChange={change} />
      <div className="w-full flex flex-wrap gap-x-4 gap-y-2 items-baseline">
        <button className="press" disabled={!name.trim() || wrong !== null || keep.isPending}>
          {channel ? 'Keep it' : `Add ${name.trim() || 'channel'}`}
        </button>
        <button type="button" className="quietpress" onClick={onCancel}>
          Leave it
        </button>
        {channel && (
          <span className="text-ink3">
            New scripts start from this. Scripts that are there keep what they have.
          </span>
        )}
      </div>
      {(wrong || keep.isError) && (
        <p className="w-full" role="alert">
          <span className="finding">
            {wrong ? 'Not yet.' : channel ? 'Not kept.' : 'The channel was not added.'}
          </span>{' '}
          {wrong ?? keep.error?.message}
        </p>
      )}
    </form>
  );
}
