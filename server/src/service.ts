/** What can be done in a workspace. Every query is scoped to it. Routes are thin over this. */
import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, col, fn, type Sequelize, type Transaction } from 'sequelize';
import { Step } from 'prosemirror-transform';
import type { Carries, Redone } from '@ursprung/core/draft';
import type { HouseStyle } from '@ursprung/core/measure';
import { SHAPE_IDS, briefSchema, houseOf, type fixedSchema, type promiseSchema } from '@ursprung/core/plan';
import {
  DEFAULT_PACE,
  FORMAT,
  LONGEST_TARGET,
  SHORTEST_TARGET,
  checkChanged,
  clockLines,
  docFromSections,
  isShort,
  plainSections,
  scriptSchema,
  saidOfStamps,
  sectionsOfDraft,
  underInWords,
  underVideo,
  type ScriptNode,
} from '@ursprung/core/script';
import type { z } from 'zod';
import { handoffSettings, libraryQuery } from './api.ts';
import type {
  carriesInput,
  channelInput,
  deriveInput,
  promiseQuery,
  redoInput,
  scriptInput,
  settingsPatch,
  sourceSearch,
  stepsInput,
  FoundSource,
  ListedSource,
  Rights,
  Saying,
  ScriptRowSettings,
  ChannelSettings,
} from './api.ts';
import { defineModels, type Models, type ScriptRow, type SourceRow } from './db/models.ts';
import { ApiError } from './errors.ts';
import type { LinkSettings } from './link.ts';
import { Sources, anywhere, type ReadSource } from './sources.ts';
import { inFormat, opened } from './stored.ts';
import { summaryKey, type ScriptSummary } from './summaries.ts';
import { takeReply } from './ordered.ts';
import { getClock } from './tools.ts';
import type { DraftTask, Promised } from './worker.ts';
import type { TextWork } from './work.ts';

export interface ServiceDeps {
  db: Sequelize;
  work: TextWork;
  now: () => Date;
  links?: LinkSettings;
}

/** What a list of sources is made from. */
type ListedRow = Pick<SourceRow, 'id' | 'title' | 'summary' | 'createdAt'>;
const NEWEST: [string, string][] = [
  ['createdAt', 'DESC'],
  ['id', 'DESC'],
];

export class Service {
  readonly models: Models;
  readonly sources: Sources;
  constructor(
    private readonly deps: ServiceDeps,
    readonly workspaceId: string,
  ) {
    this.models = defineModels(deps.db);
    this.sources = new Sources({ ...deps, links: deps.links ?? {} }, this.models, workspaceId);
  }

  /** The one workspace of an installation without sign-in, made when it is missing. */
  static async open(deps: ServiceDeps): Promise<Service> {
    const { workspaces } = defineModels(deps.db);
    const id = await deps.db.transaction(async (transaction) => {
      // Two processes that start first at the same time make one.
      await deps.db.query('LOCK TABLE workspaces IN SHARE ROW EXCLUSIVE MODE', { transaction });
      const known = await workspaces.findOne({ order: [['createdAt', 'ASC']], transaction });
      const made = { id: randomUUID(), name: 'Workspace', createdAt: deps.now() };
      return (known ?? (await workspaces.create(made, { transaction }))).id;
    });
    return new Service(deps, id);
  }

  get work(): TextWork {
    return this.deps.work;
  }
  get db(): Sequelize {
    return this.deps.db;
  }

  own<T extends object>(where: T = {} as T) {
    return { ...where, workspaceId: this.workspaceId };
  }

  /** Channels with how many scripts they have. */
  async channels() {
    const { channels, scripts } = this.models;
    const [rows, counts] = await Promise.all([
      channels.findAll({ where: this.own(), order: [['createdAt', 'ASC']] }),
      scripts.findAll({
        where: this.own({ deletedAt: null }),
        attributes: ['channelId', [fn('count', col('id')), 'count']],
        group: 'channelId',
        raw: true,
      }) as unknown as Promise<{ channelId: string; count: string }[]>,
    ]);
    return rows.map(({ id, name, settings }) => ({
      id,
      name,
      settings,
      scripts: Number(counts.find((c) => c.channelId === id)?.count ?? 0),
    }));
  }

