/**
 * Whether a line in free wording still says what its facts say. Each check compares one thing; all see both sides made
 * ready once. Accusations say in one sentence what the source says, and carry a mend where one can be made without guessing.
 */
import { PATTERNS } from '../../language/lexicon.ts';
import { ASSERTS, THINKS } from '../../language/reporting.ts';
import { numbersIn, datesIn } from '../../facts/extract.ts';
import type { Fact } from '../../facts/facts.ts';
import { quotesIn } from '../../facts/extract.ts';
import { cause } from './cause.ts';
import { denial } from './denial.ts';
import { disputed } from './disputed.ts';
import { direction } from './direction.ts';
import type { Check, JudgedFault, PassageFact, Retelling, RetoldFault, RetoldKind, Stock } from './fault.ts';
import { certainty } from './certainty.ts';
import { earlier } from './earlier.ts';
import { elsewhere } from './elsewhere.ts';
import { CURRENCIES, UNITS, UNIT_NAMES } from '../../language/lexicon.ts';
import { evidenceIndex } from './evidence.ts';
import { compared } from './compared.ts';
import { limit } from './limit.ts';
import { linked } from './linked.ts';
import { misplaced } from './misplaced.ts';
import { asDigits, digitsOf } from './figures.ts';
import { invented } from './invented.ts';
import { polarity } from './polarity.ts';
import { quantity } from './quantity.ts';
import { reason } from './reason.ts';
import { roles } from './roles.ts';
import { speaker } from './speaker.ts';
import { superlative } from './superlative.ts';
import { hedges } from './hedges.ts';
import { nothing, restsOnNothing } from './nothing.ts';
import { order } from './order.ts';
import { quotes } from './quotes.ts';
import { said } from './said.ts';
import { exclusive } from './sets.ts';
import { coverage, even, saidOf, type RetoldTools, type Said } from './text.ts';
import { values } from './values.ts';
import { whole } from './whole.ts';
import { names, substituted } from './words.ts';

export {
  RETOLD_KINDS,
  SLOT_OF,
  replacedIn,
  type JudgedFault,
  type Level,
  type PassageFact,
  type RetoldFault,
  type RetoldKind,
} from './fault.ts';
export type { RetoldTools } from './text.ts';

/** What is denied is not told the other way round besides. */
const denialOrDirection: Check = (r) => {
  const denied = denial(r);
  return denied.length ? denied : direction(r);
};

/** In the order in which a reader should hear of them. */
const AGAINST_FACTS: readonly Check[] = [quotes, names, values, exclusive, substituted, hedges, denialOrDirection, whole, cause, order, said, disputed, nothing]; // prettier-ignore
/** What the facts leave out stands in the sentences. */
const AGAINST_SENTENCES: readonly Check[] = [speaker, elsewhere, misplaced, compared, certainty, polarity, roles, linked, reason, quantity, limit, superlative, earlier, invented]; // prettier-ignore
/** From this likeness on a line without a fact rests on a sentence. */
const RESTS = 0.45;

export interface RetoldSource {
  letter: string;
  text: string;
  /** ISO 8601; its year counts as told. */
  published?: string;
  facts: readonly Pick<Fact, 'id' | 'text' | 'attribution' | 'step' | 'statement'>[];
}

export interface RetoldLine {
  text: string;
  /** The facts it rests on, by source and id. */
  facts: readonly { source: string; fact: string }[];
  /** The lines told before and behind it. */
  before?: string;
  behind?: string;
}

/** Checks lines against sources that were made ready once. A line without facts is asked only whether it claims anything. */
export interface RetoldChecker {
  check: (line: RetoldLine) => readonly JudgedFault[];
}

const MOST_KEPT = 4000;
const SAYING_VERB = new RegExp(`^(?:(?:has|have|had) )?(?:${ASSERTS}|${THINKS})\\b`, 'i');

/** “…, Mr Bell thinks.” */
const AT_END = new RegExp(
  String.raw`,\s+((?:the |${PATTERNS.title} )?[\p{L}’'-][\p{L}’' -]{1,39}?)\s+(?:${ASSERTS}|${THINKS})\s*[.!]?$`,
  'u',
);

/** Who says so: as the facts have it, or the subject of a verb of saying. */
const speakerOf = (f: RetoldSource['facts'][number]): string | null =>
  f.attribution?.text ??
  AT_END.exec(f.text)?.[1] ??
  (f.statement && SAYING_VERB.test(f.statement.verb.text) ? f.statement.subject.text : null);

/** What the source contradicts; all else is only without support. */
const CONTRADICTS: ReadonlySet<RetoldKind> = new Set([
  'value',
  'name',
  'quote',
  'denial',
  'direction',
  'whole',
]);
/** With so much of its words in the sentences that it rests on, a line doesn't rest on nothing. */
const KNOWN = 0.5;

/** Accusations with their level, without those that the sentences themselves answer. */
function judged(faults: readonly RetoldFault[], { told, evidence, tools }: Retelling): JudgedFault[] {
  return faults.flatMap((f): JudgedFault[] => {
    const level =
      f.level ?? (CONTRADICTS.has(f.kind) && !/^The source affirms/.test(f.says) ? 'wrong' : 'unsupported');
    const own = told.text.slice(f.start, f.end);
    if (f.says.includes(`“${own}”, not “${own}”`)) return [];
    if (evidence && f.kind === 'nothing' && coverage([...told.roots], evidence.near.roots, tools.kin) >= KNOWN) return []; // prettier-ignore
    if (evidence && f.kind === 'value' && f.level === undefined) {
      // The figure stands there in the same digits; against another one that is said to be meant, by the same unit.
      const rival = !f.says.startsWith('No source');
      if (figureIn(rival ? [evidence.near] : evidence.best, told.text, f.start, f.end, rival)) return [];
    }
    return [
      { ...f, level, passage: evidence && { source: evidence.passage.source, text: evidence.passage.text } },
    ];
  });
}
/** Of several faults of the same words the first. */
function once(faults: readonly JudgedFault[]): JudgedFault[] {
  const seen = new Set<string>();
  return faults.filter((f) => {
    const key = `${f.start}:${f.end}`;
    return !seen.has(key) && seen.add(key);
  });
}
/**
 * Whether a figure stands in sentences in the same digits and with no other unit, whatever it was read as. `named`:
 * only with a unit of the same name.
 */
