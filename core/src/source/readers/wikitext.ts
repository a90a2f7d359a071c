/** Wikitext, by wtf_wikipedia: lead, sections, lists, captions, tables as rows; templates and references left out. */
import type { RawBlock, RawDocument } from '../document.ts';
import { APPARATUS, OF_PAPER } from '../apparatus.ts';
import { rowsOf } from '../rows.ts';
import { tidy } from '../tidy.ts';
import { rowsOfBox, withBoxes } from './html/box.ts';
import type { SourceReader } from './reader.ts';

const MARKS = [
  /^={2,4}[^=\n]+={2,4}\s*$/m,
  /'''[^'\n]+'''/,
  /\[\[[^\]\n]+\]\]/,
  /\{\{[^}]+\}\}/,
  /<ref[\s>]/,
];
/** What is used of a paragraph; the package's own types say only "object". */
interface Section {
  images: () => { caption: () => unknown }[];
  tables: () => { keyValue: () => Record<string, string>[] }[];
  templates: () => { json: () => { template?: string; images?: { caption?: { text?: () => string } }[] } }[];
}
interface Infobox {
  keyValue: () => Record<string, string>;
}
interface Paragraph {
  sentences: () => { text: () => string }[];
  lists: () => { lines: () => { text: () => string }[] }[];
}
const GALLERY = /^gallery$/i;

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
    // The package keeps tables apart from the text: each goes back to where it stands.
    const places = [...text.matchAll(/^\{\|/gm)].map((m) => m.index);
    let from = 0;
    let skipBelow: number | null = null;
    for (const section of doc.sections()) {
      const depth = section.depth();
      if (skipBelow !== null && depth > skipBelow) continue;
      skipBelow = APPARATUS.test(section.title()) && !OF_PAPER.test(section.title()) ? depth : null;
      if (skipBelow !== null) continue;
      const parts = section as unknown as Section;
      const tables = parts.tables();
      if (tables.length) from = placeOf(section.title(), text, from, '^=.*');
      const behind = places.filter((at) => at >= from);
      const rows = tables.map((table, k) => ({ at: behind[k] ?? text.length, blocks: tableRows(table.keyValue()) })); // prettier-ignore
      if (section.title() && !GALLERY.test(section.title()))
        raw.blocks.push({ type: 'heading', text: section.title() });
      raw.blocks.push(...captionsOf(parts));
      for (const paragraph of section.paragraphs() as unknown as Paragraph[]) {
        const sentences = paragraph
          .sentences()
          .map((s) => s.text())
          .filter(Boolean);
        const words = tidy(sentences.join(' '));
        if (rows.length) from = placeOf(words, text, from);
        while (rows.length && rows[0].at < from) raw.blocks.push(...rows.shift()!.blocks);
        if (words) raw.blocks.push({ type: 'paragraph', text: words });
        for (const list of paragraph.lists())
          raw.blocks.push(
            ...list
              .lines()
              .map((l): RawBlock => ({
                type: 'item',
                text: tidy(l.text()).replace(/^\(?\d{1,2}[.)]\s+/, ''),
              }))
              .filter((b) => b.text),
          );
      }
      raw.blocks.push(...rows.flatMap((r) => r.blocks));
    }
    return withBoxes(raw, {
      rows: doc.infoboxes().flatMap((box) => rowsOfBox(pairsOf(box as unknown as Infobox))),
      beside: new Set(),
    });
  },
};

/** Where words stand in the wikitext behind `from`, by the first of them, whatever marks stand between; `from` where they are not found. */
function placeOf(words: string, wikitext: string, from: number, before = ''): number {
  const first = words.match(/[\p{L}\p{N}]+/gu)?.slice(0, 4);
  if (!first) return from;
  const pattern = new RegExp(before + first.join('[^\\p{L}\\p{N}]+'), 'gmu');
  pattern.lastIndex = from;
  return pattern.exec(wikitext)?.index ?? from;
}

/** What shows of a box: its names for pictures, sizes and addresses are for the page. */
function pairsOf(box: Infobox): { label: string; value: string }[] {
  return Object.entries(box.keyValue())
    .filter(
      ([key, value]) =>
        !/^(?:name|title|image|logo|photo|map|caption|website|url|template|embed|module|align|width|\w*(?:size|width|caption|alt|link|style|upright))\d*$/i.test(
          key,
        ) && value.trim(),
    ) // prettier-ignore
    .map(([key, value]) => ({
      label: key.replace(/[_-]+/g, ' ').replace(/^\p{Ll}/u, (c) => c.toUpperCase()),
      value: tidy(value),
    }))
    .filter((p) => /\p{L}/u.test(p.label) && p.value.length <= 160 && /[\p{L}\p{N}]/u.test(p.value));
}

const caption = (text: unknown): RawBlock[] =>
  typeof text === 'string' && tidy(text) ? [{ type: 'caption', text: tidy(text) }] : [];

/** Words under a section's pictures and in its galleries. */
const captionsOf = (section: Section): RawBlock[] => [
  ...section.images().flatMap((i) => caption(i.caption())),
  ...section
    .templates()
    .map((t) => t.json())
    .filter((t) => t.template === 'gallery')
    .flatMap((t) => (t.images ?? []).flatMap((i) => caption(i.caption?.text?.()))),
];

/** A table of the package's, whose heads are its keys, or made-up ones. */
function tableRows(table: readonly Readonly<Record<string, string>>[]): RawBlock[] {
  const heads = Object.keys(table[0] ?? {});
  const named = heads.every((h) => /\p{L}/u.test(h) && !/^col\d+$/.test(h));
  const cells = table.map((r) => heads.map((h) => tidy(String(r[h] ?? ''))));
  return cells.length < 2 ? [] : rowsOf(named ? [heads, ...cells] : cells, named).map((r) => ({ type: 'row', ...r })); // prettier-ignore
}
