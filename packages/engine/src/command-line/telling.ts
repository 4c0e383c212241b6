import { dirname } from 'node:path';
import {
  changesSince,
  changeWords,
  explain,
  nothingFound,
  perform,
  sectionNamesFor,
  tellingAll,
  writeProject,
  type ComposedSheet,
  type Id,
  type Project,
} from '@helb/core';
import type { Engine } from '../engine.ts';
import { filesIn } from './files.ts';
import { openProject, readProject } from './opening.ts';
import type { SheetOptions } from './sheeting.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

/**
 * Prints what is to be mended on sheets before they go out, and what has changed since they did; fails where there is
 * something.
 */
export async function checkSheets(options: SheetOptions, ids: SheetsOf, world: Surroundings): Promise<number> {
  const { file, set, variant, files } = options;
  const opened = await openProject(file, set, variant, world);
  if (typeof opened === 'number') return opened;
  const { project } = opened;
  const wanted = ids(project);
  if (typeof wanted === 'number') return wanted;
  const engine = await world.startEngine(filesIn(files ?? dirname(file)));
  let found = 0;
  for (const id of wanted) {
    const sheet = await drawnIn(engine, project, id, world);
    if (!sheet) return EXIT.failed;
    const of = project.sheets![id]!;
    const wrong = sheet.findings.map(({ issue }) => explain(issue));
    for (const words of wrong.length > 0 ? wrong : [nothingFound(of)]) world.print(`${of.name}: ${words}`);
    const last = of.issued?.at(-1);
    const changes = last ? changesSince(last, of, sheet) : [];
    for (const change of changes)
      world.print(`${of.name}, since ${last!.revision}: ${changeWords(change, of, sectionNamesFor(project, of.part))}`);
    found += wrong.length + changes.length;
  }
  return found === 0 ? EXIT.done : EXIT.failed;
}

/** Writes the sizes that are missing on sheets into the project of a file. */
export async function tellSizes(options: SheetOptions, ids: SheetsOf, world: Surroundings): Promise<number> {
  const { file, files } = options;
  let project = await readProject(file, world);
  if (typeof project === 'number') return project;
  const wanted = ids(project);
  if (typeof wanted === 'number') return wanted;
  const engine = await world.startEngine(filesIn(files ?? dirname(file)));
  for (const id of wanted) {
    const sheet = await drawnIn(engine, project, id, world);
    if (!sheet) return EXIT.failed;
    const missing = tellingAll(project, id, sheet);
    const performed = perform(project, missing);
    if (!performed.ok) {
      world.complain(explain(performed.issue));
      return EXIT.failed;
    }
    project = performed.value.project;
    world.print(`${project.sheets![id]!.name}: ${missing.length} told that were missing.`);
  }
  return written(file, writeProject(project), '', world);
}

/** The sheets that are meant; an exit code where there are none, told already. */
type SheetsOf = (project: Project) => readonly Id[] | number;

async function drawnIn(
  engine: Engine,
  project: Project,
  id: Id,
  world: Surroundings,
): Promise<ComposedSheet | undefined> {
  const drawn = await engine.sheet(project, id);
  if (drawn.ok) return drawn.value;
  world.complain(`${project.sheets![id]!.name}: ${explain(drawn.issue)}`);
  return undefined;
}
