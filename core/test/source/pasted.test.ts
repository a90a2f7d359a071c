/**
 * Pages of genres and nasty ones as Chromium gives them to somebody who selects all of a page and pastes it: no tags, no links. Some
 * were mended on as pages, others when they were read like this, so this is a test, no estimate. Of pages of 112 news sites that
 * nothing was learned from (scripts/pages/heldOut.ts --pasted), 3 % of words are lost.
 */
import { expect } from 'chai';
import { readFileSync, readdirSync } from 'node:fs';
import { openSource } from '../../src/source/index.ts';
import { letters, ownLetters, type Gold } from './gold.ts';

const FOLDER = new URL('./pasted/', import.meta.url);
const PAGES = await Promise.all(
  readdirSync(FOLDER).map(async (name) => {
    const [, folder, number] = /^(\w+)-(\d+)/.exec(name)!;
    const gold = JSON.parse(readFileSync(new URL(`./${folder}/${number}.gold.json`, import.meta.url), 'utf8')) as Gold; // prettier-ignore
    const doc = await openSource(readFileSync(new URL(name, FOLDER), 'utf8'));
    const text = ownLetters(doc);
    const article = letters([gold.title, ...gold.passages.map((p) => p.text)].join(' '));
    return {
      gold,
      doc,
      lost: gold.passages.map((p) => p.text).filter((t) => !text.includes(letters(t)) && letters(t) !== letters(doc.title)),
      in: gold.furniture.filter((s) => letters(s).length >= 8 && text.includes(letters(s)) && !article.includes(letters(s))),
    }; // prettier-ignore
  }),
);
const sum = (of: (p: (typeof PAGES)[number]) => number) => PAGES.reduce((n, p) => n + of(p), 0);

describe(`${PAGES.length} pages pasted whole from a browser`, () => {
  it('lose at most one passage in ten', () => {
    const lost = PAGES.flatMap((p) => p.lost);
    expect(lost.length, lost.join('\n')).to.be.at.most(sum((p) => p.gold.passages.length) / 10);
  });

  it('let in at most one string in twelve of what stands beside the article', () => {
    const letIn = PAGES.flatMap((p) => p.in);
    expect(letIn.length, letIn.join('\n')).to.be.at.most(sum((p) => p.gold.furniture.length) / 12);
  });

  it('are known for what they are', () => {
    expect(PAGES.filter((p) => p.doc.kind !== p.gold.kind).length).to.be.at.most(3);
    expect(PAGES.filter((p) => letters(p.doc.title) === letters(p.gold.title)).length).to.be.at.least(PAGES.length * 0.65); // prettier-ignore
  });
});

describe('a text that is pasted', () => {
  it('is a thread where several people post, be nothing of the site around it', async () => {
    const doc = await openSource(`My neighbour's drain runs under my shed

Posted by pebble_dash, 3 March 2024, 9:14 pm

We bought the house in the spring. In August the shed floor began to sweat, and in October it sank by a hand's width. I dug down and found a clay pipe that is on no plan.

GuttersAndGlory wrote, 3 March 2024, 9:40 pm

Check your deeds for an easement. Mine had one in a footnote that nobody had read for forty years.

pebble_dash wrote, 4 March 2024, 7:02 am

I read all of them last night. There is nothing about a drain, but there is a sketch with a dotted line.

old_trowel wrote, 4 March 2024, 8:30 am

Then that is your easement. Sorry. Move the shed, my brother did, and his is twice the size.`);
    expect(doc.kind).to.equal('forum');
    expect(doc.title).to.equal("My neighbour's drain runs under my shed");
    expect(doc.blocks.filter((b) => b.type === 'reply').map((b) => b.speaker)).to.deep.equal(['GuttersAndGlory', 'pebble_dash', 'old_trowel']); // prettier-ignore
    expect(ownLetters(doc)).to.contain('claypipe').and.not.contain('easement');
  });

  it('is no Markdown for dashes and numbers before its items, nor for stars within a word', async () => {
    const doc = await openSource(`The gauge at Marl Head is read by hand.
Two keepers write it down twice a day.

- one at low water
- one at high water

1. The first reading is called out.
2. The second is not.

The log says "D**n the fog, and d**n the gauge" on the 9th of June.`);
    expect(doc.format).to.equal('text');
  });
});
