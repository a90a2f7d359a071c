/** Who says so: kept, given to somebody else, or lost. */
import { stems } from '../../facts/centrality.ts';
import { coverage } from './text.ts';
import { attributionOf } from '../../facts/saying.ts';
import { replacedIn, type Check } from './fault.ts';

const SAYS =
  /\b(?:sa(?:id|ys?)|saying|told|tells?|accord\w+|wrote|writes|writing|thinks?|thought|believes?|believed|argue[sd]?|claim(?:s|ed)?|warn(?:s|ed|ing)?|reports?|reported|explain(?:s|ed)?|add(?:s|ed)|answer(?:s|ed)|ask(?:s|ed)|calls?|called|named|puts? it|note[sd]?|concluded?|concludes|estimate[sd]?|den(?:y|ied|ies)|announce[sd]?|admit(?:s|ted)?|insist(?:s|ed)?|confirm(?:s|ed)?|record(?:s|ed)|recall(?:s|ed)?|suggest(?:s|ed)?|hopes?|hoped|complain(?:s|ed)?|promise[sd]?|quote[sd]?|reckon(?:s|ed)?|in (?:his|her|their) (?:view|words|opinion)|for (?:him|her|them)|heard|learned|known as|in the eyes of|rumou?r)\b/i;
/** Words of saying in the source that make a claim somebody's. What was found or measured is told without its finder every day. */
const SOMEBODYS =
  /\b(?:sa(?:id|ys?)|told|according to|thinks?|thought|believes?|believed|argue[sd]?|claim(?:s|ed)?|warn(?:s|ed)|hopes?|called|insist(?:s|ed)?|den(?:y|ied|ies)|alleg\w+|admit(?:s|ted)?|estimates?|estimated)\b/i;
/** Enough of what was said must be told before its speaker is missed. */
const TOLD = 0.34;
const FEWEST = 2;

/** Somebody else's word than the source's. */
const givenToAnother: Check = ({ told, around, facts }) => {
  const speaker = facts[0]?.speaker;
  const own = attributionOf(told.plain, told.words);
  if (!speaker || !own || /^(?:he|she|they|it|i|we|you|somebody|someone|people|everyone)$/i.test(own.text))
    return [];
  const words = (text: string) => text.toLowerCase().match(/[\p{L}]{3,}/gu) ?? [];
  const light = /^(?:the|and|mrs|for|his|her|their|who)$/;
  const named = words(own.text).filter((w) => !light.test(w));
  if (!named.length || named.some((w) => around.plain.toLowerCase().includes(w.replace(/s$/, '')))) return [];
  if (/^(?:he|she|they|it)$/i.test(speaker)) return [];
  return [
    {
      kind: 'said',
      start: own.start,
      end: own.end,
      says: `The source has it from ${lowerThe(speaker)}, not from ${lowerThe(own.text)}.`,
      mend: replacedIn(told.text, own.start, own.end, own.start === 0 ? speaker : lowerThe(speaker)),
      does: `Say who: ${lowerThe(speaker)}`,
    },
  ];
};

export const said: Check = (r) => {
  const other = givenToAnother(r);
  return other.length ? other : lost(r);
};

const lost: Check = ({ told, passage, facts, before, behind, tools }) => {
  // Who is only "he" or "somebody" there is missed by nobody.
  if (
    !/^(?:\p{Lu}|the |a |an )/u.test(facts[0]?.speaker ?? '') ||
    /^(?:I|We|You|He|She|They|It|And|But)\b/.test(facts[0]?.speaker ?? '')
  )
    return [];
  if (told.question || SAYS.test(told.plain) || /[“"]/.test(told.text)) return [];
  const fact = facts[0];
  if (!fact?.speaker || /^(?:i|we|you)$/i.test(fact.speaker) || !SOMEBODYS.test(passage.plain)) return [];
  // In a story somebody is told of by one who was there.
  if (/^(?:he|she|they)$/i.test(fact.speaker) && /\b(?:I|me|my)\b/.test(passage.text)) return [];
  // The line before or behind may name who says it, if it goes on from there.
  const who = fact.speaker.split(/\s+/).at(-1)!.toLowerCase();
  for (const near of [before, behind])
    if (SAYS.test(near) && (near.toLowerCase().includes(who) || /\b(?:he|she|they)\b/i.test(near))) return [];
  // "…, a nurse who has worked here for nineteen years": what the source says of the speaker is nobody's claim.
  const at = passage.text.indexOf(fact.speaker);
  const aside = /according to\s*$/i.test(passage.text.slice(0, at))
    ? ''
    : (passage.text
        .slice(at + fact.speaker.length)
        .match(/^,? (?:(?:an?|the|his|her|their|its) [^,.]{2,60}? )?(?:who|which|whose)\b[^.]*/)?.[0] ?? '');
  const asideRoots = new Set(
    passage.words.flatMap(
      (w) =>
      w.root && aside && w.start >= at + fact.speaker!.length && w.end <= at + fact.speaker!.length + aside.length ? [w.root] : [], // prettier-ignore
    ),
  );
  const speaking = new Set(stems(fact.speaker));
  const claimed = [...passage.roots].filter((x) => !asideRoots.has(x) && !speaking.has(x));
  const own = [...told.roots].filter((x) => !speaking.has(x));
  const shared = own.filter((x) => coverage([x], new Set(claimed), tools.kin) === 1);
  const sharedAside = own.filter((x) => coverage([x], asideRoots, tools.kin) === 1);
  const values = told.values.filter((v) => passage.values.some((p) => p.value === v.value)).length;
  if (shared.length <= sharedAside.length || shared.length + values < FEWEST || shared.length / (own.length || 1) < TOLD) return []; // prettier-ignore
  const name = /^(?:he|she|they|it)$/i.test(fact.speaker) ? null : fact.speaker;
  const shown = name ?? `“${fact.speaker}”`;
  return [
    {
      kind: 'said',
      start: 0,
      end: told.text.length,
      says: `The source has it from ${name ? lowerThe(shown) : 'somebody'}; here nobody says it.`,
      ...(name && /[.!]$/.test(told.text)
        ? {
            mend: `${told.text.replace(/[.!]$/, '')}, ${lowerThe(name)} ${/(?:s|workers|growers|engineers|owners)$/.test(name) && !/^(?:Ms|Mrs)/.test(name) && /\b\p{Ll}+s$/u.test(name) ? 'say' : 'says'}.`,
            does: `Say who: ${lowerThe(name)}`,
          }
        : {}),
    },
  ];
};
const lowerThe = (name: string) => name.replace(/^(The|A|An|His|Her|Their|Its)\b/, (w) => w.toLowerCase());
