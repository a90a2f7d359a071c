// Builds what runs: the packed dictionary, the command line, the server with its worker, and the page.
// Usage: node scripts/build.mjs [--cli] (only what the command line needs). Says what it does on stderr.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { build } from 'esbuild';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const cliOnly = process.argv.includes('--cli');
const say = (text) => process.stderr.write(`${text}\n`);

/** Packages stay where npm put them; our own workspaces are bundled. */
const external = ['core', 'standins', 'demo', 'cli', 'server'].flatMap((w) => {
  const { dependencies = {} } = JSON.parse(readFileSync(join(root, w, 'package.json'), 'utf8'));
  return Object.keys(dependencies).filter((d) => !d.startsWith('@ursprung/'));
});

function newest(folder) {
  let time = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'dist' || entry.name === 'node_modules' || entry.name === 'test') continue;
    const path = join(folder, entry.name);
    time = Math.max(time, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return time;
}
const stale = (target, ...sources) => {
  const path = join(root, target);
  return !existsSync(path) || Math.max(...sources.map((s) => newest(join(root, s)))) > statSync(path).mtimeMs;
};

async function bundle(entry, outfile) {
  await build({
    entryPoints: [join(root, entry)],
    outfile: join(root, outfile),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: [...new Set(external)],
    logLevel: 'error',
    banner: {
      js: "import { createRequire as __require } from 'node:module'; const require = __require(import.meta.url);",
    },
  });
}

/** A file that a script packs from npm packages, made anew when the script changes. */
function packed(target, script, what) {
  const path = join(root, target);
  if (existsSync(path) && statSync(path).mtimeMs >= statSync(join(root, script)).mtimeMs) return;
  say(`Packing ${what}…`);
  execFileSync(process.execPath, ['--import', 'tsx', join(root, script)], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}
/** What travels, made small once: each text and module beside itself, for browsers that take it. */
function squeeze(folder) {
  const jobs = readdirSync(folder).filter((f) => /\.(?:js|css|bin|tsv|svg|wasm)$/.test(f));
  for (const file of jobs) {
    const bytes = readFileSync(join(folder, file));
    const quality = { [constants.BROTLI_PARAM_QUALITY]: 9, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length };
    writeFileSync(join(folder, `${file}.br`), brotliCompressSync(bytes, { params: quality }));
    writeFileSync(join(folder, `${file}.gz`), gzipSync(bytes, { level: 9 }));
  }
}
packed('core/dist/pronunciations.bin', 'scripts/pack-dictionary.ts', 'the pronouncing dictionary');
packed('core/dist/kin.tsv', 'scripts/pack-kin.ts', 'words of one meaning');
packed('core/dist/senses.tsv', 'scripts/pack-senses.ts', 'what words show');
if (stale('cli/dist/main.js', 'core', 'cli', 'server/src')) {
  say('Building the command line…');
  await bundle('cli/src/main.ts', 'cli/dist/main.js');
}
if (!cliOnly) {
  if (stale('server/dist/main.js', 'core', 'server', 'demo', 'standins')) {
    say('Building the server…');
    await bundle('server/src/main.ts', 'server/dist/main.js');
    await bundle('server/src/worker.ts', 'server/dist/worker.js');
    await bundle('server/src/reader.ts', 'server/dist/reader.js');
  }
  if (stale('web/dist/index.html', 'core', 'web')) {
    say('Building the page…');
    execFileSync(
      process.execPath,
      [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'error'],
      { cwd: join(root, 'web'), stdio: ['ignore', 'ignore', 'inherit'] },
    );
    squeeze(join(root, 'web/dist/assets'));
  }
}
