/** The demo workspace: two channels, six sources (one a news page with everything that surrounds one), three scripts: one told by hand to its end, one half-way, one by rule; all invented. */
import { readFileSync } from 'node:fs';
import type { ScriptOrder, ChannelSettings, Rights } from '@ursprung/server';

/** What the demo needs of the server's service. */
export interface DemoTarget {
  library: () => Promise<{ channels: readonly unknown[] }>;
  addChannel: (input: { name: string; settings: ChannelSettings }) => Promise<{ id: string }>;
  addSource: (bytes: Uint8Array, rights: Rights) => Promise<{ id: string }>;
  addScript: (input: ScriptOrder) => Promise<{ id: string }>;
  takeReply: (
    id: string,
    input: { reply: string; by: { kind: 'person'; who: string; at: string }; first?: number },
  ) => Promise<unknown>;
}

const FOLDER = new URL('../../demo/data/sources/', import.meta.url);

/** File names of the demo's sources, by short name. */
export const DEMO_SOURCES = {
  footbridge: 'footbridge.html',
  lift: 'boat-lift.md',
  eels: 'eels.txt',
  ledger: 'ledger.txt',
  sash: 'sash-window.md',
  gate: 'lock-gate.html',
} as const;

/** Whether each may be retold, as a desk would have it on an ordinary day. */
const RIGHTS: Readonly<Record<keyof typeof DEMO_SOURCES, Rights>> = {
  footbridge: 'granted',
  lift: 'open',
  eels: 'open',
  ledger: 'asked',
  sash: 'own',
  gate: 'not asked',
};

/** The bytes of one demo source. */
export const demoSource = (name: keyof typeof DEMO_SOURCES): Uint8Array =>
  readFileSync(new URL(DEMO_SOURCES[name], FOLDER));

const REPLIES = new URL('../../standins/data/replies/', import.meta.url);
/** What a person wrote for a source of the demo, as it would be pasted: without the facts it rests on. */
export const demoReply = (name: 'boat-lift' | 'footbridge'): string =>
  readFileSync(new URL(`${name}.txt`, REPLIES), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((row) => row.slice(row.indexOf(' | ') + 3))
    .join('\n');
const WRITER = { kind: 'person', who: 'Nell Varga', at: '2026-02-11T10:00:00.000Z' } as const;

/** Fills an empty workspace; one that has a channel already is left as it is. `byHand`: with what a person wrote, as it ships. */
export async function loadDemo(target: DemoTarget, byHand = false): Promise<void> {
  if ((await target.library()).channels.length) return;
  const machinery: ChannelSettings = {
    frame: '16:9',
    mood: 'calm',
    pace: 150,
    voice: 'even',
    usual: { from: 300, to: 600 },
  };
  const lockside: ChannelSettings = {
    frame: '9:16',
    mood: 'brisk',
    pace: 190,
    voice: 'quick',
    usual: { from: 45, to: 120 },
  };
  const quiet = await target.addChannel({ name: 'Quiet Machinery', settings: machinery });
  const told = await target.addChannel({ name: 'Told at the Lockside', settings: lockside });
  const ids = {} as Record<keyof typeof DEMO_SOURCES, string>;
  for (const name of Object.keys(DEMO_SOURCES) as (keyof typeof DEMO_SOURCES)[])
    ids[name] = (await target.addSource(demoSource(name), RIGHTS[name])).id;
  const { usual: _a, ...long } = machinery;
  const { usual: _b, ...short } = lockside;
  for (const { channelId, source, title, target: length, reply, ...settings } of [
    {
      ...long,
      channelId: quiet.id,
      source: ids.lift,
      reply: { reply: 'boat-lift' } as const,
      title: 'The Lift That Weighs a Boat at Nothing',
      target: about(byHand ? 605 : 420),
    },
    {
      ...long,
      channelId: quiet.id,
      source: ids.footbridge,
      reply: { reply: 'footbridge', first: 3 } as const,
      title: 'The Footbridge That Fell into Step',
      target: about(byHand ? 240 : 210),
    },
    {
      ...short,
      channelId: told.id,
      source: ids.sash,
      reply: null,
      title: 'Free a Stuck Sash Window',
      target: atMost(120),
    },
  ]) {
    const { id } = await target.addScript({ ...settings, channelId, sourceId: source, title, target: length, seed: 1 }); // prettier-ignore
    if (byHand && reply) await target.takeReply(id, { ...reply, reply: demoReply(reply.reply), by: WRITER });
  }
}

const about = (seconds: number) => ({ kind: 'point' as const, seconds });
const atMost = (seconds: number) => ({ kind: 'ceiling' as const, seconds });
