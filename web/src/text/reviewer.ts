/** The reviewer: the rules of the Read-through in a worker of their own, with the tagger, made when first needed. */
import kinUrl from '../../../core/dist/kin.tsv?url';
import dictionaryUrl from '../../../core/dist/pronunciations.bin?url';
import { makePronouncer, openDictionary, openKin } from '@ursprung/core/language';
import { quotedSpans } from '@ursprung/core/language';
import {
  checkTelling,
  grammarFindings,
  isWaived,
  keysOf,
  makeReviewer,
  prepareSources,
  provableIn,
  scoreOf,
  type GrammarHit,
  type ReviewSource,
  type ReviewTools,
} from '@ursprung/core/review';
import {
  failedIn,
  followUpOrder,
  makeOrders,
  makeReplyChecker,
  replyOrder,
  mergedReply,
  settleLength,
  type CommissionSource,
  type ReplyChecker,
} from '@ursprung/core/commission';
import { makeTagger } from '@ursprung/core/tagger';
import { SHIPPED_VOICES, makeClock } from '@ursprung/core/timing';
import type { Asked, FromReviewer, ReplyAsked, Replied, ToReviewer } from './messages.ts';

const post = (message: FromReviewer) => self.postMessage(message);

let tools: ReviewTools | null = null;
let review: ReturnType<typeof makeReviewer> | null = null;
let sources: ReviewSource[] = [];
let prepared: ReturnType<typeof prepareSources> | null = null;
const hits = new Map<string, GrammarHit[]>();

const pronouncer = fetch(dictionaryUrl).then(async (r) => {
  if (!r.ok) throw new Error('The dictionary could not be loaded.');
  return makePronouncer(openDictionary(new Uint8Array(await r.arrayBuffer())));
});

const words = fetch(kinUrl).then(async (r) => {
  if (!r.ok) throw new Error('The list of words could not be loaded.');
  return openKin(await r.text());
});

/** One checker an order: it keeps what it knows of lines from one piece of a stream to the next. */
let replyChecker: { key: string; checker: ReplyChecker } | null = null;
const commissionSources = (): CommissionSource[] =>
  sources.map((s) => ({ ...s, title: s.title ?? s.letter, kind: s.kind ?? 'news' }));

function checkReply(asked: ReplyAsked): Replied {
  const context = { ...asked.context, sources: commissionSources() };
  const order = replyOrder(context, asked.sections);
  const key = JSON.stringify(order);
  if (replyChecker?.key !== key)
    replyChecker = {
      key,
      checker: makeReplyChecker(context.sources, order, {
        tagger: tools!.tagger!,
        kin: tools!.kin ?? null,
        clock: tools!.clock,
      }),
    };
  const { checker } = replyChecker;
  const base = asked.base === null ? null : checker.check(asked.base, true);
  const text = base ? mergedReply(base, asked.text, asked.sections) : asked.text;
  const checked = checker.check(text, asked.done);
  const failed = failedIn(checked, asked.sections);
  return {
    checked,
    followUp: asked.done ? followUpOrder(context, checked, asked.sections) : null,
    failed: failed.lines.length + failed.unsaid.length + failed.more.length,
  };
}

function answer(message: Asked) {
  switch (message.type) {
    case 'order':
      return makeOrders(
        { ...message.context, sources: commissionSources() },
        message.scope,
        { clock: tools!.clock, tagger: tools!.tagger! },
        {
          letters: message.letters,
        },
      );
    case 'reply':
      return checkReply(message);
    case 'settle':
      // Only rests are set here: what is left out is the writer's to say.
      return settleLength(message.sections, message.target, message.mood, tools!.clock, () => null).sections;
  }
}

async function handle(message: ToReviewer): Promise<void> {
  switch (message.type) {
    case 'setup': {
      const known = await pronouncer;
      const clock = makeClock(known, {
        voice: SHIPPED_VOICES[message.voice] ?? SHIPPED_VOICES.even,
        pace: message.pace,
        sayings: new Map(message.sayings),
      });
      tools = { clock, pronouncer: known, tagger: tools?.tagger ?? makeTagger(), kin: await words };
      review = makeReviewer(tools);
      replyChecker = null;
      ({ sources } = message);
      prepared = sources.length ? prepareSources(sources, tools.kin ?? null) : null;
      return;
    }
    case 'grammar':
      for (const [text, found] of message.hits) hits.set(text, found);
      return;
    case 'review': {
      if (!review) return;
      const began = performance.now();
      const result = review({ ...message.input, sources });
      const off = new Set(message.input.off);
      const grammar = message.input.sections.flatMap((s) =>
        s.lines.flatMap((l) =>
          l.fixed || !hits.get(l.text)?.length
            ? []
            : grammarFindings(
                { id: l.id, text: l.text, locked: l.locked || s.locked, quotes: quotedSpans(l.text) },
                hits.get(l.text)!,
                prepared,
              ).filter((f) => !off.has(f.rule)),
        ),
      );
      const all = [...result.findings, ...grammar];
      const findings = all.filter((f) => !isWaived(f, message.waived));
      post({
        type: 'reviewed',
        turn: message.turn,
        tookMs: performance.now() - began,
        review: {
          findings,
          waived: all.filter((f) => isWaived(f, message.waived)),
          score: sources.length ? scoreOf(findings) : null,
          claims: sources.length ? [] : provableIn(message.input.sections.flatMap((s) => s.lines)),
          grade: result.grade,
          overlap: result.overlap,
        },
      });
      return;
    }
    case 'order':
    case 'reply':
    case 'settle':
      try {
        post({ type: 'answer', turn: message.turn, answer: answer(message) });
      } catch (error) {
        post({ type: 'refused', turn: message.turn, message: (error as Error).message });
      }
      return;
    case 'telling': {
      if (!tools || !prepared) return;
      const facts = message.from.flatMap((f) => prepared!.factOf(f)?.fact ?? []);
      const { ms, words } = tools.clock.time(message.text);
      post({
        type: 'told',
        turn: message.turn,
        telling: {
          check: checkTelling(message.text, facts, prepared, tools),
          ms,
          words,
          keys: facts.map((f) => keysOf(f, tools!.tagger!)),
        },
      });
    }
  }
}

// One message after another; of reviews that wait only the newest is worth doing.
let queue: Promise<void> = Promise.resolve();
let newest = 0;
self.onmessage = (event: MessageEvent<ToReviewer>) => {
  const message = event.data;
  if (message.type === 'review') newest = message.turn;
  queue = queue
    .then(() => (message.type === 'review' && message.turn < newest ? undefined : handle(message)))
    .catch((error: Error) => post({ type: 'failed', message: error.message }));
};
