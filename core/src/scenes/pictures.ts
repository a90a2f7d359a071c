/** For each scene: what to look for, what to make, how it moves, what stands on the screen and what is heard. */
import type { Fact } from '../facts/facts.ts';
import type { Kin } from '../language/kin.ts';
import type { TaggedToken, Tagger } from '../language/tagged.ts';
import type { Frame, Mood } from '../script/file.ts';
import type { PlainSection } from '../script/data.ts';
import type { ShotAngle, ShotSize, SoundCue } from '../script/sceneOwn.ts';
import type { Clock } from '../timing/clock.ts';
import { stockOf, unsupportedIn } from '../trace/support.ts';
import type { Scene } from './breaks.ts';
import { actionIn, peopleDo } from './action.ts';
import { inFull, type CastEntry, type CastSource } from './cast.ts';
import { Words } from './figures.ts';
import { Present } from './present.ts';
import { outsideQuotes } from './looks.ts';
import { onScreen } from './screen.ts';
import type { SearchWord, Trap } from './search.ts';
import { meant, besideOf, type Senses } from './senses.ts';
import { elsewhere, eraOf, homesOf, playsAt } from './setting.ts';
import { angleOf, lightOf, movementOf, sizesOf } from './shot.ts';
import { ambienceCue, ambienceOf, effectsIn, musicCue } from './sound.ts';
import { readScenes } from './reading.ts';
import { Thread } from './thread.ts';
import { NARRATOR } from './unnamed.ts';
import { freshFirst, goesOn, leaning, subjectOf, topicOf, withAbout, withArticle } from './subject.ts';

export interface Repeat {
  /** The scene that shows it first. */
  of: string;
  what: string;
  /** Another picture for this one. */
  instead: string;
}
export interface Picture {
  scene: string;
  search: readonly SearchWord[];
  traps: readonly Trap[];
  description: string;
  /** The description in its parts, in the order in which they stand. */
  parts: {
    shot: string;
    subject: string;
    setting: string;
    light: string;
    cast: readonly string[];
    style: string;
    frame: string;
  };
  cast: readonly string[];
  /** The place's id, or null where nothing tells where it is. */
  setting: string | null;
  size: ShotSize;
  angle: ShotAngle;
  light: string;
  time: string | null;
  movement: { picture: string; people: string };
  onScreen: readonly string[];
  sound: readonly SoundCue[];
  repeat: Repeat | null;
  /** What the writer set in place of what is computed. */
  set: readonly string[];
  /** Figures and names in the writer's own description that no source has. */
  unsaid: readonly string[];
}

export interface PictureTools {
  tagger: Tagger;
  senses: Senses;
  kin: Kin;
  clock: Clock;
}
export interface PictureInput {
  title: string;
  sections: readonly PlainSection[];
  scenes: readonly Scene[];
  /** The tags of every line, by its id. */
  tagged: ReadonlyMap<string, readonly TaggedToken[]>;
  sources: readonly CastSource[];
  cast: readonly CastEntry[];
  frame: Frame;
  mood: Mood;
  /** The channel's picture style: the same words end every description. */
  style: string;
}

const FRAME_WORDS: Readonly<Record<Frame, string>> = {
  '16:9': 'horizontal 16:9',
  '9:16': 'vertical 9:16',
  '1:1': 'square 1:1',
};
const ANGLE_WORDS: Readonly<Record<ShotAngle, string>> = {
  'eye level': 'at eye level',
  low: 'from below',
  high: 'from above',
  overhead: 'from straight above',
};
const SIZE_WORDS: Readonly<Record<ShotSize, string>> = {
  'extreme close-up': 'Extreme close-up',
  'close-up': 'Close-up',
  medium: 'Medium shot',
  wide: 'Wide shot',
  'extreme wide': 'Extreme wide shot',
};
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const sentence = (text: string) => (text ? `${capital(text.replace(/[.;,\s]+$/, ''))}.` : '');

