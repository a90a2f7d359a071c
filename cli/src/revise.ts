/** `revise`: a note on a script file, answered as a proposed change. */
import type { DraftTools } from '@ursprung/core/draft';
import { extractFacts } from '@ursprung/core/facts';
import { propose, tellerOf, type ReviseTools } from '@ursprung/core/revise';
import { scriptFile, sectionsOfFile, type ScriptFile } from '@ursprung/core/script';
import { sourceDocumentSchema, type SourceDocument } from '@ursprung/core/source';
import { seconds } from '@ursprung/core/timing';
import { UsageError } from './input.ts';

/** A source printed inside a script file as the document it was, offsets laid anew; null when its passages are not there. */
export function documentOf(printed: ScriptFile['sources'][number]): SourceDocument | null {
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

export function reviseFile(
  file: ScriptFile,
  note: string,
  tools: ReviseTools & { draft: DraftTools },
): {
  understood: unknown;
  changes: unknown;
  script: ScriptFile;
  secondsBefore: number;
  secondsAfter: number;
  notes: string[];
} {
  const documents = file.sources.flatMap((s) => {
    const document = documentOf(s);
    return document ? [{ letter: s.id, document }] : [];
  });
  const [{ document: source } = { document: null }, ...others] = documents;
  const sections = sectionsOfFile(file);
  let n = 0;
  const result = propose(
    note,
    {
      sections,
      selection: null,
      title: file.title,
      sources: documents.map(({ letter, document }) => ({
        letter,
        text: document.text,
        facts: extractFacts(document, tools.tagger),
      })),
      fresh: () => `new${++n}`,
    },
    {
      ...tools,
      ...(source
        ? {
            teller: tellerOf(
              source,
              { target: file.target, mood: file.mood ?? 'calm', seed: file.seed, others },
              tools.draft,
            ),
          }
        : {}),
    },
  );
  if ('cannot' in result) {
    const took = result.took ? ` It was taken to mean “${result.took}”.` : '';
    const nearest = result.nearest.length ? ` Nearest: ${result.nearest.join('; ')}.` : '';
    throw new UsageError(`${result.cannot}${took}${nearest}`);
  }
  const { proposal } = result;
  const script = scriptFile(
    { ...file, mood: file.mood ?? 'calm' },
    proposal.sections,
    tools.clock,
    file.sources,
  );
  return {
    understood: proposal.understood,
    changes: proposal.changes,
    script,
    secondsBefore: seconds(proposal.beforeMs),
    secondsAfter: seconds(proposal.afterMs),
    notes: proposal.notes,
  };
}
