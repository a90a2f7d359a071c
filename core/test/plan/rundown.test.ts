import { expect } from 'chai';
import fc from 'fast-check';
import {
  brokenReferences,
  joinedToPrevious,
  lineCarried,
  loopsOf,
  movedTo,
  rebalanced,
  resized,
  rundownOf,
  SHORTEST_PLAN_MS,
  splitBefore,
  withLock,
  type FactNeeds,
} from '../../src/plan/index.ts';
import { emptyLine, type PlainSection } from '../../src/script/index.ts';

const line = (id: string, text: string, fact?: string) => ({
  ...emptyLine(id),
  text,
  from: fact ? [{ source: 'A', fact, quote: text }] : [],
});
const section = (id: string, plannedMs: number, ...lines: PlainSection['lines']): PlainSection => ({
  id,
  title: id,
  role: 'ground',
  plannedMs,
  locked: false,
  takes: [],
  lines: lines.length ? lines : [line(`${id}a`, 'One.', `f${id}`), line(`${id}b`, 'Two.')],
});
const msOf = () => 3000;
const sum = (s: readonly PlainSection[]) => s.reduce((n, x) => n + x.plannedMs, 0);

describe('the rundown', () => {
  it('says of each section what it plans, what is heard, and what it carries', () => {
    const [row] = rundownOf([section('S1', 5000)], msOf);
    expect(row).to.deep.include({ plannedMs: 5000, heardMs: 6000, overMs: 1000, lines: 2 });
    expect(row.points).to.deep.equal([{ source: 'A', fact: 'fS1', quote: 'One.' }]);
    expect(rundownOf([section('S1', 0)], msOf)[0].overMs).to.equal(0);
  });

  it('gives a section more or less time and takes it from the others, to the millisecond', () => {
    const three = [section('a', 20_000), section('b', 20_000), section('c', 20_000)];
    const next = resized(three, 'b', 30_000, msOf, 60_000);
    expect(next.map((s) => s.plannedMs)).to.deep.equal([15_000, 30_000, 15_000]);
    const held = resized(withLock(three, 'a', true), 'b', 30_000, msOf, 60_000);
    expect(held.map((s) => s.plannedMs)).to.deep.equal([20_000, 30_000, 10_000]);
  });

  it('always adds up, keeps locked sections and leaves none without time, whatever is asked', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ ms: fc.integer({ min: 2000, max: 90_000 }), locked: fc.boolean() }), {
          minLength: 2,
          maxLength: 12,
        }),
        fc.nat(11),
        fc.integer({ min: -5000, max: 400_000 }),
        (parts, at, ms) => {
          const sections = parts.map((p, i) => ({ ...section(`s${i}`, p.ms), locked: p.locked }));
          const target = sections[at % sections.length];
          if (target.locked) return true;
          const total = sum(sections);
          const next = resized(sections, target.id, ms, msOf, total);
          const others = next.filter((s) => s.id !== target.id && !s.locked);
          return (
            next.every(
              (s) => Number.isInteger(s.plannedMs) && (s.locked || s.plannedMs >= SHORTEST_PLAN_MS),
            ) &&
            next.every((s, i) => !s.locked || s.plannedMs === sections[i].plannedMs) &&
            (others.length === 0 ||
              sum(next) ===
                Math.max(
                  total,
                  sum(next.filter((s) => s.locked)) + next.filter((s) => !s.locked).length * SHORTEST_PLAN_MS,
                ))
          );
        },
      ),
      { numRuns: 500 },
    );
  });

  it('is evened anew for another length', () => {
    const next = rebalanced([section('a', 10_000), section('b', 30_000)], msOf, 80_000);
    expect(next.map((s) => s.plannedMs)).to.deep.equal([20_000, 60_000]);
  });

  it('splits and joins without losing a line or a second', () => {
    const two = [
      section('a', 12_000, line('l1', 'One.'), line('l2', 'Two.'), line('l3', 'Three.')),
      section('b', 6000),
    ];
    const split = splitBefore(two, 'l2', 'n', msOf);
    expect(split.map((s) => [s.id, s.lines.length, s.plannedMs])).to.deep.equal([
      ['a', 1, 4000],
      ['n', 2, 8000],
      ['b', 2, 6000],
    ]);
    const joined = joinedToPrevious(split, 'n');
    expect(joined.map((s) => [s.id, s.lines.map((l) => l.id).join(), s.plannedMs])).to.deep.equal([
      ['a', 'l1,l2,l3', 12_000],
      ['b', 'ba,bb', 6000],
    ]);
    expect(() => splitBefore(two, 'l1', 'n', msOf)).to.throw(RangeError);
    expect(() => joinedToPrevious(two, 'a')).to.throw(RangeError);
    expect(() => joinedToPrevious(withLock(two, 'b', true), 'b')).to.throw(/locked/);
  });

  const story = [
    section('S1', 4000, line('l1', 'A reservoir was dug.', 'f1')),
    section('S2', 4000, line('l2', 'The reservoir burst.', 'f2')),
    section('S3', 4000, line('l3', 'Ms Holm saw it.', 'f3')),
  ];
  const needs: FactNeeds = {
    'A:f2': [{ to: 'A:f1', adjacent: false, why: '“the reservoir” is introduced there' }],
    'A:f3': [{ to: 'A:f1', adjacent: false, why: 'Holm is introduced there', name: 'Holm' }],
  };

  it('moves a section, unless it would point at what is told later: then it says why', () => {
    const moved = movedTo(story, 'S3', 0, needs);
    expect('moved' in moved && moved.moved.map((s) => s.id)).to.deep.equal(['S3', 'S1', 'S2']);
    const refused = movedTo(story, 'S2', 0, needs);
    expect('refused' in refused && refused.refused).to.equal(
      '“S2” would come before “S1”, but “the reservoir” is introduced there.',
    );
    expect('refused' in movedTo(withLock(story, 'S3', true), 'S3', 0, needs)).to.equal(true);
    expect(brokenReferences(story, needs)).to.deep.equal([]);
  });
});

