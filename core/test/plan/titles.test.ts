/** Titles in the kinds that people use: what each is made from, and what must never come of it. */
import { expect } from 'chai';
import { extractFacts } from '../../src/facts/index.ts';
import { titlesOf, type Material } from '../../src/plan/index.ts';
import { headlineOf, asFirstNamed, kindOfThing, topicNoun } from '../../src/plan/topic.ts';
import { readSource, type SourceKind } from '../../src/source/index.ts';
import { tagger } from '../tools.ts';

const page = (title: string, kind: SourceKind, ...body: string[]) =>
  readSource([title, ...body].join('\n\n'), { kind });
const titlesFrom = async (...of: Parameters<typeof page>) => {
  const source = await page(...of);
  const material: Material[] = [{ letter: 'A', source, facts: extractFacts(source, tagger) }];
  return titlesOf(material, tagger);
};

const GATE = [
  'A lock gate that had lain in the canal since 1926 was found by two divers on Friday. The gate is of oak and weighs 3 tonnes.',
  'Ann Pell heard a bell under the water. She called the harbour office within the hour. “Nobody believed me at first,” she said.',
  'The lock was closed because a gate had cracked in the frost.',
];

describe('a headline', () => {
  const read = async (title: string, ...body: string[]) =>
    headlineOf(await page(title, 'news', ...body), tagger);

  it('is read as a sentence in the past, with the article that the text puts', async () => {
    const gate = (await read('Lost gate turns up in canal, 99 years late', ...GATE))!;
    expect(`${asFirstNamed(gate)} ${gate.verb} ${gate.rest}`).to.equal('a lost gate turned up in canal');
  });

  it('is none without a verb, in the first person, as a question, or with a participle alone', async () => {
    for (const title of [
      'The gate of Sluice',
      'I found a gate',
      'Can divers lift the gate?',
      'Lock hit by frost',
    ])
      expect(await read(title, ...GATE), title).to.equal(null);
  });

  it('names its topic as a noun phrase, an entry by its own name', async () => {
    expect(topicNoun(await page('Lost gate turns up in canal', 'news', ...GATE), tagger)).to.equal(
      'the lost gate',
    );
    const entry = await page(
      'Boat lift',
      'encyclopedia',
      'The boat lift is a canal lift in the city of Sluice.',
    );
    expect(topicNoun(entry, tagger)).to.equal('the boat lift');
    const named = await readSource('# Orrin gate\n\nThe Orrin gate is a flood gate at the mouth of the Wend. It has been shut twice.', { kind: 'encyclopedia' }); // prettier-ignore
    expect(topicNoun(named, tagger)).to.equal('the Orrin gate');
    expect(kindOfThing(entry, ['The boat lift is a canal lift in the city of Sluice.'])).to.equal(
      'canal lift',
    );
  });
});

describe('titles', () => {
  it('are of several kinds: how, why, a person and what they did, somebody’s words', async () => {
    const texts = (await titlesFrom('Lost gate turns up in canal, 99 years late', 'news', ...GATE)).map(
      (t) => t.text,
    );
    expect(texts).to.include('How a lost gate turned up in canal');
    expect(texts).to.include('Ann Pell heard a bell under the water');
    expect(texts).to.include('“Nobody believed me at first”');
    expect(texts.some((t) => /^Why (?:the lock was closed|was the lock closed)/.test(t))).to.equal(true);
  });

  it('say nothing that the source only supposes, and break off nowhere', async () => {
    const titles = await titlesFrom(
      'Council argues about the gate',
      'news',
      ...GATE,
      'If Ann Pell were younger she would dive for it herself, the council said.',
      'The frame may be mended by the winter. Four men carried the beam to the shed and to the.',
    );
    for (const { text } of titles) {
      expect(text).to.not.match(/Ann Pell were|is mended/);
      expect(text).to.not.match(/\b(?:the|a|an|of|to|and|or|in)\??$/i);
    }
  });

  it('take no place for a person', async () => {
    const titles = await titlesFrom(
      'Gate found',
      'news',
      'Nether Sluice lost its gate in 1926. Nether Sluice is a village of 300 people on the canal.',
      ...GATE,
    );
    expect(titles.filter((t) => /person/.test(t.reasons[0])).map((t) => t.text)).to.not.include.members([
      'Nether Sluice lost its gate',
    ]);
  });

  it('are never two alike', async () => {
    const texts = (await titlesFrom('Lost gate turns up in canal, 99 years late', 'news', ...GATE)).map(
      (t) => t.text,
    );
    const words = texts.map((t) => new Set(t.toLowerCase().split(/\W+/)));
    words.forEach((a, i) =>
      words.slice(i + 1).forEach((b, k) => {
        const shared = [...a].filter((w) => b.has(w)).length;
        expect(shared / new Set([...a, ...b]).size, `${texts[i]} / ${texts[i + 1 + k]}`).to.be.lessThan(0.75);
      }),
    );
  });
});
