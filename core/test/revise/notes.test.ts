/** Notes in plain words: what is understood, what is proposed, and that nothing else is touched. */
import { expect } from 'chai';
import fc from 'fast-check';
import { breakScenes } from '../../src/scenes/index.ts';
import type { PlainLine, PlainSection } from '../../src/script/index.ts';
import {
  OPERATIONS,
  acceptedIn,
  amountOf,
  propose,
  scopeOf,
  understand,
  type Proposal,
} from '../../src/revise/index.ts';
import { getClock } from '../../../server/src/tools.ts';
import { clock, pronouncer, tagger } from '../tools.ts';
import { oneSlip } from '../../src/revise/plainly.ts';
import { SEEN, UNSEEN, type Phrasing } from './phrasings.ts';
import { SCRIPT, context } from './script.ts';

const tools = { clock, pronouncer, tagger };
const lines = (sections: readonly PlainSection[]): PlainLine[] => sections.flatMap((s) => [...s.lines]);
const texts = (sections: readonly PlainSection[]) => lines(sections).map((l) => l.text);
const proposed = (note: string, ...rest: Parameters<typeof context>): Proposal => {
  const r = propose(note, context(...rest), tools);
  if ('cannot' in r) throw new Error(`${note}: ${r.cannot}`);
  return r.proposal;
};
const refused = (note: string, ...rest: Parameters<typeof context>): string => {
  const r = propose(note, context(...rest), tools);
  return 'cannot' in r ? r.cannot : `was understood: ${r.proposal.says}`;
};
const changes = (note: string) => proposed(note).changes.map((c) => [c.before, c.after]);

function read([note, , scope]: Phrasing): { operation: string | null; scope: string } {
  const u = understand(note, context());
  if ('asks' in u) return { operation: null, scope: '' };
  const [{ scope: s }] = u.requests;
  const says = s.type === 'whole' ? '*' : s.type === 'lines' ? s.lines.join('+') : s.sections.join('+');
  return {
    operation: u.requests.map((r) => r.operation.id).join(' + '),
    scope: scope === undefined ? '' : says,
  };
}
const wanted = (scope: string | undefined) => (scope === '-' ? 'S2L2' : (scope ?? ''));

