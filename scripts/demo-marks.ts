import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { format } from 'prettier';
import {
  explain,
  markOn,
  markReferences,
  perform,
  seedSieve,
  tellingAll,
  type ComposedSheet,
  type Id,
  type Mark,
  type Project,
  type Reference,
  type Tolerance,
} from '@helb/core';
import { Engine } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import { ROOT } from './build-server.ts';

/** What is not as the general tolerances say, by sheet and by what is said. */
const TOLERANCES: Readonly<Record<string, Readonly<Record<string, Tolerance>>>> = {
  'Bearing bracket': { '⌀12': { kind: 'fit', class: 'H7' } },
};

/** Has the demo told in full what its sheets show, and writes that as a source file: the demo itself has no kernel. */
export async function writeDemoMarks(): Promise<string> {
  const file = join(ROOT, 'packages/core/src/demo/sheet-marks.ts');
  const engine = new Engine(await startKernelInNode());
  const bare = withoutMarks(seedSieve());
  const all: Record<string, Record<string, Mark>> = {};
  for (const id of bare.sheetOrder ?? []) {
    const { part, name: title } = bare.sheets![id]!;
    const drawn = await engine.sheet(bare, id);
    if (!drawn.ok) throw new Error(explain(drawn.issue));
    if (part === undefined) {
      const sizes = overall(drawn.value, 'front').map((mark, k) => [`m${k + 1}`, named(mark)] as const);
      all[title] = Object.fromEntries(sizes);
      continue;
    }
    const told = perform(bare, tellingAll(bare, id, drawn.value));
    if (!told.ok) throw new Error(explain(told.issue));
    const { name, marks = {} } = told.value.project.sheets![id]!;
    const read = await engine.sheet(told.value.project, id);
    all[name] = Object.fromEntries(
      Object.entries(marks).map(([mark, record]) => {
        const tolerance = read.ok ? TOLERANCES[name]?.[read.value.marks[mark]?.words ?? ''] : undefined;
        return [mark, { ...named(record), ...(tolerance ? { tolerance } : {}) }];
      }),
    );
  }
  const text = `import type { Mark } from '../drawing/index.ts';
import type { Id } from '../records/index.ts';

/** The sizes on the sheets of the demo. Written by ./helb docs: change the model or the views, not this. */
export const SHEET_MARKS: Readonly<Record<string, Readonly<Record<Id, Mark>>>> = ${JSON.stringify(all)};
`;
  await writeFile(file, await format(text, { parser: 'typescript', printWidth: 120, singleQuote: true }));
  return file;
}

/** How wide and how high all of it is in a view: between its outermost lines. */
const overall = ({ handles }: ComposedSheet, view: Id): Mark[] =>
  (['level', 'upright'] as const).map((along, k) => {
    const lines = handles
      .filter(
        ({ view: of, path }) => of === view && path.length > 1 && path.every((at) => isNear(at[k]!, path[0]![k]!)),
      )
      .sort((a, b) => a.path[0]![k]! - b.path[0]![k]!);
    return { kind: 'distance', view, of: [lines[0]!.reference, lines.at(-1)!.reference], along };
  });
const isNear = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6;

const withoutMarks = (project: Project): Project => ({
  ...project,
  sheets: Object.fromEntries(
    Object.entries(project.sheets ?? {}).map(([id, sheet]) => [id, { ...sheet, marks: {}, markOrder: [] }]),
  ),
});

/** By names only: how a thing looked is not needed where the model comes with it. */
const named = (mark: Mark): Mark => markOn(mark, markReferences(mark).map(withoutPrint));

function withoutPrint<R extends Reference>(reference: R): R {
  const { print: _, ...rest } = reference as { print?: unknown };
  return ('on' in rest ? { ...rest, on: withoutPrint(rest.on as Reference) } : rest) as R;
}
