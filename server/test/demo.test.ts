/** The demo as it ships: its main script told by hand to the end, another half-way; what a reader of them would check. */
import { expect } from 'chai';
import { demoReply, loadDemo } from '@ursprung/demo';
import { makeReplyChecker } from '@ursprung/core/commission';
import { docFromJson, plainSections, type PlainSection } from '@ursprung/core/script';
import type { Fact } from '@ursprung/core/facts';
import type { SourceDocument } from '@ursprung/core/source';
import { getClock, getKin, getTagger } from '../src/tools.ts';
import { freshServer, type TestServer } from './helpers.ts';

describe('the demo as it ships', function () {
  this.timeout(180_000);
  let server: TestServer;
  let scripts: { id: string; settings: { title: string } }[];
  before(async () => {
    server = await freshServer();
    await loadDemo(server.service, true);
    ({ scripts } = (await server.get('/library')).body);
  });
  after(() => server.stop());
  const script = async (title: RegExp) => {
    const { id } = scripts.find((s) => title.test(s.settings.title))!;
    const { body } = await server.get(`/scripts/${id}`);
    const sources = body.sources as { letter: string; document: SourceDocument; facts: Fact[] }[];
    return { id, body, sources, sections: plainSections(docFromJson(body.doc)) };
  };
  const spoken = (sections: readonly PlainSection[]) => sections.flatMap((s) => s.lines.filter((l) => l.text.trim()));

  it('has its main script whole in a writer’s words, true to its source, at its seconds', async () => {
    const { body, sections, sources } = await script(/Weighs a Boat/);
    const lines = spoken(sections);
    expect(lines.every((l) => l.by?.who === 'Nell Varga')).to.equal(true);
    const [{ letter, document, facts }] = sources;
    const clock = getClock(body.settings.voice, body.settings.pace);
    const source = { letter, title: document.title, kind: document.kind, text: document.text, facts };
    const order = { sections: sections.map((s, i) => ({ number: i + 1, id: s.id, title: s.title, seconds: s.plannedMs / 1000, words: 100, msAWord: 400, facts: [] })), never: [], saysI: false };
    const checked = makeReplyChecker([source], order, { tagger: getTagger(), kin: getKin(), clock }).check(lines.map((l) => l.text).join('\n'), true);
    expect(checked.lines.flatMap((l) => l.faults.map((f) => `${l.text} ${f.says}`))).to.deep.equal([]);
    expect(checked.overlap).to.be.lessThan(0.1);
    const ms = clock.lines(sections.flatMap((s) => s.lines.map((l, i) => ({ text: l.text, restMs: l.restMs, endsSection: i === s.lines.length - 1 })))).reduce((n, l) => n + l.ms, 0);
    expect(ms / 1000).to.be.closeTo(body.settings.target.seconds, body.settings.target.seconds / 100);
    // Nothing was left out from under what follows.
    const words = demoReply('boat-lift').split('\n');
    expect(lines.length / words.length).to.be.greaterThan(0.9);
  });

  it('has its history from rule to finish: what stood before is a take, and the steps are kept', async () => {
    const { body, sections, id } = await script(/Weighs a Boat/);
    expect(body.version).to.be.greaterThan(0);
    for (const s of sections) expect(s.takes.at(-1)!.lines.every((l) => !l.by), s.title).to.equal(true);
    const { steps } = (await server.get(`/scripts/${id}/steps?since=0`)).body;
    expect(steps).to.have.length(body.version);
  });

  it('has another half-way: three sections told, the others by rule', async () => {
    const { sections } = await script(/Fell into Step/);
    const told = sections.map((s) => spoken([s]).filter((l) => l.by).length > 0);
    expect(told.slice(0, 3)).to.deep.equal([true, true, true]);
    expect(told.slice(3).some(Boolean)).to.equal(false);
  });
}); // prettier-ignore
