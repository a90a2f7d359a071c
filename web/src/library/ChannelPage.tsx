/** One channel: what its own scripts measure, which rules read its scripts through, how it says words. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { RULES } from '@ursprung/core/rules';
import { api, type ChannelSettings } from '../api.ts';
import { ChannelForm } from './ChannelForm.tsx';
import { CHANNELS, useChannels } from './lists.ts';
import { Foot } from '../shell/Foot.tsx';
import { Missing } from '../shell/Missing.tsx';
import { Rail } from '../shell/Rail.tsx';
import { useActions } from '../shell/commands.tsx';

const said = (value: number | null, unit: string) =>
  value === null ? '–' : `${Math.round(value * 10) / 10}${unit === '%' ? ' %' : ''}`;
/** Pasted scripts are told apart by a rule of three signs or more on a row of its own. */
const apart = (text: string) =>
  text
    .split(/\n\s*(?:[-=*_]\s*){3,}\n/)
    .map((t) => t.trim())
    .filter(Boolean);

export function ChannelPage() {
  const { id } = useParams();
  const channels = useChannels();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [pasted, setPasted] = useState('');
  const [pasting, setPasting] = useState(false);
  const [setting, setSetting] = useState(false);
  const channel = channels.data?.find((c) => c.id === id);
  const again = () => client.invalidateQueries({ queryKey: ['library'] });
  const changed = (next: Awaited<ReturnType<typeof api.patchChannel>>) =>
    client.setQueryData(CHANNELS, (old: typeof channels.data) =>
      old?.map((c) => (c.id === next.id ? { ...c, ...next } : c)),
    );
  const patch = useMutation({
    mutationFn: (settings: Partial<ChannelSettings>) => api.patchChannel(id!, { settings }),
    onSuccess: changed,
  });
  const measure = useMutation({
    mutationFn: (texts: readonly string[]) => api.measureStyle(id!, texts),
    onSuccess: () => (setPasting(false), again()),
  });
  const actions = useMemo(
    () => [
      { id: 'starts-from', name: 'What its scripts start from', run: () => setSetting(true) },
      { id: 'library', name: 'Go to the library', run: () => navigate('/') },
    ],
    [navigate],
  );
  useActions('channel', actions);
  useEffect(() => void (document.title = `${channel?.name ?? 'Channel'} · Ursprung`), [channel?.name]);
  if (channels.isSuccess && !channel) return <Missing what="This channel is not here, or no longer." />;
  if (!channel) return <div className="h-full bg-sheet" aria-busy="true" />;
  // What was just pressed shows at once.
  const {
    style,
    rulesOff = [],
    sayings = [],
  } = {
    ...channel.settings,
    ...(patch.isPending ? patch.variables : {}),
  };
  const own = channel.scripts;
  const error = (measure.error ?? patch.error)?.message;
  return (
    <div className="screen">
      <Rail channel={channel.name} />
      <div className="flex-1 min-w-0 flex flex-col">
        <header className="deskhead border-b border-mark">
          <h1 className="font-serif text-[18px] font-medium flex-1">{channel.name}</h1>
          <button className="quietpress" onClick={() => setSetting(!setting)} aria-expanded={setting}>
            What its scripts start from
          </button>
          <button className="quietpress" onClick={() => setPasting(!pasting)} aria-expanded={pasting}>
            Measure pasted scripts
          </button>
          <button className="press" disabled={!own || measure.isPending} onClick={() => measure.mutate([])}>
            {measure.isPending ? 'Measuring…' : `Measure its ${own} ${own === 1 ? 'script' : 'scripts'}`}
          </button>
        </header>
        {error && (
          <p className="px-6 py-2 bg-lit border-b border-hair" role="alert">
            <span className="finding">Not done.</span> {error}
          </p>
        )}
        {setting && (
          <ChannelForm
            channel={channel}
            onDone={(next) => (changed(next), setSetting(false), void again())}
            onCancel={() => setSetting(false)}
          />
        )}
        {pasting && (
          <form
            className="px-6 py-3 bg-lit border-b border-hair flex gap-5 items-end"
            onSubmit={(e) => {
              e.preventDefault();
              measure.mutate(apart(pasted));
            }}
          >
            <label className="flex-1 text-ink3">
              finished scripts of this channel, a row of dashes between them
              <textarea
                className="w-full h-40 bg-sheet border border-mark p-3 font-serif text-[15px] text-ink"
                value={pasted}
                onChange={(e) => setPasted(e.target.value)}
              />
            </label>
            <button className="press" disabled={!apart(pasted).length || measure.isPending}>
              Measure {apart(pasted).length || ''}
            </button>
          </form>
        )}
        <main
          className="stacks flex-1 overflow-auto grid grid-cols-[minmax(0,1fr)_300px] gap-10 px-6 py-3"
          tabIndex={0}
          aria-label="Channel"
        >
          <section aria-label="House style">
            <h2 className="columnhead border-b border-hair">
              {style
                ? `house style: ${style.scripts} scripts, ${style.words} words; drafts, takes and the read-through follow it`
                : 'house style'}
            </h2>
            {!style && (
              <p className="emptyhint pt-4">
                Not measured yet. Three finished scripts are enough to begin; more is better.
              </p>
            )}
            {style && (
              <table className="w-full">
                <thead className="columnhead text-left">
                  <tr>
                    <th>measure</th>
                    <th className="text-right">middle</th>
                    <th className="text-right">spread</th>
                    <th className="pl-6">as this channel says it</th>
                  </tr>
                </thead>
                <tbody>
                  {style.measures.map((m) => (
                    <tr key={m.id} className="border-t border-hair align-baseline">
                      <td className="py-1">
                        {m.name} <span className="text-ink3">{m.unit === '%' ? '' : m.unit}</span>
                      </td>
                      <td className="text-right clock whitespace-nowrap pl-3">{said(m.middle, m.unit)}</td>
                      <td className="text-right clock text-ink3 whitespace-nowrap pl-3">
                        {said(m.spread, m.unit)}
                      </td>
                      <td className="pl-6 font-serif text-ink2">
                        {m.examples.map((e) => (
                          <span key={e} className="block">
                            {e}
                          </span>
                        ))}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </section>
          <section aria-label="Rules and sayings">
            <h2 className="columnhead border-b border-hair">read through by</h2>
            {RULES.map((r) => (
              <label key={r.id} className="flex gap-2 items-center min-h-6 cursor-pointer">
                <input
                  type="checkbox"
                  checked={!rulesOff.includes(r.id)}
                  onChange={(e) =>
                    patch.mutate({
                      rulesOff: e.target.checked ? rulesOff.filter((x) => x !== r.id) : [...rulesOff, r.id],
                    })
                  }
                />
                <span className="flex-1">{r.name}</span>
                <span className="text-ink3">{r.area}</span>
              </label>
            ))}
            <h2 className="columnhead border-b border-hair pt-4">how words are said</h2>
            {!sayings.length && (
              <p className="text-ink3">Set on the Page: any action, “How a word is said”.</p>
            )}
            {sayings.map((s) => (
              <p key={s.word} className="flex gap-3 items-baseline">
                <span className="flex-1">
                  {s.word}: <span className="text-ink2">{s.say}</span> {s.ipa}
                </span>
                <button
                  className="quietpress"
                  onClick={() => patch.mutate({ sayings: sayings.filter((x) => x !== s) })}
                >
                  Forget
                </button>
              </p>
            ))}
          </section>
        </main>
        <Foot keys={[]}>
          What is measured here steers drafts, takes and the read-through of this channel.
        </Foot>
      </div>
    </div>
  );
}
