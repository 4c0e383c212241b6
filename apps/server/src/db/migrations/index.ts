import type { QueryInterface } from 'sequelize';
import * as first from './001-first-tables.ts';
import * as files from './002-files.ts';
import * as sizes from './003-sizes.ts';
import * as people from './004-people.ts';
import * as packed from './005-packed.ts';
import * as shelf from './006-shelf.ts';

interface Migration {
  readonly name: string;
  readonly up: (tables: QueryInterface) => Promise<void>;
  readonly down: (tables: QueryInterface) => Promise<void>;
}

/** In their order, each to be run again without harm; what a landed migration makes is never changed. */
export const MIGRATIONS: readonly Migration[] = [
  { name: '001-first-tables', ...first },
  { name: '002-files', ...files },
  { name: '003-sizes', ...sizes },
  { name: '004-people', ...people },
  { name: '005-packed', ...packed },
  { name: '006-shelf', ...shelf },
];
