/** Text or bytes → SourceDocument. */
import { franc } from 'franc-min';
import { sentences } from '../language/sentences.ts';
import { wellFormedData } from '../language/wellFormed.ts';
import { PARTS } from './apparatus.ts';
import { applyChoices, type Choices } from './choices.ts';
import { checkedText, decodeText } from './decode.ts';
import {
  MOST_LETTERS,
  SourceError,
  tooLong,
  type Block,
  type RawBlock,
  type RawDocument,
  type SourceDocument,
  type SourceKind,
} from './document.ts';
import { detectKind } from './kind.ts';
import { isoDate } from './tidy.ts';
import { feedReader } from './readers/feed.ts';
import { htmlReader } from './readers/html/reader.ts';
import { jatsReader } from './readers/jats.ts';
import { markdownReader } from './readers/markdown.ts';
import { registry } from './readers/reader.ts';
import { bibtexReader, cslReader, risReader } from './readers/records.ts';
import { textReader } from './readers/text.ts';
import { wikitextReader } from './readers/wikitext.ts';

/** Every reader of text; the one surest of it reads it, the first of those equally sure. */
export const sourceReaders = registry([
  jatsReader,
  feedReader,
  risReader,
  bibtexReader,
  cslReader,
  htmlReader,
  wikitextReader,
  markdownReader,
  textReader,
]);

/** A passage longer than this is cut at sentence ends, so that a page without paragraphs is still read in passages. */
const LONGEST_PASSAGE = 3000;

/** What was left out is shown; of a page that is all links, its beginning. */
const MOST_LEFT_OUT = 2000;

export interface ReadOptions {
  /** The person's own word for what it is. */
  kind?: SourceKind;
  title?: string;
  /** What the person decided about its pieces. */
  choices?: Choices;
}

/** Reads a source that is text, in any of the text formats. Throws SourceError, in the person's words, on anything that can't be one. */
export async function readSource(
  input: string | Uint8Array,
  options: ReadOptions = {},
): Promise<SourceDocument> {
  const text = typeof input === 'string' ? checkedText(input) : decodeText(input);
  const reader = sourceReaders
    .map((r) => ({ r, sure: r.accepts(text) }))
    .sort((a, b) => b.sure - a.sure)[0].r;
  return finishSource(await reader.read(text), reader.id, options);
}

/** What a reader found → a source: clean passages in their places, kind, title, language. */
export function finishSource(given: RawDocument, format: string, options: ReadOptions): SourceDocument {
  // Set aside before the writer's choices are applied, so that it can be taken in again.
  const found = withoutDateline(given);
  if (found.blocks.reduce((n, b) => n + b.text.length, 0) > MOST_LETTERS) throw tooLong();
  const raw = wellFormedData(options.choices ? applyChoices(found, options.choices) : found);
  const blocks = raw.blocks
    .map((b) => ({ ...b, text: cleanText(b.text) }))
    .filter((b) => b.text)
    .flatMap(cutLong)
    .flatMap(labelApart);
  takeHead(raw, blocks);
  if (!blocks.some((b) => b.type !== 'heading' && b.type !== 'box'))
    throw new SourceError(
      'empty',
      'There is no running text in this: only headings or furniture were found.',
    );
  return place(raw, blocks, format, options);
}

/** Typographic forms that later rooms rely on: one kind of space, no reference marks, no doubled marks. */
function cleanText(text: string): string {
  return (
    text
      .replace(/[\u00a0\u2007]/g, ' ')
      .replace(
        /\s?\[(?:\d{1,3}|citation needed|clarification needed|needs update|who\?|when\?|by whom\?|dubious[^\]]{0,20}|note \d+|edit)\]/gi,
        '',
      )
      // Markup that was written out: "A&lt;sup&gt;x&lt;/sup&gt;".
      .replace(/<(sub|sup|b|i|em|strong|u|span|small)\b[^<>]{0,80}>([^<>]*)<\/\1>/gi, '$2')
      .replace(/``|''/g, '"')
      .replace(/\s+([,.;:!?])(?=\s|$)/g, '$1')
      .replace(/\s+/g, ' ')
      .trim()
  );
}

