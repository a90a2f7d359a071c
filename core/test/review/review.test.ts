/** The reviewer as a whole: the same after any edits as from scratch; mends; waving off; grammar; own words; outside checks. */
import { expect } from 'chai';
import { kin } from '../commission/context.ts';
import fc from 'fast-check';
import { RULES as CATALOGUE } from '../../src/review/catalogue.ts';
import {
  RULES,
  checkScript,
  checkTelling,
  grammarFindings,
  isWaived,
  keysOf,
  makeReviewer,
  mendAllSafe,
  prepareSources,
  sectionsOfLines,
  withEdits,
} from '../../src/review/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { openSource } from '../../src/source/index.ts';
import { draftScript } from '../../src/draft/index.ts';
import { indexFacts, indexSources, overlap } from '../../src/trace/index.ts';
import type { PlainSection } from '../../src/script/index.ts';
import { clock, demoFile, pronouncer, solver, tagger } from '../tools.ts';
import { grammarHits } from '../../../server/src/grammar.ts';
import { review, script, source } from './rules.test.ts';

const tools = { clock, pronouncer, tagger, kin };

async function demo(name: string) {
  const document = await openSource(demoFile(name));
  const facts = extractFacts(document, tagger);
  const { sections } = draftScript(
    document,
    { target: { kind: 'point', seconds: 150 }, mood: 'calm', seed: 1 },
    { tagger, clock, solver: await solver() },
  );
  return {
    sections,
    sources: [{ letter: 'A', text: document.text, facts, kind: document.kind }],
    title: document.title,
  };
}

describe('the reviewer', () => {
  it('finds after any edits what a fresh one finds', async () => {
    const { sections, sources, title } = await demo('footbridge.html');
    const kept = makeReviewer(tools);
    const words = [
      'actually',
      'the',
      'Orrin',
      '1,482,317',
      'bridge',
      '(see below)',
      'may',
      'not',
      '“quoted words here”',
    ];
    let now: readonly PlainSection[] = sections;
    fc.assert(
      fc.property(
        fc.nat(200),
        fc.nat(40),
        fc.constantFrom(...words),
        fc.constantFrom('insert', 'drop', 'move', 'empty'),
        (a, b, word, what) => {
          const flat = now.flatMap((s) => s.lines);
          const target = flat[a % flat.length];
          now = now
            .map((s) => ({
              ...s,
              lines: s.lines.flatMap((l) => {
                if (l.id !== target.id) return [l];
                if (what === 'drop' && flat.length > 8) return [];
                if (what === 'empty') return [{ ...l, text: '' }];
                const parts = l.text.split(' ');
                parts.splice(b % (parts.length + 1), 0, word);
                return [{ ...l, text: parts.join(' ') }];
              }),
            }))
            .filter((s) => s.lines.length);
          if (what === 'move' && now.length > 2) now = [now[0], ...now.slice(2), now[1]];
          const input = { title, sections: now, sources, target: { kind: 'point' as const, seconds: 150 } };
          expect(kept(input)).to.deep.equal(makeReviewer(tools)(input));
        },
      ),
      { seed: 11, numRuns: 15 },
    );
  });

  it('passes our own drafts with little but their closeness', async () => {
    for (const name of ['footbridge.html', 'boat-lift.md', 'ledger.txt', 'sash-window.md', 'eels.txt']) {
      const { sections, sources, title } = await demo(name);
      const truth = makeReviewer(tools)({ title, sections, sources }).findings.filter(
        (f) => f.area === 'truth',
      );
      expect(truth.map((f) => `${name}: ${f.reason}`)).to.deep.equal([]);
    }
  });

  it('has a catalogue for pages that says the same as the rules', () =>
    expect(CATALOGUE.map(({ id, area, name }) => ({ id, area, name }))).to.deep.equal(
      RULES.map(({ id, area, name }) => ({ id, area, name })),
    ));

  it('waves a finding off as long as its words stay', () => {
    const [found] = review(script(['It was actually a boat.']));
    const waiver = {
      rule: found.rule,
      line: found.line,
      text: found.text ?? '',
      reason: 'it is how she talks',
    };
    expect(isWaived(found, [waiver])).to.equal(true);
    expect(isWaived({ ...found, text: 'basically ' }, [waiver])).to.equal(false);
  });
});

