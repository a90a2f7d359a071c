/** All for some, part for whole: the quantity of one noun on both sides. */
import { isA } from '../../language/classes.ts';
import type { Check, RetoldFault } from './fault.ts';
import { replacedIn } from './fault.ts';
import type { Kin } from '../../language/kin.ts';
import { alike, type Said, type Word } from './text.ts';

const PARTS: readonly (readonly [Quantity, RegExp])[] = [
  ['all', /^(?:all|every|each|both|everyone|everybody|whole|entire|always)$/i],
  ['most', /^most$/i],
  ['many', /^(?:many|numerous|plenty|lots|countless)$/i],
  ['some', /^(?:some|several|certain)$/i],
  ['few', /^few$/i],
  ['half', /^half$/i],
  ['none', /^(?:no|none|neither|nobody)$/i],
];
type Quantity = 'all' | 'most' | 'many' | 'some' | 'few' | 'half' | 'none' | 'number';
interface Counted {
  quantity: Quantity;
  root: string;
  /** From the quantity word to its noun. */
  start: number;
  end: number;
  text: string;
}
const REACH = 6;
const isTime = (lemma: string) => lemma === 'time' || isA(lemma, 'time');
const BETWEEN = new Set(['DET', 'ADJ', 'ADP', 'NUM', 'PRON', 'ADV', 'PROPN']);

function countedIn({ words, text }: Said): Counted[] {
  const out: Counted[] = [];
  words.forEach((t, i) => {
    const nearly = /^all$/i.test(t.text) && /^(?:nearly|almost)$/i.test(words[i - 1]?.text ?? '');
    const quantity =
      (nearly ? ('most' as const) : null) ??
      PARTS.find(([, p]) => p.test(t.text))?.[0] ??
      (t.pos === 'NUM' && !/^one$/i.test(t.text) ? 'number' : null);
    if (!quantity) return;
    // "about some eighty", "most recently", "no more": these count nothing.
    const next = words[i + 1];
    if (!next || (quantity !== 'number' && next.pos === 'NUM') || (quantity !== 'number' && next.pos === 'ADV' && next.root)) return; // prettier-ignore
    if (quantity === 'all' && /^(?:at|in|over|round|along|the same|day|night|on)$/i.test(next.text)) return;
    for (let j = i + 1; j < Math.min(words.length, i + REACH); j++) {
      const w = words[j];
      if (w.pos === 'NOUN' && w.root) {
        if (words[j + 1]?.pos === 'NOUN' && words[j + 1].root && j + 1 < i + REACH) continue;
        // "each morning": how often, not how many.
        if (quantity === 'all' && isTime(w.lemma)) return;
        out.push({ quantity, root: w.root, start: t.start, end: w.end, text: text.slice(t.start, w.end) });
        return;
      }
      if (!BETWEEN.has(w.pos) || (quantity === 'number' && w.pos === 'ADP' && w.lemma !== 'of')) return;
    }
  });
  return out;
}

/** What the same quantity may be called without a lie. */
const COMPATIBLE: Readonly<Record<Quantity, readonly Quantity[]>> = {
  all: ['all', 'number', 'none'],
  most: ['most', 'many', 'some', 'number'],
  many: ['many', 'some', 'most', 'number'],
  some: ['some', 'many', 'few', 'number', 'most'],
  few: ['few', 'some', 'number'],
  half: ['half', 'number'],
  none: ['none', 'all', 'few'],
  number: ['number', 'some', 'many', 'few', 'half', 'none', 'most'],
};
const isPlural = (w: Word, words: readonly Word[]) => {
  const i = words.indexOf(w);
  return (
    w.text.toLowerCase() !== w.lemma &&
    /s$/i.test(w.text) &&
    !words.slice(Math.max(0, i - 4), i).some((x) => x.pos === 'NUM' || /^(?:a|an|number|lot|share|part|third|quarter|these|those|them|more|bit|handful|other|others)$/i.test(x.text)) // prettier-ignore
  );
};

