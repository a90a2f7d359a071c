/** From state to state in small steps, and answers that come late: nothing that was written since is lost. */
import { expect } from 'chai';
import fc from 'fast-check';
import {
  TOLD_MEANWHILE,
  difference,
  docFromSections,
  mergedOver,
  plainSections,
  type PlainLine,
  type PlainSection,
} from '@ursprung/core/script';
import { line, section } from './build.ts';

/** "S1: a=One. b=Two." as a section. */
const script = (...rows: string[]) =>
  rows.map((row) => {
    const [id, rest] = row.split(': ');
    return section(
      id,
      rest.split(' | ').map((part) => line(part.split('=')[0], part.split('=')[1] ?? '')),
    );
  });
const show = (sections: readonly PlainSection[]) =>
  sections.map((s) => `${s.id}: ${s.lines.map((l) => `${l.id}=${l.text}`).join(' | ')}`);
const merge = (base: PlainSection[], told: PlainSection[], now: PlainSection[]) => {
  const { doc, aside } = mergedOver(docFromSections(base), docFromSections(told), docFromSections(now));
  return { sections: plainSections(doc), aside };
};

/** Edits as a person or an answer makes them; each gives new words of its own. */
type Edit = { kind: number; at: number; to: number };
let words = 0;
function edited(sections: readonly PlainSection[], { kind, at, to }: Edit): PlainSection[] {
  const flat = sections.flatMap((s, i) => s.lines.map((l, j) => ({ l, i, j })));
  const hit = flat[at % flat.length];
  const s = sections[hit.i];
  const put = (lines: PlainLine[]) => sections.map((x) => (x === s ? { ...s, lines } : x));
  switch (kind) {
    case 0:
      return put(s.lines.map((l) => (l === hit.l ? { ...l, text: `${l.text} w${++words}w` } : l)));
    case 1:
      return put([
        ...s.lines.slice(0, hit.j),
        line(`N${++words}`, `new w${words}w`),
        ...s.lines.slice(hit.j),
      ]);
    case 2:
      return s.lines.length > 1
        ? put(s.lines.filter((l) => l !== hit.l))
        : sections.length > 1
          ? sections.filter((x) => x !== s)
          : [...sections];
    case 3: {
      const rest = sections.filter((x) => x !== s);
      const place = to % (rest.length + 1);
      return [...rest.slice(0, place), s, ...rest.slice(place)];
    }
    case 4: {
      const target = sections[to % sections.length];
      if (s.lines.length < 2 || target === s) return [...sections];
      return sections.map((x) =>
        x === s
          ? { ...x, lines: x.lines.filter((l) => l !== hit.l) }
          : x === target
            ? { ...x, lines: [...x.lines, hit.l] }
            : x,
      );
    }
    case 5:
      return put(
        s.lines.map((l) => (l === hit.l ? { ...l, restMs: (to % 9) * 100, text: `told w${++words}w` } : l)),
      );
    case 6:
      return sections.map((x) => (x === s ? { ...x, title: `Title ${++words}`, role: 'turn' } : x));
    default:
      // A whole telling: every section new, under new ids.
      return sections.map((x) => ({
        ...x,
        id: `T${++words}`,
        lines: [line(`TL${words}`, `told anew w${words}w`)],
      }));
  }
}
const edit = fc.record({ kind: fc.integer({ min: 0, max: 7 }), at: fc.nat(20), to: fc.nat(20) });
const person = fc.record({ kind: fc.integer({ min: 0, max: 4 }), at: fc.nat(20), to: fc.nat(20) });
const START = script('S1: a=One. | b=Two.', 'S2: c=Three.', 'S3: d=Four. | e=Five. | f=Six.');
const after = (edits: readonly Edit[]) => edits.reduce(edited, START);

describe('the steps between two states', () => {
  it('give the second state, whatever was changed, moved, added or taken out', () => {
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 6 }), fc.array(edit, { maxLength: 6 }), (one, two) => {
        const before = docFromSections(after(one));
        const next = docFromSections(after(two));
        const tr = difference(before, next);
        expect(tr.doc.eq(next)).to.equal(true);
        tr.doc.check();
      }),
      { seed: 16, numRuns: 400 },
    );
  });

  it('are none for the same state, and touch only the words that differ', () => {
    const before = docFromSections(START);
    expect(difference(before, docFromSections(START)).steps).to.have.length(0);
    const changed = START.map((s) =>
      s.id === 'S3' ? { ...s, lines: s.lines.map((l) => (l.id === 'e' ? { ...l, text: 'Fifty.' } : l)) } : s,
    );
    const [step, ...more] = difference(before, docFromSections(changed)).steps;
    expect(more).to.have.length(0);
    const { from, to } = step as unknown as { from: number; to: number };
    expect(to - from, '“ve” of “Five.” goes').to.be.at.most(3);
  });

  it('never cut a letter of two code units', () => {
    const [before, next] = ['a 🌊 b', 'a 🌋 b'].map((t) => docFromSections([section('S', [line('l', t)])]));
    const tr = difference(before, next);
    expect(tr.doc.textContent).to.equal('a 🌋 b');
    for (const step of tr.steps)
      expect(JSON.stringify(step.toJSON())).to.not.match(/"text":"[\ud800-\udbff]?"|\\ud8|\\udf/i);
  });

  it('leave room for others: words typed meanwhile in another line survive them', () => {
    const before = docFromSections(START);
    const theirs = difference(before, docFromSections(edited(START, { kind: 5, at: 0, to: 3 })));
    const ours = difference(before, docFromSections(edited(START, { kind: 0, at: 1, to: 0 })));
    let doc = theirs.doc;
    for (const step of ours.steps) doc = step.map(theirs.mapping)!.apply(doc).doc!;
    const lines = plainSections(doc)[0].lines.map((l) => l.text);
    expect(lines[0]).to.match(/^told/);
    expect(lines[1]).to.match(/^Two\. w/);
  });
});

