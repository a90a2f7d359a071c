/**
 * What was stored by earlier versions, as today's code takes it. Every stored document and step says in which format it
 * was written; each upgrade takes one format to the next and is never changed once a format was in use.
 */
import { validComment, validCut, validLine, validSection } from './data.ts';

/** The format in which documents, steps and settings are written today. */
export const FORMAT = 2;

export interface Upgrade {
  from: number;
  doc: (json: unknown) => unknown;
  step: (json: unknown) => unknown;
}

export const UPGRADES: readonly Upgrade[] = [
  // Format 1 took any value in an attribute: what no reader understands is set to what an attribute is without it.
  { from: 1, doc: repairedDoc, step: (json) => json },
];

const upgraded =
  (what: 'doc' | 'step') =>
  (json: unknown, format: number, upgrades: readonly Upgrade[] = UPGRADES): unknown =>
    upgrades
      .filter((u) => u.from >= format)
      .sort((a, b) => a.from - b.from)
      .reduce((value, u) => u[what](value), json);

/** A stored document in today's format. */
export const upgradedDoc = upgraded('doc');
/** A stored step, or its inverse, in today's format. */
export const upgradedStep = upgraded('step');

type Checks = Record<string, ((value: unknown) => void) | undefined>;
const NODES: Record<string, Checks | undefined> = { section: validSection, line: validLine };
const MARKS: Record<string, Checks | undefined> = { comment: validComment, cut: validCut, stress: {} };
interface JsonNode {
  type?: string;
  attrs?: Record<string, unknown>;
  content?: unknown;
  marks?: unknown;
}

const holds = (check: ((value: unknown) => void) | undefined, value: unknown): boolean => {
  try {
    check?.(value);
    return check !== undefined;
  } catch {
    return false;
  }
};

function repairedDoc(json: unknown): unknown {
  if (typeof json !== 'object' || json === null) return json;
  const node = json as JsonNode;
  const checks = NODES[node.type ?? ''];
  return {
    ...node,
    ...(checks && node.attrs
      ? { attrs: Object.fromEntries(Object.entries(node.attrs).filter(([k, v]) => holds(checks[k], v))) }
      : {}),
    ...(Array.isArray(node.content) ? { content: node.content.map(repairedDoc) } : {}),
    ...(Array.isArray(node.marks) ? { marks: (node.marks as JsonNode[]).filter(isSound) } : {}),
  };
}

function isSound({ type, attrs = {} }: JsonNode): boolean {
  const checks = MARKS[type ?? ''];
  return checks !== undefined && Object.entries(attrs).every(([k, v]) => holds(checks[k], v));
}
