/** Chosen units → sections: where to cut, what each is called, what part it plays. */
import type { SectionRole } from '../script/data.ts';
import type { SourceDocument } from '../source/document.ts';
import { stems } from '../facts/centrality.ts';
import { MONTHS, WEEKDAYS } from '../language/lexicon.ts';
import type { Unit } from './units.ts';

/** A section is best about this long in long form (about 10 titled sections in ten minutes; common practice, no published source). */
const BEST_SECTION_MS = 40_000;
const SHORTEST_SECTION_MS = 9_000;

/** What it costs to cut before a unit: nothing at a new heading, much inside a paragraph or before a word that leans back. */
function cutCost(unit: Unit, previous: Unit): number {
  if (previous.needsNext || unit.needs.some((n) => n.to === previous.index && n.adjacent)) return 9;
  // Somebody goes on speaking.
  if (unit.block.id === previous.block.id && unit.speech && previous.speech) return 9;
  if (unit.block.id === previous.block.id) return 3;
  if (unit.block.under !== previous.block.under || unit.part !== previous.part) return -1.2;
  return 0.4;
}

/** Splits units into about even groups at the cheapest places (dynamic programming over cut costs and unevenness). */
export function cutSections(units: readonly Unit[], shorter: number): Unit[][] {
  if (!units.length) return [];
  const total = units.reduce((sum, u) => sum + u.ms, 0);
  const best = Math.max(
    SHORTEST_SECTION_MS,
    Math.min(BEST_SECTION_MS, total / Math.max(1, Math.round(total / (BEST_SECTION_MS * shorter)))),
  );
  const cost = [0];
  const from = [0];
  for (let end = 1; end <= units.length; end++) {
    cost[end] = Infinity;
    let ms = 0;
    let spans = 0;
    for (let start = end - 1; start >= 0; start--) {
      ms += units[start].ms;
      // A section keeps to one heading, and always to one part of a study.
      if (start < end - 1 && units[start].part !== units[start + 1].part) break;
      if (start < end - 1 && units[start].block.under !== units[start + 1].block.under) spans += 1.6;
      if (ms > best * 2.4 && end - start > 1) break;
      const uneven = ((ms - best) / best) ** 2 + (ms < SHORTEST_SECTION_MS ? 3 : 0);
      const here = cost[start] + uneven + spans + (start > 0 ? cutCost(units[start], units[start - 1]) : 0);
      if (here < cost[end]) [cost[end], from[end]] = [here, start];
    }
  }
  const groups: Unit[][] = [];
  for (let end = units.length; end > 0; end = from[end]) groups.unshift(units.slice(from[end], end));
  return groups;
}

const TROUBLE =
  /\b(?:failed|failure|broke|broken|parted|crack|trouble|wrong|problem|lost|closed|shut|stuck|stopped|jam|died|danger|accident|flood|drought|mud|refused|did not believe|ashamed|still unknown|not settled)\b/i;
const TURN = /\b(?:but|instead|turned out|until then|however|chosen|answered|discovered|noticed|found)\b/i;

/** The part a section plays, from its place and its words. */
export function sectionRole(
  group: readonly Unit[],
  place: 'second' | 'middle' | 'last',
  source: SourceDocument,
): SectionRole {
  if (place === 'last') return 'close';
  if (source.kind === 'howto') return 'workings';
  if (place === 'second') return 'ground';
  const share = (pattern: RegExp) =>
    group.filter((u) => pattern.test(`${u.sentence.fact.text}`)).length / group.length;
  const heading = group[0].block.under ?? '';
  if (group.some((u) => u.part === 'results' || u.part === 'conclusion')) return 'settle';
  if (/\bhow it works|principle|method|operation\b/i.test(heading) || group[0].part === 'method')
    return 'workings';
  if (/stoppage|accident|failure|trouble/i.test(heading) || share(TROUBLE) >= 0.3) return 'strain';
  if (share(TURN) >= 0.25) return 'turn';
  return 'ground';
}

const title = (text: string) => (/^\p{Ll}\p{Lu}/u.test(text) ? text : text[0].toUpperCase() + text.slice(1));
/** Adjectives that need what was said before, and name nothing. */
const VAGUE =
  /^(?:certain|other|same|few|many|own|new|next|last|first|second|more|such|several|only|single|whole|full|little|big|good|great|different)$/i;

/** Nouns that say nothing of what a section holds. */
const NAMES_NOTHING =
  /\b(?:percent|million|billion)\b|^(?:the )?(?:numbers?|ways?|times?|parts?|things?|people|days?|years?|weeks?|months?|hours?|minutes?|kinds?|sorts?|ends?|sides?|places?|points?|cases?|results?|groups?|man|woman|men|women|first|last|half|percent|news)$/iu;

/** "mg creatinine", "mcg": units and other short things. */
const SHORT = /^(?!the\s)\p{Ll}{1,3}(?:\s|$)/u;

const countsOf = (words: readonly string[]): ReadonlyMap<string, number> => {
  const counts = new Map<string, number>();
  for (const w of words) counts.set(w, (counts.get(w) ?? 0) + 1);
  return counts;
};
/** A source is titled section by section, in each of many trials: its stems are counted once. */
const counted = new WeakMap<SourceDocument, ReadonlyMap<string, number>>();
function stemCounts(source: SourceDocument): ReadonlyMap<string, number> {
  const known = counted.get(source) ?? countsOf(stems(source.text));
  counted.set(source, known);
  return known;
}

/**
 * A short name for a section: the heading that it holds most of and begins, of all that is `told`, else its own most telling
 * noun phrase.
 */
