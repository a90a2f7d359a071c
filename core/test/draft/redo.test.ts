/** Takes: another of a hook, a line, a section, the whole; what was there stays reachable, what is locked stays as it is. */
import { expect } from 'chai';
import {
  draftScript,
  fitToPlan,
  moveSection,
  redoHook,
  redoLine,
  redoSection,
  reshaped,
  type Draft,
  type DraftTools,
  type Redone,
} from '../../src/draft/index.ts';
import { resized } from '../../src/plan/index.ts';
import { clockLines, type PlainSection } from '../../src/script/index.ts';
import { stockOf, unsupportedIn } from '../../src/trace/index.ts';
import { readSource } from '../../src/source/index.ts';
import { clock, demoFile, solver, tagger } from '../tools.ts';
import { LONG_PAGES } from './pages.ts';

const { source } = LONG_PAGES.find((p) => p.name === 'news-ferry')!;
const options = { target: { kind: 'point' as const, seconds: 110 }, mood: 'calm' as const, seed: 1 };
const timeOf = (s: readonly PlainSection[]) => clock.lines(clockLines(s)).reduce((n, l) => n + l.ms, 0);
const done = (r: Redone) => {
  if ('refused' in r) throw new Error(r.refused);
  return r.sections;
};
const facts = (s: PlainSection) => s.lines.flatMap((l) => l.from.map((f) => f.fact));

describe('another take', function () {
  let tools: DraftTools;
  let draft: Draft;
  before(async () => {
    tools = { tagger, clock, solver: await solver() };
    draft = draftScript(source, options, tools);
  });

  it('of a section tells other facts in about the same seconds, and touches nothing outside it', () => {
    const at = draft.sections.findIndex(
      (s, i) =>
        i > 0 && !('refused' in redoSection({ source, options, sections: draft.sections }, s.id, tools)),
    );
    expect(at).to.be.greaterThan(0);
    const next = done(
      redoSection({ source, options, sections: draft.sections }, draft.sections[at].id, tools),
    );
    next.forEach((s, i) => i !== at && expect(s).to.deep.equal(draft.sections[i]));
    expect(facts(next[at])).to.not.deep.equal(facts(draft.sections[at]));
    expect(next[at].takes).to.have.length(1);
    expect(next[at].takes[0].lines.map((l) => l.text)).to.deep.equal(
      draft.sections[at].lines.map((l) => l.text),
    );
    const [was, is] = [timeOf([draft.sections[at]]), timeOf([next[at]])];
    expect(Math.abs(is - was)).to.be.at.most(Math.max(3000, was * 0.3));
    const stock = stockOf([`${source.title} ${source.text}`]);
    for (const l of next[at].lines) expect(unsupportedIn(l.text, stock), l.text).to.deep.equal([]);
  });

  it('of a locked section or line is refused', () => {
    const locked = draft.sections.map((s, i) => (i === 1 ? { ...s, locked: true } : s));
    expect(redoSection({ source, options, sections: locked }, locked[1].id, tools)).to.have.property(
      'refused',
    );
    expect(redoLine({ source, options, sections: locked }, locked[1].lines[0].id, tools)).to.have.property(
      'refused',
    );
    expect(
      redoHook({ source, options, sections: locked.map((s) => ({ ...s, locked: true })) }, tools),
    ).to.have.property('refused');
    expect(redoSection({ source, options, sections: locked }, 'gone', tools)).to.have.property('refused');
  });

  it('of a line is another fact or another telling, and the line before stays with it', () => {
    const able = draft.sections
      .slice(1)
      .flatMap((x) => x.lines)
      .filter((l) => !('refused' in redoLine({ source, options, sections: draft.sections }, l.id, tools)));
    expect(able.length).to.be.greaterThan(draft.sections.flatMap((x) => x.lines).length / 3);
    const [line] = able;
    const next = done(redoLine({ source, options, sections: draft.sections }, line.id, tools));
    const now = next.flatMap((x) => x.lines).find((l) => l.id === line.id)!;
    expect(now.text).to.not.equal(line.text);
    expect(now.takes).to.deep.equal([{ text: line.text, from: line.from }]);
    const others = (list: readonly PlainSection[]) =>
      list.flatMap((x) => x.lines).filter((l) => l.id !== line.id);
    expect(others(next)).to.deep.equal(others(draft.sections));
  });

  it('of a hook is of another kind, and is paid within the script', () => {
    const first = redoHook({ source, options, sections: draft.sections }, tools);
    const sections = done(first);
    expect(sections[0].lines[0].text).to.not.equal(draft.sections[0].lines[0].text);
    expect(sections.slice(1)).to.deep.equal(draft.sections.slice(1));
    const told = new Set(sections.flatMap(facts));
    for (const p of first.hook!.pays) expect([...told]).to.include(p.fact);
  });

  it('of the whole, in another shape, keeps locked sections and every take', () => {
    const locked = draft.sections.map((s, i) => (i === 2 ? { ...s, locked: true } : s));
    const next = done(reshaped({ source, options: { ...options, shape: 'case' }, sections: locked }, tools));
    expect(next).to.deep.include(locked[2]);
    const kept = next.flatMap((s) => s.takes.flatMap((t) => t.lines.map((l) => l.text)));
    for (const s of locked.filter((x) => !x.locked)) for (const l of s.lines) expect(kept).to.include(l.text);
    expect(Math.abs(timeOf(next) - 110_000)).to.be.at.most(1500);
    const ids = next.flatMap((s) => [s.id, ...s.lines.map((l) => l.id)]);
    expect(new Set(ids).size).to.equal(ids.length);
  });

  it('with another seed is another script, with the same seed the same', () => {
    const texts = (seed: number) =>
      draftScript(source, { ...options, seed }, tools)
        .sections.map((s) => s.lines.map((l) => l.text).join(' '))
        .join('\n');
    expect(texts(1)).to.equal(texts(1));
    expect(texts(2)).to.not.equal(texts(1));
  });
});

