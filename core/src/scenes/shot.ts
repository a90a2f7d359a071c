/** How a picture is taken: size, angle, light, movement; by what it shows, the section's role and the mood. Common practice, no published source. */
import { isA } from '../language/classes.ts';
import type { Mood } from '../script/file.ts';
import type { SectionRole } from '../script/data.ts';
import type { ShotAngle, ShotSize } from '../script/sceneOwn.ts';
import type { Sense } from './senses.ts';

const LIGHT: Readonly<Record<Mood, string>> = {
  calm: 'soft, even daylight',
  brisk: 'clear, bright daylight',
  warm: 'low, warm light',
  dry: 'flat daylight',
  grave: 'dim, grey light',
  light: 'bright, open light',
  suspense: 'low, dim light with hard edges',
  playful: 'bright, warm light',
};
/** Times of day and weather as they stand in words, with the light they bring. */
const TIMES: readonly [RegExp, string, string][] = [
  [/\b(?:at night|midnight|that night|last night|by night|nights?)\b/i, 'night', 'night, lit by lamps'],
  [/\b(?:dawn|sunrise|daybreak|before sunrise)\b/i, 'dawn', 'first light, long shadows'],
  [/\b(?:this morning|in the morning|morning|breakfast)\b/i, 'morning', 'low morning light'],
  [/\b(?:noon|midday)\b/i, 'midday', 'high, hard daylight'],
  [/\b(?:afternoon)\b/i, 'afternoon', 'slanting afternoon light'],
  [/\b(?:dusk|sunset|twilight|evening|tonight)\b/i, 'evening', 'evening light, first lamps'],
];
/** Weather and its own light. */
const WEATHER: readonly [RegExp, string, string][] = [
  [/\b(?:rain|rained|raining|downpour|drizzle)\b/i, 'rain', 'grey, wet light'],
  [/\b(?:snow|snowed|blizzard)\b/i, 'snow', 'flat white light'],
  [/\b(?:fog|mist|misty|foggy)\b/i, 'mist', 'pale light'],
  [/\b(?:frost|frozen|ice)\b/i, 'frost', 'cold, low light'],
  [/\b(?:storm|gale)\b/i, 'storm', 'dark, low light'],
];
export interface Light {
  time: string | null;
  weather: string | null;
  light: string;
}
/** Time, weather and light of words; the mood's own light where they say nothing. */
export function lightOf(text: string, mood: Mood, hour: string | null): Light {
  const said = TIMES.find(([p]) => p.test(text));
  const byHour = hour === null ? undefined : TIMES[hourIndex(Number(hour.slice(0, 2)))];
  const time = said ?? byHour;
  const weather = WEATHER.find(([p]) => p.test(text));
  return {
    time: time?.[1] ?? null,
    weather: weather?.[1] ?? null,
    light: time?.[2] ?? weather?.[2] ?? LIGHT[mood],
  };
}
const hourIndex = (h: number) =>
  h < 5 || h >= 22 ? 0 : h < 7 ? 1 : h < 11 ? 2 : h < 14 ? 3 : h < 18 ? 4 : 5;

const HIGH_THINGS =
  /^(?:tower|chimney|spire|skyscraper|mast|crane|cliff|mountain|statue|tree|column|pylon|cathedral|church)$/;
const FROM_ABOVE =
  /^(?:map|plan|table|ledger|book|letter|document|crowd|city|town|field|river|drawing|page|coin|tool)$/;
const SMALL =
  /^(?:coin|key|watch|clock|ring|letter|ledger|book|pen|bolt|nut|screw|cable|gear|knife|bulb|photograph|photo|stamp|button|gauge|note|page|hand|eye|eel|fish|insect|bird|thermometer|sensor|lamp|lock|wedge|scraper|candle|battery|switch|wire|plug|socket|fork|spoon|cup|nail|needle|thread|chip|seed|egg|snail|moss|spider|bee|honeybee|ant|wasp|mouse|blade|envelope|card|ticket|banknote|postcard|passport|button|pin|chalk|pencil|matchbox|shell|hook|paw|beak|wick|razor|patch|thorn)$/;

/** Whole landscapes: of the natural things of the dictionary a hole or a layer is none. */
const isLand = (noun: string) =>
  isA(noun, 'land', 'settlement') || /^(?:landscape|canal|border|horizon|sky)$/.test(noun);
const isLarge = (noun: string) =>
  isA(noun, 'building', 'vehicle', 'settlement') ||
  /^(?:bridge|footbridge|viaduct|aqueduct|street|road|square|station|harbou?r|factory|canal|dam|hall|tower|lighthouse|church|crane|tree|crowd|garden|field)$/.test(
    noun,
  );
/** Sizes that show a thing, the best first: nobody sees a ship in an extreme close-up, or a coin in a wide shot. */
const SIZES: Readonly<Record<'land' | 'large' | 'people' | 'small' | 'thing', readonly ShotSize[]>> = {
  land: ['extreme wide', 'wide', 'medium', 'close-up'],
  large: ['wide', 'medium', 'extreme wide', 'close-up'],
  people: ['medium', 'close-up', 'wide', 'extreme close-up'],
  small: ['close-up', 'extreme close-up', 'medium'],
  thing: ['medium', 'close-up', 'wide', 'extreme close-up'],
};

/** The sizes that fit what is shown, the best first: a person by what happens, a place wide, a small thing near. */
export function sizesOf(
  key: string,
  sense: Sense | null,
  role: SectionRole,
  people: boolean,
): readonly ShotSize[] {
  const last = key.split(' ').at(-1) ?? '';
  if (SMALL.test(last)) return SIZES.small;
  if (people)
    return role === 'turn' || role === 'strain'
      ? ['close-up', 'medium', 'wide', 'extreme close-up']
      : SIZES.people;
  if (sense && ['17', '15'].includes(sense.file) && isLand(last)) return SIZES.land;
  return isLarge(last) ? SIZES.large : SIZES.thing;
}
/** The size that fits best, or another where this thing has been shown so already, or three in a row would be alike. */
export function varied(
  sizes: readonly ShotSize[],
  before: readonly ShotSize[],
  shown: ReadonlySet<ShotSize>,
): ShotSize {
  const [size] = sizes;
  const third = before.at(-1) === size && before.at(-2) === size;
  if (!third && !shown.has(size)) return size;
  return sizes.find((s) => s !== size && s !== before.at(-1) && !shown.has(s)) ?? size;
}

export function angleOf(key: string, mood: Mood, role: SectionRole, size: ShotSize): ShotAngle {
  const last = key.split(' ').at(-1) ?? '';
  if (HIGH_THINGS.test(last)) return 'low';
  if (FROM_ABOVE.test(last)) return size === 'close-up' || size === 'medium' ? 'overhead' : 'high';
  return mood === 'grave' && role !== 'close' && size !== 'close-up' ? 'low' : 'eye level';
}

/** From this length on a picture that does not move looks like a still (common practice, no published source). */
const MOVES_MS = 2500;
export const SECOND_PICTURE_MS = 10_000;
export function movementOf(ms: number, role: SectionRole, size: ShotSize): string {
  if (ms < MOVES_MS) return 'hold still';
  const move =
    role === 'hook' || role === 'strain' || role === 'turn'
      ? 'slow push in'
      : role === 'settle' || role === 'close'
        ? 'slow pull back'
        : size === 'extreme wide' || size === 'wide'
          ? 'slow pan along it'
          : 'slow push in';
  return ms >= SECOND_PICTURE_MS ? `${move}, ending on a second picture` : move;
}
