/** For each scene: what to look for, what to make, how it moves, what stands on the screen and what is heard. */
import type { Fact } from '../facts/facts.ts';
import type { Kin } from '../language/kin.ts';
import type { TaggedToken, Tagger } from '../language/tagged.ts';
import type { Frame, Mood } from '../script/file.ts';
import type { PlainSection } from '../script/schema.ts';
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
import { compoundsOf, searchWords, type NamedIn, type SearchWord, type Trap } from './search.ts';
import { meant, besideOf, type Senses } from './senses.ts';
import { elsewhere, isToday, eraOf, homesOf, playsAt, yearIn, yearOf } from './setting.ts';
import { angleOf, lightOf, movementOf, sizesOf, varied } from './shot.ts';
import { ambienceCue, ambienceOf, effectsIn, musicCue } from './sound.ts';
import type { SceneToken } from './tags.ts';
import { isTechnical } from './technical.ts';
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

/** A scene's own words as tags: those of its lines that lie in it, with offsets into the scene's text. */
function tokensOf(
  scene: Scene,
  lines: ReadonlyMap<string, PlainSection['lines'][number]>,
  tagged: ReadonlyMap<string, readonly TaggedToken[]>,
  names: RegExp | null,
): { tokens: SceneToken[]; text: string } {
  const tokens: TaggedToken[] = [];
  let text = '';
  for (const part of scene.parts) {
    const own = (lines.get(part.line)?.text ?? '').slice(part.from, part.to);
    const at = text ? text.length + 1 : 0;
    const shift = at - part.from + (own.trimStart().length - own.length);
    for (const t of tagged.get(part.line) ?? [])
      if (t.start >= part.from && t.end <= part.to)
        tokens.push({ ...t, start: t.start + shift, end: t.end + shift });
    text = text ? `${text} ${own.trim()}` : own.trim();
  }
  // "Kestrel left school": what the sources know for a name is no bird.
  const spans = names ? [...text.matchAll(names)].map((m) => [m.index, m.index + m[0].length]) : [];
  const named = (t: TaggedToken) =>
    /^\p{Lu}/u.test(t.text) && spans.some(([from, to]) => t.start >= from && t.end <= to);
  return { tokens: tokens.map((t) => (named(t) ? { ...t, pos: 'PROPN', name: true } : t)), text };
}

