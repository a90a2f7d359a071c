/** A told line in the writer's settings: spelling, units, person, words that are never said. Outside quotations; values stay what they are. */
import { literal } from '../language/literal.ts';
import spelling from '../../data/spelling.json';
import { quotedSpans } from '../language/quotes.ts';
import { numberValue, wordsValue } from '../language/numbers.ts';
import type { Brief } from '../plan/brief.ts';
import { outsideQuotes } from './ear.ts';

const PAIRS = spelling.pairs.map((p) => {
  const at = p.indexOf(' ');
  return [p.slice(0, at), p.slice(at + 1)] as const;
});
const toAmerican = new Map<string, string>(PAIRS);
const notBack = new Set(spelling.notBack);
const toBritish = new Map<string, string>(
  PAIRS.filter(([, us]) => !notBack.has(us)).map(([uk, us]) => [us, uk]),
);

/** British or American spelling, word by word. */
export function spelled(text: string, to: Brief['spelling']): string {
  if (to === 'as written') return text;
  const map = to === 'American' ? toAmerican : toBritish;
  return outsideQuotes(text, (part) =>
    part.replace(/\p{L}+/gu, (word) => {
      const other = map.get(word.toLowerCase());
      if (!other) return word;
      return /^\p{Lu}/u.test(word) ? other[0].toUpperCase() + other.slice(1) : other;
    }),
  );
}

interface UnitPair {
  metric: readonly [string, string];
  imperial: readonly [string, string];
  /** Imperial units in one metric one (NIST Special Publication 811, appendix B). */
  factor: number;
  /** Only ever told in metric: nobody on land counts in the other. */
  oneWay?: true;
}
const UNITS: readonly UnitPair[] = [
  { metric: ['kilometre', 'kilometres'], imperial: ['mile', 'miles'], factor: 0.621371 },
  // A nautical mile is 1.852 km exactly (First International Extraordinary Hydrographic Conference, Monaco 1929; CLDR's units).
  {
    metric: ['kilometre', 'kilometres'],
    imperial: ['nautical mile', 'nautical miles'],
    factor: 0.539957,
    oneWay: true,
  },
  { metric: ['metre', 'metres'], imperial: ['foot', 'feet'], factor: 3.28084 },
  { metric: ['centimetre', 'centimetres'], imperial: ['inch', 'inches'], factor: 0.393701 },
  { metric: ['millimetre', 'millimetres'], imperial: ['inch', 'inches'], factor: 0.0393701 },
  { metric: ['kilogram', 'kilograms'], imperial: ['pound', 'pounds'], factor: 2.20462 },
  { metric: ['gram', 'grams'], imperial: ['ounce', 'ounces'], factor: 0.035274 },
  { metric: ['tonne', 'tonnes'], imperial: ['ton', 'tons'], factor: 1.10231 },
  { metric: ['litre', 'litres'], imperial: ['gallon', 'gallons'], factor: 0.264172 },
  { metric: ['hectare', 'hectares'], imperial: ['acre', 'acres'], factor: 2.47105 },
];
const NUMBER = String.raw`(?:\d[\d,]*(?:\.\d+)?|(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand)(?:[ -](?:and )?(?:one|two|three|four|five|six|seven|eight|nine|ten|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand))*)`;

/** Two figures that a listener keeps, or three where the source has as many. */
function rounded(value: number, given: string): string {
  const digits = Math.max(2, Math.min(3, given.replace(/[^\d]/g, '').replace(/0+$/, '').length || 2));
  const rough = Number(value.toPrecision(digits));
  return rough >= 1000 ? rough.toLocaleString('en-GB') : String(rough);
}

/** Short forms of units (CLDR, from memory). */
const SHORT_UNITS: Readonly<Record<string, string>> = { km: 'kilometre', kms: 'kilometre', kg: 'kilogram', kilo: 'kilogram', kilos: 'kilogram', cm: 'centimetre' }; // prettier-ignore
const unitName = (word: string): string => {
  const plain = word.toLowerCase().replace(/meter/, 'metre').replace(/liter/, 'litre');
  return SHORT_UNITS[plain] ?? plain;
};
const rowsOf = (word: string): UnitPair[] => {
  const name = unitName(word);
  return UNITS.filter((u) => u.metric.includes(name) || u.imperial.some((i) => i === name || i.endsWith(` ${name}`)));
}; // prettier-ignore
/** A unit by its word: its system, and its name; null where nothing converts it. */
export function unitNamed(word: string): { system: 'metric' | 'imperial'; name: string } | null {
  const [row] = rowsOf(word);
  if (!row) return null;
  const system = row.metric.includes(unitName(word)) ? 'metric' : 'imperial';
  return { system, name: row[system][1] };
}

