/** Facts are made once: ids that last, tags that are kept, the writer's own beside them. */
import { expect } from 'chai';
import fc from 'fast-check';
import { draftScript, type DraftOptions } from '../../src/draft/index.ts';
import {
  carried,
  chosenIn,
  extractFacts,
  factSchema,
  ownTagged,
  packTags,
  storedOf,
  taggedFacts,
  taggedOf,
  unpackTags,
} from '../../src/facts/index.ts';
import { readSource, type SourceDocument } from '../../src/source/index.ts';
import { clock, demoFile, solver, tagger } from '../tools.ts';

const LIFT = await readSource(demoFile('boat-lift.md'));
const BRIDGE = await readSource(demoFile('footbridge.html'));
const page = (...passages: string[]) =>
  readSource(`A lift\n\n${passages.join('\n\n')}`, { kind: 'encyclopedia' });
const PASSAGES = [
  'The lift was opened in 1889. It raised boats by twenty metres. Nobody had seen the like.',
  'In 1907 the western trough fell. The keeper was asleep. It was raised again in a week.',
  'Nobody had seen the like. Today it stands still. Visitors may walk across it on Sundays.',
];

describe('ids of facts', () => {
  it('stay when passages come before, between or behind, and differ where the words do', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.constantFrom('A new passage stands here, with words of its own.', 'Another one says less.'),
          { maxLength: 4 },
        ),
        fc.nat(3),
        async (more, at) => {
          const ids = new Map(
            extractFacts(await page(...PASSAGES), tagger).map((f) => [`${f.block}${f.text}`, f.id]),
          );
          const plain = [...ids.values()];
          expect(new Set(plain).size, 'each its own').to.equal(plain.length);
          const later = extractFacts(
            await page(...PASSAGES.slice(0, at), ...more, ...PASSAGES.slice(at)),
            tagger,
          );
          for (const id of plain) expect(later.map((f) => f.id)).to.include(id);
        },
      ),
      { seed: 16, numRuns: 30 },
    );
  });

  it('are other ones for other words, and for the same words said twice in one passage', async () => {
    const [one, two, three] = extractFacts(await page('It rained. It snowed. It rained.'), tagger).map(
      (f) => f.id,
    );
    expect(one).to.not.equal(two);
    expect(three).to.equal(`${one}-2`);
    for (const fact of extractFacts(LIFT, tagger)) factSchema.parse(fact);
  });

  it('are kept when a source is read again by other code: the same words, the same id; moved words are followed', async () => {
    const before = extractFacts(await page(...PASSAGES), tagger).map((f, i) => ({ ...f, id: `f${i + 1}` }));
    // As a splitter might come to read it: two sentences are one, one is gone.
    const after = taggedFacts(
      await page(
        PASSAGES[0],
        'In 1907 the western trough fell; the keeper was asleep. It was raised again in a week.',
        'Nobody had seen the like. Visitors may walk across it on Sundays.',
      ),
      tagger,
    );
    const joined = before.map((f) =>
      f.text === 'In 1907 the western trough fell.'
        ? { ...f, text: 'In 1907 the western trough fell' }
        : f.text === 'The keeper was asleep.'
          ? { ...f, text: 'the keeper was asleep.' }
          : f,
    );
    const { facts, moved, lost } = carried(joined, after);
    expect(facts[0].fact.id).to.equal('f1');
    const whole = facts.find((f) => f.fact.text.startsWith('In 1907'))!.fact.id;
    expect([...moved]).to.deep.equal([
      ['f4', [whole]],
      ['f5', [whole]],
    ]);
    expect(lost.map((f) => f.text)).to.deep.equal(['Today it stands still.']);
    const ids = new Set(facts.map((f) => f.fact.id));
    expect(ids.size).to.equal(facts.length);
    for (const { fact } of facts) for (const { on } of fact.leans) expect(ids.has(on)).to.equal(true);
  });
});

