/** What a section is called. */
import { expect } from 'chai';
import { sectionTitle } from '../../src/draft/sections.ts';
import type { Unit } from '../../src/draft/units.ts';
import { readSource, type SourceDocument } from '../../src/source/index.ts';
import { tagger } from '../tools.ts';

describe('the name of a section', () => {
  const unit = (text: string, under?: string): Unit =>
    ({
      block: { id: text, under },
      sentence: { fact: { text, strength: 0.5 }, tokens: tagger(text) },
      lines: [text],
      ms: 4000,
      part: null,
    }) as unknown as Unit;
  const named = (group: Unit[], told = group) => sectionTitle(group, source, new Set(), told);
  let source: SourceDocument;
  before(async () => {
    source = await readSource(
      'The lock\n\nThe bridge was shut. The keeper rang. The office shut the stairs.',
    );
  });

  it('is the heading that it begins, and not one that another section began', () => {
    const [first, second] = [unit('The keeper rang the office.', 'The keeper'), unit('Nobody found a crack in the steel deck.', 'The keeper')]; // prettier-ignore
    expect(named([first], [first, second])).to.equal('The keeper');
    expect(named([second], [first, second])).to.not.equal('The keeper');
  });

  it('has no colon behind it, and no number before it', () => {
    expect(named([unit('The keeper rang the office.', 'Answer:')])).to.equal('Answer');
    expect(named([unit('The keeper rang the office.', '11.2.3. Virtual lamps')])).to.equal('Virtual lamps');
  });

  it('is no verb that was taken for a noun', () => {
    expect(named([unit('The lamp has no engine: one trough of water goes down while another goes up.')])).to.not.match(/^Goes/); // prettier-ignore
  });

  it('is no measure and no share, and where nothing names it, its first words', () => {
    expect(named([unit('It rose by 12 percent year on year.')])).to.equal(
      'It rose by 12 percent year on year',
    );
    expect(named([unit('So what would they have done about it, if it had been them and not us?')])).to.match(/^So what would they .* …$/); // prettier-ignore
  });
});
