/** Files made to do harm: each is refused in words before it costs anything, or read as what it honestly holds. */
import { expect } from 'chai';
import { zipSync, strToU8 } from 'fflate';
import fc from 'fast-check';
import { openSource } from '../../src/source/index.ts';
import { draftText } from '../../src/script/draftFile.ts';
import { unpack } from '../../src/source/openers/zip.ts';
import { packedFile, type MadePart } from './packed.ts';

const W = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
const word = (body: string) => `<w:document xmlns:w="${W}"><w:body>${body}</w:body></w:document>`;
const said = (text: string) => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`;
const types: MadePart = { name: '[Content_Types].xml', data: '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>' }; // prettier-ignore
const rels: MadePart = { name: '_rels/.rels', data: '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>' }; // prettier-ignore
const docx = (part: Partial<MadePart> = {}) =>
  packedFile([types, rels, { name: 'word/document.xml', data: word(said('The lock was shut.')), ...part }]);

const why = (bytes: Uint8Array): Promise<string> =>
  openSource(bytes).then(
    (d) => `read: ${d.text}`,
    (error: Error) => (error.name === 'SourceError' ? error.message : `not in words: ${error.stack}`),
  );

describe('a packed file', () => {
  it('that says the same at its end and inside is read', async () =>
    expect(await why(docx())).to.equal('read: The lock was shut.'));

  it('that unpacks to more than any manuscript is refused by its list, before a byte is unpacked', async () => {
    const bomb = docx({ data: new Uint8Array(81 * 1024 * 1024) });
    expect(bomb.length).to.be.lessThan(1024 * 1024);
    const before = process.memoryUsage().arrayBuffers;
    expect(await why(bomb)).to.match(/unpacks to more than any manuscript/);
    expect(process.memoryUsage().arrayBuffers - before).to.be.lessThan(8 * 1024 * 1024);
  });

  const LIES: Record<string, Uint8Array> = {
    'another size': docx({ listed: { size: 400 } }),
    'a smaller size than comes out': docx({ listed: { size: 10 } }),
    'another name': docx({ listed: { name: 'word/dokument.xml' } }),
    'another way of packing': docx({ listed: { method: 0 } }),
    'another length': docx({ listed: { packed: 4 } }),
    'another place': docx({ listed: { at: 7 } }),
    // One stored part outside; the list names a large one that lies inside it.
    'a part within a part': (() => {
      const inner = packedFile([{ name: 'word/document.xml', data: word(said('x'.repeat(1_000_000))) }]);
      const [end] = [inner.length - 22];
      const outer = { name: 'word/', data: inner.subarray(0, end), stored: true };
      const listed = { name: 'word/document.xml', method: 8, at: 30 + 'word/'.length, packed: end - 200, size: 1_000_100 }; // prettier-ignore
      return packedFile([types, rels, { ...outer, listed }]);
    })(),
  };
  for (const [lie, bytes] of Object.entries(LIES))
    it(`whose list says ${lie} than stands inside is refused`, async () =>
      expect(await why(bytes)).to.match(/says one thing at its end and another inside|broken/));

  it('whose parts lie in one another is refused', () => {
    const twice = packedFile([
      { name: 'a.xml', data: 'one' },
      { name: 'a.xml', data: 'one', listed: { at: 0 } },
    ]);
    expect(() => unpack(twice, () => true)).to.throw(/one thing at its end and another inside/);
  });

  it('with a password says that it is locked', async () =>
    expect(await why(docx({ listed: { flags: 1 } }))).to.match(/locked/));

  it('that claims more parts than it has, or too many, is refused', async () => {
    const parts = [types, rels, { name: 'word/document.xml', data: word(said('a')) }];
    expect(await why(packedFile(parts, { count: 4 }))).to.match(/broken/);
    expect(await why(packedFile(parts, { count: 60_000 }))).to.match(/more than any manuscript/);
  });

  it('made by others is unpacked to the same bytes (fflate, as writer)', () =>
    fc.assert(
      fc.property(
        fc.dictionary(fc.stringMatching(/^[a-z]{1,8}\.xml$/), fc.uint8Array({ maxLength: 400 }), {
          maxKeys: 6,
        }),
        fc.constantFrom(0 as const, 6 as const),
        (files, level) => {
          const out = unpack(zipSync(files, { level }), () => true);
          expect([...out.keys()].sort()).to.deep.equal(Object.keys(files).sort());
          for (const [name, bytes] of out) expect([...bytes]).to.deep.equal([...files[name]]);
        },
      ),
      { seed: 17, numRuns: 200 },
    ));

  it('with one byte changed is read, or refused in words', () =>
    fc.assert(
      fc.asyncProperty(fc.nat(), fc.nat(255), async (at, byte) => {
        const file = docx();
        file[at % file.length] = byte;
        expect(await why(file)).not.to.match(/^not in words/);
      }),
      { seed: 17, numRuns: 150 },
    ));
});

describe('more words than several books', () => {
  const LONG = 'The gate was opened at six and the water went down by a foot. '.repeat(35_000);
  it('as text', async () => expect(await why(strToU8(LONG))).to.match(/more than 2,000,000 letters/));
  it('as one paragraph of a document', async () => {
    expect(await why(docx({ data: word(said(LONG.repeat(5))) }))).to.match(/more than 2,000,000 letters/);
  });
  it('as one part larger than any text', async () => {
    expect(await why(docx({ data: word(said(LONG.repeat(20))) }))).to.match(/more than any manuscript/);
  });
  it('as a draft', async () => {
    const error = await draftText(docx({ data: word(said(LONG.repeat(5))) })).then(() => null, (e: Error) => e); // prettier-ignore
    expect(error?.message).to.match(/more than 2,000,000 letters/);
  });
});

it('a chapter that a book names two thousand times is told once', async () => {
  const book = (spine: string) =>
    zipSync({
      mimetype: [strToU8('application/epub+zip'), { level: 0 }],
      'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="b.opf"/></rootfiles></container>'), // prettier-ignore
      'b.opf': strToU8(`<package><metadata><title>Locks</title></metadata><manifest><item id="a" href="a.xhtml"/></manifest><spine>${spine}</spine></package>`), // prettier-ignore
      'a.xhtml': strToU8(`<html><body><p>${'The gate was opened at six. '.repeat(40)}</p></body></html>`),
    });
  const [once, often] = await Promise.all(
    [1, 2000].map((n) => openSource(book('<itemref idref="a"/>'.repeat(n)))),
  );
  expect(often.text).to.equal(once.text);
});
