/** The library of sources: found, ruled on, cited, taken out and put back. Every query is scoped to the workspace. */
import { randomUUID } from 'node:crypto';
import { AttrStep, Transform } from 'prosemirror-transform';
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { z } from 'zod';
import { citation, type CitationFormat } from '@ursprung/core/cite';
import {
  EXTRACTOR,
  castOf,
  chosenIn,
  compareSources,
  glossaryOf,
  outlineOf,
  ownBlock,
  thinIn,
  timeline,
  type Comparison,
  type Fact,
  type OwnFact,
  type PackedTags,
} from '@ursprung/core/facts';
import { NEARLY_SAME, sharedOf, sketchOf, type SourceDocument, type SourceKind } from '@ursprung/core/source';
import { sameData, type LineSource } from '@ursprung/core/script';
import type { FoundSource, Mark, Marks, Renewal, Rights, sourcePatch, sourceSearch } from './api.ts';
import type { Models, SourceRow, StoredOwnFact } from './db/models.ts';
import type { StoredSource } from './drafting.ts';
import { ApiError } from './errors.ts';
import { appendToLog, readable, readableDoc } from './stored.ts';
import { fetchLink, type LinkSettings } from './link.ts';
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

export class Sources {
  constructor(
    private readonly deps: SourcesDeps,
    private readonly models: Models,
    private readonly workspaceId: string,
  ) {}

  private own<T extends object>(where: T = {} as T) {
    return { ...where, workspaceId: this.workspaceId };
  }

