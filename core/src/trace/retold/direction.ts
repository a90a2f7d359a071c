/** The other way round: opposites, up and down, more and less, in and out. */
import { wordsValue } from '../../language/numbers.ts';
import { replacedIn, type Check, type Retelling, type RetoldFault } from './fault.ts';
import { anchor, segmentOf } from './tie.ts';
import { alike, type Said, type Word } from './text.ts';

/** Pairs that WordNet has not, or not as words: particles, and ways. */
const PAIRS: readonly (readonly [string, string])[] = [
  ['on', 'off'],
  ['up', 'down'],
  ['above', 'below'],
  ['more', 'less'],
  ['more', 'fewer'],
  ['left', 'right'],
  ['towards', 'away'],
  ['toward', 'away'],
  ['inside', 'outside'],
  ['earlier', 'later'],
];
/** Roots by which both sides may be told, so that they oppose nothing. */
const EITHER = new Set([
  'new',
  'old',
  'young',
  'long',
  'short',
  'first',
  'last',
  'day',
  'night',
  'man',
  'woman',
]);

function opposites(r: Retelling): RetoldFault[] {
  const { told, passage, tools } = r;
  // Where a passage compares twice, one of its words may be told by the opposite of the other.
  const compared = passage.words.filter((w) => /^(?:ADJ|ADV)$/.test(w.pos) && /(?:er|est)$/.test(w.text) && w.root !== null).length; // prettier-ignore
  const out: RetoldFault[] = [];
  const lacks = (w: Word, words: readonly Word[]) => !words.some((x) => x.text.toLowerCase() === w.text.toLowerCase() || (w.root && x.root === w.root)); // prettier-ignore
  for (const t of told.words)
    for (const p of passage.words) {
      const opposed =
        (t.root &&
          p.root &&
          (kindOf(t) === kindOf(p) || stateLike(t, p)) &&
          !(
            EITHER.has(t.root) &&
            t.text.toLowerCase() === t.root &&
            !ofTheSame(t, p, told.words, passage.words)
          ) &&
          tools.kin?.opposed(t.root, p.root)) ||
        PAIRS.some(
          ([a, b]) =>
            (t.text.toLowerCase() === a && p.text.toLowerCase() === b) ||
            (t.text.toLowerCase() === b && p.text.toLowerCase() === a),
        );
      if (!opposed || !lacks(t, passage.words) || !lacks(p, told.words)) continue;
      const [st, sp] = [segmentOf(told.segments, t), segmentOf(passage.segments, p)];
      if (st.denies !== sp.denies) continue;
      // The passage may say the same beside it.
      if (t.root && passage.words.some((x) => x !== p && x.root && (tools.kin?.likeness(x.root, t.root!) ?? 0) > 0)) continue; // prettier-ignore
      if (!t.root && !particleOf(t, r.told.words, p, passage.words)) continue;
      // Verbs oppose one another only of the same thing, said close by.
      if (
        t.pos === 'VERB' &&
        !st.words.some((w) => w.root && w !== t && sp.words.some((x) => x.root === w.root))
      )
        continue;
      if (t.root && compared > 1 && /er$/.test(t.text)) continue;
      if (t.root && !anchor(told.words, sp, [t.root, p.root], r)) continue;
      out.push({
        kind: 'direction',
        start: t.start,
        end: t.end,
        says: `The source has it the other way: “${p.text}”, not “${t.text}”.`,
        mend: replacedIn(told.text, t.start, t.end, p.text.toLowerCase()),
        does: `Say “${p.text.toLowerCase()}”`,
      });
    }
  return out.slice(0, 1);
}

/** "long legs" and "the legs are short": said of one thing. */
const ofTheSame = (t: Word, p: Word, told: readonly Word[], passage: readonly Word[]) => {
  const noun = told.slice(told.indexOf(t) + 1, told.indexOf(t) + 3).find((w) => w.pos === 'NOUN' && w.root);
  return noun !== undefined && passage.some((w) => w.root === noun.root && w.segment === p.segment);
};
/** "made narrower" and "widened": a state and the change to it. */
const stateLike = (t: Word, p: Word) =>
  (t.pos === 'ADJ' && p.pos === 'VERB') || (t.pos === 'VERB' && p.pos === 'ADJ');
const kindOf = (w: Word) => (w.pos === 'ADV' ? 'ADJ' : w.pos);

/** Whether both particles belong to the same verb. */
function particleOf(t: Word, told: readonly Word[], p: Word, passage: readonly Word[]): boolean {
  const verb = (w: Word, words: readonly Word[]) =>
    words.findLast((x) => x.start < w.start && x.pos === 'VERB' && x.segment === w.segment)?.lemma;
  const [a, b] = [verb(t, told), verb(p, passage)];
  return a !== undefined && a === b && a !== 'be';
}

/** Up where the source has down, in any of the words for it. */
const UP =
  /\b(?:rose|rise[sn]?|rising|increas\w+|grew|grow(?:s|n|ing)?|climb\w*(?! down)|soar\w*|(?:gone|went|go|goes|going|came|come|shot|was|were|is|are) up|up (?:by|from|to)\b|doubled?|higher|longer|harder|more)\b/i;
const DOWN =
  /\b(?:f[ae]ll(?:s|en|ing)?|drop(?:s|ped|ping)?|decreas\w+|declin\w+|shr[aiu]nk\w*|sank|s[iu]nk(?:s|ing)?|(?:gone|went|go|goes|going|came|come|was|were|is|are|got) down|down (?:by|from|to)\b|halved?|lower(?:s|ed)?|shorter|lighter|softer|less|fewer)\b/i;
