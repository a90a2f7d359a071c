/** Sources printed inside a script file, as they were read: facts keep the ids that its lines rest on. */
import {
  carried,
  ownTagged,
  taggedFacts,
  type Fact,
  type OwnFact,
  type TaggedSentence,
} from '@ursprung/core/facts';
import type { Tagger } from '@ursprung/core/tagger';
import type { ScriptFile } from '@ursprung/core/script';
import { sourceDocumentSchema, type SourceDocument } from '@ursprung/core/source';

type Printed = ScriptFile['sources'][number];

/** A printed source as the document it was, offsets laid anew; null when its passages are not there. */
function documentOf(printed: Printed): SourceDocument | null {
  const blocks = (printed as { blocks?: unknown }).blocks;
  if (!Array.isArray(blocks)) return null;
  let at = 0;
  const placed = (blocks as Record<string, unknown>[]).map((b) => {
    const text = typeof b.text === 'string' ? b.text : '';
    const start = at;
    at += text.length + 2;
    return {
      ...b,
      text,
      start,
      end: start + text.length,
      ...(typeof b.at === 'number' ? { atMs: Math.round(b.at * 1000) } : {}),
    };
  });
  const parsed = sourceDocumentSchema.safeParse({
    version: 1,
    kindReason: '',
    format: 'script file',
    language: 'en',
    ...printed,
    text: placed.map((b) => b.text).join('\n\n'),
    blocks: placed,
  });
  return parsed.success ? parsed.data : null;
}

const printedFacts = (printed: Printed): { id: string; text: string; own?: unknown }[] => {
  const { facts } = printed as { facts?: unknown };
  return (Array.isArray(facts) ? (facts as { id?: unknown; text?: unknown; own?: unknown }[]) : []).flatMap(
    ({ id, text, own }) => (typeof id === 'string' && typeof text === 'string' ? [{ id, text, own }] : []),
  );
};

export interface FileSource {
  letter: string;
  document: SourceDocument;
  tagged: TaggedSentence[];
  /** What the writer knows beside it. */
  own: TaggedSentence[];
  facts: Fact[];
}

/** Those of the file's sources that hold their passages. */
export function sourcesOfFile(file: ScriptFile, tagger: Tagger): FileSource[] {
  return file.sources.flatMap((printed) => {
    const document = documentOf(printed);
    if (!document) return [];
    const known = printedFacts(printed);
    const { facts: tagged } = carried(
      known.filter((f) => !f.own),
      taggedFacts(document, tagger),
    );
    const ownFacts = known.filter((f) => f.own === 'known').map(({ id, text }): OwnFact => ({ id, text }));
    const own = ownTagged(document, ownFacts, tagger);
    return [{ letter: printed.id, document, tagged, own, facts: [...tagged, ...own].map((t) => t.fact) }];
  });
}
