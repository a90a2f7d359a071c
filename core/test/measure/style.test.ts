/** House style: measures with spread and examples; channels told apart; drafts that follow theirs. */
import { expect } from 'chai';
import {
  MEASURES,
  againstStyle,
  houseStyle,
  readability,
  soundsLike,
  styleFigures,
} from '../../src/measure/index.ts';
import { houseOf, briefSchema } from '../../src/plan/index.ts';
import { draftScript } from '../../src/draft/index.ts';
import { openSource } from '../../src/source/index.ts';
import { sectionsOfLines } from '../../src/review/index.ts';
import { clock, demoFile, pronouncer, solver, tagger } from '../tools.ts';
import { frequencyOf } from '../../../server/src/frequency.ts';
import { LONG_PAGES } from '../draft/pages.ts';

const tools = { clock, pronouncer, tagger, frequency: frequencyOf };
const script = (text: string) =>
  sectionsOfLines(text.split(/(?<=[.!?]) /).map((t, i) => ({ id: `L${i}`, text: t })));

const SHORT = [
  'You know this bridge. It sways. Don’t look down! Why does it move? Because you do. You can’t stop it. So they shut it.',
  'Look at this lift. It has no engine. Isn’t that odd? Water does it all. You’d never guess. It’s that simple.',
  'This clock stopped. Nobody came. Would you? It’s still here. You can hear it. Don’t touch it.',
];
const LONG = [
  'The bridge that was opened in the spring of that year had been designed by an engineer of considerable reputation, although the council had not been consulted. The movement was observed by several hundred people, and it was recorded by instruments.',
  'The lift had been constructed between the upper canal and the harbour, and it was operated without an engine for more than a century. The troughs were suspended from cables, which were inspected annually by a crew of eleven.',
  'The shop was situated in a narrow street behind the market, where it had been kept by the same family for four generations. The clock was entered in the ledger on a Tuesday, and it was never collected.',
];

describe('the style of a channel', () => {
  it('has at least 24 measures, each with a middle, a spread and lines that show it', () => {
    const style = houseStyle(SHORT.map(script), tools);
    expect(style.measures).to.have.length(MEASURES.length);
    expect(style.measures.filter((m) => m.middle !== null && m.spread !== null).length).to.be.at.least(24);
    for (const m of style.measures) for (const e of m.examples) expect(SHORT.join(' ')).to.include(e);
    expect(style.scripts).to.equal(3);
  });
  const figure = (text: string, id: string) => styleFigures(script(text), tools)[id];
  it('counts what it says it counts', () => {
    expect(figure('One two three. Four five six seven eight.', 'sentence')).to.equal(4);
    expect(figure('You and you. We did.', 'you')).to.equal(40);
    expect(figure('It isn’t so. It is not so.', 'contractions')).to.be.closeTo(0.5, 0.17);
    expect(figure('But why? And how? It fell.', 'connectives')).to.be.closeTo(66.67, 0.1);
    expect(figure('The wall was built by hand. He ran.', 'passive')).to.equal(50);
    expect(figure('It cost 12 pounds and three boats.', 'figures')).to.equal(50);
    expect(figure('The quincunx of the weir fell in.', 'rare')).to.be.greaterThan(0);
  });
  it('uses the reading grade of Kincaid and others (1975)', () => {
    const text = LONG[0];
    expect(figure(text, 'grade')).to.equal(readability(text.replace(/(?<=[.!?]) /g, '\n'), pronouncer).grade);
  });
  it('says where a script differs, farthest first, and nowhere for its own', () => {
    const style = houseStyle(SHORT.map(script), tools);
    const far = againstStyle(styleFigures(script(LONG[0]), tools), style);
    expect(far.slice(0, 12).map((d) => d.id)).to.include('sentence');
    expect(far.every((d, i) => i === 0 || Math.abs(far[i - 1].far) >= Math.abs(d.far))).to.equal(true);
    const own = againstStyle(styleFigures(script(SHORT[0]), tools), style);
    const mean = (list: typeof own) =>
      list.reduce((n, d) => n + Math.min(6, Math.abs(d.far)), 0) / list.length;
    expect(mean(own) * 2).to.be.lessThan(mean(far));
  });
  it('tells two channels’ scripts apart, each left out in turn', () => {
    const channels = (without: string) =>
      [SHORT, LONG].map((list, name) => ({
        name,
        style: houseStyle(list.filter((t) => t !== without).map(script), tools),
      }));
    for (const [name, list] of [SHORT, LONG].entries())
      for (const t of list)
        expect(soundsLike(styleFigures(script(t), tools), channels(t))?.name, t).to.equal(name);
  });
  it('refuses to measure nothing', () => expect(() => houseStyle([[]], tools)).to.throw(RangeError));
});

/** What drafting takes over from a channel, as measures see it. */
const STEERED = ['sentence', 'longest', 'short', 'contractions', 'questions', 'commas'];
/** A person’s own story and a guide’s steps keep their words, whatever the channel. */
const KEPT_AS_WRITTEN = new Set(['forum', 'howto']);

describe('drafts of two channels from the same sources', () => {
  it('are told apart by the measures', async () => {
    const channels = [SHORT, LONG].map((list, name) => ({
      name,
      style: houseStyle(list.map(script), tools),
    }));
    const documents = [
      ...(await Promise.all(
        ['footbridge.html', 'boat-lift.md', 'eels.txt'].map((n) => openSource(demoFile(n))),
      )),
      ...LONG_PAGES.map((p) => p.source).filter((p) => !KEPT_AS_WRITTEN.has(p.kind)),
    ];
    const solve = await solver();
    const drafts: { source: number; channel: number; at: number[] }[] = [];
    for (const [source, document] of documents.entries())
      for (const { name, style } of channels) {
        const brief = briefSchema.parse({ house: houseOf(style) });
        const options = {
          target: { kind: 'point' as const, seconds: 120 },
          mood: 'calm' as const,
          seed: 1,
          brief,
        };
        const { sections } = draftScript(document, options, { tagger, clock, solver: solve });
        const figures = styleFigures(sections, tools);
        drafts.push({ source, channel: name, at: STEERED.map((id) => figures[id] ?? 0) });
      }
    // Nearest centroid on standardised measures, each source left out in turn.
    const spread = STEERED.map((_, k) => {
      const list = drafts.map((d) => d.at[k]);
      const mean = list.reduce((a, b) => a + b, 0) / list.length;
      return Math.sqrt(list.reduce((n, v) => n + (v - mean) ** 2, 0) / list.length) || 1;
    });
    const right = drafts.filter((d) => {
      const distance = [0, 1].map((channel) => {
        const others = drafts.filter((o) => o.channel === channel && o.source !== d.source);
        return STEERED.reduce((n, _, k) => {
          const centre = others.reduce((a, o) => a + o.at[k], 0) / others.length;
          return n + ((d.at[k] - centre) / spread[k]) ** 2;
        }, 0);
      });
      return distance[d.channel] < distance[1 - d.channel];
    }).length;
    expect(drafts.length).to.be.at.least(20);
    expect(right / drafts.length).to.be.at.least(0.8);
  });
});
