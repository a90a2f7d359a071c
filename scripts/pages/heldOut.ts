/**
 * How pages of sites that nothing was learned from are read: `node --import tsx scripts/pages/heldOut.ts [--seen] [--pasted] [--why PAGE]`.
 * Kept: the words of the article's text that stand in what was read; besides: words read that stand in no run of four of its own.
 * Its gold leaves out headings, captions and boxes, which count as besides here. `--seen`: the sites that were learned from.
 * `--pasted`: as the browser's text of each, pasted.
 */
import { readSource } from '../../core/src/source/read.ts';
import { wordsOf } from '../../core/src/source/page/atom.ts';
import { innerTexts } from './pasted.ts';
import { fetched, NEWS, newsFiles } from './labelled.ts';

const words = (text: string) => wordsOf(text.normalize('NFKC').toLowerCase().replace(/[‘’]/g, "'"));
const runs = (list: readonly string[]) =>
  new Set(list.slice(3).map((_, i) => list.slice(i, i + 4).join(' ')));
/** How many of these words stand in a run of four that is among those. */
const covered = (list: readonly string[], among: ReadonlySet<string>) =>
  list.filter((_, k) => [k - 3, k - 2, k - 1, k].some((j) => j >= 0 && among.has(list.slice(j, j + 4).join(' ')))).length; // prettier-ignore

const at = process.argv.indexOf('--why');
const only = at < 0 ? undefined : process.argv[at + 1];
const sum = { pages: 0, refused: 0, titles: 0, read: 0, besides: 0, gold: 0, lost: 0, bad: 0 };
const files = newsFiles(fetched(...NEWS)).filter((f) => f.held !== process.argv.includes('--seen') && (!only || f.id.startsWith(only))); // prettier-ignore
const texts = process.argv.includes('--pasted') ? await innerTexts(files.map((f) => f.html)) : undefined;
for (const [i, { id, site, html, gold }] of files.entries()) {
  sum.pages++;
  const source = await readSource(texts?.[i] ?? html).catch((error: unknown) => String(error));
  if (typeof source === 'string') {
    sum.refused++;
    console.log(`${id} ${site} refused: ${source}`);
    continue;
  }
  const own = source.blocks.filter((b) => b.type !== 'reply').map((b) => b.text);
  const [told, wanted] = [words(own.join('\n')), words(`${gold.title}\n${gold.text}`)];
  const [have, should] = [runs(told), runs(wanted)];
  const besides = told.length - covered(told, should);
  const lost = wanted.length - covered(wanted, have);
  sum.titles += Number(words(source.title).join('') === words(gold.title).join(''));
  sum.read += told.length;
  sum.besides += besides;
  sum.gold += wanted.length;
  sum.lost += lost;
  sum.bad += Number(besides > told.length * 0.1 || lost > wanted.length * 0.1);
  console.log(`${id} ${site} besides ${((100 * besides) / told.length).toFixed(0)} % lost ${((100 * lost) / wanted.length).toFixed(0)} %`); // prettier-ignore
  if (!only) continue;
  for (const [name, texts, among] of [
    ['let in', own, should],
    ['lost', gold.text.split('\n'), have],
  ] as const)
    for (const t of texts)
      if (covered(words(t), among) < words(t).length * 0.5) console.log(`  ${name}: ${t.slice(0, 160)}`);
}
console.log(
  `${sum.pages} pages: lost ${((100 * sum.lost) / sum.gold).toFixed(1)} % of words, besides ${((100 * sum.besides) / sum.read).toFixed(1)} %, titles ${sum.titles}, more than a tenth wrong ${sum.bad}, refused ${sum.refused}`,
);
