/** Beside the sections: the shape and its reasons, the brief, fixed parts, and what else this script can become. */
import { useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import {
  AIMS,
  AUDIENCES,
  PERSONS,
  SPELLINGS,
  UNIT_SYSTEMS,
  WORDS,
  briefSchema,
  shapes,
  type Brief,
} from '@ursprung/core/desk';
import { api, type Promised } from '../api.ts';
import { GenreChoice, ListenerFields, MoodChoice, TypedField } from '../brief/fields.tsx';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Choice } from '../shell/Choice.tsx';
import { OwnParts } from './OwnParts.tsx';
import { FixedParts } from './FixedParts.tsx';
import type { Rundown } from './useRundown.ts';

const names = <T extends string>(list: readonly T[], say: Partial<Record<T, string>> = {}) =>
  list.map((x) => [x, say[x] ?? x] as const);

export function Side({
  session,
  promised,
  rundown,
}: {
  session: ScriptSession;
  promised: Promised | null;
  rundown: Rundown;
}) {
  const settings = useSnapshot(session, (s) => s.settings);
  const shape = shapes.find((s) => s.id === settings.shape);
  const mine = promised?.shapes.find((s) => s.id === settings.shape);
  const next = (promised?.shapes ?? []).filter((s) => s.id !== settings.shape && s.id !== 'own');
  const brief: Brief = briefSchema.parse({ ...(settings.brief ?? {}), mood: settings.mood });
  const set = (change: Partial<Brief>) =>
    void session.change({ brief: { ...brief, ...change }, ...(change.mood ? { mood: change.mood } : {}) });
  return (
    <aside className="border-l border-hair pl-5 pr-6 pb-10 overflow-auto" aria-label="Shape and brief">
      <div className="columnhead border-b border-hair">shape</div>
      <h2 className="font-serif text-[24px] leading-[30px] m-0 pt-2">{shape?.name ?? 'None yet'}</h2>
      <p className="font-serif text-[16px] leading-[22px] m-0">
        {shape?.says ?? 'This script was not drafted in a shape.'}
      </p>
      {mine && <p className="text-ink2 m-0 pt-1">{mine.reason}</p>}
      {shape && (
        <div className="text-ink3 pt-1">
          {shape.parts.map((p) => `${p.name} ${Math.round(p.share * 100)} %`).join(' · ')}
        </div>
      )}
      <div className="columnhead border-b border-hair mt-4">next best</div>
      {next.map((s) => (
        <div key={s.id} className="flex gap-3 py-1 border-b border-hair items-baseline">
          {s.score > 0 ? (
            <button
              className="textpress"
              disabled={rundown.busy !== null}
              onClick={() => rundown.redo({ what: 'shape', shape: s.id })}
            >
              {s.name}
            </button>
          ) : (
            <span className="text-ink3 min-h-6 pt-1">{s.name}</span>
          )}
          <span className="flex-1 text-right text-[12px] text-ink3">{s.reason}</span>
        </div>
      ))}
      <p className="text-ink3 m-0 pt-1">Changing the shape keeps every take and every locked section.</p>
      <OwnParts session={session} rundown={rundown} />
      <div className="columnhead border-b border-hair mt-5">brief</div>
      <Field name="who listens">
        <Choice
          label="Who listens"
          value={brief.audience}
          onChange={(audience) => set({ audience })}
          options={names(AUDIENCES)}
        />
      </Field>
      <Field name="they are, and know already">
        <ListenerFields listener={brief.listener} known={brief.known} onChange={set} />
      </Field>
      <Field name="kind of piece">
        <GenreChoice
          value={brief.genre}
          whose={brief.whose}
          onChange={({ genre, whose }) => {
            const { genre: _, ...rest } = brief;
            void session.change({ brief: { ...rest, whose, ...(genre ? { genre } : {}) } });
          }}
        />
      </Field>
      <Field name="mood">
        <MoodChoice
          rules
          line={promised?.moodLines[brief.mood]}
          value={brief.mood}
          onChange={(mood) => set({ mood })}
        />
      </Field>
      <Field name="person">
        <Choice
          label="Person"
          value={brief.person ?? 'source'}
          onChange={(p) => {
            const { person: _, ...rest } = brief;
            void session.change({ brief: p === 'source' ? rest : { ...rest, person: p } });
          }}
          options={[['source', 'as told'] as const, ...names(PERSONS, { i: 'I' })]}
        />
      </Field>
      <Field name="words">
        <Choice
          label="Words"
          value={brief.words}
          onChange={(words) => set({ words })}
          options={names(WORDS, { own: 'own', plain: 'short sentences', source: 'the source’s' })}
        />
      </Field>
      <Field name="spelling">
        <Choice
          label="Spelling"
          value={brief.spelling}
          onChange={(spelling) => set({ spelling })}
          options={names(SPELLINGS)}
        />
      </Field>
      <Field name="units">
        <Choice
          label="Units"
          value={brief.units}
          onChange={(units) => set({ units })}
          options={names(UNIT_SYSTEMS)}
        />
      </Field>
      <Field name="then">
        <Choice
          label="What the listener does next"
          value={brief.aim}
          onChange={(aim) => set({ aim })}
          options={names(AIMS, {
            none: 'nothing',
            answer: 'answers',
            next: 'part two',
            follow: 'follows',
            source: 'reads on',
          })}
        />
      </Field>
      <Field name="names in a story">
        <Choice
          label="Names in a story"
          value={brief.veil ? 'veiled' : 'named'}
          onChange={(v) => set({ veil: v === 'veiled' })}
          options={[
            ['named', 'named'],
            ['veiled', 'veiled'],
          ]}
        />
      </Field>
      <Field name="never say">
        <Avoid words={brief.avoid} onChange={(avoid) => set({ avoid })} />
      </Field>
      <button
        className="press mt-3"
        disabled={rundown.busy !== null || !session.sources.length}
        onClick={() => rundown.redo({ what: 'whole' })}
      >
        {rundown.busy === 'whole' ? 'Telling…' : 'Tell it by this brief'}
      </button>
      <button
        className="quietpress ml-4"
        disabled={rundown.busy !== null || !session.sources.length}
        onClick={() => {
          const seed = settings.seed + 1;
          rundown.redo({ what: 'whole', seed });
        }}
      >
        Another take of the whole
      </button>
      <FixedParts session={session} rundown={rundown} />
      <Derived session={session} />
    </aside>
  );
}