/** Pictures of every scene, in order. */
export function picturesOf(input: PictureInput, tools: PictureTools): Picture[] {
  const { sections, scenes, cast, mood, frame } = input;
  const words = new Words(tools.senses);
  const lines = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, l] as const)));
  const facts = new Map(
    input.sources.flatMap((s) => s.facts.map((f) => [`${s.letter} ${f.id}`, f] as const)),
  );
  const sectionOf = new Map(sections.map((s) => [s.id, s]));
  const present = new Present(input.title, cast, input.sources);
  const thread = new Thread(homesOf(input.title, sections, cast), eraOf(sections));
  const stock = stockOf(input.sources.flatMap((s) => s.facts.map((f) => f.text)));
  const said = new Set<string>();
  let section = '';
  const { read, core, known, technical, bare: bareOf } = readScenes(input, words, tools.tagger);
  return scenes.map((scene, i): Picture => {
    const home = sectionOf.get(scene.section)!;
    const opens = scene.section !== section;
    if (opens) {
      section = scene.section;
      present.opens();
      thread.opens();
    }
    const { tokens, text, beside, found } = read[i];
    const used = factsOf(scene, lines, facts);
    const on = goesOn(scene, tokens);
    const leans = on || leaning(text, scene);
    const shown = present.of(text, keysOf(scene, lines), on);
    // A clause is still where its sentence is; every other scene where its words say, or its section plays.
    const named = cast.find((c) => c.kind === 'place' && playsAt(c, bareOf(text)));
    const inSentence = (scene.parts[0]?.from ?? 0) > 0;
    let place = thread.placeOf(scene.section, named, inSentence || leans);
    const { topic } = thread;
    // A line that names nothing to see is about what it leans on, or its section shows most, unless somebody is seen in it.
    // Who asks shows no hand that writes the answer.
    const asks = /\?["”]?$/.test(text);
    const seen = found.search.filter((w) => w.why !== 'stands for' || !(shown.length || asks));
    // A ship or an inn is seen under its own name; of a company nothing is.
    const other = known.some(
      (n) => n.type === 'other' && found.search.some((w) => w.why === 'name' && w.text === n.text),
    );
    const own = shown.length ? [...seen, ...(on ? [] : unnamedSearch(shown))] : seen;
    // In a film about software what a computer shows is the thing itself.
    const enough = own.some(
      (w) => (w.why !== 'stands for' || technical) && (w.why !== 'name' || shown.length),
    );
    const all =
      (leans && !(technical && enough)) || scene.silent || !enough
        ? withAbout(
            own,
            (leans || inSentence) && topic.length ? topic : other ? [] : core(scene.section),
            home,
            input,
            words,
            tools.tagger,
          )
        : own;
    const search = freshFirst(all, thread);
    const things = found.search.filter((w) => w.why === 'thing');
    if (place && elsewhere(place, things)) place = thread.leaves();
    const year = thread.yearOf(text, used, inSentence);
    const hour = used.flatMap((f) => f.times)[0]?.iso ?? null;
    const light = lightOf(outsideQuotes(text), mood, hour);
    const main = mainOf(search);
    // A picture for an idea is as near or far as any thing: its own word tells nothing of it.
    const identity = main?.why === 'stands for' ? main.text : (main?.key ?? '');
    const shape = main && main.why !== 'stands for' ? main.key : '';
    const sense = shape ? (meant(words.noun(shape), besideOf(beside))?.sense ?? null) : null;
    const people = shown.length > 0 || sense?.file === '18';
    const others = shown.filter((c) => c.name !== NARRATOR).map((c) => c.name);
    const narrator = others.length < shown.length ? NARRATOR : '';
    const action = actionIn(tokens, words, found.figures, {
      narrator,
      others,
      they: peopleOf(topic, words),
      it: itOf(topic),
      goesOn: on,
    });
    const hands = /^hands\b/.test(action?.text ?? '');
    const fitting = sizesOf(hands ? 'hand' : shape, sense, home.role, people);
    const size = thread.sizeOf(identity, fitting, scene.own.size);
    const angle = scene.own.angle ?? angleOf(shape, mood, home.role, size);
    const lit = scene.own.light ?? [light.weather, light.light].filter(Boolean).join(', ');
    const ms = scene.endMs - scene.startMs;
    if (!leans && !inSentence) {
      const subjects = topicOf(things, text, tokens);
      // "Shape it into a ball": it is still what it was. A name that is nothing else is a topic too: a ship, a satellite.
      const same = topic.length === 1 && action?.text.includes(itOf(topic));
      const called = other && !shown.length ? found.search.filter((w) => w.why === 'name').slice(0, 1) : [];
      if (things.length && !same) thread.topic = subjects.length ? subjects : things.slice(0, 1);
      else if (!things.length && called.length) thread.topic = called;
    }
    const parts = {
      shot: `${SIZE_WORDS[size]}, ${ANGLE_WORDS[angle]}`,
      subject: subjectOf(
        shown.length ? search.filter((w) => w.why !== 'about') : search,
        action,
        shown,
        text,
        words,
      ),
      setting: [place ? inFull(place) : '', place?.looks.period ? '' : (year ?? '')]
        .filter(Boolean)
        .join(', '),
      light: lit,
      cast: shown.filter((c) => inFull(c) !== c.name).map(inFull),
      style: input.style.trim(),
      frame: FRAME_WORDS[frame],
    };
    const computed = [
      parts.shot,
      parts.subject,
      parts.setting,
      ...parts.cast,
      parts.light,
      parts.style,
      parts.frame,
    ]
      .map(sentence)
      .filter(Boolean)
      .join(' ');
    const { own: set } = scene;
    return {
      scene: scene.id,
      search: set.search
        ? set.search.map((t) => ({ text: t, why: 'thing', of: t, key: t.toLowerCase().split(' ').at(-1)! }))
        : search,
      traps: found.traps,
      description: set.description ? withLooks(set.description, parts) : computed,
      parts,
      cast: shown.map((c) => c.id),
      setting: place?.id ?? null,
      size,
      angle,
      light: lit,
      time: light.time,
      movement: {
        picture: set.picture ?? movementOf(ms, home.role, size),
        people: set.people ?? peopleDo(text, action, shown.length > 0),
      },
      onScreen: set.onScreen ?? onScreen(text, shown, said, home, opens),
      sound:
        set.sound ?? soundOf(scene, tokens, found.figures, search, place, home, opens, mood, tools.clock),
      repeat: null,
      set: Object.keys(set),
      unsaid: set.description ? unsupportedIn(set.description, stock).map((u) => u.text) : [],
    };
  });
}

