/** The manuscript without a browser: keys, undo that survives a reload, and many writers at once. */
import { expect } from 'chai';
import fc from 'fast-check';
import { collab, getVersion, receiveTransaction, sendableSteps } from 'prosemirror-collab';
import { EditorState, TextSelection, type Command, type Transaction } from 'prosemirror-state';
import { Step } from 'prosemirror-transform';
import { docFromSections, emptyLine, plainSections, scriptSchema } from '@ursprung/core/script';
import {
  changeRest,
  idKeeper,
  manuscriptKeys,
  moveLine,
  splitLine,
  splitSection,
} from '../src/page/commands.ts';
import { history, redo, storedHistory, undo, type StoredHistory } from '../src/page/history.ts';

const script = (...sections: string[][]) =>
  docFromSections(
    sections.map((lines, s) => ({
      id: `S${s}`,
      title: `Part ${s}`,
      role: 'ground',
      plannedMs: 6000,
      locked: false,
      takes: [],
      lines: lines.map((text, l) => ({ ...emptyLine(`L${s}${l}`), text })),
    })),
  );

let fresh = 0;
const plugins = (stored?: StoredHistory, clientID = 'me') => [
  idKeeper(() => `n${++fresh}`),
  history(stored),
  collab({ version: 0, clientID }),
];
const open = (doc = script(['One line.', 'Another line.'], ['A third.']), clientID = 'me') =>
  EditorState.create({ schema: scriptSchema, doc, plugins: plugins(undefined, clientID) });

/** A state that applies what commands dispatch. */
class Writer {
  constructor(public state: EditorState) {}
  do = (command: Command): boolean => command(this.state, this.take);
  take = (tr: Transaction) => void (this.state = this.state.apply(tr));
  /** Puts the caret before the first place of `words`. */
  at(words: string): this {
    let found = -1;
    this.state.doc.descendants((node, pos) => {
      if (found < 0 && node.isText && node.text!.includes(words)) found = pos + node.text!.indexOf(words);
    });
    expect(found, words).to.be.at.least(0);
    this.take(this.state.tr.setSelection(TextSelection.create(this.state.doc, found)));
    return this;
  }
  type = (text: string) => this.take(this.state.tr.insertText(text).setMeta('ownStep', true));
  get lines(): string[][] {
    return plainSections(this.state.doc).map((s) => s.lines.map((l) => l.text));
  }
  get ids(): string[] {
    return plainSections(this.state.doc).flatMap((s) => [s.id, ...s.lines.map((l) => l.id)]);
  }
}
const key = (name: string) => manuscriptKeys[name];

describe('keys of the manuscript', () => {
  it('Enter splits a line; the first part keeps its id, the second gets one of its own', () => {
    const w = new Writer(open()).at('line.');
    expect(w.do(splitLine)).to.equal(true);
    expect(w.lines[0]).to.deep.equal(['One ', 'line.', 'Another line.']);
    expect(w.ids.slice(0, 2)).to.deep.equal(['S0', 'L00']);
    expect(new Set(w.ids).size).to.equal(w.ids.length);
  });

  it('a planned rest stays at the end of the sentence when its line is split', () => {
    const w = new Writer(open()).at('line.');
    w.do(changeRest(700));
    w.at('line.').do(splitLine);
    expect(plainSections(w.state.doc)[0].lines.map((l) => l.restMs)).to.deep.equal([0, 700, 0]);
  });

  it('Backspace at a line’s start joins it to the one before, at a section’s start the sections', () => {
    const w = new Writer(open()).at('Another');
    expect(w.do(key('Backspace'))).to.equal(true);
    expect(w.lines[0]).to.deep.equal(['One line. Another line.']);
    w.at('A third').do(key('Backspace'));
    expect(w.lines).to.deep.equal([['One line. Another line.', 'A third.']]);
    expect(plainSections(w.state.doc)[0].plannedMs).to.equal(12_000);
  });

  it('a section starts at the caret’s line and shares out the planned time by lines', () => {
    const w = new Writer(open()).at('Another');
    expect(w.do(splitSection)).to.equal(true);
    expect(w.lines).to.deep.equal([['One line.'], ['Another line.'], ['A third.']]);
    expect(plainSections(w.state.doc).map((s) => s.plannedMs)).to.deep.equal([3000, 3000, 6000]);
  });

  it('a line moves up and down, over section borders too, and never empties a section', () => {
    const w = new Writer(open()).at('One');
    w.do(moveLine(1));
    expect(w.lines[0]).to.deep.equal(['Another line.', 'One line.']);
    w.at('One').do(moveLine(1));
    expect(w.lines).to.deep.equal([['Another line.'], ['One line.', 'A third.']]);
    expect(w.at('Another').do(moveLine(1))).to.equal(false);
  });

  it('rests go in tenths of a second, from nought to ten seconds', () => {
    const w = new Writer(open()).at('One');
    expect(w.do(changeRest(-100))).to.equal(false);
    for (let i = 0; i < 120; i++) w.do(changeRest(100));
    expect(plainSections(w.state.doc)[0].lines[0].restMs).to.equal(10_000);
  });
});

