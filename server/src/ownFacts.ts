/** What the writer knows or chose, taken apart as a source's own facts are. */
import { ownTagged, packTags, type Fact, type OwnFact, type PackedTags } from '@ursprung/core/facts';
import type { SourceDocument } from '@ursprung/core/source';
import { getTagger } from './tools.ts';

/** Null for one that says nothing. */
export function ownMade(document: SourceDocument, own: OwnFact): { fact: Fact; tags: PackedTags } | null {
  const [made] = ownTagged(document, [own], getTagger());
  return made ? { fact: made.fact, tags: packTags(made.tokens) } : null;
}

/** Chosen words and where they stand, without the spaces around them; null where they are too few or too many. */
export function chosenWords(
  document: SourceDocument,
  { start, end }: { start: number; end: number },
): { text: string; start: number; end: number } | null {
  const raw = document.text.slice(start, end);
  const text = raw.trim();
  if (text.length < 3 || text.length > 600 || end <= start) return null;
  const at = start + raw.indexOf(text);
  return { text, start: at, end: at + text.length };
}
