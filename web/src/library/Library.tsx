/** The library: scripts above, sources below, one time axis between them. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, type Channel, type ScriptSummary } from '../api.ts';
import { Foot } from '../shell/Foot.tsx';
import { Rail } from '../shell/Rail.tsx';
import { useActions } from '../shell/commands.tsx';
import { applyTheme, currentTheme } from '../shell/theme.ts';
import { glyphPath } from '../strip/glyphs.tsx';
import { clockText } from '../text/clockText.ts';
import { ChannelForm } from './ChannelForm.tsx';
import { SourceRows } from './SourceRows.tsx';
import { Earlier } from './Earlier.tsx';
import { AXIS_PX, GRID, when } from './grid.ts';

/** So many of each list at a time. */
const PAGE = 60;

export function Library() {
  const [params] = useSearchParams();
  const only = params.get('channel');
  const navigate = useNavigate();
  const client = useQueryClient();
  const [find, setFind] = useState('');
  const [most, setMost] = useState({ scripts: PAGE, sources: PAGE });
  const asked = Object.fromEntries(
    Object.entries({
      scripts: String(most.scripts),
      sources: String(only ? 0 : most.sources),
      channel: only ?? '',
      find: find.trim(),
    }).filter(([, v]) => v),
  );
  const library = useQuery({
    queryKey: ['library', 'lists', asked],
    queryFn: () => api.library(asked),
    // What was shown stays until what was asked for is there.
    placeholderData: (old) => old,
  });
  const [adding, setAdding] = useState(false);
  const [removed, setRemoved] = useState<{ id: string; title: string; what: 'script' | 'source' } | null>(
    null,
  );
  const refresh = () => client.invalidateQueries({ queryKey: ['library'] });
  const remove = useMutation({
    mutationFn: (s: ScriptSummary) => api.removeScript(s.id),
    onSuccess: (_r, s) => (setRemoved({ id: s.id, title: s.settings.title, what: 'script' }), refresh()),
  });
  const restore = useMutation({
    mutationFn: (r: NonNullable<typeof removed>) =>
      r.what === 'script' ? api.restoreScript(r.id) : api.restoreSource(r.id),
    onSuccess: () => (setRemoved(null), refresh()),
  });

  const data = library.data;
  const channels = (data?.channels ?? []).filter((c) => !only || c.id === only);
  const longest = Math.max(
    600_000,
    ...(data?.scripts ?? []).map((s) => Math.max(s.ms, s.settings.target.seconds * 1000)),
  );
  const px = useCallback((ms: number) => (ms / longest) * AXIS_PX, [longest]);

  const actions = useMemo(
    () => [
      { id: 'begin', name: 'Begin a script', run: () => navigate('/begin') },
      { id: 'draft', name: 'Take in a finished draft', run: () => navigate('/draft') },
      ...(data?.channels ?? []).map((c) => ({
        id: `channel-${c.id}`,
        name: `Channel ${c.name}: style, rules, sayings`,
        run: () => navigate(`/channel/${c.id}`),
      })),
      { id: 'channel', name: 'Add a channel', run: () => setAdding(true) },
      {
        id: 'theme',
        name: 'Change between light and dark',
        run: () => applyTheme(document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark'),
      },
      {
        id: 'theme-system',
        name: `Theme as the system says${currentTheme() === 'system' ? ' (now)' : ''}`,
        run: () => applyTheme('system'),
      },
      ...(data?.scripts ?? []).map((s) => ({
        id: s.id,
        name: `Open ${s.settings.title}`,
        run: () => navigate(`/script/${s.id}/page`),
      })),
    ],
    [navigate, data],
  );
  useActions('library', actions);
  useEffect(() => void (document.title = 'Library · Ursprung'), []);

  return (
    <div className="screen">
      <Rail {...(only && channels[0] ? { channel: channels[0].name } : {})} />
      <div className="flex-1 min-w-0 flex flex-col">
        <header className="deskhead border-b border-mark">
          <h1 className="font-serif text-[18px] font-medium flex-1">
            {only && channels[0] ? channels[0].name : 'Library'}
          </h1>
          <label className="flex items-baseline gap-2 text-ink3">
            find{' '}
            <input
              className="field w-56 text-ink"
              value={find}
              onChange={(e) => setFind(e.target.value)}
              aria-label="Find a script or source"
            />
          </label>
          <button className="quietpress" onClick={() => navigate(`/draft${only ? `?channel=${only}` : ''}`)}>
            Take in a finished draft
          </button>
          <button className="press" onClick={() => navigate(`/begin${only ? `?channel=${only}` : ''}`)}>
            Begin a script
          </button>
        </header>
        <main className="flex-1 overflow-auto">
          {library.isError && (
            <p className="px-6 py-8">
              <span className="finding">The library can’t be read.</span> {library.error.message}{' '}
              <button className="textpress" onClick={() => void library.refetch()}>
                Try again
              </button>
            </p>
          )}
          {removed && (
            <p className="px-6 py-2 bg-lit border-b border-hair" role="status">
              “{removed.title}” is out of the library.{' '}
              <button className="textpress" onClick={() => restore.mutate(removed)}>
                Put it back
              </button>
            </p>
          )}
          {data && (
            <div className="min-w-[960px]">
              <div className="columnhead grid grid-cols-[300px_minmax(600px,1fr)_64px_64px_84px] px-6 border-b border-hair">
                <span>script, and where it stands</span>
                <span />
                <span className="text-right">heard</span>
                <span className="text-right">over</span>
                <span className="text-right">touched</span>
              </div>
              {channels.map((c) => (
                <ChannelRows
                  key={c.id}
                  channel={c}
                  scripts={data.scripts.filter((s) => s.channelId === c.id)}
                  px={px}
                  none={find.trim() ? 'No script here is called that.' : 'No script here yet.'}
                  onRemove={(s) => remove.mutate(s)}
                />
              ))}
              {!data.channels.length && !adding && (
                <div className="px-6 py-10 font-serif text-[20px] leading-[30px] text-ink2">
                  There is no channel yet. A channel says how its scripts sound and how long they run.{' '}
                  <button className="textpress font-sans text-[13px]" onClick={() => setAdding(true)}>
                    Add the first channel
                  </button>
                </div>
              )}
              {adding && (
                <ChannelForm
                  onDone={() => (setAdding(false), void refresh())}
                  onCancel={() => setAdding(false)}
                />
              )}
              {data.channels.length > 0 && !adding && (
                <div className="px-6 py-2">
                  <button className="quietpress" onClick={() => setAdding(true)}>
                    Add a channel
                  </button>
                </div>
              )}
              <Earlier
                shown={data.scripts.length}
                of={data.counts.scripts}
                what="scripts"
                onMore={() => setMost({ ...most, scripts: most.scripts + PAGE })}
              />
              {data.channels.length > 0 && <Axis longest={longest} px={px} />}
              {!only && (
                <SourceRows
                  sources={data.sources}
                  count={data.counts.sources}
                  onMore={() => setMost({ ...most, sources: most.sources + PAGE })}
                  channels={data.channels}
                  find={find}
                  px={px}
                  onRemoved={(r) => setRemoved({ ...r, what: 'source' })}
                />
              )}
            </div>
          )}
        </main>
        <Foot keys={[]}>
          {data ? `${data.counts.scripts} scripts, ${data.counts.sources} sources` : 'Reading the library…'}
        </Foot>
      </div>
    </div>
  );
}

function ChannelRows({
  channel,
  scripts,
  px,
  none,
  onRemove,
}: {
  channel: Channel;
  scripts: ScriptSummary[];
  px: (ms: number) => number;
  /** What to say when there is none. */
  none: string;
  onRemove: (s: ScriptSummary) => void;
}) {
  const { usual, frame, mood, pace } = channel.settings;
  return (
    <section aria-label={channel.name}>
      <div className={`${GRID} h-9 border-b border-hair`}>
        <h2 className="font-semibold">
          <Link to={`/channel/${channel.id}`}>{channel.name}</Link>{' '}
          <span className="font-normal text-ink3 ml-3">{`${frame}, ${mood}, ${pace} wpm`}</span>
        </h2>
        <svg
          height="12"
          width={AXIS_PX + 20}
          aria-label={`usually ${clockText(usual.from * 1000, false)} to ${clockText(usual.to * 1000, false)}`}
          role="img"
        >
          <path
            d={`M${px(usual.from * 1000)} 2v8M${px(usual.from * 1000)} 6H${px(usual.to * 1000)}M${px(usual.to * 1000)} 2v8`}
            stroke="var(--mark)"
            fill="none"
          />
        </svg>
      </div>
      {!scripts.length && <p className="px-6 py-2 text-ink3">{none}</p>}
      {scripts.map((s) => {
        const targetMs = s.settings.target.seconds * 1000;
        const over = s.ms - targetMs;
        return (
          <article key={s.id} className={`${GRID} h-11 border-b border-hair hover:bg-lit group relative`}>
            <div className="min-w-0 pr-4 truncate">
              <Link
                to={`/script/${s.id}/page`}
                className="font-serif text-[16px] text-ink after:absolute after:inset-0"
              >
                {s.settings.title}
              </Link>
            </div>
            {s.broken ? (
              <span className="finding">What is stored of it can’t be read; it is kept as it is.</span>
            ) : (
              <ScriptBar script={s} px={px} targetMs={targetMs} />
            )}
            <strong className="clock text-right">{!s.broken && clockText(s.ms)}</strong>
            <span className="clock text-right text-ink2">
              {!s.broken && `${over >= 0 ? '+' : '−'}${(Math.abs(over) / 1000).toFixed(1)}`}
            </span>
            <span className="text-right text-ink3 text-[12px] flex justify-end gap-2">
              <button
                className="relative z-10 opacity-0 group-hover:opacity-100 focus-visible:opacity-100 text-ink2 underline cursor-pointer"
                aria-label={`Take “${s.settings.title}” out of the library`}
                onClick={() => onRemove(s)}
              >
                take out
              </button>
              {when(s.updatedAt)}
            </span>
          </article>
        );
      })}
    </section>
  );
}

function ScriptBar({
  script,
  px,
  targetMs,
}: {
  script: ScriptSummary;
  px: (ms: number) => number;
  targetMs: number;
}) {
  let at = 0;
  const target = px(targetMs);
  return (
    <svg
      height="30"
      width={AXIS_PX + 30}
      role="img"
      aria-label={`${script.sections.length} sections, ${clockText(script.ms)}`}
      className="overflow-visible"
    >
      {script.sections.map((s, i) => {
        const left = px(at);
        at += s.ms;
        const width = Math.max(1, px(at) - left);
        return (
          <g key={i}>
            <rect x={left} y="6" width={width} height="18" fill="var(--bench)" stroke="var(--mark)" />
            {width > 18 && (
              <path
                d={glyphPath(s.role)}
                transform={`translate(${left + 4} 9) scale(0.85)`}
                fill="none"
                stroke="var(--ink2)"
                strokeWidth="1.6"
              />
            )}
          </g>
        );
      })}
      <path
        d={`M${target - 5} 3h-4v24h4M${target + 5} 3h4v24h-4`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.3"
      />
    </svg>
  );
}

function Axis({ longest, px }: { longest: number; px: (ms: number) => number }) {
  const minutes = Math.floor(longest / 60_000);
  return (
    <div className={`${GRID} border-t border-ink mt-2`}>
      <span />
      <svg height="22" width={AXIS_PX + 40} aria-hidden="true" className="overflow-visible">
        {Array.from({ length: minutes + 1 }, (_, m) => (
          <g key={m}>
            <line x1={px(m * 60_000)} x2={px(m * 60_000)} y1="0" y2="6" stroke="var(--ink2)" />
            <text
              x={px(m * 60_000) + 2}
              y="17"
              fontSize="11"
              fontFamily="var(--font-mono)"
              fill="var(--ink2)"
            >
              {m % (minutes > 14 ? 5 : 1) === 0 ? `${m}:00` : ''}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}
