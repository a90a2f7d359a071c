/**
 * Learns which sentences of a source a telling of half its length must have; writes core/data/salience-model.json.
 * `FETCHED=DIR node --import tsx scripts/salience/train.ts [--check]`: with --check nothing is written, and each text is judged by
 * trees that have not seen it. `labels.json` says of 74 texts (of two writers' test pages, of our own kinds of site and of news
 * pages from the tests of `article`, npm), by the ids of their facts, what must be told and what is worth telling: read and
 * marked by hand, before a rule was tried on them.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { stems } from '../../core/src/facts/centrality.ts';
import { taggedFacts } from '../../core/src/facts/facts.ts';
import { salienceRows, type SalienceRow } from '../../core/src/facts/salience.ts';
import { SHARES } from '../../core/src/facts/strength.ts';
import { chance, oddsOf } from '../../core/src/source/page/trees.ts';
import { readSource } from '../../core/src/source/read.ts';
import { getTagger } from '../../server/src/tools.ts';
import { grow, random, type Growing, type Row } from '../pages/boost.ts';
import { fetched, NEWS, newsFiles } from '../pages/labelled.ts';

const TREES: Growing = { trees: 200, depth: 2, rate: 0.05, least: 12, sample: 0.7, features: 0.5, seed: 3 };
const FOLDS = 8;
/** How much of a must a sentence is that is only worth telling. */
const WORTH = 0.15;
/** Of a text's words so many are told where shares are measured. */
const TOLD = 0.45;

interface Text {
  id: string;
  kind: string;
  rows: SalienceRow[];
  /** 1 a must, WORTH, or 0. */
  labels: number[];
  words: number[];
  strength: number[];
}

const ROOT = join(import.meta.dirname, '../..');
const labels = JSON.parse(readFileSync(join(import.meta.dirname, 'labels.json'), 'utf8')) as Record<
  string,
  { must: string[]; worth: string[] }
>;
const news = new Map(newsFiles(fetched(...NEWS)).map((f) => [`news/${f.id}`, f.html]));
const texts: Text[] = [];
for (const [id, { must, worth }] of Object.entries(labels)) {
  const source = await readSource(news.get(id) ?? readFileSync(join(ROOT, 'core/test/source', id), 'utf8'));
  const told = taggedFacts(source, getTagger()).filter((t) => !t.fact.silent);
  const known = new Set(told.map((t) => t.fact.id));
  const lost = [...must, ...worth].filter((f) => !known.has(f)).length;
  if (lost) console.log(`${id}: ${lost} labelled facts are no longer read`);
  texts.push({
    id,
    kind: source.kind,
    rows: salienceRows(source, told.map((t) => ({ ...t, stems: stems(t.fact.text) }))), // prettier-ignore
    labels: told.map((t) => (must.includes(t.fact.id) ? 1 : worth.includes(t.fact.id) ? WORTH : 0)),
    words: told.map((t) => t.fact.text.split(/\s+/).length),
    // What it was before anything was learned.
    strength: told.map(({ fact }) => Object.entries(SHARES).reduce((n, [part, share]) => n + share * fact.parts[part as keyof typeof SHARES], 0)), // prettier-ignore
  });
}
const names = Object.keys(texts[0].rows[0]);

/** Long texts weigh more than short ones, but not by their length. */
const rowsOf = (some: readonly Text[]): Row[] =>
  some.flatMap((t) => {
    const weight = 10 / t.rows.length ** 0.7;
    return t.rows.flatMap((values, i): Row[] =>
      ([1, 0] as const)
        .map((label): Row => ({ values, label, weight: weight * (label ? t.labels[i] : 1 - t.labels[i]) }))
        .filter((r) => r.weight > 0),
    );
  });

/** Mean average precision of the musts, and the share of them that stands in so many words of the best. */
function measured(some: readonly Text[], scores: (t: Text) => readonly number[]): string {
  let [precision, share] = [0, 0];
  for (const t of some) {
    const s = scores(t);
    const order = s.map((_, i) => i).sort((a, b) => s[b] - s[a]);
    const musts = t.labels.filter((l) => l === 1).length;
    let [found, sum, used, told] = [0, 0, 0, 0];
    const room = TOLD * t.words.reduce((n, w) => n + w, 0);
    order.forEach((i, k) => {
      const must = t.labels[i] === 1;
      if (must) sum += ++found / (k + 1);
      if (used + t.words[i] > room) return;
      used += t.words[i];
      told += Number(must);
    });
    precision += sum / musts;
    share += told / musts;
  }
  return `${(precision / some.length).toFixed(3)} ${((100 * share) / some.length).toFixed(0)} %`;
}

if (process.argv.includes('--check')) {
  const fold = new Map([...texts].sort((a, b) => a.id.localeCompare(b.id)).map((t, i) => [t.id, i % FOLDS]));
  const scores = new Map<string, number[]>();
  for (let k = 0; k < FOLDS; k++) {
    const { forest } = grow(rowsOf(texts.filter((t) => fold.get(t.id) !== k)), names, TREES);
    for (const t of texts.filter((x) => fold.get(x.id) === k))
      scores.set(t.id, t.rows.map((r) => chance(oddsOf(forest, names.map((n) => r[n]))))); // prettier-ignore
  }
  const draw = random(5);
  for (const kind of ['', ...new Set(texts.map((t) => t.kind))]) {
    const some = texts.filter((t) => !kind || t.kind === kind);
    console.log(
      `${kind || 'all'} ${some.length}: by chance ${measured(some, (t) => t.rows.map(draw))}, by shares ${measured(some, (t) => t.strength)}, learned ${measured(some, (t) => scores.get(t.id)!)}`,
    );
  }
  const out = process.env.SCORES;
  if (out) writeFileSync(out, JSON.stringify(Object.fromEntries(scores)));
} else {
  const { forest, gains } = grow(rowsOf(texts), names, TREES);
  const used = names.filter((n) => gains.has(n));
  const place = new Map(used.map((n, i) => [names.indexOf(n), i]));
  const trees = forest.trees.map((tree) =>
    tree.map((node) => (node.length === 4 ? [place.get(node[0])!, ...node.slice(1)] : node)),
  );
  writeFileSync(join(ROOT, 'core/data/salience-model.json'), `${JSON.stringify({ features: used, base: forest.base, trees })}\n`); // prettier-ignore
  const most = [...gains].sort((a, b) => b[1] - a[1]).slice(0, 25);
  console.log(most.map(([name, gain]) => `${name} ${gain.toFixed(0)}`).join(', '));
}
