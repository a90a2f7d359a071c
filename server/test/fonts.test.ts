import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect } from 'chai';
import * as fontkit from 'fontkit';
import { getFonts, unpackWoff } from '../src/fonts.ts';

const require = createRequire(import.meta.url);
const woff = (family: string, subset: string) =>
  readFileSync(require.resolve(`@fontsource/${family}/files/${family}-${subset}-400-normal.woff`));
interface Face {
  numGlyphs: number;
  postscriptName: string;
  hasGlyphForCodePoint: (code: number) => boolean;
  layout: (text: string) => { advanceWidth: number; glyphs: { id: number }[] };
}
const open = (bytes: Uint8Array) => fontkit.create(bytes as Buffer) as unknown as Face;

describe('faces for pages on paper', () => {
  for (const [family, subset, text] of [
    ['noto-serif', 'latin', 'The lift has failed once.'],
    ['noto-sans-devanagari', 'devanagari', 'क्षत्रिय'],
    ['noto-sans-arabic', 'arabic', 'الجسر'],
  ] as const)
    it(`${family} unpacked is what fontkit reads from the packed file: “${text}”`, () => {
      const packed = woff(family, subset);
      const [a, b] = [open(packed), open(unpackWoff(packed))];
      expect([b.postscriptName, b.numGlyphs]).to.deep.equal([a.postscriptName, a.numGlyphs]);
      expect(b.layout(text).glyphs.map((g) => g.id)).to.deep.equal(a.layout(text).glyphs.map((g) => g.id));
      expect(b.layout(text).advanceWidth).to.equal(a.layout(text).advanceWidth);
    });
  it('have the letters of the languages that are handled', () => {
    const fonts = getFonts();
    const text = open(fonts.text);
    const others = fonts.others.map((o) => ({ ...o, face: open(o.bytes) }));
    for (const c of 'aéñçßüÆœőŁθЖकअابسʃŋˈəɹ') {
      const other = others.find((o) => o.covers.test(c));
      expect((other?.face ?? text).hasGlyphForCodePoint(c.codePointAt(0)!), c).to.equal(true);
    }
  });
  it('refuse what is none', () => {
    expect(() => unpackWoff(Buffer.from('nothing of the kind, but long enough to hold a head'))).to.throw(
      /no WOFF/,
    );
  });
});
