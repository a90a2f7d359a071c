/** Sources beside one another: what is told alike stands once, whoever tells it. */
import { expect } from 'chai';
import fc from 'fast-check';
import { compareSources, extractFacts, saidAgain } from '../../src/facts/index.ts';
import { readSource } from '../../src/source/index.ts';
import { tagger } from '../tools.ts';

/** One report in several wordings, and sentences about other things. */
const SENTENCES = [
  'The old weir at Sluice gave way on Saturday night after days of heavy rain.',
  'On Saturday night the old weir at Sluice gave way after heavy rain.',
  'After days of rain the old weir at Sluice gave way on Saturday night.',
  'Forty boats lie on the mud of the empty harbour.',
  'In the empty harbour forty boats lie on the mud.',
  'The keeper of the lighthouse counted every ship that passed the point.',
  'A dam of sandbags will be tried by soldiers from the barracks at Kestrel.',
];
const LETTERS = ['A', 'B', 'C'];
const facts = await Promise.all(
  SENTENCES.map(async (text) => {
    const document = await readSource(`The river\n\n${text} Nothing else is known.`, { kind: 'news' });
    return { document, fact: extractFacts(document, tagger).find((f) => f.text === text)! };
  }),
);
const source = (letter: string, which: readonly number[]) => ({
  letter,
  document: facts[0].document,
  facts: which.map((n) => ({ ...facts[n].fact, id: `f${n}` })),
});
const told = fc
  .array(fc.uniqueArray(fc.nat(SENTENCES.length - 1), { minLength: 1 }), { minLength: 2, maxLength: 3 })
  .map((lists) => lists.map((which, i) => source(LETTERS[i], which)));

describe('sources beside one another', () => {
  it('have each fact in one place only: a group of what is told alike, of two sources or more', () => {
    fc.assert(
      fc.property(told, (sources) => {
        const { same } = compareSources(sources);
        const names = same.flatMap((g) => g.origins.map((o) => `${o.source} ${o.fact}`));
        expect(names).to.have.length(new Set(names).size);
        for (const { origins } of same) expect(new Set(origins.map((o) => o.source)).size).to.be.at.least(2);
      }),
      { numRuns: 300 },
    );
  });

  it('find the same sentence in another source whatever stands around it, and nothing in one alone', () => {
    fc.assert(
      fc.property(fc.nat(SENTENCES.length - 1), (n) => {
        const [found] = compareSources([source('A', [5, n]), source('B', [6, n])]).same.filter((g) => g.origins.some((o) => o.fact === `f${n}`)); // prettier-ignore
        expect(found.origins.map((o) => o.source)).to.include.members(['A', 'B']);
        expect(compareSources([source('A', [n])]).same).to.deep.equal([]);
      }),
    );
  });

  it('tell three wordings of one report as one statement with three origins', () => {
    const { same } = compareSources([source('A', [0]), source('B', [1]), source('C', [2])]);
    expect(same.map((g) => g.origins.map((o) => o.source))).to.deep.equal([['A', 'B', 'C']]);
  });
});

describe('what one source says again', () => {
  const again = async (text: string) => {
    const facts = extractFacts(await readSource(text, { kind: 'news' }), tagger);
    const ids = saidAgain(facts);
    return facts.filter((f) => ids.has(f.id)).map((f) => f.text);
  };

  it('is the later of two sentences in nearly the same words, or with the same counts of the same things', async () => {
    expect(
      await again(`${SENTENCES[0]}\n\n${SENTENCES[3]}\n\n${SENTENCES[1]}\n\n${SENTENCES[5]}`),
    ).to.deep.equal([SENTENCES[1]]);
    expect(
      await again(
        'Water stood in 126 homes and 31 businesses by noon.\n\nThe mayor came at two.\n\nThe council counts 126 homes and 31 businesses so far.',
      ),
    ).to.deep.equal(['The council counts 126 homes and 31 businesses so far.']);
  });

  it('is nothing where a figure differs, or one denies what the other says', async () => {
    const lead = 'Forty boats lie on the mud of the empty harbour tonight.';
    expect(await again(`${lead}\n\nFifty boats lie on the mud of the empty harbour tonight.`)).to.deep.equal(
      [],
    );
    expect(await again(`${lead}\n\nNo boats lie on the mud of the empty harbour tonight.`)).to.deep.equal([]);
  });
});
