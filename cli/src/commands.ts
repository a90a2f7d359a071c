/** One function a command: arguments in, what goes to stdout out. */
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import { draftScript } from '@ursprung/core/draft';
import {
  castOf,
  extractFacts,
  glossaryOf,
  outlineOf,
  steps,
  timeline,
  type Fact,
} from '@ursprung/core/facts';
import { LARGEST_DRAFT, draftText } from '@ursprung/core/drafts';
import {
  FRAME_RATES,
  RECIPIENTS,
  fileName,
  nameOf,
  pack,
  writerById,
  writers,
  zipped,
} from '@ursprung/core/handoff';
import { sentences } from '@ursprung/core/language';
import {
  AIMS,
  AUDIENCES,
  GENRES,
  HOOK_KINDS,
  PERSONS,
  SHAPE_IDS,
  WORDS,
  briefSchema,
  checkTitle,
  hooksOf,
  pointsFrom,
} from '@ursprung/core/plan';
import { checkScript, sectionsOfLines, type CheckedLine, type ReviewSource } from '@ursprung/core/review';
import { printedScene } from '@ursprung/core/scenes';
import {
  DEFAULT_PACE,
  FRAMES,
  MOODS,
  cleanDraft,
  isShort,
  printedSource,
  scriptFile,
  sectionsOfFile,
  type ScriptFile,
} from '@ursprung/core/script';
import { LARGEST_FILE, SOURCE_KINDS, openSource, type SourceDocument } from '@ursprung/core/source';
import { calibrate, seconds, wavMs, type Recording } from '@ursprung/core/timing';
import { getClock, getKin, getPronouncer, getSolver, getTagger } from '@ursprung/server/tools';
import { LARGEST_RECORDING, digest, filmOfFile, kitOfFile, recordingOf } from './film.ts';
import { LEAST_LETTERS } from '@ursprung/core/commission/desk';
import { roundsFrom, toldByService } from './byService.ts';
import { contextOfFile, contextOfSources, ordersText, replyTaken } from './commission.ts';
import { reviseFile } from './revise.ts';
import {
  UsageError,
  fileBytes,
  fileText,
  lengthFrom,
  oneOf,
  paceFrom,
  picturesFrom,
  scriptFrom,
  knownVoice,
  voiceFrom,
} from './input.ts';

export interface Output {
  out: string | Uint8Array;
  /** Things the person should know; they go to stderr. */
  notes?: string[];
}

/** A brief from the command line; what is too long or too much is said by its option. */
function briefFrom(given: Record<string, unknown>) {
  const brief = briefSchema.safeParse(given);
  if (brief.success) return brief.data;
  const [issue] = brief.error.issues;
  throw new UsageError(`--${String(issue.path[0])}: ${issue.message}`);
}

type Options = NonNullable<ParseArgsConfig['options']>;

function parse<T extends Options>(
  args: readonly string[],
  options: T,
  files: { least: number; most: number; what: string },
) {
  let parsed;
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true, strict: true });
  } catch (error) {
    throw new UsageError((error as Error).message.split('. To specify')[0]);
  }
  const given = parsed.positionals.length;
  if (given < files.least) throw new UsageError(`Name ${files.what}.`);
  if (given > files.most) throw new UsageError(`Too many files: name ${files.what}.`);
  return {
    values: parsed.values as Record<string, string | boolean | string[] | undefined>,
    files: parsed.positionals,
  };
}

/** The letters of a script's sources. */
const LETTERS = [...'ABCDEFGHIJKL'];

const text = { type: 'string' } as const;
const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;
const given = <T>(name: string, value: T | undefined) => (value === undefined ? {} : { [name]: value });
const str = (value: unknown) => value as string | undefined;
const pointsOf = (value: unknown) => ((value as string[] | undefined) ?? []).flatMap(pointsFrom);

function printed(source: SourceDocument, facts: readonly Fact[]) {
  const printed = printedSource(source, facts);
  return {
    ...printed,
    blocks: printed.blocks.filter((b) => b.type !== 'box'),
    box: source.blocks
      .filter((b) => b.type === 'box')
      .map((b) => ({
        id: b.id,
        label: b.heads?.[0] ?? '',
        value: b.text.slice((b.heads?.[0] ?? '').length + 2),
      })),
    leftOut: source.leftOut ?? [],
    quotes: facts.flatMap((f) => f.quotes.map((q) => ({ text: q.text, fact: f.id }))),
    timeline: timeline(facts),
    steps: steps(facts),
    parts: Object.fromEntries(outlineOf(source, facts).map((p) => [p.id, p.facts])),
    cast: castOf(facts),
    glossary: glossaryOf(facts),
  };
}

