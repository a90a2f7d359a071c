/** Wikitext, by wtf_wikipedia: lead, sections, lists; templates, references and tables left out. */
import type { RawBlock, RawDocument } from '../document.ts';
import { tidy } from '../tidy.ts';
import type { SourceReader } from './reader.ts';

const MARKS = [
  /^={2,4}[^=\n]+={2,4}\s*$/m,
  /'''[^'\n]+'''/,
  /\[\[[^\]\n]+\]\]/,
  /\{\{[^}]+\}\}/,
  /<ref[\s>]/,
];
/** What is used of a paragraph; the package's own types say only "object". */
interface Paragraph {
  sentences: () => { text: () => string }[];
  lists: () => { lines: () => { text: () => string }[] }[];
}
/** Sections that hold no narration. */
const APPARATUS =
  /^(?:references|notes|external links|further reading|see also|bibliography|sources|gallery|footnotes|citations)$/i;

export const wikitextReader: SourceReader = {
  id: 'wikitext',
  accepts: (text) => {
    const head = text.slice(0, 60_000);
    const marks = MARKS.filter((m) => m.test(head)).length;
    return marks >= 3 ? 0.9 : marks === 2 && /'''|^==/m.test(head) ? 0.75 : 0;
  },
  read: async (text) => {
    const { default: wtf } = await import('wtf_wikipedia');
    const doc = wtf(text);
    const raw: RawDocument = {
      kind: { is: 'encyclopedia', why: 'it is written as an encyclopedia’s page' },
      blocks: [],
    };
    const bold = /'''([^'\n]{2,120})'''/.exec(text.slice(0, 4000))?.[1];
    const title = doc.title() ?? bold;
    if (title) raw.title = tidy(title.replace(/\[\[(?:[^|\]]*\|)?([^\]]*)\]\]/g, '$1'));
    let skipBelow: number | null = null;
    for (const section of doc.sections()) {
      const depth = section.depth();
      if (skipBelow !== null && depth > skipBelow) continue;
      skipBelow = APPARATUS.test(section.title()) ? depth : null;
      if (skipBelow !== null) continue;
      if (section.title()) raw.blocks.push({ type: 'heading', text: section.title() });
      for (const paragraph of section.paragraphs() as unknown as Paragraph[]) {
        const sentences = paragraph
          .sentences()
          .map((s) => s.text())
          .filter(Boolean);
        const words = tidy(sentences.join(' '));
        if (words) raw.blocks.push({ type: 'paragraph', text: words });
        for (const list of paragraph.lists())
          raw.blocks.push(
            ...list
              .lines()
              .map((l): RawBlock => ({ type: 'item', text: tidy(l.text()) }))
              .filter((b) => b.text),
          );
      }
    }
    return raw;
  },
};
