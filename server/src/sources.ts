/** The library of sources: found, ruled on, cited, taken out and put back. Every query is scoped to the workspace. */
import { randomUUID } from 'node:crypto';
import { AttrStep, Transform } from 'prosemirror-transform';
import { Op, QueryTypes, Transaction, type Sequelize } from 'sequelize';
import type { z } from 'zod';
import { citation, type CitationFormat } from '@ursprung/core/cite';
import {
  EXTRACTOR,
  chosenIn,
  ownBlock,
  type Fact,
  type OwnFact,
  type PackedTags,
} from '@ursprung/core/facts';
import { NEARLY_SAME, NO_CHOICES, sharedOf, withChoice, type Choices, type Choose, type SourceDocument, type SourceKind } from '@ursprung/core/source'; // prettier-ignore
import type { LineSource } from '@ursprung/core/script';
import type { FoundSource, Mark, Marks, Renewal, Rights, sourcePatch, sourceSearch } from './api.ts';
import type { Models, SourceRow, StoredOwnFact } from './db/models.ts';
import { ApiError } from './errors.ts';
import { JsonText, joinedLists, joinedObjects } from './json.ts';
import { fetchLink, type LinkSettings } from './link.ts';
import type { KeptTexts, SourceSummary, SourceText } from './sourceText.ts';
import { appendToLog, readable, readableDoc, storedChoices } from './stored.ts';
import type { ReadProgress, TextWork } from './work.ts';

export interface SourcesDeps {
  db: Sequelize;
  work: TextWork;
  now: () => Date;
  links: LinkSettings;
}

/** Licences under which a text may be retold by anyone, as pages name them. */
const OPEN_LICENCE =
  /\b(?:CC[ -]?(?:BY|0)|creativecommons\.org|public domain|GFDL|open government licen[cs]e)\b/i;
const ROWS_FOUND = 100;
/** Pages of a site whose pieces are remembered, the newest first, and how many pieces of them. */
const PAGES_OF_A_SITE = 50;
const MOST_OF_A_SITE = 500;
/** Columns that are fetched only where they are needed, as texts. */
const LARGE = ['original', 'document', 'facts', 'tags', 'outlook', 'summary'] as const;

export class Sources {
  constructor(
    private readonly deps: SourcesDeps,
    private readonly models: Models,
    private readonly workspaceId: string,
  ) {}

  private own<T extends object>(where: T = {} as T) {
    return { ...where, workspaceId: this.workspaceId };
  }

  /** Reads bytes into the library. `address`: the link they were fetched from. Answers with its id. */
  async add(
    bytes: Uint8Array,
    options: {
      kind?: SourceKind;
      address?: string;
      progress?: ReadProgress;
      signal?: AbortSignal;
      /** Written together with the source, or neither is. */
      with?: (sourceId: string, transaction: Transaction) => Promise<void>;
    } = {},
  ): Promise<string> {
    const { with: together, ...how } = options;
    const choices = await this.choicesFor(options.address);
    const read = await this.deps.work.read(bytes, { ...how, ...(choices ? { choices } : {}) });
    const id = randomUUID();
    const rights: Rights = OPEN_LICENCE.test(read.licence ?? '') ? 'open' : 'not asked';
    await this.deps.db.transaction(async (transaction) => {
      const kept = keptColumns(read, 9);
      await this.deps.db.query(
        `INSERT INTO sources (id, "workspaceId", original, address, rights, marks, "ownFacts", "createdAt", choices, ${kept.names})
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, ${kept.places})`,
        {
          transaction,
          bind: [
            id,
            this.workspaceId,
            Buffer.from(bytes),
            options.address ?? null,
            rights,
            '{}',
            '[]',
            this.deps.now(),
            choices && JSON.stringify(choices),
            ...kept.values,
          ],
        },
      );
      await together?.(id, transaction);
    });
    return id;
  }

  /** What writers took out of the last pages of the same site, to be left out of its next one; null where that is nothing. */
  private async choicesFor(address: string | undefined): Promise<Choices | null> {
    const host = address && URL.canParse(address) ? new URL(address).host : '';
    if (!host) return null;
    const rows = (await this.deps.db.query(
      `SELECT choices FROM sources WHERE "workspaceId" = $1 AND choices IS NOT NULL
          AND substring(address from '^[a-z]+://([^/?#]+)') = $2 ORDER BY "createdAt" DESC LIMIT ${PAGES_OF_A_SITE}`,
      { type: QueryTypes.SELECT, bind: [this.workspaceId, host] },
    )) as { choices: unknown }[];
    const out = rows.flatMap(({ choices }) => storedChoices(choices)?.out ?? []);
    return out.length ? { in: [], out: [...new Set(out)].slice(0, MOST_OF_A_SITE) } : null;
  }

