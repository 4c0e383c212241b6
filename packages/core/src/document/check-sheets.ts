import { markReferences, ownFields, parentOf, type Sheet, type TitleBlock, type View } from '../drawing/index.ts';
import type { Id } from '../records/index.ts';
import { issue, type Issue } from '../result/index.ts';
import type { Project } from './schema.ts';

/** What is drawn on sheets is there: the part, its sections, and the views that others are folded out of. */
export function checkSheets({ sheets = {}, parts, titleBlock }: Project): Issue | undefined {
  for (const sheet of Object.values(sheets)) {
    const wrong = wrongSubject(sheet, parts) ?? wrongMarks(sheet) ?? wrongOrder(sheet) ?? wrongTitle(sheet, titleBlock);
    if (wrong) return wrong;
  }
  return undefined;
}

/** The whole has the sections of what is placed, and what is written there is on things of that; a part is one thing. */
function wrongSubject({ name, part: id, views, marks }: Sheet, parts: Project['parts']): Issue | undefined {
  const part = id === undefined ? undefined : parts[id];
  if (id !== undefined && !part) return issue('sheet.part', { name });
  const isWhole = id === undefined;
  const on = Object.values(marks ?? {}).flatMap(markReferences);
  if (on.some((reference) => (reference.to === 'other' && reference.from === undefined) !== isWhole))
    return issue(isWhole ? 'sheet.whole' : 'sheet.own-part', { name });
  const sections = part?.sections ?? {};
  for (const view of Object.values(views)) {
    if (part && isOfWhole(view)) return issue('sheet.apart', { name });
    if (view.kind === 'detail' && isOfWhole(view)) return issue('sheet.detail', { name });
    if (sectionsIn(view).some((section) => !Object.hasOwn(sections, section)))
      return issue('sheet.section', { name, part: part?.name ?? 'the whole' });
  }
  return undefined;
}

/** Is it what only a view of the whole can be? */
const isOfWhole = (view: View): boolean =>
  view.apart !== undefined ||
  view.numbered !== undefined ||
  view.numbers !== undefined ||
  (view.kind === 'section' && (view.at !== undefined || view.uncut !== undefined));

/** The sections of what is drawn that a view is cut open at; those of parts that are placed are looked for where it is drawn. */
const sectionsIn = (view: View): readonly Id[] =>
  view.kind === 'section' && view.at === undefined
    ? [view.section, ...(view.steps ?? []).flatMap(({ at, section }) => (section === undefined ? [at] : [at, section]))]
    : [];

function wrongMarks(sheet: Sheet): Issue | undefined {
  if (!hasItsMarks(sheet)) return issue('project.order', { what: `marks of ${sheet.name}` });
  return Object.values(sheet.marks ?? {}).some(({ view }) => !Object.hasOwn(sheet.views, view))
    ? issue('mark.view', { name: sheet.name })
    : undefined;
}

function hasItsMarks({ marks = {}, markOrder = [] }: Sheet): boolean {
  const isWhole = markOrder.length === Object.keys(marks).length && new Set(markOrder).size === markOrder.length;
  return isWhole && markOrder.every((id) => Object.hasOwn(marks, id));
}

/** What is written into fields of its own stands in the title block. */
function wrongTitle({ name, title }: Sheet, block: TitleBlock | undefined): Issue | undefined {
  const own = ownFields(block);
  return Object.keys(title.own ?? {}).some((id) => !own.has(id)) ? issue('sheet.own', { name }) : undefined;
}

/** A view comes after the one that it is folded out of: so none is folded out of itself. */
function wrongOrder({ name, views, viewOrder }: Sheet): Issue | undefined {
  const complete = viewOrder.length === Object.keys(views).length && new Set(viewOrder).size === viewOrder.length;
  if (!complete || !viewOrder.every((id) => Object.hasOwn(views, id)))
    return issue('project.order', { what: `views of ${name}` });
  const late = viewOrder.find((id, k) => {
    const parent = parentOf(views[id]!);
    return parent !== undefined && !viewOrder.slice(0, k).includes(parent);
  });
  return late === undefined ? undefined : issue('sheet.view', { name });
}
