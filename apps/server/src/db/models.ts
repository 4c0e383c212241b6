import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributeColumnOptions,
  type Sequelize,
} from 'sequelize';

export class Account extends Model<InferAttributes<Account>, InferCreationAttributes<Account>> {
  declare id: CreationOptional<number>;
  declare name: string;
  declare passwordHash: string;
  declare createdAt: Date;
  /** When the password was set. */
  declare passwordAt: CreationOptional<Date | null>;
  /** Of the word with which somebody comes back in, once. */
  declare recoveryHash: CreationOptional<string | null>;
  declare recoveryEndsAt: CreationOptional<Date | null>;
  /** The secret of one-time codes, closed; and the period of the last code that was used. */
  declare secondFactor: CreationOptional<Buffer | null>;
  declare secondFactorUsed: CreationOptional<number>;
}

/** The token itself is only in the cookie; a stolen table opens no session. */
class Session extends Model<InferAttributes<Session>, InferCreationAttributes<Session>> {
  declare tokenHash: string;
  declare accountId: number;
  declare expiresAt: Date;
  declare openedAt: Date;
  declare seenAt: Date;
  declare address: string;
  declare device: string;
}

/** How much of something there was until a time: for limits. */
class Count extends Model<InferAttributes<Count>, InferCreationAttributes<Count>> {
  declare id: string;
  declare count: number;
  declare endsAt: Date;
}

export class ProjectRow extends Model<InferAttributes<ProjectRow>, InferCreationAttributes<ProjectRow>> {
  declare id: string;
  declare accountId: number;
  declare name: string;
  declare revision: number;
  declare createdAt: Date;
  declare changedAt: Date;
  /** Bytes, as text: of the document, of its whole log, and of the changes since the last snapshot with what each costs. */
  declare documentSize: number;
  declare logSize: CreationOptional<number>;
  declare replaySize: CreationOptional<number>;
  declare findings: CreationOptional<number | null>;
  declare picture: CreationOptional<Buffer | null>;
  /** Does the picture show all that there is, not a part alone? */
  declare wholePicture: CreationOptional<boolean>;
  /** Where it lies on the shelf, and when it was thrown away. */
  declare folder: CreationOptional<string | null>;
  declare thrownAt: CreationOptional<Date | null>;
}

/** The revision log: only ever appended to. `entry` is a LogEntry with its actions, as JSON. */
class ChangeRow extends Model<InferAttributes<ChangeRow>, InferCreationAttributes<ChangeRow>> {
  declare projectId: string;
  declare revision: number;
  declare changeId: string;
  declare accountId: number | null;
  declare madeAt: Date;
  /** Bytes of the entry. */
  declare size: number;
  declare entry: string;
}

export class Snapshot extends Model<InferAttributes<Snapshot>, InferCreationAttributes<Snapshot>> {
  declare projectId: string;
  declare revision: number;
  /** As text in rows from before. */
  declare document: CreationOptional<string | null>;
  declare packed: CreationOptional<Buffer | null>;
}

/** A file that a project brings in, found by the SHA-256 of its bytes; `packed` by gzip. */
export class FileRow extends Model<InferAttributes<FileRow>, InferCreationAttributes<FileRow>> {
  declare projectId: string;
  declare hash: string;
  declare size: number;
  declare packed: Buffer;
}

/** The tables of one database: classes of their own, as a process may have several. */
export function defineModels(sequelize: Sequelize) {
  const tables = {
    Account: class extends Account {} as typeof Account,
    Session: class extends Session {} as typeof Session,
    ProjectRow: class extends ProjectRow {} as typeof ProjectRow,
    ChangeRow: class extends ChangeRow {} as typeof ChangeRow,
    Snapshot: class extends Snapshot {} as typeof Snapshot,
    FileRow: class extends FileRow {} as typeof FileRow,
    Count: class extends Count {} as typeof Count,
  };
  // made anew for each column: Sequelize writes the column's name into the object
  const text = () => ({ type: DataTypes.STRING, allowNull: false });
  const whole = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
  const bytes = () => ({ type: DataTypes.BIGINT.UNSIGNED, allowNull: false, defaultValue: 0 });
  const time = () => ({ type: DataTypes.DATE(3), allowNull: false });
  const maybe = (type: ModelAttributeColumnOptions['type']) => ({ type, allowNull: true });
  tables.Account.init(
    {
      id: { ...whole(), primaryKey: true, autoIncrement: true },
      name: text(),
      passwordHash: text(),
      createdAt: time(),
      passwordAt: maybe(DataTypes.DATE(3)),
      recoveryHash: maybe(DataTypes.STRING),
      recoveryEndsAt: maybe(DataTypes.DATE(3)),
      secondFactor: maybe(DataTypes.BLOB('tiny')),
      secondFactorUsed: { ...whole(), defaultValue: 0 },
    },
    { sequelize, tableName: 'accounts' },
  );
  tables.Session.init(
    {
      tokenHash: { ...text(), primaryKey: true },
      accountId: whole(),
      expiresAt: time(),
      openedAt: time(),
      seenAt: time(),
      address: text(),
      device: text(),
    },
    { sequelize, tableName: 'sessions' },
  );
  tables.ProjectRow.init(
    {
      id: { ...text(), primaryKey: true },
      accountId: whole(),
      name: text(),
      revision: whole(),
      createdAt: time(),
      changedAt: time(),
      documentSize: bytes(),
      logSize: bytes(),
      replaySize: bytes(),
      findings: maybe(DataTypes.INTEGER.UNSIGNED),
      picture: maybe(DataTypes.BLOB('medium')),
      wholePicture: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      folder: maybe(DataTypes.STRING),
      thrownAt: maybe(DataTypes.DATE(3)),
    },
    { sequelize, tableName: 'projects' },
  );
  tables.ChangeRow.init(
    {
      projectId: { ...text(), primaryKey: true },
      revision: { ...whole(), primaryKey: true },
      changeId: text(),
      accountId: maybe(DataTypes.INTEGER.UNSIGNED),
      madeAt: time(),
      size: whole(),
      entry: { type: DataTypes.TEXT('medium'), allowNull: false },
    },
    { sequelize, tableName: 'changes' },
  );
  tables.Snapshot.init(
    {
      projectId: { ...text(), primaryKey: true },
      revision: { ...whole(), primaryKey: true },
      document: maybe(DataTypes.TEXT('long')),
      packed: maybe(DataTypes.BLOB('long')),
    },
    { sequelize, tableName: 'snapshots' },
  );
  tables.FileRow.init(
    {
      projectId: { ...text(), primaryKey: true },
      hash: { ...text(), primaryKey: true },
      size: whole(),
      packed: { type: DataTypes.BLOB('medium'), allowNull: false },
    },
    { sequelize, tableName: 'files' },
  );
  tables.Count.init(
    { id: { ...text(), primaryKey: true }, count: whole(), endsAt: time() },
    { sequelize, tableName: 'counts' },
  );
  return tables;
}

export type Models = ReturnType<typeof defineModels>;