describe('an answer told on an earlier state', () => {
  const retold = (id: string, text: string) =>
    START.map((s) => ({ ...s, lines: s.lines.map((l) => (l.id === id ? { ...l, text } : l)) }));

  it('is taken whole where nobody wrote since', () => {
    expect(show(merge(START, retold('b', 'Again.'), START).sections)).to.deep.equal(
      show(retold('b', 'Again.')),
    );
  });

  it('is taken beside what was written in other lines', () => {
    const now = edited(START, { kind: 0, at: 0, to: 0 });
    const { sections, aside } = merge(START, retold('b', 'Again.'), now);
    expect(sections[0].lines[0].text).to.match(/^One\. w/);
    expect(sections[0].lines[1].text).to.equal('Again.');
    expect(aside).to.deep.equal([]);
  });

  it('becomes a take where the same line was written in', () => {
    const now = edited(START, { kind: 0, at: 1, to: 0 });
    const { sections, aside } = merge(START, retold('b', 'Again.'), now);
    expect(sections[0].lines[1].text).to.match(/^Two\. w/);
    expect(sections[0].lines[1].takes.map((t) => t.text)).to.deep.equal(['Again.']);
    expect(aside).to.deep.equal(['b']);
  });

  it('becomes a take of the section where its lines were made anew and somebody wrote in it', () => {
    const told = START.map((s) =>
      s.id === 'S3' ? { ...s, lines: [line('x', 'New.'), line('y', 'Newer.')] } : s,
    );
    const now = edited(START, { kind: 0, at: 3, to: 0 });
    const { sections, aside } = merge(START, told, now);
    expect(sections[2].lines.map((l) => l.id)).to.deep.equal(['d', 'e', 'f']);
    expect(sections[2].takes[0].name).to.equal(TOLD_MEANWHILE);
    expect(sections[2].takes[0].lines.map((l) => l.text)).to.deep.equal(['New.', 'Newer.']);
    expect(aside).to.deep.equal(['S3']);
  });

  it('told whole anew leaves a section that was written in, with the new one of its role as its take', () => {
    const base = START.map((s, i) => ({ ...s, role: (['hook', 'turn', 'close'] as const)[i] }));
    const told = base.map((s) => section(`T${s.id}`, [line(`T${s.id}l`, 'Told.')], { role: s.role }));
    const now = base.map((s) => (s.id === 'S2' ? { ...s, lines: [{ ...s.lines[0], text: 'Mine.' }] } : s));
    const { sections } = merge(base, told, now);
    expect(show(sections)).to.deep.equal(['TS1: TS1l=Told.', 'S2: c=Mine.', 'TS3: TS3l=Told.']);
    expect(sections[1].takes[0].lines[0].text).to.equal('Told.');
  });

  it('in another order keeps what was written in the sections that moved', () => {
    const told = [START[2], START[0], START[1]];
    const now = edited(START, { kind: 0, at: 2, to: 0 });
    const { sections } = merge(START, told, now);
    expect(sections.map((s) => s.id)).to.deep.equal(['S3', 'S1', 'S2']);
    expect(sections[2].lines[0].text).to.match(/^Three\. w/);
  });

  it('does not touch what was locked since', () => {
    const now = START.map((s) => (s.id === 'S1' ? { ...s, locked: true } : s));
    expect(show(merge(START, retold('b', 'Again.'), now).sections)).to.deep.equal(show(START));
  });

  it('loses no word that was written since, in any series of edits; without them it is the answer, without an answer it is what stands', () => {
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 5 }), fc.array(person, { maxLength: 6 }), (answer, writing) => {
        const told = after(answer);
        const now = after(writing);
        const { sections } = merge(START, told, now);
        docFromSections(sections).check();
        const before = new Set(START.flatMap((s) => s.lines.map((l) => l.text)));
        const all = sections.flatMap((s) => s.lines.map((l) => l.text));
        for (const { text } of now.flatMap((s) => s.lines))
          if (!before.has(text)) expect(all).to.include(text);
        const ids = sections.flatMap((s) => s.lines.map((l) => l.id));
        expect(new Set(ids).size, 'each line once').to.equal(ids.length);
        expect(show(merge(START, told, START).sections)).to.deep.equal(show(told));
        expect(show(merge(START, START, now).sections)).to.deep.equal(show(now));
      }),
      { seed: 17, numRuns: 600 },
    );
  });
});
