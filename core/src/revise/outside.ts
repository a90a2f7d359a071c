/** A note that is beyond our operations, put to an outside text service: what is sent, and what of its answer is taken. */
import { cleanDraft } from '../script/clean/index.ts';
import { proposalOf, type Revised } from './propose.ts';
import { isKept, linesIn, withText, type ReviseContext, type ReviseTools } from './types.ts';

/** The lines a note is about: what is marked, else the section of the caret, else the whole. Locked lines are never sent to be changed. */
export function askedLines({ sections, selection }: ReviseContext): { id: string; text: string }[] {
  const ids = selection?.marked
    ? new Set(selection.lines)
    : selection?.section
      ? new Set(sections.filter((s) => s.id === selection.section).flatMap((s) => s.lines.map((l) => l.id)))
      : null;
  return sections.flatMap((s) =>
    s.lines
      .filter((l) => (!ids || ids.has(l.id)) && !isKept(l, s) && l.text.trim())
      .map((l) => ({ id: l.id, text: l.text })),
  );
}

/** The order as one text: the lines with their ids, the wish, what must not happen, and the form of the answer. */
export function orderOf(note: string, context: ReviseContext): string {
  const lines = askedLines(context);
  const quotes = new Set(linesIn(context.sections).flatMap((l) => l.from.map((f) => f.quote)));
  return [
    `You revise narration. The wish: ${note.trim()}`,
    'Change only the lines below, and only as far as the wish asks. Keep every number, name, date and quotation as it is, every “may”, “about” and “said”, and claim nothing that the passages do not say.',
    `Passages:\n${
      [...quotes]
        .filter(Boolean)
        .map((q) => `- ${q}`)
        .join('\n') || '(none)'
    }`,
    `Lines:\n${lines.map((l) => `${l.id}: ${l.text}`).join('\n')}`,
    'Answer with the changed lines only, one a row, each as ID: new words. To leave a line out, write ID: and nothing behind it.',
  ].join('\n\n');
}

const MOST_LETTERS = 2000;

/** An answer as a proposal. Rows that name no line that was asked about are passed over and said; markup is taken off. */
export function answered(
  note: string,
  answer: string,
  context: ReviseContext,
  tools: Pick<ReviseTools, 'clock'>,
): Revised {
  const asked = new Map(askedLines(context).map((l) => [l.id, l.text]));
  const changes = new Map<string, string>();
  let strange = 0;
  for (const row of answer.split('\n')) {
    const m = /^[\s>*-]*([\w-]{1,60})\**\s*[:.)]\s*((?:\S.*)?)$/.exec(row);
    if (!m) continue;
    if (!asked.has(m[1])) strange++;
    else changes.set(m[1], m[2].trim() ? cleanDraft(m[2]).slice(0, MOST_LETTERS) : '');
  }
  if (![...changes].some(([id, text]) => text !== asked.get(id)))
    return { cannot: 'The answer changes no line that was asked about.', took: null, nearest: [] };
  const sections = context.sections
    .map((s) => ({
      ...s,
      lines: s.lines.flatMap((l) => {
        const text = changes.get(l.id);
        return text === undefined ? [l] : text === '' ? [] : [withText(l, text)];
      }),
    }))
    .filter((s) => s.lines.length);
  return {
    proposal: proposalOf(
      `as the text service understood: ${note.trim()}`,
      { operation: 'text service', scope: `${asked.size} lines` },
      sections,
      context,
      tools,
      strange ? [`${strange} rows of its answer name no line of yours and were passed over.`] : [],
    ),
  };
}
