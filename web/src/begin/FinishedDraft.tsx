/** A finished draft from elsewhere: pasted or opened, its narration shown, what is not spoken struck, before it goes on the Page. */
import { useMutation } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { readDraft, sceneOfNotes, underInWords, underVideo, type CleanedDraft } from '@ursprung/core/script';
import { api } from '../api.ts';
import { useChannels } from '../library/lists.ts';
import { Foot } from '../shell/Foot.tsx';
import { Rail } from '../shell/Rail.tsx';
import { useActions } from '../shell/commands.tsx';
import { base64Of } from '../text/base64.ts';
import { clockText } from '../text/clockText.ts';

/** Ten times the longest script. */
const LARGEST = 4 * 1024 * 1024;
const LEAST_SECONDS = 15;
const MOST_SECONDS = 25 * 60;
const wordsIn = (d: CleanedDraft) =>
  d.sections.reduce((n, s) => n + s.lines.reduce((k, l) => k + l.text.split(/\s+/).length, 0), 0);
const takenIn = (d: CleanedDraft) =>
  d.sections.reduce((n, s) => n + s.takenAfter.length + s.lines.reduce((k, l) => k + l.taken.length, 0), 0);

/** Scenes that the notes before its lines describe. */
const scenesIn = (d: CleanedDraft) =>
  d.sections.flatMap((s) => s.lines).filter((l) => sceneOfNotes(l.taken)).length;

