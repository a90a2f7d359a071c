/** Each claim against the passage it rests on: by name of the fault, as the `trace` room finds it. */
import { FAULT_WORDS, faultsIn, type FaultKind } from '../../trace/claims.ts';
import {
  at,
  type Found,
  type PreparedSources,
  type ReviewLine,
  type ReviewScript,
  type ReviewTools,
  type Rule,
} from '../rule.ts';

/** Values, names and quotes have rules of their own. */
const KINDS: Readonly<
  Record<string, { kinds: readonly FaultKind[]; name: string; each: number; most: number }>
> = {
  'stronger-than-source': { kinds: ['hedge'], name: 'Surer than the source', each: 4, most: 16 },
  contradicted: {
    kinds: ['denial', 'direction', 'subject', 'order'],
    name: 'The source says otherwise',
    each: 6,
    most: 24,
  },
  'wrong-thing': {
    kinds: ['thing', 'whole', 'value'],
    name: 'A figure on the wrong thing',
    each: 5,
    most: 20,
  },
  'attribution-lost': { kinds: ['said'], name: 'Who says so is lost', each: 3, most: 12 },
  'cause-added': { kinds: ['cause'], name: 'A cause the source doesn’t give', each: 4, most: 12 },
};

/** A hedge of the source put back before the verb it belongs to. */
const PLAIN_HEDGE =
  /^(?:may|might|could|probably|perhaps|possibly|likely|about|around|roughly|almost|nearly|some|reportedly|apparently|allegedly)$/i;

function hedgeMend(line: ReviewLine, hedge: string) {
  const h = hedge.toLowerCase();
  if (!PLAIN_HEDGE.test(h) || line.locked) return undefined;
  if (/^(?:about|around|roughly|almost|nearly|some)$/.test(h)) {
    const n = /\b\d[\d,.]*\b/.exec(line.text);
    if (!n || line.text.match(/\b\d[\d,.]*\b/g)!.length !== 1) return undefined;
    const lead = n.index === 0 ? h.charAt(0).toUpperCase() + h.slice(1) : h;
    return {
      says: `Put “${h}” back`,
      safe: true,
      edits: [{ line: line.id, text: `${line.text.slice(0, n.index)}${lead} ${line.text.slice(n.index)}` }],
    };
  }
  if (!/^(?:probably|perhaps|possibly|reportedly|apparently|allegedly)$/.test(h)) return undefined;
  const text = `${h.charAt(0).toUpperCase()}${h.slice(1)} ${/^(?:I|\p{Lu}\p{L}+ \p{Lu})/u.test(line.text) ? line.text : line.text.charAt(0).toLowerCase() + line.text.slice(1)}`;
  return { says: `Put “${h}” back`, safe: false, edits: [{ line: line.id, text }] };
}

interface Group {
  lines: readonly ReviewLine[];
  passage: NonNullable<Found['passage']>;
}

/** Lines on end that rest on the same passage tell it together: a fact told in two lines loses nothing in either. */
function groupsOf(lines: readonly ReviewLine[], sources: PreparedSources): Group[] {
  const out: (Group & { key: string; lines: ReviewLine[] })[] = [];
  for (const line of lines) {
    if (line.fixed) continue;
    const own = line.from.flatMap((f) => sources.factOf(f) ?? []);
    const guessed =
      own.length || line.role === 'lead' || line.role === 'frame' || /\?["”]?$/.test(line.text)
        ? null
        : sources.passageOf(line, SURE);
    const list = own.length ? own : guessed ? [guessed] : [];
    if (!list.length) continue;
    const key = list.map((p) => `${p.source.letter}:${p.fact.id}`).join();
    const last = out[out.length - 1];
    if (last?.key === key) last.lines.push(line);
    else
      out.push({
        key,
        lines: [line],
        passage: {
          source: list[0].source.letter,
          fact: list[0].fact.id,
          text: list.map((p) => p.fact.text).join(' '),
        },
      });
  }
  return out;
}

/** From this likeness on, a line without a link is held to the passage that it seems to tell. */
const SURE = 0.55;

type Faulty = { kind: FaultKind; told: string; source: string; line: ReviewLine; passage: Group['passage'] };
/** One look serves all rules; what is told of a passage is judged once. */
const looked = new WeakMap<ReviewScript, Faulty[]>();
const judged = new WeakMap<PreparedSources, Map<string, ReturnType<typeof faultsIn>>>();

function faultsOf(script: ReviewScript, tools: ReviewTools): Faulty[] {
  const known = looked.get(script);
  if (known) return known;
  const { sources } = script;
  const { tagger } = tools;
  const out: Faulty[] = [];
  if (sources && tagger) {
    const memo = judged.get(sources) ?? new Map<string, ReturnType<typeof faultsIn>>();
    judged.set(sources, memo);
    if (memo.size > 5000) memo.clear();
    for (const { lines, passage } of groupsOf(script.lines, sources)) {
      const told = lines.map((l) => l.text).join(' ');
      const key = `${passage.source}\0${passage.text}\0${told}`;
      let faults = memo.get(key);
      if (!faults) memo.set(key, (faults = faultsIn(told, passage.text, sources.claims, tagger)));
      for (const f of faults) {
        const line =
          (f.told && lines.find((l) => l.text.toLowerCase().includes(f.told.toLowerCase()))) || lines[0];
        out.push({ ...f, line, passage });
      }
    }
  }
  looked.set(script, out);
  return out;
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
        if (!kinds.includes(f.kind) || seen.has(f.line.id)) return [];
        seen.add(f.line.id);
        const { line } = f;
        const start = f.told ? line.text.toLowerCase().indexOf(f.told.toLowerCase()) : -1;
        const says = f.source ? `${FAULT_WORDS[f.kind]}: “${f.source}”` : FAULT_WORDS[f.kind];
        const found =
          start >= 0 ? at(line, start, start + f.told.length, '') : at(line, 0, line.text.length, '');
        const mend = f.kind === 'hedge' && !f.told ? hedgeMend(line, f.source) : undefined;
        return [
          {
            ...found,
            line: line.id,
            reason: `${says.charAt(0).toUpperCase()}${says.slice(1)}.`,
            passage: f.passage,
            ...(mend ? { mend } : {}),
          },
        ];
      });
    },
  }),
);
