import { readFileSync } from 'node:fs';
import { readPaste } from './src/source/page/paste.ts';
const t=readFileSync(process.argv[2],'utf8').replace(/^[\s\S]*?\n\n/,'');
const r=await readPaste(t); console.log(r && {...r,blocks:r.blocks.map(b=>b.text.slice(0,60)),leftOut:r.leftOut!.map(b=>b.text.slice(0,60))});
