/** Wording: one phrase for another as it is quoted, sentences made one or two, names told otherwise, a source's own words. */
import { veiled } from '../../draft/settle.ts';
import { CLOSED } from '../../language/closed.ts';
import { spanOf } from '../said.ts';
import {
  isKept,
  linesIn,
  mapLines,
  withText,
  type Operation,
  type ReviseContext,
  type Scope,
} from '../types.ts';
import { changedText, escaped, tidyLine } from './cut.ts';
import { joinedLine, twoSentences } from '../parting.ts';
import type { PlainLine } from '../../script/data.ts';

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
/** A sentence's first word as it stands within one: small unless it is a name or "I". */
const small = (text: string) => {
  const first = /^[\p{L}’']+/u.exec(text)?.[0] ?? '';
  return first !== 'I' && !/^I['’]/.test(first) && CLOSED.has(first.toLowerCase()) ? text.charAt(0).toLowerCase() + text.slice(1) : text; // prettier-ignore
};

/** Two sentences as one: joined by the second's own conjunction, else by "and". */
function asOne(first: string, second: string): string {
  const own = /^(?:and|but|so|or|yet)\b,?\s*/i.exec(second);
  const head = first.replace(/[.;:]+(["”’']?)$/, '$1');
  return own
    ? `${head}, ${own[0].trim().replace(/,$/, '').toLowerCase()} ${second.slice(own[0].length)}`
    : `${head}, and ${small(second)}`;
}

/** Words for somebody that the script itself has: "our treasurer, Lionel", "my friend Bryony", "Dagny, the cleaner". */
function otherWords(name: string, lines: readonly PlainLine[]): string | null {
  const someone = '((?:[Oo]ur|[Mm]y|[Hh]is|[Hh]er|[Tt]heir|[Tt]he|[Aa]n?) (?:\\p{Ll}+ ){0,2}\\p{Ll}+)';
  const before = new RegExp(`\\b${someone},? ${escaped(name)}\\b`, 'u');
  const behind = new RegExp(`\\b${escaped(name)}, ${someone}[,.]`, 'u');
  for (const { text } of lines) {
    const m = before.exec(text) ?? behind.exec(text);
    if (m) return (m[1].charAt(0).toLowerCase() + m[1].slice(1)).replace(/^an? /, 'the ');
  }
  return null;
}

/** A line's words without a name; commas that only set it apart from its description go with it. */
function unnamed(text: string, name: string, words: string): string {
  const n = escaped(name);
  const described = `(?:our|my|his|her|their|the|an?) ${escaped(words.replace(/^\p{Ll}+ /u, ''))}`;
  const swaps: readonly (readonly [RegExp, (...m: string[]) => string])[] = [
    [new RegExp(`(${described}), ${n},`, 'giu'), (_, said) => said],
    [new RegExp(`(${described}),? ${n}(['’]s)?(?!\\p{L})`, 'giu'), (_, said, of) => `${said}${of ?? ''}`],
    [new RegExp(`(?<!\\p{L})${n}, ${described},?`, 'giu'), () => words],
    [new RegExp(`(?<!\\p{L})${n}(?!\\p{L})`, 'gu'), () => words],
    [/([.!?]["”’]?\s+)(\p{Ll})/gu, (_, stop, letter) => stop + letter.toUpperCase()],
  ];
  return tidyLine(swaps.reduce((t, [from, to]) => t.replace(from, to), text));
}

/** The sentence of its sources that a line was made from: of those it rests on, the one with most of its words. */
function sourceSentence(line: PlainLine, { sources }: ReviseContext): string | null {
  const words = (t: string) => new Set(t.toLowerCase().match(/\p{L}{3,}/gu) ?? []);
  const own = words(line.text);
  let best: { text: string; share: number } | null = null;
  for (const { source, fact } of line.from) {
    const text = sources.find((s) => s.letter === source)?.facts.find((f) => f.id === fact)?.text;
    if (!text) continue;
    const other = words(text);
    const share = [...own].filter((w) => other.has(w)).length / Math.max(1, own.size);
    if (!best || share > best.share) best = { text, share };
  }
  return best && best.share >= 0.5 ? best.text : null;
}

const oneLine = (scope: Scope, context: ReviseContext) => linesIn(context.sections).filter((l) => scope.lines.includes(l.id)); // prettier-ignore

export const wordingOps: readonly Operation[] = [
  {
    id: 'replace-text',
    says: 'say something in other words',
    otherwise: 'whole',
    patterns: ['(?:change|replace|reword) {text} (?:to|with|by|into) {until}(?: in {scope})?'],
    apply: ({ scope, slots }, context) => {
      const [old, by] = [slots.text.trim(), (slots.by ?? slots.until).trim()];
      const bound = (side: 'before' | 'behind') =>
        /^[\p{L}\p{N}]/u.test(side === 'before' ? old : [...old].reverse().join(''))
          ? side === 'before'
            ? '(?<![\\p{L}\\p{N}])'
            : '(?![\\p{L}\\p{N}])'
          : '';
      const pattern = new RegExp(
        `(?:\\b(an?) )?${bound('before')}(${escaped(old)}(?:(?<=\\p{L})(?:s|es)(?!\\p{L}))?)${bound('behind')}`,
        'giu',
      );
      return changedText(
        scope,
        context,
        (text) =>
          text.replace(pattern, (_, article: string | undefined, found: string, at: number) => {
            // "kegs" for "barrels": what is added to one is added to the other.
            const more = found.slice(old.length);
            const said = `${by}${more && /\p{L}$/u.test(by) ? (/(?:s|x|ch|sh)$/.test(by) ? 'es' : 's') : ''}`;
            const start =
              /^\p{Lu}/u.test(found) &&
              (at === 0 || /[.!?]["”’]?\s$/.test(text.slice(0, at))) &&
              /^\p{Ll}/u.test(said)
                ? capital(said)
                : said;
            if (!article) return start;
            const fit = /^[aeiou]/i.test(said) ? 'an' : 'a';
            return `${/^\p{Lu}/u.test(article) ? capital(fit) : fit} ${start}`;
          }),
        `“${old}” does not stand there.`,
      );
    },
  },
  {
    id: 'one-sentence',
    says: 'make one sentence of two',
    otherwise: 'selection',
    patterns: [
      '(?:make|turn) {scope} (?:in)?(?:to )?one sentence',
      '(?:join|merge) {scope} (?:in)?to one sentence',
    ],
    apply: ({ scope }, { sections }) => {
      const section = sections.find((s) => s.lines.some((l) => scope.lines.includes(l.id)));
      const own = section?.lines.filter((l) => scope.lines.includes(l.id)) ?? [];
      if (!section || own.length !== 2 || scope.lines.length !== 2)
        return { refused: 'Two lines of one section are needed for one sentence.' };
      if (own.some((l) => isKept(l, section))) return { refused: 'A locked line stays as it is.' };
      if (own.some((l) => /[?!]["”’]?$/.test(l.text)))
        return { refused: 'A question or a call can’t be joined to another sentence.' };
      const [a, b] = own;
      const joined = joinedLine(own, asOne(a.text, b.text));
      return {
        sections: sections.map((s) =>
          s === section
            ? { ...s, lines: s.lines.flatMap((l) => (l === a ? [joined] : l === b ? [] : [l])) }
            : s,
        ),
      };
    },
  },
  {
    id: 'two-sentences',
    says: 'make two sentences of one',
    otherwise: 'selection',
    patterns: ['(?:split|break|divide|cut) {scope} (?:in|into) two sentences', 'two sentences of {scope}'],
    apply: ({ scope }, context, tools) => twoSentences(scope, context, tools),
  },
  {
    id: 'names-out',
    says: 'tell of people without their names',
    otherwise: 'whole',
    patterns: [
      'anonymi[sz]e {about}(?: in {scope})?',
      '(?:leave out|drop|hide) the names? (?:of )?{about}(?: in {scope})?',
    ],
    apply: ({ scope, slots }, context) => {
      const names = slots.about.split(/\s*(?:,|\band\b|&)\s*/).filter(Boolean);
      const all = linesIn(context.sections);
      const words = names.map((n) => [n, otherWords(n, all)] as const);
      const change = (text: string) =>
        words.reduce(
          (t, [n, w]) =>
            !spanOf(t, n) ? t : w ? unnamed(t, n, w) : veiled(t, [{ text: n, type: 'person' }]),
          text,
        );
      const result = changedText(scope, context, change, `${slots.about}: no such name stands there.`);
      if ('refused' in result) return result;
      return {
        sections: result.sections.map((s) => (s.locked ? s : { ...s, title: capital(change(s.title)) })),
      };
    },
  },
  {
    id: 'source-words',
    says: 'restore the source’s words',
    otherwise: 'selection',
    patterns: [
      "restore (?:the )?(?:source|original)(?:[’']s)?(?: own)? (?:words|wording|text)(?: (?:in|of|for) {scope})?",
    ],
    apply: ({ scope }, context) => {
      const lines = oneLine(scope, context);
      if (lines.length !== 1)
        return { refused: 'One line at a time can have its source’s words.', nearest: 'select the line' };
      const said = sourceSentence(lines[0], context);
      if (!said) return { refused: 'No sentence of the source stands close enough to this line.' };
      return said === lines[0].text
        ? { refused: 'The line has the source’s words already.' }
        : { sections: mapLines(context.sections, new Set([lines[0].id]), (l) => withText(l, said)) };
    },
  },
];
