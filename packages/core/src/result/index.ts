/**
 * What can go wrong, as a value: a code and the facts. Words are made last, by `explain` in ../wording.
 * A fault of the program itself is thrown as an Error instead.
 */
export interface Issue {
  readonly code: string;
  readonly facts: Facts;
}

/** Lengths and places are in mm. */
type Fact = string | number | readonly Fact[];
type Facts = Readonly<Record<string, Fact>>;

export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly issue: Issue };

/** A length or a place of mm as the project tells it: "1.5 mm", "0.059 in", "12 / 30 mm". */
export type LengthTold = (mm: number | readonly number[], digits?: number) => string;

/** Sentences by issue code; each folder that raises issues exports one such table. */
export type Words = Readonly<Record<string, (facts: Facts, length: LengthTold) => string>>;

/** Success. */
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

/** What went wrong: a code, and the facts for its sentence. */
export const issue = (code: string, facts: Facts = {}): Issue => ({ code, facts });

/** A failure. */
export const fail = (code: string, facts: Facts = {}): { readonly ok: false; readonly issue: Issue } => ({
  ok: false,
  issue: issue(code, facts),
});

/** Carries an Issue through deep recursion; caught at the public edge of the folder that throws it. */
export class IssueError extends Error {
  constructor(readonly issue: Issue) {
    super(`${issue.code} ${JSON.stringify(issue.facts)}`);
  }
}

/** The value of a result; an IssueError where there is none. */
export function unwrap<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new IssueError(result.issue);
}

/** Runs `body`; an IssueError becomes a failed Result, every other error is a fault and goes on. */
export function attempt<T>(body: () => T): Result<T> {
  try {
    return ok(body());
  } catch (error) {
    if (error instanceof IssueError) return { ok: false, issue: error.issue };
    throw error;
  }
}
