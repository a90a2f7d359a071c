/**
 * What hangs at a long sentence's end, told as a sentence of its own: where, what it showed, what followed, what came
 * then, what a thing is that has just been named. Guards as in `breath`: where one fails the sentence stays whole.
 */
import { ASSERTS, THINKS } from '../../language/reporting.ts';
import { formOf, inflect } from '../../language/inflect.ts';
import { isFiniteVerb, type TaggedToken } from '../../language/tagged.ts';
import { GOVERNS, finiteIn, subjectBefore, timeOf } from './breath.ts';
import type { Subject } from './decompose.ts';
import { upper, type Tagged } from './restructure.ts';
import { closed, inQuote, small, words } from './sentence.ts';

const SAYS = new RegExp(`^(?:${ASSERTS}|${THINKS}|wants?)$`);
const OPENS_SUBJECT = new Set(['DET', 'PRON', 'PROPN', 'NOUN', 'NUM', 'ADJ']);
/** What makes the clause behind it part of what is said, asked, supposed or denied. */
const HOLDS =
  /^(?:said|says|say|told|thought|thinks|believed?|believes|hoped?|hopes|asked|whether|not|n['’]t|never|who|which|where|when|whose|how|what|why)$/i;

/** The last comma outside quotations whose tail `opens` and runs to the end without another mark. */
function tailAt({ text, tokens }: Tagged, opens: (at: number) => boolean): number {
  if (/[?:;]/.test(text)) return -1;
  for (let i = tokens.length - 4; i > 4; i--) {
    if (tokens[i].text !== ',' || inQuote(text, tokens[i].start)) continue;
    return opens(i + 1) && !/[“”"()]/.test(text.slice(tokens[i].start)) ? i : -1;
  }
  return -1;
}

/** "Until then", "since 1790": a time and no clause. */
const isTime = (tokens: readonly TaggedToken[], i: number) =>
  /^(?:until|since)$/i.test(tokens[i].text) &&
  (/^(?:then|now)$/.test(tokens[i + 1]?.text ?? '') || ['NUM', 'PROPN'].includes(tokens[i + 1]?.pos ?? ''));
/** "a tower that was due": what is told of a thing governs nothing outside it. */
const ofThing = (tokens: readonly TaggedToken[], i: number) =>
  /^(?:that|which)$/.test(tokens[i].text) && tokens[i - 1]?.pos === 'NOUN' && isFiniteVerb(tokens, i + 1);

/** A main clause before the comma that nothing governs and that says nothing of somebody's saying; with `things` something may be told of what it names. */
const plainBefore = (tokens: readonly TaggedToken[], at: number, things = false) =>
  finiteIn(tokens, 0, at).length > 0 &&
  !tokens
    .slice(0, at)
    .some(
      (t, i) =>
        ((GOVERNS.test(t.text) && !isTime(tokens, i)) || HOLDS.test(t.text)) &&
        !(things && ofThing(tokens, i)),
    );

/** Whether a clause with a subject of its own begins at `from`. */
const clauseAt = (tokens: readonly TaggedToken[], from: number, within = 8) => {
  const verb = finiteIn(tokens, from + 1, Math.min(tokens.length, from + within))[0];
  return verb !== undefined && OPENS_SUBJECT.has(tokens[from].pos) && !/^there$/i.test(tokens[from].text)
    ? verb
    : -1;
};

/** Endings of nouns for acts, states and ways (Quirk et al. 1985, I.31–37, from memory): no places, or no matter if they are. */
const ABSTRACT = /(?:tion|sion|ment|ness|ity|ism|ance|ence|ship|hood|acy|ing|model|case|system|method)$/i;

/** "… to an old wall, where he lays them along the hole." → "… to an old wall. There, he lays them along the hole.": behind a place that one is in, at, on or goes to. */
export function whereTail(s: Tagged): string[] | null {
  const { text, tokens } = s;
  const at = tailAt(s, (i) => tokens[i].text === 'where');
  if (at < 0 || clauseAt(tokens, at + 2) < 0 || !plainBefore(tokens, at)) return null;
  let place = at - 1;
  while (place > 0 && ['DET', 'ADJ', 'NOUN', 'PROPN', 'NUM'].includes(tokens[place].pos)) place--;
  if (!/^(?:in|at|on|to|into|onto|near|inside|from|of|or|behind|beside|under)$/.test(tokens[place].text))
    return null;
  if (
    ABSTRACT.test(tokens[at - 1].text) ||
    /\d/.test(tokens[at - 1].text) ||
    !['NOUN', 'PROPN'].includes(tokens[at - 1].pos) ||
    words(text.slice(tokens[at + 2].start)) < 4
  )
    return null;
  return [closed(text.slice(0, tokens[at].start)), closed(`There, ${text.slice(tokens[at + 2].start)}`)];
}

/** Verbs that say what an event lets one know (Levin 1993, 37.7 and 48.1.2 in part, from memory). */
const LETS_KNOW = /^(?:show|mean|prove|suggest|reveal|confirm|indicate|imply|demonstrate|establish)$/;

/** "It broke across a corner, showing that it was hollow." → "It broke across a corner. That showed that it was hollow." */
export function showingTail(s: Tagged): string[] | null {
  const { text, tokens } = s;
  const at = tailAt(s, (i) => /ing$/.test(tokens[i].text) && LETS_KNOW.test(tokens[i].lemma));
  if (at < 0 || !plainBefore(tokens, at)) return null;
  if (tokens[at + 2].text !== 'that' && clauseAt(tokens, at + 2) < 0) return null;
  const time = timeOf(tokens, finiteIn(tokens, 0, at)[0]);
  if (!time) return null;
  const said = inflect(tokens[at + 1].lemma, time === 'past' ? 'past' : 'third');
  return [
    closed(text.slice(0, tokens[at].start)),
    closed(`That ${said} ${text.slice(tokens[at + 2].start)}`),
  ];
}

/** "…, so that it is a chance and not yet a benefit." → "So it is a chance and not yet a benefit.": what follows, not what was meant. */
export function soThatTail(s: Tagged): string[] | null {
  const { text, tokens } = s;
  const at = tailAt(s, (i) => tokens[i].text === 'so' && tokens[i + 1]?.text === 'that');
  if (at < 0 || !finiteIn(tokens, 0, at).length || /^(?:if|when|unless|in|to)$/i.test(tokens[0].text))
    return null;
  const verb = clauseAt(tokens, at + 3);
  if (verb < 0 || !/^(?:is|are|was|were|has|had|have)$/.test(tokens[verb].text)) return null;
  return [closed(text.slice(0, tokens[at].start)), closed(`So ${text.slice(tokens[at + 3].start)}`)];
}

/** "We left theirs alone, then held the bag against it." → "We left theirs alone. Then we held the bag against it." */
export function thenTail(s: Tagged, carry: Subject): string[] | null {
  const { text, tokens } = s;
  const at = tailAt(
    s,
    (i) => tokens[i].text === 'then' || (tokens[i].text === 'and' && tokens[i + 1].text === 'then'),
  );
  if (at < 0 || tokens.slice(0, at).some((t) => t.text === ',')) return null;
  const act = tokens[at + 1].text === 'and' ? at + 3 : at + 2;
  const first = finiteIn(tokens, 0, at)[0];
  if (first === undefined || !plainBefore(tokens, at) || tokens[act]?.pos !== 'VERB') return null;
  const form = (i: number) => formOf(tokens[i].text, tokens[i].lemma, false);
  if (form(act) !== 'past' || form(first) !== 'past') return null;
  const subject = subjectBefore(tokens, 0, first);
  const carried = subject && carry(text.slice(0, subject.at(-1)!.end), subject);
  if (!carried || words(text.slice(tokens[act].start)) < 4) return null;
  return [
    closed(text.slice(0, tokens[at].start)),
    closed(`Then ${small(carried)} ${text.slice(tokens[act].start)}`),
  ];
}

/** "It is a contest of strength held in June between two villages." → "It is a contest of strength. It is held in June between two villages." */
export function heldIn(s: Tagged, carry: Subject): string[] | null {
  const { text, tokens } = s;
  const be = finiteIn(tokens, 0, tokens.length)[0];
  if (be === undefined || !/^(?:is|was)$/.test(tokens[be].text) || !/^an?$/.test(tokens[be + 1]?.text ?? ''))
    return null;
  const subject = subjectBefore(tokens, 0, be);
  if (!subject) return null;
  let p = be + 2;
  // "a gravity-worked cableway": what a hyphen joins is one word.
  const joined = (i: number) => tokens[i].text === '-' || tokens[i - 1].text === '-';
  while (p < tokens.length && (joined(p) || ['ADJ', 'NOUN', 'PROPN', 'NUM', 'ADP'].includes(tokens[p].pos)))
    p++;
  // "a tower of slate, started in 1794 by a merchant"
  const behindComma = tokens[p]?.text === ',';
  const end = p - 1;
  if (behindComma) p++;
  const participle = tokens[p];
  /** "a cableway carrying slate from the quarries to the yard" */
  const doing =
    /ing$/.test(participle?.text ?? '') &&
    ['NOUN', 'DET', 'ADJ', 'NUM', 'PROPN'].includes(tokens[p + 1]?.pos ?? '');
  if (
    participle?.pos !== 'VERB' ||
    !(tokens[end].pos === 'NOUN' || (behindComma && tokens[end].pos === 'PROPN')) ||
    (behindComma && doing) ||
    !(doing || ['ADP', 'ADV'].includes(tokens[p + 1]?.pos ?? '')) ||
    (!doing && formOf(participle.text, participle.lemma, true) !== 'participle') ||
    inQuote(text, participle.start)
  )
    return null;
  // What is left must say something, and what is said of it must be all that follows.
  if (words(text.slice(0, participle.start)) < (doing ? 7 : 8) || words(text.slice(participle.start)) < 6)
    return null;
  if (tokens.slice(p).some((t) => /^(?:which|that|who|:|;)$/.test(t.text))) return null;
  const dated = tokens.slice(p + 1, p + 4).some((t) => /^1\d\d\d$|^20\d\d$/.test(t.text));
  const made = tokens[p + 1].text === 'by' || (behindComma && dated);
  const carried = carry(text.slice(0, subject.at(-1)!.end), subject);
  if (!carried || /^(?:They|We|You|I)$/.test(carried)) return null;
  if (doing) {
    const verb = inflect(participle.lemma, tokens[be].text === 'was' ? 'past' : 'third');
    return [
      closed(text.slice(0, tokens[end].end)),
      closed(`${upper(carried)} ${verb} ${text.slice(tokens[p + 1].start)}`),
    ];
  }
  return [
    closed(text.slice(0, tokens[end].end)),
    closed(`${upper(carried)} ${made ? 'was' : tokens[be].text} ${text.slice(participle.start)}`),
  ];
}

/** "They shut the road, while the ferry ran as ever." → "They shut the road. The ferry ran as ever.": side by side, as "while" behind a comma mostly has it. */
export function whileTail(s: Tagged): string[] | null {
  const { text, tokens } = s;
  const at = tailAt(s, (i) => tokens[i].text === 'while');
  if (at < 0 || clauseAt(tokens, at + 2) < 0 || !plainBefore(tokens, at)) return null;
  if (words(text.slice(tokens[at + 2].start)) < 5) return null;
  return [closed(text.slice(0, tokens[at].start)), closed(upper(text.slice(tokens[at + 2].start)))];
}

/** What "as" belongs to: "as well as", "such as", "known as", "as far as", "so far as". */
const AS_OF =
  /^(?:as|such|so|far|well|soon|long|much|many|known|just|even|same|described|regarded|seen|used|serve[sd]?|act(?:s|ed)?|work(?:s|ed)?)$/i;

/** "It has been recalled as an inquiry into the outbreak goes on." → "… recalled. An inquiry into the outbreak goes on." */
export function asTail({ text, tokens }: Tagged): string[] | null {
  if (/[?:;]/.test(text)) return null;
  for (let i = tokens.length - 5; i > 6; i--) {
    if (tokens[i].text !== 'as' || inQuote(text, tokens[i].start)) continue;
    if (AS_OF.test(tokens[i - 1].text) || !/^(?:DET|PROPN)$/.test(tokens[i + 1].pos)) return null;
    const verb = clauseAt(tokens, i + 1, 18);
    const behind = text.slice(tokens[i + 1].start);
    // A subject of its own with its verb, to the end; "as a free download", "as a commander who had left" say what something is.
    if (verb < 0 || /[“”",()]/.test(behind) || words(behind) < 6 || !plainBefore(tokens, i)) return null;
    if (tokens.slice(i + 1, verb).some((t) => /^(?:who|which|that|where|when|with|for|on)$/.test(t.text)))
      return null;
    const form = formOf(tokens[verb].text, tokens[verb].lemma, false);
    if (tokens[verb].pos !== 'AUX' && (form === 'base' || ['PROPN', 'ADP'].includes(tokens[verb - 1].pos)))
      return null;
    if (verb > i + 2 && tokens[verb - 1].pos === 'PRON') return null;
    const end = tokens[i - 1].text === ',' ? tokens[i - 1].start : tokens[i].start;
    return [closed(text.slice(0, end)), closed(upper(behind))];
  }
  return null;
}

/** A sentence of so many words is one breath. */
const ONE_BREATH = 25;
/** "They met the mayor after the club had won the cup." → "They met the mayor. That was after the club had won the cup." */
export function afterTail({ text, tokens }: Tagged): string[] | null {
  // What came before is often why: in one breath the two are heard together.
  if (/[?:;]/.test(text) || words(text) <= ONE_BREATH) return null;
  for (let i = tokens.length - 5; i > 5; i--) {
    if (!/^(?:after|before)$/.test(tokens[i].text) || inQuote(text, tokens[i].start)) continue;
    const verb = clauseAt(tokens, i + 1);
    const behind = text.slice(tokens[i].start);
    if (verb < 0 || /[“”",()]/.test(behind) || words(behind) < 7) return null;
    if (!plainBefore(tokens, i, tokens[i - 1].text === ',')) return null;
    const main = finiteIn(tokens, 0, i);
    // Behind a comma it is told of the whole, whatever stands in it; else of one act, told as past.
    const apart = tokens[i - 1].text === ',';
    const act = main.at(apart ? -1 : 0);
    if (act === undefined || timeOf(tokens, act) !== 'past') return null;
    if (!apart && (main.length !== 1 || /^(?:has|have)$/.test(tokens[act].text))) return null;
    // "not until", "shortly after" and "only after" bind more than the time.
    if (
      timeOf(tokens, verb) !== 'past' ||
      (!apart && ['ADV', 'NUM', 'PUNCT', 'SCONJ'].includes(tokens[i - 1].pos))
    )
      return null;
    if (apart) return [closed(text.slice(0, tokens[i - 1].start)), closed(`That came ${behind}`)];
    if (TIMED.test(tokens[i - 1].text) || words(text.slice(0, tokens[i].start)) < 6) return null;
    return [closed(text.slice(0, tokens[i].start)), closed(`That was ${behind}`)];
  }
  return null;
}
/** "a day after", "two weeks before": the time belongs to what stands before. */
const TIMED =
  /^(?:seconds?|minutes?|hours?|days?|weeks?|fortnight|months?|years?|decades?|centur(?:y|ies)|night|morning|shortly|soon|just|only|even|long)$/;

/** "He pardoned him in May, a step that may have come too late." → "He pardoned him in May. That was a step that may have come too late." */
export function stepTail({ text, tokens }: Tagged): string[] | null {
  if (/[?:;()]/.test(text)) return null;
  const at = tokens.findIndex(
    (t, i) =>
      i > 4 &&
      !inQuote(text, t.start) &&
      t.text === ',' &&
      /^an?$/.test(tokens[i + 1]?.text ?? '') &&
      tokens[i + 2]?.pos === 'NOUN' &&
      /^(?:that|which)$/.test(tokens[i + 3]?.text ?? ''),
  );
  // Behind a name or a thing it tells what that is; behind an act, what kind of act it was.
  if (at < 0 || !STEPS.test(tokens[at + 2].lemma) || !plainBefore(tokens, at)) return null;
  const main = finiteIn(tokens, 0, at);
  // "are shut": a helper and its participle are one verb.
  const one =
    main.length === 1 || (main.length === 2 && main[1] === main[0] + 1 && tokens[main[0]].pos === 'AUX');
  const time = one ? timeOf(tokens, main[0]) : null;
  if (!time || /[“"]/.test(text.slice(0, tokens[at].start)) || words(text.slice(tokens[at + 1].start)) < 6)
    return null;
  return [
    closed(text.slice(0, tokens[at].start)),
    closed(`That ${time === 'past' ? 'was' : 'is'} ${text.slice(tokens[at + 1].start)}`),
  ];
}
/** Nouns for an act (WordNet's lexicographer file noun.act, the commonest, from memory). */
const STEPS =
  /^(?:act|action|attempt|change|choice|decision|deal|effort|event|feat|gesture|habit|method|mistake|move|offer|plan|policy|practice|process|project|ruling|sale|step|strategy|tactic|task|technique|trend|trick|vote)$/;

/** "Kay Elder, a specialist at the charity, said …" → "Kay Elder is a specialist at the charity. She said …": who somebody is, before what they say. */
export function subjectApposition({ text, tokens }: Tagged, carry: Subject): string[] | null {
  const comma = tokens.findIndex((t) => t.text === ',');
  if (comma < 2 || comma > 5 || !/^(?:an?|the|one)$/.test(tokens[comma + 1]?.text ?? '')) return null;
  const name = tokens.slice(0, comma);
  if (
    name.some((t) => t.pos !== 'PROPN' || /^[JS]r\.?$/.test(t.text)) ||
    name.filter((t) => /^\p{Lu}\p{Ll}/u.test(t.text)).length < 2
  )
    return null;
  const close = tokens.findIndex((t, i) => i > comma + 2 && t.text === ',');
  if (close < 0 || close - comma < 4) return null;
  let verb = close + 1;
  while (tokens[verb]?.pos === 'ADV') verb++;
  const said = tokens[verb];
  // What they say now: the office is held as they speak.
  if (!said || !SAYS.test(said.text)) return null;
  const is = tokens.slice(comma + 1, close);
  if (
    is.some((t) => /^(?:was|were|had|died|when|whose|of whom)$/.test(t.text)) ||
    /[“”"()]/.test(text.slice(0, tokens[close].start))
  )
    return null;
  const last = name.at(-1)!.text;
  const carried = carry(text.slice(0, name.at(-1)!.end), name) ?? last;
  return [
    closed(`${text.slice(0, name.at(-1)!.end)} is ${text.slice(is[0].start, is.at(-1)!.end)}`),
    closed(`${carried} ${text.slice(tokens[close + 1].start)}`),
  ];
}

/** "He lit the lamp, shut the glass, and gave his ladder away." → "He lit the lamp and shut the glass. He gave his ladder away." */
export function threeVerbs({ text, tokens }: Tagged, carry: Subject): string[] | null {
  if (/[?:;“”"()]/.test(text)) return null;
  const verbs = finiteIn(tokens, 0, tokens.length);
  const [first] = verbs;
  const second = verbs.find((i) => i > first && tokens[i - 1].text === ',') ?? -1;
  const third = verbs.find((i) => i > second && tokens[i - 1].text === 'and') ?? -1;
  if (second < 0 || third < 0 || verbs.filter((i) => i < third).length !== 2) return null;
  const form = (i: number) => formOf(tokens[i].text, tokens[i].lemma, false);
  if (form(first) !== form(second) || form(second) !== form(third) || form(first) === 'base') return null;
  const commas = tokens.slice(first, third).filter((t) => t.text === ',').length;
  if (commas !== (tokens[third - 2].text === ',' ? 2 : 1)) return null;
  const from = openingEnd(tokens, first);
  const subject = subjectBefore(tokens, from, first);
  const carried = subject && carry(text.slice(tokens[from].start, subject.at(-1)!.end), subject);
  if (!carried || words(text.slice(tokens[third].start)) < 4) return null;
  const before = tokens[third - 2].text === ',' ? third - 2 : third - 1;
  return [
    closed(`${text.slice(0, tokens[second - 1].start)} and ${text.slice(tokens[second].start, tokens[before].start).trim()}`),
    closed(`${upper(carried)} ${text.slice(tokens[third].start)}`),
  ]; // prettier-ignore
}

/** Where the subject begins: behind the comma that closes an opening phrase, else at the start. */
function openingEnd(tokens: readonly TaggedToken[], verb: number): number {
  const comma = tokens.findIndex((t, i) => i > 0 && i < verb && t.text === ',');
  return comma < 0 ? 0 : comma + 1;
}
