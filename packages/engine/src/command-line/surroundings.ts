import { writeFile } from 'node:fs/promises';
import type { Engine } from '../engine.ts';
import type { FileSource } from '../project-files.ts';

export const EXIT = { done: 0, usage: 1, unreadable: 2, failed: 3 } as const;

/** What a command needs of the world, so that it can be tested without it. */
export interface Surroundings {
  readonly print: (text: string) => void;
  readonly complain: (text: string) => void;
  /** With the files that a project brings in. */
  readonly startEngine: (files: FileSource) => Promise<Engine>;
}

/** Writes a file and says so; the exit code. */
export async function written(
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
