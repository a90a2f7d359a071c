/** The simulated text service: the common shape, replies by hand for the demo, and every way to behave badly. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { BEHAVIOURS, STAND_IN_KEY, spoilt, startTextService, type TextService } from '@ursprung/standins';
import { makeOrders } from '@ursprung/core/commission';
import type { Behaviour } from '@ursprung/standins';
import { checkerOf, demoContext } from '../../core/test/commission/context.ts';
import { clock, tagger } from '../../core/test/tools.ts';
import type { CommissionContext } from '@ursprung/core/commission';

describe('the stand-in writer', function () {
  let service: TextService;
  let context: CommissionContext;
  let order = '';
  before(async () => {
    service = await startTextService({ paceMs: 0 });
    context = await demoContext('footbridge.html', 180);
    order = makeOrders(context, {}, { clock, tagger })[0].text;
  });
  after(() => service.close());
  const ask = (model: string, more: object = {}, key = STAND_IN_KEY) =>
    fetch(`${service.url}/chat/completions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${key}` },
      body: JSON.stringify({ model, messages: [{ role: 'user', content: order }], ...more }),
    });
  const checked = (behaviour: Behaviour) => checkerOf(context).check(spoilt(order, behaviour), true);
  const kinds = (behaviour: Behaviour) =>
    new Set(checked(behaviour).lines.flatMap((l) => l.faults.map((f) => f.kind)));

  it('answers in one piece, with its tokens counted', async () => {
    const answer = (await (await ask('stand-in')).json()) as {
      choices: { message: { content: string } }[];
      usage: { total_tokens: number };
    };
    expect(answer.choices[0].message.content).to.equal(spoilt(order, 'good'));
    expect(answer.usage.total_tokens).to.be.greaterThan(500);
  });

  it('streams the same words, then the tokens, then the end', async () => {
    const raw = await (await ask('stand-in', { stream: true })).text();
    const data = [...raw.matchAll(/^data: (.*)$/gm)].map((m) => m[1]);
    expect(data.at(-1)).to.equal('[DONE]');
    const pieces = data
      .slice(0, -1)
      .map((d) => JSON.parse(d) as { choices: { delta?: { content?: string } }[]; usage?: object });
    expect(pieces.map((p) => p.choices[0]?.delta?.content ?? '').join('')).to.equal(spoilt(order, 'good'));
    expect(pieces.at(-1)!.usage).to.have.property('completion_tokens');
  });

  it('refuses a wrong key, a wrong address, and what is no JSON', async () => {
    expect((await ask('stand-in', {}, 'other')).status).to.equal(401);
    expect((await fetch(`${service.url}/models`)).status).to.equal(404);
    const broken = await fetch(`${service.url}/chat/completions`, {
      method: 'POST',
      headers: { authorization: `Bearer ${STAND_IN_KEY}` },
      body: '{',
    });
    expect(broken.status).to.equal(400);
  });

  it('fails on demand: 401, 500, and 429 once with the seconds to wait', async () => {
    expect((await ask('stand-in/unauthorised')).status).to.equal(401);
    expect((await ask('stand-in/broken')).status).to.equal(500);
    const busy = await ask('stand-in/too-many');
    expect([busy.status, busy.headers.get('retry-after')]).to.deep.equal([429, '1']);
    expect((await ask('stand-in/too-many')).status).to.equal(200);
  });

  it('breaks off in mid-stream on demand', async () => {
    let failed = false;
    await ask('stand-in/cut-off', { stream: true })
      .then((answer) => answer.text())
      .catch(() => (failed = true));
    expect(failed).to.equal(true);
  });

  it('has a reply by hand for every demo script, clean and in its own words', async () => {
    for (const [file, seconds] of [
      ['footbridge.html', 180],
      ['boat-lift.md', 420],
      ['ledger.txt', 180],
      ['sash-window.md', 120],
    ] as const) {
      const one = await demoContext(file, seconds);
      const text = makeOrders(one, {}, { clock, tagger }, { letters: 60_000 })[0].text;
      const reply = checkerOf(one).check(spoilt(text, 'good'), true);
      expect(
        reply.lines.flatMap((l) => l.faults.map((f) => `${l.text} ${f.says}`)),
        file,
      ).to.deep.equal([]);
      expect(reply.overlap, file).to.be.lessThan(0.02);
      expect(reply.lines.length, file).to.be.greaterThan(20);
    }
  });

  it('tells the facts of any other order by rule, every section as long as it was ordered, and says that it is a stand-in', async () => {
    const context = await demoContext('eels.txt', 90);
    const [eels] = makeOrders(context, {}, { clock, tagger });
    const reply = spoilt(eels.text, 'good');
    expect(reply).to.include('This is a stand-in for a text service.');
    const { lines, unsaid } = checkerOf(context).check(reply, true);
    expect(lines.length).to.be.greaterThan(8);
    expect(unsaid.length).to.be.at.most(1);
    for (const l of lines) expect(l.facts.length, l.text).to.be.greaterThan(0);
    const count = reply.split(/\s+/).length;
    expect(count).to.be.within(0.8 * eels.sections.reduce((n, s) => n + s.words, 0), 1.3 * eels.sections.reduce((n, s) => n + s.words, 0));
  }); // prettier-ignore

  const finds: [Behaviour, string[]][] = [
    ['made-up-number', ['value', 'thing']],
    ['lost-hedge', ['hedge']],
    ['altered-quote', ['quote']],
    ['invented-expert', ['quote', 'name']],
    ['wrong-name', ['name']],
    ['source-words', ['close']],
    ['obeys', ['nothing']],
    ['worst', ['value', 'name', 'twice']],
    ['repeated', ['twice']],
  ];
  for (const [behaviour, any] of finds)
    it(`${behaviour} is found`, () =>
      expect(
        [...kinds(behaviour)].some((k) => any.includes(k)),
        [...kinds(behaviour)].join(),
      ).to.equal(true));

  it('wrong length, talk, Markdown and another order are seen through', () => {
    expect(checked('wrong-length').lengths.filter((l) => l.offMs < 0).length).to.be.greaterThan(2);
    const plain = checked('good').lines.map((l) => [l.text, l.section]);
    expect(checked('chatter').lines.map((l) => [l.text, l.section])).to.deep.equal(plain);
    expect(checked('markdown').lines.map((l) => l.text)).to.deep.equal(plain.map(([t]) => t));
    expect(new Set(checked('other-order').lines.map((l) => `${l.text}${l.section}`))).to.deep.equal(
      new Set(plain.map((p) => p.join(''))),
    );
    expect(takeableIn('refusal')).to.equal(0);
  });
  const takeableIn = (behaviour: Behaviour) => checked(behaviour).lines.filter((l) => l.facts.length).length;

  it('ships its replies as text that anybody can read', () => {
    const file = readFileSync(new URL('../data/replies/footbridge.txt', import.meta.url), 'utf8');
    expect(file.split('\n')[1]).to.match(/^A1 \| \S/);
    expect(BEHAVIOURS.length).to.be.greaterThan(15);
  });
});
