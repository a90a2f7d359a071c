/**
 * A text service behind a port, in the common chat-completions shape. Address, key and model come from the environment:
 * URSPRUNG_MODEL_URL, URSPRUNG_MODEL_KEY, URSPRUNG_MODEL_NAME. The key stays here. Nothing depends on it.
 */
import { z } from 'zod';
import { ApiError } from './errors.ts';

export interface TextModel {
  /** Where words go when it is asked, for the press that says so. */
  host: string;
  answer: (order: string) => Promise<string>;
}

const LONGEST_WAIT_MS = 60_000;
const LARGEST_ANSWER = 400_000;
const answerSchema = z.object({
  choices: z.array(z.object({ message: z.object({ content: z.string() }) })).min(1),
});

/** Null while none is configured. Throws on an address that is none. */
export function modelFrom(env: Readonly<Record<string, string | undefined>>): TextModel | null {
  const { URSPRUNG_MODEL_URL: address, URSPRUNG_MODEL_KEY: key, URSPRUNG_MODEL_NAME: model } = env;
  if (!address) return null;
  const url = new URL(`${address.replace(/\/+$/, '')}/chat/completions`);
  return {
    host: url.host,
    answer: async (order) => {
      let response: Response;
      try {
        response = await fetch(url, {
          method: 'POST',
          headers: { 'content-type': 'application/json', ...(key ? { authorization: `Bearer ${key}` } : {}) },
          body: JSON.stringify({ ...(model ? { model } : {}), messages: [{ role: 'user', content: order }] }),
          signal: AbortSignal.timeout(LONGEST_WAIT_MS),
          redirect: 'error',
        });
      } catch {
        throw new ApiError('service-silent', `${url.host} gave no answer.`);
      }
      if (!response.ok) throw new ApiError('service-silent', `${url.host} refused with ${response.status}.`);
      const text = await response.text();
      if (text.length > LARGEST_ANSWER)
        throw new ApiError('service-silent', `${url.host} sent more than can be read.`);
      const parsed = answerSchema.safeParse(safeJson(text));
      if (!parsed.success)
        throw new ApiError('service-silent', `${url.host} sent an answer that can’t be read.`);
      return parsed.data.choices[0].message.content;
    },
  };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
