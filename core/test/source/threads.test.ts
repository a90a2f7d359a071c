import { expect } from 'chai';
import { composeThread, readThread } from '../../../scripts/pages/threads.ts';
import { readSource } from '../../src/source/index.ts';

/** Boards in markup that belongs to no site, put together by chance; what they say is invented. */
describe('a thread in any markup', () => {
  it('is the story of its teller, what the teller adds later, and nobody else’s words', async () => {
    const wrong: string[] = [];
    let [lost, others] = [0, 0];
    const seeds = Array.from({ length: 80 }, (_, k) => 5000 + k);
    for (const seed of seeds) {
      const thread = composeThread(seed);
      const read = await readThread(thread);
      lost += read.lost;
      others += read.others;
      if (read.lost > 0.2 || read.others > 0)
        wrong.push(`${seed} ${Object.values(thread.choices).join(', ')}`);
    }
    expect(wrong.length, wrong.join('\n')).to.be.at.most(4);
    expect(lost / seeds.length).to.be.at.most(0.02);
    expect(others / seeds.length).to.be.at.most(0.02);
  });

  const post = (by: string, text: string) =>
    `<div><b>${by}</b><div>${text}</div><a href="#r">Reply</a></div>`;

  it('is known by names alone where several signs say that they are posts', async () => {
    const html = `<h1>The lamp in the loft</h1>${post('wick_44', '<p>I found a lamp in our loft last week, still warm. Nobody has been up there since May, and the hatch is painted shut.</p><p>I put it on the sill. This morning it was back in the loft.</p>')}${post('Marl', 'Burn the house down, please.')}${post('tall_ivy', 'Does somebody else have a key to the loft of the house next door?')}${post('wick_44', '<p>Ivy had it. The lofts of the whole row are one, and the old man at number nine reads up there, because his wife sleeps badly. He has asked me in for tea.</p>')}`;
    const { blocks } = await readSource(html);
    const told = blocks
      .filter((b) => b.type !== 'reply')
      .map((b) => b.text)
      .join(' ');
    expect(told).to.contain('still warm').and.to.contain('The lofts of the whole row are one');
    expect(told).to.not.contain('Burn the house down').and.to.not.contain('have a key');
  });

  it('is no thread for being a glossary: names of things over what they are', async () => {
    const terms = [
      ['Purlin', 'A beam that runs along a roof and carries the rafters between the gable and the truss.'],
      [
        'Noggin',
        'A short piece of timber that is fixed between two joists, so that neither of them can twist.',
      ],
      ['Trimmer', 'The joist at the edge of an opening in a floor, which carries those that end there.'],
    ];
    const html = `<h1>Words of carpenters</h1><p>These are the words that an inspector of roofs and floors uses most, with what each of them means to a carpenter.</p><dl>${terms.map(([t, d]) => `<dt>${t}</dt><dd>${d}</dd>`).join('')}</dl>`;
    const { blocks } = await readSource(html);
    expect(blocks.filter((b) => b.type === 'reply')).to.deep.equal([]);
    for (const [, d] of terms) expect(blocks.map((b) => b.text).join(' ')).to.contain(d.slice(0, 40));
  });
});
