/** Sources and lines made ready for the rules, each part only as often as it changes. */
import { stems } from '../facts/centrality.ts';
import type { Kin } from '../language/kin.ts';
import { quotedSpans } from '../language/quotes.ts';
import { writtenWords } from '../language/sentences.ts';
import { asksOf, type PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import { indexFacts } from '../trace/align.ts';
import { claimContext } from '../trace/claims.ts';
import { indexSources } from '../trace/overlap.ts';
import { stockOf, supportOf } from '../trace/support.ts';
import type { PreparedSources, ReviewLine, ReviewSection, ReviewSource, ReviewTools } from './rule.ts';

export function prepareSources(list: readonly ReviewSource[], kin: Kin | null = null): PreparedSources {
  const facts = new Map(
    list.flatMap((source) =>
      source.facts.map((fact) => [`${source.letter}:${fact.id}`, { fact, source }] as const),
    ),
  );
  const texts = list.map((s) => s.text);
  const index = indexFacts(
    list.flatMap((s) => s.facts.map((f) => ({ source: s.letter, id: f.id, text: f.text }))),
    kin,
  );
  const found = new Map<string, ReturnType<typeof index.find>>();
  const factOf: PreparedSources['factOf'] = (ref) =>
    ref.fact ? (facts.get(`${ref.source}:${ref.fact}`) ?? null) : null;
  return {
    list,
    index: indexSources(texts),
    stock: stockOf(list.map(supportOf)),
    claims: claimContext(list.map(supportOf).join('\n\n')),
    factOf,
    passageOf: (line, least = 0) => {
      for (const ref of line.from) {
        const known = factOf(ref);
        if (known) return known;
      }
      if (!found.has(line.text)) {
        if (found.size > 5000) found.clear();
        found.set(line.text, index.find(line.text));
      }
      const best = found.get(line.text);
      return best && best.score >= least ? (facts.get(`${best.source}:${best.fact}`) ?? null) : null;
    },
  };
}

/** What a line's words alone say: kept by its text. */
type Words = Pick<ReviewLine, 'words' | 'tokens' | 'quotes' | 'tags' | 'stems'>;

/** Makes lines of sections; words are looked at once a text, a line object is kept while nothing of it changes. */
export function linePreparer(tools: ReviewTools): (sections: readonly PlainSection[]) => ReviewSection[] {
  const words = new Map<string, Words>();
  let kept = new Map<string, ReviewLine>();
  const wordsOf = (text: string): Words => {
    const known = words.get(text);
    if (known) return known;
    if (words.size > 8000) words.clear();
    const made: Words = {
      words: writtenWords(text),
      tokens: tools.clock.tokens(text),
      quotes: quotedSpans(text),
      tags: tools.tagger ? tools.tagger(text) : null,
      stems: stems(text),
    };
    words.set(text, made);
    return made;
  };
  return (sections) => {
    const times = tools.clock.lines(clockLines(sections));
    const next = new Map<string, ReviewLine>();
    let n = 0;
    const out = sections.map((s, section): ReviewSection => {
      const open: ReviewSection['open'][number][] = [];
      const lines = s.lines.flatMap((l, i): ReviewLine[] => {
        const { ms, startMs } = times[n++];
        const says = asksOf(l);
        if (says !== null) open.push({ startMs, ms, says });
        if (!l.text.trim()) return [];
        const line: ReviewLine = {
          id: l.id,
          text: l.text,
          role: l.role,
          from: l.from,
          restMs: l.restMs,
          locked: l.locked || s.locked,
          fixed: l.fixed !== '' || l.fixedMs !== null,
          section,
          at: i,
          endsSection: i === s.lines.length - 1,
          startMs,
          ms,
          ...wordsOf(l.text),
        };
        const before = kept.get(l.id);
        const same = before && sameLine(before, line) ? before : line;
        next.set(l.id, same);
        return [same];
      });
      return {
        id: s.id,
        title: s.title,
        role: s.role,
        startMs: lines[0]?.startMs ?? 0,
        ms: lines.reduce((sum, l) => sum + l.ms, 0),
        lines,
        open,
      };
    });
    kept = next;
    return out;
  };
}

const sameLine = (a: ReviewLine, b: ReviewLine) =>
  a.text === b.text &&
  a.startMs === b.startMs &&
  a.ms === b.ms &&
  a.section === b.section &&
  a.at === b.at &&
  a.role === b.role &&
  a.locked === b.locked &&
  a.fixed === b.fixed &&
  a.restMs === b.restMs &&
  a.endsSection === b.endsSection &&
  sameFrom(a.from, b.from);
const sameFrom = (a: ReviewLine['from'], b: ReviewLine['from']) =>
  a === b ||
  (a.length === b.length &&
    a.every((f, i) => f.source === b[i].source && f.fact === b[i].fact && f.quote === b[i].quote));
