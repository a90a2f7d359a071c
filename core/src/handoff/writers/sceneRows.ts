/** The scene list as rows, for tables of any kind. */
import { inFull } from '../../scenes/cast.ts';
import { clockText } from '../../timing/clockText.ts';
import type { Kit } from '../kit.ts';
import { frameAt, timecode } from '../timecode.ts';

export const SCENE_COLUMNS = [
  'scene',
  'start',
  'seconds',
  'timecode',
  'section',
  'speaker',
  'words heard',
  'word count',
  'search words',
  'traps',
  'description',
  'shot',
  'light',
  'movement of the picture',
  'movement of people',
  'cast',
  'setting',
  'on screen',
  'sound',
  'why it breaks here',
  'repeats',
] as const;
export type SceneRow = (string | number)[];

export function sceneRows({ film, sections, input }: Kit): SceneRow[] {
  const titles = new Map(sections.map((s) => [s.id, s.title]));
  const numbers = new Map(film.scenes.map((s, i) => [s.id, i + 1]));
  const entry = (id: string | null) => film.cast.find((c) => c.id === id);
  return film.scenes.map((scene, i) => {
    const p = film.pictures[i];
    return [
      i + 1,
      clockText(scene.startMs),
      (scene.endMs - scene.startMs) / 1000,
      timecode(frameAt(scene.startMs, input.rate), input.rate),
      titles.get(scene.section) ?? '',
      scene.speaker,
      scene.text,
      scene.words,
      p.search.map((w) => w.text).join('; '),
      p.traps.map((t) => `“${t.words}” would find ${t.would}`).join('; '),
      p.description,
      `${p.size}, ${p.angle}`,
      p.light,
      p.movement.picture,
      p.movement.people,
      p.cast.map((id) => inFull(entry(id)!)).join('; '),
      p.setting ? inFull(entry(p.setting)!) : '',
      p.onScreen.join(' | '),
      p.sound
        .map(
          (s) =>
            `${s.kind}: ${s.what} at ${s.at.toFixed(1)} s, ${s.level} dB${s.dip ? `, dips ${-s.dip} dB under speech` : ''}`,
        )
        .join('; '),
      scene.why,
      p.repeat ? `as scene ${numbers.get(p.repeat.of)}; instead: ${p.repeat.instead}` : '',
    ];
  });
}
