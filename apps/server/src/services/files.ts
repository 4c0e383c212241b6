import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { MOST_FILE } from '@helb/core';
import type { Database } from '../db/database.ts';
import type { FileRow } from '../db/models.ts';
import type { Quota } from './quota.ts';
import { notFound, Refusal } from './refusal.ts';

const pack = promisify(gzip);
const unpack = promisify(gunzip);

/** Packed, bytes: what goes into one statement of the database, where it is written as digits. */
const MOST_PACKED = 7 * 1024 * 1024;
const MOST_FILES = 100;

/** Files that projects bring in. Every method takes who asks, and knows nothing of projects of others. */
export class Files {
  constructor(
    private readonly database: Database,
    private readonly quota: Quota,
  ) {}

  /** Keeps a file with a project; the same bytes once only. */
  async keep(accountId: number, projectId: string, bytes: Buffer): Promise<{ hash: string; size: number }> {
    await this.ofOwn(accountId, projectId);
    if (bytes.length === 0) throw new Refusal(422, 'The file is empty.');
    const hash = createHash('sha256').update(bytes).digest('hex');
    const file = { hash, size: bytes.length };
    if (await this.has(projectId, hash)) return file;
    const packed = await pack(bytes);
    if (packed.length > MOST_PACKED)
      throw new Refusal(413, `Packed the file is larger than ${MOST_PACKED / 1024 ** 2} MB: bring in less at once.`);
    await this.quota.check(accountId, packed.length);
    await this.put(projectId, { ...file, packed });
    return file;
  }

  /** Keeps a file of another project of theirs with a project too. */
  async share(accountId: number, projectId: string, hash: string): Promise<void> {
    await this.ofOwn(accountId, projectId);
    if (await this.has(projectId, hash)) return;
    const { size, packed } = await this.row(accountId, hash);
    await this.quota.check(accountId, packed.length);
    await this.put(projectId, { hash, size, packed });
  }

  /** Keeps all files of a project of theirs with another one too. */
  async copyAll(accountId: number, from: string, to: string): Promise<void> {
    for (const hash of await this.list(accountId, from)) await this.share(accountId, to, hash);
  }

  /** The bytes of a file of any project of theirs. */
  async read(accountId: number, hash: string): Promise<Buffer> {
    const { packed } = await this.row(accountId, hash);
    return unpack(packed, { maxOutputLength: MOST_FILE });
  }

  /** The hashes of all files of a project. */
  async list(accountId: number, projectId: string): Promise<string[]> {
    await this.ofOwn(accountId, projectId);
    const rows = await this.database.models.FileRow.findAll({ where: { projectId }, attributes: ['hash'] });
    return rows.map(({ hash }) => hash);
  }

  private async ofOwn(accountId: number, projectId: string): Promise<void> {
    if ((await this.database.models.ProjectRow.count({ where: { id: projectId, accountId } })) === 0) throw notFound();
  }

  private async has(projectId: string, hash: string): Promise<boolean> {
    return (await this.database.models.FileRow.count({ where: { projectId, hash } })) > 0;
  }

  private async row(accountId: number, hash: string): Promise<FileRow> {
    const { ProjectRow, FileRow } = this.database.models;
    const rows = await FileRow.findAll({ where: { hash }, attributes: ['projectId'] });
    const owned = await ProjectRow.findOne({
      where: { id: rows.map(({ projectId }) => projectId), accountId },
      attributes: ['id'],
    });
    const row = owned && (await FileRow.findOne({ where: { projectId: owned.id, hash } }));
    if (!row) throw new Refusal(404, 'There is no such file.');
    return row;
  }

  private async put(projectId: string, file: Pick<FileRow, 'hash' | 'size' | 'packed'>): Promise<void> {
    const { FileRow } = this.database.models;
    if ((await FileRow.count({ where: { projectId } })) >= MOST_FILES)
      throw new Refusal(409, `The project has ${MOST_FILES} files already.`);
    // two windows may bring the same file at once
    await FileRow.bulkCreate([{ projectId, ...file }], { ignoreDuplicates: true });
  }
}
