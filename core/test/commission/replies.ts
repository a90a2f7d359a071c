/** Sixty replies of our own making, each line labelled with the facts it uses and the faults planted in it. */
import { readFileSync } from 'node:fs';
import { extractFacts, type Fact } from '../../src/facts/index.ts';
import { byPlace } from '../places.ts';
import { openSource, type SourceDocument } from '../../src/source/index.ts';
import { LONG_PAGES } from '../draft/pages.ts';
import { demoFile, tagger } from '../tools.ts';

export interface LabelledLine {
  text: string;
  facts: readonly string[];
  faults: readonly string[];
}
export interface LabelledReply {
  name: string;
  source: SourceDocument;
  facts: readonly Fact[];
  lines: readonly LabelledLine[];
  must: readonly string[];
  missing: readonly string[];
  never: readonly string[];
  seconds: number | null;
}

const known = new Map<string, { source: SourceDocument; facts: readonly Fact[] }>();
for (const file of ['footbridge.html', 'boat-lift.md']) {
  const source = await openSource(demoFile(file));
  known.set(`demo:${file}`, { source, facts: byPlace(extractFacts(source, tagger)) });
}
function pageOf(name: string) {
  let page = known.get(name);
  if (!page) {
    const { source } = LONG_PAGES.find((p) => p.name === name)!;
    known.set(name, (page = { source, facts: byPlace(extractFacts(source, tagger)) }));
  }
  return page;
}
const list = (words: string | undefined) => (words ?? '').split(/[\s,]+/).filter(Boolean);

function replyOf(block: string): LabelledReply {
  const [head, ...rows] = block.trim().split('\n');
  const [name, page] = head.split(' ');
  const setting = (key: string) => rows.find((r) => r.startsWith(`${key} `))?.slice(key.length + 1);
  return {
    name,
    ...pageOf(page),
    lines: rows.flatMap((row) => {
      const m = /^(.*) \{([^|}]*)(?:\|([^}]*))?\}$/.exec(row);
      return m ? [{ text: m[1], facts: list(m[2]), faults: list(m[3]) }] : [];
    }),
    must: list(setting('must')),
    missing: list(setting('missing')),
    never: list(setting('never')),
    seconds: setting('seconds') ? Number(setting('seconds')) : null,
  };
}

const repliesIn = (file: string): readonly LabelledReply[] =>
  readFileSync(new URL(file, import.meta.url), 'utf8')
    .split(/^== /m)
    .slice(1)
    .map(replyOf);

/** Looked at while the checks were written. */
export const SEEN = repliesIn('replies-seen.txt');
/** Written before the checks, and first run when they were done. */
export const UNSEEN = repliesIn('replies-unseen.txt');
/** Written after the first mending, and run once before anything was changed for them. */
export const THIRD = repliesIn('replies-third.txt');
/** Written last, on the demo's sources, and run once before anything was changed for them. */
export const FOURTH = repliesIn('replies-fourth.txt');
