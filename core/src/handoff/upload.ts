/** What the uploader pastes: description, chapters, hashtags, search words, sources, question, pinned comment, credits. Computed from the script and its facts; the writer's own words stand in place of any part. */
import { placeOf } from '../facts/ids.ts';
import { citation } from '../source/cite.ts';
import type { SourceDocument } from '../source/document.ts';
import type { Fact } from '../facts/facts.ts';
import { stems } from '../facts/centrality.ts';
import type { PlainSection } from '../script/data.ts';
import type { Film } from '../scenes/film.ts';
import type { PictureIdea } from '../plan/promise.ts';
import type { Title } from '../plan/titles.ts';
import { UPLOAD_PARTS, type UploadOwn, type UploadPart } from './uploadOwn.ts';
import { chapterClock, type Chapters } from './chapters.ts';

export * from './uploadOwn.ts';

export interface UploadSource {
  letter: string;
  document: SourceDocument;
  facts: readonly Fact[];
  rights: string;
}
export interface UploadInput {
  title: string;
  sections: readonly PlainSection[];
  sources: readonly UploadSource[];
  film: Film;
  chapters: Chapters;
  channel: { name: string; contractions?: boolean };
  titles: readonly Title[];
  pictures: readonly PictureIdea[];
  own: UploadOwn;
  /** Whether a voice or pictures are made by a machine. */
  synthetic: { voice: boolean; pictures: boolean; words: readonly string[] };
}
export interface UploadSheet {
  parts: Readonly<Record<UploadPart, string>>;
  /** Parts whose words are the writer's own. */
  set: readonly UploadPart[];
  chapters: Chapters;
  sources: readonly string[];
  titles: readonly { text: string; letters: number; used: boolean; reason: string }[];
  pictures: readonly { shows: string; words: string; why: string }[];
  /** The description as it is pasted: summary, chapters, sources, credits, disclosure, hashtags. */
  description: string;
}

const HASHTAGS = 5;
const SEARCH_WORDS = 15;
const SEARCH_LETTERS = 480;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const linesOf = (sections: readonly PlainSection[]) =>
  sections.flatMap((s) => s.lines).filter((l) => l.text.trim());

export function uploadSheet(input: UploadInput): UploadSheet {
  const computed = computedParts(input);
  const parts = { ...computed };
  const set = UPLOAD_PARTS.filter((p) => input.own[p] !== undefined);
  for (const p of set) parts[p] = input.own[p]!;
  const sources = input.sources.map(({ document, rights }) =>
    [
      // A style that is ready at once (the engine of the largest takes seconds to build), its link free for whoever clicks.
      citation(document, 'harvard1')
        .trim()
        .replace(/(https?:\S+)\.$/, '$1'),
      document.licence
        ? `Licence: ${document.licence}.`
        : rights === 'granted'
          ? 'Retold with permission.'
          : '',
    ]
      .filter(Boolean)
      .join(' '),
  );
  const chapters =
    'chapters' in input.chapters
      ? input.chapters.chapters.map((c) => `${chapterClock(c.startMs)} ${c.title}`).join('\n')
      : '';
  const description = [
    parts.summary,
    chapters,
    sources.length ? `Sources\n${sources.map((s) => `- ${s}`).join('\n')}` : '',
    parts.credits,
    parts.disclosure,
    parts.endPointer,
    parts.hashtags,
  ]
    .filter(Boolean)
    .join('\n\n');
  return {
    parts,
    set,
    chapters: input.chapters,
    sources,
    titles: titleRows(input),
    pictures: input.pictures.map((p) => ({
      shows: p.shows,
      words: p.words,
      why: matches(p, input),
    })),
    description,
  };
}

function titleRows({ titles, title }: UploadInput): UploadSheet['titles'] {
  const own = { text: title, letters: title.length, used: true, reason: 'in use' };
  return [
    own,
    ...titles
      .filter((t) => t.text !== title)
      .map((t) => ({ text: t.text, letters: t.text.length, used: false, reason: t.reasons[0] ?? '' })),
  ];
}

/** Why a picture goes with the title: the words they share, or the one thing both are about. */
function matches({ shows, words, pays }: PictureIdea, { title, sources }: UploadInput): string {
  const own = new Set(stems(`${shows} ${words}`));
  const shared = title
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w.length > 3 && stems(w).some((s) => own.has(s)));
  const fact = sources.find((s) => s.letter === pays.source)?.facts.find((f) => f.id === pays.fact);
  return shared.length
    ? `shows what the title says: ${[...new Set(shared)].join(', ')}`
    : `rests on the fact that pays the title (${pays.source}${fact ? ` ${placeOf(fact)}` : ''})`;
}

