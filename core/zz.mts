import { readFileSync } from 'node:fs';
import { understand } from './src/revise/index.ts';
const load = (f: string) => { const s: any = JSON.parse(readFileSync(`../shared/notes/${f}.json`,'utf8')); return s; };
const rows = readFileSync(process.argv[2],'utf8').split('\n').filter(Boolean);
for (const row of rows) {
  const [f, note] = [row[0], row.slice(2)];
  const s = load(f);
  const sections = s.sections.map((x: any) => ({ role: '', ...x, locked: !!x.locked, lines: x.lines.map((l: any) => ({ from: [], marks: [], fixed: '', ...l, restMs: (l.rest ?? 0) * 1000, locked: !!l.locked })) }));
  let at = 0; const starts = s.sections.flatMap((x: any) => x.lines.map((l: any) => { const a = at; at += l.seconds * 1000; return a; })); starts.push(at);
  const ctx: any = { sections, selection: null, sources: [], title: s.title, startsMs: () => starts, fresh: () => 'x' };
  const ids = sections.flatMap((x: any) => x.lines.map((l: any) => l.id));
  const got: any = understand(note, ctx);
  const say = (r: any) => `${r.operation.id} [${r.scope.type === 'whole' ? '*' : r.scope.type === 'sections' ? '#' + r.scope.sections.map((i: string) => sections.findIndex((x: any) => x.id === i) + 1) : 'L' + r.scope.lines.map((i: string) => ids.indexOf(i) + 1).join(',')}]${r.where ? ` ${r.where.side} ${r.where.scope ? (r.where.scope.type === 'sections' ? '#' + r.where.scope.sections.map((i: string) => sections.findIndex((x: any) => x.id === i) + 1) : 'L' + r.where.scope.lines.map((i: string) => ids.indexOf(i) + 1)) : ''}` : ''}${Object.keys(r.slots).length ? ' ' + JSON.stringify(r.slots) : ''}${r.amount ? ' ' + r.amount.says : ''}${r.keep?.length ? ' keep ' + r.keep : ''}`;
  console.log(`${got.requests ? '+' : '-'} ${note}\n     ${got.requests ? got.requests.map(say).join('\n     ') : got.asks}`);
}
