/** Lines above a text that say who wrote it, where and when are no narration; labels of a study's parts are headings. */
import { expect } from 'chai';
import { NO_CHOICES, withChoice } from '../../src/source/choices.ts';
import { openSource, readSource } from '../../src/source/index.ts';

const LONG =
  'The bell was lowered from the tower in the dark by four men with a rope who had told their wives that they were fishing. '.repeat(
    3,
  );

const BODY =
  'The ferry stopped on Tuesday after a chain broke in the river.\n\nNobody was hurt, and the passengers walked home along the bank.';
const read = (head: string) => readSource(`# The ferry stops\n\n${head}\n\n${BODY}`, { kind: 'news' });

describe('where a report was written', () => {
  const REST = 'A chain broke in the river on Tuesday, and nobody knows why.';
  for (const line of [
    'LINDMOUTH —',
    'LONG ACRE, Kent —',
    'LOWER SENN, Orle (News Service) --',
    'Lindmouth (News Service) -',
    '(News Service) –',
    'MILL FORD, Cal. --',
    '(Marsh News) LOWER SENN, Orle --',
    '(Marsh News)',
  ])
    it(`is set aside and kept: ${line}`, async () => {
      const source = await readSource(`# The ferry stops\n\n${line} ${REST}`, { kind: 'news' });
      expect(source.blocks[0].text).to.equal(REST);
      expect(source.leftOut!.map((l) => l.text)).to.deep.equal([line]);
    });
  it('can be taken in by the writer', async () => {
    const choices = withChoice(NO_CHOICES, 'LINDMOUTH —', 'in');
    const source = await readSource(`# The ferry stops\n\nLINDMOUTH — ${REST}`, { kind: 'news', choices });
    expect(source.blocks.map((b) => b.text)).to.deep.equal(['LINDMOUTH —', REST]);
  });
  it('is nothing but a place before a sentence', async () => {
    for (const text of [
      'NATO leaders met on Monday - The first time since the flood was years ago.',
      'BREAD — the one thing they had — was gone by the second week.',
      'The ferry – a white box on wheels – stopped on Tuesday.',
      'He left on Monday - Nobody has seen him since that day.',
    ])
      expect((await readSource(`# The ferry\n\n${text}`, { kind: 'news' })).blocks[0].text).to.equal(text);
  });
});

describe('markup that was written out', () => {
  it('is no text', async () =>
    expect(
      (
        await readSource(
          '# Powers\n\nThe sum of A&lt;sup&gt;x&lt;/sup&gt; is odd. Nobody knows why that is.',
          { kind: 'news' },
        )
      ).text,
    ).to.not.match(/<sup>|sup/));
});

describe('the lines above a text', () => {
  it('give author, day and publisher, in any order', async () => {
    const cases: [string, string | undefined, string | undefined, string | undefined][] = [
      ['By Ruth Calloway. Published 2 December 2024', 'Ruth Calloway', '2024-12-02', undefined],
      ['Lindmouth Herald, 14 March 2025', undefined, '2025-03-14', 'Lindmouth Herald'],
      ['3 August 2025 · Western Gazette', undefined, '2025-08-03', 'Western Gazette'],
      ['Journal of Shift Work, 2023', undefined, '2023', 'Journal of Shift Work'],
      ['By Nell Hughes', 'Nell Hughes', undefined, undefined],
    ];
    for (const [head, author, day, publisher] of cases) {
      const source = await read(head);
      expect([source.authors?.[0], source.published, source.publisher], head).to.deep.equal([
        author,
        day,
        publisher,
      ]);
      expect(source.blocks[0].text, head).to.match(/^The ferry stopped/);
    }
  });

  it('are left alone when they say anything else', async () => {
    for (const head of [
      'In March 2025 the town voted for a bridge.',
      'By the river there is a ferry.',
      'Two boats sank in 1908.',
    ])
      expect((await read(head)).blocks[0].text, head).to.equal(head);
  });

  it('never leave a source without a word', async () => {
    expect(
      (
        await readSource(
          'By Ruth Calloway. Published 2 December 2024, and nothing else was ever written about it by anybody.',
        )
      ).blocks.length,
    ).to.be.greaterThan(0);
  });
});

describe('a labelled study', () => {
  it('has its labels as headings, with a full stop or a colon', async () => {
    const source = await readSource(
      'Naps\n\nBackground. Errors are frequent at night.\n\nMethods. We followed 84 people.\n\nResults. Errors fell by a third.',
      { kind: 'abstract' },
    );
    expect(source.blocks.filter((b) => b.type === 'heading').map((b) => b.text)).to.deep.equal([
      'Background',
      'Methods',
      'Results',
    ]);
    expect(source.blocks.filter((b) => b.type === 'paragraph').map((b) => [b.under, b.text])).to.deep.equal([
      ['Background', 'Errors are frequent at night.'],
      ['Methods', 'We followed 84 people.'],
      ['Results', 'Errors fell by a third.'],
    ]);
  });
  it('has them as headings where they stand in one paragraph too', async () => {
    const source = await readSource(
      'Naps\n\nBackground. Errors are frequent at night.\nMethods. We followed 84 people.\nResults. Errors fell by a third.',
      { kind: 'abstract' },
    );
    expect(source.blocks.filter((b) => b.type === 'paragraph').map((b) => [b.under, b.text])).to.deep.equal([
      ['Background', 'Errors are frequent at night.'],
      ['Methods', 'We followed 84 people.'],
      ['Results', 'Errors fell by a third.'],
    ]);
  });
  it('keeps a word alone in a text that is none', async () => {
    const text = 'She asked for three things. Results. He gave her one.';
    expect((await readSource(`The talk\n\n${text}`)).blocks.at(-1)!.text).to.equal(text);
  });
});

