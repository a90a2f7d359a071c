/** Every setting of a brief changes something that is computed; this shows for each what. */
import { expect } from 'chai';
import {
  DraftError,
  draftScript,
  redoSection,
  sourceCarries,
  type DraftOptions,
} from '../../src/draft/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { inUnits, saysAvoided, settled, spelled, toThird, toYou, veiled } from '../../src/draft/settle.ts';
import { sentences } from '../../src/language/sentences.ts';
import { briefSchema, type BriefInput } from '../../src/plan/index.ts';
import { readSource } from '../../src/source/index.ts';
import { clock, demoFile, solver, tagger } from '../tools.ts';
import { LONG_PAGES } from './pages.ts';

const pageOf = (name: string) => LONG_PAGES.find((p) => p.name === name)!.source;
const lines = async (name: string, brief: BriefInput, more: Partial<DraftOptions> = {}) => {
  const tools = { tagger, clock, solver: await solver() };
  const full = briefSchema.parse(brief);
  const draft = draftScript(
    pageOf(name),
    { target: { kind: 'point', seconds: 100 }, mood: full.mood, seed: 1, brief: full, ...more },
    tools,
  );
  return { draft, text: draft.sections.flatMap((s) => s.lines.map((l) => l.text)) };
};
const longest = (text: readonly string[]) => {
  const all = text.flatMap((t) => sentences(t).map((s) => s.text.split(/\s+/).length));
  return all.reduce((a, b) => a + b, 0) / all.length;
};

