/** Find and replace: a bar above the manuscript. */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { matchesIn, replaceMatches, selectMatch, type FindOptions, type Match } from './find.ts';

export function FindBar({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const [options, setOptions] = useState<FindOptions>({
    text: '',
    whole: false,
    matchCase: false,
    pattern: false,
  });
  const [by, setBy] = useState('');
  const [at, setAt] = useState(0);
  const [said, setSaid] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const sections = useSnapshot(session, (s) => s.sections);
  useEffect(() => input.current?.focus(), []);

  const { matches, broken } = useMemo(() => {
    void sections;
    try {
      return { matches: matchesIn(session.state.doc, options), broken: null };
    } catch (error) {
      return { matches: [] as Match[], broken: (error as Error).message };
    }
  }, [session, sections, options]);
  const current = matches.length ? matches[Math.min(at, matches.length - 1)] : undefined;
  useEffect(() => {
    session.showMatches(matches, current);
    return () => session.showMatches([], undefined);
  }, [session, matches, current]);

  const go = (by: number) => {
    if (!matches.length) return;
    const next = (Math.min(at, matches.length - 1) + by + matches.length) % matches.length;
    setAt(next);
    session.run(selectMatch(matches[next]));
  };
  const replace = (list: readonly Match[]) => {
    const free = list.filter((m) => !m.locked).length;
    session.run(replaceMatches(list, by, options.pattern));
    // The press may have nothing left to do: the focus goes back to the words.
    input.current?.focus();
    setSaid(`${free} replaced${free < list.length ? `, ${list.length - free} in locked lines left` : ''}`);
  };
  const toggle = (key: 'whole' | 'matchCase' | 'pattern', name: string) => (
    <button
      type="button"
      className="choice"
      data-state={options[key] ? 'checked' : ''}
      aria-pressed={options[key]}
      onClick={() => setOptions((o) => ({ ...o, [key]: !o[key] }))}
    >
      {name}
    </button>
  );
  return (
    <form
      role="search"
      aria-label="Find and replace"
      className="flex items-center gap-4 px-6 py-1.5 bg-lit border-b border-hair"
      onKeyDown={(e) => {
        if (e.key === 'Escape') {
          e.preventDefault();
          onClose();
        }
      }}
      onSubmit={(e) => {
        e.preventDefault();
        go(1);
      }}
    >
      <input
        ref={input}
        className="field w-52"
        aria-label="Find"
        placeholder="Find"
        value={options.text}
        onChange={(e) => {
          setOptions((o) => ({ ...o, text: e.target.value }));
          setAt(0);
          setSaid('');
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && e.shiftKey) {
            e.preventDefault();
            go(-1);
          }
        }}
      />
      <input
        className="field w-52"
        aria-label="Replace with"
        placeholder="Replace with"
        value={by}
        onChange={(e) => setBy(e.target.value)}
      />
      {toggle('whole', 'whole word')}
      {toggle('matchCase', 'case')}
      {toggle('pattern', 'pattern')}
      <span className="flex-1 text-ink3 whitespace-nowrap" role="status">
        {broken
          ? 'This pattern is not finished.'
          : said ||
            (options.text
              ? `${matches.length ? Math.min(at, matches.length - 1) + 1 : 0} of ${matches.length}`
              : '')}
      </span>
      <button type="button" className="quietpress" onClick={() => go(1)} disabled={!matches.length}>
        Next
      </button>
      <button
        type="button"
        className="textpress"
        onClick={() => current && replace([current])}
        disabled={!current}
      >
        Replace
      </button>
      <button type="button" className="textpress" onClick={() => replace(matches)} disabled={!matches.length}>
        Replace all {matches.length || ''}
      </button>
      <button type="button" className="quietpress" onClick={onClose}>
        Close
      </button>
    </form>
  );
}
