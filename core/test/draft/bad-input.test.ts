import { expect } from 'chai';
import { DraftError, draftScript, type DraftOptions } from '../../src/draft/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { readSource, type SourceDocument } from '../../src/source/index.ts';
import { clock, solver, tagger } from '../tools.ts';
import { LONG_PAGES } from './pages.ts';

const refused = async (source: SourceDocument, options: Partial<DraftOptions> = {}): Promise<DraftError> => {
  try {
    draftScript(
      source,
      { target: { kind: 'point', seconds: 60 }, mood: 'calm', seed: 1, ...options },
      { tagger, clock, solver: await solver() },
    );
  } catch (error) {
    expect(error).to.be.instanceOf(DraftError);
    return error as DraftError;
  }
  throw new Error('It was not refused.');
};

const idsOf = (source: SourceDocument) => extractFacts(source, tagger).map((f) => f.id);

describe('a draft that can’t be made', function () {
  it('says of a source in another language which it is', async () => {
    const german = await readSource(
      'Die Fähre\n\nDie Kettenfähre fährt seit dem Winter nicht mehr, weil ein Glied der Kette gebrochen ist. Taucher fanden es am Mittwoch auf dem Grund des Flusses. Niemand wurde verletzt, sagte die Hafenmeisterin.\n\nDie nächste Brücke liegt elf Meilen flussaufwärts, und der Bus braucht fünfzig Minuten.',
    );
    const error = await refused(german);
    expect(error.message).to.match(/is in German/);
  });

  it('says of points that take longer than the length how long they take, with ways out', async () => {
    const { source } = LONG_PAGES.find((p) => p.name === 'news-ferry')!;
    const error = await refused(source, {
      target: { kind: 'ceiling', seconds: 20 },
      must: idsOf(source).slice(5, 17),
    });
    expect(error.message).to.match(/The 12 facts that must be told take at least \d:\d\d/);
    expect(error.ways.length).to.equal(2);
  });

  it('says of a source too short how long it carries, and is right', async () => {
    const { source } = LONG_PAGES.find((p) => p.name === 'news-library')!;
    const error = await refused(source, { target: { kind: 'point', seconds: 900 } });
    expect(error.code).to.equal('too-short');
    const seconds = Math.floor(error.carries.longestMs / 1000) - 4;
    const draft = draftScript(
      source,
      { target: { kind: 'point', seconds }, mood: 'calm', seed: 1 },
      { tagger, clock, solver: await solver() },
    );
    expect(draft.ms).to.be.closeTo(seconds * 1000, seconds * 10);
  });

  it('never refuses a source with three times the words that are asked', async () => {
    const tools = { tagger, clock, solver: await solver() };
    for (const page of LONG_PAGES.filter((p) => p.source.kind !== 'howto')) {
      const words = page.source.text.split(/\s+/).length;
      const seconds = Math.max(15, Math.floor((words / 3 / 150) * 60));
      const draft = draftScript(
        page.source,
        { target: { kind: 'point', seconds }, mood: 'calm', seed: 1 },
        tools,
      );
      expect(draft.ms, page.name).to.be.closeTo(seconds * 1000, Math.max(1000, seconds * 10));
    }
  });

  it('has a reason when everything is ruled out', async () => {
    const { source } = LONG_PAGES.find((p) => p.name === 'news-well')!;
    const error = await refused(source, { out: idsOf(source) });
    expect(error.message).to.match(/marked to be left out/);
  });
});
