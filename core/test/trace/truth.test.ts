/** What a line is held to, slot by slot: what contradicts the source stops it, what nothing says is marked, what is true passes. */
import { expect } from 'chai';
import { extractFacts } from '../../src/facts/index.ts';
import { readSource } from '../../src/source/index.ts';
import { makeRetoldChecker, type Level, type RetoldKind } from '../../src/trace/retold/index.ts';
import { kin } from '../commission/context.ts';
import { tagger } from '../tools.ts';

const PAGE = await readSource(
  `The clock of Hollin Gate

The clock on the gate at Hollin was made in 1811 by a smith, Ruth Pardew, for about 90 pounds. It weighs 410 kg and has two faces, and only the north face can be seen from the square.

In the spring of 1902 the clock stopped. Three of the nine weights had fallen through the floor. The mayor, Edmund Sorrel, blamed the smith's grandson. “It was never looked after,” he said. “Nobody climbed those stairs.”

In the smith's workshop a bell works in the same way, though it is far easier to lift. Certain nights in winter, the hands froze. On those nights the watchman, Piers, rang a handbell instead. His wife said the bell had been cracked since Michaelmas. “I liked it better,” she said.

Every time the wind turns east, the clock gains four minutes. The gate lies 3 metres lower than the church, and the tower is in no danger of falling. Two schools apparently set their lessons by it.

The council would sell the north face to a museum. The sale was announced after the flood. Nobody has wound the clock since June.`,
  { kind: 'news' },
);
const checker = makeRetoldChecker([{ letter: 'A', text: PAGE.text, facts: extractFacts(PAGE, tagger) }], {
  tagger,
  kin,
});
const found = (text: string): [RetoldKind, Level][] =>
  checker.check({ text, facts: [] }).map((f) => [f.kind, f.level]);

const CASES: readonly (readonly [what: string, kind: RetoldKind, level: Level, bad: string, good: string])[] = [
  ['a figure', 'value', 'wrong', 'The clock of Hollin weighs 90 kilograms.', 'The clock of Hollin weighs 410 kilograms.'],
  ['a unit', 'value', 'wrong', 'The clock on the gate weighs 410 pounds.', 'The clock on the gate weighs 410 kilograms.'],
  ['a month', 'value', 'wrong', 'Nobody has wound the clock since October.', 'Nobody has wound the clock since June.'],
  ['part for whole', 'whole', 'wrong', 'All nine weights had fallen through the floor.', 'Three of the nine weights had fallen through the floor.'],
  ['some for all of them', 'whole', 'wrong', 'Every night in winter, the hands froze.', 'On certain nights in winter, the hands froze.'],
  ['a record', 'whole', 'unsupported', 'It was the oldest clock ever made by a smith, for about 90 pounds.', 'A smith made the clock, for about 90 pounds.'],
  ['a thing made up', 'invented', 'unsupported', 'On those nights Piers the watchman rang a handbell and ate an apple.', 'On those nights Piers the watchman rang a handbell.'],
  ['who speaks', 'said', 'wrong', '“I liked it better,” said Piers.', '“I liked it better,” said his wife.'],
  ['another’s name', 'name', 'unsupported', 'Ruth Pardew rang a handbell instead on those nights.', 'Piers rang a handbell instead on those nights.'],
  ['a denial lost', 'denial', 'wrong', 'The tower is in danger of falling.', 'The tower is in no danger of falling.'],
  ['a hedge lost', 'hedge', 'unsupported', 'Two schools set their lessons by it.', 'Two schools apparently set their lessons by it.'],
  ['sureness added', 'hedge', 'unsupported', 'It gains exactly four minutes, every time the wind turns east.', 'It gains four minutes, every time the wind turns east.'],
  ['a proposal as settled', 'hedge', 'unsupported', 'The council will sell the north face to a museum.', 'The council would sell the north face to a museum.'],
  ['the order of events', 'order', 'wrong', 'The sale was announced before the flood.', 'The sale was announced after the flood.'],
  ['cause and effect', 'order', 'unsupported', 'Every time the clock gains four minutes, the wind turns east.', 'When the wind turns east, the clock gains four minutes.'],
  ['a reason', 'cause', 'unsupported', 'The clock stopped in the spring of 1902 because rats had eaten the rope.', 'In the spring of 1902 the clock stopped.'],
  ['a comparison', 'direction', 'wrong', 'The gate lies 3 metres above the church.', 'The gate lies 3 metres below the church.'],
  ['who does what to whom', 'direction', 'unsupported', 'The smith’s grandson blamed the mayor.', 'The mayor blamed the smith’s grandson.'],
]; // prettier-ignore

const LIMITED = await readSource(
  `Rope on the old ferry

The ferry at Stole carries cars on weekdays only. Its rope can be spliced by hand, except where salt has stiffened the core. The refund is paid to holders of a paper ticket only. Passengers may stand on the upper deck as long as the wind stays under force five.

Police counted 1,500 people on the quay in June. The organisers put it at 4,000.

The council says the new winch will cost 40,000 pounds, while the ferrymen say it was 18,000.`,
  { kind: 'news' },
);
const limited = makeRetoldChecker(
  [{ letter: 'A', text: LIMITED.text, facts: extractFacts(LIMITED, tagger) }],
  { tagger, kin },
);
/** What is said of a line that rests on the facts that hold these words. */
const said = (text: string, words: string, behind = '') =>
  limited
    .check({
      text,
      facts: extractFacts(LIMITED, tagger)
        .filter((f) => f.text.includes(words))
        .map((f) => ({ source: 'A', fact: f.id })),
      behind,
    })
    .map((f) => f.says);

