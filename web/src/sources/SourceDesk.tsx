/** One source on the desk: what it is at the left, its passages in the middle, its facts at the right. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Choose } from '@ursprung/core/source';
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { api, type SourcePatch, type SourceView } from '../api.ts';
import { Foot } from '../shell/Foot.tsx';
import { About } from './About.tsx';
import { FactList } from './FactList.tsx';
import { Passages, type Heard } from './Passages.tsx';

export function SourceDesk({
  source: given,
  letter,
  heard,
  onGo,
  above,
  beside,
  onSource,
}: {
  source: SourceView;
  letter: string;
  heard: Heard | null;
  onGo?: (line: string) => void;
  /** What stands above the description: the sources of a script. */
  above?: ReactNode;
  beside?: readonly (SourceView & { letter: string })[];
  /** Hears of a source that was changed here. */
  onSource?: (next: SourceView) => void;
}) {
  const client = useQueryClient();
  const [source, setSource] = useState(given);
  const [chosen, setChosen] = useState<string | null>(null);
  const [part, setPart] = useState<string | null>(null);
  const [selection, setSelection] = useState<{ start: number; end: number } | null>(null);
  const passages = useRef<HTMLElement>(null);
  useEffect(() => setSource(given), [given]);
  const change = useMutation({
    mutationFn: (patch: SourcePatch) => api.changeSource(source.id, patch),
    onSuccess: (next) => changed(next),
  });
  const changed = useCallback(
    (next: SourceView) => {
      setSource(next);
      onSource?.(next);
      void client.invalidateQueries({ queryKey: ['source', next.id] });
      void client.invalidateQueries({ queryKey: ['library'] });
    },
    [client, onSource],
  );
  const { mutate } = change;
  const decide = useCallback((text: string, as: Choose) => mutate({ choose: { text, as } }), [mutate]);
  const choose = useCallback((id: string) => setChosen(id), []);
  useEffect(() => {
    passages.current?.querySelector('[data-chosen]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  const facts = source.facts;
  return (
    <>
      <div className="stacks flex-1 min-h-0 grid grid-cols-[210px_minmax(0,1fr)_minmax(320px,36%)]">
        <section aria-label="About the source" className="pl-6 pr-3 overflow-auto" tabIndex={0}>
          {above}
          <About
            source={source}
            part={part}
            onPart={setPart}
            onChoose={choose}
            onChange={change.mutate}
            onRenewed={changed}
            {...(beside ? { beside } : {})}
          />
        </section>
        <main ref={passages} className="overflow-auto px-6 pb-16" tabIndex={0} aria-label="Passages">
          <div className="columnhead border-b border-hair flex">
            <span className="flex-1">
              {letter}, {source.document.blocks.length} passages
            </span>
            <span>{heard ? 'heard at' : ''}</span>
          </div>
          <Passages
            source={source}
            letter={letter}
            chosen={chosen}
            heard={heard}
            onChoose={choose}
            onSelect={setSelection}
            onDecide={decide}
            // Marks come often and change no passage: only a decision redraws them all.
            busy={change.isPending && change.variables?.choose !== undefined}
          />
        </main>
        <FactList
          source={source}
          letter={letter}
          chosen={chosen}
          heard={heard}
          part={part ? (source.outline.find((p) => p.id === part)?.facts ?? null) : null}
          onChoose={choose}
          onChange={change.mutate}
          {...(onGo ? { onGo } : {})}
        />
      </div>
      <Foot
        keys={[
          ['↑ ↓', 'facts'],
          ['M', 'must'],
          ['O', 'leave out'],
          ['X', 'wrong'],
          ['W', 'wait'],
          ['P', 'passage out'],
        ]}
      >
        {change.isError ? (
          <span className="finding">{change.error.message}</span>
        ) : selection ? (
          <button
            className="textpress"
            // The selection must still stand when the press lands.
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => (change.mutate({ addFact: selection }), setSelection(null))}
          >
            Make a fact of the chosen words
          </button>
        ) : heard ? (
          `${facts.length} facts, ${facts.filter((f) => heard.has(f.id)).length} heard`
        ) : (
          `${facts.length} facts, ${Object.keys(source.marks).length} marked`
        )}
      </Foot>
    </>
  );
}
