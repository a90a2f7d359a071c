/**
 * The one document: a ProseMirror schema of sections and lines. Ids, roles, links to facts, rests and locks are
 * attributes, so that every change of them is a step like any other.
 */
import { Schema, type Mark, type Node } from 'prosemirror-model';
import type { CutKind } from './clean/piece.ts';
import type { SceneOwn } from './sceneOwn.ts';

export const SECTION_ROLES = ['hook', 'ground', 'turn', 'workings', 'strain', 'settle', 'close'] as const;
export type SectionRole = (typeof SECTION_ROLES)[number];
export const LINE_ROLES = ['pull', 'ground', 'strain', 'settle', 'lead', 'frame'] as const;
export type LineRole = (typeof LINE_ROLES)[number];

/** What a line rests on: a source by its letter, the fact, and the source's own words. */
export interface LineSource {
  source: string;
  fact?: string;
  quote: string;
}

/** Something that stood in a pasted draft and is not spoken: a direction, a time, a heading, a remark. */
export interface LineNote {
  id: string;
  kind: CutKind;
  text: string;
  where: 'before' | 'after';
}

export const scriptSchema = new Schema({
  marks: {
    /** A word or words to be stressed. */
    stress: { toDOM: () => ['em', { class: 'stress' }, 0], parseDOM: [], inclusive: false },
    /** A remark on a selection. It goes with the words as they move. */
    comment: {
      attrs: { id: {}, text: { default: '' }, at: { default: '' }, done: { default: false } },
      excludes: '',
      inclusive: false,
      toDOM: (mark) => [
        'span',
        { class: `comment${mark.attrs.done ? ' done' : ''}`, 'data-comment': mark.attrs.id },
        0,
      ],
      parseDOM: [],
    },
    /**
     * Where the writer wants a scene to begin ("break") or none to ("join"): before the first character it stands on. A
     * mark and not an offset, so that it goes with its words. `own` is what the writer says of the scene that begins here.
     */
    cut: {
      attrs: { id: {}, kind: { default: 'break' }, held: { default: false }, own: { default: {} } },
      inclusive: false,
      toDOM: (mark) => ['span', { class: `cutmark ${mark.attrs.kind}` }, 0],
      parseDOM: [],
    },
  },
  nodes: {
    doc: { content: 'section+' },
    section: {
      content: 'line+',
      isolating: false,
      attrs: {
        id: { default: '' },
        title: { default: '' },
        role: { default: 'ground' },
        plannedMs: { default: 0 },
        locked: { default: false },
        /** SectionTake[]: earlier and other versions, none of them lost. */
        takes: { default: [] },
      },
      parseDOM: [{ tag: 'section' }],
      toDOM: (node) => ['section', { 'data-id': node.attrs.id }, 0],
    },
    line: {
      content: 'text*',
      marks: 'stress comment cut',
      attrs: {
        id: { default: '' },
        role: { default: 'ground' },
        /** A planned rest after the line, in milliseconds. */
        restMs: { default: 0 },
        /** The line's own fixed time in milliseconds (a fixed part), or null. */
        fixedMs: { default: null },
        locked: { default: false },
        speaker: { default: '' },
        /** LineSource[]; data, never HTML. */
        from: { default: [] },
        /** The name of a fixed part: its words and seconds stay as they are. */
        fixed: { default: '' },
        /** LineTake[]: earlier and other versions. */
        takes: { default: [] },
        /** Origin, where the words came from outside; null for what was drafted or written here. */
        by: { default: null },
        /** LineNote[]: what was taken out of a pasted draft at this place. */
        notes: { default: [] },
        /** SceneOwn: what the writer says of a scene without words; null elsewhere. */
        scene: { default: null },
      },
      parseDOM: [{ tag: 'p' }],
      toDOM: (node) => ['p', { 'data-id': node.attrs.id }, 0],
    },
    text: {},
  },
});

export type ScriptNode = Node;

/** Who or what first wrote a line's words, where that was outside: kept so that a disclosure can be true. */
export interface Origin {
  kind: 'person' | 'service' | 'stand-in';
  /** A person's name, or the service with its model. */
  who: string;
  /** ISO 8601. */
  at: string;
}
/** Another version of a line. */
export interface LineTake {
  text: string;
  from: readonly LineSource[];
  by?: Origin;
}
/** Another version of a section: its lines as they were. */
export interface SectionTake {
  /** What it is, for the writer: "as drafted", "question hook". */
  name: string;
  lines: readonly Omit<PlainLine, 'takes'>[];
}

/** A mark on a stretch of a line's text. */
export type LineMark = { start: number; end: number } & (
  | { type: 'stress' }
  | { type: 'comment'; id: string; text: string; at: string; done: boolean }
  | ({ type: 'cut' } & CutMark)
);
/** A scene's beginning that the writer set. */
export interface CutMark {
  id: string;
  kind: 'break' | 'join';
  /** Whether it stays also where the pace would have it elsewhere and nobody says anything of the scene. */
  held: boolean;
  own: SceneOwn;
}