function computedParts(input: UploadInput): Record<UploadPart, string> {
  const lines = linesOf(input.sections);
  const words = keyWords(input);
  const question = lines.findLast(
    (l) => /\?["”]?$/.test(l.text.trim()) && input.sections.at(-1)!.lines.includes(l),
  );
  const next = lines.findLast((l) => l.role === 'lead' && input.sections.at(-1)!.lines.includes(l));
  const topic = words.find((w) => /^\p{Lu}/u.test(w) && input.title.includes(w)) ?? words[0] ?? input.title;
  return {
    summary: summaryOf(input),
    hashtags: words
      .map(hashtag)
      .filter((t, i, all) => t.length > 3 && all.indexOf(t) === i)
      .slice(0, HASHTAGS)
      .join(' '),
    searchWords: fitted(words, SEARCH_WORDS, SEARCH_LETTERS).join(', '),
    question: question?.text.trim() ?? questionOf(input, topic),
    pinned: pinnedOf(input),
    endPointer: next
      ? next.text.trim()
      : `More from ${input.channel.name || 'this channel'}: the next one is on the screen.`,
    credits: creditsOf(input),
    disclosure: disclosureLine(input.synthetic),
  };
}

/** A question that listeners can answer from their own lives, by the kind of the first source. */
function questionOf({ sources }: UploadInput, topic: string): string {
  const the = /^\p{Lu}/u.test(topic) ? topic : `the ${topic}`;
  switch (sources[0]?.document.kind) {
    case 'news':
      return `What should happen next with ${the}?`;
    case 'forum':
      return 'What would you have done?';
    case 'howto':
      return 'How do you do it yourself?';
    case 'abstract':
      return 'Did the result surprise you, or had you seen it yourself?';
    default:
      return `Is there something like ${the} where you live?`;
  }
}

/** The promise in the script's own words: what opens it and what it turns to, never what settles it. */
function summaryOf({ sections }: UploadInput): string {
  const spoken = (s: PlainSection | undefined) =>
    (s?.lines ?? []).filter((l) => l.text.trim() && l.fixedMs === null);
  const first = spoken(sections[0]).slice(0, 2);
  const ground = spoken(sections.find((s, i) => i > 0 && s.role !== 'close' && s.role !== 'settle')).slice(
    0,
    1,
  );
  return [...first, ...ground].map((l) => l.text.trim()).join(' ');
}

/** A comment to pin: a fact that the script had no room for, the surest one; else what it left open. */
function pinnedOf({ sections, sources }: UploadInput): string {
  const told = new Set(linesOf(sections).flatMap((l) => l.from.map((f) => `${f.source} ${f.fact}`)));
  const spare = sources
    .flatMap(({ letter, facts }) =>
      facts.filter(
        (f) =>
          !told.has(`${letter} ${f.id}`) &&
          !f.leans.length &&
          f.modality === 'plain' &&
          !f.quotes.length &&
          f.text.length < 180 &&
          !/^(?:I|We|It|He|She|They|This|That)\b/.test(f.text),
      ),
    )
    .sort((a, b) => b.strength - a.strength)[0];
  return spare
    ? `What the film had no room for: ${spare.text.trim()}`
    : 'What did the film leave out that you would have told?';
}

/** Names and things by how often the script says them and how strong their facts are. */
function keyWords({ sections, sources, title, film }: UploadInput): string[] {
  const text = linesOf(sections)
    .map((l) => l.text)
    .join(' ');
  const scores = new Map<string, number>();
  const add = (word: string, by: number) => scores.set(word, (scores.get(word) ?? 0) + by);
  for (const { facts } of sources)
    for (const f of facts)
      for (const n of f.names)
        if (text.includes(n.text) && (n.type !== 'person' || n.text.includes(' ')))
          add(n.text, 0.6 + f.strength);
  for (const p of film.pictures)
    for (const w of p.search)
      if (w.why === 'thing') add(w.shows ?? w.text, (w.shows ?? w.text).includes(' ') ? 1 : 0.6);
  const inTitle = new Set(stems(title));
  const ranked = [...scores]
    .map(([word, score]) => ({ word, score: score * (stems(word).some((s) => inTitle.has(s)) ? 2 : 1) }))
    .sort((a, b) => b.score - a.score || a.word.localeCompare(b.word))
    .map((x) => x.word);
  // "boats" beside "boat lift" says nothing new.
  return ranked.filter((word, i) => {
    const own = stems(word);
    return own.length > 0 && !ranked.slice(0, i).some((other) => own.every((s) => stems(other).includes(s)));
  });
}
const hashtag = (word: string) =>
  `#${word
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map(capital)
    .join('')}`;
function fitted(words: readonly string[], most: number, letters: number): string[] {
  const out: string[] = [];
  let sum = 0;
  for (const w of words.slice(0, most)) {
    if ((sum += w.length + 2) > letters) break;
    out.push(w);
  }
  return out;
}

function creditsOf({ film }: UploadInput): string {
  const pictures = [...new Set(film.scenes.flatMap((s) => (s.own.credit ? [s.own.credit] : [])))];
  const music = [
    ...new Set(
      film.pictures.flatMap((p) =>
        p.sound.filter((s) => s.kind === 'music' && p.set.includes('sound')).map((s) => s.what),
      ),
    ),
  ];
  return [
    pictures.length ? `Pictures: ${pictures.join('; ')}` : '',
    music.length ? `Music: ${music.join('; ')}` : '',
  ]
    .filter(Boolean)
    .join('\n');
}

export function disclosureLine({ voice, pictures, words }: UploadInput['synthetic']): string {
  const made = [voice ? 'the voice' : '', pictures ? 'some pictures' : ''].filter(Boolean).join(' and ');
  const out: string[] = [];
  if (made) out.push(`${capital(made)} in this film ${pictures ? 'were' : 'was'} made by a computer.`);
  if (words.length)
    out.push(`Parts of the words were written with ${words.join(', ')} and checked against the sources.`);
  return out.join(' ');
}
