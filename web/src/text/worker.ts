/** The page's text worker: the speech clock on every key, trace and scenes when typing rests. */
import dictionaryUrl from '../../../core/dist/pronunciations.bin?url';
import { makePronouncer, openDictionary, type Pronouncer } from '@ursprung/core/language';
import { noveltyOf } from '@ursprung/core/measure';
import { loopsOf } from '@ursprung/core/desk';
import { breakScenes, paceForCount, type PaceWanted } from '@ursprung/core/scenes/desk';
import type { PlainSection } from '@ursprung/core/script';
import { SHIPPED_VOICES, makeClock, type Clock } from '@ursprung/core/timing';
import { onRecording, paceOfRecording, withoutLead } from '@ursprung/core/handoff/recording';
import { layRecording } from '@ursprung/core/handoff/lay';
import {
  CAPTION_LIMITS,
  VERTICAL_LIMITS,
  captions as captionsOf,
  subRip,
} from '@ursprung/core/handoff/captions';
import {
  indexSources,
  isClose,
  overlap,
  stockOf,
  unsupportedIn,
  type SourceIndex,
  type SourceStock,
} from '@ursprung/core/trace';
import type { FromWorker, LaidRecording, LineTrace, ToWorker, WorkerSection } from './messages.ts';

const post = (message: FromWorker) => self.postMessage(message);

let pronouncer: Promise<Pronouncer> | undefined;
let clock: Clock | undefined;
let pace: PaceWanted = { frame: '16:9' };
let pacePerMinute = 150;
let index: SourceIndex | null = null;
let stock: SourceStock | null = null;

const getPronouncer = () =>
  (pronouncer ??= fetch(dictionaryUrl).then(async (r) => {
    if (!r.ok) throw new Error('The dictionary could not be loaded.');
    return makePronouncer(openDictionary(new Uint8Array(await r.arrayBuffer())));
  }));

async function handle(message: ToWorker): Promise<void> {
  if (message.type === 'setup') {
    clock = makeClock(await getPronouncer(), {
      voice: SHIPPED_VOICES[message.voice] ?? SHIPPED_VOICES.even,
      pace: message.pace,
      sayings: new Map(message.sayings),
    });
    pace = message.scenes;
    pacePerMinute = message.pace;
    index = message.sources.length ? indexSources(message.sources) : null;
    stock = message.support.length ? stockOf(message.support) : null;
    post({ type: 'ready' });
  } else if (message.type === 'time' && clock) {
    post({
      type: 'times',
      turn: message.turn,
      times: clock.lines(message.lines).map(({ ms, startMs, words }) => ({ ms, startMs, words })),
      band: clock.voice.calibration.p50,
    });
  } else if (message.type === 'pace' && clock) {
    const { turn, sections, count } = message;
    post({ type: 'paced', turn, pace: paceForCount(count, sections.map(asSection), clock, pace) });
  } else if (message.type === 'lay' && clock) {
    const { turn } = message;
    try {
      post({ type: 'laid', turn, recording: await lay(message, clock) });
    } catch (error) {
      post({ type: 'not laid', turn, message: (error as Error).message });
    }
  } else if (message.type === 'trace' && clock) {
    const lines = message.sections.flatMap((s) => s.lines);
    const shared = index
      ? overlap(
          lines.map((l) => l.text),
          index,
        )
      : null;
    const traces: Record<string, LineTrace> = {};
    lines.forEach((line, i) => {
      traces[line.id] = {
        shared: shared?.lines[i].ranges ?? [],
        close: shared ? isClose(shared.lines[i]) : false,
        unsupported: stock ? unsupportedIn(line.text, stock) : [],
      };
    });
    post({
      type: 'traces',
      turn: message.turn,
      traces,
      overlap: shared ? shared.share : null,
      scenes: breakScenes(message.sections.map(asSection), clock, pace),
      loops: loopsOf(message.sections.map(asSection)),
      novelty: noveltyOf(
        clock.lines(lines).map(({ ms, startMs }, i) => ({ text: lines[i].text, ms, startMs })),
      ),
    });
  }
}

/** Nothing of the sound leaves the page. */
async function lay(
  { sections, wav, captions }: Extract<ToWorker, { type: 'lay' }>,
  clock: Clock,
): Promise<LaidRecording> {
  const plain = sections.map(asSection);
  const { laid, by } = await layRecording(plain, clock, {
    ...(wav ? { wav: new Uint8Array(wav) } : {}),
    captions,
  });
  const limits = pace.frame === '9:16' ? VERTICAL_LIMITS : CAPTION_LIMITS;
  return {
    laid,
    pace: paceOfRecording(pacePerMinute, laid),
    by,
    srt: subRip(captionsOf(onRecording(plain, laid), withoutLead(clock), limits)),
  };
}

/** The worker needs what is heard, what it rests on, and where the writer set cuts. */
const asSection = ({ id, role, plannedMs, lines }: WorkerSection): PlainSection => ({
  id,
  title: '',
  role,
  plannedMs,
  locked: false,
  takes: [],
  lines: lines.map((l) => ({
    id: l.id,
    text: l.text,
    role: 'ground',
    restMs: l.restMs,
    fixedMs: l.fixedMs ?? null,
    locked: false,
    speaker: l.speaker ?? '',
    from: l.from ?? [],
    ...(l.marks ? { marks: l.marks } : {}),
    ...(l.scene ? { scene: l.scene } : {}),
    fixed: '',
    takes: [],
  })),
});

// One message after another: a setup that still loads must not be overtaken.
let queue: Promise<void> = Promise.resolve();
self.onmessage = (event: MessageEvent<ToWorker>) => {
  queue = queue
    .then(() => handle(event.data))
    .catch((error: Error) => post({ type: 'failed', message: error.message }));
};