export interface PlainLine {
  id: string;
  text: string;
  role: LineRole;
  restMs: number;
  fixedMs: number | null;
  locked: boolean;
  speaker: string;
  from: readonly LineSource[];
  fixed: string;
  takes: readonly LineTake[];
  notes?: readonly LineNote[];
  by?: Origin;
  /** What the writer says of a scene without words. */
  scene?: SceneOwn;
  /** Stress, comments and cuts, by place in the text. */
  marks?: readonly LineMark[];
}
export interface PlainSection {
  id: string;
  title: string;
  role: SectionRole;
  plannedMs: number;
  locked: boolean;
  takes: readonly SectionTake[];
  lines: readonly PlainLine[];
}

/** The document as plain sections and lines. */
export function plainSections(doc: Node): PlainSection[] {
  const out: PlainSection[] = [];
  doc.forEach((section) => {
    const lines: PlainLine[] = [];
    section.forEach((line) => {
      const marks = marksOf(line);
      const { notes, by, scene, ...attrs } = line.attrs as Omit<PlainLine, 'text'>;
      lines.push({
        ...attrs,
        text: line.textContent,
        ...(notes?.length ? { notes } : {}),
        ...(by ? { by } : {}),
        ...(scene ? { scene } : {}),
        ...(marks.length ? { marks } : {}),
      });
    });
    out.push({ ...(section.attrs as Omit<PlainSection, 'lines'>), lines });
  });
  return out;
}

/** The marks of a line, pieces of one mark joined. */
function marksOf(line: Node): LineMark[] {
  const out: LineMark[] = [];
  line.forEach((text, offset) => {
    for (const mark of text.marks) {
      const end = offset + text.nodeSize;
      const same = out.find(
        (m) =>
          m.end === offset && m.type === mark.type.name && (m.type === 'stress' || m.id === mark.attrs.id),
      );
      if (same) same.end = end;
      else if (mark.type.name === 'stress') out.push({ type: 'stress', start: offset, end });
      else if (mark.type.name === 'cut')
        out.push({ type: 'cut', start: offset, end, ...(mark.attrs as CutMark) });
      else
        out.push({
          type: 'comment',
          start: offset,
          end,
          ...(mark.attrs as { id: string; text: string; at: string; done: boolean }),
        });
    }
  });
  return out;
}

/** A line's text as nodes, cut where marks begin and end; marks past the text's end are dropped. */
function textNodes(text: string, marks: readonly LineMark[] = []): Node[] {
  if (!text) return [];
  const edges = new Set([0, text.length]);
  for (const m of marks) for (const at of [m.start, m.end]) if (at > 0 && at < text.length) edges.add(at);
  const cuts = [...edges].sort((a, b) => a - b);
  return cuts.slice(1).map((end, i) => {
    const start = cuts[i];
    const own = marks.filter((m) => m.start <= start && m.end >= end && m.end <= text.length);
    const made = own.map((m): Mark => {
      if (m.type === 'stress') return scriptSchema.marks.stress.create();
      if (m.type === 'cut')
        return scriptSchema.marks.cut.create({ id: m.id, kind: m.kind, held: m.held, own: m.own });
      const { id, text: says, at, done } = m;
      return scriptSchema.marks.comment.create({ id, text: says, at, done });
    });
    return scriptSchema.text(text.slice(start, end), made.length ? made : undefined);
  });
}

/** A document from plain sections; the reverse of `plainSections`. An empty script is one section with one empty line. */
export function docFromSections(sections: readonly PlainSection[]): Node {
  const nodes = sections.map(({ lines, ...attrs }) =>
    scriptSchema.node(
      'section',
      attrs,
      (lines.length ? lines : [emptyLine('L0')]).map(({ text, marks, ...lineAttrs }) =>
        scriptSchema.node('line', lineAttrs, textNodes(text, marks)),
      ),
    ),
  );
  return scriptSchema.node(
    'doc',
    null,
    nodes.length
      ? nodes
      : [
          scriptSchema.node('section', { id: 'S1', role: 'ground' }, [
            scriptSchema.node('line', { id: 'L1' }),
          ]),
        ],
  );
}

export const emptyLine = (id: string): PlainLine => ({
  id,
  text: '',
  role: 'ground',
  restMs: 0,
  fixedMs: null,
  locked: false,
  speaker: '',
  from: [],
  fixed: '',
  takes: [],
});

/** A document from stored JSON. Throws RangeError when it does not fit the schema. */
export function docFromJson(json: unknown): Node {
  const doc = scriptSchema.nodeFromJSON(json);
  doc.check();
  return doc;
}

/** Lines in order with whether each ends its section: what the clock takes. */
export function clockLines(sections: readonly PlainSection[]) {
  return sections.flatMap((s) =>
    s.lines.map((l, i) => ({
      text: l.text,
      restMs: l.restMs,
      ...(l.fixedMs === null ? {} : { fixedMs: l.fixedMs }),
      endsSection: i === s.lines.length - 1,
    })),
  );
}
