/**
 * People and places that a story never names: the one who tells it, "my husband", "the shop". They are seen as often as
 * anybody, so they need looks as much; a narrator is found by "I" alone.
 */
import { anyNoun } from '../language/classes.ts';
import type { Fact } from '../facts/facts.ts';
import {
  looksFrom,
  noteOf,
  outsideQuotes,
  pronounOf,
  type LookField,
  type Looks,
  type Pronoun,
} from './looks.ts';

export const NARRATOR = 'the narrator';
const I = /\bI\b/;
/** Facts in the first person from which a source is somebody's own story. */
const LEAST_FIRST = 3;

/** Kin, and others that somebody calls theirs: "my boss", "my neighbour". */
const OTHERS =
  'partner|boyfriend|girlfriend|neighbou?r|boss|manager|landlord|landlady|roommate|flatmate|housemate|friend|colleague|co-?worker|teacher|doctor|lawyer|supervisor';
const RELATIONS = `${OTHERS}|fianc[eé]e?|(?:step|ex-)?${anyNoun('kin')}(?:-in-law)?`;
const RELATION = new RegExp(`\\b[Mm]y ((?:older |younger |little |best |late |new |old )?(?:${RELATIONS}))\\b(?!['’]s)(?:,? (\\p{Lu}[\\p{L}.’'-]*(?: \\p{Lu}[\\p{L}’'-]+)*))?`, 'gu'); // prettier-ignore

/** Kinds of place that a story can play in without naming them. */
const PLACES = `café|garden|prison|bank|mill|mine|factory|church|${anyNoun('building')}`;
const PLACE = new RegExp(`\\b(?:the|my|our|his|her|their|this|an?)\\s(?:[\\p{L}-]+\\s){0,2}?(${PLACES})(?=[\\s.,;:!?’'])(?!\\s(?:window|door|assistant|floor))`, 'giu'); // prettier-ignore
const LEAST_NAMED = 3;
const LEAST_SHARE = 0.06;

type Said = Pick<Fact, 'id' | 'text'>;
export interface Unnamed {
  name: string;
  also: string[];
  kind: 'person' | 'place';
  pronoun: Pronoun | null;
  looks: Partial<Record<LookField, { text: string; fact: string }>>;
  facts: string[];
  /** The named one who it is: "my boss, Mr Aldous". */
  is: string | null;
}

const taken = (into: Unnamed['looks'], looks: Looks, fact: string) => {
  for (const [field, text] of Object.entries(looks)) into[field as LookField] ??= { text, fact };
};

/** Whether a source is told by one who says "I", quotations apart. */
const inFirstPerson = (texts: readonly string[]): boolean =>
  texts.filter((t) => I.test(outsideQuotes(t))).length >= LEAST_FIRST;

/** Those of one source that have no name of their own, in the order in which they come. */
export function unnamedIn(facts: readonly Said[]): Unnamed[] {
  const told = inFirstPerson(facts.map((f) => f.text));
  return [...(told ? [narratorOf(facts), ...relationsOf(facts)] : []), ...placesOf(facts)];
}

