/** What keys do to scenes, on the document itself. */
import { expect } from 'chai';
import { EditorState, type Command } from 'prosemirror-state';
import { breakScenes, type Scene } from '@ursprung/core/scenes/desk';
import { docFromSections, emptyLine, plainSections, type PlainSection } from '@ursprung/core/script';
import { getClock } from '../../server/src/tools.ts';
import {
  addSilent,
  asComputed,
  breakAt,
  joinBefore,
  moveCut,
  sayOfScene,
  silentSeconds,
  splitPlace,
  toggleHeld,
} from '../src/scenes/commands.ts';

const clock = getClock('even', 150);
const LONG =
  'At the foot of the tower the keeper opens a valve, and eight centimetres of water run into the upper trough, which then weighs more than the lower one.';
const script = (...texts: string[]): PlainSection[] => [
  {
    id: 'S1',
    title: 'One',
    role: 'ground',
    plannedMs: 0,
    locked: false,
    takes: [],
    lines: texts.map((text, i) => ({ ...emptyLine(`L${i + 1}`), text })),
  },
];
function open(...texts: string[]) {
  let state = EditorState.create({ doc: docFromSections(script(...texts)) });
  const sections = () => plainSections(state.doc);
  return {
    sections,
    scenes: (): Scene[] => breakScenes(sections(), clock, { frame: '16:9' }),
    run: (command: Command) => command(state, (tr) => (state = state.apply(tr))),
    type: (at: number, text: string) => (state = state.apply(state.tr.insertText(text, at))),
  };
}
const texts = (scenes: readonly Scene[]) => scenes.map((s) => s.text);

describe('scenes by hand', () => {
  it('split at the clause nearest the middle; the cuts that were there stay', () => {
    const desk = open(LONG, 'It fell.');
    const before = texts(desk.scenes());
    const [first] = desk.scenes();
    const place = splitPlace(first, () => LONG)!;
    expect(desk.run(breakAt(place.line, place.at))).to.equal(true);
    const after = texts(desk.scenes());
    expect(after).to.have.length(before.length + 1);
    expect(after.slice(2)).to.deep.equal(before.slice(1));
    expect(after[0] + ' ' + after[1]).to.equal(before[0]);
  });
  it('join with the one before, and go back to what is computed', () => {
    const desk = open(LONG);
    const before = texts(desk.scenes());
    expect(desk.run(joinBefore(desk.scenes()[1]))).to.equal(true);
    expect(texts(desk.scenes())).to.have.length(before.length - 1);
    expect(desk.run(joinBefore(desk.scenes()[0]))).to.equal(false);
  });
  it('move a cut by whole words, keeping what was said of the scene', () => {
    const desk = open(LONG);
    desk.run(sayOfScene(desk.scenes()[1], { light: 'dawn' }));
    const [a] = texts(desk.scenes());
    expect(desk.run(moveCut(desk.scenes()[1], 1))).to.equal(true);
    const scenes = desk.scenes();
    expect(scenes[0].text.split(' ')).to.have.length(a.split(' ').length + 1);
    expect(scenes[1].own.light).to.equal('dawn');
  });
  it('hold a scene as it is: no other takes its end in, nothing splits it', () => {
    const desk = open(LONG);
    const before = texts(desk.scenes());
    desk.run(toggleHeld(desk.scenes()[0]));
    expect(texts(desk.scenes())).to.deep.equal(before);
    expect(desk.scenes()[0].held).to.equal(true);
    desk.run(toggleHeld(desk.scenes()[0]));
    expect(desk.scenes()[0].held).to.equal(false);
  });
  it('a word is said of, and taken back to what is computed', () => {
    const desk = open(LONG);
    desk.run(sayOfScene(desk.scenes()[0], { description: 'A valve', size: 'close-up' }));
    expect(desk.scenes()[0].own).to.deep.equal({ description: 'A valve', size: 'close-up' });
    desk.run(sayOfScene(desk.scenes()[0], { description: undefined }));
    expect(desk.scenes()[0].own).to.deep.equal({ size: 'close-up' });
    desk.run(asComputed(desk.scenes()[0]));
    expect(desk.scenes()[0].own).to.deep.equal({});
  });
  it('cuts go with their words when something is typed before them', () => {
    const desk = open('He ran, he jumped, he fell.');
    desk.run(breakAt('L1', 8));
    desk.type(2, 'Yesterday ');
    expect(texts(desk.scenes())).to.deep.equal(['Yesterday He ran,', 'he jumped, he fell.']);
  });
  it('a silent scene has its own seconds, can be said of, and is taken out again', () => {
    const desk = open('He fell.', 'It rose.');
    desk.run(addSilent(desk.scenes()[0]));
    const silent = () => desk.scenes().find((s) => s.silent)!;
    expect(silent().endMs - silent().startMs).to.equal(3000);
    desk.run(silentSeconds(silent(), 4500));
    desk.run(sayOfScene(silent(), { search: ['empty tower'] }));
    expect([silent().endMs - silent().startMs, silent().own.search]).to.deep.equal([4500, ['empty tower']]);
    desk.run(silentSeconds(silent(), null));
    expect(desk.scenes().some((s) => s.silent)).to.equal(false);
  });
  it('what is not there is left alone', () => {
    const desk = open('He fell.');
    const scene = { ...desk.scenes()[0], parts: [{ line: 'gone', from: 0, to: 3 }] };
    for (const command of [
      joinBefore(scene),
      toggleHeld(scene),
      moveCut(scene, 1),
      addSilent(scene),
      asComputed(scene),
      breakAt('gone', 2),
    ])
      expect(desk.run(command)).to.equal(false);
  });
});
