/** Long sentences for one breath: parted where two things are said, shortened where one can go. Sentences are invented. */
import { expect } from 'chai';
import { carrier, DECOMPOSITIONS, personsOf } from '../../src/draft/tell/decompose.ts';
import { shortened } from '../../src/draft/tell/shorten.ts';
import { makeTeller, tellSentence } from '../../src/draft/tell/tell.ts';
import { readSource } from '../../src/source/index.ts';
import { sentences } from '../../src/language/sentences.ts';
import { tagger } from '../tools.ts';

const apart = (id: string, text: string) =>
  DECOMPOSITIONS.find((d) => d.id === id)!.apply({ text, tokens: tagger(text) }, carrier(personsOf(text)));
const short = (text: string, longest = 26) => shortened({ text, tokens: tagger(text) }, longest);

describe('a long sentence', () => {
  const PARTED = [
    {
      id: 'whenEvent',
      where: 'where an event breaks into what went on',
      parts: [
        'On Friday morning a roofer was taking the last of the slates off a barn at Low Fold.',
        'Then the whole ladder began to sing.',
      ],
      of: 'On Friday morning a roofer was taking the last of the slates off a barn at Low Fold when the whole ladder began to sing.',
      not: 'The chapel roof at the end of the lane was covered with lead again when the new vicar had raised the money for it.',
    },
    {
      id: 'throughBefore',
      where: 'where a noun brings what it had been through',
      parts: [
        'A clock was stolen from a station waiting room the summer before last.',
        'It has been pulled out of a canal near the gasworks.',
      ],
      of: 'A clock stolen from a station waiting room the summer before last has been pulled out of a canal near the gasworks.',
      not: 'The clock stolen from the station waiting room the summer before last has been pulled out of a canal near the gasworks.',
    },
    {
      id: 'participleTail',
      where: 'before a participle, told in the time of the sentence',
      parts: [
        'Two volunteers got all the hives off the flooded meadow before dark.',
        'They carried them one by one along the top of the old wall.',
      ],
      of: 'Two volunteers got all the hives off the flooded meadow before dark, carrying them one by one along the top of the old wall.',
      not: 'The council has agreed to pay for the bridge and three of its neighbours, including the two that nobody had asked for.',
    },
    {
      id: 'agentTail',
      where: 'behind whom it names last',
      parts: [
        'The lamp was carried down from the tower on the first night of the frost by burglars.',
        'The burglars also took the ladder.',
      ],
      of: 'The lamp was carried down from the tower on the first night of the frost by burglars who also took the ladder.',
      not: 'The lamp was carried down from the tower on the first night of the frost by the burglars who also took the ladder.',
    },
    {
      id: 'spanTail',
      where: 'before how long it was from something else',
      parts: [
        'The old pump was found in a shed behind the brewery on the second of May.',
        'That was less than a week before the new one was due to arrive.',
      ],
      of: 'The old pump was found in a shed behind the brewery on the second of May, less than a week before the new one was due to arrive.',
      not: 'The clerk said that the old pump was in a shed behind the brewery, less than a week before the new one was due to arrive.',
    },
  ];
  for (const { id, where, of, parts, not } of PARTED)
    it(`is parted ${where}`, () => {
      expect(apart(id, of)).to.deep.equal(parts);
      expect(apart(id, not)).to.equal(null);
    });

  it('is shortened by what only adds: a clause about a noun, a participle, what stands between dashes', () => {
    const cases: Record<string, string> = {
      'The survey of the harbour wall, which was paid for by three of the fishing families and a bank in the next town, found eleven cracks that nobody had seen before.':
        'The survey of the harbour wall found eleven cracks that nobody had seen before.',
      'The company that keeps the lifts running in both of the tall buildings announced on Monday that it would close its workshop, putting forty people out of work by the end of the year.':
        'The company that keeps the lifts running in both of the tall buildings announced on Monday that it would close its workshop.',
      'The timing of the second fire – in the week when everybody who worked there was away at the coast with their families – made the inspectors look again at the first one.':
        'The timing of the second fire made the inspectors look again at the first one.',
    };
    for (const [source, told] of Object.entries(cases)) expect(short(source)).to.equal(told);
  });

  it('keeps what limits a claim, who makes it, and lists', () => {
    for (const text of [
      'The bridge at the lower end of the valley will be opened to lorries and buses again on the first of March, unless the engineers find more of the rust that closed it.',
      'The bridge at the lower end of the valley was closed to all of the lorries and buses from the quarry for eleven days, according to a letter that the county sent.',
      'They carried the table, the four chairs, the clock, the dresser with the blue plates, the bed, and the long mirror from the hall down to the barn before it rained.',
    ])
      expect(short(text), text).to.equal(null);
  });

  it('stays as it is when it is short, a question, or a quotation', () => {
    expect(short('The wall, which is old, fell.')).to.equal(null);
    const text =
      '“The pump, which my brother had mended with a bit of wire and a prayer, ran the whole night long and never missed a beat until the morning came,” she said.';
    expect(short(text)).to.equal(null);
  });

  it('is told in short ones whose claims are its own', async () => {
    const text =
      'A clock stolen from a station waiting room the summer before last has been pulled out of a canal near the gasworks.';
    const source = await readSource(`${text} It still goes. The station has closed.`);
    expect(tellSentence(text, tagger(text), makeTeller(source, tagger))).to.have.length(2);
  });
});

describe('where a sentence ends', () => {
  it('is not behind a word cut short, nor behind a sum before a small letter', () => {
    expect(
      sentences('It was paid to Jn. Pell and two others. He kept 2s. and ale.').map((s) => s.text),
    ).to.deep.equal(['It was paid to Jn. Pell and two others.', 'He kept 2s. and ale.']);
    expect(sentences('He looked up. Shh. They were coming.')).to.have.length(3);
  });
});
