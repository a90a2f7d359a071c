/** The box of facts beside an article ("Built: 1804"): label and value, a fact a row. */
import type { RawBlock, RawDocument } from '../../document.ts';
import { hashOf } from '../../page/features.ts';
import { lettersBelow } from '../../page/lettersBelow.ts';
import { ADDRESS } from '../../page/shapes.ts';
import { tidy } from '../../tidy.ts';
import { spoken } from './blocks.ts';

/** What such a box calls itself in its markup or in the row over it; common names of the thing, no published source. */
const NAMED =
  /(?:^|[-_\s])(?:infobox|fact-?(?:box|file|sheet)|(?:key|quick|fast)-?facts|at-a-glance|databox)(?:$|[-_\s])/i;
const HEADED =
  /^(?:fact ?(?:box|file|sheet)|(?:key|quick|fast|vital) (?:facts|figures|statistics)|facts(?: and figures| in brief)?|at a glance|in brief)\b/i;
/** Fewer pairs are a line of a table or a stamp. */
const FEWEST = 3;
const MOST = 40;
const LONGEST_LABEL = 40;
const LONGEST_VALUE = 160;
/** Boxes that hold more than this besides their rows are pages. */
const MOST_BESIDE = 600;
const LARGEST_BOX = 6000;

/** Rows of boxes, and what else stands in them: none of it is the text's. */
export interface Boxes {
  rows: readonly RawBlock[];
  beside: ReadonlySet<string>;
}

interface Pair {
  label: string;
  value: string;
}

const tagOf = (element: Element) => element.tagName.toUpperCase();
const NOTE = /\s*\[(?:\d{1,3}|[a-z]|note \d+|edit)\]/g;
const wordsOf = (element: Element) => {
  const rows = [...element.querySelectorAll('li')];
  return tidy(rows.length > 1 ? rows.map((r) => tidy(spoken(r))).join(', ') : spoken(element)).replace(NOTE, '');
}; // prettier-ignore

function pair(label: string, value: string): Pair[] {
  const said = label.replace(/\s*:$/, '');
  const fits = said.length >= 2 && said.length <= LONGEST_LABEL && !/[.!?]$/.test(said) && value.length <= LONGEST_VALUE; // prettier-ignore
  // An address, a reader's mark or an empty cell is no fact.
  return fits && /[\p{L}\p{N}]/u.test(value) && !ADDRESS.test(value) ? [{ label: said, value }] : []; // prettier-ignore
}

/** Pairs of a table's rows, of a list of terms, or of rows that begin with a label. */
function pairsOf(box: Element): Pair[] {
  const rows = [...box.querySelectorAll('tr')];
  if (rows.length)
    return rows.flatMap((row) => {
      const cells = [...row.children].filter((c) => /^T[HD]$/.test(tagOf(c)));
      return cells.length === 2 ? pair(wordsOf(cells[0]), wordsOf(cells[1])) : [];
    });
  const terms = [...box.querySelectorAll('dt')];
  if (terms.length)
    return terms.flatMap((t) => {
      const next = t.nextElementSibling;
      return next && tagOf(next) === 'DD' ? pair(wordsOf(t), wordsOf(next)) : [];
    });
  return [...box.querySelectorAll('li,p,div')]
    .filter((e) => !e.querySelector('li,p,div'))
    .flatMap((e) => {
      const said = /^([^:]{2,40}):\s+(\S.*)$/.exec(tidy(spoken(e)).replace(NOTE, ''));
      return said && !isSaid(said[2]) ? pair(said[1], said[2]) : [];
    });
}

/** Sentences behind a label ("Edit: we opened it.") are told, and no value of a box. */
const isSaid = (value: string) => /[.!?…]["'”’]?$/.test(value) && value.split(' ').length >= 4;

/** Whether a box stands for the article's subject: by its name, or by the row over its pairs. */
function isBox(box: Element, title: string): boolean {
  if (NAMED.test(`${box.getAttribute('class') ?? ''} ${box.getAttribute('id') ?? ''}`)) return true;
  const over = box.querySelector('caption,th[colspan],td[colspan],h2,h3,h4,h5,strong,b');
  const says = over ? tidy(over.textContent ?? '') : '';
  return HEADED.test(says) || (hashOf(says).length > 3 && hashOf(says) === hashOf(title));
}

/** Rows of the boxes beside a page's article, "Label: value"; to be asked before the page is changed. */
export function boxesOf(document: Document, title: string | undefined): Boxes {
  const taken: Element[] = [];
  const out: RawBlock[] = [];
  const beside = new Set<string>();
  const below = lettersBelow(document.body);
  for (const box of [...document.querySelectorAll('table,dl,aside,section,div,ul')]) {
    if (taken.some((t) => t.contains(box)) || (below.get(box) ?? 0) > LARGEST_BOX || !below.get(box) || !isBox(box, title ?? '')) continue; // prettier-ignore
    const pairs = pairsOf(box).slice(0, MOST);
    const said = pairs.reduce((n, p) => n + p.label.length + p.value.length, 0);
    if (pairs.length < FEWEST || tidy(spoken(box)).length > said * 1.5 + MOST_BESIDE) continue;
    taken.push(box);
    out.push(...rowsOfBox(pairs));
    for (const e of [box, ...box.querySelectorAll('caption,tr,th,td,dt,dd,li,p,h2,h3,h4,h5')])
      beside.add(hashOf(wordsOf(e)));
  }
  return { rows: out, beside };
}

export const rowsOfBox = (pairs: readonly Pair[]): RawBlock[] =>
  pairs.map((p) => ({
    type: 'box',
    text: `${p.label}: ${p.value}`,
    heads: [p.label],
    under: 'Beside the text',
  }));

/** A reading with its boxes behind the text; what a box says, and what was left out of it in pieces, is said once. */
export function withBoxes(read: RawDocument, { rows: boxes, beside }: Boxes): RawDocument {
  if (!boxes.length) return read;
  const rows = new Set(boxes.map((b) => hashOf(b.text)));
  const pieces = new Set(
    boxes.flatMap((b) => [b.heads![0], b.text.slice(b.heads![0].length + 2)].map(hashOf)),
  );
  const none = (text: string) => hashOf(text.replace(NOTE, ''));
  return {
    ...read,
    blocks: [...read.blocks.filter((b) => b.type === 'reply' || !(rows.has(none(b.text)) || (b.type !== 'paragraph' && beside.has(none(b.text))))), ...boxes], // prettier-ignore
    ...(read.leftOut
      ? {
          leftOut: read.leftOut.filter(
            (l) => ![rows, pieces, beside].some((known) => known.has(none(l.text))),
          ),
        }
      : {}),
  };
}
