/** A drafted script told by a text service in rounds: asked, checked, asked again for what failed. */
import {
  disclosureOf,
  MOST_ROUNDS,
  roundsSays,
  standingAfter,
  takenRounds,
  wholeSentences,
} from '@ursprung/core/commission';
import { scriptFile, type Origin, type ScriptFile } from '@ursprung/core/script';
import type { Clock } from '@ursprung/core/timing';
import { ApiError } from '@ursprung/server/errors';
import { modelFrom } from '@ursprung/server/model';
import { getKin, getTagger } from '@ursprung/server/tools';
import { contextOfFile } from './commission.ts';
import { UsageError } from './input.ts';

const USUAL_ROUNDS = 3;

/** How many rounds at most, as typed. */
export function roundsFrom(value: string | undefined): number {
  const rounds = value === undefined ? USUAL_ROUNDS : Number(value);
  if (!(Number.isInteger(rounds) && rounds >= 1 && rounds <= MOST_ROUNDS))
    throw new UsageError(`--rounds is how often is asked at most, from 1 to ${MOST_ROUNDS}.`);
  return rounds;
}

/** The script with the service's words in it, at its seconds. What still fails is told by rule or left open, and named. */
export async function toldByService(
  file: ScriptFile,
  rounds: number,
  clock: Clock,
  env: Readonly<Record<string, string | undefined>>,
): Promise<{ script: ScriptFile; notes: string[] }> {
  const service = modelFrom(env);
  if (!service)
    throw new UsageError(
      'No text service is named. Set URSPRUNG_MODEL_URL, and URSPRUNG_MODEL_KEY and URSPRUNG_MODEL_NAME where it needs them.',
    );
  const context = contextOfFile(file);
  const tools = { tagger: getTagger(), kin: getKin(), clock };
  const answers: string[] = [];
  let [tokens, round] = [0, 1];
  let early: string | null = null;
  for (;;) {
    const { next, checked } = standingAfter({ context, scope: {}, rounds }, answers, tools);
    if (next && early === null) {
      try {
        const { text, tokensIn, tokensOut, early: why } = await service.stream(next.text);
        tokens += tokensIn + tokensOut;
        ({ round } = next);
        answers.push(why ? wholeSentences(text) : text);
        continue;
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (!checked) throw new UsageError(error.message);
        early = error.message;
      }
    }
    const by: Origin = {
      kind: 'service',
      who: [service.host, service.name].filter(Boolean).join(', '),
      at: new Date().toISOString(),
    };
    let n = 0;
    const taken = takenRounds(context, checked!, { by, fresh: () => `s${(n++).toString(36)}` }, clock);
    const script = scriptFile({ ...file, mood: context.mood }, taken.sections, clock, file.sources);
    return {
      script,
      notes: [
        roundsSays(taken, {
          by: by.who,
          seconds: script.seconds,
          round,
          orders: answers.length,
          tokens,
          cost: null,
        }),
        ...(early ? [early] : []),
        ...taken.refused.map((r) => `Not taken, ${r.became}: “${r.text}” ${r.why}`),
        disclosureOf(taken.sections),
      ].filter(Boolean),
    };
  }
}
