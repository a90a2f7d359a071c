/**
 * Drafts of news pages that nothing was learned from, to be read: `FETCHED=DIR npx tsx scripts/pages/drafts.ts [--part K/N] [--seconds N]`.
 * Each is told at the length asked for, or the next shorter one that its page carries. Last: how many sentences run over
 * 26 words, quotations apart. The pages come from a package of test pages; nothing of them is kept here.
 */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from '../../cli/src/run.ts';
import { LONG_LINE_WORDS } from '../../core/src/draft/units.ts';
import { sentences, writtenWords } from '../../core/src/language/sentences.ts';
import { fetched, NEWS, newsFiles } from './labelled.ts';

const option = (name: string) => {
  const at = process.argv.indexOf(name);
  return at < 0 ? undefined : process.argv[at + 1];
};
const [part, parts] = (option('--part') ?? '0/1').split('/').map(Number);
const longest = Number(option('--seconds') ?? 150);
const folder = mkdtempSync(join(tmpdir(), 'drafts-'));
const sum = { pages: 0, refused: 0, sentences: 0, long: 0 };

interface Draft {
  title: string;
  sources: { kind: string }[];
  sections: { title?: string; lines: { role: string; text: string; open?: boolean }[] }[];
}
const pages = newsFiles(fetched(...NEWS)).filter((f, i) => f.held && i % parts === part);
for (const { id, html } of pages) {
  sum.pages++;
  const file = join(folder, `${id}.html`);
  writeFileSync(file, html);
  let told: Awaited<ReturnType<typeof run>> | undefined;
  for (const share of [1, 2 / 3, 1 / 2, 1 / 3]) {
    told = await run(['draft', file, '--seconds', String(Math.round(longest * share)), '--seed', '7']);
    if (told.status === 0) break;
  }
  if (!told || told.status !== 0) {
    sum.refused++;
    console.log(`=== ${id} refused: ${told?.err.trim()}`);
    continue;
  }
  const draft = JSON.parse(String(told.out)) as Draft;
  console.log(`=== ${id} ${draft.title} (${draft.sources[0].kind})`);
  for (const section of draft.sections) {
    console.log(`## ${section.title ?? ''}`);
    for (const line of section.lines) {
      console.log(`  ${line.role} ${line.open ? '[open]' : line.text}`);
      for (const { text } of sentences(line.text)) {
        if (/^["“]/.test(text)) continue;
        sum.sentences++;
        sum.long += Number(writtenWords(text).length > LONG_LINE_WORDS);
      }
    }
  }
}
rmSync(folder, { recursive: true });
console.log(
  `${sum.pages} pages, ${sum.refused} refused; ${sum.long} of ${sum.sentences} sentences over ${LONG_LINE_WORDS} words (${((100 * sum.long) / sum.sentences).toFixed(1)} %)`,
);
