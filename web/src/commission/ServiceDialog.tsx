/** The text service of the workspace: address, model, key, price and limit. The key goes to the server and never comes back. */
import * as Dialog from '@radix-ui/react-dialog';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type Speaks, type TextServiceState } from '../api.ts';

export function ServiceDialog({
  open,
  onClose,
  state,
}: {
  open: boolean;
  onClose: () => void;
  state: TextServiceState | null;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog p-6" aria-describedby={undefined}>
          <Dialog.Title className="font-serif text-[18px] font-medium pb-2">Text service</Dialog.Title>
          {state && <Form key={String(open)} state={state} onClose={onClose} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const amount = (text: string) => (text.trim() === '' ? null : Number(text));

function Form({ state: { service, canKeep }, onClose }: { state: TextServiceState; onClose: () => void }) {
  const client = useQueryClient();
  const [address, setAddress] = useState(service?.address ?? '');
  const [speaks, setSpeaks] = useState<Speaks>(service?.speaks ?? 'chat');
  const [model, setModel] = useState(service?.model ?? '');
  const [key, setKey] = useState('');
  const [priceIn, setPriceIn] = useState(service?.priceIn?.toString() ?? '');
  const [priceOut, setPriceOut] = useState(service?.priceOut?.toString() ?? '');
  const [limit, setLimit] = useState(service?.monthlyTokens?.toString() ?? '');
  const heard = (next: TextServiceState) => {
    client.setQueryData(['service'], next);
    void client.invalidateQueries({ queryKey: ['model'] });
    onClose();
  };
  const keep = useMutation({
    mutationFn: () =>
      api.keepService({
        address,
        speaks,
        model,
        ...(key ? { key } : {}),
        priceIn: amount(priceIn),
        priceOut: amount(priceOut),
        monthlyTokens: amount(limit),
      }),
    onSuccess: heard,
  });
  const forget = useMutation({ mutationFn: api.forgetService, onSuccess: heard });
  if (service?.from === 'environment')
    return (
      <>
        <p>
          Orders go to <strong>{service.host}</strong>
          {service.model && `, ${service.model}`}. The server’s environment says so, and only it can change
          it.
        </p>
        <p className="pt-3">
          <button className="press" onClick={onClose}>
            Good
          </button>
        </p>
      </>
    );
  const error = keep.error ?? forget.error;
  const field = (
    label: string,
    value: string,
    set: (v: string) => void,
    more: React.InputHTMLAttributes<HTMLInputElement> = {},
  ) => (
    <label className="block py-1 text-ink2">
      {label}
      <input
        className="field w-full text-ink"
        value={value}
        onChange={(e) => set(e.target.value)}
        {...more}
      />
    </label>
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate();
      }}
    >
      <p className="text-ink2 pb-1">Nothing is sent until you press for it.</p>
      <label className="block py-1 text-ink2">
        it is asked
        <select
          className="field w-full text-ink"
          value={speaks}
          onChange={(e) => setSpeaks(e.target.value as Speaks)}
        >
          <option value="chat">in the common chat-completions shape</option>
          <option value="text">in plain text: the order is posted, the answer is the narration</option>
        </select>
      </label>
      {field(speaks === 'chat' ? 'address, up to “/chat/completions”' : 'address', address, setAddress, {
        placeholder: speaks === 'chat' ? 'https://…/v1' : 'https://…',
        required: true,
        maxLength: 500,
      })}
      {speaks === 'chat' && field('model', model, setModel, { maxLength: 120 })}
      {field(service?.hasKey ? 'key (one is kept; leave empty to keep it)' : 'key', key, setKey, {
        type: 'password',
        autoComplete: 'off',
        maxLength: 500,
        disabled: !canKeep,
      })}
      {!canKeep && (
        <p>
          <span className="finding">No key can be kept here:</span> the server has no secret
          (URSPRUNG_SECRET).
        </p>
      )}
      <div className="grid grid-cols-3 gap-4">
        {field('price of a million tokens sent', priceIn, setPriceIn, { inputMode: 'decimal' })}
        {field('and received', priceOut, setPriceOut, { inputMode: 'decimal' })}
        {field('at most, tokens a month', limit, setLimit, { inputMode: 'numeric' })}
      </div>
      {error && (
        <p role="alert" className="pt-2">
          <span className="finding">Not kept.</span> {error.message}
        </p>
      )}
      <p className="flex gap-5 pt-3 items-baseline">
        <button className="press" disabled={!address.trim() || keep.isPending}>
          Keep it
        </button>
        {service && (
          <button type="button" className="textpress" onClick={() => forget.mutate()}>
            Forget it and its key
          </button>
        )}
        <button type="button" className="quietpress" onClick={onClose}>
          Close
        </button>
      </p>
    </form>
  );
}
