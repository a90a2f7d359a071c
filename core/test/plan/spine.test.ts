/** What a telling hangs on, and the places that are kept for what can't be told by rule. */
import { expect } from 'chai';
import fc from 'fast-check';
import { draftScript } from '../../src/draft/index.ts';
import { extractFacts, taggedFacts } from '../../src/facts/index.ts';
import { openIn, openLine, spineOf, withOpenLine, type Material } from '../../src/plan/index.ts';
import { joinedNeighbours } from '../../src/plan/neighbours.ts';
import { checkScript } from '../../src/review/index.ts';
import {
  docFromSections,
  isOpen,
  plainSections,
  scriptFile,
  scriptFileSchema,
  sectionsOfFile,
  type PlainSection,
} from '../../src/script/index.ts';
import { readSource, type SourceKind } from '../../src/source/index.ts';
import { LONG_PAGES } from '../draft/pages.ts';
import { clock, pronouncer, solver, tagger } from '../tools.ts';

const materialOf = async (title: string, kind: SourceKind, ...body: string[]): Promise<Material> => {
  const source = await readSource([title, ...body].join('\n\n'), { kind });
  return { letter: 'A', source, facts: extractFacts(source, tagger) };
};

describe('the spine', () => {
  it('has four to eight links from all over a story, in its order', () => {
    for (const { name, source } of LONG_PAGES.filter((p) => /news|enc|story/.test(p.name))) {
      const facts = extractFacts(source, tagger);
      const spine = spineOf({ letter: 'A', source, facts });
      expect(spine.length, name).to.be.within(4, 8);
      const places = spine.map((l) => facts.findIndex((f) => f.id === l.fact));
      expect(places, name).to.deep.equal([...places].sort((a, b) => a - b));
      expect(places.at(-1)! - places[0], name).to.be.greaterThan(facts.length / 2);
    }
  });

  it('of a study is its question, method, results and limits; of a guide its steps and warnings', () => {
    const kinds = (name: string) => {
      const { source } = LONG_PAGES.find((p) => p.name === name)!;
      return spineOf({ letter: 'A', source, facts: extractFacts(source, tagger) }).map((l) => l.kind);
    };
    expect(kinds('abstract-naps')).to.include.members(['question', 'method', 'result']);
    const steps = kinds('howto-radiator');
    expect(steps[0]).to.equal('goal');
    expect(steps.filter((k) => k === 'step').length).to.be.greaterThan(3);
  });

  it('holds nothing that is no speech, no item of a list and nothing that announces one', async () => {
    const m = await materialOf(
      'The weir at Sluice',
      'news',
      'The weir gave way on Saturday because its foot was washed out. Three things were lost:',
      '- the mill\n- the ferry\n- the path',
      'Nobody was hurt. The council has ordered a new one of steel, and it is to be built by May.',
    );
    const texts = spineOf(m).map((l) => l.text);
    expect(texts.join(' ')).to.contain('gave way');
    expect(texts.filter((t) => /:$|^the (?:mill|ferry|path)$/.test(t))).to.deep.equal([]);
  });

  it('is told before what hangs off it', async () => {
    const tools = { tagger, clock, solver: await solver() };
    let [told, all] = [0, 0];
    for (const { source } of LONG_PAGES.filter((p) => /news|enc/.test(p.name))) {
      const tagged = taggedFacts(source, tagger);
      const spine = spineOf({ letter: 'A', source, facts: tagged.map((t) => t.fact) });
      const target = { kind: 'point', seconds: 120 } as const;
      const { sections } = draftScript(source, { mood: 'calm', seed: 7, tagged, target }, tools);
      const facts = new Set(sections.flatMap((s) => s.lines.flatMap((l) => l.from.map((f) => f.fact))));
      told += spine.filter((l) => facts.has(l.fact)).length;
      all += spine.length;
    }
    expect(told / all).to.be.greaterThan(0.7);
  });
});

const SECTIONS = (lines: PlainSection['lines']): PlainSection[] => [
  {
    id: 'S1',
    title: 'Opening',
    role: 'hook',
    plannedMs: 0,
    locked: false,
    takes: [],
    lines: lines.slice(0, 1),
  },
  { id: 'S2', title: 'Then', role: 'ground', plannedMs: 0, locked: false, takes: [], lines: lines.slice(1) },
];
const line = (id: string, text: string, fact: string) => ({
  ...openLine(id, { asks: [], ms: 0 }),
  open: undefined,
  fixedMs: null,
  text,
  from: [{ source: 'A', fact, quote: text }],
});
const ORDER = ['f1', 'f2', 'f3', 'f4'];
const placeOf = (f: { fact?: string | undefined }) => (f.fact ? ORDER.indexOf(f.fact) : null);
const ASKS = [{ source: 'A', fact: 'f3', quote: 'The gate was sold for scrap.' }];

describe('neighbours', () => {
  it('are joined nearest first, as trying every pair anew each time does', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(50), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 6 }),
        (list, most) => {
          const apart = (a: readonly number[], b: readonly number[]) =>
            a.length + b.length + Math.abs(a[0] - b.at(-1)!);
          const anew = list.map((n) => [n]);
          while (anew.length > most) {
            const gaps = anew.slice(1).map((g, i) => apart(anew[i], g));
            const at = gaps.indexOf(Math.min(...gaps));
            anew.splice(at, 2, [...anew[at], ...anew[at + 1]]);
          }
          expect(
            joinedNeighbours(
              list.map((n) => [n]),
              most,
              apart,
            ),
          ).to.deep.equal(anew);
        },
      ),
    );
  });
});

