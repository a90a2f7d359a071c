/** A process that reads what comes from outside, one file after another, and nothing else. Its parent ends it when it takes too much. */
import { carried, storedOf, taggedFacts, type Fact } from '@ursprung/core/facts';
import { draftText } from '@ursprung/core/drafts';
import { readXliff, type XliffRead } from '@ursprung/core/handoff';
import { readDraft, sameData, type CleanedDraft, type PlainSection } from '@ursprung/core/script';
import { openSource, type Choices, type SourceDocument, type SourceKind } from '@ursprung/core/source';
import type { Renewal } from './api.ts';
import type { StoredOwnFact } from './db/models.ts';
import { expected, type WorkResult } from './drafting.ts';
import { ownMade } from './ownFacts.ts';
import { keptTexts, type KeptTexts } from './sourceText.ts';
import { getTagger } from './tools.ts';

/** A source that was read again: its texts, and what has changed. Facts keep their ids where their words stand. */
export interface Renewed {
  kept: KeptTexts;
  moved: [string, readonly string[]][];
  lost: string[];
  /** All of the answer but what only the database knows: marks and lines. */
  answer: Omit<Renewal, 'lines' | 'lost'> & { lost: { id: string; text: string }[] };
  /** Own facts at their place in the source as it is now, taken apart. */
  own: StoredOwnFact[];
}
/** A page read again beside what is stored of it. */
export interface Reread {
  removed: { block: string; text: string }[];
  added: string[];
  /** Facts whose words are gone. */
  facts: string[];
}
/** What is stored of the source. */
interface Stored {
  document: string;
  facts: string;
}

export type ReaderTask =
  | { what: 'read'; bytes: Uint8Array; kind?: SourceKind; address?: string; choices?: Choices }
  | {
      what: 'renew';
      bytes: Uint8Array;
      kind?: SourceKind;
      choices?: Choices;
      before: Stored;
      own: readonly StoredOwnFact[];
    }
  | { what: 'reread'; bytes: Uint8Array; choices?: Choices; before: Stored }
  | { what: 'clean'; bytes: Uint8Array }
  | { what: 'xliff'; text: string; sections: readonly PlainSection[] };
type Of<W extends ReaderTask['what']> = Extract<ReaderTask, { what: W }>;

type Tell = (stage: string, done: number, of: number) => void;

async function read({ bytes, kind, address, choices }: Of<'read'>, tell: Tell): Promise<KeptTexts> {
  const found = await openSource(bytes, { ...(kind ? { kind } : {}), ...(choices ? { choices } : {}) });
  const document = address ? { ...found, address } : found;
  tell(`${document.blocks.length} passages found`, 0, document.blocks.length);
  const { facts, tags } = storedOf(
    taggedFacts(document, getTagger(), (done, of) => tell('taking it apart', done, of)),
  );
  return keptTexts(document, facts, tags);
}

async function renew({ bytes, kind, choices, before, own }: Of<'renew'>): Promise<Renewed> {
  const was = JSON.parse(before.document) as SourceDocument;
  const facts = JSON.parse(before.facts) as Fact[];
  const found = await openSource(bytes, { kind: kind ?? was.kind, ...(choices ? { choices } : {}) });
  const document = was.address ? { ...found, address: was.address } : found;
  const { facts: tagged, moved, lost } = carried(facts, taggedFacts(document, getTagger()));
  const made = storedOf(tagged);
  const kept = keptTexts(document, made.facts, made.tags);
  const known = new Set(facts.map((f) => f.id));
  const [texts, gone] = [new Map(made.facts.map((f) => [f.id, f.text])), new Set(lost.map((f) => f.id))];
  return {
    kept,
    moved: [...moved],
    lost: [...gone],
    own: replaced(own, document),
    answer: {
      passages: { before: was.blocks.length, after: document.blocks.length },
      facts: {
        before: facts.length,
        after: made.facts.length,
        same: made.facts.filter((f) => known.has(f.id)).length,
      },
      moved: facts
        .filter((f) => moved.has(f.id))
        .map((f) => ({ id: f.id, text: f.text, to: moved.get(f.id)!.map((to) => texts.get(to)!) })),
      lost: facts.filter((f) => gone.has(f.id)).map((f) => ({ id: f.id, text: f.text })),
      tidy: sameData(JSON.parse(kept.document), was) && !moved.size && !gone.size,
    },
  };
}

/** Chosen words at their place in the source as it is read now; without one they are something the writer knows. */
function replaced(own: readonly StoredOwnFact[], document: SourceDocument): StoredOwnFact[] {
  return own.map(({ made: _, start: was, end: __, ...known }): StoredOwnFact => {
    const start = was === undefined ? -1 : document.text.indexOf(known.text);
    const placed = start < 0 ? known : { ...known, start, end: start + known.text.length };
    return { ...placed, made: ownMade(document, placed) };
  });
}

async function reread({ bytes, choices, before }: Of<'reread'>): Promise<Reread> {
  const was = JSON.parse(before.document) as SourceDocument;
  const document = await openSource(bytes, { kind: was.kind, ...(choices ? { choices } : {}) });
  const now = new Set(document.blocks.map((b) => b.text));
  const then = new Set(was.blocks.map((b) => b.text));
  const gone = was.blocks.filter((b) => !now.has(b.text));
  const places = new Set(gone.map((b) => b.id));
  return {
    removed: gone.map((b) => ({ block: b.id, text: b.text })),
    added: document.blocks.filter((b) => !then.has(b.text)).map((b) => b.text),
    facts: (JSON.parse(before.facts) as Fact[])
      .filter((f) => places.has(f.block) && !document.text.includes(f.text))
      .map((f) => f.id),
  };
}

type Done = KeptTexts | Renewed | Reread | CleanedDraft | XliffRead;
const done = (task: ReaderTask, tell: Tell): Promise<WorkResult<Done>> =>
  expected<Done>(async () => {
    switch (task.what) {
      case 'read':
        return read(task, tell);
      case 'renew':
        return renew(task);
      case 'reread':
        return reread(task);
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
