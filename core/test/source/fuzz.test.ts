/** Anything at all is either read or refused in words, in bounded time. FUZZ sets how many; the seed is printed. */
import { expect } from 'chai';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { SourceError, openSource } from '../../src/source/index.ts';

const RUNS = Number(process.env.FUZZ ?? 1200);
const PACKED = Number(process.env.FUZZ_PACKED ?? 800);
const SEED = Number(process.env.FUZZ_SEED ?? 20_251_125);
/** No input may take longer than this, in milliseconds: a hang, not a measure of speed. */
const HANG = 20_000;

const SEEDS = [
  '<!doctype html><html><body><article><h1>A</h1><p>The gate opened at 8:16.</p><ol><li>One</li></ol></article></body></html>',
  '<table><tr><td class="post"><b>x</b><br><br>words</td></tr></table>',
  "'''Lift''' is a [[canal|lift]].{{x|y}}\n== H ==\n* a\n<ref>b</ref>",
  '<?xml version="1.0"?><article><front><article-meta><abstract><p>We did.</p></abstract></article-meta></front></article>',
  'TY  - JOUR\nTI  - A\nAB  - We did it.\nER  - \n',
  '@article{a, title={B}, abstract={We {did} it.}}',
  '[{"type":"article","title":"A","abstract":"We did.","author":[]}]',
  '1\n00:00:01,000 --> 00:00:02,000\nwords here\n\n2\n00:00:03,000 --> 00:00:04,000\nmore',
  'WEBVTT\n\n00:01.000 --> 00:02.000\n<v A>Words.</v>',
  'From: a@b.c\nTo: d@e.f\nSubject: x\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=q\n\n--q\n\nwords\n--q--',
  '<?xml version="1.0"?><rss version="2.0"><channel><title>N</title><item><description>words</description></item></channel></rss>',
  '# Title\n\n1. Do this.\n2. Do that.\n\n> quote **bold**',
  '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Kids[]/Count 0>>endobj trailer<</Root 1 0 R>>',
];
const packed = [
  zipSync({
    mimetype: [strToU8('application/vnd.oasis.opendocument.text'), { level: 0 }],
    'content.xml': strToU8('<a><text><p>Words.</p></text></a>'),
  }),
  zipSync({
    mimetype: [strToU8('application/epub+zip'), { level: 0 }],
    'META-INF/container.xml': strToU8('<c><rootfile full-path="b"/></c>'),
    b: strToU8('<p/>'),
  }),
  zipSync({
    'word/document.xml': strToU8(
      '<w:document xmlns:w="w"><w:body><w:p><w:r><w:t>Words</w:t></w:r></w:p></w:body></w:document>',
    ),
  }),
];

/** A seed with pieces cut, doubled, swapped or made of noise. */
const mutated = (bytes: Uint8Array) =>
  fc
    .array(fc.tuple(fc.nat(bytes.length), fc.nat(30), fc.uint8Array({ maxLength: 12 })), { maxLength: 6 })
    .map((edits) => {
      let out = [...bytes];
      for (const [at, cut, put] of edits)
        out = [...out.slice(0, at), ...put, ...out.slice(Math.min(out.length, at + cut))];
      return Uint8Array.from(out);
    });

const opens = async (bytes: Uint8Array): Promise<void> => {
  const began = Date.now();
  try {
    const doc = await openSource(bytes);
    for (const b of doc.blocks) expect(doc.text.slice(b.start, b.end)).to.equal(b.text);
  } catch (error) {
    if (!(error instanceof SourceError)) throw error;
    expect(error.message).to.match(/[.]$/);
  }
  expect(Date.now() - began).to.be.lessThan(HANG);
};

describe(`any input (seed ${SEED}, ${RUNS} of text, ${PACKED} packed)`, function () {
  this.timeout(600_000);
  const text = fc.oneof(
    ...SEEDS.map((s) => mutated(new TextEncoder().encode(s))),
    fc.array(fc.constantFrom(...SEEDS), { maxLength: 3 }).map((s) => new TextEncoder().encode(s.join('\n'))),
    fc.uint8Array({ maxLength: 400 }),
    fc.string({ unit: 'grapheme', maxLength: 200 }).map((s) => new TextEncoder().encode(s)),
  );
  it('of text is read or refused in words', () =>
    fc.assert(fc.asyncProperty(text, opens), { seed: SEED, numRuns: RUNS }));
  it('of packed files and pages is read or refused in words', () =>
    fc.assert(
      fc.asyncProperty(fc.oneof(...packed.map(mutated), mutated(new TextEncoder().encode(SEEDS[12]))), opens),
      {
        seed: SEED,
        numRuns: PACKED,
      },
    ));
});

describe('hostile input', function () {
  it('of 200 nested tables is read', async () => {
    const page = `<html><body>${'<table><tr><td>'.repeat(200)}The gate opened at dawn, and nobody saw it.${'</td></tr></table>'.repeat(200)}</body></html>`;
    expect((await openSource(page)).text).to.include('The gate opened at dawn');
  });
  it('of 1 MB without a space, as text and as a page, is bounded', async () => {
    await opens(new TextEncoder().encode('x'.repeat(1_000_000)));
    await opens(new TextEncoder().encode(`<html><body><p>${'y'.repeat(1_000_000)}</p></body></html>`));
  });
  it('that lies about what it is, is taken for what it is', async () => {
    expect(
      (
        await openSource(
          new TextEncoder().encode('%PDF is a format, he said, and it was a dull evening.').slice(0),
        )
      ).format,
    ).to.equal('text');
  });
});