  /** What of a source is small: everything but its texts and the bytes it came as. */
  private async row(
    id: string,
    options: { deleted?: boolean; transaction?: Transaction } = {},
  ): Promise<SourceRow & { update: (change: Partial<SourceRow>, how?: object) => Promise<unknown> }> {
    const { transaction } = options;
    const row = await this.models.sources.findOne({
      where: options.deleted ? this.own({ id }) : this.own({ id, deletedAt: null }),
      attributes: { exclude: [...LARGE] },
      ...(transaction ? { transaction, lock: true } : {}),
    });
    if (!row) throw new ApiError('not-found', 'This source is not here, or no longer.');
    if (!transaction && row.ownFacts.some((o) => o.made === undefined)) await this.makeOwn(row);
    return row;
  }

  /** Columns of a source as texts of JSON. */
  private async texts<C extends 'document' | 'facts' | 'tags' | 'outlook'>(
    id: string,
    ...columns: C[]
  ): Promise<{ [K in C]: K extends 'tags' | 'outlook' ? string | null : string }> {
    const out: Record<string, string | null> = {};
    // One at a time: each is a stop of its own, and others are served in between. All are of one moment.
    await this.deps.db.transaction(
      { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
      async (transaction) => {
        for (const column of columns) {
          const [row] = (await this.deps.db.query(
            `SELECT ${column}::text AS text FROM sources WHERE id = $1 AND "workspaceId" = $2`,
            { type: QueryTypes.SELECT, bind: [id, this.workspaceId], transaction },
          )) as { text: string | null }[];
          out[column] = row.text;
        }
      },
    );
    return out as { [K in C]: K extends 'tags' | 'outlook' ? string | null : string };
  }

  /** Own facts of before they were taken apart: once, when they are read first. */
  private async makeOwn(row: SourceRow): Promise<void> {
    const waiting = row.ownFacts.filter((o) => o.made === undefined);
    const { document } = await this.texts(row.id, 'document');
    const made = await this.deps.work.own({ document, own: waiting });
    const of = new Map(waiting.map((o, i) => [o.id, named(made[i]!, o.id)]));
    const now = (own: readonly StoredOwnFact[]) => own.map((o) => of.get(o.id) ?? o);
    await this.deps.db.transaction(async (transaction) => {
      const held = await this.row(row.id, { deleted: true, transaction });
      await held.update({ ownFacts: now(held.ownFacts) }, { transaction });
    });
    row.ownFacts = now(row.ownFacts);
  }

  /** What is worked out of a source once; made now for one that was read before that was stored. */
  private async outlook(
    id: string,
    known: string | null,
    texts: { document: string; facts: string },
  ): Promise<string> {
    if (known !== null) return known;
    const made = await this.deps.work.outlook(texts);
    await this.deps.db.query('UPDATE sources SET outlook = $2, summary = $3 WHERE id = $1', {
      bind: [id, made.outlook, made.summary],
    });
    return made.outlook;
  }

  /** What the library shows of a source that was read before that was stored. */
  async summary(id: string): Promise<SourceSummary> {
    const texts = await this.texts(id, 'document', 'facts');
    await this.outlook(id, null, texts);
    const { summary } = (await this.models.sources.findOne({ where: { id }, attributes: ['summary'] }))!;
    return summary!;
  }

  /** A source as pages show it, as JSON. */
  private async view(row: SourceRow, more: Record<string, unknown> = {}): Promise<JsonText> {
    const { document, facts, outlook } = await this.texts(row.id, 'document', 'facts', 'outlook');
    const parts = await this.outlook(row.id, outlook, { document, facts });
    const head = {
      id: row.id,
      document: new JsonText(document),
      facts: joinedLists(facts, JSON.stringify(ownOf(row).facts)),
      rights: row.rights,
      marks: row.marks,
      ownFacts: standing(row).map(({ made: _, gone: __, ...own }): OwnFact => own),
      address: row.address,
      /** Whether today's code would read it otherwise than it was read. */
      older: (row.extractor ?? 1) < EXTRACTOR,
      ...more,
    };
    return joinedObjects(head, parts);
  }

  /** A source as it is told from: what was taken apart when it was read, and the marks on its facts. */
  async read(id: string, options: { deleted?: boolean } = {}): Promise<ReadSource> {
    const row = await this.row(id, options);
    const { document, facts, tags } = await this.texts(id, 'document', 'facts', 'tags');
    const marks = marksOn(row, () => JSON.parse(facts) as Fact[]);
    return { id, title: row.title, rights: row.rights, document, facts, tags, own: ownOf(row), marks };
  }

  async one(id: string): Promise<JsonText> {
    const row = await this.row(id);
    return this.view(row, { like: await this.like(row) });
  }

  /** Throws where it is not in the library. */
  async here(id: string): Promise<void> {
    await this.row(id);
  }

  /** A source that a script rests on, even when it was taken out of the library since. */
  async ofScript(id: string, letter: string): Promise<JsonText> {
    return this.view(await this.row(id, { deleted: true }), { letter });
  }

  /** Others that share most of their words with it. */
  private async like(row: SourceRow): Promise<{ id: string; title: string; share: number }[]> {
    const others = await this.models.sources.findAll({
      where: this.own({ deletedAt: null, id: { [Op.ne]: row.id } }),
      attributes: ['id', 'title', 'sketch'],
    });
    return others
      .map((o) => ({ id: o.id, title: o.title, share: sharedOf(row.sketch, o.sketch) }))
      .filter((o) => o.share >= NEARLY_SAME)
      .sort((a, b) => b.share - a.share)
      .slice(0, 5);
  }

  async change(id: string, patch: z.infer<typeof sourcePatch>): Promise<JsonText> {
    // What takes long is done before the row is held.
    const added = patch.addFact ? await this.ownFact(id, patch.addFact) : null;
    if (patch.choose) await this.choose(id, patch.choose.text, patch.choose.as);
    if (patch.kind) await this.renew(id, { kind: patch.kind });
    await this.deps.db.transaction(async (transaction) => {
      const row = await this.row(id, { transaction });
      const change: Partial<SourceRow> = {};
      if (patch.rights) change.rights = patch.rights;
      if (patch.marks) {
        await this.known(row, Object.keys(patch.marks), transaction);
        change.marks = marked(row, patch.marks);
      }
      if (added) change.ownFacts = [...row.ownFacts, named(added, nextOwn(row))];
      if (patch.removeFact) {
        // Its id is not given again: lines may still name it.
        change.ownFacts = row.ownFacts.map((f) => (f.id === patch.removeFact ? { ...f, gone: true } : f));
        const { [patch.removeFact]: _, ...left } = change.marks ?? row.marks;
        change.marks = left;
      }
      await row.update(change, { transaction });
    });
    return this.one(id);
  }

  /** Throws where one of the ids is of no fact of the source. */
  private async known(row: SourceRow, ids: readonly string[], transaction: Transaction): Promise<void> {
    const found = await this.deps.db.query(
      `SELECT f->>'id' AS id FROM sources, jsonb_array_elements(facts) f WHERE sources.id = $1 AND f->>'id' = ANY($2)`,
      { type: QueryTypes.SELECT, bind: [row.id, ids], transaction },
    );
    const here = new Set([
      ...(found as { id: string }[]).map((f) => f.id),
      ...standing(row).map((f) => f.id),
    ]);
    const missing = ids.find((id) => !here.has(id));
    if (missing !== undefined) throw new ApiError('not-found', `There is no fact ${missing} in this source.`);
  }

  private async ownFact(
    id: string,
    input: { start: number; end: number } | { text: string },
  ): Promise<Omit<StoredOwnFact, 'id'>> {
    await this.here(id);
    const { document } = await this.texts(id, 'document');
    const [made] = await this.deps.work.own({ document, own: [input] });
    if (!made) throw new ApiError('bad-request', 'Choose a few words to a few sentences of the source.');
    return made;
  }

  /**
   * Reads a stored source again with today's code, or as another kind. Facts whose words stand keep their ids; marks, the
   * lines of scripts and their promises follow the others to the facts that have their words. `preview` changes nothing.
   */
  async renew(
    id: string,
    {
      kind,
      choices: chosen,
      preview = false,
    }: { kind?: SourceKind; choices?: Choices; preview?: boolean } = {},
  ): Promise<Renewal> {
    const before = await this.row(id, { deleted: true });
    const [texts, { original }] = await Promise.all([
      this.texts(id, 'document', 'facts'),
      this.originalOf(id),
    ]);
    const choices = chosen ?? before.choices;
    const {
      kept,
      own,
      answer: found,
      ...made
    } = await this.deps.work.renew(original, texts, before.ownFacts, {
      ...(kind ? { kind } : {}),
      ...(choices ? { choices } : {}),
    });
    const moved = new Map(made.moved);
    const answer: Renewal = {
      ...found,
      lost: found.lost.map((f) => ({ ...f, mark: before.marks[f.id]?.mark ?? null })),
      lines: await this.linesOn(id, new Set(made.lost)),
    };
    if (preview) return answer;
    await this.deps.db.transaction(async (transaction) => {
      const row = await this.row(id, { deleted: true, transaction });
      const marks: Record<string, Mark> = {};
      for (const [fact, mark] of Object.entries(row.marks))
        for (const to of moved.get(fact) ?? [fact]) marks[to] ??= mark;
      for (const fact of made.lost) delete marks[fact];
      const columns = keptColumns(kept, 4);
      await this.deps.db.query(
        `UPDATE sources SET marks = $2, "ownFacts" = $3, choices = $4, (${columns.names}) = ROW (${columns.places}) WHERE id = $1`,
        {
          transaction,
          bind: [
            id,
            JSON.stringify(marks),
            JSON.stringify(own),
            choices && JSON.stringify(choices),
            ...columns.values,
          ],
        },
      );
      if (moved.size) await this.relink(id, moved, transaction);
    });
    return answer;
  }

  /** A piece is taken in or out, or another post is told; the source is read again with that. */
  private async choose(id: string, text: string, as: Choose): Promise<void> {
    const { choices } = await this.row(id);
    await this.renew(id, { choices: withChoice(choices ?? NO_CHOICES, text, as) });
  }

  /** The lines and promises that rest on facts which have another id now: one step a line, as part of the script's log. */
  private async relink(
    sourceId: string,
    moved: ReadonlyMap<string, readonly string[]>,
    transaction: Transaction,
  ): Promise<void> {
    const links = await this.models.scriptSources.findAll({ where: { sourceId }, transaction });
    for (const { scriptId, letter } of links) {
      const row = await this.models.scripts.findOne({
        where: this.own({ id: scriptId }),
        transaction,
        lock: true,
      });
      const doc = row && readableDoc(row);
      if (!row || !doc) continue;
      const to = (source: string, fact: string | undefined) =>
        source === letter && fact !== undefined ? (moved.get(fact)?.[0] ?? fact) : fact;
      const tr = new Transform(doc);
      doc.descendants((node, pos) => {
        if (node.type.name !== 'line') return true;
        const from = node.attrs.from as readonly LineSource[];
        if (from.some((f) => to(f.source, f.fact) !== f.fact))
          tr.step(
            new AttrStep(
              pos,
              'from',
              from.map((f) => ({ ...f, ...(f.fact ? { fact: to(f.source, f.fact) } : {}) })),
            ),
          );
        return false;
      });
      const { promise } = row.settings;
      const renamed = promise && {
        ...promise,
        ...(promise.pays
          ? { pays: { ...promise.pays, fact: to(promise.pays.source, promise.pays.fact)! } }
          : {}),
        ...(promise.reveal && letter === 'A' ? { reveal: to('A', promise.reveal)! } : {}),
        ...(promise.angle
          ? {
              angle: {
                ...promise.angle,
                facts: promise.angle.facts.map((f) => ({ ...f, fact: to(f.source, f.fact)! })),
              },
            }
          : {}),
      };
      await appendToLog(this.models, row, tr, 'read again', this.deps.now(), transaction);
      if (renamed && JSON.stringify(renamed) !== JSON.stringify(promise))
        await row.update(
          { settings: { ...row.settings, promise: renamed }, settingsRevision: row.settingsRevision + 1 },
          { transaction },
        );
    }
  }

  /** What a writer asks the library: words, and any of kind, rights, days, publisher, channel, used or not. Best match first. */
  async search(
    query: z.infer<typeof sourceSearch>,
  ): Promise<Pick<FoundSource, 'id' | 'licence' | 'rights' | 'found'>[]> {
    const where = [
      's."workspaceId" = :workspace',
      's."deletedAt" IS NULL',
      ...(query.q ? [`s.found @@ ${ASKED}`] : []),
      ...(query.kind ? [`s.document->>'kind' = :kind`] : []),
      ...(query.rights ? ['s.rights = :rights'] : []),
      ...(query.publisher ? [`s.document->>'publisher' ILIKE :publisher`] : []),
      ...(query.licence ? [`s.document->>'licence' ILIKE :licence`] : []),
      ...(query.from ? [`s.document->>'published' >= :from`] : []),
      // "2025" takes the whole year in.
      ...(query.to ? [`s.document->>'published' <= :to || '~'`] : []),
      ...(query.channel
        ? [
            'EXISTS (SELECT 1 FROM script_sources l JOIN scripts c ON c.id = l."scriptId" WHERE l."sourceId" = s.id AND c."channelId" = :channel)',
          ]
        : []),
      ...(query.used ? [`(${USES} > 0) = ${query.used === 'yes'}`] : []),
    ];
    const rows = await this.deps.db.query(
      `SELECT s.id, s.document->>'licence' AS licence, s.rights,
              ${query.q ? `ts_headline('english', ${SHOWN}, ${ASKED}, E'StartSel=\\x02, StopSel=\\x03, MaxFragments=2, MaxWords=18, MinWords=6, FragmentDelimiter=" … "')` : 'NULL'} AS found
         FROM sources s WHERE ${where.join(' AND ')}
        ORDER BY ${query.q ? `ts_rank_cd(s.found, ${ASKED}) DESC,` : ''} s."createdAt" DESC
        LIMIT ${ROWS_FOUND}`,
      {
        type: QueryTypes.SELECT,
        replacements: {
          workspace: this.workspaceId,
          ...query,
          q: query.q && plainWords(query.q),
          publisher: anywhere(query.publisher),
          licence: anywhere(query.licence),
        },
      },
    );
    return rows as Pick<FoundSource, 'id' | 'licence' | 'rights' | 'found'>[];
  }

  /** What every source is called, the newest first. */
  async names(): Promise<{ id: string; title: string; kind: string }[]> {
    return (await this.deps.db.query(
      `SELECT id, title, summary->>'kind' AS kind FROM sources
        WHERE "workspaceId" = $1 AND "deletedAt" IS NULL ORDER BY "createdAt" DESC`,
      { type: QueryTypes.SELECT, bind: [this.workspaceId] },
    )) as { id: string; title: string; kind: string }[];
  }

  /** What a source says of itself, without its words. */
  private async about(id: string): Promise<SourceDocument> {
    await this.here(id);
    const [{ about }] = (await this.deps.db.query(
      `SELECT document - 'text' - 'blocks' AS about FROM sources WHERE id = $1`,
      { type: QueryTypes.SELECT, bind: [id] },
    )) as { about: object }[];
    return { ...about, text: '', blocks: [] } as unknown as SourceDocument;
  }

  async cite(id: string, format: CitationFormat): Promise<string> {
    return citation(await this.about(id), format);
  }

  private async originalOf(id: string): Promise<{ original: Buffer }> {
    const row = await this.models.sources.findOne({ where: this.own({ id }), attributes: ['original'] });
    return { original: row!.original };
  }

  /** The original as it came. */
  async original(id: string): Promise<{ bytes: Buffer; document: SourceDocument }> {
    const document = await this.about(id);
    return { bytes: (await this.originalOf(id)).original, document };
  }

  async remove(id: string) {
    await (await this.row(id)).update({ deletedAt: this.deps.now() });
  }
  async restore(id: string) {
    await (await this.row(id, { deleted: true })).update({ deletedAt: null });
  }

  /** Sources beside one another: what they tell alike, where they disagree, as JSON. Letters as given. */
  async compare(sources: readonly { letter: string; id: string }[]): Promise<JsonText> {
    const read = await Promise.all(
      sources.map(async ({ letter, id }) => ({ letter, ...(await this.read(id, { deleted: true })) })),
    );
    return new JsonText(await this.deps.work.compare({ sources: read }));
  }

  /** Reads a link again: passages that changed since, and the script lines that rest on changed words. Nothing stored changes. */
  async reread(id: string) {
    const row = await this.row(id);
    if (!row.address)
      throw new ApiError(
        'bad-request',
        'This source came without a link, so there is nothing to read again.',
      );
    const { bytes } = await fetchLink(row.address, this.deps.links);
    const before = await this.texts(id, 'document', 'facts');
    const choices = row.choices ?? undefined;
    const { removed, added, facts } = await this.deps.work.reread(bytes, before, choices);
    return {
      at: this.deps.now().toISOString(),
      removed,
      added,
      lines: await this.linesOn(id, new Set(facts)),
    };
  }

  private async linesOn(sourceId: string, facts: ReadonlySet<string>) {
    const links = await this.models.scriptSources.findAll({ where: { sourceId } });
    const scripts = await this.models.scripts.findAll({
      where: this.own({ id: links.map((l) => l.scriptId), deletedAt: null }),
    });
    return scripts.flatMap((script) => {
      const letter = links.find((l) => l.scriptId === script.id)!.letter;
      return (readable(script) ?? [])
        .flatMap((s) => s.lines)
        .filter((line) => line.from.some((f) => f.source === letter && f.fact && facts.has(f.fact)))
        .map((line) => ({ script: script.id, title: script.settings.title, line: line.id, text: line.text }));
    });
  }
}

/** A pattern that finds words anywhere; what SQL would take for a pattern is taken as it stands. */
export const anywhere = (words = '') => `%${words.replace(/[%_\\]/g, '\\$&')}%`;

/** What is asked for, and the words it is found in as they are shown: without the marks that the parser chokes on. */
const ASKED = `websearch_to_tsquery('english', :q)`;
const SHOWN = `translate(left(s.document->>'text', 200000), '<_-', ' \u2009\u2011')`;
/** Marks between words are none of the search's own signs. */
const plainWords = (q: string) => q.replace(/(?<=[\p{L}\p{N}])-|[<>_@/&=#%+]/gu, ' ');

/** Scripts in the library that rest on the source. */
const USES =
  '(SELECT count(*) FROM script_sources l JOIN scripts c ON c.id = l."scriptId" WHERE l."sourceId" = s.id AND c."deletedAt" IS NULL)';

/**
 * What reading made of a source, as columns and the places of their values behind so many others. The texts go in as they
 * are: made into objects they would only be made into texts again.
 */
function keptColumns(kept: KeptTexts, behind: number) {
  const { title, document, facts, tags, outlook, summary, sketch } = kept;
  const columns = { title, document, facts, tags, outlook, summary, sketch, extractor: EXTRACTOR };
  const names = Object.keys(columns);
  return {
    names: names.join(', '),
    places: names.map((_, i) => `$${behind + i + 1}`).join(', '),
    values: Object.values(columns),
  };
}

/** A source as it is told from. Marks are by fact: one on chosen words is one on the facts that have them. */
export interface ReadSource extends SourceText {
  id: string;
  title: string;
  rights: Rights;
  marks: Marks;
}
/** Own facts that were not taken away. */
const standing = (row: SourceRow): readonly StoredOwnFact[] => row.ownFacts.filter((o) => !o.gone);

/** Own facts as the others are stored; one that says nothing is none. */
function ownOf(row: SourceRow): { facts: Fact[]; tags: PackedTags[] } {
  const made = standing(row).flatMap((o) => o.made ?? []);
  return { facts: made.map((m) => m.fact), tags: made.map((m) => m.tags) };
}

/** `facts` are looked at only where words that were chosen are marked. */
function marksOn(row: SourceRow, facts: () => readonly Fact[]): Marks {
  const out: Record<string, Mark> = { ...row.marks };
  const chosen = standing(row).filter((own) => own.start !== undefined && row.marks[own.id]);
  if (!chosen.length) return out;
  const all = facts();
  for (const own of chosen) for (const id of chosenIn(own, all)) out[id] ??= row.marks[own.id];
  return out;
}

function marked(row: SourceRow, patch: NonNullable<z.infer<typeof sourcePatch>['marks']>): Marks {
  const marks: Record<string, Mark> = { ...row.marks };
  for (const [fact, { mark, correct, why }] of Object.entries(patch)) {
    if (mark === 'wrong' && !correct) throw new ApiError('bad-request', 'Say what is right instead.');
    if (mark) marks[fact] = { mark, ...(correct ? { correct } : {}), ...(why ? { why } : {}) };
    else delete marks[fact];
  }
  return marks;
}

const nextOwn = (row: SourceRow) => `w${Math.max(0, ...row.ownFacts.map((f) => Number(f.id.slice(1)))) + 1}`;
/** An own fact under its id; what the writer knows stands in a passage of its own. */
function named({ made, ...own }: Omit<StoredOwnFact, 'id'>, id: string): StoredOwnFact {
  if (!made) return { ...own, id, made };
  const block = own.start === undefined ? ownBlock({ id, text: own.text }).id : made.fact.block;
  return { ...own, id, made: { ...made, fact: { ...made.fact, id, block } } };
}
