/** From a source to its facts: one a sentence, with values, names, quotes and strength. */
import { z } from 'zod';
import { sentences } from '../language/sentences.ts';
import type { TaggedToken, Tagger } from '../language/tagger.ts';
import type { SourceDocument } from '../source/document.ts';
import { lexRank, stems } from './centrality.ts';
import { capitalWords, datesIn, namesIn, numbersIn, quotesIn } from './extract.ts';

const span = { start: z.number().int(), end: z.number().int() };

export const FACT_TYPES = ['statement', 'figure', 'event', 'quote', 'step', 'warning', 'definition'] as const;

export const factSchema = z.object({
  /** "f1", "f2"… in reading order. */
  id: z.string().regex(/^f\d+$/),
  /** The passage it stands in. */
  block: z.string(),
  /** Offsets into the document's text. */
  ...span,
  text: z.string(),
  type: z.enum(FACT_TYPES),
  numbers: z.array(z.object({ text: z.string(), value: z.number(), unit: z.string().optional(), ...span })),
  dates: z.array(z.object({ text: z.string(), iso: z.string(), ...span })),
  names: z.array(z.object({ text: z.string(), ...span })),
  quotes: z.array(z.object({ text: z.string(), ...span })),
  step: z.number().int().positive().optional(),
  /** 0 to 1: how strong it is, and the parts it is made of, each 0 to 1. */
  strength: z.number().min(0).max(1),
  parts: z.object({ central: z.number(), title: z.number(), concrete: z.number() }),
});
export type Fact = Readonly<z.infer<typeof factSchema>>;

const WARNING = /\b(?:never|do not|don[’']t|be careful|take care|warning|danger|make sure|wear)\b/i;
const DEFINITION = /^(?:The |An? )?[\p{L}\d,'’ ()-]{2,90}?\b(?:is|was|are|were) (?:an?|the|one of)\b/u;

/** A sentence with its tags, kept for the rooms that plan and draft. */
export interface TaggedSentence {
  fact: Fact;
  tokens: readonly TaggedToken[];
}

const clamp = (n: number) => Math.max(0, Math.min(1, n));

/**
 * Facts with their tags. Strength is 0.5 central (LexRank) + 0.3 shared with the title + 0.2 concrete (figures, dates,
 * names, quotes), the order of weight measured in trials on 25 pages.
 */
export function taggedFacts(source: SourceDocument, tagger: Tagger): TaggedSentence[] {
  const found = source.blocks
    .filter((b) => b.type !== 'heading' && b.type !== 'reply')
    .flatMap((block) => sentences(block.text).map((s) => ({ block, ...s })))
    .filter((s) => /\p{L}/u.test(s.text));
  const tokens = found.map((s) => tagger(s.text));
  const known = capitalWords(tokens);
  const central = lexRank(found.map((s) => s.text));
  const titleStems = new Set(stems(source.title));
  return found.map((s, i) => {
    const numbers = numbersIn(s.text);
    const dates = datesIn(s.text);
    const names = namesIn(s.text, tokens[i], known);
    const quotes = quotesIn(s.text);
    const own = new Set(stems(s.text));
    const shared = [...titleStems].filter((t) => own.has(t)).length;
    const parts = {
      central: central[i],
      title: titleStems.size ? clamp(shared / Math.min(3, titleStems.size)) : 0,
      concrete: clamp(0.3 * numbers.length + 0.3 * dates.length + 0.2 * names.length + 0.4 * quotes.length),
    };
    const strength =
      Math.round((0.5 * parts.central + 0.3 * parts.title + 0.2 * parts.concrete) * 1000) / 1000;
    const type: Fact['type'] =
      WARNING.test(s.text) && source.kind === 'howto'
        ? 'warning'
        : s.block.step
          ? 'step'
          : quotes.length
            ? 'quote'
            : dates.length
              ? 'event'
              : numbers.length
                ? 'figure'
                : DEFINITION.test(s.text)
                  ? 'definition'
                  : 'statement';
    const fact: Fact = {
      id: `f${i + 1}`,
      block: s.block.id,
      start: s.block.start + s.start,
      end: s.block.start + s.end,
      text: s.text,
      type,
      numbers,
      dates,
      names,
      quotes,
      ...(s.block.step ? { step: s.block.step } : {}),
      strength,
      parts,
    };
    return { fact, tokens: tokens[i] };
  });
}

/** The facts of a source. */
export function extractFacts(source: SourceDocument, tagger: Tagger): Fact[] {
  return taggedFacts(source, tagger).map((t) => t.fact);
}

/** Dated facts in order of time, for the timeline of `read`. */
export function timeline(facts: readonly Fact[]): { iso: string; text: string; fact: string }[] {
  return facts
    .flatMap((f) =>
      f.dates
        .filter((d) => /^\d{4}/.test(d.iso))
        .slice(0, 1)
        .map((d) => ({ iso: d.iso, text: f.text, fact: f.id })),
    )
    .sort((a, b) => (a.iso < b.iso ? -1 : a.iso > b.iso ? 1 : 0));
}

/** Numbered steps of a guide, each with the sentences that belong to it. */
export function steps(facts: readonly Fact[]): { step: number; text: string; facts: string[] }[] {
  const out = new Map<number, { step: number; text: string; facts: string[] }>();
  for (const f of facts) {
    if (!f.step) continue;
    const entry = out.get(f.step) ?? { step: f.step, text: '', facts: [] };
    entry.text += (entry.text ? ' ' : '') + f.text;
    entry.facts.push(f.id);
    out.set(f.step, entry);
  }
  return [...out.values()].sort((a, b) => a.step - b.step);
}

const PART_LABELS: readonly [RegExp, string][] = [
  [/^(?:background|introduction|context)\b/i, 'background'],
  [/^(?:objectives?|aims?|purpose)\b/i, 'aim'],
  [/^(?:methods?|materials and methods|design|setting)\b/i, 'method'],
  [/^(?:results?|findings)\b/i, 'results'],
  [/^(?:limitations?)\b/i, 'limits'],
  [/^(?:conclusions?|interpretation|discussion|significance)\b/i, 'conclusion'],
];

/** The part of a study a label names ("Results:", a heading "Methods"), or null. */
export function partOf(label: string): string | null {
  return PART_LABELS.find(([pattern]) => pattern.test(label))?.[1] ?? null;
}

/** The parts of a labelled abstract: part → fact ids. Empty when nothing is labelled. */
export function abstractParts(source: SourceDocument, facts: readonly Fact[]): Record<string, string[]> {
  const out: Record<string, string[]> = {};
  if (source.kind !== 'abstract') return out;
  for (const block of source.blocks) {
    const part =
      partOf(block.under ?? '') ?? (/^\w[\w ]{3,24}:/.test(block.text) ? partOf(block.text) : null);
    if (part) (out[part] ??= []).push(...facts.filter((f) => f.block === block.id).map((f) => f.id));
  }
  return out;
}