describe('what a note is understood as', () => {
  const all = [...SEEN, ...UNSEEN];
  for (const phrasing of all)
    it(`“${phrasing[0]}”`, () =>
      expect(read(phrasing)).to.deep.equal({
        operation: phrasing[1],
        scope: phrasing[1] === null ? '' : wanted(phrasing[2]),
      }));

  // As people write them in a hurry, beside their reasons and courtesies. Tuned on: a test, no estimate.
  for (const [note, operation, scope] of [
    ['too slow for me. 1:30 tops', 'under', '*'],
    ['rivets -> bolts. everywhere', 'replace-word', '*'],
    [
      'Hello there, and thank you for this. It is nearly right for us. Could the second section be left out, please?',
      'drop',
      'S2',
    ],
    ['unlock all, we’re starting again', 'unlock', '*'],
    ['“Nobody had touched it” out. reads oddly', 'drop-word', '*'],
    ['everything from “But the crowd” on, gone', 'drop', 'S4L1+S4L2+S4L3+S5L1+S5L2+S5L3+S6L1+S6L2+S6L3'],
    ['put teh turn right after the openign', 'move', 'S4'],
    ['swap section 2 and 3, and once that’s done lock both', 'swap + lock'],
    ['Title of the third section, I would like “The nurse” in place of what is now', 'rename', 'S3'],
    ['Please make more short the second section, is much too long', 'shorten', 'S2'],
  ] as const satisfies readonly Phrasing[])
    it(`“${note}”`, () => {
      const got = read([note, operation, scope] as Phrasing);
      expect([got.operation, scope ? got.scope : '']).to.deep.equal([operation, scope ?? '']);
    });

  it('does nothing where a sentence that asks, or that holds back, can’t be read', () => {
    for (const note of [
      'Cut the second section. And make the rest sing.',
      'Cut the second section, but only if the sponsor agrees.',
      'Leave out the third section. The same for whatever is like it.',
      'Could the second section be reimagined as a fable?',
    ])
      expect(understand(note, context()), note).to.have.property('asks');
  });

  it('names a stretch by its time, and says where there is none', () => {
    const starts = [0, 2000, 6000, 8000, 11_000];
    const timed = { ...context(), sections: SCRIPT.slice(0, 1), startsMs: () => starts };
    const at = (text: string) => scopeOf(text, timed);
    expect(at('0:02 to 0:08')).to.have.nested.property('scope.lines').deep.equal(['S1L2', 'S1L3']);
    expect(at('at 0:09')).to.have.nested.property('scope.lines').deep.equal(['S1L4']);
    const cut = understand('cut 0:02 to 0:08', timed);
    expect('requests' in cut && cut.requests.map((r) => [r.operation.id, r.scope.lines])).to.deep.equal([['drop', ['S1L2', 'S1L3']]]); // prettier-ignore
    const one = understand('cut 0:09', timed);
    expect('requests' in one && one.requests.map((r) => [r.operation.id, r.scope.lines])).to.deep.equal([['drop', ['S1L4']]]); // prettier-ignore
    expect(at('the bit at 7:30')).to.deep.equal({ unknown: 'It is over before 7:30.' });
  });

  it('is tried on more than 200 phrasings, a third of them not seen while the grammar was written', () => {
    expect(all.length).to.be.at.least(200);
    expect(UNSEEN.length * 3).to.be.at.least(all.length);
  });

  it('covers every operation', () => {
    const tried = new Set(all.flatMap(([, op]) => op?.split(' + ') ?? []));
    expect(OPERATIONS.map((o) => o.id).filter((id) => !tried.has(id))).to.deep.equal([]);
  });

  it('comes to at least 40 operations times scopes', () => {
    const pairs = new Set(all.flatMap((p) => (p[1] ? [`${p[1]} ${p[2]?.replace(/\d/g, '') ?? ''}`] : [])));
    expect(pairs.size).to.be.at.least(40);
  });
});

describe('amounts in words', () => {
  const cases: readonly (readonly [string, unknown])[] = [
    ['by half', { type: 'share', share: 0.5 }],
    ['a third', { type: 'share', share: 1 / 3 }],
    ['by 20%', { type: 'share', share: 0.2 }],
    ['eight seconds', { type: 'to', ms: 8000 }],
    ['by ten seconds', { type: 'by', ms: 10_000 }],
    ['1.5 s', { type: 'to', ms: 1500 }],
    ['2 minutes', { type: 'to', ms: 120_000 }],
  ];
  for (const [said, amount] of cases)
    it(said, () => expect(amountOf(said)).to.deep.include(amount as object));
  it('says nothing of what is no amount', () => expect(amountOf('the bridge')).to.equal(null));
});

describe('places in words', () => {
  const ids = (said: string) => {
    const r = scopeOf(said, context());
    return 'scope' in r ? [...(r.scope.type === 'lines' ? r.scope.lines : r.scope.sections)] : r.unknown;
  };
  it('by number, by role, by title, by what it is about', () => {
    expect(ids('the last section')).to.deep.equal(['S6']);
    expect(ids('section two')).to.deep.equal(['S2']);
    expect(ids('the turn')).to.deep.equal(['S4']);
    expect(ids('the part with the nurse')).to.deep.equal(['S3']);
    expect(ids('the line about the dampers')).to.deep.equal(['S6L2']);
    expect(ids('lines 2 to 3 of the first section')).to.deep.equal(['S1L2', 'S1L3']);
    expect(ids('the quotes')).to.deep.equal(['S3L2']);
    expect(ids('the next section')).to.deep.equal(['S3']);
  });
  it('says why a place is none', () => {
    expect(ids('the ninth section')).to.equal('There are only 6 sections.');
    expect(ids('the part about penguins')).to.equal('Nothing here is about penguins.');
    expect(scopeOf('this', context(null))).to.deep.equal({
      unknown: 'Nothing is selected, so “this” could be anything.',
    });
  });
});

