/** XML as a tree of plain nodes, by fast-xml-parser. Entities of the document's own are never expanded: no billion laughs, nothing fetched. */
import { XMLParser } from 'fast-xml-parser';
import { SourceError } from '../document.ts';
import { tidy } from '../tidy.ts';

export interface XmlNode {
  name: string;
  attributes: Readonly<Record<string, string>>;
  children: readonly (XmlNode | string)[];
}

const DEEPEST = 300;
const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: '’', nbsp: ' ', ndash: '–', mdash: '—', lsquo: '‘', rsquo: '’', ldquo: '“', rdquo: '”', hellip: '…', deg: '°', times: '×', eacute: 'é' }; // prettier-ignore

/** The predefined entities of XML, a few of HTML, and numbers; anything else stays as it is written. */
export const unescapeXml = (text: string): string =>
  text.replace(/&(#x[\da-f]{1,6}|#\d{1,7}|\w{2,8});/gi, (whole, name: string) => {
    if (!name.startsWith('#')) return NAMED[name] ?? whole;
    const code = /^#x/i.test(name) ? parseInt(name.slice(2), 16) : Number(name.slice(1));
    return code > 8 && code <= 0x10ffff && !(code >= 0xd800 && code < 0xe000)
      ? String.fromCodePoint(code)
      : ' ';
  });

/** Parses; throws SourceError when it is no XML, or nested too deeply. */
export function parseXml(text: string, what: string): XmlNode {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    processEntities: false,
    trimValues: false,
    parseTagValue: false,
    ignoreDeclaration: true,
    ignorePiTags: true,
    removeNSPrefix: true,
    maxNestedTags: DEEPEST,
  });
  const fail = () => {
    throw new SourceError(
      'unreadable',
      `This looks like ${what} but is broken, so it can’t be read. Paste its words instead.`,
    );
  };
  let parsed: unknown;
  try {
    parsed = parser.parse(text.replace(/<!DOCTYPE[^[>]*(?:\[[\s\S]*?\]\s*)?>/i, ''));
  } catch {
    return fail();
  }
  const convert = (list: unknown, depth: number): (XmlNode | string)[] =>
    !Array.isArray(list) || depth > DEEPEST
      ? []
      : list.map((item: Record<string, unknown>) => {
          if ('#text' in item) return unescapeXml(String(item['#text']));
          const name = Object.keys(item).find((k) => k !== ':@') ?? '';
          const raw = (item[':@'] ?? {}) as Record<string, unknown>;
          const attributes = Object.fromEntries(
            Object.entries(raw).map(([k, v]) => [k, unescapeXml(String(v))]),
          );
          return { name, attributes, children: convert(item[name], depth + 1) };
        });
  const children = convert(parsed, 0);
  if (!children.some((c) => typeof c !== 'string')) return fail();
  return { name: '', attributes: {}, children };
}

/** Every element of that name below, in document order. */
export function all(node: XmlNode, ...names: string[]): XmlNode[] {
  return node.children.flatMap((c) =>
    typeof c === 'string' ? [] : names.includes(c.name) ? [c] : all(c, ...names),
  );
}
export const first = (node: XmlNode, name: string): XmlNode | undefined => all(node, name)[0];

/** The words of an element without those of the elements left out. */
export function textOf(node: XmlNode | undefined, without: ReadonlySet<string> = new Set()): string {
  const words = (n: XmlNode): string =>
    n.children.map((c) => (typeof c === 'string' ? c : without.has(c.name) ? '' : words(c))).join('');
  return node ? tidy(words(node)) : '';
}
