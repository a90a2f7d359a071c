import { expect } from 'chai';
import { castOwnSchema, filmCast, inFull, type FilmInput } from '../../src/scenes/index.ts';
import type { PlainSection } from '../../src/script/index.ts';
import { film as filmWith, section, source } from './film.ts';

const SOURCE = await source(
  'The keeper of the lift\n\nHanna Brody, a night keeper at the Orrin boat lift in Marrowgate, has grey hair and wears a long blue coat. Brody is 61. She opened the valve in 1974. The tower of the lift is narrow.',
);
const film = (sections: PlainSection[], more: Partial<FilmInput> = {}) =>
  filmWith(sections, { sources: [SOURCE], ...more });
const one = (text: string, more: Partial<FilmInput> = {}) =>
  film([section('ground', text)], more).pictures[0];
const searched = (text: string) => one(text).search.map((w) => w.text);

describe('what to look for', () => {
  it('takes things that can be seen, with what makes them one thing', () => {
    expect(searched('A small brass clock stood in a clock shop.')).to.include('clock shop');
    expect(searched('He wore a magnifying glass.')).to.include('magnifying glass');
  });
  it('never takes a figure of speech literally, and names the trap', () => {
    const picture = one('The council was buried under a mountain of debt.');
    expect(picture.search.map((w) => w.text).join()).to.not.match(/mountain/);
    expect(picture.traps.find((t) => t.words === 'mountain of debt')?.would).to.equal('a mountain');
  });
  it('tells a word of two things apart by what stands beside it', () => {
    const picture = one('A crane stood over the harbour.');
    expect(picture.traps.map((t) => t.words)).to.include('crane');
    expect(picture.search.find((w) => w.key === 'crane')?.text).to.not.equal('crane');
  });
  it('shows what an idea stands for only where nothing else can be seen', () => {
    expect(searched('The price had doubled.')).to.deep.equal(['price tag']);
    expect(searched('The price of the boat had doubled.')).to.include('boat');
  });
  it('goes on with what was shown where a line leans on it', () => {
    const { pictures } = film([section('ground', 'The boat lift stands in a narrow tower above the canal.', 'It has never once failed in all that time.')]); // prettier-ignore
    expect(pictures.at(-1)!.search.map((w) => w.text)).to.include('boat lift');
  });
});

describe('the cast', () => {
  it('has looks only where a fact is about that one, and says which; the rest is open', () => {
    const [brody] = filmCast([SOURCE]).filter((c) => c.kind === 'person');
    expect(brody.name).to.equal('Hanna Brody');
    expect(brody.looks.hair?.text).to.equal('grey hair');
    expect(brody.looks.dress?.text).to.match(/long blue coat/);
    expect(brody.looks.hair?.from).to.include({ source: 'A' });
    expect(brody.open).to.not.include('hair');
  });
  it('keeps open what was so at one time only', async () => {
    const [ruth] = filmCast([await source('The clock\n\nRuth Marsh remembered the shop. Ruth Marsh was six. Ruth Marsh asked for the clock.')]); // prettier-ignore
    expect(ruth.looks.age).to.equal(undefined);
    expect(ruth.open).to.include('age');
  });
  it('takes what the writer fills in, and says where a source says otherwise', () => {
    const own = castOwnSchema.parse({
      name: 'Hanna Brody',
      kind: 'person',
      fields: { hair: 'red hair', eyes: 'green eyes' },
    });
    const [brody] = filmCast([SOURCE], [own]).filter((c) => c.kind === 'person');
    expect(brody.looks.hair).to.deep.equal({ text: 'red hair', from: null, against: 'grey hair' });
    expect(inFull(brody)).to.match(/red hair, green eyes/);
  });
});

