/** `revise`: a note on a script file, answered as a proposed change. */
import { z } from 'zod';
import type { DraftOptions, DraftTools } from '@ursprung/core/draft';
import { briefSchema, fixedSchema, partSchema, promiseSchema } from '@ursprung/core/plan';
import { propose, tellerOf, type ReviseTools } from '@ursprung/core/revise';
import type { Kin } from '@ursprung/core/language';
import { scriptFile, sectionsOfFile, type ScriptFile } from '@ursprung/core/script';
import { seconds } from '@ursprung/core/timing';
import { UsageError } from './input.ts';
import { sourcesOfFile, type FileSource } from './sources.ts';

/** How the file's own script is told: by its brief, its fixed parts and what it promises, as on the page. */
function optionsOf(file: ScriptFile, first: FileSource, others: readonly FileSource[]): DraftOptions {
  const brief = briefSchema.safeParse(file.brief ?? {});
  const promise = promiseSchema.safeParse(file.promise ?? {});
  const fixed = z.array(fixedSchema).safeParse(file.fixed ?? []);
  const parts = z.array(partSchema).safeParse(file.parts ?? []);
  const { pays, angle, reveal } = promise.success ? promise.data : {};
  return {
    target: file.target,
    mood: file.mood ?? 'calm',
    seed: file.seed,
    letter: first.letter,
    tagged: first.tagged,
    own: first.own,
    others,
    ...(file.brief && brief.success ? { brief: brief.data } : {}),
    ...(fixed.success && fixed.data.length ? { fixed: fixed.data } : {}),
    ...(parts.success && parts.data.length ? { parts: parts.data } : {}),
    must: pays ? [`${pays.source}:${pays.fact}`] : [],
    favour: angle?.facts.map((f) => `${f.source}:${f.fact}`) ?? [],
    ...(reveal ? { reveal } : {}),
  };
}

export function reviseFile(
  file: ScriptFile,
  note: string,
  tools: ReviseTools & { draft: DraftTools; kin: Kin },
): {
  understood: unknown;
  changes: unknown;
  script: ScriptFile;
  secondsBefore: number;
  secondsAfter: number;
  notes: string[];
} {
  const read = sourcesOfFile(file, tools.tagger);
  const [first, ...others] = read;
  const sections = sectionsOfFile(file);
  let n = 0;
  const result = propose(
    note,
    {
      sections,
      selection: null,
      title: file.title,
      pace: file.pace,
      kin: tools.kin,
      sources: read.map(({ letter, document, facts }) => ({ letter, text: document.text, facts })),
      fresh: () => `new${++n}`,
    },
    {
      ...tools,
      ...(first ? { teller: tellerOf(first.document, optionsOf(file, first, others), tools.draft) } : {}),
    },
  );
  if ('cannot' in result) {
    const took = result.took ? ` It was taken to mean “${result.took}”.` : '';
    const nearest = result.nearest.length ? ` Nearest: ${result.nearest.join('; ')}.` : '';
    throw new UsageError(`${result.cannot}${took}${nearest}`);
  }
  const { proposal } = result;
  const pace = proposal.settings?.pace;
  const script = scriptFile(
    { ...file, ...proposal.settings, mood: file.mood ?? 'calm' },
    proposal.sections,
    pace && tools.clockAt ? tools.clockAt(pace) : tools.clock,
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
