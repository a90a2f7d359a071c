/** Quotations to the letter. */
import { distance } from 'fastest-levenshtein';
import { quotedSpans } from '../../language/quotes.ts';
import type { Check } from './fault.ts';
import { even } from './text.ts';

/** Shorter ones are single words in quotation marks. */
const FEWEST_WORDS = 3;
/** A quotation is meant to be another when at most so much of it was altered. */
const ALTERED = 0.6;

const bare = (text: string) =>
  even(text)
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/^["'\s]+|["'\s.,!?;:…]+$/g, '');

/** Only so much of a quotation may differ for its words to be put back unasked for. */
const PUT_BACK = 0.4;
/** As many words of the source's quotation as the line has, where they are most alike; null where nothing is near. */
function nearestPart(source: string, own: string): string | null {
  const words = source.replace(/^["“'\s]+|["”'\s]+$/g, '').split(/\s+/);
  const length = own.split(' ').length;
  let best: { part: string; d: number } | null = null;
  for (const n of [length - 1, length, length + 1])
    for (let i = 0; i + n <= words.length && n > 0; i++) {
      const part = words.slice(i, i + n).join(' ');
      const d = distance(bare(part), own) / Math.max(part.length, own.length);
      if (!best || d < best.d) best = { part, d };
    }
  return best && best.d <= PUT_BACK ? best.part : null;
}

export const quotes: Check = ({ told, stock }) =>
  quotedSpans(told.text).flatMap(([start, end]) => {
    const own = bare(told.text.slice(start, end));
    if (own.split(' ').length < FEWEST_WORDS || stock.even.includes(own)) return [];
    const nearest = stock.quotes
      .map((q) => ({ q, d: distance(bare(q), own) / Math.max(bare(q).length, own.length) }))
      .sort((a, b) => a.d - b.d)[0];
    const close = nearest && nearest.d <= ALTERED ? nearest.q : null;
    const stop = /[.,!?;:]["”']?$/.exec(told.text.slice(start, end))?.[0][0] ?? '';
    const mended = close ? nearestPart(close, own)?.replace(/[.,;:]$/, '') : undefined;
    return [
      {
        kind: 'quote' as const,
        start,
        end,
        says: close
          ? `The source’s words are “${close}”` + (/[.!?]$/.test(close) ? '' : '.')
          : 'No source has this quotation.',
        ...(mended
          ? {
              mend: `${told.text.slice(0, start)}“${mended}${stop}”${told.text.slice(end)}`,
              does: 'Put the source’s words back',
            }
          : {}),
      },
    ];
  });
