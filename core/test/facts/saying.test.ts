import { expect } from 'chai';
import * as chrono from 'chrono-node';
import {
  castOf,
  compareSources,
  extractFacts,
  glossaryOf,
  outlineOf,
  relativeDates,
  thinIn,
  timesIn,
  type Fact,
} from '../../src/facts/index.ts';
import { byPlace } from '../places.ts';
import { readSource, type SourceDocument, type SourceKind } from '../../src/source/index.ts';
import { CONTENTS } from '../source/pages/contents.ts';
import { HELD_OUT } from '../source/pages/heldout.ts';
import { demoFile, tagger } from '../tools.ts';

const read = async (text: string, kind?: SourceKind, meta: Partial<SourceDocument> = {}) => {
  const document = { ...(await readSource(text, kind ? { kind } : {})), ...meta };
  return { document, facts: byPlace(extractFacts(document, tagger)) };
};
const one = async (
  text: string,
  kind: SourceKind = 'news',
  meta: Partial<SourceDocument> = {},
): Promise<Fact> => (await read(`${text} The town went on.`, kind, meta)).facts[0];

describe('who says so', () => {
  const SAID: readonly (readonly [string, string | undefined])[] = [
    ['“It sounded like hail,” said Josef Klee.', 'Josef Klee'],
    ['“It sounded like hail,” the baker said.', 'the baker'],
    ['Dr Ines Okafor, who teaches engineering, said: “The crowd feeds it.”', 'Dr Ines Okafor'],
    ['According to the Wharf Trust, the walls are safe.', 'the Wharf Trust'],
    ['The damage is put at £1.2 million, according to its owner.', 'its owner'],
    ['The steel is sound, the council said.', 'the council'],
    ['The report found that the stairs were wide.', 'The report'],
    ['Police think that three people were needed.', 'Police'],
    ['Her account matches what the instruments recorded.', undefined],
    ['The city council had asked for a test.', undefined],
    ['The gate opened at dawn.', undefined],
  ];
  for (const [text, who] of SAID)
    it(`${who ?? 'nobody'}: ${text}`, async () => expect((await one(text)).attribution?.text).to.equal(who));
});

describe('how sure, and whether it denies', () => {
  const SURE: readonly (readonly [string, string, string])[] = [
    ['The heater may have been left on.', 'possible', 'affirmed'],
    ['In May 1889 the lift opened.', 'plain', 'affirmed'],
    ['We counted guests from May to August.', 'plain', 'affirmed'],
    ['The cause is not yet known.', 'possible', 'denied'],
    ['It was probably rust.', 'likely', 'affirmed'],
    ['Nobody was hurt.', 'plain', 'denied'],
    ['It was not only old but rotten.', 'plain', 'affirmed'],
    ['The bridge held no more than forty people.', 'plain', 'affirmed'],
    ['She said: “I may never know.”', 'plain', 'affirmed'],
    ['The letter could not be found.', 'possible', 'denied'],
    ['Soldiers should break step.', 'ought', 'affirmed'],
  ];
  for (const [text, modality, polarity] of SURE)
    it(`${modality}, ${polarity}: ${text}`, async () =>
      expect([(await one(text)).modality, (await one(text)).polarity]).to.deep.equal([modality, polarity]));
});

describe('subject, verb and rest', () => {
  const STATED: readonly (readonly [string, string, string])[] = [
    ['The harbour office closed both stairs four minutes later.', 'The harbour office', 'closed'],
    ['Within ninety seconds the deck was moving from side to side.', 'the deck', 'was moving'],
    ['Tam Rudkin, who keeps the lock beneath it, noticed the handrail.', 'Tam Rudkin', 'noticed'],
    ['In 1884 the company advertised for designs.', 'the company', 'advertised'],
    ['The wedges had not been touched since the repair.', 'The wedges', 'had not been touched'],
  ];
  for (const [text, subject, verb] of STATED)
    it(text, async () => {
      const { statement, text: whole } = await one(text);
      expect([statement?.subject.text, statement?.verb.text]).to.deep.equal([subject, verb]);
      expect(whole.slice(statement!.subject.start, statement!.subject.end)).to.equal(subject);
    });
  it('is none for an order or a question', async () => {
    expect((await one('Rub the runners with the candle.', 'howto')).statement).to.equal(undefined);
    expect(
      (await one('Brush the inside with vinegar and leave it for a while.', 'howto')).statement,
    ).to.equal(undefined);
    expect((await one('Who paid for it?')).statement).to.equal(undefined);
  });
});

