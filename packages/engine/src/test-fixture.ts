import {
  explain,
  perform,
  ProjectScript,
  type Action,
  type ComposedSheet,
  type Entities,
  type Id,
  type Piece,
  type Reference,
  type Relations,
  type Step,
  edgeName,
} from '@helb/core';
import { rectangle } from '@helb/core/samples';
import type { Engine, PartModel } from './index.ts';

// What tests of steps are put together from.

export { circle, rectangle } from '@helb/core/samples';

export type Fields = Record<string, unknown>;

/** A part of steps, each given by what is not as usual. */
export class PartFixture {
  /** One for all parts: set before the first is built. */
  static engine: Engine;

  readonly script = new ProjectScript('Bench').do('part.add', { id: 'part', name: 'Part' });

  step(id: Id, kind: Step['kind'], fields: Fields = {}): this {
    this.script.do('step.add', { part: 'part', id, step: { kind, name: id, ...fields } as never });
    return this;
  }

  sketch(id: Id, entities: Entities, plane: unknown = 'top', relations: Relations = {}): this {
    return this.step(id, 'sketch', { plane, entities, relations });
  }

  /** A block from the origin. */
  block(id: Id, w: number, d: number, h: number): this {
    return this.sketch(`${id}-s`, rectangle(0, 0, w, d)).step(id, 'extrude', {
      sketch: `${id}-s`,
      distance: `${h} mm`,
    });
  }

  async model(...actions: Action[]): Promise<PartModel> {
    const done = perform(this.script.project, actions);
    if (!done.ok) throw new Error(explain(done.issue));
    return (await PartFixture.engine.build(done.value.project, { mesh: { deflection: 1, angle: 1 } })).parts[0]!;
  }

  async volume(): Promise<number> {
    const model = await this.model();
    const failed = model.steps.find(({ issue }) => issue);
    if (failed) throw new Error(`${failed.id}: ${explain(failed.issue!)}`);
    expect(model.steps.filter(({ references }) => references)).toEqual([]);
    return total(model);
  }

  /** Why the last step fails, in words. */
  async trouble(): Promise<string> {
    const { issue } = (await this.model()).steps.at(-1)!;
    return issue ? explain(issue) : 'it built';
  }
}

export const total = ({ bodies }: PartModel) => bodies.reduce((sum, body) => sum + body.measures.volume_mm3, 0);

export const face = (name: string): Reference => ({ to: 'face', name });
export const edge = (...faces: string[]): Reference => ({ to: 'edge', name: edgeName(faces) });
export const axis = (name: 'x' | 'y' | 'z'): Reference => ({ to: 'origin', name });
export const plane = (name: 'front' | 'top' | 'right'): Reference => ({ to: 'origin', name });
export const body = (name: string): Reference => ({ to: 'body', name });
export const disc = (d: number) => (Math.PI * d * d) / 4;

/** What is drawn with one kind of line in a view of a sheet. */
export const piecesOf = ({ picture }: ComposedSheet, line: string, view: string): Piece[] =>
  picture.strokes.filter((stroke) => stroke.line === line && stroke.view === view).flatMap(({ pieces }) => pieces);
/** Where upright lines of a view stand, mm of the thing from its left side. */
export function uprights(sheet: ComposedSheet, view: string): number[] {
  const { factor, box } = sheet.views[view]!;
  const found = piecesOf(sheet, 'visible', view).flatMap(({ from, to }) =>
    Math.abs(from[0] - to[0]) < 1e-6 && Math.abs(from[1] - to[1]) > 1 ? [(from[0] - box.low[0]) / factor] : [],
  );
  return [...new Set(found.map((x) => Math.round(x * 1e3) / 1e3))].sort((a, b) => a - b);
}
