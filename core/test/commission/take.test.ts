import { diffArrays } from 'diff';
import { expect } from 'chai';
import fc from 'fast-check';
import { distance } from 'fastest-levenshtein';
import { get as reference } from 'fast-levenshtein';
import {
  disclosureOf,
  failedIn,
  followUpOrder,
  mergedReply,
  orderedSections,
  replacedBy,
  rowsOf,
  settleLength,
  takeable,
  takenIn,
  type CheckedReply,
  type CommissionContext,
} from '../../src/commission/index.ts';
import {
  emptyLine,
  sectionsOfFile,
  scriptFile,
  docFromSections,
  plainSections,
  type Origin,
  type PlainSection,
} from '../../src/script/index.ts';
import { clock } from '../tools.ts';
import { checkerOf, demoContext } from './context.ts';

const BY: Origin = { kind: 'person', who: 'Ines Okafor', at: '2026-01-02T10:00:00.000Z' };
const REPLY =
  '[1]\nOn Thursday a new footbridge swung from side to side by nearly seven centimetres. Fifty people were led off one at a time. Nobody was hurt.\n[2]\nIt had been open for just eleven weeks.';

describe('taking a reply', function () {
  let context: CommissionContext;
  let reply: CheckedReply;
  let n = 0;
  const options = { by: BY, fresh: () => `x${n++}` };
  before(async () => {
    context = await demoContext('footbridge.html', 180);
    reply = checkerOf(context).check(REPLY, true);
  });
  const words = (sections: readonly PlainSection[]) => sections.flatMap((s) => s.lines.map((l) => l.text));

  it('stands level with ours where both rest on one fact', () => {
    const rows = rowsOf(context.sections[0], reply);
    const both = rows.filter((r) => r.ours && r.reply);
    expect(both.length).to.be.greaterThan(0);
    for (const r of both) expect(r.ours!.from.map((f) => f.fact)).to.include(r.reply!.facts[0].fact);
    expect(rows.flatMap((r) => r.ours ?? [])).to.deep.equal(
      context.sections[0].lines.filter((l) => l.text.trim()),
    );
    expect(rows.flatMap((r) => r.reply ?? []).map((l) => l.id)).to.deep.equal(['R1', 'R2', 'R3']);
  });

  it('takes clean lines, and mended ones when asked; what was there stays a take, the origin is kept', () => {
    expect([...takeable(reply, false).keys()]).to.deep.equal(['R1', 'R3', 'R4']);
    const taking = takeable(reply, true);
    expect(taking.get('R2')).to.match(/^Forty people/);
    const taken = takenIn(context, reply, taking, options);
    const first = taken[0].lines.find((l) => l.text.startsWith('On Thursday'))!;
    expect(first.by).to.deep.equal(BY);
    expect(first.takes.map((t) => t.text)).to.deep.equal([context.sections[0].lines[0].text]);
    expect(first.from.map((f) => f.fact)).to.include(context.sources[0].facts[0].id);
    expect(taken[0].takes.at(-1)!.lines.map((l) => l.text)).to.deep.equal(words([context.sections[0]]));
    // Sections that the reply has nothing for are the same objects.
    expect(taken[3]).to.equal(context.sections[3]);
  });

  it('survives the document and the script file with its origin', () => {
    const taken = takenIn(context, reply, takeable(reply, true), options);
    expect(plainSections(docFromSections(taken))).to.deep.equal(
      taken.map((s) => ({
        ...s,
        lines: s.lines.map(({ marks, ...l }) => (marks?.length ? { ...l, marks } : l)),
      })),
    );
    const settings = {
      title: 'x',
      frame: '16:9',
      mood: 'calm',
      pace: 150,
      voice: 'even',
      seed: 1,
      shape: 'news',
      target: context.target,
    } as const;
    const file = scriptFile(settings, taken, clock, []);
    expect(sectionsOfFile(file).flatMap((s) => s.lines.flatMap((l) => l.by ?? []))).to.deep.equal(
      taken.flatMap((s) => s.lines.flatMap((l) => l.by ?? [])),
    );
  });

  it('a disclosure says who wrote how many lines, and nothing of a script written here', () => {
    expect(disclosureOf(context.sections)).to.equal('');
    const taken = takenIn(context, reply, takeable(reply, true), options);
    const all = words(taken).filter(Boolean).length;
    expect(disclosureOf(taken)).to.equal(
      `4 of ${all} lines were first written by Ines Okafor on 2026-01-02 and checked against the sources.`,
    );
  });

  describe('in place of ours', () => {
    const BAD =
      '[1]\nOn Thursday a new footbridge swung from side to side by nearly seven centimetres. Nobody was hurt.\n[2]\nThe bridge carries about 9,500 or 12,000 people a day, said Professor Aldous Wren. It had been open for just eleven weeks.';
    const replaced = (more: Partial<Parameters<typeof replacedBy>[3]> = {}, must: string[] = []) => {
      const bad = checkerOf(context).check(BAD, true);
      return { bad, ...replacedBy({ ...context, must }, bad, takeable(bad, true), { ...options, ...more }) };
    };

    it('none of our lines stay in a paragraph that the reply tells; what was there is a take of it', () => {
      const { sections } = replaced();
      for (const s of sections.slice(0, 2)) {
        for (const l of s.lines) expect(Boolean(l.by) || Boolean(l.open?.length)).to.equal(true);
        const was = context.sections.find((x) => x.id === s.id)!;
        expect(s.takes.at(-1)!.lines.map((l) => l.text)).to.deep.equal(words([was]));
      }
      expect(sections[3]).to.equal(context.sections[3]);
    });

    it('a refused line keeps its place, open, with its words and what is wrong in them; what follows it stays', () => {
      const { sections, became, bad } = replaced();
      const [refused] = bad.lines.filter((l) => l.text.includes('Wren'));
      expect(became.get(refused.id)).to.equal('kept open');
      const [open, next] = sections[1].lines;
      expect(open.open?.length).to.be.greaterThan(0);
      expect(open.text).to.equal('');
      expect(open.fixedMs).to.be.closeTo(refused.ms, 60);
      expect(open.takes.at(-1)).to.include({ text: refused.text });
      expect(open.takes.at(-1)!.why).to.include('Wren');
      expect(next.text).to.equal('It had been open for just eleven weeks.');
      // The document keeps it so.
      const kept = plainSections(docFromSections(sections))[1].lines[0];
      expect([kept.open, kept.takes.at(-1)!.why]).to.deep.equal([open.open, open.takes.at(-1)!.why]);
    });

    it('every line of the reply is accounted for', () => {
      const { became, bad } = replaced();
      expect([...became.keys()].sort()).to.deep.equal(bad.lines.map((l) => l.id).sort());
    });

    it('a section that the reply has nothing for keeps only what is told nowhere else; another one’s reply touches none', () => {
      const [first, second, third] = context.sections;
      const texts = [first, second, third].flatMap((s) => s.lines.map((l) => l.text)).join('\n');
      // Told in two sections what stands in three.
      const reply = checkerOf(context).check(`[1]\n${first.lines[0].text}\n[2]\n${texts}`, true);
      const taking = new Map(reply.lines.map((l) => [l.id, l.text] as const));
      const { sections } = replacedBy(context, reply, taking, options);
      expect(sections.map((s) => s.id)).to.not.include(third.id);
      expect(sections.slice(2)).to.deep.equal(context.sections.slice(3));
      const one = { ...reply, lines: reply.lines.filter((l) => l.section === second.id) };
      expect(replacedBy(context, one, taking, options).sections[2]).to.equal(third);
    });

    it('a paragraph can stay ours', () => {
      const { sections, became, bad } = replaced({ stays: new Set([context.sections[1].id]) });
      expect(sections[1]).to.equal(context.sections[1]);
      for (const l of bad.lines.filter((x) => x.section === context.sections[1].id))
        expect(became.get(l.id)).to.equal('paragraph stays');
    });

    it('what the writer marked and the reply doesn’t say has a place kept', () => {
      const key = `A:${context.sources[0].facts.at(-1)!.id}`;
      const away = context.sections.map((s) => ({ ...s, lines: s.lines.filter((l) => l.from.every((f) => `A:${f.fact}` !== key)) }));
      const bad = checkerOf(context).check(BAD, true);
      const { sections, owed } = replacedBy({ ...context, sections: away, must: [key] }, bad, takeable(bad, true), options);
      expect(owed).to.deep.equal([key]);
      expect(sections.flatMap((s) => s.lines).filter((l) => l.open?.some((f) => `A:${f.fact}` === key))).to.have.length(1);
    }); // prettier-ignore
  });

  it('leaves out for length no line that another one hangs on', () => {
    const line = (id: string, text: string) => ({
      ...context.sections[1].lines[0],
      id,
      text,
      from: [{ source: 'A', fact: id, quote: '' }],
      by: BY,
    });
    const sections = [
      {
        ...context.sections[1],
        lines: [
          line('a', 'Tam Rudkin keeps the lock.'),
          line('b', 'It stands below the bridge.'),
          line('c', 'What did the water show?'),
          line('d', 'A line that bent.'),
          line('e', 'The council has asked for a record.'),
          line('f', 'Rudkin keeps one in pencil.'),
        ],
      },
    ];
    const settled = settleLength(sections, { kind: 'point', seconds: 15 }, 'calm', clock, () => 0.5);
    const { dropped } = settleLength(sections, { kind: 'point', seconds: 8 }, 'calm', clock, () => 0.5);
    expect(settled.dropped).to.deep.equal([]);
    // "Tam Rudkin" is who "Rudkin" is, "It" is the lock; a question goes with its answer or not at all.
    const gone = dropped.map((l) => l.id);
    expect(gone).to.not.be.empty;
    expect(gone).to.not.include('a');
    expect(gone.includes('b')).to.equal(gone.includes('a'));
    expect(gone.includes('c')).to.equal(gone.includes('d'));
  });

  it('never touches a locked line or section, whatever is taken', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(30), { maxLength: 12 }),
        fc.subarray(['R1', 'R2', 'R3', 'R4']),
        fc.boolean(),
        fc.integer({ min: -1, max: 5 }),
        (lockedLines, chosen, whole, lockedSection) => {
          let at = 0;
          const sections = context.sections.map((s, i) => ({
            ...s,
            locked: i === lockedSection,
            lines: s.lines.map((l) => ({ ...l, locked: lockedLines.includes(at++) })),
          }));
          const all = takeable(reply, true);
          const taking = new Map(chosen.map((id) => [id, all.get(id)!]));
          const taken = whole
            ? replacedBy({ ...context, sections }, reply, taking, {
                ...options,
                instead: chosen.length % 2 ? 'ours' : 'open',
              }).sections
            : takenIn({ ...context, sections }, reply, taking, options);
          const ids = taken.flatMap((s) => s.lines.map((l) => l.id));
          expect(new Set(ids).size).to.equal(ids.length);
          sections.forEach((s, i) => {
            const stay = s.lines.filter((l) => l.locked || s.locked);
            expect(taken[i].lines.filter((l) => stay.some((x) => x.id === l.id))).to.deep.equal(stay);
          });
          const untouched = sections.filter(
            (s) => !reply.lines.some((l) => l.section === s.id && (whole || taking.has(l.id))),
          );
          for (const s of untouched) expect(taken).to.include(s);
        },
      ),
    );
  });

  it('a follow-up asks only for what failed, and its answer goes in by number and fact', () => {
    const sections = orderedSections(context, clock);
    const bad = checkerOf(context).check(
      '[1]\nThe bridge swung by nearly seven centimetres. Professor Wren foretold it. Nobody was hurt.',
      true,
    );
    const failed = failedIn(bad, sections);
    expect(failed.lines.map((l) => l.number)).to.deep.equal([2]);
    const order = followUpOrder(context, bad, sections)!;
    expect(order)
      .to.include('[2] «Professor Wren foretold it.»')
      .and.include('No source names “Professor Wren”.');
    expect(order).to.not.include('Nobody was hurt.»\n  wrong');
    const [owed] = failed.unsaid;
    const merged = mergedReply(
      bad,
      `Sure, here you are:\n[2] Forty people were led off one at a time.\n[${owed.ref}] ${owed.text}`,
      sections,
    );
    const again = checkerOf(context).check(merged, true);
    const texts = again.lines.map((l) => l.text);
    expect(texts).to.include('Forty people were led off one at a time.').and.include('Nobody was hurt.');
    expect(texts.join(' ')).to.not.match(/Wren|Sure, here/);
    expect(again.unsaid.map((u) => u.ref)).to.not.include(owed.ref);
    const home = sections.find((x) => x.facts.some((f) => f.ref === owed.ref))!;
    expect(again.lines.find((l) => l.text === owed.text)?.section).to.equal(home.id);
  });

  it('a section that is too short is asked for facts that were left to the writer, and what is said of one goes behind what comes before it', () => {
    const sections = orderedSections(context, clock);
    const short = sections.find((x) => x.facts.filter((f) => !f.must).length > 2)!;
    const said = short.facts.filter((f) => f.must).map((f) => f.text);
    const reply = checkerOf(context).check(`[${short.number}]\n${said.join('\n')}`, true);
    const { more, lengths } = failedIn(reply, sections);
    const length = lengths.find((x) => x.section === short.number)!;
    const own = more.filter((m) => short.facts.some((f) => f.ref === m.ref && !f.must));
    expect(own.length).to.be.greaterThan(0);
    const words = own.reduce((n, m) => n + m.text.split(' ').length, 0);
    expect(words).to.be.at.most(1.5 * (length.want - length.words));
    expect(followUpOrder(context, reply, sections)).to.include('It is too short. Say these too').and.include(`[${own[0].ref}] «`); // prettier-ignore
    const merged = mergedReply(reply, own.map((m) => `[${m.ref}] ${m.text}`).join('\n'), sections);
    const again = checkerOf(context).check(merged, true);
    const number = (ref: string) => Number(ref.slice(1));
    const order = again.lines.filter((l) => l.section === short.id).flatMap((l) => l.facts.slice(0, 1).map((f) => number(short.facts.find((x) => x.fact === f.fact)!.ref))); // prettier-ignore
    expect(order).to.deep.equal([...order].sort((a, b) => a - b));
  });

  it('rests bring a script to its seconds; what is over loses its least needed lines, never one that must stay', () => {
    const target = { kind: 'point', seconds: 150 } as const;
    const kept = new Set(context.sections.flatMap((s) => s.lines.slice(0, 1).map((l) => l.id)));
    const settled = settleLength(context.sections, target, 'calm', clock, (l) =>
      kept.has(l.id) ? null : 0.5,
    );
    expect(Math.abs(settled.offMs)).to.be.at.most(1500);
    expect(settled.dropped.length).to.be.greaterThan(0);
    for (const l of settled.dropped) expect(kept.has(l.id)).to.equal(false);
    const longer = settleLength(context.sections, { kind: 'point', seconds: 184 }, 'calm', clock, () => null);
    expect([longer.offMs, longer.dropped]).to.deep.equal([0, []]);
    expect(words(longer.sections)).to.deep.equal(words(context.sections));
  });
});

