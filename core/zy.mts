import { readFileSync } from 'node:fs';
import { parsedHtml } from './src/source/readers/html/parse.ts';
import { atomsOfHtml } from './src/source/page/ofHtml.ts';
import { isStamp, tellsAge, AGO } from './src/source/page/shapes.ts';
for (const t of ['1 d Like Reply','20 h Like Reply','Old Goods Yard · 2 d · Edited']) console.log(t,isStamp(t),tellsAge(t),AGO.test(t));
const d = await parsedHtml(readFileSync('/tmp/mine6/set/B.html','utf8'));
for(const a of atomsOfHtml(d.body).slice(17,27)) console.log(a.look, a.above.join('>'),a.inside.join());
