/** How sure the source is: "may", "about", "almost", "some" lost or added (classes after Hyland 1998, "Hedging in Scientific Research Articles"). */
import verbs from '../../../data/verbs.json';
import { replacedIn, type Check, type Retelling, type RetoldFault } from './fault.ts';
import { alike, type Said, type Segment, type Word } from './text.ts';
import type { Value } from './figures.ts';

/** Anything that leaves a claim open. One of them in the telling is enough for any of them in the source. */
const OPEN =
  /\b(?:may|might|could|can|perhaps|maybe|possibl[ey]|probabl[ey]|likely|unlikely|apparently|seems?|seemed|appears?|appeared|suggests?|suggested|thinks?|thought|believes?|believed|supposed(?:ly)?|presumably|reckons?|reckoned|guess(?:es|ed)?|hopes?|hoped|expects?|expected|aims?|plans?|estimates?|estimated|said to be|is said|are said|was said|tends?|often|usually|sometimes|mostly|unclear|unknown|in doubt|doubts?|whether|if|would|should|not (?:yet )?(?:known|sure|certain|settled)|nobody (?:knows|knew|can say)|no one (?:knows|knew|can say)|who knows|we (?:can(?:'t| not)|do not|don't) (?:know|say)|remains? to be seen|alleged(?:ly)?|reportedly|rumou?r\w*|argu\w+|disput\w+|debat\w+|unsettled|undecided|chances? (?:are|is)|a chance)\b/i;
/** Somebody's word for it leaves a claim open too, unless the source has somebody's word and a hedge besides. */
const SAID = /\b(?:according to|claims?|says?|said|told|tells?)\b/i;
const isOpen = (told: Said, passage: Said) =>
  OPEN.test(told.plain) || (SAID.test(told.plain) && !SAID.test(passage.plain));
/** "can" tells what is possible, not that nobody knows it. */
const leavesOpen = (told: Said, passage: Said) =>
  OPEN.test(told.plain.replace(/\bcan\b(?! not)/gi, '')) ||
  (SAID.test(told.plain) && !SAID.test(passage.plain));
/** Words of the source that must not be lost. */
const POSSIBLE =
  /\b(may(?: not)?|might(?: not)?|perhaps|possibly|probably|likely|apparently|reportedly|allegedly|seems? to|seemed to|appears? to|appeared to|hopes? to|hope to|is said to|are said to|was said to|are thought to|is thought to|suggests? that|suggested that|is expected to|are expected to|(?:was|were|been) (?:thought|believed|supposed|expected) to|estimated)\b/gi;
const ADDED =
  /\b(may|might|perhaps|maybe|possibly|probably|apparently|reportedly|allegedly|supposedly|presumably)\b/gi;
/** "that may", permission: "before it may carry", "nobody may". */
const PERMITTED = /\b(?:before (?:it|they|he|she|you)|until (?:it|they)|nobody|no one|you|not)\s+$/i;

const isMonth = (text: string, at: number) =>
  text.slice(at, at + 3) === 'May' &&
  (/^\s+\d/.test(text.slice(at + 3)) ||
    /(?:\d|in|of|since|until|by|last|next|early|late|on|from|to)\s+$/i.test(text.slice(0, at)));

/** A line so short says nothing but its value. */
const FEW_ROOTS = 2;
/** The content word that a hedge is about: the next verb, adjective or noun of its segment. */
const about = (at: number, words: readonly Word[], segment: number): Word | undefined =>
  words.find((w) => w.start > at && w.root !== null && w.segment === segment);

function lost(r: Retelling): RetoldFault[] {
  const { told, passage, tools } = r;
  if (told.question) return [];
  for (const m of isOpen(told, passage) ? [] : passage.plain.matchAll(POSSIBLE)) {
    if (isMonth(passage.plain, m.index) || PERMITTED.test(passage.plain.slice(0, m.index))) continue;
    // "suggests that it should be done" is advice, told as such.
    if (/^suggest/i.test(m[0]) && /\b(?:should|ought)\b/i.test(passage.plain)) continue;
    const hedge = passage.words.find((w) => w.start === m.index);
    if (!hedge) continue;
    const key = about(
      m.index + m[0].length - 1,
      passage.words,
      /that$/i.test(m[0]) ? hedge.segment + 1 : hedge.segment,
    );
    const told_ = key && told.words.find((w) => w.root && alike(w.root, key.root!, tools.kin));
    // The verb may be said in other words: then most of the rest of its segment must be told.
    // "suggested that he digs": what is suggested stands in the next segment.
    const place = /that$/i.test(m[0]) ? hedge.segment + 1 : hedge.segment;
    const own = passage.words.filter((w) => w.segment === place && w.root);
    const behind = own.filter((w) => w.start > m.index + m[0].length);
    const segment = behind.length && key ? behind : own;
    const shared = segment.filter((w) => [...told.roots].some((x) => alike(x, w.root!, tools.kin))).length;
    const values = passage.values.filter((v) => v.segment === hedge.segment && v.start > m.index);
    const sharedValue = values.some((v) => told.values.some((t) => t.value === v.value));
    if (
      !told_ &&
      !(shared >= 2 && shared / segment.length >= 0.5) &&
      !(sharedValue && (shared >= 1 || told.roots.size <= FEW_ROOTS))
    )
      continue;
    if (told_ && segment.length > 2 && shared < 2 && !sharedValue) continue;
    const word = m[1].toLowerCase();
    const mend = hedgedAgain(told.text, told.words, told_, word);
    return [
      {
        kind: 'hedge',
        start: told_?.start ?? 0,
        end: told_?.end ?? told.text.length,
        says: `The source says “${m[0]}”; this is surer.`,
        ...(mend ? { mend, does: `Put “${word}” back` } : {}),
      },
    ];
  }
  // "whether it wears off": told as if it were known.
  const first = (s: Segment) => s.words.find((w) => w.pos !== 'PUNCT')?.text ?? '';
  const from = leavesOpen(told, passage)
    ? -1
    : passage.segments.findIndex((s) => /^whether$/i.test(first(s)));
  for (const s of from < 0 ? [] : passage.segments.slice(from)) {
    if (/^(?:which|who|whose|where|that|but)$/i.test(first(s))) continue;
    const roots = s.words.flatMap((w) => (w.root ? [w] : []));
    const hit = told.words.find((w) => w.root && roots.some((x) => alike(x.root!, w.root!, tools.kin)));
    const shared = roots.filter((x) => [...told.roots].some((y) => alike(y, x.root!, tools.kin))).length;
    const inside = [...told.roots].every((y) => roots.some((x) => alike(y, x.root!, tools.kin)));
    if (
      hit &&
      roots.length &&
      (shared / roots.length >= 0.5 || inside) &&
      !told.segments.some((x) => x.denies)
    )
      return [
        {
          kind: 'hedge',
          start: hit.start,
          end: hit.end,
          says: `The source leaves it open: “${passage.text.slice(passage.segments[from].words[0].start).replace(/[.!?]$/, '')}”.`,
        },
      ];
  }
  return [];
}

const IRREGULAR = new Map(
  verbs.irregular.flatMap((row) => {
    const [base, past, participle] = row.split(' ');
    return [[past, { base, participle }] as const];
  }),
);

/** The line with the hedge in again: "may have" before a past tense, an adverb before the verb or behind "is". */
function hedgedAgain(
  text: string,
  words: readonly Word[],
  at: Word | undefined,
  hedge: string,
): string | null {
  if (/^(?:perhaps|possibly|reportedly|allegedly|apparently|likely)$/.test(hedge)) {
    const adverb = hedge === 'likely' ? 'probably' : hedge;
    return `${adverb.charAt(0).toUpperCase()}${adverb.slice(1)} ${lowered(text, words)}`;
  }
  const i = at ? words.indexOf(at) : -1;
  const aux = i > 0 ? words.slice(Math.max(0, i - 3), i).findLast((w) => w.pos === 'AUX') : undefined;
  const form = aux?.text.toLowerCase();
  const insert = (w: Word, by: string) => replacedIn(text, w.start, w.end, by);
  if (hedge === 'probably') {
    if (aux) return insert(aux, `${aux.text} probably`);
    return at?.pos === 'VERB' ? insert(at, `probably ${at.text}`) : null;
  }
  if (!/^(?:may|might)$/.test(hedge)) return null;
  if (form === 'had' || form === 'has' || form === 'have') return insert(aux!, `${hedge} have`);
  if (form === 'was' || form === 'were') return insert(aux!, `${hedge} have been`);
  if (form === 'is' || form === 'are') return insert(aux!, `${hedge} be`);
  if (form === 'will' || form === 'can') return insert(aux!, hedge);
  if (aux || at?.pos !== 'VERB') return null;
  const word = at.text.toLowerCase();
  const irregular = IRREGULAR.get(word);
  if (irregular && irregular.base !== word) return insert(at, `${hedge} have ${irregular.participle}`);
  if (/ed$/.test(word)) return insert(at, `${hedge} have ${word}`);
  if (/s$/.test(word) && at.lemma !== word) return insert(at, `${hedge} ${at.lemma}`);
  return null;
}
const lowered = (text: string, words: readonly Word[]) =>
  words[0]?.pos === 'PROPN' || /^I\b/.test(text) ? text : text.charAt(0).toLowerCase() + text.slice(1);

/** What the source says nobody knows, told as known. */
const UNKNOWN =
  /\b(?:nothing can be said|(?:cannot|can not|could not|can't|couldn't) (?:say|be said|rule out|tell|be sure)|not (?:yet )?(?:known|clear|certain|sure|settled)|unclear|unknown|nobody (?:knows|can say)|no one (?:knows|can say)|(?:hardly|not|never) been tested|too (?:short|few|small|early) to)\b/i;
function knownAfterAll({ told, passage, tools }: Retelling): RetoldFault[] {
  const m = UNKNOWN.exec(passage.plain);
  if (!m || told.question || leavesOpen(told, passage) || told.segments.some((s) => s.denies) || UNKNOWN.test(told.plain)) return []; // prettier-ignore
  const behind = passage.words.filter((w) => w.root && w.start > m.index + m[0].length);
  // "Who will pay is not settled": what is unknown stands before it.
  const tail = behind.length ? behind : passage.words.filter((w) => w.root && w.end < m.index);
  const shared = [...told.roots].filter((x) => tail.some((w) => alike(w.root!, x, tools.kin)));
  if (!shared.length || shared.length / told.roots.size < 0.34) return [];
  return [
    {
      kind: 'hedge',
      start: 0,
      end: told.text.length,
      says: `The source leaves it open: “${passage.text.replace(/[.!?]$/, '')}”.`,
    },
  ];
}

/** "can cross" told as "will cross". */
function willForCan({ told, passage, tools }: Retelling): RetoldFault[] {
  if (told.question) return [];
  for (const w of told.words) {
    if (w.lemma !== 'will' || w.pos !== 'AUX') continue;
    const verb = told.words.find((x) => x.start > w.start && x.root && x.segment === w.segment);
    const can = passage.words.find((x) => /^(?:can|could|may|might)$/.test(x.lemma) && passage.words.some((y) => y.start > x.start && y.segment === x.segment && y.root && verb?.root && alike(y.root, verb.root, tools.kin))); // prettier-ignore
    if (!verb || !can || told.words.some((x) => x.start === w.end && /n't|not/.test(x.text))) continue;
    return [
      {
        kind: 'hedge',
        start: w.start,
        end: verb.end,
        says: `The source says “${can.text} ${verb.lemma}”; this is surer.`,
        mend: replacedIn(told.text, w.start, w.end, can.text.toLowerCase()),
        does: `Say “${can.text.toLowerCase()}”`,
      },
    ];
  }
  return [];
}

function added(r: Retelling): RetoldFault[] {
  const { told, passage, around } = r;
  if (told.question) return [];
  for (const m of told.plain.matchAll(ADDED)) {
    if (isMonth(told.plain, m.index) || PERMITTED.test(told.plain.slice(0, m.index))) continue;
    if (OPEN.test(passage.plain) || OPEN.test(around.plain) || /\bcan\b|n't|\bnot\b/i.test(passage.plain))
      return [];
    return [
      {
        kind: 'hedge',
        start: m.index,
        end: m.index + m[0].length,
        says: `The source is sure of it: it has no “${m[0].toLowerCase()}”.`,
      },
    ];
  }
  return [];
}

// ---- figures --------------------------------------------------------------------------------------------------------

interface Bound {
  name: 'about' | 'nearly' | 'at least' | 'at most';
  words: RegExp;
}
/** Read in the words close before and behind a figure. */
const BOUNDS: readonly Bound[] = [
  {
    name: 'nearly',
    words: /\b(?:nearly|almost|close to|just under|just short of|not quite)\s+(?:an? |the )?$/i,
  },
  {
    name: 'at least',
    words:
      /\b(?:more than|at least|no fewer than|no less than|upwards of|longer than|above)\s+(?:an? |the )?$/i,
  },
  {
    name: 'at most',
    words:
      /\b(?:under|below|within|inside|less than|fewer than|at most|no more than|not more than|up to|as many as|no longer than)\s+(?:an? |the )?$/i,
  },
  {
    name: 'about',
    words:
      /\b(?:about|around|roughly|approximately|some|something like|circa|in the region of|put at)\s+(?:an? |the )?$/i,
  },
];
/** Any sign that a figure is not exact, anywhere near it. */
const LOOSE =
  /\b(?:about|around|roughly|approximately|some|something like|nearly|almost|close to|or so|give or take|or thereabouts|or more|at least|more than|over|under|below|less than|fewer than|at most|up to|within|inside|a little|just|not quite|maybe|perhaps|no more|limit|past|beyond|most|minimum|maximum|well over|upwards?|-?odd|or two|longer|and up|(?:say|think|believe|reckon)s?)\b/i;
const WINDOW = 30;

const boundOf = (v: Value, plain: string): Bound | undefined =>
  BOUNDS.find((b) => b.words.test(plain.slice(Math.max(0, v.start - WINDOW), v.start)));

function figures(r: Retelling): RetoldFault[] {
  const { told, passage } = r;
  if (told.question) return [];
  for (const v of told.values) {
    const theirs = passage.values.filter((s) => s.value === v.value && s.unit !== 'year');
    if (!theirs.length || theirs.some((s) => !boundOf(s, passage.plain))) continue;
    const bound = boundOf(theirs[0], passage.plain)!;
    const near = told.plain.slice(Math.max(0, v.start - WINDOW), v.end + WINDOW);
    if (LOOSE.test(near)) continue;
    const word = bound.name;
    const shown = passage.text.slice(Math.max(0, theirs[0].start - WINDOW), theirs[0].start).match(/(?:\w+ )?\w+ (?:an? )?$/)?.[0] ?? ''; // prettier-ignore
    const figure = told.text.slice(v.start, v.end);
    const at = v.start === 0;
    return [
      {
        kind: 'hedge',
        start: v.start,
        end: v.end,
        says: `The source says “${`${shown}${theirs[0].text}`.trim()}”, so it isn’t exact.`,
        mend: replacedIn(
          told.text,
          v.start,
          v.end,
          `${word} ${at ? figure.charAt(0).toLowerCase() + figure.slice(1) : figure}`,
        ),
        does: `Put “${word}” back`,
      },
    ];
  }
  return [];
}

export const hedges: Check = (r) => {
  const possible = lost(r);
  if (possible.length) return possible;
  const known = knownAfterAll(r);
  return known.length ? known : [...willForCan(r), ...added(r), ...figures(r)];
};