describe('undo and redo', () => {
  it('take back a split with the id it made, in one press', () => {
    const w = new Writer(open()).at('line.');
    const before = w.state.doc.toJSON();
    w.do(splitLine);
    w.do(undo);
    expect(w.state.doc.toJSON()).to.deep.equal(before);
    w.do(redo);
    expect(w.lines[0]).to.have.length(3);
    expect(w.do(redo)).to.equal(false);
  });

  it('survive a reload', () => {
    const w = new Writer(open()).at('One');
    w.type('Not ');
    w.at('third').type('good ');
    w.do(undo);
    const kept = JSON.parse(JSON.stringify(storedHistory(w.state))) as StoredHistory;
    const again = new Writer(
      EditorState.create({ schema: scriptSchema, doc: w.state.doc, plugins: plugins(kept) }),
    );
    again.do(redo);
    expect(again.lines[1]).to.deep.equal(['A good third.']);
    again.do(undo);
    again.do(undo);
    expect(again.lines[0][0]).to.equal('One line.');
  });

  it('leave alone what another writer did meanwhile', () => {
    const w = new Writer(open()).at('third');
    w.type('good ');
    const theirs = w.state.tr.insertText('Theirs. ', 2).setMeta('addToHistory', false);
    w.take(theirs);
    w.do(undo);
    expect(w.lines).to.deep.equal([['Theirs. One line.', 'Another line.'], ['A third.']]);
  });

  it('come back to the start from any run of keys, and to the end again', () => {
    const press = fc.record({
      at: fc.nat(200),
      what: fc.constantFrom(
        'type',
        'Enter',
        'Mod-Enter',
        'Backspace',
        'Mod-]',
        'Mod-Shift-ArrowUp',
        'Delete',
      ),
    });
    fc.assert(
      fc.property(fc.array(press, { minLength: 1, maxLength: 14 }), (presses) => {
        const w = new Writer(open());
        const start = w.state.doc.toJSON();
        for (const { at, what } of presses) {
          const place = Math.min(at, w.state.doc.content.size - 2);
          w.take(w.state.tr.setSelection(TextSelection.near(w.state.doc.resolve(place))));
          if (what === 'type') w.type('word ');
          else w.do(key(what));
          expect(new Set(w.ids).size, 'ids of their own').to.equal(w.ids.length);
          w.state.doc.check();
        }
        const end = w.state.doc.toJSON();
        let back = 0;
        while (w.do(undo)) back++;
        expect(w.state.doc.toJSON()).to.deep.equal(start);
        for (; back > 0; back--) w.do(redo);
        expect(w.state.doc.toJSON()).to.deep.equal(end);
      }),
      { seed: 11, numRuns: 150 },
    );
  });
});

/** The server's log as plain data: takes steps on its newest version only. */
class Log {
  readonly steps: { step: Step; by: string }[] = [];
  constructor(public doc: EditorState['doc']) {}
  send(w: Writer): boolean {
    const sendable = sendableSteps(w.state);
    if (!sendable) return true;
    if (sendable.version !== this.steps.length) return false;
    for (const step of sendable.steps) {
      this.doc = step.apply(this.doc).doc!;
      this.steps.push({ step: Step.fromJSON(scriptSchema, step.toJSON()), by: String(sendable.clientID) });
    }
    return true;
  }
  receive(w: Writer): void {
    const lacks = this.steps.slice(getVersion(w.state));
    w.take(
      receiveTransaction(
        w.state,
        lacks.map((l) => l.step),
        lacks.map((l) => l.by),
        { mapSelectionBackward: true },
      ).setMeta('addToHistory', false),
    );
  }
}

describe('several writers', () => {
  it('end with the same script, whatever the order in which their changes arrive', () => {
    const act = fc.record({
      who: fc.nat(2),
      at: fc.nat(120),
      what: fc.constantFrom('type', 'Enter', 'Backspace', 'sync'),
    });
    fc.assert(
      fc.property(fc.array(act, { minLength: 2, maxLength: 24 }), (acts) => {
        const doc = script(['One line.', 'Another line.'], ['A third.']);
        const log = new Log(doc);
        const writers = ['a', 'b', 'c'].map((id) => new Writer(open(doc, id)));
        const sync = (w: Writer) => {
          log.receive(w);
          expect(log.send(w)).to.equal(true);
          log.receive(w);
        };
        for (const { who, at, what } of acts) {
          const w = writers[who];
          const place = Math.min(at, w.state.doc.content.size - 2);
          w.take(w.state.tr.setSelection(TextSelection.near(w.state.doc.resolve(place))));
          if (what === 'sync') sync(w);
          else if (what === 'type') w.type(`${who} `);
          else w.do(key(what));
        }
        writers.forEach(sync);
        writers.forEach(sync);
        for (const w of writers) {
          expect(w.state.doc.toJSON()).to.deep.equal(log.doc.toJSON());
          expect(sendableSteps(w.state)).to.equal(null);
        }
        // An id given twice at two places at once is put right by the one who hears of it, so all hold ids of their own.
        expect(new Set(writers[0].ids).size).to.equal(writers[0].ids.length);
      }),
      { seed: 12, numRuns: 120 },
    );
  });

  it('are told when they are behind, and lose nothing by it', () => {
    const doc = script(['One line.']);
    const log = new Log(doc);
    const [a, b] = ['a', 'b'].map((id) => new Writer(open(doc, id)));
    a.at('One').type('First: ');
    b.at('line').type('short ');
    expect(log.send(a)).to.equal(true);
    expect(log.send(b)).to.equal(false);
    log.receive(b);
    expect(log.send(b)).to.equal(true);
    expect(plainSections(log.doc)[0].lines[0].text).to.equal('First: One short line.');
  });
});
