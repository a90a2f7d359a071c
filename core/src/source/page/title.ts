/** The row above a text that is its title, found by learned weights (scripts/pages/titles.ts) where no markup says so. */
import { literal } from '../../language/literal.ts';
import { wordsOf, type Atom } from './atom.ts';
import { CLOSED } from '../../language/closed.ts';
import { hashOf, isProse } from './features.ts';
import { titleModel } from './models.ts';
import { mailHeads } from './records.ts';
import { ADDRESS, DAY, isStamp } from './shapes.ts';
import { chance, oddsOf, type Forest } from './trees.ts';

/** Before a subject in an archive or a thread: "Re:", the name of a list in brackets, what boards call it. */
export const PREFIX = /^(?:\[[\w.-]+\]\s+|(?:re|fwd?|topic|thread|subject|discussion):\s+)+(?=\S)/i;
/** Behind it: which page of it this is, what has become of it. */
const SUFFIX =
  /\s*[([](?:page \d+(?: of \d+)?|\d+ (?:replies|posts|comments|viewing)|solved|closed|locked|resolved)[)\]]$/i;
/** A subject without what boards and archives set before and behind it. */
export const bareTitle = (text: string): string => text.replace(PREFIX, '').replace(SUFFIX, '');
/** Between the steps of a path, the last of which may be the title. */
const PATH = /\s(?:->|[›»→>])\s/;
/** A step of fewer words is a part of the site. */
const PATH_WORDS = 4;
/** From here on a passage may be where the article opens, and is surely its. */
const OPENS = 0.3;
const IN = 0.5;
/** Rows above it that are looked at. */
const ABOVE = 40;
/** How likely the likeliest row must be. */
const TITLED = 0.3;
const LABEL = /^\p{L}+:\s/u;
const BYLINE =
  /^(?:(?:words|report(?:ing|ed)?|story|text|written|posted)\s)?by:?\s+\p{Lu}|^(?:words|text|story|report)(?: by)?:\s+\p{Lu}|^from\s\p{Lu}\S+\s\p{Lu}/iu;

/** Whether a text begins with its subject, as entries of reference works do: "The cairn wren (…) is". */
export const opensWith = (text: string, title: string): boolean =>
  new RegExp(`^(?:(?:the|an?)\\s)?${literal(title)}\\b`, 'i').test(text) && title.length > 3;

/** What the first of several letters is about. */
export function subjectIn(atoms: readonly Atom[]): string | undefined {
  const subjects = mailHeads(atoms)
    .flat()
    .map((i) => /^subject:\s+(\S.*)$/i.exec(atoms[i].text)?.[1])
    .filter((s) => s !== undefined);
  return subjects.length > 1 ? subjects[0].replace(PREFIX, '') : undefined;
}

/** Whether a text has any of a title's words that mean something. */
export function isAbout(atoms: readonly Atom[], sure: readonly number[], title: string): boolean {
  const words = stems(title);
  const told = new Set(atoms.filter((a, i) => isProse(a) && sure[i] >= OPENS).flatMap((a) => stems(a.text)));
  return !words.length || words.some((w) => told.has(w));
}

export interface TitleRow {
  text: string;
  /** The atom it stands in. */
  at: number;
  values: Readonly<Record<string, number>>;
}