describe('days told from the day of the report', () => {
  // A Sunday.
  const DAY = '2025-11-09';
  const chronoDay = (text: string) =>
    chrono.en
      .parse(text, new Date(`${DAY}T12:00:00`), { forwardDate: false })[0]
      ?.date()
      .toLocaleDateString('sv-SE');
  for (const text of [
    'It fell on Thursday.',
    'It fell yesterday.',
    'It fell last night.',
    'It falls today.',
    'It fell three days ago.',
    'It will fall tomorrow.',
  ])
    it(`agree with chrono-node: ${text}`, () => {
      const [found] = relativeDates(text, DAY);
      // "Last night" is the evening of the day before; chrono takes it as the early hours of the day itself or the evening before.
      if (!text.includes('night')) expect(found.iso).to.equal(chronoDay(text));
      else expect(found.iso).to.equal('2025-11-08');
      expect(found.resolved).to.equal(true);
    });
  it('a weekday that will be is the next one', () => {
    expect(relativeDates('The council will meet on Tuesday.', DAY)[0].iso).to.equal('2025-11-11');
    expect(relativeDates('It met on Tuesday.', DAY)[0].iso).to.equal('2025-11-04');
  });
  it('are as exact as they are said, and none without a day to tell from', () => {
    expect(relativeDates('It opened last month, four weeks ago.', DAY).map((d) => d.iso)).to.deep.equal([
      '2025-10',
      '2025-10',
    ]);
    expect(relativeDates('It was sold last year.', DAY)[0].iso).to.equal('2024');
    expect(relativeDates('It fell on Thursday.', undefined)).to.deep.equal([]);
    expect(relativeDates('It fell on Thursday.', '2025')).to.deep.equal([]);
  });
  it('times of day are read, scores and decimals are not', () => {
    expect(
      timesIn('At 2:40 am and 20:15, at noon, by 7 pm; it took 3.5 hours and ended 4.30 metres up.').map(
        (t) => t.iso,
      ),
    ).to.deep.equal(['02:40', '20:15', '12:00', '19:00']);
  });
});

