/** A script drafted from a demo source, as an order is written from it. */
import { readFileSync } from 'node:fs';
import {
  orderedSections,
  makeReplyChecker,
  replyOrder,
  commissionSource,
  type CommissionContext,
} from '../../src/commission/index.ts';
import { draftScript } from '../../src/draft/index.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { openKin } from '../../src/language/index.ts';
import { spineOf, usualBrief } from '../../src/plan/index.ts';
import { openSource, type SourceDocument } from '../../src/source/index.ts';
import { clock, demoFile, solver, tagger } from '../tools.ts';

export const kin = openKin(readFileSync(new URL('../../dist/kin.tsv', import.meta.url), 'utf8'));

/** A document as a checker takes it. */
export const sourceOf = (document: SourceDocument) =>
  commissionSource('A', document, extractFacts(document, tagger));

const made = new Map<string, Promise<CommissionContext>>();
/** Drafted once for all tests that ask for it. */
export function demoContext(file: string, seconds: number): Promise<CommissionContext> {
  const key = `${file} ${seconds}`;
  const known = made.get(key) ?? drafted(file, seconds);
  made.set(key, known);
  return known;
}

const drafted = async (file: string, seconds: number) => contextOf(await openSource(demoFile(file)), seconds);

/** A draft of a document, as an order is written from it. */
export async function contextOf(document: SourceDocument, seconds: number): Promise<CommissionContext> {
  const { sections } = draftScript(
    document,
    { target: { kind: 'point', seconds }, mood: 'calm', seed: 1 },
    { tagger, clock, solver: await solver() },
  );
  const source = sourceOf(document);
  return {
    title: document.title,
    promise: '',
    angle: '',
    spine: spineOf({ letter: 'A', source: document, facts: source.facts }),
    channel: 'Quiet Machinery',
    frame: '16:9',
    mood: 'calm',
    pace: 150,
    target: { kind: 'point', seconds },
    brief: usualBrief(),
    style: null,
    sections,
    sources: [source],
    must: [],
    out: [],
  };
}

export const checkerOf = (context: CommissionContext, never: readonly string[] = []) =>
  makeReplyChecker(
    context.sources,
    { ...replyOrder(context, orderedSections(context, clock)), never },
    { tagger, kin, clock },
  );
