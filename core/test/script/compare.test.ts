/** Two states of a script, and two texts, side by side: nothing is left out, nothing is counted twice. */
import { expect } from 'chai';
import fc from 'fast-check';
import { compareScripts, compareWords, keptPlaces, type PlainSection } from '../../src/script/index.ts';
import { line, section } from './build.ts';

const timing = (sections: readonly PlainSection[]) =>
  sections.flatMap((s) => s.lines.map((l) => ({ ms: l.text.length * 100, words: l.text.split(' ').length })));
const TEXTS = ['It rained.', 'Nobody came.', 'The gate was shut.', ''];
/** Few ids and few texts, so that lines meet again under other names, in other places, and twice. */
const state = fc
  .uniqueArray(fc.constantFrom('S1', 'S2', 'S3'), { minLength: 1 })
  .chain((ids) =>
    fc.tuple(
      fc.constant(ids),
      fc.uniqueArray(fc.integer({ min: 1, max: 8 }), { minLength: ids.length, maxLength: 8 }),
      fc.array(fc.constantFrom(...TEXTS), { minLength: 8, maxLength: 8 }),
    ),
  )
  .map(([ids, lines, texts]) =>
    ids.map((id, i) =>
      section(
        id,
        lines.filter((_, at) => at % ids.length === i).map((n) => line(`L${n}`, texts[n - 1])),
      ),
    ),
  );
const linesOf = (sections: readonly PlainSection[]) => sections.flatMap((s) => s.lines);

describe('two states of a script', () => {
  it('that are one are the same in every line', () => {
    fc.assert(
      fc.property(state, (one) => {
        const { changed, sections, beforeMs, afterMs } = compareScripts(one, one, timing);
        expect([changed, afterMs - beforeMs]).to.deep.equal([0, 0]);
        expect(sections.map((s) => s.change)).to.deep.equal(one.map(() => 'same'));
      }),
    );
  });

  it('have every line of the later one in its order, and every line of the earlier one once', () => {
    fc.assert(
      fc.property(state, state, (before, after) => {
        const { sections } = compareScripts(before, after, timing);
        const lines = sections.flatMap((s) => s.lines);
        expect(lines.filter((l) => l.change !== 'gone').map((l) => l.after)).to.deep.equal(linesOf(after).map((l) => l.text)); // prettier-ignore
        expect(lines.filter((l) => l.change !== 'added').map((l) => l.before).sort()).to.deep.equal(linesOf(before).map((l) => l.text).sort()); // prettier-ignore
        for (const l of lines) {
          if (l.change === 'same' || l.change === 'moved') expect(l.before).to.equal(l.after);
          if (l.change === 'changed') expect(l.before).to.not.equal(l.after);
          if (l.change === 'gone') expect([l.after, l.afterMs]).to.deep.equal([null, 0]);
          if (l.change === 'added') expect([l.before, l.beforeMs]).to.deep.equal([null, 0]);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('add up: seconds of the sections are those of the whole', () => {
    fc.assert(
      fc.property(state, state, (before, after) => {
        const c = compareScripts(before, after, timing);
        const sum = (of: (s: (typeof c.sections)[number]) => number) =>
          c.sections.reduce((n, s) => n + of(s), 0);
        expect([sum((s) => s.beforeMs), sum((s) => s.afterMs)]).to.deep.equal([c.beforeMs, c.afterMs]);
        expect(c.changed).to.equal(
          c.sections.flatMap((s) => s.lines).filter((l) => l.change !== 'same').length,
        );
      }),
    );
  });

  it('know a line by its words when it has another name, but one line by one only', () => {
    const before = [section('S1', [line('L1', 'It rained.')])];
    const after = [section('S1', [line('L7', 'It rained.'), line('L8', 'It rained.')])];
    const [{ lines }] = compareScripts(before, after, timing).sections;
    expect(lines.map((l) => l.change)).to.deep.equal(['same', 'added']);
  });

  it('call moved only what left its place, not everything behind it', () => {
    const lines = ['L1', 'L2', 'L3', 'L4'].map((id) => line(id, `Line ${id}.`));
    const c = compareScripts(
      [section('S1', lines)],
      [section('S1', [lines[3], ...lines.slice(0, 3)])],
      timing,
    );
    expect(c.sections[0].lines.map((l) => l.change)).to.deep.equal(['moved', 'same', 'same', 'same']);
  });
});

describe('the longest run that kept its order', () => {
  it('rises, and no longer one does (checked against all, Schensted 1961)', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 30 }), { maxLength: 9 }), (places) => {
        const kept = keptPlaces(places);
        const run = places.filter((p) => kept.has(p));
        expect(run).to.deep.equal([...run].sort((a, b) => a - b));
        let longest = 0;
        for (let mask = 0; mask < 1 << places.length; mask++) {
          const some = places.filter((_, i) => mask & (1 << i));
          if (some.every((p, i) => i === 0 || p > some[i - 1])) longest = Math.max(longest, some.length);
        }
        expect(run.length).to.equal(longest);
      }),
      { numRuns: 60 },
    );
  });
});

describe('two texts word by word', () => {
  const words = fc.array(fc.constantFrom('the', 'gate', 'was', 'shut', 'open'), { maxLength: 12 }).map((w) => w.join(' ')); // prettier-ignore
  const plain = (text: string) => text.trim().split(/\s+/).filter(Boolean);

  it('give both back: without what was added the first, without what is gone the second', () => {
    fc.assert(
      fc.property(words, words, (before, after) => {
        const changes = compareWords(before, after);
        const without = (change: string) => plain(changes.filter((c) => c.change !== change).map((c) => c.text).join(' ')); // prettier-ignore
        expect(without('added')).to.deep.equal(plain(before));
        expect(without('gone')).to.deep.equal(plain(after));
      }),
    );
  });

  it('keep as many words as can be kept (the longest common subsequence, Hunt and McIlroy 1976)', () => {
    const longest = (a: string[], b: string[]): number =>
      !a.length || !b.length
        ? 0
        : a[0] === b[0]
          ? 1 + longest(a.slice(1), b.slice(1))
          : Math.max(longest(a.slice(1), b), longest(a, b.slice(1)));
    const short = words.filter((w) => plain(w).length <= 7);
    fc.assert(
      fc.property(short, short, (before, after) => {
        const same = compareWords(before, after)
          .filter((c) => c.change === 'same')
          .map((c) => c.text);
        expect(plain(same.join(' ')).length).to.equal(longest(plain(before), plain(after)));
      }),
    );
  });
});
