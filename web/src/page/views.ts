/** How sections and lines are drawn in the editor: the words in the middle, the clock left, what they rest on right. */
import type { Node } from 'prosemirror-model';
import type { EditorView, NodeView } from 'prosemirror-view';
import type { LineNote, LineSource, LineTake } from '@ursprung/core/script';
import { sayNote } from './commands.ts';
import { dragLine } from './drag.ts';
import type { ScriptSession, Snapshot } from '../script/session.ts';
import { glyphPath } from '../strip/glyphs.tsx';
import { clockText } from '../text/clockText.ts';

/** Everything a line's margins show, computed once a change. */
export interface LineShown {
  clock: string;
  seconds: number;
  scene: string;
  cut: boolean;
  close: boolean;
  found: readonly string[];
  sameAsBefore: boolean;
}

const element = <K extends keyof HTMLElementTagNameMap>(
  tag: K,
  className: string,
  parent?: Element,
): HTMLElementTagNameMap[K] => {
  const made = document.createElement(tag);
  made.className = className;
  parent?.append(made);
  return made;
};
const still = (node: HTMLElement) => {
  node.contentEditable = 'false';
  return node;
};

const WHY = {
  number: 'No source has the figure',
  date: 'No source has the date',
  name: 'No source has the name',
  quote: 'Not in a source’s words',
} as const;
const NOTE_WORDS: Readonly<Record<LineNote['kind'], string>> = {
  direction: 'direction',
  timing: 'time',
  count: 'count',
  speaker: 'speaker',
  heading: 'heading',
  chatter: 'remark',
  brief: 'brief',
  mark: 'mark',
};
const REST_PX_PER_SECOND = 40;
/** Pixels a lit passage may need between its line and the foot. */
const ROOM_FOR_PASSAGE = 260;
/** A line of fewer letters fills one row, and its passage gets one too. */
const LONG_LINE_LETTERS = 62;

/** What every line shows in its margins. */
export function lineShows(snapshot: Snapshot): Map<string, LineShown> {
  const sceneOf = new Map<string, { label: string; cut: boolean }>();
  snapshot.scenes.forEach((scene, i) => {
    const first = scene.parts[0];
    if (!sceneOf.has(first.line))
      sceneOf.set(first.line, {
        label: `${i + 1}  ${((scene.endMs - scene.startMs) / 1000).toFixed(1)}`,
        cut: first.from === 0,
      });
  });
  const out = new Map<string, LineShown>();
  let previous = '';
  for (const line of snapshot.sections.flatMap((s) => s.lines)) {
    const time = snapshot.times?.get(line.id);
    const trace = snapshot.traces.get(line.id);
    const rests = line.from[0] ? `${line.from[0].source}${line.from[0].fact ?? line.from[0].quote}` : '';
    out.set(line.id, {
      clock: time ? clockText(time.startMs) : '',
      seconds: time ? time.ms / 1000 : 0,
      scene: sceneOf.get(line.id)?.label ?? '',
      cut: sceneOf.get(line.id)?.cut ?? false,
      close: trace?.close ?? false,
      found: (trace?.unsupported ?? []).map((u) =>
        u.why === 'quote' ? `${WHY.quote}.` : `${WHY[u.why]} “${u.text}”.`,
      ),
      sameAsBefore: rests !== '' && rests === previous,
    });
    previous = rests;
  }
  return out;
}

export class LineView implements NodeView {
  readonly dom: HTMLElement;
  readonly contentDOM: HTMLElement;
  private readonly scene: HTMLElement;
  private readonly rule: HTMLElement;
  private readonly rest: HTMLElement;
  private readonly asks: HTMLElement;
  private readonly notes: HTMLElement;
  private readonly source: HTMLElement;
  private readonly found: HTMLElement;
  private readonly clock = document.createTextNode('');
  private drawn = '';
  private chosen = false;
  private ruled = -1;
  /** What the margins were drawn from: most keys move only clocks. */
  private margins = '';

