import { writeFile, readFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { parseArgs } from 'node:util';
import {
  explain,
  fail,
  ok,
  parseProject,
  perform,
  seedSieve,
  variantNamed,
  variantOf,
  writeProject,
  type Id,
  type Issue,
  type Kernel,
  type Project,
  type Result,
} from '@helb/core';
import { Engine, PRINTED } from '../engine.ts';
import { inspect } from '../inspect.ts';
import { filesIn } from './files.ts';
import { poseOf } from './driving.ts';
import { reportOf } from './report.ts';

export const EXIT = { done: 0, usage: 1, unreadable: 2, failed: 3 } as const;

/** What a command needs of the world, so that it can be tested without it. */
export interface Surroundings {
  readonly print: (text: string) => void;
  readonly complain: (text: string) => void;
  readonly startKernel: () => Promise<Kernel>;
}

const USAGE = `Usage:
  helb inspect FILE [--variant NAME] [--set NAME=EXPR]... [--drive JOINT=VALUE]... [--interference] [--walls] [--json]
  helb export FILE --part NAME --to OUT.step|OUT.stl [--variant NAME] [--set NAME=EXPR]...
  helb export FILE --part NAME --sketch NAME --to OUT.dxf|OUT.svg [--variant NAME] [--set NAME=EXPR]...
  helb write-demo FILE
Files that a project brings in are looked for beside it, or in --files FOLDER.`;

/** Runs one headless command; resolves to the exit code. */
export async function run(args: readonly string[], world: Surroundings): Promise<number> {
  const [name = '', ...rest] = args;
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (!command) {
    world.complain(USAGE);
    return EXIT.usage;
  }
  let options: Options;
  try {
    options = read(rest);
  } catch (error) {
    world.complain(`${(error as Error).message}\n${USAGE}`);
    return EXIT.usage;
  }
  return command(options, world);
}

type Options = ReturnType<typeof read>;

function read(args: readonly string[]) {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      set: { type: 'string', multiple: true, default: [] },
      json: { type: 'boolean', default: false },
      variant: { type: 'string' },
      drive: { type: 'string', multiple: true, default: [] },
      interference: { type: 'boolean', default: false },
      walls: { type: 'boolean', default: false },
      files: { type: 'string' },
      part: { type: 'string' },
      sketch: { type: 'string' },
      to: { type: 'string' },
    },
  });
  if (positionals.length !== 1) throw new Error('Name exactly one file.');
  return { file: positionals[0]!, ...values };
}

const COMMANDS: Record<string, (options: Options, world: Surroundings) => Promise<number>> = {
  async inspect({ file, set, json, walls, files, variant, drive, interference }, world) {
    const opened = await open(file, set, variant, world);
    if (typeof opened === 'number') return opened;
    const { project, id } = opened;
    const engine = new Engine(await world.startKernel(), { files: filesIn(files ?? dirname(file)) });
    const model = await engine.build(project, walls ? { mesh: PRINTED } : {});
    const posed = await poseOf(engine, project, drive, interference);
    if (!posed.ok) {
      world.complain(explain(posed.issue));
      return EXIT.usage;
    }
    const inspection = inspect(project, model, id, posed.value);
    world.print(json ? JSON.stringify(inspection, null, 2) : reportOf(project.name, inspection));
    return model.parts.some((part) => part.steps.some((step) => step.state === 'failed')) ? EXIT.failed : EXIT.done;
  },

  async export({ file, set, part, sketch, to, files, variant }, world) {
    const write = WRITERS.find(({ ending }) => to?.toLowerCase().endsWith(ending));
    if (part === undefined || to === undefined || !write || write.ofSketch !== (sketch !== undefined)) {
      world.complain(
        `Say which part and where to: --part NAME --to OUT.step or OUT.stl; of a sketch also --sketch NAME, to OUT.dxf or OUT.svg.\n${USAGE}`,
      );
      return EXIT.usage;
    }
    const opened = await open(file, set, variant, world);
    if (typeof opened === 'number') return opened;
    const { project } = opened;
    const id = project.partOrder.find((candidate) => project.parts[candidate]!.name === part);
    if (id === undefined) {
      const known = project.partOrder.map((candidate) => project.parts[candidate]!.name).join(', ');
      world.complain(`There is no part "${part}". The parts are: ${known || 'none'}.`);
      return EXIT.usage;
    }
    const { steps } = project.parts[id]!;
    const drawn = Object.keys(steps).find((step) => steps[step]!.kind === 'sketch' && steps[step].name === sketch);
    if (write.ofSketch && drawn === undefined) {
      world.complain(`There is no sketch "${sketch}" in "${part}".`);
      return EXIT.usage;
    }
    const engine = new Engine(await world.startKernel(), { files: filesIn(files ?? dirname(file)) });
    const bytes = await write.bytes(engine, project, id, drawn ?? '');
    if (!bytes.ok) {
      world.complain(explain(bytes.issue));
      return EXIT.failed;
    }
    return written(to, bytes.value, CAUTION, world);
  },

  'write-demo'({ file }, world) {
    return written(file, writeProject(seedSieve()), '', world);
  },
};