  /** The newest scripts and sources as lists, the newest last: of each what was worked out when it last changed. */
  async library(query: Partial<z.infer<typeof libraryQuery>> = {}) {
    const { scripts: most, sources: mostSources, channel, find } = libraryQuery.parse(query);
    const { scripts, sources, scriptSources } = this.models;
    const here = this.own({
      deletedAt: null,
      ...(channel ? { channelId: channel } : {}),
      ...(find ? { settings: { title: { [Op.iLike]: anywhere(find) } } } : {}),
    });
    const [channels, scriptCount, scriptRows, sourceCount, sourceRows] = await Promise.all([
      this.channels(),
      scripts.count({ where: here }),
      scripts.findAll({ where: here, attributes: { exclude: ['doc'] }, order: NEWEST, limit: most }),
      sources.count({ where: this.own({ deletedAt: null }) }),
      this.sourceRows({}, mostSources),
    ]);
    const links = await scriptSources.findAll({ where: { scriptId: scriptRows.map((s) => s.id) } });
    const shown = await this.summaries(scriptRows.reverse());
    const listed = [];
    for (const row of scriptRows) {
      const { key: _, heard: __, ...summary } = shown.get(row.id)!;
      listed.push({
        id: row.id,
        channelId: row.channelId,
        settings: row.settings,
        updatedAt: row.updatedAt,
        sourceIds: links.filter((l) => l.scriptId === row.id).map((l) => l.sourceId),
        ...summary,
      });
      // Settings are held against their schema, row by row: others are served in between.
      if (listed.length % 8 === 0) await aside();
    }
    return {
      channels,
      scripts: listed,
      sources: await this.listed(sourceRows.reverse()),
      /** How many there are in all. */
      counts: { scripts: scriptCount, sources: sourceCount },
    };
  }

  private sourceRows(where: { id?: string[] }, limit?: number): Promise<ListedRow[]> {
    return this.models.sources.findAll({
      where: this.own({ deletedAt: null, ...where }),
      attributes: ['id', 'title', 'summary', 'createdAt'],
      order: NEWEST,
      ...(limit === undefined ? {} : { limit }),
    });
  }

  /** Sources that a search found, as the library lists them, in its order. */
  async found(query: z.infer<typeof sourceSearch>): Promise<FoundSource[]> {
    const found = await this.sources.search(query);
    const listed = await this.listed(await this.sourceRows({ id: found.map((f) => f.id) }));
    return found.flatMap((f) => {
      const row = listed.find((l) => l.id === f.id);
      return row ? [{ ...f, ...row }] : [];
    });
  }

  /** Sources with what scripts tell of them. */
  private async listed(rows: readonly ListedRow[]): Promise<ListedSource[]> {
    const { scripts, scriptSources } = this.models;
    const links = await scriptSources.findAll({ where: { sourceId: rows.map((r) => r.id) } });
    const using = await scripts.findAll({
      where: this.own({ deletedAt: null, id: [...new Set(links.map((l) => l.scriptId))] }),
      attributes: { exclude: ['doc'] },
    });
    const told = await this.summaries(using);
    const heard = new Map<string, Set<string>>();
    const uses = new Map<string, number>();
    for (const { scriptId, letter, sourceId } of links) {
      if (!told.has(scriptId)) continue;
      uses.set(sourceId, (uses.get(sourceId) ?? 0) + 1);
      for (const fact of told.get(scriptId)!.heard[letter] ?? [])
        (heard.get(sourceId) ?? heard.set(sourceId, new Set()).get(sourceId)!).add(fact);
    }
    const out = [];
    for (const { id, title, summary, createdAt } of rows) {
      const known = summary ?? (await this.sources.summary(id));
      const on = new Set([...(heard.get(id) ?? [])].map((fact) => known.at[fact]));
      out.push({
        id,
        title,
        kind: known.kind,
        publisher: known.publisher,
        published: known.published,
        readAt: createdAt,
        passages: known.ms.length,
        heard: [...on].filter((i) => i !== undefined).length,
        strip: stripOf(known.ms, on),
        scripts: uses.get(id) ?? 0,
      });
    }
    return out;
  }