export const whole: Check = ({ told, passage, all, tools }) => {
  if (told.question) return [];
  const theirs = countedIn(all);
  const mine = countedIn(told);
  const out: RetoldFault[] = [];
  for (const t of mine) {
    const same = theirs.filter((s) => alike(s.root, t.root, tools.kin));
    if (!same.length || t.quantity === 'number') continue;
    if (same.some((s) => COMPATIBLE[s.quantity].includes(t.quantity) && !(t.quantity === 'all' && s.quantity === 'number'))) continue; // prettier-ignore
    // "all six hospitals" may be told as "all hospitals"; "two schools" may not.
    if (t.quantity === 'all' && passage.words.some((w) => /^(?:all|every|each|both|the|these|those)$/i.test(w.text) && w.end < same[0].start + 1 && same[0].start - w.end < 3)) continue; // prettier-ignore
    out.push({
      kind: 'whole',
      start: t.start,
      end: t.end,
      says: `The source says “${same[0].text}”, not “${t.text}”.`,
      mend: replacedIn(told.text, t.start, t.end, capitalAs(t.text, same[0].text)),
      does: `Say “${same[0].text}”`,
    });
  }
  if (out.length) return out;
  const often = /\b(?:often|always|all the time|constantly|every (?:day|night|time))\b/i.exec(told.plain);
  const seldom = /\b(?:only|rarely|seldom|hardly ever|hardly|a few)\b/i.exec(passage.plain);
  if (
    often &&
    seldom &&
    !/\b(?:often|always|every)\b/i.test(passage.plain) &&
    [...told.roots].some((x) => passage.roots.has(x))
  )
    return [
      {
        kind: 'whole',
        start: often.index,
        end: often.index + often[0].length,
        says: `The source says “${seldom[0]}”, not “${often[0]}”.`,
      },
    ];
  const loose = looseQuantity(told, all, passage, tools.kin);
  if (loose.length) return loose;
  for (const s of theirs) {
    if (!['most', 'some', 'few', 'half', 'many'].includes(s.quantity)) continue;
    const w = told.words.find((x) => x.pos === 'NOUN' && x.root && alike(x.root, s.root, tools.kin));
    if (!w || mine.some((t) => alike(t.root, s.root, tools.kin)) || !isPlural(w, told.words)) continue;
    if (/\b(?:most|many|some|few|often|usually|mostly|largely|half|sometimes|plenty)\b/i.test(told.plain))
      continue;
    const at = told.words.indexOf(w);
    // "made contributions": behind its verb a bare plural says that there were some; before it, that all did.
    if (['some', 'few', 'many'].includes(s.quantity) && told.words.slice(0, at).some((x) => x.pos === 'VERB')) continue; // prettier-ignore
    const quantity = s.text.split(/\s/)[0].toLowerCase();
    let first = at;
    while (first > 0 && ['ADJ', 'NOUN', 'PROPN'].includes(told.words[first - 1].pos) && told.text.slice(told.words[first - 1].end, told.words[first].start) === ' ') first--; // prettier-ignore
    const { start } = told.words[first];
    const phrase = told.text.slice(start, w.end);
    const own = first > 0 && ['DET', 'PRON'].includes(told.words[first - 1].pos);
    // At the head of a line a capital says nothing; the source shows whether the word has one.
    const small = phrase.charAt(0).toLowerCase() + phrase.slice(1);
    const named = told.words[first].pos === 'PROPN' && !all.text.includes(small.split(' ')[0]);
    const mended = `${quantity} ${named ? phrase : small}`;
    out.push({
      kind: 'whole',
      start: w.start,
      end: w.end,
      says: `The source says “${s.text}”, not all of them.`,
      // "the bats" can't be "the some bats".
      ...(own
        ? {}
        : { mend: replacedIn(told.text, start, w.end, capitalAs(phrase, mended)), does: `Say “${mended}”` }),
    });
  }
  return out.slice(0, 1);
};
/** "most of them", "all of them", "nobody": quantities without a noun, against shares and counts of the passage. */
function looseQuantity(told: Said, all: Said, passage: Said, kin: Kin | null): RetoldFault[] {
  const shared = [...told.roots].some((x) => [...all.roots].some((y) => alike(x, y, kin)));
  if (!shared) return [];
  const found = (re: RegExp, says: string): RetoldFault[] => {
    const m = re.exec(told.plain);
    return m ? [{ kind: 'whole', start: m.index, end: m.index + m[0].length, says }] : [];
  };
  const share = /\b(\S+) of (?:the |them|its |their |our )?(\S+)?/i;
  for (const part of all.values) {
    const total = all.values.find((v) => v.whole && v.start > part.end && v.start - part.end < 14);
    const ofThem = /^\s+of them\b/i.test(all.plain.slice(part.end));
    if (!total && !ofThem) continue;
    const of = total ? part.value / total.value : 0.5;
    const text = all.text.slice(part.start, total ? total.end : part.end + 8).trim();
    if (of <= 0.5 && share.test(all.plain)) {
      const most = found(/\bmost of\b/i, `The source says “${text}”, not most of them.`);
      if (most.length) return most;
    }
    if (of < 1) {
      const every = found(
        /\b(?:all of|every one of|everyone|everybody)\b/i,
        `The source says “${text}”, not all of them.`,
      );
      if (every.length) return every;
    }
  }
  const partly = /\b(most|many|some|half|few|several) of (?:them|the|these|those)\b/i.exec(passage.plain);
  if (partly && !/\ball of\b/i.test(passage.plain)) {
    const every = found(/\b(?:all of|every one of)\b/i, `The source says “${partly[0]}”, not all of them.`);
    if (every.length) return every;
  }
  const most = /\b(most|many|some|few|several|half) (?:of the |of |the )?(?:people|villagers|residents|neighbours|visitors|workers|staff|members|\w+ers)\b/i.exec(passage.plain); // prettier-ignore
  if (most && !/\b(?:nobody|no one|everyone|everybody|all)\b/i.test(passage.plain)) {
    const none = found(
      /\b(?:nobody|no one|everyone|everybody)\b/i,
      `The source says “${most[0]}”, not all of them.`,
    );
    if (none.length) return none;
  }
  if (
    /\b(?:most|majority|more than half|percent|per cent|%|mainly|mostly|nearly all|largely)\b/i.test(
      all.plain,
    )
  )
    return [];
  const added = /\bmost of (?:them|it|the)\b/i.exec(told.plain);
  return added && !all.values.some((v) => v.unit === 'part')
    ? [
        {
          kind: 'whole',
          start: added.index,
          end: added.index + added[0].length,
          says: 'The source does not say how many of them.',
        },
      ]
    : [];
}

const capitalAs = (like: string, text: string) =>
  /^\p{Lu}/u.test(like)
    ? text.charAt(0).toUpperCase() + text.slice(1)
    : text.charAt(0).toLowerCase() + text.slice(1);
