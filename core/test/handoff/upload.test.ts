import { expect } from 'chai';
import { disclosureLine, type Kit } from '../../src/handoff/index.ts';
import { makeKit } from '../../src/handoff/index.ts';
import { toldKit, tools } from './kit.ts';

describe('the upload', () => {
  let kit: Kit;
  before(async () => {
    kit = await toldKit(150);
  });
  it('has five hashtags of letters and figures, none twice', () => {
    const tags = kit.upload.parts.hashtags.split(' ');
    expect(tags).to.have.length(5);
    for (const t of tags) expect(t).to.match(/^#[\p{L}\p{N}]{3,}$/u);
    expect(new Set(tags.map((t) => t.toLowerCase())).size).to.equal(5);
  });
  it('has search words within what hosts take, led by what the film is about', () => {
    const { searchWords } = kit.upload.parts;
    expect(searchWords.length).to.be.at.most(480);
    expect(searchWords.split(', ').slice(0, 4).join(' ')).to.match(/Pell Street|footbridge|bridge|crowd/);
  });
  it('names every source with what it may be told by, and cites it', () => {
    expect(kit.upload.sources[0]).to.include('Marrowgate Courant').and.include('Retold with permission.');
    expect(kit.upload.description).to.include(kit.upload.sources[0]);
  });
  it('pins a fact that the film had no room for, never one it told', () => {
    const pinned = kit.upload.parts.pinned.replace('What the film had no room for: ', '');
    const fact = kit.input.sources[0].facts.find((f) => f.text.trim() === pinned)!;
    expect(fact.modality).to.equal('plain');
    const told = new Set(kit.sections.flatMap((s) => s.lines.flatMap((l) => l.from.map((f) => f.fact))));
    expect(told.has(fact.id)).to.equal(false);
  });
  it('describes what opens it and never what settles it', () => {
    const last = kit.sections
      .at(-1)!
      .lines.filter((l) => l.text)
      .at(-1)!.text;
    expect(kit.upload.parts.summary).to.include(kit.sections[0].lines[0].text.trim());
    expect(kit.upload.parts.summary).to.not.include(last);
  });
  it('shows title takes with their letters, the one in use first, and pictures that match the promise', () => {
    expect(kit.upload.titles[0]).to.include({ used: true, letters: kit.input.settings.title.length });
    for (const t of kit.upload.titles) expect(t.letters).to.equal(t.text.length);
    expect(kit.upload.pictures.length).to.be.greaterThan(0);
    for (const p of kit.upload.pictures) expect(p.why).to.match(/title/);
  });
  it('the uploader’s words stand in the description in place of the computed ones', () => {
    const own = makeKit({ ...kit.input, upload: { summary: 'My own words.', hashtags: '' } }, tools).upload;
    expect(own.set).to.deep.equal(['summary', 'hashtags']);
    expect(own.description).to.match(/^My own words\./);
    expect(own.description).to.not.match(/#/);
  });
  it('discloses what a computer made, and nothing else', () => {
    expect(disclosureLine({ voice: false, pictures: false, words: [] })).to.equal('');
    expect(disclosureLine({ voice: true, pictures: false, words: [] })).to.equal(
      'The voice in this film was made by a computer.',
    );
    expect(disclosureLine({ voice: true, pictures: true, words: ['a service'] })).to.equal(
      'The voice and some pictures in this film were made by a computer. Parts of the words were written with a service and checked against the sources.',
    );
  });
});
