/** What the checks find in replies of our own making: four sets, each with known faults, labelled line by line. */
import { expect } from 'chai';
import { makeReplyChecker, replyOrder, stops, type CheckedReply } from '../../src/commission/index.ts';
import { makeRetoldChecker, oldFigures } from '../../src/trace/index.ts';
import { indexFacts } from '../../src/trace/align.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { byPlace } from '../places.ts';
import { usualBrief } from '../../src/plan/index.ts';
import { readSource } from '../../src/source/index.ts';
import { clock, tagger } from '../tools.ts';
import { kin } from './context.ts';
import { FOURTH, SEEN, THIRD, UNSEEN, type LabelledReply } from './replies.ts';

/** Each reply is checked once for all that is asked of it. */
const known = new Map<LabelledReply, CheckedReply>();
function checkedReply(r: LabelledReply): CheckedReply {
  const before = known.get(r);
  if (before) return before;
  const ids = [...new Set([...r.lines.flatMap((l) => l.facts), ...r.must])];
  const section = {
    number: 1,
    id: 'S1',
    title: 'One',
    seconds: r.seconds ?? 30,
    words: 80,
    msAWord: 400,
    facts: ids.map((id) => ({
      ref: id,
      source: 'A',
      fact: id,
      text: r.facts.find((f) => f.id === id)!.text,
      must: r.must.includes(id),
      told: true,
      strength: 0.5,
    })),
  };
  const source = {
    letter: 'A',
    title: r.source.title,
    kind: r.source.kind,
    text: r.source.text,
    facts: r.facts,
    ...(r.source.published ? { published: r.source.published } : {}),
  };
  const brief = { ...usualBrief(), avoid: [...r.never] };
  const order = replyOrder({ brief, style: null, sources: [source] }, [section]);
  const checked = makeReplyChecker([source], order, { tagger, kin, clock }).check(
    r.lines.map((l) => l.text).join('\n'),
    true,
  );
  known.set(r, checked);
  return checked;
}

interface Count {
  clean: number;
  accused: number;
  marked: number;
  planted: number;
  found: number;
  figures: number;
  figuresFound: number;
}
function count(replies: readonly LabelledReply[]): Count {
  const n: Count = { clean: 0, accused: 0, marked: 0, planted: 0, found: 0, figures: 0, figuresFound: 0 };
  for (const r of replies) {
    const checked = checkedReply(r);
    expect(checked.lines, r.name).to.have.length(r.lines.length);
    r.lines.forEach(({ faults }, i) => {
      const found = checked.lines[i].faults.length > 0;
      if (!faults.length) {
        n.clean++;
        if (checked.lines[i].faults.some(stops)) n.accused++;
        else if (found) n.marked++;
        return;
      }
      n.planted++;
      if (found) n.found++;
      if (faults.includes('value') || faults.includes('quote')) {
        n.figures++;
        if (found) n.figuresFound++;
      }
      for (const f of checked.lines[i].faults) expect(f.says, f.kind).to.match(/^[A-Z“0-9][^\n]+[.”]$/);
    });
    n.planted += r.missing.length;
    n.found += r.missing.filter((id) => checked.unsaid.some((u) => u.fact === id)).length;
    if (r.seconds !== null) {
      n.planted++;
      if (checked.lengths[0].offMs !== 0) n.found++;
    }
  }
  return n;
}

const PAGE = await readSource(
  'The mill at Orle\n\nThe mill at Orle was built in 1841 by the miller Jan Weck and his brother. Its wheel is about four metres across and is made of oak. Most farmers brought their corn on Mondays. Ice may have broken the axle, the county engineer says. The dam did not give way. “We never stopped for a flood,” said Weck. The mill closed after the war began. In 1902 the price fell from 9 to 4 pounds. It is not known whether the wheel can be saved.',
  { kind: 'encyclopedia' },
);

