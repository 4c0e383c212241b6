import { createHash } from 'node:crypto';
import { isIPv6 } from 'node:net';
import { QueryTypes } from 'sequelize';
import type { Database } from '../db/database.ts';
import { Refusal } from './refusal.ts';

/** So much of something within so many seconds. */
export interface Limit {
  readonly name: string;
  readonly most: number;
  readonly seconds: number;
  /** What is told to who has reached it. */
  readonly words: string;
}

/** Rows that have had their time are taken away each time that so much was counted. */
const SWEEP_EVERY = 500;
/** What the database says of a table that takes no more rows, and how many then go. */
const TABLE_FULL = 1114;
const ROOM = 10_000;

/**
 * Counts what is limited, for all servers of one database together. Our own lines, as the stores of well-kept packages do
 * not speak with this database's driver; it is one statement.
 */
export class Limits {
  private counted = 0;

  constructor(private readonly database: Database) {}

  /** Counts one more. @throws Refusal 429 where that is more than is allowed */
  async count(limit: Limit, of: string | number): Promise<void> {
    if (!(await this.isWithin(limit, of))) throw new Refusal(429, limit.words);
  }

  /** Counts one more; whether that is still allowed. */
  async isWithin({ name, most, seconds }: Limit, of: string | number): Promise<boolean> {
    if (++this.counted % SWEEP_EVERY === 0) await this.sweep();
    const add = () => this.add(keyOf(name, of), seconds);
    const count = await add().catch(async (error: unknown) => {
      if ((error as { original?: { errno?: number } }).original?.errno !== TABLE_FULL) throw error;
      // somebody counts up on purpose: nobody else is kept from working by it
      await this.sweep();
      await this.makeRoom();
      return add();
    });
    return count <= most;
  }

  private async add(id: string, seconds: number): Promise<number> {
    const now = new Date();
    const [row] = await this.database.sequelize.query<{ count: number }>(
      `INSERT INTO counts (id, count, ends_at) VALUES (:id, 1, :ends)
        ON DUPLICATE KEY UPDATE count = IF(ends_at <= :now, 1, count + 1), ends_at = IF(ends_at <= :now, :ends, ends_at)
        RETURNING count`,
      {
        type: QueryTypes.SELECT,
        replacements: { id, now, ends: new Date(now.getTime() + seconds * 1000) },
      },
    );
    return row?.count ?? 1;
  }

  /** Forgets what was counted. */
  async forget({ name }: Limit, of: string | number): Promise<void> {
    await this.database.models.Count.destroy({ where: { id: keyOf(name, of) } });
  }

  /** Forgets what would have been forgotten first. */
  private async makeRoom(): Promise<void> {
    await this.database.sequelize.query(`DELETE FROM counts ORDER BY ends_at LIMIT ${ROOM}`, {
      type: QueryTypes.DELETE,
    });
  }

  private async sweep(): Promise<void> {
    await this.database.sequelize.query('DELETE FROM counts WHERE ends_at < :now', {
      type: QueryTypes.DELETE,
      replacements: { now: new Date() },
    });
  }
}

const keyOf = (name: string, of: string | number): string =>
  createHash('sha256').update(`${name}\n${of}`).digest('base64url').slice(0, 32);

/** What one customer of a network has: of the sixth version the first half of the address. */
export function networkOf(address: string): string {
  if (!isIPv6(address) || address.includes('.')) return address;
  const [head = '', tail] = address.split('::');
  const groups = head.split(':').filter(Boolean);
  const after = tail?.split(':').filter(Boolean) ?? [];
  const all = [...groups, ...Array<string>(Math.max(0, 8 - groups.length - after.length)).fill('0'), ...after];
  return all
    .slice(0, 4)
    .map((group) => parseInt(group, 16).toString(16))
    .join(':');
}
