/** People and places: what the sources say of them, what is still open, said once and shown in every description. */
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import {
  FROM_SCRIPT,
  LOOK_FIELDS,
  type CastEntry,
  type CastOwn,
  type LookField,
} from '@ursprung/core/scenes/desk';
import type { ScriptSession } from '../script/session.ts';
import { useFactNames } from '../text/factNames.ts';

const WORDS: Record<LookField, string> = {
  role: 'what they are',
  age: 'age',
  hair: 'hair',
  eyes: 'eyes',
  dress: 'dress',
  kind: 'what it is',
  looks: 'how it looks',
  period: 'period',
  other: 'anything else',
};

export function CastDialog({
  cast,
  session,
  first,
  onClose,
}: {
  cast: readonly CastEntry[];
  session: ScriptSession;
  first: string | null;
  onClose: () => void;
}) {
  const factName = useFactNames();
  const own = session.snapshot.settings.cast ?? [];
  const [name, setName] = useState('');
  const [kind, setKind] = useState<'person' | 'place'>('person');
  const save = (entry: { name: string; kind: 'person' | 'place' }, change: (o: CastOwn) => CastOwn) => {
    const known = own.find((o) => o.name.toLowerCase() === entry.name.toLowerCase() && o.kind === entry.kind);
    const next = change(known ?? { name: entry.name, kind: entry.kind, fields: {} });
    void session.change({ cast: [...own.filter((o) => o !== known), next] });
  };
  const hidden = own.filter((o) => o.out);
  return (
    <Dialog.Root open onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog p-6" aria-describedby={undefined}>
          <Dialog.Title className="font-serif text-[20px]">Cast and places</Dialog.Title>
          <p className="text-ink2 pb-2">
            What stands here stands in full in every description they appear in. What no source says is yours
            to say, once.
          </p>
          {cast.length === 0 && <p className="py-4 font-serif text-[18px] text-ink2">Nobody is named yet.</p>}
          {[...cast]
            .sort((a, b) => Number(b.name === first) - Number(a.name === first))
            .map((c) => (
              <section key={`${c.kind} ${c.name}`} className="border-t border-hair py-2" aria-label={c.name}>
                <div className="flex justify-between">
                  <h3>
                    <strong
                      className={`underline underline-offset-4 ${c.kind === 'person' ? 'decoration-dotted' : 'decoration-dashed'}`}
                    >
                      {c.name}
                    </strong>{' '}
                    <span className="text-ink3">
                      {c.kind}
                      {c.also.length ? `, also ${c.also.join(', ')}` : ''}
                    </span>
                  </h3>
                  <button className="textpress" onClick={() => save(c, (o) => ({ ...o, out: true }))}>
                    Not to be shown
                  </button>
                </div>
                <div className="grid grid-cols-[104px_1fr] gap-y-[3px] items-baseline pt-1">
                  {LOOK_FIELDS[c.kind].map((f) => {
                    const look = c.looks[f];
                    return (
                      <label key={f} className="contents">
                        <span className={c.open.includes(f) ? 'finding' : 'text-ink3'}>{WORDS[f]}</span>
                        <span>
                          <input
                            className="field w-full"
                            aria-label={`${c.name}: ${WORDS[f]}`}
                            key={look?.text ?? ''}
                            defaultValue={look?.text ?? ''}
                            placeholder={c.open.includes(f) ? 'no source says' : ''}
                            maxLength={160}
                            onBlur={(e) =>
                              e.target.value.trim() !== (look?.text ?? '') &&
                              save(c, (o) => ({ ...o, fields: { ...o.fields, [f]: e.target.value.trim() } }))
                            }
                          />
                          {look?.from && (
                            <span className="text-ink3 text-[11.5px]">
                              {look.from.source === FROM_SCRIPT ? 'your own line' : factName(look.from)}
                            </span>
                          )}
                          {look?.against && (
                            <span className="finding text-[11.5px]">The source says “{look.against}”.</span>
                          )}
                        </span>
                      </label>
                    );
                  })}
                </div>
              </section>
            ))}
          {hidden.length > 0 && (
            <p className="border-t border-hair py-2 text-ink2">
              Not shown:{' '}
              {hidden.map((o) => (
                <button
                  key={o.name}
                  className="textpress mr-3"
                  onClick={() => save(o, (x) => ({ ...x, out: false }))}
                >
                  {o.name}, show again
                </button>
              ))}
            </p>
          )}
          <form
            className="border-t border-hair py-3 flex gap-2 items-center"
            onSubmit={(e) => {
              e.preventDefault();
              if (name.trim()) save({ name: name.trim(), kind }, (o) => o);
              setName('');
            }}
          >
            <input
              className="field flex-1"
              aria-label="Somebody or some place else"
              placeholder="somebody or some place else"
              value={name}
              maxLength={120}
              onChange={(e) => setName(e.target.value)}
            />
            <select
              className="field"
              aria-label="Person or place"
              value={kind}
              onChange={(e) => setKind(e.target.value as 'person' | 'place')}
            >
              <option>person</option>
              <option>place</option>
            </select>
            <button className="press">Add</button>
          </form>
          <StyleField session={session} />
          <div className="pt-4">
            <Dialog.Close className="quietpress">Back to the scenes</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function StyleField({ session }: { session: ScriptSession }) {
  const style = session.channel?.pictures?.style ?? '';
  return (
    <label className="border-t border-hair pt-3 block">
      <span className="text-ink2">The channel’s picture style: these words end every description.</span>
      <input
        className="field w-full"
        defaultValue={style}
        maxLength={400}
        placeholder="for example: ink line, grey wash, no lettering"
        onBlur={(e) =>
          e.target.value.trim() !== style &&
          void session.changeChannel({
            pictures: { ...session.channel?.pictures, style: e.target.value.trim() },
          })
        }
      />
    </label>
  );
}
