/** WebVTT (W3C): cues inside safe margins, speakers as voice spans; a second file says one to four words at a time with a stamp on each word. */
import type { Caption } from '../captions.ts';
import type { Kit } from '../kit.ts';
import type { Writer } from '../writer.ts';
import { stamp } from '../subRip.ts';

const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
/** Rows stand above the lowest tenth of a wide picture, the lowest quarter of an upright one, where hosts lay their own signs (common practice, no published source). */
const SETTINGS: Readonly<Record<string, string>> = {
  '16:9': 'line:88% position:50% size:80% align:center',
  '1:1': 'line:85% position:50% size:84% align:center',
  '9:16': 'line:72% position:50% size:76% align:center',
};
const head = ({ language, file }: Kit) =>
  `WEBVTT - ${file.title.replace(/-->|[\r\n]/g, ' ')}\n\nNOTE language: ${language}\n`;
const cue = (c: Caption, i: number, settings: string, text: string) =>
  `${i + 1}\n${stamp(c.startMs, '.')} --> ${stamp(c.endMs, '.')} ${settings}\n${text}\n`;

export const vtt: Writer = {
  id: 'vtt',
  name: 'Captions, WebVTT',
  says: 'with safe margins and speakers',
  loses: 'nothing of the captions',
  extension: 'vtt',
  mime: 'text/vtt',
  for: ['editor', 'uploader'],
  write: (kit) =>
    [
      head(kit),
      ...kit.captions.map((c, i) =>
        cue(
          c,
          i,
          SETTINGS[kit.file.frame],
          `${c.speaker ? `<v ${escape(c.speaker)}>` : ''}${c.rows.map(escape).join('\n')}`,
        ),
      ),
    ].join('\n'),
};

/** Each word but the first carries the time it is said at. */
const sung = (c: Caption) =>
  c.words
    .map(
      (w, i) =>
        `${i && w.startMs > c.startMs && w.startMs < c.endMs ? `<${stamp(w.startMs, '.')}>` : ''}${escape(w.text)}`,
    )
    .join(' ');

export const karaoke: Writer = {
  id: 'karaoke',
  name: 'Captions word by word',
  says: 'WebVTT, one to four words at a time, a time on every word',
  loses: 'rows: it has one',
  extension: 'vtt',
  suffix: 'words',
  mime: 'text/vtt',
  for: ['editor'],
  write: (kit) =>
    [head(kit), ...kit.quick.map((c, i) => cue(c, i, SETTINGS[kit.file.frame], sung(c)))].join('\n'),
};
