/** Lists what each entry of the phrasebook hits in the files named, for reading: `npm run phrasebook -- FILE…`. */
import { readFileSync } from 'node:fs';
import { PHRASES, rephrase } from '../core/src/draft/tell/phrasebook.ts';
import { sentences } from '../core/src/language/sentences.ts';
import { readSource } from '../core/src/source/index.ts';
import { getTagger } from '../server/src/tools.ts';

const MOST_SHOWN = 20;
const tagger = getTagger();
const hits = new Map<string, string[]>();
let words = 0;
for (const file of process.argv.slice(2))
  for (const block of (await readSource(readFileSync(file))).blocks)
    for (const { text } of sentences(block.text)) {
      words += text.split(/\s+/).length;
      const { hits: found } = rephrase(text, tagger(text));
      for (const h of found) {
        const at = text.indexOf(h.was);
        const shown = `…${text.slice(Math.max(0, at - 40), at)}[${h.was} → ${h.is}]${text.slice(at + h.was.length, at + h.was.length + 40)}…`;
        hits.set(h.id, [...(hits.get(h.id) ?? []), shown.replace(/\s+/g, ' ')]);
      }
    }
const count = [...hits.values()].reduce((n, list) => n + list.length, 0);
for (const [id, list] of [...hits].sort((a, b) => b[1].length - a[1].length)) {
  process.stdout.write(`\n${list.length}  ${id}\n`);
  for (const line of list.slice(0, MOST_SHOWN)) process.stdout.write(`   ${line}\n`);
}
process.stdout.write(
  `\n${PHRASES.length} entries, ${hits.size} with hits; ${count} hits in ${words} words, ${((1000 * count) / words).toFixed(1)} per 1,000\n`,
);
