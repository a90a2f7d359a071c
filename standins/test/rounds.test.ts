/** An order told in rounds by the stand-in, well and as badly as it can: what comes of it, and that nothing wrong gets in. */
import { expect } from 'chai';
import {
  makeReplyChecker,
  readReply,
  replyOrder,
  orderedSections,
  standingAfter,
  takenRounds,
  type CommissionContext,
} from '@ursprung/core/commission';
import { BEHAVIOURS, spoilt, type Behaviour } from '@ursprung/standins';
import { demoContext, kin } from '../../core/test/commission/context.ts';
import { clock, tagger } from '../../core/test/tools.ts';

const tools = { clock, tagger, kin };
const BY = { kind: 'stand-in', who: 'the stand-in', at: '2026-03-01T09:00:00.000Z' } as const;
const fresh = () => {
  let n = 0;
  return () => `t${n++}`;
};

function told(context: CommissionContext, behaviour: Behaviour, rounds = 3) {
  const answers: string[] = [];
  const orders: string[] = [];
  for (;;) {
    const at = standingAfter({ context, scope: {}, rounds }, answers, tools);
    if (!at.next) return { answers, orders, at, taken: takenRounds(context, at.checked!, { by: BY, fresh: fresh() }, clock) };
    expect(at.next.round).to.be.at.most(rounds);
    orders.push(at.next.text);
    answers.push(spoilt(at.next.text, behaviour));
  }
} // prettier-ignore

describe('an order told in rounds', function () {
  this.timeout(120_000);
  let hand: CommissionContext;
  let rule: CommissionContext;
  before(async () => {
    hand = await demoContext('footbridge.html', 180);
    rule = await demoContext('eels.txt', 90);
  });
  /** Lines that a way to be wrong writes and an honest writer doesn't; what is in the source's words is true, so none. */
  const planted = (context: CommissionContext, behaviour: Behaviour): string[] => {
    const order = standingAfter({ context, scope: {}, rounds: 1 }, [], tools).next!.text;
    const lines = (b: Behaviour) => readReply(spoilt(order, b)).lines.map((l) => l.text);
    const honest = new Set(lines('good'));
    return behaviour === 'source-words' ? [] : lines(behaviour).filter((l) => !honest.has(l));
  };
  const SPEAKS = BEHAVIOURS.filter(
    (b) => !['unauthorised', 'too-many', 'broken', 'slow', 'silent', 'huge'].includes(b),
  );

  for (const behaviour of SPEAKS)
    it(`by a writer that is ${behaviour}: ends at its seconds, with nothing wrong in it`, () => {
      const { taken, at } = told(hand, behaviour);
      expect(Math.abs(taken.offMs)).to.be.at.most(1800);
      const words = taken.sections.flatMap((s) => s.lines.map((l) => l.text)).join('\n');
      expect(words).to.not.match(/Wren|the source asks|stand-in|Word count|Let me know|<think>|1066/);
      const ids = taken.sections.flatMap((s) => s.lines.map((l) => l.id));
      expect(new Set(ids).size).to.equal(ids.length);
      const own = taken.sections.flatMap((s) => s.lines.filter((l) => l.by && l.text).map((l) => l.text));
      const clean = new Set(at.checked!.lines.flatMap((l) => (l.mended ? [l.mended] : [])));
      for (const text of own) expect([...clean]).to.include(text);
      for (const text of planted(hand, behaviour)) expect(own).to.not.include(text);
    }); // prettier-ignore

  it('of a source nobody wrote for has most of its lines from the writer, mostly not in the source’s words', () => {
    const { taken, at } = told(rule, 'good');
    expect(taken.count.taken / (taken.count.taken + taken.count.byRule)).to.be.greaterThan(0.6);
    const checked = makeReplyChecker(rule.sources, replyOrder(rule, orderedSections(rule, clock)), tools);
    const own = taken.sections.flatMap((s) => s.lines.filter((l) => l.by && l.text).map((l) => l.text));
    expect(checked.check(own.join('\n'), true).overlap).to.be.lessThan(0.25);
    expect(at.next).to.equal(null);
  });

  it('goes on from whatever was answered, as if it had never stopped', () => {
    const { answers, orders } = told(rule, 'worst');
    expect(orders.length).to.be.greaterThan(1);
    answers.forEach((_, i) => {
      const at = standingAfter({ context: rule, scope: {}, rounds: 3 }, answers.slice(0, i), tools);
      expect(at.next!.text).to.equal(orders[i]);
    });
  });

  it('asks again only for what failed, and not once more for what failed just so', () => {
    const { orders, at } = told(hand, 'invented-expert');
    expect(orders[0]).to.match(/^ORDER: narration for a whole script/);
    for (const o of orders.slice(1)) expect(o).to.match(/^ORDER: write /);
    // It stops when an answer changed nothing, well before its rounds are used up.
    const refused = told(hand, 'refusal', 8).orders;
    expect(refused.length).to.be.lessThan(5);
    refused.slice(1).forEach((order, i) => expect(order).to.not.equal(refused[i]));
    expect(at.checked!.lines.some((l) => /Wren/.test(l.text) && l.mended !== '')).to.equal(false);
  });

  it('asks a writer who wrote too little for more, by facts, and gets it', () => {
    const { orders, taken } = told(hand, 'wrong-length');
    expect(orders[1]).to.include('It is too short. Say these too, one line for each:');
    expect(taken.count.taken).to.be.greaterThan(taken.count.byRule);
  });

  it('of one section or one line touches nothing else', () => {
    const at = (scope: { section?: string; line?: string }) => {
      const answers: string[] = [];
      for (;;) {
        const { next, checked } = standingAfter({ context: hand, scope, rounds: 2 }, answers, tools);
        if (!next) return takenRounds(hand, checked!, { by: BY, fresh: fresh(), scope }, clock);
        answers.push(spoilt(next.text, 'good'));
      }
    };
    const { id, lines } = hand.sections[2];
    const section = at({ section: id });
    section.sections.forEach((s, i) => {
      const texts = (x: typeof s) => x.lines.map((l) => l.text);
      if (s.id !== id) expect(texts(s)).to.deep.equal(texts(hand.sections[i]));
      else expect(s.lines.some((l) => l.by)).to.equal(true);
    });
    const line = at({ section: id, line: lines[1].id });
    const told = line.sections.flatMap((s) => s.lines).filter((l) => l.by);
    expect(told.map((l) => l.id)).to.deep.equal([lines[1].id]);
    expect(told[0].takes.at(-1)!.text).to.equal(lines[1].text);
  });

  it('leaves a section alone that was written in meanwhile', () => {
    const { at } = told(hand, 'good');
    const [, second] = hand.sections;
    const lines = second.lines.map((l, i) => (i === 0 ? { ...l, text: 'I wrote this myself, just now.' } : l));
    const sections = hand.sections.map((s) => (s.id === second.id ? { ...s, lines } : s));
    const taken = takenRounds({ ...hand, sections }, at.checked!, { by: BY, fresh: fresh(), stays: new Set([second.id]) }, clock);
    expect(taken.sections[1].lines.map((l) => l.text)).to.deep.equal(lines.map((l) => l.text));
    expect(taken.sections[2].lines.some((l) => l.by)).to.equal(true);
  }); // prettier-ignore
});
