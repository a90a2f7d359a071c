/**
 * What could be a title, in the kinds that people use: how, why, the thing that did it, a number and its thing, somebody's
 * words, a person and an act, a contrast, a question, an order. Each is made from a fact or from the source's own title.
 */
import { ASSERTS, THINKS } from '../language/reporting.ts';
import { PATTERNS } from '../language/lexicon.ts';
import { castOf, type CastMember } from '../facts/cast.ts';
import type { Fact } from '../facts/facts.ts';
import type { SourceDocument } from '../source/document.ts';
import { isOrder } from '../source/kind.ts';
import { literal } from '../language/literal.ts';
import { isFiniteVerb, type TaggedToken, type Tagger } from '../language/tagged.ts';
import { plainClause, thatPhrase, undated, whyClause, whyQuestion, type PlainClause } from './clause.ts';
import { CAUSE, HOW, TENSION, TROUBLE, UNKNOWN, capital, explained, type Material } from './material.ts';
import { asFirstNamed, asKnown, headlineOf, kindOfThing, topicNoun } from './topic.ts';

/** A title that could be made, and what it rests on. */
export interface Proposal {
  text: string;
  fact: Fact;
  /** What it promises, in words. */
  kind: string;
}

/** What would dangle at a title's end. */
export const LOOSE_END =
  /\s(?:and|or|to|of|in|on|by|at|the|an?|since|until|from|between|for|with|as|just|up to|than|about|that|which|who|its|their|his|her|still|also|is|was|are|were|be|been|had|has)$/i;
