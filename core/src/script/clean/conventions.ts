/** What a whole draft shows about how its writer marks narration: decided once a draft, before single rows are believed. Common practice, no published source. */
import { cut, isSpoken, wordsOf, type CutKind, type JudgedRow } from './piece.ts';
import { bare, isNarratorLabel, isRule } from './labels.ts';
import { byShape, withoutHeadRows } from './shapes.ts';

/** Most of the words stand under the mark that would make the others unspoken. */
const MOST = 0.6;
/** Nearly all of them: where what is not marked would be lost. */
const NEARLY_ALL = 0.66;
const wordsIn = (rows: readonly string[]) => rows.reduce((n, r) => n + wordsOf(r), 0);
const count = (rows: readonly JudgedRow[]) => wordsIn(rows.map((r) => r.row));
const isQuoted = (row: string) => /^\s{0,3}>/.test(row);
const isHeading = (r: JudgedRow) => r.pieces.some((p) => p.type === 'heading');
const endsSentence = (row: string) => /[.!?…:;,]["”’)*_]*$/.test(row.trim());

const silent = (r: JudgedRow, kind: CutKind): JudgedRow =>
  isSpoken(r) ? { ...r, pieces: [cut(kind, r.row)] } : r;

// ---- rows that are no narration whatever they say ------------------------------------------------------------------

const MAIL_HEAD = /^(?:from|to|cc|bcc|date|sent|subject|reply-to)\s*:\s*\S/i;
const WROTE =
  /^(?:on\b.{4,80}|.{3,60}\b(?:19|20)\d\d\b.{0,20})\bwrote\s*:$|^-{2,}\s*(?:original|forwarded) message\s*-{2,}$/i;
const FORWARDED = /^(?:-{2,}\s*)?(?:forwarded message|begin forwarded message|original message)\b.*$/i;
const GREETING = /^(?:hi|hello|hey|dear|good (?:morning|afternoon|evening))\b[^.!?]{0,40}[,!]?$/i;
const SIGN_OFF =
  /^(?:(?:many |with )?thanks(?: again)?|thank you|cheers|best(?: wishes| regards)?|(?:kind |warm )?regards|yours(?: \w+)?|sincerely|all the best|take care|ta|much love|over to you|see you\b.{0,20}|(?:lots of )?love(?: (?:to|from) .{2,20})?|hugs|x{1,3})[,.!]?$/i;

/** The rows of a mail around the narration in it: heads, greeting, what is said about it, sign-off, signature, older mails. */
function mailRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  const first = rows.findIndex((r) => r.trim());
  let at = Math.max(0, first);
  while (at < rows.length && MAIL_HEAD.test(rows[at].trim())) at++;
  // Of a mail sent on, what was sent on counts where the one who sends it says less.
  const sent = rows.findIndex((r) => FORWARDED.test(r.trim()));
  if (sent >= 0 && wordsIn(rows.slice(0, sent)) < wordsIn(rows.slice(sent))) {
    at = sent + 1;
    while (at < rows.length && (MAIL_HEAD.test(rows[at].trim()) || !rows[at].trim())) at++;
  }
  const older = rows.findIndex((r, i) => i >= at && WROTE.test(r.trim()));
  const quotes = older >= 0 && rows.slice(older + 1).some(isQuoted);
  // Without heads: a greeting first, and a sign-off or two rules behind it.
  const greeted = GREETING.test((rows[at] ?? '').trim());
  const signedOff = rows.filter((r) => r.trim()).slice(-6).some((r) => SIGN_OFF.test(r.trim())); // prettier-ignore
  const letter = greeted && (signedOff || rows.filter(isRule).length >= 2);
  const headed = at > first;
  const opens = rows.findIndex((r, i) => i >= at && r.trim());
  const isMail =
    at - first >= 3 ||
    (headed && opens >= 0 && GREETING.test(rows[opens].trim())) ||
    quotes ||
    sent >= 0 ||
    letter;
  if (!isMail) return out;
  // Words under a short quotation answer it: what they were asked is no narration.
  const under = older < 0 ? -1 : rows.findLastIndex(isQuoted);
  if (
    quotes &&
    older - at < 2 &&
    under > 0 &&
    wordsIn(rows.slice(under + 1)) > 2 * wordsIn(rows.slice(older, under + 1))
  ) {
    for (let i = 0; i <= under; i++) out.add(i);
    return out;
  }
  // A reply that only talks about what it quotes: then that is the narration.
  const answer = rows.filter((r, i) => i >= at && i < older && r.trim());
  if (
    quotes &&
    answer.every((r) => isTalk(r) || GREETING.test(r.trim()) || SIGN_OFF.test(r.trim()) || wordsOf(r) < 4)
  ) {
    rows.forEach((r, i) => (r.trim() && !isQuoted(r) ? out.add(i) : undefined));
    return out;
  }
  const add = (from: number, to: number) => {
    for (let i = from; i < to; i++) out.add(i);
  };
  add(0, at);
  let end = rows.length;
  if (older >= 0) end = older;
  const signature = rows.findIndex((r, i) => i > at && i < end && /^--\s*$/.test(r));
  if (signature >= 0) end = signature;
  // What stands between two rules is what the mail is about.
  const marks = rows.flatMap((r, i) => (i >= at && i < end && isRule(r) ? [i] : []));
  if (marks.length >= 2) {
    add(at, marks[0]);
    add(marks[marks.length - 1], rows.length);
    return out;
  }
  const body = rows.findIndex((r, i) => i >= at && r.trim());
  if (body >= 0 && GREETING.test(rows[body].trim())) out.add(body);
  // "… the short one about the lift. Here goes:" ends what is said about it.
  const announced = rows.findIndex((r, i) => i > at && i < end && /:\s*$/.test(r) && MYSELF.test(r));
  if (announced > 0 && wordsIn(rows.slice(at, announced + 1)) < (1 - MOST) * wordsIn(rows.slice(at, end)))
    add(at, announced + 1);
  for (let i = end - 1, seen = 0; i > at && seen < 4; i--) {
    if (!rows[i].trim()) continue;
    seen++;
    if (SIGN_OFF.test(rows[i].trim())) {
      end = i;
      break;
    }
  }
  add(end, rows.length);
  // Beside the greeting and the sign-off one asks the other for something.
  const own = rows.flatMap((r, i) => (i > body && i < end && r.trim() ? [i] : []));
  const told = own.slice(1, -1).some((i) => ASKS.test(rows[i]));
  if (own.length >= 4 && !told && body >= 0 && out.has(body))
    for (const i of [own[0], own.at(-1)!]) if (ASKS.test(rows[i])) out.add(i);
  return out;
}

