/**
 * A text service behind a port, in the common chat-completions shape or in plain text: streamed, with time-outs, retries
 * that wait, and an end to what is read. Its key stays here: it is in no answer, no log and no export. Nothing depends on it.
 */
import { request, type Dispatcher } from 'undici';
import { z } from 'zod';
import { SPEAKS, type Speaks } from './api.ts';
import { ApiError } from './errors.ts';
import { timeLimit } from './timeLimit.ts';

export interface Answered {
  text: string;
  /** As the service counted them, or estimated where it did not. */
  tokensIn: number;
  tokensOut: number;
  /** Why it ended early, in words; null when it ended by itself. */
  early: string | null;
}
export interface StreamOptions {
  /** All that has come so far. */
  onText?: (text: string) => void;
  /** What is waited for, in words, before another try. */
  onWait?: (says: string) => void;
  signal?: AbortSignal;
}
export interface TextModel {
  /** Where words go when it is asked, for the press that says so. */
  host: string;
  name: string;
  speaks: Speaks;
  /** The answer as one text. */
  answer: (order: string) => Promise<string>;
  stream: (order: string, options?: StreamOptions) => Promise<Answered>;
}
export interface ModelSettings {
  /** Everything before "/chat/completions"; for plain text the whole of it. */
  address: string;
  speaks?: Speaks;
  key?: string;
  model?: string;
  /** How connections are made: guarded where a person typed the address. */
  dispatcher?: Dispatcher;
  /** Milliseconds; tests give a clock of their own. */
  sleep?: (ms: number) => Promise<void>;
  /** For the whole answer, in milliseconds. */
  wholeMs?: number;
}

/** Milliseconds: for the first word, between two, and for the whole. */
export const WAITS = { first: 60_000, between: 30_000, whole: 600_000 } as const;
const LARGEST_ANSWER = 400_000;
const TRIES = 3;
const FIRST_BACKOFF_MS = 1000;
/** A service that asks to wait longer than this is told of instead. */
const LONGEST_RETRY_MS = 30_000;
/** A token is about four letters, as services tell it (common practice, no published source). */
const LETTERS_A_TOKEN = 4;
export const tokensIn = (text: string): number => Math.ceil(text.length / LETTERS_A_TOKEN);

const usageSchema = z.object({ prompt_tokens: z.number(), completion_tokens: z.number() });
type Usage = z.infer<typeof usageSchema>;
const pieceSchema = z.object({
  choices: z.array(z.object({ delta: z.object({ content: z.string().nullish() }).optional() })).default([]),
  usage: usageSchema.nullish(),
});
const wholeSchema = z.object({
  choices: z.array(z.object({ message: z.object({ content: z.string() }) })).min(1),
  usage: usageSchema.nullish(),
});

const refusal = (host: string, status: number): string =>
  status === 401 || status === 403
    ? `${host} does not accept the key.`
    : status === 404
      ? `${host} has no such address or model.`
      : status === 429
        ? `${host} is asked too often just now.`
        : status >= 500
          ? `${host} is in trouble (${status}).`
          : `${host} refused with ${status}.`;
const again = (status: number) => status === 429 || status >= 500;

/** Null while none is configured. Throws on an address that is none. */
export function modelFrom(env: Readonly<Record<string, string | undefined>>): TextModel | null {
  const { URSPRUNG_MODEL_URL: address, URSPRUNG_MODEL_KEY: key, URSPRUNG_MODEL_NAME: model } = env;
  const speaks = z.enum(SPEAKS).safeParse(env.URSPRUNG_MODEL_SPEAKS || 'chat');
  if (!speaks.success) throw new ApiError('bad-request', 'URSPRUNG_MODEL_SPEAKS is “chat” or “text”.');
  return address
    ? textModel({ address, speaks: speaks.data, ...(key ? { key } : {}), ...(model ? { model } : {}) })
    : null;
}