describe('against reference libraries', () => {
  it('levels as many lines as the longest common course that “diff” finds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(5), { maxLength: 12 }),
        fc.array(fc.nat(5), { maxLength: 12 }),
        (ours, theirs) => {
          const section: PlainSection = {
            id: 'S1',
            title: '',
            role: 'ground',
            plannedMs: 0,
            locked: false,
            takes: [],
            lines: ours.map((f, i) => ({
              ...emptyLine(`L${i}`),
              text: `ours ${i}`,
              from: [{ source: 'A', fact: `f${f}`, quote: '' }],
            })),
          };
          const lines = theirs.map((f, i) => ({
            id: `R${i}`,
            number: i + 1,
            text: `reply ${i}`,
            section: 'S1',
            facts: [{ source: 'A', fact: `f${f}`, score: 1 }],
            framing: false,
            faults: [],
            mended: null,
            proved: false,
            ms: 0,
            mendedMs: 0,
            words: 2,
            arriving: false,
          }));
          const rows = rowsOf(section, {
            lines,
            cleaned: [],
            unsaid: [],
            saidBy: {},
            lengths: [],
            overlap: 0,
            cut: false,
            done: true,
          });
          const common = diffArrays(ours, theirs).reduce(
            (n, c) => n + (c.added || c.removed ? 0 : c.value.length),
            0,
          );
          expect(rows.filter((r) => r.ours && r.reply).length).to.equal(common);
        },
      ),
    );
  });

  it('measures how far a quotation was altered as “fast-levenshtein” does', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), fc.string({ maxLength: 40 }), (a, b) => {
        expect(distance(a, b)).to.equal(reference(a, b));
      }),
    );
  });
});