export function FinishedDraft() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const [file, setFile] = useState<{ name: string; base64: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [channelId, setChannelId] = useState<string | null>(params.get('channel'));
  const input = useRef<HTMLInputElement>(null);
  const channels = useChannels().data ?? [];
  const channel = channels.find((c) => c.id === channelId) ?? channels[0];

  const opened = useMutation({ mutationFn: (base64: string) => api.clean({ base64 }) });
  const pasted = useMemo(() => (text.trim() ? readDraft(text) : null), [text]);
  const draft = file ? (opened.data ?? null) : pasted;
  const words = draft ? wordsIn(draft) : 0;
  const taken = draft ? takenIn(draft) : 0;
  const scenes = draft ? scenesIn(draft) : 0;
  const under = draft ? underInWords(underVideo(draft)) : '';
  const seconds =
    channel && words
      ? Math.min(MOST_SECONDS, Math.max(LEAST_SECONDS, Math.round((words / channel.settings.pace) * 60)))
      : 60;

  const add = useMutation({
    mutationFn: () =>
      api.addScript({
        channelId: channel!.id,
        frame: channel!.settings.frame,
        mood: channel!.settings.mood,
        pace: channel!.settings.pace,
        voice: channel!.settings.voice,
        target: { kind: 'point', seconds },
        ...(channel!.settings.fixed ? { fixed: channel!.settings.fixed } : {}),
        draft: file ? { base64: file.base64 } : { text },
      }),
    onSuccess: ({ id, notes }) => navigate(`/script/${id}/page`, { state: { notes } }),
  });
  const take = async (f: File | undefined) => {
    if (!f) return;
    if (f.size > LARGEST)
      return setProblem(`“${f.name}” is ${(f.size / 1048576).toFixed(1)} MB; a draft can have at most 4 MB.`);
    setProblem(null);
    const base64 = await base64Of(f);
    setFile({ name: f.name, base64 });
    opened.mutate(base64);
  };
  const actions = useMemo(
    () => [
      { id: 'draft-file', name: 'Open a file as draft', run: () => input.current?.click() },
      { id: 'begin', name: 'Begin from a source instead', run: () => navigate('/begin') },
      { id: 'library', name: 'Go to the library', run: () => navigate('/') },
    ],
    [navigate],
  );
  useActions('draft', actions);
  useEffect(() => void (document.title = 'A finished draft · Ursprung'), []);
  const error = problem ?? opened.error?.message ?? add.error?.message;
  return (
    <div className="screen">
      <Rail {...(channel ? { channel: channel.name } : {})} />
      <div className="flex-1 min-w-0 flex flex-col">
        <header className="deskhead border-b border-mark">
          <h1 className="font-serif text-[18px] font-medium flex-1">A finished draft</h1>
          {channels.length > 1 && (
            <select
              className="field"
              aria-label="Channel"
              value={channel?.id}
              onChange={(e) => setChannelId(e.target.value)}
            >
              {channels.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          )}
          <button
            className="press"
            disabled={!channel || !words || add.isPending}
            onClick={() => add.mutate()}
          >
            {add.isPending ? 'Taking it in…' : 'Put it on the Page'}
          </button>
        </header>
        {error && (
          <p className="px-6 py-2 bg-lit border-b border-hair" role="alert">
            <span className="finding">Not read.</span> {error} Nothing is lost; your text is still here.
          </p>
        )}
        <main className="stacks flex-1 min-h-0 grid grid-cols-2 gap-10 px-6 py-4">
          <section aria-label="Draft" className="flex flex-col min-h-0">
            <div className="columnhead border-b border-hair mb-2">the draft as it is</div>
            {file ? (
              <p>
                <strong>{file.name}</strong>{' '}
                <button className="quietpress" onClick={() => (setFile(null), opened.reset())}>
                  Paste a text instead
                </button>
              </p>
            ) : (
              <textarea
                className="flex-1 w-full bg-lit border border-mark p-4 font-serif text-[15.5px] leading-[22px] text-ink min-h-60"
                placeholder="Paste a script in any layout: headings, labels, two columns, a screenplay, captions, a reply from elsewhere"
                aria-label="Paste a draft"
                autoFocus
                value={text}
                onChange={(e) => setText(e.target.value)}
                onDragOver={(e) => e.preventDefault()}
                onDrop={(e) => {
                  if (!e.dataTransfer.files.length) return;
                  e.preventDefault();
                  void take(e.dataTransfer.files[0]);
                }}
              />
            )}
            <p className="pt-2">
              <button className="quietpress" onClick={() => input.current?.click()}>
                Open a file: text, Markdown, DOCX, HTML, Fountain, captions
              </button>
              <input
                ref={input}
                type="file"
                className="sr-only"
                tabIndex={-1}
                aria-label="A draft file"
                accept=".txt,.md,.docx,.html,.htm,.fountain,.srt,.vtt,.tsv"
                onChange={(e) => void take(e.target.files?.[0])}
              />
            </p>
          </section>
          <section aria-label="Narration" className="flex flex-col min-h-0">
            <div className="columnhead border-b border-hair mb-2">
              {draft
                ? `what is spoken: ${words} words, about ${clockText(seconds * 1000, false)}; ${taken} pieces set aside${scenes ? `, ${scenes} ${scenes === 1 ? 'scene' : 'scenes'} understood from them` : ''}${draft.layout === 'free' ? '' : ` (read as ${draft.layout})`}`
                : 'what is spoken'}
            </div>
            {under && <p className="pb-1 text-[12.5px] text-ink2">For the upload sheet: {under}.</p>}
            <div className="flex-1 overflow-auto" tabIndex={0} role="region" aria-label="What is spoken">
              {!draft && (
                <p className="emptyhint">
                  {opened.isPending ? 'reading…' : 'The narration appears here as you paste.'}
                </p>
              )}
              {draft && !words && <p className="finding">Nothing spoken was found in this draft.</p>}
              {draft?.sections.map((s, i) => (
                <div key={i} className="pb-3">
                  {s.title && <h2 className="font-semibold">{s.title}</h2>}
                  {s.lines.map((l, k) => (
                    <div key={k}>
                      {l.taken.map((t, n) => (
                        <s key={n} className="block text-ink3 text-[12.5px]">
                          {t.text}
                        </s>
                      ))}
                      <p className="font-serif text-[16px] leading-[23px]">
                        {l.speaker && <span className="text-ink3">{l.speaker}: </span>}
                        {l.text}
                      </p>
                    </div>
                  ))}
                  {s.takenAfter.map((t, n) => (
                    <s key={n} className="block text-ink3 text-[12.5px]">
                      {t.text}
                    </s>
                  ))}
                </div>
              ))}
            </div>
          </section>
        </main>
        <Foot keys={[]}>What is struck stays with the script as notes, each one press from being said.</Foot>
      </div>
    </div>
  );
}