  /** Summaries of scripts, those that are of an earlier state made anew by a worker and kept. */
  private async summaries(rows: readonly ScriptRow[]): Promise<Map<string, ScriptSummary>> {
    const channels = await this.models.channels.findAll({ where: this.own() });
    const sayings = new Map(channels.map((c) => [c.id, c.settings.sayings ?? []]));
    const out = new Map<string, ScriptSummary>();
    const stale: { id: string; key: string; voice: string; pace: number; sayings: readonly Saying[] }[] = [];
    for (const row of rows) {
      const said = sayings.get(row.channelId) ?? [];
      const key = summaryKey(row, said);
      if (row.summary?.key === key) out.set(row.id, row.summary);
      else {
        const { voice, pace } = row.settings;
        stale.push({ id: row.id, key, voice, pace, sayings: said });
      }
    }
    for (let at = 0; at < stale.length; at += AT_A_TIME) {
      const some = stale.slice(at, at + AT_A_TIME);
      const docs = (await this.deps.db.query(
        'SELECT id, doc::text AS doc, format FROM scripts WHERE id = ANY($1::uuid[])',
        { type: QueryTypes.SELECT, bind: [some.map((s) => s.id)] },
      )) as { id: string; doc: string; format: number }[];
      const stored = new Map(docs.map((d) => [d.id, d]));
      const made = await this.deps.work.summaries({
        scripts: some.map(({ id, ...s }) => ({
          ...s,
          doc: stored.get(id)!.doc,
          format: stored.get(id)!.format,
        })),
      });
      for (const [i, summary] of made.entries()) {
        out.set(some[i].id, summary);
        await this.deps.db.query('UPDATE scripts SET summary = $2 WHERE id = $1', {
          bind: [some[i].id, JSON.stringify(summary)],
        });
      }
    }
    return out;
  }

  async addChannel(input: z.infer<typeof channelInput>) {
    const row = await this.models.channels.create({
      id: randomUUID(),
      workspaceId: this.workspaceId,
      name: input.name,
      settings: input.settings,
      format: FORMAT,
      createdAt: this.deps.now(),
    });
    return { id: row.id, name: row.name, settings: row.settings };
  }

  async addSource(bytes: Uint8Array, rights?: Rights) {
    const id = await this.sources.add(bytes);
    if (rights) await this.sources.change(id, { rights });
    return { id };
  }

  /** Sources under their letters, each once. */
  private async lettered(ids: readonly string[]): Promise<Lettered[]> {
    return Promise.all(
      [...new Set(ids)].map(async (id, i) => ({ letter: LETTERS[i], ...(await this.sources.read(id)) })),
    );
  }

  async carries({ sourceId, others: beside, ...options }: z.infer<typeof carriesInput>): Promise<Carries> {
    const [source, ...others] = await this.lettered([sourceId, ...(beside ?? [])]);
    return this.deps.work.carries(source, { ...options, ...besides(source, others) });
  }

  /** What could be promised from these sources, and whether a title can be paid for. */
  async promise({ sourceId, others, ...query }: z.infer<typeof promiseQuery>): Promise<Promised> {
    const sources = await this.lettered([sourceId, ...(others ?? [])]);
    const { title: asked, ...rest } = query;
    return this.deps.work.promise({
      ...rest,
      ...(asked === undefined ? {} : { title: asked }),
      sources,
    });
  }

  /** Sources of a script, the first apart, with the writer's marks. */
  async drafted(id: string) {
    const row = await this.scriptRow(id);
    const sources = await this.readOf(id);
    const [source, ...others] = sources;
    if (!source)
      throw new ApiError('bad-request', 'This script has no source to tell from. Add one in Sources.');
    const { target, mood, pace, voice, seed, shape, shapeAsked, brief, fixed, parts, promise } = row.settings;
    const beside = besides(source, others);
    const options = {
      target,
      mood,
      pace,
      voice,
      sayings: await this.sayings(row.channelId),
      seed,
      ...(SHAPES.has(shape) ? { shape, asked: shapeAsked === true } : {}),
      ...(brief ? { brief } : {}),
      ...(fixed ? { fixed: plainFixed(fixed) } : {}),
      ...(parts?.length ? { parts } : {}),
      ...beside,
      must: [...beside.must, ...paid(promise)],
      favour: favoured(promise),
      ...(promise?.reveal ? { reveal: promise.reveal } : {}),
      short: isShort(row.settings),
      letter: source.letter,
    };
    return { row, sources, source, options };
  }

