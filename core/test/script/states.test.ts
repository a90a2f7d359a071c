/** Locks, two states side by side, marks and notes in the document, drafts in files. */
import { expect } from 'chai';
import fc from 'fast-check';
import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import { Transform } from 'prosemirror-transform';
import {
  brokenLocks,
  cleanDraft,
  compareScripts,
  compareWords,
  docFromSections,
  keptPlaces,
  plainSections,
  readDraft,
  scriptSchema,
  sectionsOfDraft,
} from '../../src/script/index.ts';
import { draftText, draftTextOfHtml } from '../../src/script/draftFile.ts';
import { clock } from '../tools.ts';
import { timingOf } from '../../src/revise/index.ts';
import { line, section } from './build.ts';

const SCRIPT = [
  section('S1', [line('a', 'One boat.'), line('b', 'Two boats.')]),
  section('S2', [line('c', 'Three boats.'), line('d', 'Four boats.')]),
];
const timing = timingOf(clock);

describe('locks', () => {
  const locked = docFromSections([
    section('S1', [line('a', 'One boat.', { locked: true }), line('b', 'Two boats.')]),
    section('S2', [line('c', 'Three boats.'), line('d', 'Four boats.')], { locked: true }),
  ]);
  const after = (change: (tr: Transform) => void) => {
    const tr = new Transform(locked);
    change(tr);
    return brokenLocks(locked, tr.doc);
  };
  it('hold a line’s words, and a section’s lines and their order', () => {
    expect(after((tr) => tr.insert(2, scriptSchema.text('x')))).to.deep.equal(['a']);
    const second = locked.child(0).nodeSize;
    expect(after((tr) => tr.delete(second, second + locked.child(1).nodeSize))).to.include.members([
      'c',
      'd',
      'S2',
    ]);
    expect(
      after((tr) => tr.delete(second + 1, second + 1 + locked.child(1).child(0).nodeSize)),
    ).to.deep.equal(['c', 'S2']);
  });
  it('let other lines change, themselves be taken off, and a section move whole', () => {
    expect(
      after((tr) => tr.insert(locked.child(0).child(0).nodeSize + 2, scriptSchema.text('x'))),
    ).to.deep.equal([]);
    expect(
      after((tr) => tr.setNodeMarkup(1, null, { ...locked.child(0).child(0).attrs, locked: false })),
    ).to.deep.equal([]);
    expect(
      after((tr) => tr.replaceWith(0, locked.content.size, [locked.child(1), locked.child(0)])),
    ).to.deep.equal([]);
  });
});

describe('two states of a script', () => {
  it('are told apart by what was changed, moved, added and is gone, in words and seconds', () => {
    const now = [
      section('S1', [line('b', 'Two boats.'), line('a', 'One boat.'), line('e', 'Five boats sail.')]),
      section('S2', [line('c', 'Three ships.')]),
    ];
    const c = compareScripts(SCRIPT, now, timing);
    const of = (id: string) => c.sections.flatMap((s) => s.lines).find((l) => l.id === id)?.change;
    expect([of('e'), of('c'), of('d')]).to.deep.equal(['added', 'changed', 'gone']);
    expect([of('a'), of('b')].sort()).to.deep.equal(['moved', 'same']);
    expect(c.beforeMs).to.equal(timing(SCRIPT).reduce((n, l) => n + l.ms, 0));
    expect([c.beforeWords, c.afterWords]).to.deep.equal([8, 9]);
  });
  it('a state is the same as itself', () => {
    const c = compareScripts(SCRIPT, SCRIPT, timing);
    expect([c.changed, c.beforeMs]).to.deep.equal([0, c.afterMs]);
  });
  it('keeps the longest run of places (against every subset)', () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(30), { maxLength: 9 }), (places) => {
        let best = 0;
        for (let mask = 0; mask < 1 << places.length; mask++) {
          const pick = places.filter((_, i) => mask & (1 << i));
          if (pick.every((p, i) => i === 0 || p > pick[i - 1])) best = Math.max(best, pick.length);
        }
        expect(keptPlaces(places).size).to.equal(best);
      }),
      { seed: 3, numRuns: 200 },
    ));
  it('words: what goes and comes makes up both texts', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('boat', 'the', 'a', 'lift'), { maxLength: 12 }),
        fc.array(fc.constantFrom('boat', 'the', 'a', 'lift'), { maxLength: 12 }),
        (a, b) => {
          const changes = compareWords(a.join(' '), b.join(' '));
          const words = (without: string) =>
            changes
              .filter((c) => c.change !== without)
              .map((c) => c.text)
              .join(' ')
              .split(/\s+/)
              .filter(Boolean);
          expect(words('added')).to.deep.equal(a);
          expect(words('gone')).to.deep.equal(b);
        },
      ),
      { seed: 4, numRuns: 300 },
    ));
});

