import { expect } from 'chai';
import { draftScript } from '../../src/draft/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { ownShape, rankShapes, shapes, SHAPE_IDS } from '../../src/plan/index.ts';
import { readSource, type SourceKind } from '../../src/source/index.ts';
import { clock, demoFile, solver, tagger } from '../tools.ts';
import { LONG_PAGES } from '../draft/pages.ts';

const material = async (file: string) => {
  const source = await readSource(demoFile(file));
  return { source, facts: extractFacts(source, tagger), sources: 1 };
};

describe('shapes', () => {
  it('are eleven, each in a file of its own, with parts whose shares add up to the whole', () => {
    expect(shapes.map((s) => s.id).sort()).to.deep.equal([...SHAPE_IDS].sort());
    for (const s of shapes) {
      expect(
        s.parts.reduce((n, p) => n + p.share, 0),
        s.id,
      ).to.be.closeTo(1, 1e-9);
      expect(s.parts[0].role, s.id).to.equal('hook');
      expect(s.parts.at(-1)!.role, s.id).to.equal('close');
      expect(new Set(s.parts.map((p) => p.id)).size, s.id).to.equal(s.parts.length);
      for (const p of s.parts) expect(p.lines, `${s.id} ${p.id}`).to.not.be.empty;
    }
  });

  it('are ranked for a source by what is in it, each with a reason, and say for which sources they do not work', async () => {
    const first = {
      'footbridge.html': 'news',
      'boat-lift.md': 'chronicle',
      'eels.txt': 'study',
      'ledger.txt': 'confession',
      'sash-window.md': 'steps',
    };
    for (const [file, id] of Object.entries(first)) {
      const ranked = rankShapes(await material(file));
      expect(ranked[0].id, file).to.equal(id);
      for (const r of ranked) {
        expect(r.score).to.be.within(0, 1);
        expect(r.reason, r.id).to.match(/\w/);
      }
    }
    const guide = rankShapes(await material('sash-window.md'));
    for (const id of ['chronicle', 'case', 'journey', 'study', 'confession'])
      expect(guide.find((r) => r.id === id)!.score, id).to.equal(0);
    expect(rankShapes(await material('ledger.txt')).find((r) => r.id === 'steps')!.reason).to.match(
      /no numbered steps/,
    );
    // Bullets, and sections numbered as a book numbers them, are nothing that is counted down.
    const manual = await readSource(
      '# Setting up a server\n\n## 11.2.1. Installing\n\nThe package is all that is needed for the server to run.\n\n## 11.2.2. Adding keys\n\nThe module is there out of the box and needs no work.\n\n## 11.2.3. Hosts\n\nA virtual host is another name of the same server.\n\n- one that is told by its name alone\n- one that is told by its own address\n- one that nobody has ever asked for',
      { kind: 'encyclopedia' as SourceKind },
    );
    const ranked = rankShapes({ source: manual, facts: extractFacts(manual, tagger), sources: 1 });
    expect(ranked.find((r) => r.id === 'countdown')!.score).to.equal(0);
    expect(rankShapes(await material('eels.txt')).find((r) => r.id === 'countdown')!.score).to.equal(0);
  });

  it('tell the same source differently: other sections, roles or order', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const page = LONG_PAGES.find((p) => p.name === 'news-ferry')!;
    const told = (['news', 'case', 'question', 'chronicle', 'journey', 'whatif'] as const).map((shape) =>
      draftScript(
        page.source,
        { target: { kind: 'point', seconds: 120 }, mood: 'calm', seed: 1, shape },
        tools,
      )
        .sections.map((s) => `${s.role}:${s.lines.map((l) => l.text).join(' ')}`)
        .join('\n'),
    );
    expect(new Set(told).size).to.be.at.least(5);
  });

  it('that are offered share under 70 % of facts or of their order, on most pages; nothing comes before what it points at', async () => {
    const tools = { tagger, clock, solver: await solver() };
    /** The longest row of facts that two tellings have in the same order, of the shorter's. */
    const rowShared = (a: readonly string[], b: readonly string[]) => {
      const best = Array.from({ length: a.length + 1 }, () => new Array<number>(b.length + 1).fill(0));
      for (let i = 1; i <= a.length; i++)
        for (let j = 1; j <= b.length; j++)
          best[i][j] = a[i - 1] === b[j - 1] ? best[i - 1][j - 1] + 1 : Math.max(best[i - 1][j], best[i][j - 1]);
      return best[a.length][b.length] / Math.min(a.length, b.length);
    };
    let [pairs, apart] = [0, 0];
    for (const { source } of LONG_PAGES.filter((p) => /^news|enc-(?:cricket|lighthouse)/.test(p.name))) {
      const facts = extractFacts(source, tagger);
      const order = new Map(facts.map((f, i) => [f.id, i]));
      const offered = rankShapes({ source, facts, sources: 1 }).filter((s) => s.score > 0 && s.id !== 'own');
      const told = offered.map((s) => {
        const { sections } = draftScript(source, { target: { kind: 'point', seconds: 90 }, mood: 'calm', seed: 1, shape: s.id }, tools);
        const lines = sections.flatMap((x) => x.lines.flatMap((l) => l.from.map((f) => f.fact!)));
        return [...new Set(lines)];
      });
      for (const list of told)
        for (const [i, id] of list.entries())
          for (const lean of facts[order.get(id)!].leans)
            if (list.includes(lean.on)) expect(list.indexOf(lean.on), facts[order.get(id)!].text).to.be.lessThan(i);
      told.forEach((a, i) =>
        told.slice(i + 1).forEach((b) => {
          pairs++;
          if (rowShared(a, b) < 0.7) apart++;
        }),
      );
    }
    expect(pairs).to.be.greaterThan(8);
    expect(apart / pairs, `${apart} of ${pairs}`).to.be.greaterThan(0.5);
  }); // prettier-ignore

  it('can be the writer’s own: parts by name, role and share', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const parts = [
      { name: 'The bang', role: 'hook' as const, share: 1 },
      { name: 'The crossing', role: 'ground' as const, share: 3 },
      { name: 'The slipway', role: 'close' as const, share: 1 },
    ];
    expect(ownShape(parts).parts.map((p) => Math.round(p.share * 100))).to.deep.equal([20, 60, 20]);
    const page = LONG_PAGES.find((p) => p.name === 'news-ferry')!;
    const draft = draftScript(
      page.source,
      { target: { kind: 'point', seconds: 60 }, mood: 'calm', seed: 1, parts },
      tools,
    );
    expect(draft.sections[0].title).to.equal('The bang');
    expect(draft.sections.at(-1)!.title).to.equal('The slipway');
  });

  it('count a list down when there is one', async () => {
    const tools = { tagger, clock, solver: await solver() };
    const body = ['Five bridges of the Orle', 'The river Orle has five bridges that were built by mistake.'];
    for (const [i, name] of [
      'Carrow Bridge',
      'Sallow Bridge',
      'Holm Bridge',
      'Wessel Bridge',
      'Lindmouth Bridge',
    ].entries())
      body.push(
        `## ${i + 1}. ${name}`,
        `${name} was built in 18${40 + i} by a brewer who wanted a dry road. It has ${i + 3} arches and carries no road at all. A ferry still runs below it on Sundays.`,
      );
    const source = await readSource(`# ${body.join('\n\n')}`, { kind: 'encyclopedia' as SourceKind });
    expect(rankShapes({ source, facts: extractFacts(source, tagger), sources: 1 })[0].id).to.equal(
      'countdown',
    );
    const draft = draftScript(
      source,
      { target: { kind: 'point', seconds: 60 }, mood: 'calm', seed: 1, shape: 'countdown' },
      tools,
    );
    const counted = draft.sections
      .flatMap((s) => s.lines)
      .filter((l) => /^Number \w+\.$/.test(l.text))
      .map((l) => l.text);
    expect(counted.length).to.be.greaterThan(2);
    expect(counted.at(-1)).to.equal('Number one.');
  });
});
