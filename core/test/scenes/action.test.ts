import { expect } from 'chai';
import { Words } from '../../src/scenes/figures.ts';
import { retagged } from '../../src/scenes/tags.ts';
import { film, section, tools } from './film.ts';

const words = new Words(tools.senses);
const shows = (...texts: string[]) =>
  film([section('ground', ...texts)]).pictures.map((p) => p.parts.subject);
const tagOf = (text: string, word: string) =>
  retagged(tools.tagger(text), words).find((t) => t.text === word)!.pos;

describe('what is done in a picture', () => {
  it('is shown as hands at work where somebody is told to do it', () => {
    expect(shows('First, mix the flour with water in a jar.')).to.deep.equal([
      'hands mixing the flour with water in a jar',
    ]);
    expect(shows('Second, rake out the old grout to a depth of three millimetres.')).to.deep.equal([
      'hands raking out the old grout',
    ]);
    expect(shows('Sixth, after fifteen minutes wipe the tiles with a sponge.')).to.deep.equal([
      'hands wiping the tiles with a sponge',
    ]);
  });
  it('knows what “it” is from the line before', () => {
    expect(
      shows('Fold the dough four times in an hour.', 'Put it into a basket for the night.').at(-1),
    ).to.equal('hands putting the dough into a basket');
  });
  it('is spelled as English doubles its letters', () => {
    expect(shows('Wet the strands in a bowl.')).to.deep.equal(['hands wetting the strands in a bowl']);
    expect(shows('Stir the paint with a stick.')).to.deep.equal(['hands stirring the paint with a stick']);
  });
  it('is nothing that is warned of, and no order where a noun opens the sentence', () => {
    expect(shows('Do not cut the loaf for a whole hour.')[0]).to.not.match(/hands/);
    expect(shows('People on a moving deck widen their stance.')[0]).to.not.match(/hands/);
  });
  it('is done by those who can do it: things come and go nowhere', () => {
    expect(shows('The first parcel came in the month of March.')[0]).to.not.match(/coming/);
    expect(shows('A ferry came out of the old harbour.')[0]).to.match(/^a ferry coming/);
    expect(shows('The effect was gone within twenty minutes.')[0]).to.not.match(/going/);
  });
  it('is told of the noun that a preposition hangs on', () => {
    expect(shows('A wooden barrack on iron legs was built beside the tower.')[0]).to.match(
      /^a wooden barrack on iron legs being built/,
    );
  });
  it('is not what is only said by the way, denied or wished', () => {
    expect(shows('A square stands where the ropewalk had stood before.')[0]).to.not.match(
      /ropewalk standing/,
    );
    expect(shows('The tower never fell in all those years.')[0]).to.not.match(/falling/);
    expect(shows('The boat could not sink that night.')[0]).to.not.match(/sinking/);
  });
  it('is no falling where something was felled', () => {
    expect(shows('61 plane trees felled on Harbour Street lay there.')[0]).to.not.match(/falling/);
  });
});

describe('tags that are surely wrong', () => {
  it('become verbs: the relative’s, one behind “this”, the only one a clause can have', () => {
    expect(tagOf('I worked in a warehouse that ships garden tools.', 'ships')).to.equal('VERB');
    expect(tagOf('Whether this delays sleep is disputed.', 'delays')).to.equal('VERB');
    expect(tagOf('Cormorants nest in the lantern.', 'nest')).to.equal('VERB');
    expect(tagOf('A kettle boiled over soon after ten.', 'boiled')).to.equal('VERB');
    expect(tagOf('Fourth, mix the grout with water.', 'mix')).to.equal('VERB');
  });
  it('become nouns: behind an article or an owner', () => {
    expect(tagOf('A buoy replaced the lighthouse.', 'buoy')).to.equal('NOUN');
    expect(tagOf('She put down her fork and left.', 'fork')).to.equal('NOUN');
    expect(tagOf('Then a rubber float, a bucket and a sponge.', 'float')).to.equal('NOUN');
  });
  it('stay as they are where nothing is sure', () => {
    expect(tagOf('The boats rise slowly.', 'rise')).to.equal('VERB');
    expect(tagOf('The ships of the line sailed.', 'ships')).to.equal('NOUN');
  });
});

describe('things as a picture names them', () => {
  it('have an article where they can be counted, and “the” where one of several is meant', () => {
    expect(shows('There is a lens in the lantern.')[0]).to.equal('a lens and a lantern');
    expect(shows('There was a gale over the town.')[0]).to.match(/a gale/);
    expect(shows('He lives on the second floor of it.')[0]).to.equal('the second floor');
    expect(shows('There was little water left.')[0]).to.equal('water');
    expect(shows('A hospital served porridge in the ward.')[0]).to.match(/ and porridge$/);
    expect(shows('Mice nested in the pipes of the organ.')[0]).to.match(/^mice/);
  });
  it('keep the word before a hyphen', () => {
    expect(shows('There is a silver-line moth on the lamp.')[0]).to.match(/^a silver-line moth/);
  });
  it('are people by what they wear', () => {
    expect(shows('The video shows men in orange jackets.')[0]).to.equal('men in orange jackets');
  });
  it('are never what is heard, nor an old man who is 58 years old', () => {
    expect(shows('The noise of the traffic is loud near the hives.')[0]).to.not.match(/noise/);
    expect(shows('The pilot, a 58-year-old man, is well.')[0]).to.not.match(/old man/);
  });
  it('are shown in sizes that fit: no ship in an extreme close-up, no coin in a wide shot', () => {
    expect(film([section('ground', 'First, soak the stone in a bowl.')]).pictures[0].size).to.equal(
      'close-up',
    );
    const sizes = (thing: string) =>
      film([
        section(
          'ground',
          ...Array.from({ length: 7 }, (_, i) => `Nobody knew in ${i + 1} days where the ${thing} lay.`),
        ),
      ]).pictures.map((p) => p.size);
    expect(sizes('ship')).to.not.include('extreme close-up');
    expect(sizes('coin').some((s) => /wide/.test(s))).to.equal(false);
  });
});
