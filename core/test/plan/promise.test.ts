import { expect } from 'chai';
import { draftScript } from '../../src/draft/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import {
  anglesOf,
  checkTitle,
  hooksOf,
  HOOK_KINDS,
  LONGEST_TITLE,
  picturesOf,
  openingCheck,
  promiseIdeas,
  storyBeats,
  promiseKept,
  titlesOf,
  type Material,
} from '../../src/plan/index.ts';
import { readSource } from '../../src/source/index.ts';
import { clock, demoFile, solver, tagger } from '../tools.ts';
import { LONG_PAGES } from '../draft/pages.ts';

const FILES = ['footbridge.html', 'boat-lift.md', 'eels.txt', 'ledger.txt', 'sash-window.md'];
const materialOf = async (file: string): Promise<Material[]> => {
  const source = await readSource(demoFile(file));
  return [{ letter: 'A', source, facts: extractFacts(source, tagger) }];
};
const fromPage = (name: string): Material[] => {
  const { source } = LONG_PAGES.find((p) => p.name === name)!;
  return [{ letter: 'A', source, facts: extractFacts(source, tagger) }];
};
const factOf = (material: readonly Material[], r: { source: string; fact: string }) =>
  material.find((m) => m.letter === r.source)!.facts.find((f) => f.id === r.fact)!;

describe('angles', () => {
  it('are five and then five others, each on at least two facts, with what is lesser known in it', async () => {
    for (const file of FILES) {
      const material = await materialOf(file);
      const [first, second] = [anglesOf(material, clock), anglesOf(material, clock, 1)];
      expect(first, file).to.have.length(5);
      expect(
        first.filter((a) => second.some((b) => b.id === a.id)),
        file,
      ).to.deep.equal([]);
      for (const a of [...first, ...second]) {
        expect(a.facts.length).to.be.at.least(2);
        expect(a.ms).to.be.greaterThan(1000);
        expect(a.facts.map((f) => f.fact)).to.include(a.lesserKnown.fact);
        expect(factOf(material, a.lesserKnown).text).to.equal(a.lesserKnown.text);
      }
      expect(
        first.some((a) => a.secondPart !== null),
        file,
      ).to.equal(true);
    }
  });
});

describe('titles', () => {
  it('are at most ten under 60 letters, one recommended, each paid for by a fact, with reasons', async () => {
    for (const file of FILES) {
      const material = await materialOf(file);
      const titles = titlesOf(material, tagger);
      expect(titles.length, file).to.be.within(3, 10);
      expect(
        titles.filter((t) => t.recommended),
        file,
      ).to.have.length(1);
      expect(new Set(titles.map((t) => t.text)).size).to.equal(titles.length);
      for (const t of titles) {
        expect([...t.text].length, t.text).to.be.lessThan(LONGEST_TITLE);
        expect(factOf(material, t.pays), t.text).to.not.equal(undefined);
        expect(t.reasons.length).to.be.greaterThan(0);
        expect(checkTitle(t.text, material).paid, t.text).to.equal(true);
      }
    }
  });

  it('say what they must not claim where the source is not sure', async () => {
    const source = await readSource(
      'Old iron bridges\n\nOld iron bridges may fall without a warning. The old iron bridge at Sarn might carry forty tonnes. The old iron bridge at Pell may have lost 12 rivets in 1907.',
      { kind: 'news' },
    );
    const material: Material[] = [{ letter: 'A', source, facts: extractFacts(source, tagger) }];
    const titles = titlesOf(material, tagger);
    const may = titles.filter((t) => factOf(material, t.pays)?.modality === 'possible');
    expect(may.length, titles.map((t) => t.text).join('; ')).to.be.greaterThan(0);
    for (const t of may) expect(t.mustNot.join(), t.text).to.match(/the source says/);
  });

  it('are refused with the reason when the sources can’t pay for them', async () => {
    const material = await materialOf('footbridge.html');
    const why = (title: string) => {
      const check = checkTitle(title, material);
      return check.paid ? null : check.why;
    };
    expect(why('How 4,000 dancers broke a bridge')).to.match(/No source has 4,000/);
    expect(why('What the king of Norway saw')).to.match(/No (?:source names Norway|fact says)/);
    expect(why('Dragons under the castle')).to.match(/No fact says anything of “dragons”/);
    expect(why('The deadliest footbridge of Pell Street')).to.match(/No source says “deadliest”/);
    expect(why('x'.repeat(70))).to.match(/70 letters/);
    expect(why('Why the footbridge swayed under the crowd')).to.equal(null);
  });

  it('are kept: the script says where the title’s fact is told, and that it is not when it isn’t', async () => {
    const material = await materialOf('footbridge.html');
    const [title] = titlesOf(material, tagger);
    const tools = { tagger, clock, solver: await solver() };
    const draft = draftScript(
      material[0].source,
      { target: { kind: 'point', seconds: 120 }, mood: 'calm', seed: 1, must: [title.pays.fact] },
      tools,
    );
    const lines = draft.sections.flatMap((s) => s.lines);
    const kept = promiseKept(title.pays, lines);
    expect(lines.find((l) => l.id === kept)!.from[0].fact).to.equal(title.pays.fact);
    expect(promiseKept({ source: 'A', fact: 'f9999' }, lines)).to.equal(null);
  });

  it('come with pictures of at most four words, and a sentence the script must make good', async () => {
    for (const file of FILES) {
      const material = await materialOf(file);
      const pictures = picturesOf(material, titlesOf(material, tagger));
      expect(pictures.length, file).to.be.greaterThan(0);
      for (const p of pictures) expect(p.words.split(/\s+/).length, p.words).to.be.within(1, 4);
      expect(promiseIdeas(material, { tagger, clock }).sentence, file).to.match(
        /^(?:The listener learns|Afterwards the listener can) .+\.$/,
      );
    }
  });

  it('are ten others when asked again, and the same for the same seed', async () => {
    const material = await materialOf('boat-lift.md');
    const [first, second] = [titlesOf(material, tagger, 1), titlesOf(material, tagger, 2)];
    expect(second.filter((t) => first.some((f) => f.text === t.text))).to.deep.equal([]);
    expect(second.length).to.be.greaterThan(3);
    expect(titlesOf(material, tagger, 2)).to.deep.equal(second);
  });
});