  /** Another take of something, the fit, a move, another shape: new sections for the page to take in as one step, or why not. */
  async redo(id: string, input: z.infer<typeof redoInput>): Promise<Redone> {
    const { source, options } = await this.drafted(id);
    const { sections, seed, what, ...rest } = input;
    return this.deps.work.redo({
      source,
      options: { ...options, ...(seed === undefined ? {} : { seed }) },
      what,
      sections,
      ...(rest.section === undefined ? {} : { section: rest.section }),
      ...(rest.line === undefined ? {} : { line: rest.line }),
      ...(rest.to === undefined ? {} : { to: rest.to }),
      ...(rest.shape === undefined ? {} : { shape: rest.shape }),
      ...(rest.hook === undefined ? {} : { hook: rest.hook }),
    });
  }

  /** A script from a finished one: a vertical short with a hook of its own, another audience or person, a second part from what is left. */
  async derive(id: string, input: z.infer<typeof deriveInput>) {
    const { row, sources, source, options } = await this.drafted(id);
    const told = plainSections(opened(row)).flatMap((s) =>
      s.lines.flatMap((l) => l.from.flatMap((f) => (f.fact ? [`${f.source}:${f.fact}`] : []))),
    );
    const brief = { ...briefSchema.parse(row.settings.brief ?? {}), mood: row.settings.mood };
    const { shape: _, asked: __, ...open } = options;
    const change = {
      short: {
        options: {
          ...open,
          target: { kind: 'ceiling' as const, seconds: input.seconds ?? 60 },
          pace: DEFAULT_PACE['9:16'],
          short: true,
        },
        frame: '9:16' as const,
        name: 'short',
      },
      second: {
        options: {
          ...open,
          target: { ...options.target, ...(input.seconds ? { seconds: input.seconds } : {}) },
          given: [...new Set(told)],
          must: [],
        },
        frame: row.settings.frame,
        name: 'part two',
      },
      audience: {
        options: { ...options, brief: { ...brief, audience: input.audience ?? ('newcomers' as const) } },
        frame: row.settings.frame,
        name: `for ${input.audience ?? 'newcomers'}`,
      },
      person: {
        options: { ...options, brief: { ...brief, person: input.person ?? ('they' as const) } },
        frame: row.settings.frame,
        name:
          input.person === 'you' ? 'to the listener' : input.person === 'i' ? 'told by an I' : 'told of them',
      },
    }[input.kind];
    const asked = await this.shorter(source, change.options, input.kind === 'second');
    const draft = await this.deps.work.draft(source, asked);
    const settings: ScriptRowSettings = {
      ...row.settings,
      title: `${row.settings.title.slice(0, 180)}, ${change.name}`,
      frame: change.frame,
      pace: change.options.pace,
      target: asked.target,
      shape: draft.shape,
      shapeAsked: 'asked' in change.options && change.options.asked === true,
      ...('brief' in change.options && change.options.brief ? { brief: change.options.brief } : {}),
    };
    const newId = await this.storeScript(
      row.channelId,
      settings,
      docFromSections(draft.sections).toJSON(),
      sources.map((o) => ({ letter: o.letter, sourceId: o.id })),
    );
    return { id: newId, notes: draft.notes };
  }

  /** A second part lasts what is left, when that is less than was asked. */
  private async shorter(
    source: Lettered,
    options: DraftTask['options'],
    may: boolean,
  ): Promise<DraftTask['options']> {
    if (!may) return options;
    const { target, ...rest } = options;
    const { longestMs } = await this.deps.work.carries(source, rest);
    const left = Math.floor(longestMs / 1000) - 1;
    if (left < 15)
      throw new ApiError('length-not-possible', 'Too little is left for a second part. Add a source.');
    return { ...options, target: { ...target, seconds: Math.min(target.seconds, left) } };
  }

