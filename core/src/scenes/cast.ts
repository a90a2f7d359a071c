/**
 * People and places of a film: what the sources and the script say of how they look, what the writer adds, and what is
 * still open. One record each, so that a change reaches every description.
 */
import { literal } from '../language/literal.ts';
import { castOf } from '../facts/cast.ts';
import { namesIn, capitalWords } from '../facts/extract.ts';
import type { Fact } from '../facts/facts.ts';
import { nameTypes } from '../facts/names.ts';
import { modalityOf, polarityOf } from '../facts/saying.ts';
import type { TaggedToken } from '../language/tagged.ts';
import type { PlainSection } from '../script/data.ts';
import { FROM_SCRIPT, type CastOwn } from './castOwn.ts';
import { LOOK_FIELDS, looksFrom, pronounOf, type LookField, type Pronoun } from './looks.ts';
import { unnamedIn, type Unnamed } from './unnamed.ts';

export { castOwnSchema, FROM_SCRIPT, type CastOwn } from './castOwn.ts';
export { LOOK_FIELDS, type LookField } from './looks.ts';

/** What a picture can't do without; the rest may stay open. */
const NEEDED: Readonly<Record<'person' | 'place', readonly LookField[]>> = {
  person: ['age', 'hair', 'dress'],
  place: ['kind'],
};

export interface Look {
  text: string;
  /** The fact that says so; null for what the writer added. */
  from: { source: string; fact: string } | null;
  /** What the sources say, where the writer says otherwise. */
  against: string | null;
}
export interface CastEntry {
  id: string;
  name: string;
  also: readonly string[];
  kind: 'person' | 'place';
  looks: Partial<Record<LookField, Look>>;
  /** Fields that nobody has filled and a picture needs. */
  open: readonly LookField[];
  facts: readonly { source: string; fact: string }[];
  /** Named by the writer alone. */
  own: boolean;
  /** What a person is told by; null where nothing tells. */
  pronoun: Pronoun | null;
}

/** What names and looks are read from: the facts of a source, or as little of them as a script's own lines have. */
export type Told = Pick<Fact, 'id' | 'text' | 'names' | 'block' | 'polarity' | 'modality'>;
export interface CastSource {
  letter: string;
  facts: readonly Fact[];
}

/** The words by which a fact can name somebody. */
const namesOf = (m: { name: string; also: readonly string[] }) => [m.name, ...m.also];

/** "Cut" and "Upper Cut" are one place, "Edith" and "Edith Marsh" one person. */
function oneThing(
  a: { name: string; also: readonly string[] },
  b: { name: string; also: readonly string[] },
): boolean {
  return namesOf(a).some((x) =>
    namesOf(b).some((y) => x === y || x.endsWith(` ${y}`) || y.endsWith(` ${x}`)),
  );
}

type Entry = Omit<CastEntry, 'id' | 'open'>;
const empty = (name: string, kind: Entry['kind']): Entry => ({
  name,
  also: [],
  kind,
  looks: {},
  facts: [],
  own: false,
  pronoun: null,
});

/** Those whom facts name, with what is said of each straight behind the name, or behind "she" in the next sentence. */
function namedIn(entries: Entry[], letter: string, facts: readonly Told[]): void {
  for (const member of castOf(facts)) {
    const same = entries.find((e) => e.kind === member.type && oneThing(e, member));
    const entry = same ?? { ...empty(member.name, member.type), also: member.also };
    if (!same) entries.push(entry);
    if (member.name.length > entry.name.length) {
      entry.also = [...new Set([entry.name, ...entry.also, ...member.also])];
      entry.name = member.name;
    } else if (same)
      entry.also = [...new Set([...entry.also, ...namesOf(member)])].filter((n) => n !== entry.name);
    if (letter !== FROM_SCRIPT)
      entry.facts = [...entry.facts, ...member.facts.map((fact) => ({ source: letter, fact }))];
    const ids = new Set(member.facts);
    const told: string[] = [];
    // "She" goes on with whoever the sentence before is about, over several sentences of one passage.
    let going = '';
    for (const fact of facts) {
      const people = fact.names.filter((n) => n.type === 'person');
      const first = fact.names.find((n) => n.type === 'person' || n.type === 'place');
      const about = ids.has(fact.id) && namesOf(member).includes(first?.text ?? '');
      const alone = people.every((n) => namesOf(member).includes(n.text));
      const goesOn =
        member.type === 'person' && !people.length && going === fact.block && /^(?:She|He)\b/.test(fact.text);
      // What stands before a name can be about somebody else.
      if (goesOn || (about && alone)) told.push(goesOn ? fact.text : fact.text.slice(first!.end));
      going = goesOn || (people.length > 0 && alone) ? fact.block : '';
      if (!about && !goesOn) continue;
      if (fact.polarity === 'denied' || fact.modality === 'possible') continue;
      for (const [field, text] of Object.entries(looksFrom(fact.text, namesOf(member), member.type)))
        entry.looks[field as LookField] ??= { text, from: { source: letter, fact: fact.id }, against: null };
    }
    if (member.type === 'person') entry.pronoun ??= pronounOf(namesOf(entry), entry.looks.role?.text, told);
    for (const look of member.looks)
      if (member.type === 'place')
        entry.looks.looks ??= { text: look.text, from: { source: letter, fact: look.fact }, against: null };
  }
}

