/** Facts with their strength: searched, filtered, ruled on. With the focus in the list, arrows move and letters mark. */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Fact, FactType } from '@ursprung/core/facts';
import type { Mark, SourcePatch, SourceView } from '../api.ts';
import { clockText } from '../text/clockText.ts';
import { MARK_KEYS, MARK_WORDS, TYPES, TYPE_SIGN } from './kinds.ts';
import { Strength } from './Strength.tsx';
import type { Heard } from './Passages.tsx';

export interface FactListProps {
  source: SourceView;
  letter: string;
  chosen: string | null;
  heard: Heard | null;
  /** Facts of one part of the outline only. */
  part: readonly string[] | null;
  onChoose: (factId: string) => void;
  onChange: (patch: SourcePatch) => void;
  onGo?: (line: string) => void;
}

export function FactList({ source, letter, chosen, heard, part, onChoose, onChange, onGo }: FactListProps) {
  const [type, setType] = useState<FactType | ''>('');
  const [words, setWords] = useState('');
  const [only, setOnly] = useState<'all' | 'unused' | 'marked'>('all');
  const [known, setKnown] = useState('');
  const list = useRef<HTMLDivElement>(null);
  const { facts, marks } = source;

  const shown = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return facts
      .filter(
        (f) =>
          (!type || f.type === type) &&
          (!wanted || f.text.toLowerCase().includes(wanted)) &&
          (!part || part.includes(f.id)) &&
          (only === 'all' || (only === 'unused' ? !heard?.has(f.id) : Boolean(marks[f.id]))),
      )
      .sort((a, b) => b.strength - a.strength);
  }, [facts, marks, heard, type, words, part, only]);
  const types = TYPES.filter((t) => facts.some((f) => f.type === t));

  useEffect(() => {
    list.current?.querySelector('[aria-current="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);

  const mark = (fact: string, which: Mark['mark']) => {
    if (which === 'wrong') return;
    onChange({ marks: { [fact]: { mark: marks[fact]?.mark === which ? null : which } } });
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey || event.altKey) return;
    const at = shown.findIndex((f) => f.id === chosen);
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) {
      event.preventDefault();
      const next = shown[Math.max(0, Math.min(shown.length - 1, at + step))];
      if (next) onChoose(next.id);
    } else if (MARK_KEYS[event.key] && chosen && at >= 0) {
      event.preventDefault();
      if (MARK_KEYS[event.key] === 'wrong') list.current?.querySelector<HTMLElement>('[data-wrong]')?.click();
      else mark(chosen, MARK_KEYS[event.key]);
    } else if (event.key.toLowerCase() === 'p' && chosen) {
      const at = facts.find((f) => f.id === chosen)?.block;
      const passage = source.document.blocks.find((b) => b.id === at);
      if (passage) onChange({ choose: { text: passage.text, as: 'out' } });
    }
  };

  return (
    <section aria-label="Facts" className="pr-6 pl-2 flex flex-col min-h-0">
      <div className="columnhead border-b border-hair flex gap-3 items-baseline">
        <strong className="text-ink whitespace-nowrap">
          {shown.length === facts.length ? `${facts.length} facts` : `${shown.length} of ${facts.length}`}
        </strong>
        <select
          className="field py-0 text-[12px]"
          aria-label="Type of fact"
          value={type}
          onChange={(e) => setType(e.target.value as FactType | '')}
        >
          <option value="">every type</option>
          {types.map((t) => (
            <option key={t} value={t}>
              {t} ({facts.filter((f) => f.type === t).length})
            </option>
          ))}
        </select>
        <select
          className="field py-0 text-[12px]"
          aria-label="Which facts"
          value={only}
          onChange={(e) => setOnly(e.target.value as typeof only)}
        >
          <option value="all">all</option>
          {heard && <option value="unused">unused ({facts.filter((f) => !heard.has(f.id)).length})</option>}
          <option value="marked">marked ({Object.keys(marks).length})</option>
        </select>
        <input
          className="field py-0 text-[12px] flex-1 w-0 min-w-10"
          placeholder="find"
          aria-label="Find a fact"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <span className="whitespace-nowrap">strength{heard ? ', heard at' : ''}</span>
      </div>
      <div
        ref={list}
        className="overflow-auto flex-1 focus-visible:outline-offset-[-2px]"
        role="group"
        aria-label="Facts by strength"
        tabIndex={0}
        onKeyDown={onKey}
      >
        {shown.map((f) => (
          <Row
            key={f.id}
            fact={f}
            letter={letter}
            chosen={f.id === chosen}
            mark={marks[f.id]}
            heard={heard?.get(f.id)}
            used={heard !== null}
            onChoose={onChoose}
            onMark={mark}
            onChange={onChange}
            {...(onGo ? { onGo } : {})}
          />
        ))}
        {!shown.length && <p className="py-4 text-ink2">No fact is like that.</p>}
      </div>
      <div className="border-t border-hair py-2">
        <form
          className="flex gap-3 items-baseline"
          onSubmit={(e) => {
            e.preventDefault();
            if (known.trim().length < 3) return;
            onChange({ addFact: { text: known.trim() } });
            setKnown('');
          }}
        >
          <input
            className="field flex-1"
            placeholder="what you know yourself"
            aria-label="Add what you know"
            value={known}
            maxLength={600}
            onChange={(e) => setKnown(e.target.value)}
          />
          <button className="textpress" disabled={known.trim().length < 3}>
            Add
          </button>
        </form>
      </div>
    </section>
  );
}