  constructor(
    private node: Node,
    private readonly session: ScriptSession,
    private readonly views: Map<string, LineView>,
  ) {
    this.dom = element('div', 'line');
    this.scene = still(element('span', 'scene clock', this.dom));
    const heard = still(element('span', 'heard clock', this.dom));
    heard.append(this.clock);
    heard.title = 'Drag to move this line';
    heard.addEventListener('pointerdown', (e) => dragLine(e, this.session, () => this.id));
    this.rule = still(element('span', 'rule', this.dom));
    this.contentDOM = element('p', 'words', this.dom);
    this.rest = still(element('span', 'restbar clock', this.dom));
    this.asks = still(element('div', 'asks', this.dom));
    this.notes = still(element('div', 'notes', this.dom));
    this.source = still(element('div', 'source', this.dom));
    this.found = still(element('div', 'found', this.dom));
    this.views.set(this.id, this);
    this.attributes();
  }

  private get id() {
    return this.node.attrs.id as string;
  }

  update(node: Node): boolean {
    if (node.type !== this.node.type) return false;
    if (node.attrs.id !== this.node.attrs.id) {
      if (this.views.get(this.id) === this) this.views.delete(this.id);
      this.views.set(node.attrs.id as string, this);
      this.drawn = '';
      this.margins = '';
    }
    const { attrs } = this.node;
    const moved = ['from', 'restMs', 'notes', 'locked', 'open', 'fixedMs', 'takes'].some(
      (k) => node.attrs[k] !== attrs[k],
    );
    this.node = node;
    if (moved) {
      this.drawn = '';
      this.margins = '';
    }
    this.attributes();
    return true;
  }

  private attributes(): void {
    const restMs = this.node.attrs.restMs as number;
    this.dom.classList.toggle('rested', restMs > 0);
    this.dom.classList.toggle('framing', this.node.attrs.role === 'lead' || this.node.attrs.role === 'frame');
    this.dom.classList.toggle('locked', this.node.attrs.locked as boolean);
    this.dom.dataset.id = this.id;
    this.drawNotes();
    const open = this.node.attrs.open as LineSource[];
    this.dom.classList.toggle('open', open.length > 0);
    this.asks.textContent = open.length
      ? `open, ${((this.node.attrs.fixedMs as number) / 1000).toFixed(1)} s: must say “${open.map((f) => f.quote).join(' ')}”`
      : '';
    const refused = (this.node.attrs.takes as LineTake[]).findLast((t) => t.why);
    if (open.length && refused)
      element('div', 'refused', this.asks).textContent = `Refused: “${refused.text}” ${refused.why}`;
    if (restMs > 0) {
      this.rest.replaceChildren();
      const bar = element('i', '', this.rest);
      bar.style.width = `${(restMs / 1000) * REST_PX_PER_SECOND}px`;
      this.rest.append(`${(restMs / 1000).toFixed(1)} rest`);
    }
  }

  /** What was taken out of a pasted draft here: readable, struck, and one press from being said. */
  private drawNotes(): void {
    const notes = this.node.attrs.notes as LineNote[];
    this.dom.classList.toggle('noted', notes.length > 0);
    if (this.notes.dataset.key === notes.map((n) => n.id).join()) return;
    this.notes.dataset.key = notes.map((n) => n.id).join();
    this.notes.replaceChildren();
    for (const note of notes) {
      const row = element('div', '', this.notes);
      element('span', 'kind', row).textContent = NOTE_WORDS[note.kind];
      element('s', '', row).textContent = note.text;
      const press = element('button', 'quietpress', row);
      press.type = 'button';
      press.textContent = 'say it';
      press.setAttribute('aria-label', `Say “${note.text.slice(0, 80)}”`);
      press.addEventListener('click', () => this.session.run(sayNote(note.id)));
    }
  }

