/** A process that reads what comes from outside, one file after another, and nothing else. Its parent ends it when it takes too much. */
import { carried, storedOf, taggedFacts, type Fact, type PackedTags } from '@ursprung/core/facts';
import { draftText } from '@ursprung/core/drafts';
import { readXliff, type XliffRead } from '@ursprung/core/handoff';
import { readDraft, type CleanedDraft, type PlainSection } from '@ursprung/core/script';
import { openSource, type SourceDocument, type SourceKind } from '@ursprung/core/source';
import { expected, type WorkResult } from './drafting.ts';
import { getTagger } from './tools.ts';

/** What is stored of a source when it was read. */
export interface ReadResult {
  document: SourceDocument;
  facts: Fact[];
  tags: PackedTags[];
}
export type Renewed = ReadResult & { moved: [string, readonly string[]][]; lost: string[] };

export type ReaderTask =
  | { what: 'read'; bytes: Uint8Array; kind?: SourceKind }
  | { what: 'renew'; bytes: Uint8Array; kind: SourceKind; before: readonly Fact[] }
  | { what: 'clean'; bytes: Uint8Array }
  | { what: 'xliff'; text: string; sections: readonly PlainSection[] };

type Tell = (stage: string, done: number, of: number) => void;

async function read(task: { bytes: Uint8Array; kind?: SourceKind }, tell: Tell): Promise<ReadResult> {
  const document = await openSource(task.bytes, task.kind ? { kind: task.kind } : {});
  tell(`${document.blocks.length} passages found`, 0, document.blocks.length);
  return { document, ...storedOf(taggedFacts(document, getTagger(), (done, of) => tell('taking it apart', done, of))) }; // prettier-ignore
}

/** A source that is stored, read again from its bytes: facts keep their ids where their words stand. */
async function renew(task: {
  bytes: Uint8Array;
  kind: SourceKind;
  before: readonly Fact[];
}): Promise<Renewed> {
  const document = await openSource(task.bytes, { kind: task.kind });
  const { facts, moved, lost } = carried(task.before, taggedFacts(document, getTagger()));
  return { document, ...storedOf(facts), moved: [...moved], lost: lost.map((f) => f.id) };
}

const done = (
  task: ReaderTask,
  tell: Tell,
): Promise<WorkResult<ReadResult | Renewed | CleanedDraft | XliffRead>> =>
  expected<ReadResult | Renewed | CleanedDraft | XliffRead>(async () => {
    switch (task.what) {
      case 'read':
        return read(task, tell);
      case 'renew':
        return renew(task);
      case 'clean':
        return readDraft(await draftText(task.bytes));
      case 'xliff':
        return readXliff(task.text, task.sections);
    }
  });

/** Progress is told at most this often, in milliseconds. */
const TELL_EVERY_MS = 100;
let told = 0;
const tell: Tell = (stage, done, of) => {
  const now = Date.now();
  if (now - told < TELL_EVERY_MS && done > 0 && done < of) return;
  told = now;
  process.send!({ stage, done, of });
};

process.on('message', (task: ReaderTask) => {
  done(task, tell).then(
    (result) => process.send!({ result }),
    // What is no expected failure ends the process: its parent says so.
    () => process.exit(1),
  );
});
// A parent that is gone needs nothing read.
process.on('disconnect', () => process.exit(0));