const PARTS = ['central', 'title', 'concrete', 'surprising', 'supported'] as const;

function Row({
  fact: f,
  letter,
  chosen,
  mark,
  heard,
  used,
  onChoose,
  onMark,
  onChange,
  onGo,
}: {
  fact: Fact;
  letter: string;
  chosen: boolean;
  mark: Mark | undefined;
  heard: { line: string; ms: number | null } | undefined;
  used: boolean;
  onChoose: (id: string) => void;
  onMark: (id: string, mark: Mark['mark']) => void;
  onChange: (patch: SourcePatch) => void;
  onGo?: (line: string) => void;
}) {
  return (
    <div
      data-testid="fact"
      aria-current={chosen}
      className={`py-1.5 border-b border-hair cursor-pointer ${chosen ? 'bg-lit shadow-[inset_0_0_0_1px_var(--edge)] px-2' : ''}`}
      onClick={() => onChoose(f.id)}
    >
      <div className="grid grid-cols-[74px_1fr_34px_46px_44px] gap-2 items-baseline">
        <span className="text-[11px] text-ink2 flex items-baseline gap-1">
          <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true" className="self-center shrink-0">
            <path d={TYPE_SIGN[f.type]} fill="none" stroke="currentColor" strokeWidth="1.3" />
          </svg>
          {f.own === 'chosen' ? 'chosen words' : f.type}
        </span>
        <button
          className={`text-left cursor-pointer ${mark?.mark === 'out' || mark?.mark === 'wrong' ? 'line-through text-ink3' : ''}`}
          aria-pressed={chosen}
          onClick={() => onChoose(f.id)}
        >
          {mark?.mark === 'must' && <strong>must · </strong>}
          {mark?.mark === 'wait' && <span className="text-copper">waits · </span>}
          {chosen || f.text.length <= 110 ? f.text : `${f.text.slice(0, 108)}…`}
        </button>
        <span className="text-[11px] font-semibold text-ink2">
          {f.own === 'known' ? 'yours' : `${letter} ${f.block.slice(1)}`}
        </span>
        <Strength of={f.strength} />
        {heard && onGo ? (
          <button
            className="clock text-right underline underline-offset-4 cursor-pointer"
            onClick={(e) => (e.stopPropagation(), onGo(heard.line))}
          >
            {heard.ms === null ? '…' : clockText(heard.ms, false)}
          </button>
        ) : (
          <span className="text-ink3 text-right text-[11px]">{used ? 'unused' : ''}</span>
        )}
      </div>
      {mark?.mark === 'wrong' && (
        <p className="pl-[82px]">
          <span className="finding">Right is:</span> {mark.correct}{' '}
          {mark.why && <span className="text-ink3">({mark.why})</span>}
        </p>
      )}
      {chosen && <Details fact={f} mark={mark} onMark={onMark} onChange={onChange} />}
    </div>
  );
}

