import { customAlphabet } from 'nanoid';
import { Op, type Transaction } from 'sequelize';
import { z } from 'zod';
import {
  applyChange,
  explain,
  idSchema,
  loadProject,
  seedSieve,
  emptyProject,
  type LogEntry,
  type Project,
} from '@helb/core';
import type { Database } from '../db/database.ts';
import type { ProjectRow } from '../db/models.ts';
import { DocumentCache } from './document-cache.ts';
import { notFound, Refusal } from './refusal.ts';

const newId = customAlphabet('0123456789abcdefghijkmnpqrstuvwxyz', 12);

const MOST_PROJECTS = 500;
const SNAPSHOT_EVERY = 50;
/** How far back the log is sent for undo. */
const LOG_SENT = 2000;

const fieldChangeSchema = z.strictObject({
  op: z.enum(['set', 'remove']),
  path: z.array(z.string().max(60)).min(1).max(12),
  value: z.unknown().optional(),
});

/** A change as the page sends it: applied there already, checked again here. */
export const changeSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(['do', 'undo', 'redo']),
  label: z.string().max(200),
  of: idSchema.optional(),
  actions: z
    .array(z.strictObject({ command: z.string().max(40), input: z.unknown().optional() }))
    .max(100)
    .optional(),
  forward: z.array(fieldChangeSchema).max(20000),
  backward: z.array(fieldChangeSchema).max(20000),
});

export const saveSchema = z.strictObject({
  /** The revision on which the first change was made. */
  base: z.int().min(0),
  changes: z.array(changeSchema).min(1).max(200),
});
export type SaveRequest = z.infer<typeof saveSchema>;

export interface OpenedProject {
  readonly id: string;
  readonly revision: number;
  readonly document: Project;
  readonly log: readonly LogEntry[];
}

/** Projects and their revisions. Every method takes who asks, and knows nothing of projects of others. */
export class Projects {
  private readonly documents = new DocumentCache();

  constructor(private readonly database: Database) {}

