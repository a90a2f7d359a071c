/**
 * Handing over: kits written as a job (pg-boss) and kept with what they were made from, so that a later look can say what
 * has changed; translations. The files live in PostgreSQL, none on this server's disk.
 */
import { randomUUID } from 'node:crypto';
import type PgBoss from 'pg-boss';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { Translation } from '@ursprung/core/handoff';
import { FORMAT, plainSections, type PlainSection } from '@ursprung/core/script';
import { languageOf } from '@ursprung/core/timing';
import type { TranslatorPort } from '@ursprung/standins';
import { handoffSettings, type HandoffView, type handoffInput } from './api.ts';
import type { HandoffRow, Models } from './db/models.ts';
import { ApiError } from './errors.ts';
import type { KitAsked } from './kits.ts';
import { Turns } from './turns.ts';
import { startJobs } from './jobs.ts';
import { opened } from './stored.ts';
import type { Notices } from './notices.ts';
import type { Service } from './service.ts';
import { getClock } from './tools.ts';
import type { TextWork } from './work.ts';

const QUEUE = 'handoff';
const TELL_EVERY_MS = 200;
/** Kits kept of one script for one recipient: the newest to compare with, and one before it. */
const KEPT = 2;

export interface HandoffsDeps {
  databaseUrl: string;
  service: Service;
  work: TextWork;
  notices: Notices;
  translator: TranslatorPort;
  now: () => Date;
  log: (line: string) => void;
}

export class Handoffs {
  private readonly leaving = new AbortController();
  /** The translator is a program of its own, a heavy one. */
  private readonly translating = new Turns(1);
  private constructor(
    private readonly deps: HandoffsDeps,
    private readonly boss: PgBoss,
  ) {}

  static async start(deps: HandoffsDeps): Promise<Handoffs> {
    const boss = await startJobs(deps.databaseUrl, QUEUE, { max: 2 }, deps.log);
    const handoffs = new Handoffs(deps, boss);
    await boss.work<{ id: string }>(QUEUE, { pollingIntervalSeconds: 0.5 }, ([job]) =>
      handoffs.run(job.data.id),
    );
    return handoffs;
  }
  /** A kit that is being written goes back to its place in the line, for the next process. */
  stop = (): Promise<void> => {
    this.leaving.abort();
    return this.boss.stop({ graceful: true, timeout: 5000, wait: true });
  };

  private get models(): Models {
    return this.deps.service.models;
  }

  /** What a kit is made from: the script as the server has it, or as the page has it. */
  async input(id: string, sections?: readonly PlainSection[]): Promise<KitAsked> {
    const { service } = this.deps;
    const row = await service.scriptRow(id);
    const [sources, channel] = await Promise.all([
      service.readOf(id),
      this.models.channels.findOne({ where: service.own({ id: row.channelId }) }),
    ]);
    const { settings } = row;
    const own = handoffSettings.parse(settings.handoff ?? {});
    return {
      settings,
      sections: sections ?? plainSections(opened(row)),
      language: 'en-GB',
      sources,
      channel: {
        name: channel?.name ?? '',
        style: channel?.settings.pictures?.style ?? '',
        sayings: channel?.settings.sayings ?? [],
        ...(channel?.settings.pictures?.usualMs ? { usualMs: channel.settings.pictures.usualMs } : {}),
      },
      cast: settings.cast ?? [],
      ...(settings.paceCurve ? { paceCurve: settings.paceCurve } : {}),
      upload: own.upload,
      rate: own.rate,
      ssmlLimit: own.ssmlLimit,
      children: settings.brief?.audience === 'children',
      synthetic: { voice: own.voiceMade, pictures: own.picturesMade },
      ...(own.recording ? { recording: own.recording } : {}),
    };
  }

  async film(id: string, sections: readonly PlainSection[]) {
    return this.deps.work.film({ input: await this.input(id, sections) });
  }

