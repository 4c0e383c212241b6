import { edgeName, faceName } from '../naming/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { centredRectangle, FigureBuilder, ORIGIN, type Entity, type Relation } from '../sketch/index.ts';
import { addSketch, drawCircle, endOf, extruded, newPart } from './parts.ts';

export interface Bracket {
  readonly part: Id;
  /** The rims of its bolt holes where it lies on what it is bolted to, and about where they are drawn, mm. */
  readonly rims: readonly { readonly name: string; readonly at: Vec2 }[];
}

/** A plate with four holes and a boss with a bore, which carries the shaft. */
export function bearingBracket(script: ProjectScript): Bracket {
  const part = newPart(script, 'Bearing bracket', 0, ['Aluminium 6082', 2700]);
  const { plate, holes } = drawPlate(script, part);
  const foot = extruded(script, part, 'Foot plate', plate, 'plate thickness', 'new');
  const boss = drawCircle(script, part, 'Boss', 'shaft + 2 * boss wall', [9, 16], endOf(foot));
  extruded(script, part, 'Boss body', boss, 'boss height', 'add');
  const bore = drawCircle(script, part, 'Bore', 'shaft', [8, 10]);
  extruded(script, part, 'Shaft bore', bore, 'plate thickness + boss height', 'cut');
  const rims = holes.map(({ circle, at }) => ({
    name: edgeName([faceName(foot, 'side', circle), faceName(foot, 'start')]),
    at,
  }));
  return { part, rims };
}

/** A rectangle about the origin and a hole in each corner, symmetric by a construction rectangle through the holes. */
function drawPlate(script: ProjectScript, part: Id) {
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
  const plate = addSketch(script, part, { kind: 'sketch', name: 'Foot outline', plane: 'top', entities, relations });
  const places = centres.map((centre) => entities[centre] as Extract<Entity, { kind: 'point' }>);
  return { plate, holes: holes.map((circle, k) => ({ circle, at: [places[k]!.x, places[k]!.y] as const })) };
}
