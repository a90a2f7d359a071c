import { expect } from 'chai';
import { filmCast, inFull } from '../../src/scenes/index.ts';
import { film, retold, section, source } from './film.ts';

const STORY = `The parcel on the mat

I (34F) live in a flat on the second floor. My husband (36M) works nights at the bakery on Corn Street. Across the landing lives Mr Pell. He is a tall, thin man with a white beard.

The first parcel came in March. Mr Pell knocked on the door. He held out a box. I put the jar in the cupboard over the fridge.

I told my husband. He laughed. My boss, Mrs Tarrow, asked for a jar of it. She has red hair. I carried the box down the stairs.`;

const told = await retold(STORY);

describe('who is in a picture', () => {
  it('is the one who tells it, with the age and the sex that a forum’s note gives', () => {
    const narrator = told.named('the narrator')!;
    expect(inFull(narrator)).to.equal('the narrator, a woman, 34 years old');
    expect(told.of('I put the jar').description).to.include(
      inFull(narrator)[0].toUpperCase() + inFull(narrator).slice(1),
    );
  });
  it('is somebody without a name, known by what the narrator calls them', () => {
    const husband = told.named('the narrator’s husband')!;
    expect(husband.looks.age?.text).to.equal('36 years old');
    expect(told.of('My husband').cast).to.include(husband.id);
  });
  it('is the named one who “my boss” is', () => {
    expect(told.named('the narrator’s boss')).to.equal(undefined);
    expect(told.named('Mrs Tarrow')!.looks.role?.text).to.equal('the narrator’s boss');
  });
  it('is whom “he” and “she” can mean, and nobody else', () => {
    const [pell, tarrow] = [told.named('Mr Pell')!, told.named('Mrs Tarrow')!];
    expect([pell.pronoun, tarrow.pronoun]).to.deep.equal(['he', 'she']);
    expect(told.of('He held out').cast).to.deep.equal([pell.id]);
    expect(told.of('He laughed').cast).to.include(told.named('the narrator’s husband')!.id);
    expect(told.of('She has red hair').cast).to.include(tarrow.id).and.not.include(pell.id);
  });
  it('has looks in which adjectives stand before their noun', () => {
    expect(told.named('Mr Pell')!.looks.role?.text).to.equal('a tall, thin man with a white beard');
  });
  it('does what the words say, and is never what is done to somebody else', () => {
    expect(told.of('I put the jar').parts.subject).to.equal(
      'the narrator putting the jar in the cupboard over the fridge',
    );
    expect(told.of('Mr Pell knocked').parts.subject).to.equal('Mr Pell knocking on the door');
  });
  it('stands on the screen with a name only', () => {
    for (const p of told.pictures) expect(p.onScreen.join()).to.not.match(/narrator/i);
  });
  it('is nobody where no one says “I” three times', async () => {
    expect(
      filmCast([
        await source('A lift\n\n“I saw it,” said Ruth Marsh. “I was there. I ran.” The lift fell.'),
      ]).some((c) => c.name === 'the narrator'),
    ).to.equal(false);
  });
});

describe('whom a source tells by a pronoun', () => {
  const LIFE = `Amalia Kestrel

Amalia Kestrel was a botanist. She was born in a mill house on the River Tarn. She taught herself Latin. In 1883 she found a moss that she could not name, and sent it to the curator, Edmund Fairlie. Fairlie wrote to Mr A. Kestrel. She drew for forty years with a pen made from the feather of a crow.`;
  it('is told by the sentences that go on with her, whatever one letter calls her', async () => {
    expect((await retold(LIFE)).named('Amalia Kestrel')!.pronoun).to.equal('she');
  });
  it('is not whoever was named last', async () => {
    const told = await retold(LIFE);
    expect(told.of('She drew for forty').parts.subject).to.equal('Amalia Kestrel drawing');
  });
  it('is no bird for bearing its name', async () => {
    const told = await retold(`${LIFE} Kestrel left school at eleven.`);
    expect(told.of('Kestrel left').search.map((w) => w.text)).to.not.include('kestrel');
  });
});

describe('a script without sources', () => {
  it('has the people whom its own lines name, with what they say of them', () => {
    const { cast } = film([
      section(
        'ground',
        'Then Hanna Brody, a keeper of locks, opened the gate.',
        'It was Hanna Brody who wore a long blue coat.',
      ),
    ]);
    const brody = cast.find((c) => c.name === 'Hanna Brody')!;
    expect(brody.looks.role).to.deep.include({ text: 'a keeper of locks', against: null });
    expect(brody.looks.role!.from!.source).to.equal('script');
  });
  it('never says otherwise than a source does', async () => {
    const told = await source(
      'The lift\n\nHanna Brody, a night keeper, opened the valve. Hanna Brody said so.',
    );
    const { cast } = film([section('ground', 'It was Hanna Brody, a young smith, who came.')], {
      sources: [told],
    });
    expect(cast.find((c) => c.name === 'Hanna Brody')!.looks.role!.text).to.equal('a night keeper');
  });
});
