import type { ComposedSheet } from '../drawing/index.ts';
import type { Id } from '../records/index.ts';
import type { Action } from './perform.ts';
import type { Project } from './schema.ts';

/** What writes all missing sizes of a sheet into it. */
export function tellingAll(project: Project, sheet: Id, { findings }: ComposedSheet): Action[] {
  let count = 0;
  const free = (): Id => {
    do count++;
    while (project.sheets![sheet]!.marks?.[`m${count}`]);
    return `m${count}`;
  };
  return findings.flatMap(({ place }): Action[] =>
    place ? [{ command: 'mark.add', input: { sheet, id: free(), mark: place } }] : [],
  );
}
