/** What the telling hangs on, link by link: when each is told, or that this length drops it, with a place to keep for it. */
import type { SpineLink } from '@ursprung/core/plan';
import { openLine, placesIn, withOpenLine } from '@ursprung/core/desk';
import type { LineSource } from '@ursprung/core/script';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';
import { useFactNames } from '../text/factNames.ts';

/** A link with the time it takes to say, as its source says it. */
type TimedLink = SpineLink & { ms: number };

export function Spine({ session, spine }: { session: ScriptSession; spine: readonly TimedLink[] }) {
  const sections = useSnapshot(session, (s) => s.sections);
  const times = useSnapshot(session, (s) => s.times);
  const factName = useFactNames();
  if (!spine.length) return null;
  const lines = sections.flatMap((s) => s.lines);
  const holds = (list: readonly LineSource[] | undefined, l: SpineLink) =>
    Boolean(list?.some((f) => f.source === l.source && f.fact === l.fact));
  const rows = spine.map((link) => ({
    link,
    told: lines.find((l) => holds(l.from, link)),
    open: lines.find((l) => holds(l.open, link)),
  }));
  const dropped = rows.filter((r) => !r.told && !r.open).length;
  const keep = (link: TimedLink) => {
    const made = openLine(`O${crypto.randomUUID().slice(0, 8)}`, {
      asks: [{ source: link.source, fact: link.fact, quote: link.text }],
      ms: link.ms,
    });
    session.take(withOpenLine(sections, made, placesIn(session.sources)));
  };
  return (
    <section aria-label="Spine" className="pt-5">
      <div className="flex items-baseline gap-4 border-b border-hair pb-1">
        <strong>Spine</strong>
        <span className="text-ink3 flex-1">
          what the telling hangs on, in order;{' '}
          {dropped ? (
            <span className="finding">{dropped === 1 ? 'one link is' : `${dropped} links are`} not told</span>
          ) : (
            'every link is told or kept open'
          )}
        </span>
      </div>
      <ol className="m-0 p-0 list-none">
        {rows.map(({ link, told, open }) => {
          const line = told ?? open;
          const at = line && times?.get(line.id)?.startMs;
          return (
            <li
              key={`${link.source}:${link.fact}`}
              className="grid grid-cols-[74px_minmax(0,1fr)_132px] gap-x-3 py-1.5 border-b border-hair items-baseline"
            >
              <span className="text-ink2">{link.kind}</span>
              <span>
                <span className={`font-serif text-[15px] leading-[20px] ${line ? '' : 'text-ink3'}`}>
                  {link.text}
                </span>
                <span className="block text-[12px] text-ink3">{factName(link)}</span>
              </span>
              {line ? (
                <span className={told ? 'text-ink2' : 'text-copper'}>
                  {told ? 'told' : 'open'} {at === undefined ? '' : `at ${clockText(at, false)}`}
                </span>
              ) : (
                <button
                  className="textpress text-left"
                  onClick={() => keep(link)}
                  aria-label={`keep its place: “${link.text.slice(0, 60)}”`}
                >
                  keep its place
                </button>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