  async addScript(input: z.infer<typeof scriptInput>) {
    const channel = await this.models.channels.findOne({ where: this.own({ id: input.channelId }) });
    if (!channel) throw new ApiError('not-found', 'This channel is not here, or no longer.');
    if (input.draft) return this.addFinished(channel.id, input);
    const [source, ...others] = await this.lettered([
      ...(input.sourceId ? [input.sourceId] : []),
      ...((input.sourceId && input.others) || []),
    ]);
    const beside = source ? besides(source, others) : null;
    const { fixed, parts, hook } = input;
    const brief = styled(input.brief, channel.settings.style);
    const { promise, refused } = source
      ? await this.promised(input, [source, ...others])
      : { promise: input.promise, refused: null };
    const draft =
      source && beside
        ? await this.deps.work.draft(source, {
            target: input.target,
            mood: input.mood,
            pace: input.pace,
            voice: input.voice,
            sayings: channel.settings.sayings ?? [],
            seed: input.seed,
            ...(input.shape ? { shape: input.shape } : {}),
            ...(brief ? { brief } : {}),
            ...(fixed ? { fixed: plainFixed(fixed) } : {}),
            ...(parts?.length ? { parts } : {}),
            ...(hook ? { hook } : {}),
            short: isShort(input),
            ...beside,
            must: [...beside.must, ...paid(promise)],
            favour: favoured(promise),
            ...(promise?.reveal ? { reveal: promise.reveal } : {}),
          })
        : null;
    const { title, frame, mood, pace, voice, target, seed } = input;
    const settings: ScriptRowSettings = {
      title: title ?? source?.title ?? 'No title yet',
      frame,
      mood,
      pace,
      voice,
      target,
      seed,
      shape: draft?.shape ?? 'none',
      ...(input.shape ? { shapeAsked: true } : {}),
      ...(brief ? { brief } : {}),
      ...(promise ? { promise } : {}),
      ...(fixed ? { fixed } : {}),
      ...(parts ? { parts } : {}),
    };
    const doc = docFromSections(draft?.sections ?? []).toJSON();
    const id = await this.storeScript(
      channel.id,
      settings,
      doc,
      [...(source ? [source] : []), ...others].map((o) => ({ letter: o.letter, sourceId: o.id })),
    );
    return { id, notes: [...(refused ? [refused] : []), ...(draft?.notes ?? [])] };
  }

  /** A finished script from elsewhere: its narration as lines, what is not spoken as notes, no fact behind it yet. */
  private async addFinished(channelId: string, input: z.infer<typeof scriptInput>) {
    const { text, base64 } = input.draft!;
    const cleaned = await this.deps.work.clean(
      text !== undefined ? new TextEncoder().encode(text) : Buffer.from(base64 ?? '', 'base64'),
    );
    const sections = sectionsOfDraft(cleaned, () => randomUUID().slice(0, 8));
    if (!sections.length) throw new ApiError('source-unreadable', 'Nothing spoken was found in this draft.');
    const sources = input.sourceId ? await this.lettered([input.sourceId, ...(input.others ?? [])]) : [];
    const { frame, mood, pace, voice, seed, fixed } = input;
    // What is finished is as long as it is, and mending shortens it: at most that, until the writer says otherwise.
    const timed = getClock(voice, pace).lines(clockLines(sections));
    const ms = timed.reduce((n, l) => n + l.ms, 0);
    let at = 0;
    const starts = timed.map((l) => (at += l.ms) - l.ms);
    const stamped = saidOfStamps(
      sections.flatMap((s) => s.lines.map((l) => ({ text: l.text, notes: l.notes ?? [] }))),
      starts,
    );
    const upload = underVideo(cleaned);
    const under = Object.keys(upload).length;
    const target = {
      kind: 'ceiling' as const,
      seconds: Math.min(LONGEST_TARGET, Math.max(SHORTEST_TARGET, Math.ceil(ms / 1000))),
    };
    const id = await this.storeScript(
      channelId,
      {
        title: input.title ?? cleaned.title?.slice(0, 200) ?? 'No title yet',
        frame,
        mood,
        pace,
        voice,
        target,
        seed,
        shape: 'none',
        ...(fixed ? { fixed } : {}),
        ...(under ? { handoff: handoffSettings.parse({ upload }) } : {}),
      },
      docFromSections(sections).toJSON(),
      sources.map((o) => ({ letter: o.letter, sourceId: o.id })),
    );
    const taken = cleaned.sections.reduce(
      (n, s) => n + s.takenAfter.length + s.lines.reduce((k, l) => k + l.taken.length, 0),
      0,
    );
    return {
      id,
      notes: [
        ...(taken
          ? [
              `${taken === 1 ? 'One piece that is not spoken was' : `${taken} pieces that are not spoken were`} set aside; they stand as notes at their place.`,
            ]
          : []),
        ...(under ? [`For under the video: ${underInWords(upload)}, now on the upload sheet.`] : []),
        ...(stamped ? [stamped] : []),
      ],
    };
  }