/** One pattern for names of people and of what is nobody's place; null where there are none. */
function patternOf(names: readonly NamedIn[]): RegExp | null {
  const any = names
    .filter((n) => n.type !== 'place')
    .map((n) => n.text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .sort((a, b) => b.length - a.length);
  return any.length ? new RegExp(`(?<!\\p{L})(?:${any.join('|')})(?!\\p{L})`, 'gu') : null;
}

/** Pictures of every scene, in order. */
export function picturesOf(input: PictureInput, tools: PictureTools): Picture[] {
  const { sections, scenes, cast, mood, frame, tagged } = input;
  const words = new Words(tools.senses);
  const lines = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, l] as const)));
  const facts = new Map(
    input.sources.flatMap((s) => s.facts.map((f) => [`${s.letter} ${f.id}`, f] as const)),
  );
  const known = namesOf(input.sources);
  const compounds = compoundsOf(
    [...tagged.values()],
    tools.tagger(input.title),
    input.sources.flatMap((s) => s.facts.map((f) => f.text)),
    words,
  );
  const namePattern = patternOf(known);
  /** Sizes in which a thing has been shown. */
  const shownIn = new Map<string, Set<ShotSize>>();
  const sectionOf = new Map(sections.map((s) => [s.id, s]));
  const homes = homesOf(input.title, sections, cast);
  const present = new Present(input.title, cast, input.sources);
  const era = eraOf(sections);
  const stock = stockOf(input.sources.flatMap((s) => s.facts.map((f) => f.text)));
  const sizes: ShotSize[] = [];
  const said = new Set<string>();
  let section = '';
  let place: CastEntry | null = null;
  const technical = isTechnical(sections.flatMap((s) => s.lines.map((l) => l.text)));
  const read = scenes.map((scene, i) => {
    const { tokens, text } = tokensOf(scene, lines, tagged, namePattern);
    const beside = [
      scenes[i - 1]?.text ?? '',
      text,
      scenes[i + 1]?.text ?? '',
      sectionOf.get(scene.section)!.title,
    ].join(' ');
    return {
      tokens,
      text,
      beside,
      found: searchWords(text, tokens, words, { beside, names: known, compounds, technical }),
    };
  });
  const core = coreOf(scenes, read.map((r) => r.found.search)); // prettier-ignore
  /** What the last full sentence was about. */
  let topic: SearchWord[] = [];
  /** The year told of last, in which passage of the source, and that of this sentence. */
  let year: string | null = null;
  let dated: string | null = null;
  let now: string | null = null;

  return scenes.map((scene, i): Picture => {
    const home = sectionOf.get(scene.section)!;
    const opens = scene.section !== section;
    if (opens) {
      section = scene.section;
      present.opens();
      year = null;
      now = null;
    }
    const { tokens, text, beside, found } = read[i];
    const used = factsOf(scene, lines, facts);
    const on = goesOn(scene, tokens);
    const leans = on || leaning(text, scene);
    const shown = present.of(text, keysOf(scene, lines), on);
    // A clause is still where its sentence is; every other scene where its words say, or its section plays.
    const bare = namePattern ? text.replace(namePattern, ' ') : text;
    const named = cast.find((c) => c.kind === 'place' && playsAt(c, bare));
    const inSentence = (scene.parts[0]?.from ?? 0) > 0;
    place = named ?? (inSentence || leans ? place : null) ?? homes.get(scene.section) ?? null;
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
    const search = freshFirst(all, shownIn);
    const things = found.search.filter((w) => w.why === 'thing');
    if (place && elsewhere(place, things)) place = null;
    // A year told of one thing is none of the next passage's.
    const passage = used[0]?.block ?? null;
    if (passage && dated && passage !== dated) year = null;
    if (!inSentence || yearIn(text)) now = yearOf(text, used, year ?? era);
    const dating = inSentence && isToday(text) ? null : now;
    if (now && now !== year) dated = passage;
    year = now ?? year;
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
    // A name that is nothing else is a topic too: a ship, a satellite.
    const called = other ? found.search.filter((w) => w.why === 'name') : [];
    if (!things.length && called.length && !leans && !inSentence && !shown.length) topic = called.slice(0, 1);
    const hands = /^hands\b/.test(action?.text ?? '');
    const fitting = sizesOf(hands ? 'hand' : shape, sense, home.role, people);
    const size = scene.own.size ?? varied(fitting, sizes, seenIn(shownIn, identity));
    sizes.push(size);
    if (main) seenIn(shownIn, identity).add(size);
    const angle = scene.own.angle ?? angleOf(shape, mood, home.role, size);
    const lit = scene.own.light ?? [light.weather, light.light].filter(Boolean).join(', ');
    const ms = scene.endMs - scene.startMs;
    if (things.length && !leans) {
      const subjects = topicOf(things, text, tokens);
      // "Shape it into a ball": it is still what it was.
      const same = topic.length === 1 && action?.text.includes(itOf(topic));
      if (!inSentence && !same) topic = subjects.length ? subjects : things.slice(0, 1);
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
      setting: [place ? inFull(place) : '', place?.looks.period ? '' : (dating ?? '')]
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
/** The thing that each section shows most, twice at least; else the film's. */
function coreOf(
  scenes: readonly Scene[],
  found: readonly (readonly SearchWord[])[],
): (section: string) => SearchWord[] {
  const most = (indices: readonly number[]) => {
    const counts = new Map<string, { word: SearchWord; n: number }>();
    for (const w of indices.flatMap((i) => found[i].filter((x) => x.why === 'thing'))) {
      const known = counts.get(w.key);
      if (known) known.n++;
      else counts.set(w.key, { word: w, n: 1 });
    }
    const [first] = [...counts.values()].sort((a, b) => b.n - a.n);
    return first && first.n > 1 ? [first.word] : [];
  };
  const film = most(scenes.map((_, i) => i));
  const kept = new Map<string, SearchWord[]>();
  return (section) => {
    const known = kept.get(section);
    if (known) return known;
    const own = most(scenes.flatMap((s, i) => (s.section === section ? [i] : [])));
    const out = own.length ? own : film;
    kept.set(section, out);
    return out;
  };
}
/** People that the last sentence was about: "masons", who are "they" in the next. */
const peopleOf = (topic: readonly SearchWord[], words: Words): string => {
  const [first] = topic;
  return first && topic.length === 1 && words.file(first.key) === '18' ? withArticle(first, words) : '';
};
const itOf = (topic: readonly SearchWord[]): string =>
  topic.length === 1 ? `the ${topic[0].shows ?? topic[0].text}` : '';
const mainOf = (search: readonly SearchWord[]) => search.find((w) => w.why !== 'name') ?? search[0];
const seenIn = (shown: Map<string, Set<ShotSize>>, key = ''): Set<ShotSize> =>
  shown.get(key) ?? shown.set(key, new Set()).get(key)!;

/** A writer's own description still gets the looks, setting and style in full. */
function withLooks(text: string, parts: Picture['parts']): string {
  const missing = [...parts.cast, parts.setting, parts.style, parts.frame].filter(
    (p) => p && !text.includes(p),
  );
  return [sentence(text), ...missing.map(sentence)].join(' ');
}

function namesOf(sources: readonly CastSource[]): NamedIn[] {
  const out = new Map<string, NamedIn>();
  for (const { facts } of sources)
    for (const f of facts)
      for (const n of f.names) if (!out.has(n.text)) out.set(n.text, { text: n.text, type: n.type });
  return [...out.values()];
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
