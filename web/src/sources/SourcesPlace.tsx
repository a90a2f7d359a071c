/** Sources: passages with their facts underlined, and the facts with strength, used or not. */
import { useMemo, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import type { Fact } from '@ursprung/core/facts';
import type { Block } from '@ursprung/core/source';
import { goTo } from '../script/ScriptDesk.tsx';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { clockText } from '../text/clockText.ts';

const UNDERLINE = {
  number: 'underline decoration-1',
  date: 'underline decoration-double',
  name: 'underline decoration-dotted',
  quote: 'underline decoration-mark',
} as const;

export function SourcesPlace({ session }: { session: ScriptSession }) {
  const snapshot = useSnapshot(session, (s) => s);
  const navigate = useNavigate();
  const [letter, setLetter] = useState(session.sources[0]?.letter ?? '');
  const [unusedOnly, setUnusedOnly] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const source = session.sources.find((s) => s.letter === letter);

  /** When each fact is heard, by the first line that rests on it. */
  const heard = useMemo(() => {
    const out = new Map<string, { line: string; ms: number | null }>();
    for (const line of snapshot.sections.flatMap((s) => s.lines))
      for (const f of line.from)
        if (f.source === letter && f.fact && !out.has(f.fact))
          out.set(f.fact, { line: line.id, ms: snapshot.times?.get(line.id)?.startMs ?? null });
    return out;
  }, [snapshot.sections, snapshot.times, letter]);

  if (!source)
    return (
      <>
        <main className="flex-1 p-10 font-serif text-[20px] text-ink2">This script rests on no source.</main>
        <Foot keys={[]}>No source</Foot>
      </>
    );
  const { document: doc, facts } = source;
  const shown = [...facts]
    .filter((f) => !unusedOnly || !heard.has(f.id))
    .sort((a, b) => b.strength - a.strength);
  const go = (lineId: string) => {
    goTo(session, lineId);
    navigate(`/script/${session.script.id}/page`);
  };
  return (
    <>
      <div className="flex-1 min-h-0 grid grid-cols-[200px_minmax(0,1fr)_minmax(340px,420px)]">
        <section aria-label="Sources of this script" className="pl-6 pr-3 overflow-auto">
          <div className="columnhead border-b border-hair">
            {session.sources.length === 1 ? '1 source' : `${session.sources.length} sources`}
          </div>
          {session.sources.map((s) => (
            <button
              key={s.letter}
              onClick={() => setLetter(s.letter)}
              aria-pressed={s.letter === letter}
              className={`w-full text-left py-3 px-2 border-b border-hair cursor-pointer ${s.letter === letter ? 'bg-lit border border-ink' : ''}`}
            >
              <strong className="font-serif text-[16px] mr-2">{s.letter}</strong>
              <strong className="font-semibold">{s.document.title}</strong>
              <span className="block text-ink3">
                {[
                  s.document.kind === 'forum' ? 'board story' : s.document.kind,
                  s.document.publisher,
                  s.document.published,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
            </button>
          ))}
          <div className="pt-6 text-[12px] text-ink2 grid grid-cols-2 gap-2">
            <span className={UNDERLINE.number}>number</span>
            <span className={UNDERLINE.date}>date</span>
            <span className={UNDERLINE.name}>name</span>
            <span className={UNDERLINE.quote}>“quote”</span>
          </div>
        </section>
        <main className="overflow-auto px-6 pb-16" tabIndex={0} aria-label="Passages">
          <div className="columnhead border-b border-hair flex">
            <span className="flex-1">
              {letter}, {doc.blocks.length} passages
            </span>
            <span>heard at</span>
          </div>
          <h2 className="font-serif text-[22px] leading-[30px] pt-3 pl-9">{doc.title}</h2>
          {doc.blocks.map((b) =>
            b.type === 'heading' ? (
              <h3 key={b.id} className="font-semibold pt-4 pb-1 pl-9">
                {b.text}
              </h3>
            ) : (
              <Passage
                key={b.id}
                block={b}
                letter={letter}
                facts={facts.filter((f) => f.block === b.id)}
                chosen={chosen}
                heard={heard}
              />
            ),
          )}
        </main>
        <section aria-label="Facts" className="pr-6 pl-2 overflow-auto" tabIndex={0}>
          <div className="columnhead border-b border-hair flex gap-4">
            <strong className="text-ink">{facts.length} facts</strong>
            <button
              className="underline underline-offset-4 cursor-pointer"
              aria-pressed={unusedOnly}
              onClick={() => setUnusedOnly(!unusedOnly)}
            >
              {unusedOnly ? 'show all' : `${facts.filter((f) => !heard.has(f.id)).length} unused`}
            </button>
            <span className="flex-1 text-right">strength</span>
            <span className="w-12 text-right">heard at</span>
          </div>
          {shown.map((f) => {
            const at = heard.get(f.id);
            return (
              <div
                key={f.id}
                className={`grid grid-cols-[1fr_36px_46px_48px] gap-2 items-baseline py-1.5 border-b border-hair ${chosen === f.id ? 'bg-lit' : ''}`}
              >
                <button className="text-left cursor-pointer" onClick={() => setChosen(f.id)}>
                  {f.text.length > 110 ? `${f.text.slice(0, 108)}…` : f.text}
                </button>
                <span className="text-[11px] font-semibold text-ink2">
                  {letter} {f.block.slice(1)}
                </span>
                <svg
                  width="44"
                  height="10"
                  role="img"
                  aria-label={`strength ${Math.round(f.strength * 100)} of 100: central ${Math.round(f.parts.central * 100)}, title ${Math.round(f.parts.title * 100)}, concrete ${Math.round(f.parts.concrete * 100)}`}
                >
                  <path d="M1 2v6M1 5h42M43 2v6" stroke="var(--mark)" fill="none" />
                  <circle cx={1 + 42 * f.strength} cy="5" r="3" fill="var(--ink)" />
                </svg>
                {at ? (
                  <button
                    className="clock text-right underline underline-offset-4 cursor-pointer"
                    onClick={() => go(at.line)}
                  >
                    {at.ms === null ? '…' : clockText(at.ms, false)}
                  </button>
                ) : (
                  <span className="text-ink3 text-right text-[12px]">unused</span>
                )}
              </div>
            );
          })}
        </section>
      </div>
      <Foot keys={[]}>
        {facts.length} facts, {heard.size} heard
      </Foot>
    </>
  );
}

function Passage({
  block,
  letter,
  facts,
  chosen,
  heard,
}: {
  block: Block;
  letter: string;
  facts: readonly Fact[];
  chosen: string | null;
  heard: ReadonlyMap<string, { ms: number | null }>;
}) {
  const lit = facts.some((f) => f.id === chosen);
  const times = facts.map((f) => heard.get(f.id)?.ms).filter((ms): ms is number => typeof ms === 'number');
  return (
    <div
      className={`grid grid-cols-[36px_1fr_52px] py-1 ${lit ? 'bg-lit shadow-[inset_0_0_0_1px_var(--edge)]' : ''}`}
    >
      <span className="text-[11px] font-semibold text-ink2 pt-1">
        {letter} {block.id.slice(1)}
      </span>
      <p className="font-serif text-[15.5px] leading-[22px] pr-4">
        {block.step ? `${block.step}. ` : ''}
        {facts.map((f) => (
          <FactText key={f.id} fact={f} lit={f.id === chosen} />
        ))}
      </p>
      <span className="clock text-right text-ink2 pt-1">
        {times.slice(0, 3).map((ms) => (
          <span key={ms} className="block">
            {clockText(ms, false)}
          </span>
        ))}
      </span>
    </div>
  );
}

/** A sentence with its values underlined by type. */
function FactText({ fact, lit }: { fact: Fact; lit: boolean }) {
  const spans = [
    ...fact.numbers.map((s) => ({ ...s, type: 'number' as const })),
    ...fact.dates.map((s) => ({ ...s, type: 'date' as const })),
    ...fact.names.map((s) => ({ ...s, type: 'name' as const })),
    ...fact.quotes.map((s) => ({ ...s, type: 'quote' as const })),
  ].sort((a, b) => a.start - b.start);
  const out: ReactNode[] = [];
  let at = 0;
  for (const s of spans) {
    if (s.start < at) continue;
    out.push(
      fact.text.slice(at, s.start),
      <span key={s.start} className={`${UNDERLINE[s.type]} underline-offset-4`}>
        {fact.text.slice(s.start, s.end)}
      </span>,
    );
    at = s.end;
  }
  out.push(fact.text.slice(at));
  return <span className={lit ? 'shadow-[inset_0_-2px_0_var(--ink)]' : ''}>{out} </span>;
}
