/**
 * A sentence too long for a breath without what it can do without: clauses between commas that tell more of a noun, what a
 * participle or a dash adds at its end. Deletion alone keeps a sentence grammatical where what goes is bracketed (Clarke and
 * Lapata 2008, "Global inference for sentence compression"); denials, conditions and speakers are never what goes, and a hedge only with all that it hedges.
 */
import { SPOKE } from '../../language/reporting.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import type { Tagged } from './restructure.ts';
import { inQuote, words } from './sentence.ts';

/** What limits a claim, who makes it, what it depends on: a piece that holds one stays. */
const BINDS =
  /\b(?:if|unless|except|but|not|n['’]t|never|no|nobody|none|only|without|until|though|although|while|whereas|because|so|than|allegedly|reportedly|said|says|say|told|added|according|claimed?|claims|believe[sd]?|thinks?|thought|suspicion|suspected|accused|denied|denies)\b/i;

/** What is denied, or holds for one thing only, is so within the time and place that are given. */
const DENIES = /\b(?:not|never|no|nobody|none|nothing|only|without|until)\b|n['’]t\b/i;

const SAYS = new RegExp(`^${SPOKE}$`);
/** "…, Ann Ware, said": a name whose bracket is gone stands right before its verb. */
const LEFT_APART = new RegExp(`, (\\p{Lu}[\\p{L}’'.-]*(?: \\p{Lu}[\\p{L}’'.-]*){1,3}), (?=${SPOKE}\\b)`, 'u');

interface Piece {
  start: number;
  end: number;
  /** Words that go. */
  words: number;
  /** Figures and names that go with it. */
  weight: number;
}

/** Pieces that can go, each from the mark before it to the mark behind it. */
export function pieces({ text, tokens }: Tagged): Piece[] {
  const marks = tokens.flatMap((t, i) => (/^(?:,|–|—)$/.test(t.text) && !inQuote(text, t.start) ? [i] : []));
  const last = /[.!?…]/.test(tokens.at(-1)?.text ?? '') ? tokens.length - 1 : tokens.length;
  const out: Piece[] = [];
  /** `to`: the last token that goes, or the end; `inner`: where its words end. */
  const add = (from: number, to: number, inner = to) => {
    const own = tokens.slice(from + 1, inner);
    const said = text.slice(own[0].start, own.at(-1)!.end);
    if (BINDS.test(said) || /[“”"]/.test(said) || own.length < 2) return;
    const end = to < last ? tokens[to].end : tokens[to - 1].end;
    if (!/^(?:[\s,.!?]|$)/.test(text.slice(end))) return;
    const weight = own.filter((t) => t.pos === 'NUM' || t.pos === 'PROPN').length;
    out.push({ start: tokens[from].start, end, words: words(said), weight });
  };
  const finite = (from: number, to: number) => {
    for (let i = from; i < to; i++) if (isFiniteVerb(tokens, i)) return true;
    return false;
  };
  const dashes = marks.filter((m) => tokens[m].text !== ',');
  marks.forEach((at, k) => {
    const first = tokens[at + 1];
    if (!first || at < 2) return;
    if (tokens[at].text !== ',') {
      // Dashes go in pairs; a last one alone opens what is added at the end.
      const nth = dashes.indexOf(at);
      const clause = Math.max(0, ...marks.filter((m) => m < at));
      if (nth % 2 === 0 && (dashes[nth + 1] !== undefined || finite(clause, at)))
        add(at, dashes[nth + 1] ?? last);
      return;
    }
    // "a drawer, it was said, for every grey": what stands behind such words is what was said.
    const between = tokens.slice((marks[k - 1] ?? at) + 1, at);
    if (between.length && between.length <= 4 && between.some((t) => SAYS.test(t.text))) return;
    const next = marks[k + 1] ?? last;
    if (next < last && tokens[next].text !== ',') return;
    const told = finite(0, at);
    let v = next + 1;
    while (tokens[v]?.pos === 'ADV') v++;
    const verb = next < last && tokens[v] !== undefined && isFiniteVerb(tokens, v);
    const goesOn =
      (verb && !(told && SAYS.test(tokens[v].text))) ||
      (next < last && /^(?:and|but)$/.test(tokens[v]?.text ?? '') && clauseFollows(tokens, v + 1));
    // "Ann Each, keeper of the lock, which she paints, said": the label's own comma stays.
    // "the 6-foot, 185-pound Smith, who plays, has": measures in a row are none.
    const measures = k > 0 && /^\d[\d.,]*-/.test(text.slice(tokens[marks[k - 1] + 1].start));
    const label = verb && k > 0 && !measures && !/^(?:ADP|ADV|SCONJ|VERB|CCONJ)$/.test(tokens[0].pos);
    if (verb && k > (label ? 0 : 1) && (told || !label)) return;
    const close = label ? next - 1 : next;
    // "in the autumn of 2022, when they had one summer behind them, prices rose"
    const time = first.text === 'when' && !told && /^(?:NUM|NOUN|PROPN)$/.test(tokens[at - 1].pos);
    if ((time || /^(?:who|which|whose|where)$/.test(first.text)) && finite(at + 1, next)) {
      if (
        time &&
        (next === last ||
          !clauseFollows(tokens, next + 1) ||
          /^(?:where|who|which|whose)$/.test(tokens[next + 1].text))
      )
        return;
      if (time || goesOn || next === last) add(at, close, next);
      return;
    }
    const act = first.pos === 'ADV' ? tokens[at + 2] : first;
    const held = (from: number) =>
      tokens
        .slice(from, last)
        .some(
          (t, i) =>
            /^(?:as|when|that|which|who|where|how|after|before)$/.test(t.text) && finite(from + i, last),
        );
    if (
      act?.pos === 'VERB' &&
      /ing$/.test(act.text) &&
      next === last &&
      (!finite(at + 1, last) || held(at + 2))
    ) {
      // "a late, leaping hit"
      if (!/^(?:ADJ|DET|ADV)$/.test(tokens[at - 1].pos)) add(at, last);
      return;
    }
    // "a block of stone, weighing 37 kilograms, as far as they can": what is said of the noun before it.
    const head = tokens[at - 1].pos;
    if (
      first.pos === 'VERB' &&
      /(?:ing|ed|en|wn)$/.test(first.text) &&
      head === 'NOUN' &&
      next < last &&
      !finite(at + 2, next) &&
      /^(?:ADP|ADV|SCONJ|AUX)$/.test(tokens[next + 1]?.pos ?? '') &&
      k < 2
    )
      return add(at, next);
    // "the lane, a little over two miles long, was mended": a measure between a thing and its verb.
    if (
      verb &&
      !told &&
      head === 'NOUN' &&
      !label &&
      !finite(at + 1, next) &&
      tokens.slice(at + 1, next).some((t) => t.pos === 'NUM')
    )
      return add(at, next);
    // "…, with fever being the commonest, followed by a cough.": all that hangs on it goes.
    if (
      first.text === 'with' &&
      told &&
      !finite(at + 1, last) &&
      !marks.slice(0, k).some((m) => finite(0, m))
    )
      return add(at, last);
    // "…, the village's first in six years.": what was just told, named again.
    if (
      next === last &&
      marks.length === 1 &&
      told &&
      ['NOUN', 'PROPN', 'NUM'].includes(head) &&
      (/^(?:an?|the|one)$/.test(first.text) || /^(?:'s|’s)$/.test(tokens[at + 2]?.text ?? '')) &&
      // With "and" it may be the rest of a list.
      !tokens.slice(at, last).some((t) => t.pos === 'CCONJ') &&
      !finite(at + 1, last)
    )
      return add(at, last);
    // "the Cup, a rehearsal for the bigger one, to ask for": a name's apposition, between the only two commas.
    if (
      marks.length === 2 &&
      k === 0 &&
      told &&
      head === 'PROPN' &&
      /^an?$/.test(first.text) &&
      !finite(at + 1, next) &&
      // "a keeper at Marsh, Kent": the second mark closes nothing.
      tokens[next + 1]?.pos !== 'PROPN' &&
      !/^(?:and|or)$/.test(tokens[next + 1]?.text ?? '')
    )
      return add(at, next);
    // What stands between a name and its verb, or behind everything.
    const within = tokens.slice(at + 1, next).some((t) => /^(?:that|which|who)$/.test(t.text));
    if (first.pos !== 'ADP' || (finite(at + 1, next) && !(within && next === last))) return;
    const bracketed = k > 0 && !finite(marks[k - 1], at);
    if (verb && !told) add(at, close, next);
    else if (
      next === last &&
      first.text !== 'of' &&
      !bracketed &&
      !DENIES.test(text.slice(0, tokens[at].start))
    )
      add(at, last);
  });
  return out;
}

/** The sentence in at most `longest` words with as little left out as will do; null where it can't be. */
export function shortened(sentence: Tagged, longest: number): string | null {
  const { text, tokens } = sentence;
  if (/[;?]|:(?!\d)/.test(text) || words(text) <= longest) return null;
  // Commas that list can't be told from commas that bracket.
  const list = tokens.some(
    (t, i) =>
      t.text === ',' && /^(?:and|or)$/.test(tokens[i + 1]?.text ?? '') && !clauseFollows(tokens, i + 2),
  );
  if (list) return null;
  const all = pieces(sentence);
  const sets = all.flatMap((p, i) => [
    [p],
    ...all
      .slice(i + 1)
      .filter((q) => q.start >= p.end || q.end <= p.start)
      .map((q) => [p, q]),
  ]);
  const fits = sets
    .map((set) => ({
      set,
      gone: set.reduce((n, p) => n + p.words + 3 * p.weight, 0),
      left: words(text) - set.reduce((n, p) => n + p.words, 0),
    }))
    .filter(({ left }) => left <= longest && left >= 7)
    .sort((a, b) => a.gone - b.gone);
  if (!fits.length) return null;
  let out = text;
  for (const p of [...fits[0].set].sort((a, b) => b.start - a.start)) {
    const behind = out.slice(p.end).trimStart();
    const before = out.slice(0, p.start).trimEnd();
    // "until 4 p.m.": its own stop closes the sentence.
    out = `${before}${/^[,.!?]/.test(behind) ? '' : ' '}${before.endsWith('.') && behind === '.' ? '' : behind}`;
  }
  return LEFT_APART.test(text) ? out : out.replace(LEFT_APART, ', $1 ');
}

/** Whether a subject and its verb, or a verb, stand next. */
function clauseFollows(tokens: readonly TaggedToken[], from: number): boolean {
  for (let i = from; i < Math.min(tokens.length, from + 7); i++) {
    if (isFiniteVerb(tokens, i)) return true;
    if (/^[,;:]$/.test(tokens[i].text)) return false;
  }
  return false;
}
