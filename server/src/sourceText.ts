/** A source as it is stored and sent: texts of JSON, made where it is read and opened where it is worked on, never on the server's own thread. */
import {
  castOf,
  glossaryOf,
  outlineOf,
  thinIn,
  timeline,
  type Fact,
  type PackedTags,
  type StoredFacts,
} from '@ursprung/core/facts';
import { sketchOf, type SourceDocument } from '@ursprung/core/source';
import type { ReviewSource } from '@ursprung/core/review';
import type { StoredSource } from './drafting.ts';
import { getClock } from './tools.ts';

/** As it is told from; what the writer knows is small and stays as it is. */
export interface SourceText {
  document: string;
  facts: string;
  tags: string | null;
  own: StoredFacts;
}
export const openedText = ({ document, facts, tags, own }: SourceText): StoredSource => ({
  document: JSON.parse(document) as SourceDocument,
  facts: JSON.parse(facts) as Fact[],
  tags: tags === null ? null : (JSON.parse(tags) as PackedTags[]),
  own,
});

/** A source as notes and answers are held to it. */
export function reviewed({ letter, ...text }: { letter: string } & SourceText): ReviewSource {
  const { document, facts, own } = openedText(text);
  return {
    letter,
    text: document.text,
    facts: [...facts, ...own.facts],
    kind: document.kind,
    ...(document.published ? { published: document.published } : {}),
  };
}

/** What a source holds, worked out once: the parts of its view, and what the library shows of it. */
export interface Outlook {
  outline: unknown;
  cast: unknown;
  glossary: unknown;
  thin: unknown;
  timeline: unknown;
}
export interface SourceSummary {
  kind: string;
  publisher: string | null;
  published: string | null;
  /** How long each passage lasts, read aloud. */
  ms: number[];
  /** The passage of each fact, by its id. */
  at: Record<string, number>;
}

export interface KeptTexts {
  title: string;
  licence: string | null;
  document: string;
  facts: string;
  tags: string;
  outlook: string;
  summary: string;
  sketch: string;
}

export function outlookOf(
  document: SourceDocument,
  facts: readonly Fact[],
): { outlook: Outlook; summary: SourceSummary } {
  const passages = document.blocks.filter((b) => b.type !== 'heading');
  const place = new Map(passages.map((b, i) => [b.id, i]));
  const clock = getClock();
  return {
    outlook: {
      outline: outlineOf(document, facts),
      cast: castOf(facts),
      glossary: glossaryOf(facts),
      thin: thinIn(facts),
      timeline: timeline(facts),
    },
    summary: {
      kind: document.kind,
      publisher: document.publisher ?? null,
      published: document.published ?? null,
      ms: passages.map((b) => Math.round(clock.time(b.text).ms)),
      at: Object.fromEntries(facts.flatMap((f) => (place.has(f.block) ? [[f.id, place.get(f.block)!]] : []))),
    },
  };
}

export function keptTexts(
  document: SourceDocument,
  facts: readonly Fact[],
  tags: readonly PackedTags[],
): KeptTexts {
  const { outlook, summary } = outlookOf(document, facts);
  return {
    title: document.title,
    licence: document.licence ?? null,
    document: JSON.stringify(document),
    facts: JSON.stringify(facts),
    tags: JSON.stringify(tags),
    outlook: JSON.stringify(outlook),
    summary: JSON.stringify(summary),
    sketch: JSON.stringify(sketchOf(document.text)),
  };
}
