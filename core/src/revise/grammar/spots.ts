/** Where wishes go: places put together, where something is to stand, lines that belong together. */
import { countWords } from '../ops/cut.ts';
import { sectionScope } from '../scope.ts';
import type { ReviseContext, Scope, Where } from '../types.ts';
import type { Place, Roles } from './roles.ts';

const has = (text: string, words: RegExp) => words.test(text);

/** A place in words that it is found by again. */
export const phraseOf = (scope: Scope, context: ReviseContext): string => {
  if (scope.type === 'sections') return `section ${context.sections.findIndex((s) => s.id === scope.sections[0]) + 1}`; // prettier-ignore
  const at = context.sections.flatMap((s) => s.lines).filter((l) => l.text.trim());
  return `line ${at.findIndex((l) => l.id === scope.lines[0]) + 1}`;
};
/** Places named side by side as one. */
export function together(list: readonly Place[], context: ReviseContext): Scope {
  if (list.length === 1) return list[0].scope;
  const says = list.map((p) => p.says).join(' and ');
  const lines = context.sections.flatMap((s) => s.lines.map((l) => l.id)).filter((id) => list.some((p) => p.scope.lines.includes(id))); // prettier-ignore
  return list.every((p) => p.scope.type === 'sections')
    ? { type: 'sections', says, sections: context.sections.map((s) => s.id).filter((id) => list.some((p) => p.scope.sections.includes(id))), lines }
    : { type: 'lines', says, sections: [], lines };
} // prettier-ignore

/** Behind the last line of a section, or before its first. */
const edgeOf = (section: Scope, says: string, last: boolean): Where => ({
  side: last ? 'after' : 'before',
  scope: {
    ...section,
    type: 'lines',
    sections: [],
    lines: [last ? section.lines.at(-1)! : section.lines[0]],
  },
  says: `to the ${last ? 'end' : 'start'} of ${says}`,
});
/** Where something is to stand, as a clause has it. */
export function whereIn(roles: Roles, context: ReviseContext): Where | null {
  const { text } = roles;
  const edge = /\b(end|bottom|close|start|beginning|top) of (?:the )?$/i;
  const of = roles.places.find((p) => edge.test(text.slice(0, p.start)) && p.scope.type === 'sections');
  if (of)
    return edgeOf(of.scope, of.says, /^(?:end|bottom|close)/i.test(edge.exec(text.slice(0, of.start))![1]));
  const own =
    /\b(first|last)(?: (?:line|sentence|thing))? (?:of|in) (?:its|the same|that) (?:own )?(?:section|part|paragraph|chapter)\b/i.exec(
      text,
    );
  const within =
    own && context.sections.find((s) => s.lines.some((l) => l.id === roles.places[0]?.scope.lines[0]));
  if (own && within) return edgeOf(sectionScope(within), `“${within.title}”`, /last/i.test(own[1]));
  const beside = roles.places.findLast((p) => p.side !== null);
  if (beside) return { side: beside.side!, scope: beside.scope, says: `${beside.side} ${beside.says}` };
  if (
    has(
      text,
      /\b(?:to|at|on|into) the (?:very )?(?:end|bottom|close)\b|\b(?:as|come|comes|go|goes|be|put) (?:the )?(?:very )?last\b|\bend(?:s|ing)? (?:it )?(?:with|on)\b|\bclos(?:e|es|ing) (?:it )?(?:with|on)\b|\bfinish(?:es)? (?:it )?(?:with|on)\b|\bto the back\b|\blast (?:thing|of all)\b|\bat the (?:very )?end\b|\b(?:as|make|be(?:come)?)\b.* (?:closer|closing line|(?:very )?(?:last|final) (?:line|thing|sentence|words?))(?=$|[,.])/i,
    )
  )
    // prettier-ignore
    return { side: 'end', scope: null, says: 'to the end' };
  if (
    has(
      text,
      /\b(?:to|at|into) the (?:very )?(?:start|beginning|top|front|opening)\b|\b(?:come|comes|go|goes|be|put|stand) (?:up )?(?:the )?(?:very )?(?:first|up front)\b|\bfirst (?:thing|of all)\b|\b(?:open|start|begin|lead)(?:s|n?ing)? (?:it )?(?:with|on)\b|\bup (?:front|top)\b|\b(?:as|make|be(?:come)?)\b.* (?:cold open|opener|hook|opening line|(?:very )?first (?:line|thing|sentence|words?))(?=$|[,.])|\bfirst$/i,
    )
  )
    // prettier-ignore
    return { side: 'start', scope: null, says: 'to the start' };
  // "to section 2": it comes to stand there.
  const to = roles.places.find((p) => /\b(?:to|into)\s+(?:the )?$/i.test(text.slice(0, p.start)));
  return to && roles.places.length > 1 && to.scope.type === 'sections'
    ? { side: 'after', scope: to.scope, says: `to ${to.says}` }
    : null;
}

/** Whether quoted words are nearly all that a line says, so that the line is meant. */
export function wholeLine(words: string, { sections }: ReviseContext): boolean {
  const line = sections
    .flatMap((s) => s.lines)
    .find((l) => l.text.toLowerCase().includes(words.toLowerCase()));
  return line !== undefined && countWords(words) >= countWords(line.text) * 0.8;
}
/** Whether one line has words, and others behind them. */
export const oneLineHas = (from: string, to: string, { sections }: ReviseContext) =>
  sections.some((s) =>
    s.lines.some((l) => l.text.includes(from) && l.text.indexOf(to) > l.text.indexOf(from)),
  );
/** Lines about somebody, with those behind them that go on about her or him by pronoun: alone, they would point at somebody else. */
export function withFollowers(scope: Scope, { sections }: ReviseContext): Scope {
  if (scope.type !== 'lines') return scope;
  const gone = new Set(scope.lines);
  for (const s of sections)
    s.lines.forEach((l, i) => {
      if (i > 0 && gone.has(s.lines[i - 1].id) && /^(?:he|she|they|his|her|their)\b/i.test(l.text))
        gone.add(l.id);
    });
  return { ...scope, lines: sections.flatMap((s) => s.lines.map((l) => l.id)).filter((id) => gone.has(id)) };
}
/** "The vote before the fee": two places, and nothing between them but which side. */
export function sideBySide({ text, places: [first, second] }: Roles): boolean {
  if (!first || !second?.side || first.start > 4) return false;
  return /^\s*(?:right |just |directly |straight )?(?:after|behind|following|below|before|above|ahead of|in front of)\s+(?:the )?$/i.test(text.slice(first.end, second.start));
} // prettier-ignore
/** The section that lines make up, all but a line or two. */
export function asSection(scope: Scope, { sections }: ReviseContext): Scope | null {
  if (scope.type === 'sections') return scope;
  const s = sections.find((x) => x.lines.some((l) => l.id === scope.lines[0]));
  const inside = s?.lines.filter((l) => scope.lines.includes(l.id)).length ?? 0;
  return s && inside >= s.lines.length * 0.8 ? sectionScope(s) : null;
}
/** The line that stands behind a place. */
export function behind(scope: Scope, { sections }: ReviseContext): Scope {
  const ids = sections.flatMap((s) => s.lines.map((l) => l.id));
  const next = ids[ids.indexOf(scope.lines.at(-1)!) + 1];
  return next ? { type: 'lines', says: `what follows ${scope.says}`, sections: [], lines: [next] } : scope;
}
