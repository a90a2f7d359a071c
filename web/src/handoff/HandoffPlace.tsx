/** Handoff: for whom, a page of what they get, the files, and what has changed since they last got them. */
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { openIn } from '@ursprung/core/desk';
import { RECIPIENTS, type Recipient } from '@ursprung/core/handoff/desk';
import { api, type HandoffSettings, type HandoffView, type Sheet } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { RIGHT_WORDS, mayRetell } from '../sources/kinds.ts';
import { clockText } from '../text/clockText.ts';
import { handoffOf } from './settings.ts';
import { FileRow } from './FileRow.tsx';
import { OnRecording } from './OnRecording.tsx';
import { KitSettings } from './KitSettings.tsx';
import { Preview } from './Preview.tsx';

const FOR: Record<Recipient, { name: string; says: string; first: string }> = {
  voice: { name: 'Voice', says: 'whoever speaks it, or a synthesizer', first: 'page' },
  editor: { name: 'Picture editor', says: 'scenes, timelines, captions', first: 'csv' },
  translator: { name: 'Translator', says: 'words with their seconds', first: 'translation' },
  uploader: { name: 'Uploader', says: 'title, description, chapters', first: 'upload' },
  archive: { name: 'Archive', says: 'everything to read back', first: 'markdown' },
};
/** What a recipient sees first that is no file: a page of our own. */
const PAGES: Partial<Record<Recipient, { id: string; name: string; says: string }>> = {
  voice: {
    id: 'page',
    name: 'The page to speak from',
    says: 'large text, breaths and rests; works on a phone',
  },
  editor: { id: 'captions', name: 'Captions on their clock', says: 'what is hurried, and where' },
  translator: { id: 'translation', name: 'Languages', says: 'translations, and what no longer fits' },
  uploader: { id: 'upload', name: 'The upload, part by part', says: 'every part can be worded otherwise' },
};

