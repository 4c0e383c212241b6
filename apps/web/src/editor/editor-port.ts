import type { Action, EdgeFacts, Issue, NewId, Project, Reference, Result, SketchSources, Vec2 } from '@helb/core';
import type { Under } from './borrow-tool.ts';
import type { ToolName } from './tools.ts';

/** What the editor needs of the page. */
export interface EditorPort {
  project(): Project;
  act(actions: readonly Action[]): Result<void>;
  newId: NewId;
  /** Where the sketch lies and what it borrows, as far as the engine has told; undefined before it has. */
  sources(): SketchSources | undefined;
  /** What of the model lies under a place of the sketch plane, front to back. */
  under(at: Vec2): readonly Under[];
  /** Where the sketch plane crosses the bodies before it. */
  crossings(source: Reference): readonly EdgeFacts[];
  /** Where the sketch plane crosses what is laid under the model. */
  underlay(): readonly (readonly Vec2[])[];
  /** The tool that a key takes in hand. */
  toolOf(key: string): ToolName | undefined;
  /** Something was refused: the page tells why. */
  told(issue: Issue): void;
}
