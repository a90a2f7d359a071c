/** Begin: a source, what it carries, and the brief; one press drafts. */
import { Row } from './Row.tsx';
import { DraftBy, type DraftedBy } from './DraftBy.tsx';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { RequestError, api, type ChannelSettings, type SourceName, type SourceView } from '../api.ts';
import { Earlier } from '../library/Earlier.tsx';
import { useChannels, useSourceNames } from '../library/lists.ts';
import { Choice } from '../shell/Choice.tsx';
import { useSettled } from '../shell/useSettled.ts';
import { FactNames, factNamesOf } from '../text/factNames.ts';
import { Foot } from '../shell/Foot.tsx';
import { Rail } from '../shell/Rail.tsx';
import { useActions } from '../shell/commands.tsx';
import {
  CoverField,
  FrameChoice,
  GenreChoice,
  ListenerFields,
  MoodChoice,
  PaceSlider,
  TargetKindChoice,
  USUAL_PACE,
  VoiceChoice,
  lengthProblem as problemOf,
  readLength,
} from '../brief/fields.tsx';
import { base64Of } from '../text/base64.ts';
import { clockText } from '../text/clockText.ts';
import { KINDS, kindName } from '../sources/kinds.ts';
import { Strength } from '../sources/Strength.tsx';
import { AUDIENCES, PERSONS, pointFinder, toAddSays, type Genre } from '@ursprung/core/desk';
import type { Angle, ShapeId } from '@ursprung/core/plan';
import { Angles } from './Angles.tsx';
import { LengthStrip } from './LengthStrip.tsx';
import { fileOf, isUntouched, pastedPage, type PastedPage } from './pastedPage.ts';
import { useReading } from './useReading.ts';

type Target = { kind: 'point' | 'floor' | 'ceiling'; seconds: number };
/** So many of the sources that are read already are shown at a time. */
const KNOWN = 40;
const QUICK = [30, 60, 180, 300, 360, 600];
const LARGEST_FILE = 40 * 1024 * 1024;
/** Formats the server opens; it looks at the content, so this only helps the file chooser. */
const FILES =
  '.txt,.md,.markdown,.html,.htm,.mhtml,.mht,.pdf,.docx,.odt,.epub,.xml,.ris,.bib,.json,.srt,.vtt,.eml,.rss,.atom,text/*';
const isLink = (text: string) => /^\s*https?:\/\/\S+\s*$/i.test(text);

const counted = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;

