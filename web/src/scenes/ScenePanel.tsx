/** The chosen scene: what is heard, what to look for, what to make, how it moves and sounds; every part can be worded otherwise. */
import type { CastEntry, Picture, Scene } from '@ursprung/core/scenes/desk';
import { SHOT_ANGLES, SHOT_SIZES, type SceneOwn } from '@ursprung/core/script';
import { clockText } from '../text/clockText.ts';
import { Cues } from './Cues.tsx';
import { Description } from './Description.tsx';
import { Choice, Head, Lines, Word } from './fields.tsx';
import { SceneFrame } from './SceneFrame.tsx';
import type { Ratio } from './ContactSheet.tsx';

export const WHY: Record<string, string> = {
  section: 'a new section',
  sentence: 'a new sentence',
  idea: 'a new idea',
  clause: 'too long for one picture, cut at a clause',
  phrase: 'too long for one picture, cut at a phrase',
  speaker: 'somebody else speaks',
  writer: 'you set the cut',
  rest: 'a long rest',
  silent: 'a scene without words',
  fixed: 'a fixed part',
};
const FIELD_WORDS: Record<string, string> = {
  role: 'what they are',
  age: 'age',
  hair: 'hair',
  eyes: 'eyes',
  dress: 'dress',
  kind: 'what it is',
  looks: 'looks',
  period: 'period',
  other: 'other',
};

