/** What a page says of itself: JSON-LD (schema.org), microdata, Open Graph and meta elements, rel=license, its own date line. */
import { literal } from '../../../language/literal.ts';
import type { RawDocument, SourceKind } from '../../document.ts';
import { isoDate, tidy } from '../../tidy.ts';

type Meta = Omit<RawDocument, 'blocks'>;
type Thing = Record<string, unknown>;

const KIND_OF: readonly [RegExp, SourceKind, string][] = [
  [
    /^(?:News|Reportage|AnalysisNews|OpinionNews|BackgroundNews)Article$/,
    'news',
    'the page says it is a news report',
  ],
  [/^(?:DiscussionForumPosting|QAPage|SocialMediaPosting)$/, 'forum', 'the page says it is a board'],
  [/^HowTo$|^Recipe$/, 'howto', 'the page says it is a guide'],
  [/^(?:ScholarlyArticle|MedicalScholarlyArticle)$/, 'abstract', 'the page says it is a study'],
];

const text = (value: unknown): string | undefined => {
  const one = Array.isArray(value) ? value[0] : value;
  const said =
    typeof one === 'string'
      ? one
      : one && typeof one === 'object'
        ? ((one as Thing).name ?? (one as Thing)['@id'] ?? (one as Thing).url)
        : undefined;
  return typeof said === 'string' && said.trim() ? tidy(said).slice(0, 300) : undefined;
};
const typesOf = (thing: Thing): string[] =>
  (Array.isArray(thing['@type']) ? thing['@type'] : [thing['@type']])
    .filter((t): t is string => typeof t === 'string')
    .map((t) => t.replace(/^.*\//, ''));

/** Things of a page's JSON-LD that are works, graphs opened, in order. Broken scripts are passed over. */
function works(document: Document): Thing[] {
  const out: Thing[] = [];
  const take = (value: unknown, depth: number) => {
    if (depth > 4 || !value || typeof value !== 'object') return;
    if (Array.isArray(value)) return value.slice(0, 100).forEach((v) => take(v, depth + 1));
    const thing = value as Thing;
    if (thing['@graph']) take(thing['@graph'], depth + 1);
    if (
      typesOf(thing).some((t) =>
        /Article$|Posting$|^(?:HowTo|Recipe|QAPage|WebPage|BlogPosting|Report|Question)$/.test(t),
      )
    )
      out.push(thing);
    if (thing.mainEntity) take(thing.mainEntity, depth + 1);
  };
  for (const script of document.querySelectorAll('script[type="application/ld+json"]')) {
    try {
      take(JSON.parse(script.textContent ?? ''), 0);
    } catch {
      // A page's own mistake; the other signs remain.
    }
  }
  // A web page as such says less than the work on it.
  return out.sort((a, b) => Number(typesOf(a).includes('WebPage')) - Number(typesOf(b).includes('WebPage')));
}

function names(value: unknown): string[] {
  const list = (Array.isArray(value) ? value : [value]).map(text).filter((n): n is string => Boolean(n));
  return (
    list
      .map((n) => withoutTail(n.replace(/^by:?\s+/i, '')))
      // An address, or a site by its address, is nobody.
      .filter((n) => n && !/^https?:|^\S+\.\p{Ll}{2,4}$/u.test(n))
      .slice(0, 20)
  );
}

/** A weekday or month that was set right behind a name is the beginning of a day. */
const withoutTail = (name: string) =>
  name.replace(/\s(?:(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day|January|February|March|April|June|July|August|September|October|November|December)$/, ''); // prettier-ignore

/** Names in a byline: "By Ann Rae and Bo Cay, city editor" → Ann Rae, Bo Cay. */
export function bylineNames(byline: string): string[] {
  const plain = tidy(byline)
    .replace(/^(?:written |reported |story |text |words )?by:?\s+/i, '')
    .replace(
      /\s*(?:\||•|·|—|–|published|updated|posted|\d{1,2}\s\p{Lu}\p{Ll}+\s\d{4}|\p{Lu}\p{Ll}+\s\d{1,2},\s\d{4}).*$/iu,
      '',
    );
  return plain
    .split(/\s*(?:,|\band\b|&|;)\s*/)
    .map(withoutTail)
    .filter((n) => /^\p{Lu}[\p{L}.’'-]*(?:\s(?:de|van|von|der|la|\p{Lu}[\p{L}.’'-]*)){1,4}$/u.test(n));
}

const DATE_WORDS =
  /\b(\d{1,2}\s(?:January|February|March|April|May|June|July|August|September|October|November|December)\s\d{4}|(?:January|February|March|April|May|June|July|August|September|October|November|December)\s\d{1,2},\s\d{4}|\d{4}-\d{2}-\d{2})\b/;

/** The article's words where the page gives them apart (schema.org articleBody): a page that a script fills holds them nowhere else. */
export function articleBody(document: Document): string {
  const said = works(document).flatMap((w) => [w.articleBody, w.text]).filter((b) => typeof b === 'string'); // prettier-ignore
  return said.sort((a, b) => b.length - a.length)[0] ?? '';
}

/** "Family, Given" as catalogues have it, said as a name. */
const inOrder = (name: string) => tidy(name).replace(/^([^,]{2,40}),\s*([^,]{1,40})$/, '$2 $1');

/** Names that their markup or the address they lead to calls an author's, outside what readers wrote. */
export function markedAuthors(document: Document): string[] {
  const BY = '[class*="author" i],[id*="author" i],[class*="writer" i],[class*="contributor" i],[class*="reporter" i],a[href*="/author"],a[href*="/staff/"],a[href*="/people/"],a[href*="/profile"],a[href*="/contributor"],a[href*="/by/"],a[href*="/journalist"]'; // prettier-ignore
  for (const e of document.querySelectorAll(BY)) {
    if (e.closest('[class*="comment" i],[id*="comment" i],[class*="repl" i],nav,footer')) continue;
    const said = tidy(e.textContent ?? '');
    const found = said.length <= 80 ? bylineNames(said) : [];
    if (found.length) return found;
  }
  return [];
}

export function metadata(document: Document): Meta {
  const content = (...selectors: string[]) => {
    for (const s of selectors) {
      const value = document.querySelector(s)?.getAttribute('content')?.trim();
      if (value) return tidy(value).slice(0, 300);
    }
    return undefined;
  };
  const prop = (name: string) => {
    const element = document.querySelector(`[itemprop="${name}"]`);
    return element
      ? (element.getAttribute('content') ??
          element.getAttribute('datetime') ??
          element.getAttribute('href') ??
          tidy(element.textContent ?? '')) ||
          undefined
      : undefined;
  };
  const [work = {} as Thing] = works(document);
  const heading = document.querySelector('h1')?.textContent;
  const publisher =
    text(work.publisher) ??
    content(
      'meta[property="og:site_name"]',
      'meta[name="application-name"]',
      'meta[name="citation_journal_title"]',
    );
  const named =
    text(work.headline) ??
    content('meta[name="citation_title"]', 'meta[property="og:title"]') ??
    headingOrTitle(heading ? tidy(heading) : '', document.title ? tidy(document.title) : '');
  const title =
    named && publisher
      ? named.replace(new RegExp(`\\s*[-–—|•]\\s*${literal(publisher)}\\s*$`, 'i'), '')
      : named;
  const byline =
    document.querySelector('[rel="author"],[class*="byline"],[class*="author-name"]')?.textContent ?? '';
  const authors = [
    names(work.author),
    [...document.querySelectorAll('meta[name="citation_author"]')]
      .map((m) => inOrder(m.getAttribute('content') ?? ''))
      .filter(Boolean),
    names(content('meta[name="author"]')),
    [...document.querySelectorAll('[itemprop="author"]')].flatMap((e) => bylineNames(e.textContent ?? '')),
    bylineNames(byline),
  ].find((list) => list.length);
  const dated =
    document.querySelector('[class*="date"],[class*="time"],[class*="publish"],[class*="byline"]')
      ?.textContent ?? '';
  const published = [
    text(work.datePublished),
    content(
      'meta[property="article:published_time"]',
      'meta[name="citation_publication_date"]',
      'meta[name="citation_date"]',
      'meta[name="citation_online_date"]',
      'meta[name="date"]',
      'meta[name="dc.date"]',
      'meta[name="DC.date.issued"]',
    ),
    prop('datePublished'),
    document.querySelector('time[datetime]')?.getAttribute('datetime') ?? undefined,
    DATE_WORDS.exec(dated)?.[1],
  ]
    .map((d) => isoDate(d?.replace(/\//g, '-')))
    .find(Boolean);
  const updated = [
    text(work.dateModified),
    content('meta[property="article:modified_time"]', 'meta[property="og:updated_time"]'),
    prop('dateModified'),
  ]
    .map((d) => isoDate(d))
    .find(Boolean);
  const licensed = document.querySelector('a[rel~="license"],link[rel~="license"]');
  const licence =
    text(work.license) ??
    prop('license') ??
    (licensed ? tidy(licensed.textContent ?? '') || (licensed.getAttribute('href') ?? undefined) : undefined);
  const language = document.documentElement?.getAttribute('lang') ?? text(work.inLanguage);
  const address =
    document.querySelector('link[rel="canonical"]')?.getAttribute('href') ??
    content('meta[property="og:url"]');
  const known = typesOf(work).flatMap((t) => KIND_OF.filter(([pattern]) => pattern.test(t)))[0];
  return {
    ...(title ? { title } : {}),
    ...(published ? { published } : {}),
    ...(updated && updated !== published ? { updated } : {}),
    ...(authors?.length ? { authors } : {}),
    ...(publisher ? { publisher } : {}),
    ...(licence ? { licence: licence.slice(0, 300) } : {}),
    ...(language ? { language } : {}),
    ...(address && /^https?:/.test(address) ? { address } : {}),
    ...(known ? { kind: { is: known[1], why: known[2] } } : {}),
  };
}

/** The first heading when the page's title holds it; a heading of the whole site loses to a title with more words. */
function headingOrTitle(heading: string, title: string): string | undefined {
  if (!heading || !title || title.includes(heading)) return heading || title || undefined;
  const own = title.split(/\s+[-–—|•:]\s+/).sort((a, b) => b.length - a.length)[0];
  return own.split(' ').length >= 4 ? own : heading;
}