  async sheet(id: string, language: string | null, sections?: readonly PlainSection[]) {
    const input = await this.input(id, sections);
    const last = await this.models.handoffs.findOne({
      where: { scriptId: id, state: 'done', language },
      order: [['at', 'DESC']],
      attributes: { exclude: ['zip'] },
    });
    const translation = await this.translationOf(id, language);
    const answer = await this.deps.work.sheet({
      input,
      ...(translation ? { translation } : {}),
      ...(last && !language ? { before: last.snapshot } : {}),
    });
    return { ...answer, voice: await this.voiceMinutes() };
  }

  /** Minutes of voice of every script of the workspace that was handed over to a voice this month. */
  private async voiceMinutes(): Promise<number> {
    const from = this.deps.now();
    from.setUTCDate(1);
    from.setUTCHours(0, 0, 0, 0);
    const rows = await this.models.handoffs.findAll({
      where: { workspaceId: this.deps.service.workspaceId, state: 'done' },
      attributes: ['scriptId', 'who', 'at', 'voiceMs'],
    });
    const newest = new Map<string, number>();
    for (const r of rows)
      if (r.at >= from && (r.who === 'voice' || r.who === null)) newest.set(r.scriptId, r.voiceMs);
    return [...newest.values()].reduce((n, ms) => n + ms, 0) / 60_000;
  }

  async written(id: string, format: string, language: string | null, section?: string) {
    const translation = await this.translationOf(id, language);
    return this.deps.work.write({
      input: await this.input(id),
      format,
      ...(translation ? { translation } : {}),
      ...(section ? { section } : {}),
    });
  }

  // ---- kits ----------------------------------------------------------------------------------------------------------

  private async row(id: string) {
    const row = await this.models.handoffs.findOne({
      where: this.deps.service.own({ id }),
      attributes: { exclude: ['zip', 'snapshot'] },
    });
    if (!row) throw new ApiError('not-found', 'This kit is not here, or no longer.');
    return row;
  }

  async list(scriptId: string): Promise<HandoffView[]> {
    await this.deps.service.scriptRow(scriptId);
    const rows = await this.models.handoffs.findAll({
      where: { scriptId },
      attributes: { exclude: ['zip', 'snapshot'] },
      order: [['at', 'DESC']],
      limit: 20,
    });
    return rows.map(view);
  }

  async add(
    scriptId: string,
    { who, without, language }: z.infer<typeof handoffInput>,
  ): Promise<HandoffView> {
    const { sections, settings } = await this.input(scriptId);
    await this.translationOf(scriptId, language);
    const row = await this.models.handoffs.create({
      id: randomUUID(),
      workspaceId: this.deps.service.workspaceId,
      scriptId,
      who,
      language,
      without,
      state: 'waiting',
      stage: 'waiting its turn',
      done: 0,
      of: 0,
      message: null,
      files: [],
      left: [],
      zip: null,
      snapshot: {
        title: settings.title,
        sections: sections.map((s) => ({
          ...s,
          takes: [],
          lines: s.lines.map((l) => ({ ...l, takes: [] })),
        })),
      },
      voiceMs: 0,
      format: FORMAT,
      at: this.deps.now(),
    });
    await this.boss.send(QUEUE, { id: row.id }, { retryLimit: 2, retryDelay: 0, expireInSeconds: 600 });
    return view(row);
  }

  one = async (id: string): Promise<HandoffView> => view(await this.row(id));
  watch = (id: string, tell: (row: HandoffView) => void): Promise<() => void> =>
    this.deps.notices.follow(id, () => this.one(id), tell);

  async zip(id: string): Promise<{ bytes: Buffer; title: string; who: string | null }> {
    const row = await this.models.handoffs.findOne({ where: this.deps.service.own({ id }) });
    if (!row?.zip) throw new ApiError('not-found', 'This kit is not here, or not made yet.');
    return { bytes: row.zip, title: row.snapshot.title, who: row.who };
  }