export function ScenePanel({
  scene,
  number,
  picture,
  cast,
  ratio,
  numberOf,
  onSay,
  onCast,
  onSilent,
}: {
  scene: Scene;
  number: number;
  picture: Picture | undefined;
  cast: readonly CastEntry[];
  ratio: Ratio;
  numberOf: (id: string) => number;
  onSay: (change: { [K in keyof SceneOwn]?: SceneOwn[K] | undefined }) => void;
  onCast: (name: string) => void;
  onSilent: (ms: number | null) => void;
}) {
  const ms = scene.endMs - scene.startMs;
  const set = new Set(picture?.set ?? []);
  const here = cast.filter((c) => picture?.cast.includes(c.id) || c.id === picture?.setting);
  const open = here.filter((c) => c.open.length);
  const wide = ratio === '16:9';
  return (
    <aside
      className="w-[324px] shrink-0 bg-lit border-l border-edge overflow-auto px-[14px] pb-6"
      aria-label={`Scene ${number}`}
    >
      <div className="flex justify-between items-baseline h-8">
        <span>
          <strong className="clock text-[13px]">{number}</strong>{' '}
          <span className="text-ink2">{picture ? `${picture.size}, ${picture.angle}` : ''}</span>
        </span>
        <span className="clock">
          {clockText(scene.startMs)} to {clockText(scene.endMs)}
        </span>
      </div>
      <div className={wide ? '' : 'flex justify-center'}>
        <SceneFrame
          picture={picture}
          ratio={ratio}
          width={wide ? 294 : ratio === '9:16' ? 112 : 160}
          height={wide ? 165 : ratio === '9:16' ? 199 : 160}
        />
      </div>
      {scene.silent ? (
        <p className="py-2 text-ink2">
          Nobody speaks here
          {scene.why !== 'rest' && (
            <>
              , for{' '}
              <input
                className="field w-16"
                type="number"
                step="0.5"
                min="0.5"
                max="60"
                aria-label="Seconds without words"
                defaultValue={ms / 1000}
                onBlur={(e) =>
                  onSilent(Math.round(Math.max(0.5, Math.min(60, Number(e.target.value) || 3)) * 1000))
                }
              />{' '}
              s.{' '}
              <button className="textpress" onClick={() => onSilent(null)}>
                Take it out
              </button>
            </>
          )}
        </p>
      ) : (
        <p className="font-serif text-[15.5px] leading-[20px] py-2">
          {scene.speaker && <strong className="font-sans text-[12px] uppercase mr-1">{scene.speaker}</strong>}
          {scene.text}
        </p>
      )}
      <p className="text-ink3 text-[12px] pb-1">
        Begins for {WHY[scene.why]}; {(ms / 1000).toFixed(1)} s, wanted {(scene.wantedMs / 1000).toFixed(1)}.
      </p>
      {!picture ? (
        <p className="py-4 text-ink2" role="status">
          The picture is being worked out…
        </p>
      ) : (
        <>
          <Head what="look for" set={set.has('search')} onReset={() => onSay({ search: undefined })} />
          <Lines
            key={`search ${scene.id} ${picture.search.map((w) => w.text).join()}`}
            label="Search words, a row each"
            value={picture.search.map((w) => w.text)}
            notes={picture.search.map((w) =>
              w.why === 'stands for' ? `stands for “${w.of}”` : w.why === 'about' ? 'shown before' : '',
            )}
            onSave={(rows) => onSay({ search: rows.slice(0, 12) })}
          />
          {picture.traps.map((t) => (
            <p key={t.words} className="text-[12.5px] leading-[17px] pt-1">
              <span className="finding">Not “{t.words}”.</span>{' '}
              <span className="text-ink2">
                {t.why === 'figure' ? `Searched by itself it finds ${t.would}.` : `It finds ${t.would} too.`}
              </span>
            </p>
          ))}
          {picture.repeat && (
            <p className="text-[12.5px] pt-1">
              <span className="finding">The same picture as {numberOf(picture.repeat.of)}.</span>{' '}
              <span className="text-ink2">Instead:</span>{' '}
              <button
                className="textpress"
                onClick={() =>
                  onSay({
                    search: [picture.repeat!.instead, ...picture.search.map((w) => w.text)].slice(0, 12),
                  })
                }
              >
                {picture.repeat.instead}
              </button>
            </p>
          )}
          <Head what="make" set={set.has('description')} onReset={() => onSay({ description: undefined })} />
          <Description
            key={`d ${scene.id} ${picture.description}`}
            picture={picture}
            own={scene.own.description}
            onSave={(description) => onSay({ description })}
          />
          {picture.unsaid.length > 0 && (
            <p className="text-[12.5px] pt-1">
              <span className="finding">
                No source says {picture.unsaid.map((u) => `“${u}”`).join(', ')}.
              </span>
            </p>
          )}
          {open.map((c) => (
            <p key={c.id} className="text-[12.5px] pt-1">
              <span className="finding">
                {c.name}: {c.open.map((f) => FIELD_WORDS[f]).join(', ')} not known.
              </span>{' '}
              <button className="textpress" onClick={() => onCast(c.name)}>
                Say it once
              </button>
            </p>
          ))}
          <Head
            what="take it"
            set={['size', 'angle', 'light', 'picture', 'people'].some((k) => set.has(k))}
            onReset={() =>
              onSay({
                size: undefined,
                angle: undefined,
                light: undefined,
                picture: undefined,
                people: undefined,
              })
            }
          />
          <dl className="grid grid-cols-[64px_1fr] gap-y-[2px] items-baseline text-[12.5px]">
            <Choice label="size" value={picture.size} of={SHOT_SIZES} onSave={(size) => onSay({ size })} />
            <Choice
              label="angle"
              value={picture.angle}
              of={SHOT_ANGLES}
              onSave={(angle) => onSay({ angle })}
            />
            <Word label="light" value={picture.light} onSave={(light) => onSay({ light })} />
            <Word label="picture" value={picture.movement.picture} onSave={(v) => onSay({ picture: v })} />
            <Word label="people" value={picture.movement.people} onSave={(people) => onSay({ people })} />
          </dl>
          <Head
            what="on the screen"
            set={set.has('onScreen')}
            onReset={() => onSay({ onScreen: undefined })}
          />
          <Lines
            key={`o ${scene.id} ${picture.onScreen.join()}`}
            label="Words on the screen, a row each"
            value={[...picture.onScreen]}
            notes={[]}
            onSave={(rows) => onSay({ onScreen: rows.slice(0, 6) })}
          />
          <Head what="sound" set={set.has('sound')} onReset={() => onSay({ sound: undefined })} />
          <Cues key={scene.id} cues={picture.sound} ms={ms} onSave={(sound) => onSay({ sound })} />
          <Word
            label="credit"
            value={scene.own.credit ?? ''}
            placeholder="whose picture, which licence"
            onSave={(credit) => onSay({ credit: credit || undefined })}
            block
          />
        </>
      )}
    </aside>
  );
}
