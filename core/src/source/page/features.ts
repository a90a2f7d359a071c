/**
 * What an atom looks like, as numbers: words and signs, links, markup, neighbours, its place on the page
 * (the shallow features of Kohlschütter, Fankhauser and Nejdl, Boilerplate Detection Using Shallow Text Features,
 * WSDM 2010, and what else parted article and furniture on labelled pages).
 */
import { CONTENT, MARKED, isFurnitureLine } from '../readers/html/furniture.ts';
import { wordsOf, type Atom } from './atom.ts';
import { CLOSED } from '../../language/closed.ts';
import { ADDRESS, AGO, CLOCK, CREDIT, DAY, PARTED, TELEPHONE } from './shapes.ts';

const YOU = /^(?:you|your|yours|you['’]\w+)$/;
const WE = /^(?:we|our|ours|us|we['’]\w+)$/;
const I = /^(?:i|my|me|mine|i['’]\w+)$/;

/** Letters of a piece that are looked at. */
const LOOKED_AT = 2000;
const STOPS = /[.!?…]+["'”’)\]]*(?=\s|$)/gu;
const ENDS = /[.!?…]["'”’)\]*]*$/u;

export const hashOf = (text: string): string => text.toLowerCase().replace(/\d+/g, '#').replace(/[^\p{L}\p{N}#]+/gu, ' ').trim(); // prettier-ignore
const stem = (word: string) => word.slice(0, 6);
export const isProse = (atom: Atom) =>
  atom.text.length >= 80 && atom.linked < atom.text.length * 0.4 && ENDS.test(atom.text);

/** Log-odds of words for furniture, learned; unknown words say nothing. */
export type Lexicon = ReadonlyMap<string, number>;
export const lexicalKeys = (text: string): string[] => {
  const words = wordsOf(text.toLowerCase()).slice(0, 60);
  return [...words.map((w) => w.replace(/\d/g, '#')), ...words.slice(0, 1).map((w) => `^${w}`), ...words.slice(0, 1).map((w, i) => `^${w} ${words[i + 1] ?? '$'}`)];
}; // prettier-ignore

export interface PageContext {
  title: string;
  lexicon: Lexicon;
  /** Without tags, what only markup says is left at nought. */
  tagged: boolean;
}

type Numbers = Record<string, number>;

function ofText(atom: Atom, lexicon: Lexicon): Numbers {
  // What a piece is shows at its ends; the middle of a very long one says no more.
  const text = atom.text.length > LOOKED_AT ? atom.text.slice(0, LOOKED_AT / 2) + atom.text.slice(-LOOKED_AT / 2) : atom.text; // prettier-ignore
  const words = wordsOf(text);
  const n = Math.max(1, words.length);
  const lower = words.map((w) => w.toLowerCase());
  const share = (test: (w: string) => boolean, of: readonly string[] = lower) => of.filter(test).length / n;
  const odds = lexicalKeys(text).map((k) => lexicon.get(k) ?? 0);
  const sorted = [...odds].sort((a, b) => b - a);
  return {
    words: Math.min(n, 120),
    letters: words.join('').length / n,
    stops: Math.min(12, (text.match(STOPS) ?? []).length),
    ends: ENDS.test(text) ? 1 : 0,
    upper: /^["'“‘(]*[\p{Lu}\p{N}]/u.test(text) ? 1 : 0,
    capitals: share((w) => /^\p{Lu}/u.test(w), words),
    shouted: share((w) => /^\p{Lu}{2,}$/u.test(w), words),
    digits: (text.match(/\d/g) ?? []).length / text.length,
    closed: share((w) => CLOSED.has(w)),
    parted: (text.match(PARTED) ?? []).length / n,
    address: ADDRESS.test(text) ? 1 : 0,
    telephone: TELEPHONE.test(text) ? 1 : 0,
    clock: CLOCK.test(text) ? 1 : 0,
    day: DAY.test(text) ? 1 : 0,
    ago: AGO.test(text) ? 1 : 0,
    asks: (text.match(/\?/g) ?? []).length / n,
    exclaims: (text.match(/!/g) ?? []).length / n,
    you: share((w) => YOU.test(w)),
    we: share((w) => WE.test(w)),
    i: share((w) => I.test(w)),
    colon: /:$/.test(text) ? 1 : 0,
    credited: CREDIT.test(text) ? 1 : 0,
    money: /[£$€¥]\s?\d|\d\s?%/.test(text) ? 1 : 0,
    bracketed: /^[([].*[)\]]\.?$/.test(text) ? 1 : 0,
    pictured: /[\p{Extended_Pictographic}★☆©®™↑↓▲▼✎]/u.test(text.replace(/\d/g, '')) ? 1 : 0,
    commas: (text.match(/,/g) ?? []).length / n,
    lexMean: odds.length ? odds.reduce((a, b) => a + b, 0) / odds.length : 0,
    lexTop: sorted[0] ?? 0,
    lexThree: (sorted[0] ?? 0) + (sorted[1] ?? 0) + (sorted[2] ?? 0),
    lexFirst: odds.at(-1) ?? 0,
    lexBegins: odds.at(-2) ?? 0,
    begins: isFurnitureLine(text) ? 1 : 0,
    lexLow: Math.min(0, sorted.at(-1) ?? 0),
  };
}

function ofMarkup(atom: Atom, tagged: boolean): Numbers {
  const over = (tag: string) => (tagged && (atom.tag === tag || atom.above.includes(tag)) ? 1 : 0);
  const at = tagged ? atom.named.findIndex((n) => MARKED.test(n)) : -1;
  return {
    level: tagged && /^H\d$/.test(atom.tag) ? Number(atom.tag[1]) : 0,
    isItem: atom.type === 'item' ? 1 : 0,
    isStep: atom.step ? 1 : 0,
    isQuote: tagged && atom.type === 'quote' ? 1 : 0,
    isRow: atom.type === 'row' ? 1 : 0,
    isCaption: tagged && atom.type === 'caption' ? 1 : 0,
    isP: tagged && (atom.tag === 'P' || atom.above[0] === 'P') ? 1 : 0,
    isCell: tagged && /^T[DHR]$/.test(atom.tag) ? 1 : 0,
    isButton: tagged && /^(?:BUTTON|LABEL|LEGEND|SUMMARY)$/.test(atom.tag) ? 1 : 0,
    nav: over('NAV'),
    aside: over('ASIDE'),
    footer: over('FOOTER'),
    header: over('HEADER'),
    form: over('FORM'),
    figure: over('FIGURE'),
    table: over('TABLE'),
    inArticle: over('ARTICLE'),
    inMainTag: over('MAIN'),
    inList: over('UL') || over('OL'),
    marked: at < 0 ? 0 : 1 / (1 + at),
    markedOften: tagged ? Math.min(4, atom.named.filter((n) => MARKED.test(n)).length) : 0,
    content: tagged && atom.named.some((n) => CONTENT.test(n)) ? 1 : 0,
    linked: tagged ? atom.linked / atom.text.length : 0,
    bold: tagged ? atom.bold / atom.text.length : 0,
    deep: tagged ? Math.min(25, atom.above.length) : 0,
  };
}

/** Rows of numbers, one an atom, in the order of `FEATURES`. Linear in the atoms but for the look at neighbours. */
export function featuresOf(atoms: readonly Atom[], context: PageContext): Numbers[] {
  const { tagged } = context;
  const own = atoms.map((a) => ({ ...ofText(a, context.lexicon), ...ofMarkup(a, tagged) }) as Numbers);
  const counts = atoms.map((a) => wordsOf(a.text).length);
  const prose = atoms.map(isProse);
  const all = Math.max(1, counts.reduce((a, b) => a + b, 0)); // prettier-ignore
  const allProse = Math.max(1, counts.reduce((n, c, i) => n + (prose[i] ? c : 0), 0)); // prettier-ignore

  const looks = new Map<string, number>();
  const boxes = new Map<number, { words: number; prose: number; linked: number; letters: number; atoms: number }>(); // prettier-ignore
  const texts = new Map<string, number>();
  atoms.forEach((a, i) => {
    if (prose[i]) looks.set(a.look, (looks.get(a.look) ?? 0) + counts[i]);
    texts.set(hashOf(a.text), (texts.get(hashOf(a.text)) ?? 0) + 1);
    for (const id of a.inside) {
      const box = boxes.get(id) ?? { words: 0, prose: 0, linked: 0, letters: 0, atoms: 0 };
      box.words += counts[i];
      box.prose += prose[i] ? counts[i] : 0;
      box.linked += a.linked;
      box.letters += a.text.length;
      box.atoms++;
      boxes.set(id, box);
    }
  });
  // How the article, as far as prose shows it, stands and speaks: what differs from that is told by the difference.
  const [mainLook] = [...looks].sort((a, b) => b[1] - a[1])[0] ?? [''];
  const depths = atoms.filter((a, i) => prose[i] && a.look === mainLook).map((a) => a.above.length).sort((a, b) => a - b); // prettier-ignore
  const depth = depths[Math.floor(depths.length / 2)] ?? 0;
  const usual = (key: string) => own.reduce((n, row, i) => n + (prose[i] ? row[key] * counts[i] : 0), 0) / allProse; // prettier-ignore
  const speaks = { you: usual('you'), we: usual('we'), i: usual('i'), lexMean: usual('lexMean') };
  const told = topics(atoms, prose);
  const echo = echoes(atoms);
  const titled = new Set(wordsOf(context.title.toLowerCase()).map(stem));
  const headAt = firstHead(atoms, titled);
  let before = 0;
  let sinceProse = 12;
  const since = atoms.map((_, i) => {
    const now = sinceProse;
    sinceProse = prose[i] ? 0 : Math.min(12, sinceProse + 1);
    return now;
  });
  let untilProse = 12;
  const until = atoms.map(() => 12);
  for (let i = atoms.length - 1; i >= 0; i--) {
    until[i] = untilProse;
    untilProse = prose[i] ? 0 : Math.min(12, untilProse + 1);
  }
  return atoms.map((a, i) => {
    const box = (k: number) => boxes.get(a.inside[k] ?? a.inside.at(-1) ?? -1);
    const words = wordsOf(a.text.toLowerCase());
    const content = words.filter((w) => w.length > 3 && !CLOSED.has(w)).map(stem);
    const row: Numbers = { ...own[i] };
    row.look = tagged ? (looks.get(a.look) ?? 0) / allProse : 0;
    for (const k of [0, 1, 2, 3]) {
      const b = box(k);
      row[`box${k}`] = tagged && b ? b.prose / allProse : 0;
      row[`boxLinked${k}`] = tagged && b ? b.linked / Math.max(1, b.letters) : 0;
    }
    row.deeper = tagged ? Math.max(-8, Math.min(8, a.above.length - depth)) : 0;
    row.isMainLook = tagged && a.look === mainLook ? 1 : 0;
    for (const key of ['you', 'we', 'i', 'lexMean'] as const) row[`${key}More`] = row[key] - speaks[key];
    row.boxAtoms = tagged ? Math.min(40, box(1)?.atoms ?? 1) : 0;
    row.place = before / all;
    before += counts[i];
    row.proseShare = allProse / all;
    row.fromHead = headAt < 0 ? -1 : Math.max(-20, Math.min(60, i - headAt));
    row.since = since[i];
    row.until = until[i];
    row.topic = content.length ? content.filter((w) => (told.get(w) ?? 0) - (prose[i] ? 1 : 0) > 0).length / content.length : 0; // prettier-ignore
    row.titled = words.length ? words.filter((w) => titled.has(stem(w)) && !CLOSED.has(w)).length / words.length : 0; // prettier-ignore
    row.echo = echo[i];
    row.repeats = Math.min(8, texts.get(hashOf(a.text)) ?? 1);
    row.gap = a.gap ?? 0;
    for (const k of [-2, -1, 1, 2]) {
      const near = own[i + k];
      row[`words${k}`] = near ? near.words : 0;
      row[`ends${k}`] = near ? near.ends : 0;
      row[`linked${k}`] = near && tagged ? near.linked : 0;
      row[`lex${k}`] = near ? near.lexMean : 0;
    }
    return row;
  });
}

/** In how many passages of prose each word of content stands. */
function topics(atoms: readonly Atom[], prose: readonly boolean[]): Map<string, number> {
  const told = new Map<string, number>();
  atoms.forEach((a, i) => {
    if (!prose[i]) return;
    const own = new Set(wordsOf(a.text.toLowerCase()).filter((w) => w.length > 3 && !CLOSED.has(w)).map(stem)); // prettier-ignore
    for (const w of own) told.set(w, (told.get(w) ?? 0) + 1);
  });
  return told;
}

/** The share of an atom's runs of three words that a longer one has too: quotations pulled out, lists of the page's own headings. */
function echoes(atoms: readonly Atom[]): number[] {
  const holders = new Map<string, number[]>();
  const runs = atoms.map((a) => {
    const w = wordsOf(a.text.toLowerCase());
    const out: string[] = [];
    for (let i = 0; i + 3 <= w.length; i++) out.push(w.slice(i, i + 3).join(' '));
    return out;
  });
  runs.forEach((list, i) => {
    for (const r of new Set(list)) {
      const at = holders.get(r);
      if (!at) holders.set(r, [i]);
      else if (at.length < 6) at.push(i);
    }
  });
  return runs.map((list, i) => {
    if (!list.length) return 0;
    return list.filter((r) => holders.get(r)!.some((k) => k !== i && runs[k].length > list.length)).length / list.length; // prettier-ignore
  });
}

/** The first heading with most of the title's words, a list of contents aside where the text has it above too; -1 if there is none. */
function firstHead(atoms: readonly Atom[], titled: ReadonlySet<string>): number {
  const h1 = atoms.findIndex((a) => a.tag === 'H1');
  const said = atoms.flatMap((a, i) => {
    const w = wordsOf(a.text.toLowerCase());
    return w.length > 1 && w.length < 40 && w.filter((x) => titled.has(stem(x))).length >= Math.max(2, w.length * 0.75, titled.size * 0.5) ? [i] : []; // prettier-ignore
  });
  const over = said.find((i) => atoms[i].type !== 'item' && atoms.slice(i + 1, i + 5).some((a) => isProse(a) && wordsOf(a.text).length >= 20)); // prettier-ignore
  const first = atoms[said[0]]?.type === 'item' ? (over ?? said[0]) : said[0];
  return first ?? h1;
}
