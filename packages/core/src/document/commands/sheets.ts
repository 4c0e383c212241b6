import { z } from 'zod';
import {
  brokenSchema,
  cutStepsSchema,
  detailFields,
  issuedSchema,
  MARK_LIMITS,
  markSchema,
  parentOf,
  SHEET_LIMITS,
  sheetSchema,
  ownFields,
  titleBlockSchema,
  titleSchema,
  uncutSchema,
  viewFields,
  viewSchema,
  type Mark,
  type Sheet,
  type View,
} from '../../drawing/index.ts';
import { idSchema, placeSchema, type Id } from '../../records/index.ts';
import { partAt } from '../placed.ts';
import type { Project } from '../schema.ts';
import { command, insert, refuse } from './command.ts';

const where = { sheet: idSchema };

const sheetIn = (draft: Project, id: Id): Sheet => draft.sheets?.[id] ?? refuse('sheet.unknown', { id });
const markIn = (sheet: Sheet, id: Id): Mark => sheet.marks?.[id] ?? refuse('mark.unknown', { id });
const viewIn = (sheet: Sheet, id: Id): View => sheet.views[id] ?? refuse('view.unknown', { id });

/** Takes the sheets away that a part is drawn on; on others it is not left whole any more, and has no number. */
export function withoutSheetsOf(draft: Project, part: Id): void {
  for (const [id, sheet] of Object.entries(draft.sheets ?? {})) {
    if (sheet.part === part) dropSheet(draft, id);
    for (const view of Object.values(sheet.views)) {
      if ('uncut' in view && view.uncut) view.uncut = view.uncut.filter((one) => one !== part);
      if (view.numbers) delete view.numbers[part];
    }
  }
}

/** Takes views of a section of a part off its sheets, and off those of the whole. */
export function withoutViewsOf(draft: Project, part: Id, section: Id): void {
  const { assembly } = draft;
  for (const sheet of Object.values(draft.sheets ?? {}))
    for (const [id, view] of Object.entries(sheet.views)) {
      if (view.kind !== 'section') continue;
      const of = view.at === undefined ? sheet.part : assembly && partAt(draft, assembly, view.at);
      if (of === part) withoutSection(sheet, id, view, section);
    }
}

/** A view that is cut open there goes; one that only goes on there is cut as far as it still is. */
function withoutSection(sheet: Sheet, id: Id, view: Extract<View, { kind: 'section' }>, section: Id): void {
  if (view.section === section) return dropView(sheet, id);
  if (!view.steps) return;
  view.steps = view.steps
    .filter(({ at }) => at !== section)
    .map((step) => (step.section === section ? { at: step.at } : step));
}

function dropSheet(draft: Project, id: Id): void {
  delete draft.sheets![id];
  draft.sheetOrder = draft.sheetOrder!.filter((other) => other !== id);
}

/** With the views that are folded out of it, and what is written into it. */
function dropView(sheet: Sheet, id: Id): void {
  delete sheet.views[id];
  for (const [mark, { view }] of Object.entries(sheet.marks ?? {})) if (view === id) dropMark(sheet, mark);
  sheet.viewOrder = sheet.viewOrder.filter((other) => other !== id);
  for (const [other, view] of Object.entries(sheet.views)) if (parentOf(view) === id) dropView(sheet, other);
}

function dropMark(sheet: Sheet, id: Id): void {
  delete sheet.marks![id];
  sheet.markOrder = sheet.markOrder!.filter((other) => other !== id);
}

/** Sets what is given; what is given as undefined is as usual again. */
function assign<T extends object>(record: T, fields: Partial<T>): void {
  for (const key of Object.keys(fields) as (keyof T)[]) {
    if (fields[key] === undefined) delete record[key];
    else record[key] = fields[key];
  }
}

/** Without what nothing is written into any more. */
const withWords = (own: Readonly<Record<Id, string>>): Record<Id, string> =>
  Object.fromEntries(Object.entries(own).filter(([, words]) => words !== ''));

