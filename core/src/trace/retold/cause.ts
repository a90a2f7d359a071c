/** A cause told where the source has only one thing after another. */
import type { Check } from './fault.ts';
import { coverage } from './text.ts';

const TOLD =
  /\b(?:because|due to(?! \p{L}+(?: \p{L}+)? (?:on|in|at|by|next|this|until))|owing to|thanks to|caused by|caused|led to|as a result|which is why|that is why|that's why|the reason (?:is|was|why)|all because of|so much so that)\b/iu;
const THERE =
  /\b(?:because|since|due to|owing to|caus\w+|led to|leads? to|result\w*|therefore|why|reason\w*|thanks to|meant|means|so that|so\b|as (?:it|he|she|they|the)|for (?:this|that)|makes?|made|depend\w*|too \w+ to|if|lets?)\b/i;
/** Less of the reason than this in the passage, and it is another reason. */
const SAME_REASON = 0.34;
const FEWEST = 2;

export const cause: Check = ({ told, passage, around, stock, tools }) => {
  if (told.question) return [];
  const m = TOLD.exec(told.plain);
  if (!m) return [];
  // In front the reason ends at its comma.
  const comma = m.index === 0 ? told.plain.indexOf(',') : -1;
  const stop = comma > 0 ? comma : told.plain.length;
  const reason = told.words.flatMap((w) => (w.root && w.start > m.index && w.end <= stop ? [w.root] : []));
  const known = coverage(reason, around.roots, tools.kin);
  const effect = told.words.flatMap((w) => (w.root && !(w.start > m.index && w.end <= stop) ? [w.root] : []));
  // A colon gives a reason too: "a job of its own: the sash must come out".
  const own = THERE.test(passage.plain) || /:\s/.test(passage.plain);
  // A fact close by may give this very cause of this very thing.
  const near = stock.facts.some((f) => {
    const x = stock.said(f);
    return (
      around.text.includes(f.text) &&
      THERE.test(x.plain) &&
      coverage(reason, x.roots, tools.kin) >= SAME_REASON &&
      coverage(effect, x.roots, tools.kin) >= SAME_REASON
    );
  });
  const given = own || near;
  if (near || (own && (reason.length < FEWEST || known >= SAME_REASON))) return [];
  // A line that rests on no fact may still give a cause of its own making; of framing nothing is asked.
  if (passage.roots.size === 0 && reason.length + effect.length < FEWEST + 1) return [];
  const cut = told.text.slice(0, m.index).replace(/[\s,;:—–-]+$/, '');
  return [
    {
      kind: 'cause',
      start: m.index,
      end: told.text.length,
      says: given ? 'The source gives another reason.' : 'The source gives no cause here.',
      ...(cut.split(/\s+/).length >= 4 && !/\b(?:is|was|that)$/i.test(cut)
        ? { mend: `${cut}.`, does: `Stop after “${cut.split(/\s+/).slice(-2).join(' ')}”` }
        : {}),
    },
  ];
};