/** Who has no name is searched for as anybody: "woman". */
const unnamedSearch = (shown: readonly CastEntry[]): SearchWord[] =>
  shown
    .filter((c) => !/^\p{Lu}/u.test(c.name))
    .flatMap(({ name, pronoun }): SearchWord[] => {
      const key = pronoun === 'she' ? 'woman' : 'man';
      return pronoun ? [{ text: key, why: 'thing', of: name, key }] : [];
    });
/** People that the last sentence was about: "masons", who are "they" in the next. */
const peopleOf = (topic: readonly SearchWord[], words: Words): string => {
  const [first] = topic;
  return first && topic.length === 1 && words.file(first.key) === '18' ? withArticle(first, words) : '';
};
const itOf = (topic: readonly SearchWord[]): string =>
  topic.length === 1 ? `the ${topic[0].shows ?? topic[0].text}` : '';
const mainOf = (search: readonly SearchWord[]) => search.find((w) => w.why !== 'name') ?? search[0];

/** A writer's own description still gets the looks, setting and style in full. */
function withLooks(text: string, parts: Picture['parts']): string {
  const missing = [...parts.cast, parts.setting, parts.style, parts.frame].filter(
    (p) => p && !text.includes(p),
  );
  return [sentence(text), ...missing.map(sentence)].join(' ');
}

const keysOf = (scene: Scene, lines: ReadonlyMap<string, PlainSection['lines'][number]>): string[] =>
  scene.parts.flatMap((p) => (lines.get(p.line)?.from ?? []).map((f) => `${f.source} ${f.fact}`));

const factsOf = (
  scene: Scene,
  lines: ReadonlyMap<string, PlainSection['lines'][number]>,
  facts: ReadonlyMap<string, Fact>,
): Fact[] => keysOf(scene, lines).flatMap((key) => facts.get(key) ?? []);

function soundOf(
  scene: Scene,
  tokens: readonly TaggedToken[],
  figures: readonly { start: number; end: number }[],
  search: readonly SearchWord[],
  place: CastEntry | null,
  home: PlainSection,
  opens: boolean,
  mood: Mood,
  clock: Clock,
): SoundCue[] {
  const inFigure = (t: TaggedToken) => figures.some((f) => t.start < f.end && t.end > f.start);
  const ambience = ambienceOf(
    search.filter((w) => w.why !== 'stands for' && w.why !== 'name').map((w) => w.shows ?? w.text),
    place ? [place.name, place.looks.kind?.text ?? '', place.looks.looks?.text ?? ''] : [],
  );
  const timed = clock.tokens(scene.text);
  const atOf = (t: TaggedToken) =>
    timed.filter((x) => x.end <= t.start).reduce((n, x) => n + x.ms + x.pauseMs, 0) / 1000;
  const rests = home.lines.some((l) => l.restMs >= 800) || scene.silent;
  return [
    ...(ambience ? [ambienceCue(ambience)] : []),
    ...effectsIn(tokens, inFigure, atOf),
    ...(opens ? [musicCue(mood, home.role, rests)] : []),
  ];
}
