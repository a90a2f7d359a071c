/**
 * An order told by the text service in one go, as a job (pg-boss): asked, checked, asked again for what failed, and put into
 * the script. What was answered is kept as it comes, so that another process goes on where one stopped.
 */
import { randomUUID } from 'node:crypto';
import type PgBoss from 'pg-boss';
import type { z } from 'zod';
import { plainSections, type Origin, type PlainSection } from '@ursprung/core/script';
import { roundsSays, wholeSentences } from '@ursprung/core/commission';
import type { RoundsOutcome, RoundsView, roundsInput } from './api.ts';
import type { Commissions } from './commissions.ts';
import type { Models, RoundsRow } from './db/models.ts';
import { ApiError } from './errors.ts';
import { startJobs } from './jobs.ts';
import type { Notices } from './notices.ts';
import type { RoundsTask } from './roundsTask.ts';
import type { Service } from './service.ts';
import { orderedFrom, putInto } from './ordered.ts';
import { opened } from './stored.ts';
import type { TextServices } from './textServices.ts';
import type { TextWork } from './work.ts';

const QUEUE = 'rounds';
const MOST_SHOWN = 20;
const WITHOUT_START = { exclude: ['start'] };
/** Scripts that one process has told at the same time: it mostly waits for the service. */
const AT_ONCE = 3;
const OVER = new Set<RoundsRow['state']>(['done', 'stopped', 'failed']);

export interface RoundsDeps {
  databaseUrl: string;
  service: Service;
  work: TextWork;
  commissions: Commissions;
  services: TextServices;
  notices: Notices;
  now: () => Date;
  log: (line: string) => void;
}

export class Rounds {
  private leaving = false;
  private constructor(
    private readonly deps: RoundsDeps,
    private readonly boss: PgBoss,
  ) {}

  static async start(deps: RoundsDeps): Promise<Rounds> {
    const boss = await startJobs(deps.databaseUrl, QUEUE, { max: 2 }, deps.log);
    const rounds = new Rounds(deps, boss);
    for (let i = 0; i < AT_ONCE; i++)
      await boss.work<{ id: string }>(QUEUE, { pollingIntervalSeconds: 0.5 }, ([job]) =>
        rounds.run(job.data.id),
      );
    return rounds;
  }
  /** What is being asked goes back to its place in the line, for the next process. */
  stop = (): Promise<void> => {
    this.leaving = true;
    return this.boss.stop({ graceful: true, timeout: 5000, wait: true });
  };

  private get models(): Models {
    return this.deps.service.models;
  }
  /** Without the sections it started from, which are long and only needed for its task. */
  private async row(id: string) {
    const row = await this.models.rounds.findOne({ where: this.deps.service.own({ id }), attributes: WITHOUT_START }); // prettier-ignore
    if (!row) throw new ApiError('not-found', 'This order is not here, or no longer.');
    return row;
  }

  async add(scriptId: string, { scope, most }: z.infer<typeof roundsInput>): Promise<RoundsView> {
    const script = await this.deps.service.scriptRow(scriptId);
    if (!(await this.deps.services.current()))
      throw new ApiError('not-found', 'No text service is configured.');
    const running = await this.models.rounds.findOne({
      where: this.deps.service.own({ scriptId, state: ['waiting', 'asking'] }),
    });
    if (running) throw new ApiError('bad-request', 'This script is being told just now. Stop it first.');
    const start = plainSections(opened(script)).map(bare);
    const has = (part: { id: string; lines: readonly { id: string }[] }) =>
      (!scope.section || part.id === scope.section) && (!scope.line || part.lines.some((l) => l.id === scope.line)); // prettier-ignore
    if (!start.some(has)) throw new ApiError('bad-request', 'The script has no such part.');
    const id = randomUUID();
    const row = await this.models.rounds.create({
      id,
      workspaceId: this.deps.service.workspaceId,
      scriptId,
      scope,
      most,
      state: 'waiting',
      start,
      asked: [],
      answers: [],
      message: null,
      outcome: null,
      at: this.deps.now(),
      endedAt: null,
    });
    // Before anything is sent it is known that there is something to order.
    try {
      await this.deps.work.nextAsked(await this.task(row));
    } catch (error) {
      await row.destroy();
      throw error;
    }
    await this.boss.send(QUEUE, { id }, { retryLimit: 3, retryDelay: 0, expireInHours: 2 });
    return this.view(row);
  }

