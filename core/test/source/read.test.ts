import { expect } from 'chai';
import fc from 'fast-check';
import { SourceError, readSource } from '../../src/source/index.ts';
import { extractFacts, steps, timeline } from '../../src/facts/index.ts';
import { demoFile, tagger } from '../tools.ts';

const fails = async (input: string | Uint8Array) => {
  try {
    await readSource(input);
  } catch (error) {
    expect(error).to.be.instanceOf(SourceError);
    return (error as SourceError).code;
  }
  return 'read';
};

describe('reading sources', () => {
  it('finds the steps within a step, however they are lettered, and leaves a lone letter where it is', async () => {
    const steps = ['1. Dig the pit and let it dry.', '2. Then make the floor:', '   a. Tread it firm.', '   b. Lay the mesh over it.', '   c. Cover it with straw.', '3. Fill it to the rim.']; // prettier-ignore
    for (const text of [
      `How to build a pit\n\nYou need a spade.\n\n${steps.join('\n')}\n\nThat is all.`,
      `# How to build a pit\n\nYou need a spade.\n\n${steps.join('\n')}\n\nThat is all.`,
    ]) {
      const doc = await readSource(text);
      const within = doc.blocks.filter((b) => b.within).map((b) => [b.within, b.step, b.text]);
      expect(within).to.deep.equal([
        [2, 1, 'Tread it firm.'],
        [2, 2, 'Lay the mesh over it.'],
        [2, 3, 'Cover it with straw.'],
      ]);
      expect(doc.text).to.not.match(/\b[abc]\. [A-Z]/);
    }
    const lone = await readSource(
      '# A plan\n\n1. See plan a. Nobody has another.\n2. Go on with it as it is.',
    );
    expect(lone.blocks.some((b) => b.within)).to.equal(false);
  });

  it('finds the article in a page and drops its furniture', async () => {
    const doc = await readSource(demoFile('footbridge.html'));
    expect(doc.title).to.equal('Pell Street footbridge shut after it swayed under the morning crowd');
    expect([doc.format, doc.kind, doc.publisher, doc.published]).to.deep.equal([
      'html',
      'news',
      'Marrowgate Courant',
      '2025-11-09',
    ]);
    expect(doc.text).to.not.match(/cookies|Read also|All rights reserved|Most read|Home/);
    expect(doc.text).to.match(/straight\.$/);
  });

  it('knows the kind of each demo source, with a reason', async () => {
    const kinds = await Promise.all(
      ['footbridge.html', 'boat-lift.md', 'eels.txt', 'ledger.txt', 'sash-window.md'].map((f) =>
        readSource(demoFile(f)),
      ),
    );
    expect(kinds.map((d) => d.kind)).to.deep.equal(['news', 'encyclopedia', 'abstract', 'forum', 'howto']);
    for (const d of kinds) expect(d.kindReason).to.have.length.greaterThan(8);
    expect((await readSource('One line of text.', { kind: 'howto' })).kindReason).to.equal('you said so');
  });

  it('places every passage in the reading text', async () => {
    for (const f of ['footbridge.html', 'boat-lift.md', 'sash-window.md']) {
      const doc = await readSource(demoFile(f));
      for (const b of doc.blocks) expect(doc.text.slice(b.start, b.end)).to.equal(b.text);
    }
  });

  it('reads numbered steps and their order', async () => {
    const doc = await readSource(demoFile('sash-window.md'));
    expect(steps(extractFacts(doc, tagger)).map((s) => s.step)).to.deep.equal([1, 2, 3, 4, 5, 6, 7, 8]);
  });

  it('reads encodings by mark, by declaration and by fallback', async () => {
    const words = 'The café was shut. Nobody knew why it was.';
    expect((await readSource(new TextEncoder().encode(words))).text).to.include('café');
    expect((await readSource(Uint8Array.from(Buffer.from(words, 'latin1')))).text).to.include('café');
    expect(
      (await readSource(Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(words, 'utf16le')]))).text,
    ).to.include('café');
  });

  it('refuses what is no source, in words', async () => {
    expect(await fails('')).to.equal('empty');
    expect(await fails(' \n \n')).to.equal('empty');
    expect(await fails('😀😀😀')).to.equal('empty');
    expect(await fails(Uint8Array.from({ length: 4000 }, (_, i) => (i * 7) % 256))).to.equal('binary');
    expect(await fails('a'.repeat(6 * 1024 * 1024))).to.equal('too-long');
    expect(await fails('# Only a heading')).to.equal('empty');
    expect(await fails('<div>'.repeat(20_000) + 'deep')).to.equal('unreadable');
    expect(await fails('word')).to.equal('read');
  });

  it('never takes markup from a hostile page as text', async () => {
    const doc = await readSource(
      '<html><body><article><h1>Title</h1><p>Safe words stay here for you.<script>alert(1)</script></p><p onclick="x()">More <b>words</b><style>p{}</style> and so on.</p><svg><text>no</text></svg></article></body></html>',
    );
    expect(doc.text).to.include('Safe words stay here for you.');
    expect(doc.text).to.not.match(/alert|<|onclick|p\{\}/);
  });

  it('reads the longest text without a sentence end, and text from right to left', async () => {
    const doc = await readSource('word '.repeat(399_000));
    expect(doc.blocks.length).to.be.greaterThan(100);
    expect((await readSource('هذا نص قصير. وهذه جملة أخرى.')).blocks).to.have.length(1);
  });

  it('takes any text without a bug', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.string({
          unit: fc.constantFrom('<', '>', 'p', '/', ' ', '#', '\n', '.', '“', 'A', '1', '-', '&', '*'),
          maxLength: 80,
        }),
        async (text) => void (await fails(text)),
      ),
      { seed: 7, numRuns: 200 },
    );
  });
});

const facts = extractFacts(await readSource(demoFile('footbridge.html')), tagger);

describe('facts', () => {
  const holding = (words: string) => facts.find((f) => f.text.includes(words))!;

  it('carry numbers with units, dates, names and quotes', () => {
    const opened = holding('22 August');
    expect(opened.dates.map((d) => [d.text, d.iso, d.resolved])).to.deep.equal([
      ['eleven weeks ago', '2025-08', true],
      ['22 August', '2025-08-22', true],
    ]);
    expect(opened.numbers.map((n) => [n.value, n.unit])).to.deep.include([6_400_000, '£']);
    expect(holding('Dr Ines Okafor').names.map((n) => n.text)).to.include('Dr Ines Okafor');
    expect(holding('ferry').quotes.map((q) => q.text)).to.deep.equal([
      'It felt like standing on the deck of a ferry,',
    ]);
  });

  it('point at their words in the reading text and are ranked', async () => {
    const doc = await readSource(demoFile('footbridge.html'));
    for (const f of facts) expect(doc.text.slice(f.start, f.end)).to.equal(f.text);
    expect(Math.max(...facts.map((f) => f.strength))).to.be.at.most(1);
    expect(facts[0].strength).to.be.greaterThan(holding('Each one is a steel box').strength);
  });

  it('give a timeline in order', async () => {
    const lift = timeline(extractFacts(await readSource(demoFile('boat-lift.md')), tagger));
    expect(lift.length).to.be.greaterThan(10);
    expect([...lift].map((t) => t.iso)).to.deep.equal([...lift].map((t) => t.iso).sort());
  });
});
