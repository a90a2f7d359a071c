/** An order as a page to print: its headings, rows and facts set apart. Everything in it goes in as text, never as markup. */

const STYLE = `
@page { margin: 18mm 20mm; @bottom-right { content: counter(page) " of " counter(pages); font: 9pt serif } }
body { margin: 0; font: 10.5pt/1.45 Georgia, serif; color: #000 }
h1 { font-size: 14pt; line-height: 1.3; font-weight: 600; margin: 0 0 4mm }
h2 { font-size: 10.5pt; font-weight: 600; margin: 6mm 0 1mm; padding-bottom: 1mm; border-bottom: 0.5pt solid #000; break-after: avoid }
p { margin: 0 0 1mm }
p.lead { break-after: avoid; margin-top: 2mm }
p.row { padding-left: var(--mark); text-indent: calc(-1 * var(--mark)); break-inside: avoid }
p.fact { --mark: 12mm }
p.point { --mark: 4mm }
p.row b { display: inline-block; min-width: var(--mark); text-indent: 0; font-weight: 600 }
p.more { margin-left: 4mm; font-size: 9.5pt }`;

/** A row of an order, by what it is; null where it is empty. */
export function orderRow(
  row: string,
  first: boolean,
): { tag: 'h1' | 'h2' | 'p'; class: string; mark: string; text: string } | null {
  if (!row.trim()) return null;
  if (first) return { tag: 'h1', class: '', mark: '', text: row.replace(/^ORDER: (\p{L})/u, (_, l: string) => l.toUpperCase()) }; // prettier-ignore
  if (/^SECTION \d+ of \d+: |^[\p{Lu}, ]+$/u.test(row)) return { tag: 'h2', class: '', mark: '', text: row };
  const [, mark, fact] = /^- ((?:[A-L]\d+(?:, )?)+) (.*)$/u.exec(row) ?? [];
  if (fact) return { tag: 'p', class: 'row fact', mark, text: fact };
  if (/^- /.test(row)) return { tag: 'p', class: 'row point', mark: '·', text: row.slice(2) };
  if (/^ {2}/.test(row)) return { tag: 'p', class: 'more', mark: '', text: row.trim() };
  return { tag: 'p', class: /:$/.test(row) ? 'lead' : '', mark: '', text: row };
}

/** Opens the print dialog on the order alone. */
export function printOrder(text: string): void {
  const frame = document.createElement('iframe');
  frame.className = 'sr-only';
  frame.title = 'The order to print';
  frame.onload = () => {
    const page = frame.contentDocument!;
    page.title = text.split('\n')[0];
    page.head.append(Object.assign(page.createElement('style'), { textContent: STYLE }));
    text.split('\n').forEach((row, i) => {
      const set = orderRow(row, i === 0);
      if (!set) return;
      const el = Object.assign(page.createElement(set.tag), { className: set.class });
      if (set.mark) el.append(Object.assign(page.createElement('b'), { textContent: set.mark }));
      el.append(set.text);
      page.body.append(el);
    });
    frame.contentWindow!.onafterprint = () => frame.remove();
    frame.contentWindow!.print();
  };
  document.body.append(frame);
}
