import { unsupportedIn, type Unsupported } from '../../trace/support.ts';
import { at, type Rule } from '../rule.ts';

const REASON: Readonly<Record<Unsupported['why'], (text: string) => string>> = {
  number: (t) => `No source has the figure “${t}”.`,
  date: (t) => `No source has the date “${t}”.`,
  name: (t) => `No source has the name “${t}”.`,
  quote: () => 'These words stand in quotation marks but in no source.',
};
/** The slot of a statement that each is about. */
export const SLOTS: Readonly<Record<Unsupported['why'], string>> = {
  number: 'how much',
  date: 'when',
  name: 'who',
  quote: 'quoted words',
};
const make = (id: string, why: Unsupported['why'], name: string, each: number, most: number): Rule => ({
  id,
  area: 'truth',
  name,
  cost: { each, most },
  line: (line, _tools, sources) =>
    sources
      ? unsupportedIn(line.text, sources.stock)
          .filter((u) => u.why === why)
          .map((u) => {
            const mend =
              why === 'quote'
                ? quoteMend(
                    line.id,
                    line.text,
                    u,
                    sources.list.map((s) => s.text),
                    line.locked,
                  )
                : undefined;
            return { ...at(line, u.start, u.end, REASON[why](u.text), mend), claim: { slot: SLOTS[why], level: 'wrong' as const } }; // prettier-ignore
          })
      : [],
});

/** The source's own words for a quotation that was altered by a word or two. */
function quoteMend(id: string, text: string, u: Unsupported, sources: readonly string[], locked: boolean) {
  const inner = u.text.slice(1, -1);
  const words = inner.split(/\s+/);
  if (words.length < 4) return undefined;
  const ends = [words.slice(0, 3), words.slice(-3)].map((w) =>
    w
      .map((x) => x.replace(/[^\p{L}\p{N}’']/gu, '').replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
      .join('[^\\p{L}\\p{N}]+'),
  );
  for (const source of sources) {
    const m = new RegExp(`${ends[0]}[^“”"]{0,${inner.length + 40}}?${ends[1]}`, 'iu').exec(source);
    if (m && Math.abs(m[0].length - inner.length) < inner.length * 0.4)
      return {
        says: 'Put the source’s words back',
        safe: !locked,
        edits: [
          {
            line: id,
            text: `${text.slice(0, u.start + 1)}${m[0]}${/[.,!?]$/.exec(inner)?.[0] ?? ''}${text.slice(u.end - 1)}`,
          },
        ],
      };
  }
  return undefined;
}

export const unsourced: readonly Rule[] = [
  make('unsourced-number', 'number', 'A figure no source has', 5, 25),
  make('unsourced-date', 'date', 'A date no source has', 5, 25),
  make('unsourced-name', 'name', 'A name no source has', 4, 20),
  make('altered-quote', 'quote', 'A quote altered', 6, 24),
];
