/** How a word is said: respelled for the voice and the clock, or in the letters of the IPA. Kept for the channel. */
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { wordAt } from './commands.ts';
import type { ScriptSession } from '../script/session.ts';

export function Saying({
  open,
  onClose,
  session,
}: {
  open: boolean;
  onClose: () => void;
  session: ScriptSession;
}) {
  const [word, setWord] = useState('');
  const [say, setSay] = useState('');
  const [ipa, setIpa] = useState('');
  const sayings = session.channel?.sayings ?? [];
  useEffect(() => {
    if (!open) return;
    const { from, to, $from } = session.state.selection;
    const { textContent } = $from.parent;
    const chosen =
      from < to
        ? session.state.doc.textBetween(from, to, ' ')
        : textContent.slice(...(wordAt(textContent, $from.parentOffset) ?? [0, 0]));
    const known = session.channel?.sayings?.find((s) => s.word.toLowerCase() === chosen.toLowerCase());
    setWord(chosen.slice(0, 60));
    setSay(known?.say ?? '');
    setIpa(known?.ipa ?? '');
  }, [open, session]);
  const rest = sayings.filter((s) => s.word.toLowerCase() !== word.trim().toLowerCase());
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog p-6" aria-describedby={undefined}>
          <Dialog.Title className="font-serif text-[18px] pb-3">How a word is said</Dialog.Title>
          <form
            className="grid grid-cols-3 gap-5"
            onSubmit={(e) => {
              e.preventDefault();
              void session.changeChannel({
                sayings: [
                  ...rest,
                  { word: word.trim(), say: say.trim(), ...(ipa.trim() ? { ipa: ipa.trim() } : {}) },
                ],
              });
              onClose();
            }}
          >
            <label className="text-ink3">
              word
              <input
                className="field w-full text-ink"
                value={word}
                maxLength={60}
                onChange={(e) => setWord(e.target.value)}
              />
            </label>
            <label className="text-ink3">
              said as (respelled)
              <input
                className="field w-full text-ink"
                value={say}
                maxLength={80}
                placeholder="orr-in"
                onChange={(e) => setSay(e.target.value)}
              />
            </label>
            <label className="text-ink3">
              IPA, for the voice
              <input
                className="field w-full text-ink"
                value={ipa}
                maxLength={80}
                placeholder="ˈɒrɪn"
                onChange={(e) => setIpa(e.target.value)}
              />
            </label>
            <div className="col-span-3 flex gap-5">
              <button className="press" disabled={!word.trim() || !say.trim()}>
                Keep for this channel
              </button>
              {rest.length < sayings.length && (
                <button
                  type="button"
                  className="quietpress"
                  onClick={() => (void session.changeChannel({ sayings: rest }), onClose())}
                >
                  Forget it
                </button>
              )}
            </div>
          </form>
          {sayings.length > 0 && (
            <ul className="pt-4 columns-2">
              {sayings.map((s) => (
                <li key={s.word}>
                  {s.word}: <span className="text-ink2">{s.say}</span>{' '}
                  <span className="text-ink3">{s.ipa}</span>
                </li>
              ))}
            </ul>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
