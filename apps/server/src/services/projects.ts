import { Op, type FindAttributeOptions, type Transaction, type WhereOperators } from 'sequelize';
import { applyChange, explain, LIMITS, type LogEntry, type Project } from '@helb/core';
import type { Database } from '../db/database.ts';
import type { ProjectRow, Snapshot } from '../db/models.ts';
import type { CheckedDocument } from './checked-document.ts';
import { DocumentCache } from './document-cache.ts';
import { newId } from './ids.ts';
import type { Quota } from './quota.ts';
import { notFound, Refusal } from './refusal.ts';
import { current, packed, unpacked } from './snapshots.ts';
import type { SaveRequest } from './requests.ts';
import { writtenSize } from './written-size.ts';

export const MOST_PROJECTS = 500;
const MB = 1024 * 1024;
const MOST_DOCUMENT = LIMITS.bytes;
/** What one change may take as text. */
const MOST_ENTRY = 4 * MB;
/** Of the log so much is sent at once, and kept; what is older goes, and can't be undone any more. */
const SENT = { bytes: MB, entries: 1000 };
const KEPT = { bytes: 32 * MB, entries: 20_000 };
const QUOTA_STEP = MB / 8;
/** A snapshot is made once the changes since the last one cost so much to do again: their bytes, and so much for each. */
const REPLAY = { most: MB / 2, each: 4000 };

interface OpenedProject {
  readonly id: string;
  readonly revision: number;
  readonly document: Project;
  /** The latest entries, as many as are sent at once. */
  readonly log: readonly LogEntry[];
  /** The revision before which there are older ones. */
  readonly older?: number | undefined;
}

/** What was thrown away is neither opened nor changed until it is taken back. */
function refuseThrown({ name, thrownAt }: ProjectRow): void {
  if (thrownAt) throw new Refusal(410, `"${name}" was thrown away. Take it back from the shelf to go on with it.`);
}

/** Projects and their revisions. Every method takes who asks, and knows nothing of projects of others. */
export class Projects {
  private readonly documents: DocumentCache;

  constructor(
    private readonly database: Database,
    private readonly quota: Quota,
    cacheBytes = 64 * MB,
  ) {
    this.documents = new DocumentCache(cacheBytes);
  }

  /** A new project of a document that was checked. */
  async create(accountId: number, { name, size, packed: bytes }: CheckedDocument): Promise<string> {
    const { Account, ProjectRow, Snapshot } = this.database.models;
    if (size > MOST_DOCUMENT) throw new Refusal(413, `A project has at most ${MOST_DOCUMENT / MB} MB.`);
    const id = newId();
    const now = new Date();
    await this.database.sequelize.transaction(async (transaction) => {
      // of one account one after the other: two at once would both be the last that is allowed
      await Account.findByPk(accountId, { transaction, lock: transaction.LOCK.UPDATE, attributes: ['id'] });
      if ((await ProjectRow.count({ where: { accountId }, transaction })) >= MOST_PROJECTS)
        throw new Refusal(
          409,
          `There are ${MOST_PROJECTS} projects already, with those that were thrown away. Remove some for good first.`,
        );
      await this.quota.check(accountId, size, transaction);
      await ProjectRow.create(
        { id, accountId, name, revision: 0, createdAt: now, changedAt: now, documentSize: size },
        { transaction },
      );
      await Snapshot.create({ projectId: id, revision: 0, packed: Buffer.from(bytes) }, { transaction });
    });
    return id;
  }

  async open(accountId: number, id: string): Promise<OpenedProject> {
    const row = await this.row(accountId, id);
    refuseThrown(row);
    const document = await this.documentOf(row.id, row.revision);
    return { id, revision: row.revision, document, ...(await this.logBefore(id, row.revision)) };
  }

  /** Older entries of the log, as many as are sent at once. */
  async log(accountId: number, id: string, before: number): Promise<Pick<OpenedProject, 'log' | 'older'>> {
    const { revision } = await this.row(accountId, id);
    return this.logBefore(id, Math.min(before, revision));
  }