  /** Reads bytes into the library. `address`: the link they were fetched from. */
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
  ) {
    const { with: together, ...how } = options;
    const { document: read, facts, tags } = await this.deps.work.read(bytes, how);
    const document: SourceDocument = options.address ? { ...read, address: options.address } : read;
    const rights: Rights = OPEN_LICENCE.test(document.licence ?? '') ? 'open' : 'not asked';
    const made = {
      id: randomUUID(),
      workspaceId: this.workspaceId,
      title: document.title,
      original: Buffer.from(bytes),
      document,
      facts,
      extractor: EXTRACTOR,
      tags,
      address: options.address ?? null,
      rights,
      marks: {},
      ownFacts: [],
      sketch: sketchOf(document.text),
      createdAt: this.deps.now(),
      deletedAt: null,
    };
    const row = await this.deps.db.transaction(async (transaction) => {
      const created = await this.models.sources.create(made, { transaction });
      await together?.(made.id, transaction);
      return created;
    });
    return { ...this.view(row), like: await this.like(row) };
  }

  private async row(
    id: string,
    options: { original?: boolean; deleted?: boolean; tags?: boolean; transaction?: Transaction } = {},
  ): Promise<SourceRow & { update: (change: Partial<SourceRow>, how?: object) => Promise<unknown> }> {
    const { transaction } = options;
    const exclude = [...(options.original ? [] : ['original']), ...(options.tags ? [] : ['tags'])];
    const row = await this.models.sources.findOne({
      where: options.deleted ? this.own({ id }) : this.own({ id, deletedAt: null }),
      attributes: { exclude },
      ...(transaction ? { transaction, lock: true } : {}),
    });
    if (!row) throw new ApiError('not-found', 'This source is not here, or no longer.');
    if (!transaction && row.ownFacts.some((o) => o.made === undefined)) await this.makeOwn(row);
    return row;
  }

  /** Own facts of before they were taken apart: once, when they are read first. */
  private async makeOwn(row: SourceRow): Promise<void> {
    const waiting = row.ownFacts.filter((o) => o.made === undefined);
    const made = await this.deps.work.own({ document: row.document, own: waiting });
    const of = new Map(waiting.map((o, i) => [o.id, made[i]]));
    await this.deps.db.transaction(async (transaction) => {
      const now = await this.row(row.id, { deleted: true, transaction });
      await now.update(
        { ownFacts: now.ownFacts.map((o) => (of.has(o.id) ? { ...o, made: of.get(o.id) ?? null } : o)) },
        { transaction },
      );
    });
    row.ownFacts = row.ownFacts.map((o) => (of.has(o.id) ? { ...o, made: of.get(o.id) ?? null } : o));
  }

  private view(row: SourceRow) {
    const { document, facts } = row;
    return {
      id: row.id,
      document,
      facts: [...facts, ...ownOf(row).facts],
      rights: row.rights,
      marks: row.marks,
      ownFacts: standing(row).map(({ made: _, gone: __, ...own }): OwnFact => own),
      address: row.address,
      /** Whether today's code would read it otherwise than it was read. */
      older: (row.extractor ?? 1) < EXTRACTOR,
      outline: outlineOf(document, facts),
      cast: castOf(facts),
      glossary: glossaryOf(facts),
      thin: thinIn(facts),
      timeline: timeline(facts),
    };
  }

  /** A source as it is told from: what was taken apart when it was read, and the marks on its facts. */
  async read(id: string, options: { deleted?: boolean } = {}): Promise<ReadSource> {
    const row = await this.row(id, { ...options, tags: true });
    const { document, facts, tags } = row;
    return { id, document, facts, tags, own: ownOf(row), marks: marksOn(row) };
  }

  async one(id: string) {
    const row = await this.row(id);
    return { ...this.view(row), like: await this.like(row) };
  }

  /** A source that a script rests on, even when it was taken out of the library since. */
  async ofScript(id: string) {
    return this.view(await this.row(id, { deleted: true }));
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

  async change(id: string, patch: z.infer<typeof sourcePatch>) {
    // What takes long is done before the row is held.
    const added = patch.addFact ? await this.ownFact(id, patch.addFact) : null;
    if (patch.kind) await this.renew(id, patch.kind);
    await this.deps.db.transaction(async (transaction) => {
      const row = await this.row(id, { transaction });
      const change: Partial<SourceRow> = {};
      if (patch.rights) change.rights = patch.rights;
      if (patch.marks) change.marks = marked(row, patch.marks);
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

  private async ownFact(
    id: string,
    input: { start: number; end: number } | { text: string },
  ): Promise<Omit<StoredOwnFact, 'id'>> {
    const { document } = await this.row(id);
    const own = 'text' in input ? { text: input.text } : chosenWords(document, input);
    const [made] = await this.deps.work.own({ document, own: [{ ...own, id: 'w0' }] });
    return { ...own, made };
  }

  /**
   * Reads a stored source again with today's code, or as another kind. Facts whose words stand keep their ids; marks, the
   * lines of scripts and their promises follow the others to the facts that have their words. `preview` changes nothing.
   */
  async renew(id: string, kind?: SourceKind, preview = false): Promise<Renewal> {
    const before = await this.row(id, { original: true, deleted: true });
    const made = await this.deps.work.renew(before.original, before.facts, kind ?? before.document.kind);
    const document: SourceDocument = {
      ...made.document,
      ...(before.document.address ? { address: before.document.address } : {}),
    };
    const moved = new Map(made.moved);
    const known = new Set(before.facts.map((f) => f.id));
    const lost = before.facts.filter((f) => made.lost.includes(f.id));
    const answer: Renewal = {
      passages: { before: before.document.blocks.length, after: document.blocks.length },
      facts: {
        before: before.facts.length,
        after: made.facts.length,
        same: made.facts.filter((f) => known.has(f.id)).length,
      },
      moved: before.facts
        .filter((f) => moved.has(f.id))
        .map((f) => ({
          id: f.id,
          text: f.text,
          to: moved.get(f.id)!.map((to) => made.facts.find((n) => n.id === to)!.text),
        })),
      lost: lost.map((f) => ({ id: f.id, text: f.text, mark: before.marks[f.id]?.mark ?? null })),
      lines: await this.linesOn(id, new Set(lost.map((f) => f.id))),
      tidy: sameData(JSON.parse(JSON.stringify(document)), before.document) && !moved.size && !lost.length,
    };
    if (preview) return answer;
    const own = await this.replaced(before.ownFacts, document);
    await this.deps.db.transaction(async (transaction) => {
      const row = await this.row(id, { deleted: true, transaction });
      const marks: Record<string, Mark> = {};
      for (const [fact, mark] of Object.entries(row.marks))
        for (const to of moved.get(fact) ?? [fact]) marks[to] ??= mark;
      for (const fact of made.lost) delete marks[fact];
      await row.update(
        {
          document,
          title: document.title,
          facts: made.facts,
          tags: made.tags,
          extractor: EXTRACTOR,
          sketch: sketchOf(document.text),
          marks,
          ownFacts: own,
        },
        { transaction },
      );
      if (moved.size) await this.relink(id, moved, transaction);
    });
    return answer;
  }

  /** Chosen words at their place in the source as it is read now; without one they are something the writer knows. */
  private async replaced(own: readonly StoredOwnFact[], document: SourceDocument): Promise<StoredOwnFact[]> {
    const placed = own.map(({ made: _, start: was, end: __, ...known }): StoredOwnFact => {
      const start = was === undefined ? -1 : document.text.indexOf(known.text);
      return start < 0 ? known : { ...known, start, end: start + known.text.length };
    });
    const made = await this.deps.work.own({ document, own: placed });
    return placed.map((o, i) => ({ ...o, made: made[i] }));
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
  async search(query: z.infer<typeof sourceSearch>): Promise<FoundSource[]> {
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
      `SELECT s.id, s.title, s.document->>'kind' AS kind, s.document->>'publisher' AS publisher,
              s.document->>'published' AS published, s.document->>'licence' AS licence, s.rights, ${USES} AS scripts,
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
    return (rows as (FoundSource & { scripts: number | string })[]).map((r) => ({
      ...r,
      scripts: Number(r.scripts),
    }));
  }

  async cite(id: string, format: CitationFormat): Promise<string> {
    return citation((await this.row(id)).document, format);
  }

  /** The original as it came. */
  async original(id: string): Promise<{ bytes: Buffer; document: SourceDocument }> {
    const row = await this.row(id, { original: true });
    return { bytes: row.original, document: row.document };
  }

  async remove(id: string) {
    await (await this.row(id)).update({ deletedAt: this.deps.now() });
  }
  async restore(id: string) {
    await (await this.row(id, { deleted: true })).update({ deletedAt: null });
  }

  /** Sources beside one another: what they tell alike, where they disagree. Letters as given. */
  async compare(sources: readonly { letter: string; id: string }[]): Promise<Comparison> {
    const rows = await Promise.all(
      sources.map(async ({ letter, id }) => ({ letter, ...(await this.ofScript(id)) })),
    );
    return compareSources(rows);
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
    const { document } = await this.deps.work.read(bytes, { kind: row.document.kind });
    const now = new Set(document.blocks.map((b) => b.text));
    const before = new Set(row.document.blocks.map((b) => b.text));
    const gone = row.document.blocks.filter((b) => !now.has(b.text));
    const changedFacts = new Set(
      row.facts
        .filter((f) => gone.some((b) => b.id === f.block) && !document.text.includes(f.text))
        .map((f) => f.id),
    );
    return {
      at: this.deps.now().toISOString(),
      removed: gone.map((b) => ({ block: b.id, text: b.text })),
      added: document.blocks.filter((b) => !before.has(b.text)).map((b) => b.text),
      lines: await this.linesOn(id, changedFacts),
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
const anywhere = (words = '') => `%${words.replace(/[%_\\]/g, '\\$&')}%`;

/** What is asked for, and the words it is found in as they are shown: without the marks that the parser chokes on. */
const ASKED = `websearch_to_tsquery('english', :q)`;
const SHOWN = `translate(left(s.document->>'text', 200000), '<_-', ' \u2009\u2011')`;
/** Marks between words are none of the search's own signs. */
const plainWords = (q: string) => q.replace(/(?<=[\p{L}\p{N}])-|[<>_@/&=#%+]/gu, ' ');

/** Scripts in the library that rest on the source. */
const USES =
  '(SELECT count(*) FROM script_sources l JOIN scripts c ON c.id = l."scriptId" WHERE l."sourceId" = s.id AND c."deletedAt" IS NULL)';

/** A source as it is told from. Marks are by fact: one on chosen words is one on the facts that have them. */
export interface ReadSource extends StoredSource {
  id: string;
  marks: Marks;
}
/** Own facts that were not taken away. */
const standing = (row: SourceRow): readonly StoredOwnFact[] => row.ownFacts.filter((o) => !o.gone);

/** Own facts as the others are stored; one that says nothing is none. */
function ownOf(row: SourceRow): { facts: Fact[]; tags: PackedTags[] } {
  const made = standing(row).flatMap((o) => o.made ?? []);
  return { facts: made.map((m) => m.fact), tags: made.map((m) => m.tags) };
}

function marksOn(row: SourceRow): Marks {
  const out: Record<string, Mark> = { ...row.marks };
  for (const own of standing(row))
    if (row.marks[own.id]) for (const id of chosenIn(own, row.facts)) out[id] ??= row.marks[own.id];
  return out;
}

function marked(row: SourceRow, patch: NonNullable<z.infer<typeof sourcePatch>['marks']>): Marks {
  const marks: Record<string, Mark> = { ...row.marks };
  for (const [fact, { mark, correct, why }] of Object.entries(patch)) {
    if (!row.facts.some((f) => f.id === fact) && !standing(row).some((f) => f.id === fact))
      throw new ApiError('not-found', `There is no fact ${fact} in this source.`);
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

function chosenWords(document: SourceDocument, { start, end }: { start: number; end: number }) {
  const raw = document.text.slice(start, end);
  const text = raw.trim();
  if (text.length < 3 || text.length > 600 || end <= start)
    throw new ApiError('bad-request', 'Choose a few words to a few sentences of the source.');
  const at = start + raw.indexOf(text);
  return { text, start: at, end: at + text.length };
}
