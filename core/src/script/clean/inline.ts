/** Directions inside a spoken row: brackets, starred cues, tags of synthesizers, times, marks of emphasis. */
import type { CutKind, Piece } from './piece.ts';

/** Words that direct picture, sound or speaker when they stand in brackets or stars. */
const DIRECTS =
  /\b(?:pauses?|beat|music|sfx|vfx|sounds?|cuts?|fades?|zooms?|camera|b-?roll|visuals?|shots?|images?|show(?:s|ing)?|text|screen|laugh(?:s|ing|ter)?|chuckles?|sighs?|whisper(?:s|ed|ing)?|dramatic(?:ally)?|upbeat|transitions?|clips?|footage|graphics?|animations?|close-?up|pan(?:s|ning)?|smil(?:es|ing)|tone|voice|voiceover|narrator|crescendo|applause|breath(?:es|e)?|emphasis|deadpan|montage|thumbnail|overlay|lower third|intro|outro|end card|silence|ambience)\b/i;
/** How something is spoken, when nothing else stands in the bracket. */
const MANNER =
  /\b(?:soft(?:ly)?|excited(?:ly)?|slow(?:ly)?|quiet(?:ly)?|loud(?:ly)?|calm(?:ly)?|warm(?:ly)?)\b/i;
/** What a writer notes for later, or as another way to say it. */
const REMARK =
  /^(?:todo|fixme|tk|tbc|tbd|nb|check|verify|confirm|fact-?check|citation|cite|needs? (?:a )?(?:source|check)|to be (?:confirmed|checked)|(?:or|alt(?:ernative(?:ly)?|ernate)?|option|note|comment|edit(?:or)?|ref)(?:\s+\w+)?\s*:)(?:\b|\s|$)/i;
