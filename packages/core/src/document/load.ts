import { fail, ok, type Result } from '../result/index.ts';
import { checkProject } from './check.ts';
import { LIMITS, projectSchema, SCHEMA_VERSION, type Project } from './schema.ts';

/** Turns a document of the version before into this one; index 0 leads from version 1 to 2. */
const MIGRATIONS: readonly ((old: Record<string, unknown>) => Record<string, unknown>)[] = [];

/** Reads a project from the text of a file. */
export function parseProject(text: string): Result<Project> {
  if (text.length > LIMITS.bytes) return fail('file.large', { most: LIMITS.bytes / 1024 / 1024 });
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return fail('file.json', { reason: (error as Error).message });
  }
  return loadProject(raw);
}

/** Checks and migrates a document of unknown origin; what is wrong is reported with its path. */
export function loadProject(raw: unknown): Result<Project> {
  if (typeof raw !== 'object' || raw === null || (raw as { format?: unknown }).format !== 'helb-project')
    return fail('file.kind');
  if (deeperThan(raw, LIMITS.depth)) return fail('file.deep', { most: LIMITS.depth });
  const version = (raw as { schema?: unknown }).schema;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) return fail('file.kind');
  if (version > SCHEMA_VERSION) return fail('file.newer', { version, known: SCHEMA_VERSION });
  const current = MIGRATIONS.slice(version - 1).reduce((doc, migrate) => migrate(doc), raw as Record<string, unknown>);
  const parsed = projectSchema.safeParse(current);
  if (!parsed.success) {
    const [wrong] = parsed.error.issues;
    return fail('file.invalid', { path: wrong!.path.join('.') || 'the whole', reason: wrong!.message });
  }
  const wrong = checkProject(parsed.data);
  return wrong ? { ok: false, issue: wrong } : ok(parsed.data);
}

/** Is the value nested deeper than this? Looked at level by level, so that no depth can exhaust the stack. */
export function deeperThan(root: unknown, most: number): boolean {
  let level: unknown[] = [root];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true;
    level = level.flatMap((node): unknown[] =>
      typeof node === 'object' && node !== null ? (Object.values(node) as unknown[]) : [],
    );
  }
  return false;
}

/** The text of a project file: stable order of keys, readable, one newline at the end. */
export const writeProject = (project: Project): string => `${JSON.stringify(project, null, 2)}\n`;
