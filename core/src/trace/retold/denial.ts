/** What is denied where the source affirms it, or the other way round. */
import type { Check, Retelling, RetoldFault } from './fault.ts';
import { replacedIn } from './fault.ts';
import { anchor, within } from './tie.ts';
import {
  alike,
  deniesAtAll,
  deniesByMeaning,
  wordsOfSegment,
  type Said,
  type Segment,
  type Word,
} from './text.ts';

const PREDICATES = new Set(['VERB', 'ADJ', 'NOUN', 'PROPN']);
/** Denying in other words: what is affirmed with one of these may be what the source denies. */
const LESSENS =
  /\b(?:hardly|barely|seldom|rarely|few|only|without|unless|un\w+ed|too|before|instead|until|less|free of|nor|dis\w+|missing|gone|empty|blind|out of|away from|ban(?:s|ned)?|forbid|won't|no)\b/i;

const FEW = 3;
const textOf = (s: Segment) => s.words.map((w) => w.text).join(' ');
/** A word of one side and the same word of the other, one denied and one not. */
function turnedRoots(r: Retelling): RetoldFault[] {
  const { told, passage, tools } = r;
  const out: RetoldFault[] = [];
  const same = (a: Word, b: Word) =>
    a.root !== null &&
    b.root !== null &&
    ((a.root === b.root &&
      (a.pos === b.pos || a.pos === 'ADJ' || b.pos === 'ADJ' || a.pos === 'PROPN' || b.pos === 'PROPN')) ||
      (a.pos === b.pos && a.pos !== 'NOUN' && tools.kin?.likeness(a.root, b.root) === 1));
  const denied = (segments: readonly Segment[]) =>
    segments.flatMap((s) => [...s.denied].map((w) => ({ w, s })));
  const affirmed = (segments: readonly Segment[]) =>
    segments
      .filter((s) => !s.denies && !s.open)
      .flatMap((s) => s.words.filter((w) => PREDICATES.has(w.pos) && w.root).map((w) => ({ w, s })));
  const deniedTold = denied(told.segments);
  const deniedThere = denied(passage.segments);
  for (const t of deniedTold) {
    if (t.s.open || !PREDICATES.has(t.w.pos)) continue;
    // "Nothing kills more of them": compared, not denied.
    if (t.s.words.some((w) => /^(?:more|than|better|worse|as|so)$/i.test(w.text))) continue;
    if (deniedThere.some((p) => same(p.w, t.w)) || passage.segments.some((s) => s.denies && s.words.some((w) => same(w, t.w)))) continue; // prettier-ignore
    const against = affirmed(passage.segments).find((p) => same(p.w, t.w));
    if (!against || LESSENS.test(textOf(against.s)) || deniesByMeaning(against.s, against.w)) continue;
    if (!anchor(told.words, against.s, [t.w.root, against.w.root], r) && !within(told, passage)) continue;
    out.push({
      kind: 'denial',
      start: t.s.words[0].start,
      end: t.w.end,
      says: `The source affirms it: “${quoteOf(r, against.s)}”.`,
    });
  }
  for (const p of deniedThere) {
    if (!PREDICATES.has(p.w.pos)) continue;
    const against =
      affirmed(told.segments).find((t) => same(p.w, t.w)) ??
      // "hardly moved" told as "swayed": a narrower word for it, of the same and of little else.
      (told.roots.size <= FEW && [...told.roots].some((x) => passage.roots.has(x))
        ? affirmed(told.segments).find((t) => t.w.pos === 'VERB' && p.w.pos === 'VERB' && (tools.kin?.likeness(t.w.root!, p.w.root!) ?? 0) > 0) // prettier-ignore
        : undefined);
    if (!against || deniesAtAll(told)) continue;
    // "the tins stayed where they were" for "the tins did not move": the opposite affirmed denies it too.
    if (told.words.some((w) => w.root !== null && w !== against.w && tools.kin?.opposed(w.root, p.w.root!)))
      continue;
    // The same word affirmed elsewhere in the passage may be what is told.
    if (
      affirmed(passage.segments).some(
        (x) => same(x.w, p.w) && x.s.index !== p.s.index && anchor(against.s.words, x.s, [p.w.root], r),
      )
    )
      continue;
    if (!anchor(told.words, p.s, [p.w.root, against.w.root], r) && !within(told, passage)) continue;
    out.push({
      kind: 'denial',
      start: against.w.start,
      end: against.w.end,
      says: `The source denies it: “${quoteOf(r, p.s)}”.`,
    });
  }
  return out.slice(0, 1);
}

const quoteOf = ({ passage }: Retelling, s: Segment) => wordsOfSegment(passage, s);

/** Everybody where the source has nobody. */
function everybody({ told, passage, tools }: Retelling): RetoldFault[] {
  const ALL = /\b(?:every(?:one|body)|every(?= \p{L}+)|all (?:of|the \p{L}+s\b|\p{L}+s\b)|both)/iu;
  const NONE = /\b(?:nobody(?! but)|no one(?! but)|none|not everyone|not everybody|not all)\b/i;
  const [a, b] = [ALL.exec(told.plain), NONE.exec(passage.plain)];
  if (!a || !b || /\b(?:no|not|nobody|none|never)\b|n't/i.test(told.plain)) return [];
  const segmentAt = (said: Said, at: number) =>
    said.segments.find((s) => s.words.some((w) => w.start <= at && w.end > at));
  const [mine, theirs] = [segmentAt(told, a.index), segmentAt(passage, b.index)];
  const shared = (mine?.words ?? []).some((w) => w.root && (theirs?.words ?? []).some((x) => x.root && (x.root === w.root || (tools.kin?.likeness(x.root, w.root!) ?? 0) > 0))); // prettier-ignore
  const bare = told.roots.size < 3 && passage.roots.size < 3;
  if (!shared && !bare) return [];
  const none = b[0].toLowerCase();
  return [
    {
      kind: 'denial',
      start: a.index,
      end: a.index + a[0].length,
      says: `The source says “${b[0]}”, not “${a[0]}”.`,
      ...(/^every(?:one|body)$/i.test(a[0]) ? { mend: replacedIn(told.text, a.index, a.index + a[0].length, none), does: `Say “${none}”` } : {}), // prettier-ignore
    },
  ];
}

/** "It never did.", "I didn't.": what the fact before says did not happen. */
const ELLIPTIC =
  /^(?:but |and )?(?:it|he|she|they|i|we|nobody|no one)(?: never| did(?: not|n't)| has(?: not|n't)| had(?: not|n't)| would(?: not|n't)| never did| did)\.?$/i;
function neverHappened(r: Retelling): RetoldFault[] {
  const { told, stock, facts, tools } = r;
  const at = stock.facts.indexOf(facts[0]);
  const next = stock.facts[at + 1];
  const here = ELLIPTIC.test(r.passage.plain.trim()) ? stock.facts[at - 1] : facts[0];
  const denies = here === facts[0] ? next : facts[0];
  if (!here || !denies || denies.source !== here.source || !ELLIPTIC.test(stock.said(denies).plain.trim()))
    return [];
  if (!/\b(?:never|not|nobody|no one)\b|n't/i.test(stock.said(denies).plain) || deniesAtAll(told)) return [];
  const verbs = new Set(stock.said(here).words.flatMap((w) => (w.pos === 'VERB' && w.root ? [w.root] : [])));
  const done = told.words.find((w, i) => w.pos === 'VERB' && w.root && [...verbs].some((v) => alike(v, w.root!, tools.kin)) && !/^(?:to|should|must|asked?|would)$/i.test(told.words[i - 1]?.text ?? '') && w.text.toLowerCase() !== w.lemma); // prettier-ignore
  if (!done || told.words.some((w) => /^(?:ask|should|tell|want|order|urge|beg)$/.test(w.lemma))) return [];
  return [
    { kind: 'denial', start: done.start, end: done.end, says: `The source denies it: “${denies.text}”` },
  ];
}

/** "can" where the source says "can't", of the same. */
const AUXILIARY = /^(?:can|could|will|would|do|be|have|may|might|should|must)$/;
function turnedAuxiliary(r: Retelling): RetoldFault[] {
  const { told, passage, tools } = r;
  if (deniesAtAll(told)) return [];
  for (const s of passage.segments) {
    const i = s.words.findIndex(
      (w, k) =>
        w.pos === 'AUX' && AUXILIARY.test(w.lemma) && /^(?:not|n't)$/i.test(s.words[k + 1]?.text ?? ''),
    );
    if (i < 0) continue;
    const aux = told.words.find((w) => w.pos === 'AUX' && w.lemma === s.words[i].lemma);
    const own = s.words.flatMap((w) => w.root ?? []);
    const shared = own.filter((x) => [...told.roots].some((y) => alike(x, y, tools.kin)));
    if (!aux || !own.length || shared.length < 2 || shared.length / told.roots.size < 0.6) continue;
    return [
      { kind: 'denial', start: aux.start, end: aux.end, says: `The source denies it: “${quoteOf(r, s)}”.` },
    ];
  }
  return [];
}

/** "gave way" where the source says "did not give way": verbs too light to be compared by themselves. */
function turnedLight({ told, passage }: Retelling): RetoldFault[] {
  if (told.segments.some((s) => s.denies) || ![...told.roots].some((x) => passage.roots.has(x))) return [];
  for (const s of passage.segments) {
    const not = s.words.findIndex((w) => /^(?:not|n't|never)$/i.test(w.text));
    const verb = not < 0 ? undefined : s.words.slice(not + 1).find((w) => w.pos === 'VERB');
    const next = verb && s.words[s.words.indexOf(verb) + 1];
    if (!verb || verb.root !== null || !next || next.pos === 'PUNCT') continue;
    const same = told.words.find((w, i) => w.pos === 'VERB' && w.lemma === verb.lemma && told.words[i + 1]?.text.toLowerCase() === next.text.toLowerCase()); // prettier-ignore
    if (same) return [{ kind: 'denial', start: same.start, end: same.end, says: `The source denies it: “${passage.text.replace(/[.!?]$/, '')}”.` }]; // prettier-ignore
  }
  return [];
}

/** "ruined" where the source says "fine", of the same and of nothing else. */
function otherState({ told, passage, tools }: Retelling): RetoldFault[] {
  const state = (said: Said) => {
    const be = said.words.findIndex((w) => w.lemma === 'be');
    const word =
      be < 1
        ? undefined
        : said.words.slice(be + 1).find((w) => w.root && (w.pos === 'ADJ' || w.pos === 'VERB'));
    // "called off" is another word than "called".
    if (word && said.words[said.words.indexOf(word) + 1]?.pos === 'ADP') return null;
    const rest = [...said.roots].filter((x) => x !== word?.root);
    return word && rest.length === 1 && !said.segments.some((s) => s.denies) ? { word, of: rest[0] } : null;
  };
  const [a, b] = [state(told), state(passage)];
  if (!a || !b || a.of !== b.of || (tools.kin?.likeness(a.word.root!, b.word.root!) ?? 1) > 0 || a.word.root === b.word.root) return []; // prettier-ignore
  return [
    {
      kind: 'denial',
      start: a.word.start,
      end: a.word.end,
      says: `The source says “${b.word.text}”, not “${a.word.text}”.`,
      mend: replacedIn(told.text, a.word.start, a.word.end, b.word.text),
      does: `Say “${b.word.text}”`,
    },
  ];
}

/** "never along it": a way that the source warns of. */
function warnedWay({ told, around: passage, tools }: Retelling): RetoldFault[] {
  const m = /\b(?:never|not) (along|through|across|over|under|into|near|against|towards?|behind)\b/i.exec(
    passage.plain,
  );
  if (!m || told.segments.some((s) => s.denies)) return [];
  const way = told.words.find((w) => w.text.toLowerCase() === m[1].toLowerCase());
  const shared = [...told.roots].filter((x) => [...passage.roots].some((y) => alike(x, y, tools.kin))).length;
  return way && shared >= 2
    ? [{ kind: 'denial', start: way.start, end: way.end, says: `The source says “${m[0]}”.` }]
    : [];
}

export const denial: Check = (r) => {
  // A question leaves open what it asks.
  if (r.told.question) return [];
  for (const find of [
    everybody,
    turnedRoots,
    neverHappened,
    turnedAuxiliary,
    turnedLight,
    warnedWay,
    otherState,
  ]) {
    const found = find(r);
    if (found.length) return found;
  }
  return [];
};
