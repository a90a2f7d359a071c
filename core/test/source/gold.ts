/** Pages with what a careful reader keeps of them, as they lie in a folder of the tests, and as they are read. */
import { readFileSync, readdirSync } from 'node:fs';
import { openSource, type SourceDocument } from '../../src/source/index.ts';

export interface Gold {
  kind: string;
  title: string;
  author?: string;
  published?: string;
  passages: { text: string }[];
  replies?: string[];
  furniture: string[];
}

export const letters = (text: string) => (text.normalize('NFKC').toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).join(''); // prettier-ignore

/** Letters of what a page tells itself: without replies and boxes. */
export const ownLetters = (doc: SourceDocument) => letters(doc.blocks.filter((b) => b.type !== 'reply' && b.type !== 'box').map((b) => b.text).join(' ')); // prettier-ignore

export const pagesWithGold = (folder: URL) =>
  Promise.all(
    readdirSync(folder)
      .filter((f) => f.endsWith('.gold.json'))
      .map(async (f) => {
        const file = readdirSync(folder).find((x) => x.startsWith(`${f.slice(0, 2)}.`) && x !== f)!;
        return {
          name: file,
          gold: JSON.parse(readFileSync(new URL(f, folder), 'utf8')) as Gold,
          doc: await openSource(new Uint8Array(readFileSync(new URL(file, folder)))),
        };
      }),
  );
