/** The phrase bank: framing lines with typed places. */
import { z } from 'zod';
import bank from '../../data/phrases.json';
import { SOURCE_KINDS, type SourceDocument } from '../source/document.ts';
import type { Aim } from '../plan/brief.ts';
import type { Unit } from './units.ts';

const questionSchema = z.object({
  when: z.string(),
  say: z.string(),
  kinds: z.array(z.enum(SOURCE_KINDS)),
  needs: z.enum(['person', 'present']).optional(),
  /** Not asked when a heading like this was told before: it was answered there. */
  unlessTold: z.string().optional(),
});
const QUESTIONS = z
  .array(questionSchema)
  .parse(bank.questions)
  .map((q) => ({ ...q, when: new RegExp(q.when, 'i') }));
export const GUIDE = bank.guide;
/** Said before a story that is retold in the third person. */
export const TELLER: readonly string[] = bank.teller;
/** "Number one." and so on. */
export const COUNT: readonly string[] = bank.count;
/** The last line, by what the listener is to do next. */
export const AIMS: Readonly<Record<Aim, readonly string[]>> = bank.aims;

/** What a unit stands under: the part of a study, or its heading. */
export const labelOf = (unit: Unit): string => unit.part ?? unit.block.under ?? '';

/** A question on a section's own subject, from its heading or part, when its first unit answers it; null otherwise. A phrase is never used twice. */
export function sectionQuestion(
  group: readonly Unit[],
  source: SourceDocument,
  used: ReadonlySet<string>,
  told: readonly string[],
  seed = 1,
): string | null {
  const [first] = group;
  const label = labelOf(first);
  const fitting = QUESTIONS.filter(
    (q) =>
      q.kinds.includes(source.kind) &&
      q.when.test(label) &&
      !used.has(q.say) &&
      !(q.unlessTold && told.some((t) => t !== label && new RegExp(q.unlessTold!, 'i').test(t))),
  );
  // Another seed asks in other words.
  const found = fitting[fitting.length > 1 ? Math.abs(seed - 1) % fitting.length : 0];
  if (!found) return null;
  // A section that begins inside its heading's text is no answer to the heading.
  if (
    !first.part &&
    (first.sentence.fact.start !== first.block.start ||
      !source.blocks.some((b, i) => b.id === first.block.id && source.blocks[i - 1]?.type === 'heading'))
  )
    return null;
  if (/^["“]/.test(first.lines[0])) return null;
  if (
    found.needs === 'person' &&
    !group.slice(0, 4).some((u) => u.sentence.fact.names.some((n) => / /.test(n.text)))
  )
    return null;
  if (
    found.needs === 'present' &&
    !/\b(?:today|now|still|is|are|has been|have been)\b/.test(first.sentence.fact.text)
  )
    return null;
  return found.say;
}