  /** Refuses a project that is not theirs, before anything that is sent with it is looked at. */
  async owned(accountId: number, id: string): Promise<void> {
    refuseThrown(await this.row(accountId, id, undefined, ['id', 'name', 'thrownAt']));
  }

  /** The document alone, as it is now: a part of it may be wanted elsewhere. */
  async document(accountId: number, id: string): Promise<{ revision: number; document: Project }> {
    const { revision } = await this.row(accountId, id);
    return { revision, document: await this.documentOf(id, revision) };
  }

  /** What others (or another window) have saved since a revision, as much as is sent at once. */
  async since(accountId: number, id: string, revision: number) {
    const row = await this.row(accountId, id);
    const found = await this.sizesOf(id, { [Op.gt]: revision, [Op.lte]: row.revision }, 'ASC');
    const upTo = found.at(-1)?.revision ?? row.revision;
    // what was taken off the log can't be told any more: the page has to open the project anew
    if (found.length > 0 && found[0]!.revision !== revision + 1)
      throw new Refusal(410, 'So much has changed since that the project has to be opened anew.');
    const changes = await this.changesAfter(id, revision, upTo);
    return { revision: upTo, changes, more: upTo < row.revision };
  }

  /** Lets go of what is kept in memory of a project that was removed. */
  forget(id: string): void {
    this.documents.forget(id);
  }

  /**
   * Appends changes, all or nothing, in one transaction; answers only after it is on disk. Sending the same changes again
   * is harmless: those that are known by their ids are passed over. Changes made on an older revision are refused
   * (409), with what has come since: the page puts its own on top.
   */
  async save(accountId: number, id: string, request: SaveRequest): Promise<{ revision: number }> {
    try {
      return await this.appended(accountId, id, request);
    } catch (error) {
      if (!(error instanceof Refusal) || error.status !== 409 || !('revision' in error.facts)) throw error;
      // what the page would ask for next comes with the answer; where that can't be told it has to ask
      const since = await this.since(accountId, id, request.base).catch(() => undefined);
      throw since ? new Refusal(409, error.message, { ...error.facts, since }) : error;
    }
  }

  private async appended(accountId: number, id: string, { base, changes }: SaveRequest): Promise<{ revision: number }> {
    const saved = await this.database.sequelize.transaction(async (transaction) => {
      const row = await this.row(accountId, id, transaction);
      refuseThrown(row);
      // what is put on the latest revision can not have been sent before
      const known =
        base === row.revision
          ? new Map<string, number>()
          : await this.knownAmong(
              id,
              changes.map((change) => change.id),
              transaction,
            );
      const fresh = changes.filter((change) => !known.has(change.id));
      if (fresh.length === 0) return { revision: row.revision };
      if (Math.max(base, ...known.values()) !== row.revision)
        throw new Refusal(409, 'The project was changed in another window meanwhile.', { revision: row.revision });
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
      const entry = JSON.stringify({ ...change, actions: undefined });
      const size = Buffer.byteLength(entry);
      if (size > MOST_ENTRY)
        throw new Refusal(413, `It changes more than ${MOST_ENTRY / MB} MB at once.`, { change: change.id });
      return { projectId: row.id, revision: ++revision, changeId: change.id, accountId, madeAt, size, entry };
    });
    const documentSize = writtenSize(document);
    if (documentSize > MOST_DOCUMENT) throw new Refusal(413, `The project would grow beyond ${MOST_DOCUMENT / MB} MB.`);
    const added = rows.reduce((sum, { size }) => sum + size, 0);
    // counted over all that an account has: looked at each time that a log has grown by a piece
    if (Math.floor(Number(row.logSize) / QUOTA_STEP) < Math.floor((Number(row.logSize) + added) / QUOTA_STEP))
      await this.quota.check(accountId, added, transaction, 507);
    await ChangeRow.bulkCreate(rows, { transaction });
    let [logSize, replaySize] = [
      Number(row.logSize) + added,
      Number(row.replaySize) + added + rows.length * REPLAY.each,
    ];
    if (replaySize > REPLAY.most) {
      replaySize = 0;
      // the one before stays: somebody may be reading from it
      const before = await Snapshot.max<number, Snapshot>('revision', { where: { projectId: row.id }, transaction });
      await Snapshot.create({ projectId: row.id, revision, packed: await packed(document) }, { transaction });
      await Snapshot.destroy({ where: { projectId: row.id, revision: { [Op.lt]: before } }, transaction });
      logSize -= await this.trimLog(row.id, revision, logSize, transaction);
    }
    await row.update(
      { revision, changedAt: madeAt, name: document.name, documentSize, logSize, replaySize },
      { transaction },
    );
    return document;
  }