function trends(r: Retelling): RetoldFault[] {
  const { told, passage } = r;
  if (told.segments.some((s) => s.denies) || passage.segments.some((s) => s.denies)) return [];
  for (const [here, there] of [
    [UP, DOWN],
    [DOWN, UP],
  ] as const) {
    const [a, b] = [here.exec(told.plain), there.exec(passage.plain)];
    if (!a || !b || there.test(told.plain) || here.test(passage.plain)) continue;
    const segment = passage.segments.find((s) => s.words.some((w) => w.start <= b.index && w.end > b.index));
    const value = told.values.some((v) =>
      passage.values.some((p) => p.value === v.value && p.unit === v.unit),
    );
    if (!segment || (!value && !anchor(told.words, segment, [], r))) continue;
    return [
      {
        kind: 'direction',
        start: a.index,
        end: a.index + a[0].length,
        says: `The source has it the other way: “${b[0]}”, not “${a[0]}”.`,
      },
    ];
  }
  return [];
}

/** "the more it moves, the fewer…" where the source has "the more…, the more…"; heavier where it has "the same". */
function comparisons(r: Retelling): RetoldFault[] {
  const { told, passage, tools } = r;
  const twice = /\bthe (?:more|less|fewer)\b[^,.]*, the (more|less|fewer)\b/i;
  const [a, b] = [twice.exec(told.plain), twice.exec(passage.plain)];
  const isMore = (m: RegExpExecArray) => /^more$/i.test(m[1]);
  if (a && b && isMore(a) !== isMore(b))
    return [{ kind: 'direction', start: a.index, end: a.index + a[0].length, says: `The source has it the other way: “${b[0]}”.` }]; // prettier-ignore
  const more = told.words.find((w) => w.pos === 'ADJ' && w.root !== null && /(?:[^t]er|ter)$/.test(w.text) && w.text.toLowerCase() !== w.root); // prettier-ignore
  const shared = [...told.roots].filter((x) => [...passage.roots].some((y) => alike(x, y, tools.kin))).length;
  if (
    more &&
    /\bthe same\b/i.test(passage.plain) &&
    !passage.words.some((w) => w.text.toLowerCase() === more.text.toLowerCase()) &&
    shared >= 2 &&
    !/\bno \w+er\b|\bnot\b|n't/i.test(told.plain)
  )
    return [{ kind: 'direction', start: more.start, end: more.end, says: 'The source says it is the same.' }];
  return [];
}

/** "in the sun" where the source says "out of the sun". */
function inAndOut(r: Retelling): RetoldFault[] {
  const { told, passage } = r;
  const OUT = /\b(?:out of|away from|clear of)\s+(?:the |direct |full )*(\p{L}+)/giu;
  const IN = /\b(?:in|into)\s+(?:the |direct |full |bright )*(\p{L}+)/giu;
  for (const [mine, theirs] of [
    [IN, OUT],
    [OUT, IN],
  ] as const)
    for (const t of told.plain.matchAll(mine))
      for (const p of passage.plain.matchAll(theirs))
        if (
          t[1].toLowerCase() === p[1].toLowerCase() &&
          wordsValue(t[1].toLowerCase()) === null &&
          !told.segments.some((s) => s.denies)
        )
          return [
            {
              kind: 'direction',
              start: t.index,
              end: t.index + t[0].length,
              says: `The source says “${p[0]}”, not “${t[0]}”.`,
              mend: replacedIn(told.text, t.index, t.index + t[0].length, p[0]),
              does: `Say “${p[0]}”`,
            },
          ];
  return [];
}

/** "A is more dangerous than B" where the source has B than A. */
function turnedComparison({ told, passage }: Retelling): RetoldFault[] {
  const parts = (said: Said) => {
    const than = said.words.findIndex((w) => w.lemma === 'than');
    const by = said.words.findIndex((w) => /^(?:more|less|fewer)$/i.test(w.text) || (w.root !== null && /er$/.test(w.text) && w.pos !== 'NOUN')); // prettier-ignore
    if (than < 0 || by < 0 || by > than) return null;
    const roots = (list: readonly Word[]) => new Set(list.flatMap((w) => w.root ?? []));
    return {
      before: roots(said.words.slice(0, by)),
      after: roots(said.words.slice(than + 1)),
      by: said.words[by].text.toLowerCase(),
    };
  };
  const [a, b] = [parts(told), parts(passage)];
  if (!a || !b || a.by !== b.by) return [];
  const only = (x: ReadonlySet<string>, y: ReadonlySet<string>) => [...x].filter((w) => !y.has(w));
  const crossed = only(a.before, a.after).some((w) => b.after.has(w) && !b.before.has(w)) && only(a.after, a.before).some((w) => b.before.has(w) && !b.after.has(w)); // prettier-ignore
  return crossed
    ? [
        {
          kind: 'direction',
          start: 0,
          end: told.text.length,
          says: `The source has it the other way: “${passage.text.replace(/[.!?]$/, '')}”.`,
        },
      ]
    : [];
}

export const direction: Check = (r) => {
  const crossed = turnedComparison(r);
  if (crossed.length) return crossed;
  const moved = [...comparisons(r), ...trends(r), ...inAndOut(r)];
  return moved.length ? moved.slice(0, 1) : opposites(r);
};
