/** Title, target, pace… on their way to the server: shown at once, kept until it has them, nobody's lost. */
import { expect } from 'chai';
import type { ScriptRowSettings } from '../src/api.ts';
import { SettingsSync } from '../src/script/settingsSync.ts';

const START = { title: 'First', pace: 150, mood: 'calm' } as ScriptRowSettings;
const failure = (status: number, code = '', body?: unknown) =>
  Object.assign(new Error('It was not taken.'), { status, code, body });

/** A server that answers as told, one answer a request, and then as it should. */
function desk(waiting: Partial<ScriptRowSettings> | null = null) {
  const answers: (Error | null)[] = [];
  const log = {
    kept: [] as (Partial<ScriptRowSettings> | null)[],
    shown: START,
    taken: false,
    said: [] as (string | null)[],
    timers: [] as (() => void)[],
    server: { settings: START, revision: 0 },
  };
  const sync = new SettingsSync({ settings: START, revision: 0 }, waiting, {
    patch: (revision, settings) => {
      const answer = answers.shift();
      if (answer) return Promise.reject(answer);
      if (revision !== log.server.revision)
        return Promise.reject(failure(409, 'settings-behind', log.server));
      log.server = { settings: { ...log.server.settings, ...settings }, revision: revision + 1 };
      return Promise.resolve(log.server);
    },
    keep: (settings) => log.kept.push(settings),
    show: (settings, taken) => Object.assign(log, { shown: settings, taken }),
    say: (message) => log.said.push(message),
    timers: { set: (run) => log.timers.push(run), clear: () => undefined },
  });
  return { sync, log, answers };
}

describe('settings of a script', () => {
  it('show at once and are kept until the server has them', async () => {
    const { sync, log } = desk();
    const sent = sync.change({ title: 'Mine' });
    expect(log.shown.title).to.equal('Mine');
    expect(log.kept).to.deep.equal([{ title: 'Mine' }]);
    await sent;
    expect([log.server.settings.title, log.taken, log.kept.at(-1)]).to.deep.equal(['Mine', true, null]);
  });

  it('wait while it can’t be reached, and go up with what was changed since', async () => {
    const { sync, log, answers } = desk();
    answers.push(failure(0), failure(503));
    await sync.change({ title: 'Mine' });
    expect([log.shown.title, log.kept.at(-1), log.server.revision]).to.deep.equal([
      'Mine',
      { title: 'Mine' },
      0,
    ]);
    await sync.change({ pace: 170 });
    log.timers.at(-1)!();
    await sync.send();
    expect(log.server.settings).to.include({ title: 'Mine', pace: 170 });
    expect(log.kept.at(-1)).to.equal(null);
  });

  it('that a page left go up when it is opened again', async () => {
    const { sync, log } = desk({ title: 'Left behind' });
    expect(sync.now.title).to.equal('Left behind');
    await sync.send();
    expect(log.server.settings.title).to.equal('Left behind');
  });

  it('of two windows are both taken where they are of different things', async () => {
    const { sync, log } = desk();
    log.server = { settings: { ...START, mood: 'brisk' }, revision: 4 };
    await sync.change({ title: 'Mine' });
    expect(log.server.settings).to.include({ title: 'Mine', mood: 'brisk' });
    expect(log.shown).to.include({ title: 'Mine', mood: 'brisk' });
    expect(log.said).to.deep.equal([]);
  });

  it('of one thing are the other window’s, and mine is named', async () => {
    const { sync, log } = desk();
    log.server = { settings: { ...START, title: 'Theirs' }, revision: 1 };
    await sync.change({ title: 'Mine', pace: 160 });
    expect(log.shown).to.include({ title: 'Theirs', pace: 160 });
    expect(log.server.settings).to.include({ title: 'Theirs', pace: 160 });
    expect(log.said.join()).to.match(/changed in another window.*Your title was “Mine”/);
  });

  it('that are refused go back to what stands, with the reason, which goes when the next is taken', async () => {
    const { sync, log, answers } = desk();
    answers.push(failure(400));
    await sync.change({ pace: 9000 });
    expect([log.shown.pace, log.said, log.kept.at(-1)]).to.deep.equal([150, ['It was not taken.'], null]);
    await sync.change({ pace: 160 });
    expect([log.server.settings.pace, log.said.at(-1)]).to.deep.equal([160, null]);
  });
});
