// Lint, types, build, then every Mocha test on a private PostgreSQL and Debian's Chromium.
// Usage: node scripts/test.mjs [--only GLOB]…
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { dataFolder, startPostgres } from './postgres.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const only = process.argv.filter((_, i, all) => all[i - 1] === '--only');

/** Runs a program of Node's to its end: shown as it goes, or its output given back. */
function node(args, { shown = false, env = {} } = {}) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      cwd: root,
      stdio: ['ignore', shown ? 'inherit' : 'pipe', shown ? 'inherit' : 'pipe'],
      env: { ...process.env, ...env },
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (d) => (output += d));
    child.on('close', (status) => resolve({ status: status ?? 1, output }));
  });
}

/** A check passes or fails as a whole. */
async function check(name, args, shown = false) {
  if (shown) process.stdout.write(`— ${name}\n`);
  const { status, output } = await node(args, { shown });
  const report = `— ${name}\n${output}${status ? `✗ ${name}\n` : ''}`;
  if (shown && status) process.stdout.write(`✗ ${name}\n`);
  const failed = status ? [{ title: name, why: output.slice(-1200) }] : [];
  return { report, passes: 0, failures: failed.length, failed, files: {} };
}

/** One run of Mocha. A run that ends without its counts has failed. */
async function mocha(files, { shown = false, without = [] } = {}) {
  const counts = join(scratch, `counts-${Math.random()}.json`);
  const { status, output } = await node(
    [
      'node_modules/mocha/bin/mocha.js',
      '--reporter',
      'scripts/reporter.cjs',
      ...without.flatMap((glob) => ['--ignore', glob]),
      ...files,
    ],
    { shown, env: { TEST_DATABASE_URL: postgres.url, TEST_SCRATCH: scratch, COUNTS: counts } },
  );
  const {
    passes,
    failures,
    failed,
    files: times,
  } = existsSync(counts)
    ? JSON.parse(readFileSync(counts, 'utf8'))
    : { passes: 0, failures: 0, failed: [], files: {} };
  if (status !== 0 && !failures)
    failed.push({ title: `mocha ${files.join(' ')} (ended with ${status})`, why: output.slice(-1200) });
  return { report: output, passes, failures: failed.length, failed, files: times };
}

async function inTurn(jobs) {
  const out = [];
  for (const job of jobs) out.push(await job());
  return out;
}

const built = await check('build', ['scripts/build.mjs'], true);
process.env.URSPRUNG_TEST = '1';
const postgres = await startPostgres(dataFolder(root, 'test'));
const scratch = mkdtempSync(join(tmpdir(), 'ursprung-test-'));
const KILLS = 'e2e/kills.test.ts';
/** What is run one after the other; these series run side by side. What starts servers and browsers often waits, so that there are more of them than cores. */
const series = only.length
  ? [[() => mocha(only, { shown: true })]]
  : [
      [() => mocha(['e2e/**/*.test.ts'], { shown: true, without: [KILLS] })],
      [() => mocha(['core/test/**/*.test.ts'])],
      [
        () => mocha([KILLS]),
        () =>
          mocha([
            'cli/test/**/*.test.ts',
            'standins/test/**/*.test.ts',
            'demo/test/**/*.test.ts',
            'web/test/**/*.test.ts',
          ]),
      ],
      [
        () => mocha(['server/test/**/*.test.ts']),
        () => check('eslint', ['node_modules/eslint/bin/eslint.js', '.']),
        () =>
          check('prettier', [
            'node_modules/prettier/bin/prettier.cjs',
            '--check',
            '--log-level',
            'warn',
            '.',
          ]),
        () => check('types', ['node_modules/typescript/bin/tsc', '-p', 'tsconfig.json']),
        () => check('types of the page', ['node_modules/typescript/bin/tsc', '-p', 'web/tsconfig.json']),
      ],
    ];
let ended = [];
try {
  ended = (await Promise.all(series.map(inTurn))).flat();
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
for (const { title, why } of [built, ...ended].flatMap((e) => e.failed))
  process.stdout.write(`\n✗ ${title}\n${why.replace(/^/gm, '    ')}\n`);
const sum = (key) => [built, ...ended].reduce((n, e) => n + e[key], 0);
process.stdout.write(`\n${sum('passes')} passed, ${sum('failures')} failed\n`);
process.exit(sum('failures') ? 1 : 0);