  private async run(id: string): Promise<void> {
    const row = await this.models.handoffs.findOne({ where: { id } });
    if (!row || row.state === 'done' || row.state === 'failed') return;
    let told = 0;
    const progress = (stage: string, done: number, of: number) => {
      const now = Date.now();
      if (now - told < TELL_EVERY_MS) return;
      told = now;
      this.save(id, { state: 'writing', stage, done, of }).catch(this.lost(id));
    };
    try {
      const input = await this.input(row.scriptId, row.snapshot.sections);
      const translation = await this.translationOf(row.scriptId, row.language);
      const packed = await this.deps.work.pack(
        {
          input: { ...input, settings: { ...input.settings, title: row.snapshot.title } },
          without: row.without,
          ...(row.who ? { who: row.who } : {}),
          ...(translation ? { translation } : {}),
        },
        progress,
        this.leaving.signal,
      );
      const clock = getClock(input.settings.voice, input.settings.pace, input.channel.sayings);
      const voiceMs = clock
        .lines(input.sections.flatMap((s) => s.lines.map((l) => ({ text: l.text }))))
        .reduce((n, t) => n + t.ms, 0);
      // Older kits of the same go with it, before anyone hears that it is there.
      await this.save(
        id,
        {
          state: 'done',
          stage: 'made',
          zip: Buffer.from(packed.zip),
          files: packed.files.map((f, i) => ({ ...f, bytes: packed.sizes[i] })),
          left: [...packed.left],
          voiceMs,
        },
        row,
      );
    } catch (error) {
      if (this.leaving.signal.aborted) {
        await this.save(id, { state: 'waiting', stage: 'waiting its turn', done: 0, of: 0 });
        throw error;
      }
      if (!(error instanceof ApiError))
        this.deps.log(`handoff ${id}: ${(error as Error).stack ?? String(error)}`);
      await this.save(id, {
        state: 'failed',
        stage: 'not made',
        message:
          error instanceof ApiError
            ? error.message
            : 'Something went wrong while the kit was made. Try again; your script is safe.',
      });
    }
  }

  /** Writes a state unless it is over. `of`: the kit that takes the place of its older ones. */
  private async save(id: string, change: Partial<HandoffRow>, of?: HandoffRow): Promise<void> {
    const n = await this.deps.service.db.transaction(async (transaction) => {
      const [changed] = await this.models.handoffs.update(change, {
        where: { id, state: ['waiting', 'writing'] },
        transaction,
      });
      if (changed && of) await this.forgetOld(of, transaction);
      return changed;
    });
    if (n) await this.deps.notices.tell(id).catch(this.lost(id));
  }
  private lost = (id: string) => (error: Error) => this.deps.log(`handoff ${id}: ${error.message}`);

  private async forgetOld({ scriptId, who, language }: HandoffRow, transaction: Transaction): Promise<void> {
    const rows = await this.models.handoffs.findAll({
      where: { scriptId, who, language, state: 'done' },
      attributes: ['id'],
      order: [['at', 'DESC']],
      offset: KEPT,
      transaction,
    });
    if (rows.length)
      await this.models.handoffs.destroy({ where: { id: rows.map((r) => r.id) }, transaction });
  }

  // ---- translations ----------------------------------------------------------------------------------------------------

  async translations(
    scriptId: string,
  ): Promise<
    { language: string; name: string; origin: string; estimated: boolean; lines: number; at: string }[]
  > {
    await this.deps.service.scriptRow(scriptId);
    const rows = await this.models.translations.findAll({
      where: { scriptId },
      order: [['language', 'ASC']],
    });
    return rows.map((r) => ({
      language: r.language,
      name: languageOf(r.language)?.name ?? r.language,
      origin: r.body.origin,
      estimated: !(languageOf(r.language)?.measured ?? false),
      lines: Object.keys(r.body.lines).length,
      at: r.at.toISOString(),
    }));
  }

