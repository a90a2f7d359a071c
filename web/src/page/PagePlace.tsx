/** The Page: the manuscript, ruled by time. */
import { Plugin } from 'prosemirror-state';
import { Slice, Fragment, type Node } from 'prosemirror-model';
import { Decoration, DecorationSet, EditorView } from 'prosemirror-view';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { sentences, wellFormed } from '@ursprung/core/language';
import { docFromSections, readDraft, scriptSchema, sectionsOfDraft } from '@ursprung/core/script';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { Foot } from '../shell/Foot.tsx';
import { useActions } from '../shell/commands.tsx';
import {
  changeRest,
  dropNotes,
  moveLine,
  moveSection,
  sayNote,
  splitSection,
  toggleLock,
  toggleStress,
} from './commands.ts';
import { Comments } from './Comments.tsx';
import { FindBar } from './FindBar.tsx';
import { History } from './History.tsx';
import { Note } from './Note.tsx';
import { OwnWords } from './OwnWords.tsx';
import { Rehearse } from './Rehearse.tsx';
import { Saying } from './Saying.tsx';
import { Takes } from './Takes.tsx';
import { LineTakes } from './LineTakes.tsx';
import { LineView, SectionView, lineShows } from './views.ts';

/** Words on lines that stand in no source, and words still shared with one on the chosen line. */
function marks(session: ScriptSession): Plugin {
  return new Plugin({
    props: {
      decorations: (state) => {
        const { traces, line: chosen } = session.snapshot;
        const out: Decoration[] = session.matches.list
          .filter((m) => m.to <= state.doc.content.size)
          .map((m) =>
            Decoration.inline(m.from, m.to, {
              class: m === session.matches.current ? 'match current' : 'match',
            }),
          );
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

/** A paste of fewer words, in one paragraph, is words and no draft. */
const DRAFT_WORDS = 40;

/** Pasted text becomes lines, one a sentence; nothing pasted is ever markup. A whole draft is cleaned: headings become sections, what is not spoken notes. */
function pasted(copied: string): { slice: Slice; sections: number; taken: number } {
  const text = wellFormed(copied);
  const draft = /\n/.test(text.trim()) && text.split(/\s+/).length > DRAFT_WORDS ? readDraft(text) : null;
  const taken = draft
    ? draft.sections.reduce(
        (n, s) => n + s.takenAfter.length + s.lines.reduce((k, l) => k + l.taken.length, 0),
        0,
      )
    : 0;
  if (draft && (taken || draft.sections.length > 1)) {
    const sections = sectionsOfDraft(draft, () => crypto.randomUUID().slice(0, 8));
    const { content } = docFromSections(sections);
    if (sections.length > 1) return { slice: new Slice(content, 0, 0), sections: sections.length, taken };
    return { slice: new Slice(content.firstChild!.content, 0, 0), sections: 1, taken };
  }
  const lines = text
    .split(/\n+/)
    .flatMap((p) => sentences(p))
    .map((s) => scriptSchema.node('line', null, scriptSchema.text(s.text)));
  return {
    slice: new Slice(Fragment.from(lines), lines.length ? 1 : 0, lines.length ? 1 : 0),
    sections: 0,
    taken: 0,
  };
}

export function PagePlace({ session }: { session: ScriptSession }) {
  const host = useRef<HTMLDivElement>(null);
  const lines = useRef(new Map<string, LineView>());
  const sections = useRef(new Map<string, SectionView>());
  const [side, setSide] = useState<'takes' | 'history' | 'comments' | 'note' | null>(null);
  const [bar, setBar] = useState<'find' | 'rehearse' | null>(null);
  const [own, setOwn] = useState(false);
  const [focused, setFocused] = useState(false);
  const [saying, setSaying] = useState(false);
  const back = () => {
    session.view?.focus();
    requestAnimationFrame(() => session.view?.focus());
  };

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
      clipboardTextParser: (text) => pasted(text).slice,
      handlePaste: (v, event) => {
        const text = event.clipboardData?.getData('text/plain');
        if (!text) return false;
        const { slice, sections: made, taken } = pasted(text);
        const empty = v.state.doc.textContent === '';
        // A draft on an empty page is the page; elsewhere its sections come behind the caret's.
        if (made > 1) {
          const { $from } = v.state.selection;
          const tr = empty
            ? v.state.tr.replaceWith(0, v.state.doc.content.size, slice.content)
            : v.state.tr.insert($from.after(1), slice.content);
          v.dispatch(tr.setMeta('ownStep', true).scrollIntoView());
        } else v.dispatch(v.state.tr.replaceSelection(slice).setMeta('ownStep', true).scrollIntoView());
        if (taken)
          session.say(
            `${taken === 1 ? 'One piece that is not spoken was' : `${taken} pieces that are not spoken were`} set aside at ${taken === 1 ? 'its' : 'their'} place. Ctrl Shift Enter says the one at the caret.`,
          );
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
      if (!typed) {
        // The browser tells of the caret a moment after it moved it; a redraw in between would put it back.
        document.dispatchEvent(new Event('selectionchange'));
        view.updateState(session.state);
      }
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

  const actions = useMemo(() => {
    const command = (
      id: string,
      name: string,
      keys: string | undefined,
      run: Parameters<ScriptSession['run']>[0],
    ) => ({
      id,
      name,
      ...(keys ? { keys } : {}),
      run: () => (session.run(run), session.view?.focus()),
    });
    const open = (id: string, name: string, keys: string | undefined, run: () => void) => ({
      id,
      name,
      ...(keys ? { keys } : {}),
      run,
    });
    return [
      open('note', 'Note: ask for a change in plain words', 'F4', () =>
        setSide((s) => (s === 'note' ? null : 'note')),
      ),
      open('own-words', 'Own words: say close lines yourself', 'F9', () => setOwn((o) => !o)),
      open('find', 'Find and replace', 'F8', () => setBar((b) => (b === 'find' ? null : 'find'))),
      open('takes', 'Takes of this line and section', 'Ctrl Shift .', () =>
        setSide((s) => (s === 'takes' ? null : 'takes')),
      ),
      open('history', 'History: states, names, compare', undefined, () => setSide('history')),
      open('comments', 'Comment on the selection', "Ctrl '", () =>
        setSide((s) => (s === 'comments' ? null : 'comments')),
      ),
      open('rehearse', 'Rehearse: read along, voice, record', undefined, () =>
        setBar((b) => (b === 'rehearse' ? null : 'rehearse')),
      ),
      open('focus', 'Focus view: only the words', 'Ctrl .', () => setFocused((f) => !f)),
      open('saying', 'How a word is said', undefined, () => setSaying(true)),
      command('lock-line', 'Lock this line, or unlock it', 'Ctrl \\', toggleLock('line')),
      command('lock-section', 'Lock this section, or unlock it', 'Ctrl Shift \\', toggleLock('section')),
      command('stress', 'Stress the selected words', 'Ctrl /', toggleStress),
      command('say-note', 'Say what was set aside here', 'Ctrl Shift Enter', sayNote()),
      command('drop-notes', 'Put away what was set aside at this line', undefined, dropNotes()),
      command('drop-all-notes', 'Put away everything that was set aside', undefined, dropNotes(true)),
      command('rest-more', 'Longer rest after this line', 'Ctrl ]', changeRest(100)),
      command('rest-less', 'Shorter rest after this line', 'Ctrl [', changeRest(-100)),
      command('rest-second', 'A second more rest after this line', undefined, changeRest(1000)),
      command('section', 'Start a section at this line', 'Ctrl Enter', splitSection),
      command('line-up', 'Move this line up', 'Ctrl Shift ↑', moveLine(-1)),
      command('line-down', 'Move this line down', 'Ctrl Shift ↓', moveLine(1)),
      command('section-up', 'Move this section up', undefined, moveSection(-1)),
      command('section-down', 'Move this section down', undefined, moveSection(1)),
    ];
  }, [session]);
  useActions('page', actions);
  useEffect(() => {
    const keys: Record<string, string> = { F4: 'note', F8: 'find', F9: 'own-words' };
    const onKey = (e: KeyboardEvent) => {
      const withCtrl = e.ctrlKey || e.metaKey;
      const id =
        !withCtrl && !e.shiftKey && !e.altKey
          ? keys[e.key]
          : withCtrl && !e.shiftKey && e.key === "'"
            ? 'comments'
            : withCtrl && (e.key === '.' || e.key === '>')
              ? e.shiftKey
                ? 'takes'
                : 'focus'
              : undefined;
      const action = id && actions.find((a) => a.id === id);
      if (!action) return;
      e.preventDefault();
      action.run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions]);

  const empty = useSnapshot(session, (s) => s.sections.every((x) => x.lines.every((l) => !l.text)));
  const found = useSnapshot(session, (s) =>
    [...s.traces.values()].reduce((n, t) => n + t.unsupported.length, 0),
  );
  return (
    <>
      {own && <OwnWords session={session} onClose={() => (setOwn(false), back())} />}
      <div
        className={`flex-1 min-h-0 flex flex-col ${side ? 'withside' : ''} ${focused ? 'focusview' : ''}`}
        style={own ? { display: 'none' } : undefined}
      >
        {bar === 'find' && <FindBar session={session} onClose={() => (setBar(null), back())} />}
        {bar === 'rehearse' && <Rehearse session={session} onClose={() => (setBar(null), back())} />}
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
        <div className="flex-1 min-h-0 flex">
          <main className="flex-1 overflow-auto" tabIndex={-1}>
            {empty && (
              <p
                className="emptyhint absolute pointer-events-none"
                style={{ paddingLeft: 206, paddingTop: 44 }}
              >
                Write here, or paste a script.
              </p>
            )}
            <div ref={host} className="manuscript" />
          </main>
          {side === 'takes' && <Takes session={session} onClose={() => (setSide(null), back())} />}
          {side === 'history' && <History session={session} onClose={() => (setSide(null), back())} />}
          {side === 'comments' && <Comments session={session} onClose={() => (setSide(null), back())} />}
          {side === 'note' && <Note session={session} onClose={() => (setSide(null), back())} />}
        </div>
      </div>
      <Saying open={saying} onClose={() => (setSaying(false), back())} session={session} />
      <Foot
        keys={[
          ['F4', 'note'],
          ["Ctrl Shift '", 'commission'],
          ['F9', 'own words'],
          ['Ctrl ;', 'another take'],
          ['Ctrl ]', 'rest'],
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
