/** Ways in which a told line goes wrong, each a class met in trials; every one is kept out. Sentences are invented. */
import { expect } from 'chai';
import { references } from '../../src/facts/references.ts';
import { makeUnits } from '../../src/draft/units.ts';
import { makeTeller, tellSentence } from '../../src/draft/tell/tell.ts';
import { taggedFacts } from '../../src/facts/index.ts';
import { readSource } from '../../src/source/index.ts';
import { draftScript } from '../../src/draft/index.ts';
import { clock, solver, tagger } from '../tools.ts';

const facts = async (text: string) => taggedFacts(await readSource(text), tagger);
/** What is said for each sentence, told on its own. */
const told = async (text: string, words: 'own' | 'plain' = 'plain') => {
  const source = await readSource(text);
  return taggedFacts(source, tagger).map((t) =>
    tellSentence(t.fact.text, t.tokens, makeTeller(source, tagger, { words })),
  );
};
/** Whether the last sentence is told only straight after the one before it. */
const leans = async (text: string) => {
  const all = references(await facts(text), new Set());
  return all[all.length - 1].some((n) => n.adjacent && n.to === all.length - 2);
};
const names = async (text: string) => (await facts(text)).flatMap((t) => t.fact.names.map((n) => n.text));

describe('a whole draft', () => {
  it('tells no line twice, though a report says it over its text and in it', async () => {
    const source = await readSource(`The firm

Revenue grew 19 percent from the year-ago quarter to 14 million pounds, and the owners of the firm banked 3 million pounds in profit.

The keepers of the firm had hoped for more, and said so in a letter to the owners of it.

Revenue grew 19 percent from the year-ago quarter to 14 million pounds. The price of a share fell by four pounds on Friday.

Nobody had seen it coming, the owners said, and they asked the keepers to wait until spring.`, { kind: 'news' }); // prettier-ignore
    const tools = { tagger, clock, solver: await solver() };
    for (const seed of [1, 2, 3]) {
      const { sections } = draftScript(source, { target: { kind: 'point', seconds: 24 }, mood: 'calm', seed }, tools); // prettier-ignore
      const lines = sections.flatMap((s) => s.lines.map((l) => l.text));
      expect(lines.join('\n')).to.match(/banked/);
      expect(lines.filter((l) => l.startsWith('Revenue grew')).length).to.equal(1);
    }
  });
});

describe('a told line', () => {
  it('never points at nobody: an object pronoun brings the line that names its person or thing', async () => {
    expect(await leans('The ferryman kept a lamp by the river. The council thanked him in May.')).to.equal(
      true,
    );
    expect(await leans('The lift opened in spring. The wedges held it.')).to.equal(true);
    expect(await leans('The council met the owners in June. They refused to pay.')).to.equal(true);
  });

  it('does not take the speaker of a story for a thing', async () => {
    expect(await leans('She asked about the case. I took it down.')).to.equal(true);
  });

  it('tells “the decision” only after what was decided', async () => {
    expect(await leans('The town was poor. The decision was made in 1901.')).to.equal(true);
    expect(await leans('The town was poor. The decision to build a lock was made in 1901.')).to.equal(false);
  });

  it('ties nobody and not everyone to those they are counted among', async () => {
    for (const last of [
      'Nobody was hurt.',
      'Not everyone agreed.',
      'Everyone stopped talking.',
      'No one saw it.',
    ])
      expect(await leans(`Forty people stood on the bridge. ${last}`), last).to.equal(true);
  });

  it('does not end on what leans back: “That is why it still runs.”', async () => {
    expect(await leans('The wedges held the wheel. That is why it still runs.')).to.equal(true);
  });

  it('takes a month for a person only with a surname behind it and no date word before', async () => {
    expect(await names('May Corrin ran the mill. In May the mill burned.')).to.deep.equal(['May Corrin']);
    expect(await names('The mill burned in May. April rain had not helped.')).to.deep.equal([]);
  });

  it('leaves a relative clause with its noun, inside a prepositional phrase too', async () => {
    for (const text of [
      'The mill beside the long bridge, which was built by two brothers in the year 1820, burned down in a single night.',
      'Boats with iron hulls, which were new and rather slow at the time, passed the lock every day of that summer.',
    ])
      expect(await told(text)).to.deep.equal([[text]]);
  });

  it('takes no participle for a verb of its own', async () => {
    const text =
      'The cables, made in the harbour by a firm of ropemakers, and carried up the hill on carts drawn by six oxen.';
    expect((await told(text))[0]).to.have.length(1);
  });

  it('cuts no list at its last comma', async () => {
    const text =
      'The shop sold clocks, watches, old brass keys, and barometers that nobody wanted to buy in those hard and hungry years.';
    expect(await told(text)).to.deep.equal([[text]]);
  });

  it('keeps both halves of what somebody said inside the saying', async () => {
    const text =
      'He said the gate was shut, and the boat was still waiting there in the cold of the morning with nobody on it.';
    expect(await told(text)).to.deep.equal([[text]]);
  });

  it('contracts nothing that ends a sentence or stands in a quotation', async () => {
    expect(
      await told('It could carry a boat that the old flight could not. He wrote “it is not so” on the wall.'),
    ).to.deep.equal([
      ['It could carry a boat that the old flight could not.'],
      ['He wrote “it is not so” on the wall.'],
    ]);
  });

  it('keeps every “may”, “about” and “probably”, and every denial', async () => {
    const all = (
      await told(
        'The keeper may have closed the gate. It was probably rust. About forty boats came. There was no flood in 1907.',
      )
    )
      .flat()
      .join(' ');
    for (const word of ['may', 'probably', 'About', 'no flood']) expect(all).to.include(word);
  });

  it('drops conversions and statistics in brackets, never a value outside them', async () => {
    expect(await told('The trough is 24 m (79 ft) long and holds 310 t.')).to.deep.equal([
      ['The trough is 24 metres long and holds 310 tonnes.'],
    ]);
  });

  it('tells a quotation of several sentences whole and in order', async () => {
    const quote =
      '“It swayed,” said Oona Barrick, a nurse. “Then it stopped. Then it swayed again.” The bridge was shut.';
    const needs = references(await facts(quote), new Set());
    expect(needs[2].some((n) => n.to === 1 && n.adjacent)).to.equal(true);
  });

  it('keeps a quotation in straight marks together, and asks nothing whose question was before', async () => {
    expect(await leans('"I said to my son, that is it running dry. It had coughed all night," she said.')).to.equal(true); // prettier-ignore
    expect(await leans('Nobody round here has lost a swarm. Has anybody?')).to.equal(true);
  });

  it('changes no word where another one holds it: “due to”, “numerous”, a sum before a comma', async () => {
    expect((await told('The island is not due to be declared clear until 2026.', 'own')).flat().join(' ')).to.include('due to be'); // prettier-ignore
    expect((await told('Insects are at their most numerous at dusk in the meadow.', 'own')).flat().join(' ')).to.include('most numerous'); // prettier-ignore
    expect((await told('The box moves at a cost of £380, which the county is paying.', 'own')).flat().join(' ')).to.include('380 pounds'); // prettier-ignore
    expect((await told('Then the bucket rang.', 'own')).flat()).to.deep.equal(['Then the bucket rang.']);
  });

  it('opens no bracket that another sentence closes', async () => {
    const source = await readSource('The box was set up. (“It was the bus.” He laughed.) It ran warm.');
    for (const t of taggedFacts(source, tagger))
      expect(tellSentence(t.fact.text, t.tokens, makeTeller(source, tagger)).join(' ')).to.not.match(/[()]/);
  });

  it('leaves steps of a guide as long as they are: what only adds may be how it is done', async () => {
    const step =
      'Lift the lower sash, which must be held from below by somebody with two free hands, out of the frame and lean it against the wall behind you.';
    const lines = async (kind: 'howto' | 'forum') => {
      const source = await readSource(`# The window\n\n${step}`, { kind });
      return tellSentence(step, tagger(step), makeTeller(source, tagger));
    };
    expect(await lines('howto')).to.deep.equal([step]);
  });
});

