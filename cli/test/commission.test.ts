/** `commission` on the command line, both ways. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { startTextService, type TextService } from '@ursprung/standins';
import type { ScriptFile } from '@ursprung/core/script';
import { spoilt } from '@ursprung/standins';
import type { ReplyReport } from '../src/commission.ts';
import { run } from './command.ts';

const demo = (name: string) => fileURLToPath(new URL(`../../demo/data/sources/${name}`, import.meta.url));
const folder = mkdtempSync(join(process.env.TEST_SCRATCH ?? tmpdir(), 'commission-'));
const kept = (name: string, text: string) => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

describe('commission', function () {
  this.timeout(180_000);
  let script = '';
  before(async () => {
    script = kept('script.json', (await run('draft', demo('footbridge.html'), '--seconds', '180')).out);
  });

  it('prints the order for sources, a script, and one section of it', async () => {
    const sources = await run('commission', demo('eels.txt'), '--seconds', '90');
    expect(sources.out)
      .to.match(/^ORDER: narration for a whole script/)
      .and.include('THE REPLY');
    const whole = await run('commission', script);
    const words = (text: string) => Number(/(\d+) words in all/.exec(text)![1]);
    // 150 words a minute in 180 s less its rests.
    const rests = (JSON.parse(readFileSync(script, 'utf8')) as { sections: { lines: { rest?: number }[] }[] }).sections.flatMap((s) => s.lines.map((l) => l.rest ?? 0)); // prettier-ignore
    expect(rests.filter((r) => r > 0)).to.not.be.empty;
    const spoken = 180 - rests.reduce((a, b) => a + b, 0);
    expect(words(whole.out)).to.be.closeTo((spoken * 150) / 60, 5);
    const section = await run('commission', script, '--section', 'S2', '--seconds', '360');
    expect(section.out).to.match(/^ORDER: narration for section 2 of/);
    expect(words(section.out)).to.be.closeTo(
      2 * words((await run('commission', script, '--section', 'S2')).out),
      5, // its rest stays one
    );
  });

  for (const [source, seconds, extra] of [
    ['footbridge.html', 180, []],
    ['boat-lift.md', 180, []],
    ['ledger.txt', 180, []],
    ['sash-window.md', 120, ['--pace', '190', '--ceiling']],
  ] as const)
    it(`takes a reply written by hand for ${source}: its seconds within 1 %, no unsupported value, under 10 % overlap`, async () => {
      const drafted = kept(
        `${source}.json`,
        (await run('draft', demo(source), '--seconds', String(seconds), ...extra)).out,
      );
      const order = (await run('commission', drafted, '--letters', '60000')).out;
      const taken = await run(
        'commission',
        drafted,
        '--reply',
        kept('reply.txt', spoilt(order, 'chatter')),
        '--by',
        'Ines Okafor',
      );
      expect(taken.status, taken.err).to.equal(0);
      const file = JSON.parse(taken.out) as ScriptFile;
      const lines = file.sections.flatMap((s) => s.lines);
      expect(lines.filter((l) => l.by?.who === 'Ines Okafor').length).to.be.greaterThan(lines.length * 0.8);
      const check = JSON.parse((await run('check', kept('taken.json', taken.out))).out) as {
        unsupported: unknown[];
        overlap: { share: number };
      };
      expect(check.unsupported).to.deep.equal([]);
      expect(check.overlap.share).to.be.lessThan(0.1);
      expect(file.seconds).to.be.at.most(file.target.seconds * 1.01);
      expect(file.seconds).to.be.at.least(
        file.target.seconds * (file.target.kind === 'ceiling' ? 0.7 : 0.99),
      );
    });

  it('says which lines it did not take and why, and leaves locked ones', async () => {
    const file = JSON.parse(readFileSync(script, 'utf8')) as ScriptFile;
    file.sections[0].lines[0].locked = true;
    const locked = kept('locked.json', JSON.stringify(file));
    const taken = await run(
      'commission',
      locked,
      '--reply',
      kept(
        'bad.txt',
        'The bridge swung by nearly seven centimetres. Professor Wren foretold it. Forty people were led off.',
      ),
    );
    expect(taken.err).to.include(
      'Not taken: “Professor Wren foretold it.” No source names “Professor Wren”.',
    );
    expect((JSON.parse(taken.out) as ScriptFile).sections[0].lines[0].text).to.equal(
      file.sections[0].lines[0].text,
    );
  });

  it('reports what became of each line: taken, mended, out, and why', async () => {
    const reply = kept(
      'reply-report.txt',
      'On Thursday a new footbridge swung from side to side by nearly seven centimetres. Fifty people were led off one at a time. The engineer Hugo Brannick designed it. They were led off the moving bridge one at a time, with apples.',
    );
    const { out } = await run('commission', script, '--reply', reply, '--as', 'report');
    const report = JSON.parse(out) as ReplyReport;
    const [clean, mended, name, apples] = report.lines;
    expect([clean.taken, clean.mend, clean.accusations]).to.deep.equal([true, null, []]);
    expect(mended.mend).to.deep.equal({
      from: 'Fifty people were led off one at a time.',
      to: 'Forty people were led off one at a time.',
    });
    expect(mended.accusations[0]).to.include({ slot: 'how much', level: 'wrong' });
    expect(mended.accusations[0].source).to.include({ letter: 'A' });
    expect([name.taken, name.accusations[0].slot, name.accusations[0].level]).to.deep.equal([
      false,
      'who',
      'wrong',
    ]);
    expect([apples.taken, apples.accusations[0].level]).to.deep.equal([true, 'unsupported']);
    expect(report.lines.map((l) => l.became)).to.deep.equal(['taken', 'mended', 'kept open', 'taken']);
    expect(name.why).to.include('Hugo Brannick');
    expect(report.seconds).to.be.closeTo(180, 2);
    expect(report.overlap).to.be.within(0, 1);
    expect(report.leftOutForLength).to.be.an('array');
  });

  describe('drafted by a text service', () => {
    let writer: TextService;
    before(async () => {
      writer = await startTextService({ paceMs: 0 });
      Object.assign(process.env, { URSPRUNG_MODEL_URL: writer.url, URSPRUNG_MODEL_KEY: writer.key, URSPRUNG_MODEL_NAME: 'stand-in' }); // prettier-ignore
    });
    after(async () => {
      for (const name of ['URL', 'KEY', 'NAME']) delete process.env[`URSPRUNG_MODEL_${name}`];
      await writer.close();
    });

    it('is a script at its seconds, most of it in the service’s words, and one sentence that says so', async () => {
      const told = await run('draft', demo('footbridge.html'), '--seconds', '180', '--by', 'service');
      expect(told.status, told.err).to.equal(0);
      const file = JSON.parse(told.out) as ScriptFile;
      expect(file.seconds).to.be.closeTo(180, 1.8);
      const lines = file.sections.flatMap((s) => s.lines).filter((l) => l.text);
      expect(lines.filter((l) => l.by?.kind === 'service').length / lines.length).to.be.greaterThan(0.6);
      expect(told.err).to.match(/^\d+ lines by 127\.0\.0\.1:\d+, stand-in.*; \d rounds?, \d orders?, [\d,]+ tokens\. It lasts (?:2:5[89]|3:0[012])\./);
      expect(writer.orders[0]).to.match(/^ORDER: narration for a whole script/);
    }); // prettier-ignore

    it('says in one line when there is no service, it refuses, or the rounds are no number', async () => {
      process.env.URSPRUNG_MODEL_KEY = 'wrong';
      const draft = (...more: string[]) => run('draft', demo('eels.txt'), '--seconds', '60', ...more);
      expect((await draft('--by', 'service')).err).to.match(/does not accept the key\.\n$/);
      expect((await draft('--by', 'service', '--rounds', '0')).err).to.match(/^--rounds is how often/);
      expect((await draft('--by', 'magic')).status).to.equal(1);
      const url = process.env.URSPRUNG_MODEL_URL;
      delete process.env.URSPRUNG_MODEL_URL;
      expect((await draft('--by', 'service')).err).to.match(/^No text service is named/);
      process.env.URSPRUNG_MODEL_URL = url;
      process.env.URSPRUNG_MODEL_KEY = writer.key;
    });
  });

  it('refuses in one line what can’t be done', async () => {
    for (const [args, says] of [
      [['commission', script, '--section', 'S99'], 'The script has no such part.'],
      [['commission', demo('eels.txt'), '--reply', script], 'A reply is taken into a script file'],
      [['commission', demo('eels.txt')], 'Say the length in seconds'],
      [['commission', script, '--letters', '9'], '--letters is the longest order'],
      [['commission', script, '--reply', kept('empty.txt', '(nothing)')], 'Nothing spoken was found'],
    ] as const) {
      const { status, err: stderr } = await run(...args);
      expect([status, stderr.trim().split('\n').length, stderr.includes(says)], stderr).to.deep.equal([
        1,
        1,
        true,
      ]);
    }
  });
});
