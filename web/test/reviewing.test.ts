/** The Read-through of an open script: asked after every change, spelling for new texts only, one answer to one question. */
import { expect } from 'chai';
import type { PlainSection } from '@ursprung/core/script';
import { Reviewing } from '../src/script/reviewing.ts';
import { FakeServer, FakeWorker, SETTINGS, makeBrowser, section } from './browser.ts';

const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** Longer than typing has to rest before spelling is asked for. */
const SPELLED_MS = 1000;

describe('the Read-through of an open script', function () {
  let server: FakeServer;
  let browser: ReturnType<typeof makeBrowser>;
  let reviewing: Reviewing;
  let asked: string[][];
  const worker = () => FakeWorker.named('reviewer');

  beforeEach(() => {
    server = new FakeServer([section('S1', ['A bell.'])]);
    asked = [];
    server.others['POST /grammar'] = ({ texts }: { texts: string[] }) => {
      asked.push(texts);
      return { status: 200, body: { hits: texts.map(() => []) } };
    };
    browser = makeBrowser(server);
    reviewing = new Reviewing([], SETTINGS, null);
  });
  afterEach(() => {
    reviewing.close();
    browser.leave();
  });
  const reviewed = (turn: number, tookMs = 3) =>
    worker().says({ type: 'reviewed', turn, tookMs, review: { findings: [], waived: [], turn } });
  const script = (...texts: string[]): PlainSection[] => [section('S1', texts)];

  it('brings its worker when something is to be read first', () => {
    expect([reviewing.running, FakeWorker.made.length]).to.deep.equal([false, 0]);
    reviewing.read(script('A bell.'));
    expect([reviewing.running, worker().told[0].type]).to.deep.equal([true, 'setup']);
  });

  it('is asked once for keys that follow one another, and shows the answer to the newest', async () => {
    reviewing.read(script('A'));
    reviewing.read(script('A b'));
    reviewing.read(script('A bell.'));
    await rest(80);
    const looks = worker().told.filter((m) => m.type === 'review');
    expect(looks).to.have.length(1);
    const { turn, input } = worker().last<{ turn: number; input: { sections: PlainSection[] } }>('review');
    expect(input.sections[0].lines[0].text).to.equal('A bell.');
    reviewing.read(script('A bell rang.'), 0);
    await rest(20);
    reviewed(turn, 99);
    expect(reviewing.state.review).to.equal(null);
    reviewed(turn + 1, 4);
    expect(reviewing.state.tookMs).to.equal(4);
  });

  it('asks the spelling of a text once, however often it is read', async () => {
    reviewing.read(script('A bell.', 'It rang.'));
    await rest(SPELLED_MS);
    expect(asked).to.deep.equal([['A bell.', 'It rang.']]);
    expect(reviewing.state.spelled).to.equal(true);
    reviewing.read(script('A bell.', 'It rang twice.'));
    await rest(SPELLED_MS);
    expect(asked[1]).to.deep.equal(['It rang twice.']);
    expect(worker().last<{ hits: unknown[] }>('grammar').hits).to.have.length(1);
  });

  it('spells a script of a thousand lines to its end before it says so', async () => {
    const said: boolean[] = [];
    reviewing.subscribe(() => said.push(reviewing.state.spelled));
    reviewing.read(script(...Array.from({ length: 1000 }, (_, i) => `Line ${i} of many.`)));
    await rest(SPELLED_MS + 200);
    expect(asked.map((t) => t.length)).to.deep.equal([400, 400, 200]);
    expect(new Set(asked.flat()).size).to.equal(1000);
    expect(said.indexOf(true)).to.equal(said.length - 1);
  });

  it('asks no spelling of empty lines and of what the channel always says', async () => {
    const [{ lines, ...one }] = script('Always said.', '', 'A bell.');
    reviewing.read([{ ...one, lines: lines.map((l, i) => ({ ...l, fixed: i === 0 ? 'intro' : '' })) }]);
    await rest(SPELLED_MS);
    expect(asked).to.deep.equal([['A bell.']]);
  });

  it('says that spelling was not looked at while the server is away, and asks with the next change', async () => {
    server.up = false;
    reviewing.read(script('A bell.'));
    await rest(SPELLED_MS);
    expect(reviewing.state.spelled).to.equal(false);
    server.up = true;
    reviewing.read(script('A bell.'));
    await rest(SPELLED_MS);
    expect([asked, reviewing.state.spelled]).to.deep.equal([[['A bell.']], true]);
  });

  it('is set up anew for another pace and other sayings, and reads again for any other setting', async () => {
    reviewing.read(script('A bell.'));
    const setups = () => worker().told.filter((m) => m.type === 'setup').length;
    reviewing.changed({ ...SETTINGS, title: 'Other' }, null);
    await rest(20);
    expect(setups()).to.equal(1);
    expect(worker().last<{ input: { title: string } }>('review').input.title).to.equal('Other');
    reviewing.changed({ ...SETTINGS, title: 'Other', pace: 170 }, null);
    expect(setups()).to.equal(2);
    reviewing.changed({ ...SETTINGS, title: 'Other', pace: 170 }, { sayings: [] } as never);
    expect(setups()).to.equal(3);
  });

  it('answers each question by its number, and a refusal with its words', async () => {
    const first = reviewing.orders({ context: {} as never, scope: {}, letters: 100 });
    const second = reviewing.settle({ sections: [], target: SETTINGS.target, mood: 'calm' });
    const refused = second.catch((e: Error) => e.message);
    const [a, b] = worker()
      .told.filter((m) => m.type === 'order' || m.type === 'settle')
      .map((m) => m.turn!);
    worker().says({ type: 'refused', turn: b, message: 'It can’t be settled.' });
    worker().says({ type: 'answer', turn: a, answer: [] });
    expect([await first, await refused]).to.deep.equal([[], 'It can’t be settled.']);
  });

  it('says when its worker is gone, lets nobody wait, and begins again with the next change', async () => {
    const asking = reviewing
      .orders({ context: {} as never, scope: {}, letters: 100 })
      .catch((e: Error) => e.message);
    const before = worker();
    before.onerror!({ message: '' });
    expect(await asking).to.equal('The browser could not start it.');
    expect([reviewing.state.message, reviewing.running, before.ended]).to.deep.equal([
      'The browser could not start it.',
      false,
      true,
    ]);
    reviewing.read(script('A bell.'), 0);
    await rest(20);
    expect(worker()).to.not.equal(before);
    reviewed(worker().last<{ turn: number }>('review').turn);
    expect(reviewing.state.message).to.equal(null);
  });

  it('checks a line said in one’s own words, and shows only the newest check', () => {
    reviewing.tell('A bell', []);
    reviewing.tell('A bell rang', []);
    const told = worker()
      .told.filter((m) => m.type === 'telling')
      .map((m) => m.turn!);
    worker().says({ type: 'told', turn: told[0], telling: { ms: 1 } });
    expect(reviewing.state.telling).to.equal(null);
    worker().says({ type: 'told', turn: told[1], telling: { ms: 2 } });
    expect(reviewing.state.telling).to.deep.equal({ ms: 2 });
  });

  it('asks nothing any more once it is closed', async () => {
    reviewing.read(script('A bell.'));
    reviewing.close();
    await rest(SPELLED_MS);
    expect([asked, worker().ended]).to.deep.equal([[], true]);
    expect(worker().told.filter((m) => m.type === 'review')).to.deep.equal([]);
  });
});