function narratorOf(facts: readonly Said[]): Unnamed {
  const out: Unnamed = {
    name: NARRATOR,
    also: [],
    kind: 'person',
    pronoun: null,
    looks: {},
    facts: [],
    is: null,
  };
  for (const { id, text: whole } of facts) {
    const text = outsideQuotes(whole);
    if (!I.test(text)) continue;
    out.facts.push(id);
    const note = noteOf(text, ['I']);
    if (note) taken(out.looks, { age: note.age }, id);
    out.pronoun ??= note?.pronoun ?? null;
    const age =
      /\bI(?:['’]m| am) (?:an? )?(\d{1,2})(?:[- ]years?[- ]old)?(?: (?:man|woman|girl|boy))?(?=[ ,.;])/.exec(
        text,
      );
    if (age) taken(out.looks, { age: `${age[1]} years old` }, id);
    const role =
      /\bI(?:['’]m| am) (an? (?!bit|little|few|lot|fan)[^,.;:“”\d]{3,40}?)(?=[,.;]|\s(?:and|who|which|that|at|in|but|so)\b)/.exec(
        text,
      );
    const work =
      /\bI (?:work|have worked|['’]ve worked) ((?:as|in|at|for) an? [^,.;:“”]{3,40}?)(?=[,.;]|\s(?:and|for|since|but|so)\b)/.exec(
        text,
      );
    if (role) taken(out.looks, { role: role[1] }, id);
    else if (work)
      taken(out.looks, { role: work[1].startsWith('as ') ? work[1].slice(3) : `who works ${work[1]}` }, id);
    // Only what is so for good: "I wear", never "I wore".
    const worn = /\bI (?:always |still )?(?:wear|have)\b[^.;]*/.exec(text)?.[0];
    const { hair, dress } = worn
      ? looksFrom(worn.replace(/\bhave (?:known|seen|had|been)\b.*/, ''), ['I'], 'person')
      : {};
    taken(out.looks, { ...(hair ? { hair } : {}), ...(dress ? { dress } : {}) }, id);
  }
  if (out.pronoun && !out.looks.role)
    out.looks.role = { text: out.pronoun === 'he' ? 'a man' : 'a woman', fact: out.facts[0] };
  return out;
}

function relationsOf(facts: readonly Said[]): Unnamed[] {
  const out = new Map<string, Unnamed>();
  for (const { id, text: whole } of facts) {
    const text = outsideQuotes(whole);
    for (const [, relation, named] of text.matchAll(RELATION)) {
      const key = relation.toLowerCase();
      const known = out.get(key);
      const entry: Unnamed = known ?? {
        name: `the narrator’s ${key}`,
        also: [`my ${relation}`, `My ${relation}`],
        kind: 'person',
        pronoun: pronounOf([], key),
        looks: {},
        facts: [],
        is: null,
      };
      if (!known) out.set(key, entry);
      entry.facts.push(id);
      if (named && !/^I\b/.test(named)) entry.is ??= named;
      const note = noteOf(text, entry.also);
      if (note) taken(entry.looks, { age: note.age }, id);
      entry.pronoun ??= note?.pronoun ?? null;
      taken(entry.looks, looksFrom(text, entry.also, 'person'), id);
    }
  }
  return [...out.values()];
}

const lookPatterns = new Map<string, RegExp>();
/** "a narrow shop with a bell on the door": how a kind of place is described when it comes up. */
function lookOf(kind: string): RegExp {
  const made = lookPatterns.get(kind);
  if (made) return made;
  const pattern = new RegExp(`\\b(an?\\s(?:[\\p{L}-]+\\s){0,2}${kind}(?:\\s(?:with|of|on|above|behind|under)\\s(?!\\p{L}+\\s(?:years?|months?|weeks?))[^.;,]{3,70})?)`, 'iu'); // prettier-ignore
  lookPatterns.set(kind, pattern);
  return pattern;
}

function placesOf(facts: readonly Said[]): Unnamed[] {
  const out = new Map<string, Unnamed>();
  for (const { id, text } of facts)
    for (const kind of new Set([...text.matchAll(PLACE)].map((m) => m[1].toLowerCase()))) {
      const known = out.get(kind);
      const entry: Unnamed = known ?? {
        name: `the ${kind}`,
        also: [kind],
        kind: 'place',
        pronoun: null,
        looks: {},
        facts: [],
        is: null,
      };
      if (!known) out.set(kind, entry);
      entry.facts.push(id);
      const looks = lookOf(kind).exec(text)?.[1];
      const said = looks?.replace(/\s(?:that|which|who|for|where|because)\b.*$/, '');
      // "a shop" says nothing of it; of two descriptions the longer says more.
      if (said && said.split(' ').length > 2 && said.length > (entry.looks.looks?.text.length ?? 0))
        entry.looks.looks = { text: said, fact: id };
    }
  return [...out.values()].filter(
    (p) => p.facts.length >= LEAST_NAMED && p.facts.length >= facts.length * LEAST_SHARE,
  );
}
