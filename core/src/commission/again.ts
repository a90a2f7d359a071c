/** An order for just what failed of a reply. */
import { asData, soundRows } from './parts.ts';
import { soundOf } from './sound.ts';
import type { CommissionContext } from './types.ts';

/** A line of a reply that failed, with what is wrong in it. */
export interface FailedLine {
  /** Its number in the reply, from 1. */
  number: number;
  text: string;
  why: readonly string[];
  facts: readonly { ref: string; text: string }[];
  words: number;
}
export interface FailedParts {
  lines: readonly FailedLine[];
  /** Facts that must be said and were not. */
  unsaid: readonly { ref: string; text: string }[];
  /** Sections that are too long or too short, in words of their own pace. */
  lengths: readonly { section: number; words: number; want: number }[];
  /** Facts that were left to the writer, not said yet, for sections that are too short. */
  more: readonly { ref: string; text: string }[];
}

/** An order for just what failed; the rest of the reply stays as it is. */
export function followUp(context: CommissionContext, failed: FailedParts): string {
  const sound = soundOf(context);
  const { lines, unsaid, more } = failed;
  const count = lines.length + unsaid.length + more.length;
  const marked = (facts: FailedParts['more']) => facts.map((f) => `[${f.ref}] «${asData(f.text)}»`);
  // Without a line to write again there is none to make shorter.
  const lengths = failed.lengths.filter((x) =>
    x.words > x.want ? lines.length : lines.length || more.length,
  );
  const rows = [
    `ORDER: write ${count === 1 ? 'one line' : 'a few lines'} ${lines.length ? 'again' : 'more'}, for “${asData(context.title, 200)}”`,
    '',
    `The rest of your reply stays.${lines.length ? ' Only these lines could not be used, each for the reason given.' : ''}`,
    '',
    ...lines.flatMap((l) => [
      `[${l.number}] «${asData(l.text)}»`,
      ...l.why.map((w) => `  wrong: ${asData(w, 300)}`),
      ...l.facts.map((f) => `  rests on ${f.ref} «${asData(f.text)}»`),
      `  about ${l.words} words`,
    ]),
    ...(unsaid.length
      ? ['', 'These were to be said and were not. One line for each:', ...marked(unsaid)]
      : []),
    ...(more.length ? ['', 'It is too short. Say these too, one line for each:', ...marked(more)] : []),
    ...(lengths.length
      ? ['', 'Length:', ...lengths.map((x) => `- section ${x.section} has ${x.words} words and should have ${x.want}: ${x.words > x.want ? `make the lines above shorter by ${x.words - x.want} words in all` : `${x.want - x.words} words more in all, with what the facts say`}`)] // prettier-ignore
      : []),
    '',
    ...soundRows(sound),
    '',
    'THE REPLY',
    'Each line in a row of its own, behind its mark in square brackets as above. Nothing else.',
  ];
  return `${rows.join('\n')}\n`;
}
