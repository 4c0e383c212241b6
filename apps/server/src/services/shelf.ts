import { Op, type FindAttributeOptions } from 'sequelize';
import { MOST_NAME } from '@helb/core';
import type { Database } from '../db/database.ts';
import type { ProjectRow } from '../db/models.ts';
import type { Files } from './files.ts';
import { newId } from './ids.ts';
import { MOST_PROJECTS, type Projects } from './projects.ts';
import { notFound, Refusal } from './refusal.ts';
import type { CardRequest } from './requests.ts';
import { packed } from './snapshots.ts';
import { writtenSize } from './written-size.ts';

/** What was thrown away is kept so long, ms. */
const KEPT_ms = 30 * 24 * 3600 * 1000;
/** How often a new name is put on top of what others save meanwhile. */
const TRIES = 5;

/**
 * The projects of an account as they lie on its shelf: in folders, under names, copied, thrown away and taken back.
 * Every method takes who asks, and knows nothing of projects of others.
 */
export class Shelf {
  constructor(
    private readonly database: Database,
    private readonly projects: Projects,
    private readonly files: Files,
  ) {}

  /** All of theirs, the latest first; with those that were thrown away and can be taken back. */
  async list(accountId: number) {
    const rows = await this.database.models.ProjectRow.findAll({
      where: { accountId },
      order: [['changedAt', 'DESC']],
      limit: MOST_PROJECTS,
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
      folder: row.folder,
      goesAt: row.thrownAt && new Date(row.thrownAt.getTime() + KEPT_ms).toISOString(),
    }));
  }

  /** Another name, which is a change of the project like any other; another folder, or none. */
  async change(accountId: number, id: string, { name, folder }: CardRequest): Promise<void> {
    if (name !== undefined) await this.rename(accountId, id, name);
    if (folder !== undefined) await (await this.row(accountId, id)).update({ folder });
  }

  private async rename(accountId: number, id: string, name: string): Promise<void> {
    for (let tried = 1; ; tried++) {
      const { revision, name: before } = await this.row(accountId, id);
      if (before === name) return;
      const set = (value: string) => [{ op: 'set' as const, path: ['name'], value }];
      // as the command of the page writes it
      const change = { id: newId(), kind: 'do' as const, label: `Rename project to ${name}` };
      try {
        await this.projects.save(accountId, id, {
          base: revision,
          changes: [{ ...change, forward: set(name), backward: set(before) }],
        });
        return;
      } catch (error) {
        if (!(error instanceof Refusal) || error.status !== 409 || tried === TRIES) throw error;
      }
    }
  }

  /** The project as it is now once more, with its files, beside it; its log stays behind. */
  async copy(accountId: number, id: string): Promise<string> {
    const { document } = await this.projects.document(accountId, id);
    const look = ['folder', 'findings', 'picture', 'wholePicture'];
    const { folder, findings, picture, wholePicture } = await this.row(accountId, id, look);
    const taken = (await this.list(accountId)).map((card) => card.name);
    const named = { ...document, name: nextName(document.name, taken) };
    const { name } = named;
    const copy = await this.projects.create(accountId, {
      ...{ name, size: writtenSize(named), packed: await packed(named) },
    });
    try {
      await this.files.copyAll(accountId, id, copy);
      const beside = await this.row(accountId, copy);
      await beside.update({ folder, findings, picture, wholePicture });
    } catch (error) {
      await this.remove(accountId, copy);
      throw error;
    }
    return copy;
  }

  /** It can be taken back for 30 days. */
  async throwAway(accountId: number, id: string): Promise<void> {
    const row = await this.row(accountId, id);
    if (!row.thrownAt) await row.update({ thrownAt: new Date() });
  }

  async takeBack(accountId: number, id: string): Promise<void> {
    await (await this.row(accountId, id)).update({ thrownAt: null });
  }

  /** Removes it for good. */
  async remove(accountId: number, id: string): Promise<void> {
    await (await this.row(accountId, id)).destroy();
    this.projects.forget(id);
  }

  /** Removes all of theirs for good, one after the other: together they may take longer than a statement is given. */
  async removeAll(accountId: number): Promise<void> {
    for (const { id } of await this.list(accountId)) await this.remove(accountId, id);
  }

  /** Removes for good what was thrown away long enough ago, of all accounts; how many went. */
  async sweep(now = new Date()): Promise<number> {
    const old = { thrownAt: { [Op.lt]: new Date(now.getTime() - KEPT_ms) } };
    const rows = await this.database.models.ProjectRow.findAll({ where: old, attributes: ['id'] });
    for (const { id } of rows) {
      // asked for once more: it may have been taken back meanwhile
      await this.database.models.ProjectRow.destroy({ where: { id, ...old } });
      this.projects.forget(id);
    }
    return rows.length;
  }

  /** What a page has seen of a project. A picture of the whole is not given up for one of a part. */
  async describe(
    accountId: number,
    id: string,
    { findings, picture, whole }: { findings: number; picture: Buffer; whole: boolean },
  ): Promise<void> {
    const row = await this.row(accountId, id);
    await row.update({ findings, ...((whole || !row.wholePicture) && { picture, wholePicture: whole }) });
  }

  async picture(accountId: number, id: string): Promise<Buffer> {
    const { picture } = await this.row(accountId, id, ['picture']);
    if (!picture) throw new Refusal(404, 'There is no picture yet.');
    return picture;
  }

  /** The row, if it is theirs. */
  private async row(
    accountId: number,
    id: string,
    attributes: FindAttributeOptions = { exclude: ['picture'] },
  ): Promise<ProjectRow> {
    const row = await this.database.models.ProjectRow.findOne({ where: { id, accountId }, attributes });
    if (!row) throw notFound();
    return row;
  }
}

/** What a copy is called: "Sieve, copy", then "Sieve, copy 2" and so on, as nothing else is. */
export function nextName(name: string, taken: readonly string[]): string {
  const stem = name.replace(/, copy( \d+)?$/, '');
  for (let k = 1; ; k++) {
    const mark = k === 1 ? ', copy' : `, copy ${k}`;
    const next = `${stem.slice(0, MOST_NAME - mark.length).trimEnd()}${mark}`;
    if (!taken.includes(next)) return next;
  }
}