export const sheetCommands = {
  'sheet.add': command(z.strictObject({ id: idSchema, record: sheetSchema }), (draft, { id, record }) => {
    draft.sheets ??= {};
    draft.sheetOrder ??= [];
    if (draft.sheetOrder.length >= SHEET_LIMITS.sheets) refuse('sheet.many', { most: SHEET_LIMITS.sheets });
    insert(draft.sheets, id, record);
    draft.sheetOrder.push(id);
    return `Draw ${record.name}`;
  }),

  'sheet.set': command(
    z.strictObject({
      ...where,
      fields: sheetSchema.pick({ name: true, paper: true, upright: true, projection: true, scale: true }).partial(),
    }),
    (draft, { sheet, fields }) => {
      const record = sheetIn(draft, sheet);
      assign(record, fields as Partial<Sheet>);
      return `Change ${record.name}`;
    },
  ),

  'sheet.title': command(z.strictObject({ ...where, fields: titleSchema }), (draft, { sheet, fields }) => {
    const record = sheetIn(draft, sheet);
    const { own, ...known } = fields;
    assign(record.title, known);
    if (own) record.title.own = withWords({ ...record.title.own, ...own });
    return `Write into the title block of ${record.name}`;
  }),

  /** Lays the title blocks of all sheets out anew, or as usual; what was written into fields that are gone goes with them. */
  'sheet.block': command(z.strictObject({ block: titleBlockSchema.optional() }), (draft, { block }) => {
    if (block) draft.titleBlock = block;
    else delete draft.titleBlock;
    const own = ownFields(block);
    for (const { title } of Object.values(draft.sheets ?? {}))
      if (title.own) title.own = Object.fromEntries(Object.entries(title.own).filter(([id]) => own.has(id)));
    return block ? 'Lay out the title block' : 'The title block as usual';
  }),

  /** Puts down what a sheet says as it goes out; the title block has its revision from then on. */
  'sheet.issue': command(z.strictObject({ ...where, issued: issuedSchema }), (draft, { sheet, issued }) => {
    const record = sheetIn(draft, sheet);
    record.issued ??= [];
    if (record.issued.some(({ revision }) => revision === issued.revision))
      refuse('sheet.issued', { name: record.name, revision: issued.revision });
    if (record.issued.length >= SHEET_LIMITS.issues) record.issued.shift();
    record.issued.push(issued);
    record.title.revision = issued.revision;
    if (issued.date) record.title.date = issued.date;
    return `${record.name} goes out as ${issued.revision}`;
  }),

  'sheet.remove': command(z.strictObject(where), (draft, { sheet }) => {
    const { name } = sheetIn(draft, sheet);
    dropSheet(draft, sheet);
    return `Remove ${name}`;
  }),

  'view.add': command(z.strictObject({ ...where, id: idSchema, view: viewSchema }), (draft, { sheet, id, view }) => {
    const record = sheetIn(draft, sheet);
    if (record.viewOrder.length >= SHEET_LIMITS.views) refuse('view.many', { most: SHEET_LIMITS.views });
    insert(record.views, id, view);
    record.viewOrder.push(id);
    return `Add a view to ${record.name}`;
  }),

  'view.set': command(
    z.strictObject({
      ...where,
      view: idSchema,
      fields: z.strictObject({
        ...viewFields,
        steps: cutStepsSchema.optional(),
        broken: brokenSchema,
        uncut: uncutSchema.optional(),
        /** Of details, where they lie. */
        at: placeSchema.optional(),
        radius: detailFields.radius.optional(),
        times: detailFields.times.optional(),
      }),
    }),
    (draft, { sheet, view: id, fields }) => {
      const record = sheetIn(draft, sheet);
      const view = viewIn(record, id);
      assign(view, fields as Partial<View>);
      if (!viewSchema.safeParse(view).success) refuse('view.fields');
      return `Change a view of ${record.name}`;
    },
  ),

  'view.remove': command(z.strictObject({ ...where, view: idSchema }), (draft, { sheet, view }) => {
    const record = sheetIn(draft, sheet);
    viewIn(record, view);
    dropView(record, view);
    return `Remove a view from ${record.name}`;
  }),

  'mark.add': command(z.strictObject({ ...where, id: idSchema, mark: markSchema }), (draft, { sheet, id, mark }) => {
    const record = sheetIn(draft, sheet);
    viewIn(record, mark.view);
    record.marks ??= {};
    record.markOrder ??= [];
    if (record.markOrder.length >= MARK_LIMITS.marks) refuse('mark.many', { most: MARK_LIMITS.marks });
    insert(record.marks, id, mark);
    record.markOrder.push(id);
    return `Write into ${record.name}`;
  }),

  'mark.set': command(z.strictObject({ ...where, id: idSchema, mark: markSchema }), (draft, { sheet, id, mark }) => {
    const record = sheetIn(draft, sheet);
    viewIn(record, mark.view);
    markIn(record, id);
    record.marks![id] = mark;
    return `Change what is written into ${record.name}`;
  }),

  'mark.remove': command(z.strictObject({ ...where, id: idSchema }), (draft, { sheet, id }) => {
    const record = sheetIn(draft, sheet);
    markIn(record, id);
    dropMark(record, id);
    return `Take something off ${record.name}`;
  }),
};
