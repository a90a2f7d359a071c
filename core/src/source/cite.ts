/** A source as a citation, by citation-js: common styles, CSL-JSON and RIS. */
import { Cite } from '@citation-js/core';
import '@citation-js/plugin-csl';
import '@citation-js/plugin-ris';
import type { SourceDocument } from './document.ts';

/** Styles of the Citation Style Language that come with the package, and the open record formats. */
export const CITATION_FORMATS = ['apa', 'harvard1', 'vancouver', 'csl-json', 'ris'] as const;
export type CitationFormat = (typeof CITATION_FORMATS)[number];

const TYPES: Readonly<Record<SourceDocument['kind'], string>> = { news: 'article-newspaper', encyclopedia: 'entry-encyclopedia', abstract: 'article-journal', forum: 'post', howto: 'webpage', interview: 'interview' }; // prettier-ignore

const dateParts = (iso: string | undefined) => {
  const m = /^(\d{4})(?:-(\d{2})(?:-(\d{2}))?)?/.exec(iso ?? '');
  return m ? { 'date-parts': [m.slice(1).filter(Boolean).map(Number)] } : undefined;
};

/** The source as an item of the Citation Style Language (CSL-JSON 1.0.2). */
export function cslItem(source: SourceDocument, id = 'source'): Record<string, unknown> {
  const issued = dateParts(source.published);
  return {
    id,
    type: TYPES[source.kind],
    title: source.title,
    ...(source.authors
      ? {
          author: source.authors.map((name) => {
            const words = name.split(' ');
            return words.length > 1
              ? { family: words.at(-1), given: words.slice(0, -1).join(' ') }
              : { literal: name };
          }),
        }
      : {}),
    ...(issued ? { issued } : {}),
    ...(source.publisher ? { 'container-title': source.publisher } : {}),
    ...(source.address ? { URL: source.address } : {}),
    ...(source.language ? { language: source.language } : {}),
  };
}

/** The citation as plain text. */
export function citation(source: SourceDocument, format: CitationFormat): string {
  const item = cslItem(source);
  if (format === 'csl-json') return `${JSON.stringify([item], null, 2)}\n`;
  const cite = new Cite([item], { forceType: '@csl/list+object', generateGraph: false });
  return format === 'ris'
    ? cite.format('ris')
    : cite.format('bibliography', { template: format, format: 'text', lang: 'en-US' });
}
