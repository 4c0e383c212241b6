import type { z } from 'zod';
import { assemblyCommands } from './assembly.ts';
import { groupCommands } from './groups.ts';
import { partCommands } from './parts.ts';
import { projectCommands } from './project.ts';
import { sectionCommands } from './sections.ts';
import { sheetCommands } from './sheets.ts';
import { sketchCommands } from './sketch.ts';
import { stepCommands } from './steps.ts';
import { studyCommands } from './studies.ts';
import { valueCommands } from './values.ts';
import { variantCommands } from './variants.ts';

export { closure } from './sketch.ts';
export { standingOn } from './steps.ts';

/** The register of all commands: the only ways in which a project changes. */
export const COMMANDS = {
  ...projectCommands,
  ...valueCommands,
  ...variantCommands,
  ...partCommands,
  ...sectionCommands,
  ...assemblyCommands,
  ...groupCommands,
  ...studyCommands,
  ...sheetCommands,
  ...stepCommands,
  ...sketchCommands,
};

export type CommandName = keyof typeof COMMANDS;
export type Inputs = { [K in CommandName]: z.infer<(typeof COMMANDS)[K]['schema']> };