describe('a page that says in its own way who told what', () => {
  it('has the title that stands over its text, be it numbered in the window alone', async () => {
    const d = await readSource(
      `<html><head><title>Tower Tales - told by those who were there - #4120 The wrong bell</title></head><body><b>Tower Tales</b> told by those who were there<hr><b>The wrong bell</b><p>${LONG}</p><p>${LONG}</p></body></html>`,
    );
    expect(d.title).to.equal('The wrong bell');
  });
  it('is called what stands over its posts, however its board calls itself, counts its pages or marks what is solved', async () => {
    const T = 'The lamp in the loft is warm';
    const post = (name: string, day: number, words: string) => `<div><div><a>${name}</a> Posts: ${day} Joined: May 2009</div><div>Posted: ${day} May 2011 10:22</div><p>${words}</p></div>`; // prettier-ignore
    const loft = 'I found a lamp in our loft last week, still warm. Nobody has been up there since May, and the hatch is painted shut. I put it on the sill, and this morning it was back in the loft.'; // prettier-ignore
    for (const [window, over] of [
      [`Fen Talk - ${T}`, `<h2>Topic: ${T}</h2>`],
      [`${T} (Page 1) / Strange things / Fen Talk`, `<h2>${T} (Page 1 of 2)</h2>`],
      ['Fen Talk', `<h1>Fen Talk</h1><h3>Thread: ${T}</h3>`],
      ['Fen Talk • View topic', `<b>Fen Talk Forum Index → Strange things → ${T}</b>`],
      ['Fen Talk Forums', `<h1>Fen Talk Forums</h1><div><a href="t">${T}</a></div>`],
      [`Fen Talk | Strange things | ${T} [SOLVED]`, `<h2>${T} [SOLVED]</h2>`],
    ]) {
      const d = await readSource(`<html><head><title>${window}</title></head><body><div><a href="/">Fen Talk</a></div>${over}${post('mossy', 3, loft)}${post('tarn', 4, 'Burn the house down, please, and move to the coast.')}${post('mossy', 9, `It was next door. ${loft}`)}</body></html>`); // prettier-ignore
      expect([d.title, d.authors], window).to.deep.equal([T, ['mossy']]);
    }
  });
  it('is by whoever wrote it, not by who passed it on', async () => {
    const letter = (body: string) => openSource(`From: Hugh Alder <hugh@alder.example>\nTo: desk@post.example\nSubject: Fwd: The wrong bell\nDate: Thu, 22 Aug 2024 16:44:00 +0100\nContent-Type: text/plain\n\n${body}`); // prettier-ignore
    const said = `${LONG}\n\n${LONG}`;
    const passed = await letter(`One for us?\n\n---------- Forwarded message ---------\nFrom: Perpetua Lisle <perpetua@lisle.example>\nDate: Wed, 21 Aug 2024 at 08:00\nSubject: The wrong bell\nTo: Hugh Alder\n\n${said}`); // prettier-ignore
    expect([passed.title, passed.authors, passed.published]).to.deep.equal(['The wrong bell', ['Perpetua Lisle'], '2024-08-21']); // prettier-ignore
    const own = await letter(said);
    expect([own.authors, own.published]).to.deep.equal([['Hugh Alder'], '2024-08-22']);
  });
  it('is by the one name that is set apart behind “by”, and by nobody who is named in a sentence', async () => {
    const page = (row: string) =>
      readSource(
        `<html><body><h1>The wrong bell</h1><div>${row}</div><p>${LONG}</p><p>${LONG}</p></body></html>`,
      );
    expect((await page('by <i>Philippa</i>, 61, from the coast')).authors).to.deep.equal(['Philippa']);
    const paid = await page('This letter is paid for by its readers and by Harkness Marine Paints, as it has been since the spring.'); // prettier-ignore
    expect(paid.authors ?? []).to.deep.equal([]);
  });
  it('ends where it says what its readers said', async () => {
    const said = ['I went to the tower the next morning with my father, and the rope was still there, coiled as sailors do it.', 'My uncle was one of the four men, and he told us on his last birthday that none of them had ever fished.']; // prettier-ignore
    const letters = said.map((t, k) => `<div><b>${['Nell Tagg', 'Old Harold'][k]}</b> <span>${t}</span></div>`).join(''); // prettier-ignore
    const d = await readSource(`<html><body><h1>The wrong bell</h1><p>${LONG}</p><p>${LONG}</p><div>What readers said</div>${letters}</body></html>`); // prettier-ignore
    const own = d.blocks.filter((b) => b.type !== 'reply').map((b) => b.text).join(' '); // prettier-ignore
    for (const t of said) expect(own).to.not.contain(t);
  });
});
