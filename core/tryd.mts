import { readFileSync } from 'node:fs';
import highsLoader from 'highs';
import { openDictionary, makePronouncer } from './src/language/index.ts';
import { makeTagger } from './src/language/tagger.ts';
import { makeClock, DEFAULT_VOICE, clockText } from './src/timing/index.ts';
import { readSource } from './src/source/index.ts';
import { draftScript } from './src/draft/index.ts';
const p=makePronouncer(openDictionary(readFileSync('core/dist/pronunciations.bin')));
const [,, file, secs, pace, mood, shape]=process.argv;
const tagger=makeTagger(); const solver=await highsLoader();
const clock=makeClock(p,{voice:DEFAULT_VOICE,pace:Number(pace||150)});
const src=readSource(readFileSync(file));
console.log(src.title,'|',src.kind,src.kindReason,src.format,src.blocks.length);
const t=performance.now();
try {
const d=draftScript(src,{target:{kind:'point',seconds:Number(secs)},mood:(mood||'calm') as any,seed:1,...(shape&&shape!=='-'?{shape:shape as any}:{})},{tagger,clock,solver:solver as any});
console.log('took',Math.round(performance.now()-t),'ms', d.shape, d.ms, JSON.stringify(d.carries), d.notes);
for (const s of d.sections) { console.log(`\n## ${s.role} · ${s.title} · ${clockText(s.plannedMs)}`); for (const l of s.lines) console.log((l.from.length?'':'* ')+l.text+(l.restMs?`  [${l.restMs}]`:'')); }
} catch(e) { console.log(e); }
