/** Other ways of writing the same thing, rewritten to the one that the rules for rows know. Common practice, no published source. */
import { directs } from './inline.ts';
import { isNarratorLabel, isPictureLabel } from './labels.ts';

type Rows = readonly string[];

const prose = (row: string) => /[.!?…,]/.test(row) && !/^\s*\|/.test(row);

/** Strokes between words that tell a reader where to breathe; used at least so often they are no signs of the text's own. */
const STROKE = /(?<=[\p{L}\p{N}.,;:!?…”"’)])\s+(?:\/{1,3}|\|{1,2})(?=\s|$)/gu;
const LEAST_STROKES = 3;
function withoutStrokes(rows: Rows): Rows {
  const found = rows.filter(prose).reduce((n, r) => n + (r.match(STROKE)?.length ?? 0), 0);
  return found < LEAST_STROKES ? rows : rows.map((r) => (prose(r) ? r.replace(STROKE, '') : r));
}

/** A row that the rules for rows set aside. */
const aside = (row: string) => `[${row.trim().replace(/[[\]]/g, '')}]`;

/** The notes under slides are what is said; the slides show the rest. */
const SLIDE = /^[\s#]*slide\s+\d{1,3}\b/i;
const SLIDE_NOTES = /^(\s*\**)(?:speaker )?notes:?(\**:?\s*)$|^(\s*\**)(?:speaker )?notes:(\**\s+)(?=\S)/i;
function withSlideNotes(rows: Rows): Rows {
  if (rows.filter((r) => SLIDE.test(r)).length < 2 || rows.filter((r) => SLIDE_NOTES.test(r)).length < 2) return rows; // prettier-ignore
  let shown = false;
  return rows.map((r) => {
    if (SLIDE.test(r)) shown = true;
    else if (SLIDE_NOTES.test(r)) {
      shown = false;
      return r.replace(SLIDE_NOTES, 'Speaker notes: ');
    } else if (shown && r.trim()) return aside(r);
    return r;
  });
}

/** "… said so. 0:15": times that end rows, counted up: when each has been said. */
const TIME_BEHIND =
  /(?<=[\p{L}\p{N}][.!?…]["”’)]*\s+(?:\([^()]{1,24}\)\s*)?)\(?(\d{1,2}:\d{2})\)?(?= ?(?:\[[^\]]*\])?$)/u;
function withTimesApart(rows: Rows): Rows {
  const found = rows.flatMap((r) => TIME_BEHIND.exec(r.trimEnd())?.[1] ?? []);
  const at = (t: string) => Number(t.split(':')[0]) * 60 + Number(t.split(':')[1]);
  if (found.length < 3 || found.some((t, i) => i > 0 && at(t) < at(found[i - 1]))) return rows;
  return rows.map((r) => {
    const time = TIME_BEHIND.exec(r.trimEnd())?.[1];
    return time ? `[${time}] ${r.trimEnd().replace(TIME_BEHIND, '').trim()}` : r;
  });
}

/** A star in the margin marks a row that was changed (screenplay practice, no published source). */
const REVISED = /(?<=\S)\s{2,}\*{1,2}\s*$/;
const withoutRevisionMarks = (rows: Rows): Rows =>
  rows.filter((r) => REVISED.test(r)).length < 2
    ? rows
    : rows.map((r) => r.replace(/(?<=\S)\s+\*{1,2}\s*$/, ''));

/** "== X ==" as wikis write headings. */
const withWikiHeads = (rows: Rows): Rows =>
  rows.map((r) => r.replace(/^\s*(={2,5})\s*([^\s=][^=]{0,60}?)\s*\1\s*$/, '## $2'));

/** "## A (spare)": parts that stand in for another are not read; nor is what a page folds away ("▸ Background"). */
const SPARE =
  /^\s*#{1,6}\s.*\((?:spare|alt(?:ernative)?|unused|not used|backup|back-up|old|cut|optional)\)\s*$/i;
const FOLDED = /^\s*[▸▶►▾▼]\uFE0F?\s+\p{L}/u;
function withoutSpares(rows: Rows): Rows {
  const inset = (r: string | undefined) => /^(?:\s{2,}|\t)\S/.test(r ?? '');
  const folds = (i: number) => FOLDED.test(rows[i]) && inset(rows.slice(i + 1, i + 3).find((r) => r.trim()));
  let spare = false;
  let folded = false;
  return rows.map((r, i) => {
    if (/^\s{0,3}#{1,6}\s/.test(r)) spare = SPARE.test(r);
    if (folds(i)) folded = true;
    else if (r.trim() && !inset(r)) folded = false;
    return (spare || folded) && r.trim() ? aside(r) : r;
  });
}

/** "VO3_ALT: …": another wording of a line that stands above. */
const ALTERNATIVE =
  /^\s*(?:vo|narr(?:ator)?|line)[ _-]?\d{0,3}[ _-]?(?:alt(?:ernate|ernative)?|option)\b[^:]{0,12}:\s+(?=\S)/i;
const withoutAlternatives = (rows: Rows): Rows => rows.map((r) => (ALTERNATIVE.test(r) ? aside(r) : r));

/** "#3 / map, line draws on / 5s": a picture by its number, in fields between strokes. */
const SHOT_ROW = /^\s*#?\d{1,3}[.)]?\s+\/\s+\S.*\s\/\s+\S/;
const withShotRows = (rows: Rows): Rows =>
  rows.filter((r) => SHOT_ROW.test(r)).length < 2 ? rows : rows.map((r) => (SHOT_ROW.test(r) ? aside(r) : r));

const FRAME = '+-+-+';
/** Frames of tables drawn with letters become pipes; a cell over several rows becomes one. */
export function withoutFrames(rows: Rows): Rows {
  const drawn = rows.map((r) =>
    /[│┃║]/.test(r)
      ? r.replace(/[│┃║]/g, '|')
      : /^[\s─━═┌┬┐├┼┤└┴┘╔╦╗╠╬╣╚╩╝┏┳┓┣╋┫┗┻┛╞╪╡╟╫╢]{3,}$/u.test(r)
        ? FRAME
        : r,
  );
  const isFrame = (r: string) => /^\s*\+(?:[-=]+\+){2,}\s*$/.test(r);
  if (drawn.filter(isFrame).length < 2) return drawn.map((r) => (r === FRAME ? '' : r));
  const out: string[] = [];
  let open = false;
  for (const row of drawn) {
    if (isFrame(row)) open = false;
    else if (/^\s*\|.*\|\s*$/.test(row) && open) {
      const cells = (r: string) => r.trim().replace(/^\||\|$/g, '').split('|'); // prettier-ignore
      const more = cells(row);
      out.push(`|${cells(out.pop()!).map((c, i) => `${c.trim()} ${(more[i] ?? '').trim()}`.trim()).join('|')}|`); // prettier-ignore
    } else {
      out.push(row);
      open = /^\s*\|.*\|\s*$/.test(row);
    }
  }
  return out;
}

/** Numbers of rows in the margin, when nearly every row has one and they count up. */
const NUMBERED = /^\s*(\d{1,4})(?:\s{2,}|\t|:\s|\s\|\s)(?=\S)/;
export function withoutNumbers(rows: Rows): Rows {
  const worded = rows.filter((r) => r.trim());
  const numbers = worded.flatMap((r) => NUMBERED.exec(r)?.[1] ?? []).map(Number);
  const up = numbers.every((n, i) => i === 0 || n > numbers[i - 1]);
  return numbers.length >= 3 && up && numbers.length >= 0.5 * worded.length
    ? rows.map((r) => r.replace(NUMBERED, ''))
    : rows;
}

const isLabel = (label: string) =>
  !/\d$/.test(label) && (isNarratorLabel(`${label}: x`) || isPictureLabel(`${label}: x`));

/** Signs at the start of a row that say what it is, by what they show (Unicode's names): cameras and films, notes and loudspeakers, microphones and speakers. */
const SIGNS: readonly (readonly [RegExp, string])[] = [
  [/^\s*(?:>\s?)*(?:[-*•]\s+)?(?:🎬|🎥|📷|📸|📹|📽|🎞|🖼)\uFE0F?\s+(?=\S)/u, 'Visual: '],
  [/^\s*(?:>\s?)*(?:[-*•]\s+)?(?:🎵|🎶|🎼|🔊|🔉|🔈|🥁)\uFE0F?\s+(?=\S)/u, 'Music: '],
  [/^\s*(?:>\s?)*(?:[-*•]\s+)?(?:🎙|🎤|🗣)\uFE0F?\s+(?=\S)/u, 'Narrator: '],
];
function withoutSigns(rows: Rows): Rows {
  if (rows.filter((r) => SIGNS.some(([sign]) => sign.test(r))).length < 2) return rows;
  return rows.map((r) => {
    const sign = SIGNS.find(([s]) => s.test(r));
    const rest = sign ? r.replace(sign[0], '') : r;
    return sign && !isLabel(rest.split(':')[0].replace(/[*_]/g, '').trim()) ? sign[1] + rest : r;
  });
}

/** "Softly: …": how a row is said, before its words. */
const MANNER =
  /^\s*\**((?:very |more )?(?:softly|slowly|quietly|loudly|calmly|warmly|gently|excitedly|whispering|whispered|deadpan|brightly|sadly|drily|dryly))\**\s*[:–—]\s+(?=\S)/i;
const withManners = (rows: Rows): Rows => rows.map((r) => r.replace(MANNER, '[$1] '));

/** Remarks behind a sentence, as programmers write them: "… rose. // too fast?" */
const withoutRemarks = (rows: Rows): Rows =>
  rows.map((r) => r.replace(/(?<=[.!?…]["”’)]?)\s+\/\/\s*(\p{Ll}[^.]{1,200})$/u, ' [$1]'));

/** "Shot 1, the lift. VO: …": what stands before a narrator's label of capitals is a row of its own. */
const WITHIN =
  /^(?!\s*[-|>#[(])(.{3,120}?)\s+((?:VO|V\.O\.|V\/O|NARR(?:ATOR|ATION)?|ANNCR|VOICE(?:-?OVER)?)(?:\s*\([^()]{1,30}\))?:\s.*)$/;
const withRowsOfTheirOwn = (rows: Rows): Rows =>
  rows.filter((r) => WITHIN.test(r)).length < 2
    ? rows
    : rows.flatMap((r) => {
        const m = WITHIN.exec(r);
        return m ? [`[${m[1].trim()}]`, m[2]] : [r];
      });

/** "[VO] …", "VO   …", "VO — …", "VO" above its words: labels without their colon, where the narrator has one so at least twice. */
const BRACKETED = /^\s*[[(]([\p{L}][\p{L}\d ./-]{0,28})[\])]:?\s+(?=\S)/u;
const SPACED = /^\s*([\p{Lu}][\p{Lu}\d./ -]{0,18}?)(?:\t+|\s{2,})(?=\S)/u;
const ARROWED = /^\s*\**([\p{L}][\p{L}\d./ -]{0,18}?)\**\s*(?:>{1,2}|»|→|=>|::)\s*(?=\S)/u;
const DASHED = /^\s*\**([\p{L}][\p{L}\d./ -]{0,20}?)\**\s+[-–—]\s+(?=\S)/u;
const ALONE = /^\s*\**([\p{Lu}][\p{Lu}./ -]{1,20}?)\**\s*$/u;
function withColons(rows: Rows): Rows {
  let out = rows;
  for (const form of [BRACKETED, SPACED, ARROWED, DASHED, ALONE]) {
    const labels = out.map((r) => form.exec(r)?.[1] ?? '').filter((l) => l && isLabel(l));
    const narrators = labels.filter((l) => isNarratorLabel(`${l}: x`)).length;
    if (narrators < 2 && (labels.length < 2 || form === ALONE)) continue;
    out = out.map((r) => {
      const m = form.exec(r);
      return m && isLabel(m[1]) ? `${m[1]}: ${r.slice(m[0].length)}` : r;
    });
  }
  return out;
}

/** An earlier wording beside the one that counts. */
const EARLIER =
  /^\s*[[(*]*(?:old|original|previous(?:ly)?|deleted)(?: (?:line|text|version))?[\])*]*:[\])*]*\s+(?=\S)/i;
const LATER =
  /^\s*[[(*]*(?:new|revised|changed to|updated|rewrite)(?: (?:line|text|version))?[\])*]*:[\])*]*\s+(?=\S)/i;
const withLaterWords = (rows: Rows): Rows =>
  rows.some((r) => EARLIER.test(r)) && rows.some((r) => LATER.test(r))
    ? rows.map((r) => (EARLIER.test(r) ? `[${r.trim()}]` : r.replace(LATER, 'Narrator: ')))
    : rows;

const TIMES =
  /(?:\d{1,2}:\d{2}(?::\d{2})?|:\d{2})(?:\s*(?:[–—-]|to)\s*\d{1,2}:\d{2}(?::\d{2})?)?|\d+\s*(?:s|secs?|seconds?|mins?|minutes?)\b/gi;
const NUMBERING =
  /^(\W*)(?:(?:chapter|part|section|seg(?:ment)?|scene|act|beat|block|point|number|no\.?)\s*)?(?:#?\d{1,2}(?:\.\d{1,2})*(?:\s*\/\s*\d{1,2})?|(?:IX|IV|V?I{1,3}|V|XI{0,3}|X)(?=[.):\s])|[A-H](?=[.)])|one|two|three|four|five|six|seven|eight|nine|ten)?\s*[.):|–—-]*\s*(?:section:\s*)?/iu;

/** A short row without a sentence's end, as its name and its form: "2. X", "== X ==", "[X]" in capitals. Null where it is none. */
function named(row: string): { name: string; form: string } | null {
  const times = row.replace(TIMES, '\u0001');
  const head = NUMBERING.exec(times)?.[0] ?? '';
  const tail = /[^\p{L}\p{N}]*$/u.exec(times.slice(head.length))?.[0] ?? '';
  const name = times.slice(head.length, times.length - tail.length).replace(/^[^\p{L}\p{N}]+/u, '');
  if (
    !/^\p{Lu}/u.test(name) ||
    /[.!?;:…\u0001|<>{}[\]#*_=]/u.test(
      /[0-9]|[IVX]\b|one|two|three|four|five/i.test(head) ? name.replace(/[?!]$/, '') : name,
    )
  )
    return null;
  const n = name.split(/\s+/).length;
  if (n > 9 || /(?:[.…,;]|[!?][”’"])\s*$/.test(row.trim())) return null;
  const form = `${head.replace(/\d+|[IVX]+(?=[.):\s])|[A-H](?=[.)])/g, '0').replace(/\p{Extended_Pictographic}\uFE0F?/gu, 'E')}X${tail.replace(/[-=.~*\s]+/g, '-')}`; // prettier-ignore
  return {
    name,
    form: `${form.replace(/(?:one|two|three|four|five|six|seven|eight|nine|ten)/gi, '0')}${/\p{Ll}/u.test(name) ? '' : ' capitals'}`,
  };
}

/** A row that may stand between a heading and its first words: a cue in brackets, a time, a label of picture or sound, a setting. */
export const isBeside = (row: string): boolean =>
  /^\s*[*_]{0,2}[[({<].*[\])}>][*_]{0,2}\s*$/.test(row) ||
  /^\s*:[\w-]+:/.test(row) ||
  !/[\p{L}]/u.test(row.replace(TIMES, '')) ||
  isPictureLabel(row);

/** Rows of one form again and again, each above prose: headings, whatever the form. */
function withHeadings(rows: Rows): Rows {
  // The next row with words of its own, from the end on: looked up once.
  const below: string[] = [];
  for (let i = rows.length - 1, row = ''; i >= 0; i--) {
    below[i] = row;
    if (rows[i].trim() && !isBeside(rows[i])) row = rows[i];
  }
  const next = (i: number) => below[i];
  const sentence = (r: string) => /[.!?…]["”’)*_\]]*\s*$/.test(r) && r.trim().split(/\s+/).length >= 4 && !/^\s*[[(<{*]/.test(r); // prettier-ignore
  const marked = (r: string) =>
    /^\s{0,3}#{1,6}\s|^\s*(?:\*\*|__)|^\s*\|/.test(r) ||
    /^\s*\p{L}[^.!?]{0,40}:\s+\S/u.test(r.replace(NUMBERING, ''));
  const found = rows.map((r) => (r.trim() && !marked(r) ? named(r) : null));
  const forms = new Map<string, { all: number; above: number[] }>();
  found.forEach((f, i) => {
    // A form without any mark is looked at with what stands around it, elsewhere.
    if (!f || /^X[?!]*(?: capitals)?$/.test(f.form)) return;
    const known = forms.get(f.form) ?? { all: 0, above: [] };
    known.all++;
    if (sentence(next(i)) && !(f.form.includes(':') && /^\s*["“]/.test(next(i)))) known.above.push(i);
    forms.set(f.form, known);
  });
  const heads = new Set<number>();
  for (const [form, { all, above }] of forms) {
    // Cues stand in brackets too: only names in capitals that name no picture or sound are headings there.
    const bracketed = /^[^X]*[[({<]/.test(form);
    if (above.length < 2 || above.length < 0.75 * all) continue;
    if (bracketed && !(form.endsWith('capitals') && above.every((i) => !directs(found[i]!.name)))) continue;
    if (/^\s+[-*•]/.test(rows[above[0]])) continue;
    above.forEach((i) => heads.add(i));
  }
  return rows.map((r, i) => (heads.has(i) ? `## ${found[i]!.name}` : r));
}

/** Signs of other notations that are no words: marked text, what is kept in the writer's own file. */
const withoutNotation = (rows: Rows): Rows =>
  rows.map((r) => r.replace(/%%[^%]{0,400}%%/g, (m) => `[${m.slice(2, -2)}]`).replace(/==(?=\S)([^=]{1,300}?)(?<=\S)==/g, '$1')); // prettier-ignore

/** Marks of changes (CriticMarkup, criticmarkup.com/spec): what was added or put instead counts, what was taken out goes, remarks are notes. */
const withChangesMade = (rows: Rows): Rows =>
  rows.map((r) =>
    r
      .replace(/\{--[^{}]{0,400}--\}/g, '')
      .replace(/\{\+\+([^{}]{0,400})\+\+\}/g, '$1')
      .replace(/\{~~[^{}~]{0,400}~>([^{}]{0,400})~~\}/g, '$1')
      .replace(/\{==([^{}]{0,400})==\}/g, '$1')
      .replace(/\{>>([^{}]{0,400})<<\}/g, '[note: $1]'),
  );

/** Headings of a plain outline (Org Mode manual, "Headlines"): stars that stand for the rank, where the file gives settings so too. */
const OUTLINE = /^(\*{1,6})\s+(?:(TODO|DONE|NEXT|WAITING)\s+)?(?=\S)/;
const withOutline = (rows: Rows): Rows =>
  !rows.some((r) => /^\s*#\+\w+:/.test(r))
    ? rows
    : rows.map((r) => {
        const m = OUTLINE.exec(r);
        return !m
          ? r
          : m[2]
            ? `[${r.slice(m[0].length)}]`
            : `${'#'.repeat(m[1].length + 1)} ${r.slice(m[0].length)}`;
      });

/** Settings with an equals sign (TOML 1.0): names and values, tables over them. */
const SETTING = /^\s*([\w-]{1,30})\s=\s(?:'''(.*)'''|"""(.*)"""|"(.*)"|'(.*)'|\d[\d.]*)\s*$/;
const withSettings = (rows: Rows): Rows =>
  rows.filter((r) => SETTING.test(r)).length < 3
    ? rows
    : rows.map((r) => {
        const m = SETTING.exec(r);
        if (m) return `${m[1]}: ${m[2] ?? m[3] ?? m[4] ?? m[5] ?? ''}`;
        return /^\s*\[{1,2}[\w.-]+\]{1,2}\s*$/.test(r) ? '' : r;
      });

/** Rows of a free draft in the usual form. */
export const usualForm = (rows: Rows): string[] => [
  ...[
    withoutRevisionMarks,
    withWikiHeads,
    withoutSpares,
    withTimesApart,
    withSlideNotes,
    withoutAlternatives,
    withShotRows,
    withChangesMade,
    withOutline,
    withSettings,
    withoutNotation,
    withoutRemarks,
    withManners,
    withoutSigns,
    withRowsOfTheirOwn,
    withoutStrokes,
    withoutNumbers,
    withColons,
    withLaterWords,
    withHeadings,
  ].reduce((all, form) => form(all), rows),
];
