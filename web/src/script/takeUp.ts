/**
 * Opening a script where a page left off: this tab's own before a reload, or one that is gone. What further pages left is
 * sent under their names. Nothing can be written before what was kept stands in the document.
 */
import { docFromJson } from '@ursprung/core/script';
import type { KeptPage, Stray } from './kept.ts';
import { wordsOf } from './strays.ts';
import { RETRY_MS, ScriptSync, type Failure, type SyncPorts } from './sync.ts';

export interface StoredScript {
  id: string;
  doc: unknown;
  version: number;
}
/** An open script, and what others left of it. */
export interface OpenScript {
  sync: ScriptSync;
  /** Sends what other pages that are gone left behind, each under its own name; it comes to this page like anybody's. */
  sendForOthers: () => Promise<void>;
  /** Keeps what stands and lets go of all of it, for whoever opens the script next. */
  close: () => Promise<void>;
}

const holds = (page: KeptPage) => page.waiting.length > 0 || page.strays.length > 0 || page.settings !== null;
const unfit = (ports: SyncPorts, texts: readonly string[]): Stray[] =>
  texts.filter(Boolean).map((text) => ({ id: ports.fresh(), text, why: 'does not fit' }));

/** A page's way from where it left off. Throws when the server can't be asked; nothing is lost then. */
async function resumed(kept: KeptPage, ports: SyncPorts, script?: StoredScript): Promise<ScriptSync> {
  const [{ doc }, log] =
    script && script.version === kept.version
      ? [script, { steps: [] }]
      : await Promise.all([ports.server.at(kept.version), ports.server.since(kept.version)]);
  // Steps of ours that stand in the log behind other people's were taken too: what was kept is older than they are.
  const foreign = log.steps.findIndex((s) => s.clientId !== kept.clientId);
  const late = foreign < 0 ? 0 : log.steps.slice(foreign).filter((s) => s.clientId === kept.clientId).length;
  const sync = new ScriptSync(kept.scriptId, kept.clientId, ports, docFromJson(doc), kept.version, {
    ...kept,
    waiting: kept.waiting.slice(late),
  });
  sync.receive(log);
  return sync;
}

const fresh = (script: StoredScript, ports: SyncPorts, start: Partial<KeptPage> = {}) =>
  new ScriptSync(script.id, ports.fresh(), ports, docFromJson(script.doc), script.version, start);

/** The script as the server has it, with the words of a page whose steps fit nothing any more. */
const strayed = (own: KeptPage, script: StoredScript, ports: SyncPorts): ScriptSync =>
  fresh(script, ports, {
    settings: own.settings,
    strays: [
      ...own.strays,
      ...unfit(ports, [
        own.waiting
          .map((w) => wordsOf(w.step))
          .join(' ')
          .trim(),
      ]),
    ],
  });

/** As long as the server can't say how the script went on since, it is asked again and again. */
async function resumedAtLast(
  own: KeptPage,
  script: StoredScript,
  ports: SyncPorts,
  wait: (why: string | null) => void,
  signal?: AbortSignal,
): Promise<ScriptSync | null> {
  while (!signal?.aborted) {
    try {
      const sync = await resumed(own, ports, script);
      wait(null);
      return sync;
    } catch (error) {
      const { status, message } = error as Failure;
      if (status === undefined) throw error;
      // The server has no such state any more: the script is as it has it, the words stay to be put in.
      if ((status >= 400 && status < 500 && status !== 429) || !holds(own))
        return strayed(own, script, ports);
      wait(message);
      await new Promise<void>((resolve) => void ports.timers.set(resolve, RETRY_MS));
    }
  }
  return null;
}

/** Opens a script. `wait` hears why it takes a while; null when `signal` ends it. */
export async function openScript(
  script: StoredScript,
  ports: SyncPorts,
  wait: (why: string | null) => void = () => {},
  signal?: AbortSignal,
): Promise<OpenScript | null> {
  const { keeper } = ports;
  let left: KeptPage[] = [];
  let keeps = keeper !== null;
  try {
    left = (await keeper?.claim(script.id, ports.tab)) ?? [];
  } catch {
    keeps = false;
  }
  const own = left.find((p) => p.tab === ports.tab) ?? left.find(holds);
  const sync = own ? await resumedAtLast(own, script, ports, wait, signal) : fresh(script, ports);
  const letGo = async (pages: readonly KeptPage[]) => {
    for (const page of pages) (await keeper!.hold(page.clientId))();
  };
  if (!sync || signal?.aborted) {
    await letGo(left);
    return null;
  }
  const release = (await keeper?.hold(sync.clientId).catch(() => undefined)) ?? (() => {});
  /** Keeps what another page's record held under this one's name, then removes that record. */
  const inherit = async (clientId: string) => {
    if (await sync.keep()) await keeper?.remove(clientId).catch(() => {});
  };
  const others: KeptPage[] = [];
  for (const page of left.filter((p) => p !== own))
    if (holds(page)) others.push(page);
    else await keeper!.remove(page.clientId).catch(() => {});
  if (own && own.clientId !== sync.clientId) await inherit(own.clientId);
  else if (keeps) await sync.keep();
  if (sync.status.waiting) sync.scheduleSend(0);

  let helping = false;
  let closed = false;
  const helpOne = async (kept: KeptPage): Promise<boolean> => {
    const theirs = await resumed(kept, ports);
    while (theirs.status.waiting && theirs.status.save === 'saving') await theirs.send();
    await theirs.close();
    if (theirs.status.save === 'kept-here') return false;
    const refused = theirs.waiting.map((w) => wordsOf(w.step.toJSON()));
    sync.offer([...theirs.status.strays, ...unfit(ports, refused)]);
    if (theirs.settings) sync.inherit(theirs.settings);
    return true;
  };
  const sendForOthers = async () => {
    if (!keeper || closed || helping) return;
    helping = true;
    try {
      others.push(...(await keeper.claim(script.id, '').catch(() => [])).filter(holds));
      for (let kept = others[0]; kept && !closed; kept = others[0]) {
        if (!(await helpOne(kept))) return;
        others.shift();
        await inherit(kept.clientId);
      }
    } catch (error) {
      if ((error as Failure).status === undefined) throw error;
    } finally {
      helping = false;
    }
    if (sync.status.waiting === 0) await sync.look();
  };
  const close = async () => {
    closed = true;
    await sync.close();
    release();
    await letGo(others.splice(0));
  };
  if (!keeps) sync.keepsNothing();
  return { sync, sendForOthers, close };
}
