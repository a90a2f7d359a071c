/** A page that was selected in a browser and pasted: the clipboard has its layout too, which tells text from furniture far better than words do. */

/** What a page has and a typed text hasn't. */
const OF_A_PAGE =
  /<(?:nav|header|footer|aside|article|main|section|form|button|table|figure|h[1-6]|ul|ol|blockquote)[\s>]/i;
const FEWEST_LINKS = 3;

export interface PastedPage {
  /** The words as they went into the box: while they stand there unchanged, the page is read. */
  text: string;
  html: string;
}

/** The page that a paste brings, or null where it is a text. The HTML is only ever sent to be read, never shown. */
export function pastedPage(data: DataTransfer): PastedPage | null {
  const html = data.getData('text/html');
  const text = data.getData('text/plain');
  const links = html.match(/<a[\s>]/gi)?.length ?? 0;
  return text.trim() && (OF_A_PAGE.test(html) || links >= FEWEST_LINKS) ? { text, html } : null;
}

const plain = (text: string) => text.replace(/\s+/g, ' ').trim();
/** Whether the box still holds just that page's words. */
export const isUntouched = (page: PastedPage, text: string): boolean => plain(page.text) === plain(text);

/** The page as a file to be read. */
export const fileOf = (page: PastedPage): File =>
  new File([`<!doctype html><html><head></head><body>${page.html}</body></html>`], 'pasted.html', {
    type: 'text/html',
  });