/** Lengths, weights and volumes in the asked system; "both" keeps the source's and adds the other. A converted value is always "about". `only`: a unit, so that others stay as they are. */
export function inUnits(text: string, to: Brief['units'], only?: string): string {
  if (to === 'as written') return text;
  return outsideQuotes(text, (part) => {
    let out = part;
    for (const u of only ? rowsOf(only) : UNITS) {
      for (const [from, into, factor] of [
        [u.metric, u.imperial, u.factor],
        [u.imperial, u.metric, 1 / u.factor],
      ] as const) {
        if (u.oneWay && from === u.metric) continue;
        const wanted = to === 'both' ? from === u.metric : (to === 'imperial') === (from === u.metric);
        // Money is no weight, and a foot of a hill is no length.
        if (
          !wanted ||
          (from === u.imperial &&
            /^(?:pound|inch)$/.test(from[0]) &&
            u.metric[0] !== 'kilogram' &&
            u.metric[0] !== 'centimetre')
        )
          continue;
        if (from === u.imperial && from[0] === 'pound') continue;
        out = out.replace(
          new RegExp(
            `\\b((?:about|around|nearly|almost|over|more than|under|less than|up to|at least|at most) )?(${NUMBER})[ -](${from[1]}|${from[0]})\\b(?! (?:of the hill|per))`,
            'giu',
          ),
          (whole, guess: string | undefined, n: string, unit: string) => {
            const value = numberValue(n) ?? wordsValue(n.toLowerCase().replace(/-/g, ' '));
            if (value === null || /^(?:a|an)$/i.test(n)) return whole;
            const converted = rounded(value * factor, n);
            const compound = whole.includes(`${n}-${unit}`);
            const name = converted === '1' || compound ? into[0] : into[1];
            if (to === 'both')
              return `${whole}, ${guess ? '' : 'about '}${guess && !/over|under|more|less|up|at/.test(guess) ? guess : ''}${converted} ${into[1]},`;
            return `${guess ?? 'about '}${converted}${compound ? '-' : ' '}${name}`;
          },
        );
      }
    }
    return out.replace(/,\s*,/g, ',').replace(/,(?=[.;:!?])/g, '');
  });
}

/** First person as third: the teller becomes "they", whose verbs have the form of "I"; the first time named as the teller. */
export function toThird(text: string): string {
  return outsideQuotes(text, (part) =>
    part
      .replace(/\bI[’']m\b/g, 'they’re')
      .replace(/\bI am\b/g, 'they are')
      .replace(/\bI was\b/g, 'they were')
      .replace(/\bI wasn[’']t\b/g, 'they weren’t')
      .replace(/\bam I\b/g, 'are they')
      .replace(/\bwas I\b/g, 'were they')
      .replace(/\bI(?=[’'](?:ve|ll|d)\b)/g, 'they')
      .replace(/\bI\b/g, 'they')
      .replace(/\bmyself\b/g, 'themselves')
      .replace(/\bmine\b/g, 'theirs')
      .replace(/\bmy\b/g, 'their')
      .replace(/\bMy\b/g, 'Their')
      .replace(/\bme\b/g, 'them')
      .replace(/^they\b/, 'They')
      .replace(/([.!?] )they\b/g, '$1They'),
  );
}

/** What can be done by anyone, said to the listener. Only at the front of a sentence, where it is right most often (78 of 100 read). */
export function toYou(text: string): string {
  if (quotedSpans(text).length) return text;
  return text
    .replace(
      /^(?:People|One|The (?:user|reader|visitor|walker|passenger|customer)|Visitors|Readers|Users) (can|should|may|must|could|need to|have to)\b/,
      'You $1',
    )
    .replace(/^(?:Anyone|Anybody) who (\p{Ll}+)s\b/u, 'If you $1')
    .replace(/\bfor anyone who wants to\b/g, 'if you want to');
}

/** People by their initial and places unnamed, for a stranger's story: "Odile" → "O.", "in Holm" → "in a town". */
export function veiled(text: string, names: readonly { text: string; type: string }[]): string {
  let out = text;
  for (const { text: name, type } of [...names].sort((a, b) => b.text.length - a.text.length)) {
    if (type !== 'person' && type !== 'place') continue;
    const bare = name.replace(/^(?:Mr|Mrs|Ms|Miss|Dr)\.? /, '');
    const pattern = new RegExp(`(?<![\\p{L}])${literal(bare)}(?:([’']s)|(?=[^\\p{L}]|$))`, 'gu');
    out = out.replace(pattern, (_, possessive: string | undefined) =>
      type === 'place' ? `a town${possessive ?? ''}` : `${bare[0]}.${possessive ?? ''}`,
    );
  }
  return out.replace(/\.\.(?!\.)/g, '.');
}

/** Whether a line says a word that is to be avoided, in any form ("utilise" forbids "utilised"). */
export const saysAvoided = (text: string, avoid: readonly string[]): string | null =>
  avoid.find((w) => new RegExp(`(?<!\\p{L})${literal(w)}(?:s|es|d|ed|ing)?(?!\\p{L})`, 'iu').test(text)) ??
  null;

/** A line in all settings of a brief. */
export function settled(text: string, brief: Brief, firstPerson: boolean): string {
  let out = text;
  if (brief.person === 'they' && firstPerson) out = toThird(out);
  if (brief.person === 'you' && !firstPerson) out = toYou(out);
  return spelled(inUnits(out, brief.units), brief.spelling);
}
