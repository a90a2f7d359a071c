/** Pages that no rule was written on: fifteen of full length with what must be told of each, nine short ones, and the articles of the reader's tests. */
import { readFileSync, readdirSync } from 'node:fs';
import { readSource, type SourceDocument, type SourceKind } from '../../src/source/index.ts';
import { CONTENTS } from '../source/pages/contents.ts';
import { HELD_OUT } from '../source/pages/heldout.ts';
import { LAYOUTS, LAYOUTS_OF } from '../source/pages/layouts.ts';

export interface Page {
  name: string;
  source: SourceDocument;
  /** Words of the sentences that a telling must hold; empty where nobody labelled them. */
  must: readonly string[];
}

const FOLDER = new URL('./pages/', import.meta.url);

async function page(name: string, text: string, must: readonly string[] = []): Promise<Page> {
  const [title, kind, ...rest] = text.trim().split('\n');
  return {
    name,
    must,
    source: await readSource([title, ...rest].join('\n'), { kind: kind.trim() as SourceKind }),
  };
}

export const LONG_PAGES: readonly Page[] = await Promise.all(
  readdirSync(FOLDER)
    .filter((f) => f !== 'short.txt')
    .sort()
    .map((f) => {
      const [text, must] = readFileSync(new URL(f, FOLDER), 'utf8').split('%%\n');
      return page(f.replace('.txt', ''), text, must.trim().split('\n'));
    }),
);

export const SHORT_PAGES: readonly Page[] = await Promise.all(
  readFileSync(new URL('short.txt', FOLDER), 'utf8')
    .split('===\n')
    .map((text, i) => page(`short-${i + 1}`, text)),
);

/** The reader's own test articles, each in the first layout of its kind. */
export const ARTICLE_PAGES: readonly Page[] = await Promise.all(
  [...CONTENTS, ...HELD_OUT].map(async (c) => ({
    name: c.id,
    must: [],
    source: await readSource(LAYOUTS[LAYOUTS_OF[c.kind][0]](c), { kind: c.kind }),
  })),
);

export const ALL_PAGES = [...LONG_PAGES, ...SHORT_PAGES, ...ARTICLE_PAGES];
