/** Rules for whole rows of a draft in free form; the first that knows a row decides. Common practice, no published source. */
import {
  BRIEF,
  NAMED_PART,
  NARRATOR,
  NO_SPEAKER,
  NUMBERED_HEAD,
  PICTURE,
  SECTION_LABEL,
  SECTION_WORD,
  STRONG_LABEL,
  TITLE,
  TRANSITION,
  bare,
  isRule,
} from './labels.ts';
import type { CutKind } from './piece.ts';

export type RowVerdict =
  | { type: 'cut'; kind: CutKind }
  | { type: 'heading'; text: string; level: 0 | 1 }
  /** The label goes, what follows is spoken by `speaker`; with nothing behind it, it holds for the rows below. */
  | { type: 'label'; speaker: string; label: string; rest: string }
  /** The name of a part, and behind it words of it. */
  | { type: 'headed'; text: string; rest: string }
  /** A heading that is spoken. */
  | { type: 'said'; rest: string }
  /** What follows is not spoken, on this row or, with nothing behind it, on the rows below. */
  | { type: 'directs'; rest: string };

export interface RowContext {
  /** How many rows with words stand before and after. */
  before: number;
  after: number;
  /** Names that stand before a colon at least twice. */
  speakers: ReadonlySet<string>;
  /** Those of them that never say a sentence, beside some that do. */
  cues: ReadonlySet<string>;
  /** Whether one heading of the first rank stands in the whole: the title. */
  onlyTop: boolean;
  /** The next row with words, and whether a blank row is between. */
  next: string | null;
  gapAfter: boolean;
  gapBefore: boolean;
  /** Whether a time stood before it, and was taken off. */
  timed: boolean;
  /** Whether it is a title by its form alone: of the whole (0) or of a part (1). */
  plainTitle: 0 | 1 | null;
  /** What stands behind times again and again: who speaks. */
  timedNames: ReadonlySet<string>;
  /** Whether times stand before names of parts alone. */
  timesHead: boolean;
  /** How many rows begin with the name of a part and a colon. */
  sectionLabels: number;
  /** How many labels of a narrator stand in the whole. */
  narrators: number;
  /** Whether most rows have small letters. */
  lowercase: boolean;
  /** How many rows begin with a label of any kind. */
  labels: number;
}

export interface RowRule {
  id: string;
  read: (row: string, context: RowContext) => RowVerdict | null;
}

const TIME = String.raw`\d{1,2}:\d{2}(?::\d{2})?(?:[.,]\d{1,3})?`;
const SPAN = String.raw`${TIME}(?:\s*(?:-->?|[–—-]|to)\s*${TIME})?`;
const TIME_ROW = new RegExp(String.raw`^[[(]?\s*${SPAN}\s*[\])]?[:.]?$`, 'i');
/** A time span in brackets at the end of a heading. */
const TIME_TAIL = new RegExp(
  String.raw`(?:\s*[–—|:-])?\s*(?:[[(]\s*(?:${SPAN}|~?\d+\s*(?:[–-]\s*\d+\s*)?(?:s|sec(?:ond)?s?|min(?:ute)?s?|words?))\s*[\])]|(?<=\s)${SPAN})\s*$`,
  'i',
);

