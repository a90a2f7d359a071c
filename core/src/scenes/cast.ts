/**
 * People and places of a film: what the sources say of how they look, what the writer adds, and what is still open. One
 * record each, so that a change reaches every description.
 */
import { z } from 'zod';
import { castOf } from '../facts/cast.ts';
import type { Fact } from '../facts/facts.ts';

export const LOOK_FIELDS = {
  person: ['role', 'age', 'hair', 'eyes', 'dress', 'other'],
  place: ['kind', 'looks', 'period', 'other'],
} as const;
export type LookField = (typeof LOOK_FIELDS)['person' | 'place'][number];
/** What a picture can't do without; the rest may stay open. */
const NEEDED: Readonly<Record<'person' | 'place', readonly LookField[]>> = {
  person: ['age', 'hair', 'dress'],
  place: ['kind'],
};

/** What the writer says of one of the cast; a field that is empty text is known to be nothing and asked no more. */
export const castOwnSchema = z.object({
  name: z.string().trim().min(1, 'Say who or what it is.').max(120),
  kind: z.enum(['person', 'place']),
  fields: z.partialRecord(
    z.enum(['role', 'age', 'hair', 'eyes', 'dress', 'kind', 'looks', 'period', 'other']),
    z.string().trim().max(160),
  ),
  /** Not to be shown: a name that is no person, or one that stays unseen. */
  out: z.boolean().optional(),
});
export type CastOwn = z.infer<typeof castOwnSchema>;

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
}

export interface CastSource {
  letter: string;
  facts: readonly Fact[];
}

const HAIR =
  /\b((?:(?:long|short|curly|straight|wavy|thick|thin|dark|light|black|brown|red|grey|gray|white|blonde?|fair|silver|greying)[ -](?:and )?){1,3}hair)\b|\b(bald|grey-haired|gray-haired|white-haired|red-haired|dark-haired|fair-haired)\b|\bwith ((?:an? )?(?:\p{Ll}+ ){0,2}beard)\b/iu;
const EYES =
  /\b((?:(?:dark|light|blue|green|brown|grey|gray|hazel|pale|bright|narrow|kind|tired)[ ,]+(?:and )?){1,2}eyes)\b/i;
const DRESS =
  /\b(?:wore|wears|wearing|dressed in|in)\s+((?:an?|the|his|her|their)\s+(?:[\p{L}-]+\s){0,3}(?:coat|hat|dress|suit|shirt|boots|gloves|uniform|glasses|scarf|apron|jacket|overalls|cap|cloak|gown|jumper|helmet|waistcoat|trousers)(?:\s+and\s+(?:an?\s+)?(?:[\p{L}-]+\s){0,2}(?:coat|hat|dress|suit|shirt|boots|gloves|scarf|apron|jacket|cap|cloak|gown))?)\b/iu;
/** What is so at one time only ("was six") holds for no other picture, and is left open. */
const AGE = /\b(?:aged?\s(\d{1,3})|(\d{1,3})[- ]years?[- ]old|, (\d{1,3}),|is\s(\d{1,3})(?=[.,]|\syears))/;
const ROLE_NOUN = /^(?:an?|the)\s/;

/** The words by which a fact can name somebody. */
const namesOf = (m: { name: string; also: readonly string[] }) => [m.name, ...m.also];

