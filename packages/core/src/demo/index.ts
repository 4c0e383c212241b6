import { ProjectScript, type Project } from '../document/index.ts';
import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import {
  centredRectangle,
  FigureBuilder,
  ORIGIN,
  pointAt,
  X_AXIS,
  Y_AXIS,
  type Entity,
  type Relation,
} from '../sketch/index.ts';
import type { SketchStep } from '../steps/index.ts';

const VALUES: readonly (readonly [name: string, expression: string, note: string])[] = [
  ['plate length', '72 mm', 'foot of the bracket, along the frame'],
  ['plate width', 'plate length * 2 / 3', ''],
  ['plate thickness', '8 mm', 'the offcuts that we have'],
  ['bolt hole', '5.5 mm', 'clearance for M5'],
  ['edge distance', 'bolt hole * 1.5', 'from hole centre to edge'],
  ['shaft', '12 mm', 'crank shaft of the sieve'],
  ['boss wall', '6 mm', ''],
  ['boss height', '20 mm', 'above the plate'],
];

/** The bearing bracket of a hand-cranked seed sieve: a plate with four holes and a boss with a bore. */
export function seedSieve(): Project {
  const script = new ProjectScript('Seed sieve');
  for (const [name, expression, note] of VALUES)
    script.do('value.add', { id: script.newId('v'), name, expression, ...(note ? { note } : {}) });
  const part = script.newId('part');
  script
    .do('part.add', { id: part, name: 'Bearing bracket', colour: 0 })
    .do('part.material', { id: part, material: { name: 'Aluminium 6082', density_kg_m3: 2700 } });
  const plate = drawPlate(script, part);
  extruded(script, part, 'Foot plate', plate, 'plate thickness', 'new');
  const boss = drawCircle(script, part, 'Boss', 'shaft + 2 * boss wall', [9, 16]);
  extruded(script, part, 'Boss body', boss, 'plate thickness + boss height', 'add');
  const bore = drawCircle(script, part, 'Bore', 'shaft', [8, 10]);
  extruded(script, part, 'Shaft bore', bore, 'plate thickness + boss height', 'cut');
  return script.project;
}

/** A rectangle about the origin and a hole in each corner, symmetric by a construction rectangle through the holes. */
function drawPlate(script: ProjectScript, part: Id): Id {
  const { newId } = script;
  const [outline, through] = [new FigureBuilder(newId), new FigureBuilder(newId)];
  const corners = centredRectangle(outline, ORIGIN, [0, 0], [36, 24]);
  const centres = centredRectangle(through, ORIGIN, [0, 0], [27, 15]);
  const entities: Record<Id, Entity> = { ...outline.entities };
  for (const [id, entity] of Object.entries(through.entities))
    entities[id] = entity.kind === 'line' ? { ...entity, construction: true } : entity;
  const holes = centres.map((centre) => {
    const id = newId('c');
    entities[id] = { kind: 'circle', centre, radius: 2.75 };
    return id;
  });
  const [p, q, r] = corners;
  const [, , inner] = centres;
  const relations: Record<Id, Relation> = {
    ...outline.relations,
    ...through.relations,
    [newId('d')]: { kind: 'distance', a: p, b: q, direction: 'horizontal', sense: 1, value: 'plate length' },
    [newId('d')]: { kind: 'distance', a: q, b: r, direction: 'vertical', sense: 1, value: 'plate width' },
    [newId('d')]: { kind: 'distance', a: inner, b: r, direction: 'horizontal', sense: 1, value: 'edge distance' },
    [newId('d')]: { kind: 'distance', a: inner, b: r, direction: 'vertical', sense: 1, value: 'edge distance' },
    [newId('d')]: { kind: 'diameter', circle: holes[3]!, value: 'bolt hole', at: [-14, 30] },
  };
  for (const other of [0, 1, 2]) relations[newId('r')] = { kind: 'equal', a: holes[3]!, b: holes[other]! };
  return addSketch(script, part, { kind: 'sketch', name: 'Foot outline', plane: 'top', entities, relations });
}

/** A circle about the origin with its diameter. */
function drawCircle(script: ProjectScript, part: Id, name: string, diameter: string, at: Vec2): Id {
  const [centre, circle] = [script.newId('p'), script.newId('c')];
  return addSketch(script, part, {
    kind: 'sketch',
    name,
    plane: 'top',
    entities: { [centre]: pointAt([0, 0]), [circle]: { kind: 'circle', centre, radius: 8 } },
    relations: {
      [script.newId('r')]: { kind: 'coincident', a: centre, b: X_AXIS },
      [script.newId('r')]: { kind: 'coincident', a: centre, b: Y_AXIS },
      [script.newId('d')]: { kind: 'diameter', circle, value: diameter, at: [at[0], at[1]] },
    },
  });
}

function addSketch(script: ProjectScript, part: Id, step: SketchStep): Id {
  const id = script.newId('s');
  script.do('step.add', { part, id, step });
  return id;
}

function extruded(
  script: ProjectScript,
  part: Id,
  name: string,
  sketch: Id,
  distance: string,
  result: 'new' | 'add' | 'cut',
) {
  script.do('step.add', {
    part,
    id: script.newId('s'),
    step: { kind: 'extrude', name, sketch, areas: 'outline', distance, ways: 'forwards', result },
  });
}