describe('hooks', () => {
  it('are of kinds whose facts are there, rest on facts, are timed, and name what pays for them', async () => {
    const kinds = new Set<string>();
    for (const material of [
      ...(await Promise.all(FILES.map(materialOf))),
      ...LONG_PAGES.map((p) => fromPage(p.name)),
    ])
      for (const h of hooksOf(material, { tagger, clock })) {
        kinds.add(h.kind);
        expect(HOOK_KINDS).to.include(h.kind);
        expect(factOf(material, h.rests), h.text).to.not.equal(undefined);
        for (const p of h.pays) expect(factOf(material, p)).to.not.equal(undefined);
        expect(h.ms).to.be.greaterThan(500);
        expect(h.text.split(/\s+/).length, h.text).to.be.at.most(h.own ? 28 : 24);
        if (h.own) expect(factOf(material, h.rests).text).to.equal(h.text);
      }
    expect([...kinds].sort()).to.deep.equal([...HOOK_KINDS].sort());
  });

  it('turn a study’s open question into one a listener hears', () => {
    const questions = hooksOf(fromPage('abstract-naps'), { tagger, clock }).filter(
      (h) => h.kind === 'question',
    );
    expect(questions.map((h) => h.text)).to.include(
      'Does a planned nap of twenty minutes reduce dispensing errors by night-shift pharmacists?',
    );
  });

  it('never open a story with its reveal', () => {
    for (const name of ['story-bus', 'story-piano', 'story-allotment']) {
      const material = fromPage(name);
      for (const h of hooksOf(material, { tagger, clock })) {
        const at = material[0].facts.findIndex((f) => f.id === h.rests.fact);
        expect(at / material[0].facts.length, h.text).to.be.at.most(0.75);
      }
    }
  });
});

describe('what an opening does', () => {
  const line = (text: string, startMs: number, fact?: string) => ({
    text,
    startMs,
    from: fact ? [{ source: 'A', fact }] : [],
  });

  it('says what this is and what is at stake within 15 seconds, and what the listener gets within 30', () => {
    const lines = [
      line('The lift at Orrin has failed once.', 0),
      line('It weighs a boat at nothing.', 16_000, 'f3'),
    ];
    expect(openingCheck('The lift that weighs a boat', lines, { source: 'A', fact: 'f3' })).to.deep.equal({
      whatMs: 0,
      stakeMs: 0,
      getMs: 16_000,
    });
  });

  it('says what is missing', () => {
    expect(
      openingCheck('The lift that weighs a boat', [
        line('In the beginning there was mud.', 0),
        line('The lift works.', 40_000),
      ]),
    ).to.deep.equal({ whatMs: null, stakeMs: null, getMs: null });
  });
});

describe('a story’s beats', () => {
  it('find the passage that explains it among three guesses, and none in a report', () => {
    const held = {
      'story-bus': 'It was letters|But there was an old one|She had run out',
      'story-piano': 'Her mother had been',
      'story-allotment': 'Her grandmother had lost',
    };
    for (const [name, opens] of Object.entries(held)) {
      const [m] = fromPage(name);
      const passages = storyBeats(m.facts).reveals.map((id) =>
        m.facts
          .filter((f) => f.block === m.facts.find((x) => x.id === id)!.block)
          .map((f) => f.text)
          .join(' '),
      );
      expect(
        passages.some((p) => new RegExp(opens).test(p)),
        `${name}: ${passages.map((p) => p.slice(0, 60)).join(' | ')}`,
      ).to.equal(true);
    }
    expect(storyBeats(fromPage('news-ferry')[0].facts).reveals.length).to.be.at.most(3);
  });
});
