/**
 * Paragraphs of real prose from Debian's packages, read where they are installed: the Debian handbook
 * (debian-handbook), the Developer's Reference (developers-reference) and the Free On-line Dictionary of Computing
 * (dict-foldoc). For trials and tests; nothing of it is kept here.
 */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';

const HANDBOOK = '/usr/share/doc/debian-handbook/html/en-US';
const REFERENCE = '/usr/share/developers-reference';
const FOLDOC = '/usr/share/dictd/foldoc.dict.dz';
const NAMED: Record<string, string> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  nbsp: ' ',
  mdash: '—',
  ndash: '–',
  hellip: '…',
  rsquo: '’',
  lsquo: '‘',
  ldquo: '“',
  rdquo: '”',
};

function plain(html: string): string {
  return html
    .replace(/<[^>]+>/g, '')
    .replace(/&#(x?)([0-9a-f]+);/gi, (_, hex: string, n: string) =>
      String.fromCodePoint(parseInt(n, hex ? 16 : 10)),
    )
    .replace(/&([a-z]+);/gi, (whole, name: string) => NAMED[name] ?? whole)
    .replace(/\s+/g, ' ')
    .trim();
}

function htmlFiles(folder: string): string[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory()
      ? htmlFiles(`${folder}/${e.name}`)
      : e.name.endsWith('.html')
        ? [`${folder}/${e.name}`]
        : [],
  );
}

function fromHtml(folder: string): string[] {
  return htmlFiles(folder)
    .sort()
    .flatMap((f) =>
      [...readFileSync(f, 'utf8').matchAll(/<(p|div class="para")[^>]*>([\s\S]*?)<\/(?:p|div)>/g)].map((m) =>
        plain(m[2]),
      ),
    );
}

/** Entries of the dictionary, whole, in file order. */
export function dictionaryEntries(): { title: string; text: string }[] {
  if (!existsSync(FOLDOC)) return [];
  const raw = gunzipSync(readFileSync(FOLDOC)).toString('utf8');
  return raw.split(/\n(?=\S)/).map((entry) => {
    const [title, ...rest] = entry.split('\n');
    return {
      title: title.trim(),
      text: rest
        .map((l) => l.trim())
        .join('\n')
        .replace(/[{}]/g, '')
        .replace(/\n{2,}/g, '\n\n')
        .trim(),
    };
  });
}

function fromDictionary(): string[] {
  return dictionaryEntries().flatMap((e) =>
    e.text.split('\n\n').map((p) =>
      p
        .replace(/\s+/g, ' ')
        .replace(/<[^>]*>/g, '')
        .trim(),
    ),
  );
}

const isProse = (p: string) => {
  const words = p.split(' ').length;
  return (
    words >= 25 &&
    words <= 110 &&
    /[.!?]["”)]?$/.test(p) &&
    /^[A-Z"“]/.test(p) &&
    !/[{}|\\<>_=#$]|\/\w+\/|\w\(\d\)|--/.test(p)
  );
};

/** Every usable paragraph of one origin, 25 to 110 words, in a fixed order. */
export function proseParagraphs(origin: 'handbook' | 'reference' | 'dictionary'): string[] {
  const all =
    origin === 'handbook'
      ? fromHtml(HANDBOOK)
      : origin === 'reference'
        ? fromHtml(REFERENCE)
        : fromDictionary();
  return [...new Set(all)].filter(isProse);
}

/** A fixed, spread-out sample of paragraphs from all three origins. */
export function sampleParagraphs(count: number): string[] {
  const lists = (['handbook', 'reference', 'dictionary'] as const)
    .map(proseParagraphs)
    .filter((l) => l.length);
  const out: string[] = [];
  for (let i = 0; out.length < count && lists.length; i++) {
    const list = lists[i % lists.length];
    const per = Math.ceil(count / lists.length);
    const at = Math.floor((Math.floor(i / lists.length) + 0.5) * (list.length / per)) % list.length;
    out.push(list[at]);
    if (i > count * 3) break;
  }
  return out;
}
