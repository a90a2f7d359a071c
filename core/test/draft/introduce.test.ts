/** People are introduced where they are first met, in the source's own words. */
import { expect } from 'chai';
import { introduced, introductionsOf } from '../../src/draft/introduce.ts';
import { readSource } from '../../src/source/index.ts';

const source = await readSource(
  'The ferry\n\nThe skipper, Maud Ferris, dropped the anchor. Ines Pardo, a night nurse, saw it. Dr Wen Liang wrote a report. On Wednesday Ms Ferris was sent home.',
);
const people = introductionsOf(source);
const told = (...texts: string[]) =>
  introduced(
    texts.map((text) => ({ text })),
    people,
  ).map((l) => l.text);

describe('an introduction', () => {
  it('is found before a name, behind it, or in the full name alone; a weekday is nobody', () => {
    expect(people.get('Ferris')!.phrase).to.equal('the skipper, Maud Ferris');
    expect(people.get('Pardo')!.phrase).to.equal('Ines Pardo, a night nurse');
    expect(people.get('Liang')!.phrase).to.equal('Dr Wen Liang');
    expect([...people.keys()]).to.not.include('Wednesday');
  });

  it('is somebody’s: no thing that stands before a name, no word that opens a sentence, no line about rights', async () => {
    const of = introductionsOf(
      await readSource(
        'The lamp\n\nNobody looked for the virus, Craig Hale said. Besides Orla Marsh, two came. Our Orb was the first. It was seen by Orla Marsh.\n\nCopyright Lock Press.',
        { kind: 'news' },
      ),
    );
    expect([...of.values()].map((i) => i.phrase)).to.deep.equal(['Craig Hale', 'Orla Marsh']);
  });

  it('takes no contraction for a last name', async () => {
    expect([...introductionsOf(await readSource('What I’ve seen is odd. Maud O’Brien saw it.')).keys()]).to.deep.equal(['O’Brien']); // prettier-ignore
  });

  it('says no title twice, and no name with its ’s', async () => {
    const of = introductionsOf(await readSource('I have three trees from my uncle Rudi. Uncle Rudi’s notebook lay in the shed. Uncle Rudi kept bees.')); // prettier-ignore
    const [line] = introduced([{ text: 'I have three trees from my uncle Rudi.' }], of);
    expect(line.text).to.equal('I have three trees from my uncle Rudi.');
    expect([...of.values()].map((i) => i.full)).to.not.include('Uncle Rudi’s');
  });

  it('stands at first mention only, with its comma and its capital', () => {
    expect(told('Ms Ferris was sent home.', 'Ms Ferris came back.')).to.deep.equal([
      'The skipper, Maud Ferris, was sent home.',
      'Ms Ferris came back.',
    ]);
    expect(told('They asked Ms Ferris.')).to.deep.equal(['They asked the skipper, Maud Ferris.']);
    expect(told('Ferris’s boat sank.')).to.deep.equal(['Maud Ferris’s boat sank.']);
  });

  it('is a sentence before what they did where one breath can’t carry both', async () => {
    const news = introductionsOf(
      await readSource('The lift\n\nArne Holt, a keeper of locks at the upper canal in Orle, laughed.', {
        kind: 'news',
      }),
    );
    const text =
      'Holt said that nobody in the valley had ever thought of asking why the gate opened so late.';
    expect(introduced([{ text }], news)[0].text).to.equal(
      `Arne Holt is a keeper of locks at the upper canal in Orle. ${text}`,
    );
  });

  it('is not made where the full name is told, nor inside a quotation', () => {
    expect(told('Maud Ferris was sent home.', 'Ferris came back.')).to.deep.equal([
      'Maud Ferris was sent home.',
      'Ferris came back.',
    ]);
    expect(told('He said: “Ferris did it.”')).to.deep.equal(['He said: “Ferris did it.”']);
  });
});
