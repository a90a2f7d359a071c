/**
 * An answer that was told on an earlier state, laid over what was written since. Three states by id: as it was when
 * asked, as told, as it is now. What nobody touched since is as told; what somebody did stays as they left it, and the
 * told version of it is offered as a take.
 */
import type { Node } from 'prosemirror-model';
import { sameData } from './difference.ts';
import type { LineSource, LineTake, PlainLine, SectionTake } from './data.ts';
import { scriptSchema } from './schema.ts';
import { plainSections } from './schema.ts';

export interface Merged {
  doc: Node;
  /** Ids of lines and sections whose told version is a take now, because somebody wrote there since. */
  aside: string[];
}

/** The name of a section's take that was told while somebody wrote in the section. */
export const TOLD_MEANWHILE = 'told meanwhile';

/** Never loses words that are in `now` and were not in `base`; with `now` equal to `base` it is `told`, with `told` equal to `base` it is `now`. */
export function mergedOver(base: Node, told: Node, now: Node): Merged {
  if (now.eq(base)) return { doc: told, aside: [] };
  if (told.eq(base)) return { doc: now, aside: [] };
  const aside: string[] = [];
  const was = byId(base);
  const is = byId(now);
  const says = byId(told);
  const made = new Map<string, Node>();
  for (const [id, section] of is) {
    const before = was.get(id);
    const answer = says.get(id);
    // Added since, gone in the answer though written in, or in all three.
    if (!before) made.set(id, section);
    else if (answer) made.set(id, mergedSection(before, answer, section, aside));
    else if (!section.eq(before)) made.set(id, section);
  }
  for (const [id, section] of says) if (!was.has(id) && !is.has(id)) made.set(id, section);
  const order = orderOf([...was.keys()], [...says.keys()], [...is.keys()]).filter((id) => made.has(id));
  const result = withMates(order, made, { was, is, says }, aside);
  const sections = once(result, now);
  const doc = sections.length ? scriptSchema.topNodeType.create(null, sections) : now;
  // Whatever the shapes of the three: what was written stands in the result.
  return keepsWritten(base, now, doc) ? { doc, aside } : offered(told, now);
}

const byId = (doc: Node) => new Map(doc.content.content.map((s) => [s.attrs.id as string, s]));
const linesById = (section: Node) => byId(section);
const ids = (node: Node) => node.content.content.map((c) => c.attrs.id as string);
const sameIds = (a: Node, b: Node) => sameData(ids(a), ids(b));

function mergedSection(before: Node, told: Node, now: Node, aside: string[]): Node {
  const attrs = Object.fromEntries(
    Object.keys(now.attrs).map((k) => [
      k,
      sameData(told.attrs[k], before.attrs[k]) ? (now.attrs[k] as unknown) : (told.attrs[k] as unknown),
    ]),
  );
  const as = (lines: readonly Node[]) => now.type.create(attrs, [...lines]);
  if (now.attrs.locked && !before.attrs.locked) return now;
  if (now.content.eq(before.content)) return as(told.content.content);
  if (told.content.eq(before.content)) return as(now.content.content);
  const was = linesById(before);
  const says = linesById(told);
  if (sameIds(before, told))
    return as(
      now.content.content.map((line) => {
        const id = line.attrs.id as string;
        const answer = says.get(id);
        return answer ? mergedLine(was.get(id)!, answer, line, aside) : line;
      }),
    );
  const touched = new Map(
    now.content.content
      .filter((l) => !was.get(l.attrs.id as string)?.eq(l))
      .map((l) => [l.attrs.id as string, l]),
  );
  if (sameIds(before, now) && [...touched.keys()].every((id) => says.get(id)?.eq(was.get(id)!)))
    return as(told.content.content.map((l) => touched.get(l.attrs.id as string) ?? l));
  return withTake(as(now.content.content), told, aside);
}

function mergedLine(before: Node, told: Node, now: Node, aside: string[]): Node {
  if (now.eq(before)) return told;
  if (told.eq(before) || told.textContent === now.textContent) return now;
  const takes = now.attrs.takes as readonly LineTake[];
  const take = {
    text: told.textContent,
    from: told.attrs.from as readonly LineSource[],
    ...(told.attrs.by ? { by: told.attrs.by as LineTake['by'] } : {}),
  } as LineTake;
  if (takes.some((t) => t.text === take.text)) return now;
  aside.push(now.attrs.id as string);
  return now.type.create({ ...now.attrs, takes: [...takes, take] }, now.content);
}

