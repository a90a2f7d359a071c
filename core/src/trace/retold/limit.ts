/** What the source says of some only, told of all: "for brands A and B only", "except on Sundays", "unless it rains". */
import { accuse, type Check } from './fault.ts';
import { coverage, saidOf } from './text.ts';

/** Exceptions and conditions (Quirk et al. 1985, 9.57 to 9.58 and 15.34 to 15.36), and what comes behind "only". */
const BEHIND =
  /\b(?:except(?: for)?|apart from|other than|with the exception of|excluding|unless|provided(?: that)?|(?:as|so) long as|only (?:if|when|where|in|on|for|to|from|at|between|during|after|before|with)|but not)\s+[^,.;:()“”]{3,70}/giu;
const BEFORE =
  /\b(?:for|in|on|to|of|at|from|with|between)\s+(?!(?:one|an?|the (?:first|last|one))\b)(?:(?!\b(?:for|in|on|to|at|from|with|between)\b)[^,.;:()“”]){2,50}?\s(?:only|alone)\b(?=\s*[,.;:)]|$)/giu;
/** A telling that leaves room for more has a limit of its own. */
const OWN =
  /\b(?:only|except\w*|unless|apart|alone|just|but not|provided|as long as|some|most|mostly|usually|often|may|might|can|if|when|nearly|almost)\b/i;
/** So much of what stands beside the limit is told, and no more of the limit than this. */
const TOLD = 0.6;
const KEPT = 0.34;
/** Below this likeness it is not known what the line rests on. */
const SURE = 0.5;
const LEAST_ROOTS = 3;

export const limit: Check = ({ told, evidence, before, behind, tools }) => {
  if (!evidence || evidence.likeness < SURE || told.question || OWN.test(told.plain)) return [];
  const [sentence] = evidence.best;
  for (const m of [...sentence.plain.matchAll(BEHIND), ...sentence.plain.matchAll(BEFORE)]) {
    const [from, to] = [m.index, m.index + m[0].length];
    const limited = sentence.words.flatMap((w) => (w.root && w.start >= from && w.end <= to ? [w.root] : []));
    const rest = sentence.words.flatMap((w) => (w.root && (w.start < from || w.end > to) ? [w.root] : []));
    if (!limited.length || rest.length < LEAST_ROOTS) continue;
    if (coverage(rest, told.roots, tools.kin) < TOLD) continue;
    const heard = saidOf(`${before} ${told.text} ${behind}`, tools).roots;
    if (coverage(limited, heard, tools.kin) > KEPT) continue;
    return accuse(
      'whole',
      'unsupported',
      { start: 0, end: told.text.length },
      `The source limits it: “${sentence.text.slice(from, to).trim()}”.`,
    );
  }
  return [];
};
