import type { Sheet } from '../schema.ts';

/** What is known of a sheet, to be written into its title block. */
export interface TitleText {
  readonly project: string;
  readonly part: string;
  readonly material: string;
  readonly mass: string;
  readonly scale: string;
  /** Which sheet of how many. */
  readonly number: number;
  readonly of: number;
}

/** What a title block can say. */
interface Field {
  /** What it is called, unless the block calls it otherwise. */
  readonly label: string;
  readonly words: (sheet: Sheet, text: TitleText) => string;
  readonly bold?: boolean;
}

/** Everything that a sheet or the project knows by itself. */
const KNOWN = {
  project: { label: 'Project', words: (_, text) => text.project },
  part: { label: 'Part', words: (_, text) => text.part, bold: true },
  title: { label: 'Title', words: (sheet) => sheet.name, bold: true },
  material: { label: 'Material', words: (_, text) => text.material },
  mass: { label: 'Mass', words: (_, text) => text.mass },
  scale: { label: 'Scale', words: (_, text) => text.scale },
  projection: { label: 'Projection', words: () => '' },
  units: { label: 'Sizes in', words: () => 'mm' },
  paper: { label: 'Paper', words: ({ paper, upright }) => `${paper}${upright ? ' upright' : ''}` },
  sheet: { label: 'Sheet', words: (_, { number, of }) => `${number} of ${of}` },
} as const satisfies Record<string, Field>;

/** What is written on each sheet: its label, and what it may look like. */
export const WRITTEN = {
  drawn: { label: 'Drawn', example: '' },
  checked: { label: 'Checked', example: '' },
  approved: { label: 'Approved', example: '' },
  date: { label: 'Date', example: '2026-11-25' },
  revision: { label: 'Revision', example: 'A' },
  tolerance: { label: 'General tolerances', example: 'ISO 2768-mK' },
  code: { label: 'Drawing number', example: '' },
} as const satisfies Record<string, { label: string; example: string }>;
export type WrittenName = keyof typeof WRITTEN;
export const WRITTEN_NAMES = Object.keys(WRITTEN) as [WrittenName, ...WrittenName[]];

const written = Object.fromEntries(
  WRITTEN_NAMES.map((name): [WrittenName, Field] => [
    name,
    { label: WRITTEN[name].label, words: ({ title }) => title[name] ?? '' },
  ]),
) as Record<WrittenName, Field>;

const FIELDS = { ...KNOWN, ...written };
export type FieldName = keyof typeof FIELDS;
export const FIELD_NAMES = Object.keys(FIELDS) as [FieldName, ...FieldName[]];
/** What a field is called, and says. */
export const fieldOf = (name: FieldName): Field => FIELDS[name];