export function sectionTitle(
  group: readonly Unit[],
  source: SourceDocument,
  taken: ReadonlySet<string>,
  told: readonly Unit[],
): string {
  const headings = new Map<string, number>();
  const begins = (under: string) => group.includes(told.find((u) => u.block.under === under)!);
  for (const u of group)
    // "Update, 3 May" says when it was added: it names what begins with it alone.
    if (
      u.block.under &&
      !u.part &&
      begins(u.block.under) &&
      (!/^update\b/i.test(u.block.under) || group[0].block.under === u.block.under)
    )
      headings.set(u.block.under, (headings.get(u.block.under) ?? 0) + u.ms);
  const [numbered] = [...headings].sort((a, b) => b[1] - a[1])[0] ?? [];
  // "11.2.3. Virtual hosts": where a book has it is no part of the name.
  const heading = numbered?.replace(/^(?:\d{1,2}\.){2,}\d{0,2}\s+|:$/g, '');
  if (heading && heading.length <= 40 && !taken.has(heading) && source.kind !== 'abstract') return heading;
  const part = group[0].part;
  if (part && !taken.has(title(part))) return title(part);
  if (source.kind === 'howto' && !group[0].block.under && !taken.has('Before you start'))
    return 'Before you start';
  const counts = new Map<string, number>();
  const own = countsOf(stems(group.map((u) => u.sentence.fact.text).join(' ')));
  const frequency = (word: string) => own.get(word) ?? 0;
  const sourceTitle = new Set(stems(source.title));
  const whole = stemCounts(source);
  for (const { sentence } of group)
    for (const phrase of nounPhrases(sentence.tokens, source.text)) {
      const known = stems(phrase);
      if (!known.length || taken.has(title(phrase)) || NAMES_NOTHING.test(phrase) || SHORT.test(phrase)) continue; // prettier-ignore
      // What the source speaks of here rather than all over names this section.
      const here = (s: string) => Math.max(0, frequency(s) - 0.5) ** 2 / Math.max(1, whole.get(s) ?? 1);
      const score =
        known.reduce((sum, s) => sum + here(s) - (sourceTitle.has(s) ? 1.2 : 0), 0) /
          Math.sqrt(known.length) +
        (known.length > 1 ? 0.4 : 0) +
        0.6 * sentence.fact.strength +
        // A plural or a name stands alone as a title; one countable thing wants its article.
        (/^the /.test(phrase) || /^\p{Lu}/u.test(phrase) || /s$/.test(phrase) ? 0.3 : 0) -
        (/^\p{Ll}\S*[^s\s]$/u.test(phrase) ? 1 : 0);
      counts.set(phrase, Math.max(counts.get(phrase) ?? -9, score));
    }
  const [phrase, score] = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0] ?? ['', 0];
  return phrase && score > 0 ? title(phrase) : firstWords(group[0].lines[0] ?? group[0].sentence.fact.text);
}

const LONGEST_TITLE = 36;
/** How a section begins, where nothing in it names it. */
function firstWords(line: string): string {
  const plain = line.replace(/^["“‘(]+|["”’)]+$/g, '').replace(/[.!?]+$/, '');
  return plain.length <= LONGEST_TITLE
    ? plain
    : `${plain
        .slice(0, LONGEST_TITLE)
        .replace(/\s\S*$/, '')
        .replace(/[,;:–—-]$/, '')} …`;
}

const LONGEST_PHRASE = 3;
const LONGEST_NAME = 4;
const WHEN = new RegExp(`^(?:${[...WEEKDAYS, ...MONTHS].join('|')})$`);
/** Adjective-noun runs of one to three words. Two plain nouns side by side are believed only when the source has them twice: one may be a verb. */
function nounPhrases(tokens: Unit['sentence']['tokens'], text: string): string[] {
  const out: string[] = [];
  for (let i = 0; i < tokens.length; i++) {
    let j = i;
    while (
      j < tokens.length &&
      (tokens[j].pos === 'ADJ' || tokens[j].pos === 'NOUN' || tokens[j].pos === 'PROPN') &&
      /^[\p{L}’'-]+$/u.test(tokens[j].text)
    )
      j++;
    const end = j;
    // "Grizzlies coach Ann Ware": of a long run its last name whole, which cut would be nobody's.
    let from = i;
    if (j - i > LONGEST_PHRASE) {
      from = j;
      while (from > i && tokens[from - 1].pos === 'PROPN') from--;
      if (j - from < 1 || j - from > LONGEST_NAME) from = j;
    }
    // "the storm Wednesday", "Kuneitra early Thursday": when is no part of what.
    while (j > from && (WHEN.test(tokens[j - 1].text) || /^(?:early|late)$/i.test(tokens[j - 1].text))) j--;
    const last = tokens[j - 1];
    while (from < j && VAGUE.test(tokens[from].text)) from++;
    const bare = tokens
      .slice(from, j)
      .map((t) => t.text)
      .join(' ');
    const doubtful =
      tokens.slice(from, j).filter((t) => t.pos === 'NOUN').length > 1 && text.split(bare).length < 3;
    // "The deck", as it is spoken of: a noun alone reads like a label.
    const known = from === i && i > 0 && /^the$/i.test(tokens[i - 1].text);
    // "another goes up", and "goes" elsewhere a verb: one word alone may be none.
    const acts =
      j === from + 1 &&
      last.pos === 'NOUN' &&
      (/^(?:up|down|out|off|away|back|on|in|over)$/.test(tokens[j]?.text ?? '') ||
        tokens.some((t) => t.pos === 'VERB' && t.text === last.text));
    if (
      j > from &&
      !doubtful &&
      !acts &&
      (last.pos === 'NOUN' || last.pos === 'PROPN') &&
      last.text.length > 2
    )
      out.push(known ? `the ${bare}` : bare);
    if (end > i) i = end - 1;
  }
  return out;
}
