/** Fountain 1.1: title page, sections, scenes as forced headings, pictures as action, narration as dialogue. */
import { clockText } from '../../timing/clockText.ts';
import type { Writer } from '../writer.ts';

/** Signs that Fountain would read are written with a backslash; a blank row would end the dialogue. */
const plain = (text: string) =>
  text
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/([*_\\])/g, '\\$1')
    .replace(/\[\[/g, '[ [')
    .replace(/\/\*/g, '/ *');
const forced = (text: string) => (/^[!.@>#=~(]/.test(text) ? ` ${text}` : text);

export const fountain: Writer = {
  id: 'fountain',
  name: 'Fountain',
  says: 'scenes with their pictures, narration as dialogue',
  loses: 'what lines rest on, rests, sound cues',
  extension: 'fountain',
  mime: 'text/plain',
  for: ['archive', 'editor'],
  write: ({ file, sections, film }) => {
    const out = [
      `Title: ${plain(file.title)}`,
      `Draft date: ${clockText(file.seconds * 1000, false)} at ${Math.round(file.pace)} wpm`,
      '',
    ];
    const titles = new Map(sections.map((s) => [s.id, s.title]));
    let section = '';
    film.scenes.forEach((scene, i) => {
      if (scene.section !== section) out.push(`# ${plain(titles.get(scene.section) ?? '')}`, '');
      section = scene.section;
      out.push(
        `.SCENE ${i + 1} - ${clockText(scene.startMs)} #${i + 1}#`,
        '',
        `!${plain(film.pictures[i].description)}`,
        '',
      );
      if (!scene.silent) out.push(`@${plain(scene.speaker || 'NARRATOR')}`, forced(plain(scene.text)), '');
    });
    return `${out.join('\n')}\n`;
  },
};