describe('what was taken apart once', () => {
  it('comes back as it was: tags in a row, and a fact’s tags are those of its words', () => {
    for (const source of [LIFT, BRIDGE]) {
      const tagged = taggedFacts(source, tagger);
      const stored = JSON.parse(JSON.stringify(storedOf(tagged))) as ReturnType<typeof storedOf>;
      const never = () => {
        throw new Error('It was tagged again.');
      };
      expect(taggedOf(stored, never)).to.deep.equal(tagged);
      expect(taggedOf({ facts: stored.facts, tags: null }, tagger)).to.deep.equal(tagged);
    }
  });

  it('is refused for another sentence', () => {
    const tags = packTags(tagger('A long sentence about the lift.'));
    expect(() => unpackTags('Short.', tags)).to.throw(RangeError);
  });

  it('gives the same draft as taking it apart anew, without tagging a sentence of it', async () => {
    const tagged = taggedFacts(LIFT, tagger);
    const own = new Set(tagged.map((t) => t.fact.text));
    let again = 0;
    const counting = (text: string) => {
      if (own.has(text)) again++;
      return tagger(text);
    };
    const tools = { tagger: counting, clock, solver: await solver() };
    const options: DraftOptions = { target: { kind: 'point', seconds: 120 }, mood: 'calm', seed: 1 };
    const anew = draftScript(LIFT, options, tools);
    expect(again).to.be.at.least(own.size);
    again = 0;
    const kept = draftScript(LIFT, { ...options, tagged }, tools);
    expect(kept.sections).to.deep.equal(anew.sections);
    expect(again).to.be.lessThan(own.size / 4);
  });
});

describe('what the writer knows', () => {
  const KNOWN = { id: 'w1', text: 'My grandfather painted the gate green in 1931.' };
  const draft = async (source: SourceDocument, more: Partial<DraftOptions>) =>
    draftScript(
      source,
      { target: { kind: 'point', seconds: 180 }, mood: 'calm', seed: 1, ...more },
      { tagger, clock, solver: await solver() },
    );

  it('is a fact like others, with its values, under its own name', () => {
    const [{ fact, tokens }] = ownTagged(LIFT, [KNOWN], tagger);
    expect(fact).to.include({ id: 'w1', own: 'known', text: KNOWN.text });
    expect(fact.dates.map((d) => d.iso)).to.deep.equal(['1931']);
    expect(tokens.map((t) => KNOWN.text.slice(t.start, t.end)).join(' ')).to.equal(
      tokens.map((t) => t.text).join(' '),
    );
    factSchema.parse(fact);
    const [two] = ownTagged(LIFT, [{ id: 'w2', text: 'It was dark. The gate cost 40 pounds.' }], tagger);
    expect(two.fact.numbers.map((n) => two.fact.text.slice(n.start, n.end))).to.deep.equal(['40']);
  });

  it('is told when it must be, cited as the writer’s own, and never as the end', async () => {
    const own = ownTagged(LIFT, [KNOWN], tagger);
    const { sections } = await draft(LIFT, { own, must: ['w1'] });
    const lines = sections.flatMap((s) => s.lines);
    const told = lines.filter((l) => l.from.some((f) => f.fact === 'w1'));
    expect(told.map((l) => l.text).join(' ')).to.match(/grandfather painted the gate green/);
    expect(told[0].from[0].source).to.equal('A');
    expect(lines.at(-1)!.from.some((f) => f.fact === 'w1')).to.equal(false);
    const without = await draft(LIFT, { own, out: ['w1'] });
    expect(without.sections.flatMap((s) => s.lines).some((l) => /grandfather/.test(l.text))).to.equal(false);
  });

  it('chosen words stand for the facts that have them', () => {
    const facts = extractFacts(LIFT, tagger);
    const fact = facts[3];
    const own = { id: 'w3', text: fact.text.slice(4, 20), start: fact.start + 4, end: fact.start + 20 };
    expect(chosenIn(own, facts)).to.deep.equal([fact.id]);
    const [made] = ownTagged(LIFT, [own], tagger);
    expect(made.fact).to.include({ own: 'chosen', block: fact.block, start: own.start });
  });
});