  async list(accountId: number) {
    const rows = await this.database.models.ProjectRow.findAll({
      where: { accountId },
      order: [['changedAt', 'DESC']],
      attributes: {
        include: [[this.database.sequelize.literal('picture IS NOT NULL'), 'hasPicture']],
        exclude: ['picture'],
      },
    });
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      revision: row.revision,
      changedAt: row.changedAt.toISOString(),
      findings: row.findings,
      hasPicture: Boolean(row.get('hasPicture')),
    }));
  }

  /** A new project: empty, the demo, or from a document of unknown origin. */
  async create(accountId: number, from: { name: string } | { demo: true } | { document: unknown }): Promise<string> {
    const document = documentFrom(from);
    const { ProjectRow, Snapshot } = this.database.models;
    if ((await ProjectRow.count({ where: { accountId } })) >= MOST_PROJECTS)
      throw new Refusal(409, `There are ${MOST_PROJECTS} projects already. Remove some first.`);
    const id = newId();
    const now = new Date();
    await this.database.sequelize.transaction(async (transaction) => {
      await ProjectRow.create(
        { id, accountId, name: document.name, revision: 0, createdAt: now, changedAt: now },
        { transaction },
      );
      await Snapshot.create({ projectId: id, revision: 0, document: JSON.stringify(document) }, { transaction });
    });
    return id;
  }

  async open(accountId: number, id: string): Promise<OpenedProject> {
    const row = await this.row(accountId, id);
    const document = await this.documentOf(row.id, row.revision);
    const log = await this.changesAfter(id, Math.max(0, row.revision - LOG_SENT), row.revision);
    return { id, revision: row.revision, document, log };
  }

  /** The document alone, as it is now: a part of it may be wanted elsewhere. */
  async document(accountId: number, id: string): Promise<{ revision: number; document: Project }> {
    const { revision } = await this.row(accountId, id);
    return { revision, document: await this.documentOf(id, revision) };
  }

  /** What others (or another window) have saved since a revision. */
  async since(accountId: number, id: string, revision: number) {
    const row = await this.row(accountId, id);
    return { revision: row.revision, changes: await this.changesAfter(id, revision, row.revision) };
  }

  async remove(accountId: number, id: string): Promise<void> {
    const row = await this.row(accountId, id);
    await row.destroy();
    this.documents.forget(id);
  }

  async describe(accountId: number, id: string, look: { findings: number; picture: Buffer }): Promise<void> {
    const row = await this.row(accountId, id);
    await row.update(look);
  }

  async picture(accountId: number, id: string): Promise<Buffer> {
    const { picture } = await this.row(accountId, id);
    if (!picture) throw new Refusal(404, 'There is no picture yet.');
    return picture;
  }

  /**
   * Appends changes, all or nothing, in one transaction; answers only after it is on disk. Sending the same changes again
   * is harmless: those that are known by their ids are passed over. Changes made on an older revision are refused with
   * what has come since (409), so that the page can put its own on top.
   */
  async save(accountId: number, id: string, { base, changes }: SaveRequest): Promise<{ revision: number }> {
    const saved = await this.database.sequelize.transaction(async (transaction) => {
      const row = await this.row(accountId, id, transaction);
      const known = await this.knownAmong(
        id,
        changes.map((change) => change.id),
        transaction,
      );
      const fresh = changes.filter((change) => !known.has(change.id));
      if (fresh.length === 0) return { revision: row.revision };
      if (Math.max(base, ...known.values()) !== row.revision)
        throw new Refusal(409, 'The project was changed in another window meanwhile.', {
          revision: row.revision,
          changes: await this.changesAfter(id, base, row.revision, transaction),
        });
      const document = await this.append(row, accountId, fresh, transaction);
      return { revision: row.revision, document };
    });
    if (saved.document) this.documents.put(id, saved.revision, saved.document);
    return { revision: saved.revision };
  }

  private async append(
    row: ProjectRow,
    accountId: number,
    fresh: SaveRequest['changes'],
    transaction: Transaction,
  ): Promise<Project> {
    const { ChangeRow, Snapshot } = this.database.models;
    let document = await this.documentOf(row.id, row.revision, transaction);
    let revision = row.revision;
    const madeAt = new Date();
    const rows = fresh.map((change) => {
      const next = applyChange(document, change.forward);
      if (!next.ok) throw new Refusal(422, explain(next.issue), { change: change.id });
      document = next.value;
      return {
        projectId: row.id,
        revision: ++revision,
        changeId: change.id,
        accountId,
        madeAt,
        entry: JSON.stringify(change),
      };
    });
    const text = JSON.stringify(document);
    const loaded = loadProject(JSON.parse(text));
    if (!loaded.ok) throw new Refusal(422, explain(loaded.issue));
    if (text.length > 8 * 1024 * 1024) throw new Refusal(413, 'The project would grow beyond 8 MB.');
    await ChangeRow.bulkCreate(rows, { transaction });
    if (Math.floor(revision / SNAPSHOT_EVERY) > Math.floor(row.revision / SNAPSHOT_EVERY))
      await Snapshot.create({ projectId: row.id, revision, document: text }, { transaction });
    await row.update({ revision, changedAt: madeAt, name: document.name }, { transaction });
    return document;
  }

  /** The row, if it is theirs; locked inside a transaction so that saves of one project go one after the other. */
  private async row(accountId: number, id: string, transaction?: Transaction): Promise<ProjectRow> {
    const row = await this.database.models.ProjectRow.findOne({
      where: { id, accountId },
      ...(transaction ? { transaction, lock: transaction.LOCK.UPDATE, attributes: { exclude: ['picture'] } } : {}),
    });
    if (!row) throw notFound();
    return row;
  }

  private async knownAmong(id: string, ids: string[], transaction: Transaction): Promise<Map<string, number>> {
    const rows = await this.database.models.ChangeRow.findAll({
      where: { projectId: id, changeId: ids },
      attributes: ['changeId', 'revision'],
      transaction,
    });
    return new Map(rows.map((row) => [row.changeId, row.revision]));
  }

  private async changesAfter(
    id: string,
    after: number,
    upTo: number,
    transaction: Transaction | null = null,
  ): Promise<LogEntry[]> {
    const rows = await this.database.models.ChangeRow.findAll({
      where: { projectId: id, revision: { [Op.gt]: after, [Op.lte]: upTo } },
      order: [['revision', 'ASC']],
      transaction,
    });
    return rows.map((row) => JSON.parse(row.entry) as LogEntry);
  }

  /** The document at a revision: the newest snapshot before it, and the changes since. */
  private async documentOf(id: string, revision: number, transaction: Transaction | null = null): Promise<Project> {
    const cached = this.documents.get(id, revision);
    if (cached) return cached;
    const snapshot = await this.database.models.Snapshot.findOne({
      where: { projectId: id, revision: { [Op.lte]: revision } },
      order: [['revision', 'DESC']],
      transaction,
    });
    if (!snapshot) throw new Error(`project ${id} has no snapshot`);
    const loaded = loadProject(JSON.parse(snapshot.document));
    if (!loaded.ok) throw new Error(`project ${id}: ${explain(loaded.issue)}`);
    let document = loaded.value;
    for (const entry of await this.changesAfter(id, snapshot.revision, revision, transaction)) {
      const next = applyChange(document, entry.forward);
      if (!next.ok) throw new Error(`project ${id}, change ${entry.id}: ${explain(next.issue)}`);
      document = next.value;
    }
    this.documents.put(id, revision, document);
    return document;
  }
}

function documentFrom(from: { name: string } | { demo: true } | { document: unknown }): Project {
  if ('demo' in from) return seedSieve();
  if ('name' in from)
    return {
      ...emptyProject(from.name),
      parts: { p1: { name: 'Part 1', colour: 0, steps: {}, stepOrder: [] } },
      partOrder: ['p1'],
    };
  const loaded = loadProject(from.document);
  if (!loaded.ok) throw new Refusal(422, explain(loaded.issue));
  return loaded.value;
}