  /** Takes the oldest entries off a log that is too large; how many bytes went. The document needs none of them. */
  private async trimLog(id: string, revision: number, size: number, transaction: Transaction): Promise<number> {
    const { ChangeRow } = this.database.models;
    const isFew = (await ChangeRow.count({ where: { projectId: id }, transaction })) <= KEPT.entries;
    if (size <= KEPT.bytes && isFew) return 0;
    const latest = await this.sizesOf(id, { [Op.lte]: revision }, 'DESC', transaction, {
      bytes: (3 * KEPT.bytes) / 4,
      entries: (3 * KEPT.entries) / 4,
    });
    const first = latest.at(-1)!.revision;
    await ChangeRow.destroy({ where: { projectId: id, revision: { [Op.lt]: first } }, transaction });
    return size - latest.reduce((sum, entry) => sum + entry.size, 0);
  }

  /** The latest entries up to a revision, as many as are sent at once. */
  private async logBefore(id: string, revision: number): Promise<Pick<OpenedProject, 'log' | 'older'>> {
    const found = await this.sizesOf(id, { [Op.lte]: revision }, 'DESC');
    const after = (found.at(-1)?.revision ?? revision + 1) - 1;
    const log = await this.changesAfter(id, after, revision);
    const isMore =
      after > 0 && (await this.sizesOf(id, { [Op.lte]: after }, 'DESC', null, { bytes: 0, entries: 1 })).length > 0;
    return { log, ...(isMore && { older: after }) };
  }

  /** The sizes of entries of the log in an order, as many as fit into a page, and one at least. */
  private async sizesOf(
    id: string,
    revision: WhereOperators<number>,
    order: 'ASC' | 'DESC',
    transaction: Transaction | null = null,
    page: { readonly bytes: number; readonly entries: number } = SENT,
  ): Promise<{ readonly revision: number; readonly size: number }[]> {
    const rows = await this.database.models.ChangeRow.findAll({
      where: { projectId: id, revision },
      order: [['revision', order]],
      attributes: ['revision', 'size'],
      limit: page.entries,
      transaction,
    });
    let bytes = 0;
    const fitting = rows.findIndex(({ size }, k) => (bytes += size) > page.bytes && k > 0);
    return fitting < 0 ? rows : rows.slice(0, fitting);
  }

  /** The row, if it is theirs; locked inside a transaction so that saves of one project go one after the other. */
  private async row(
    accountId: number,
    id: string,
    transaction?: Transaction,
    attributes: FindAttributeOptions = { exclude: ['picture'] },
  ): Promise<ProjectRow> {
    const row = await this.database.models.ProjectRow.findOne({
      where: { id, accountId },
      attributes,
      ...(transaction ? { transaction, lock: transaction.LOCK.UPDATE } : {}),
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
    let document = snapshot.packed
      ? await unpacked(snapshot.packed)
      : current(JSON.parse(snapshot.document!) as Project);
    for (const entry of await this.changesAfter(id, snapshot.revision, revision, transaction)) {
      const next = applyChange(document, entry.forward);
      if (!next.ok) throw new Error(`project ${id}, change ${entry.id}: ${explain(next.issue)}`);
      document = next.value;
    }
    this.documents.put(id, revision, document);
    return document;
  }
}
