/** What stands on a page and is no part of its text: menus, cookie words, share counts, adverts, "read also", comments. */

/** Elements that never hold running text. */
export const SILENT: ReadonlySet<string> = new Set(
  'SCRIPT STYLE NOSCRIPT TEMPLATE NAV FOOTER ASIDE FORM BUTTON FIGURE FIGCAPTION SVG IFRAME SELECT TEXTAREA HEAD SUP PRE OBJECT VIDEO AUDIO CANVAS DIALOG MENU'.split(
    ' ',
  ),
);

/** Whole words of class names and ids by which pages mark their furniture (common practice, no published source). */
export const MARKED =
  /(?:^|[-_\s])(?:nav|navbar|navigation|menu|breadcrumbs?|cookie|cookies|consent|gdpr|banner|share|sharing|social|follow|subscribe|subscription|newsletter|signup|paywall|advert|adverts|advertisement|advertising|ads?|adslot|sponsor|sponsored|promo|promoted|teaser|related|recommended|recommendations|more-stories|most-read|trending|popular|widget|sidebar|footer|masthead|toolbar|pagination|pager|comments?|disqus|caption|credit|credits|byline|timestamp|meta|metadata|tags|toc|infobox|navbox|hatnote|reflist|references|footnotes?|noprint|hidden|visually-hidden|sr-only|skip-link|editsection|mw-editsection|author-bio|author-box|modal|popup|overlay|vote|votes|score|karma|signature|sig|quote-author|pull-?quote|bio)(?:$|[-_\s])/i;
/** And those by which they mark their text. */
export const CONTENT =
  /(?:^|[-_\s])(?:article-?body|story-?body|post-?body|entry-?content|content-?body|main-?content)(?:$|[-_\s])/i;
const ROLE = /^(?:navigation|banner|complementary|contentinfo|search|dialog|alert|menu|toolbar|note)$/i;

/** Paragraphs that are furniture wherever they stand. */
const LINE =
  /^(?:read (?:also|more|next|this)\b|(?:more|also) (?:on|in|from) this\b|related(?: (?:stories|articles|topics))?\s*:?|see also\s*:?|share (?:this|on|via)\b|shares?$|\d[\d,.]*k?\s+(?:shares?|comments?|views?|likes?|votes?|points?|replies|reactions)\b|subscribe|sign (?:up|in)\b|newsletter|advert(?:isement)?\b|sponsored|promoted|we use cookies|this (?:site|website) uses cookies|accept (?:all )?cookies|cookies?(?: (?:policy|settings|notice|preferences|consent|statement|choices)\b|$)|follow us|most (?:read|popular|viewed)|comments?(?: \(\d+\))?$|leave a (?:comment|reply)|log in|click here|tap here|copyright|©|all rights reserved|photo(?:graph)?(?: credit)?\s*:|image(?: credit| source)?\s*:|picture\s*:|listen to this|watch\s*:|video\s*:|skip to|back to top|print this|email this|report (?:this|a)|get the app|download our|continue reading|story continues|don[’']t miss|editor[’']s picks?|have your say\b|join the (?:conversation|discussion)\b|(?:affiliate )?disclosure\s*:|this (?:story|article|report|post|guide|page) (?:(?:may )?contains?|was (?:written|produced|made|supported) (?:with|by))\b|this (?:file|document|form) may not be\b|request an accessible\b|\d+ min(?:ute)?s? read$|last (?:updated|modified)\s*:?|published\s*:?|updated\s*:|posted (?:by|on|in)\b|filed under|tags?\s*:|by\s+\p{Lu}[\p{L}.’'-]+(?:\s\p{Lu}[\p{L}.’'-]+){0,3}$|edit(?:ed)? (?:by|on)\b|reply$|quote$|permalink|upvote|downvote|jump to|from wikipedia|retrieved\b|this article (?:was|is about|needs)|[\d.,]+\s*(?:hours?|minutes?|days?) ago$)/iu;

export const isFurnitureLine = (text: string): boolean => LINE.test(text.trim());

/** Comments may outgrow the article; anything else that holds this share of the page's letters is no furniture, whatever its name. */
const MOST_FURNITURE = 0.4;
const COMMENTS = /(?:^|[-_\s])(?:comments?|disqus)(?:$|[-_\s])/i;

/** `letters`: how many the whole page has. */
export function isFurniture(element: Element, letters = Infinity): boolean {
  const tag = element.tagName.toUpperCase();
  if (SILENT.has(tag)) return true;
  if (tag === 'BODY' || tag === 'MAIN' || tag === 'ARTICLE' || tag === 'HTML') return false;
  if (element.hasAttribute('hidden') || element.getAttribute('aria-hidden') === 'true') return true;
  if (/(?:display\s*:\s*none|visibility\s*:\s*hidden)/i.test(element.getAttribute('style') ?? ''))
    return true;
  if (ROLE.test(element.getAttribute('role') ?? '')) return true;
  if (tag === 'HEADER' && element.querySelector('nav')) return true;
  const names = `${element.getAttribute('class') ?? ''} ${element.id ?? ''}`;
  return (
    MARKED.test(names) &&
    (COMMENTS.test(names) || (element.textContent ?? '').length < letters * MOST_FURNITURE) &&
    !CONTENT.test(names)
  );
}
