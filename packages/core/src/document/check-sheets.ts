import type { Sheet } from '../drawing/index.ts';
import { issue, type Issue } from '../result/index.ts';
import type { Project } from './schema.ts';

/** What is drawn on sheets is there: the part, its sections, and the views that others are folded out of. */
export function checkSheets({ sheets = {}, parts }: Project): Issue | undefined {
  for (const sheet of Object.values(sheets)) {
    const part = parts[sheet.part];
    if (!part) return issue('sheet.part', { name: sheet.name });
    const sections = part.sections ?? {};
    for (const view of Object.values(sheet.views))
      if (view.kind === 'section' && !Object.hasOwn(sections, view.section))
        return issue('sheet.section', { name: sheet.name, part: part.name });
    if (!hasItsMarks(sheet)) return issue('project.order', { what: `marks of ${sheet.name}` });
    if (Object.values(sheet.marks ?? {}).some(({ view }) => !Object.hasOwn(sheet.views, view)))
      return issue('mark.view', { name: sheet.name });
    const wrong = wrongOrder(sheet);
    if (wrong) return wrong;
  }
  return undefined;
}

function hasItsMarks({ marks = {}, markOrder = [] }: Sheet): boolean {
  const isWhole = markOrder.length === Object.keys(marks).length && new Set(markOrder).size === markOrder.length;
  return isWhole && markOrder.every((id) => Object.hasOwn(marks, id));
}

/** A view comes after the one that it is folded out of: so none is folded out of itself. */
function wrongOrder({ name, views, viewOrder }: Sheet): Issue | undefined {
  const complete = viewOrder.length === Object.keys(views).length && new Set(viewOrder).size === viewOrder.length;
  if (!complete || !viewOrder.every((id) => Object.hasOwn(views, id)))
    return issue('project.order', { what: `views of ${name}` });
  const late = viewOrder.find((id, k) => {
    const view = views[id]!;
    return view.kind === 'projected' && !viewOrder.slice(0, k).includes(view.of);
  });
  return late === undefined ? undefined : issue('sheet.view', { name });
}