describe('mends', () => {
  const MESSY = script(
    [
      'Welcome back to the channel.',
      'It was actually the the old lift.',
      'Salt & water (NASA) were mixed in order to clean it.',
    ],
    ['The keeper counted boats.'],
  );
  const findings = (sections: readonly PlainSection[]) => review(sections);

  it('all that is safe, as one change, until nothing safe is left', () => {
    const { sections, mended } = mendAllSafe(MESSY, findings);
    expect(sections.flatMap((s) => s.lines.map((l) => l.text))).to.deep.equal([
      'It was the old lift.',
      'Salt and water were mixed to clean it.',
      'The keeper counted boats.',
    ]);
    expect(mended).to.be.at.least(5);
    expect(mendAllSafe(sections, findings).mended).to.equal(0);
  });
  it('never in a locked line, and never the last line of a script', () => {
    const locked = MESSY.map((s) => ({ ...s, lines: s.lines.map((l) => ({ ...l, locked: true })) }));
    expect(mendAllSafe(locked, findings).sections).to.deep.equal(locked);
    expect(withEdits(script(['Welcome back.']), [{ line: 'L1', remove: true }])[0].lines).to.have.length(1);
    expect(
      withEdits(script(['Welcome back.'], ['It fell.']), [{ line: 'L1', remove: true }]).map((x) => x.id),
    ).to.deep.equal(['S2']);
  });
  it('put a quotation, a hedge back as the source has it', async () => {
    const text =
      'Ada Vey said the cables “were never once greased in nineteen years”.\n\nThe works cost about 310 pounds.';
    const [quote] = review(
      script(['f1:Ada Vey said the cables “were never once oiled in nineteen years”.']),
      [await source(text)],
    ).filter((f) => f.rule === 'altered-quote');
    expect(quote.mend?.edits).to.deep.equal([
      { line: 'L1', text: 'Ada Vey said the cables “were never once greased in nineteen years”.' },
    ]);
    const [hedge] = review(script(['f2:The works cost 310 pounds.']), [await source(text)]).filter(
      (f) => f.rule === 'stronger-than-source',
    );
    expect(hedge.mend?.edits).to.deep.equal([{ line: 'L1', text: 'The works cost about 310 pounds.' }]);
  });
});

describe('spelling and grammar', () => {
  // The checker's own examples, from the descriptions of its rules (harper.js 2.10).
  const own: readonly (readonly [string, string])[] = [
    ['It is an hour until we meet at a airport.', 'a'],
    ['He recieved it.', 'recieved'],
    ['They went there to get there coats and and left.', 'and and'],
  ];
  it('finds what its library is made to find', async () => {
    const hits = await grammarHits(own.map(([t]) => t));
    expect(hits[1].map((h) => own[1][0].slice(h.start, h.end))).to.include('recieved');
    expect(hits[0].some((h) => own[0][0].slice(h.start, h.end) === 'a')).to.equal(true);
  });
  it('knows names and the words of the sources, and judges no quotation', async () => {
    const text = 'The frobnitz of Orrin said “I recieved it”, and the wibblewort broke.';
    const [hits] = await grammarHits([text]);
    const prepared = prepareSources([
      await source('The frobnitz of Orrin was a machine for counting boats.'),
    ]);
    const quotes: [number, number][] = [[text.indexOf('“'), text.indexOf('”') + 1]];
    const found = grammarFindings({ id: 'L1', text, locked: false, quotes }, hits, prepared).map(
      (f) => f.text,
    );
    expect(found).to.deep.equal(['wibblewort']);
  });
});

const text =
  'On 3 May 1889 the engineer Ambrose Vey may have opened the lift with 48 cables. The council closed it.';
const sources = [await source(text)];

describe('own words', () => {
  const prepared = prepareSources(sources);
  const [fact] = sources[0].facts;
  const check = (typed: string) => checkTelling(typed, [fact], prepared, { tagger });

  it('shows a fact as key words that can’t be copied', () => {
    const keys = keysOf(fact, tagger);
    expect(keys.when).to.deep.equal(['3 May 1889']);
    expect(keys.howMuch).to.deep.equal(['48 cables']);
    expect(keys.sure).to.equal('possible');
    expect(keys.did).to.equal('open');
    expect(JSON.stringify(keys)).to.not.include('may have opened the lift');
  });
  it('says whether a telling is close, true, and tells the fact at all', () => {
    expect(
      check('On 3 May 1889 the engineer Ambrose Vey may have opened the lift with 48 cables.').close,
    ).to.equal(true);
    const mine = check('Perhaps it was Ambrose Vey who opened the lift in May 1889. It hung from 48 cables.');
    expect([mine.close, mine.faults, mine.tells]).to.deep.equal([false, [], true]);
    expect(check('It was opened in 1891 by Ida Quill.').faults.map((f) => f.says)).to.have.length.of.at.least(
      2,
    );
    expect(check('Penguins march south.').tells).to.equal(false);
    expect(check('Vey opened it, perhaps.').untold).to.include.members(['48 cables', '3 May 1889']);
  });
});

