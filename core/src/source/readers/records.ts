/** Records of a library or reference manager with an abstract: RIS, BibTeX and CSL-JSON, by citation-js. */
import { Cite } from '@citation-js/core';
import '@citation-js/plugin-bibtex';
import '@citation-js/plugin-ris';
import { SourceError, type RawDocument } from '../document.ts';
import { tidy } from '../tidy.ts';
import type { SourceReader } from './reader.ts';

interface CslName {
  given?: string;
  family?: string;
  literal?: string;
}
interface CslItem {
  type?: string;
  title?: string;
  abstract?: string;
  author?: CslName[];
  issued?: { 'date-parts'?: (number | string)[][] };
  'container-title'?: string;
  publisher?: string;
  language?: string;
  URL?: string;
}

/** Parts of an abstract written into one string: "BACKGROUND: … METHODS: …" or marked up. */
function partsOf(abstract: string): string[] {
  const plain = abstract
    .replace(/<\/?(?:jats:)?(?:p|title|sec|italic|bold|sup|sub|i|b)[^>]*>/gi, ' ')
    .replace(/[{}]/g, '');
  return plain
    .split(
      /\n\s*\n|(?<=[.!?])\s+(?=(?:BACKGROUND|OBJECTIVES?|AIMS?|METHODS?|RESULTS?|FINDINGS|CONCLUSIONS?|INTERPRETATION|Background|Objectives?|Aims?|Methods?|Results?|Findings|Conclusions?|Limitations?)\s*:)/,
    )
    .map((p) =>
      tidy(p).replace(/^([A-Z])([A-Z]{3,20})(?=\s*:)/, (_, a: string, b: string) => a + b.toLowerCase()),
    )
    .filter(Boolean);
}

/** `year`: as the record writes it, for a date that the library could not make out. */
function document(items: CslItem[], year?: string): RawDocument {
  const item = items.find((i) => i.abstract) ?? items[0];
  if (!item?.abstract)
    throw new SourceError(
      'empty',
      'This record has no abstract, so there is nothing to tell. Open the work itself or paste its abstract.',
    );
  const date = item.issued?.['date-parts']?.[0]?.map((n) => String(n).padStart(2, '0')).join('-');
  const authors = (item.author ?? [])
    .map((a) => a.literal ?? [a.given, a.family].filter(Boolean).join(' '))
    .filter(Boolean);
  return {
    kind: { is: 'abstract', why: 'it is a record with an abstract' },
    ...(item.title ? { title: tidy(item.title) } : {}),
    ...((date ?? year) ? { published: date ?? year! } : {}),
    ...(authors.length ? { authors } : {}),
    ...(item['container-title'] || item.publisher
      ? { publisher: item['container-title'] ?? item.publisher! }
      : {}),
    ...(item.language ? { language: item.language } : {}),
    ...(item.URL ? { address: item.URL } : {}),
    blocks: partsOf(item.abstract).map((text) => ({ type: 'paragraph', text })),
  };
}

const reader = (
  id: string,
  what: string,
  type: string,
  accepts: (text: string) => number,
  input: (text: string) => unknown = (t) => t,
): SourceReader => ({
  id,
  accepts,
  read: (text) => {
    let items: CslItem[];
    try {
      // The type is forced, so that citation-js never takes outside text for an address to fetch.
      items = new Cite(input(text), { forceType: type, generateGraph: false }).data as CslItem[];
    } catch {
      throw new SourceError(
        'unreadable',
        `This looks like ${what} but is broken, so it can’t be read. Paste the abstract instead.`,
      );
    }
    return document(items, /^PY {2}- (\d{4})/m.exec(text)?.[1]);
  },
});

export const risReader = reader('ris', 'a RIS record', '@ris/file', (t) =>
  /^\s*TY {2}- [A-Z]{3,6}\s*$/m.test(t.slice(0, 2000)) && /^ER {2}-/m.test(t) ? 1 : 0,
);
export const bibtexReader = reader('bibtex', 'a BibTeX record', '@biblatex/text', (t) =>
  /^\s*(?:%[^\n]*\n\s*)*@\s*[a-z]{3,20}\s*[{(]\s*[^\s,]{1,80},/i.test(t.slice(0, 4000)) ? 1 : 0,
);
export const cslReader = reader(
  'csl-json',
  'a CSL-JSON record',
  '@csl/list+object',
  (t) =>
    /^\s*[[{]/.test(t) &&
    /"(?:title|container-title|abstract)"\s*:/.test(t.slice(0, 20_000)) &&
    /"(?:author|issued|type)"\s*:/.test(t)
      ? 0.95
      : 0,
  (t) => {
    const parsed: unknown = JSON.parse(t);
    const list = (Array.isArray(parsed) ? parsed : [parsed]) as object[];
    return list.filter((i) => i && typeof i === 'object').slice(0, 1000);
  },
);