export const commands: Readonly<Record<string, (args: readonly string[]) => Output | Promise<Output>>> = {
  read: async (args) => {
    const { values, files } = parse(args, { kind: text }, { least: 1, most: 1, what: 'one source file' });
    const kind = oneOf('kind', str(values.kind), SOURCE_KINDS);
    const source = await openSource(fileBytes(files[0], LARGEST_FILE), kind ? { kind } : {});
    return { out: json(printed(source, extractFacts(source, getTagger()))) };
  },

  clean: async (args) => {
    const { files } = parse(args, {}, { least: 1, most: 1, what: 'one draft file' });
    const narration = cleanDraft(await draftText(fileBytes(files[0], LARGEST_DRAFT)));
    if (!narration) throw new UsageError('Nothing spoken was found in this file.');
    return { out: `${narration}\n` };
  },

  time: (args) => {
    const { values, files } = parse(
      args,
      { pace: text, voice: text },
      { least: 1, most: 10_000, what: 'one or more text files' },
    );
    const clock = getClock(voiceFrom(str(values.voice)), paceFrom(str(values.pace)));
    const rows = files.map((file) => {
      const { words, spokenWords, syllables, ms } = clock.time(fileText(file));
      return JSON.stringify({ file, words, spokenWords, syllables, seconds: seconds(ms) });
    });
    return { out: `${rows.join('\n')}\n` };
  },

  calibrate: (args) => {
    const { files } = parse(args, {}, { least: 1, most: 1, what: 'one folder of recordings' });
    const { recordings, passed } = recordingsIn(files[0]);
    if (!recordings.length)
      throw new UsageError(`No pair of NAME.txt and NAME.wav was found in ${files[0]}.`);
    return { out: json(calibrate(recordings, getPronouncer())), notes: passed };
  },

  draft: async (args) => {
    const option = {
      seconds: text,
      shape: text,
      title: text,
      frame: text,
      mood: text,
      person: text,
      pace: text,
      seed: text,
      as: text,
      voice: text,
      kind: text,
      audience: text,
      words: text,
      spelling: text,
      units: text,
      aim: text,
      hook: text,
      avoid: { type: 'string', multiple: true },
      cover: { type: 'string', multiple: true },
      listener: text,
      known: { type: 'string', multiple: true },
      genre: text,
      whose: text,
      by: text,
      rounds: text,
      veil: { type: 'boolean' },
      floor: { type: 'boolean' },
      ceiling: { type: 'boolean' },
    } as const;
    const { values, files } = parse(args, option, {
      least: 1,
      most: LETTERS.length,
      what: `one source file, and up to ${LETTERS.length - 1} beside it`,
    });
    if (values.floor && values.ceiling) throw new UsageError('A length is a floor or a ceiling, not both.');
    const target = {
      kind: values.floor ? 'floor' : values.ceiling ? 'ceiling' : 'point',
      seconds: lengthFrom(str(values.seconds)),
    } as const;
    const frame = oneOf('frame', str(values.frame), FRAMES) ?? '16:9';
    const mood = oneOf('mood', str(values.mood), MOODS) ?? 'calm';
    const shape = oneOf('shape', str(values.shape), SHAPE_IDS);
    const kind = oneOf('kind', str(values.kind), SOURCE_KINDS);
    const person = oneOf('person', str(values.person), PERSONS);
    const brief = briefFrom({
      mood,
      ...(person ? { person } : {}),
      ...given('audience', oneOf('audience', str(values.audience), AUDIENCES)),
      ...given('words', oneOf('words', str(values.words), WORDS)),
      ...given('spelling', oneOf('spelling', str(values.spelling), ['British', 'American'])),
      ...given('units', oneOf('units', str(values.units), ['metric', 'imperial', 'both'])),
      veil: values.veil === true,
      ...given('aim', oneOf('aim', str(values.aim), AIMS)),
      cover: pointsOf(values.cover),
      known: pointsOf(values.known),
      ...given('listener', str(values.listener)),
      ...given('genre', oneOf('genre', str(values.genre), GENRES)),
      ...given('whose', str(values.whose)),
      avoid: ((values.avoid as string[] | undefined) ?? [])
        .flatMap((w) => w.split(','))
        .map((w) => w.trim())
        .filter((w) => w.length > 1),
    });
    const seed = Number(values.seed ?? 1);
    if (!Number.isSafeInteger(seed)) throw new UsageError('--seed is a whole number.');
    const as = oneOf('as', str(values.as), ['json', 'text', 'markdown']) ?? 'json';
    const by = oneOf('by', str(values.by), ['rule', 'service']) ?? 'rule';
    const rounds = roundsFrom(str(values.rounds));
    const pace = paceFrom(str(values.pace)) ?? DEFAULT_PACE[frame];
    const voice = voiceFrom(str(values.voice));
    const clock = getClock(voice, pace);
    const [{ document: source }, ...others] = await Promise.all(
      files.map(async (file, i) => ({
        letter: LETTERS[i],
        document: await openSource(fileBytes(file, LARGEST_FILE), kind && i === 0 ? { kind } : {}),
      })),
    );
    const tools = { tagger: getTagger(), clock, solver: await getSolver() };
    const material = [{ letter: 'A', document: source }, ...others].map((o) => ({
      letter: o.letter,
      source: o.document,
      facts: extractFacts(o.document, tools.tagger),
    }));
    const title = str(values.title);
    const check = title === undefined ? null : checkTitle(title, material);
    if (check && !check.paid)
      throw new UsageError(
        `The ${others.length ? 'sources' : 'source'} can’t pay for “${title}”: ${check.why}`,
      );
    const kindOfHook = oneOf('hook', str(values.hook), HOOK_KINDS);
    const hook = kindOfHook ? hooksOf(material, tools, seed).find((h) => h.kind === kindOfHook) : undefined;
    if (kindOfHook && !hook)
      throw new UsageError(
        `No fact of the ${others.length ? 'sources' : 'source'} carries a hook of the kind ${kindOfHook}.`,
      );
    const draft = draftScript(
      source,
      {
        target,
        mood,
        seed,
        others,
        brief,
        ...(shape ? { shape } : {}),
        ...(hook ? { hook } : {}),
        short: isShort({ frame, target }),
        ...(check?.paid ? { must: [`${check.pays.source}:${check.pays.fact}`] } : {}),
      },
      tools,
    );
    const printedSources = [{ letter: 'A', document: source }, ...others].map(({ letter, document }) => ({
      id: letter,
      ...printedSource(document, extractFacts(document, getTagger())),
    }));
    const file = scriptFile(
      {
        title: title ?? source.title,
        frame,
        mood,
        pace,
        voice: voice.id,
        seed,
        shape: draft.shape,
        target,
        brief,
      },
      draft.sections,
      clock,
      printedSources,
    );
    const told =
      by === 'service'
        ? await toldByService(file, rounds, clock, process.env)
        : { script: file, notes: [...draft.notes] };
    return { out: await writerById(as)!.write(kitOfFile(told.script)), notes: told.notes };
  },

  check: async (args) => {
    const { values, files } = parse(
      args,
      { source: { type: 'string', multiple: true }, pace: text, voice: text },
      { least: 1, most: 1, what: 'one script' },
    );
    const raw = fileText(files[0]);
    const script = scriptFrom(files[0], raw);
    const opened = await Promise.all(
      ((values.source as string[] | undefined) ?? []).map(async (f) =>
        openSource(fileBytes(f, LARGEST_FILE)),
      ),
    );
    const clock = getClock(
      voiceFrom(
        str(values.voice) ??
          (script && script.voice in { even: 1, quick: 1, plain: 1 } ? script.voice : undefined),
      ),
      paceFrom(str(values.pace)) ?? script?.pace,
    );
    const sources = opened.length
      ? opened.map((document, i) => ({
          letter: LETTERS[i],
          text: document.text,
          facts: extractFacts(document, getTagger()),
          kind: document.kind,
          ...given('published', document.published),
        }))
      : (script?.sources ?? []).map(sourceOfFile).filter((s) => s.text);
    const sections = script ? sectionsOfFile(script) : sectionsOfLines(plainLines(raw));
    const tools = { clock, pronouncer: getPronouncer(), tagger: getTagger(), kin: getKin() };
    return {
      out: json(
        checkScript(
          { title: script?.title ?? '', sections, ...given('target', script?.target) },
          sources,
          tools,
          await (await import('@ursprung/server/grammar')).grammarOf(sections, sources),
        ),
      ),
    };
  },

  revise: async (args) => {
    const { values, files } = parse(args, { note: text }, { least: 1, most: 1, what: 'one script file' });
    const note = str(values.note);
    if (!note?.trim()) throw new UsageError('Say what should change: --note "shorten the opening".');
    const script = neededScript(files[0]);
    const clockAt = (pace: number) => getClock(voiceFrom(knownVoice(script)), pace);
    const clock = clockAt(script.pace);
    const tagger = getTagger();
    const { notes, ...result } = reviseFile(script, note, {
      clock,
      clockAt,
      kin: getKin(),
      pronouncer: getPronouncer(),
      tagger,
      draft: { tagger, clock, solver: await getSolver() },
    });
    return { out: json(result), notes };
  },

  commission: async (args) => {
    const option = { seconds: text, section: text, reply: text, by: text, as: text, letters: text, frame: text, mood: text, pace: text, seed: text, voice: text } as const; // prettier-ignore
    const { values, files } = parse(args, option, {
      least: 1,
      most: LETTERS.length,
      what: 'a script file, or one or more sources',
    });
    const script = files.length === 1 ? scriptFileIn(files[0]) : null;
    if (values.reply !== undefined) {
      if (!script)
        throw new UsageError('A reply is taken into a script file: name the one the order was for.');
      const shape = oneOf('as', str(values.as), ['script', 'report'] as const) ?? 'script';
      const {
        script: taken,
        notes,
        report,
      } = replyTaken(
        script,
        await draftText(fileBytes(str(values.reply)!, LARGEST_DRAFT)),
        str(values.by) ?? 'an outside writer',
        new Date().toISOString(),
        voiceFrom(str(values.voice) ?? knownVoice(script)),
      );
      return { out: json(shape === 'report' ? report : taken), notes };
    }
    if (values.as !== undefined)
      throw new UsageError('--as report tells what became of a reply: name it with --reply.');
    const letters = values.letters === undefined ? undefined : Number(values.letters);
    if (letters !== undefined && !(letters >= LEAST_LETTERS && letters <= 200_000))
      throw new UsageError(`--letters is the longest order, from ${LEAST_LETTERS} to 200000.`);
    if (script) {
      const target = values.seconds === undefined ? script.target : { ...script.target, seconds: lengthFrom(str(values.seconds)) }; // prettier-ignore
      const clock = getClock(voiceFrom(str(values.voice) ?? knownVoice(script)), script.pace);
      return ordersText(contextOfFile(script, target), str(values.section), letters, clock);
    }
    const frame = oneOf('frame', str(values.frame), FRAMES) ?? '16:9';
    const seed = Number(values.seed ?? 1);
    if (!Number.isSafeInteger(seed)) throw new UsageError('--seed is a whole number.');
    const context = await contextOfSources({
      documents: await Promise.all(files.map((f) => openSource(fileBytes(f, LARGEST_FILE)))),
      letters: LETTERS,
      target: { kind: 'point', seconds: lengthFrom(str(values.seconds)) },
      frame,
      mood: oneOf('mood', str(values.mood), MOODS) ?? 'calm',
      pace: paceFrom(str(values.pace)) ?? DEFAULT_PACE[frame],
      voice: voiceFrom(str(values.voice)),
      seed,
    });
    const clock = getClock(voiceFrom(str(values.voice)), context.pace);
    return ordersText(context, str(values.section), letters, clock);
  },

  scenes: (args) => {
    const { values, files } = parse(args, { frame: text, pictures: text }, { least: 1, most: 1, what: 'one script file' }); // prettier-ignore
    const script = neededScript(files[0]);
    const frame = oneOf('frame', str(values.frame), FRAMES) ?? script.frame;
    const { scenes, pictures, cast } = filmOfFile(script, frame, picturesFrom(str(values.pictures)));
    return { out: json(scenes.map((scene, i) => printedScene(scene, pictures[i], cast))) };
  },

  export: async (args) => {
    const { values, files } = parse(
      args,
      { as: text, out: text, rate: text, limit: text, for: text, recording: text },
      { least: 1, most: 1, what: 'one script file' },
    );
    const formats = [...writers.map((w) => w.id), 'kit'];
    const as = oneOf('as', str(values.as), formats);
    if (!as) throw new UsageError(`Say the format: --as ${formats.join(', ')}.`);
    const who = oneOf('for', str(values.for), RECIPIENTS);
    const limit = values.limit === undefined ? undefined : Number(values.limit);
    if (limit !== undefined && !(limit >= 500 && limit <= 1_000_000))
      throw new UsageError('--limit is the most characters in one SSML file, from 500 on.');
    const rate = oneOf('rate', str(values.rate), FRAME_RATES);
    const script = neededScript(files[0]);
    const take = str(values.recording);
    const kit = kitOfFile(script, {
      ...(take
        ? { recording: await recordingOf(script, basename(take), fileBytes(take, LARGEST_RECORDING)) }
        : {}),
      ...(rate ? { rate } : {}),
      ...(limit ? { ssmlLimit: limit } : {}),
    });
    const bytes =
      as === 'kit'
        ? zipped(await pack(kit, { digest, ...(who ? { who } : {}) }))
        : await writerById(as)!.write(kit);
    if (values.out === undefined) return { out: bytes };
    const target = str(values.out)!;
    writeFileSync(target, bytes);
    const own = as === 'kit' ? fileName(kit.file.title, 'zip') : nameOf(kit, writerById(as)!);
    return { out: '', notes: [`${target} written (${own} would be its own name).`] };
  },
};