describe('which fact a line rests on', () => {
  it('is found by words and values, and by none when nothing is shared', async () => {
    const document = await openSource(demoFile('boat-lift.md'));
    const facts = extractFacts(document, tagger);
    const index = indexFacts(facts.map((f) => ({ source: 'A', id: f.id, text: f.text })));
    let right = 0;
    const tried = facts.filter((f) => f.text.split(' ').length > 6);
    for (const f of tried) {
      // Every third word left out, the rest in another order.
      const words = f.text
        .split(' ')
        .filter((_, i) => i % 3 !== 2)
        .reverse()
        .join(' ');
      if (index.find(words)?.fact === f.id) right++;
    }
    expect(right / tried.length).to.be.at.least(0.92);
    expect(index.find('Penguins march across frozen plateaus.')).to.equal(null);
  });
});

describe('the check', () => {
  const lines = [
    { id: 'L1', text: 'The lift was opened in 1889.' },
    { id: 'L2', text: 'Nobody came.', endsSection: true },
  ];
  const checked = async (
    more: { id: string; text: string }[] = [],
    text?: string,
    target?: { kind: 'point'; seconds: number },
  ) =>
    checkScript(
      { title: '', sections: sectionsOfLines([...lines, ...more]), ...(target ? { target } : {}) },
      text ? [await source(text)] : [],
      tools,
    );
  it('has no score, no overlap and nothing unsupported without a source, and says what would need proof', async () => {
    const { score, overlap, unsupported, claims } = await checked([
      { id: 'L3', text: 'Mara Teal built the only lift in the valley, “for nobody at all”.' },
    ]);
    expect([score, overlap, unsupported]).to.deep.equal([null, null, []]);
    expect(claims).to.deep.equal([
      { line: 'L1', text: '1889', why: 'date' },
      { line: 'L3', text: 'Mara Teal', why: 'name' },
      { line: 'L3', text: 'only lift', why: 'above all others' },
      { line: 'L3', text: '“for nobody at all”', why: 'quote' },
    ]);
  });
  it('names lines that claim what no source has, and the score falls', async () => {
    const text = 'The lift was opened in 1889. Nobody came.';
    const wrong = await checked([{ id: 'L9', text: 'It cost £99.' }], text);
    expect(wrong.unsupported).to.deep.equal([
      { line: 'L9', text: '£99', why: 'number', slot: 'how much', level: 'wrong' },
    ]);
    expect(wrong.score).to.be.lessThan((await checked([], text)).score!);
  });
  it('says over and under', async () =>
    expect(
      (await checked([], undefined, { kind: 'point', seconds: 300 })).findings.map((f) => f.rule),
    ).to.include('over-length'));
});

describe('overlap, against an independent count', () => {
  /** By brute force: a word is shared when any window of eight around it stands word for word in the source. */
  const naive = (told: string[], from: string[]) => {
    const windows = new Set(from.map((_, i) => from.slice(i, i + 8).join(' ')));
    return told.filter((_, i) =>
      Array.from({ length: 8 }, (_, k) => i - k).some(
        (s) => s >= 0 && s + 8 <= told.length && windows.has(told.slice(s, s + 8).join(' ')),
      ),
    ).length;
  };
  it('agrees on any text without names and quotations', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'boat', 'rose', 'slowly', 'up'), { minLength: 1, maxLength: 60 }),
        fc.array(fc.constantFrom('a', 'boat', 'rose', 'slowly', 'up'), { minLength: 1, maxLength: 60 }),
        (told, from) => {
          const result = overlap([told.join(' ')], indexSources([from.join(' ')]));
          expect(result.lines[0].shared).to.equal(naive(told, from));
        },
      ),
      { seed: 12, numRuns: 400 },
    ));
});
