// Lint, types, build, then every Mocha test on a private PostgreSQL and Debian's Chromium.
// Usage: node scripts/test.mjs [--only GLOB]…
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { dataFolder, startPostgres } from './postgres.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const run = (args, env = {}) =>
  spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
    .status ?? 1;
const only = process.argv.filter((_, i, all) => all[i - 1] === '--only');

let failedChecks = 0;
const check = (name, args) => {
  process.stdout.write(`— ${name}\n`);
  if (run(args) !== 0) {
    failedChecks++;
    process.stdout.write(`✗ ${name}\n`);
  }
};
if (!only.length) {
  check('eslint', ['node_modules/eslint/bin/eslint.js', '.']);
  check('prettier', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']);
}
check('build', ['scripts/build.mjs']);
if (!only.length) {
  check('types', ['node_modules/typescript/bin/tsc', '-p', 'tsconfig.json']);
  check('types of the page', ['node_modules/typescript/bin/tsc', '-p', 'web/tsconfig.json']);
}

process.env.URSPRUNG_TEST = '1';
const postgres = await startPostgres(dataFolder(root, 'test'));
const scratch = mkdtempSync(join(tmpdir(), 'ursprung-test-'));
// Two runs side by side, for two cores: what starts servers and browsers, and what computes or starts the command line.
// The second one's report follows the first's.
const suites = only.length
  ? [only]
  : [['server/test/**/*.test.ts', 'e2e/**/*.test.ts'], ['{core,cli,standins,demo,web}/test/**/*.test.ts']];
let ended = [];
try {
  ended = await Promise.all(
    suites.map((files, i) => mocha(files, join(scratch, `counts-${i}.json`), i === 0)),
  );
} finally {
  postgres.stop();
  rmSync(scratch, { recursive: true, force: true });
}
for (const { report } of ended) process.stdout.write(report);
const slowest = ended
  .flatMap((e) => Object.entries(e.files))
  .sort((a, b) => b[1] - a[1])
  .slice(0, 12);
process.stdout.write(
  `\nWhere the time went, in seconds:\n${slowest.map(([f, ms]) => `${(ms / 1000).toFixed(0).padStart(6)}  ${f}\n`).join('')}`,
);
const sum = (key) => ended.reduce((n, e) => n + e[key], 0);
const failed = failedChecks + sum('failures');
process.stdout.write(`\n${sum('passes')} passed, ${failed} failed\n`);
process.exit(failed ? 1 : 0);

/** One run of Mocha: shown as it goes, or reported at its end. A run that ends without its counts has failed. */
function mocha(files, counts, shown) {
  return new Promise((resolve) => {
    const child = spawn(
      process.execPath,
      ['node_modules/mocha/bin/mocha.js', '--reporter', 'scripts/reporter.cjs', ...files],
      {
        cwd: root,
        stdio: ['ignore', shown ? 'inherit' : 'pipe', shown ? 'inherit' : 'pipe'],
        env: { ...process.env, TEST_DATABASE_URL: postgres.url, TEST_SCRATCH: scratch, COUNTS: counts },
      },
    );
    let report = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (d) => (report += d));
    child.on('close', (status) => {
      const { passes, failures, files } = existsSync(counts)
        ? JSON.parse(readFileSync(counts, 'utf8'))
        : { passes: 0, failures: 0, files: {} };
      resolve({ report, passes, failures: failures || (status === 0 ? 0 : 1), files });
    });
  });
}
