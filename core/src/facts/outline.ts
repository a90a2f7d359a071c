/** What a source holds, by its kind: for each part the facts in it, in reading order. A fact may stand in several parts, or in none. */
import type { Block, SourceDocument, SourceKind } from '../source/document.ts';
import { partOf, type Fact } from './facts.ts';

export interface OutlinePart {
  id: string;
  /** For the writer. */
  name: string;
  facts: readonly string[];
}

interface Place {
  fact: Fact;
  block: Block;
  /** Place in the reading, 0 to 1. */
  at: number;
  /** The part of a study it is in, by label or cue. */
  study: string | null;
}
interface PartRule {
  id: string;
  name: string;
  holds: (place: Place, source: SourceDocument) => boolean;
}

const UNKNOWN =
  /\b(?:not (?:yet )?(?:been )?(?:known|clear|settled|decided|said|named|measured|tested)|unknown|unclear|remains to be|it is not clear|nobody knows|no one knows|has yet to|still to be)\b/i;
const DISPUTE =
  /\b(?:disputed?|argue[ds]?|argument|controvers\w+|critics?|opposed|opponents?|rejected|denied|disagree[ds]?|could not agree|doubt(?:ed|s)?|challenged)\b/i;
const TROUBLE =
  /\b(?:failed|broke|broken|parted|collapsed?|fire|flood(?:ed)?|wrecked|lost|closed|shut|died|killed|stuck|stopped|missing|wrong|trouble|accident|refused|drowned|burned)\b/i;
const TURN =
  /\b(?:but|until|then|instead|suddenly|turned out|one day|last (?:week|month|Tuesday|Monday|Wednesday|Thursday|Friday|year)|the next day|when I|in (?:January|February|March|April|May|June|July|August|September|October|November|December) I)\b/i;
const TODAY = /\b(?:today|now|still|at present|since (?:19[5-9]|20)\d\d|nowadays|currently)\b/i;
const heading = (p: Place) => p.block.under ?? '';

