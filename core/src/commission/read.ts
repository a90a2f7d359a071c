/** A reply in whatever state it comes: what is spoken, line by line, with the marks and headings that stood before it. */
import { distance } from 'fastest-levenshtein';
import { readDraft, type TakenOut } from '../script/clean/index.ts';
import type { OrderedSection } from './types.ts';

/** More letters than any narration has; what comes beyond is not read. */
export const LARGEST_REPLY = 400_000;

export interface ReadLine {
  text: string;
  /** The section's number that a mark gave, or null. */
  section: number | null;
  /** The last heading above it, or null. */
  heading: string | null;
  /** "3" or "A9" where a follow-up marked the line; null elsewhere. */
  mark: string | null;
}
export interface ReadReply {
  lines: ReadLine[];
  /** What is not spoken, in reading order. */
  cleaned: TakenOut[];
  /** Whether the reply was longer than is read. */
  cut: boolean;
}

/** A row of nothing but bold words, with a count or a time behind them, is a heading. */
const headed = (text: string): string =>
  text.replace(
    /^[ \t]*(?:\*\*|__)([^*_\n]{2,80})(?:\*\*|__):?[ \t]*(?:(\([^()\n]{0,60}\))[ \t]*)?$/gm,
    (_, title: string, count = '') => `## ${title} ${count}`.trimEnd(),
  );

/** Tags go, and a link keeps its words only: nothing of a reply is ever markup or leads anywhere. */
const withoutMarkup = (text: string): string =>
  text
    .replace(/<\/?[a-z][^<>]{0,400}>/gi, ' ')
    .replace(/!?\[([^[\]]{0,300})\]\([^()]{0,600}(?:\([^()]{0,300}\))?[^()]{0,300}\)/g, '$1');