  /** Draws the margins. Nothing is touched that did not change. */
  show(shown: LineShown | undefined, chosen: boolean): void {
    if (!shown) return;
    const key = `${shown.clock}|${shown.seconds}|${shown.scene}|${shown.cut}|${shown.close}|${shown.sameAsBefore}|${shown.found.join('|')}`;
    if (key === this.drawn && chosen === this.chosen) return;
    this.dom.classList.toggle('chosen', chosen);
    this.dom.classList.toggle('cut', shown.cut);
    if (this.clock.data !== shown.clock) this.clock.data = shown.clock;
    if (this.scene.textContent !== shown.scene) this.scene.textContent = shown.scene;
    if (shown.seconds !== this.ruled) {
      this.ruled = shown.seconds;
      this.rule.style.setProperty('--secs', String(Math.max(1, Math.round(shown.seconds))));
      this.rule.title = `${shown.seconds.toFixed(1)} s`;
    }
    const rest = `${shown.close}|${shown.sameAsBefore}|${shown.found.join('|')}|${chosen}`;
    this.drawn = key;
    this.chosen = chosen;
    if (rest === this.margins) return;
    this.margins = rest;
    this.found.replaceChildren();
    for (const finding of shown.found) {
      const row = element('div', '', this.found);
      const lead = element('span', 'finding', row);
      lead.textContent = finding;
    }
    this.drawSource(shown, chosen);
  }

  private drawSource(shown: LineShown, chosen: boolean): void {
    this.source.replaceChildren();
    // Near the foot the lit passage opens upwards.
    const below = chosen ? window.innerHeight - this.dom.getBoundingClientRect().top : Infinity;
    this.source.classList.toggle('up', below < ROOM_FOR_PASSAGE);
    this.source.classList.toggle('close', shown.close);
    this.source.classList.toggle('brief', !chosen && this.node.content.size < LONG_LINE_LETTERS);
    const [first] = this.node.attrs.from as LineSource[];
    if (!first || (shown.sameAsBefore && !chosen)) return;
    const source = this.session.sources.find((s) => s.letter === first.source);
    const fact = source?.facts.find((f) => f.id === first.fact);
    const block = source?.document.blocks.find((b) => b.id === fact?.block);
    const ref = element('span', 'ref', this.source);
    ref.textContent = block ? `${first.source} ${block.id.slice(1)}` : first.source;
    const snip = element('span', 'snip', this.source);
    if (chosen && block && fact) {
      const from = fact.start - block.start;
      const to = fact.end - block.start;
      const mark = document.createElement('mark');
      mark.textContent = block.text.slice(from, to);
      snip.append(block.text.slice(0, from), mark, block.text.slice(to));
      const under = element('span', 'under', this.source);
      under.textContent = [source?.document.title, block.under].filter(Boolean).join(', under ');
    } else snip.textContent = first.quote;
    if (chosen && shown.close) {
      const close = element('span', 'under', this.source);
      close.textContent = 'The line is still in its words.';
    }
  }

  stopEvent(event: Event): boolean {
    return (
      event.target instanceof HTMLElement &&
      !this.contentDOM.contains(event.target) &&
      event.type !== 'mousedown'
    );
  }
  ignoreMutation(mutation: { target: globalThis.Node }): boolean {
    return !this.contentDOM.contains(mutation.target) || mutation.target === this.dom;
  }
  destroy(): void {
    if (this.views.get(this.id) === this) this.views.delete(this.id);
  }
}

export class SectionView implements NodeView {
  readonly dom: HTMLElement;
  readonly contentDOM: HTMLElement;
  private readonly title: HTMLInputElement;
  private readonly time: HTMLElement;
  private readonly bar: HTMLElement;
  private readonly over: HTMLElement;
  private readonly role: HTMLElement;
  private readonly glyph: SVGPathElement;