describe('faults in replies', function () {
  it('are found in 84 of 100 planted places, values and quotations in 97, at most 2 clean lines in 100 are accused and 4 marked', () => {
    const counts = [SEEN, UNSEEN, THIRD, FOURTH].map(count);
    const sum = (of: (n: Count) => number) => counts.reduce((total, n) => total + of(n), 0);
    expect(sum((n) => n.found) / sum((n) => n.planted)).to.be.at.least(0.84);
    expect(sum((n) => n.figuresFound) / sum((n) => n.figures)).to.be.at.least(0.97);
    expect(sum((n) => n.accused) / sum((n) => n.clean)).to.be.at.most(0.02);
    expect(sum((n) => n.marked) / sum((n) => n.clean)).to.be.at.most(0.04);
    expect(sum((n) => n.clean + n.planted)).to.be.greaterThan(700);
  });

  it('lines are aligned with the facts they tell in 92 of 100 of 720 labelled ones', () => {
    let right = 0;
    let of = 0;
    for (const r of [...SEEN, ...UNSEEN, ...THIRD, ...FOURTH]) {
      const index = indexFacts(
        r.facts.map((f) => ({ source: 'A', id: f.id, text: f.text })),
        kin,
      );
      index.align(r.lines.map((l) => l.text)).forEach((found, i) => {
        const { facts, faults } = r.lines[i];
        if (!facts.length && faults.length) return;
        of++;
        if (facts.length ? found.length > 0 && facts.includes(found[0].fact) : !found.length) right++;
      });
    }
    expect(of).to.be.greaterThan(700);
    expect(right / of).to.be.at.least(0.92);
  });
  const facts = byPlace(extractFacts(PAGE, tagger));
  const checker = makeRetoldChecker([{ letter: 'A', text: PAGE.text, facts }], { tagger, kin });
  const fact = (words: string) => facts.find((f) => f.text.includes(words))!.id;
  const found = (words: string, text: string) =>
    checker.check({ text, facts: [{ source: 'A', fact: fact(words) }] });

  const cases: [kind: string, words: string, bad: string, good: string, mend?: string][] = [
    [
      'value',
      'built in 1841',
      'They built the mill in 1851.',
      'They built the mill in 1841.',
      'They built the mill in 1841.',
    ],
    [
      'thing',
      'built in 1841',
      'The miller Jan Weck and his sister built it.',
      'The miller Jan Weck and his brother built it.',
      'The miller Jan Weck and his brother built it.',
    ],
    [
      'hedge',
      'four metres',
      'The wheel measures four metres.',
      'The wheel measures some four metres.',
      'The wheel measures about four metres.',
    ],
    [
      'hedge',
      'broken the axle',
      'Ice broke the axle, says the county engineer.',
      'Perhaps ice broke the axle, says the county engineer.',
      'Ice may have broken the axle, says the county engineer.',
    ],
    [
      'said',
      'broken the axle',
      'Ice may have broken the axle.',
      'The engineer thinks that ice may have broken the axle.',
    ],
    [
      'said',
      'broken the axle',
      'Ice may have broken the axle, the mayor says.',
      'Ice may have broken the axle, the engineer says.',
    ],
    [
      'whole',
      'Most farmers',
      'All farmers came with their corn on a Monday.',
      'Most farmers came with their corn on a Monday.',
    ],
    ['denial', 'did not give way', 'The dam gave way.', 'The dam never gave way.'],
    [
      'quote',
      'never stopped',
      '“We always stopped for a flood,” said Weck.',
      '“We never stopped for a flood,” said Weck.',
      '“We never stopped for a flood,” said Weck.',
    ],
    [
      'cause',
      'after the war',
      'The mill closed because the war began.',
      'The war began, and the mill closed.',
    ],
    [
      'order',
      'after the war',
      'The mill closed before the war began.',
      'The mill closed after the war began.',
    ],
    [
      'direction',
      'price fell',
      'The price went from 4 to 9 pounds.',
      'The price went from 9 to 4 pounds.',
      'The price went from 9 to 4 pounds.',
    ],
    ['hedge', 'not known', 'The wheel can be saved.', 'Can the wheel be saved?'],
    [
      'name',
      'built in 1841',
      'The miller Jan Weck built it with Peter Holm.',
      'The miller Jan Weck built it.',
    ],
  ];
  for (const [kind, words, bad, good, mend] of cases) {
    it(`${kind}: “${bad}” is accused, “${good}” is not`, () => {
      const faults = found(words, bad);
      expect(faults.map((f) => f.kind)).to.include(kind);
      expect(found(words, good)).to.deep.equal([]);
      if (mend) expect(faults.find((f) => f.kind === kind)!.mend).to.equal(mend);
    });
  }

  it('every mend leaves nothing wrong in the line', () => {
    for (const r of [...SEEN, ...UNSEEN, ...THIRD, ...FOURTH])
      for (const l of checkedReply(r).lines)
        if (l.mended !== null && l.mended !== '' && l.faults.length) {
          const own = makeRetoldChecker([{ letter: 'A', text: r.source.text, facts: r.facts }], {
            tagger,
            kin,
          });
          const i = l.number - 1;
          const left = own.check({
            text: l.mended,
            facts: l.facts,
            before: r.lines[i - 1]?.text ?? '',
            behind: r.lines[i + 1]?.text ?? '',
          });
          expect(left.filter(stops), `${r.name}: ${l.text} → ${l.mended}`).to.deep.equal([]);
        }
  });

  it('knows an old figure once a newer report has another', async () => {
    const dated = async (published: string, text: string) => {
      const source = await readSource(`Boats on the mud\n\n${text}`, { kind: 'news' });
      return {
        letter: published.endsWith('12') ? 'A' : 'B',
        facts: byPlace(extractFacts(source, tagger)),
        published,
      };
    };
    const old = oldFigures([
      await dated('2025-10-12', 'Forty boats lie on the mud at Sluice, the harbour office said.'),
      await dated('2025-10-13', 'Fifty-two boats lie on the mud at Sluice, the harbour office said.'),
    ]);
    expect([...old].map(([key, [{ value, newer }]]) => [key, value, newer.source])).to.deep.equal([
      ['A:f1', 40, 'B'],
    ]);
  });
});
