/** CMX 3600 edit decision list: an event a scene, its description as a comment; the record side starts at one hour (common practice). */
import { frameAt, frameOf, RATES, timecode } from '../timecode.ts';
import { CannotWrite, type Writer } from '../writer.ts';

const MOST_EVENTS = 999;
/** Comments hold plain letters in short rows. */
const comment = (text: string) =>
  text
    .normalize('NFD')
    .replace(/[^\x20-\x7e]/g, '')
    .replace(/\s+/g, ' ')
    .slice(0, 120);

export const edl: Writer = {
  id: 'edl',
  name: 'Edit list, CMX 3600',
  says: 'an event a scene with its description',
  loses: 'narration, captions, sound, letters outside ASCII',
  extension: 'edl',
  mime: 'text/plain',
  for: ['editor'],
  write: ({ file, film, input: { rate } }) => {
    if (film.scenes.length > MOST_EVENTS)
      throw new CannotWrite(
        `An edit list of this kind holds ${MOST_EVENTS} events; this film has ${film.scenes.length} scenes.`,
      );
    const hour = frameOf(`01:00:00:00`, rate);
    const code = (frame: number) => timecode(frame, rate);
    const out = [
      `TITLE: ${comment(file.title)}`,
      `FCM: ${RATES[rate].drop ? 'DROP FRAME' : 'NON-DROP FRAME'}`,
      '',
    ];
    film.scenes.forEach((s, i) => {
      const [from, to] = [frameAt(s.startMs, rate), frameAt(s.endMs, rate)];
      const number = String(i + 1).padStart(3, '0');
      out.push(
        `${number}  AX       V     C        ${code(0)} ${code(to - from)} ${code(hour + from)} ${code(hour + to)}`,
        `* FROM CLIP NAME: SCENE ${number}`,
        `* COMMENT: ${comment(film.pictures[i].description)}`,
      );
    });
    return `${out.join('\r\n')}\r\n`;
  },
};
