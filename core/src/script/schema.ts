/**
 * The one document: a ProseMirror schema of sections and lines. Ids, roles, links to facts, rests and locks are
 * attributes, so that every change of them is a step like any other.
 */
import { Schema, type Mark, type Node } from 'prosemirror-model';
import {
  validComment,
  validCut,
  validLine,
  validSection,
  written,
  type CutMark,
  type LineMark,
  type PlainLine,
  type PlainSection,
} from './data.ts';

export const scriptSchema = new Schema({
  marks: {
    /** A word or words to be stressed. */
    stress: { toDOM: () => ['em', { class: 'stress' }, 0], parseDOM: [], inclusive: false },
    /** A remark on a selection. It goes with the words as they move. */
    comment: {
      attrs: {
        id: { validate: validComment.id },
        text: { default: '', validate: validComment.text },
        at: { default: '', validate: validComment.at },
        done: { default: false, validate: validComment.done },
      },
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
      attrs: {
        id: { validate: validCut.id },
        kind: { default: 'break', validate: validCut.kind },
        held: { default: false, validate: validCut.held },
        own: { default: {}, validate: validCut.own },
      },
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
        id: { default: '', validate: validSection.id },
        title: { default: '', validate: validSection.title },
        role: { default: 'ground', validate: validSection.role },
        plannedMs: { default: 0, validate: validSection.plannedMs },
        locked: { default: false, validate: validSection.locked },
        takes: { default: [], validate: validSection.takes },
      },
      parseDOM: [{ tag: 'section' }],
      toDOM: (node) => ['section', { 'data-id': node.attrs.id }, 0],
    },
    line: {
      content: 'text*',
      marks: 'stress comment cut',
      attrs: {
        id: { default: '', validate: validLine.id },
        role: { default: 'ground', validate: validLine.role },
        restMs: { default: 0, validate: validLine.restMs },
        fixedMs: { default: null, validate: validLine.fixedMs },
        locked: { default: false, validate: validLine.locked },
        speaker: { default: '', validate: validLine.speaker },
        from: { default: [], validate: validLine.from },
        fixed: { default: '', validate: validLine.fixed },
        takes: { default: [], validate: validLine.takes },
        by: { default: null, validate: validLine.by },
        notes: { default: [], validate: validLine.notes },
        open: { default: [], validate: validLine.open },
        scene: { default: null, validate: validLine.scene },
      },
      parseDOM: [{ tag: 'p' }],
      toDOM: (node) => ['p', { 'data-id': node.attrs.id }, 0],
    },
    text: {},
  },
});

export type ScriptNode = Node;

/** The document as plain sections and lines. */
export function plainSections(doc: Node): PlainSection[] {
  const out: PlainSection[] = [];
  doc.forEach((section) => {
    const lines: PlainLine[] = [];
    section.forEach((line) => {
      const marks = marksOf(line);
      const { notes, by, scene, open, ...attrs } = line.attrs as Omit<PlainLine, 'text'>;
      lines.push({
        ...attrs,
        text: line.textContent,
        ...(notes?.length ? { notes } : {}),
        ...(by ? { by } : {}),
        ...(scene ? { scene } : {}),
        ...(open?.length ? { open } : {}),
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
      (lines.length ? lines : [emptyLine('L0')])
        .map(written)
        .map(({ text, marks, ...lineAttrs }) => scriptSchema.node('line', lineAttrs, textNodes(text, marks))),
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

/** Checks what of a document is not the same as in one that was sound: after a step, a line or two. Throws RangeError. */
export function checkChanged(before: Node, after: Node): void {
  if (!after.type.validContent(after.content)) throw new RangeError('A script has sections.');
  const sections = new Set(before.content.content);
  const lines = new Set(before.content.content.flatMap((s) => s.content.content));
  after.forEach((section) => {
    if (sections.has(section)) return;
    if (!section.type.validContent(section.content)) throw new RangeError('A section has lines.');
    for (const [name, check] of Object.entries(validSection))
      if (name !== 'lines') check(section.attrs[name]);
    section.forEach((line) => lines.has(line) || line.check());
  });
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
