/** What is heard under the voice: ambience of the setting, effects whose source the script names, music by section. */
import data from '../../data/sounds.json';
import { baseForm } from '../language/kin.ts';
import type { TaggedToken } from '../language/tagged.ts';
import type { Mood } from '../script/file.ts';
import type { SectionRole } from '../script/data.ts';
import { CUE_LEVELS, type SoundCue } from '../script/sceneOwn.ts';

/** Music lies about 15 dB under speech and goes up in rests (common practice, no published source). */
export const MUSIC_DB = CUE_LEVELS.music;
export const MUSIC_IN_RESTS_DB = -9;
const AMBIENCE_DB = CUE_LEVELS.ambience;
const EFFECT_DB = CUE_LEVELS.effect;

const AMBIENCE = Object.entries(data.ambience).map(([places, sound]) => ({
  places: new RegExp(`^(?:${places})$`),
  sound,
}));
const EFFECTS = Object.entries(data.effects).map(([source, { sound, verbs }]) => ({
  source: new RegExp(`^(?:${source})$`),
  sound,
  verbs: new Set(verbs),
}));

/** The ambience of the things a picture shows, else of the place it shows them at; null where nothing tells. */
export function ambienceOf(things: readonly string[], places: readonly string[]): string | null {
  const heads = [
    // Of a thing its last word tells what it is: a car ferry is no car. A place is told by any word of its name.
    ...things.map((t) => t.toLowerCase().split(/\s+/).at(-1)!),
    ...places.flatMap((p) =>
      p
        .toLowerCase()
        .split(/[^\p{L}]+/u)
        .reverse(),
    ),
  ];
  for (const head of heads) {
    const found = AMBIENCE.find((a) => a.places.test(head) || a.places.test(head.replace(/s$/, '')));
    if (found) return found.sound;
  }
  return null;
}

export const ambienceCue = (what: string): SoundCue => ({
  kind: 'ambience',
  what,
  at: 0,
  level: AMBIENCE_DB,
  dip: 0,
});

const DENIES = /^(?:no|not|n['’]t|cannot|never|without|nor|neither|nobody|none|nothing|hardly)$/i;
const CLAUSE_ENDS = /^(?:[,;:.!?–—]|but|and|that|which|who|when|while|because|although|until)$/i;

/** Whether the clause up to a word denies it: what has no bell rings none. */
function deniedAt(tokens: readonly TaggedToken[], i: number): boolean {
  for (let j = i - 1; j >= 0 && !CLAUSE_ENDS.test(tokens[j].text); j--)
    if (DENIES.test(tokens[j].text) && !/^only$/i.test(tokens[j + 1]?.text ?? '')) return true;
  return false;
}

/**
 * Effects whose source stands in the words. A thing that sounds only when something is done to it (a door) needs the verb
 * beside it. `at` is where its word is said, in seconds from the scene's start.
 */
export function effectsIn(
  tokens: readonly TaggedToken[],
  inFigure: (t: TaggedToken) => boolean,
  atOf: (t: TaggedToken) => number,
): SoundCue[] {
  const lemmas = new Set(tokens.filter((t) => t.pos === 'VERB').map((t) => baseForm(t.lemma)));
  const out: SoundCue[] = [];
  for (const [i, t] of tokens.entries()) {
    // A noun without anything before it may be a verb that was tagged wrongly: "let her wind a cuckoo".
    if (
      t.pos !== 'NOUN' ||
      inFigure(t) ||
      deniedAt(tokens, i) ||
      (i > 0 && !['DET', 'ADJ', 'ADP', 'NUM', 'NOUN', 'PUNCT', 'CCONJ'].includes(tokens[i - 1].pos))
    )
      continue;
    const effect = EFFECTS.find((e) => e.source.test(t.text.toLowerCase()));
    if (!effect || out.some((c) => c.what === effect.sound)) continue;
    if (effect.verbs.size && ![...effect.verbs].some((v) => lemmas.has(v))) continue;
    out.push({
      kind: 'effect',
      what: effect.sound,
      at: Math.round(atOf(t) * 10) / 10,
      level: EFFECT_DB,
      dip: 0,
    });
  }
  return out.slice(0, 2);
}

const MUSIC: Readonly<Record<Mood, string>> = {
  calm: 'calm and sparse',
  brisk: 'brisk and light',
  warm: 'warm and slow',
  dry: 'plain, almost none',
  grave: 'low and held',
  light: 'light and open',
  suspense: 'low and sparse, one held note',
  playful: 'plucked and playful',
};
const TURN: Readonly<Record<SectionRole, string>> = {
  hook: 'a question in it',
  ground: 'even',
  turn: 'it turns',
  workings: 'steady pulse',
  strain: 'tighter',
  settle: 'it settles',
  close: 'it comes to rest',
};
/** The music that comes in with a section; what it does at a turn is the section's role. */
export const musicCue = (mood: Mood, role: SectionRole, rests: boolean): SoundCue => ({
  kind: 'music',
  what: `${MUSIC[mood]}; ${TURN[role]}`,
  at: 0,
  level: rests ? MUSIC_IN_RESTS_DB : MUSIC_DB,
  dip: rests ? MUSIC_DB - MUSIC_IN_RESTS_DB : 0,
});
