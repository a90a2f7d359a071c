/** The workspace's text service: from the environment, or entered once and kept with its key sealed. What it used this month. */
import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { z } from 'zod';
import type { TextServiceState, TextServiceView, textServiceInput } from './api.ts';
import type { Models, TextServiceRow } from './db/models.ts';
import { ApiError } from './errors.ts';
import { checked, guardedAgent, type LinkSettings } from './link.ts';
import { WAITS, textModel, tokensIn, type TextModel } from './model.ts';
import type { Secrets } from './secrets.ts';

export interface TextServicesDeps {
  models: Models;
  workspaceId: string;
  secrets: Secrets | null;
  links: LinkSettings;
  /** The one that the environment names; it goes before what is kept. */
  fromEnvironment: TextModel | null;
  /** The host of the stand-in that ships, where it runs: its words are told as a stand-in's. */
  standIn: string | null;
  now: () => Date;
}
/** What a reply is guessed to take, in tokens, for each token of its order: it is narration, not another order. */
const REPLY_SHARE = 0.6;

export class TextServices {
  constructor(private readonly deps: TextServicesDeps) {}

  private row = (): Promise<
    | (TextServiceRow & {
        update: (c: Partial<TextServiceRow>) => Promise<unknown>;
        destroy: () => Promise<void>;
      })
    | null
  > => this.deps.models.textServices.findOne({ where: { workspaceId: this.deps.workspaceId } });

  /** The service to ask, or null while there is none. */
  async current(): Promise<TextModel | null> {
    if (this.deps.fromEnvironment) return this.deps.fromEnvironment;
    const row = await this.row();
    if (!row) return null;
    const key = row.sealedKey === null ? undefined : this.opened(row.sealedKey);
    const allow = new Set(this.deps.links.allow ?? []);
    // Checked again at every use, and by the connection itself: a name may lead somewhere else by now.
    const url = this.allowed(row.address, allow);
    return textModel({
      address: url.href,
      speaks: row.speaks,
      ...(key ? { key } : {}),
      ...(row.model ? { model: row.model } : {}),
      dispatcher: guardedAgent(allow, {
        headersTimeout: WAITS.first,
        bodyTimeout: WAITS.between,
      }),
    });
  }

  private opened(sealed: string): string {
    try {
      if (this.deps.secrets) return this.deps.secrets.open(sealed);
    } catch {
      // Sealed with another secret.
    }
    throw new ApiError(
      'no-secret',
      'The key was kept with another secret than this server has now. Enter it again.',
    );
  }

  private allowed(address: string, allow: ReadonlySet<string>): URL {
    try {
      return checked(address, allow);
    } catch (error) {
      throw new ApiError('bad-request', (error as Error).message.replace(' Paste the text instead.', ''), { field: 'address' }); // prettier-ignore
    }
  }

  async state(): Promise<TextServiceState> {
    return { service: await this.view(), canKeep: this.deps.secrets !== null };
  }

  private async view(): Promise<TextServiceView | null> {
    const used = await this.used();
    const { fromEnvironment, standIn } = this.deps;
    if (fromEnvironment)
      return {
        host: fromEnvironment.host,
        speaks: fromEnvironment.speaks,
        model: fromEnvironment.name,
        from: 'environment',
        address: null,
        hasKey: true,
        standIn: fromEnvironment.host === standIn,
        priceIn: null,
        priceOut: null,
        monthlyTokens: null,
        usedTokens: used.tokens,
        usedCost: null,
      };
    const row = await this.row();
    if (!row) return null;
    const { host } = new URL(row.address);
    return {
      host,
      speaks: row.speaks,
      model: row.model,
      from: 'settings',
      address: row.address,
      hasKey: row.sealedKey !== null,
      standIn: host === standIn,
      priceIn: row.priceIn,
      priceOut: row.priceOut,
      monthlyTokens: row.monthlyTokens,
      usedTokens: used.tokens,
      usedCost: row.priceIn === null && row.priceOut === null ? null : used.cost,
    };
  }

  async keep(input: z.infer<typeof textServiceInput>): Promise<TextServiceState> {
    if (this.deps.fromEnvironment)
      throw new ApiError('bad-request', 'The text service is set by the environment of the server and can’t be changed here.'); // prettier-ignore
    const url = this.allowed(input.address, new Set(this.deps.links.allow ?? []));
    if (input.key && !this.deps.secrets) throw new ApiError('no-secret');
    const sealed = input.key ? this.deps.secrets!.seal(input.key) : undefined;
    const { key: _, ...plain } = input;
    const row = await this.row();
    // A kept key belongs to the host it was given for, and to the way there: it does not go where everybody can read it.
    const moved = row !== null && new URL(row.address).origin !== url.origin;
    const sealedKey = sealed ?? (moved ? null : (row?.sealedKey ?? null));
    const change = {
      ...plain,
      address: input.speaks === 'text' ? url.href : url.href.replace(/\/+$/, ''),
      sealedKey,
      at: this.deps.now(),
    };
    if (row) await row.update(change);
    else await this.deps.models.textServices.create({ id: randomUUID(), workspaceId: this.deps.workspaceId, ...change }); // prettier-ignore
    return this.state();
  }

  async forget(): Promise<TextServiceState> {
    await (await this.row())?.destroy();
    return this.state();
  }

  /** Tokens and money since the first of the month, UTC. */
  private async used(): Promise<{ tokens: number; cost: number }> {
    const now = this.deps.now();
    const since = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), 1));
    const rows = await this.deps.models.spending.findAll({
      where: { workspaceId: this.deps.workspaceId, at: { [Op.gte]: since } },
      attributes: ['tokensIn', 'tokensOut', 'cost'],
    });
    return {
      tokens: rows.reduce((n, r) => n + r.tokensIn + r.tokensOut, 0),
      cost: rows.reduce((n, r) => n + (r.cost ?? 0), 0),
    };
  }

  /** Writes down what was used: it stays when the order or the script it was for is gone. Answers with its cost. */
  async spent(
    what: 'note' | 'commission',
    tokens: { tokensIn: number; tokensOut: number },
  ): Promise<number | null> {
    const cost = await this.costOf(tokens);
    await this.deps.models.spending.create({
      id: randomUUID(),
      workspaceId: this.deps.workspaceId,
      what,
      ...tokens,
      cost,
      at: this.deps.now(),
    });
    return cost;
  }

  /** Throws when an order would go over the month's limit. */
  async within(order: string): Promise<void> {
    const view = await this.view();
    if (!view || view.monthlyTokens === null) return;
    const asked = Math.ceil(tokensIn(order) * (1 + REPLY_SHARE));
    if (view.usedTokens + asked > view.monthlyTokens)
      throw new ApiError(
        'service-limit',
        `This order would take about ${asked.toLocaleString('en')} tokens; ${Math.max(0, view.monthlyTokens - view.usedTokens).toLocaleString('en')} of the month’s ${view.monthlyTokens.toLocaleString('en')} are left. Copy the order instead, or raise the limit.`,
      );
  }

  private async costOf(tokens: { tokensIn: number; tokensOut: number }): Promise<number | null> {
    const row = this.deps.fromEnvironment ? null : await this.row();
    if (!row || (row.priceIn === null && row.priceOut === null)) return null;
    return (tokens.tokensIn * (row.priceIn ?? 0) + tokens.tokensOut * (row.priceOut ?? 0)) / 1e6;
  }
}