describe('stress, comments and notes in the document', () => {
  it('survive being plain and back', () => {
    const marked = [
      section('S1', [
        line('a', 'One small boat.', {
          marks: [
            { type: 'stress', start: 4, end: 9 },
            { type: 'comment', start: 4, end: 14, id: 'C1', text: 'which?', at: '2026-01-01', done: false },
          ],
          notes: [{ id: 'N1', kind: 'direction', text: '[boat]', where: 'before' }],
        }),
      ]),
    ];
    expect(plainSections(docFromSections(marked))).to.deep.equal(marked);
  });
  it('a mark past the end of its text is dropped', () => {
    const [s] = plainSections(
      docFromSections([
        section('S1', [line('a', 'Boat.', { marks: [{ type: 'stress', start: 2, end: 99 }] })]),
      ]),
    );
    expect(s.lines[0].marks).to.equal(undefined);
  });
});

describe('drafts in files', () => {
  it('a DOCX: headings, emphasis, lists', async () => {
    const bytes = await Packer.toBuffer(
      new Document({
        sections: [
          {
            children: [
              new Paragraph({ text: 'The Lift', heading: HeadingLevel.HEADING_1 }),
              new Paragraph({ text: 'The flood', heading: HeadingLevel.HEADING_2 }),
              new Paragraph({
                children: [new TextRun({ text: 'Visual: ', bold: true }), new TextRun('rain')],
              }),
              new Paragraph({
                children: [
                  new TextRun('The water '),
                  new TextRun({ text: 'rose', italics: true }),
                  new TextRun('. [pause]'),
                ],
              }),
            ],
          },
        ],
      }),
    );
    const draft = readDraft(await draftText(new Uint8Array(bytes)));
    expect([draft.title, draft.sections[0].title]).to.deep.equal(['The Lift', 'The flood']);
    expect(draft.sections[0].lines.map((l) => l.text)).to.deep.equal(['The water rose.']);
  });
  it('a page with a table of two columns', async () => {
    const html =
      '<html><body><table><tr><th>Video</th><th>Audio</th></tr><tr><td>A gate</td><td>The gate <b>opened</b>.</td></tr><tr><td>A boat</td><td>Nobody came.</td></tr></table></body></html>';
    expect(cleanDraft(await draftTextOfHtml(html))).to.equal('The gate opened.\n\nNobody came.');
  });
  it('says what can’t be a draft', async () => {
    const message = async (bytes: Uint8Array) =>
      draftText(bytes).then(
        () => '',
        (e: Error) => e.message,
      );
    expect(await message(new Uint8Array([0x25, 0x50, 0x44, 0x46, 0x2d]))).to.match(/Paste its words/);
    expect(await message(new Uint8Array([0x50, 0x4b, 3, 4, ...Array<number>(60).fill(0)]))).to.match(/./);
    expect(await message(new Uint8Array(5 * 1024 * 1024))).to.match(/at most 4 MB/);
  });
  it('become sections whose notes hold all that was taken out, a repeated label once', () => {
    let n = 0;
    const draft = readDraft(
      '# Hook\n[rain]\nVO: It rained.\nVO: It stopped.\n\n# End\nVO: Nobody came.\nMusic: low',
    );
    const sections = sectionsOfDraft(draft, () => String(++n));
    expect(sections.map((s) => [s.title, s.role])).to.deep.equal([
      ['Hook', 'hook'],
      ['End', 'ground'],
    ]);
    const notes = sections.flatMap((s) =>
      s.lines.flatMap((l) => (l.notes ?? []).map((x) => `${x.where} ${x.text}`)),
    );
    expect(notes).to.deep.equal(['before [rain]', 'before VO:', 'after Music: low']);
    expect(new Set(sections.flatMap((s) => [s.id, ...s.lines.map((l) => l.id)])).size).to.equal(5);
  });
});
