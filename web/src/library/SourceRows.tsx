/** Sources of the workspace, told on the same axis as the scripts; searched by the server, ruled on, taken out. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, type Channel, type FoundSummary, type SourceSummary } from '../api.ts';
import { KINDS, RIGHT_WORDS, kindName } from '../sources/kinds.ts';
import { clockText } from '../text/clockText.ts';
import { Earlier } from './Earlier.tsx';
import { AXIS_PX, GRID, when } from './grid.ts';

/** The room a strip has: the ruler and a little over. */
const STRIP_PX = AXIS_PX + 60;

/** A day as exact as it is known. */
const YEAR = /^\d{4}(-\d{2}){0,2}$/;

export function SourceRows({
  sources,
  count,
  onMore,
  find,
  px,
  channels,
  onRemoved,
}: {
  sources: SourceSummary[];
  channels: readonly Channel[];
  /** How many there are in all. */
  count: number;
  onMore: () => void;
  find: string;
  px: (ms: number) => number;
  onRemoved: (source: { id: string; title: string }) => void;
}) {
  const client = useQueryClient();
  const [kind, setKind] = useState('');
  const [rights, setRights] = useState('');
  const [used, setUsed] = useState('');
  const [more, setMore] = useState({ publisher: '', licence: '', from: '', to: '', channel: '' });
  const [moreShown, setMoreShown] = useState(false);
  const filters = Object.fromEntries(
    Object.entries({
      q: find.trim(),
      kind,
      rights,
      used,
      ...more,
      // A year half typed asks for nothing yet.
      from: YEAR.test(more.from) ? more.from : '',
      to: YEAR.test(more.to) ? more.to : '',
    }).filter(([, v]) => v),
  );
  const searching = Object.keys(filters).length > 0;
  const found = useQuery({
    queryKey: ['library', 'found', filters],
    queryFn: () => api.findSources(filters),
    enabled: searching,
    placeholderData: (old) => old,
  });
  const remove = useMutation({
    mutationFn: (s: { id: string; title: string }) => api.removeSource(s.id),
    onSuccess: (_r, s) => (onRemoved(s), client.invalidateQueries({ queryKey: ['library'] })),
  });
  const shown: (SourceSummary & { found?: string | null })[] = searching
    ? (found.data?.sources ?? [])
    : sources;
  return (
    <section aria-label="Sources">
      <div className={`${GRID} columnhead border-b border-hair`}>
        <span className="flex gap-2 items-baseline">
          {searching ? `${shown.length} of ${count} sources` : `${count} sources, told in full`}
        </span>
        <span className="flex gap-4 items-baseline">
          <span>
            <i className="inline-block w-4 h-2 bg-ink2 mr-1" />
            heard in a script <i className="inline-block w-4 h-2 border border-ink2 ml-3 mr-1" />
            not yet
          </span>
          <Filter label="Kind" value={kind} onChange={setKind} options={KINDS} all="every kind" />
          <Filter label="Rights" value={rights} onChange={setRights} options={RIGHT_WORDS} all="any rights" />
          <Filter
            label="Use"
            value={used}
            onChange={setUsed}
            options={[
              ['yes', 'in a script'],
              ['no', 'in none'],
            ]}
            all="used or not"
          />
          <button
            className="underline underline-offset-4 cursor-pointer"
            aria-expanded={moreShown}
            onClick={() => setMoreShown(!moreShown)}
          >
            more
          </button>
        </span>
        <span className="text-right">carries</span>
        <span className="text-right">scripts</span>
        <span className="text-right">read</span>
      </div>
      {moreShown && (
        <div className="px-6 py-2 flex gap-5 items-baseline border-b border-hair text-ink3">
          {(['publisher', 'licence'] as const).map((k) => (
            <label key={k}>
              {k}{' '}
              <input
                className="field w-36 text-ink"
                value={more[k]}
                onChange={(e) => setMore({ ...more, [k]: e.target.value })}
              />
            </label>
          ))}
          <label>
            published from{' '}
            <input
              className="field w-24 text-ink font-mono"
              placeholder="2024-03"
              value={more.from}
              onChange={(e) => setMore({ ...more, from: e.target.value })}
            />
          </label>
          <label>
            to{' '}
            <input
              className="field w-24 text-ink font-mono"
              placeholder="2025"
              value={more.to}
              onChange={(e) => setMore({ ...more, to: e.target.value })}
            />
          </label>
          <Filter
            label="Channel"
            value={more.channel}
            onChange={(channel) => setMore({ ...more, channel })}
            options={channels.map((c) => [c.id, c.name])}
            all="every channel"
          />
        </div>
      )}
      {shown.map((s) => (
        <Row key={s.id} source={s} px={px} onRemove={() => remove.mutate({ id: s.id, title: s.title })} />
      ))}
      {!searching && <Earlier shown={shown.length} of={count} what="sources" onMore={onMore} />}
      {searching && found.data && !shown.length && (
        <p className="px-6 py-3 text-ink2">No source holds that.</p>
      )}
      {!sources.length && (
        <p className="px-6 py-3 text-ink2">Nothing was read yet. A source is read where a script begins.</p>
      )}
    </section>
  );
}

