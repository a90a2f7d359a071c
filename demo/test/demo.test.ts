import { expect } from 'chai';
import { readSource } from '@ursprung/core/source';
import { DEMO_SOURCES, demoSource, loadDemo } from '../src/index.ts';

const words = (text: string) => text.split(/\s+/).filter(Boolean).length;

describe('the demo', () => {
  it('has a source of each kind, long enough to be real', async () => {
    const least = { footbridge: 700, lift: 2000, eels: 180, ledger: 900, sash: 350, gate: 400 };
    const kinds = {
      footbridge: 'news',
      lift: 'encyclopedia',
      eels: 'abstract',
      ledger: 'forum',
      sash: 'howto',
      gate: 'news',
    };
    for (const name of Object.keys(DEMO_SOURCES) as (keyof typeof DEMO_SOURCES)[]) {
      const doc = await readSource(demoSource(name));
      expect(doc.kind, name).to.equal(kinds[name]);
      expect(words(doc.text), name).to.be.at.least(least[name]);
      expect(doc.text, `${name}: typewriter quotes`).not.to.match(/["']/);
    }
  });

  it('has a page with everything that surrounds a text, of which nothing is read', async () => {
    const doc = await readSource(demoSource('gate'));
    expect(doc.blocks.filter((b) => b.type === 'reply')).to.have.length(3);
    const own = doc.blocks.filter((b) => b.type !== 'reply').map((b) => b.text);
    expect(own.join(' ')).not.to.match(/partners|Share|Sign up|inbox|Read also|Most read|goats|Heron|©/);
    expect(own.at(-1)).to.match(/turn it to the wall tonight/);
    expect(doc.leftOut!.length).to.be.greaterThan(20);
  });

  it('fills an empty workspace once, with scripts of sources it has just put in', async () => {
    const channels: string[] = [];
    const sources: string[] = [];
    const replies: unknown[] = [];
    const scripts: { channelId: string; sourceId?: string | undefined; seconds: number }[] = [];
    const target = {
      library: () => Promise.resolve({ channels }),
      addChannel: ({ name }: { name: string }) => Promise.resolve({ id: `c${channels.push(name)}` }),
      addSource: (bytes: Uint8Array) => Promise.resolve({ id: `s${sources.push(String(bytes.length))}` }),
      addScript: (input: { channelId: string; sourceId?: string | undefined; target: { seconds: number } }) =>
        Promise.resolve({ id: `x${scripts.push({ ...input, seconds: input.target.seconds })}` }),
      takeReply: (id: string, { reply, first }: { reply: string; first?: number }) =>
        Promise.resolve(replies.push([id, words(reply) > 500, first])),
    };
    await loadDemo(target, true);
    await loadDemo(target, true);
    expect(channels).to.deep.equal(['Quiet Machinery', 'Told at the Lockside']);
    expect(sources).to.have.length(6);
    expect(scripts.map((s) => s.seconds)).to.deep.equal([605, 240, 120]);
    expect(replies).to.deep.equal([
      ['x1', true, undefined],
      ['x2', true, 3],
    ]);
    for (const s of scripts) expect(Number(s.sourceId!.slice(1))).to.be.within(1, 5);
  });
});
