/** Every format that is opened, made by an independent library or written by hand to its standard. All articles are invented. */
import { expect } from 'chai';
import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import { strToU8, zipSync } from 'fflate';
import PDFDocument from 'pdfkit';
import { SourceError, openSource, type SourceDocument } from '../../src/source/index.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const texts = (d: SourceDocument, type?: string) =>
  d.blocks.filter((b) => !type || b.type === type).map((b) => b.text);
const reason = async (input: Uint8Array | string): Promise<string> => {
  try {
    await openSource(input);
    return 'read';
  } catch (error) {
    expect(error).to.be.instanceOf(SourceError);
    return (error as SourceError).message;
  }
};

type Draw = (doc: PDFKit.PDFDocument) => void;
const pdf = (draw: Draw, options: PDFKit.PDFDocumentOptions = {}) =>
  new Promise<Uint8Array>((resolve) => {
    const doc = new PDFDocument({ size: 'A4', margin: 60, ...options });
    const chunks: Buffer[] = [];
    doc.on('data', (c: Buffer) => chunks.push(c));
    doc.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    draw(doc);
    doc.end();
  });
const LINES = (n: number, word: string) =>
  Array.from(
    { length: n },
    (_, i) =>
      `The ${word} boat number ${i + 2} went down to the harbour with coal and came back with lime and salt.`,
  );

describe('PDF (made by pdfkit)', () => {
  it('gives title, headings and paragraphs; running heads, page numbers, notes and references left out', async () => {
    const file = await pdf(
      (doc) => {
        const page = (n: number) => {
          doc.fontSize(9).text('Proceedings of the Lockside Society', 60, 30, { lineBreak: false });
          doc.text(`Page ${n}`, 480, 800, { lineBreak: false });
        };
        page(1);
        doc.fontSize(20).text('The lift at Orrin', 60, 70).fontSize(11);
        doc.moveDown().text(LINES(6, 'old').join(' '));
        doc
          .moveDown()
          .fontSize(14)
          .text('What failed')
          .fontSize(11)
          .text('In 1907 one of the 48 cables parted. Nobody was hurt.');
        doc.fontSize(7).text('1 See the log of the keeper for that night.', 60, 740);
        doc.addPage({ margin: 60 });
        page(2);
        doc.fontSize(11).text('The wedges held the wheel for sixty-one days.', 60, 80);
        doc
          .moveDown()
          .fontSize(14)
          .text('References')
          .fontSize(11)
          .text('Crane, J. (1890). On balance. Sluice Press.');
        doc.addPage({ margin: 60 });
        page(3);
        doc.fontSize(11).text('Vey, A. (1884). A duck in a tin. Harbour Books.', 60, 80);
      },
      { info: { Author: 'Ida Rennick', Title: 'draft7.doc' } },
    );
    const d = await openSource(file);
    expect([d.format, d.title, d.authors]).to.deep.equal(['pdf', 'The lift at Orrin', ['Ida Rennick']]);
    expect(texts(d, 'heading')).to.deep.equal(['What failed']);
    expect(texts(d, 'paragraph')).to.deep.equal([
      LINES(6, 'old').join(' '),
      'In 1907 one of the 48 cables parted. Nobody was hurt.',
      'The wedges held the wheel for sixty-one days.',
    ]);
  });

  it('reads two columns one after the other and joins words cut at line ends', async () => {
    const column = (word: string) => [
      ...LINES(9, word),
      'It was a har-',
      'bour of its own. A well-',
      'Known one.',
    ];
    const file = await pdf((doc) => {
      doc.fontSize(9);
      ['left', 'right'].forEach((word, c) =>
        column(word)
          .flatMap((l) => l.match(/.{1,48}(?:\s|$)/g) ?? [])
          .forEach((l, i) => doc.text(l.trim(), 50 + c * 260, 80 + i * 12, { lineBreak: false })),
      );
    });
    const words = (await openSource(file)).text;
    expect(words.indexOf('left boat number 10')).to.be.lessThan(words.indexOf('right boat number 2'));
    expect(words).to.include('It was a harbour of its own. A well- Known one.');
  });

  it('says what is wrong with a locked, a broken and a pictured one', async () => {
    const locked = await pdf((doc) => doc.text('Secret words.'), { userPassword: 'x', ownerPassword: 'y' });
    expect(await reason(locked)).to.match(/locked with a password/);
    const good = await pdf((doc) => doc.text(LINES(40, 'cut').join(' ')));
    expect(await reason(good.subarray(0, Math.floor(good.length * 0.2)))).to.match(
      /broken or cut off|no words/,
    );
    expect(await reason(await pdf((doc) => doc.rect(10, 10, 50, 50).fill()))).to.match(
      /no words that can be read/,
    );
  });
});