describe('a line carried to another section', () => {
  const place: Record<string, number> = { f1: 1, f2: 2, f3: 3, f4: 4, f5: 5 };
  const placeOf = (f: { fact?: string | undefined }) => place[f.fact ?? ''] ?? null;
  const three = () => [
    section('a', 9000, line('a1', 'One.', 'f1'), line('a2', 'Two.', 'f2'), { ...line('a3', 'Two, again.', 'f2'), restMs: 700 }),
    section('b', 9000, line('b0', 'And then?'), line('b1', 'Three.', 'f3'), { ...line('b2', 'Five.', 'f5'), restMs: 900 }),
  ]; // prettier-ignore
  const ids = (s: readonly PlainSection[]) => s.map((x) => x.lines.map((l) => l.id).join(' '));

  it('takes along what else tells of its fact, to where the source has it; each section keeps its rest', () => {
    const result = lineCarried(three(), 'a2', 'b', {}, placeOf);
    if ('refused' in result) return expect.fail(result.refused);
    expect(ids(result.moved)).to.deep.equal(['a1', 'b0 a2 a3 b1 b2']);
    expect(result.moved.map((s) => s.lines.map((l) => l.restMs))).to.deep.equal([[700], [0, 0, 0, 0, 900]]);
  });

  it('is refused where it would point at what is told later, leave nothing, or touch what is locked', () => {
    const needs: FactNeeds = { 'A:f5': [{ to: 'A:f3', adjacent: false, why: '“it” is named there' }] };
    const refused = (r: ReturnType<typeof lineCarried>) => ('refused' in r ? r.refused : '');
    expect(refused(lineCarried(three(), 'b2', 'a', needs, placeOf))).to.match(/said before “Three\.”/);
    expect(refused(lineCarried([section('a', 1, line('a1', 'One.', 'f1')), three()[1]], 'a1', 'b', {}, placeOf))).to.match(/tell nothing more/); // prettier-ignore
    expect(refused(lineCarried(withLock(three(), 'b', true), 'a2', 'b', {}, placeOf))).to.match(/locked/i);
    expect(refused(lineCarried(three(), 'a2', 'a', {}, placeOf))).to.match(/already/);
  });

  it('loses no line, whatever is carried where', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.constantFrom('f1', 'f2', 'f3', 'f4', 'f5', undefined), { minLength: 1, maxLength: 5 }), { minLength: 2, maxLength: 5 }),
        fc.nat(),
        fc.nat(),
        (facts, at, to) => {
          const sections = facts.map((list, i) => section(`s${i}`, 9000, ...list.map((f, k) => line(`s${i}l${k}`, `${f ?? 'so'}.`, f)))); // prettier-ignore
          const all = sections.flatMap((s) => s.lines.map((l) => l.id));
          const result = lineCarried(sections, all[at % all.length], `s${to % sections.length}`, {}, placeOf);
          if ('refused' in result) return;
          expect(result.moved.flatMap((s) => s.lines.map((l) => l.id)).sort()).to.deep.equal([...all].sort());
          expect(result.moved.every((s) => s.lines.length > 0)).to.equal(true);
        },
      ),
    );
  }); // prettier-ignore
});

describe('open loops', () => {
  const at = (...texts: string[]) =>
    loopsOf([
      section('S1', 0, line('a', 'The bridge was shut.', 'f1')),
      section('S2', 0, ...texts.map((t, i) => line(`t${i}`, t, `g${i}`))),
    ]);

  it('run from a question to the line that answers it', () => {
    expect(at('Why was the bridge shut?', 'It swayed.').map(({ from, to }) => [from, to])).to.deep.equal([
      ['t0', 't1'],
    ]);
  });

  it('run from a belief to the line that shows it wrong', () => {
    const loops = at(
      'The builder believed the stairs could not deliver a large crowd.',
      'The town paid.',
      'The stairs had been made wider, and delivered a crowd twice as large: the builder was wrong.',
    );
    expect(loops.map(({ from, to, kind }) => [from, to, kind])).to.deep.equal([['t0', 't2', 'belief']]);
  });

  it('dangle when a question ends the script', () => {
    expect(at('It swayed.', 'Who will pay for it?').map(({ to }) => to)).to.deep.equal([null]);
  });

  it('draw nothing for plain telling', () => {
    expect(at('It is long.', 'It is made of wood.')).to.deep.equal([]);
  });
});