describe('an open line', () => {
  const sections = SECTIONS([
    line('L1', 'It ends with a gate.', 'f4'),
    line('L2', 'The lock was built in 1788.', 'f1'),
    line('L3', 'It was closed in 1926.', 'f2'),
    line('L4', 'Divers found the gate.', 'f4'),
  ]);
  const kept = withOpenLine(sections, openLine('L5', { asks: ASKS, ms: 4200 }), placeOf);

  it('stands behind what comes before it in the source, whatever opens the script', () => {
    expect(kept[1].lines.map((l) => l.id)).to.deep.equal(['L2', 'L3', 'L5', 'L4']);
  });

  it('takes its seconds, and tells nothing', () => {
    const sum = (s: readonly PlainSection[]) => scriptFile({ ...SETTINGS }, s, clock, []).seconds;
    expect(sum(kept) - sum(sections)).to.be.closeTo(4.2, 0.01);
    expect(openIn(kept)).to.deep.equal({ count: 1, ms: 4200 });
    expect(kept[1].lines[2].from).to.deep.equal([]);
  });

  it('goes into the script file and comes back: open, its facts, its seconds', () => {
    const file = scriptFile({ ...SETTINGS }, kept, clock, []);
    const printed = file.sections[1].lines[2];
    expect(printed).to.include({ open: true, text: '', seconds: 4.2 });
    expect(printed.facts).to.deep.equal(ASKS);
    expect(printed.from).to.deep.equal([]);
    const back = sectionsOfFile(scriptFileSchema.parse(JSON.parse(JSON.stringify(file))));
    expect(isOpen(back[1].lines[2])).to.equal(true);
    expect(back[1].lines[2].fixedMs).to.equal(4200);
    expect(isOpen(plainSections(docFromSections(back))[1].lines[2])).to.equal(true);
  });

  it('is a line like others once it has words: timed by the clock, resting on what it was to say', () => {
    const said = kept.map((s) => ({
      ...s,
      lines: s.lines.map((l) => (l.id === 'L5' ? { ...l, text: 'The gate went for scrap.' } : l)),
    }));
    const [, { lines }] = plainSections(docFromSections(said));
    expect(lines[2]).to.include({ text: 'The gate went for scrap.', fixedMs: null });
    expect(lines[2].open).to.equal(undefined);
    expect(lines[2].from).to.deep.equal(ASKS);
  });

  it('is a finding of the Read-through until then, with what it must say', () => {
    const of = (s: readonly PlainSection[]) =>
      checkScript({ title: 'The gate', sections: s }, [], { clock, pronouncer, tagger }).findings.filter(
        (f) => f.rule === 'open-line',
      );
    expect(of(sections)).to.deep.equal([]);
    expect(of(kept)).to.have.length(1);
    expect(of(kept)[0].reason).to.contain('The gate was sold for scrap.');
  });

  it('is kept by a draft for what must be said and can’t be told by rule, behind what comes before it', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const source = await readSource(
      [
        'The weir at Sluice',
        'The old weir at Sluice gave way on Saturday night, and the river fell by two metres within an hour.',
        'Nobody was hurt in the harbour that night. Forty boats lie on the mud beside the town quay.',
        'The council met on Sunday in the hall of the rowing club. It has ordered a new weir of steel.',
        '- two pumps from the county\n- a dam of sandbags\n- a ferry for the school',
        'The last of these begins on Monday.',
        'The weir was built in 1844 by the canal company. It was last repaired in 1987 with stone from Tarn.',
        'The keeper of the weir, Bram Tolley, heard a long sigh before the water went. He has kept it for thirty years.',
        'The fish of the upper reach were carried to the reservoir in milk churns by pupils of two schools.',
        'A new weir will take until the spring, the council said. The town will do without its regatta this year.',
        'Below the weir the mill stands still, and its three men have been sent home until the water is back. The miller has asked the county for a pump of his own.',
        'In 1926 a flood took the lower gate, and the town was without water for nine days. Old people in the town still count from that week.',
      ].join('\n\n'),
      { kind: 'news' },
    );
    const tagged = taggedFacts(source, tagger);
    const pointing = tagged.map((t) => t.fact).find((f) => f.text.startsWith('The last of these'))!;
    const of = (seconds: number) =>
      draftScript(
        source,
        { mood: 'calm', seed: 1, tagged, must: [pointing.id], target: { kind: 'point', seconds } },
        tools,
      );
    const long = of(60);
    const at = long.sections.flatMap((s) => s.lines).find(isOpen);
    expect(at?.open).to.deep.equal([{ source: 'A', fact: pointing.id, quote: pointing.text }]);
    expect(long.notes.filter((n) => /^One place is kept open/.test(n))).to.have.length(1);
    expect(long.sections.flatMap((s) => s.lines).some((l) => /last of these/.test(l.text))).to.equal(false);
    expect(openIn(long.sections).ms).to.be.at.most(60_000 * 0.05);
    // Half a minute has no room for one.
    expect(openIn(of(30).sections).count).to.equal(0);
  });
});

const SETTINGS = {
  title: 'The gate',
  frame: '16:9',
  mood: 'calm',
  pace: 150,
  voice: 'even',
  seed: 1,
  shape: 'news',
  target: { kind: 'point', seconds: 20 },
} as const;
