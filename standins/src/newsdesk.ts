/** A news desk on loopback: made-up pages and a feed to fetch, and every way a site can fail. */
import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

export interface NewsDesk {
  /** "127.0.0.1:PORT", as the server's setting takes it. */
  host: string;
  url: string;
  /** Changes what a page says from now on. */
  publish: (path: string, html: string) => void;
  /** Paths asked for, in order. */
  asked: readonly string[];
  close: () => Promise<void>;
}

const STORY = (title: string, words: string, day: string) =>
  `<!doctype html><html lang="en"><head><title>${title} - Lockside Wire</title><meta property="og:site_name" content="Lockside Wire"><meta property="article:published_time" content="${day}T07:00:00Z"></head><body><nav>News Sport</nav><article><h1>${title}</h1><p class="byline">By Nell Auster</p>${words
    .split('\n')
    .map((p) => `<p>${p}</p>`)
    .join('')}</article><footer>Imprint</footer></body></html>`;

/** Invented reports; the first two are on one event and differ. */
export const STORIES: Readonly<Record<string, string>> = {
  '/weir': STORY(
    'Weir at Sluice gives way in the night',
    'The old weir at Sluice gave way on Saturday night, and the Lower Orrin fell by two metres within an hour.\nForty boats lie on the mud, the harbour office said. Nobody was hurt.\n“I heard a long sigh, and then there was no water,” said Bram Tolley, who lives on a barge.\nThe weir was built in 1844 and was last repaired in 1987.',
    '2025-10-12',
  ),
  '/weir-later': STORY(
    'Boats still on the mud after weir collapse',
    'Fifty-two boats lie on the mud two days after the weir at Sluice gave way, the harbour office said on Monday.\nThe old weir at Sluice gave way on Saturday night. It was built in 1844.\nA dam of sandbags will be tried on Thursday. Who will pay for it is not known.',
    '2025-10-13',
  ),
};

/** Starts the desk on a free port of 127.0.0.1. */
export function startNewsDesk(): Promise<NewsDesk> {
  const pages = new Map(Object.entries(STORIES));
  const asked: string[] = [];
  const html = (res: ServerResponse, text: string) =>
    res.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(text);
  const odd: Record<string, (res: ServerResponse) => void> = {
    '/robots.txt': (res) =>
      res.writeHead(200, { 'content-type': 'text/plain' }).end('User-agent: *\nDisallow: /private/\n'),
    '/private/page': (res) => html(res, pages.get('/weir')!),
    '/to-weir': (res) => res.writeHead(302, { location: '/weir' }).end(),
    '/loop': (res) => res.writeHead(302, { location: '/loop' }).end(),
    '/inside': (res) => res.writeHead(302, { location: 'http://169.254.169.254/latest/meta-data/' }).end(),
    '/inside-name': (res) => res.writeHead(302, { location: 'http://localhost:5432/' }).end(),
    '/inside-file': (res) => res.writeHead(302, { location: 'file:///etc/passwd' }).end(),
    '/empty': (res) => res.writeHead(204).end(),
    '/picture': (res) => res.writeHead(200, { 'content-type': 'image/png' }).end('x'),
    '/liar': (res) =>
      res
        .writeHead(200, { 'content-type': 'text/html' })
        .end(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0, 1, 2, 3, 0, 0])),
    '/slow': (res) => {
      res.writeHead(200, { 'content-type': 'text/html' });
      const drip = setInterval(() => res.write('<p>drip</p>'), 200);
      res.on('close', () => clearInterval(drip));
    },
    '/huge': (res) => {
      res.writeHead(200, { 'content-type': 'text/html' });
      const chunk = 'x'.repeat(64 * 1024);
      const pour = () => {
        while (!res.destroyed && res.write(chunk));
        if (!res.destroyed) res.once('drain', pour);
      };
      pour();
    },
    '/feed.xml': (res) =>
      res
        .writeHead(200, { 'content-type': 'application/rss+xml' })
        .end(
          '<?xml version="1.0"?><rss version="2.0"><channel><title>Lockside Wire</title><item><title>Weir gives way</title><pubDate>Sun, 12 Oct 2025 07:00:00 GMT</pubDate><description>&lt;p&gt;The old weir at Sluice gave way on Saturday night, and the river fell by two metres.&lt;/p&gt;</description></item></channel></rss>',
        ),
  };
  for (const status of [401, 404, 500]) odd[`/${status}`] = (res) => res.writeHead(status).end('no');
  const server = createServer((req, res) => {
    const path = (req.url ?? '/').split('?')[0];
    asked.push(path);
    const page = pages.get(path);
    if (page) html(res, page);
    else if (odd[path]) odd[path](res);
    else res.writeHead(404).end();
  });
  return new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () => {
      const host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
      resolve({
        host,
        url: `http://${host}`,
        publish: (path, text) => void pages.set(path, text),
        asked,
        close: () =>
          new Promise((done) => {
            server.closeAllConnections();
            server.close(() => done());
          }),
      });
    }),
  );
}
