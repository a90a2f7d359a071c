/** Orders that went out and replies that came in. A reply that streams is written as it comes, and every page that looks hears of it. */
import { randomUUID } from 'node:crypto';
import { Op, literal } from 'sequelize';
import type { z } from 'zod';
import type { CommissionView, commissionInput, replyInput } from './api.ts';
import type { CommissionRow, Models } from './db/models.ts';
import { ApiError } from './errors.ts';
import type { TextModel } from './model.ts';
import type { Notices } from './notices.ts';
import type { TextServices } from './textServices.ts';

/** A streaming reply is written at most this often, in milliseconds. */
const WRITE_EVERY_MS = 250;
const MOST_SHOWN = 60;
/** A reply that streams but was not written to for this long belongs to a process that is gone. */
const ABANDONED_MS = 120_000;

export interface CommissionsDeps {
  models: Models;
  workspaceId: string;
  services: TextServices;
  notices: Notices;
  standIn: string | null;
  now: () => Date;
  log: (line: string) => void;
}

type Row = CommissionRow & {
  update: (c: Partial<CommissionRow>) => Promise<unknown>;
  reload: () => Promise<unknown>;
  destroy: () => Promise<void>;
};

export class Commissions {
  private readonly stopping = new Map<string, AbortController>();
  private readonly running = new Map<string, Promise<void>>();

  constructor(private readonly deps: CommissionsDeps) {
    deps.notices.onAny((id, word) => {
      if (word === 'stop') this.stopping.get(id)?.abort();
    });
  }

  async stop(): Promise<void> {
    for (const c of this.stopping.values()) c.abort();
    await Promise.allSettled(this.running.values());
  }

  private async row(id: string): Promise<Row> {
    const row = await this.deps.models.commissions.findOne({
      where: { id, workspaceId: this.deps.workspaceId },
    });
    if (!row) throw new ApiError('not-found', 'This commission is not here, or no longer.');
    return row;
  }
  private async script(id: string): Promise<void> {
    const row = await this.deps.models.scripts.findOne({
      where: { id, workspaceId: this.deps.workspaceId, deletedAt: null },
      attributes: ['id'],
    });
    if (!row) throw new ApiError('not-found', 'This script is not here, or no longer.');
  }

  async list(scriptId: string): Promise<CommissionView[]> {
    await this.script(scriptId);
    const rows = await this.deps.models.commissions.findAll({
      where: { scriptId, workspaceId: this.deps.workspaceId },
      order: [['at', 'DESC']],
      limit: MOST_SHOWN,
    });
    return rows.map((r) => view(r, this.deps.now()));
  }
  one = async (id: string): Promise<CommissionView> => view(await this.row(id), this.deps.now());

  /** Writes an order down: for a person, or for the service, which is asked only by `send`. */
  async add(scriptId: string, input: z.infer<typeof commissionInput>): Promise<CommissionView> {
    await this.script(scriptId);
    const service = input.to.kind === 'service' ? await this.deps.services.current() : null;
    if (input.to.kind === 'service' && !service)
      throw new ApiError('not-found', 'No text service is configured.');
    const row = await this.deps.models.commissions.create({
      id: randomUUID(),
      workspaceId: this.deps.workspaceId,
      scriptId,
      scope: input.scope,
      orderText: input.order,
      toKind: service ? (service.host === this.deps.standIn ? 'stand-in' : 'service') : 'person',
      toWho: service ? [service.host, service.name].filter(Boolean).join(', ') : input.to.who,
      state: input.reply ? 'arrived' : 'waiting',
      reply: input.reply,
      message: null,
      tokensIn: 0,
      tokensOut: 0,
      cost: null,
      at: this.deps.now(),
      endedAt: input.reply ? this.deps.now() : null,
    });
    return view(row, this.deps.now());
  }

  /** Puts in a reply that was pasted or opened from a file. */
  async reply(id: string, { reply, who }: z.infer<typeof replyInput>): Promise<CommissionView> {
    const row = await this.row(id);
    if (row.state === 'arriving')
      throw new ApiError('bad-request', 'A reply is just arriving here. Stop it first.');
    await row.update({ reply, state: reply ? 'arrived' : 'waiting', message: null, endedAt: this.deps.now(), ...(who === undefined ? {} : { toWho: who }) }); // prettier-ignore
    await this.deps.notices.tell(id).catch(this.untold(id));
    return view(row, this.deps.now());
  }