describe('what the source limits', () => {
  it('is marked when it is told of all', () => {
    expect(said('The ferry at Stole carries cars.', 'carries cars')).to.deep.equal(['The source limits it: “on weekdays only”.']); // prettier-ignore
    expect(said('Its rope can be spliced by hand.', 'spliced')).to.deep.equal([]);
    expect(said('You splice its rope by hand.', 'spliced')).to.deep.equal(['The source limits it: “except where salt has stiffened the core”.']); // prettier-ignore
  });
  it('passes with the limit, in that line or the next, in other words too', () => {
    expect(said('The ferry at Stole carries cars on weekdays.', 'carries cars')).to.deep.equal([]);
    expect(said('The ferry at Stole carries cars.', 'carries cars', 'On weekdays, that is.')).to.deep.equal([]); // prettier-ignore
  });
});

describe('figures that two people give', () => {
  it('travel together', () => {
    expect(said('Police counted 1,500 people on the quay.', 'Police counted')).to.deep.equal(['The source also has “4,000”, on somebody else’s word: both are told.']); // prettier-ignore
    expect(said('Police counted 1,500 people on the quay.', 'Police counted', 'The organisers say 4,000.')).to.deep.equal([]); // prettier-ignore
    expect(said('The council says the winch will cost 40,000 pounds.', 'winch').join(' ')).to.contain('18,000'); // prettier-ignore
  });
});

describe('a line held against its source', () => {
  for (const [what, kind, level, bad, good] of CASES) {
    it(`${what}: “${bad}” is ${level === 'wrong' ? 'accused' : 'marked'}`, () =>
      expect(found(bad)).to.deep.include([kind, level]));
    it(`${what}: “${good}” passes`, () => expect(found(good)).to.deep.equal([]));
  }

  it('names the sentence of the source that it was held against', () => {
    const [fault] = checker.check({ text: 'All nine weights had fallen through the floor.', facts: [] });
    expect(fault.passage).to.deep.equal({
      source: 'A',
      text: 'Three of the nine weights had fallen through the floor.',
    });
  });

  it('takes a bare plural behind its verb for some of them, and puts what was lost before the whole phrase', async () => {
    const text = 'Ada Cole, a well-known mason on the board of the tide mill, soon joined its builders and made some critical contributions.'; // prettier-ignore
    const page = await readSource(`A mill\n\n${text}`, { kind: 'news' });
    const facts = extractFacts(page, tagger);
    const own = makeRetoldChecker([{ letter: 'A', text: page.text, facts }], { tagger, kin });
    const lost = (told: string) => own.check({ text: told, facts: facts.map((f) => ({ source: 'A', fact: f.id })) }).filter((f) => f.kind === 'whole').map((f) => f.mend); // prettier-ignore
    expect(lost('She sat on the board of the mill, joined its builders, and made critical contributions.')).to.deep.equal([]); // prettier-ignore
    expect(
      lost('Critical contributions were soon made by Ada Cole, a mason on the board of the tide mill.'),
    ).to.deep.equal([
      'Some critical contributions were soon made by Ada Cole, a mason on the board of the tide mill.',
    ]);
  });

  for (const text of [
    'So who wound it?',
    'Picture the square on a cold night.',
    'But that was only the start of it.',
    'And the clock? It went on.',
    'Somebody asked a thing: is the north face a museum’s?',
    'Is the tower in danger of falling?',
    'It is far easier to lift a bell in the smith’s workshop.',
  ])
    it(`a bridge, a question, an address claims nothing: “${text}”`, () =>
      expect(found(text)).to.deep.equal([]));
});

/** Unit names as the Unicode CLDR has them (through ECMA-402's Intl in this runtime), said long and written short. */
describe('measures in the words of the CLDR', () => {
  const UNITS = ['kilometer', 'meter', 'centimeter', 'kilogram', 'gram', 'hour', 'minute', 'second', 'day', 'week', 'month', 'year', 'percent']; // prettier-ignore
  const form = (unit: string, unitDisplay: 'long' | 'short', n: number) =>
    new Intl.NumberFormat('en-GB', { style: 'unit', unit, unitDisplay }).format(n);
  for (const unit of UNITS)
    it(`${form(unit, 'long', 37)} and ${form(unit, 'short', 37)} are one value`, async () => {
      const text = `The crossing of the old gate measures ${form(unit, 'short', 37)} in all, by the surveyor’s book.`;
      const source = await readSource(`The crossing\n\n${text}`, { kind: 'news' });
      const own = makeRetoldChecker(
        [{ letter: 'A', text: source.text, facts: extractFacts(source, tagger) }],
        { tagger, kin },
      );
      const said = (n: number) =>
        `By the surveyor’s book the crossing of the old gate measures ${form(unit, 'long', n)} in all.`;
      expect(own.check({ text: said(37), facts: [] })).to.deep.equal([]);
      expect(own.check({ text: said(53), facts: [] }).length).to.be.greaterThan(0);
    });
});