describe('descriptions', () => {
  const sections = [
    section('hook', 'Hanna Brody opened the valve.', 'The water rose.', 'She closed the gate by hand again.'),
    section('ground', 'A boat waited below.', 'Brody walked along the tower to it.'),
  ];
  it('hold a person’s looks in full in every picture that person is in, named or as “she”', () => {
    const { pictures, cast, scenes } = film(sections);
    const brody = cast.find((c) => c.kind === 'person')!;
    const shown = scenes.map((s, i) => ({ s, p: pictures[i] })).filter(({ s }) => /Brody|She\b/.test(s.text));
    expect(shown.length).to.be.at.least(2);
    for (const { p } of shown) expect(p.description, p.description).to.include(inFull(brody));
  });
  it('change everywhere when a look changes', () => {
    const own = [
      castOwnSchema.parse({ name: 'Hanna Brody', kind: 'person', fields: { hair: 'white hair' } }),
    ];
    const { pictures } = film(sections, { own });
    for (const p of pictures.filter((x) => x.cast.length)) expect(p.description).to.match(/white hair/);
  });
  it('end with the channel’s picture style and the frame, in these words each time', () => {
    for (const p of film(sections, { style: 'ink and paper, muted' }).pictures)
      expect(p.description).to.match(/Ink and paper, muted\. Horizontal 16:9\.$/);
  });
  it('never say a year that no fact of the scene or of those before it in the section says', () => {
    for (const p of film(sections).pictures) expect(p.description).to.not.match(/\b(?:1[0-9]|20)\d\d\b/);
  });
  it('take the writer’s words, looks and style still in full', () => {
    const text = 'Hanna Brody opened the valve.';
    const own = section('ground', text);
    const marked = {
      ...own,
      lines: [{ ...own.lines[0], marks: [{ type: 'cut' as const, id: 'x', start: 0, end: 5, kind: 'break' as const, held: false, own: { description: 'A hand on a wheel' } }] }],
    }; // prettier-ignore
    const [picture] = film([marked]).pictures;
    expect(picture.description).to.match(/^A hand on a wheel\./);
    expect(picture.description).to.include('grey hair');
  });
});

describe('a description of the writer’s own', () => {
  const saying = (description: string) => {
    const own = section('ground', 'Hanna Brody opened the valve.');
    const mark = {
      type: 'cut' as const,
      id: 'x',
      start: 0,
      end: 5,
      kind: 'break' as const,
      held: false,
      own: { description },
    };
    return film([{ ...own, lines: [{ ...own.lines[0], marks: [mark] }] }]).pictures[0].unsaid;
  };
  it('is told what no source says: a year, a name', () => {
    expect(saying('The lift in 1885, with Arthur Penrose at the wheel')).to.deep.equal([
      '1885',
      'Arthur',
      'Penrose',
    ]);
    expect(saying('The tower in 1974 at dusk')).to.deep.equal([]);
  });
});

describe('sound and words on the screen', () => {
  it('cue an effect only where the script names its source, at its word', () => {
    const { sound } = one('In the tower a bell rang twice.');
    expect(sound.filter((s) => s.kind === 'effect').map((s) => s.what)).to.deep.equal(['bell']);
    expect(sound.find((s) => s.kind === 'effect')!.at).to.be.greaterThan(0.2);
    for (const silent of [
      'The law has no bell to ring.',
      'The tower never had a bell.',
      'Nobody rang the bell in the tower.',
      'The boat left without a bell.',
    ])
      expect(
        one(silent).sound.filter((s) => s.kind === 'effect'),
        silent,
      ).to.deep.equal([]);
    expect(
      one('The keeper did not hear it, but a bell rang in the tower.').sound.map((s) => s.what),
    ).to.include('bell');
    expect(one('He opened a letter.').sound.map((s) => s.what)).to.not.include('door');
  });
  it('bring music in with a section, about 15 dB under speech (common practice, no published source)', () => {
    const music = one('A boat waited.').sound.find((s) => s.kind === 'music')!;
    expect(music.level).to.equal(-15);
  });
  it('show figures with their unit, short quotations, and a name when first heard', () => {
    expect(one('It weighs 310 tonnes.').onScreen).to.deep.equal(['310 tonnes']);
    expect(one('The keeper said: “It never fails.”').onScreen).to.include('“It never fails”');
    const { pictures } = film([section('hook', 'Hanna Brody opened the valve of the lift.', 'Hanna Brody closed the gate of the tower again.')]); // prettier-ignore
    expect(pictures.flatMap((p) => p.onScreen).filter((t) => t.startsWith('Hanna'))).to.have.length(1);
  });
});

describe('repeats', () => {
  const boats = [
    'A boat waited at the bottom all night long.',
    'Another boat came slowly out of the dark at last.',
    'A third boat was late that morning, and nobody knew why.',
    'The fourth boat had never been seen here by anybody.',
    'A fifth boat followed it closely and then turned back.',
    'The sixth boat was empty when they found it again.',
    'The seventh boat belonged to nobody who could be asked.',
  ];
  it('show a thing in another size each time before it comes twice', () => {
    const { pictures } = film([section('ground', ...boats.slice(0, 4))]);
    expect(new Set(pictures.map((p) => p.size)).size).to.be.at.least(3);
    expect(pictures.filter((p) => p.repeat)).to.have.length(0);
  });
  it('are flagged by meaning, and another is proposed', () => {
    const { pictures } = film([section('ground', ...boats)]);
    const repeated = pictures.filter((p) => p.repeat);
    expect(repeated.length).to.be.within(1, 3);
    for (const p of repeated) expect(p.repeat!.instead).to.match(/^boat, from|gate|dark/);
  });
});