function Filter({
  label,
  value,
  onChange,
  options,
  all,
}: {
  label: string;
  value: string;
  onChange: (v: string) => void;
  options: readonly (readonly [string, string])[];
  all: string;
}) {
  return (
    <select
      className="field py-0 text-[12px]"
      aria-label={label}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      <option value="">{all}</option>
      {options.map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

function Row({
  source: s,
  px,
  onRemove,
}: {
  source: SourceSummary & Partial<Pick<FoundSummary, 'found'>>;
  px: (ms: number) => number;
  onRemove: () => void;
}) {
  let total = 0;
  const lefts = s.strip.map((p) => (total += p.ms) - p.ms);
  return (
    <div className="border-b border-hair hover:bg-lit group">
      <div className={`${GRID} h-[28px] relative`}>
        <span className="flex gap-2 pr-4 min-w-0">
          <Link to={`/source/${s.id}`} className="font-medium truncate text-ink after:absolute after:inset-0">
            {s.title}
          </Link>{' '}
          <span className="text-ink3 whitespace-nowrap">{kindName(s.kind)}</span>
        </span>
        <svg height="12" width={STRIP_PX} role="img" aria-label={`${s.passages} passages, ${s.heard} heard`}>
          {s.strip.map((p, i) => (
            <rect
              key={i}
              x={px(lefts[i]) + 0.5}
              y="2.5"
              width={Math.max(1, px(p.ms) - 2)}
              height="7"
              fill={p.heard ? 'var(--ink2)' : 'none'}
              stroke="var(--ink2)"
              strokeWidth="1"
            />
          ))}
          {/* What is longer than the ruler goes on beyond it. */}
          {px(total) > STRIP_PX && (
            <>
              <rect x={STRIP_PX - 9} width="9" height="12" className="fill-sheet group-hover:fill-lit" />
              <path d={`M${STRIP_PX - 8} 11 l3 -10 M${STRIP_PX - 4} 11 l3 -10`} stroke="var(--ink2)" />
            </>
          )}
        </svg>
        <strong className="clock text-right">{clockText(total, false)}</strong>
        <span className="clock text-right text-ink2">{s.scripts || ''}</span>
        <span className="text-right text-ink3 text-[12px] flex justify-end gap-2">
          <button
            className="relative z-10 opacity-0 group-hover:opacity-100 focus-visible:opacity-100 text-ink2 underline cursor-pointer"
            aria-label={`Take “${s.title}” out of the library`}
            onClick={onRemove}
          >
            take out
          </button>
          {when(s.readAt)}
        </span>
      </div>
      {s.found && <Snippet text={s.found} />}
    </div>
  );
}

/** Words around what was searched for; the found ones between U+0002 and U+0003. */
function Snippet({ text }: { text: string }) {
  return (
    <p className="px-6 pb-1.5 font-serif text-[14px] leading-[19px] text-ink2 max-w-[860px]">
      {text.split('\u0002').map((piece, i) => {
        if (i === 0) return piece;
        const [hit, rest] = piece.split('\u0003');
        return (
          <span key={i}>
            <mark className="bg-transparent text-ink border-b-2 border-ink">{hit}</mark>
            {rest}
          </span>
        );
      })}
    </p>
  );
}