function Field({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="py-1 border-b border-hair">
      <span className="text-ink3 text-[12px]">{name}</span>
      {children}
    </div>
  );
}

const Avoid = ({ words, onChange }: { words: readonly string[]; onChange: (words: string[]) => void }) => (
  <TypedField
    label="Words to avoid"
    placeholder="words, with commas between"
    most={500}
    value={words.join(', ')}
    onChange={(typed) =>
      onChange(
        typed
          .split(',')
          .map((w) => w.trim())
          .filter((w) => w.length > 1)
          .slice(0, 60),
      )
    }
  />
);

/** From a finished script: each a script of its own, with its own trace. */
function Derived({ session }: { session: ScriptSession }) {
  const navigate = useNavigate();
  const derive = useMutation({
    mutationFn: (input: Parameters<typeof api.derive>[1]) => api.derive(session.script.id, input),
    onSuccess: ({ id, notes }) => navigate(`/script/${id}/page`, { state: { notes } }),
  });
  const press = (name: string, input: Parameters<typeof api.derive>[1]) => (
    <button
      className="quietpress text-left self-start"
      disabled={derive.isPending || !session.sources.length}
      onClick={() => derive.mutate(input)}
    >
      {name}
    </button>
  );
  return (
    <>
      <div className="columnhead border-b border-hair mt-5">from this script</div>
      <div className="flex flex-col gap-1 pt-1">
        {press('A vertical short of at most a minute, with a hook of its own', { kind: 'short' })}
        {press('A second part from the facts left over', { kind: 'second' })}
        {press('The same for newcomers', { kind: 'audience', audience: 'newcomers' })}
        {press('The same for children', { kind: 'audience', audience: 'children' })}
        {press('The same, told of them instead of by an I', { kind: 'person', person: 'they' })}
      </div>
      {derive.isPending && <p role="status">Telling…</p>}
      {derive.isError && (
        <p role="alert">
          <span className="finding">Not made.</span> {derive.error.message}
        </p>
      )}
    </>
  );
}
