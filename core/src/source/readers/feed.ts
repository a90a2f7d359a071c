/** RSS, Atom and JSON feeds, by feedsmith: the newest entry's own text, with the feed's name as publisher. */
import { SourceError, type RawDocument } from '../document.ts';
import { isoDate, tidy } from '../tidy.ts';
import { htmlReader } from './html/reader.ts';
import type { SourceReader } from './reader.ts';

interface Entry {
  title?: string | undefined;
  html?: string | undefined;
  published?: string | undefined;
  updated?: string | undefined;
  address?: string | undefined;
  author?: string | undefined;
}
// Feeds differ by format; only these fields are looked at, all of them optional and from outside.
type Loose = Record<string, unknown>;
const text = (value: unknown): string | undefined =>
  typeof value === 'string'
    ? value
    : typeof (value as Loose)?.value === 'string'
      ? ((value as Loose).value as string)
      : undefined;
const list = (value: unknown): Loose[] => (Array.isArray(value) ? (value as Loose[]) : []);

function entries(feed: Loose): Entry[] {
  return [...list(feed.items), ...list(feed.entries)].map((e) => ({
    title: text(e.title),
    html:
      text((e.content as Loose)?.encoded) ??
      text(e.content) ??
      text(e.content_html) ??
      text(e.description) ??
      text(e.summary),
    published: text(e.pubDate) ?? text(e.published) ?? text(e.date_published),
    updated: text(e.updated),
    address: text(e.link) ?? text(list(e.links)[0]?.href) ?? text(e.url),
    author: text((e.dc as Loose)?.creator) ?? text(list(e.authors)[0]?.name) ?? text(list(e.authors)[0]),
  }));
}

export const feedReader: SourceReader = {
  id: 'feed',
  accepts: (t) =>
    /^\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]{0,2000}?-->\s*)?<(?:rss|feed|rdf:RDF)[\s>]/i.test(t.slice(0, 4000))
      ? 1
      : 0,
  read: async (t) => {
    const { parseFeed } = await import('feedsmith');
    let feed: Loose;
    try {
      feed = parseFeed(t).feed as Loose;
    } catch {
      throw new SourceError(
        'unreadable',
        'This looks like a feed but is broken, so it can’t be read. Open the report itself.',
      );
    }
    const time = (e: Entry) => isoDate(e.published ?? e.updated) ?? '';
    const [newest] = entries(feed)
      .filter((e) => e.html)
      .sort((a, b) => (time(a) < time(b) ? 1 : time(a) > time(b) ? -1 : 0));
    if (!newest)
      throw new SourceError('empty', 'No entry of this feed has any text. Open the report itself.');
    const { blocks } = await htmlReader.read(`<article>${newest.html!}</article>`);
    const [published, updated] = [isoDate(newest.published), isoDate(newest.updated)];
    const raw: RawDocument = { blocks };
    if (newest.title) raw.title = tidy(newest.title);
    if (published) raw.published = published;
    if (updated) raw.updated = updated;
    if (newest.author) raw.authors = [tidy(newest.author)];
    const publisher = text(feed.title);
    if (publisher) raw.publisher = tidy(publisher);
    if (newest.address) raw.address = newest.address;
    return raw;
  },
};