async function written(
  file: string,
  content: string | Uint8Array,
  words: string,
  world: Surroundings,
): Promise<number> {
  try {
    await writeFile(file, content);
  } catch (error) {
    world.complain(`${file} can't be written: ${(error as Error).message}`);
    return EXIT.usage;
  }
  world.complain(`Wrote ${file}. ${words}`.trim());
  return EXIT.done;
}

const CAUTION =
  "Before it is cut, turned or printed: check sizes and units in the machine's program; guards, eyes, clamping; follow the machine's manual and local rules. Nothing here proves strength.";

const WRITERS: readonly {
  readonly ending: string;
  /** It writes the outline of one sketch, not a part. */
  readonly ofSketch: boolean;
  readonly bytes: (engine: Engine, project: Project, part: string, sketch: string) => Promise<Result<Uint8Array>>;
}[] = [
  { ending: '.step', ofSketch: false, bytes: (engine, project, part) => engine.stepFile(project, part) },
  { ending: '.stp', ofSketch: false, bytes: (engine, project, part) => engine.stepFile(project, part) },
  { ending: '.stl', ofSketch: false, bytes: (engine, project, part) => engine.stlFile(project, part) },
  {
    ending: '.dxf',
    ofSketch: true,
    bytes: (engine, project, part, sketch) => engine.outlineFile(project, part, sketch, 'dxf'),
  },
  {
    ending: '.svg',
    ofSketch: true,
    bytes: (engine, project, part, sketch) => engine.outlineFile(project, part, sketch, 'svg'),
  },
];

/** The project of a file in a variant, with values set; the exit code where that fails, told on the error stream. */
async function open(
  file: string,
  sets: readonly string[],
  variant: string | undefined,
  world: Surroundings,
): Promise<{ readonly project: Project; readonly id: Id | undefined } | number> {
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch (error) {
    world.complain(`${file} can't be read: ${(error as Error).message}`);
    return EXIT.unreadable;
  }
  const project = parseProject(text);
  if (!project.ok) {
    world.complain(`${file}: ${explain(project.issue)}`);
    return EXIT.unreadable;
  }
  const refused = (issue: Issue) => {
    world.complain(explain(issue));
    return EXIT.usage;
  };
  const id = variant === undefined ? ok(undefined) : variantNamed(project.value, variant);
  if (!id.ok) return refused(id.issue);
  const changed = sets.reduce<Result<Project>>(
    (current, entry) => (current.ok ? withValue(current.value, entry) : current),
    ok(variantOf(project.value, id.value)),
  );
  return changed.ok ? { project: changed.value, id: id.value } : refused(changed.issue);
}

function withValue(project: Project, entry: string): Result<Project> {
  const at = entry.indexOf('=');
  const [name, expression] = [entry.slice(0, at).trim(), entry.slice(at + 1).trim()];
  const id = project.valueOrder.find((candidate) => project.values[candidate]!.name === name);
  if (at < 0 || id === undefined) return fail('value.unknown', { name: at < 0 ? entry : name, near: '' });
  const done = perform(project, [{ command: 'value.set', input: { id, expression } }]);
  return done.ok ? ok(done.value.project) : done;
}