/** How a name is said. */
const SOUNDS_LIKE =
  /^\/[^/]{2,40}\/$|^(?:pronounced|pron\.?|say|said|sounds like|rhymes with)\b[^.!?]{0,40}$|^(?=.*\b(?:[A-Z]{2,}-[a-z]{2,}|[a-z]{2,}-[A-Z]{2,})\b)[A-Za-z' -]{4,40}$/;
/** A starred or bracketed cue is short, and is nothing but a cue. */
const CUE =
  /^(?:(?:long|short|brief|dramatic|slight|another|soft|upbeat|tense|sad|deep|nervous|a)\s+)*(?:pauses?|beat|music(?: \w+){0,3}|silence|laugh(?:s|ter|ing)?|chuckles?|sighs?|breath(?:es?)?|whispers?|whispering|softly|slowly|gasps?|applause|fade (?:in|out|to \w+)|smiles?|clears throat|deep breath)(?:\s+(?:for\s+)?\d+(?:\.\d+)?\s*s(?:ec(?:ond)?s?)?)?[.!]?$|^(?:(?:long|short|brief|dramatic|slight|another|soft|upbeat|tense|sad|deep|nervous|a)\s+)*(?:sfx|cut to |sound of )/i;
const CAPITALS = /^[A-Z][A-Z \d,:.'’&/-]{2,80}$/;
const TIME =
  '\\d{1,2}:\\d{2}(?::\\d{2})?(?:[.,]\\d{1,3})?(?:\\s*(?:-->?|[–—-]|to)\\s*\\d{1,2}:\\d{2}(?::\\d{2})?(?:[.,]\\d{1,3})?)?';
const BRACKETED_TIME = new RegExp(
  `^~?\\s*(?:${TIME}|\\d{1,3}\\s*(?:[–-]\\s*\\d{1,3}\\s*)?(?:s|sec(?:ond)?s?|min(?:ute)?s?))$`,
  'i',
);
const COUNT =
  /^(?:(?:approx(?:imately|\.)?|about|around|total:?|~|≈)\s*)?\d[\d,.]*\s*(?:words?|seconds?|secs?|minutes?|mins?)(?:\s*(?:[,/|]|at|@).*)?$/i;
const REST_WORD = /\b(?:pause|beat|silence|rest|wait)\b/i;
const LENGTH = /(\d+(?:[.,]\d+)?)\s*(ms|s|sec(?:ond)?s?)\b/i;
const LENGTH_OF_REST = /^(\d+(?:[.,]\d+)?)\s*(ms|s|sec(?:ond)?s?)\s+(?:of\s+)?(?:pause|silence|rest)\b/i;
const LONGEST_REST_MS = 10_000;
/** A rest whose length nobody says; common practice, no published source. */
const REST_ALONE =
  /^(?:(?:a|an|one|short|brief|slight|tiny|half|small|long|dramatic|big|another)[ -])*(?:pauses?|beat|silence)$/i;
const SHORT = /\b(?:short|brief|slight|tiny|half|small)\b/i;
const LONG = /\b(?:long|dramatic|big)\b/i;
const UNSAID_MS = { short: 400, usual: 800, long: 1500 };

/** Milliseconds of a direction that asks for a rest, of a usual length where it says none; null when it asks for none. */
export function restOf(text: string): number | null {
  const tag = /^<(?:break|pause)\b([^>]*)/i.exec(text.trim());
  if (tag) text = `pause ${/(?:time|duration)\s*=\s*["']?([\d.]+\s*m?s)/i.exec(tag[1])?.[1] ?? ''}`;
  const alone = text.replace(/^[\s*_([]+|[\s*_)\].!…]+$/g, '');
  if (REST_ALONE.test(alone))
    return SHORT.test(alone) ? UNSAID_MS.short : LONG.test(alone) ? UNSAID_MS.long : UNSAID_MS.usual;
  const word = REST_WORD.exec(text);
  const m = (word && LENGTH.exec(text.slice(word.index))) ?? LENGTH_OF_REST.exec(text);
  if (!m) return null;
  const value = Number(m[1].replace(',', '.'));
  const ms = Math.round(m[2].toLowerCase() === 'ms' ? value : value * 1000);
  return ms > 0 && ms <= LONGEST_REST_MS ? ms : null;
}

/** Whether words name a picture, a sound, a movement or a way of speaking. */
export const directs = (words: string): boolean =>
  DIRECTS.test(words) || CUE.test(words) || MANNER.test(words);

const kindOf = (inner: string): CutKind =>
  BRACKETED_TIME.test(inner.trim()) ? 'timing' : COUNT.test(inner.trim()) ? 'count' : 'direction';

/** Whether what stands between round brackets directs instead of being spoken. */
const roundDirects = (inner: string): boolean => {
  const plain = inner.trim();
  return (
    BRACKETED_TIME.test(plain) ||
    COUNT.test(plain) ||
    /^(?:sources?|see|cf|ref(?:erence)?s?|credits?|via|photo)\s*:/i.test(plain) ||
    /^see (?:the )?(?:photo|picture|image|clip|footage|slide|screen)\b/i.test(plain) ||
    CAPITALS.test(plain) ||
    REMARK.test(plain) ||
    SOUNDS_LIKE.test(plain) ||
    // Somebody's remark to the others: "(MARA: shorter?)".
    /^\p{Lu}[\p{L}.’' -]{1,24}:\s+\S/u.test(plain) ||
    CUE.test(plain) ||
    (MANNER.test(plain) && plain.split(/\s+/).length <= 3) ||
    (DIRECTS.test(plain) &&
      plain.split(/\s+/).length <= 12 &&
      !/^(?:which|who|that|and|or|a|an|the|in|on|of)\b.*\b(?:was|were|is|are|had|has)\b/i.test(plain))
  );
};

/** A few words in small letters between two sentences, without a stop of their own, set a scene. */
const betweenSentences = (m: RegExpExecArray): boolean =>
  /^(?:\p{Ll}|\p{Lu}{3,}\s\p{Ll})[^.!?]{2,30}$/u.test(m[2].trim()) &&
  m[2].trim().split(/\s+/).length <= 3 &&
  standsBetween(m);

/** Whether one sentence ends before it and another begins behind it. */
const standsBetween = ({ input, index, 0: all }: RegExpExecArray): boolean =>
  /(?:^|[.!?…][”"’)]*)[\s*_]*$/.test(input.slice(0, index)) &&
  /^\s*(?:$|[\p{Lu}“"(*_[])/u.test(input.slice(index + all.length));

/** A span in stars that says what is done and not what is said, in a draft that uses stars so. */
const doneInStars = (m: RegExpExecArray): boolean => {
  const span = m[2].trim();
  if (!/^\p{Ll}/u.test(span) || /[.!?]$/.test(span)) return false;
  if (standsBetween(m)) return true;
  // Within a sentence, what somebody does: a verb of the third person and more behind it.
  return /^\p{Ll}{3,}(?<!\b(?:this|thus|always|perhaps|besides|less|across|unless|towards|sometimes))s\s+\S/u.test(
    span,
  );
};
/** "the World Health Organization (WHO)": the first letters of the words before it. */
const isInitials = ({ 2: inner, input, index }: RegExpExecArray): boolean => {
  if (!/^\p{Lu}{2,6}s?$/u.test(inner)) return false;
  const before = input.slice(Math.max(0, index - 120), index).match(/\p{L}[\p{L}’']*/gu) ?? [];
  let at = before.length - 1;
  for (const letter of [...inner.replace(/s$/, '')].reverse()) {
    while (at >= 0 && before[at].length < 4 && before[at][0].toUpperCase() !== letter) at--;
    if (at < 0 || before[at--][0].toUpperCase() !== letter) return false;
  }
  return true;
};

/** Words that an editor put into somebody's quotation, in the midst of its sentence: they are said with it. */
const isInserted = ({ 0: all, 2: inner, input, index }: RegExpExecArray): boolean => {
  if (/^(?:[Hh]e|[Ss]he|[Ii]t|[Tt]hey|I|[Ww]e|[Tt]he|[Hh]is|[Hh]er|[Tt]heir)$/.test(inner)) return true;
  const before = input.slice(0, index);
  const opened = (before.match(/[“"]/g) ?? []).length - (before.match(/”/g) ?? []).length;
  const within = before.includes('“') ? opened > 0 : (before.match(/"/g) ?? []).length % 2 === 1;
  return (
    within &&
    /^\p{Ll}[\p{L} ’'-]{1,30}$/u.test(inner) &&
    !CUE.test(inner) &&
    inner !== 'sic' &&
    /^\s+\p{Ll}/u.test(input.slice(index + all.length))
  );
};

interface Rule {
  id: string;
  match: RegExp;
  /** What stands in place of the match; null leaves it as it is. `directing`: whether stars are directions in this draft. */
  take: (m: RegExpExecArray, directing: boolean) => { keep: string; kind: CutKind; cut: string } | null;
}

const cutAll = (kind?: CutKind) => (m: RegExpExecArray) => ({
  keep: '',
  kind: kind ?? kindOf(m[1] ?? m[0]),
  cut: m[0].trim(),
});

/** In order; each works on what the one before left. */
const RULES: readonly Rule[] = [
  {
    id: 'rest-between-dots',
    match: /\s*(?:\.{3}|…)\s?((?:long |short )?(?:pause|beat))\s?(?:\.{3}|…)/gi,
    take: (m) => ({ keep: '', kind: 'direction', cut: `(${m[1]})` }),
  },
  { id: 'comment', match: /\s?(?:<!--[\s\S]{0,400}?-->|\/\*[\s\S]{0,400}?\*\/)/g, take: cutAll('direction') },
  { id: 'double-curly', match: /\s?(?:\{\{([^{}\n]{0,240})\}\}|<<[^<>\n]{0,240}>>)/g, take: cutAll() },
  {
    id: 'synthesizer-tag',
    match:
      /<\/?(?:break|pause|prosody|emphasis|speak|p|s|voice|mstts:[\w-]+|audio|sub|say-as|phoneme)\b[^<>\n]{0,120}>/gi,
    take: cutAll('direction'),
  },
  {
    id: 'tag',
    match: /<\/?(?:b|i|u|em|strong|span|font|br|c|v|ruby|rt|lang)(?:[.\s][^<>\n]{0,120})?\/?>/gi,
    take: cutAll('mark'),
  },
  {
    id: 'footnote',
    match:
      /(?<=[\p{L}\p{N}.,;:!?”"’)\]])(?:\[(?:\d{1,3}|[a-z]|note \d+|citation needed)\]|\[\^[\w-]{1,20}\])|(?<=\p{L}{4}|[.,;:!?”"’)])[⁰¹²³⁴-⁹]+/giu,
    take: cutAll('mark'),
  },
  { id: 'double-square', match: /\s?\[\[([^[\]\n]{0,400})\]\]/g, take: cutAll() },
  {
    id: 'link',
    match: /\[([^[\]\n]{1,200})\]\((?:https?:|mailto:|#|\/)[^()\s]{0,400}(?:\s+"[^"\n]{0,200}")?\)/gi,
    take: (m) => ({ keep: m[1], kind: 'mark', cut: m[0] }),
  },
  {
    id: 'address',
    match: /\s?<?\bhttps?:\/\/[^\s<>]{1,600}(?<![.,;:!?)"”’])>?/gi,
    take: cutAll('direction'),
  },
  {
    id: 'square',
    match: /\s?([*_]{0,2})\[([^[\]\n]{0,400})\]\1/g,
    take: (m) =>
      isInserted(m)
        ? { keep: m[0].replace(/[[\]]/g, ''), kind: 'mark', cut: m[0] }
        : { keep: '', kind: kindOf(m[2]), cut: m[0].trim() },
  },
  { id: 'strokes', match: /(?<=^|\s)\/\p{Ll}[\p{Ll} ]{1,24}\/(?=\s|$)/gu, take: cutAll('direction') },
  { id: 'curly', match: /\s?\{([^{}\n]{0,240})\}/g, take: cutAll() },
  {
    id: 'round',
    match: /\s?([*_]{0,2})\(([^()\n]{0,240})\)\1/g,
    take: (m) =>
      isInitials(m)
        ? null
        : m[1] ||
            /^(?:the )?(?:end|ends|out)\.?$/i.test(m[2].trim()) ||
            roundDirects(m[2]) ||
            betweenSentences(m)
          ? { keep: '', kind: kindOf(m[2]), cut: m[0].trim() }
          : null,
  },
  {
    id: 'starred-cue',
    match: /\s?(\*{1,2}|_)(?=\S)([^*_\n]{2,120}?)(?<=\S)\1(?=[\s.,;:!?)”"—]|$)/g,
    take: (m, directing) =>
      CUE.test(m[2].trim()) || (directing && m[1] !== '**' && doneInStars(m))
        ? { keep: '', kind: 'direction', cut: m[0].trim() }
        : null,
  },
  {
    id: 'capitals-between',
    match: /(?<=\p{Ll}[^.!?…]{0,20}[.!?…][”"’)]?)\s+(\p{Lu}[\p{Lu} ’'-]{5,60}\p{Lu})(?=\s+\p{Lu}\p{Ll}|$)/gu,
    take: (m) => (m[1].includes(' ') ? { keep: '', kind: 'direction', cut: m[0].trim() } : null),
  },
  {
    id: 'hashtags',
    match: /(?<=[.!?…]["”’)]?)(?:\s+#[\p{L}\d_]{2,40})+\s*$/gu,
    take: cutAll('brief'),
  },
  { id: 'music-sign', match: /\s?[♪♫🎵🎶][^♪♫🎵🎶\n]{0,80}[♪♫🎵🎶]?/gu, take: cutAll('direction') },
];

/** Private-use letters keep the place of a rest while the row is tidied. */
const PLACE = 0xe000;

/** A spoken row taken apart: what is said, with what was cut from it. Emphasis loses its marks, never its words. */
export function spokenPieces(
  row: string,
  { speaker, directing = false }: { speaker?: string | undefined; directing?: boolean } = {},
): Piece[] {
  const cuts: Piece[] = [];
  const rests: number[] = [];
  let text = row.replace(/[\uE000-\uE0FF]/g, '');
  for (const rule of RULES)
    text = text.replace(rule.match, (...args: unknown[]) => {
      const groups = args.slice(0, -2).filter((a) => typeof a === 'string' || a === undefined);
      const [index, input] = args.slice(-2) as [number, string];
      const found = rule.take(
        Object.assign(groups, { index, input }) as unknown as RegExpExecArray,
        directing,
      );
      if (!found) return groups[0] as string;
      const rest = found.kind === 'direction' ? restOf(found.cut) : null;
      if (rest !== null) {
        rests.push(rest);
        return found.keep + String.fromCharCode(PLACE + rests.length - 1);
      }
      if (found.kind !== 'mark') cuts.push({ type: 'cut', kind: found.kind, text: found.cut });
      return found.keep;
    });
  const placed: { at: number; ms: number }[] = [];
  text = unmarked(text).replace(/[\uE000-\uE0FF]/g, (mark, at: number) => {
    placed.push({ at: at - placed.length, ms: rests[mark.charCodeAt(0) - PLACE] ?? 0 });
    return '';
  });
  if (!/[\p{L}\p{N}]/u.test(text))
    return [...cuts, ...rests.map((ms): Piece => ({ type: 'rest', ms, text: '' }))];
  // A direction within a row's words stays before them.
  return [
    ...cuts,
    { type: 'spoken', text, ...(speaker ? { speaker } : {}), ...(placed.length ? { rests: placed } : {}) },
  ];
}

/** Without marks of emphasis, list marks and stray space. */
function unmarked(text: string): string {
  return text
    .replace(/\*\*\*(.+?)\*\*\*/g, '$1')
    .replace(/\*\*(.+?)\*\*|__(.+?)__/g, (_, a?: string, b?: string) => a ?? b ?? '')
    .replace(/(^|[\s(“"‘—-])[*_](\S(?:[^*_\n]*\S)?)[*_](?=[\s.,;:!?)”"’—]|$)/g, '$1$2')
    .replace(/~~(.+?)~~/g, '')
    .replace(/`([^`\n]+)`/g, '$1')
    .replace(/\\(?=[*_#[\]()~>])/g, '')
    .replace(/^\s*(?:[-*•–‣▪]\s+|\d{1,2}[.)]\s+(?=\D)|\(?[a-h]\)\s+(?=\p{Lu}))/u, '')
    .replace(/^[\s\p{Extended_Pictographic}\uFE0F\u200D]+(?=\S)/u, '')
    .replace(/(?<=[\p{L}\p{N}.,;:!?”"’)])[*†‡]{1,3}(?=\s|$)/gu, '')
    .replace(/\s+([,.;:!?])(?=\s|$)/g, '$1')
    .replace(/\s+/g, ' ')
    .trim();
}

/** A short row in stars or round brackets, in small letters and without a stop, sets a scene. */
const SCENE_ROW =
  /^\s*([*_]{1,2})?(?:\(\s*(?=\p{Ll}|\p{Lu}+\b)[^()\n]{2,80}[^.!?()\n]\)|(?<=[*_])(?=\p{Ll})[^*_\n]{2,60}[^.!?*_\n])\1\s*$/u;

/** A row in stars that names a shot. */
const SHOT_ROW =
  /^\s*([*_]{1,2})(?:[\p{L}-]+ ){0,3}(?:shot|close-?up|view|footage|drone|montage|b-?roll|music|sound|camera)\b[^*_\n]{0,120}\1\s*$/iu;

/** Whether a row is nothing but brackets and cues. */
export const isOnlyCut = (row: string, directing = false): boolean =>
  SCENE_ROW.test(row) ||
  SHOT_ROW.test(row) ||
  (!spokenPieces(row, { directing }).some((p) => p.type === 'spoken') && /\S/.test(row));

const STARRED = /(?<![*\w])(\*|_)(?=\S)([^*_\n]{2,120}?)(?<=\S)\1(?![*\w])/g;
/** How many sure directions in stars show that stars direct in this draft. */
const SURE = 2;

/** Whether this writer uses stars for what is done: rows of nothing else, brackets in stars, what stands between two sentences. */
export function starsDirect(rows: readonly string[]): boolean {
  let sure = 0;
  for (const row of rows) {
    if (SCENE_ROW.test(row) || SHOT_ROW.test(row)) sure++;
    else
      for (const m of row.matchAll(STARRED))
        if (/^\(.*\)$/.test(m[2]) || (m[2].includes(' ') && standsBetween(m as RegExpExecArray) && doneInStars(m as RegExpExecArray))) sure++; // prettier-ignore
  }
  return sure >= SURE;
}