const MONTH_DAY =
  /(?:\b(?:\d{1,2}(?:st|nd|rd|th)?\s)?(?:January|February|March|April|May|June|July|August|September|October|November|December|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec)\.?(?:\s\d{1,2},?)?,?\s\d{4}\b|\b\d{4}-\d{2}-\d{2}\b|\b(?:19|20)\d\d\b)/;
const LONGEST_HEAD = 110;

/** Lines above the text that say who wrote it, where and when ("By R. Holm. Published 2 May 2024") are no narration. */
function takeHead(raw: RawDocument, blocks: RawBlock[]): void {
  for (let n = 0; n < 3 && blocks.length > 1; n++) {
    const [first] = blocks;
    if (first.type !== 'paragraph' || first.text.length > LONGEST_HEAD) return;
    const by =
      /^(?:[Bb]y|[Ww]ords by|[Ff]rom our correspondent)\s+(\p{Lu}[\p{L}.’'-]*(?:\s\p{Lu}[\p{L}.’'-]+){0,3}?)(?=$|[.,·|–-]|\s(?:and|for|in|on|Published|Updated)\b)/u.exec(
        first.text,
      );
    const day = MONTH_DAY.exec(first.text);
    if (!by && !day) return;
    const rest = first.text
      .replace(by?.[0] ?? '', '')
      .replace(day?.[0] ?? '', '')
      .replace(/\b(?:published|updated|posted|first published|last updated|on|at|\d{1,2}[:.]\d{2})\b:?/gi, '')
      .replace(/[\s,.·|–—-]+/g, ' ')
      .trim();
    // What is left must be a name: a paper, a journal, a town.
    if (
      rest &&
      (rest.split(' ').length > 6 ||
        !rest.split(' ').every((w) => /^\p{Lu}/u.test(w) || /^(?:of|and|the|for|in|de|la|&)$/.test(w)))
    )
      return;
    if (by) raw.authors ??= [by[1].replace(/\.$/, '')];
    if (day) raw.published ??= day[0];
    if (rest) raw.publisher ??= rest;
    blocks.shift();
  }
}

