/** What the Page asks of the server beside steps: states of old, named versions, notes, cleaning, grammar, style. Scoped to the workspace. */
import { randomUUID } from 'node:crypto';
import { Step } from 'prosemirror-transform';
import { Transaction } from 'sequelize';
import {
  FORMAT,
  scriptSchema,
  sectionsOfDraft,
  type CleanedDraft,
  type PlainSection,
} from '@ursprung/core/script';
import type { GrammarHit } from '@ursprung/core/review';
import type { HouseStyle, StyleDifference } from '@ursprung/core/measure';
import { answered, orderOf, type ReviseContext, type Revised } from '@ursprung/core/revise';
import { ownPace } from '@ursprung/core/scenes';
import type { z } from 'zod';
import type { channelPatch, reviseInput } from './api.ts';
import { ApiError } from './errors.ts';
import { opened, readable } from './stored.ts';
import type { Service } from './service.ts';
import { reviewed } from './sourceText.ts';
import type { TextServices } from './textServices.ts';
import { getClock } from './tools.ts';
import type { TextWork } from './work.ts';

/** Steps made within this time of one another are shown as one stretch of work, in milliseconds. */
const STRETCH_MS = 5 * 60_000;
const MOST_STRETCHES = 400;

export interface Stretch {
  /** The version it began on and the one it led to. */
  from: number;
  to: number;
  at: string;
  origin: string;
}
export interface ScriptHistory {
  version: number;
  stretches: Stretch[];
  names: { id: string; version: number; name: string; at: string }[];
}

export class PageDesk {
  constructor(
    private readonly service: Service,
    private readonly work: TextWork,
    private readonly now: () => Date,
    private readonly services: TextServices,
  ) {}

  private get models() {
    return this.service.models;
  }

  async history(id: string): Promise<ScriptHistory> {
    const row = await this.service.scriptRow(id);
    const rows = await this.models.steps.findAll({
      where: { scriptId: id },
      attributes: ['version', 'origin', 'at'],
      order: [['version', 'ASC']],
    });
    const stretches: Stretch[] = [];
    for (const r of rows) {
      const last = stretches[stretches.length - 1];
      const near = last && r.at.getTime() - new Date(last.at).getTime() < STRETCH_MS;
      if (near && last.origin === r.origin) Object.assign(last, { to: r.version, at: r.at.toISOString() });
      else stretches.push({ from: r.version - 1, to: r.version, at: r.at.toISOString(), origin: r.origin });
    }
    const names = await this.models.names.findAll({ where: { scriptId: id }, order: [['at', 'ASC']] });
    return {
      version: row.version,
      stretches: stretches.slice(-MOST_STRETCHES),
      names: names.map((n) => ({ id: n.id, version: n.version, name: n.name, at: n.at.toISOString() })),
    };
  }

