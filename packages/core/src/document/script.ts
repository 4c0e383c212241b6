import { unwrap } from '../result/index.ts';
import type { NewId } from '../sketch/index.ts';
import type { CommandName, Inputs } from './commands/index.ts';
import { perform, type Action } from './perform.ts';
import { emptyProject, type Project } from './schema.ts';

/** Builds a project by the same commands that the interface uses. Each call is checked as it is there. */
export class ProjectScript {
  project: Project;
  private count = 0;

  constructor(name: string) {
    this.project = emptyProject(name);
  }

  /** Ids in the order of asking: s1, p2, p3, ... */
  readonly newId: NewId = (prefix) => `${prefix}${++this.count}`;

  /** Runs one command. Throws IssueError where the command is refused. */
  do<K extends CommandName>(command: K, input: Inputs[K]): this {
    const result = perform(this.project, [{ command, input } as Action]);
    this.project = unwrap(result).project;
    return this;
  }
}