/** Where a report was written and by which agency, before its first words: "LONG ACRE, Kent (News Service) — ". */
const DATELINE = new RegExp(
  '^(?:' +
    String.raw`(?:\([\p{Lu}][\p{L}\d .&’'/-]{1,30}\)\s)?\p{Lu}[\p{Lu}’'.-]{2,}(?:[ -]\p{Lu}[\p{Lu}’'.-]+){0,3}(?:, [^—–:;!?“”"()]{2,40}?)?(?: ?\([^()]{1,40}\))?` +
    String.raw`|\p{Lu}[\p{L}’'.-]+(?: \p{Lu}[\p{L}’'.-]+){0,2}(?:, [^—–:;!?“”"()]{2,25})?,? ?\([\p{Lu}][\p{L}\d .&’'/-]{1,30}\)` +
    String.raw`|\([\p{Lu}][\p{L}\d .&’'/-]{1,30}\)` +
    String.raw`),?\s*(?:—|–|--|-)\s+(?=["“‘]?\p{Lu}|\d)`,
  'u',
);
/** An agency alone before the first words of a report: "(Marsh News) A lamp fell". */
const AGENCY = /^\((?:\p{Lu}[\p{L}\d.&’'/-]*(?: (?=\p{Lu})|(?=\)))){1,3}\)\s+(?=["“‘]?\p{Lu}|\d)/u;
/** Among so many passages a dateline stands, and so many words must be behind it. */
const DATELINE_AMONG = 8;
const BEHIND_DATELINE = 6;

function withoutDateline(raw: RawDocument): RawDocument {
  const said = raw.blocks.slice(0, DATELINE_AMONG).map((b) => (b.type === 'paragraph' ? b.text : ''));
  const dated = said.findIndex((text) => DATELINE.test(text));
  const at = dated >= 0 ? dated : said.findIndex((text) => AGENCY.test(text));
  if (at < 0) return raw;
  const block = raw.blocks[at];
  const [line] = (dated >= 0 ? DATELINE : AGENCY).exec(block.text)!;
  const text = block.text.slice(line.length);
  if (text.split(' ').length < BEHIND_DATELINE) return raw;
  const left = { text: line.trim(), why: 'it says where it was written', doubt: false, at };
  return { ...raw, blocks: raw.blocks.with(at, { ...block, text }), leftOut: [...(raw.leftOut ?? []), left] };
}

/** "Background. Children who learn …": the label of a part, set with a full stop, stands as a heading, in mid-paragraph too. */
function labelApart(block: RawBlock): RawBlock[] {
  if (block.type !== 'paragraph') return [block];
  const parts = block.text.split(new RegExp(`(?<=^|[.!?]\\s)(${PARTS})\\.\\s+(?=\\p{Lu})`, 'u'));
  // A label alone in the middle may be a sentence of one word; behind a first one it is another part.
  if (parts.length < 3 || (parts[0].trim() && parts.length < 5)) return [block];
  const out: RawBlock[] = parts[0].trim() ? [{ ...block, text: parts[0].trim() }] : [];
  for (let i = 1; i < parts.length; i += 2)
    out.push({ type: 'heading', text: parts[i] }, { ...block, text: parts[i + 1].trim() });
  return out;
}

function cutLong(block: RawBlock): RawBlock[] {
  if (block.text.length <= LONGEST_PASSAGE) return [block];
  const out: RawBlock[] = [];
  let text = '';
  for (const sentence of sentences(block.text)) {
    if (text && text.length + sentence.text.length > LONGEST_PASSAGE) {
      out.push({ ...block, text });
      text = '';
    }
    text += (text ? ' ' : '') + sentence.text;
  }
  if (text) out.push({ ...block, text });
  return out;
}

const HEADED_STEP = /^(?:step|stage)\s+(\d{1,2})\b/i;
/** Fewer numbered headings than this are chapters rather than steps. */
const FEWEST_STEPS = 3;

/** Steps whose numbers stand in headings ("Step 2: Thaw"): what stands under each is the step; a list that sums them up is none of them. */
function headedSteps(blocks: readonly RawBlock[]): RawBlock[] {
  const numberOf = (b: RawBlock) => {
    const m = b.type === 'heading' ? HEADED_STEP.exec(b.text) : null;
    return m ? Number(m[1]) : null;
  };
  const numbers = blocks.map(numberOf).filter((n) => n !== null);
  if (numbers.length < FEWEST_STEPS || numbers.some((n, i) => n !== i + 1)) return [...blocks];
  let now: number | null = null;
  return blocks.map((b): RawBlock => {
    if (b.type === 'heading') {
      now = numberOf(b);
      return b;
    }
    const { step: _, ...plain } = b;
    return now !== null && b.type === 'paragraph' ? { ...plain, step: now } : now === null ? plain : b;
  });
}

function place(
  raw: RawDocument,
  given: readonly RawBlock[],
  format: string,
  options: ReadOptions,
): SourceDocument {
  const rawBlocks = headedSteps(given);
  const title = (options.title?.trim() || raw.title || titleFrom(rawBlocks)).slice(0, 200);
  const detected = options.kind
    ? { kind: options.kind, reason: 'you said so', sure: 1 }
    : detectKind(
        title,
        rawBlocks.filter((b) => b.type !== 'box'),
        raw.kind,
        {
          signed: Boolean(raw.authors?.length && raw.published),
          boxed: rawBlocks.some((b) => b.type === 'box'),
          behind: (raw.leftOut ?? []).map((l) => l.text).filter((t) => t.length < 40),
        },
      );
  let at = 0;
  let under: string | undefined;
  const blocks = rawBlocks.map((b, i): Block => {
    if (b.type === 'heading') under = b.text;
    if (b.under) under = b.under;
    const start = at;
    at += b.text.length + 2;
    return {
      id: `p${i + 1}`,
      type: b.type,
      text: b.text,
      start,
      end: start + b.text.length,
      ...(under && b.type !== 'heading' ? { under } : {}),
      ...(b.step ? { step: b.step } : {}),
      ...(b.within ? { within: b.within } : {}),
      ...(b.speaker ? { speaker: b.speaker.slice(0, 80) } : {}),
      ...(b.atMs === undefined ? {} : { atMs: b.atMs }),
      ...(b.heads?.length ? { heads: b.heads } : {}),
      ...(b.entry ? { entry: b.entry } : {}),
      ...(b.doubt ? { doubt: true } : {}),
      ...(b.chosen ? { chosen: true } : {}),
    };
  });
  return {
    version: 1,
    title,
    kind: detected.kind,
    kindReason: detected.reason,
    kindSure: detected.sure,
    format,
    language: languageOf(raw, rawBlocks),
    ...dates(raw),
    ...(raw.authors?.length ? { authors: raw.authors } : {}),
    ...(raw.publisher ? { publisher: raw.publisher } : {}),
    ...(raw.licence ? { licence: raw.licence } : {}),
    ...(raw.address ? { address: raw.address } : {}),
    ...(raw.doubt ? { doubt: raw.doubt } : {}),
    text: rawBlocks.map((b) => b.text).join('\n\n'),
    blocks,
    ...(raw.leftOut?.length ? { leftOut: raw.leftOut.slice(0, MOST_LEFT_OUT).map(({ at: _, type: __, ...left }) => left) } : {}), // prettier-ignore
  };
}

/** ISO where the words can be read as a date, else as they stand. */
const dates = ({ published, updated }: RawDocument) => ({
  ...(published ? { published: isoDate(published) ?? published } : {}),
  ...(updated ? { updated: isoDate(updated) ?? updated } : {}),
});

/** Letters enough for a guess at the language. */
const LANGUAGE_SAMPLE = 2000;
/** ISO 639-3 → BCP 47 for the languages franc tells apart best; others keep three letters. */
const SHORT: Readonly<Record<string, string>> = { eng: 'en', deu: 'de', fra: 'fr', spa: 'es', ita: 'it', nld: 'nl', por: 'pt', pol: 'pl', rus: 'ru', swe: 'sv', arb: 'ar', heb: 'he', cmn: 'zh', jpn: 'ja', tur: 'tr', ukr: 'uk', hin: 'hi', ind: 'id', ces: 'cs', ron: 'ro', hun: 'hu', vie: 'vi', kor: 'ko' }; // prettier-ignore

/** What the page says, unless its words say otherwise plainly (trigrams, Cavnar and Trenkle 1994, by franc). */
function languageOf(raw: RawDocument, blocks: readonly RawBlock[]): string {
  const said = raw.language?.trim().slice(0, 12);
  const sample = blocks
    .map((b) => b.text)
    .join(' ')
    .slice(0, LANGUAGE_SAMPLE);
  const guess = sample.length >= 120 ? franc(sample) : 'und';
  const guessed = guess === 'und' ? undefined : (SHORT[guess] ?? guess);
  if (said && (!guessed || said.slice(0, 2).toLowerCase() === guessed.slice(0, 2) || sample.length < 600))
    return said;
  return guessed ?? said ?? 'en';
}

/** A working title from the first words when the source has none. */
function titleFrom(blocks: readonly RawBlock[]): string {
  const first = blocks.find((b) => b.type !== 'heading')?.text ?? '';
  const sentence = sentences(first)[0]?.text ?? first;
  const words = sentence.split(' ').slice(0, 9).join(' ');
  return words.replace(/[.,;:]$/, '') + (words.length < sentence.length - 1 ? '…' : '');
}