  async list(scriptId: string): Promise<RoundsView[]> {
    await this.deps.service.scriptRow(scriptId);
    const rows = await this.models.rounds.findAll({
      where: this.deps.service.own({ scriptId }),
      order: [['at', 'DESC']],
      limit: MOST_SHOWN,
      attributes: WITHOUT_START,
    });
    return Promise.all(rows.map((r) => this.view(r)));
  }
  one = async (id: string): Promise<RoundsView> => this.view(await this.row(id));

  watch = (id: string, tell: (row: RoundsView) => void): Promise<() => void> =>
    this.deps.notices.follow(id, () => this.one(id), tell);

  /** Ends it: nothing more is asked, nothing is put into the script; what came stays with its orders. */
  async halt(id: string): Promise<RoundsView> {
    const row = await this.row(id);
    await this.save(id, {
      state: 'stopped',
      message: 'Stopped. What came is kept with the Commission.',
      endedAt: this.deps.now(),
    });
    const last = row.asked.at(-1);
    if (last) await this.deps.commissions.halt(last);
    return this.one(id);
  }

  private task = async ({ scriptId, start, scope, most, answers }: RoundsRow): Promise<RoundsTask> => ({
    ...(await orderedFrom(this.deps.service, scriptId)),
    start,
    scope: {
      ...(scope.section ? { section: scope.section } : {}),
      ...(scope.line ? { line: scope.line } : {}),
    },
    rounds: most,
    answers,
  });

  private async run(id: string): Promise<void> {
    try {
      const why = await this.asked(id);
      if (why !== 'over') await this.taken(id, why);
    } catch (error) {
      if (this.leaving) {
        await this.save(id, { state: 'waiting' });
        throw error;
      }
      if (!(error instanceof ApiError))
        this.deps.log(`rounds ${id}: ${(error as Error).stack ?? String(error)}`);
      await this.save(id, {
        state: 'failed',
        message:
          error instanceof ApiError
            ? error.message
            : 'Something went wrong. Your script is as it was; try again.',
        endedAt: this.deps.now(),
      });
    }
  }

  /** Asks until nothing is left to ask. Answers with what ended it early, or null; "over" where somebody stopped it. */
  private async asked(id: string): Promise<string | null> {
    for (;;) {
      const row = await this.models.rounds.findOne({ where: { id } });
      if (!row || OVER.has(row.state)) return 'over';
      const { next } = await this.deps.work.nextAsked(await this.task(row));
      if (!next) return null;
      // One that was being answered when a server went is asked again, not a second time for another.
      const open = row.asked.length > row.answers.length ? row.asked.at(-1) : undefined;
      const commission = open ?? (await this.order(row, next.text));
      if (
        !(await this.save(id, {
          state: 'asking',
          asked: open ? row.asked : [...row.asked, commission],
          message: null,
        }))
      )
        return 'over';
      const answered = await this.deps.commissions.ask(
        commission,
        () => void this.deps.notices.tell(id).catch(this.lost(id)),
      );
      if (this.leaving) throw new Error('leaving');
      if (answered === null || answered.state === 'failed') {
        // What came before is whole, so it is used.
        const message = answered?.message ?? 'The order is not here any more.';
        if (row.answers.length && next.round > 1) return message;
        throw new ApiError('service-silent', message);
      }
      const reply = answered.state === 'broken' ? wholeSentences(answered.reply) : answered.reply;
      if (!(await this.save(id, { answers: [...row.answers, reply] }))) return 'over';
    }
  }

  private async order(row: RoundsRow, text: string): Promise<string> {
    const after = row.asked.at(-1);
    const { id } = await this.deps.commissions.add(row.scriptId, {
      scope: { ...row.scope, ...(/^ORDER: write /.test(text) && after ? { after } : {}) },
      order: text,
      to: { kind: 'service', who: '' },
      reply: '',
    });
    return id;
  }

