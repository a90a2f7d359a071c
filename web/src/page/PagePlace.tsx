/** The Page: the manuscript, ruled by time. */
import { Plugin } from 'prosemirror-state';
import { Slice, Fragment, type Node } from 'prosemirror-model';
import { Decoration, DecorationSet, EditorView } from 'prosemirror-view';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { sentences } from '@ursprung/core/language';
import { scriptSchema } from '@ursprung/core/script';
import type { ScriptSession, Snapshot } from '../script/session.ts';
import { Foot } from '../shell/Foot.tsx';
import { useActions } from '../shell/commands.tsx';
import { changeRest, moveLine, splitSection } from './commands.ts';
import { LineView, SectionView, lineShows } from './views.ts';

/** Words on lines that stand in no source, and words still shared with one on the chosen line. */
function marks(session: ScriptSession): Plugin {
  return new Plugin({
    props: {
      decorations: (state) => {
        const { traces, line: chosen } = session.snapshot;
        if (!traces.size) return null;
        const out: Decoration[] = [];
        state.doc.descendants((node: Node, pos) => {
          if (node.type.name !== 'line') return true;
          const trace = traces.get(node.attrs.id as string);
          const end = node.content.size;
          const range = (s: { start: number; end: number }, className: string) =>
            s.end <= end &&
            out.push(Decoration.inline(pos + 1 + s.start, pos + 1 + s.end, { class: className }));
          for (const u of trace?.unsupported ?? []) range(u, 'doubt');
          if (node.attrs.id === chosen) for (const s of trace?.shared ?? []) range(s, 'shared');
          return false;
        });
        return DecorationSet.create(state.doc, out);
      },
    },
  });
}

/** Pasted text becomes lines, one a sentence; nothing pasted is ever markup. */
function plainPaste(text: string): Slice {
  const lines = text
    .split(/\n+/)
    .flatMap((p) => sentences(p))
    .map((s) => scriptSchema.node('line', null, scriptSchema.text(s.text)));
  return new Slice(Fragment.from(lines), lines.length ? 1 : 0, lines.length ? 1 : 0);
}

export function PagePlace({ session, snapshot }: { session: ScriptSession; snapshot: Snapshot }) {
  const host = useRef<HTMLDivElement>(null);
  const lines = useRef(new Map<string, LineView>());
  const sections = useRef(new Map<string, SectionView>());

  useLayoutEffect(() => {
    const view = new EditorView(host.current!, {
      state: session.state,
      dispatchTransaction: session.dispatch,
      attributes: {
        'aria-label': 'Manuscript',
        role: 'textbox',
        'aria-multiline': 'true',
        spellcheck: 'true',
      },
      plugins: [marks(session)],
      nodeViews: {
        line: (node) => new LineView(node, session, lines.current),
        section: (node, v, getPos) => new SectionView(node, v, getPos, sections.current),
      },
      clipboardTextParser: (text) => plainPaste(text),
      handlePaste: (v, event) => {
        const text = event.clipboardData?.getData('text/plain');
        if (!text) return false;
        v.dispatch(v.state.tr.replaceSelection(plainPaste(text)).setMeta('ownStep', true).scrollIntoView());
        return true;
      },
    });
    session.view = view;
    return () => {
      session.view = null;
      view.destroy();
    };
  }, [session]);

  // Margins are drawn straight into the page, so that a key costs no React work.
  const shows = useMemo(() => lineShows(snapshot), [snapshot]);
  useLayoutEffect(() => {
    for (const [id, view] of lines.current) view.show(shows.get(id), id === snapshot.line);
    for (const s of snapshot.sections)
      sections.current
        .get(s.id)
        ?.show(s.lines.reduce((sum, l) => sum + (snapshot.times?.get(l.id)?.ms ?? 0), 0));
  }, [shows, snapshot]);
  useEffect(() => {
    session.view?.updateState(session.state);
  }, [session, snapshot.traces, snapshot.line]);

  const actions = useMemo(
    () => [
      {
        id: 'rest-more',
        name: 'Longer rest after this line',
        keys: 'Ctrl ]',
        run: () => (session.run(changeRest(100)), session.view?.focus()),
      },
      {
        id: 'rest-less',
        name: 'Shorter rest after this line',
        keys: 'Ctrl [',
        run: () => (session.run(changeRest(-100)), session.view?.focus()),
      },
      {
        id: 'section',
        name: 'Start a section at this line',
        keys: 'Ctrl Enter',
        run: () => (session.run(splitSection), session.view?.focus()),
      },
      {
        id: 'line-up',
        name: 'Move this line up',
        keys: 'Ctrl Shift ↑',
        run: () => (session.run(moveLine(-1)), session.view?.focus()),
      },
      {
        id: 'line-down',
        name: 'Move this line down',
        keys: 'Ctrl Shift ↓',
        run: () => (session.run(moveLine(1)), session.view?.focus()),
      },
    ],
    [session],
  );
  useActions('page', actions);

  const line = snapshot.sections.flatMap((s) => s.lines).find((l) => l.id === snapshot.line);
  const time = line && snapshot.times?.get(line.id);
  const empty = snapshot.sections.every((s) => s.lines.every((l) => !l.text));
  const found = [...snapshot.traces.values()].reduce((n, t) => n + t.unsupported.length, 0);
  return (
    <>
      <div className="heads columnhead manuscript border-b border-hair" style={{ paddingBottom: 0 }}>
        <span style={{ gridColumn: 2 }}>scene, sec</span>
        <span style={{ gridColumn: 3 }} className="text-right pr-2">
          heard at
        </span>
        <span style={{ gridColumn: 7 }}>rests on (double rule: still in its words)</span>
        <span style={{ gridColumn: 9 }} className="found-count">
          found {found}
        </span>
      </div>
      <main className="flex-1 overflow-auto" tabIndex={-1}>
        {empty && (
          <p className="emptyhint absolute pointer-events-none" style={{ paddingLeft: 206, paddingTop: 44 }}>
            Write here, or paste a script.
          </p>
        )}
        <div ref={host} className="manuscript" />
      </main>
      <Foot
        keys={[
          ['Enter', 'new line'],
          ['Ctrl ]', 'rest'],
          ['Ctrl Enter', 'section'],
        ]}
      >
        {line && time ? (
          <>
            <strong className="text-ink">{line.role}</strong> {(time.ms / 1000).toFixed(1)} s ±
            {((time.ms / 1000) * snapshot.band).toFixed(1)}, {time.words} words
          </>
        ) : (
          'Click a line to write'
        )}
        {snapshot.waiting > 0 && snapshot.save === 'kept-here' && (
          <span className="ml-4">
            <strong>Not connected.</strong> {snapshot.waiting} changes are kept here and go up when the line
            is back.
          </span>
        )}
      </Foot>
    </>
  );
}