const stems = (text: string) =>
  wordsOf(text.toLowerCase())
    .filter((w) => w.length > 2 && !CLOSED.has(w))
    .map((w) => w.replace(/['’]s$/, '').slice(0, 6));

/** Rows above the article that may be its title, each in numbers; none where no article is seen below. `sure`: how sure it is of each atom that it is the article's. */
export function titleRows(atoms: readonly Atom[], sure: readonly number[]): TitleRow[] {
  const opens = atoms.findIndex((a, i) => isProse(a) && sure[i] >= OPENS);
  if (opens < 1) return [];
  const told = new Set(atoms.filter((_, i) => i >= opens && sure[i] >= IN).flatMap((a) => stems(a.text)));
  const opening = new Set(stems(atoms[opens].text));
  const seen = new Map<string, number>();
  for (const a of atoms) {
    const key = hashOf(a.text.replace(PREFIX, ''));
    seen.set(key, (seen.get(key) ?? 0) + 1);
  }
  const from = Math.max(0, opens - ABOVE);
  const says = (a: Atom | undefined) => a !== undefined && (BYLINE.test(a.text) || (a.text.length < 110 && DAY.test(a.text))); // prettier-ignore
  const count = (a: Atom | undefined) => Math.min(40, wordsOf(a?.text ?? '').length);
  const rows = atoms.slice(from, opens).flatMap((a, k) => {
    const at = from + k;
    const steps = a.text.length <= 240 ? a.text.split(PATH) : [];
    const last = steps.length > 1 && wordsOf(steps.at(-1)!).length >= PATH_WORDS ? [steps.at(-1)!] : [];
    return (a.type === 'row' ? a.text.split('; ') : [a.text, ...last])
      .map((text) => bareTitle(text).replace(/\[edit\]$/, '').trim())
      .filter((text) => text.length <= 160 && /^["“‘'(]?[\p{Lu}\p{N}]/u.test(text) && !/[:,;]$/.test(text) && /\p{L}{2}/u.test(text))
      // Paths, labels with a value, numbered contents, stamps.
      .filter((text) => !/[›»|]|->|\s[>/]\s|^\p{L}+(?: \p{L}+)?:\s\P{L}|^\d+(?:\.\d+)*\s\D/u.test(text) && !BYLINE.test(text) && !isStamp(text) && !ADDRESS.test(text))
      // A field among fields.
      .filter((text) => !(LABEL.test(text) && [at - 1, at + 1].some((i) => LABEL.test(atoms[i]?.text ?? ''))))
      .map((text) => ({ text, at }));
  }); // prettier-ignore
  const measured = rows.map(({ text, at }) => {
    const words = [...new Set(stems(text))];
    const n = Math.max(1, words.length);
    const all = wordsOf(text);
    const next = [1, 2, 3].map((d) => atoms[at + d]);
    return {
      text,
      at,
      values: {
        words: all.length,
        content: words.length,
        inOpening: words.filter((w) => opening.has(w)).length / n,
        inText: words.filter((w) => told.has(w) || opening.has(w)).length / n,
        inTextCount: words.filter((w) => told.has(w) || opening.has(w)).length,
        capitals: all.filter((w) => /^\p{Lu}/u.test(w)).length / Math.max(1, all.length),
        shouted: text === text.toUpperCase() ? 1 : 0,
        closed: all.filter((w) => CLOSED.has(w.toLowerCase())).length / Math.max(1, all.length),
        stop: /[.!…]["'”’)]?$/.test(text) ? 1 : 0,
        asks: /\?["'”’)]?$/.test(text) ? 1 : 0,
        digits: (text.match(/\d/g) ?? []).length / text.length,
        label: LABEL.test(text) ? 1 : 0,
        again: Math.min(4, seen.get(hashOf(text)) ?? 1),
        opensWith: opensWith(atoms[opens].text, text) ? 1 : 0,
        until: opens - at,
        from: Math.min(60, at),
        share: at / opens,
        sure: sure[at],
        before: sure[at - 1] ?? 0,
        behind: sure[at + 1] ?? 0,
        wordsBefore: count(atoms[at - 1]),
        wordsBehind: count(next[0]),
        wordsBehind2: count(next[1]),
        signed: next.some(says) ? 1 : 0,
        signedAt: says(next[0]) ? 1 : 0,
        dated: next.some((a) => a && isStamp(a.text)) ? 1 : 0,
        item: atoms[at].type === 'item' ? 1 : 0,
        row: atoms[at].type === 'row' ? 1 : 0,
        gap: atoms[at].gap ?? 0,
        gapBehind: next[0]?.gap ?? 0,
      },
    };
  });
  // Beside the best of the others: the longest, and the one that says most of what the text does.
  const most = (key: 'inTextCount' | 'words') => Math.max(1, ...measured.map((m) => m.values[key]));
  const [longest, fullest] = [most('words'), most('inTextCount')];
  return measured.map((m) => ({ ...m, values: { ...m.values, longest: m.values.words / longest, fullest: m.values.inTextCount / fullest } })); // prettier-ignore
}

/** How likely each row is the title. */
export const titleChances = (rows: readonly TitleRow[], model: Forest): number[] =>
  rows.map((r) => chance(oddsOf(model, model.features.map((f) => r.values[f] ?? 0)))); // prettier-ignore

/** The likeliest title among the rows above the article; undefined where none is likely. */
export async function titleIn(atoms: readonly Atom[], sure: readonly number[]): Promise<string | undefined> {
  const rows = titleRows(atoms, sure);
  const chances = titleChances(rows, await titleModel());
  const best = chances.indexOf(Math.max(...chances));
  return chances[best] >= TITLED ? rows[best].text : undefined;
}