  private async translationOf(scriptId: string, language: string | null): Promise<Translation | null> {
    if (!language) return null;
    const row = await this.models.translations.findOne({ where: { scriptId, language } });
    if (!row) throw new ApiError('not-found', 'This script has no translation into that language yet.');
    return row.body;
  }

  private async keepTranslation(scriptId: string, body: Translation): Promise<void> {
    const { language } = body;
    await this.deps.service.db.transaction(async (transaction) => {
      // Two at once take turns: the later one stands.
      await this.deps.service.scriptRow(scriptId, { transaction, lock: true });
      await this.models.translations.destroy({ where: { scriptId, language }, transaction });
      await this.models.translations.create(
        {
          id: randomUUID(),
          workspaceId: this.deps.service.workspaceId,
          scriptId,
          language,
          body,
          format: FORMAT,
          at: this.deps.now(),
        },
        { transaction },
      );
    });
  }

  /** One line of a translation in other words; without any it is not translated. */
  async sayTranslated(scriptId: string, language: string, { line, text }: { line: string; text: string }) {
    const { sections } = await this.input(scriptId);
    if (!sections.some((s) => s.lines.some((l) => l.id === line)))
      throw new ApiError('not-found', 'This line is not in the script, or no longer.');
    await this.deps.service.db.transaction(async (transaction) => {
      // Two lines at once take turns, so that neither is lost.
      await this.deps.service.scriptRow(scriptId, { transaction, lock: true });
      const row = await this.models.translations.findOne({ where: { scriptId, language }, transaction });
      if (!row) throw new ApiError('not-found', 'This script has no translation into that language yet.');
      const { [line]: _said, ...others } = row.body.lines;
      const body = { ...row.body, lines: text ? { ...others, [line]: text } : others };
      await this.models.translations.update(
        { body, at: this.deps.now() },
        { where: { scriptId, language }, transaction },
      );
    });
    return { language, line };
  }

  async takeXliff(scriptId: string, xliff: string) {
    const { sections } = await this.input(scriptId);
    const read = await this.deps.work.fromXliff(xliff, [...sections]);
    if ('refused' in read) throw new ApiError('bad-request', read.refused);
    await this.keepTranslation(scriptId, read.translation);
    const { translation, missing, unknown } = read;
    return { language: translation.language, lines: Object.keys(translation.lines).length, missing, unknown };
  }

  /** A first translation by the stand-in, marked as a machine's. */
  async translate(scriptId: string, language: string) {
    const { translator } = this.deps;
    if (language !== translator.to)
      throw new ApiError(
        'bad-request',
        `The stand-in translates into ${languageOf(translator.to)?.name ?? translator.to} only.`,
      );
    const { sections, settings } = await this.input(scriptId);
    const lines = sections.flatMap((s) => s.lines).filter((l) => l.text.trim());
    const texts = [settings.title, ...sections.map((s) => s.title), ...lines.map((l) => l.text)];
    const out = await this.translating
      .take(() => translator.translate(texts))
      .catch((error: Error) => {
        throw error instanceof ApiError ? error : new ApiError('internal', error.message);
      });
    const [title, ...rest] = out;
    await this.keepTranslation(scriptId, {
      language,
      title,
      sections: Object.fromEntries(sections.map((s, i) => [s.id, rest[i]])),
      lines: Object.fromEntries(lines.map((l, i) => [l.id, rest[sections.length + i]])),
      origin: 'machine',
    });
    return { language, lines: lines.length, missing: 0, unknown: 0 };
  }

  async removeTranslation(scriptId: string, language: string): Promise<void> {
    await this.deps.service.scriptRow(scriptId);
    await this.models.translations.destroy({ where: { scriptId, language } });
  }
}

const view = ({
  id,
  who,
  language,
  state,
  stage,
  done,
  of,
  message,
  files,
  left,
  at,
}: HandoffRow): HandoffView => ({
  id,
  who,
  language,
  state,
  stage,
  done,
  of,
  message,
  files,
  left,
  at: at.toISOString(),
});