describe('DOCX (made by the package "docx")', () => {
  it('gives headings, paragraphs and lists, author and date', async () => {
    const doc = new Document({
      title: 'The lift at Orrin',
      creator: 'Ida Rennick',
      sections: [
        {
          children: [
            new Paragraph({ heading: HeadingLevel.HEADING_1, text: 'What failed' }),
            new Paragraph({
              children: [
                new TextRun('One of the '),
                new TextRun({ text: '48 cables', bold: true }),
                new TextRun(' parted in 1907.'),
              ],
            }),
            new Paragraph({ text: 'A candle', bullet: { level: 0 } }),
          ],
        },
      ],
    });
    const d = await openSource(new Uint8Array(await Packer.toBuffer(doc)));
    expect([d.format, d.title, d.authors]).to.deep.equal(['docx', 'The lift at Orrin', ['Ida Rennick']]);
    expect(d.blocks.map((b) => [b.type, b.text])).to.deep.equal([
      ['heading', 'What failed'],
      ['paragraph', 'One of the 48 cables parted in 1907.'],
      ['item', 'A candle'],
    ]);
  });

  it('says that a cut one is broken and that a packed picture is none', async () => {
    const file = zipSync({ 'word/document.xml': strToU8('<w:document>') });
    expect(await reason(file)).to.match(/broken/);
    expect(await reason(file.subarray(0, 60))).to.match(/broken|packed file/);
    expect(await reason(zipSync({ 'a.png': new Uint8Array(50) }))).to.match(/packed file but no document/);
  });
});

const odt = (content: string) =>
  zipSync({
    mimetype: [strToU8('application/vnd.oasis.opendocument.text'), { level: 0 }],
    'content.xml': strToU8(
      `<?xml version="1.0"?><office:document-content xmlns:office="o" xmlns:text="t"><office:body><office:text>${content}</office:text></office:body></office:document-content>`,
    ),
    'meta.xml': strToU8(
      '<office:document-meta xmlns:office="o" xmlns:dc="d"><office:meta><dc:title>The lift at Orrin</dc:title><dc:creator>Ida Rennick</dc:creator><dc:date>2025-03-14T10:00:00</dc:date></office:meta></office:document-meta>',
    ),
  });

