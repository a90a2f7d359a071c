/** Shapes that real pages have: each sets a content among furniture. Every piece of furniture holds the word FURNITURE or a marked number. */
import type { Content } from './contents.ts';

const esc = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
const longDate = (iso: string) =>
  new Date(`${iso}T12:00:00Z`).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });

/** Body as modern markup; `between` comes after every second paragraph. */
export function markup(body: readonly string[], between = ''): string {
  let html = '';
  let paragraphs = 0;
  for (let i = 0; i < body.length;) {
    const line = body[i];
    if (/^\d+\. /.test(line)) {
      html += '<ol>';
      while (i < body.length && /^\d+\./.test(body[i])) {
        html += `<li>${esc(body[i].replace(/^\d+\. /, ''))}`;
        i++;
        if (/^\d+\.\d+\. /.test(body[i] ?? '')) {
          html += '<ol>';
          while (/^\d+\.\d+\. /.test(body[i] ?? ''))
            html += `<li>${esc(body[i++].replace(/^[\d.]+ /, ''))}</li>`;
          html += '</ol>';
        }
        html += '</li>';
      }
      html += '</ol>';
    } else if (/^- /.test(line)) {
      html += '<ul>';
      while (/^- /.test(body[i] ?? '')) html += `<li>${esc(body[i++].slice(2))}</li>`;
      html += '</ul>';
    } else if (/^\| /.test(line)) {
      html += '<table class="wikitable">';
      for (let row = 0; /^\| /.test(body[i] ?? ''); row++) {
        const tag = row ? 'td' : 'th';
        html += `<tr>${body[i++]
          .slice(2)
          .split(' | ')
          .map((c) => `<${tag}>${esc(c)}</${tag}>`)
          .join('')}</tr>`;
      }
      html += '</table>';
    } else {
      html += /^## /.test(line) ? `<h2>${esc(line.slice(3))}</h2>` : `<p>${esc(line)}</p>`;
      if (!/^## /.test(line) && ++paragraphs % 2 === 0) html += between;
      i++;
    }
  }
  return html;
}

const AD = '<div class="ad-slot"><p>FURNITURE advert: 777 offers end on 1 May 2031.</p></div>';
const READ_ALSO =
  '<p><strong>Read also:</strong> <a href="/x">FURNITURE ten bridges of 1901 that fell</a></p>';

export type Layout = (content: Content) => string;

/** Header, nav, main, article, aside, footer; JSON-LD; cookie words. */
const semantic: Layout = (
  c,
) => `<!doctype html><html lang="en"><head><title>${esc(c.title)} - ${c.publisher}</title>
<script type="application/ld+json">${JSON.stringify({ '@context': 'https://schema.org', '@type': c.kind === 'news' ? 'NewsArticle' : c.kind === 'howto' ? 'HowTo' : 'Article', headline: c.title, datePublished: c.published, author: c.authors?.map((name) => ({ '@type': 'Person', name })), publisher: { '@type': 'Organization', name: c.publisher }, license: 'https://creativecommons.org/licenses/by/4.0/' })}</script></head>
<body><header><nav><ul><li>FURNITURE Home</li><li>FURNITURE Sport 888</li></ul></nav></header>
<div id="cookie-banner"><p>FURNITURE We and our 888 partners use cookies.</p></div>
<main><article><h1>${esc(c.title)}</h1><p class="byline">By ${(c.authors ?? ['FURNITURE']).join(' and ')}</p>
<div class="share-bar"><span>888 shares FURNITURE</span></div>${markup(c.body, AD)}
<aside class="related"><h3>FURNITURE Related</h3><p>FURNITURE The mayor of 1999 spoke to Nadia Furne.</p></aside></article></main>
<section class="comments"><h2>FURNITURE Comments (888)</h2><p>FURNITURE I was there in 1950, said Nadia Furne.</p></section>
<footer><p>FURNITURE © 1888 ${c.publisher}. All rights reserved.</p></footer></body></html>`;

/** Nested divs without meaning, promos and a "read also" between paragraphs, a byline soup. */
const soup: Layout = (
  c,
) => `<html><head><meta property="og:title" content="${c.title} | ${c.publisher}"><meta property="og:site_name" content="${c.publisher}">${c.published ? `<meta property="article:published_time" content="${c.published}T06:00:00+00:00">` : ''}</head>
<body class="story"><div class="page"><div class="topmenu menu"><a>FURNITURE News</a> <a>FURNITURE Weather 888</a></div>
<div class="grid"><div class="col-8"><div class="inner"><h1>${esc(c.title)}</h1>
<div class="byline">By ${(c.authors ?? ['the FURNITURE desk']).join(', ')} | ${c.published ? longDate(c.published) : ''} | 5 min read</div>
<div class="social-share"><button>Share</button><button>Tweet</button></div>
<div class="story-body">${markup(c.body, READ_ALSO + AD)}</div>
<div class="tags">Tags: FURNITURE, 888</div><div class="newsletter-signup"><p>FURNITURE Get 888 stories a week in your inbox. Sign up on 1 May 2031.</p></div></div></div>
<div class="col-4 sidebar"><div class="most-read"><p>FURNITURE Most read: Nadia Furne wins 888 prizes</p></div></div></div>
<div class="footer-links">FURNITURE Imprint 888</div></div></body></html>`;

/** Laid out with tables and fonts, paragraphs parted by two line breaks: pages of the nineties that are still up. */
const tables: Layout = (
  c,
) => `<html><head><title>${c.publisher}: ${esc(c.title)}</title></head><body bgcolor="#ffffff"><table width="100%"><tr><td width="20%" class="menu"><font size="1"><a>FURNITURE Home</a><br><a>FURNITURE Links 888</a></font></td>
<td><font face="Times"><h1>${esc(c.title)}</h1>${c.body
  .map((l) => (/^## /.test(l) ? `<br><br><h3>${esc(l.slice(3))}</h3>` : `${esc(l)}<br><br>`))
  .join(
    '\n',
  )}</font></td></tr></table><hr><center class="footer"><font size="1">FURNITURE Copyright 1888 ${c.publisher}</font></center></body></html>`;

/** Microdata, a licence link, notes in the text, hidden print words. */
const microdata: Layout = (
  c,
) => `<!doctype html><html lang="en-GB"><head><title>${esc(c.title)}</title></head><body><div role="navigation"><p>FURNITURE You are here: Home 888</p></div>
<div itemscope itemtype="https://schema.org/Article"><h1 itemprop="headline">${esc(c.title)}</h1>${(c.authors ?? []).map((a) => `<span itemprop="author">${a}</span>`).join('')}<time itemprop="datePublished" datetime="${c.published ?? '2020-01-01'}">FURNITURE</time><span itemprop="publisher">${c.publisher}</span>
<div itemprop="articleBody">${markup(c.body).replace(/\.<\/p>/g, '.<sup class="reference"><a href="#n1">[1]</a></sup></p>')}</div>
<div class="print-only" style="display:none">FURNITURE Printed 888 times</div></div>
<div class="reflist references"><ol><li>FURNITURE Furne, N. (1888). On nothing.</li></ol></div><a rel="license" href="https://creativecommons.org/licenses/by-sa/4.0/">CC BY-SA 4.0</a></body></html>`;

/** A board of table rows, one a post. */
const oldBoard: Layout = (c) =>
  `<html><head><title>${esc(c.title)} - ${c.publisher} forum</title></head><body class="viewtopic"><div id="menubar" class="menu">FURNITURE Register | Log in 888</div><h1>${esc(c.title)}</h1><table class="forumline">${[
    [c.authors?.[0] ?? 'someone', c.body.map((l) => esc(l)).join('<br><br>')] as const,
    ...(c.replies ?? []),
  ]
    .map(
      ([who, words], i) =>
        `<tr class="post row${(i % 2) + 1}" id="p${i}"><td class="author"><b class="username">${who}</b><br><small>FURNITURE Posts: 888</small></td><td class="postbody">${words}</td></tr>`,
    )
    .join('')}</table><div class="pagination">FURNITURE Page 1 of 888</div></body></html>`;

/** A thread of nested replies with votes. */
const thread: Layout = (c) =>
  `<!doctype html><html><head><title>${esc(c.title)}</title><script type="application/ld+json">{"@context":"https://schema.org","@type":"DiscussionForumPosting","headline":${JSON.stringify(c.title)},"datePublished":"${c.published ?? '2024-05-05'}","author":{"name":"${c.authors?.[0] ?? 'someone'}"}}</script></head><body><nav>FURNITURE Boards 888</nav><main><article class="post"><header><a class="author-name">${c.authors?.[0] ?? 'someone'}</a></header><h1>${esc(c.title)}</h1><div class="post-body">${markup(c.body)}</div><div class="votes">FURNITURE 888 points</div></article><div class="thread-replies">${(c.replies ?? []).map(([who, words]) => `<div class="comment"><span class="author">${who}</span><span class="score">FURNITURE 888 points</span><div class="comment-content"><p>${esc(words)}</p></div><button>Reply</button></div>`).join('')}</div></main><aside>FURNITURE Rules: be kind 888</aside></body></html>`;

export const LAYOUTS: Readonly<Record<string, Layout>> = {
  semantic,
  soup,
  tables,
  microdata,
  oldBoard,
  thread,
};

/** Layouts that a content of each kind is met in. */
export const LAYOUTS_OF: Readonly<Record<Content['kind'], readonly string[]>> = {
  news: ['semantic', 'soup', 'tables', 'microdata'],
  encyclopedia: ['semantic', 'soup', 'microdata'],
  abstract: ['semantic', 'soup', 'microdata'],
  forum: ['oldBoard', 'thread', 'soup'],
  howto: ['semantic', 'soup', 'microdata'],
};