  /** Sends the order to the service. Answers at once; what comes back is told by `watch`. */
  async send(id: string): Promise<CommissionView> {
    const row = await this.row(id);
    if (row.toKind === 'person') throw new ApiError('bad-request', 'This order is for a person. Copy it.');
    const service = await this.deps.services.current();
    if (!service) throw new ApiError('not-found', 'No text service is configured.');
    await this.deps.services.within(row.orderText);
    const now = this.deps.now();
    // Of two that send it at once one does; the other sees it arrive.
    const [sent] = await this.deps.models.commissions.update(
      { state: 'arriving', reply: '', message: null, endedAt: null, at: now },
      {
        where: {
          id,
          workspaceId: this.deps.workspaceId,
          [Op.or]: [
            { state: { [Op.ne]: 'arriving' } },
            literal(`COALESCE("endedAt", "at") < to_timestamp(${(now.getTime() - ABANDONED_MS) / 1000})`),
          ],
        },
      },
    );
    await row.reload();
    if (!sent) return view(row, this.deps.now());
    this.running.set(
      id,
      this.run(row, service).finally(() => this.running.delete(id)),
    );
    return view(row, this.deps.now());
  }

  /** Sends the order and answers when its reply is there, or failed; `heard` is called while it comes. Null when it is gone. */
  async ask(id: string, heard: () => void): Promise<CommissionView | null> {
    const off = this.deps.notices.on(id, heard);
    try {
      await this.send(id);
      await this.running.get(id);
      return await this.one(id);
    } catch (error) {
      if (!(error instanceof ApiError) || error.code === 'not-found') throw error;
      return { ...(await this.one(id)), state: 'failed', message: error.message };
    } finally {
      off();
    }
  }

  async halt(id: string): Promise<CommissionView> {
    const row = await this.row(id);
    await this.deps.notices.tell(id, 'stop').catch(this.untold(id));
    // A process that is gone can't be told: what it left is ended here.
    if (row.state === 'arriving' && !this.stopping.has(id) && isAbandoned(row, this.deps.now()))
      await row.update({ state: 'broken', message: 'Stopped.', endedAt: this.deps.now() });
    return view(row, this.deps.now());
  }

  async remove(id: string): Promise<void> {
    this.stopping.get(id)?.abort();
    await (await this.row(id)).destroy();
  }

  watch = (id: string, tell: (c: CommissionView) => void): Promise<() => void> =>
    this.deps.notices.follow(id, () => this.one(id), tell);

  /** What is written stands, whoever could not be told of it: pages look again when they hear again. */
  private untold = (id: string) => (error: Error) => this.deps.log(`commission ${id}: ${error.message}`);

  private async run(row: Row, service: TextModel): Promise<void> {
    const stopper = new AbortController();
    this.stopping.set(row.id, stopper);
    let written = 0;
    let writing: Promise<unknown> = Promise.resolve();
    const write = (change: Partial<CommissionRow>) => {
      writing = writing
        .then(() => row.update(change))
        .then(() => this.deps.notices.tell(row.id))
        .catch(this.untold(row.id));
      return writing;
    };
    try {
      const answer = await service.stream(row.orderText, {
        signal: stopper.signal,
        onText: (reply) => {
          const now = this.deps.now().getTime();
          if (now - written < WRITE_EVERY_MS) return;
          written = now;
          write({ reply, message: null, endedAt: this.deps.now() }).catch(() => undefined);
        },
        onWait: (message) => {
          write({ message }).catch(() => undefined);
        },
      });
      const { tokensIn, tokensOut } = answer;
      await write({
        reply: answer.text,
        state: answer.early ? 'broken' : 'arrived',
        message: answer.early,
        tokensIn,
        tokensOut,
        cost: await this.deps.services.spent('commission', { tokensIn, tokensOut }),
        endedAt: this.deps.now(),
      });
    } catch (error) {
      if (!(error instanceof ApiError)) this.deps.log(`commission ${row.id}: ${(error as Error).message}`);
      await write({
        state: 'failed',
        message:
          error instanceof ApiError
            ? error.message
            : 'Something went wrong while asking. Nothing is lost; try again.',
        endedAt: this.deps.now(),
      });
    } finally {
      this.stopping.delete(row.id);
    }
  }
}

const isAbandoned = (row: CommissionRow, now: Date) =>
  row.state === 'arriving' && now.getTime() - (row.endedAt ?? row.at).getTime() > ABANDONED_MS;

const view = (row: CommissionRow, now: Date): CommissionView => ({
  id: row.id,
  scope: row.scope,
  order: row.orderText,
  to: { kind: row.toKind as CommissionView['to']['kind'], who: row.toWho },
  state: isAbandoned(row, now) ? 'broken' : row.state,
  reply: row.reply,
  message: isAbandoned(row, now) ? 'The answer broke off before its end.' : row.message,
  tokensIn: row.tokensIn,
  tokensOut: row.tokensOut,
  cost: row.cost,
  at: row.at.toISOString(),
  endedAt: row.endedAt?.toISOString() ?? null,
});