describe('what a note proposes', () => {
  it('the opening under eight seconds keeps the hook and drops the greeting first', () => {
    const { sections } = proposed('take five seconds off the opening');
    expect(texts(sections))
      .to.include('A footbridge in Marrowgate swayed like a boat on Thursday.')
      .and.not.include('Welcome back to the channel.');
    const opening = proposed('bring the opening under eight seconds').sections[0];
    const ms = clock
      .lines(opening.lines.map((l, i) => ({ text: l.text, endsSection: i === opening.lines.length - 1 })))
      .reduce((n, t) => n + t.ms, 0);
    expect(ms).to.be.at.most(8000 + 400);
  });
  it('a whole script comes under the length asked', () => {
    expect(proposed('get the whole thing under 40 seconds').afterMs).to.be.at.most(40_000);
    expect(refused('get the whole thing under 2 seconds')).to.match(/must stay/);
  });
  it('drops no more than it must: half is as near to half as lines allow', () => {
    const before = proposed('lock the ending').beforeMs;
    const { afterMs } = proposed('the second section at half its length');
    expect(before - afterMs).to.be.within(12_000, 18_000);
  });
  it('word for word, in every form, outside quotations, with the article', () => {
    expect(changes('every "utilise" to "use"')).to.deep.equal([
      ['It was utilised by 1,400 people every day.', 'It was used by 1,400 people every day.'],
      [
        'The city had utilised steel from 3 yards (all of them closed now) and 62,480 rivets.',
        'The city had used steel from 3 yards (all of them closed now) and 62,480 rivets.',
      ],
    ]);
    expect(
      changes('replace "deck" with "floor" in the third section').map(([, after]) => after),
    ).to.deep.equal([
      'Oona Barrick held on to the rail, and then everyone around her started to walk in step because the floor was moving under their feet.',
    ]);
    expect(changes('replace all "footbridge" with "arch"')[0][1]).to.equal(
      'An arch in Marrowgate swayed like a boat on Thursday.',
    );
  });
  it('numbers for the ear', () => {
    expect(changes('round the figures in the bridge section').map(([, after]) => after)).to.deep.equal([
      'The city had utilised steel from 3 yards (all of them closed now) and about 62,000 rivets.',
      'It cost about £1.5 million.',
    ]);
  });
  it('tense where it is sure, and says which lines it left', () => {
    const { sections, notes } = proposed('past to present');
    expect(texts(sections)).to.include.members([
      'I am standing on it when it begins.',
      '“It felt like the deck of a ferry,” she says.',
      'The more it moves, the more people fall into step with it.',
    ]);
    expect(notes.join()).to.match(/left as it is/);
    expect(texts(proposed('put the ending in the past tense').sections)).to.include(
      'Tam Rudkin wrote the same word every day: straight.',
    );
  });
  it('a question before the turn ends the section before it, and is framing', () => {
    const { sections } = proposed('ask a question before the turn');
    const last = sections[2].lines[sections[2].lines.length - 1];
    expect([last.text, last.role, last.from]).to.deep.equal(['So what happened?', 'lead', []]);
  });
  it('ends on what happens next', () => {
    const all = texts(proposed('end on what happens next').sections);
    expect(all[all.length - 1]).to.equal('Twelve dampers are going to be hung under the deck.');
  });
  it('one person’s story first', () =>
    expect(proposed('one person’s story first').sections[0].id).to.equal('S3'));
  it('what is said twice goes the second time', () => {
    expect(proposed('cut what is said twice').changes.map((c) => c.line)).to.deep.equal(['S5L3']);
  });
  it('says seconds, open questions and what it would leave', () => {
    const p = proposed('drop this part and ask a question before the turn');
    expect(p.beforeMs).to.be.greaterThan(p.afterMs);
    expect(p.understood.operation).to.equal('drop + question-before-turn');
    expect(p.openLoops).to.have.keys('before', 'after');
    expect([p.overlap, p.unsupported]).to.deep.equal([null, null]);
  });
  it('says what it can’t do and what is nearest', () => {
    const r = propose('third person please', context(), tools);
    expect(r).to.deep.equal({
      cannot: 'Who “I” is, no rule can tell: he, she, or a name. That needs a person.',
      took: 'tell it of them: the whole script',
      nearest: ['second person'],
    });
    expect(refused('the opening as a contradiction instead')).to.equal(
      'Without sources nothing can be told anew.',
    );
    expect(propose('make it pop', context(), tools)).to.have.property('cannot', 'I don’t know this change.');
    expect(refused('drop everything')).to.match(/nothing would be left/);
  });
});

