/** What a source lacks for a longer telling, from what it has: links of its chain that nothing says, and what it names once. */
import { castOf } from '../facts/cast.ts';
import type { Tagger } from '../language/tagged.ts';
import type { Material } from './material.ts';
import { kindsIn, type LinkKind } from './spine.ts';
import { topicNoun } from './topic.ts';

/** What a chain has, by the kind of source, and how one would ask for what is missing. */
const ASKS: Readonly<Partial<Record<LinkKind, string>>> = {
  want: 'what somebody wanted',
  cause: 'why it came to it',
  obstacle: 'what stood in the way',
  decision: 'what was decided',
  turn: 'where it turned',
  cost: 'what it cost',
  result: 'what came of it',
  open: 'what is still open',
  question: 'what was asked',
  method: 'how it was done',
  limit: 'what it doesn’t show',
  step: 'the steps',
  warning: 'what goes wrong',
};
const CHAINS: Readonly<Record<string, readonly LinkKind[]>> = {
  news: ['cause', 'decision', 'result', 'open'],
  encyclopedia: ['cause', 'turn', 'cost', 'result'],
  forum: ['want', 'obstacle', 'turn', 'cost', 'result'],
  abstract: ['question', 'method', 'result', 'limit'],
  howto: ['step', 'warning'],
};
/** So many names are said, at most. */
const MOST_NAMES = 3;
/** A page of some length about one thing has about so many words (common practice, no published source). */
const WORDS_A_PAGE = 500;

export interface ToAdd {
  /** Links that nothing in the sources says, as one would ask for them. */
  links: readonly string[];
  /** People and places that are named once only. */
  named: readonly string[];
  /** What to look for. */
  look: readonly string[];
}

/** What the sources could use more of. Each is looked for in every sentence, not among the links that were chosen. */
export function toAdd(material: readonly Material[], tagger: Tagger): ToAdd {
  const [first] = material;
  const has = new Set(material.flatMap((m) => [...kindsIn(m)]));
  const missing = (CHAINS[first.source.kind] ?? []).filter((k) => !has.has(k));
  const topic = topicNoun(first.source, tagger).replace(/^(?:the|an?) /i, '');
  const named = material
    .flatMap((m) => castOf(m.facts.filter((f) => !f.silent)))
    .filter((c) => c.facts.length === 1 && c.name.includes(' '))
    .map((c) => c.name)
    .filter((name) => !topic.includes(name))
    .slice(0, MOST_NAMES);
  return {
    links: missing.map((k) => ASKS[k]!),
    named,
    look: [...(missing.length ? [topic] : []), ...named.map((n) => `${n} ${topic}`)].slice(0, MOST_NAMES),
  };
}

/** The same in sentences, for so many milliseconds that are missing at so many words a minute. */
export function toAddSays(add: ToAdd, missingMs: number, pace: number): string[] {
  const words = Math.ceil(((missingMs / 60_000) * pace) / 10) * 10;
  const list = new Intl.ListFormat('en-GB', { type: 'conjunction' });
  const quoted = (some: readonly string[]) => list.format(some.map((s) => `“${s}”`));
  return [
    ...(missingMs > 0
      ? [
          `${Math.ceil(missingMs / 1000)} s are missing: about ${words} words that can be told${words > WORDS_A_PAGE ? ', more than a page' : ''}.`,
        ]
      : []),
    ...(add.links.length ? [`It doesn’t say ${list.format(add.links)}.`] : []),
    ...(add.named.length ? [`Named once only: ${list.format(add.named)}.`] : []),
    ...(add.look.length ? [`Words to look for: ${quoted(add.look)}.`] : []),
  ];
}