describe('the brief', function () {
  it('who listens: children hear shorter sentences than specialists', async () => {
    const [children, specialists] = [
      await lines('enc-telegraph', { audience: 'children' }),
      await lines('enc-telegraph', { audience: 'specialists' }),
    ];
    expect(longest(children.text)).to.be.lessThan(longest(specialists.text));
    expect(children.text).to.not.deep.equal(specialists.text);
  });

  it('mood: grave speaks in full and rests longer than brisk', async () => {
    const [grave, brisk] = [
      await lines('news-well', { mood: 'grave' }),
      await lines('news-well', { mood: 'brisk' }),
    ];
    const contracted = (text: readonly string[]) =>
      text.filter((t) => /\b\w+n’t\b|\bit’s\b/i.test(t.replace(/“[^”]*”/g, ''))).length;
    expect(contracted(grave.text)).to.equal(0);
    expect(contracted(brisk.text)).to.be.greaterThan(0);
    const rests = (d: typeof grave.draft) => d.sections.slice(0, -1).map((s) => s.lines.at(-1)!.restMs);
    const middle = (l: number[]) => [...l].sort((a, b) => a - b)[Math.floor(l.length / 2)];
    expect(middle(rests(grave.draft))).to.be.greaterThan(middle(rests(brisk.draft)));
  });

  it('person: a story of an I is told of them, and says so; an I is refused where nobody says I', async () => {
    const { text } = await lines(
      'story-allotment',
      { person: 'they' },
      { target: { kind: 'point', seconds: 170 } },
    );
    expect(text.join(' ').replace(/["“][^"”]*["”]/g, '')).to.not.match(/\b(?:I|my|me)\b/);
    expect(text[0]).to.match(/person/);
    let error: unknown;
    await lines('news-well', { person: 'i' }).catch((e) => (error = e));
    expect(error).to.be.instanceOf(DraftError);
    expect((error as DraftError).message).to.match(/first person/);
  });

  it('person: what anyone can do is said to the listener', () => {
    expect(toYou('Visitors can climb the tower.')).to.equal('You can climb the tower.');
    expect(toYou('The tower can be climbed.')).to.equal('The tower can be climbed.');
    expect(toThird('I was late and my brother saw me.')).to.equal(
      'They were late and their brother saw them.',
    );
    expect(toThird('She said: “I am late.”')).to.equal('She said: “I am late.”');
  });

  it('veil: a story names nobody and no place, and keeps the rest', async () => {
    const { text } = await lines('story-piano', { veil: true }, { target: { kind: 'point', seconds: 215 } });
    expect(text.join(' ')).to.not.match(/\b(?:Bern|Odile)\b/);
    expect(text.join(' ')).to.match(/\bB\./);
    expect(
      veiled('We met Odile in Holm. It was Odile.', [
        { text: 'Odile', type: 'person' },
        { text: 'Holm', type: 'place' },
      ]),
    ).to.equal('We met O. in a town. It was O.');
    const { text: news } = await lines('news-well', { veil: true });
    expect(news.join(' ')).to.match(/Upper Dray/);
  });

  it('veil: another take of a section names nobody either', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const source = pageOf('story-piano');
    const options: DraftOptions = {
      target: { kind: 'point', seconds: 215 },
      mood: 'warm',
      seed: 1,
      brief: briefSchema.parse({ veil: true, mood: 'warm' }),
    };
    const { sections } = draftScript(source, options, tools);
    const results = sections.flatMap((s) => {
      const r = redoSection({ source, options, sections }, s.id, tools);
      return 'refused' in r ? [] : [r.sections];
    });
    expect(results).to.not.deep.equal([]);
    for (const redone of results)
      expect(redone.flatMap((s) => s.lines.map((l) => l.text)).join(' ')).to.not.match(/\b(?:Bern|Odile)\b/);
  });

  it('words: own words share less with the source than the source’s words do', async () => {
    const [own, source] = [
      await lines('news-library', { words: 'own' }),
      await lines('news-library', { words: 'source' }),
    ];
    const text = pageOf('news-library').text;
    const kept = (list: readonly string[]) => list.filter((l) => text.includes(l)).length / list.length;
    expect(kept(own.text)).to.be.lessThan(kept(source.text) - 0.1);
  });

  it('aim: the last line says what the listener does next, and nothing when nothing is asked', async () => {
    for (const aim of ['answer', 'next', 'follow', 'source'] as const) {
      const { draft } = await lines('news-well', { aim });
      const last = draft.sections.at(-1)!.lines.at(-1)!;
      expect([last.role, last.from.length], aim).to.deep.equal(['frame', 0]);
    }
    const { draft } = await lines('news-well', {});
    expect(draft.sections.at(-1)!.lines.at(-1)!.from.length).to.equal(1);
  });

  it('words to avoid are never said, in any form; a fact that must be told with one is named', async () => {
    const { text } = await lines('news-well', { avoid: ['slab', 'landlord'] });
    expect(text.filter((t) => saysAvoided(t, ['slab', 'landlord']))).to.deep.equal([]);
    const asks = extractFacts(pageOf('news-well'), tagger).find((f) => f.text.includes('a pump, a roof'))!;
    const { draft } = await lines('news-well', { avoid: ['pump'] }, { must: [asks.id] });
    expect(draft.notes.join(' ')).to.match(/is to be told, but says “pump”/);
  });

  it('spelling: British and American, both ways, names and quotations apart', () => {
    expect(spelled('The grey harbour was organised.', 'American')).to.equal('The gray harbor was organized.');
    expect(spelled('The gray harbor was organized.', 'British')).to.equal('The grey harbour was organised.');
    expect(spelled('He wrote “colour”.', 'American')).to.equal('He wrote “colour”.');
    expect(spelled('Check the story.', 'British')).to.equal('Check the story.');
  });

  it('units: by the factors of NIST Special Publication 811, appendix B, rounded and said as about', () => {
    expect(inUnits('It is 412 metres long.', 'imperial')).to.equal('It is about 1,350 feet long.');
    expect(inUnits('It weighs 310 tonnes.', 'imperial')).to.equal('It weighs about 340 tons.');
    expect(inUnits('It is eleven miles upstream.', 'metric')).to.equal('It is about 18 kilometres upstream.');
    expect(inUnits('About 17.4 metres of water.', 'imperial')).to.equal('About 57.1 feet of water.');
    expect(inUnits('It is 40 kilometres away.', 'both')).to.equal(
      'It is 40 kilometres, about 25 miles, away.',
    );
    expect(inUnits('It cost 400 pounds.', 'metric')).to.equal('It cost 400 pounds.');
    // Checked by hand: 412 m × 3.28084 = 1351.7 ft; 310 t × 1.10231 = 341.7 short tons, to the two figures the source has; 11 mi × 1.609344 = 17.7 km.
    expect(
      settled(
        'It is 2 kilometres of grey wall.',
        briefSchema.parse({ units: 'imperial', spelling: 'American' }),
        false,
      ),
    ).to.equal('It is about 1.2 miles of gray wall.');
  });

  it('house style: the longest sentence and contractions of the channel', async () => {
    // One page may have few sentences that can be parted: over three, the habit is seen.
    const told = async (most: number) => {
      const pages = ['enc-cricket', 'enc-telegraph', 'news-well'];
      const drafts = await Promise.all(pages.map((p) => lines(p, { house: { longest: most } })));
      return drafts.flatMap((d) => d.text);
    };
    expect(longest(await told(12))).to.be.lessThan(longest(await told(40)) - 0.3);
    const { text } = await lines('enc-cricket', { house: { contractions: false } });
    expect(text.filter((t) => /n’t\b/.test(t))).to.deep.equal([]);
  });

  it('points in and out, and the angle’s facts before others', async () => {
    const source = pageOf('news-ferry');
    const told = async (more: Partial<DraftOptions>) =>
      new Set(
        (await lines('news-ferry', {}, more)).draft.sections.flatMap((s) =>
          s.lines.flatMap((l) => l.from.map((f) => f.fact!)),
        ),
      );
    const plain = await told({});
    const missing = extractFacts(source, tagger)
      .map((f) => f.id)
      .slice(0, 30)
      .filter((f) => !plain.has(f));
    expect(missing.length).to.be.greaterThan(2);
    const favoured = await told({ favour: missing });
    expect(missing.filter((f) => favoured.has(f)).length).to.be.greaterThan(2);
    expect(await told({ must: [missing[0]] })).to.include(missing[0]);
    const out = [...plain][3];
    expect([...(await told({ out: [out] }))]).to.not.include(out);
  });

  it('a point both in and out is refused in plain words', async () => {
    let message = '';
    await lines('news-ferry', {}, { must: ['f4'], out: ['f4'] }).catch((e: Error) => (message = e.message));
    expect(message).to.match(/marked to be told and to be left out/);
  });

  it('fixed parts keep their words and seconds, and are planned around', async () => {
    const fixed = [
      { id: 'x', name: 'sting', text: '', ms: 4000, where: 'start' as const },
      { id: 'y', name: 'sign-off', text: 'This was the river, told from the bank.', where: 'end' as const },
    ];
    const { draft } = await lines('news-well', {}, { fixed });
    const all = draft.sections.flatMap((s) => s.lines);
    expect(all[0]).to.deep.include({ fixed: 'sting', fixedMs: 4000, locked: true });
    expect(all.at(-1)).to.deep.include({ fixed: 'sign-off', text: fixed[1].text, locked: true });
    expect(Math.abs(draft.ms - 100_000)).to.be.at.most(1000);
  });

  it('says a floor and a ceiling, and below the floor other ways', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const source = await readSource(demoFile('sash-window.md'));
    const carries = sourceCarries(source, { mood: 'calm', seed: 1 }, tools);
    expect(carries.shortestMs).to.be.lessThan(carries.longestMs);
    try {
      draftScript(source, { target: { kind: 'point', seconds: 20 }, mood: 'calm', seed: 1 }, tools);
      expect.fail('a guide can’t be told in 20 seconds');
    } catch (error) {
      expect((error as DraftError).ways.length).to.be.greaterThan(1);
    }
  });
});