describe('a note changes nothing outside of what was asked', () => {
  const notes = [...SEEN, ...UNSEEN].filter(([, op]) => op !== null).map(([n]) => n);
  const locked = (ids: ReadonlySet<string>) =>
    SCRIPT.map((s) => ({
      ...s,
      locked: ids.has(s.id),
      lines: s.lines.map((l) => ({ ...l, locked: ids.has(l.id) })),
    }));
  const anyIds = fc.subarray([...SCRIPT.map((s) => s.id), ...lines(SCRIPT).map((l) => l.id)]);

  it('a locked line keeps its words, whatever is asked', () =>
    fc.assert(
      fc.property(fc.constantFrom(...notes.filter((n) => !/unlock/.test(n))), anyIds, (note, ids) => {
        const sections = locked(new Set(ids));
        const r = propose(note, context({ section: 'S2', lines: ['S2L2'] }, sections), tools);
        if ('cannot' in r) return;
        const now = new Map(lines(r.proposal.sections).map((l) => [l.id, l]));
        for (const s of sections)
          for (const l of s.lines)
            if (l.locked || s.locked) expect(now.get(l.id)?.text, `${note}: ${l.id}`).to.equal(l.text);
      }),
      { seed: 5, numRuns: 400 },
    ));

  it('every line outside the scope keeps its words and rest', () => {
    for (const note of notes) {
      const u = understand(note, context());
      const r = propose(note, context(), tools);
      if ('asks' in u || 'cannot' in r || u.requests.length > 1 || u.requests[0].scope.type === 'whole')
        continue;
      const [{ scope, operation }] = u.requests;
      if (operation.id === 'swap' || operation.id === 'join') continue;
      const now = new Map(lines(r.proposal.sections).map((l) => [l.id, l]));
      for (const l of lines(SCRIPT))
        if (!scope.lines.includes(l.id))
          expect([note, now.get(l.id)?.text, now.get(l.id)?.restMs]).to.deep.equal([note, l.text, l.restMs]);
    }
  });

  it('taken in part, only the lines that were taken change; all taken is the proposal, none is what was', () =>
    fc.assert(
      fc.property(fc.constantFrom(...notes), fc.func(fc.boolean()), (note, take) => {
        const r = propose(note, context(), tools);
        if ('cannot' in r) return;
        const { proposal } = r;
        const every = new Set(proposal.changes.map((c) => c.line));
        expect(acceptedIn(SCRIPT, proposal, every)).to.deep.equal(proposal.sections);
        const some = new Set([...every].filter((id) => take(id)));
        const now = new Map(lines(acceptedIn(SCRIPT, proposal, some)).map((l) => [l.id, l.text]));
        for (const c of proposal.changes)
          if (!c.moved)
            expect(now.get(c.line) ?? '', `${note}: ${c.line}`).to.equal(
              some.has(c.line) ? c.after : c.before,
            );
      }),
      { seed: 6, numRuns: 400 },
    ));
});

