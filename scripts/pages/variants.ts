/** Pages made of pages, so that nothing is learned by heart: with no telling tag or name, and with furniture strewn between the paragraphs. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Atom } from '../../core/src/source/page/atom.ts';
import { random } from './boost.ts';
import type { LabelledPage } from './labelled.ts';

/** How often a line with choices in it is drawn. */
const DRAWN = 5;

/** Lines of furniture, those of one pattern together: "{Get|Have} the news {by post|}" says several. */
export const LINES: readonly (readonly string[])[] = readFileSync(join(import.meta.dirname, 'furniture.txt'), 'utf8')
  .split('\n')
  .filter((l) => l && !l.startsWith('#'))
  .map((line, i) => {
    if (!line.includes('{')) return [line];
    const draw = random(i);
    const said = () => line.replace(/\{([^}]*)\}/g, (_, choices: string) => {
      const list = choices.split('|');
      return list[Math.floor(draw() * list.length)];
    });
    return [...new Set(Array.from({ length: DRAWN }, () => said().replace(/\s+/g, ' ').trim()))];
  }); // prettier-ignore

const PLAIN: Readonly<Record<string, string>> = Object.fromEntries(
  'P ARTICLE MAIN NAV ASIDE FOOTER HEADER SECTION FIGURE FIGCAPTION BUTTON LABEL LI UL OL H2 H3 H4 H5 H6 BLOCKQUOTE'
    .split(' ')
    .map((t) => [t, 'DIV']),
); // prettier-ignore

/** Every element a div, every name a meaningless one of its own; only the first heading stays one. */
export function withoutMeaning(page: LabelledPage): LabelledPage {
  const names = new Map<string, string>();
  const named = (name: string) => {
    if (!name) return '';
    if (!names.has(name)) names.set(name, `x${names.size.toString(36)}q`);
    return names.get(name)!;
  };
  const plainTag = (t: string) => PLAIN[t] ?? t;
  return {
    ...page,
    id: `${page.id} plain`,
    atoms: page.atoms.map((a): Atom => ({
      ...a,
      type: a.type === 'row' ? 'row' : 'paragraph',
      tag: plainTag(a.tag),
      above: a.above.map(plainTag),
      named: a.named.map(named),
      // What is set alike stays set alike, also across tags.
      look: named(a.look),
      step: undefined,
    })),
  };
}

/** Furniture between the paragraphs of the article, most of it marked up as they are. */
export function strewn(page: LabelledPage, seed: number, lines: readonly string[]): LabelledPage {
  const draw = random(seed);
  const atoms: Atom[] = [];
  const labels: LabelledPage['labels'] = [];
  const inArticle = page.labels.filter((l) => l === 1).length;
  const rate = Math.min(0.6, 12 / Math.max(1, inArticle));
  page.atoms.forEach((a, i) => {
    atoms.push(a);
    labels.push(page.labels[i]);
    if (page.labels[i] !== 1 || draw() > rate) return;
    const many = draw() < 0.3 ? 2 : 1;
    for (let k = 0; k < many; k++) {
      const text = lines[Math.floor(draw() * lines.length)];
      const alike = draw() < 0.65;
      atoms.push({
        ...a,
        text,
        type: 'paragraph',
        step: undefined,
        linked: draw() < 0.2 ? text.length : 0,
        bold: 0,
        ...(alike ? {} : { look: `${a.look}+${Math.floor(draw() * 4)}` }),
      });
      labels.push(0);
    }
  });
  return { ...page, id: `${page.id} strewn`, atoms, labels };
}

export function withVariants(pages: readonly LabelledPage[], lines: readonly string[]): LabelledPage[] {
  return pages.flatMap((p, i) =>
    p.from === 'debian' || p.from === 'own'
      ? [p]
      : [
          p,
          { ...strewn(withoutMeaning(p), 100 + i, lines), weight: p.weight * 0.6 },
          { ...strewn(p, 900 + i, lines), weight: p.weight * 0.6 },
        ],
  );
}
