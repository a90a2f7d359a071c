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
import { inFull, names, type CastEntry, type CastSource } from './cast.ts';
import { actionIn, peopleDo, type Action } from './action.ts';
import { Words } from './figures.ts';
import { onScreen } from './screen.ts';
import { compoundsOf, searchWords, type NamedIn, type SearchWord, type Trap } from './search.ts';
import { meant, besideOf, type Senses } from './senses.ts';
import { angleOf, lightOf, movementOf, sizeOf, varied } from './shot.ts';
import { ambienceCue, ambienceOf, effectsIn, musicCue } from './sound.ts';

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
const PRONOUN = /\b(?:he|she|him|her|his|hers)\b/i;

/** A scene's own words as tags: those of its lines that lie in it, with offsets into the scene's text. */
function tokensOf(
  scene: Scene,
  lines: ReadonlyMap<string, PlainSection['lines'][number]>,
  tagged: ReadonlyMap<string, readonly TaggedToken[]>,
): { tokens: TaggedToken[]; text: string } {
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
  return { tokens, text };
}

/** Pictures of every scene, in order. The cost is that of tagging each line once. */
export function picturesOf(input: PictureInput, tools: PictureTools): Picture[] {
  const { sections, scenes, cast, mood, frame } = input;
  const words = new Words(tools.senses);
  const tagged = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, tools.tagger(l.text)] as const)));
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
  /** Sizes in which a thing has been shown. */
  const shownIn = new Map<string, Set<ShotSize>>();
  const sectionOf = new Map(sections.map((s) => [s.id, s]));
  const homes = homesOf(input, facts);
  const stock = stockOf(input.sources.flatMap((s) => s.facts.map((f) => f.text)));
  const sizes: ShotSize[] = [];
  const said = new Set<string>();
  let person: CastEntry | null = null;
  let section = '';
  let place: CastEntry | null = null;
  let about: SearchWord[] = [];
  let year: string | null = null;

  return scenes.map((scene, i): Picture => {
    const home = sectionOf.get(scene.section)!;
    const opens = scene.section !== section;
    if (opens) {
      section = scene.section;
      person = null;
      about = [];
      place = homes.get(scene.section) ?? null;
    }
    const { tokens, text } = tokensOf(scene, lines, tagged);
    const used = factsOf(scene, lines, facts);
    const beside = [scenes[i - 1]?.text ?? '', text, scenes[i + 1]?.text ?? '', home.title].join(' ');
    const found = searchWords(text, tokens, words, { beside, names: known, compounds });
    const here = cast.filter((c) => c.kind === 'person' && names(c, text));
    if (here.length) person = here[here.length - 1];
    const shown = here.length ? here : person && PRONOUN.test(text) ? [person] : [];
    const bare = known.filter((n) => n.type !== 'place').reduce((t, n) => t.replaceAll(n.text, ' '), text);
    const named = cast.find((c) => c.kind === 'place' && names(c, bare));
    if (named) place = named;
    // A line that names nothing to see is about what the section showed last.
    const all =
      leaning(text, scene) ||
      scene.silent ||
      !found.search.some((w) => w.why === 'thing' || w.why === 'action')
        ? withAbout(found.search, about, home, input, words, tools)
        : found.search;
    const search = freshFirst(all, shownIn);
    const things = found.search.filter((w) => w.why === 'thing');
    if (things.length && !leaning(text, scene)) about = things;
    if (opens) year = null;
    year =
      used
        .flatMap((f) => f.dates)
        .find((d) => !d.resolved)
        ?.iso.match(/^\d{4}/)?.[0] ?? year;
    const hour = used.flatMap((f) => f.times)[0]?.iso ?? null;
    const light = lightOf(text, mood, hour);
    const main = mainOf(search);
    const sense = main ? (meant(words.noun(main.key), besideOf(beside))?.sense ?? null) : null;
    const people = shown.length > 0 || sense?.file === '18';
    const size =
      scene.own.size ??
      varied(sizeOf(main?.key ?? '', sense, home.role, people), sizes, seenIn(shownIn, main?.key));
    sizes.push(size);
    if (main) seenIn(shownIn, main.key).add(size);
    const angle = scene.own.angle ?? angleOf(main?.key ?? '', mood, home.role, size);
    const lit = scene.own.light ?? [light.weather, light.light].filter(Boolean).join(', ');
    const ms = scene.endMs - scene.startMs;
    const action = actionIn(tokens, words, found.figures);
    const parts = {
      shot: `${SIZE_WORDS[size]}, ${ANGLE_WORDS[angle]}`,
      subject: subjectOf(
        shown.length ? search.filter((w) => w.why !== 'about') : search,
        action,
        shown,
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
    const own = scene.own;
    return {
      scene: scene.id,
      search: own.search
        ? own.search.map((t) => ({ text: t, why: 'thing', of: t, key: t.toLowerCase().split(' ').at(-1)! }))
        : search,
      traps: found.traps,
      description: own.description ? withLooks(own.description, parts) : computed,
      parts,
      cast: shown.map((c) => c.id),
      setting: place?.id ?? null,
      size,
      angle,
      light: lit,
      time: light.time,
      movement: {
        picture: own.picture ?? movementOf(ms, home.role, size),
        people: own.people ?? peopleDo(text, action, shown.length > 0),
      },
      onScreen: own.onScreen ?? onScreen(text, shown, said, home, opens),
      sound:
        own.sound ?? soundOf(scene, tokens, found.figures, search, place, home, opens, mood, tools.clock),
      repeat: null,
      set: Object.keys(own),
      unsaid: own.description ? unsupportedIn(own.description, stock).map((u) => u.text) : [],
    };
  });
}

const mainOf = (search: readonly SearchWord[]) => search.find((w) => w.why !== 'name') ?? search[0];
const seenIn = (shown: Map<string, Set<ShotSize>>, key = ''): Set<ShotSize> =>
  shown.get(key) ?? shown.set(key, new Set()).get(key)!;

/** Things that have not been shown yet come first: a film of one boat is as dull as a talk about one. */
function freshFirst(search: readonly SearchWord[], shown: ReadonlyMap<string, Set<ShotSize>>): SearchWord[] {
  const things = search.filter((w) => w.why === 'thing');
  if (things.length < 2 || !shown.get(things[0].key)?.size) return [...search];
  const fresh = things.find((w) => !shown.get(w.key)?.size);
  if (!fresh) return [...search];
  const ordered = [fresh, ...things.filter((w) => w !== fresh)];
  let k = 0;
  return search.map((w) => (w.why === 'thing' ? ordered[k++] : w));
}

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

const factsOf = (
  scene: Scene,
  lines: ReadonlyMap<string, PlainSection['lines'][number]>,
  facts: ReadonlyMap<string, Fact>,
): Fact[] =>
  scene.parts.flatMap((p) =>
    (lines.get(p.line)?.from ?? []).flatMap((f) => facts.get(`${f.source} ${f.fact}`) ?? []),
  );

/** Where each section plays: the place its facts and lines name most; else the film's own. */
function homesOf(input: PictureInput, facts: ReadonlyMap<string, Fact>): Map<string, CastEntry | null> {
  const places = input.cast.filter((c) => c.kind === 'place');
  const count = (texts: readonly string[]) =>
    places
      .map((p) => ({ p, n: texts.filter((t) => names(p, t)).length }))
      .filter((x) => x.n > 0)
      .sort((a, b) => b.n - a.n)[0]?.p ?? null;
  const texts = (s: PlainSection) => [
    s.title,
    ...s.lines.flatMap((l) => [
      l.text,
      ...l.from.flatMap((f) => facts.get(`${f.source} ${f.fact}`)?.text ?? []),
    ]),
  ];
  const film = count([input.title, ...input.sections.flatMap(texts)]);
  return new Map(input.sections.map((s) => [s.id, count(texts(s)) ?? film]));
}

/** "a footbridge", "volunteers", "water": one of what can be counted has its article. */
function withArticle({ text: asked, shows, key }: SearchWord, words: Words): string {
  const text = shows ?? asked;
  const last = text.split(' ').at(-1)!;
  const plural = /s$/.test(last) && !/(?:ss|us|is)$/.test(last);
  if (plural || ['27', '13', '19'].includes(words.file(key)) || /^(?:the|an?)\s/.test(text)) return text;
  return `${/^(?!uni|use|uti|eu|one\b)[aeiou]/i.test(text) ? 'an' : 'a'} ${text}`;
}

function subjectOf(
  search: readonly SearchWord[],
  action: Action | null,
  shown: readonly CastEntry[],
  words: Words,
): string {
  const people = shown.map((c) => c.name).join(' and ');
  const things = search
    .filter((w) => w.why !== 'name' && w.why !== 'action')
    .slice(0, 2)
    .map((w) => (w.why === 'stands for' ? w.text : withArticle(w, words)));
  if (action) return people && !action.text.includes(people) ? `${people}; ${action.text}` : action.text;
  return [people, ...things].filter(Boolean).join(' and ') || (search[0]?.text ?? '');
}

/** Words that lean on what was shown before: the rest of a clause, "it", "they". */
const leaning = (text: string, scene: Scene): boolean =>
  ((scene.why === 'clause' || scene.why === 'phrase') && /\b(?:it|they|them|its|their)\b/i.test(text)) ||
  /^(?:It|They|This|That|These|Those|So it|But it|And it)\b/.test(text);

/** A scene's own words with what its section showed last, which it is about; else its title's, the film's. */
function withAbout(
  found: readonly SearchWord[],
  about: readonly SearchWord[],
  home: PlainSection,
  input: PictureInput,
  words: Words,
  tools: PictureTools,
): SearchWord[] {
  const own = found.filter((w) => w.why !== 'stands for');
  const seen = own.filter((w) => w.why !== 'name');
  const kept = about
    .filter((a) => !own.some((w) => w.key === a.key))
    .map((w): SearchWord => ({ ...w, why: 'about' }))
    .slice(0, 2);
  if (kept.length || seen.length)
    return [
      ...own.filter((w) => w.why === 'name'),
      ...seen,
      ...kept,
      ...(kept.length ? [] : found.filter((w) => w.why === 'stands for')),
    ].slice(0, 5);
  if (found.some((w) => w.why === 'stands for')) return [...found];
  const next = input.sections[input.sections.indexOf(home) + 1];
  const places = [home, next].flatMap((x) => (x ? [x.lines.map((l) => l.text).join(' ')] : []));
  // Capitals of a title would be taken for names.
  for (const text of [...places, input.title.toLowerCase()]) {
    const more = searchWords(text, tools.tagger(text), words, {
      beside: text,
      names: [],
      compounds: new Map(),
    }).search.filter((w) => w.why === 'thing');
    if (more.length) return [...own, ...more.slice(0, 2).map((w): SearchWord => ({ ...w, why: 'about' }))];
  }
  return [...found];
}

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
  const keys = [
    ...search.filter((w) => w.why !== 'stands for').map((w) => w.text),
    ...(place ? [place.name, place.looks.kind?.text ?? ''] : []),
  ];
  const ambience = ambienceOf(keys);
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
