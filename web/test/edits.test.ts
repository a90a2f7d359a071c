/** Any series of edits and undos keeps ids, links and clocks true, against computing from scratch; find, replace, bring back. */
import { expect } from 'chai';
import fc from 'fast-check';
import { EditorState, TextSelection, type Command, type Transaction } from 'prosemirror-state';
import {
  clockLines,
  docFromSections,
  emptyLine,
  plainSections,
  scriptSchema,
  type PlainSection,
} from '@ursprung/core/script';
import { makeClock, SHIPPED_VOICES } from '@ursprung/core/timing';
import { getPronouncer } from '@ursprung/server/tools';
import {
  addComment,
  changeComment,
  changeRest,
  dropNotes,
  idKeeper,
  manuscriptKeys,
  moveLine,
  moveLineTo,
  moveSection,
  sayNote,
  splitLine,
  splitSection,
  toggleLock,
  toggleStress,
} from '../src/page/commands.ts';
import { history, redo, undo } from '../src/page/history.ts';
import { expressionOf, matchesIn, replaceMatches } from '../src/page/find.ts';
import { withLineOf, withSectionOf } from '../src/page/bringBack.ts';
import { nextOf } from '../src/page/closeLines.ts';

const clockOf = () => makeClock(getPronouncer(), { voice: SHIPPED_VOICES.even, pace: 150 });
const kept = clockOf();

const SCRIPT: PlainSection[] = [1, 2, 3].map((n) => ({
  id: `S${n}`,
  title: `Part ${n}`,
  role: 'ground',
  plannedMs: 4000,
  locked: false,
  takes: [],
  lines: [1, 2, 3].map((k) => ({
    ...emptyLine(`S${n}L${k}`),
    text: `Line number ${k} of part ${n} has words.`,
    from: [{ source: 'A', fact: `f${n}${k}`, quote: 'words' }],
    notes:
      k === 1
        ? [{ id: `N${n}`, kind: 'direction' as const, text: '[a gate]', where: 'before' as const }]
        : [],
  })),
}));

function editor(sections: readonly PlainSection[] = SCRIPT) {
  let n = 0;
  let state = EditorState.create({
    schema: scriptSchema,
    doc: docFromSections(sections),
    plugins: [idKeeper(() => `x${++n}`), history()],
  });
  const dispatch = (tr: Transaction) => {
    state = state.apply(tr);
  };
  return {
    get state() {
      return state;
    },
    run: (command: Command | typeof undo) => (command as Command)(state, dispatch),
    caret: (share: number) => {
      const at = Math.floor(share * state.doc.content.size);
      dispatch(state.tr.setSelection(TextSelection.near(state.doc.resolve(at))));
    },
    type: (text: string) => dispatch(state.tr.insertText(text).setMeta('ownStep', true)),
    sections: () => plainSections(state.doc),
  };
}

const COMMANDS: readonly Command[] = [
  splitLine,
  splitSection,
  moveLine(1),
  moveLine(-1),
  moveSection(1),
  moveSection(-1),
  changeRest(300),
  changeRest(-100),
  toggleLock('line'),
  toggleLock('section'),
  toggleStress,
  addComment('C1', 'why?', '2026-01-01'),
  changeComment('C1', { done: true }),
  changeComment('C1', null),
  sayNote(),
  dropNotes(true),
  moveLineTo('S1L2', 'S3L1', 'before'),
  manuscriptKeys.Backspace,
  manuscriptKeys.Delete,
];
const act = fc.oneof(
  fc.record({
    type: fc.constant('command' as const),
    n: fc.nat(COMMANDS.length - 1),
    at: fc.double({ min: 0, max: 0.999, noNaN: true }),
  }),
  fc.record({
    type: fc.constant('type' as const),
    text: fc.constantFrom('a ', '1907 ', '. ', '“quoted” '),
    at: fc.double({ min: 0, max: 0.999, noNaN: true }),
  }),
  fc.record({ type: fc.constant('undo' as const) }),
  fc.record({ type: fc.constant('redo' as const) }),
);

