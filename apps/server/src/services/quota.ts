import { QueryTypes, type Transaction } from 'sequelize';
import type { Database } from '../db/database.ts';
import { Refusal } from './refusal.ts';

const MB = 1024 * 1024;

/** How much an account may keep: documents, logs, pictures and files together, in bytes. */
export class Quota {
  constructor(
    private readonly database: Database,
    readonly most: number,
  ) {}

  /**
   * Refuses what would not fit any more.
   * @param status 507 tells the page to keep what it has and to try again: room can be made
   */
  async check(accountId: number, added: number, transaction?: Transaction, status = 409): Promise<void> {
    const used = await this.used(accountId, transaction);
    if (used + added <= this.most) return;
    throw new Refusal(
      status,
      `All that you keep would be ${toMB(used + added)} MB, and ${toMB(this.most)} MB are allowed. Remove projects that you do not need.`,
    );
  }

  /** Bytes that an account keeps. */
  async used(accountId: number, transaction?: Transaction): Promise<number> {
    const [row] = await this.database.sequelize.query<{ kept: string | number; files: string | number }>(
      `SELECT
        (SELECT COALESCE(SUM(document_size + log_size + COALESCE(LENGTH(picture), 0)), 0)
          FROM projects WHERE account_id = :accountId) AS kept,
        (SELECT COALESCE(SUM(LENGTH(packed)), 0) FROM files
          JOIN projects ON projects.id = files.project_id WHERE account_id = :accountId) AS files`,
      { type: QueryTypes.SELECT, replacements: { accountId }, ...(transaction && { transaction }) },
    );
    return Number(row?.kept ?? 0) + Number(row?.files ?? 0);
  }
}

const toMB = (bytes: number): string => (bytes / MB).toFixed(bytes < 10 * MB ? 1 : 0);
