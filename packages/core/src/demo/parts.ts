import { faceName } from '../naming/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { pointAt, X_AXIS, Y_AXIS } from '../sketch/index.ts';
import type { Reference } from '../references/index.ts';
import type { SketchPlane, SketchStep, Step } from '../steps/index.ts';

// What the parts of the demo are put together from.

export function newPart(script: ProjectScript, name: string, colour: number, material: readonly [string, number]): Id {
  const id = script.newId('part');
  script
    .do('part.add', { id, name, colour })
    .do('part.material', { id, material: { name: material[0], density_kg_m3: material[1] } });
  return id;
}

/** A circle about the origin with its diameter, on Top or on a face. */
export function drawCircle(
  script: ProjectScript,
  part: Id,
  name: string,
  diameter: string,
  at: Vec2,
  plane: SketchPlane = 'top',
): Id {
  const [centre, circle] = [script.newId('p'), script.newId('c')];
  return addSketch(script, part, {
    kind: 'sketch',
    name,
    plane,
    entities: { [centre]: pointAt([0, 0]), [circle]: { kind: 'circle', centre, radius: 8 } },
    relations: {
      [script.newId('r')]: { kind: 'coincident', a: centre, b: X_AXIS },
      [script.newId('r')]: { kind: 'coincident', a: centre, b: Y_AXIS },
      [script.newId('d')]: { kind: 'diameter', circle, value: diameter, at: [at[0], at[1]] },
    },
  });
}

export function addSketch(script: ProjectScript, part: Id, step: SketchStep): Id {
  const id = script.newId('s');
  script.do('step.add', { part, id, step });
  return id;
}

/** Adds a step of any kind. */
export function addStep(script: ProjectScript, part: Id, step: Step): Id {
  const id = script.newId('s');
  script.do('step.add', { part, id, step });
  return id;
}

/** Extrudes the outline of a sketch forwards. */
export function extruded(
  script: ProjectScript,
  part: Id,
  name: string,
  sketch: Id,
  distance: string,
  result: 'new' | 'add' | 'cut',
): Id {
  const id = script.newId('s');
  script.do('step.add', {
    part,
    id,
    step: { kind: 'extrude', name, sketch, areas: 'outline', distance, ways: 'forwards', result },
  });
  return id;
}

/** The face at the end of an extrusion. */
export const endOf = (extrusion: Id): Reference => ({ to: 'face', name: faceName(extrusion, 'end') });
