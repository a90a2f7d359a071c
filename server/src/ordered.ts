/** What an order for a script is written from, as a worker takes it; and what a worker made of a reply, put into the script. */
import { randomUUID } from 'node:crypto';
import { contextOfSettings, type RoundsTaken } from '@ursprung/core/commission';
import {
  difference,
  docFromSections,
  plainSections,
  type Origin,
  type PlainSection,
} from '@ursprung/core/script';
import { ApiError } from './errors.ts';
import type { RoundsTask } from './roundsTask.ts';
import type { Service } from './service.ts';
import { opened } from './stored.ts';

/** All of an order's task but which part is ordered, and what was answered. Throws when the script has no source. */
export async function orderedFrom(
  service: Service,
  scriptId: string,
): Promise<Pick<RoundsTask, 'context' | 'sources' | 'voice' | 'sayings'>> {
  const script = await service.scriptRow(scriptId);
  const sources = await service.readOf(scriptId);
  if (!sources.length)
    throw new ApiError('bad-request', 'This script has no source to order from. Add one in Sources.');
  const channel = await service.models.channels.findOne({ where: service.own({ id: script.channelId }) });
  const { settings } = script;
  return {
    context: contextOfSettings(
      settings,
      { name: channel?.name ?? '', style: channel?.settings.style ?? null },
      sources,
    ),
    sources: sources.map(({ letter, document, facts, tags, own }) => ({
      letter,
      document,
      facts,
      tags,
      own,
    })),
    voice: settings.voice,
    sayings: channel?.settings.sayings ?? [],
  };
}

/** So often a script is taken up anew, where somebody writes in it just then. */
const TRIES = 5;

/** Puts what is made of the script's sections into it, as steps on what stands; answers with the version that has it. */
export async function putInto(
  service: Service,
  scriptId: string,
  clientId: string,
  make: (sections: PlainSection[]) => Promise<RoundsTaken | null>,
): Promise<{ taken: RoundsTaken; version: number }> {
  for (let n = 1; ; n++) {
    const script = await service.scriptRow(scriptId);
    const doc = opened(script);
    const taken = await make(plainSections(doc));
    if (!taken) throw new ApiError('service-silent', 'Nothing whole came.');
    const steps = difference(doc, docFromSections(taken.sections)).steps.map(
      (s) => s.toJSON() as { stepType: string },
    );
    try {
      const { version } = steps.length
        ? await service.appendSteps(scriptId, { version: script.version, clientId, origin: 'reply', steps })
        : script;
      return { taken, version };
    } catch (error) {
      if (!(error instanceof ApiError && error.code === 'behind') || n === TRIES) throw error;
    }
  }
}

/** A reply of a person's, checked and put into a script; of its sections only the first so many, where `first` says so. */
export async function takeReply(
  service: Service,
  scriptId: string,
  { reply, by, first = Infinity }: { reply: string; by: Origin; first?: number },
): Promise<RoundsTaken> {
  const task = await orderedFrom(service, scriptId);
  const salt = randomUUID().slice(0, 6);
  const { taken } = await putInto(service, scriptId, `hand-${salt}`, (start) => {
    const stays = start.slice(Math.min(first, start.length)).map((s) => s.id);
    return service.work.takeByHand({ ...task, start, reply, stays, by, salt });
  });
  return taken;
}
