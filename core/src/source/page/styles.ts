/** What a page's own style sheet hides, sets as blocks or line by line. Only plain rules for every medium are looked at; nothing is fetched. */
import { parse } from 'postcss';

/** Sheets and selectors that are looked at: a page may carry a whole framework. */
const LONGEST_SHEET = 60_000;
const MOST_RULES = 120;
/** Letters that are measured in all: elements in elements are measured again and again. */
const MOST_MEASURED = 20_000_000;
/** What holds more of a page than this is shown later by a script. */
const MOST_HIDDEN = 0.4;
/** A selector of tags, classes, ids and blanks, without what depends on where the pointer is. */
const PLAIN = /^[\w.#\s>-]{1,80}$/;
/** Line breaks are kept (CSS Text 3, 3). */
const TYPED = /^(?:pre|pre-wrap|pre-line|break-spaces)$/;
const BLOCK = /^(?:block|flex|grid|list-item|table|flow-root)$/;

export interface Styles {
  none: ReadonlySet<Element>;
  block: ReadonlySet<Element>;
  /** Its line breaks are shown. */
  typed: ReadonlySet<Element>;
}

export function stylesOf(root: Element | null): Styles {
  const none = new Set<Element>();
  const block = new Set<Element>();
  const typed = new Set<Element>();
  const document = root?.ownerDocument;
  if (!document) return { none, block, typed };
  const letters = (e: Element | null) => (e?.textContent ?? '').length;
  const most = letters(document.body) * MOST_HIDDEN;
  let looked = 0;
  let measured = 0;
  for (const sheet of document.querySelectorAll('style')) {
    const text = sheet.textContent ?? '';
    if (text.length > LONGEST_SHEET || /print/i.test(sheet.getAttribute('media') ?? '')) continue;
    for (const { selector, display } of rulesIn(text)) {
      if (!PLAIN.test(selector) || ++looked > MOST_RULES || measured > MOST_MEASURED) continue;
      if (display === 'typed') {
        for (const e of found(document, selector)) typed.add(e);
        continue;
      }
      const [into, from] = display === 'none' ? [none, block] : [block, none];
      for (const e of found(document, selector)) {
        if (display === 'none') {
          const size = letters(e);
          measured += size;
          if (size > most || measured > MOST_MEASURED) continue;
        }
        if (display === 'none' || BLOCK.test(display)) into.add(e);
        // The later rule holds, roughly: how far a selector reaches is not weighed.
        from.delete(e);
      }
    }
  }
  return { none, block, typed };
}

function rulesIn(text: string): { selector: string; display: string }[] {
  try {
    // Without `map: false` it would look for a map that the sheet names.
    return parse(text, { map: false }).nodes.flatMap((rule) => {
      if (rule.type !== 'rule') return [];
      const values = rule.nodes.flatMap((d) => {
        if (d.type !== 'decl') return [];
        const value = d.value.trim().toLowerCase();
        if (/^display$/i.test(d.prop)) return [value];
        if (/^visibility$/i.test(d.prop)) return value === 'hidden' ? ['none'] : [];
        return /^white-space$/i.test(d.prop) && TYPED.test(value) ? ['typed'] : [];
      });
      return values.flatMap((display) => rule.selectors.map((selector) => ({ selector, display })));
    });
  } catch {
    return [];
  }
}

function found(document: Document, selector: string): readonly Element[] {
  try {
    return [...document.querySelectorAll(selector)];
  } catch {
    return [];
  }
}