/** One asks the other for something: what letters with a script in them say around it. */
const ASKS = /\bplease\b|^(?:could|can|would|will) (?:you|we)\b|\blet me know\b|\bthanks\b/i;

/** Rows of tables that stand in a draft that isn't one: counts, comparisons, lists of shots. */
function tableRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  rows.forEach((row, i) => {
    const cells = (r: string | undefined) => /^\s*\|.*\|\s*$/.test(r ?? '');
    if (cells(row) && (cells(rows[i - 1]) || cells(rows[i + 1]))) out.add(i);
  });
  return out;
}

/** What a part is called that is for those who make the film and not for those who hear it. */
const NOTES_HEAD =
  /^(?:(?:production|editor(?:['’]s|ial)?|director['’]?s?|script|voice(?:-?over)?|sound|music|visual|shooting|delivery|performance|tone|casting|timing|writer['’]s|final|my|some|quick|additional|other|optional|suggested|possible)\s+)*(?:notes?|(?:pro )?tips?|recommendations?|suggestions?|references?|sources?(?: (?:used|cited|and .*))?|pronunciations?(?: (?:guide|notes?))?|checklist|word counts?|hash ?tags?|keywords|(?:\w+ )?descriptions?|tags|thumbnails?(?: ideas?| text)?|(?:title|hook|headline|thumbnail|ending)s?(?: |-)(?:ideas|options|suggestions|variants|alternatives)|alternat(?:e|ive)s?(?: (?:hooks?|titles?|endings?|openings?))?|links?|foot ?notes?|endnotes|bibliography|works cited|further reading|assets(?: needed)?|props|shot ?list|b-?roll(?: (?:list|ideas))?|what (?:i|we)(?:['’]ve)? (?:have )?changed|what changed|changes(?: made)?|change ?log|revision(?:s| history)|next steps|(?:open )?questions(?: for .*)?|comments|feedback|to ?-?do|metadata|seo(?: .*)?|fact[- ]check(?:ing)?|notes? (?:on|for|to|about) .*|read(?:ing)? time|run ?time|about this (?:script|draft|version)|why (?:it|this) works|(?:why|what|how) (?:i|we)(?:['’]ve)? (?:changed|cut|moved|kept|wrote|rewrote|edited|tightened|trimmed|added|removed)\b.*)$/i;

/** Parts under such a name, up to the next heading or rule; under a name that is no heading, up to the end of its block. */
function notesRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  rows.forEach((row, i) => {
    const head = /^\s{0,3}(#{1,6})\s+\S/.test(row);
    const labelled = /^\W*\*\*[^*]+\*\*:?\s*$/.test(row) || /:\s*$/.test(row) || /^[^a-z]+$/.test(row.trim());
    const later = i > rows.length / 2 && !rows[i - 1]?.trim() && /^\s*\p{Lu}/u.test(row);
    if (out.has(i) || !(head || labelled || later)) return;
    if (
      !NOTES_HEAD.test(
        bare(row)
          .replace(/^#+\s*/, '')
          .replace(/\s*:$/, ''),
      )
    )
      return;
    out.add(i);
    let began = false;
    for (let k = i + 1; k < rows.length; k++) {
      if (/^\s{0,3}#{1,6}\s+\S/.test(rows[k]) || isRule(rows[k])) break;
      if (!head && !rows[k].trim() && began) break;
      if (rows[k].trim()) began = true;
      out.add(k);
    }
  });
  return out;
}

/** "[^1]: …"; a comment behind the text, "[a] Is this so?", whose mark stands in it; a comment as word processors print it. */
function footnoteRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  /** Marks that stood behind words so far, and from where on no more than three rows follow. */
  const seen = new Set<string>();
  const worded = rows.flatMap((r, i) => (r.trim() ? [i] : []));
  const last = worded[Math.max(0, worded.length - 3)] ?? 0;
  let comments = rows.length;
  rows.forEach((row, i) => {
    const mark = /^\s*(\[[a-z]{1,2}\])\s*\S/.exec(row)?.[1];
    if (
      /^\s*\[\^[\w-]{1,20}\]:/.test(row) ||
      /^\s*\[\/\/\]:\s*#/.test(row) ||
      /^\s*@[\p{L}][\w.-]{1,30}\b[:,]?\s/u.test(row) ||
      /^\s*(?:Commented \[\w{1,8}\]|Deleted|Formatted|Inserted|Moved (?:down|up) \[\d+\]):\s/.test(row) ||
      (/^\s*(?:\*{1,3}|[†‡])\s+\S/.test(row) && i >= last && seen.has('*')) ||
      (mark && seen.has(mark))
    )
      out.add(i);
    if (mark && seen.has(mark)) comments = Math.min(comments, i);
    for (const m of row.matchAll(/(?<=\S)\[[a-z]{1,2}\]|(?<=\S\s)\[[a-z]{1,2}\]/g)) seen.add(m[0]);
    if (/[\p{L}\p{N}.,;:!?”"’)][*†‡](?=\s|$)/u.test(row.replace(/\*\S[^*\n]*\*/g, ''))) seen.add('*');
  });
  // Behind the first comment stand comments, answers to them and who liked them.
  if (wordsIn(rows.slice(comments)) < (1 - MOST) * wordsIn(rows))
    rows.forEach((r, i) => (i >= comments && r.trim() ? out.add(i) : undefined));
  return out;
}

/** Where one fenced block holds most of the words, what is outside it is said about it. */
function aroundFence(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  const fences = rows.flatMap((r, i) => (/^\s*(?:`{3,}|~{3,})/.test(r) ? [i] : []));
  if (fences.length !== 2) return out;
  if (wordsIn(rows.slice(fences[0] + 1, fences[1])) < MOST * wordsIn(rows)) return out;
  rows.forEach((r, i) => {
    if (r.trim() && (i <= fences[0] || i >= fences[1])) out.add(i);
  });
  return out;
}

/** A message of a chat: a time and a name, in either order, with words behind or below. */
const MESSAGE =
  /^\s*(?:\[?(?:\d{1,4}[./-]\d{1,2}[./-]\d{1,4},?\s+)?\d{1,2}:\d{2}(?::\d{2})?(?:\s?[ap]m)?\]?(?:\s*[-–])?\s+([\p{L}@][\p{L}\d ._'’-]{0,24}?)\s*(?::\s|:?$)|([\p{L}@][\p{L}\d ._'’-]{0,24}?)\s*(?:[[(—–-]\s*)?(?:today at\s+)?\d{1,2}:\d{2}(?::\d{2})?(?:\s?[ap]m)?[\])]?\s*(?::\s|:?$))/iu;

/** "You said:", "Assistant said:", "User:" on rows of their own: turns of a talk with a text generator, as they are copied. */
const TURN =
  /^\s*(?:#{1,6}\s+)?\**(?:(you|i|[\p{L}][\p{L}\d .-]{1,24}) (?:said|wrote)|(user|human|me|prompt|assistant|ai|model|response))[\s:*]*$/iu;

/** Of a chat in which a script was sent: the rows of the message that holds most of the words, and the length of its head. */
export function sentInChat(rows: readonly string[]): { from: number; to: number; head: number } | null {
  const turns = rows.filter((r) => TURN.test(r)).length >= 2;
  const head = turns ? TURN : MESSAGE;
  const starts = rows.flatMap((r, i) => (head.test(r) ? [i] : []));
  const names = starts.map((i) => head.exec(rows[i])!).map((m) => (m[1] ?? m[2]).toLowerCase());
  if (starts.length < (turns ? 2 : 3) || new Set(names).size < 2) return null;
  const parts = starts.map((from, k) => ({ from, to: starts[k + 1] ?? rows.length }));
  const size = ({ from, to }: { from: number; to: number }) => wordsIn(rows.slice(from, to));
  const longest = parts.reduce((a, b) => (size(b) > size(a) ? b : a));
  return size(longest) < MOST * parts.reduce((n, p) => n + size(p), 0)
    ? null
    : { ...longest, head: head.exec(rows[longest.from])![0].length };
}
function chatRows(rows: readonly string[]): Set<number> {
  const sent = sentInChat(rows);
  return new Set(
    sent ? rows.flatMap((r, i) => (r.trim() && (i < sent.from || i >= sent.to) ? [i] : [])) : [],
  );
}

/** Heads and feet of pages: the same row again and again but for its numbers, no sentence. */
function pageRows(rows: readonly string[]): Set<number> {
  const key = (r: string) => r.trim().toLowerCase().replace(/\d+/g, '0');
  const seen = new Map<string, number[]>();
  rows.forEach((r, i) => {
    if (r.trim() && !endsSentence(r) && wordsOf(r) <= 10 && !/^\s*(?:#|\*\*|\[|\()/.test(r) && /\d/.test(r))
      (seen.get(key(r)) ?? seen.set(key(r), []).get(key(r))!).push(i);
  });
  return new Set([...seen.values()].filter((at) => at.length > 1).flat());
}

/** A box of remarks: "> [!note] …" and what is quoted below it. */
function calloutRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  rows.forEach((r, i) => {
    if (/^\s*>\s*\[!\w+\]/.test(r)) for (let k = i; k < rows.length && isQuoted(rows[k]); k++) out.add(k);
  });
  return out;
}

/** "Assigned to: Nora | Due: Fri", "Music cleared: Y / N", "Word count 84", "Total: 68 s": fields of a form and sums. */
const FIELDS_IN_ROW =
  /^\W*\p{L}[\p{L} ]{1,24}:\s[^|/:]{1,40}(?:\s[|/]\s\p{L}[\p{L} ]{1,24}:\s[^|/:]{1,40})+$/u;
/** What signs mean, told above: "Underlined = lean on it. // = breath." */
const KEY = /^[^=]*\s=\s[^=]*\s=\s/;
/** "MILK TRAIN" / as broadcast / checked: a head in parts, no sentence. */
const HEAD_IN_PARTS = /^[^|/•]+(?:\s[|/•]\s[^|/•]+){2,}$/u;
const TO_TICK = /^\W*[\p{L}][\p{L} ]{2,30}:\s+(?:y(?:es)?\s*\/\s*no?|t\.?b\.?[acd]\.?|[☐☑✓✔])\W*$/iu;
const SUM =
  /^\W*(?:total|run(?:s|ning)? ?time|length|timing|word ?count|words)\b\W{0,3}\s*(?:about |c(?:irca)?\.? )?\d{1,4}(?::\d{2})?\s?(?:s|sec|seconds|words|wds|min|minutes)?(?![\p{L}\d])[^.!?]{0,40}(?:[.!?]|$)/iu;
function formRows(rows: readonly string[]): Set<number> {
  const first = rows.findIndex((r) => r.trim());
  const head = (r: string) => HEAD_IN_PARTS.test(r) && !/[.!?…]\W*$/.test(r);
  const isForm = (r: string) => FIELDS_IN_ROW.test(r) || TO_TICK.test(r) || KEY.test(r) || (SUM.test(r) && wordsOf(r) < 20); // prettier-ignore
  return new Set(rows.flatMap((r, i) => (isForm(r) || (i === first && head(r)) ? [i] : [])));
}

/** Fields on top: rows of a name, a colon and a few words, two or more, before anything else. */
function fieldRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  const top = rows.findIndex((r) => r.trim());
  // Under the whole's title, or without one.
  const first = /^\s*#\s/.test(rows[top] ?? '') ? rows.findIndex((r, i) => i > top && r.trim()) : top;
  for (let i = first; i >= 0 && i < rows.length && rows[i].trim(); i++) {
    const m = /^\s*(?:[-*•]\s+)?([\p{L}][\p{L} ./-]{0,24}?)\s*:\s+(\S.*)$/u.exec(
      rows[i].replace(/\*\*|__/g, ''),
    );
    if (!m || wordsOf(m[2]) > 10 || /[.!?…][”"]?$/.test(m[2].trim()) || isNarratorLabel(rows[i])) break;
    if (!/^(?:title|headline)$/i.test(m[1])) out.add(i);
  }
  return out.size > 1 ? out : new Set();
}

/** What a page folds away (HTML, details). */
function foldedRows(rows: readonly string[]): Set<number> {
  const out = new Set<number>();
  let open = false;
  rows.forEach((r, i) => {
    if (/^\s*<details\b/i.test(r)) open = true;
    if (open && r.trim()) out.add(i);
    if (/<\/details>\s*$/i.test(r)) open = false;
  });
  return open ? new Set() : out;
}

/** "END OF SCRIPT", "Narration begins". */
const BOUNDARY =
  /^\W*(?:(?:begin|start|end)s? (?:of )?(?:the )?(?:script|narration|voice-?over|vo|recording|copy|episode|transcript|video)|(?:script|narration|voice-?over|recording|transcript) (?:begins?|starts?|ends?))\W*$/i;
/** "ENDS", "-30-", "# # #", with a count or a remark behind it. */
const ENDS = /^[^\p{L}\p{N}(]*(?:(?:the )?ends?|fin|30)\b[^\p{L}\p{N}(]*(?:\([^()]*\)[^\p{L}\p{N}(]*)?$/iu;
const BEGINS = /\b(?:begin|start)/i;
/** Where a draft says that it begins and ends, what is outside is said about it. */
function boundaryRows(rows: readonly string[]): Set<number> {
  const out = new Set(rows.flatMap((r, i) => (BOUNDARY.test(r) ? [i] : [])));
  const total = wordsIn(rows);
  const from = [...out].find((i) => BEGINS.test(rows[i])) ?? -1;
  const last = [...out].filter((i) => i > from && !BEGINS.test(rows[i])).at(-1);
  const ends = rows.findLastIndex((r, i) => i > from && ENDS.test(r.replace(/\s(?:--|[–—])\s.*$/, '')) && (/^[^a-z]*$/.test(r.split(/[(–—]|--/)[0]) || r.trim().split(/\s+/).length === 1)); // prettier-ignore
  const to = last ?? (ends > 0 ? ends : rows.length);
  // Both marks are the writer's word for it; one alone must leave most of the draft.
  const both = from >= 0 && last !== undefined;
  const least = both ? 0.2 : MOST;
  if (wordsIn(rows.slice(from + 1, to)) < least * total) return out;
  rows.forEach((r, i) => (r.trim() && (i < from || i >= to) ? out.add(i) : undefined));
  return out;
}

/** Numbers alone on their rows, counted up: the order of takes or pictures. */
function numberRows(rows: readonly string[]): Set<number> {
  const found = rows.flatMap((r, i) => {
    const n = /^\s*#?(\d{1,2})[.):]?\s*$/.exec(r)?.[1];
    return n ? [{ i, n: Number(n) }] : [];
  });
  return found.length > 1 && found[0].n <= 1 && found.every((f, k) => k === 0 || f.n > found[k - 1].n) ? new Set(found.map((f) => f.i)) : new Set(); // prettier-ignore
}

/** "Hook A (not used): ~~What if …~~": a label whose words are all struck out. */
const struckRows = (rows: readonly string[]): Set<number> =>
  new Set(rows.flatMap((r, i) => (/^\W*(?:[^~:]{1,60}:\W*)?~~[^~]+~~\W*$/.test(r) ? [i] : [])));

/** Rows set aside before any rule for rows is asked. */
export function rowsAside(rows: readonly string[]): ReadonlyMap<number, CutKind> {
  const out = new Map<number, CutKind>();
  const add = (found: ReadonlySet<number>, kind: CutKind) =>
    found.forEach((i) => (out.has(i) ? undefined : out.set(i, kind)));
  add(mailRows(rows), 'chatter');
  add(tableRows(rows), 'brief');
  add(notesRows(rows), 'brief');
  add(footnoteRows(rows), 'brief');
  add(aroundFence(rows), 'chatter');
  add(boundaryRows(rows), 'mark');
  add(numberRows(rows), 'count');
  add(struckRows(rows), 'brief');
  add(formRows(rows), 'brief');
  add(fieldRows(rows), 'brief');
  add(chatRows(rows), 'chatter');
  add(pageRows(rows), 'mark');
  add(calloutRows(rows), 'brief');
  add(foldedRows(rows), 'brief');
  return out;
}

// ---- how this writer marks what is spoken ---------------------------------------------------------------------------

/** Every speech has its label: what has none, and does not go on where a labelled one stopped, is not spoken. */
function byLabels(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.filter(isSpoken);
  const total = count(spoken);
  const labelled = spoken.filter((r) => r.labelled);
  const labels = rows.filter((r) => r.pieces.some((p) => p.type === 'cut' && p.kind === 'speaker')).length;
  if (labels < 3 || count(labelled) < NEARLY_ALL * total) return rows;
  let going = false;
  return rows.map((r) => {
    if (r.labelled && isSpoken(r)) going = true;
    else if (isSpoken(r)) {
      if (!going || !endsSentence(r.row) || /^\s*[-*•]\s/.test(r.row)) {
        going = false;
        return silent(r, 'direction');
      }
    } else if (isHeading(r) || isRule(r.row)) going = false;
    return r;
  });
}

/** Quotation blocks right under the headings, most of the words outside them: what is seen there, each as the other. */
function beside(rows: readonly JudgedRow[]): boolean {
  const worded = rows.filter((r) => r.row.trim());
  const heads = worded.flatMap((r, i) => (isHeading(r) ? [i] : []));
  const under = heads.filter((i) => worded[i + 1] && isQuoted(worded[i + 1].row)).length;
  const spoken = worded.filter(isSpoken);
  const quoted = worded.filter((r) => isQuoted(r.row));
  const whole = quoted.filter((r) => /[.!?…]["”’)]*\s*$/.test(r.row)).length;
  return heads.length > 1 && under >= heads.length * 0.8 && (quoted.some((r) => !isSpoken(r)) || whole < quoted.length / 2) && count(quoted.filter(isSpoken)) < (1 - MOST) * count(spoken); // prettier-ignore
}

/** The narration stands in quotation blocks: what is around them is said about it. */
function byQuotes(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.filter(isSpoken);
  const quoted = spoken.filter((r) => isQuoted(r.row));
  const groups = rows.filter((r, i) => isQuoted(r.row) && !(i > 0 && isQuoted(rows[i - 1].row))).length;
  if (groups >= 2 && beside(rows)) return rows.map((r) => (isQuoted(r.row) ? silent(r, 'direction') : r));
  if (groups < 2 || count(quoted) < MOST * count(spoken)) return rows;
  return rows.map((r) => (isQuoted(r.row) ? r : silent(r, 'chatter')));
}

const isWholeQuote = (row: string) => /^\s*["“][^"“”]{8,}["”]\s*$/.test(row);

const isWholeBold = (row: string) => /^\s*(\*\*|__)(?=\S)(?:(?!\1).)+[.!?…]["”’]?\1\s*$/.test(row);

const isWholeItalic = (row: string) => /^\s*([*_])(?=[^\s*_])[^*_]+[.!?…]["”’]?\1\s*$/.test(row);

/** The narration stands in quotation marks, in bold or in italics, row by row. */
const byWhole =
  (isWhole: (row: string) => boolean) =>
  (rows: readonly JudgedRow[]): readonly JudgedRow[] => {
    const spoken = rows.filter((r) => isSpoken(r) && !r.labelled);
    const quoted = spoken.filter((r) => isWhole(r.row));
    // "… for a moment. Narrator:" before each says so, however much is said between.
    const announced = rows.filter((r, i) => isWhole(r.row) && /\b(?:narrator|voice-?over|v\.?o\.?|host)\s*:\W*$/i.test(rows[i - 1]?.row ?? '')).length; // prettier-ignore
    if (quoted.length < 3 || (announced < 3 && count(quoted) < MOST * count(spoken))) return rows;
    return rows.map((r) => (r.labelled || isWhole(r.row) ? r : silent(r, 'direction')));
  };

const inCapitals = (row: string) => {
  const text = bare(row);
  return wordsOf(text) >= 2 && /\p{Lu}{2}/u.test(text) && !/\p{Ll}/u.test(text);
};

/** In a draft of small letters, rows in capitals say what is seen. */
function byCapitals(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.filter((r) => isSpoken(r) && !r.labelled);
  const capital = spoken.filter((r) => inCapitals(r.row));
  const all = rows.filter((r) => inCapitals(r.row) && !isHeading(r)).length;
  if (capital.length < 1 || all < 2 || count(capital) > (1 - MOST) * count(spoken)) return rows;
  // One word in capitals is one of them where there are such rows.
  const alone = (row: string) => /^\s*\p{Lu}{3,}[.!]?\s*$/u.test(row);
  return rows.map((r) => (!r.labelled && (inCapitals(r.row) || alone(r.row)) ? silent(r, 'direction') : r));
}

/** Words about the work on a script. */
const WORK =
  /\b(?:scripts?|drafts?|versions?|variations?|variants?|(?:an?|another|this|new|first|second|last|\w+er) takes?|narrat(?:ion|or)s?|voice-?overs?|vo|voice|scenes?|hooks?|outro|intro|openings?|b-?roll|footage|visuals?|captions?|columns?|tables?|layout|storyboard|run ?time|word ?count|words|seconds?|minutes?|edit(?:or|s|ed)?|trim(?:med)?|tighten(?:ed)?|shorten(?:ed)?|tone|pacing|polish(?:ed)?|revis(?:ed|ion|e)|rewr(?:ite|itten|ote)|written|brief|studio|recording|record|episodes?|paragraphs?|sections?|beats?|endings?|shorts?|prompts?|format(?:ted)?|cues?|clips?)\b/gi;
/** And what is done to one, said by the one who does it. */
const EDITED =
  /\b(?:swapp?ed|kept|went for|cut|moved|changed|added|left|dropped|shorter|longer|calmer|quieter|punchier|sharper|lines?|piece|as you asked|if you(?:['’]d)?|favou?rite)\b/i;
const BETWEEN_PARTNERS =
  /\b(?:I(?:['’](?:ve|ll|d|m))?|me|my|let me|please|below|as requested|here(?:['’]s| is| are))\b|^(?:sure|certainly|absolutely|of course|ok(?:ay)?|got it|great|done|no problem|perfect|all ?right)\b/i;
const MYSELF = /(?<![“"][^”"]{0,200})\b(?:I|I['’](?:ve|ll|d|m)|my)\b/;
const OFFER =
  /^\W*(?:shall i|should i|do you want me|want me to|would you like (?:me|a|an|the|another)|let me know|just say the word|i can also|happy to|feel free|hope (?:this|that|it)(?: all)? (?:works|helps|fits|suits))\b/i;
const TO_LISTENERS = /\b(?:comments?|below|subscribe|next (?:time|video))\b/i;

const aboutWork = (text: string): number =>
  new Set((text.match(WORK) ?? []).map((w) => w.toLowerCase())).size;

/** "That's it. 1:04 on my phone", "Sure -", "Here are the three you asked for": before and behind what was ordered. */
const HANDED_OVER =
  /^\W*(?:(?:ok(?:ay)?|right|so),?\s){0,2}(?:(?:this|that|here) is (?:roughly |about |basically )?(?:it|what i have)\b|that['’]s (?:it|all|the lot|\d)\b|(?:sure|ok(?:ay)?|yep|yes|here(?: you go| it is| goes)?|voil[aà])\W*$)|\byou (?:asked for|wanted|ordered)\b/i;

/** Whether a row is said to the one who ordered the script, and not to those who hear it. */
export function isTalk(row: string): boolean {
  const text = bare(row);
  const about = aboutWork(text);
  return (
    (OFFER.test(text) && !TO_LISTENERS.test(text)) ||
    (HANDED_OVER.test(text) && (wordsOf(text) < 4 || /\b(?:I|my|me|you|your|\d+:\d\d)\b/i.test(text))) ||
    (about >= 2 && BETWEEN_PARTNERS.test(text)) ||
    about >= 3
  );
}

/** Somebody who says "I" before and behind a narration that never does, of work on it. */
const isOtherVoice = (row: string): boolean => {
  const text = bare(row);
  const edited = EDITED.test(text) && (aboutWork(text) > 0 || /\byou\b/i.test(text));
  return MYSELF.test(text) && (edited || aboutWork(text) > 1) && !TO_LISTENERS.test(text);
};

/** How many rows at either end may be another's. */
const EDGE = 4;

/** Talk about the draft before its first words and behind its last. */
function withoutTalk(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.flatMap((r, i) => (isSpoken(r) && !r.labelled ? [i] : []));
  const all = rows.flatMap((r, i) => (isSpoken(r) ? [i] : []));
  const quiet = new Set<number>();
  const tellsOfItself = all
    .slice(EDGE, -EDGE || undefined)
    .concat(all.length <= 2 * EDGE ? all.slice(1, -1) : [])
    .filter(
      (i) => MYSELF.test(bare(rows[i].row)) && !isTalk(rows[i].row) && !isOtherVoice(rows[i].row),
    ).length;
  for (const order of [all, [...all].reverse()])
    for (const i of order.slice(0, EDGE)) {
      if (rows[i].labelled) break;
      const { row } = rows[i];
      if (!isTalk(row) && !(tellsOfItself === 0 && isOtherVoice(row))) break;
      quiet.add(i);
    }
  // In the middle, a paragraph in which one asks the other.
  for (const i of spoken)
    if (isTalk(rows[i].row) && /\b(?:I|me|we)\b/.test(rows[i].row) && /\byou(?:r|['’]\w+)?\b/i.test(rows[i].row) && /\?/.test(rows[i].row)) quiet.add(i); // prettier-ignore
  return quiet.size === all.length ? rows : rows.map((r, i) => (quiet.has(i) ? silent(r, 'chatter') : r));
}

/** Signs before a row's first letter and behind its last. */
function marksOf(row: string): string {
  const text = row.trim().replace(/\p{Extended_Pictographic}|\uFE0F/gu, '');
  const before = /^[^\p{L}\p{N}"“‘'’…]*/u.exec(text)![0].replace(/\s+/g, ' ').trim();
  const starred = /^[-*•+]? ?[*_]{1,2}$/.test(before);
  return starred && !/[*_)]\W*$/.test(text) ? '' : before;
}
/** Marks of lists, quotations and headings, and none at all: what is so marked may be spoken. */
const OPEN_MARKS = /^(?:[-*•–—]|#+|>(?: ?>)*|\*\*|__|\||[$€£¿¡]|\*\*\*)?$/;

/** Rows under one sign, beside narration that has none: what the sign is for is no narration. */
function byMarks(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.filter((r) => isSpoken(r) && !r.labelled);
  const total = count(rows.filter(isSpoken));
  const marks = new Map<string, JudgedRow[]>();
  for (const r of spoken) (marks.get(marksOf(r.row)) ?? marks.set(marksOf(r.row), []).get(marksOf(r.row))!).push(r); // prettier-ignore
  const quiet = new Set(
    [...marks].filter(([mark, of]) => !OPEN_MARKS.test(mark) && of.length > 1 && count(of) < (1 - MOST) * total + 1).map(([m]) => m), // prettier-ignore
  );
  return quiet.size
    ? rows.map((r) => (isSpoken(r) && !r.labelled && quiet.has(marksOf(r.row)) ? silent(r, 'direction') : r))
    : rows;
}

const isBullet = (row: string) => /^\s*[-*•+]\s/.test(row);
/** Where lists hold pictures and sounds, beside narration that stands in none, what else they hold is no narration either. */
function byBullets(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const bullets = rows.filter((r) => isBullet(r.row));
  const spoken = bullets.filter(isSpoken);
  const cues = bullets.filter((r) => !isSpoken(r) && !isHeading(r) && /[\p{L}]/u.test(r.row)).length;
  if (cues < 2 || cues < spoken.length || spoken.some((r) => /[.!?…]["”’)*_]*\s*$/.test(r.row)) || count(spoken) > (1 - NEARLY_ALL) * count(rows.filter(isSpoken))) return rows; // prettier-ignore
  return rows.map((r) => (isBullet(r.row) && !r.labelled ? silent(r, 'direction') : r));
}

/** Talk above the first rule, narration to the last, a few words behind it: they are talk too. */
function betweenRules(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const rules = rows.flatMap((r, i) => (isRule(r.row) ? [i] : []));
  if (rules.length < 2) return rows;
  const [first, last] = [rules[0], rules.at(-1)!];
  const above = rows.slice(0, first).filter((r) => r.row.trim());
  const behind = rows.slice(last + 1);
  if (!above.length || above.some((r) => isSpoken(r) || isHeading(r)) || behind.some(isHeading)) return rows;
  if (!above.some((r) => r.pieces.some((p) => p.type === 'cut' && p.kind === 'chatter'))) return rows;
  if (count(behind) > (1 - NEARLY_ALL) * count(rows.slice(first, last))) return rows;
  return rows.map((r, i) => (i > last ? silent(r, 'chatter') : r));
}

/** What a part is called in which somebody else is heard. */
const CLIP_HEAD = /\b(?:interview(?:ee)?|clip|sot|sound ?bite|vox ?pop|actuality|archive audio|testimony)\b/i;
/** Rows wholly in quotation marks under such a name are that person's words, and no narration. */
function byClips(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  let clip = false;
  return rows.map((r) => {
    const head = r.pieces.find((p) => p.type === 'heading');
    if (head) clip = CLIP_HEAD.test(head.text);
    return clip && isSpoken(r) && isWholeQuote(r.row) ? silent(r, 'direction') : r;
  });
}

/** Quoted rows of a few words that never end as sentences do, beside narration that is not quoted, are cues. */
function byPointers(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const spoken = rows.filter(isSpoken);
  const quoted = spoken.filter((r) => isQuoted(r.row));
  if (quoted.length < 2 || count(quoted) > (1 - NEARLY_ALL) * count(spoken) || quoted.some((r) => endsSentence(r.row))) return rows; // prettier-ignore
  return rows.map((r) => (isQuoted(r.row) && !r.labelled ? silent(r, 'direction') : r));
}

/** "JM: can we lose this line?": initials before a remark, in a draft whose narration has no labels. */
function byInitials(rows: readonly JudgedRow[]): readonly JudgedRow[] {
  const few = rows.filter((r) => r.labelled && isSpoken(r)).length < 3;
  const remarks = rows.filter((r) => isSpoken(r) && (!r.labelled || few) && !isHeading(r) && /^\s*(?:[-*>]\s+)?\p{Lu}{2,3}:\s/u.test(r.row) && (aboutWork(r.row) > 0 || EDITED.test(r.row))); // prettier-ignore
  if (!remarks.length || count(remarks) > (1 - NEARLY_ALL) * count(rows.filter(isSpoken))) return rows;
  return rows.map((r) => (remarks.includes(r) ? silent(r, 'chatter') : r));
}

/** In order: what is marked as spoken, then what is marked otherwise, talk at the ends, rows set apart, the head. */
const CONVENTIONS: readonly ((rows: readonly JudgedRow[]) => readonly JudgedRow[])[] = [
  byLabels,
  byQuotes,
  byWhole(isWholeQuote),
  byWhole(isWholeBold),
  byWhole(isWholeItalic),
  byCapitals,
  byMarks,
  byBullets,
  byPointers,
  byInitials,
  byClips,
  withoutTalk,
  betweenRules,
  byShape,
  withoutHeadRows,
];

/** Rows as the draft's own conventions leave them. */
export const keptToConventions = (rows: readonly JudgedRow[]): readonly JudgedRow[] =>
  CONVENTIONS.reduce((all, convention) => convention(all), rows);
