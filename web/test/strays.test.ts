/** Words that are taken along by a change whose maker never saw them, and words of steps that fit nothing. */
import { expect } from 'chai';
import fc from 'fast-check';
import { Slice } from 'prosemirror-model';
import { Mapping, ReplaceStep, Transform } from 'prosemirror-transform';
import { docFromSections, scriptSchema } from '@ursprung/core/script';
import { insertedBy, lostWords, wordsOf } from '../src/script/strays.ts';
import { section } from './browser.ts';

const DOC = docFromSections([
  section('S1', ['A bell was cast.', 'It hung here.']),
  section('S2', ['It rang.']),
]);
const places = (doc = DOC): number[] => {
  const out: number[] = [];
  doc.descendants((node, pos) => {
    if (node.isText) for (let i = 0; i <= node.nodeSize; i++) out.push(pos + i);
  });
  return out;
};
const place = fc.constantFrom(...places());

describe('what a run of steps put in', () => {
  it('is found where it stands in the end, whatever was typed before and behind it', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(place, fc.stringMatching(/^[x-z]{1,4}$/)), { maxLength: 6 }), (typed) => {
        const tr = new Transform(DOC);
        for (const [at, text] of typed) tr.insert(tr.mapping.map(at), scriptSchema.text(text));
        const found = insertedBy(tr.steps)
          .map((r) => tr.doc.textBetween(r.from, r.to))
          .join('');
        const letters = (text: string) => [...text].sort().join('');
        expect(letters(found)).to.equal(letters(typed.map(([, text]) => text).join('')));
      }),
    );
  });

  it('is nothing any more when it was taken out again', () => {
    const tr = new Transform(DOC).insert(2, scriptSchema.text('Once ')).delete(2, 7);
    expect(insertedBy(tr.steps)).to.deep.equal([]);
  });
});

describe('words that are lost', () => {
  const lost = (mine: Transform, theirs: (doc: Transform) => void) => {
    const other = new Transform(mine.doc);
    theirs(other);
    return lostWords(mine.doc, insertedBy(mine.steps), other.mapping);
  };

  it('are those of ours that somebody took out with theirs, as one piece', () => {
    const mine = new Transform(DOC).insert(8, scriptSchema.text(' of bronze and tin'));
    expect(lost(mine, (tr) => tr.delete(0, DOC.firstChild!.nodeSize + 18))).to.deep.equal([
      'of bronze and tin',
    ]);
  });

  it('are none when what was taken out was theirs alone', () => {
    const mine = new Transform(DOC).insert(2, scriptSchema.text('Once '));
    expect(lost(mine, (tr) => tr.delete(tr.doc.content.size - 9, tr.doc.content.size - 3))).to.deep.equal([]);
  });

  it('are those that were taken out, no letter more and no letter less', () => {
    fc.assert(
      fc.property(place, place, place, (at, a, b) => {
        const mine = new Transform(DOC).insert(at, scriptSchema.text('QQQQ'));
        const [from, to] = [Math.min(a, b), Math.max(a, b)].map((p) => mine.mapping.map(p, -1));
        const step = new ReplaceStep(from, to, Slice.empty);
        const done = step.apply(mine.doc);
        fc.pre(Boolean(done.doc) && to > from);
        const found = lostWords(mine.doc, insertedBy(mine.steps), new Mapping([step.getMap()]));
        const left = (done.doc!.textContent.match(/Q/g) ?? []).length;
        expect(found.join('').length).to.equal(4 - left);
      }),
    );
  });
});

describe('the words of a step', () => {
  it('are what it puts in, line by line, whatever state it was made on', () => {
    const lines = ['Nobody came.', 'It rained.'].map((text, i) =>
      scriptSchema.node('line', { id: `n${i}` }, scriptSchema.text(text)),
    );
    const [step] = new Transform(DOC).insert(DOC.firstChild!.nodeSize - 1, lines).steps;
    expect(wordsOf(step.toJSON())).to.equal('Nobody came.\nIt rained.');
  });

  it('are none of a step that only takes out or sets something, or that is none at all', () => {
    const out = new ReplaceStep(2, 5, Slice.empty).toJSON() as unknown;
    for (const step of [out, { stepType: 'attr', pos: 1, attr: 'locked', value: true }, null, 7, 'x', {}])
      expect(wordsOf(step)).to.equal('');
  });
});
