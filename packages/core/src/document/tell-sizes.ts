import type { ComposedSheet, Mark } from '../drawing/index.ts';
import type { Id } from '../records/index.ts';
import type { Action } from './perform.ts';
import type { Project } from './schema.ts';

/** What writes marks into a sheet, under ids that are free there. */
export function telling(project: Project, sheet: Id, marks: readonly Mark[]): Action[] {
  let count = 0;
  const free = (): Id => {
    do count++;
    while (project.sheets![sheet]!.marks?.[`m${count}`]);
    return `m${count}`;
  };
  return marks.map((mark): Action => ({ command: 'mark.add', input: { sheet, id: free(), mark } }));
}

/** What writes all missing sizes of a sheet into it. */
export const tellingAll = (project: Project, sheet: Id, { findings }: ComposedSheet): Action[] =>
  telling(
    project,
    sheet,
    findings.flatMap(({ place }) => place ?? []),
  );