describe('an amount', () => {
  const after = (note: string, id: string) => {
    const p = proposed(note);
    const ms = (list: readonly PlainSection[]) => {
      const of = list.find((x) => x.id === id)!;
      return clock.lines(of.lines.map((l) => ({ text: l.text, restMs: l.restMs }))).reduce((n, l) => n + l.ms, 0);
    };
    return [ms(SCRIPT), ms(p.sections)];
  }; // prettier-ignore

  it('is by how much where it says “shorter”, to how much where it doesn’t', () => {
    for (const note of ['the second section five seconds shorter', 'make the second section 5 seconds shorter', 'take five seconds off the second section']) {
      const [before, now] = after(note, 'S2');
      expect(before - now, note).to.be.within(5000, 9000);
    }
    expect(after('cut the second section to 5 seconds', 'S2')[1]).to.be.at.most(5000);
  }); // prettier-ignore
});

describe('changes of the script as a whole', () => {
  const whole = (note: string) => {
    const r = propose(
      note,
      { ...context(null), pace: 150, pictures: { frame: '16:9' } },
      { ...tools, clockAt: (pace) => getClock('even', pace) },
    );
    if ('cannot' in r) throw new Error(r.cannot);
    return r.proposal;
  };

  it('cut it into so many pictures, or one every so many seconds, and leave the words', () => {
    const all = (note: string) => {
      const p = whole(note);
      expect(p.changes, note).to.deep.equal([]);
      const { sections } = context(null);
      const found = breakScenes(sections, tools.clock, { frame: '16:9', handles: p.settings!.paceCurve! });
      expect(p.notes.join(' '), note).to.contain(`${found.length} after`);
      return { count: found.length, each: found.at(-1)!.endMs / found.length };
    };
    for (const note of ['make it 9 pictures', '9 shots in all please', 'cut the whole thing into 9 images'])
      expect(all(note).count, note).to.be.within(8, 10);
    for (const note of ['one picture every 8 seconds', 'a new shot every eight seconds'])
      expect(all(note).each, note).to.be.within(6500, 9500);
    const none = propose('make it 9 pictures', { ...context(null), pace: 150 }, tools);
    expect('cannot' in none && none.cannot).to.contain('can’t be changed here');
    expect(() => whole('make it 0 pictures')).to.throw('between 1 and');
  });

  it('another pace: the words stay, and the seconds are those of the new pace', () => {
    const p = whole('I read quicker than that, put it at 165 wpm');
    expect(p.settings).to.deep.equal({ pace: 165 });
    expect(p.changes).to.deep.equal([]);
    // Rests keep their length, so that the whole is shortened by a little less than the pace.
    expect(p.afterMs / p.beforeMs).to.be.within(150 / 165, 0.97);
    expect(whole('bit faster overall please').settings).to.deep.equal({ pace: 158 });
    expect(refused('put it at 165 wpm')).to.match(/can’t be changed here/);
  });

  it('another title, of the script and not of a section', () => {
    expect(whole('call the video “Out of step”').settings).to.deep.equal({ title: 'Out of step' });
    expect(whole('call the second section “Out of step”').settings).to.equal(undefined);
  });

  it('takes words out of the titles only', () => {
    const p = whole('take “The” out of the titles');
    expect(p.sections.map((s) => s.title)).to.include.members(['crack', 'bridge', 'turn', 'stairs']);
    expect(texts(p.sections)).to.deep.equal(texts(SCRIPT));
    // Words, not letters of other words: “turn” stays whole.
    expect(refused('take “tur” out of the titles')).to.match(/No title has/);
  });
});

describe('lines of other kinds', () => {
  const withLines = (...words: string[]) =>
    SCRIPT.map((s) => (s.id === 'S6' ? { ...s, lines: [...s.lines, ...words.map((text, i) => ({ ...s.lines[0], id: `R${i}`, text }))] } : s)); // prettier-ignore

  it('references are rows without a verb, one after another, with the marks of references; a lone fragment is none', () => {
    const rows = [
      'Marsh, I. “On decks”.',
      'Gannet Press, pp. 12–15.',
      'Orrin, p. 117.',
      'Retrieved 4 March 2019.',
    ];
    const p = proposed('no references please', null, withLines(...rows));
    expect(texts(p.sections)).to.deep.equal(texts(SCRIPT));
    expect(refused('no references please', null, withLines('Same drop.'))).to.match(/No rows of references/);
    expect(refused('no references please', null, withLines('No.', 'No.', 'Oh no.'))).to.match(/No rows of references/); // prettier-ignore
  });

  it('captions and labels are rows that nobody says; sentences stay', () => {
    const p = proposed('drop the captions', null, withLines('The deck in 2014', 'The deck is shut.'));
    expect(texts(p.sections)).to.include('The deck is shut.').and.not.to.include('The deck in 2014');
  });
});

