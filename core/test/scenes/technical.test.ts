import { expect } from 'chai';
import { isTechnical } from '../../src/scenes/technical.ts';
import { film, section } from './film.ts';

const SOFTWARE = [
  'Install the package with one command on the server.',
  'The file lies in a directory of the user.',
  'The kernel of the operating system boots from the disk.',
  'A program reads the configuration from the network.',
];
const shown = (sections: ReturnType<typeof section>[], words: string) => {
  const { scenes, pictures } = film(sections, { title: 'A system' });
  return pictures[scenes.findIndex((s) => s.text.includes(words))];
};

describe('words of computing', () => {
  it('are known by the company they keep', () => {
    expect(isTechnical(SOFTWARE)).to.equal(true);
    expect(
      isTechnical(['The lift stands in a narrow tower.', 'A boat waited in the network of canals.']),
    ).to.equal(false);
  });
  it('are no parcel and no tree in a film about software, and named as traps', () => {
    const picture = shown(
      [section('ground', ...SOFTWARE, 'The package is run by the root of the tree.')],
      'root of the tree',
    );
    expect(picture.search.map((w) => w.text).join())
      .to.match(/screen/)
      .and.not.match(/package|root|tree/);
    expect(picture.traps.map((t) => [t.words, t.would])).to.deep.include(['package', 'a parcel']);
  });
  it('mean what they say elsewhere', () => {
    const picture = shown([section('ground', 'The postman left a package under the tree.')], 'package');
    expect(picture.search.map((w) => w.text)).to.include.members(['package', 'tree']);
  });
  it('are no words that every object of the language has', () => {
    const { pictures } = film([
      section(
        'ground',
        'The constructor of the tower came by boat.',
        'Nobody paid the constructor in all those years.',
      ),
    ]);
    for (const p of pictures) for (const w of p.search) expect(w.text).to.be.a('string');
  });
});
