import { expect } from 'chai';
import { eraOf, yearIn } from '../../src/scenes/setting.ts';
import { retold, section } from './film.ts';

describe('where a scene plays', () => {
  const placed = async (text: string, words: string) => {
    const told = await retold(text);
    const { setting } = told.of(words);
    return told.cast.find((c) => c.id === setting)?.name ?? null;
  };
  it('is the place that words say something happens at', async () => {
    expect(
      await placed(
        'A bakery\n\nMy husband works at the bakery in Corn Street. It smells of bread.',
        'bakery in',
      ),
    ).to.equal('Corn Street');
  });
  it('is no place that is only spoken of', async () => {
    const text =
      'A jar of jam\n\nThe jar stood on the shelf. Her grandmother came from Lodz. Nobody opened the jar.';
    expect(await placed(text, 'stood on the shelf')).to.equal(null);
    expect(await placed(text, 'Nobody opened')).to.equal(null);
  });
  it('is the place that the title names, for all that says nothing else', async () => {
    const text =
      'Night ferry aground off Skarholm\n\nA ferry ran aground off the island of Skarholm on Tuesday. The pilot lost consciousness at the wheel.';
    expect(await placed(text, 'The pilot')).to.equal('Skarholm');
  });
  it('is the shop without a name that a story keeps coming back to, but not for what is elsewhere', async () => {
    const text = `The clock on the shelf

I have worked in a clock shop for nineteen years. It is a narrow shop with a bell on the door. I open the shop at nine. I took the clock from the shelf. Edith had gone into the hospital. I closed the shop at six. I swept the shop alone.`;
    const told = await retold(text);
    const shop = told.named('the shop')!;
    expect(shop.looks.looks?.text).to.equal('a narrow shop with a bell on the door');
    expect(told.of('I took the clock').setting).to.equal(shop.id);
    expect(told.of('the hospital').setting).to.equal(null);
  });
  it('has the kind of place that a source calls it', async () => {
    expect(
      (await retold('The lift\n\nThe lift stands in the river city of Marrowgate. Marrowgate is old.')).named(
        'Marrowgate',
      )!.looks.kind?.text,
    ).to.equal('a river city');
  });
});

const told = await retold(
  'The lighthouse\n\nIn 1838 masons cut the rock by hand. They worked between the tides. The tower is 41 metres high.\n\nThe lamp burned oil.',
);

describe('when a scene plays', () => {
  it('is the year in which something happens, not that of something made before or measured since', () => {
    expect(yearIn('In 1884 the company advertised for a lift.')).to.equal('1884');
    expect(yearIn('It burned between 3 and 6 September 1794.')).to.equal('1794');
    expect(yearIn('Work started in the spring of 1885.')).to.equal('1885');
    expect(yearIn('The Halden Star, built in 1987, struck a sandbank.')).to.equal(null);
    expect(yearIn('It has not changed since it was measured in 1902.')).to.equal(null);
    expect(yearIn('It was in use until 1971.')).to.equal(null);
    expect(yearIn('He came in bathing trunks from 1970.')).to.equal(null);
    expect(yearIn('He told me that his brother had drowned in 1951.')).to.equal(null);
  });
  it('is none where words tell of another one', async () => {
    const told = await retold(
      'The canal\n\nTraffic was greatest in 1912. By 1950 fewer than ten boats a week went up. The last boat went up in a storm of snow.',
    );
    expect(told.of('greatest').description).to.include('1912');
    expect(told.of('By 1950').description).to.not.match(/19\d\d/);
  });
  it('goes on with the year told last while the passage tells of the past', () => {
    expect(told.of('between the tides').description).to.include('1838');
    expect(told.of('41 metres').description).to.not.include('1838');
    expect(told.of('burned oil').description).to.not.include('1838');
  });
  it('is the one year of a film that tells of one event and says so at once', () => {
    expect(
      eraOf([section('hook', 'The fire of Vellmar began in September 1794.', 'It burned in 1794.')]),
    ).to.equal('1794');
    expect(eraOf([section('hook', 'In 1794 it burned.', 'It was built again in 1830.')])).to.equal(null);
    expect(eraOf([section('hook', 'A fire.', 'It burned.', 'It spread.', 'That was in 1794.')])).to.equal(
      null,
    );
  });
});