function looksFrom(
  text: string,
  names: readonly string[],
  kind: 'person' | 'place',
): Partial<Record<LookField, string>> {
  const out: Partial<Record<LookField, string>> = {};
  const name = names.map((n) => n.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
  // "Okafor, a bridge engineer at Trent Polytechnic," and "Edith, her mother. She had been a night nurse".
  const apposition = new RegExp(`(?:${name}),\\s((?:an?|the)\\s[^,.;:“”]{3,70})(?=[,.;])`, 'u').exec(text);
  const copula = new RegExp(
    `(?:${name}|^(?:She|He|It))\\s(?:is|was|had been|has been)\\s((?:an?|the)\\s[^,.;:“”]{3,70}?)(?=[,.;]|\\s(?:and|who|which|that|where|but|because)\\b|$)`,
    'u',
  ).exec(text);
  const who = new RegExp(
    `(?:${name}),\\s(who\\s(?:teaches|studies|leads|runs|owns|works|keeps|drives|built|designed|founded|mends|repairs)\\s[^,.;:“”]{3,60})(?=[,.;])`,
    'u',
  ).exec(text);
  const said = apposition?.[1] ?? copula?.[1];
  if (
    said &&
    ROLE_NOUN.test(said) &&
    !/^(?:an?|the)\s(?:first|last|only|same|one|best|most|reason|result|cause)\b/.test(said)
  )
    out[kind === 'person' ? 'role' : 'kind'] = said.replace(/\s+$/, '');
  if (kind === 'place') return out;
  if (!out.role && who) out.role = who[1];
  const age = AGE.exec(text)?.slice(1).find(Boolean);
  if (age) out.age = `${age} years old`;
  const hair = HAIR.exec(text)?.slice(1).find(Boolean);
  if (hair) out.hair = hair;
  const eyes = EYES.exec(text)?.[1];
  if (eyes) out.eyes = eyes;
  const dress = DRESS.exec(text)?.[1];
  if (dress) out.dress = dress.replace(/^(?:his|her|their|the)\s/, '');
  return out;
}

/** "Cut" and "Upper Cut" are one place, "Edith" and "Edith Marsh" one person. */
function oneThing(
  a: { name: string; also: readonly string[] },
  b: { name: string; also: readonly string[] },
): boolean {
  return namesOf(a).some((x) =>
    namesOf(b).some((y) => x === y || x.endsWith(` ${y}`) || y.endsWith(` ${x}`)),
  );
}

/**
 * The cast of a script from its sources and the writer's own words, those named most first. A look is taken from a fact
 * only where the fact is about that one: it names it first, or goes on with "she" straight behind one that does.
 */
export function filmCast(sources: readonly CastSource[], own: readonly CastOwn[] = []): CastEntry[] {
  const entries: (Omit<CastEntry, 'open'> & { open: readonly LookField[] })[] = [];
  for (const { letter, facts } of sources)
    for (const member of castOf(facts)) {
      const same = entries.find((e) => e.kind === member.type && oneThing(e, member));
      const entry = same ?? {
        id: '',
        name: member.name,
        also: member.also,
        kind: member.type,
        looks: {},
        open: [],
        facts: [],
        own: false,
      };
      if (!same) entries.push(entry);
      if (member.name.length > entry.name.length && !entry.own) {
        entry.also = [...new Set([entry.name, ...entry.also, ...member.also])];
        entry.name = member.name;
      } else if (same)
        entry.also = [...new Set([...entry.also, ...namesOf(member)])].filter((n) => n !== entry.name);
      entry.facts = [...entry.facts, ...member.facts.map((fact) => ({ source: letter, fact }))];
      const ids = new Set(member.facts);
      facts.forEach((fact, i) => {
        const first = fact.names.find((n) => n.type === 'person' || n.type === 'place');
        const about = ids.has(fact.id) && namesOf(member).includes(first?.text ?? '');
        const before = facts[i - 1];
        const goesOn =
          member.type === 'person' &&
          !first &&
          /^(?:She|He)\b/.test(fact.text) &&
          before?.block === fact.block &&
          ids.has(before.id) &&
          before.names.filter((n) => n.type === 'person').length === 1;
        if (!about && !goesOn) return;
        if (fact.polarity === 'denied' || fact.modality === 'possible') return;
        for (const [field, text] of Object.entries(looksFrom(fact.text, namesOf(member), member.type)))
          entry.looks[field as LookField] ??= {
            text,
            from: { source: letter, fact: fact.id },
            against: null,
          };
      });
      for (const look of member.looks)
        if (member.type === 'place')
          entry.looks.looks ??= { text: look.text, from: { source: letter, fact: look.fact }, against: null };
    }
  for (const added of own) {
    const known = entries.find(
      (e) => e.kind === added.kind && namesOf(e).some((n) => n.toLowerCase() === added.name.toLowerCase()),
    );
    const entry = known ?? {
      id: '',
      name: added.name,
      also: [],
      kind: added.kind,
      looks: {},
      open: [],
      facts: [],
      own: true,
    };
    if (!known) entries.push(entry);
    for (const [field, text] of Object.entries(added.fields)) {
      const source = entry.looks[field as LookField];
      entry.looks[field as LookField] = {
        text,
        from: null,
        against: source && source.text.toLowerCase() !== text.toLowerCase() ? source.text : null,
      };
    }
  }
  const out = new Set(own.filter((o) => o.out).map((o) => o.name.toLowerCase()));
  return entries
    .filter((e) => !namesOf(e).some((n) => out.has(n.toLowerCase())))
    .map((e, i) => ({
      ...e,
      id: `${e.kind === 'person' ? 'P' : 'W'}${i + 1}`,
      open: NEEDED[e.kind].filter((f) => e.looks[f] === undefined),
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

/** Whether words name an entry: in full, by another name, or by its last word where that stands alone. */
export function names(entry: CastEntry, text: string): boolean {
  return namesOf(entry).some((n) =>
    new RegExp(`(?<![\\p{L}])${n.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}])`, 'u').test(text),
  );
}