  constructor(
    private node: Node,
    private readonly view: EditorView,
    private readonly getPos: () => number | undefined,
    private readonly views: Map<string, SectionView>,
  ) {
    this.dom = element('section', '');
    const head = still(element('div', 'sectionhead', this.dom));
    const body = element('div', 'headbody', head);
    const timebar = element('div', 'timebar', body);
    this.bar = element('i' as 'span', '', timebar);
    this.over = element('b' as 'span', '', timebar);
    const row = element('div', 'headrow', body);
    const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
    svg.setAttribute('width', '14');
    svg.setAttribute('height', '14');
    svg.setAttribute('aria-hidden', 'true');
    this.glyph = document.createElementNS('http://www.w3.org/2000/svg', 'path');
    this.glyph.setAttribute('fill', 'none');
    this.glyph.setAttribute('stroke', 'currentColor');
    this.glyph.setAttribute('stroke-width', '1.5');
    svg.append(this.glyph);
    row.append(svg);
    this.role = element('span', 'text-ink2', row);
    this.title = element('input', '', row);
    this.title.setAttribute('aria-label', 'Section title');
    this.title.maxLength = 120;
    this.title.addEventListener('change', () => this.rename());
    this.title.addEventListener('keydown', (e) => {
      if (e.key === 'Enter') {
        e.preventDefault();
        this.rename();
        this.view.focus();
      }
    });
    this.time = element('span', 'clock', row);
    this.contentDOM = element('div', 'lines', this.dom);
    this.views.set(node.attrs.id as string, this);
    this.attributes();
  }

  private rename(): void {
    const pos = this.getPos();
    if (pos === undefined || this.title.value === this.node.attrs.title) return;
    this.view.dispatch(
      this.view.state.tr
        .setNodeMarkup(pos, null, { ...this.node.attrs, title: this.title.value.trim() || 'Untitled' })
        .setMeta('ownStep', true),
    );
  }

  private attributes(): void {
    this.dom.classList.toggle('lockedsection', this.node.attrs.locked as boolean);
    this.dom.dataset.id = this.node.attrs.id as string;
    this.dom.setAttribute('aria-label', this.node.attrs.title as string);
    if (document.activeElement !== this.title) this.title.value = this.node.attrs.title as string;
    this.role.textContent = `${this.node.attrs.role as string}${this.node.attrs.locked ? ', locked' : ''}`;
    this.glyph.setAttribute('d', glyphPath(this.node.attrs.role as string));
  }

  update(node: Node): boolean {
    if (node.type !== this.node.type) return false;
    if (node.attrs.id !== this.node.attrs.id) {
      this.views.delete(this.node.attrs.id as string);
      this.views.set(node.attrs.id as string, this);
    }
    this.node = node;
    this.attributes();
    return true;
  }

  /** The rule above a section is its time: ink as far as planned, hatch beyond. `here`: the caret stands in it. */
  show(ms: number, here: boolean): void {
    this.dom.classList.toggle('here', here);
    const planned = this.node.attrs.plannedMs as number;
    const whole = Math.max(ms, planned, 1);
    this.bar.style.width = `${(Math.min(ms, planned || ms) / whole) * 100}%`;
    this.over.style.left = `${(planned / whole) * 100}%`;
    this.over.style.width = planned && ms > planned ? `${((ms - planned) / whole) * 100}%` : '0';
    const difference = ms - planned;
    const text = `${clockText(ms)}${planned ? ` of ${clockText(planned)}${Math.abs(difference) >= 50 ? ` ${difference > 0 ? '+' : '−'}${(Math.abs(difference) / 1000).toFixed(1)}` : ''}` : ''}`;
    if (this.time.textContent !== text) this.time.textContent = text;
  }

  stopEvent(event: Event): boolean {
    return event.target instanceof globalThis.Node && !this.contentDOM.contains(event.target);
  }
  ignoreMutation(mutation: { target: globalThis.Node }): boolean {
    return !this.contentDOM.contains(mutation.target);
  }
  destroy(): void {
    this.views.delete(this.node.attrs.id as string);
  }
}
