/** The Page: the manuscript, ruled by time. */
import { Plugin } from 'prosemirror-state';
import { Slice, Fragment, type Node } from 'prosemirror-model';
import { Decoration, DecorationSet, EditorView } from 'prosemirror-view';
import { useLayoutEffect, useMemo, useRef } from 'react';
import { sentences } from '@ursprung/core/language';
import { scriptSchema } from '@ursprung/core/script';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { useActions } from '../shell/commands.tsx';
import { changeRest, moveLine, splitSection } from './commands.ts';
import { LineTakes } from './LineTakes.tsx';
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

export function PagePlace({ session }: { session: ScriptSession }) {
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
    // Margins are drawn straight into the page, so that a key costs no React work; while typing only those in sight.
    let { traces, line } = session.snapshot;
    const away = new WeakSet<Element>();
    const draw = (typing: boolean) => {
      const { snapshot } = session;
      const shows = lineShows(snapshot);
      for (const section of snapshot.sections) {
        const head = sections.current.get(section.id);
        const here = section.lines.some((l) => l.id === snapshot.line);
        if (typing && head && away.has(head.dom)) continue;
        head?.show(
          section.lines.reduce((sum, l) => sum + (snapshot.times?.get(l.id)?.ms ?? 0), 0),
          here,
        );
        for (const { id } of section.lines) {
          const row = lines.current.get(id);
          if (row && !(typing && away.has(row.dom))) row.show(shows.get(id), id === snapshot.line);
        }
      }
    };
    const onSight = (event: Event) => {
      const element = event.target as Element;
      if ((event as ContentVisibilityAutoStateChangeEvent).skipped) return void away.add(element);
      away.delete(element);
      draw(false);
    };
    const onChange = () => {
      const { snapshot } = session;
      const typed = snapshot.traces === traces && snapshot.line === line;
      draw(typed);
      if (!typed) view.updateState(session.state);
      ({ traces, line } = snapshot);
    };
    draw(false);
    view.dom.addEventListener('contentvisibilityautostatechange', onSight);
    const unsubscribe = session.subscribe(onChange);
    return () => {
      unsubscribe();
      session.view = null;
      view.destroy();
    };
  }, [session]);

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

  const empty = useSnapshot(session, (s) => s.sections.every((x) => x.lines.every((l) => !l.text)));
  const found = useSnapshot(session, (s) =>
    [...s.traces.values()].reduce((n, t) => n + t.unsupported.length, 0),
  );
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
          ['Ctrl ;', 'another take'],
          ['Ctrl Enter', 'section'],
        ]}
      >
        <Chosen session={session} />
        <LineTakes session={session} />
      </Foot>
    </>
  );
}

/** What the foot says of the line the caret stands in, and of changes that wait. */
function Chosen({ session }: { session: ScriptSession }) {
  const said = useSnapshot(session, ({ line: id, sections, times, band }) => {
    const line = sections.flatMap((s) => s.lines).find((l) => l.id === id);
    const time = line && times?.get(line.id);
    if (!time) return null;
    const seconds = time.ms / 1000;
    return `${line.role}|${seconds.toFixed(1)} s ±${(seconds * band).toFixed(1)}, ${time.words} words`;
  });
  const waiting = useSnapshot(session, (s) => (s.save === 'kept-here' ? s.waiting : 0));
  const [role, length] = said?.split('|') ?? [];
  return (
    <>
      {said ? (
        <>
          <strong className="text-ink">{role}</strong> {length}
        </>
      ) : (
        'Click a line to write'
      )}
      {waiting > 0 && (
        <span className="ml-4">
          <strong>Not connected.</strong> {waiting} changes are kept here and go up when the line is back.
        </span>
      )}
    </>
  );
}