describe('OpenDocument and EPUB (written by hand to their standards)', () => {
  it('reads headings, paragraphs and lists of an ODT, notes left out', async () => {
    const d = await openSource(
      odt(
        '<text:h text:outline-level="1">What failed</text:h><text:p>One cable<text:note><text:note-body><text:p>NOTE</text:p></text:note-body></text:note> parted &amp; hung.</text:p><text:list><text:list-item><text:p>A candle</text:p></text:list-item></text:list>',
      ),
    );
    expect([d.title, d.authors, d.updated]).to.deep.equal([
      'The lift at Orrin',
      ['Ida Rennick'],
      '2025-03-14',
    ]);
    expect(d.blocks.map((b) => [b.type, b.text])).to.deep.equal([
      ['heading', 'What failed'],
      ['paragraph', 'One cable parted & hung.'],
      ['item', 'A candle'],
    ]);
  });

  it('never expands entities of a document’s own: no billion laughs, nothing fetched', async () => {
    const lol = Array.from({ length: 9 }, (_, i) => `<!ENTITY l${i + 1} "${`&l${i};`.repeat(10)}">`).join('');
    const xml = `<?xml version="1.0"?><!DOCTYPE article [<!ENTITY l0 "lol">${lol}<!ENTITY file SYSTEM "file:///etc/passwd">]><article><front><article-meta><title-group><article-title>A</article-title></title-group><abstract><p>Words of the study &l9; &file; go on.</p></abstract></article-meta></front></article>`;
    const began = process.memoryUsage().heapUsed;
    const d = await openSource(bytes(xml));
    expect(d.text)
      .to.include('Words of the study')
      .and.not.match(/root:|lollol/);
    expect(process.memoryUsage().heapUsed - began).to.be.lessThan(100 * 1024 * 1024);
  });

  it('reads the chapters of an EPUB in the order of its spine, cover and contents left out', async () => {
    const chapter = (title: string, words: string) =>
      strToU8(
        `<html xmlns="http://www.w3.org/1999/xhtml"><body><h1>${title}</h1><p>${words}</p></body></html>`,
      );
    const d = await openSource(
      zipSync({
        mimetype: [strToU8('application/epub+zip'), { level: 0 }],
        'META-INF/container.xml': strToU8(
          '<container><rootfiles><rootfile full-path="OEBPS/book.opf"/></rootfiles></container>',
        ),
        'OEBPS/book.opf': strToU8(
          '<package xmlns:dc="d"><metadata><dc:title>Locks</dc:title><dc:creator>Ida Rennick</dc:creator><dc:language>en</dc:language><dc:rights>CC BY 4.0</dc:rights></metadata><manifest><item id="toc" href="toc.xhtml"/><item id="b" href="two.xhtml"/><item id="a" href="one.xhtml"/></manifest><spine><itemref idref="toc"/><itemref idref="a"/><itemref idref="b"/></spine></package>',
        ),
        'OEBPS/toc.xhtml': chapter('Contents', 'CONTENTS'),
        'OEBPS/two.xhtml': chapter('Two', 'The wedges held.'),
        'OEBPS/one.xhtml': chapter('One', 'The cable parted.'),
      }),
    );
    expect([d.title, d.licence]).to.deep.equal(['Locks', 'CC BY 4.0']);
    expect(texts(d)).to.deep.equal(['One', 'The cable parted.', 'Two', 'The wedges held.']);
  });
});