const COUNT =
  /^total\s?[:=][\s~≈]{0,4}\d.*\b(?:words?|seconds?|secs?|minutes?|mins?|wpm)\b.*$|^[([]?\s*(?:total |final |estimated |approx(?:imate|\.)? |vo |narration |audio |script )*(?:word ?count|words|(?:approx(?:imate|\.)? )?(?:length|duration|runtime|run time|running time|screen time|time)|estimated (?:time|length|duration|runtime)|reading time|speaking time|read time|trt)\s*[:=~≈-].*$/i;
const COUNT_ALONE =
  /^[([]\s*(?:[~≈]\s*)?(?:(?:approx(?:imately|\.)?|about|total:?)\s*)?\d[\d,.]*\s*(?:(?:-|–)\s*)?(?:words?|seconds?|minutes?|mins?|secs?|s|m)(?:\s*[,/|·-]\s*(?:[~≈]\s*)?\d[\d,.]*\s*(?:words?|seconds?|minutes?|mins?|secs?|s|m))?\s*[)\]]$|^(?:[~≈]\s*)?\d[\d,]*\s+words?(?:\s*[,/|·(].*)?$/i;
const ABOUT_SCRIPT =
  /\b(?:script|draft|version|narration|voice-?over|video|another pass|me to|revis(?:e|ion)|tweak|adjust(?:ment)?s?|changes?|let me know|help(?:s|ful)?|rewrit\w+|shorten|lengthen|minute)\b/i;
const CHATTER_START =
  /^(?:sure(?: thing)?|certainly|of course|absolutely|great|got it|okay|ok|no problem|happy to help|perfect|here(?:['’]s| is| are| you go)|below (?:is|you)|i(?:['’]ve| have) (?:written|kept|made|revised|shortened|drafted|added)|as requested|this (?:script|version|draft)|the (?:following|script below)|thanks? for)\b/i;
const CHATTER_END =
  /^(?:i hope (?:this|that|you)|let me know|feel free|would you like|do you want me|if you(?:['’]d| would| want| need)|want me to|happy to|this (?:script|version|draft|narration)|the (?:script|total|above)|note:|(?:please )?note that|shall i|should i|i can (?:also|make|adjust)|i(?:['’]ve| have) (?:removed|tightened|added|changed|made|kept|shortened|cut|trimmed|included|rewritten|adjusted)|good luck|enjoy)\b/i;
/** Steps between pictures: a verb of cutting with where it goes. "Cut the paint." is spoken. */
const CUT_PHRASE =
  /^(?:(?:slow|quick|hard|smash|match|jump) )?(?:cut|fade|dissolve|crossfade|zoom|pan|wipe)s?\s+(?:back )?(?:to|in|out|from|into|on|up|down|across)(?:\s+[\w’'-]+){0,3}[.:]?$/i;
const CAPITAL_HEAD = /^(?=.*[A-Z]{2})[A-Z\d][A-Z\d ,'’&:–—!?-]{2,60}$/;

const HEAD_WORDS = 9;
const words = (text: string) => text.split(/\s+/).filter(Boolean).length;
const ends = (text: string) => /[.!?…]["”’)]?$/.test(text);
/** Round brackets at the end with a length among their words: "(brisk, ~40 sec)". */
const LENGTH_TAIL = /\s*\([^()]{0,40}\b\d+\s*(?:s|secs?|seconds?|mins?|minutes?|words?)\b[^()]{0,20}\)$/i;
const named = (text: string): string =>
  text
    .replace(/`/g, '')
    .replace(LENGTH_TAIL, '')
    .replace(TIME_TAIL, '')
    .replace(/[:–—|-]\s*$/, '')
    .replace(/^["“]|["”]$/g, '')
    .trim();
const heading = (text: string, level: 0 | 1 = 1): RowVerdict => {
  const name = named(text) || text.trim();
  return { type: 'heading', level, text: NUMBERED_HEAD.exec(name)?.[1]?.trim() || name };
};

/** A length, a frame, a running number: what fields beside one another tell of a draft. */
const MEASURE =
  /(?:^|[\s(~≈:])(?:\d{1,2}:\d{2}|:\d{2}|\d+\s*(?:s|secs?|seconds?|mins?|minutes?|words?|wpm|x\s*\d+)\b|(?:v(?:ersion)?\.?|draft|rev(?:ision)?|take)\s*\d|page \d|cont(?:['’]?d|inued)?\b)/i;
/** Fields beside one another, set apart by marks or wide blanks, no sentence among them. */
function isFields(text: string, before: number): boolean {
  const wide = text.split(/\s{3,}/);
  const fields = (wide.length > 1 ? wide : text.split(/\s+[|·•/—–]\s+/)).filter((f) =>
    /[\p{L}\p{N}]/u.test(f),
  );
  if (fields.length < 2 || ends(text.replace(/cont\.$/i, '')) || fields.some((f) => words(f) > 7))
    return false;
  return fields.some((f) => MEASURE.test(f)) || (wide.length > 1 && before < 4);
}

/** In a draft with one label at most: words behind a plain word and a colon that are a sentence. "Sound: it needs something to travel in." */
const isSaid = (row: string, rest: string): boolean =>
  ends(rest) && words(rest) >= 4 && /^\s*(?!notes?\b)\p{L}{4,}\s*:/iu.test(row);

/** Rules in order. */
export const ROW_RULES: readonly RowRule[] = [
  {
    id: 'rule',
    read: (row) => (isRule(row) ? { type: 'cut', kind: 'mark' } : null),
  },
  {
    id: 'title',
    read: (row, c) => {
      const m = TITLE.exec(bare(row).replace(/^#+\s*/, ''));
      if (!m) return null;
      if (c.before < 4) return heading(m[1], 0);
      // Further down it is a part's, a slide's.
      return ends(m[1]) || words(m[1]) > HEAD_WORDS ? null : heading(m[1], 1);
    },
  },
  {
    id: 'markdown-heading',
    read: (row, c) => {
      const m = /^\s{0,3}(#{1,6})\s+([^\s#].*)$/.exec(row.replace(/[\s#]+$/, ''));
      // A heading that ends as a sentence does is read out with the others' words.
      if (m && m[1].length > 1 && /\p{Ll}\.$/u.test(m[2]) && !SECTION_WORD.test(m[2]) && words(m[2]) > 2)
        return { type: 'said', rest: m[2] };
      return m ? heading(bare(m[2]), m[1].length === 1 && c.onlyTop && c.before < 4 ? 0 : 1) : null;
    },
  },
  {
    id: 'no-voice',
    read: (row) =>
      /^no (?:vo|v\.o\.?|voice-?over|narration|dialogue|audio)\b[^.!?]{0,30}[.!]?$/i.test(bare(row))
        ? { type: 'cut', kind: 'direction' }
        : null,
  },
  {
    // The one word over what is to be read.
    id: 'script-below',
    read: (row, c) =>
      c.gapAfter && c.next !== null && /^(?:the )?(?:full |final )?(?:script|narration|voice-?over(?: script)?)\s*:?$/i.test(bare(row).replace(/^#+\s*/, '')) // prettier-ignore
        ? { type: 'cut', kind: 'mark' }
        : null,
  },
  {
    id: 'page-mark',
    read: (row) =>
      /^\s*(?:-\s*\d{1,3}\s*-|(?:page|p\.)\s*\d{1,3}(?:\s*(?:of|\/)\s*\d{1,3})?)\s*$/i.test(row)
        ? { type: 'cut', kind: 'mark' }
        : null,
  },
  {
    id: 'fields',
    read: (row, c) => (isFields(bare(row), c.before) ? { type: 'cut', kind: 'brief' } : null),
  },
  {
    id: 'rights',
    read: (row, c) =>
      (c.after < 2 && c.before > 2 && /^\s*(?:©|\(c\))\s*[\p{Lu}\d]/u.test(row)) ||
      /^\W*(?:©|\(c\)|copyright\b)[^.!?]{0,60}\b(?:19|20)\d\d\b|\ball rights reserved\b/i.test(row)
        ? { type: 'cut', kind: 'brief' }
        : null,
  },
  {
    id: 'to-fill-in',
    read: (row) => (/:\s*_{3,}|_{6,}/.test(row) && !ends(bare(row)) ? { type: 'cut', kind: 'brief' } : null),
  },
  {
    // "~ music swells ~", "<beat>": a few words between marks of one kind.
    id: 'between-marks',
    read: (row) => {
      const m =
        /^\s*(?:([~«<‹{|/])\s{0,3}[\p{L}][^<>{}~|/]{1,60}[~»>›}|/]|(?:—|--+)\s[^—]{2,60}\s(?:—|--+))\s*$/u.exec(
          row,
        );
      return m &&
        words(row) <= 8 &&
        !/[.!?…]["”’)]?\W{0,3}$/.test(row.replace(/[~»>›}|/]\s*$/, '')) &&
        !/^\s*<\/?\w+\b[^>]*=/.test(row)
        ? { type: 'directs', rest: row }
        : null;
    },
  },
  {
    id: 'address',
    read: (row) =>
      /^[^.!?]{0,60}?<?\bhttps?:\/\/\S{1,600}\s*$/.test(bare(row)) ? { type: 'cut', kind: 'brief' } : null,
  },
  {
    id: 'plain-title',
    read: (row, c) => (c.plainTitle === null ? null : heading(row, c.plainTitle)),
  },
  {
    id: 'byline',
    read: (row, c) =>
      c.before < 3 && c.gapAfter && /^(?:written |script |story |words )?by\s+\p{Lu}[\p{L}.’'-]*(?:\s\p{Lu}[\p{L}.’'-]*){0,3}$/u.test(bare(row)) // prettier-ignore
        ? { type: 'cut', kind: 'brief' }
        : null,
  },
  {
    id: 'unchecked',
    read: (row) =>
      /^\s*(?:[-*•]\s*)?\[[ xX✓-]\]\s/.test(row) || /^\W*(?:TODO|FIXME|TBC|TBD|TK|NB)\b/.test(row)
        ? { type: 'cut', kind: 'brief' }
        : null,
  },
  {
    id: 'setting',
    read: (row) =>
      /^\s*<[?!](?:xml|doctype)\b|^\s*#\+\w+:|^\s*:[A-Za-z_-]{2,20}:(?:\s|$)/.test(row)
        ? { type: 'cut', kind: 'brief' }
        : null,
  },
  {
    id: 'timed-speaker',
    read: (row, c) =>
      c.timed && c.timedNames.has(row.trim().toLowerCase())
        ? { type: 'label', speaker: '', label: row.trim(), rest: '' }
        : null,
  },
  {
    // Another wording of a part: "Hook B (alt): …".
    id: 'another-wording',
    read: (row) =>
      /^(?:hook|title|opening|intro|line|ending|outro|cta|closing)\s?(?:[A-E]|\d)?\s?\((?:alt|alternat|option|spare|unused|backup|or)[^)]{0,20}\)\s*:/i.test(
        bare(row),
      )
        ? { type: 'directs', rest: row }
        : null,
  },
  {
    id: 'part-label',
    read: (row, c) => {
      // Beside a narrator's labels a scene is what is seen.
      if (c.narrators > 1 && /^scene\s*[:–—-]/i.test(bare(row))) return { type: 'directs', rest: row };
      const named = NAMED_PART.exec(bare(row));
      if (named) return { type: 'headed', text: named[1].trim(), rest: named[2] };
      const m = SECTION_LABEL.exec(bare(row));
      return m && (c.sectionLabels > 1 || STRONG_LABEL.test(m[1]))
        ? { type: 'headed', text: m[1], rest: m[2] }
        : null;
    },
  },
  {
    id: 'timed-name',
    read: (row, c) => {
      const b = bare(row);
      return c.timed &&
        !ends(b) &&
        words(b) <= 4 &&
        (c.timesHead || /^[^a-z]+$/.test(b) || /^\|/.test(row.trim()))
        ? heading(b.replace(/^\|\s*/, ''))
        : null;
    },
  },
  { id: 'time', read: (row) => (TIME_ROW.test(bare(row)) ? { type: 'cut', kind: 'timing' } : null) },
  {
    id: 'count',
    read: (row) => {
      const b = bare(row);
      return (COUNT.test(b) && words(b) <= 14) || COUNT_ALONE.test(b) ? { type: 'cut', kind: 'count' } : null;
    },
  },
  {
    id: 'hashtags',
    read: (row) =>
      /^\s*(?:#[\p{L}\d_]+[\s,]*){1,}$/u.test(row) && !/^\s*#\d+\s*$/.test(row)
        ? { type: 'cut', kind: 'brief' }
        : null,
  },
  {
    id: 'transition',
    read: (row) => (TRANSITION.test(bare(row)) ? { type: 'cut', kind: 'direction' } : null),
  },
  {
    id: 'picture',
    read: (row, c) => {
      const m = PICTURE.exec(bare(row));
      return m && !(c.labels < 2 && isSaid(row, m[1])) ? { type: 'directs', rest: m[1] } : null;
    },
  },
  {
    id: 'narrator',
    read: (row) => {
      // How it is said may stand before who says it: "(SOFT) HOST: …".
      const m = NARRATOR.exec(bare(row.replace(/^\s*\([\p{Lu}][\p{Lu} ,.’'-]{1,30}\)\s+(?=\p{Lu}{2})/u, '')));
      return m ? { type: 'label', speaker: '', label: m[1], rest: m[2] } : null;
    },
  },
  {
    id: 'notes-below',
    read: (row, c) =>
      (c.after < 8 && /^(?:(?:video|upload|channel|seo) )?(?:description|caption|blurb|pinned(?: comment)?)(?:\s*\([^)]{0,30}\))?\s*:$/i.test(bare(row).replace(/^#+\s*/, ''))) || // prettier-ignore
      /^(?:script notes?|production notes?|(?:b-?roll|shot|asset|prop|music) list|(?:title|thumbnail|hook|headline|video) (?:ideas|options|suggestions)|sources?|references?|key (?:points|takeaways)|fact[- ]check|checklist|hashtags|tags)\s*:$/i.test(
        bare(row).replace(/^#+\s*/, ''),
      )
        ? { type: 'directs', rest: '' }
        : null,
  },
  {
    id: 'brief',
    read: (row, c) => {
      const b = bare(row);
      const m = BRIEF.exec(b);
      // What stands under a video is never said in it, whatever a sentence it is.
      const under =
        /^(?:(?:video|upload) )?description\b|^pinned\b|^(?:hash ?)?tags\b/i.test(b) && c.after < 8;
      return m &&
        (under || !(c.labels < 2 && isSaid(row, m[1]))) &&
        (c.before < 12 || c.after < 8) &&
        words(b) <= 40
        ? { type: 'cut', kind: 'brief' }
        : null;
    },
  },
  {
    id: 'speaker',
    read: (row, c) => {
      const m = /^([\p{Lu}][\p{L}.’' -]{0,28}?)(?:\s*[([][^)\]]{0,40}[)\]]|\s?\d{1,3})?\s*:\s+(\S.*)$/u.exec(
        bare(row),
      );
      if (!m || NO_SPEAKER.test(m[1]) || words(m[1]) > 3) return null;
      // A name that says pictures again and again and never a sentence is no speaker's.
      if (c.cues.has(m[1].toLowerCase())) return { type: 'directs', rest: m[2] };
      const capitals = m[1] === m[1].toUpperCase() && m[1].length > 1;
      // In a draft of small letters a whole row of capitals is no speech.
      if (c.lowercase && !/\p{Ll}/u.test(row)) return null;
      // Where the narrator has labels, a label of capitals that says no sentence is a cue.
      if (capitals && c.narrators > 1 && !c.speakers.has(m[1].toLowerCase()) && !ends(m[2]))
        return { type: 'directs', rest: m[2] };
      return capitals || c.speakers.has(m[1].toLowerCase()) || (c.speakers.size > 0 && words(m[1]) === 1)
        ? { type: 'label', speaker: m[1].trim(), label: m[1], rest: m[2] }
        : null;
    },
  },
  {
    id: 'chatter',
    read: (row, c) => {
      const b = bare(row);
      const first =
        c.before < 2 &&
        c.after > 0 &&
        CHATTER_START.test(b) &&
        (ABOUT_SCRIPT.test(b) ||
          /:$/.test(b) ||
          (words(b) <= 4 && /^(?:sure|certainly|of course|absolutely|got it)\b/i.test(b)));
      const last =
        c.after < 3 &&
        c.before > 0 &&
        CHATTER_END.test(b) &&
        ABOUT_SCRIPT.test(b) &&
        !/\b(?:comments?|below|subscribe|next (?:time|video|film))\b/i.test(b);
      return first || last ? { type: 'cut', kind: 'chatter' } : null;
    },
  },
  {
    id: 'numbered-heading',
    read: (row) => {
      const b = bare(row);
      const m = NUMBERED_HEAD.exec(named(b)) ?? NUMBERED_HEAD.exec(b);
      return m && (!ends(b) || /^\w+ \S+\.$/.test(b)) && words(b) <= 14 ? heading((m[1] ?? '') || b) : null;
    },
  },
  {
    id: 'section-word',
    read: (row, c) => {
      const b = bare(row);
      const n = named(b.replace(/^\d{1,2}[.)]\s*/, ''));
      return SECTION_WORD.test(n) &&
        (/[:\])]$/.test(b) ||
          c.gapBefore ||
          c.before === 0 ||
          c.gapAfter ||
          /\*\*/.test(row) ||
          n !== b ||
          (c.lowercase && !/\p{Ll}/u.test(b))) &&
        c.next !== null
        ? heading(n)
        : SECTION_WORD.test(n) && /^(?:the end|end|fin)\.?$/i.test(n)
          ? { type: 'cut', kind: 'mark' }
          : null;
    },
  },
  {
    id: 'section-label',
    read: (row) => {
      const b = bare(row);
      const m =
        /^(hook|intro(?:duction)?|outro|conclusion|body|opening|closing|cta|call to action|cold open)\s*[:–—-]\s*([^.!?]{0,60})$/i.exec(
          b,
        );
      return m ? heading(m[2] || m[1]) : null;
    },
  },
  {
    id: 'bold-heading',
    read: (row, c) => {
      const m =
        /^\s*(?:\d{1,2}[.)]\s*)?\*\*([^*]+)\*\*\s*(?::\s*)?$/.exec(row) ??
        /^\s*__([^_]+)__\s*(?::\s*)?$/.exec(row);
      return m &&
        !/^\s*[[({<]/.test(m[1]) &&
        c.next !== null &&
        words(m[1]) <= HEAD_WORDS &&
        (!/[.!?]["”]?$/.test(m[1].trim()) || /^\d{1,2}[.)]\s.*\?$/.test(m[1].trim()))
        ? heading(m[1].replace(/:$/, '').replace(/^\d{1,2}[.)]\s+/, ''))
        : null;
    },
  },
  {
    id: 'capital-heading',
    read: (row, c) => {
      const b = bare(row);
      const n = named(b);
      return CAPITAL_HEAD.test(n) &&
        c.next !== null &&
        words(n) <= HEAD_WORDS &&
        !/[.]$/.test(n) &&
        (c.gapBefore || c.before === 0 || c.gapAfter || n !== b) &&
        /[a-z]/.test(c.next)
        ? heading(n)
        : null;
    },
  },
  {
    id: 'timed-heading',
    read: (row, c) => {
      const b = bare(row);
      const n = named(b);
      return n !== b && n.length > 2 && words(n) <= 7 && !ends(n) && c.next !== null && /[[(]/.test(b)
        ? heading(n)
        : null;
    },
  },
  {
    id: 'numbered-line-heading',
    read: (row, c) => {
      const m = /^\s*\d{1,2}[.)]\s+([\p{Lu}“"].{1,60})$/u.exec(row);
      return m &&
        !ends(m[1]) &&
        words(m[1]) <= 8 &&
        c.next !== null &&
        words(c.next) >= 8 &&
        ends(c.next) &&
        !/^\s*\d{1,2}[.)]/.test(c.next)
        ? heading(m[1].replace(/:$/, ''))
        : null;
    },
  },
  {
    id: 'cut-phrase',
    read: (row) => {
      const b = bare(row);
      return CUT_PHRASE.test(b) && (!ends(b) || words(b) <= 3) ? { type: 'cut', kind: 'direction' } : null;
    },
  },
];