describe('measures, figures and rests', () => {
  it('gives measures in other units, told as about', () => {
    expect(changes('the measures in feet rather than metres, please')[0][1]).to.match(/about 290 feet long/);
    expect(refused('use metric units in section 3')).to.match(/No measure there/);
  });

  it('writes one figure in words, as it is spoken', () => {
    expect(changes('write “88” in words')[0][1]).to.match(/eighty-eight metres/i);
    const small = SCRIPT.map((s) => (s.id === 'S6' ? { ...s, lines: s.lines.map((l, i) => (i === 0 ? { ...l, text: 'eBay is shut until spring.' } : l)) } : s)); // prettier-ignore
    expect(proposed('write “88” in words', null, small).changes.map((c) => c.section)).to.deep.equal(['S2']);
  });

  it('slows a part by rests after its lines, a tenth of its time', () => {
    const p = proposed('slower on the nurse part');
    const lines3 = p.sections.find((s) => s.id === 'S3')!.lines;
    expect(lines3.every((l) => l.restMs >= 200)).to.equal(true);
    expect(texts(p.sections)).to.deep.equal(texts(SCRIPT));
  });

  it('says who does it where the sentence names them', () => {
    const passive = SCRIPT.map((s) => (s.id === 'S5' ? { ...s, lines: [...s.lines.slice(0, 1), { ...s.lines[1], text: 'The stairs were widened by two brothers.' }, ...s.lines.slice(2)] } : s)); // prettier-ignore
    expect(texts(proposed('“The stairs were widened” is passive, turn it round', null, passive).sections)).to.include('Two brothers widened the stairs.'); // prettier-ignore
    expect(refused('avoid passives in section 2')).to.match(/by whom/);
  });
});

