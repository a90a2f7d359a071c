/** What the library shows of a script, worked out once for each of its states and kept beside it. */
import { createHash } from 'node:crypto';
import { clockLines, upgradedDoc, FORMAT } from '@ursprung/core/script';
import type { Saying } from './api.ts';
import { expected, type WorkResult } from './drafting.ts';
import { readable } from './stored.ts';
import { getClock } from './tools.ts';

export interface ScriptSummary {
  /** The state it was made of. */
  key: string;
  sections: { title: string; role: string; ms: number }[];
  ms: number;
  words: number;
  /** The facts that are heard, by the letter of their source. */
  heard: Record<string, string[]>;
  /** What is stored can't be read. */
  broken: boolean;
}

/** The state of a script that its times hang on: its words, its settings, how its channel says words. */
export const summaryKey = (
  row: { version: number; settingsRevision: number },
  sayings: readonly Saying[] | undefined,
): string =>
  `1:${row.version}:${row.settingsRevision}:${createHash('sha1').update(JSON.stringify(sayings ?? [])).digest('base64url').slice(0, 12)}`; // prettier-ignore

export interface SummaryTask {
  scripts: {
    key: string;
    /** JSON as it is stored, in its format. */
    doc: string;
    format: number;
    voice: string;
    pace: number;
    sayings: readonly Saying[];
  }[];
}

export const summaries = ({ scripts }: SummaryTask): Promise<WorkResult<ScriptSummary[]>> =>
  expected(() => scripts.map(summaryOf));

function summaryOf({
  key,
  doc,
  format,
  voice,
  pace,
  sayings,
}: SummaryTask['scripts'][number]): ScriptSummary {
  const json: unknown = JSON.parse(doc);
  const sections = readable({ doc: format < FORMAT ? upgradedDoc(json, format) : json });
  const times = getClock(voice, pace, sayings).lines(clockLines(sections ?? []));
  let at = 0;
  const parts = (sections ?? []).map((s) => ({
    title: s.title,
    role: s.role,
    ms: s.lines.reduce((sum) => sum + times[at++].ms, 0),
  }));
  const heard: Record<string, Set<string>> = {};
  for (const { from } of (sections ?? []).flatMap((s) => s.lines))
    for (const { source, fact } of from) if (fact) (heard[source] ??= new Set()).add(fact);
  return {
    key,
    sections: parts,
    ms: parts.reduce((sum, p) => sum + p.ms, 0),
    words: times.reduce((sum, t) => sum + t.words, 0),
    heard: Object.fromEntries(Object.entries(heard).map(([letter, ids]) => [letter, [...ids]])),
    broken: sections === null,
  };
}
