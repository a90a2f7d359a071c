import { readFileSync } from 'node:fs';
import { mailOpener } from './src/source/openers/mail.ts';
const r = await mailOpener.open(new Uint8Array(readFileSync(process.argv[2])));
console.log({...r, blocks:r.blocks.map(b=>b.type+': '+b.text.slice(0,90)), leftOut:r.leftOut?.map(b=>b.text.slice(0,70)+' | '+b.why)});
