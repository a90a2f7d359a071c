/** What the writer knows, and what they chose of a source's words, as facts beside those that were found. */
import { z } from 'zod';
import type { Tagger } from '../language/tagged.ts';
import type { Block, SourceDocument } from '../source/document.ts';
import { taggedFacts, type Fact, type TaggedSentence } from './facts.ts';

export const ownFactSchema = z.object({
  /** "w1", "w2"… */
  id: z.string(),
  text: z.string(),
  /** Offsets when it was taken from the source's words; absent for what the writer knows. */
  start: z.number().int().nonnegative().optional(),
  end: z.number().int().nonnegative().optional(),
});
export type OwnFact = z.infer<typeof ownFactSchema>;

export const isKnown = (own: OwnFact): boolean => own.start === undefined;

/** The passage of a fact that the writer knows: it stands in no source. */
export const ownBlock = ({ id, text }: { id: string; text: string }): Block => ({
  id: `own-${id}`,
  type: 'paragraph',
  text,
  start: 0,
  end: text.length,
});

/** Own facts taken apart as a source's are. Each is one fact of its own id, however many sentences it has. */
export function ownTagged(source: SourceDocument, own: readonly OwnFact[], tagger: Tagger): TaggedSentence[] {
  return own.flatMap((o) => {
    // Facts of its sentences, read as one passage of this source.
    const text = o.text.trim();
    const document = { ...source, text, blocks: [{ ...ownBlock({ ...o, text }) }] };
    const made = taggedFacts(document, tagger);
    if (!made.length) return [];
    const [{ fact }] = made;
    const shifted = made.flatMap(({ fact: f, tokens }) =>
      tokens.map((t) => ({ ...t, start: t.start + f.start, end: t.end + f.start })),
    );
    const spans = <T extends { start: number; end: number }>(of: (f: Fact) => readonly T[]): T[] =>
      made.flatMap((m) =>
        of(m.fact).map((s) => ({ ...s, start: s.start + m.fact.start, end: s.end + m.fact.start })),
      );
    const place =
      o.start === undefined ? null : source.blocks.find((b) => o.start! >= b.start && o.start! < b.end);
    const whole: Fact = {
      ...fact,
      id: o.id,
      own: isKnown(o) ? 'known' : 'chosen',
      block: place?.id ?? `own-${o.id}`,
      start: o.start ?? 0,
      end: o.end ?? text.length,
      text,
      numbers: spans((f) => f.numbers),
      dates: spans((f) => f.dates),
      times: spans((f) => f.times),
      names: spans((f) => f.names),
      quotes: spans((f) => f.quotes),
      leans: [],
    };
    return [{ fact: whole, tokens: shifted }];
  });
}

/** The facts of the source that have words of a chosen stretch: they are told where it is to be told. */
export const chosenIn = (own: OwnFact, facts: readonly Fact[]): string[] =>
  own.start === undefined || own.end === undefined
    ? []
    : facts.filter((f) => f.start < own.end! && f.end > own.start!).map((f) => f.id);
