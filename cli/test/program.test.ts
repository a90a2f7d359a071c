/** The program as people start it: outputs, exit status, a reader that closes early. */
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { run } from './command.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const bin = join(root, 'bin/ursprung');
const eels = join(root, 'demo/data/sources/eels.txt');

describe('the program', function () {
  this.timeout(180_000);

  it('writes what a command makes to its output, notes beside it, and ends with 0', async () => {
    const args = ['draft', eels, '--seconds', '60', '--seed', '2'];
    const { status, stdout, stderr } = spawnSync(bin, args, { encoding: 'utf8', maxBuffer: 1 << 26 });
    const here = await run(...args);
    expect([status, stderr]).to.deep.equal([0, here.err]);
    expect(JSON.parse(stdout)).to.deep.equal(JSON.parse(here.out));
  });

  it('says in one line what a person got wrong, and ends with 1', () => {
    for (const args of [['frobnicate'], ['read'], ['time', 'nowhere.txt']]) {
      const { status, stdout, stderr } = spawnSync(bin, args, { encoding: 'utf8' });
      expect([status, stdout, stderr.trim().split('\n').length], stderr).to.deep.equal([1, '', 1]);
    }
  });

  it('shows how it is used: asked for it ends with 0, without a command with 1', () => {
    expect(spawnSync(bin, ['--help'], { encoding: 'utf8' })).to.include({ status: 0, stdout: '' });
    const { status, stderr } = spawnSync(bin, [], { encoding: 'utf8' });
    expect(status).to.equal(1);
    for (const command of ['read', 'draft', 'revise', 'commission', 'export'])
      expect(stderr).to.match(new RegExp(`^ {2}${command} `, 'm'));
  });

  it('is no failure when the reader of its output has seen enough', async () => {
    const program = spawn(bin, ['read', eels], { stdio: ['ignore', 'pipe', 'pipe'] });
    program.stdout.destroy();
    let said = '';
    program.stderr.on('data', (d) => (said += d));
    const [status] = await once(program, 'exit');
    expect([status, said]).to.deep.equal([0, '']);
  });

  it('takes bytes of a file as they are: a kit is a whole archive', () => {
    const script = execFileSync(bin, ['draft', eels, '--seconds', '30'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const path = join(process.env.TEST_SCRATCH ?? tmpdir(), 'program-script.json');
    writeFileSync(path, script);
    const zip = execFileSync(bin, ['export', path, '--as', 'kit'], { maxBuffer: 1 << 26, stdio: ['ignore', 'pipe', 'ignore'] }); // prettier-ignore
    expect(zip.subarray(0, 4).toString('latin1')).to.equal('PK\u0003\u0004');
    // The end of the central directory is there (APPNOTE.TXT of the ZIP format, 4.3.16).
    expect(zip.lastIndexOf(Buffer.from('PK\u0005\u0006', 'latin1'))).to.be.within(
      zip.length - 1000,
      zip.length,
    );
  });
});
