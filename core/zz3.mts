import { readFileSync } from 'node:fs';
import { rolesOf } from './src/revise/grammar/roles.ts';
import { actsIn } from './src/revise/grammar/acts.ts';
const [f, ...texts] = process.argv.slice(2);
const s: any = JSON.parse(readFileSync(`../shared/notes/${f}.json`,'utf8'));
const sections = s.sections.map((x: any) => ({ role: '', ...x, lines: x.lines.map((l: any) => ({ from: [], marks: [], fixed: '', ...l })) }));
const ids = sections.flatMap((x: any) => x.lines.map((l: any) => l.id));
for (const t of texts) { const r = rolesOf(t, [], null, { sections, selection: null, sources: [], title: '', fresh: () => 'x' } as any);
console.log(t, '\n  acts', actsIn(t).join(' '), '\n  places', r.places.map((p) => `${p.says}=${p.scope.type}:${p.scope.lines.map((i) => ids.indexOf(i) + 1)} ${p.side ?? ''}`), r.amounts.map((a) => a.amount), r.missing); }