export function Begin() {
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const client = useQueryClient();
  const [by, setBy] = useState<DraftedBy>('rule');
  const channels = useChannels().data ?? [];
  const known = useSourceNames().data ?? [];
  const [mostKnown, setMostKnown] = useState(KNOWN);
  const [channelId, setChannelId] = useState(params.get('channel') ?? '');
  const channel = channels.find((c) => c.id === channelId) ?? channels[0];

  const [text, setText] = useState('');
  const [source, setSource] = useState<SourceView | null>(null);
  const [title, setTitle] = useState('');
  /** Further sources beside the first, by id. */
  const [beside, setBeside] = useState<readonly string[]>([]);
  const [own, setOwn] = useState<Partial<ChannelSettings>>({});
  const [kind, setKind] = useState<Target['kind']>('point');
  const [length, setLength] = useState('');
  const [shape, setShape] = useState<string>('best');
  const [page, setPage] = useState(0);
  const [angle, setAngle] = useState<Angle | null>(null);
  const [reveal, setReveal] = useState(0);
  const [audience, setAudience] = useState<(typeof AUDIENCES)[number]>('anyone');
  const [told, setTold] = useState<{
    genre?: Genre | undefined;
    whose: string;
    listener: string;
    known: readonly string[];
    cover: readonly string[];
  }>({ whose: '', listener: '', known: [], cover: [] });
  const [more, setMore] = useState(false);
  const [person, setPerson] = useState<string>('as told');
  const fileInput = useRef<HTMLInputElement>(null);
  /** The page that the text was copied from, while nothing of it was changed. */
  const [pasted, setPasted] = useState<PastedPage | null>(null);

  const frame = own.frame ?? channel?.settings.frame ?? '16:9';
  const mood = own.mood ?? channel?.settings.mood ?? 'calm';
  const voice = own.voice ?? channel?.settings.voice ?? 'even';
  const pace = own.pace ?? channel?.settings.pace ?? 150;
  const seconds = length
    ? readLength(length).seconds
    : channel
      ? Math.min(180, channel.settings.usual.from)
      : 180;
  const lengthProblem = problemOf(seconds);

  const show = (s: SourceView) => {
    setSource(s);
    setTitle(s.document.title.slice(0, 200));
    void client.invalidateQueries({ queryKey: ['library'] });
  };
  const reader = useReading(show);
  const open = useMutation({ mutationFn: api.source, onSuccess: show });
  const overrule = useMutation({
    mutationFn: (k: SourceView['document']['kind']) => api.changeSource(source!.id, { kind: k }),
    onSuccess: show,
  });
  const must = useMutation({
    mutationFn: ({ fact, ticked }: { fact: string; ticked: boolean }) =>
      api.changeSource(source!.id, { marks: { [fact]: { mark: ticked ? 'must' : null } } }),
    onSuccess: setSource,
    onError: () => open.mutate(source!.id),
  });
  /** A tick shows at once; the server's answer follows. */
  const tick = (fact: string) => {
    const { [fact]: before, ...rest } = source!.marks;
    const ticked = before?.mark !== 'must';
    setSource({ ...source!, marks: ticked ? { ...rest, [fact]: { mark: 'must' } } : rest });
    must.mutate({ fact, ticked });
  };
  // What is dragged or typed is asked about when it rests.
  const restingPace = useSettled(pace);
  const carriesInput = source && {
    sourceId: source.id,
    ...(beside.length ? { others: [...beside] } : {}),
    mood,
    pace: restingPace,
    voice,
    ...(shape === 'best' ? {} : { shape }),
  };
  const carries = useQuery({
    queryKey: ['carries', carriesInput, source?.document.kind, source?.marks],
    queryFn: () => api.carries(carriesInput!),
    enabled: Boolean(source) && restingPace >= 40 && restingPace <= 400,
    retry: false,
    placeholderData: (old) => old,
  });
  const promised = useQuery({
    queryKey: ['promise', source?.id, beside, voice, restingPace, page, source?.document.kind],
    queryFn: () => api.promise({ sourceId: source!.id, others: [...beside], voice, pace: restingPace, page }),
    enabled: Boolean(source) && restingPace >= 40 && restingPace <= 400,
    retry: false,
    placeholderData: (old) => old,
  });
  const names = useMemo(() => factNamesOf(source ? [{ letter: 'A', facts: source.facts }] : []), [source]);
  const asked = title.trim();
  const resting = useSettled(asked);
  const check = useQuery({
    queryKey: ['title', source?.id, beside, resting],
    queryFn: () => api.promise({ sourceId: source!.id, others: [...beside], voice, pace, title: resting }),
    enabled: Boolean(source) && resting.length > 3 && !promised.data?.titles.some((t) => t.text === resting),
    retry: false,
    staleTime: 60_000,
  });
  const checked = resting === asked ? check.data : undefined;
  const unpaid =
    checked?.check && !checked.check.paid && asked !== source?.document.title.trim()
      ? checked.check.why
      : null;
  const chosenTitle = promised.data?.titles.find((t) => t.text === asked);
  // The source's own title promises the source: it asks for no fact of its own.
  const itsOwn = asked === source?.document.title.slice(0, 200).trim();
  const pays = itsOwn
    ? undefined
    : (chosenTitle?.pays ?? (checked?.check?.paid ? checked.check.pays : undefined));
  const reveals = promised.data?.beats?.reveals ?? [];
  const revealed = reveals.length ? reveals[reveal % reveals.length] : undefined;
  const promise =
    source && (pays || angle || revealed)
      ? {
          ...(revealed ? { reveal: revealed } : {}),
          ...(pays ? { pays, sentence: chosenTitle?.sentence ?? checked?.sentence ?? '' } : {}),
          ...(angle ? { angle: { says: angle.says, facts: [...angle.facts] } } : {}),
        }
      : null;
  const brief = {
    mood,
    audience,
    listener: told.listener,
    known: [...told.known],
    cover: [...told.cover],
    whose: told.whose,
    ...(told.genre ? { genre: told.genre } : {}),
    ...(channel?.settings.house ? { house: channel.settings.house } : {}),
    ...(person === 'as told' ? {} : { person: person as (typeof PERSONS)[number] }),
  };
  const draft = useMutation({
    mutationFn: () =>
      api.addScript({
        channelId: channel!.id,
        ...(source ? { sourceId: source.id, others: [...beside] } : {}),
        ...(title.trim() ? { title: title.trim() } : {}),
        frame,
        mood,
        pace,
        voice,
        target: { kind, seconds },
        ...(shape === 'best' || !source ? {} : { shape: shape as ShapeId }),
        ...(promise ? { promise } : {}),
        brief,
        ...(channel?.settings.fixed ? { fixed: channel.settings.fixed } : {}),
        seed: 1,
      }),
    onSuccess: async ({ id, notes }) => {
      if (by === 'rule' || !source) return navigate(`/script/${id}/page`, { state: { notes } });
      // What the service makes of it is seen where it comes in; a script by rule stands there meanwhile.
      const problem =
        by === 'service'
          ? await api.startRounds(id, {}).then(
              () => null,
              (e: Error) => e.message,
            )
          : null;
      return navigate(`/script/${id}/commission`, { state: { problem } });
    },
  });

  const file = async (f: File | undefined) => {
    if (!f) return;
    if (f.size > LARGEST_FILE) {
      setProblem(
        `“${f.name}” is ${(f.size / 1048576).toFixed(1)} MB; a source can have at most 40 MB. Paste the part you need.`,
      );
      return;
    }
    setProblem(null);
    reader.start({ base64: await base64Of(f) });
  };
  const [problem, setProblem] = useState<string | null>(null);
  const asPage = pasted && isUntouched(pasted, text) ? pasted : null;
  const read = async () => {
    setProblem(null);
    if (isLink(text)) reader.start({ address: text.trim() });
    else reader.start(asPage ? { base64: await base64Of(fileOf(asPage)) } : { text });
  };
  const tooLong = carries.data && !lengthProblem && seconds * 1000 > carries.data.longestMs;
  const belowWhole = carries.data && !lengthProblem && seconds * 1000 < carries.data.shortestMs;

  const actions = useMemo(
    () => [
      { id: 'file', name: 'Open a file as source', run: () => fileInput.current?.click() },
      { id: 'library', name: 'Go to the library', run: () => navigate('/') },
    ],
    [navigate],
  );
  useActions('begin', actions);
  useEffect(() => void (document.title = 'Begin · Ursprung'), []);
  const reading = reader.now !== null || open.isPending || overrule.isPending;
  const error = problem ?? reader.problem ?? (open.error ?? overrule.error)?.message;
  const wantedSource = params.get('source');
  const { mutate: openSource } = open;
  useEffect(() => void (wantedSource && openSource(wantedSource)), [wantedSource, openSource]);

  /** How reading goes, and what went wrong: straight under what was given to be read. */
  const report = (
    <>
      {reader.now && (
        <p role="status" className="pt-3 flex gap-4 items-baseline">
          <span className="flex-1">
            <strong>{reader.now.stage}</strong>
            {reader.now.of > 0 && ` ${reader.now.done} of ${reader.now.of}`}
          </span>
          <button className="textpress" onClick={reader.stop}>
            Stop reading
          </button>
        </p>
      )}
      {error && (
        <p role="alert" className="pt-3">
          <span className="finding">This could not be read.</span> {error}{' '}
          {text.trim() && <span className="text-ink3">What you pasted is still here.</span>}
        </p>
      )}
    </>
  );
  return (
    <div className="screen">
      <Rail {...(channel ? { channel: channel.name } : {})} />
      <div className="flex-1 min-w-0 flex flex-col">
        <header className="deskhead">
          <h1 className="sr-only">Begin a script</h1>
          <input
            className="field border-transparent font-serif text-[18px] font-medium flex-1 min-w-0"
            value={title}
            placeholder="No title yet"
            aria-label="Title"
            maxLength={200}
            onChange={(e) => setTitle(e.target.value)}
          />
          {unpaid && (
            <span className="max-w-[420px] truncate" role="status" title={unpaid}>
              <span className="finding">Not paid for.</span> {unpaid}
            </span>
          )}
          <span className={title.length > 60 ? 'finding' : 'text-ink3'}>
            {title ? `${title.length} letters` : ''}
          </span>
        </header>
        <LengthStrip
          source={source}
          carries={carries.data ?? null}
          target={{ kind, seconds: lengthProblem ? NaN : seconds }}
          reading={reader.now}
          more={beside.length}
          onDrag={(s) => setLength(clockText(s * 1000, false))}
        />
        <main className="beginplace">
          <section aria-label="Source">
            <div className="columnhead border-b border-hair mb-3">source</div>
            {!source ? (
              <>
                <textarea
                  className="w-full h-[340px] bg-lit border border-mark p-4 font-serif text-[15.5px] leading-[22px] text-ink"
                  placeholder="Paste a text or a link: an article, an entry, an abstract, a story, a guide, an interview"
                  aria-label="Paste a source"
                  value={text}
                  onChange={(e) => setText(e.target.value)}
                  onPaste={(e) => setPasted(pastedPage(e.clipboardData))}
                  onDragOver={(e) => e.preventDefault()}
                  onDrop={(e) => {
                    if (!e.dataTransfer.files.length) return;
                    e.preventDefault();
                    void file(e.dataTransfer.files[0]);
                  }}
                />
                <div className="flex flex-wrap items-center gap-x-6 gap-y-1 pt-3">
                  <button className="press" disabled={!text.trim() || reading} onClick={() => void read()}>
                    {reading ? 'Reading…' : isLink(text) ? 'Fetch and read it' : 'Read it'}
                  </button>
                  <button className="quietpress" onClick={() => fileInput.current?.click()}>
                    Open a file
                  </button>
                  <button className="quietpress" onClick={() => navigate('/draft')}>
                    The script is finished: take it in
                  </button>
                  <input
                    ref={fileInput}
                    type="file"
                    accept={FILES}
                    className="sr-only"
                    tabIndex={-1}
                    aria-label="File"
                    onChange={(e) => (void file(e.target.files?.[0]), (e.target.value = ''))}
                  />
                  <span className="text-ink3">
                    text, saved pages, PDF, DOCX, ODT, EPUB, captions, records, mail
                  </span>
                </div>
                {asPage && (
                  <p className="pt-2 text-[12.5px] text-ink2">
                    Read as the page it was copied from, by its layout.{' '}
                    <button className="textpress" onClick={() => setPasted(null)}>
                      Read the words alone
                    </button>
                  </p>
                )}
                {report}
                {known.length > 0 && (
                  <div className="pt-6">
                    <div className="columnhead border-b border-hair">or one that is read already</div>
                    {known.slice(0, mostKnown).map((s) => (
                      <button
                        key={s.id}
                        className="block w-full text-left py-1 border-b border-hair hover:bg-lit cursor-pointer"
                        onClick={() => open.mutate(s.id)}
                      >
                        {s.title} <span className="text-ink3">{kindName(s.kind)}</span>
                      </button>
                    ))}
                    <Earlier
                      shown={Math.min(mostKnown, known.length)}
                      of={known.length}
                      what="sources"
                      onMore={() => setMostKnown(mostKnown + KNOWN)}
                    />
                  </div>
                )}
              </>
            ) : (
              <Understood
                source={source}
                onMust={tick}
                promise={
                  <>
                    {revealed && (
                      <Reveal
                        text={source.facts.find((f) => f.id === revealed)?.text ?? ''}
                        more={reveals.length > 1}
                        onOther={() => setReveal((r) => r + 1)}
                      />
                    )}
                    <FactNames value={names}>
                      <Angles
                        promised={promised.data ?? null}
                        page={page}
                        chosen={angle?.id ?? null}
                        title={asked}
                        onPage={setPage}
                        onAngle={setAngle}
                        onTitle={(t) => setTitle(t.text)}
                      />
                    </FactNames>
                  </>
                }
                beside={
                  <Beside
                    chosen={beside}
                    all={known.filter((s) => s.id !== source.id)}
                    onChange={setBeside}
                  />
                }
                onKind={(k) => overrule.mutate(k)}
                onOther={() => (
                  setSource(null),
                  setTitle(''),
                  setBeside([]),
                  setAngle(null),
                  setPage(0),
                  reader.clear(),
                  open.reset(),
                  draft.reset()
                )}
              />
            )}
            {source && report}
          </section>
          <section aria-label="Brief" className="brief">
            <div className="columnhead border-b border-hair">brief</div>
            <Row name="channel">
              {channels.length ? (
                <select
                  className="field"
                  aria-label="Channel"
                  value={channel?.id}
                  onChange={(e) => (setChannelId(e.target.value), setOwn({}))}
                >
                  {channels.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.name}
                    </option>
                  ))}
                </select>
              ) : (
                <span>
                  none yet;{' '}
                  <button className="textpress" onClick={() => navigate('/')}>
                    add one in the library
                  </button>
                </span>
              )}
            </Row>
            <Row name="length">
              <TargetKindChoice value={kind} onChange={setKind} />
              <div className="flex items-baseline gap-3 pt-1 flex-wrap">
                <input
                  className="field w-20 font-mono font-semibold"
                  aria-label="Length"
                  value={length}
                  placeholder={clockText(seconds * 1000 || 180_000, false)}
                  onChange={(e) => setLength(e.target.value)}
                />
                {QUICK.map((s) => (
                  <button
                    key={s}
                    className="clock text-ink2 underline underline-offset-4 decoration-mark cursor-pointer min-h-6"
                    onClick={() => setLength(clockText(s * 1000, false))}
                  >
                    {clockText(s * 1000, false)}
                  </button>
                ))}
              </div>
              {lengthProblem && (
                <p role="alert">
                  <span className="finding">{lengthProblem}</span>
                </p>
              )}
            </Row>
            <Row name="frame">
              <FrameChoice
                value={frame}
                onChange={(v) => setOwn({ ...own, frame: v, pace: own.pace ?? USUAL_PACE[v] })}
              />
            </Row>
            <Row name="mood">
              <MoodChoice value={mood} onChange={(v) => setOwn({ ...own, mood: v })} />
            </Row>
            <Row name="listener">
              <Choice
                label="Who listens"
                value={audience}
                onChange={setAudience}
                options={AUDIENCES.map((a) => [a, a] as const)}
              />
            </Row>
            <Row name="person">
              <Choice
                label="Person"
                value={person}
                onChange={setPerson}
                options={[
                  ['as told', 'as told'] as const,
                  ...PERSONS.map((p) => [p, p === 'i' ? 'I' : p] as const),
                ]}
              />
            </Row>
            <Row name="voice">
              <VoiceChoice value={voice} onChange={(v) => setOwn({ ...own, voice: v })} />
            </Row>
            <Row name="pace">
              <PaceSlider value={pace} onChange={(v) => setOwn({ ...own, pace: v })} />
              <div className="text-ink3">
                {lengthProblem ? '' : `about ${Math.round((seconds * pace) / 60)} words`}
              </div>
            </Row>
            {more && (
              <>
                <Row name="they are">
                  <ListenerFields
                    listener={told.listener}
                    known={told.known}
                    onChange={(change) => setTold({ ...told, ...change })}
                  />
                </Row>
                <Row name="piece">
                  <GenreChoice
                    value={told.genre}
                    whose={told.whose}
                    onChange={(change) => setTold({ ...told, ...change })}
                  />
                </Row>
                <Row name="to cover">
                  <CoverField value={told.cover} onChange={(cover) => setTold({ ...told, cover })} />
                  {told.cover.length > 0 && source && <Points points={told.cover} source={source} />}
                </Row>
              </>
            )}
            {source && (
              <Row name="shape">
                <select
                  className="field w-full"
                  aria-label="Shape"
                  value={shape}
                  onChange={(e) => setShape(e.target.value)}
                >
                  <option value="best">
                    best for it
                    {promised.data ? `: ${promised.data.shapes[0].name.toLowerCase()}` : ''}
                  </option>
                  {(promised.data?.shapes ?? [])
                    .filter((s) => s.score > 0 && s.id !== 'own')
                    .map((s) => (
                      <option key={s.id} value={s.id}>
                        {s.name}: {s.reason}
                      </option>
                    ))}
                </select>
              </Row>
            )}
            {source && <DraftBy value={by} onChange={setBy} words={Math.round((seconds * pace) / 60)} />}
            <div className="sticky bottom-0 bg-sheet pt-3 pb-3 flex flex-col gap-2 items-start">
              {tooLong && (
                <p>
                  <span className="finding">{clockText(seconds * 1000, false)} is not there.</span> This
                  source carries {clockText(carries.data!.longestMs, false)}.{' '}
                  <button
                    className="textpress"
                    onClick={() =>
                      setLength(clockText(Math.floor(carries.data!.longestMs / 1000) * 1000, false))
                    }
                  >
                    Take {clockText(Math.floor(carries.data!.longestMs / 1000) * 1000, false)}
                  </button>
                  {promised.data &&
                    toAddSays(promised.data.toAdd, seconds * 1000 - carries.data!.longestMs, pace).map(
                      (says) => (
                        <span key={says} className="block pt-1 text-ink2">
                          {says}
                        </span>
                      ),
                    )}
                </p>
              )}
              {belowWhole && (
                <p className="text-ink2">
                  Told whole it takes {clockText(carries.data!.shortestMs, false)}; shorter is its opening
                  only.
                </p>
              )}
              {carries.isError && (
                <p>
                  <span className="finding">Not as asked.</span> {carries.error.message}
                </p>
              )}
              <div className="flex items-baseline gap-4">
                <button
                  className="press"
                  disabled={
                    !channel || Boolean(lengthProblem) || draft.isPending || reading || Boolean(tooLong)
                  }
                  onClick={() => draft.mutate()}
                >
                  {draft.isPending
                    ? 'Drafting…'
                    : source
                      ? `Draft ${lengthProblem ? '' : clockText(seconds * 1000, false)}`
                      : 'Begin an empty script'}
                </button>
                {!more && (
                  <button className="quietpress" aria-expanded={false} onClick={() => setMore(true)}>
                    Points, piece, what they know
                  </button>
                )}
              </div>
              {draft.isError && (
                <p role="alert">
                  <span className="finding">No draft.</span> {draft.error.message}
                  {draft.error instanceof RequestError && draft.error.status === 0
                    ? ' Your source is kept.'
                    : ''}
                  {draft.error instanceof RequestError &&
                    ((draft.error.body.ways as string[] | undefined) ?? []).map((w) => (
                      <span key={w} className="block">
                        {w}
                      </span>
                    ))}
                </p>
              )}
            </div>
          </section>
        </main>
        <Foot keys={[]}>
          {source
            ? `${counted(source.document.blocks.length, 'passage')}, ${counted(source.facts.length, 'fact')}`
            : 'Nothing read yet'}
        </Foot>
      </div>
    </div>
  );
}

