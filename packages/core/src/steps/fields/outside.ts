import { fileSchema, idSchema, type FileRecord, type Id } from '../../records/index.ts';
import { issue } from '../../result/index.ts';
import type { Common, FieldKind } from './kind.ts';

// What comes from outside the part: files of the project, other parts.

/** A file of the project. */
export interface FileField extends Common {
  readonly type: 'file';
  readonly schema: typeof fileSchema;
  /** How its name may end. */
  readonly endings: readonly string[];
}

/** A field for a file of the project. */
export const fileField = (label: string, endings: readonly string[]): FileField => ({
  type: 'file',
  schema: fileSchema,
  label,
  endings,
});

export const fileKind: FieldKind<FileField, FileRecord> = {
  initial: () => undefined,
  lack: ({ label }, file) => (file ? undefined : issue('field.file', { label })),
  phrase: (_, __, file: FileRecord | undefined) => ({ type: 'strong', text: file?.name ?? 'a file' }),
  asks: ({ endings }) => `a file of the project (${endings.join(', ')}): its hash, name and size`,
  file: (file: FileRecord | undefined) => file,
};

/** Another part, for all of its bodies. */
export interface PartField extends Common {
  readonly type: 'part';
  readonly schema: typeof idSchema;
}

/** A field for another part. */
export const partField = (label: string): PartField => ({ type: 'part', schema: idSchema, label });

export const partKind: FieldKind<PartField, Id> = {
  initial: () => '',
  lack: (_, id) => (id ? undefined : issue('field.part')),
  resolve: (_, id, context) => context.bodiesOf(id),
  phrase: (field, { label }, value) => ({ type: 'part', field, value, label }),
  asks: () => 'another part',
  part: (id) => (id === '' ? undefined : id),
};
