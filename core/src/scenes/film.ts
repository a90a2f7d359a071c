/** The whole film of a script: scenes, cast and pictures, from one call. */
import { clockLines } from '../script/schema.ts';
import { breakScenes, type Scene } from './breaks.ts';
import { filmCast, toldByScript, type CastEntry, type CastOwn } from './cast.ts';
import type { PaceWanted } from './pace.ts';
import { withRepeats } from './repeats.ts';
import { picturesOf, type Picture, type PictureInput, type PictureTools } from './pictures.ts';

export interface FilmInput extends Omit<PictureInput, 'scenes' | 'cast' | 'tagged'> {
  own: readonly CastOwn[];
  pace: Omit<PaceWanted, 'frame' | 'mood'>;
}
export interface Film {
  scenes: readonly Scene[];
  pictures: readonly Picture[];
  cast: readonly CastEntry[];
  totalMs: number;
}

/** Scenes with their pictures and the cast; most of the cost is that of tagging each line once. The seconds of the scenes add up to the script's, to the millisecond. */
export function filmOf(input: FilmInput, tools: PictureTools): Film {
  const { frame, mood } = input;
  const scenes = breakScenes(input.sections, tools.clock, { ...input.pace, frame, mood });
  const { sections } = input;
  const tagged = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, tools.tagger(l.text)] as const)));
  const cast = filmCast(input.sources, input.own, toldByScript(sections, tagged));
  const pictures = withRepeats(picturesOf({ ...input, scenes, cast, tagged }, tools), tools.kin);
  const totalMs = tools.clock.lines(clockLines(input.sections)).reduce((n, l) => n + l.ms, 0);
  return { scenes, pictures, cast, totalMs };
}

/** What the command line prints of a scene: seconds, words in full, ids as they stand in the script. */
export function printedScene(scene: Scene, picture: Picture, cast: readonly CastEntry[]) {
  const entry = (id: string | null) => cast.find((c) => c.id === id)?.name;
  return {
    id: scene.id,
    start: scene.startMs / 1000,
    end: scene.endMs / 1000,
    section: scene.section,
    lines: scene.parts.map((p) => p.line),
    words: scene.words,
    text: scene.text,
    why: scene.why,
    ...(scene.silent ? { silent: true } : {}),
    search: picture.search.map((w) => w.text),
    ...(picture.traps.length ? { traps: picture.traps.map(({ words, would }) => ({ words, would })) } : {}),
    description: picture.description,
    cast: picture.cast.map((id) => entry(id)!),
    setting: entry(picture.setting) ?? '',
    shot: { size: picture.size, angle: picture.angle },
    light: picture.light,
    movement: picture.movement,
    onScreen: [...picture.onScreen],
    sound: picture.sound.map((s) => ({ ...s })),
    ...(picture.repeat ? { repeats: picture.repeat } : {}),
    ...(scene.speaker ? { speaker: scene.speaker } : {}),
  };
}