/** "Is 11–12 cm": a measure alone is no act. */
const MEASURED = /^(?:is|was|are|were) (?:about |almost |over )?[\d(]/;
const SAYS = new RegExp(`^(?:${ASSERTS}|${THINKS}|asked)\\b`);
/** Two to so many words of an act, or of what is said of a thing. */
const LONGEST_PREDICATE = 8;

/** What a fact says of its subject, to the first pause: verb and all; null where it would break off or points elsewhere. */
function predicateOf(fact: Fact, tagger: Tagger): string | null {
  const { statement, text } = fact;
  if (!statement || fact.quotes.length || fact.modality !== 'plain') return null;
  // "If she were smart" is no act: the clause stands first, or behind a phrase with its comma.
  if (
    !/^$|^(?!(?:if|when|while|unless|although|because|as|since|once)\b)[^,“”]*,\s*$/i.test(
      text.slice(0, statement.subject.start),
    )
  )
    return null;
  const clause = text
    .slice(statement.verb.start)
    .split(
      /[,;:.](?=\s|$)|[!?()]|\s[–—]|\s(?:and|but|or|when|while|because|although|so that|where|which|who|that|as|if|after|before|until|since)\s/,
    )[0];
  const said = undated(clause.trim()).trim();
  const words = said.split(/\s+/).length;
  if (
    words < 2 ||
    words > LONGEST_PREDICATE ||
    LOOSE_END.test(said) ||
    SAYS.test(said) ||
    MEASURED.test(said)
  )
    return null;
  if (
    /\b(?:it|they|them|him|he|she|her|his|their|its|this|that|these|those|there|one|other|I|we|you|my|our)\b/i.test(
      said,
    )
  )
    return null;
  const last = tagger(`It ${said}.`).at(-2);
  return last && /^(?:NOUN|PROPN|NUM|ADJ|ADV)$/.test(last.pos) ? said : null;
}

/** A heading under which an entry says how its thing works. */
const WORKINGS = /\b(?:how it works|principle|operation|mechanism|method of working)\b/i;

const TITLED = new RegExp(`^${PATTERNS.title}\\b`);

/** Somebody a source shows to be one: with a title or an age, speaking, or "he" or "she" soon behind. */
export function isPerson(member: CastMember, facts: readonly Fact[]): boolean {
  const last = member.name.split(' ').at(-1)!;
  return (
    /\s/.test(member.name) &&
    !/^\p{Lu}\. /u.test(member.name) &&
    (member.age !== undefined ||
      [member.name, ...member.also].some((n) => TITLED.test(n)) ||
      facts.some(
        (f) =>
          (f.attribution?.text.includes(last) ?? false) ||
          new RegExp(`\\b${literal(last)}\\b[^.]{0,80}\\b(?:he|she|his|her|him)\\b`).test(f.text),
      ))
  );
}

/** Why, a question, a thing and what it does, a statement: from a fact's own clause. */
function fromClause(fact: Fact, leads: boolean, tagger: Tagger): Proposal[] {
  const clause = plainClause(fact);
  if (!clause) return [];
  const short: PlainClause = {
    ...clause,
    object: undated(clause.object).split(/, | (?:when|after|before|while|although|that|which|who) /)[0],
  };
  // "Why Vey saw" breaks off; "why the lock was closed" does not.
  const whole = short.object !== '' || /\s/.test(clause.verb);
  const reason = explained(fact) && !/^(?:may|might|could)\b/.test(clause.verb);
  const predicate = predicateOf(fact, tagger);
  const told = predicate && {
    ...clause,
    verb: predicate.split(' ')[0],
    object: predicate.split(' ').slice(1).join(' '),
  };
  // A week or a thing like any other is no subject for a title: it has an adjective, a noun or a name of its own.
  const own = /^(?:the|an?)\s\S+\s\S+/i.test(clause.subject) || /^\p{Lu}/u.test(clause.subject);
  const found: [string | null, string][] = [
    [reason && whole ? whyClause(short) : null, 'a reason'],
    [reason && whole ? whyQuestion(short, tagger) : null, 'a question'],
    [told && own ? thatPhrase(told) : null, 'a thing and what it does'],
    [
      told && own && (leads || TENSION.test(predicate)) ? `${clause.subject} ${predicate}` : null,
      'a statement',
    ],
  ];
  return found.flatMap(([text, kind]) => (text ? [{ text, fact, kind }] : []));
}

const MEASURES =
  /^(?:years|months|weeks|days|hours|minutes|seconds|metres|grams|cents|kilometres|centimetres|tonnes|litres|miles|pounds|percent|%)$/;

/** A number with what it counts; in a study, how many were looked at. */
function fromNumbers(fact: Fact, topic: string, study: boolean): Proposal[] {
  return fact.numbers.flatMap((n): Proposal[] => {
    if (!n.unit || n.value <= 3) return [];
    const counted = n.text.includes(n.unit) ? n.text : `${n.text} ${n.unit}`;
    if (study)
      return n.value >= 5 && /^\p{L}+s$/u.test(n.unit) && !MEASURES.test(n.unit)
        ? [{ text: `What ${counted} showed`, fact, kind: 'a number' }]
        : [];
    return topic.length <= 34 &&
      /^\p{L}{2,}s$/u.test(n.unit) &&
      !/^(?:1[5-9]|20)\d\d$/.test(n.text) &&
      fact.strength > 0.2
      ? [{ text: `${capital(counted)}: ${topic}`, fact, kind: 'a number' }]
      : [];
  });
}

/** So many facts at the beginning say what it is about. */
const LEAD = 3;

const [SHORTEST_QUOTE, LONGEST_QUOTE] = [3, 9];

/** Somebody's words that stand alone: a clause with its own subject, not a fragment. */
const standsAlone = (quote: string, tokens: readonly TaggedToken[]) =>
  /^\p{Lu}/u.test(quote) &&
  !/[?:;–—]|\.\s/.test(quote) &&
  !/^(?:But|And|So|That|This|These|Those|It|Then|There|They|He|She)\b/.test(quote) &&
  tokens.some((_, i) => i > 0 && isFiniteVerb(tokens, i));

/** A short sentence that points at nothing before it. */
const wholeTitle = (f: Fact) =>
  f.text.length < 60 &&
  f.text.split(' ').length > 3 &&
  f.step === undefined &&
  !f.quotes.length &&
  !f.leans.length &&
  f.modality === 'plain' &&
  !/[?:;()“”"]/.test(f.text) &&
  plainClause(f) !== null;

function fromFact(fact: Fact, at: number, m: Material, topic: string, tagger: Tagger): Proposal[] {
  return [
    ...fromClause(fact, at < LEAD, tagger),
    ...(isThing(m.source, topic) || m.source.kind === 'abstract'
      ? fromNumbers(fact, topic, m.source.kind === 'abstract')
      : []),
    ...fact.quotes.flatMap((q) => {
      const said = q.text.replace(/[.,]$/, '');
      const words = said.split(' ').length;
      return words >= SHORTEST_QUOTE && words <= LONGEST_QUOTE && standsAlone(said, tagger(said))
        ? [{ text: `“${said}”`, fact, kind: 'somebody’s words' }]
        : [];
    }),
    ...(UNKNOWN.test(fact.text)
      ? [{ text: `What nobody knows about ${topic}`, fact, kind: 'what is not known' }]
      : []),
    ...(m.source.kind === 'howto' && isOrder(fact.text) && !/[,;:]/.test(fact.text)
      ? [{ text: fact.text.replace(/[.!]$/, ''), fact, kind: 'an order' }]
      : []),
    ...(/^[^,]{12,40}, (?:but|not|yet) [^,]{6,30}\.$/.test(fact.text) && plainClause(fact)
      ? [{ text: fact.text.replace(/\.$/, ''), fact, kind: 'a contrast' }]
      : []),
    ...(wholeTitle(fact)
      ? [{ text: fact.text.replace(/\.$/, ''), fact, kind: 'a sentence of its own' }]
      : []),
  ];
}

/** Whether a topic is one thing that the listener can be told something about. */
export const isThing = (source: SourceDocument, topic: string): boolean =>
  /^the /.test(topic) || (source.kind === 'encyclopedia' && !/,/.test(topic));

/** From the source as a whole: its own title and what it says as a headline, its people, what went wrong, how it works, a guide's task. */
function fromSource(m: Material, topic: string, tagger: Tagger): Proposal[] {
  const { source, facts } = m;
  const [lead] = [...facts].sort((a, b) => b.strength - a.strength);
  if (!lead) return [];
  const cuts = [/, and |, but |: | – | — /, / (?:after|when|while|because) /].map(
    (at) => source.title.split(at)[0],
  );
  const parts = [source.title, ...source.title.split(/: | – | — /).slice(1)];
  const headline =
    parts.map((title) => headlineOf({ ...source, title }, tagger)).find((h) => h !== null) ?? null;
  const happened = headline && `${headline.verb} ${headline.rest}`.trim();
  const people = castOf(facts).filter((c) => c.type === 'person' && isPerson(c, facts));
  const wrong = facts.find((f) => TROUBLE.test(f.text) && f.dates.some((d) => /^\d{4}/.test(d.iso)));
  const works = facts.find((f) => HOW.test(f.text) && f.type !== 'step');
  const kind = kindOfThing(
    source,
    facts.map((f) => f.text),
  );
  // "It was once common": what is said of the one thing an entry is about.
  const ofIt = kind
    ? facts.flatMap((f) => {
        const subject = f.statement?.subject.text ?? '';
        // Further in, "it" may be something else.
        const own =
          (/^it$/i.test(subject) && f.block === facts[0].block) ||
          subject.toLowerCase().replace(/^the /, '') === source.title.toLowerCase();
        const predicate = own ? predicateOf(f, tagger) : null;
        return predicate && !/^(?:is|was|are|were) an?\b/.test(predicate) ? [{ f, predicate }] : [];
      })
    : [];
  return [
    { text: source.title.replace(/\s*\([^)]*\)$/, ''), fact: lead, kind: 'the source’s own' },
    ...cuts
      .filter((part) => part !== source.title && part.split(' ').length >= 4)
      .map((text) => ({ text, fact: lead, kind: 'the source’s own, cut short' })),
    // A thing with three words of its own is a title already.
    ...(headline && headline.subject.split(' ').length > 3
      ? [{ text: capital(asKnown(headline)), fact: lead, kind: 'a thing' }]
      : []),
    ...(headline?.acts && headline.rest
      ? [
          { text: `How ${asFirstNamed(headline)} ${happened}`, fact: lead, kind: 'how it came about' },
          ...(headline.article
            ? [
                {
                  text: `${capital(asKnown(headline))} that ${happened}`,
                  fact: lead,
                  kind: 'a thing and what it does',
                },
              ]
            : []),
        ]
      : []),
    ...ofIt.map(({ f, predicate }) => ({
      text: `The ${kind!} that ${predicate}`,
      fact: f,
      kind: 'a thing and what it does',
    })),
    ...people.slice(0, 4).flatMap((c) =>
      facts.flatMap((f) => {
        const subject = f.statement?.subject.text ?? '';
        const predicate = [c.name, ...c.also].includes(subject) ? predicateOf(f, tagger) : null;
        return predicate && !/^(?:is|was|has|had|said|says|told|added)\b/.test(predicate)
          ? [{ text: `${c.name} ${predicate}`, fact: f, kind: 'a person and what they did' }]
          : [];
      }),
    ),
    ...(wrong && isThing(source, topic)
      ? [{ text: `What happened to ${topic}?`, fact: wrong, kind: 'a day it went wrong' }]
      : []),
    ...(works && source.blocks.some((b) => b.type === 'heading' && WORKINGS.test(b.text))
      ? [{ text: `How ${topic} works`, fact: works, kind: 'how it works' }]
      : []),
    // A story's own I is its person.
    ...(source.kind === 'forum'
      ? facts.flatMap((f) => {
          const predicate = f.statement?.subject.text === 'I' ? predicateOf(f, tagger) : null;
          return predicate &&
            predicate.split(' ').length > 3 &&
            !/^(?:am|was|have|had|know|knew|guess|suppose|get|go)\b/.test(predicate)
            ? [{ text: `I ${predicate}`, fact: f, kind: 'a person and what they did' }]
            : [];
        })
      : []),
    ...fromGuide(m, lead),
  ];
}

function fromGuide({ source, facts }: Material, lead: Fact): Proposal[] {
  if (source.kind !== 'howto') return [];
  const task = /^how to\s+(\S.*)$/i.exec(source.title)?.[1];
  const named = capital((task ?? source.title).replace(/\s*\([^)]*\)/g, '').replace(/\s*&\s*/g, ' and '));
  const steps = Math.max(0, ...facts.map((f) => f.step ?? 0));
  const warning = facts.find((f) => f.type === 'warning');
  const reason = facts.find((f) => CAUSE.test(f.text));
  const tools = source.blocks.filter(
    (b) => b.type === 'item' && !b.step && /\bneed|tools?\b/i.test(b.under ?? ''),
  );
  return [
    { text: `${named}, step by step`, fact: lead, kind: 'the task' },
    ...(steps > 2
      ? [{ text: `${named} in ${steps} steps`, fact: facts.find((f) => f.step)!, kind: 'the task' }]
      : []),
    ...(reason
      ? [{ text: `${named}, and why each step matters`, fact: reason, kind: 'the task and its reasons' }]
      : []),
    ...(task
      ? [
          { text: `How do you ${task}?`, fact: lead, kind: 'a question' },
          { text: `Before you ${task}`, fact: warning ?? lead, kind: 'what to know first' },
          ...tools.slice(0, 3).map((t) => ({
            text: `${named} with ${t.text.replace(/\(.*?\)/g, '').trim()}`,
            fact: facts.find((f) => f.block === t.id) ?? lead,
            kind: 'a tool',
          })),
        ]
      : []),
    ...(warning
      ? [{ text: `${named} without the usual mistake`, fact: warning, kind: 'the task and its trap' }]
      : []),
  ];
}

/** Everything that could be a title of a source. */
export function proposalsOf(m: Material, tagger: Tagger): Proposal[] {
  const topic = topicNoun(m.source, tagger);
  return [...fromSource(m, topic, tagger), ...m.facts.flatMap((f, at) => fromFact(f, at, m, topic, tagger))];
}