describe('the fit to a plan', function () {
  it('tells sections to their seconds and the whole to within 1 %, and names what can’t be done', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const draft = draftScript(source, options, tools);
    const times = new Map(
      clock
        .lines(clockLines(draft.sections))
        .map((t, i) => [draft.sections.flatMap((s) => s.lines)[i].id, t.ms]),
    );
    const at = draft.sections[1];
    const planned = resized(draft.sections, at.id, at.plannedMs - 6000, (id) => times.get(id)!, 110_000);
    const result = fitToPlan({ source, options, sections: planned }, tools);
    const next = done(result);
    expect(Math.abs(timeOf(next) - 110_000)).to.be.at.most(1100);
    const off = next.filter((s) => Math.abs(timeOf([s]) - s.plannedMs) > Math.max(2600, s.plannedMs * 0.12));
    const notes = 'refused' in result ? [] : result.notes;
    for (const s of off) expect(notes.join(' '), s.title).to.include(s.title);
  });
});

describe('a section moved', function () {
  it('is refused when what it points at would come later, and moves otherwise', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const source = await readSource(demoFile('boat-lift.md'));
    const options = { target: { kind: 'point' as const, seconds: 300 }, mood: 'calm' as const, seed: 1 };
    const draft = draftScript(source, options, tools);
    const results = draft.sections
      .slice(1)
      .map((s) => moveSection({ source, options, sections: draft.sections }, s.id, 0, tools));
    expect(results.some((r) => 'refused' in r)).to.equal(true);
    for (const r of results) if ('refused' in r) expect(r.refused).to.match(/would come before/);
    const last = draft.sections.length - 1;
    const down = moveSection(
      { source, options, sections: draft.sections },
      draft.sections[last].id,
      last,
      tools,
    );
    expect(done(down).map((s) => s.id)).to.deep.equal(draft.sections.map((s) => s.id));
  });
});