export function HandoffPlace({ session }: { session: ScriptSession }) {
  const snapshot = useSnapshot(session, (s) => s);
  const [query, setQuery] = useSearchParams();
  const navigate = useNavigate();
  const client = useQueryClient();
  const asked = query.get('for') as Recipient | null;
  const who: Recipient = asked && RECIPIENTS.includes(asked) ? asked : 'voice';
  const language = query.get('language');
  const shown = query.get('show') ?? FOR[who].first;
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const { id } = session.script;
  const kits = useQuery({ queryKey: ['handoffs', id], queryFn: () => api.handoffs(id) });
  /** A sheet that was asked for before a kit was made knows nothing of it. */
  const newest = kits.data?.handoffs.find((h) => h.state === 'done')?.id;
  // Files are written from what the server has: asked again once everything is saved.
  const saved = snapshot.save === 'saved';
  const sheet = useQuery({
    queryKey: ['sheet', id, language, saved ? snapshot.sections : 'unsaved', snapshot.settingsTaken, newest],
    queryFn: () => api.sheet(id, language),
    enabled: saved,
    placeholderData: keepPreviousData,
    retry: 1,
    gcTime: 0,
  });
  const open = useMemo(() => openIn(snapshot.sections), [snapshot.sections]);
  const { handing, make } = useKit(id, () => void client.invalidateQueries({ queryKey: ['handoffs', id] }));
  const go = (change: Record<string, string | null>) =>
    setQuery((q) => {
      for (const [k, v] of Object.entries(change))
        if (v === null) q.delete(k);
        else q.set(k, v);
      return q;
    });
  const formats = useMemo(
    () => (sheet.data?.formats ?? []).filter((f) => f.for.includes(who)),
    [sheet.data, who],
  );
  const last = (r: Recipient) => kits.data?.handoffs.find((h) => h.who === r && h.state === 'done');
  const own = handoffOf(snapshot.settings);
  const change = (c: Partial<HandoffSettings>) => void session.change({ handoff: { ...own, ...c } });
  const onKey = (e: React.KeyboardEvent) => {
    if (/^(?:INPUT|TEXTAREA|SELECT)$/.test((e.target as HTMLElement).tagName)) return;
    if (e.key === 'Escape') void navigate(`/script/${id}/page`);
  };

  return (
    <div className="flex-1 min-h-0 flex flex-col" onKeyDown={onKey}>
      <div className="stacks flex-1 min-h-0 flex">
        <nav className="w-[214px] shrink-0 overflow-auto border-r border-hair pl-6" aria-label="For whom">
          <p className="columnhead !px-0">for whom</p>
          {RECIPIENTS.map((r) => (
            <button
              key={r}
              className={`block w-full text-left border-t border-hair py-2 pr-3 cursor-pointer ${r === who ? 'bg-lit border-l-[3px] border-l-edge pl-2 -ml-2' : ''}`}
              aria-current={r === who}
              onClick={() => go({ for: r, show: null, language: r === 'translator' ? language : null })}
            >
              <strong className="block">{FOR[r].name}</strong>
              <span className="block text-ink2 text-[12px] leading-4">{FOR[r].says}</span>
              <span className="block text-ink3 text-[12px] leading-4">{since(last(r), sheet.data)}</span>
            </button>
          ))}
          <OnRecording own={own} sections={snapshot.sections} onChange={change} />
          <KitSettings
            own={own}
            onChange={change}
            voice={sheet.data?.voice ?? 0}
            totalMs={snapshot.totalMs}
          />
        </nav>
        <main className="flex-1 min-w-0 overflow-auto bg-lit" aria-label="Preview" tabIndex={0}>
          {!saved && (
            <p className="px-6 py-2" role="status">
              <span className="finding">Not all is saved yet.</span> The files hold what the server has.
            </p>
          )}
          {open.count > 0 && (
            <p className="px-6 py-2 m-0" role="status">
              <span className="finding">
                {open.count === 1 ? 'One place is' : `${open.count} places are`} still open
              </span>
              , {(open.ms / 1000).toFixed(1)} s in all: nothing is said there, in any file.
            </p>
          )}
          {sheet.isError && <p className="p-10 finding">{sheet.error.message}</p>}
          {!sheet.data && !sheet.isError && (
            <p className="p-10 font-serif text-[18px] text-ink2">Working it out…</p>
          )}
          {sheet.data && (
            <Preview
              sheet={sheet.data}
              what={shown}
              language={language}
              session={session}
              own={own}
              onChange={change}
              onLanguage={(l) => go({ language: l })}
            />
          )}
        </main>
        <aside className="w-[320px] shrink-0 overflow-auto border-l border-hair px-4 pb-6" aria-label="Files">
          <p className="columnhead !px-0">
            {formats.length - formats.filter((f) => without.has(f.id)).length} files for the{' '}
            {FOR[who].name.toLowerCase()}
          </p>
          {PAGES[who] && (
            <FileRow
              name={PAGES[who].name}
              says={PAGES[who].says}
              chosen={shown === PAGES[who].id}
              onShow={() => go({ show: PAGES[who]!.id })}
            />
          )}
          {formats.map((f) => (
            <FileRow
              key={f.id}
              name={f.name}
              file={f.file}
              says={f.says}
              chosen={shown === f.id}
              left={without.has(f.id)}
              address={api.exportAddress(id, f.id, { language })}
              onShow={() => go({ show: f.id })}
              onLeave={() =>
                setWithout((w) =>
                  w.has(f.id) ? new Set([...w].filter((x) => x !== f.id)) : new Set([...w, f.id]),
                )
              }
            />
          ))}
          {sheet.data &&
            'refused' in sheet.data.upload.chapters &&
            (who === 'uploader' || who === 'editor') && (
              <p className="pt-2 text-[12.5px]">
                <span className="finding">No chapters.</span> {sheet.data.upload.chapters.refused}
              </p>
            )}
          {session.sources
            .filter((s) => !mayRetell(s.rights))
            .map((s) => (
              <p key={s.letter} className="pt-2 text-[12.5px]">
                <span className="finding">
                  {s.rights === 'asked' ? 'Asked, not granted yet:' : 'Not asked whether it may be retold:'}
                </span>{' '}
                {s.document.title}{' '}
                <span className="text-ink3">{RIGHT_WORDS.find(([r]) => r === s.rights)![1]}</span>
              </p>
            ))}
          <div className="pt-4 flex items-center gap-3">
            <button
              className="press shrink-0 whitespace-nowrap"
              disabled={!saved || handing?.state === 'waiting' || handing?.state === 'writing'}
              onClick={() => void make({ who, without: [...without], language })}
            >
              Save one zip
            </button>
            <span className="text-ink2 text-[12.5px]" role="status">
              {handing ? stageOf(handing) : 'with a list and checksums; marks it as handed over'}
            </span>
          </div>
          {handing?.state === 'failed' && <p className="finding pt-2">{handing.message}</p>}
          {handing?.left.map((l) => (
            <p key={l.format} className="text-[12.5px] pt-1">
              <span className="finding">Left out: {l.format}.</span> {l.why}
            </p>
          ))}
          <h3 className="columnhead !px-0 mt-4 border-b border-hair">handed over</h3>
          {(kits.data?.handoffs ?? [])
            .filter((h) => h.state === 'done')
            .slice(0, 6)
            .map((h) => (
              <p key={h.id} className="flex justify-between text-[12.5px] border-b border-hair py-1">
                <span>
                  {h.who ? FOR[h.who].name : 'everybody'}
                  {h.language ? `, ${h.language}` : ''}, {h.files.length} files
                </span>
                <a className="textpress" href={`/api/handoffs/${h.id}/zip`} download>
                  {new Date(h.at).toLocaleString(undefined, {
                    day: 'numeric',
                    month: 'short',
                    hour: '2-digit',
                    minute: '2-digit',
                  })}
                </a>
              </p>
            ))}
          {kits.data && !kits.data.handoffs.length && (
            <p className="text-ink3 text-[12.5px] py-1">nothing yet</p>
          )}
        </aside>
      </div>
      <Foot keys={[['Esc', 'back to the Page']]}>
        <strong>{FOR[who].name}</strong> {clockText(snapshot.totalMs)}, {snapshot.words} words,{' '}
        {snapshot.scenes.length} scenes
      </Foot>
    </div>
  );
}