/** A script file, or null for a file that is a source. */
function scriptFileIn(path: string): ScriptFile | null {
  const bytes = fileBytes(path, LARGEST_FILE);
  return bytes[0] === 0x7b || /^\s*\{/.test(new TextDecoder().decode(bytes.subarray(0, 64)))
    ? scriptFrom(path, fileText(path))
    : null;
}

function neededScript(path: string): ScriptFile {
  const script = scriptFrom(path, fileText(path));
  if (!script) throw new UsageError(`${path} is no script file.`);
  return script;
}

/** A source as it stands inside a script file: its words, and its facts as far as the Read-through needs them. */
function sourceOfFile(source: ScriptFile['sources'][number]): ReviewSource {
  const { blocks, facts, kind } = source as { blocks?: unknown; facts?: unknown; kind?: unknown };
  const known = SOURCE_KINDS.find((k) => k === kind);
  const list = (value: unknown) =>
    Array.isArray(value) ? (value as { id?: unknown; text?: unknown }[]) : [];
  const text = list(blocks)
    .map((b) => (typeof b?.text === 'string' ? b.text : ''))
    .join('\n\n');
  return {
    letter: source.id,
    text,
    facts: list(facts).flatMap((f) =>
      typeof f.id === 'string' && typeof f.text === 'string' ? [{ id: f.id, text: f.text } as Fact] : [],
    ),
    ...(known ? { kind: known } : {}),
  };
}

/** Plain text as lines, one a sentence, a paragraph a section. */
function plainLines(raw: string): CheckedLine[] {
  let n = 0;
  return raw.split(/\n\s*\n/).flatMap((paragraph) => {
    const found = sentences(paragraph.replace(/\s+/g, ' '));
    return found.map((s, i) => ({ id: `L${++n}`, text: s.text, endsSection: i === found.length - 1 }));
  });
}

function recordingsIn(folder: string): { recordings: Recording[]; passed: string[] } {
  let names: string[];
  try {
    names = readdirSync(folder).sort();
  } catch {
    throw new UsageError(`${folder} is no folder that can be read.`);
  }
  const recordings: Recording[] = [];
  const passed: string[] = [];
  for (const name of names.filter((n) => n.endsWith('.txt'))) {
    const wav = name.replace(/\.txt$/, '.wav');
    if (!names.includes(wav)) {
      passed.push(`${name} has no recording and is passed over.`);
      continue;
    }
    try {
      recordings.push({ text: fileText(join(folder, name)), ms: wavMs(readFileSync(join(folder, wav))) });
    } catch (error) {
      passed.push(`${wav} is passed over: ${(error as Error).message}`);
    }
  }
  return { recordings, passed };
}