  /** The promise of a new script: what its title rests on, unless that was chosen; a title the sources can't pay for promises nothing. */
  private async promised(input: z.infer<typeof scriptInput>, sources: readonly Lettered[]) {
    if (input.promise?.pays) return { promise: input.promise, refused: null };
    const wanted = input.title ?? sources[0].title;
    const { check, sentence } = await this.deps.work.promise({
      sources: [...sources],
      voice: input.voice,
      pace: input.pace,
      page: 0,
      seed: input.seed,
      title: wanted.slice(0, 300),
    });
    if (check?.paid) return { promise: { ...input.promise, pays: check.pays, sentence }, refused: null };
    const why =
      check && !check.paid && input.title
        ? `The sources can’t pay for “${wanted}”: ${check.why} It promises nothing yet; the Rundown has titles that are paid for.`
        : null;
    return { promise: input.promise, refused: why };
  }

  /** Puts a finished document into the library. */
  async storeScript(
    channelId: string,
    settings: ScriptRowSettings,
    doc: unknown,
    sources: readonly { letter: string; sourceId: string }[],
  ): Promise<string> {
    const now = this.deps.now();
    const id = randomUUID();
    await this.deps.db.transaction(async (transaction) => {
      await this.models.scripts.create(
        {
          id,
          workspaceId: this.workspaceId,
          channelId,
          settings,
          settingsRevision: 0,
          doc,
          format: FORMAT,
          version: 0,
          createdAt: now,
          updatedAt: now,
          deletedAt: null,
        },
        { transaction },
      );
      for (const s of sources)
        await this.models.scriptSources.create({ scriptId: id, ...s }, { transaction });
    });
    return id;
  }

  async scriptRow(
    id: string,
    options: { transaction?: Transaction; lock?: boolean; deleted?: boolean } = {},
  ) {
    const row = await this.models.scripts.findOne({
      where: options.deleted ? this.own({ id }) : this.own({ id, deletedAt: null }),
      ...(options.transaction ? { transaction: options.transaction } : {}),
      ...(options.lock ? { lock: true } : {}),
    });
    if (!row) throw new ApiError('not-found', 'This script is not here, or no longer.');
    return row;
  }

  private linksOf = (scriptId: string) =>
    this.models.scriptSources.findAll({ where: { scriptId }, order: [['letter', 'ASC']] });

  /** Sources of a script as the page shows them. */
  async sourcesOf(scriptId: string) {
    return Promise.all(
      (await this.linksOf(scriptId)).map((l) => this.sources.ofScript(l.sourceId, l.letter)),
    );
  }
  /** The same as a draft takes them. */
  async readOf(scriptId: string): Promise<Lettered[]> {
    return Promise.all(
      (await this.linksOf(scriptId)).map(async (l) => ({
        letter: l.letter,
        ...(await this.sources.read(l.sourceId, { deleted: true })),
      })),
    );
  }

