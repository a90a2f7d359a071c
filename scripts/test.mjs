// Lint, types, build, then every Mocha test on a private PostgreSQL and Debian's Chromium.
// Usage: node scripts/test.mjs [--only GLOB]…
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
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
let status;
try {
  status = run(
    [
      'node_modules/mocha/bin/mocha.js',
      '--reporter',
      'scripts/reporter.cjs',
      ...(only.length ? only : ['{core,cli,standins,demo,server,web}/test/**/*.test.ts', 'e2e/**/*.test.ts']),
    ],
    {
      TEST_DATABASE_URL: postgres.url,
      TEST_SCRATCH: scratch,
      FAILED_CHECKS: String(failedChecks),
    },
  );
} finally {
  postgres.stop();
  rmSync(scratch, { recursive: true, force: true });
}
process.exit(status === 0 && !failedChecks ? 0 : 1);