describe('units', () => {
  const units = async (text: string) => makeUnits(await readSource(text), await facts(text), tagger, clock);
  const texts = async (text: string) => (await units(text)).map((u) => u.sentence.fact.text);

  it('hold nothing that points at a list which is not told, nor what announces one', async () => {
    const rules =
      '# The carry\n\nThe stone is heavy. There are three rules on the wall:\n\n- no gloves\n- no help\n- no dogs\n\nThe last of these is new. The winner gets a cheese.\n';
    expect(await texts(rules)).to.deep.equal(['The stone is heavy.', 'The winner gets a cheese.']);
  });

  it('wait for what they only announce', async () => {
    const list = await units(
      'The lamps were lit. One morning stands out. On 3 May a power cut darkened the town. Buses have been the difficulty. Drivers keep railway time.',
    );
    expect(list.map((u) => u.needsNext)).to.deep.equal([false, true, false, true, false]);
  });

  it('hold no heading set as a sentence, and tell what is named one by one to the last', async () => {
    const list = await units(
      'Three cautions. One summer is short. People had ideas. The chalk. The slope. The old lamps were gone.',
    );
    expect(list.map((u) => [u.sentence.fact.text, u.needsNext])).to.deep.equal([
      ['One summer is short.', false],
      ['People had ideas.', false],
      ['The chalk.', true],
      ['The slope.', false],
      ['The old lamps were gone.', false],
    ]);
  });

  it('keep a quotation together up to the words that say whose it is', async () => {
    const list = await units('“It is old. It still goes,” Ann Ware said. “It was never oiled.” She laughed.');
    expect(list.map((u) => u.needsNext)).to.deep.equal([true, false, false, false]);
    const first = await units('Ann Ware said: “It is old. It still goes.” She laughed.');
    expect(first[0].needsNext).to.equal(false);
    const straight = await units('Ann Ware said: "It is old. It still goes." She laughed.');
    expect(straight.slice(0, 2).flatMap((u) => u.lines)).to.deep.equal([
      'Ann Ware said: "It is old."',
      '"It still goes."',
    ]);
  });

  it('are parts of a quotation in marks of their own, worth less the longer it runs', async () => {
    const list = await units(
      'Odile Brandt said: “Nobody looked up. The swifts had been there for years. We all took them for sparrows.” She sat down.',
    );
    expect(list.slice(0, 3).flatMap((u) => u.lines)).to.deep.equal([
      'Odile Brandt said: “Nobody looked up.”',
      '“The swifts had been there for years.”',
      '“We all took them for sparrows.”',
    ]);
    expect(list.slice(0, 3).every((u) => !u.needsNext)).to.equal(true);
  });
});
