/** Each claim against the passage it rests on: by name of the fault, as the `trace` room finds it. */
import { SLOT_OF, type JudgedFault, type RetoldKind } from '../../trace/retold/index.ts';
import { checkerOf } from '../checker.ts';
import {
  at,
  type Found,
  type Mend,
  type ReviewLine,
  type ReviewScript,
  type ReviewTools,
  type Rule,
} from '../rule.ts';

/** Values, names and quotes that stand in no source have rules of their own. */
const KINDS: Readonly<
  Record<string, { kinds: readonly RetoldKind[]; name: string; each: number; most: number }>
> = {
  'stronger-than-source': { kinds: ['hedge'], name: 'Surer than the source', each: 4, most: 16 },
  contradicted: {
    kinds: ['denial', 'direction', 'order'],
    name: 'The source says otherwise',
    each: 6,
    most: 24,
  },
  'wrong-thing': {
    kinds: ['thing', 'whole', 'value', 'name'],
    name: 'A figure on the wrong thing',
    each: 5,
    most: 20,
  },
  'attribution-lost': { kinds: ['said'], name: 'Who says so is lost', each: 3, most: 12 },
  'detail-added': { kinds: ['invented'], name: 'A detail no source has', each: 2, most: 12 },
  'cause-added': { kinds: ['cause'], name: 'A cause the source doesn’t give', each: 4, most: 12 },
};

/** A bound put back before its figure changes no sense; every other mend is read first. */
const SAFE = /^Put “(?:about|nearly|at least|at most)” back$/;

/** From this likeness on, a line without a link is held to the passage that it seems to tell. */
const SURE = 0.55;

type Faulty = { fault: JudgedFault; line: ReviewLine; passage: NonNullable<Found['passage']> };
/** One look serves all rules. */
const looked = new WeakMap<ReviewScript, Faulty[]>();

function faultsOf(script: ReviewScript, tools: ReviewTools): Faulty[] {
  const known = looked.get(script);
  if (known) return known;
  const { sources, lines } = script;
  const checker = sources && checkerOf(sources, tools);
  const out: Faulty[] = [];
  if (sources && checker)
    lines.forEach((line, i) => {
      if (line.fixed) return;
      const own = line.from.flatMap((f) => sources.factOf(f) ?? []);
      const guessed =
        own.length || line.role === 'lead' || line.role === 'frame' || /\?["”]?$/.test(line.text)
          ? null
          : sources.passageOf(line, SURE);
      const facts = own.length ? own : guessed ? [guessed] : [];
      if (!facts.length) return;
      const faults = checker.check({
        text: line.text,
        facts: facts.map((p) => ({ source: p.source.letter, fact: p.fact.id })),
        before: lines[i - 1]?.text ?? '',
        behind: lines[i + 1]?.text ?? '',
      });
      const [first] = facts;
      const passage = { source: first.source.letter, fact: first.fact.id, text: first.fact.text };
      out.push(...faults.map((fault) => ({ fault, line, passage })));
    });
  looked.set(script, out);
  return out;
}

function mendOf({ fault, line }: Faulty): Mend | undefined {
  if (!fault.mend || !fault.does || line.locked) return undefined;
  return { says: fault.does, safe: SAFE.test(fault.does), edits: [{ line: line.id, text: fault.mend }] };
}

export const claims: readonly Rule[] = Object.entries(KINDS).map(
  ([id, { kinds, name, each, most }]): Rule => ({
    id,
    area: 'truth',
    name,
    cost: { each, most },
    script: (script, tools) => {
      const seen = new Set<string>();
      return faultsOf(script, tools).flatMap((f) => {
        const { fault, line } = f;
        // A value that stands in no source at all is the rule of what is unsourced.
        const unsourced = /^No source (?:has|names)/.test(fault.says);
        if (!kinds.includes(fault.kind) || unsourced || seen.has(line.id)) return [];
        seen.add(line.id);
        const mend = mendOf(f);
        return [
          {
            ...at(line, fault.start, fault.end, fault.says),
            line: line.id,
            passage: fault.passage
              ? { ...f.passage, source: fault.passage.source, text: fault.passage.text }
              : f.passage,
            claim: { slot: SLOT_OF[fault.kind], level: fault.level },
            ...(mend ? { mend } : {}),
          },
        ];
      });
    },
  }),
);
