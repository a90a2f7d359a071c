/** What a source is and may be used for: kind, people, days, rights, its outline, who is in it, what is thin. */
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api, type SourcePatch, type SourceView } from '../api.ts';
import { clockText } from '../text/clockText.ts';
import { KINDS, RIGHT_WORDS } from './kinds.ts';
import { Renewing } from './Renewing.tsx';
import { Legend } from './Passages.tsx';

const CITE = [['apa', 'APA'], ['harvard1', 'Harvard'], ['vancouver', 'Vancouver'], ['csl-json', 'CSL-JSON'], ['ris', 'RIS']] as const; // prettier-ignore

export function About({
  source,
  part,
  onPart,
  onChoose,
  onChange,
  onRenewed,
  beside,
}: {
  source: SourceView;
  part: string | null;
  onPart: (part: string | null) => void;
  onChoose: (factId: string) => void;
  /** All sources of the script, this one too: their days stand on one timeline. */
  beside?: readonly (SourceView & { letter: string })[];
  onChange: (patch: SourcePatch) => void;
  /** Hears of the source as it is after it was read again. */
  onRenewed: (next: SourceView) => void;
}) {
  const { document: doc } = source;
  const timeline = (beside ?? [{ ...source, letter: '' }])
    .flatMap((s) => s.timeline.map((t) => ({ ...t, source: s.id, letter: s.letter })))
    .sort((a, b) => (a.iso < b.iso ? -1 : a.iso > b.iso ? 1 : 0));
  const carries = useQuery({
    queryKey: ['carries', source.id, doc.kind, source.marks],
    queryFn: () => api.carries({ sourceId: source.id, mood: 'calm', pace: 150, voice: 'even' }),
    retry: false,
  });
  const again = useMutation({ mutationFn: () => api.rereadSource(source.id) });
  const [style, setStyle] = useState('');
  const cite = useMutation({
    mutationFn: (s: string) => api.citation(source.id, s),
  });
  return (
    <div className="text-[12.5px] flex flex-col gap-3 pt-2 pb-6">
      <label className="block">
        <span className="text-ink3">kind </span>
        <select
          className="field w-full"
          aria-label="Kind of source"
          value={doc.kind}
          onChange={(e) => onChange({ kind: e.target.value as typeof doc.kind })}
        >
          {KINDS.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <span className="text-ink3">
          because {doc.kindReason}
          {doc.kindSure < 1 ? `, ${Math.round(doc.kindSure * 100)} % sure` : ''}
        </span>
      </label>
      <dl className="grid grid-cols-[64px_1fr] gap-x-2">
        <Entry name="by">{doc.authors?.join(', ')}</Entry>
        <Entry name="publisher">{doc.publisher}</Entry>
        <Entry name="published">{doc.published}</Entry>
        <Entry name="updated">{doc.updated}</Entry>
        <Entry name="language">{doc.language}</Entry>
        <Entry name="licence">{doc.licence}</Entry>
        <Entry name="link">{source.address}</Entry>
        <Entry name="format">{doc.format}</Entry>
      </dl>
      {doc.doubt && (
        <p>
          <span className="finding">Less sure.</span> {doc.doubt}
        </p>
      )}
      <label>
        <span className="text-ink3">may be retold </span>
        <select
          className="field"
          aria-label="May be retold"
          value={source.rights}
          onChange={(e) => onChange({ rights: e.target.value as typeof source.rights })}
        >
          {RIGHT_WORDS.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {(source.like ?? []).length > 0 && (
        <p>
          <span className="finding">Nearly the same</span> as{' '}
          {source.like!.map((l) => `“${l.title}” (${Math.round(l.share * 100)} %)`).join(', ')}.
        </p>
      )}
      <div>
        <div className="text-ink3">what is in it</div>
        {source.outline.map((p) => (
          <button
            key={p.id}
            className={`flex w-full text-left cursor-pointer items-center min-h-6 ${part === p.id ? 'font-semibold border-b-2 border-ink' : ''}`}
            aria-pressed={part === p.id}
            onClick={() => onPart(part === p.id ? null : p.id)}
          >
            <span className="flex-1">{p.name}</span>
            <span className="clock text-ink2">{p.facts.length}</span>
          </button>
        ))}
        {carries.data && (
          <p className="text-ink2 pt-1">
            Carries {clockText(carries.data.longestMs, false)} told fully,{' '}
            {clockText(carries.data.shortestMs, false)} told tightly, calm at 150 words a minute.
          </p>
        )}
        {source.thin.length > 0 && <p className="text-ink2 pt-1">Thin: {source.thin.join(', ')}.</p>}
      </div>
      {source.cast.length > 0 && (
        <div>
          <div className="text-ink3">people and places</div>
          {source.cast.slice(0, 12).map((c) => (
            <div key={c.name} className="flex">
              <span className="flex-1">
                <span
                  className={`${c.type === 'place' ? 'underline decoration-dashed' : 'underline decoration-dotted'} underline-offset-4`}
                >
                  {c.name}
                </span>
                {c.age !== undefined && `, ${c.age}`}
                {c.looks.slice(0, 2).map((l) => (
                  <span key={l.text} className="block text-ink3 pl-2">
                    {l.text}
                  </span>
                ))}
              </span>
              <span className="clock text-ink2">{c.facts.length}</span>
            </div>
          ))}
        </div>
      )}
      {timeline.length > 0 && (
        <details>
          <summary className="text-ink3 cursor-pointer min-h-6">
            timeline, {timeline.length} dated facts
          </summary>
          {timeline.map((t) => (
            <button
              key={`${t.letter}${t.fact}${t.iso}`}
              className="grid grid-cols-[76px_1fr] text-left py-0.5 min-h-6 cursor-pointer w-full"
              onClick={() => t.source === source.id && onChoose(t.fact)}
            >
              <span className="clock pt-0.5">{t.iso}</span>
              <span>
                {t.letter && <strong className="font-serif">{t.letter} </strong>}
                {t.text.length > 70 ? `${t.text.slice(0, 68)}…` : t.text}
              </span>
            </button>
          ))}
        </details>
      )}
      {source.glossary.length > 0 && (
        <div>
          <div className="text-ink3">hard words</div>
          {source.glossary.slice(0, 8).map((g) => (
            <div key={g.term}>
              <strong className="font-semibold">{g.term}</strong> {g.says.text}
            </div>
          ))}
        </div>
      )}
      {source.older && <Renewing source={source} onRenewed={onRenewed} />}
      <Legend />
      <div className="flex flex-wrap gap-x-4 gap-y-1 items-baseline">
        {source.address && (
          <button className="textpress" disabled={again.isPending} onClick={() => again.mutate()}>
            {again.isPending ? 'Reading…' : 'Read it again'}
          </button>
        )}
        <a className="textpress" href={`/api/sources/${source.id}/original`} download>
          Original
        </a>
        <label>
          cite{' '}
          <select
            className="field py-0"
            aria-label="Cite as"
            value={style}
            onChange={(e) => (setStyle(e.target.value), e.target.value && cite.mutate(e.target.value))}
          >
            <option value="">as…</option>
            {CITE.map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {cite.isError && <p className="finding">{cite.error.message}</p>}
      {style && cite.data && (
        <textarea
          readOnly
          className="w-full bg-lit border border-mark p-2 font-mono text-[11px] h-24 text-ink"
          aria-label="Citation"
          value={cite.data}
          onFocus={(e) => e.currentTarget.select()}
        />
      )}
      {again.isError && (
        <p role="alert">
          <span className="finding">Not read again.</span> {again.error.message}
        </p>
      )}
      {again.data && (
        <div role="status">
          {again.data.removed.length + again.data.added.length === 0 ? (
            'Nothing has changed since.'
          ) : (
            <>
              <span className="finding">Changed since.</span>
              {again.data.removed.map((r) => (
                <p key={r.block} className="line-through text-ink3">
                  {r.text.slice(0, 220)}
                </p>
              ))}
              {again.data.added.map((t) => (
                <p key={t} className="underline decoration-spruce">
                  {t.slice(0, 220)}
                </p>
              ))}
              <p>
                {again.data.lines.length
                  ? `${again.data.lines.length} script lines rest on changed words: ${again.data.lines.map((l) => `“${l.text.slice(0, 60)}” in ${l.title}`).join('; ')}`
                  : 'No script line rests on changed words.'}
              </p>
            </>
          )}
        </div>
      )}
    </div>
  );
}

function Entry({ name, children }: { name: string; children: ReactNode }) {
  if (!children) return null;
  return (
    <>
      <dt className="text-ink3">{name}</dt>
      <dd className="m-0 wrap-anywhere">{children}</dd>
    </>
  );
}