describe('changes within a line', () => {
  it('a stretch from one phrase to another goes, and what is left is a sentence', () => {
    expect(changes('cut from “from 3 yards” to “closed now)”')[0][1]).to.equal(
      'The city had utilised steel and 62,480 rivets.',
    );
    expect(refused('cut from “Nobody” to “it”')).to.include('Too little');
    expect(refused('cut from “Nobody” to “Thursday”')).to.include('No line runs');
  });

  it('two sentences are made of one where the second can stand alone', () => {
    const p = proposed('split it after “on to the rail”');
    expect(texts(p.sections)).to.include('Oona Barrick held on to the rail.');
    expect(texts(p.sections).some((t) => /^Then everyone around her started/.test(t))).to.equal(true);
    expect(refused('split it after “is a nurse”')).to.include('can’t stand alone');
  });

  it('a line parted in two keeps its notes once, with the first, and its rest behind the last', () => {
    const note = { id: 'n1', text: 'slowly', kind: 'aside' as const };
    const noted = SCRIPT.map((s) => ({ ...s, lines: s.lines.map((l) => (l.id === 'S3L3' ? { ...l, notes: [note] as never, restMs: 700 } : l)) })); // prettier-ignore
    const p = proposed('split it after “on to the rail”', null, noted);
    const parts = lines(p.sections).filter((l) => l.restMs === 700 || l.notes?.length);
    expect(parts.map((l) => [l.notes?.length ?? 0, l.restMs])).to.deep.equal([[1, 0], [0, 700]]); // prettier-ignore
  });

  it('one sentence is made of two, which rests on what both rested on', () => {
    const p = proposed('make the first two lines of section 4 into one sentence');
    expect(texts(p.sections)).to.include('But the crowd was not marching, and each step pushed the deck a little further.'); // prettier-ignore
    const apart = proposed('make lines 1 and 3 of section 4 into one sentence');
    expect(texts(apart.sections)).to.include('But the crowd was not marching, and the more it moved, the more people fell into step with it.'); // prettier-ignore
    expect(refused('make lines 1 and 8 into one sentence')).to.match(/^(?!was understood)/);
  });

  it('quoted words are said in others, with their article and their plural; names and figures otherwise', () => {
    expect(changes('reword “a ferry” into “an old boat”')[0][1]).to.equal('“It felt like the deck of an old boat,” she said.'); // prettier-ignore
    expect(changes('reword “rivet” into “bolt”')[0][1]).to.include('62,480 bolts');
    const told = [{ ...SCRIPT[0], title: 'What Lena saw', lines: ['Our treasurer, Lena, counted three hoops.', 'Lena’s hands shook. Odile left.'].map((text, i) => ({ ...SCRIPT[0].lines[i], text })) }]; // prettier-ignore
    const say = (note: string) => texts(proposed(note, null, told).sections);
    expect(say('anonymise Lena and Odile')).to.deep.equal(['Our treasurer counted three hoops.', 'Our treasurer’s hands shook. O. left.']); // prettier-ignore
    expect(proposed('anonymise Lena', null, told).sections[0].title).to.equal('What our treasurer saw');
    expect(say('numbers in figures')[0]).to.equal('Our treasurer, Lena, counted 3 hoops.');
  });

  it('a line has its source’s words again, where a sentence of the source stands close to it', () => {
    const fact = {
      id: 'f1',
      text: 'Rather than slice into the butter itself, conservators took a sliver of the lid.',
    };
    const sections = [{ ...SCRIPT[0], lines: [{ ...SCRIPT[0].lines[0], text: 'Instead of slice into the butter itself, conservators took a sliver of the lid.', from: [{ source: 'A', fact: 'f1' }] as never }, SCRIPT[0].lines[1]] }]; // prettier-ignore
    const r = propose('restore the source’s wording of the sentence about the butter', { ...context(null, sections), sources: [{ letter: 'A', text: fact.text, facts: [fact as never] }] }, tools); // prettier-ignore
    expect('proposal' in r && texts(r.proposal.sections)[0]).to.equal(fact.text);
    expect(refused('restore the source’s wording of the sentence about the rivets')).to.include('close enough'); // prettier-ignore
  });

  it('figures that must stay stay, and years of an era are none to round', () => {
    const sections = [{ ...SCRIPT[0], lines: ['It held 31.4 kg.', 'It was 47.6 metres long.', 'It was felled between A.D. 885 and 943.'].map((text, i) => ({ ...SCRIPT[0].lines[i], text })) }]; // prettier-ignore
    expect(texts(proposed('Everything may be rounded. Do not round the 31.4.', null, sections).sections)).to.deep.equal([
      'It held 31.4 kg.',
      'It was about 48 metres long.',
      'It was felled between A.D. 885 and 943.',
    ]); // prettier-ignore
  });

  it('air is given in rests, to the tenth, and gaps are refused', () => {
    const rests = (list: readonly PlainSection[]) => lines(list).reduce((n, l) => n + l.restMs, 0);
    const p = proposed('give the bridge part 3 seconds more air');
    expect(rests(p.sections) - rests(SCRIPT)).to.equal(3000);
    expect(refused('give the bridge part 60 seconds more air')).to.include('gaps');
  });

  it('a rest before something stands behind what is said before it', () => {
    const p = proposed('add a pause of a second before the line about the deck of a ferry');
    expect(lines(p.sections).find((l) => l.id === 'S3L1')!.restMs).to.equal(1000);
  });
});

/** Words one slip apart, as Damerau counted four in five slips of the pen (1964). */
describe('slips of the pen', () => {
  it('one letter more, less, other or changed about is one slip; two are two', () => {
    for (const b of ['section', 'secton', 'sectiion', 'sectoin', 'sectiom'])
      expect(oneSlip('section', b), b).to.equal(b !== 'section');
    for (const b of ['secotin', 'sctin', 'election']) expect(oneSlip('section', b), b).to.equal(false);
  });
});