function Details({
  fact: f,
  mark,
  onMark,
  onChange,
}: {
  fact: Fact;
  mark: Mark | undefined;
  onMark: (id: string, mark: Mark['mark']) => void;
  onChange: (patch: SourcePatch) => void;
}) {
  const [wrong, setWrong] = useState(false);
  const [correct, setCorrect] = useState(mark?.correct ?? '');
  const [why, setWhy] = useState(mark?.why ?? '');
  const said: [string, string][] = [
    ...(f.statement
      ? ([
          ['who or what', f.statement.subject.text],
          ['does', f.statement.verb.text],
          ...(f.statement.object ? ([['the rest', f.statement.object.text]] as [string, string][]) : []),
        ] as [string, string][])
      : []),
    ...(f.attribution ? ([['says so', f.attribution.text]] as [string, string][]) : []),
    ...(f.speaker ? ([['speaks', f.speaker]] as [string, string][]) : []),
    ...(f.modality !== 'plain'
      ? ([['how sure', `${f.modality}: ${f.hedges.map((h) => h.text).join(', ')}`]] as [string, string][])
      : []),
    ...(f.polarity === 'denied' ? ([['denies', 'yes']] as [string, string][]) : []),
    ...f.dates.map((d): [string, string] => [
      'when',
      `${d.text} = ${d.iso}${d.resolved ? ', worked out from the day of publication' : ''}`,
    ]),
    ...f.times.map((t): [string, string] => ['at', `${t.text} = ${t.iso}`]),
    ...f.numbers.map((n): [string, string] => [
      'figure',
      `${n.text} = ${n.value.toLocaleString('en-GB')}${n.unit ? ` ${n.unit}` : ''}`,
    ]),
    ...(f.own
      ? ([['whose', f.own === 'known' ? 'what you know yourself' : 'words you chose']] as [string, string][])
      : []),
    ...(f.silent ? ([['not told', `by itself: ${f.silent}`]] as [string, string][]) : []),
    ['alone', f.leans.length ? `needs the line before: ${f.leans[0].why}` : 'can stand alone'],
  ];
  return (
    <div className="pt-2 grid grid-cols-[minmax(0,1fr)_128px] gap-4" onClick={(e) => e.stopPropagation()}>
      <dl className="grid grid-cols-[74px_1fr] gap-x-2 text-[12px] text-ink2">
        {said.map(([name, value], i) => (
          <div key={i} className="contents">
            <dt className="text-ink3">{name}</dt>
            <dd className="m-0">{value}</dd>
          </div>
        ))}
      </dl>
      <div className="text-[11px] text-ink2">
        {PARTS.map((p) => (
          <div key={p} className="grid grid-cols-[62px_1fr] items-center">
            <span>{p}</span>
            <span className="h-[3px] bg-hair block">
              <i className="block h-full bg-ink2" style={{ width: `${Math.round(f.parts[p] * 100)}%` }} />
            </span>
          </div>
        ))}
      </div>
      <div className="col-span-2 flex gap-4 flex-wrap">
        {MARK_WORDS.map(([id, name]) => (
          <button
            key={id}
            className="textpress"
            aria-pressed={mark?.mark === id}
            {...(id === 'wrong' ? { 'data-wrong': '' } : {})}
            onClick={() =>
              id === 'wrong'
                ? mark?.mark === 'wrong'
                  ? onChange({ marks: { [f.id]: { mark: null } } })
                  : setWrong(true)
                : onMark(f.id, id)
            }
          >
            {mark?.mark === id ? `${name}: undo` : name}
          </button>
        ))}
        {f.own && (
          <button
            className="quietpress"
            aria-label={`Take away “${f.text.slice(0, 40)}”`}
            onClick={() => onChange({ removeFact: f.id })}
          >
            Take away
          </button>
        )}
      </div>
      {wrong && (
        <form
          className="col-span-2 flex gap-3 items-baseline flex-wrap"
          onSubmit={(e) => {
            e.preventDefault();
            if (!correct.trim()) return;
            onChange({
              marks: {
                [f.id]: {
                  mark: 'wrong',
                  correct: correct.trim(),
                  ...(why.trim() ? { why: why.trim() } : {}),
                },
              },
            });
            setWrong(false);
          }}
        >
          <input
            className="field flex-1 min-w-40"
            autoFocus
            placeholder="what is right"
            aria-label="What is right"
            value={correct}
            onChange={(e) => setCorrect(e.target.value)}
            maxLength={600}
          />
          <input
            className="field w-36"
            placeholder="and why"
            aria-label="Why"
            value={why}
            onChange={(e) => setWhy(e.target.value)}
            maxLength={300}
          />
          <button className="textpress" disabled={!correct.trim()}>
            Put right
          </button>
        </form>
      )}
    </div>
  );
}
