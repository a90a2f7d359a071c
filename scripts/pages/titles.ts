/**
 * Learns which row above a text is its title, from labelled pages as they are pasted; writes core/data/title-model.json.
 * `node --import tsx scripts/pages/titles.ts [--check]`: with --check nothing is written, and each page is judged by trees that
 * have not seen its site.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { sureness } from '../../core/src/source/page/classify.ts';
import { hashOf } from '../../core/src/source/page/features.ts';
import { pageModel, pasteModel } from '../../core/src/source/page/models.ts';
import { asPasted } from '../../core/src/source/page/ofText.ts';
import { titleChances, titleRows, type TitleRow } from '../../core/src/source/page/title.ts';
import { grow, type Growing, type Row } from './boost.ts';
import { labelledPages } from './labelled.ts';

const TREES: Growing = { trees: 80, depth: 3, rate: 0.12, least: 0.5, sample: 0.7, features: 0.5, seed: 3 };
const FOLDS = 5;

interface Case {
  site: string;
  from: string;
  rows: TitleRow[];
  /** The title's row; wherever its words stand once more they are the title too. */
  title: number;
}
const same = (a: TitleRow, b: TitleRow) => hashOf(a.text) === hashOf(b.text);
const cases: Case[] = [];
const [tags, text] = [await pageModel(), await pasteModel()];
for (const page of await labelledPages()) {
  const key = hashOf(page.named ?? page.title);
  if (key.length < 4) continue;
  for (const tagged of page.bare ? [false] : [true, false]) {
    const atoms = tagged || page.bare ? page.atoms : asPasted(page.atoms);
    const rows = titleRows(atoms, sureness(atoms, '', tagged ? tags : text, tagged));
    // Without its markup and the site's name: the whole of the row, or what the window's title begins with.
    const is = (r: TitleRow) => hashOf(r.text) === key || (hashOf(r.text).length > 12 && key.startsWith(`${hashOf(r.text)} `)); // prettier-ignore
    const title = rows.reduce((best, r, i) => (is(r) && (best < 0 || r.text.length >= rows[best].text.length) ? i : best), -1); // prettier-ignore
    if (title >= 0) cases.push({ site: page.site ?? page.id, from: page.from, rows, title });
  }
}
const rowsOf = (list: readonly Case[]): Row[] =>
  list.flatMap((c) => c.rows.map((r, i): Row => ({ values: r.values, label: same(r, c.rows[c.title]) ? 1 : 0, weight: i === c.title ? 2 : 1 }))); // prettier-ignore
const names = Object.keys(cases[0].rows[0].values);
const sites = [...new Set(cases.map((c) => c.site))];
if (process.argv.includes('--check')) {
  const sums = new Map<string, [number, number]>();
  for (let f = 0; f < FOLDS; f++) {
    const out = (c: Case) => sites.indexOf(c.site) % FOLDS === f;
    const { forest } = grow(rowsOf(cases.filter((c) => !out(c))), names, TREES);
    for (const c of cases.filter(out)) {
      const chances = titleChances(c.rows, forest);
      const best = c.rows[chances.indexOf(Math.max(...chances))];
      const right = same(best, c.rows[c.title]);
      const [a, b] = sums.get(c.from) ?? [0, 0];
      sums.set(c.from, [a + Number(right), b + 1]);
      if (!right && process.argv.includes('--show')) console.log(`${c.site}: ${best.text} INSTEAD OF ${c.rows[c.title].text}`); // prettier-ignore
    }
  }
  for (const [from, [a, b]] of sums) console.log(`${from}: ${a} of ${b} titles found on sites not seen`);
} else {
  const { forest, gains } = grow(rowsOf(cases), names, TREES);
  const all = [...gains.values()].reduce((a, b) => a + b, 0);
  console.log([...gains].sort((a, b) => b[1] - a[1]).slice(0, 12).map(([f, g]) => `${f} ${((100 * g) / all).toFixed(1)} %`).join(', ')); // prettier-ignore
  writeFileSync(join(import.meta.dirname, '../../core/data/title-model.json'), JSON.stringify(forest) + '\n');
}
