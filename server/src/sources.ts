/** The library of sources: found, ruled on, cited, taken out and put back. Every query is scoped to the workspace. */
import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import type { z } from 'zod';
import { citation, type CitationFormat } from '@ursprung/core/cite';
import {
  castOf,
  compareSources,
  glossaryOf,
  outlineOf,
  thinIn,
  timeline,
  type Comparison,
} from '@ursprung/core/facts';
import { NEARLY_SAME, sharedOf, sketchOf, type SourceDocument, type SourceKind } from '@ursprung/core/source';
import type { FoundSource, Mark, OwnFact, Rights, sourcePatch, sourceSearch } from './api.ts';
import type { Models, SourceRow } from './db/models.ts';
import { ApiError } from './errors.ts';
import { readable } from './stored.ts';
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
    options: { kind?: SourceKind; address?: string; progress?: ReadProgress; signal?: AbortSignal } = {},
  ) {
    const { document: read, facts } = await this.deps.work.read(bytes, options);
    const document: SourceDocument = options.address ? { ...read, address: options.address } : read;
    const rights: Rights = OPEN_LICENCE.test(document.licence ?? '') ? 'open' : 'not asked';
    const row = await this.models.sources.create({
      id: randomUUID(),
      workspaceId: this.workspaceId,
      title: document.title,
      original: Buffer.from(bytes),
      document,
      facts,
      address: options.address ?? null,
      rights,
      marks: {},
      ownFacts: [],
      sketch: sketchOf(document.text),
      createdAt: this.deps.now(),
      deletedAt: null,
    });
    return { ...this.view(row), like: await this.like(row) };
  }

  private async row(
    id: string,
    options: { original?: boolean; deleted?: boolean } = {},
  ): Promise<SourceRow & { update: (change: Partial<SourceRow>) => Promise<unknown> }> {
    const row = await this.models.sources.findOne({
      where: options.deleted ? this.own({ id }) : this.own({ id, deletedAt: null }),
      ...(options.original ? {} : { attributes: { exclude: ['original'] } }),
    });
    if (!row) throw new ApiError('not-found', 'This source is not here, or no longer.');
    return row;
  }

  private view(row: SourceRow) {
    const { document, facts } = row;
    return {
      id: row.id,
      document,
      facts,
      rights: row.rights,
      marks: row.marks,
      ownFacts: row.ownFacts,
      address: row.address,
      outline: outlineOf(document, facts),
      cast: castOf(facts),
      glossary: glossaryOf(facts),
      thin: thinIn(facts),
      timeline: timeline(facts),
    };
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
    const row = await this.row(id, { original: patch.kind !== undefined });
    const change: Partial<SourceRow> = {};
    if (patch.kind) Object.assign(change, await this.deps.work.read(row.original, { kind: patch.kind }));
    if (patch.rights) change.rights = patch.rights;
    if (patch.marks) {
      const marks: Record<string, Mark> = { ...row.marks };
      for (const [fact, { mark, correct, why }] of Object.entries(patch.marks)) {
        if (!row.facts.some((f) => f.id === fact) && !row.ownFacts.some((f) => f.id === fact))
          throw new ApiError('not-found', `There is no fact ${fact} in this source.`);
        if (mark === 'wrong' && !correct) throw new ApiError('bad-request', 'Say what is right instead.');
        if (mark) marks[fact] = { mark, ...(correct ? { correct } : {}), ...(why ? { why } : {}) };
        else delete marks[fact];
      }
      change.marks = marks;
    }
    if (patch.addFact) change.ownFacts = [...row.ownFacts, ownFact(row, patch.addFact)];
    if (patch.removeFact) change.ownFacts = row.ownFacts.filter((f) => f.id !== patch.removeFact);
    await row.update(change);
    return this.one(id);
  }

  /** What a writer asks the library: words, and any of kind, rights, days, publisher, channel, used or not. Best match first. */
  async search(query: z.infer<typeof sourceSearch>): Promise<FoundSource[]> {
    const where = [
      's."workspaceId" = :workspace',
      's."deletedAt" IS NULL',
      ...(query.q ? [`s.found @@ websearch_to_tsquery('english', :q)`] : []),
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
              ${query.q ? `ts_headline('english', left(s.document->>'text', 200000), websearch_to_tsquery('english', :q), E'StartSel=\\x02, StopSel=\\x03, MaxFragments=2, MaxWords=18, MinWords=6, FragmentDelimiter=" … "')` : 'NULL'} AS found
         FROM sources s WHERE ${where.join(' AND ')}
        ORDER BY ${query.q ? `ts_rank_cd(s.found, websearch_to_tsquery('english', :q)) DESC,` : ''} s."createdAt" DESC
        LIMIT ${ROWS_FOUND}`,
      {
        type: QueryTypes.SELECT,
        replacements: {
          workspace: this.workspaceId,
          ...query,
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

/** Scripts in the library that rest on the source. */
const USES =
  '(SELECT count(*) FROM script_sources l JOIN scripts c ON c.id = l."scriptId" WHERE l."sourceId" = s.id AND c."deletedAt" IS NULL)';

function ownFact(row: SourceRow, input: { start: number; end: number } | { text: string }): OwnFact {
  const id = `w${Math.max(0, ...row.ownFacts.map((f) => Number(f.id.slice(1)))) + 1}`;
  if ('text' in input) return { id, text: input.text };
  const text = row.document.text.slice(input.start, input.end).trim();
  if (text.length < 3 || text.length > 600 || input.end <= input.start)
    throw new ApiError('bad-request', 'Choose a few words to a few sentences of the source.');
  return { id, text, start: input.start, end: input.end };
}
