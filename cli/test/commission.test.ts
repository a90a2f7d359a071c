/** `commission` on the command line, both ways. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { spoilt } from '@ursprung/standins';
import type { ScriptFile } from '@ursprung/core/script';

const root = fileURLToPath(new URL('../../', import.meta.url));
const bin = join(root, 'bin/ursprung');
const folder = mkdtempSync(join(process.env.TEST_SCRATCH ?? tmpdir(), 'commission-'));
const run = (...args: string[]) => spawnSync(bin, args, { cwd: root, encoding: 'utf8' });
const kept = (name: string, text: string) => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

describe('commission', function () {
  this.timeout(180_000);
  let script = '';
  before(() => {
    script = kept(
      'script.json',
      execFileSync(bin, ['draft', 'demo/data/sources/footbridge.html', '--seconds', '180'], {
        cwd: root,
        encoding: 'utf8',
        stdio: ['ignore', 'pipe', 'ignore'],
      }),
    );
  });

  it('prints the order for sources, a script, and one section of it', () => {
    const sources = run('commission', 'demo/data/sources/eels.txt', '--seconds', '90');
    expect(sources.stdout)
      .to.match(/^ORDER: narration for a whole script/)
      .and.include('THE REPLY');
    const whole = run('commission', script);
    const words = (text: string) => Number(/(\d+) words in all/.exec(text)![1]);
    expect(words(whole.stdout)).to.be.closeTo(450, 5);
    const section = run('commission', script, '--section', 'S2', '--seconds', '360');
    expect(section.stdout).to.match(/^ORDER: narration for section 2 of/);
    expect(words(section.stdout)).to.be.closeTo(
      2 * words(run('commission', script, '--section', 'S2').stdout),
      2,
    );
  });

  for (const [source, seconds, extra] of [
    ['footbridge.html', 180, []],
    ['boat-lift.md', 180, []],
    ['ledger.txt', 180, []],
    ['sash-window.md', 120, ['--pace', '190', '--ceiling']],
  ] as const)
    it(`takes a reply written by hand for ${source}: its seconds within 1 %, no unsupported value, under 10 % overlap`, () => {
      const drafted = kept(
        `${source}.json`,
        execFileSync(bin, ['draft', `demo/data/sources/${source}`, '--seconds', String(seconds), ...extra], {
          cwd: root,
          encoding: 'utf8',
          stdio: ['ignore', 'pipe', 'ignore'],
        }),
      );
      const order = run('commission', drafted, '--letters', '60000').stdout;
      const taken = run(
        'commission',
        drafted,
        '--reply',
        kept('reply.txt', spoilt(order, 'chatter')),
        '--by',
        'Ines Okafor',
      );
      expect(taken.status, taken.stderr).to.equal(0);
      const file = JSON.parse(taken.stdout) as ScriptFile;
      const lines = file.sections.flatMap((s) => s.lines);
      expect(lines.filter((l) => l.by?.who === 'Ines Okafor').length).to.be.greaterThan(lines.length * 0.8);
      const check = JSON.parse(run('check', kept('taken.json', taken.stdout)).stdout) as {
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

  it('says which lines it did not take and why, and leaves locked ones', () => {
    const file = JSON.parse(execFileSync('cat', [script], { encoding: 'utf8' })) as ScriptFile;
    file.sections[0].lines[0].locked = true;
    const locked = kept('locked.json', JSON.stringify(file));
    const taken = run(
      'commission',
      locked,
      '--reply',
      kept(
        'bad.txt',
        'The bridge swung by nearly seven centimetres. Professor Wren foretold it. Forty people were led off.',
      ),
    );
    expect(taken.stderr).to.include(
      'Not taken: “Professor Wren foretold it.” No source names “Professor Wren”.',
    );
    expect((JSON.parse(taken.stdout) as ScriptFile).sections[0].lines[0].text).to.equal(
      file.sections[0].lines[0].text,
    );
  });

  it('refuses in one line what can’t be done', () => {
    for (const [args, says] of [
      [['commission', script, '--section', 'S99'], 'The script has no such part.'],
      [
        ['commission', 'demo/data/sources/eels.txt', '--reply', script],
        'A reply is taken into a script file',
      ],
      [['commission', 'demo/data/sources/eels.txt'], 'Say the length in seconds'],
      [['commission', script, '--letters', '9'], '--letters is the longest order'],
      [['commission', script, '--reply', kept('empty.txt', '(nothing)')], 'Nothing spoken was found'],
    ] as const) {
      const { status, stderr } = run(...args);
      expect([status, stderr.trim().split('\n').length, stderr.includes(says)], stderr).to.deep.equal([
        1,
        1,
        true,
      ]);
    }
  });
});