describe('records and articles', () => {
  const ABSTRACT =
    'BACKGROUND: Bells ring at night. METHODS: We recorded 86 sparrows. RESULTS: They slept 22 minutes less. CONCLUSIONS: Bells may cost sleep.';
  const RECORDS: readonly (readonly [string, string])[] = [
    [
      'ris',
      `TY  - JOUR\r\nTI  - Bells and sparrows\r\nAU  - Quill, Mara\r\nAU  - Ferrier, Jon\r\nPY  - 2021/06/01\r\nJO  - Journal of Urban Birds\r\nAB  - ${ABSTRACT}\r\nER  - \r\n`,
    ],
    [
      'bibtex',
      `@article{quill2021,\n  title = {Bells and sparrows},\n  author = {Quill, Mara and Ferrier, Jon},\n  year = {2021},\n  journal = {Journal of Urban Birds},\n  abstract = {${ABSTRACT}}\n}`,
    ],
    [
      'csl-json',
      JSON.stringify([
        {
          id: 'q',
          type: 'article-journal',
          title: 'Bells and sparrows',
          author: [
            { family: 'Quill', given: 'Mara' },
            { family: 'Ferrier', given: 'Jon' },
          ],
          issued: { 'date-parts': [[2021]] },
          'container-title': 'Journal of Urban Birds',
          abstract: ABSTRACT,
        },
      ]),
    ],
  ];
  for (const [format, record] of RECORDS)
    it(`reads a ${format} record as a study with its labelled parts`, async () => {
      const d = await openSource(bytes(record));
      expect([d.format, d.kind, d.title, d.authors, d.publisher, d.published!.slice(0, 4)]).to.deep.equal([
        format,
        'abstract',
        'Bells and sparrows',
        ['Mara Quill', 'Jon Ferrier'],
        'Journal of Urban Birds',
        '2021',
      ]);
      expect(texts(d)).to.deep.equal([
        'Background: Bells ring at night.',
        'Methods: We recorded 86 sparrows.',
        'Results: They slept 22 minutes less.',
        'Conclusions: Bells may cost sleep.',
      ]);
    });

  it('reads the RIS record that the format’s description gives as its example (C. E. Shannon 1948; from memory, an abstract added)', async () => {
    const d = await openSource(
      'TY  - JOUR\nAU  - Shannon, Claude E.\nPY  - 1948\nDA  - July\nTI  - A Mathematical Theory of Communication\nT2  - Bell System Technical Journal\nSP  - 379\nEP  - 423\nVL  - 27\nAB  - The recent development of various methods of modulation has intensified the interest in a general theory of communication.\nER  - \n',
    );
    expect([d.title, d.authors, d.publisher, d.published]).to.deep.equal([
      'A Mathematical Theory of Communication',
      ['Claude E. Shannon'],
      'Bell System Technical Journal',
      '1948',
    ]);
  });

  it('says that a record has no abstract, and never takes a title for an address', async () => {
    expect(await reason('TY  - JOUR\nTI  - https://example.org/x\nER  - \n')).to.match(/no abstract/);
  });

  it('reads a JATS article: abstract sections, people, dates and licence (elements as in ANSI/NISO Z39.96-2021)', async () => {
    const d = await openSource(
      bytes(
        `<?xml version="1.0"?><!DOCTYPE article PUBLIC "-//NLM//DTD JATS (Z39.96) Journal Publishing DTD v1.2 20190208//EN" "JATS-journalpublishing1.dtd"><article xml:lang="en"><front><journal-meta><journal-title-group><journal-title>Journal of Urban Birds</journal-title></journal-title-group></journal-meta><article-meta><title-group><article-title>Bells and <italic>Passer</italic></article-title></title-group><contrib-group><contrib contrib-type="author"><name><surname>Quill</surname><given-names>Mara</given-names></name></contrib><contrib contrib-type="editor"><name><surname>Not</surname></name></contrib></contrib-group><pub-date pub-type="epub"><day>1</day><month>6</month><year>2021</year></pub-date><permissions><license xlink:href="https://creativecommons.org/licenses/by/4.0/"><license-p>Open</license-p></license></permissions><abstract abstract-type="summary"><p>PLAIN</p></abstract><abstract><sec><title>Methods</title><p>We recorded 86 sparrows<xref>1</xref>.</p></sec></abstract></article-meta></front><body><sec><title>Long</title><p>BODY</p></sec></body></article>`,
      ),
    );
    expect([d.title, d.authors, d.published, d.licence, d.publisher]).to.deep.equal([
      'Bells and Passer',
      ['Mara Quill'],
      '2021-06-01',
      'https://creativecommons.org/licenses/by/4.0/',
      'Journal of Urban Birds',
    ]);
    expect(texts(d)).to.deep.equal(['We recorded 86 sparrows.', 'In plain words', 'PLAIN', 'Long', 'BODY']);
    expect(d.blocks[0].under).to.equal('Methods');
  });

  it('reads wikitext: lead, sections and lists; templates, references and apparatus left out', async () => {
    const d = await openSource(
      `{{Infobox tower|height=38}}\n'''Ganner light tower''' is a [[lighthouse]] on [[Ganner Rock|the rock]].<ref>Book, 1888</ref> It is {{convert|38|m}} high.\n\n== Origin ==\nThe rock wrecked 57 ships.\n* It was lit in 1871.\n\n== References ==\n{{reflist}}\n* Furniture 888\n`,
    );
    expect([d.format, d.kind, d.title]).to.deep.equal(['wikitext', 'encyclopedia', 'Ganner light tower']);
    expect(d.text)
      .to.include('Ganner light tower is a lighthouse on the rock.')
      .and.include('The rock wrecked 57 ships.')
      .and.not.match(/888|Infobox|Book/);
  });

  it('keeps a wikitext table where it stands, also behind a part that is left out, and takes the numbers off its lists', async () => {
    const table = (a: string, b: string) =>
      `{| class="wikitable"\n! Year !! Keeper\n|-\n| ${a} || Orme\n|-\n| ${b} || Pell\n|}\n`;
    const d = await openSource(
      `'''The gate''' is a [[gate]] in Holm.\n\n== References ==\n${table('1701', '1702')}\n== Keepers ==\nThere were two.\n\n${table('1811', '1830')}\nThe last of these was blind.\n* 1) He lit the lamp by ear.\n{{end}}\n`,
    );
    expect(d.blocks.map((b) => b.text)).to.deep.equal([
      'The gate is a gate in Holm.',
      'Keepers',
      'There were two.',
      'Year; Keeper',
      '1811; Orme',
      '1830; Pell',
      'The last of these was blind.',
      'He lit the lamp by ear.',
    ]);
  });

  it('takes steps from headings that count them, and not from the list that sums them up', async () => {
    const headed = (word: string) =>
      `# How to pickle a pear\n\n## ${word} 1: Peel\n\nPeel the pears. Keep the stalks.\n\n## ${word} 2: Boil\n\nBoil them for an hour.\n\n## ${word} 3: Fill\n\nFill the jars.\n\n## In short\n\n1. Peel.\n2. Boil.\n3. Fill.\n`;
    const d = await openSource(headed('Step'));
    expect(d.kind).to.equal('howto');
    expect(d.blocks.filter((b) => b.step).map((b) => [b.step, b.text.slice(0, 8)])).to.deep.equal([
      [1, 'Peel the'],
      [2, 'Boil the'],
      [3, 'Fill the'],
    ]);
    expect((await openSource(headed('Pear'))).blocks.filter((b) => b.step).map((b) => b.text)).to.deep.equal(['Peel.', 'Boil.', 'Fill.']); // prettier-ignore
  });

  it('takes off a number that links to a note on the page, and leaves one that is a word of the text', async () => {
    const long = 'The wall was built of stone that nobody had wanted for the church across the lane. ';
    const d = await openSource(
      `<html><body><article><h1>The wall</h1><p>${long}It was not there in August.<a href="#fn1">1</a> ${long}</p><p>It has <a href="#four">four</a> gates and <a href="/gate/4">4</a> keepers. ${long}</p></article></body></html>`,
    );
    expect(d.text).to.include('in August. The wall').and.include('four gates and 4 keepers');
  });
});

