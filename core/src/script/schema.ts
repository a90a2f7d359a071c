/**
 * The one document: a ProseMirror schema of sections and lines. Ids, roles, links to facts, rests and locks are
 * attributes, so that every change of them is a step like any other.
 */
import { Schema, type Node } from 'prosemirror-model';

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

export const scriptSchema = new Schema({
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
      marks: '',
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
      },
      parseDOM: [{ tag: 'p' }],
      toDOM: (node) => ['p', { 'data-id': node.attrs.id }, 0],
    },
    text: {},
  },
});

export type ScriptNode = Node;

/** Another version of a line. */
export interface LineTake {
  text: string;
  from: readonly LineSource[];
}
/** Another version of a section: its lines as they were. */
export interface SectionTake {
  /** What it is, for the writer: "as drafted", "question hook". */
  name: string;
  lines: readonly Omit<PlainLine, 'takes'>[];
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
    section.forEach((line) =>
      lines.push({ ...(line.attrs as Omit<PlainLine, 'text'>), text: line.textContent }),
    );
    out.push({ ...(section.attrs as Omit<PlainSection, 'lines'>), lines });
  });
  return out;
}

/** A document from plain sections; the reverse of `plainSections`. An empty script is one section with one empty line. */
export function docFromSections(sections: readonly PlainSection[]): Node {
  const nodes = sections.map(({ lines, ...attrs }) =>
    scriptSchema.node(
      'section',
      attrs,
      (lines.length ? lines : [emptyLine('L0')]).map(({ text, ...lineAttrs }) =>
        scriptSchema.node('line', lineAttrs, text ? [scriptSchema.text(text)] : []),
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
