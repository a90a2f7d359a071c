/** A kit for tests: the demo's report told in a minute and a half, or sections of one's own. */
import { draftScript } from '../../src/draft/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { makeKit, type Kit, type KitInput } from '../../src/handoff/index.ts';
import { emptyLine, printedSource, type PlainLine, type PlainSection } from '../../src/script/index.ts';
import { readSource } from '../../src/source/index.ts';
import { getFonts, getKin, getSenses } from '../../../server/src/tools.ts';
import { clock, demoFile, pronouncer, solver, tagger } from '../tools.ts';

export const tools = { tagger, senses: getSenses(), kin: getKin(), clock, pronouncer, fonts: getFonts() };
const settings = {
  title: 'The lift: a “test” & more',
  frame: '16:9' as const,
  mood: 'calm' as const,
  pace: 150,
  voice: 'even',
  seed: 1,
  shape: 'own',
  target: { kind: 'point' as const, seconds: 90 },
};
export const input = (sections: readonly PlainSection[], more: Partial<KitInput> = {}): KitInput => ({
  settings,
  sections,
  sources: [],
  printed: [],
  channel: { name: 'Quiet Machinery', style: 'ink and paper', sayings: [] },
  cast: [],
  upload: {},
  rate: '25',
  ssmlLimit: 5000,
  children: false,
  synthetic: { voice: false, pictures: false },
  ...more,
});
export const kitOf = (sections: readonly PlainSection[], more: Partial<KitInput> = {}): Kit =>
  makeKit(input(sections, more), tools);

let fresh = 0;
export const line = (text: string, more: Partial<PlainLine> = {}): PlainLine => ({
  ...emptyLine(`L${++fresh}`),
  text,
  ...more,
});
export const section = (title: string, ...lines: PlainLine[]): PlainSection => ({
  id: `S${++fresh}`,
  title,
  role: 'ground',
  plannedMs: 0,
  locked: false,
  takes: [],
  lines,
});

/** The demo's report as a script, with its source. */
export async function toldKit(seconds: number, more: Partial<KitInput> = {}): Promise<Kit> {
  const document = await readSource(demoFile('footbridge.html'));
  const facts = extractFacts(document, tagger);
  const { sections } = draftScript(
    document,
    { target: { kind: 'point', seconds }, mood: 'calm', seed: 1 },
    { tagger, clock, solver: await solver() },
  );
  return kitOf(sections, {
    settings: { ...settings, title: document.title, target: { kind: 'point', seconds } },
    sources: [{ letter: 'A', document, facts, rights: 'granted' }],
    printed: [{ id: 'A', ...printedSource(document, facts) }],
    ...more,
  });
}
