import { dirname } from 'node:path';
import { parseArgs } from 'node:util';
import { explain, seedSieve, writeProject } from '@helb/core';
import { EXPORT_QUALITY } from '../tessellation.ts';
import { inspect } from '../inspect.ts';
import { bring } from './bringing.ts';
import { filesIn } from './files.ts';
import { isStopped, poseOf } from './driving.ts';
import { exportFile } from './export-file.ts';
import { move } from './moving.ts';
import { openProject } from './opening.ts';
import { reportOf } from './report.ts';
import { checkedProject } from '../checks/index.ts';
import { checksReport, toldPlainly } from './checks-report.ts';
import { sheets } from './sheeting.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

const USAGE = `Usage:
  helb inspect FILE [--variant NAME] [--set NAME=EXPR]... [--drive JOINT=VALUE]... [--interference] [--walls] [--json]
  helb export FILE [--part NAME] --to OUT.step|stl|3mf|obj|glb [--variant NAME] [--set NAME=EXPR]...
  helb export FILE --part NAME --sketch NAME --to OUT.dxf|svg [--variant NAME] [--set NAME=EXPR]...
  helb export FILE --part NAME --outline [--width MM] [--arcs MM] --to OUT.dxf|svg [--variant NAME] [--set NAME=EXPR]...
  helb export FILE --list make-up|cut --to OUT.csv [--variant NAME] [--set NAME=EXPR]...
  helb export FILE ... --anyway        also where a step fails: the last that was good
  helb sheet FILE [--sheet NAME] --to OUT.pdf|OUT.svg|OUT.dxf [--variant NAME] [--set NAME=EXPR]...
  helb sheet FILE [--sheet NAME] --check [--variant NAME] [--set NAME=EXPR]...
  helb sheet FILE [--sheet NAME] --tell
  helb move FILE [--study NAME] [--csv OUT.csv] [--variant NAME] [--set NAME=EXPR]... [--json]
  helb check FILE [--variant NAME] [--set NAME=EXPR]... [--json]
  helb bring FILE --from OTHER --part NAME [--variant NAME]
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
      check: { type: 'boolean', default: false },
      tell: { type: 'boolean', default: false },
      anyway: { type: 'boolean', default: false },
      files: { type: 'string' },
      part: { type: 'string' },
      sketch: { type: 'string' },
      list: { type: 'string' },
      outline: { type: 'boolean', default: false },
      width: { type: 'string' },
      arcs: { type: 'string' },
      sheet: { type: 'string' },
      study: { type: 'string' },
      csv: { type: 'string' },
      from: { type: 'string' },
      to: { type: 'string' },
    },
  });
  if (positionals.length !== 1) throw new Error('Name exactly one file.');
  return { file: positionals[0]!, ...values };
}

const COMMANDS: Record<string, (options: Options, world: Surroundings) => Promise<number>> = {
  async inspect({ file, set, json, walls, files, variant, drive, interference }, world) {
    const opened = await openProject(file, set, variant, world);
    if (typeof opened === 'number') return opened;
    const { project, id } = opened;
    const engine = await world.startEngine(filesIn(files ?? dirname(file)));
    const model = await engine.build(project, walls ? { mesh: EXPORT_QUALITY } : {});
    const posed = await poseOf(engine, project, drive, interference);
    if (!posed.ok) {
      world.complain(explain(posed.issue));
      return isStopped(posed.issue) ? EXIT.failed : EXIT.usage;
    }
    const inspection = inspect(project, model, id, posed.value);
    world.print(json ? JSON.stringify(inspection, null, 2) : reportOf(project.name, inspection));
    return model.parts.some((part) => part.steps.some((step) => step.state === 'failed')) ? EXIT.failed : EXIT.done;
  },

  export: exportFile,

  bring,

  move,

  sheet: sheets,

  async check({ file, set, json, files, variant }, world) {
    const opened = await openProject(file, set, variant, world);
    if (typeof opened === 'number') return opened;
    const engine = await world.startEngine(filesIn(files ?? dirname(file)));
    const found = await checkedProject(engine, opened.project);
    world.print(
      json ? JSON.stringify(toldPlainly(opened.project, found), null, 2) : checksReport(opened.project, found),
    );
    return found.some(({ blocks }) => blocks !== 'later') ? EXIT.failed : EXIT.done;
  },

  'write-demo'({ file }, world) {
    return written(file, writeProject(seedSieve()), '', world);
  },
};
