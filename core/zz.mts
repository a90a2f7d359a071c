import { composeThread } from '../scripts/pages/threads.ts';
import { atomsOfHtml } from './src/source/page/ofHtml.ts';
import { parsedHtml } from './src/source/readers/html/parse.ts';
import { recordGroups } from './src/source/page/records.ts';
const t = composeThread(Number(process.argv[2]));
const atoms = atomsOfHtml((await parsedHtml(t.html)).body) as any;
const list = atoms.atoms ?? atoms;
if (process.argv[3]) list.forEach((a: any, i: number) => console.log(i, a.tag, a.look, JSON.stringify(a.spans ?? ''), a.time ?? '', a.text.slice(0, 70)));
for (const g of recordGroups(list)) { console.log(g.kind); for (const r of g.records) console.log('  ', r.author, r.day, r.stamp, r.atoms.join(','), '|', r.body.join(',')); }