/** Those without a name: taken up as they are, or into the named one who they are ("my boss, Mr Aldous"). */
function withUnnamed(entries: Entry[], letter: string, list: readonly Unnamed[]): void {
  for (const u of list) {
    const looks = Object.fromEntries(
      Object.entries(u.looks).map(([f, { text, fact }]) => [
        f,
        { text, from: { source: letter, fact }, against: null } satisfies Look,
      ]),
    );
    const named = entries.find(
      (e) =>
        e.kind === u.kind &&
        (u.is ? namesOf(e).some((n) => n === u.is || u.is!.startsWith(n)) : e.name === u.name),
    );
    // "the station" is Orrin Station.
    const station =
      u.kind === 'place'
        ? entries.find((e) => e.kind === 'place' && e.name.toLowerCase().endsWith(` ${u.name.slice(4)}`))
        : undefined;
    const entry = named ?? station ?? { ...empty(u.name, u.kind), also: u.also };
    if (!named && !station) entries.push(entry);
    else entry.also = [...new Set([...entry.also, ...u.also])];
    entry.looks = { ...looks, ...entry.looks };
    if (named && u.is) {
      const { facts } = u;
      entry.looks.role ??= { text: u.name, from: { source: letter, fact: facts[0] }, against: null };
    }
    entry.pronoun ??= u.pronoun;
    entry.facts = [...entry.facts, ...u.facts.map((fact) => ({ source: letter, fact }))];
  }
}

/** What a script's own lines name, as far as names and looks go. */
export function toldByScript(
  sections: readonly PlainSection[],
  tagged: ReadonlyMap<string, readonly TaggedToken[]>,
): Told[] {
  const lines = sections.flatMap((s) => s.lines.map((line) => ({ line, section: s.id })));
  const known = capitalWords(lines.map(({ line }) => tagged.get(line.id) ?? []));
  const told = lines.map(({ line, section }) => ({
    id: line.id,
    text: line.text,
    block: section,
    polarity: polarityOf(line.text),
    modality: modalityOf(line.text).modality,
    names: namesIn(line.text, tagged.get(line.id) ?? [], known),
  }));
  const types = nameTypes(told.map((fact) => ({ fact })));
  return told.map((t) => ({
    ...t,
    names: t.names.map((n) => ({ ...n, type: types.get(n.text) ?? 'other' })),
  }));
}

/**
 * The cast of a script from its sources, its own lines and the writer's words, those named most first. A look is taken from
 * a sentence only where it is about that one: it names it first, or goes on with "she" straight behind one that does.
 */
export function filmCast(
  sources: readonly CastSource[],
  own: readonly CastOwn[] = [],
  script: readonly Told[] = [],
): CastEntry[] {
  const entries: Entry[] = [];
  for (const { letter, facts } of sources) {
    namedIn(entries, letter, facts);
    withUnnamed(entries, letter, unnamedIn(facts));
  }
  const known = new Map(
    sources.flatMap((s) => s.facts.flatMap((f) => f.names.map((n) => [n.text, n.type] as const))),
  );
  // A name is what the sources say it is.
  namedIn(
    entries,
    FROM_SCRIPT,
    script.map((t) => ({ ...t, names: t.names.map((n) => ({ ...n, type: known.get(n.text) ?? n.type })) })),
  );
  if (!sources.length) withUnnamed(entries, FROM_SCRIPT, unnamedIn(script));
  for (const added of own) {
    const same = entries.find(
      (e) => e.kind === added.kind && namesOf(e).some((n) => n.toLowerCase() === added.name.toLowerCase()),
    );
    const entry = same ?? { ...empty(added.name, added.kind), own: true };
    if (!same) entries.push(entry);
    for (const [field, text] of Object.entries(added.fields)) {
      const source = entry.looks[field as LookField];
      entry.looks[field as LookField] = {
        text,
        from: null,
        against: source && source.text.toLowerCase() !== text.toLowerCase() ? source.text : null,
      };
    }
    entry.pronoun ??= pronounOf([added.name], added.fields.role);
  }
  const out = new Set(own.filter((o) => o.out).map((o) => o.name.toLowerCase()));
  return entries
    .filter((e) => !namesOf(e).some((n) => out.has(n.toLowerCase())))
    .map((e, i) => ({
      ...e,
      id: `${e.kind === 'person' ? 'P' : 'W'}${i + 1}`,
      // One who is spoken of once is in one picture at most: nothing to keep alike.
      open:
        e.own || e.facts.length !== 1 || /^\p{Lu}/u.test(e.name)
          ? NEEDED[e.kind].filter((f) => e.looks[f] === undefined)
          : [],
    }));
}

/** One of the cast in full, as every description has it: "Edith Marsh, a night nurse, about 40 years old, grey hair". */
export function inFull(entry: CastEntry): string {
  const parts = LOOK_FIELDS[entry.kind].flatMap((f) => {
    const text = entry.looks[f]?.text;
    return text ? [text] : [];
  });
  return [entry.name, ...parts].join(', ');
}

/** One pattern for all names of an entry, made once: every scene is asked for every one. */
const patterns = new WeakMap<CastEntry, RegExp>();
function patternOf(entry: CastEntry): RegExp {
  const made = patterns.get(entry);
  if (made) return made;
  const any = namesOf(entry)
    .sort((a, b) => b.length - a.length)
    .map(literal)
    .join('|');
  const pattern = new RegExp(`(?<![\\p{L}])(?:${any})(?![\\p{L}])`, 'gu');
  patterns.set(entry, pattern);
  return pattern;
}
/** Where words name an entry: in full, by another name, or by its last word where that stands alone. */
export const nameIn = (entry: CastEntry, text: string): number[] =>
  [...text.matchAll(patternOf(entry))].map((m) => m.index);
export const names = (entry: CastEntry, text: string): boolean => nameIn(entry, text).length > 0;