/** A section with another one's lines as a take. */
function withTake(section: Node, told: Node, aside: string[]): Node {
  const [{ lines }] = plainSections(scriptSchema.topNodeType.create(null, told));
  const take: SectionTake = {
    name: TOLD_MEANWHILE,
    lines: lines.map(({ takes: _, ...l }): Omit<PlainLine, 'takes'> => l),
  };
  aside.push(section.attrs.id as string);
  const takes = section.attrs.takes as readonly SectionTake[];
  return section.type.create({ ...section.attrs, takes: [...takes, take] }, section.content);
}

/** The order of the side that changed it; what only the other has comes behind what it stood behind there. */
function orderOf(was: readonly string[], says: readonly string[], is: readonly string[]): string[] {
  const kept = (list: readonly string[], other: readonly string[]) => list.filter((id) => other.includes(id));
  const asked = sameData(kept(says, was), kept(was, says));
  const [first, second] = asked ? [is, says] : [says, is];
  const out = [...first];
  second.forEach((id, i) => {
    if (out.includes(id)) return;
    const behind = second
      .slice(0, i)
      .reverse()
      .find((b) => out.includes(b));
    out.splice(behind === undefined ? 0 : out.indexOf(behind) + 1, 0, id);
  });
  return out;
}

/** A section that was written in and is gone in the answer takes the place of a told one of its role, which becomes its take. */
function withMates(
  order: readonly string[],
  made: ReadonlyMap<string, Node>,
  { was, is, says }: Record<'was' | 'is' | 'says', ReadonlyMap<string, Node>>,
  aside: string[],
): Node[] {
  const sections = order.map((id) => made.get(id)!);
  for (const id of order) {
    if (says.has(id) || !was.has(id) || !is.has(id)) continue;
    const stays = made.get(id)!;
    const mate = sections.findIndex(
      (s) =>
        s.attrs.role === stays.attrs.role &&
        says.has(s.attrs.id as string) &&
        !was.has(s.attrs.id as string) &&
        !is.has(s.attrs.id as string),
    );
    if (mate < 0) continue;
    const told = sections[mate];
    sections.splice(sections.indexOf(stays), 1);
    sections[sections.indexOf(told)] = withTake(stays, told, aside);
  }
  return sections;
}

/** Each line once: of two the one as it stands now. A section that is left without lines goes. */
function once(sections: readonly Node[], now: Node): Node[] {
  const current = new Map<string, Node>();
  now.forEach((s) => s.forEach((l) => current.set(l.attrs.id as string, l)));
  const owners = new Map<string, Node>();
  for (const section of sections)
    section.forEach((line) => {
      const id = line.attrs.id as string;
      const held = owners.get(id);
      if (!held || (!same(held, current.get(id)) && same(line, current.get(id)))) owners.set(id, line);
    });
  return sections.flatMap((section) => {
    const lines = section.content.content.filter((l) => owners.get(l.attrs.id as string) === l);
    if (!lines.length) return [];
    return lines.length === section.childCount ? section : section.type.create(section.attrs, lines);
  });
}
const same = (a: Node, b: Node | undefined) => b !== undefined && a.textContent === b.textContent;

const texts = (doc: Node) => {
  const out = new Map<string, string>();
  doc.forEach((s) => s.forEach((l) => out.set(l.attrs.id as string, l.textContent)));
  return out;
};
function keepsWritten(base: Node, now: Node, result: Node): boolean {
  const before = texts(base);
  const after = texts(result);
  return [...texts(now)].every(([id, text]) => !text || before.get(id) === text || after.get(id) === text);
}

/** All that was told as takes beside what stands now: of the section of the same id, else of the same role, else of the last. */
function offered(told: Node, now: Node): Merged {
  const aside: string[] = [];
  const sections = [...now.content.content];
  told.forEach((answer) => {
    const at = sections.findIndex((s) => s.attrs.id === answer.attrs.id);
    const mate = at >= 0 ? at : sections.findIndex((s) => s.attrs.role === answer.attrs.role);
    const place = mate >= 0 ? mate : sections.length - 1;
    if (!sections[place].content.eq(answer.content))
      sections[place] = withTake(sections[place], answer, aside);
  });
  return { doc: scriptSchema.topNodeType.create(null, sections), aside };
}