  /** Puts what came into the script as it stands by now; sections that were written in meanwhile stay. */
  private async taken(id: string, early: string | null): Promise<void> {
    const row = await this.models.rounds.findOne({ where: { id } });
    if (!row) return;
    const task = await this.task(row);
    // Any of its orders says who wrote; some may have been put away meanwhile.
    const order = await this.models.commissions.findOne({ where: this.deps.service.own({ id: row.asked }) });
    if (!order)
      throw new ApiError('not-found', 'Its orders were put away, so nothing was put into the script.');
    const by: Origin = {
      kind: order.toKind as Origin['kind'],
      who: order.toWho,
      at: this.deps.now().toISOString(),
    };
    const was = new Map(row.start.map((x) => [x.id, wordsOf(x)]));
    const { taken, version } = await putInto(this.deps.service, row.scriptId, `rounds-${id}`, (sections) => {
      const stays = sections.filter((x) => was.get(x.id) !== wordsOf(x)).map((x) => x.id);
      return this.deps.work.takeRounds({ ...task, sections, stays, by, salt: randomUUID().slice(0, 6) });
    });
    const { settings } = await this.deps.service.scriptRow(row.scriptId);
    const outcome: RoundsOutcome = {
      count: taken.count,
      refused: taken.refused,
      offMs: taken.offMs,
      seconds: settings.target.seconds + taken.offMs / 1000,
      by: by.who,
      version,
    };
    await this.save(id, { state: 'done', outcome, message: early, endedAt: this.deps.now() });
  }

  /** Writes a state unless it is over; answers with whether it was written. */
  private async save(id: string, change: Partial<RoundsRow>): Promise<boolean> {
    const [n] = await this.models.rounds.update(change, { where: { id, state: ['waiting', 'asking'] } });
    if (n) await this.deps.notices.tell(id).catch(this.lost(id));
    return n > 0;
  }
  private lost = (id: string) => (error: Error) => this.deps.log(`rounds ${id}: ${error.message}`);

  private async view(row: RoundsRow): Promise<RoundsView> {
    const orders = await this.models.commissions.findAll({
      where: this.deps.service.own({ id: row.asked }),
      attributes: ['id', 'reply', 'message', 'state', 'scope', 'tokensIn', 'tokensOut', 'cost'],
    });
    const current = orders.find((o) => o.id === row.asked.at(-1));
    const sum = (of: (o: (typeof orders)[number]) => number) => orders.reduce((n, o) => n + of(o), 0);
    const spent = {
      tokensIn: sum((o) => o.tokensIn),
      tokensOut: sum((o) => o.tokensOut),
      cost: orders.some((o) => o.cost !== null) ? sum((o) => o.cost ?? 0) : null,
    };
    const round = 1 + orders.filter((o) => o.scope.after).length;
    return {
      id: row.id,
      scriptId: row.scriptId,
      scope: row.scope,
      state: row.state,
      most: row.most,
      round,
      orders: row.asked.length,
      commission: current?.id ?? null,
      came: current?.state === 'arriving' ? (current.reply.match(/[.!?]["”’]?(?=\s)/g) ?? []).length : 0,
      message: row.message ?? (row.state === 'asking' ? (current?.message ?? null) : null),
      outcome: row.outcome,
      says:
        row.outcome &&
        roundsSays(row.outcome, {
          ...row.outcome,
          round,
          orders: row.asked.length,
          tokens: spent.tokensIn + spent.tokensOut,
          cost: spent.cost,
        }),
      ...spent,
      at: row.at.toISOString(),
      endedAt: row.endedAt?.toISOString() ?? null,
    };
  }
}

/** A section without its history: what an order is written from. */
const bare = (s: PlainSection): PlainSection => ({
  ...s,
  takes: [],
  lines: s.lines.map((l) => ({ ...l, takes: [] })),
});
/** What a hand may have changed in a section. */
const wordsOf = (s: PlainSection): string =>
  JSON.stringify([s.locked, s.lines.map((l) => [l.text, l.locked, l.open?.length ?? 0])]);