  /** A script with its sources; these as JSON. */
  async script(id: string) {
    const row = await this.scriptRow(id);
    opened(row);
    const channel = await this.models.channels.findOne({ where: this.own({ id: row.channelId }) });
    return {
      id,
      channelId: row.channelId,
      channelName: channel?.name ?? '',
      channel: channel?.settings ?? null,
      settings: row.settings,
      settingsRevision: row.settingsRevision,
      doc: row.doc,
      version: row.version,
      sources: await this.sourcesOf(id),
    };
  }

  /** Lays another source beside those of a script, under the next letter. */
  async addSourceTo(id: string, sourceId: string) {
    await this.sources.here(sourceId);
    await this.deps.db.transaction(async (transaction) => {
      await this.scriptRow(id, { transaction, lock: true });
      const links = await this.models.scriptSources.findAll({ where: { scriptId: id }, transaction });
      if (links.some((l) => l.sourceId === sourceId))
        throw new ApiError('bad-request', 'This source is with the script already.');
      if (links.length >= MOST_SOURCES)
        throw new ApiError('bad-request', `A script can rest on at most ${MOST_SOURCES} sources.`);
      const letter = LETTERS.find((l) => !links.some((x) => x.letter === l))!;
      await this.models.scriptSources.create({ scriptId: id, letter, sourceId }, { transaction });
    });
    return this.script(id);
  }

  /** What a channel is set to; null where it is gone. */
  async channelSettings(channelId: string): Promise<ChannelSettings | null> {
    const channel = await this.models.channels.findOne({ where: this.own({ id: channelId }) });
    return channel?.settings ?? null;
  }

  /** How a channel says words; the clock and the voice follow it. */
  async sayings(channelId: string): Promise<Saying[]> {
    return (await this.channelSettings(channelId))?.sayings ?? [];
  }

  async patchSettings(id: string, { revision, settings }: z.infer<typeof settingsPatch>) {
    return this.deps.db.transaction(async (transaction) => {
      const row = await this.scriptRow(id, { transaction, lock: true });
      if (row.settingsRevision !== revision)
        throw new ApiError('settings-behind', undefined, {
          settings: row.settings,
          revision: row.settingsRevision,
        });
      const next = { ...row.settings, ...settings };
      await row.update(
        { ...inFormat(row, { settings: next }), settingsRevision: revision + 1, updatedAt: this.deps.now() },
        { transaction },
      );
      return { settings: next, revision: revision + 1 };
    });
  }

  /**
   * Appends steps made on `version`. An older version is refused with the steps it lacks: the page that holds the
   * unconfirmed steps maps them over those and sends again, so nothing is dropped.
   */
  async appendSteps(id: string, input: z.infer<typeof stepsInput>) {
    return this.deps.db.transaction(async (transaction) => {
      const row = await this.scriptRow(id, { transaction, lock: true });
      if (input.version > row.version)
        throw new ApiError('step-refused', 'This change was made on a version the server does not have.');
      if (input.version < row.version)
        throw new ApiError(
          'behind',
          undefined,
          await this.stepsSince(id, input.version, row.version, transaction),
        );
      let doc = opened(row);
      const now = this.deps.now();
      const rows = input.steps.map((json, i) => {
        const { step, inverse, next } = applied(json, doc);
        doc = next;
        return {
          scriptId: id,
          version: input.version + i + 1,
          step: step.toJSON() as unknown,
          inverse: inverse.toJSON() as unknown,
          format: FORMAT,
          origin: input.origin,
          clientId: input.clientId,
          at: now,
        };
      });
      const size = doc.textContent.length;
      if (size > LONGEST_SCRIPT)
        throw new ApiError('step-refused', 'A script can have at most 400,000 characters.');
      await this.models.steps.bulkCreate(rows, { transaction });
      await row.update(
        { ...inFormat(row, { doc: doc.toJSON() }), version: input.version + rows.length, updatedAt: now },
        { transaction },
      );
      return { version: row.version };
    });
  }

  /** Puts a reply that was written by hand into a script, whole or up to a section. */
  takeReply = (id: string, input: Parameters<typeof takeReply>[2]) => takeReply(this, id, input);

