/** Threads of boards: the opening post, and the replies apart. */
import type { RawBlock, RawDocument } from '../../document.ts';
import { tidy } from '../../tidy.ts';
import { collect } from './blocks.ts';

/** Class names and types that boards give to one post (common practice, no published source). */
const POST =
  /(?:^|[-_\s])(?:post|comment|reply|answer|message|postcontainer|threaditem|topic-?post|usertext)(?:$|[-_\s])/i;
const BODY =
  /(?:^|[-_\s])(?:body|content|text|postbody|post-body|message-?body|usertext-body|md|comment-?content|entry-content|selftext)(?:$|[-_\s])/i;
const AUTHOR = /(?:^|[-_\s])(?:author|username|user|poster|nick|member)(?:$|[-_\s])/i;
const BOARD = /\b(?:forum|board|thread|topic|discussion|viewtopic|showthread)\b/i;
const SHORTEST_POST = 20;

const names = (e: Element) => `${e.getAttribute('class') ?? ''} ${e.id ?? ''}`;
const typed = (e: Element) =>
  /schema\.org\/(?:DiscussionForumPosting|Comment|Answer|Question)$/.test(e.getAttribute('itemtype') ?? '');

/** The posts of a page in order, none inside another's words; a reply may stand inside the post it answers. */
function posts(document: Document): Element[] {
  const found = [...document.querySelectorAll('[itemtype],article,div,li,tr,td,section')].filter(
    (e) => (typed(e) || POST.test(names(e))) && tidy(e.textContent ?? '').length >= SHORTEST_POST,
  );
  const set = new Set(found);
  return found.filter((e) => {
    // "post" inside "post-wrapper": the outer one is the post, unless it holds several.
    const inner = [...e.querySelectorAll('*')].filter((c) => set.has(c));
    if (inner.length > 1 && !bodyOf(e, set)) return false;
    let up = e.parentElement;
    while (up) {
      if (set.has(up) && !POST.test(names(e)) && !typed(e)) return false;
      if (set.has(up) && bodyOf(up, set) && up.contains(e) && bodyOf(up, set)!.contains(e)) return false;
      up = up.parentElement;
    }
    return inner.length === 0 || Boolean(bodyOf(e, set));
  });
}

/** The element with a post's own words. */
function bodyOf(post: Element, all: ReadonlySet<Element>): Element | null {
  const bodies = [...post.querySelectorAll('*')].filter(
    (c) =>
      BODY.test(names(c)) ||
      c.getAttribute('itemprop') === 'text' ||
      c.getAttribute('itemprop') === 'articleBody',
  );
  return (
    bodies.find((b) => {
      let up = b.parentElement;
      while (up && up !== post) {
        if (all.has(up)) return false;
        up = up.parentElement;
      }
      return !all.has(b) || !b.querySelector('*') || up === post;
    }) ?? null
  );
}

function authorOf(post: Element): string | undefined {
  const named = post.querySelectorAll('[itemprop="author"],[rel="author"]');
  const candidates = named.length
    ? [...named]
    : [...post.querySelectorAll('*')].filter((c) => AUTHOR.test(names(c)));
  // A cell for the author holds counts and badges too; the name stands in the shortest one.
  const [name] = candidates
    .map((c) => tidy(c.textContent ?? '').slice(0, 60))
    .filter(Boolean)
    .sort((x, y) => x.length - y.length);
  return name || undefined;
}

/** A thread's passages, or null when the page is no board. */
export function threadOf(
  document: Document,
  saysBoard: boolean,
): Pick<RawDocument, 'blocks' | 'authors' | 'kind'> | null {
  const list = posts(document);
  if (list.length < 2) return null;
  const inPosts = list.reduce((n, p) => n + tidy(p.textContent ?? '').length, 0);
  const rest = tidy(document.body?.textContent ?? '').length - inPosts;
  const looks =
    saysBoard ||
    BOARD.test(names(document.body)) ||
    BOARD.test(document.querySelector('link[rel="canonical"]')?.getAttribute('href') ?? '') ||
    BOARD.test(document.title ?? '');
  // A report with comments below is no board: most of its words stand outside.
  if (!looks && rest > inPosts * 0.35) return null;
  const set = new Set(list);
  const wordsOf = (post: Element) => collect(bodyOf(post, set) ?? withoutReplies(post, set));
  const [opening, ...replies] = list;
  const blocks: RawBlock[] = wordsOf(opening);
  if (!blocks.length) return null;
  for (const reply of replies) {
    const speaker = authorOf(reply);
    const said = wordsOf(reply)
      .filter((b) => b.type !== 'quote')
      .map((b) => b.text)
      .join(' ');
    if (said) blocks.push({ type: 'reply', text: said, ...(speaker ? { speaker } : {}) });
  }
  const author = authorOf(opening);
  return {
    blocks,
    kind: { is: 'forum', why: 'it is a thread of a board' },
    ...(author ? { authors: [author] } : {}),
  };
}

function withoutReplies(post: Element, all: ReadonlySet<Element>): Element {
  const copy = post.cloneNode(true) as Element;
  const originals = [...post.querySelectorAll('*')];
  const copies = [...copy.querySelectorAll('*')];
  originals.forEach((o, i) => {
    if (all.has(o) || AUTHOR.test(names(o))) copies[i].remove();
  });
  return copy;
}