const RULES: Readonly<Record<SourceKind, readonly PartRule[]>> = {
  news: [
    { id: 'happened', name: 'what happened', holds: (p) => p.at < 0.45 && !UNKNOWN.test(p.fact.text) && p.fact.type !== 'opinion' && p.fact.quotes.length === 0 },
    { id: 'quoted', name: 'who is quoted', holds: (p) => p.fact.quotes.length > 0 || (p.fact.attribution !== undefined && p.fact.type === 'opinion') },
    { id: 'background', name: 'background', holds: (p, s) => p.fact.dates.some((d) => /^\d{4}/.test(d.iso) && s.published !== undefined && d.iso.slice(0, 4) < s.published.slice(0, 4)) || (p.at >= 0.45 && /\b(?:had|was (?:built|opened|founded))\b/.test(p.fact.text)) },
    { id: 'next', name: 'what comes next', holds: (p) => /\b(?:will|plans? to|is to|are to|due to be|proposed to|next (?:week|month|year))\b/.test(p.fact.text) },
    { id: 'unknown', name: 'still unknown', holds: (p) => UNKNOWN.test(p.fact.text) },
  ],
  encyclopedia: [
    { id: 'definition', name: 'what it is', holds: (p) => p.at < 0.12 && p.fact.type === 'definition' || p.at === 0 },
    { id: 'origin', name: 'how it came to be', holds: (p) => /\b(?:origins?|background|history|founding|construction|design|building|invention|discovery|early)\b/i.test(heading(p)) || (!heading(p) && /\b(?:built|founded|opened|begun|invented|first)\b/.test(p.fact.text)) },
    { id: 'workings', name: 'how it works', holds: (p) => /\b(?:how it works|principle|mechanism|operation|method|function|making|process|working)\b/i.test(heading(p)) },
    { id: 'turning', name: 'turning points', holds: (p) => p.fact.dates.length > 0 && TROUBLE.test(p.fact.text) },
    { id: 'disputes', name: 'disputes', holds: (p) => DISPUTE.test(p.fact.text) },
    { id: 'today', name: 'today', holds: (p) => /\b(?:today|present|legacy|protection|current)\b/i.test(heading(p)) || (TODAY.test(p.fact.text) && p.at > 0.5) },
  ],
  abstract: [
    ...(['background', 'aim', 'method'] as const).map((id): PartRule => ({ id, name: id, holds: (p) => p.study === id })),
    { id: 'sample', name: 'sample', holds: (p) => p.study === 'method' && p.fact.numbers.some((n) => n.value >= 5) && /\b(?:sample[ds]?|participants?|patients?|people|pairs|sites?|tagged|recorded|recruited|surveyed|nests?|boxes|streets|adults|children|women|men|\w+s in)\b/i.test(p.fact.text) },
    { id: 'results', name: 'results', holds: (p) => p.study === 'results' },
    { id: 'effects', name: 'effect sizes', holds: (p) => p.study === 'results' && p.fact.numbers.length > 0 },
    ...(['limits', 'conclusion'] as const).map((id): PartRule => ({ id, name: id, holds: (p) => p.study === id })),
  ],
  forum: [
    { id: 'teller', name: 'who tells it', holds: (p) => /\bI (?:am|was|work|have worked|have been|moved|live[d]?|grew)\b/.test(p.fact.text) && p.at < 0.4 },
    { id: 'situation', name: 'how things stood', holds: (p) => p.at < 0.3 },
    { id: 'trouble', name: 'trouble', holds: (p) => TROUBLE.test(p.fact.text) || /\b(?:ashamed|afraid|angry|lied|forgot|never (?:told|asked|looked))\b/.test(p.fact.text) },
    { id: 'turns', name: 'turns', holds: (p) => TURN.test(p.fact.text) && p.at >= 0.2 },
    { id: 'exchanges', name: 'what was said', holds: (p) => p.fact.quotes.length > 0 || /\b(?:asked|told|said to) (?:me|him|her|them)\b/.test(p.fact.text) },
    { id: 'outcome', name: 'how it ended', holds: (p) => p.at > 0.85 },
    { id: 'updates', name: 'later updates', holds: (p) => /^(?:edit|update)\b/i.test(p.block.text) },
  ],
  howto: [
    { id: 'needs', name: 'what you need', holds: (p) => !p.block.step && /\b(?:need|tools?|materials?|equipment|ingredients)\b/i.test(heading(p)) },
    { id: 'steps', name: 'steps', holds: (p) => p.fact.step !== undefined },
    { id: 'quantities', name: 'quantities and times', holds: (p) => p.fact.numbers.length > 0 && (p.fact.step !== undefined || p.fact.type !== 'step') },
    { id: 'warnings', name: 'warnings', holds: (p) => p.fact.type === 'warning' },
    { id: 'why', name: 'why', holds: (p) => /\b(?:because|so that|otherwise|which is why|the reason|to (?:stop|keep|avoid|prevent))\b/i.test(p.fact.text) },
    { id: 'pitfalls', name: 'what can go wrong', holds: (p) => /^If (?:it|the|you|a|both)\b/.test(p.fact.text) || /\b(?:if it still|goes wrong|trouble|problems?)\b/i.test(heading(p)) || /\b(?:most people forget|too (?:deep|much|long|hard)|more than that)\b/i.test(p.fact.text) },
  ],
  interview: [
    { id: 'turns', name: 'what was said', holds: (p) => p.block.type === 'turn' },
    { id: 'questions', name: 'questions', holds: (p) => /\?["”]?$/.test(p.fact.text) },
    { id: 'figures', name: 'figures', holds: (p) => p.fact.numbers.length > 0 || p.fact.dates.length > 0 },
  ],
}; // prettier-ignore

/** Cue phrases of unlabelled abstracts, the surest first (the moves of Swales 1990 and Hyland 2000; cues from memory). */
const CUES: readonly [string, RegExp][] = [
  [
    'limits',
    /\b(?:limitations?|small sample|caution|only one (?:site|town|season)|cannot rule out|(?:we|they) (?:did not|didn[’']t|could not|couldn[’']t) (?:measure|test|ask|follow|look|study|record|know|tell|control|find out)|(?:was|were) not (?:measured|tested|studied|followed|controlled)|can(?:not|[’']t) be (?:told|known|settled)|our \w+ were few|were few and|is unknown|remains unknown|not settled|may have (?:treated|changed|affected|influenced)|(?:all|every) (?:of )?(?:the )?\w+ (?:were|was|came) (?:on|from|in) (?:one|a single|flat)|had agreed to take part)\b/i,
  ],
  [
    'conclusion',
    /\b(?:these results|our (?:results|findings)|we conclude|this study (?:shows|suggests)|suggests? that|indicate that|implications?|in conclusion|may therefore|could (?:take|help|reduce))\b/i,
  ],
  [
    'aim',
    /\b(?:we (?:aimed|asked|set out|sought|tested whether|wanted)|the aim|to (?:test|determine|find out|examine) (?:whether|if|how)|our (?:aim|objective|question))\b/i,
  ],
  [
    'method',
    /^(?:Here,? )?We \w+ed\b|\b(?:we (?:measured|recorded|tagged|sampled|surveyed|compared|used|collected|counted|followed|interviewed|recruited|fitted|analysed|analyzed|randomly)|were (?:measured|recorded|tagged|sampled|randomi[sz]ed|assigned|collected|recruited)|data (?:were|from))\b/i,
  ],
  [
    'results',
    /\b(?:we found|found no|fell|rose|increased|decreased|dropped|higher|lower|less|more|times as|did not|no difference|significant(?:ly)?|held|needed|slept)\b.*\d|\d.*\b(?:fell|rose|increased|decreased|higher|lower|less|more|times as|significant(?:ly)?)\b|\bwe found\b|\bp\s?[<=>]|\b(?:longer|shorter|faster|slower|better|worse|fewer|larger|smaller|greater) than\b|\bno (?:difference|effect|change)\b/i,
  ],
];

/** The part of a study a sentence belongs to, by its label or its cue; without either it goes on with the part before. */
export function studyPart(place: { block: Block; fact: Fact }, before: string | null): string {
  const labelled =
    partOf(place.block.under ?? '') ??
    (/^\w[\w ]{2,24}:/.test(place.block.text) ? partOf(place.block.text) : null);
  if (labelled) return labelled === 'conclusion' && CUES[0][1].test(place.fact.text) ? 'limits' : labelled;
  const cue = CUES.find(([, pattern]) => pattern.test(place.fact.text))?.[0];
  // Parts come in order: what has no cue goes on with the part before.
  return cue ?? before ?? 'background';
}

/** Parts with at least one fact, in the order of their kind. */
export function outlineOf(source: SourceDocument, facts: readonly Fact[]): OutlinePart[] {
  // What the writer knows stands in no passage.
  const found = facts.filter((f) => f.own === undefined);
  const blocks = new Map(source.blocks.map((b) => [b.id, b]));
  let study: string | null = null;
  const places = found.map((fact, i): Place => {
    const block = blocks.get(fact.block)!;
    if (source.kind === 'abstract') study = studyPart({ block, fact }, study);
    return { fact, block, at: found.length > 1 ? i / (found.length - 1) : 0, study };
  });
  return RULES[source.kind]
    .map(({ id, name, holds }) => ({
      id,
      name,
      facts: places.filter((p) => holds(p, source)).map((p) => p.fact.id),
    }))
    .filter((p) => p.facts.length > 0);
}

/** What is thin in a source, in words for the writer; empty when nothing is. An interview's turns are somebody's own words without quotation marks. */
export function thinIn(facts: readonly Fact[]): string[] {
  const names = facts.flatMap((f) => f.names);
  const count = (type: string) => new Set(names.filter((n) => n.type === type).map((n) => n.text)).size;
  const numbers = facts.reduce((n, f) => n + f.numbers.length, 0);
  return [
    ...(count('person') === 0 ? ['no person'] : []),
    ...(count('place') === 0 ? ['no place'] : []),
    ...(numbers === 0 ? ['no number'] : numbers === 1 ? ['one number'] : []),
    ...(facts.every((f) => f.dates.length === 0) ? ['no date'] : []),
    ...(facts.every((f) => f.quotes.length === 0 && f.type !== 'quote') ? ['nobody’s own words'] : []),
  ];
}