  /** The document as it was at a version, made by taking back what came after. */
  async at(id: string, version: number): Promise<{ version: number; doc: unknown }> {
    // The document and what is taken back of it are of one moment.
    const [row, rows] = await this.service.db.transaction(
      { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
      async (transaction) => {
        const now = await this.service.scriptRow(id, { transaction });
        if (version > now.version) throw new ApiError('not-found', 'The script has no such state.');
        const back = await this.models.steps.findAll({
          where: { scriptId: id },
          attributes: ['version', 'inverse', 'format'],
          order: [['version', 'DESC']],
          limit: now.version - version,
          transaction,
        });
        return [now, back] as const;
      },
    );
    let doc = opened(row);
    for (const r of rows) {
      const result = Step.fromJSON(scriptSchema, r.inverse).apply(doc);
      if (!result.doc) throw new Error(`Step ${r.version} of ${id} can't be taken back: ${result.failed}`);
      doc = result.doc;
    }
    return { version, doc: doc.toJSON() as unknown };
  }

  async name(id: string, version: number, name: string) {
    const row = await this.service.scriptRow(id);
    if (version > row.version) throw new ApiError('not-found', 'The script has no such state.');
    const made = await this.models.names.create({
      id: randomUUID(),
      scriptId: id,
      version,
      name,
      at: this.now(),
    });
    return { id: made.id, version, name, at: made.at.toISOString() };
  }

  async unname(id: string, nameId: string) {
    await this.service.scriptRow(id);
    await this.models.names.destroy({ where: { scriptId: id, id: nameId } });
  }

  clean = (bytes: Uint8Array): Promise<CleanedDraft> => this.work.clean(bytes);
  grammar = (texts: string[]): Promise<GrammarHit[][]> => this.work.grammar(texts);

  /** A script with its sources, and what it is told from; null without sources. */
  private async ofScript(id: string) {
    const linked = await this.models.scriptSources.count({ where: { scriptId: id } });
    if (!linked) return { row: await this.service.scriptRow(id), sources: [], from: null };
    const { row, sources, source, options } = await this.service.drafted(id);
    return { row, sources, from: { source, options } };
  }

  /** A note on the page's own sections: what is not saved yet counts too. */
  async revise(id: string, { note, sections, selection }: z.infer<typeof reviseInput>): Promise<Revised> {
    const { row, sources, from } = await this.ofScript(id);
    const { title, voice, pace, frame, mood, paceCurve } = row.settings;
    const channel = await this.service.channelSettings(row.channelId);
    return this.work.revise({
      note,
      sections,
      selection: selection ?? null,
      title,
      voice,
      pace,
      sayings: channel?.sayings ?? [],
      pictures: { frame, mood, ...ownPace({ usualMs: channel?.pictures?.usualMs, paceCurve }) },
      sources,
      ...(from ? { from } : {}),
      salt: randomUUID().slice(0, 8),
    });
  }

  /** Where a note goes when it is put to the text service; null while none is configured. */
  async modelHost(): Promise<string | null> {
    return (await this.services.current())?.host ?? null;
  }

  /** A note beyond our operations, put to the text service: the same proposal, the same trace and checks. */
  async ask(id: string, { note, sections, selection }: z.infer<typeof reviseInput>): Promise<Revised> {
    const model = await this.services.current();
    if (!model) throw new ApiError('not-found', 'No text service is configured.');
    const { row, sources } = await this.ofScript(id);
    const context: ReviseContext = {
      sections,
      selection: selection ?? null,
      title: row.settings.title,
      sources: sources.map(reviewed),
      fresh: () => randomUUID().slice(0, 8),
    };
    const order = orderOf(note, context);
    await this.services.within(order);
    const { text: answer, tokensIn, tokensOut } = await model.stream(order);
    await this.services.spent('note', { tokensIn, tokensOut });
    const sayings = await this.service.sayings(row.channelId);
    return answered(note, answer, context, {
      clock: getClock(row.settings.voice, row.settings.pace, sayings),
    });
  }

  /** Other safe ways to tell a line; none without sources. */
  async tellings(id: string, line: string, sections: PlainSection[]): Promise<string[]> {
    const { from } = await this.ofScript(id);
    return from ? this.work.tellings({ ...from, sections, line }) : [];
  }

  async channel(id: string, transaction?: Transaction) {
    const row = await this.models.channels.findOne({
      where: this.service.own({ id }),
      ...(transaction ? { transaction, lock: true } : {}),
    });
    if (!row) throw new ApiError('not-found', 'This channel is not here, or no longer.');
    return row;
  }

  async changeChannel(id: string, { name, settings }: z.infer<typeof channelPatch>) {
    return this.service.db.transaction(async (transaction) => {
      const row = await this.channel(id, transaction);
      await row.update(
        { ...(name ? { name } : {}), settings: { ...row.settings, ...settings }, format: FORMAT },
        { transaction },
      );
      return { id, name: row.name, settings: row.settings };
    });
  }

  /** The channel's style from its own scripts in the library, or from finished ones that are pasted. */
  async style(id: string, pasted: readonly string[]): Promise<HouseStyle> {
    const channel = await this.channel(id);
    const rows = await this.models.scripts.findAll({
      where: this.service.own({ channelId: id, deletedAt: null }),
    });
    const own = pasted.length ? [] : rows.flatMap((r) => [readable(r)].filter((x) => x !== null));
    const cleaned = await Promise.all(pasted.map((text) => this.work.clean(new TextEncoder().encode(text))));
    const scripts = [
      ...own,
      ...cleaned.map((d) => sectionsOfDraft(d, () => randomUUID().slice(0, 8))),
    ].filter((s) => s.some((x) => x.lines.some((l) => l.text.trim())));
    if (!scripts.length)
      throw new ApiError(
        'bad-request',
        'A style is measured from finished scripts, and this channel has none yet. Paste some.',
      );
    const { voice, pace } = channel.settings;
    const style = await this.work.style({ scripts, voice, pace });
    await this.changeChannel(id, { settings: { style } });
    return style;
  }

  /** How a script measures against its channel; null while the channel has no style. */
  async against(
    id: string,
    sections: PlainSection[],
  ): Promise<{ differences: StyleDifference[]; style: HouseStyle } | null> {
    const row = await this.service.scriptRow(id);
    const { style } = (await this.channel(row.channelId)).settings;
    if (!style) return null;
    const { voice, pace } = row.settings;
    const { differences } = await this.work.against({ sections, style, voice, pace });
    return { differences, style };
  }
}
