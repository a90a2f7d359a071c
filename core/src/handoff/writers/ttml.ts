/** Timed Text Markup Language 2 (W3C), in the form of the IMSC 1.1 text profile: one region inside the safe area, a paragraph a caption. */
import type { Writer } from '../writer.ts';
import { xmlRoot, xmlString, xmlText } from '../xml.ts';
import { stamp } from '../subRip.ts';

const TT = 'http://www.w3.org/ns/ttml';
/** Left and top, width and height of the region, by frame, in percent. */
const REGION: Readonly<Record<string, [string, string]>> = {
  '16:9': ['10% 70%', '80% 20%'],
  '1:1': ['8% 68%', '84% 20%'],
  '9:16': ['12% 55%', '76% 20%'],
};

export const ttml: Writer = {
  id: 'ttml',
  name: 'Captions, TTML',
  says: 'with region, language and speakers',
  loses: 'nothing of the captions',
  extension: 'ttml',
  mime: 'application/ttml+xml',
  for: ['editor', 'uploader'],
  write: ({ captions, language, file }) => {
    const root = xmlRoot();
    const tt = root.ele(TT, 'tt', {
      'xml:lang': language,
      'xmlns:ttp': `${TT}#parameter`,
      'xmlns:tts': `${TT}#styling`,
      'xmlns:ttm': `${TT}#metadata`,
      'ttp:profile': 'http://www.w3.org/ns/ttml/profile/imsc1.1/text',
      'ttp:timeBase': 'media',
      'ttp:cellResolution': '40 24',
    });
    const [origin, extent] = REGION[file.frame];
    const head = tt.ele('head');
    head.ele('metadata').ele('ttm:title').txt(xmlText(file.title));
    const speakers = [...new Set(captions.map((c) => c.speaker).filter(Boolean))];
    speakers.forEach((s, i) =>
      head
        .last()
        .ele('ttm:agent', { 'xml:id': `a${i + 1}`, type: 'person' })
        .ele('ttm:name', { type: 'full' })
        .txt(xmlText(s)),
    );
    head.ele('styling').ele('style', {
      'xml:id': 's1',
      'tts:fontFamily': 'proportionalSansSerif',
      'tts:fontSize': '100%',
      'tts:lineHeight': '125%',
      'tts:textAlign': 'center',
      'tts:color': '#ffffff',
      'tts:backgroundColor': '#000000b0',
    });
    head.ele('layout').ele('region', {
      'xml:id': 'r1',
      'tts:origin': origin,
      'tts:extent': extent,
      'tts:displayAlign': 'after',
      style: 's1',
    });
    const div = tt.ele('body', { region: 'r1' }).ele('div');
    captions.forEach((c, i) => {
      const p = div.ele('p', {
        'xml:id': `c${i + 1}`,
        begin: stamp(c.startMs, '.'),
        end: stamp(c.endMs, '.'),
        ...(c.speaker ? { 'ttm:agent': `a${speakers.indexOf(c.speaker) + 1}` } : {}),
      });
      c.rows.forEach((row, k) => {
        if (k) p.ele('br');
        p.txt(xmlText(row));
      });
    });
    return xmlString(root, false);
  },
};
