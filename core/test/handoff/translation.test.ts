import { expect } from 'chai';
import fc from 'fast-check';
import { readXliff, tooLong, translated, xliffOf, type Translation } from '../../src/handoff/index.ts';
import {
  DEFAULT_VOICE,
  LANGUAGES,
  countWordsIn,
  languageOf,
  makeOtherClock,
} from '../../src/timing/index.ts';
import { clock, pronouncer } from '../tools.ts';
import { line, section } from './kit.ts';

const other = (code: string) => makeOtherClock(languageOf(code)!, DEFAULT_VOICE, pronouncer, 150);
const syllables = (code: string, word: string) => languageOf(code)!.syllables(word);

describe('XLIFF 2.1', () => {
  const text = fc
    .string({ unit: 'grapheme', minLength: 1, maxLength: 60 })
    .map((t) => `word ${t}`.replace(/\s+/g, ' ').trim());
  it('loses nothing on its way out and back (property)', () => {
    fc.assert(
      fc.property(
        fc.array(text, { minLength: 1, maxLength: 6 }),
        fc.array(text, { minLength: 6, maxLength: 6 }),
        (sources, targets) => {
          const sections = [section('Title & more', ...sources.map((t) => line(t)))];
          const translation: Translation = {
            language: 'fr-CA',
            title: 'Le titre',
            sections: { [sections[0].id]: 'Titre' },
            lines: Object.fromEntries(sections[0].lines.map((l, i) => [l.id, targets[i]])),
            origin: 'person',
          };
          const out = xliffOf({ title: 'T', language: 'en-GB', sections }, clock, {
            language: 'fr-CA',
            translation,
          });
          const back = readXliff(out, sections);
          if ('refused' in back) throw new Error(back.refused);
          expect(back.translation).to.deep.equal({
            ...translation,
            lines: Object.fromEntries(Object.entries(translation.lines).map(([k, v]) => [k, printable(v)])),
          });
          expect([back.missing, back.unknown]).to.deep.equal([0, 0]);
        },
      ),
      { seed: 3, numRuns: 60 },
    );
  });
  /** What XML 1.0 can hold. */
  const printable = (t: string) =>
    t
      .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
      .replace(/\s+/g, ' ')
      .trim();
  it('a line that was not translated stays as it is, and is counted', () => {
    const sections = [section('One', line('First.'), line('Second.'))];
    const out = xliffOf({ title: 'T', language: 'en', sections }, clock, {
      language: 'de',
      translation: {
        language: 'de',
        title: '',
        sections: {},
        lines: { [sections[0].lines[0].id]: 'Erstens.' },
        origin: 'person',
      },
    });
    const back = readXliff(out, sections);
    if ('refused' in back) throw new Error(back.refused);
    expect(back.missing).to.equal(1);
    expect(translated(sections, back.translation)[0].lines.map((l) => l.text)).to.deep.equal([
      'Erstens.',
      'Second.',
    ]);
  });
});

describe('other languages', () => {
  // Hyphenation as in the languages' dictionaries; from memory.
  for (const [code, word, n] of [
    ['es', 'puente', 2],
    ['es', 'río', 2],
    ['es', 'guerra', 2],
    ['es', 'ciudad', 2],
    ['es', 'queso', 2],
    ['fr', 'bateau', 2],
    ['fr', 'eau', 1],
    ['fr', 'musique', 2],
    ['fr', 'fenêtre', 2],
    ['de', 'Brücke', 2],
    ['de', 'Häuser', 2],
    ['de', 'Wasser', 2],
    ['de', 'Maschine', 3],
    ['pt', 'ponte', 2],
    ['pt', 'coração', 3],
    ['pt', 'água', 2],
    ['hi', 'नमस्ते', 3],
    ['hi', 'पानी', 2],
    ['hi', 'पुल', 1],
  ] as const)
    // prettier-ignore
    it(`${code}: “${word}” has ${n} syllables`, () => expect(syllables(code, word)).to.equal(n));
  it('words are counted as readers of the language count them', () => {
    expect(countWordsIn('Das ist ein Brückenbauamt.', 'de')).to.equal(4);
    expect(countWordsIn('पुल बंद है।', 'hi')).to.equal(3);
  });
  it('the same syllables take less time in Spanish than in German, by the study’s rates (Pellegrino, Coupé and Marsico 2011)', () => {
    const per = (code: string, text: string) => {
      const t = other(code).time(text);
      return t.ms / t.syllables;
    };
    expect(per('de', 'Wasser Wasser Wasser Wasser') / per('es', 'casa casa casa casa')).to.be.closeTo(
      7.82 / 5.97,
      0.06,
    );
  });
  it('a pace carries over: slower in one is slower in the other', () => {
    const at = (pace: number) =>
      makeOtherClock(languageOf('es')!, DEFAULT_VOICE, pronouncer, pace).time('El puente se cerró el jueves.')
        .ms;
    expect(at(120)).to.be.greaterThan(at(180));
  });
  it('lines that will not fit are flagged, with what they may take', () => {
    const sections = [
      section(
        'One',
        line('It fell.'),
        line('Nobody was hurt that day, but forty people had to be led off the bridge.'),
      ),
    ];
    const translation: Translation = {
      language: 'es',
      title: '',
      sections: {},
      lines: {
        [sections[0].lines[0].id]: 'Se cayó con un estruendo enorme que se oyó en toda la ciudad.',
        [sections[0].lines[1].id]: 'Nadie resultó herido.',
      },
      origin: 'person',
    };
    const over = tooLong(sections, clock, translated(sections, translation), other('es'));
    expect(over.map((o) => o.line)).to.deep.equal([sections[0].lines[0].id]);
    expect(over[0].ms - over[0].mayMs).to.equal(over[0].overMs);
  });
  it('sums hold on every clock: lines add up to the whole', () => {
    for (const l of LANGUAGES) {
      const timed = makeOtherClock(l, DEFAULT_VOICE, pronouncer, 150).lines([
        { text: 'a b c.' },
        { text: 'd e, f.', restMs: 300 },
        { text: '', fixedMs: 1000 },
      ]);
      timed.forEach((t, i) => i && expect(t.startMs).to.equal(timed[i - 1].startMs + timed[i - 1].ms));
      expect(timed[2].ms).to.be.at.least(1000);
    }
  });
});
