/** An open script in the page: what is shown, what is taken in, what is said. Its worker and its server answer as the test says. */
import { expect } from 'chai';
import { TextSelection } from 'prosemirror-state';
import type { PlainSection } from '@ursprung/core/script';
import { difference, docFromSections } from '@ursprung/core/script';
import type { ScriptView, SourceView } from '../src/api.ts';
import { ScriptSession } from '../src/script/session.ts';
import { FakeServer, FakeWorker, makeBrowser, section, type Loose } from './browser.ts';

const rest = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms));

describe('an open script', () => {
  let server: FakeServer;
  let browser: ReturnType<typeof makeBrowser>;
  let session: ScriptSession;

  const open = async (more: Partial<ScriptView> = {}) => {
    const opened = await ScriptSession.open(server.view(more), () => undefined, new AbortController().signal);
    session = opened!;
  };
  beforeEach(async () => {
    server = new FakeServer([
      section('S1', ['A bell was cast.', 'It hung here.']),
      section('S2', ['It rang.']),
    ]);
    browser = makeBrowser(server);
    await open();
  });
  afterEach(() => {
    session.close();
    browser.leave();
  });

  const clock = () => FakeWorker.named('worker');
  const lines = () => session.snapshot.sections.map((s) => s.lines.map((l) => l.text));
  const texts = () => lines().flat();
  /** A place in a line, in the document. */
  const at = (line: string, letters = 0): number => {
    let found = -1;
    session.state.doc.descendants((node, pos) => {
      if (node.attrs.id === line) found = pos + 1 + letters;
      return node.type.name !== 'line';
    });
    return found;
  };
  const type = (line: string, letters: number, text: string) =>
    session.dispatch(session.state.tr.insertText(text, at(line, letters)));
  const told = (change: (sections: Loose<PlainSection[]>) => void): PlainSection[] => {
    const copy = structuredClone(session.snapshot.sections) as Loose<PlainSection[]>;
    change(copy);
    return copy;
  };
  const lock = (line: string) =>
    session.take(told((s) => void (s[0].lines.find((l) => l.id === line)!.locked = true)));
  /** The clock's answer to what it was asked last: a second a line. */
  const answer = (turn = clock().last<{ turn: number }>('time').turn) =>
    clock().says({
      type: 'times',
      turn,
      band: 0.02,
      times: clock()
        .last<{ lines: unknown[] }>('time')
        .lines.map((_, i) => ({ ms: 1000, startMs: i * 1000, words: 3 })),
    });

  describe('times', () => {
    it('are those of the newest words: an answer to older ones is let go', () => {
      const { turn } = clock().last<{ turn: number }>('time');
      type('S1L1', 0, 'Once, ');
      answer(turn);
      expect(session.snapshot.times).to.equal(null);
      answer();
      expect([session.snapshot.totalMs, session.snapshot.words, session.snapshot.band]).to.deep.equal([
        3000, 9, 0.02,
      ]);
      expect([session.msOf('S2L1'), session.msOf('nobody')]).to.deep.equal([1000, 0]);
    });

    it('come with the words: places are told once, or without times when the clock is late', async () => {
      answer();
      const heard: string[][] = [];
      session.subscribe(() => heard.push(texts()));
      type('S1L1', 0, 'Once, ');
      expect(heard).to.deep.equal([]);
      answer();
      expect(heard).to.have.length(1);
      type('S1L1', 0, 'Then, ');
      await rest(160);
      expect(heard[1][0]).to.match(/^Then, Once, /);
    });

    it('are worked out again for another pace and other sayings, not for another title', async () => {
      const setups = () => clock().told.filter((m) => m.type === 'setup').length;
      const before = setups();
      await session.change({ title: 'The great bell' });
      expect(setups()).to.equal(before);
      await session.change({ pace: 170 });
      expect(setups()).to.equal(before + 1);
      session.channelChanged({ sayings: [{ word: 'Sluice', say: 'sloose' }] } as never);
      expect(clock().last('setup')).to.deep.include({ pace: 170, sayings: [['Sluice', 'sloose']] });
    });

    it('of texts that are not in the script are told apart from the script’s own', async () => {
      const asked = session.lengths(['One.', 'Two words.']);
      const { turn } = clock().last<{ turn: number }>('time');
      clock().says({ type: 'times', turn, band: 0, times: [{ ms: 400, startMs: 0, words: 1 }, { ms: 700, startMs: 400, words: 2 }] }); // prettier-ignore
      expect((await asked).get('Two words.')).to.deep.include({ ms: 700, words: 2 });
      expect(session.snapshot.times).to.equal(null);
      expect((await session.lengths([])).size).to.equal(0);
    });

    it('that can’t be had are said, and nobody goes on waiting for them', async () => {
      const asked = session.lengths(['One.']).then(
        () => 'answered',
        (e: Error) => e.message,
      );
      clock().onerror!({ message: 'The dictionary could not be loaded.' });
      expect(await asked).to.equal('The dictionary could not be loaded.');
      expect(session.snapshot.message).to.match(
        /^The clock has stopped: The dictionary could not be loaded\. /,
      );
      type('S1L1', 0, 'Once, ');
      await rest(160);
      expect(texts()[0]).to.equal('Once, A bell was cast.');
    });

    it('stop with the script: its worker is ended', () => {
      session.close();
      expect(clock().ended).to.equal(true);
    });
  });

  describe('what is typed', () => {
    it('is sent, and the page says when it is saved', async () => {
      type('S1L1', 0, 'Once, ');
      expect([session.snapshot.save, session.snapshot.waiting]).to.deep.equal(['saving', 1]);
      await rest(900);
      expect(server.doc.textContent).to.match(/^Once, A bell/);
      expect([session.snapshot.save, session.snapshot.waiting]).to.deep.equal(['saved', 0]);
    });

    it('in a locked line is not taken; why is said for a while, and goes with the next word elsewhere', () => {
      lock('S1L1');
      type('S1L1', 0, 'Once, ');
      expect(texts()[0]).to.equal('A bell was cast.');
      expect(session.snapshot.message).to.match(/^This is locked/);
      type('S1L2', 0, 'Long ago, ');
      expect([session.snapshot.message, texts()[1]]).to.deep.equal([null, 'Long ago, It hung here.']);
    });

    it('without a server waits, is counted, and goes up when the page is looked at again', async () => {
      server.up = false;
      type('S1L1', 0, 'Once, ');
      await rest(900);
      expect([session.snapshot.save, session.snapshot.waiting]).to.deep.equal(['kept-here', 1]);
      server.up = true;
      browser.window.dispatchEvent(new Event('focus'));
      await rest(900);
      expect(server.doc.textContent).to.match(/^Once, /);
    });

    it('that only this page has is asked about before it is left', () => {
      const leave = () => {
        const event = new Event('beforeunload', { cancelable: true });
        browser.window.dispatchEvent(event);
        return event.defaultPrevented;
      };
      expect(leave()).to.equal(false);
      // This browser has no storage.
      expect(session.snapshot.keeps).to.equal(false);
      type('S1L1', 0, 'Once, ');
      expect(leave()).to.equal(true);
      session.close();
      expect(leave()).to.equal(false);
    });

    it('is taken back and made again', () => {
      type('S1L1', 0, 'Once, ');
      session.undo();
      expect(texts()[0]).to.equal('A bell was cast.');
      session.redo();
      expect(texts()[0]).to.equal('Once, A bell was cast.');
    });
  });

  describe('what others write', () => {
    const theirs = (change: (s: Loose<PlainSection[]>) => void) => {
      const next = told(change);
      server.append(difference(server.doc, docFromSections(next)).steps.map((s) => s.toJSON() as unknown), 'them', 'typing'); // prettier-ignore
    };
    it('comes in when the page is looked at, beside what stands here', async () => {
      theirs((s) => void (s[1].lines[0].text = 'It rang at noon.'));
      type('S1L1', 0, 'Once, ');
      browser.window.dispatchEvent(new Event('focus'));
      await rest(50);
      expect(texts()).to.deep.equal(['Once, A bell was cast.', 'It hung here.', 'It rang at noon.']);
    });

    it('is not asked for by a page that nobody sees', async () => {
      browser.document.visibilityState = 'hidden';
      const before = server.asked.length;
      browser.window.dispatchEvent(new Event('focus'));
      await rest(20);
      expect(server.asked.length).to.equal(before);
    });

    it('comes in under a lock of ours too: it was judged where it was made', async () => {
      lock('S1L1');
      await rest(900);
      theirs((s) => void (s[0].lines[0].text = 'Two bells were cast.'));
      browser.window.dispatchEvent(new Event('focus'));
      await rest(50);
      expect(texts()[0]).to.equal('Two bells were cast.');
    });

    it('of the settings is shown, with pace and all', async () => {
      server.settings = { ...server.settings, pace: 190 };
      server.revision++;
      await session.change({ title: 'Mine' });
      await rest(20);
      expect([session.snapshot.settings.pace, session.snapshot.settings.title]).to.deep.equal([190, 'Mine']);
      expect(clock().last('setup')).to.include({ pace: 190 });
    });
  });

  describe('sections that were told anew', () => {
    it('come in as one step, under their own name, and go back with one press', async () => {
      session.take(
        told((s) => s.forEach((x) => x.lines.forEach((l) => void (l.text = `New: ${l.text}`)))),
        'note',
      );
      expect(texts()).to.deep.equal(['New: A bell was cast.', 'New: It hung here.', 'New: It rang.']);
      session.undo();
      expect(texts()).to.deep.equal(['A bell was cast.', 'It hung here.', 'It rang.']);
      session.redo();
      await rest(900);
      expect(server.steps.map((s) => s.origin)).to.include('note');
    });

    it('leave what was written since, and what was told of it is a take', () => {
      const mark = session.mark();
      const answered = told((s) => {
        s[0].lines[0].text = 'The great bell was cast in one night.';
        s[1].lines[0].text = 'It rang for an hour.';
      });
      type('S1L1', 0, 'Once, ');
      session.take(answered, 'take', mark);
      expect(texts()).to.deep.equal(['Once, A bell was cast.', 'It hung here.', 'It rang for an hour.']);
      const takes = session.snapshot.sections[0].lines[0].takes.map((t) => t.text);
      expect(takes).to.include('The great bell was cast in one night.');
      expect(session.snapshot.message).to.match(/^You wrote there while it was told/);
    });

    it('leave the caret in its line, wherever that goes', () => {
      const caret = TextSelection.create(session.state.doc, at('S1L2', 3));
      session.dispatch(session.state.tr.setSelection(caret));
      expect(session.snapshot.line).to.equal('S1L2');
      session.take(told((s) => void s.reverse()));
      expect(session.snapshot.line).to.equal('S1L2');
      expect(session.state.selection.$head.parentOffset).to.equal(3);
      session.take(told((s) => void (s[1].lines[1].text = 'It')));
      expect(session.state.selection.$head.parentOffset).to.equal(2);
    });

    it('that are the same change nothing and are not saved', async () => {
      session.take(told(() => undefined));
      await rest(20);
      expect(session.snapshot.waiting).to.equal(0);
    });
  });

  describe('words that lost their place', () => {
    it('are put behind the caret’s line, and are gone from the list then', async () => {
      // They delete the line that is written in here.
      const without = told((s) => void s[0].lines.pop());
      server.append(difference(server.doc, docFromSections(without)).steps.map((s) => s.toJSON() as unknown), 'them', 'typing'); // prettier-ignore
      type('S1L2', 0, 'Under the moon ');
      browser.window.dispatchEvent(new Event('focus'));
      await rest(50);
      const [stray] = session.snapshot.strays;
      expect(stray.text).to.equal('Under the moon');
      session.dispatch(session.state.tr.setSelection(TextSelection.create(session.state.doc, at('S1L1'))));
      session.putStray(stray);
      expect(lines()).to.deep.equal([['A bell was cast.', 'Under the moon'], ['It rang.']]);
      expect(session.snapshot.strays).to.deep.equal([]);
    });

    it('stay in the list when they can’t be put in, and go when they are let go', () => {
      const stray = { id: 'x', text: 'Under the moon', why: 'deleted' } as never;
      session.take(told((s) => s.forEach((x) => void (x.locked = true))));
      session.putStray(stray);
      expect(texts()).to.not.include('Under the moon');
      expect(session.snapshot.message).to.match(/^This is locked/);
      session.dropStray(stray);
      expect(session.snapshot.strays).to.deep.equal([]);
    });
  });

  describe('what it rests on', () => {
    const source = (facts: object[]) =>
      ({ id: 'a', letter: 'A', document: { title: 'Bells', text: 'A bell was cast.', kind: 'news' }, facts, marks: {} }) as unknown as SourceView & { letter: string }; // prettier-ignore
    it('follows a change of a source: clock and Read-through hear of it', async () => {
      session.close();
      await open({ sources: [source([])] });
      session.readThrough();
      session.sourceChanged({
        ...source([]),
        document: { title: 'Bells', text: 'Two bells.', kind: 'news' },
      } as never);
      expect(session.sources.map((s) => [s.letter, s.document.text])).to.deep.equal([['A', 'Two bells.']]);
      expect(clock().last<{ sources: string[] }>('setup').sources).to.deep.equal(['Two bells.']);
      expect(FakeWorker.named('reviewer').last<{ sources: object[] }>('setup').sources).to.have.length(1);
    });

    it('says when the channel can’t be changed', async () => {
      await session.changeChannel({ rulesOff: ['long'] });
      expect(session.snapshot.message).to.equal('This is not here, or no longer.');
      expect(session.channel).to.equal(null);
      server.others['PATCH /channels/channel-1'] = () => ({
        status: 200,
        body: { settings: { rulesOff: ['long'] } },
      });
      await session.changeChannel({ rulesOff: ['long'] });
      expect(session.channel).to.deep.equal({ rulesOff: ['long'] });
    });
  });
});
