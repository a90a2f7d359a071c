/** Everything that is handed over, computed once from one script: what every writer writes from. */
import type { Pronouncer } from '../language/phones.ts';
import { promiseIdeas, type Material } from '../plan/index.ts';
import {
  filmOf,
  ownPace,
  type CastOwn,
  type Film,
  type FilmInput,
  type PaceWanted,
  type PictureTools,
} from '../scenes/index.ts';
import { scriptFile, type ScriptFile, type ScriptSettings } from '../script/file.ts';
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import type { TimedLine } from '../timing/clock.ts';
import {
  CAPTION_LIMITS,
  QUICK_LIMITS,
  VERTICAL_LIMITS,
  captions,
  forChildren,
  type Caption,
  type CaptionLimits,
} from './captions.ts';
import { chaptersOf, type Chapters } from './chapters.ts';
import { kitOnRecording, type KeptRecording } from './onRecording.ts';
import type { FrameRate } from './timecode.ts';
import { uploadSheet, type UploadOwn, type UploadSheet, type UploadSource } from './upload.ts';
import { sayingsOf, voiceBlocks, type HowSaid, type OwnSaying, type VoiceBlock } from './voice.ts';

/** Fonts for pages on paper, as the bytes of WOFF files: a face for Latin and Greek letters, others by script. */
export interface Fonts {
  text: Uint8Array;
  bold: Uint8Array;
  /** Faces for letters that the text face lacks, each with the letters it is for. */
  others: readonly { covers: RegExp; bytes: Uint8Array; rightToLeft?: boolean }[];
}

export interface KitInput {
  settings: ScriptSettings;
  sections: readonly PlainSection[];
  /** BCP 47. */
  language?: string;
  sources: readonly UploadSource[];
  /** Sources as the script file prints them. */
  printed: ScriptFile['sources'];
  channel: { name: string; style: string; sayings: readonly OwnSaying[]; usualMs?: number };
  cast: readonly CastOwn[];
  paceCurve?: PaceWanted['handles'];
  upload: UploadOwn;
  rate: FrameRate;
  /** The most characters in one file for a synthesizer. */
  ssmlLimit: number;
  children: boolean;
  synthetic: { voice: boolean; pictures: boolean };
  /** When each line is heard in a recording: everything is timed by it, where there is one. */
  recording?: KeptRecording;
}
export interface KitTools extends PictureTools {
  pronouncer: Pronouncer;
  fonts: Fonts;
}

export interface Kit {
  input: KitInput;
  tools: KitTools;
  file: ScriptFile;
  sections: readonly PlainSection[];
  language: string;
  times: ReadonlyMap<string, TimedLine>;
  totalMs: number;
  film: Film;
  limits: CaptionLimits;
  captions: readonly Caption[];
  /** One to four words at a time. */
  quick: readonly Caption[];
  sayings: readonly HowSaid[];
  blocks: readonly VoiceBlock[];
  chapters: Chapters;
  upload: UploadSheet;
}

/** The limits of captions by frame and audience. */
export function limitsFor(frame: string, children: boolean): CaptionLimits {
  const limits = frame === '9:16' ? VERTICAL_LIMITS : CAPTION_LIMITS;
  return children ? forChildren(limits) : limits;
}

/** What of a kit's input its film is made from. */
export const filmInput = ({
  settings,
  sections,
  sources,
  cast,
  channel,
  paceCurve,
}: KitInput): FilmInput => ({
  title: settings.title,
  sections,
  sources: sources.map(({ letter, facts }) => ({ letter, facts })),
  own: cast,
  frame: settings.frame,
  mood: settings.mood,
  style: channel.style,
  pace: ownPace({ usualMs: channel.usualMs, paceCurve }),
});

/** The kit of a script. Most of its time goes into tagging every line once, and the facts' titles. */
export function makeKit(input: KitInput, tools: KitTools): Kit {
  const { sections, settings, sources } = input;
  const { clock } = tools;
  const timed = clock.lines(clockLines(sections));
  const lines = sections.flatMap((s) => s.lines);
  const film = filmOf(filmInput(input), tools);
  const limits = limitsFor(settings.frame, input.children);
  const everyday = (word: string) =>
    (['n', 'v', 'a'] as const).some((pos) => tools.senses.of(word, pos).some((s) => !s.instance));
  const sayings = sayingsOf(
    sections,
    { ...tools, everyday, english: (input.language ?? 'en').startsWith('en') },
    input.channel.sayings,
    sources.map((s) => s.document.text),
  );
  const material: Material[] = sources.map(({ letter, document, facts }) => ({
    letter,
    source: document,
    facts: [...facts],
  }));
  const ideas = material.some((m) => m.facts.length) ? promiseIdeas(material, tools) : null;
  const services = lines.flatMap((l) => (l.by && l.by.kind !== 'person' ? [l.by.who] : []));
  const own = {
    input,
    tools,
    file: scriptFile(settings, sections, clock, input.printed),
    sections,
    language: input.language ?? 'en-GB',
    times: new Map(lines.map((l, i) => [l.id, timed[i]])),
    totalMs: timed.reduce((n, t) => n + t.ms, 0),
    film,
    limits,
    captions: captions(sections, clock, limits),
    quick: captions(sections, clock, QUICK_LIMITS),
    sayings,
    blocks: voiceBlocks(sections, tools, sayings),
    chapters: chaptersOf(sections, clock),
  };
  const kit = input.recording ? kitOnRecording(own, input.recording) : own;
  return {
    ...kit,
    upload: uploadSheet({
      title: settings.title,
      sections,
      sources,
      film: kit.film,
      chapters: kit.chapters,
      channel: { name: input.channel.name },
      titles: ideas?.titles ?? [],
      pictures: ideas?.pictures ?? [],
      own: input.upload,
      synthetic: { ...input.synthetic, words: [...new Set(services)] },
    }),
  };
}