describe('captions, letters, feeds, saved pages', () => {
  it('reads WebVTT as turns with who speaks when (voice spans of the W3C recommendation)', async () => {
    const d = await openSource(
      'WEBVTT\n\nNOTE x\n\n00:01.000 --> 00:03.000\n<v Ida Rennick>People ask me how I lift a boat.</v>\n\n00:03.200 --> 00:05.000\n<v Ida Rennick>You pour a bath and wait.</v>\n\n00:06.000 --> 00:08.000\n<v Host>And the duck?</v>\n',
    );
    expect(d.kind).to.equal('interview');
    expect(d.blocks.map((b) => [b.speaker, b.atMs, b.text])).to.deep.equal([
      ['Ida Rennick', 1000, 'People ask me how I lift a boat. You pour a bath and wait.'],
      ['Host', 6000, 'And the duck?'],
    ]);
    expect(d.doubt).to.equal(undefined);
  });

  it('knows automatic captions by their missing stops, cuts them at pauses and marks them less sure', async () => {
    const said = [
      'people ask me how',
      'i lift a boat',
      'you do not lift',
      'it at all',
      'you pour a bath',
      'and then you wait',
    ];
    const times = [0, 1500, 4000, 5500, 8000, 9500];
    const stamp = (ms: number) =>
      `00:00:${String(Math.floor(ms / 1000)).padStart(2, '0')},${String(ms % 1000).padStart(3, '0')}`;
    const d = await openSource(
      said.map((t, i) => `${i + 1}\n${stamp(times[i])} --> ${stamp(times[i] + 1450)}\n${t}\n`).join('\n'),
    );
    expect(texts(d)).to.deep.equal([
      'People ask me how I lift a boat.',
      'You do not lift it at all.',
      'You pour a bath and then you wait.',
    ]);
    expect(d.doubt).to.match(/made by a machine/);
  });

  it('reads a letter without what it quotes and its signature', async () => {
    const d = await openSource(
      'From: Ida Rennick <ida@example.org>\nTo: desk@example.org\nSubject: =?utf-8?q?The_log_=E2=80=93_1907?=\nDate: Fri, 14 Mar 2025 08:00:00 +0000\nMIME-Version: 1.0\nContent-Type: text/plain; charset=utf-8\n\nThe log has 61 volumes.\n\nAll are in pencil.\n\nOn Thu, 13 Mar 2025 the desk wrote:\n> How many volumes?\n-- \nIda\n',
    );
    expect([d.title, d.authors, d.published]).to.deep.equal([
      'The log – 1907',
      ['Ida Rennick'],
      '2025-03-14',
    ]);
    expect(texts(d)).to.deep.equal(['The log has 61 volumes.', 'All are in pencil.']);
  });

  it('reads a saved page (MHTML, RFC 2557)', async () => {
    const words =
      'The granary at Thorne Wharf burned down on Friday, and 23 people had to leave their homes in the night. '
        .repeat(4)
        .trim();
    const d = await openSource(
      `From: <Saved by a browser>\r\nSnapshot-Content-Location: https://example.org/granary\r\nSubject: Granary\r\nDate: Fri, 14 Mar 2025 08:00:00 +0000\r\nMIME-Version: 1.0\r\nContent-Type: multipart/related; boundary="b"\r\n\r\n--b\r\nContent-Type: text/html; charset=utf-8\r\nContent-Transfer-Encoding: 8bit\r\n\r\n<html><body><nav>FURNITURE</nav><article><h1>Granary burns</h1><p>${words}</p></article></body></html>\r\n--b--\r\n`,
    );
    expect([d.title, d.address]).to.deep.equal(['Granary burns', 'https://example.org/granary']);
    expect(texts(d)).to.deep.equal([words]);
  });

  const ITEM =
    'The ferry will go on running for at least three years, the council decided. Eleven members voted for it and eight against.';
  it('reads the newest entry of an RSS 2.0 and of an Atom feed (RFC 4287)', async () => {
    const rss = await openSource(
      `<?xml version="1.0"?><rss version="2.0"><channel><title>Marrow Post</title><item><title>Old</title><description>OLD</description><pubDate>Mon, 03 Nov 2025 08:00:00 GMT</pubDate></item><item><title>Ferry stays</title><link>https://example.org/f</link><description>&lt;p&gt;${ITEM}&lt;/p&gt;</description><pubDate>Wed, 05 Nov 2025 08:00:00 GMT</pubDate></item></channel></rss>`,
    );
    expect([rss.title, rss.published, rss.publisher, rss.address]).to.deep.equal([
      'Ferry stays',
      '2025-11-05',
      'Marrow Post',
      'https://example.org/f',
    ]);
    const atom = await openSource(
      `<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom"><title>Marrow Post</title><entry><title>Ferry stays</title><updated>2025-11-05T08:00:00Z</updated><content type="html">&lt;p&gt;${ITEM}&lt;/p&gt;</content></entry></feed>`,
    );
    for (const d of [rss, atom]) expect(texts(d)).to.deep.equal([ITEM]);
  });
});
