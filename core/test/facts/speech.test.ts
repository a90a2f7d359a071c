/** What is no speech is known by its form. */
import { expect } from 'chai';
import { extractFacts } from '../../src/facts/index.ts';
import { readSource } from '../../src/source/index.ts';
import { asksTheBoard, isWhole, notSpeech, toTheBoard } from '../../src/facts/speech.ts';
import { tagger } from '../tools.ts';

const silent = (text: string) => notSpeech(text, tagger(text));

describe('what is no speech', () => {
  for (const text of [
    'Home › News › Rural',
    'Prep 25 mins · Waiting 22 hrs · Makes 1 litre',
    'Write to desk@courier.example or leave a note.',
    'Posted: Sun 17 May 2009, 9:42 pm',
    'Photograph: Wilf Marsh/The Courier',
    'The rest is shown in Table 3 of the report.',
    'Ingredients:',
    'b.',
    'Rudkin.”',
    '1917 Taken down for scrap, and put back nine days later.',
    '31 March 2024 The recording is played for the first time.',
    'Nell Hughes is seen at her gate on June 5, 2013.',
    'The old lift is shown in this undated photograph from the town’s archive.',
    'Example 10.10. A longer line',
    'If x + y = z then the rest follows.',
    'SOURCE: sho.rt/13o6lTY Journal of Tides online.',
    '[A. B. Ware, "The Lock and its Keepers", Marsh Press, 1961].',
    '[How deep was it, beside the old one?]',
    'See also tide mill and sluice.',
    'Newsgroup: news:alt.locks.old.',
    ', Ware of the Isles, and Orrin Motor Co.',
    'MILL FORD, KENT.',
    '&lt;br&gt; The slowdown is felt along the canal.',
    'var lock = find(gates); if (lock) { open(lock); }',
    'The Heart Board has more about lamps.',
    'For more information about the lock, visit the office at the gate.',
    'Transcript provided by the Lock Hour, Copyright LH.',
    'The Marsh Institute of Lamps and Locks and of Old Iron Weights has more about wicks.',
    'For complete coverage of the fair, stay tuned to the fair’s own section.',
    'Edit this entry',
    'Share and print this story with a friend.',
    'You can check out my book about the lamps of Marsh.',
    '(Reporting by Ann Ware in Marsh; Editing by Tom Pell and Nell Vorm)',
    'Ann Ware and Tom Pell contributed to this report.',
    'The case is Ware v. Pell et al, District Court, No. 12-028.',
    'MF This citizen picture provided by the Lock News shows smoke above a village on Thursday.',
  ])
    it(`is not told: ${text}`, () => expect(silent(text)).to.be.a('string'));

  for (const text of [
    'Not one. Two.',
    'The charity offers advice on damp and lamps.',
    'Reporting by Ann Ware showed that nobody had paid.',
    'Written by Ann Ware in 1912, the book was never sold.',
    'Follow the path to the lock, and print nothing.',
    'Check out the lamp before you light it.',
    'Nobody holds the copyright in the old plans, the court said.',
    '“WHO WAS IT?”',
    '[The lock] was closed in May, and stayed so.',
    'See the water rise, and you will also see it fall.',
    'The good news: nobody was hurt.',
    'It said 4 May 1987.',
    '“The crowd feeds it.',
    'The gate opened at dawn, and nobody saw it.',
    'Boil the water: the leaves are poisonous.',
    '1917 was the year in which they took it down.',
    'The comet is seen by everybody who looks up.',
    'The film was shown in three villages and one barn.',
    'The effect was 20 minutes (p = 0.03, n = 24).',
    'Box 4 held three letters and a key.',
    'Bats left earlier, with r = 0.4 in both years.',
  ])
    it(`is told: ${text}`, () => expect(silent(text)).to.equal(null));

  it('nor is a line without a stop over a report whose paragraphs have one; in a story nobody sets one', async () => {
    const deck = 'Keepers want their old lamps back after a winter of broken new ones';
    const rest = [
      'The keepers of the lock asked the council on Monday to hang up the old lamps.',
      'Nine of the new ones broke in the frost, and nobody has mended them since then.',
      'The council says that it will look into it when the budget for spring is known.',
    ];
    // As the reader hands it on, where it is sure of it.
    const first = async (kind: 'news' | 'forum', texts: readonly string[]) => {
      const source = await readSource(
        `The lamps\n\n${texts.map((t) => `${t.replace(/\.$/, '')}.`).join('\n\n')}`,
        { kind },
      );
      const blocks = source.blocks.map((block, i) => ({ ...block, text: texts[i], end: block.end - 1 }));
      return extractFacts({ ...source, blocks }, tagger)[0];
    };
    expect((await first('news', [deck, ...rest])).silent).to.match(/headline/);
    expect((await first('forum', [deck, ...rest])).silent).to.equal(undefined);
    expect((await first('news', [deck, ...rest.map((t) => t.replace('.', ''))])).silent).to.equal(undefined);
  });

  it('nor is a piece of a transcript beside a report; an interview is told', async () => {
    const report = ['The lock broke in the frost of January, and nobody in the town knew why it had.', 'Ann Ware of the lock board said on Monday that the gate had been old for years.', 'The board will meet in the hall on Friday, and the keepers want to be heard there.', 'A new gate costs more than the town has, and the county has said nothing so far.']; // prettier-ignore
    const turns = ['WARE: I think it was the frost that did it. Nobody else was there.', 'TOM PELL, HOST: And what did you do about it then?', 'WARE: I went home and had my tea.']; // prettier-ignore
    const heard = async (texts: readonly string[]) => extractFacts(await readSource(`The lock\n\n${texts.join('\n\n')}`, { kind: 'news' }), tagger).flatMap((f) => (f.silent ? [] : [f.text])); // prettier-ignore
    const told = await heard([...report, ...turns]);
    expect(told.join(' '))
      .to.include('The board will meet')
      .and.not.match(/frost that did it|Nobody else|my tea/);
    expect((await heard([report[0], ...turns])).join(' ')).to.include('my tea');
  });

  it('nor is what a poster says to those who read along, unless it is somebody’s words', () => {
    for (const text of ['Sorry I’ve been quiet.', 'Thanks everyone for the ideas.', 'OK, thank you all.'])
      expect(toTheBoard(text), text).to.be.a('string');
    for (const text of ['Thanks to the frost it rang.', '“Sorry,” he said.', 'He was sorry.'])
      expect(toTheBoard(text), text).to.equal(null);
  });

  it('a sentence opens only whole: with its verb, its end and its quotations closed', () => {
    const whole = (text: string) => isWhole(text, tagger(text));
    expect(whole('The bridge swayed for nine minutes.')).to.equal(true);
    expect(whole('Why did the bridge sway?')).to.equal(true);
    expect(whole('swayed for nine minutes.')).to.equal(false);
    expect(whole('The bridge at noon.')).to.equal(false);
    expect(whole('“The crowd feeds it, and nobody knows.')).to.equal(false);
  });

  it('at a story’s end asks whoever reads, not the people in it', () => {
    expect(asksTheBoard('Has anybody managed to move one?')).to.match(/readers/);
    expect(asksTheBoard('And would you have told her?')).to.match(/readers/);
    expect(asksTheBoard('Has the keeper ever come back?')).to.equal(null);
    expect(asksTheBoard('“Has anybody seen it?” she asked.')).to.equal(null);
    expect(asksTheBoard('What was I to do with it?')).to.equal(null);
  });
});