/** A mark in square brackets at the start of a row, with or without words behind it. */
const MARK =
  /^[\s#>*_-]*\[\s*(?:section\s+|line\s+)?(\d{1,3}|[A-L]\d{1,4})\s*\]\**(?!\*)\s*(?:[:.)–—-]\s*)?((?:\S.*)?)$/i;

/** A heading that numbers its section, with or without a title and a count. */
const NUMBERED =
  /^[\s#>*_-]*(?:section|part)\s+(\d{1,3})\b[*\s]*(?:[:.–—-]\s*)?((?:[^.!?\s][^.!?\n]{0,78})?(?<![:,;]))$/i;

/** What a program thought before it wrote. */
const THOUGHT = /<(think|thinking|reasoning|analysis)>[\s\S]*?(?:<\/\1>|$)/gi;

/** Fewer words in a value are a title or a name. */
const FEWEST_SAID = 4;
/** The words of a reply that came as data: its texts, in order; null where it is no data. */
function saidInData(text: string): string | null {
  const bare = text.replace(/^\s*```\w*\s*|\s*```\s*$/g, '').trim();
  if (!/^[[{]\s*["{[\]}]/.test(bare)) return null;
  let data: unknown;
  try {
    data = JSON.parse(bare);
  } catch {
    return null;
  }
  const texts: string[] = [];
  const walk = (value: unknown, deep: number): void => {
    if (typeof value === 'string') texts.push(...(value.trim().split(/\s+/).length >= FEWEST_SAID ? [value] : []));
    else if (deep < 12 && value && typeof value === 'object') for (const v of Object.values(value)) walk(v, deep + 1);
  };
  walk(data, 0);
  return texts.join('\n\n');
} // prettier-ignore

/** Which fact a writer says a line rests on, in brackets behind it. */
const REFERENCE = /[ \t]*(?:\[\^?|\()(?:see )?[A-L]\d{1,4}(?:\s*(?:[,;&–-]|and)\s*[A-L]\d{1,4})*[\])]/g;

/** What writers and programs say around their words. */
const TALK_BEFORE =
  /^(?:(?:subject|re|to|from|date)(?= ?:)|hi|hello|hey|dear \w+|sure|of course|certainly|absolutely|okay|ok|right|great|thanks|thank you|sorry|as (?:promised|asked|requested)|here(?:[’']s| it is| you (?:go|are)| is (?:the|your|my|a)| are (?:the|your))|(?:below|attached|following) (?:is|are|you)|hope (?:it|this|you)|i (?:hope|have|wrote|tried|kept)|(?:this|that)(?: is|[’']s) (?:the|my|your) (?:narration|section|script|draft|reply)|(?:narration|script|draft|final(?: version)?|reply|version \d+)(?= ?:))\b[^.!?]*[.!?:]?$/i;
const TALK_BEHIND =
  /^(?:let me know|hope (?:it|this|you)|i hope|feel free|happy to|thanks|thank you|cheers|best|regards|yours|is (?:it|this|that) (?:ok|okay|what you|all right)|shall i|would you like|want me to|if you(?:[’']d)? (?:want|need|like)|(?:i[’']ve|i have|i) (?:kept|used|tried|left|made|avoided|stayed|aimed|written|followed|marked|cut)|(?:that|this|it)(?:[’']s| is| comes to| runs(?: to)?| makes) (?:about |roughly |around |just (?:over|under) )?[\d,]+ (?:words|seconds)|notes?(?= ?[:(])|sources?(?= ?:)|facts? (?:used|left out)|changes(?= ?:)|disclaimer(?= ?:)|end of (?:the )?(?:script|narration|section|reply))\b[^.!?]*[.!?:]?$/i;

/** `marked`: the reply to a follow-up, whose rows are marked one by one. */
export function readReply(raw: string, marked = false): ReadReply {
  const cut = raw.length > LARGEST_REPLY;
  const cleaned: TakenOut[] = [];
  const came = (cut ? raw.slice(0, LARGEST_REPLY).replace(/\s+\S*$/, '') : raw).replace(
    THOUGHT,
    (thought) => {
      cleaned.push({ kind: 'chatter', text: thought.replace(/<[^<>]*>/g, ' ').trim() });
      return '';
    },
  );
  const text = headed(withoutMarkup(saidInData(came) ?? came)).replace(
    REFERENCE,
    // In the answer to a follow-up it stands before its line, as asked.
    (found, at: number, whole: string) =>
      marked && /(?:^|\n)$/.test(whole.slice(Math.max(0, at - 1), at)) ? found : '',
  );
  const chunks: { mark: string | null; rows: string[] }[] = [{ mark: null, rows: [] }];
  const all = text.replace(/\r\n?/g, '\n').split('\n');
  all.forEach((row, i) => {
    const m = MARK.exec(row);
    const numbered = marked ? null : NUMBERED.exec(row.trimEnd());
    if (m) {
      // A title behind the mark, over the section's words.
      const title = !marked && m[2] && !/[.!?…:,”"’)]\s*$/.test(m[2]) && all[i + 1]?.trim();
      chunks.push({ mark: m[1].toUpperCase(), rows: m[2] ? [title ? `## ${m[2]}` : m[2]] : [] });
    } else if (numbered) chunks.push({ mark: numbered[1], rows: numbered[2] ? [`## ${numbered[2]}`] : [] });
    else chunks[chunks.length - 1].rows.push(row);
  });
  // The first section has its mark, so what stands before it is none.
  const prologue = !marked && chunks[1]?.mark === '1';
  const lines: ReadLine[] = [];
  for (const { mark, rows } of chunks) {
    const words = rows.join('\n');
    if (!words.trim()) continue;
    // What stands before the first mark of a marked reply is talk.
    if ((marked || prologue) && mark === null) {
      cleaned.push({ kind: 'chatter', text: words.trim() });
      continue;
    }
    const draft = readDraft(words);
    if (draft.title) cleaned.push({ kind: 'heading', text: draft.title });
    for (const s of draft.sections) {
      if (s.title) cleaned.push({ kind: 'heading', text: s.title });
      s.lines.forEach((l) => {
        cleaned.push(...l.taken);
        lines.push({
          text: l.text,
          section: marked || mark === null || !/^\d+$/.test(mark) ? null : Number(mark),
          heading: s.title || draft.title || null,
          mark: marked ? mark : null,
        });
      });
      cleaned.push(...s.takenAfter);
    }
  }
  // Talk before the first words and behind the last: it claims nothing and belongs to no section.
  while (lines.length > 1 && TALK_BEFORE.test(lines[0].text))
    cleaned.unshift({ kind: 'chatter', text: lines.shift()!.text });
  while (lines.length > 1 && TALK_BEHIND.test(lines[lines.length - 1].text)) cleaned.push({ kind: 'chatter', text: lines.pop()!.text }); // prettier-ignore
  return { lines, cleaned, cut };
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/^(?:section|part|chapter|scene)\s+\w+\s*[:.–—-]?\s*/, '')
    .replace(/^[\d.)\s]+/, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
/** A heading names a section when at most so much of it differs. */
const HEADING_DIFFERS = 0.4;

/** The section that a heading means, by its number or its title; null when it means none. */
export function sectionOfHeading(
  heading: string,
  sections: readonly OrderedSection[],
): OrderedSection | null {
  const named = /^\s*(?:section|part)\s+(\d+)\b/i.exec(heading);
  const byNumber = named && sections.find((s) => s.number === Number(named[1]));
  if (byNumber) return byNumber;
  const own = plain(heading);
  if (!own) return null;
  const best = sections
    .map((s) => ({ s, d: distance(plain(s.title), own) / Math.max(plain(s.title).length, own.length, 1) }))
    .sort((a, b) => a.d - b.d)[0];
  return best && best.d <= HEADING_DIFFERS ? best.s : null;
}