function figureIn(best: readonly Said[], told: string, start: number, end: number, named: boolean): boolean {
  const own = told.slice(start, end);
  const digits = digitsOf(own);
  if (!digits || /\p{L}/u.test(own.replace(digits, ''))) return false;
  const unit = /^[\s-]*(\p{L}+)/u.exec(told.slice(end))?.[1].toLowerCase();
  const there = new RegExp(`([£€$]?)${asDigits(digits)}[\\s-]*([\\p{L}%°]*)`, 'u');
  return best.some((s) => {
    const m = there.exec(s.text);
    if (!m) return false;
    const names = UNITS.get(m[2]) ?? CURRENCIES.get(m[1]) ?? null;
    if (named) return unit !== undefined && names !== null && names.some((n) => n.split(' ').includes(unit));
    return !unit || !UNIT_NAMES.has(unit) || (names ? names.some((n) => n.split(' ').includes(unit)) : !UNIT_NAMES.has(m[2].toLowerCase()) || m[2].toLowerCase() === unit); // prettier-ignore
  });
}

export function makeRetoldChecker(sources: readonly RetoldSource[], tools: RetoldTools): RetoldChecker {
  const facts = sources.flatMap((s) =>
    s.facts.map((f): PassageFact => ({
      source: s.letter,
      id: f.id,
      text: f.text,
      speaker: speakerOf(f),
      step: f.step ?? null,
    })),
  );
  const at = new Map(facts.map((f, i) => [`${f.source}:${f.id}`, i]));
  const ready = new Map<string, Said>();
  const prepared = (text: string): Said => {
    let known = ready.get(text);
    if (!known) {
      if (ready.size > MOST_KEPT) ready.clear();
      ready.set(text, (known = saidOf(text, tools)));
    }
    return known;
  };
  const evidence = evidenceIndex(sources, tools.kin, prepared);
  const whole = sources.map((s) => s.text).join('\n\n');
  let roots: Set<string> | null = null;
  const stock: Stock = {
    values: [
      ...numbersIn(whole).map((n) => Math.abs(n.value)),
      ...datesIn(whole).flatMap((d) => d.iso.replace(/^--/, '').split('-').map(Number)),
      ...(whole.match(/\d+/g) ?? []).map(Number),
      ...sources.flatMap((s) => (s.published ? [Number(s.published.slice(0, 4))] : [])),
    ],
    get roots() {
      return (roots ??= new Set(facts.flatMap((f) => [...prepared(f.text).roots])));
    },
    words: new Set(
      even(whole)
        .toLowerCase()
        .match(/[\p{L}\p{M}]+/gu) ?? [],
    ),
    lower: new Set(even(whole).match(/(?<![\p{L}'-])\p{Ll}+/gu) ?? []),
    even: even(whole).toLowerCase().replace(/\s+/g, ' '),
    quotes: quotesIn(whole).map((q) => q.text),
    sentences: evidence.sentences,
    get page() {
      return evidence.page;
    },
    facts,
    said: (f) => prepared(f.text),
  };
  const check = ({ text, facts: refs, before = '', behind = '' }: RetoldLine): JudgedFault[] => {
    const told = prepared(text);
    const own = refs.flatMap((r) => at.get(`${r.source}:${r.fact}`) ?? []);
    const passageFacts = own.map((i) => facts[i]);
    const passage = prepared(passageFacts[0]?.text ?? '');
    const all = prepared(passageFacts.map((f) => f.text).join(' '));
    const near = [...new Set(own.flatMap((i) => [i - 1, i, i + 1]))].sort((a, b) => a - b);
    const around = prepared(near.flatMap((i) => (facts[i]?.source === passageFacts[0]?.source ? [facts[i].text] : [])).join(' ')); // prettier-ignore
    const input = {
      told,
      passage,
      all,
      around,
      evidence: evidence.of(text, passageFacts),
      facts: passageFacts,
      stock,
      before,
      behind,
      tools,
    };
    if (!own.length) {
      const bare = [...quotes(input), ...names(input), ...values(input), ...cause(input)];
      const rests = (input.evidence?.likeness ?? 0) >= RESTS;
      const more = rests ? AGAINST_SENTENCES.flatMap((c) => c(input)) : [];
      return once(judged([...bare, ...more, ...restsOnNothing(told, stock, tools)], input));
    }
    return once(
      judged(
        [...AGAINST_FACTS, ...AGAINST_SENTENCES].flatMap((c) => c(input)),
        input,
      ),
    );
  };
  // A script is looked at again after each key: what a line says beside the same two lines stays as it was.
  const checked = new Map<string, JudgedFault[]>();
  return {
    check: (line) => {
      const key = JSON.stringify([
        line.text,
        line.facts.map((f) => [f.source, f.fact]),
        line.before,
        line.behind,
      ]);
      let known = checked.get(key);
      if (!known) {
        if (checked.size > MOST_KEPT) checked.clear();
        checked.set(key, (known = check(line)));
      }
      return known;
    },
  };
}