describe('edits of the manuscript', () => {
  it('keep ids unique, links where they were earned, and clocks as computed from scratch', () =>
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 25 }), (acts) => {
        const e = editor();
        for (const a of acts) {
          if (a.type === 'undo') e.run(undo);
          else if (a.type === 'redo') e.run(redo);
          else {
            e.caret(a.at);
            if (a.type === 'type') e.type(a.text);
            else e.run(COMMANDS[a.n]);
          }
          e.state.doc.check();
        }
        const sections = e.sections();
        const ids = sections.flatMap((s) => [s.id, ...s.lines.map((l) => l.id)]);
        expect(new Set(ids).size).to.equal(ids.length);
        for (const s of sections)
          for (const l of s.lines) if (!l.text) expect(l.id.startsWith('x') ? l.from.length : 0).to.equal(0);
        expect(kept.lines(clockLines(sections))).to.deep.equal(clockOf().lines(clockLines(sections)));
        expect(plainSections(docFromSections(sections))).to.deep.equal(sections);
      }),
      { seed: 21, numRuns: 250 },
    ));

  it('are all taken back by undo, and made again by redo', () =>
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 20 }), (acts) => {
        const e = editor();
        const began = e.state.doc;
        for (const a of acts) {
          if (a.type === 'undo' || a.type === 'redo') continue;
          e.caret(a.at);
          if (a.type === 'type') e.type(a.text);
          else e.run(COMMANDS[a.n]);
        }
        const ended = e.state.doc;
        while (e.run(undo)) void 0;
        expect(e.state.doc.eq(began)).to.equal(true);
        while (e.run(redo)) void 0;
        expect(e.state.doc.eq(ended)).to.equal(true);
      }),
      { seed: 22, numRuns: 150 },
    ));

  it('joining two lines puts a space between them', () => {
    const e = editor();
    const second = 1 + e.state.doc.child(0).child(0).nodeSize + 1;
    e.run(
      ((state, dispatch) => (
        dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, second))),
        true
      )) as Command,
    );
    e.run(manuscriptKeys.Backspace);
    expect(e.sections()[0].lines[0].text).to.equal(
      'Line number 1 of part 1 has words. Line number 2 of part 1 has words.',
    );
  });

  it('what was set aside is said as a line of its own at its place', () => {
    const e = editor();
    e.run(sayNote('N2'));
    expect(
      e
        .sections()[1]
        .lines.slice(0, 2)
        .map((l) => [l.text, l.notes?.length ?? 0]),
    ).to.deep.equal([
      ['a gate', 0],
      ['Line number 1 of part 2 has words.', 0],
    ]);
  });
});

describe('find and replace', () => {
  const doc = docFromSections(SCRIPT);
  const found = (text: string, more = {}) =>
    matchesIn(doc, { text, whole: false, matchCase: false, pattern: false, ...more });
  it('by words, case and pattern', () => {
    expect(found('line').length).to.equal(9);
    expect(found('line', { matchCase: true }).length).to.equal(0);
    expect(found('ord').length).to.equal(9);
    expect(found('ord', { whole: true }).length).to.equal(0);
    expect(found('number (\\d) of part \\1', { pattern: true }).length).to.equal(3);
    expect(found('.', {}).length).to.equal(9);
    expect(() => expressionOf({ text: '(', whole: false, matchCase: false, pattern: true })).to.throw(
      SyntaxError,
    );
  });
  it('replaces all as one change, groups and all, never in a locked line', () => {
    const e = editor(SCRIPT.map((s, i) => (i === 0 ? { ...s, locked: true } : s)));
    const matches = matchesIn(e.state.doc, {
      text: 'number (\\d)',
      whole: false,
      matchCase: false,
      pattern: true,
    });
    e.run(replaceMatches(matches, '$1st', true));
    expect(e.sections().flatMap((s) => s.lines.map((l) => l.text.split(' of')[0]))).to.deep.equal([
      'Line number 1',
      'Line number 2',
      'Line number 3',
      'Line 1st',
      'Line 2st',
      'Line 3st',
      'Line 1st',
      'Line 2st',
      'Line 3st',
    ]);
    e.run(undo);
    expect(e.sections().slice(1)).to.deep.equal(
      SCRIPT.slice(1).map((s) => ({
        ...s,
        lines: s.lines.map(({ notes, ...l }) => (notes?.length ? { ...l, notes } : l)),
      })),
    );
  });
});

describe('bringing back a part of an old state', () => {
  const now = [SCRIPT[0], { ...SCRIPT[2], lines: SCRIPT[2].lines.slice(1) }];
  it('a section that is gone comes back where it stood', () => {
    expect(withSectionOf(now, SCRIPT, 'S2').map((s) => s.id)).to.deep.equal(['S1', 'S2', 'S3']);
  });
  it('a line that is gone comes back behind the one it followed, or first', () => {
    expect(withLineOf(now, SCRIPT, 'S3L1')[1].lines.map((l) => l.id)).to.deep.equal(['S3L1', 'S3L2', 'S3L3']);
    const without = SCRIPT.map((s) => ({ ...s, lines: s.lines.filter((l) => l.id !== 'S1L2') }));
    expect(withLineOf(without, SCRIPT, 'S1L2')[0].lines.map((l) => l.id)).to.deep.equal([
      'S1L1',
      'S1L2',
      'S1L3',
    ]);
  });
  it('a line that was changed has its old words again, and nothing else changes', () => {
    const changed = SCRIPT.map((s) => ({
      ...s,
      lines: s.lines.map((l) => (l.id === 'S2L2' ? { ...l, text: 'New.' } : l)),
    }));
    expect(withLineOf(changed, SCRIPT, 'S2L2')).to.deep.equal(SCRIPT);
  });
});

describe('the next close line', () => {
  const lines = [
    { id: 'a', shared: 3 },
    { id: 'b', shared: 9 },
    { id: 'c', shared: 5 },
  ];
  it('in order or worst first, round again at the end', () => {
    expect([
      nextOf(lines, null, 'order'),
      nextOf(lines, 'a', 'order'),
      nextOf(lines, 'c', 'order'),
    ]).to.deep.equal(['a', 'b', 'a']);
    expect([
      nextOf(lines, null, 'worst'),
      nextOf(lines, 'b', 'worst'),
      nextOf(lines, 'b', 'worst', -1),
    ]).to.deep.equal(['b', 'c', 'a']);
    expect(nextOf([], null, 'order')).to.equal(null);
  });
});
