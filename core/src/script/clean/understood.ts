/** What a draft's notes say of a scene: what is seen, how it is taken, what is heard and written on it. Trade words are common practice, no published source. */
import { CUE_LEVELS, type SceneOwn, type ShotAngle, type ShotSize, type SoundKind } from '../sceneOwn.ts';
import type { TakenOut } from './index.ts';

const SEEN =
  /^(?:(?:suggested |possible |key |opening |closing |background )?(?:visuals?|video|pictures?|images?|photos?|b[- ]?roll|(?:stock )?footage|graphics?|animations?|shots?|camera|scene(?: description)?|show|seen|cut(?: to)?|clip)|[ecmwl][cwsu]{1,2})(?: ?\d{1,3})?$/i;
const ON_SCREEN =
  /^(?:on[- ]?screen(?: (?:text|graphic))?|text(?: overlay| on screen)?|overlay|super|lower third|title card|captions?|cg|chyron)$/i;
const HEARD: readonly (readonly [SoundKind, RegExp])[] = [
  ['music', /^(?:mood |background )?music(?: cue)?$|^score$|^song$/i],
  ['ambience', /^(?:ambien(?:ce|t)|nats?(?: sot)?|atmos(?:phere)?|room tone|wild ?track)$/i],
  ['effect', /^(?:sfx|fx|sound(?: effects?)?|effects?)$/i],
];

/** A picture by its words alone, where no label says so. */
const SHOWS =
  /\b(?:shots?|close-?ups?|footage|b-?roll|drone|aerial|montage|time-?lapse|slow[- ]motion|push(?:es)? in|pull(?:s)? out|zoom(?:s|ing)?|pan(?:s|ning)?|tilt(?:s|ing)?|dolly|cut to|fade to|wide(?:r)? of|photo(?:graph)?s? of|map of|drawing of|diagram of|cutaway|archive)\b/i;

const SIZES: readonly (readonly [ShotSize, RegExp])[] = [
  ['extreme close-up', /\b(?:extreme close(?:-| )?ups?|ECU|macro)\b/i],
  ['extreme wide', /\b(?:extreme (?:wide|long)|EWS|ELS|aerial|establishing)\b/i],
  ['close-up', /\b(?:close(?:-| )?ups?|CU|super close|tight on)\b|\bclose\b(?=[,.;:]|$)/i],
  ['medium', /\b(?:medium|mid(?:-| )?shot|MS|MCU)\b/i],
  ['wide', /\b(?:wide(?:r)?|long shot|full shot|WS|LS)\b/i],
];
const ANGLES: readonly (readonly [ShotAngle, RegExp])[] = [
  ['overhead', /\b(?:overhead|top[- ]down|from above|bird['’]?s[- ]eye)\b/i],
  ['low', /\b(?:low angle|from below|worm['’]?s[- ]eye)\b/i],
  ['high', /\bhigh angle\b/i],
  ['eye level', /\beye[- ]level\b/i],
];
const MOVES =
  /\b(?:(?:slow|quick|fast|gentle|long) )?(?:push(?:es)?(?: in| toward[s]?)?|pull(?:s)?(?: out| back)|pan(?:s)?(?: left| right| across)?|tilt(?:s)?(?: up| down)?|zoom(?:s)?(?: in| out)?|dolly(?: in| out)?|track(?:s|ing)?(?: shot)?|crane(?: up| down)?|handheld|locked off|static|slow motion|time-?lapse|drone)\b/i;

const LONGEST = { description: 4000, onScreen: 120, what: 120, picture: 200 };

/** A note's label, where it has one, and its words, without brackets and marks. */
function taken(text: string): { label: string; words: string } {
  const bare = text
    .replace(/[*_`>]/g, '')
    .replace(/^[^\p{L}\p{N}“"'[(]+/u, '')
    .replace(/^[\s[({<]+|[\s\])}>]+$/g, '')
    .trim();
  const m = /^([\p{L}][\p{L}\d -]{0,24}?)\s*(?:(?:\([^()]{0,30}\))\s*)?(?:[:–—]|\s-\s)\s*(\S.*)$/su.exec(
    bare,
  );
  return m && (SEEN.test(m[1]) || ON_SCREEN.test(m[1]) || HEARD.some(([, label]) => label.test(m[1])))
    ? { label: m[1], words: m[2].trim() }
    : { label: '', words: bare };
}

const unquoted = (text: string) => text.replace(/^["“‘']+|["”’']+$/g, '').trim();

/** What the notes before a line say of its scene, or null where none says anything sure. */
export function sceneOfNotes(notes: readonly TakenOut[]): SceneOwn | null {
  const own: SceneOwn = {};
  const seen: string[] = [];
  const onScreen: string[] = [];
  const sound: NonNullable<SceneOwn['sound']> = [];
  for (const { kind, text } of notes) {
    if (kind !== 'direction') continue;
    const { label, words } = taken(text);
    if (!words) continue;
    const heard = HEARD.find(([, pattern]) => pattern.test(label));
    if (heard)
      sound.push({ kind: heard[0], what: words.slice(0, LONGEST.what), at: 0, level: CUE_LEVELS[heard[0]], dip: 0 }); // prettier-ignore
    else if (ON_SCREEN.test(label)) onScreen.push(unquoted(words).slice(0, LONGEST.onScreen));
    else if (SEEN.test(label) || (!label && SHOWS.test(words))) seen.push(words);
  }
  if (seen.length) {
    const all = seen.join(' ');
    own.description = all.slice(0, LONGEST.description);
    const size = SIZES.find(([, words]) => words.test(all));
    if (size) own.size = size[0];
    const angle = ANGLES.find(([, words]) => words.test(all));
    if (angle) own.angle = angle[0];
    const move = MOVES.exec(all);
    if (move) own.picture = move[0].toLowerCase().slice(0, LONGEST.picture);
  }
  if (onScreen.some(Boolean)) own.onScreen = onScreen.filter(Boolean).slice(0, 6);
  if (sound.length) own.sound = sound.slice(0, 8);
  return Object.keys(own).length ? own : null;
}