/** Which of the points a source has, before anything is drafted. */
function Points({ points, source }: { points: readonly string[]; source: SourceView }) {
  const find = useMemo(
    () => pointFinder([{ letter: 'A', source: source.document, facts: source.facts }]),
    [source],
  );
  const without = points.filter((p) => !find(p).length);
  return (
    <p className="m-0 pt-1 text-[12.5px] text-ink2" role="status">
      {points.length - without.length} of {points.length} in this source
      {without.length > 0 && (
        <>
          ; <span className="finding">it says nothing of</span> {without.join(', ')}
        </>
      )}
    </p>
  );
}

/** Where a story is explained: told whole and in its place. The guess is confirmed by leaving it. */
function Reveal({ text, more, onOther }: { text: string; more: boolean; onOther: () => void }) {
  return (
    <div className="pt-4">
      <div className="columnhead border-b border-hair">
        the reveal; its passage is told whole, and not before its place
      </div>
      <p className="font-serif text-[15.5px] leading-[21px] m-0 py-1">{text}</p>
      {more && (
        <button className="quietpress" onClick={onOther}>
          It is another passage
        </button>
      )}
    </div>
  );
}

/** Sources laid beside the first: their facts fill what it can't carry, nothing is told twice. */
function Beside({
  chosen,
  all,
  onChange,
}: {
  chosen: readonly string[];
  all: readonly SourceName[];
  onChange: (ids: readonly string[]) => void;
}) {
  const others = all.filter((s) => !chosen.includes(s.id));
  if (!all.length) return null;
  return (
    <div className="pt-3 flex flex-col gap-1">
      {chosen.map((id, i) => (
        <div key={id} className="flex gap-3 items-baseline">
          <strong className="font-serif">{'BCDEFGHIJKL'[i]}</strong>
          <span className="flex-1">{all.find((s) => s.id === id)?.title}</span>
          <button className="quietpress" onClick={() => onChange(chosen.filter((c) => c !== id))}>
            take away
          </button>
        </div>
      ))}
      {others.length > 0 && chosen.length < 11 && (
        <select
          className="field self-start"
          aria-label="Lay another source beside"
          value=""
          onChange={(e) => onChange([...chosen, e.target.value])}
        >
          <option value="">lay another source beside…</option>
          {others.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
      )}
    </div>
  );
}

/** What was understood of a source. */
function Understood({
  source,
  promise,
  beside,
  onMust,
  onKind,
  onOther,
}: {
  source: SourceView;
  promise: ReactNode;
  beside: ReactNode;
  onMust: (fact: string) => void;
  onKind: (k: SourceView['document']['kind']) => void;
  onOther: () => void;
}) {
  const { document: doc, facts } = source;
  const strongest = [...facts].sort((a, b) => b.strength - a.strength).slice(0, 12);
  return (
    <div>
      <h2 className="font-serif text-[22px] leading-[28px]">{doc.title}</h2>
      <p className="text-ink2 py-1">
        {[doc.publisher, doc.authors?.join(', '), doc.published].filter(Boolean).join(' · ')}
      </p>
      <div className="flex items-baseline gap-3 flex-wrap">
        <Choice label="Kind of source" value={doc.kind} onChange={onKind} options={KINDS} />
        <span className="text-ink3">because {doc.kindReason}</span>
      </div>
      {(source.like ?? []).length > 0 && (
        <p className="pt-1">
          <span className="finding">Nearly the same</span> as{' '}
          {source.like!.map((l) => `“${l.title}” (${Math.round(l.share * 100)} % of its words)`).join(', ')},
          which is in the library already.
        </p>
      )}
      {doc.doubt && (
        <p className="pt-1">
          <span className="finding">Less sure.</span> {doc.doubt}
        </p>
      )}
      {source.thin.length > 0 && <p className="pt-1 text-ink2">Thin: {source.thin.join(', ')}.</p>}
      {promise}
      <div className="columnhead border-b border-hair mt-4 flex">
        <span className="flex-1">
          strongest of {facts.length} facts; tick what must be told
          {Object.values(source.marks).some((m) => m.mark === 'must') &&
            ` (${Object.values(source.marks).filter((m) => m.mark === 'must').length} ticked)`}
        </span>
        <span>strength</span>
      </div>
      {strongest.map((f) => (
        <div
          key={f.id}
          className="grid grid-cols-[28px_44px_74px_1fr_60px] py-1 border-b border-hair items-baseline"
        >
          <input
            type="checkbox"
            className="size-4 accent-(--spruce) self-center"
            aria-label={`Must be told: ${f.text.slice(0, 80)}`}
            checked={source.marks[f.id]?.mark === 'must'}
            onChange={() => onMust(f.id)}
          />
          <span className="text-[11px] font-semibold text-ink2">A {f.block.slice(1)}</span>
          <span className="text-[11px] text-ink3">{f.type}</span>
          <span className="font-serif text-[15px] leading-[20px]">{f.text}</span>
          <span className="justify-self-end">
            <Strength of={f.strength} />
          </span>
        </div>
      ))}
      {beside}
      <div className="pt-3">
        <Link className="textpress mr-6" to={`/source/${source.id}`}>
          See all of it on the desk
        </Link>
        <button className="quietpress" onClick={onOther}>
          Another in its place
        </button>
      </div>
    </div>
  );
}
