/** Counts that a later entry of a live page replaces. */
import { expect } from 'chai';
import { extractFacts, numbersIn } from '../../src/facts/index.ts';
import { readSource } from '../../src/source/index.ts';
import { tagger } from '../tools.ts';

const ENTRIES = [
  ['17:40', 'Water going down', 'The water is going down in the lower town, and the last of the boats has been tied up. In all 212 people were taken out of their homes, says the fire chief, and every one of them is accounted for.'],
  ['12:15', 'School opened for the night', 'The school on the hill has been opened for the night, with beds from the barracks. Nine boats are now at work in the lower town, four of them lent by the rowing club, and the ferry has joined them.'],
  ['08:05', 'Boats in the lower town', 'Boats have begun to go from door to door in the lower town. So far 60 people were taken out of their homes, most of them asleep when the wall gave way. The river stood at 4.71m at the mill, and two dogs were carried to the church.'],
]; // prettier-ignore
const live = () =>
  `<!doctype html><html><head><title>Flood in Tarn: live</title></head><body><nav><a href="/">Front page</a></nav><h1>Flood in Tarn: live</h1><div class="l">${ENTRIES.map(
    ([at, head, text]) => `<section class="e"><time datetime="2021-02-18T${at}:00Z">${at}</time><h2>${head}</h2><p>${text}</p></section>`,
  ).join('')}</div></body></html>`; // prettier-ignore

describe('counts on a live page', () => {
  it('are no longer told where a later entry counts the same anew, and say what it says', async () => {
    const d = await readSource(live());
    expect(d.blocks.filter((b) => b.type === 'paragraph').map((b) => b.entry)).to.deep.equal([1, 2, 3]);
    const old = extractFacts(d, tagger).filter((f) => f.silent);
    expect(old.map((f) => [f.text.slice(0, 16), f.silent])).to.deep.equal([
      ['So far 60 people', 'a later entry says 212 people'],
    ]);
  });

  it('stand on a page that is not live, whatever it counts twice', async () => {
    const d = await readSource(`The flood of Tarn\n\n${[...ENTRIES].reverse().map((e) => e[2]).join('\n\n')}`); // prettier-ignore
    expect(extractFacts(d, tagger).filter((f) => f.silent)).to.deep.equal([]);
  });
});

describe('a small m behind a figure', () => {
  for (const [text, value, unit] of [
    ['The river stood at 4.71m at noon.', 4.71, 'm'],
    ['A 60 m wall fell into the yard.', 60, 'm'],
    ['The bridge cost £4.71m in the end.', 4_710_000, '£'],
    ['About 4.5m people crossed it.', 4_500_000, 'people'],
  ] as const)
    it(`${text} → ${value} ${unit}`, () => {
      const [n] = numbersIn(text);
      expect(n.value).to.be.closeTo(value, 1e-6);
      expect(n.unit).to.equal(unit);
    });
});