const all = await Promise.all(
  [...CONTENTS, ...HELD_OUT].map(async (content) => ({
    content,
    ...(await read(
      content.body.map((l) => l.replace(/^## /, '').replace(/^\| /, '')).join('\n\n'),
      content.kind,
      content.published ? { published: content.published } : {},
    )),
  })),
);

describe('values of the labelled articles', () => {
  const share = (wanted: readonly (readonly [string, boolean])[]) => {
    const missed = wanted.filter(([, found]) => !found).map(([what]) => what);
    return { share: 1 - missed.length / wanted.length, missed, of: wanted.length };
  };
  it('97 % of numbers, dates and names are found, with their values', () => {
    const {
      share: found,
      missed,
      of,
    } = share(
      all.flatMap(({ content, facts }) => [
        ...content.numbers.map(
          (n) => [`${content.id} ${n}`, facts.some((f) => f.numbers.some((x) => x.value === n))] as const,
        ),
        ...content.dates.map(
          (d) => [`${content.id} ${d}`, facts.some((f) => f.dates.some((x) => x.iso === d))] as const,
        ),
        ...content.names.map(
          (n) => [`${content.id} ${n}`, facts.some((f) => f.names.some((x) => x.text.includes(n)))] as const,
        ),
      ]),
    );
    expect(of).to.be.greaterThan(75);
    expect(found, missed.join('; ')).to.be.at.least(0.97);
  });
});

describe('what a source holds, by kind', () => {
  const parts = async (text: string, kind: SourceKind) => {
    const { document, facts } = await read(text, kind);
    return Object.fromEntries(
      outlineOf(document, facts).map((p) => [
        p.id,
        p.facts.map((id) => facts.find((f) => f.id === id)!.text),
      ]),
    );
  };
  it('tells the parts of an unlabelled abstract by their cues', async () => {
    const found = await parts(CONTENTS.find((c) => c.id === 'moss')!.body.join('\n\n'), 'abstract');
    expect(found.aim).to.deep.equal(['We asked whether moss on walls holds it.']);
    expect(found.method?.[0]).to.match(/^We measured dust/);
    expect(found.results).to.have.length(3);
    expect(found.conclusion?.[0] ?? found.limits?.[0]).to.match(/^These results suggest/);
  });
  it('puts every sentence of the labelled abstracts into its part, of those kept away too', async () => {
    const PARTS: Readonly<Record<string, readonly string[]>> = {
      bells: ['background', 'method', 'method', 'results', 'results', 'conclusion', 'limits'],
      moss: ['background', 'aim', 'method', 'results', 'results', 'results', 'conclusion'],
      'lamp-oil': ['background', 'aim', 'method', 'results', 'results', 'conclusion', 'limits'],
    };
    let right = 0;
    let of = 0;
    const wrong: string[] = [];
    for (const content of [...CONTENTS, ...HELD_OUT].filter((c) => c.kind === 'abstract')) {
      const { document, facts } = await read(content.body.join('\n\n'), 'abstract');
      const outline = outlineOf(document, facts);
      facts.forEach((f, i) => {
        of++;
        const part = outline.find((p) => p.id === PARTS[content.id][i]);
        if (part?.facts.includes(f.id)) right++;
        else wrong.push(`${content.id}: ${f.text}`);
      });
    }
    expect(of).to.equal(21);
    expect(right / of, wrong.join('\n')).to.be.at.least(0.95);
  });
  it('tells steps, warnings, reasons and what can go wrong in a guide', async () => {
    const { document, facts } = {
      document: await readSource(demoFile('sash-window.md')),
      facts: extractFacts(await readSource(demoFile('sash-window.md')), tagger),
    };
    const found = Object.fromEntries(outlineOf(document, facts).map((p) => [p.id, p.facts.length]));
    expect(found.steps).to.be.at.least(8);
    for (const part of ['needs', 'warnings', 'why', 'pitfalls', 'quantities'])
      expect(found[part], part).to.be.at.least(1);
  });
  it('tells trouble, turns, outcome and what was said in a story', async () => {
    const found = await parts(CONTENTS.find((c) => c.id === 'spare-key')!.body.join('\n\n'), 'forum');
    expect(Object.keys(found)).to.include.members(['teller', 'situation', 'exchanges', 'outcome']);
  });
  it('says what is thin', async () => {
    expect(thinIn((await read('Bread is eaten. It is good. It keeps well.')).facts)).to.deep.equal([
      'no person',
      'no place',
      'no number',
      'no date',
      'nobody’s own words',
    ]);
  });
  it('finds what is said in turns somebody’s own words', async () => {
    const { document } = await read('Orla Marsh kept the gate. It was green. Nobody saw it.');
    const turns = { ...document, blocks: document.blocks.map((b) => ({ ...b, type: 'turn' as const })) };
    expect(thinIn(extractFacts(document, tagger))).to.include('nobody’s own words');
    expect(thinIn(extractFacts(turns, tagger))).to.not.include('nobody’s own words');
  });
});

describe('people, places and hard words', () => {
  it('joins the names of one person and keeps what is said of their looks and age', async () => {
    const { facts } = await read(
      '“Stop,” said Hanna Brody, 61, who runs the boathouse in Tarn. Mrs Brody wore a yellow coat that night. The fence at Tarn fell.',
    );
    const cast = castOf(facts);
    const hanna = cast.find((c) => c.name === 'Hanna Brody')!;
    expect([hanna.also, hanna.age, hanna.looks.map((l) => l.text)]).to.deep.equal([
      ['Mrs Brody'],
      61,
      ['wore a yellow coat that night'],
    ]);
    expect(cast.find((c) => c.name === 'Tarn')!.type).to.equal('place');
  });
  it('finds terms that the source explains itself', async () => {
    const { facts } = await read(
      'The mill had an orrery, a model of the planets moved by a crank, in its hall. Water runs over wedges (the blocks of oak below).',
    );
    expect(glossaryOf(facts).map((g) => [g.term, g.says.text])).to.deep.equal([
      ['orrery', 'a model of the planets moved by a crank'],
      ['wedges', 'the blocks of oak below'],
    ]);
  });
});

describe('several sources', () => {
  const source = async (letter: string, text: string, published: string) => ({
    letter,
    ...(await read(text, 'news', { published, publisher: `Paper ${letter}` })),
  });
  it('tell the same statement once, with both origins', async () => {
    const found = compareSources([
      await source('A', 'The old granary at Thorne Wharf burned down on Friday. Ducks swam.', '2025-03-14'),
      await source(
        'B',
        'On Friday the old granary at Thorne Wharf burned down. The sun shone.',
        '2025-03-15',
      ),
    ]);
    expect(found.same).to.deep.equal([
      {
        origins: [
          { source: 'A', fact: 'f1' },
          { source: 'B', fact: 'f1' },
        ],
      },
    ]);
    expect(found.disagreements).to.deep.equal([]);
  });
  it('are shown side by side where a figure differs, the newer one named', async () => {
    const [d] = compareSources([
      await source('A', 'About 140 tonnes of grain were lost in the granary fire.', '2025-03-14'),
      await source('B', 'About 190 tonnes of grain were lost in the granary fire.', '2025-03-16'),
    ]).disagreements;
    expect([d.about, d.sides.map((s) => s.says), d.newer]).to.deep.equal([
      'number',
      ['140 tonnes', '190 tonnes'],
      1,
    ]);
    expect(d.sides[1].publisher).to.equal('Paper B');
  });
  it('are shown where one denies what the other says, or names another day or person', async () => {
    const about = async (a: string, b: string) =>
      compareSources([await source('A', a, '2025-03-14'), await source('B', b, '2025-03-14')])
        .disagreements[0]?.about;
    expect(
      await about(
        'A heater was left on in the granary office.',
        'No heater was left on in the granary office.',
      ),
    ).to.equal('denial');
    expect(
      await about(
        'The granary was bought by the trust in 2019.',
        'The granary was bought by the trust in 2017.',
      ),
    ).to.equal('date');
    expect(
      await about(
        'The alarm was raised by Josef Klee from his bakery.',
        'The alarm was raised by Anna Voss from his bakery.',
      ),
    ).to.equal('name');
    expect(
      await about('The granary burned down in the night.', 'A ferry carries people in the night.'),
    ).to.equal(undefined);
  });
});