function since(last: HandoffView | undefined, sheet: Sheet | undefined): string {
  if (!last) return 'never handed over';
  const when = new Date(last.at).toLocaleDateString(undefined, { day: 'numeric', month: 'long' });
  if (!sheet?.changed) return `handed over ${when}`;
  return sheet.changed.same ? `as handed over ${when}` : `${sheet.changed.says.join(' ')} Since ${when}.`;
}
const stageOf = (h: HandoffView) =>
  h.state === 'done'
    ? 'made; saved on this machine'
    : h.state === 'failed'
      ? 'not made'
      : h.of
        ? `${h.stage}, ${h.done} of ${h.of}`
        : h.stage;

/** Makes a kit as a job and saves it when it is done. */
function useKit(scriptId: string, onDone: () => void) {
  const [handing, setHanding] = useState<HandoffView | null>(null);
  const [events, setEvents] = useState<EventSource | null>(null);
  useEffect(() => () => events?.close(), [events]);
  const make = async (input: { who: Recipient | null; without: string[]; language: string | null }) => {
    try {
      const row = await api.makeKit(scriptId, input);
      setHanding(row);
      const stream = new EventSource(`/api/handoffs/${row.id}/events`);
      setEvents(stream);
      stream.onmessage = (e: MessageEvent<string>) => {
        const next = JSON.parse(e.data) as HandoffView;
        setHanding(next);
        if (next.state !== 'done' && next.state !== 'failed') return;
        stream.close();
        onDone();
        if (next.state !== 'done') return;
        saveZip(next.id).catch((error: Error) =>
          setHanding({ ...next, state: 'failed', message: error.message }),
        );
      };
    } catch (error) {
      setHanding({
        id: '',
        who: input.who,
        language: null,
        state: 'failed',
        stage: 'not made',
        done: 0,
        of: 0,
        message: (error as Error).message,
        files: [],
        left: [],
        at: '',
      });
    }
  };
  return { handing, make };
}

/** Fetched first, so that the page itself never goes anywhere. */
async function saveZip(id: string): Promise<void> {
  const { name, blob } = await api.kit(id);
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
