import type { SourceDocument, SourceKind } from '../../source/document.ts';

export const SHAPE_IDS = ['chronicle', 'question', 'steps'] as const;
export type ShapeId = (typeof SHAPE_IDS)[number];

/** How a story runs. */
export interface Shape {
  id: ShapeId;
  name: string;
  /** In one sentence, for the writer. */
  says: string;
  /** How well it suits a source, 0 to 1, and why. 0: it can't be told this way. */
  suits: (source: SourceDocument) => { score: number; reason: string };
  /** Whether sections open with a question on their own subject. */
  asks: boolean;
  /** Whether numbered steps are told all and in order. */
  counts: boolean;
}

const BY_KIND: Record<ShapeId, Record<SourceKind, [number, string]>> = {
  chronicle: {
    news: [0.8, 'a report told from its newest fact on'],
    encyclopedia: [0.7, 'told in the order it came to be'],
    abstract: [0.4, 'a study has parts rather than a course of events'],
    forum: [0.9, 'one person’s story in the order it happened'],
    howto: [0.1, 'a guide’s steps are no events'],
    interview: [0.6, 'told in the order it was said'],
  },
  question: {
    news: [0.5, 'asks what a listener would ask'],
    encyclopedia: [0.75, 'its headings are answers to plain questions'],
    abstract: [0.9, 'a study is a question and its answer'],
    forum: [0.2, 'a story loses its pull when it is questioned'],
    howto: [0.2, 'a guide answers one question only'],
    interview: [0.5, 'it was questions and answers already'],
  },
  steps: {
    news: [0, 'it has no numbered steps'],
    encyclopedia: [0, 'it has no numbered steps'],
    abstract: [0, 'it has no numbered steps'],
    forum: [0, 'it has no numbered steps'],
    howto: [0.95, 'it has numbered steps'],
    interview: [0, 'it has no numbered steps'],
  },
};

export const byKind = (id: ShapeId, source: SourceDocument) => {
  const [score, reason] = BY_KIND[id][source.kind];
  return { score, reason };
};