export function textModel({
  address,
  speaks = 'chat',
  key,
  model,
  dispatcher,
  sleep = pause,
  wholeMs = WAITS.whole,
}: ModelSettings): TextModel {
  const plain = speaks === 'text';
  const url = new URL(plain ? address : `${address.replace(/\/+$/, '')}/chat/completions`);
  const { host } = url;
  const silent = (says: string) => new ApiError('service-silent', says);

  const ask = async (order: string, signal: AbortSignal): Promise<Dispatcher.ResponseData> =>
    request(url, {
      method: 'POST',
      headers: {
        'content-type': plain ? 'text/plain; charset=utf-8' : 'application/json',
        accept: plain ? 'text/plain' : 'text/event-stream, application/json',
        ...(key ? { authorization: `Bearer ${key}` } : {}),
      },
      body: plain
        ? order
        : JSON.stringify({
            ...(model ? { model } : {}),
            messages: [{ role: 'user', content: order }],
            stream: true,
            stream_options: { include_usage: true },
          }),
      signal,
      headersTimeout: WAITS.first,
      bodyTimeout: WAITS.between,
      ...(dispatcher ? { dispatcher } : {}),
    });

  const once = async (order: string, options: StreamOptions, signal: AbortSignal) => {
    for (let attempt = 1; ; attempt++) {
      let answer: Dispatcher.ResponseData;
      try {
        answer = await ask(order, signal);
      } catch (error) {
        if (signal.aborted || (error as { code?: string }).code === 'INSIDE' || attempt === TRIES)
          throw error;
        await wait(FIRST_BACKOFF_MS * 2 ** (attempt - 1), `${host} gave no answer; trying again.`, options, signal); // prettier-ignore
        continue;
      }
      const { statusCode, headers, body } = answer;
      if (statusCode === 200) return answer;
      await body.dump({ limit: 65_536 }).catch(() => undefined);
      if (!again(statusCode) || attempt === TRIES) throw silent(refusal(host, statusCode));
      const asked = Number(headers['retry-after']) * 1000;
      const ms = Number.isFinite(asked) && asked >= 0 ? asked : FIRST_BACKOFF_MS * 2 ** (attempt - 1);
      if (ms > LONGEST_RETRY_MS) throw silent(`${refusal(host, statusCode)} It asks to wait ${Math.round(ms / 1000)} s.`); // prettier-ignore
      await wait(ms, `${refusal(host, statusCode)} Trying again in ${Math.max(1, Math.round(ms / 1000))} s.`, options, signal); // prettier-ignore
    }
  };
  const wait = async (ms: number, says: string, { onWait }: StreamOptions, signal: AbortSignal) => {
    onWait?.(says);
    await Promise.race([sleep(ms), new Promise((_, no) => signal.addEventListener('abort', () => no(signal.reason as Error), { once: true }))]); // prettier-ignore
  };

  const stream = async (order: string, options: StreamOptions = {}): Promise<Answered> => {
    const { signal, over } = timeLimit(wholeMs, options.signal);
    let text = '';
    try {
      const { headers, body } = await once(order, options, signal);
      const type = String(headers['content-type'] ?? '');
      const pieces = plain ? inText(body, type, host) : /event-stream/.test(type) ? inEvents(body) : inOne(body, host); // prettier-ignore
      let usage: Usage | null = null;
      let early: string | null = 'The answer broke off before its end.';
      for await (const piece of pieces) {
        usage = piece.usage ?? usage;
        if (piece.end) early = null;
        if (!piece.more) continue;
        text += piece.more;
        if (text.length > LARGEST_ANSWER) {
          early = 'The answer is longer than any narration; the rest was not read.';
          text = text.slice(0, LARGEST_ANSWER);
          break;
        }
        options.onText?.(text);
      }
      if (!text.trim()) throw silent(`${host} ended without a word.`);
      return counted(order, text, usage, early);
    } catch (error) {
      if (error instanceof ApiError) throw error;
      if (options.signal?.aborted) return counted(order, text, null, 'Stopped.');
      const { code, cause } = error as { code?: string; cause?: { code?: string } };
      if (code === 'INSIDE' || cause?.code === 'INSIDE')
        throw silent(`${host} leads inside a private network and is not asked.`);
      if (text) return counted(order, text, null, 'The answer broke off before its end.');
      throw silent(`${host} gave no answer.`);
    } finally {
      over();
    }
  };
  return { host, name: model ?? '', speaks, stream, answer: async (order) => (await stream(order)).text };
}

const counted = (order: string, text: string, usage: Usage | null, early: string | null): Answered => ({
  text,
  tokensIn: usage?.prompt_tokens ?? tokensIn(order),
  tokensOut: usage?.completion_tokens ?? tokensIn(text),
  early,
});

interface Piece {
  more?: string;
  usage?: Usage | null;
  /** Whether this is the end that the service meant, not one that it broke off at. */
  end?: boolean;
}

async function* inEvents(body: AsyncIterable<Buffer>): AsyncGenerator<Piece> {
  for await (const data of events(body)) {
    if (data === '[DONE]') {
      yield { end: true };
      return;
    }
    const { success, data: piece } = pieceSchema.safeParse(safeJson(data));
    if (success) yield { more: piece.choices[0]?.delta?.content ?? '', usage: piece.usage ?? null };
  }
}

/** An answer that came in one piece, though a stream was asked for. */
async function* inOne(body: AsyncIterable<Buffer>, host: string): AsyncGenerator<Piece> {
  let raw = '';
  for await (const more of decoded(body)) {
    raw += more;
    if (raw.length > LARGEST_ANSWER * 2)
      throw new ApiError('service-silent', `${host} sent more than can be read.`);
  }
  const { success, data } = wholeSchema.safeParse(safeJson(raw));
  if (!success) throw new ApiError('service-silent', `${host} sent an answer that can’t be read.`);
  yield { more: data.choices[0].message.content, usage: data.usage ?? null, end: true };
}

/** An answer in plain text. A page of HTML is somebody’s log-in wall or error, and data is not meant to be read out. */
async function* inText(body: AsyncIterable<Buffer>, type: string, host: string): AsyncGenerator<Piece> {
  if (type && !/^text\/(?:plain|markdown)|^application\/octet-stream/i.test(type))
    throw new ApiError('service-silent', `${host} answered with ${type.split(';')[0]} where plain text was asked for.`); // prettier-ignore
  for await (const more of decoded(body)) yield { more };
  yield { end: true };
}

async function* decoded(body: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  for await (const chunk of body) yield decoder.decode(chunk, { stream: true });
  yield decoder.decode();
}

/** The data of server-sent events (WHATWG HTML, section 9.2), one event after another. */
async function* events(body: AsyncIterable<Buffer>): AsyncGenerator<string> {
  let rest = '';
  for await (const more of decoded(body)) {
    rest += more;
    const blocks = rest.split(/\r?\n\r?\n/);
    rest = blocks.pop()!;
    if (rest.length > LARGEST_ANSWER) return;
    for (const block of blocks) {
      const data = block
        .split(/\r?\n/)
        .filter((l) => l.startsWith('data:'))
        .map((l) => l.slice(5).replace(/^ /, ''))
        .join('\n');
      if (data) yield data;
    }
  }
}

const pause = (ms: number) => new Promise<void>((r) => setTimeout(r, ms));
function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
