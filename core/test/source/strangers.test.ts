/**
 * Pages that others wrote, with what a careful reader keeps of them. The weights were learned on them too: they are a test
 * that nothing gets worse, no estimate of how a new page is read.
 */
import { expect } from 'chai';
import { openSource } from '../../src/source/index.ts';
import { letters, ownLetters, pagesWithGold } from './gold.ts';

const PAGES = await pagesWithGold(new URL('./strangers/', import.meta.url));

describe(`${PAGES.length} pages by other hands`, () => {
  for (const { name, gold, doc } of PAGES) {
    it(`${name}: the whole article, no furniture, nobody else’s words`, () => {
      const text = ownLetters(doc);
      const article = letters(`${gold.title} ${gold.passages.map((p) => p.text).join(' ')}`);
      expect(gold.passages.filter((p) => !text.includes(letters(p.text)) && letters(p.text) !== letters(doc.title)).map((p) => p.text.slice(0, 60)).length).to.be.at.most(gold.passages.length * 0.08); // prettier-ignore
      for (const f of [...gold.furniture, ...(gold.replies ?? [])])
        if (letters(f).length >= 8 && !article.includes(letters(f)))
          expect(text.includes(letters(f)), f).to.equal(false);
    });
  }

  it('have their title, kind and day', () => {
    for (const { name, gold, doc } of PAGES) {
      expect([letters(doc.title), doc.kind], name).to.deep.equal([letters(gold.title), gold.kind]);
      if (gold.published) expect(doc.published, name).to.equal(gold.published);
    }
  });

  it('say what was left out, and why', () => {
    for (const { name, doc } of PAGES.filter((p) => p.name.endsWith('.html'))) {
      expect(doc.leftOut, name).to.have.length.above(10);
      for (const left of doc.leftOut!) expect(left.why, left.text).to.match(/^(?:it|nothing) .{5,}/);
    }
  });

  it('mark at most one word in twenty as doubtful', () => {
    for (const { name, doc } of PAGES) {
      const words = (list: readonly { text: string }[]) =>
        list.reduce((n, b) => n + b.text.split(' ').length, 0);
      expect(words(doc.blocks.filter((b) => b.doubt)), name).to.be.at.most(words(doc.blocks) * 0.06);
    }
  });
});

describe('a board, found by how its posts repeat', () => {
  const post = (who: string, when: string, said: string) =>
    `<div class="q1"><div class="q2"><b>${who}</b><br>Rank ${who.length}</div><div class="q3"><span>${when}</span><p>${said}</p><a href="#">Reply</a> <a href="#">Report</a></div></div>`;
  const story =
    'The lock on the boathouse gave way on a Sunday, and I went down with a lamp to see what was left of it. The dinghy was gone, and so were both oars, but whoever took them had swept the floor.';
  const update =
    'The dinghy is back. I found it this morning tied up where it always was, scrubbed from end to end, with a new pair of oars in it and a note that said sorry, my son is seven and you looked like you would understand.';
  const page = `<html><body><div class="t">Home Boards Search</div>${[
    post('mudlark', '4 May 2016 at 09:12', story),
    post(
      'old gull',
      '4 May 2016 at 09:40',
      'I would have stayed in bed, and I would have kept the lamp dry as well.',
    ),
    post('mudlark', '4 May 2016 at 10:02', 'Ha, thanks.'),
    post('mudlark', '9 May 2016 at 18:30', update),
    post('heron', '9 May 2016 at 19:01', 'That is the best note I have ever heard of on this river.'),
  ].join('')}<div class="f">Powered by reeds</div></body></html>`;

  it('tells the opening post and what its teller adds later, marked; others’ words and small talk are replies', async () => {
    const doc = await openSource(page);
    const told = doc.blocks.filter((b) => b.type !== 'reply');
    expect(told.map((b) => b.text)).to.deep.equal([story, update]);
    expect(told[1].under).to.equal('Update, 9 May 2016');
    expect([doc.kind, doc.authors]).to.deep.equal(['forum', ['mudlark']]);
    expect(doc.blocks.filter((b) => b.type === 'reply').map((b) => b.speaker)).to.deep.equal(['old gull', 'mudlark', 'heron']); // prettier-ignore
  });
});

describe('a live page', () => {
  const entry = (time: string, head: string, said: string) =>
    `<div class="e"><time>${time}</time><h3>${head}</h3><p>${said}</p><div>Share this entry</div></div>`;
  it('with its newest entry first is told from the oldest on', async () => {
    const doc = await openSource(
      `<html><body><main><h1>Storm shuts the coast road</h1>${[
        entry(
          '18:40',
          'Road open again',
          'The coast road was opened again this evening after crews had cleared eleven fallen trees from it, the council said.',
        ),
        entry(
          '12:05',
          'Trees down at Marl',
          'Eleven trees have come down between Marl and the lighthouse, and two cars were caught between them for three hours.',
        ),
        entry(
          '07:30',
          'Warning for the coast',
          'A warning of gales was given for the whole coast at half past six, and the ferries have stayed in the harbour since.',
        ),
      ].join('')}</main></body></html>`,
    );
    expect(doc.blocks.filter((b) => b.type === 'heading').map((b) => b.text)).to.deep.equal(['Warning for the coast', 'Trees down at Marl', 'Road open again']); // prettier-ignore
    expect(doc.text).to.not.include('Share this entry');
  });
});

describe('a page selected whole and pasted as text', () => {
  const paste = `Home
News
Sport
Weather
Sign in
Subscribe from £1 a week
Lamp room to be rebuilt after forty years
By Tilda Marsh
Published: 3 May 2021 at 07:15
Share
4 min read

The lamp room of the old lighthouse at Marl Head will be rebuilt this summer, forty years after a storm took it off in a single night.

Advertisement

The county has found £212,000 for the work, most of it left by a keeper’s daughter who died in March. She had asked that the light should turn once more before the road was closed.

Read also: Ten walks along the coast

Builders will begin on 4 June, and the first lamp is to be lit on the shortest day of the year.

Get our stories by email
Sign up
© 2021 Marl Courier. All rights reserved.`;

  it('is read as the page: title, author and day known, menus and advertisements left out', async () => {
    const doc = await openSource(paste);
    expect([doc.title, doc.authors, doc.published]).to.deep.equal([
      'Lamp room to be rebuilt after forty years',
      ['Tilda Marsh'],
      '2021-05-03',
    ]);
    expect(doc.blocks).to.have.length(3);
    expect(doc.text).to.not.match(/Advertisement|Subscribe|Share|Read also|Sign up|rights reserved/);
  });
});