  async steps(id: string, since: number) {
    const row = await this.scriptRow(id);
    return this.stepsSince(id, since, row.version);
  }

  private async stepsSince(scriptId: string, since: number, version: number, transaction?: Transaction) {
    const rows = await this.models.steps.findAll({
      where: { scriptId },
      order: [['version', 'ASC']],
      offset: since,
      ...(transaction ? { transaction } : {}),
    });
    return { version, steps: rows.map((r) => ({ step: r.step, clientId: r.clientId })) };
  }

  /** Takes a script out of the library; `restore` puts it back. */
  async remove(id: string) {
    await (await this.scriptRow(id)).update({ deletedAt: this.deps.now() });
  }
  async restore(id: string) {
    await (await this.scriptRow(id, { deleted: true })).update({ deletedAt: null });
  }
}

/** A brief with the channel's own way of speaking where it says nothing else. */
function styled(brief: z.infer<typeof briefSchema> | undefined, style: HouseStyle | null | undefined) {
  if (!style) return brief;
  const house = { ...houseOf(style), ...brief?.house };
  return { ...briefSchema.parse(brief ?? {}), house };
}

const SHAPES = new Set<string>(SHAPE_IDS);
/** Facts of the angle are told before others. */
const favoured = (promise: z.infer<typeof promiseSchema> | undefined) =>
  promise?.angle?.facts.map((f) => `${f.source}:${f.fact}`) ?? [];
/** What the title rests on must be told. */
const paid = (promise: z.infer<typeof promiseSchema> | undefined) =>
  promise?.pays ? [`${promise.pays.source}:${promise.pays.fact}`] : [];
const plainFixed = (fixed: readonly z.infer<typeof fixedSchema>[]) =>
  fixed.map(({ ms, ...f }) => ({ ...f, ...(ms === undefined ? {} : { ms }) }));

type Lettered = ReadSource & { letter: string };

/** Other sources and the writer's marks on all, as a draft takes them: a fact that is wrong or waits is not told as it stands. */
function besides(first: Lettered, others: readonly Lettered[]) {
  const having = (...wanted: string[]) =>
    [first, ...others].flatMap((s) =>
      Object.keys(s.marks)
        .filter((id) => wanted.includes(s.marks[id].mark))
        .map((id) => `${s.letter}:${id}`),
    );
  return {
    must: having('must'),
    out: having('out', 'wrong', 'wait'),
    others: others.map(({ letter, document, facts, tags, own }) => ({ letter, document, facts, tags, own })),
  };
}

/** Scripts that a worker summarises in one go. */
const AT_A_TIME = 25;
/** Lets others be served. */
const aside = () => new Promise<void>((resolve) => setImmediate(resolve));

/** Stretches of a source's strip: as many as can be told apart on a screen. */
const MOST_STRETCHES = 160;
function stripOf(ms: readonly number[], heard: ReadonlySet<number>): { ms: number; heard: boolean }[] {
  const each = Math.ceil(ms.length / MOST_STRETCHES) || 1;
  const out: { ms: number; heard: boolean }[] = [];
  ms.forEach((length, i) => {
    if (i % each === 0) out.push({ ms: 0, heard: false });
    const last = out[out.length - 1];
    last.ms += length;
    last.heard ||= heard.has(i);
  });
  return out;
}

const LETTERS = [...'ABCDEFGHIJKL'];
export const MOST_SOURCES = LETTERS.length;

/** About 65,000 words: far above the longest script, far below what would slow a page down. */
export const LONGEST_SCRIPT = 400_000;

function applied(json: unknown, doc: ScriptNode) {
  try {
    const step = Step.fromJSON(scriptSchema, json);
    const inverse = step.invert(doc);
    const result = step.apply(doc);
    if (!result.doc) throw new ApiError('step-refused');
    checkChanged(doc, result.doc);
    return { step, inverse, next: result.doc };
  } catch (error) {
    if (error instanceof ApiError) throw error;
    if (error instanceof RangeError || error instanceof TypeError) throw new ApiError('step-refused');
    throw error;
  }
}
