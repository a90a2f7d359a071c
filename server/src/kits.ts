/** Worker tasks of the film and the kit: everything that needs the tagger, word senses or the writers of formats. */
import { createHash } from 'node:crypto';
import type { MessagePort } from 'node:worker_threads';
import {
  CannotWrite,
  captionFaults,
  changedSince,
  filmInput,
  makeKit,
  nameOf,
  pack,
  proposedRests,
  ssmlOfSection,
  tooLong,
  translated,
  writerById,
  xliffOf,
  writers,
  zipped,
  type Changed,
  type KitInput,
  type LineFit,
  type PackedFile,
  type Recipient,
  type Translation,
} from '@ursprung/core/handoff';
import { filmOf, type Film } from '@ursprung/core/scenes';
import { clockLines, printedSource, type PlainSection } from '@ursprung/core/script';
import { SHIPPED_VOICES, languageOf, makeOtherClock, type Clock } from '@ursprung/core/timing';
import type { Rights } from './api.ts';
import { expected, type WorkResult } from './drafting.ts';
import { openedText, type SourceText } from './sourceText.ts';
import { getClock, getFonts, getKin, getPronouncer, getSenses, getTagger } from './tools.ts';

/** What a kit is made from, its sources as they are stored. */
export interface KitAsked extends Omit<KitInput, 'sources' | 'printed'> {
  sources: readonly ({ letter: string; rights: Rights } & SourceText)[];
}
const inputOf = ({ sources: texts, ...rest }: KitAsked): KitInput => {
  const sources = texts.map(({ letter, rights, ...text }) => {
    const { document, facts, own } = openedText(text);
    return { letter, rights, document, facts: [...facts, ...own.facts] };
  });
  return {
    ...rest,
    sources,
    printed: sources.map((s) => ({ id: s.letter, ...printedSource(s.document, s.facts) })),
  };
};
export interface KitTask {
  input: KitAsked;
  translation?: Translation;
}

const clockOf = ({ settings, channel }: Pick<KitInput, 'settings' | 'channel'>): Clock =>
  getClock(settings.voice, settings.pace, channel.sayings);
const otherClock = ({ settings }: Pick<KitInput, 'settings'>, language: string): Clock | null => {
  const other = languageOf(language);
  if (!other || other.code === 'en') return null;
  return makeOtherClock(
    other,
    SHIPPED_VOICES[settings.voice] ?? SHIPPED_VOICES.even,
    getPronouncer(),
    settings.pace,
  );
};

function kitOf({ input: kept, translation }: KitTask) {
  const asked = inputOf(kept);
  // A recording is of the script's own words.
  const { recording, ...bare } = asked;
  const input = recording && !translation ? asked : bare;
  const other = translation ? otherClock(input, translation.language) : null;
  return makeKit(
    translation
      ? {
          ...input,
          sections: translated(input.sections, translation),
          language: translation.language,
          settings: { ...input.settings, title: translation.title || input.settings.title },
        }
      : input,
    {
      tagger: getTagger(),
      senses: getSenses(),
      kin: getKin(),
      clock: other ?? clockOf(input),
      pronouncer: getPronouncer(),
      fonts: getFonts(),
    },
  );
}

export interface FilmTask {
  input: KitAsked;
}
export const film = ({ input }: FilmTask): Promise<WorkResult<Film>> =>
  expected(() =>
    filmOf(filmInput(inputOf(input)), {
      tagger: getTagger(),
      senses: getSenses(),
      kin: getKin(),
      clock: clockOf(input),
    }),
  );

/** What the pages of the handoff show, without the files themselves. */
export const sheet = (task: KitTask & { before?: { title: string; sections: PlainSection[] } }) =>
  expected(() => {
    const kit = kitOf(task);
    const timing = (sections: readonly PlainSection[]) =>
      kit.tools.clock.lines(clockLines(sections)).map(({ ms, words }) => ({ ms, words }));
    return {
      title: kit.file.title,
      language: kit.language,
      totalMs: kit.totalMs,
      scenes: kit.film.scenes.length,
      blocks: kit.blocks,
      sayings: kit.sayings,
      rests: proposedRests(kit.sections),
      captions: kit.captions.map(({ startMs, endMs, rows, lines, speaker }) => ({
        startMs,
        endMs,
        rows,
        lines,
        speaker,
      })),
      captionFaults: captionFaults(kit.captions, kit.limits),
      limits: kit.limits,
      upload: kit.upload,
      formats: writers.map(({ id, name, says, loses, extension, suffix, for: whom }) => ({
        id,
        name,
        says,
        loses,
        for: whom,
        file: nameOf(kit, { extension, ...(suffix ? { suffix } : {}) }),
      })),
      changed: task.before
        ? changedSince(task.before, { title: kit.file.title, sections: kit.sections }, timing)
        : null,
      tooLong: task.translation ? fits(task) : [],
    };
  });
export type Sheet = Extract<Awaited<ReturnType<typeof sheet>>, { ok: true }>['value'];

function fits({ input, translation }: KitTask): LineFit[] {
  const other = translation ? otherClock(input, translation.language) : null;
  return other
    ? tooLong(input.sections, clockOf(input), translated(input.sections, translation!), other)
    : [];
}

export interface Written {
  name: string;
  mime: string;
  bytes: Uint8Array;
}
/** One format, whole or one section of it where the format has sections. */
export const write = (
  task: KitTask & { format: string; section?: string },
): Promise<WorkResult<Written | { refused: string }>> =>
  expected(async () => {
    const writer = writerById(task.format)!;
    const kit = kitOf(task);
    try {
      const content =
        writer.id === 'xliff' && task.translation
          ? xliffOf(
              {
                title: task.input.settings.title,
                language: task.input.language ?? 'en-GB',
                sections: task.input.sections,
              },
              clockOf(task.input),
              { language: task.translation.language, translation: task.translation },
            )
          : task.section && writer.id === 'ssml'
            ? ssmlOfSection(kit, task.section)
            : await writer.write(kit);
      return {
        name: nameOf(kit, writer),
        mime: writer.mime,
        bytes: typeof content === 'string' ? new TextEncoder().encode(content) : content,
      };
    } catch (error) {
      if (error instanceof CannotWrite || error instanceof RangeError) return { refused: error.message };
      throw error;
    }
  });

export interface PackTask extends KitTask {
  who?: Recipient;
  without: readonly string[];
  port?: MessagePort;
}
export interface PackedKit {
  zip: Uint8Array;
  files: Omit<PackedFile, 'bytes'>[];
  sizes: number[];
  left: readonly { format: string; why: string }[];
}
export const packKit = (task: PackTask): Promise<WorkResult<PackedKit>> =>
  expected(async () => {
    task.port?.postMessage({ stage: 'working everything out', done: 0, of: 0 });
    const kit = kitOf(task);
    const packed = await pack(kit, {
      ...(task.who ? { who: task.who } : {}),
      without: task.without,
      digest: (bytes) => createHash('sha256').update(bytes).digest('hex'),
      progress: (done, of, name) =>
        task.port?.postMessage({ stage: name ? `writing: ${name}` : 'packing', done, of }),
    });
    return {
      zip: zipped(packed),
      files: packed.files.map(({ name, format, sha256 }) => ({ name, format, sha256 })),
      sizes: packed.files.map((f) => f.bytes.length),
      left: packed.left,
    };
  });

export type { Changed };
