/** What the words of each scene show by themselves, before anything runs on from one to the next. */
import { literal } from '../language/literal.ts';
import type { Tagger, TaggedToken } from '../language/tagged.ts';
import type { PlainSection } from '../script/data.ts';
import type { Scene } from './breaks.ts';
import type { CastSource } from './cast.ts';
import type { Words } from './figures.ts';
import { compoundsOf, searchWords, type Found, type NamedIn, type SearchWord } from './search.ts';
import type { SceneToken } from './tags.ts';
import { isTechnical } from './technical.ts';

export interface ReadScene {
  tokens: SceneToken[];
  text: string;
  /** The text around it, which tells a crane that lifts from one that wades. */
  beside: string;
  found: Found;
}
export interface Reading {
  read: readonly ReadScene[];
  /** The thing that a section shows most, twice at least; else the film's. */
  core: (section: string) => SearchWord[];
  /** The names that the sources know. */
  known: readonly NamedIn[];
  /** The film is about software. */
  technical: boolean;
  /** Words without the names of people and of what is nobody's place. */
  bare: (text: string) => string;
}

export function readScenes(
  {
    title,
    sections,
    scenes,
    sources,
    tagged,
  }: {
    title: string;
    sections: readonly PlainSection[];
    scenes: readonly Scene[];
    sources: readonly CastSource[];
    tagged: ReadonlyMap<string, readonly TaggedToken[]>;
  },
  words: Words,
  tagger: Tagger,
): Reading {
  const lines = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, l] as const)));
  const titles = new Map(sections.map((s) => [s.id, s.title]));
  const known = namesOf(sources);
  const names = patternOf(known);
  const technical = isTechnical(sections.flatMap((s) => s.lines.map((l) => l.text)));
  const compounds = compoundsOf(
    [...tagged.values()],
    tagger(title),
    sources.flatMap((s) => s.facts.map((f) => f.text)),
    words,
  );
  const read = scenes.map((scene, i): ReadScene => {
    const { tokens, text } = tokensOf(scene, lines, tagged, names);
    const around = [scenes[i - 1]?.text ?? '', text, scenes[i + 1]?.text ?? '', titles.get(scene.section)!];
    const beside = around.join(' ');
    return {
      tokens,
      text,
      beside,
      found: searchWords(text, tokens, words, { beside, names: known, compounds, technical }),
    };
  });
  return {
    read,
    core: coreOf(scenes, read.map((r) => r.found.search)), // prettier-ignore
    known,
    technical,
    bare: (text) => (names ? text.replace(names, ' ') : text),
  };
}

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
    .map((n) => literal(n.text))
    .sort((a, b) => b.length - a.length);
  return any.length ? new RegExp(`(?<!\\p{L})(?:${any.join('|')})(?!\\p{L})`, 'gu') : null;
}

function namesOf(sources: readonly CastSource[]): NamedIn[] {
  const out = new Map<string, NamedIn>();
  for (const { facts } of sources)
    for (const f of facts)
      for (const n of f.names) if (!out.has(n.text)) out.set(n.text, { text: n.text, type: n.type });
  return [...out.values()];
}

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
