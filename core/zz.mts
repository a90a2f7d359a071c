import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { makeTagger } from './src/language/tagger.ts';
import { disputedBetween, disputedWithin } from './src/facts/disputed.ts';
const tagger = makeTagger();
const c = (text: string) => ({ text, tokens: tagger(text) });
const pairs: [string, string][] = [
 ['Police counted 1,500 people on the quay.', 'The organisers put it at 4,000.'],
 ['The council said the repair would cost £40,000.', 'Residents say it cost £18,000 to do the same on Mill Lane.'],
 ['The ministry says 212 homes were flooded.', 'The tenants’ union claims 390 homes were.'],
 ['Mr Bell said the gate weighed 12 tonnes.', 'The maker’s own papers say 9 tonnes.'],
 ['In 1978 the survey counted 4,210 pairs.', 'In 2019 it counted 1,310 pairs.'],
 ['She said the bell weighs 412 kg.', 'She added that it is 84 cm across.'],
 ['The club has 40 members.', 'But the treasurer said only 22 members pay.'],
 ['Drain it for 20 minutes.', 'The maker says 30 minutes in winter.'],
];
for (const [a, b] of pairs) console.log(JSON.stringify(disputedBetween(c(a), c(b))?.map((f) => f.text)), a, b);
for (const s of ['Police say 1,500 people marched, organisers 4,000.', 'The council puts the bill at £40,000, while residents say it was £18,000.', 'According to the mill it lost 30 tonnes; the river authority speaks of 12 tonnes.', 'He said 40 sheep and 12 goats were lost.', 'The report says 12 were hurt, and 3 died.']) console.log(JSON.stringify(disputedWithin(c(s))?.map((f) => f.text)), s);
const q=c("Police say 1,500 people marched, organisers 4,000."); const { figuresOf } = await import("./src/facts/disputed.ts"); console.log(JSON.stringify(figuresOf(q)));
for (const f of process.argv.slice(2)) { const b = readFileSync(f); const text = (f.endsWith('z') ? gunzipSync(b) : b).toString('utf8').replace(/<[^>]*>/g, ' '); const ss = text.split(/(?<=[.!?])\s+|\n\n+/).map((s) => s.replace(/\s+/g, ' ').trim()).filter((s) => s.length > 20 && s.length < 400).slice(0, 12000); let prev = null as ReturnType<typeof c> | null; let n = 0; for (const s of ss) { if (!/\d/.test(s)) { prev = null; continue; } const x = c(s); const w = disputedWithin(x); const d = prev && disputedBetween(prev, x); if (w || d) { n++; console.log(w ? 'WITHIN' : 'BETWEEN', (w ?? d)!.map((f) => f.text), prev?.text.slice(0, 150), '|', s.slice(0, 220)); } prev = x; } console.log(f, ss.length, n); }
