import { sideOf } from '../../naming/index.ts';
import { add3, direction2, distance2, dot2, left2, scale3, sub2, type Vec2, type Vec3 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Geometry, Relation } from '../../sketch/index.ts';
import { alongIn, allFaces, bodyOf, edgeItem, faceOf, type BuiltPart, type Candidate, type Item } from './candidate.ts';

/** A sketch, and the faces that its curves have made. */
interface Drawn {
  readonly built: BuiltPart;
  readonly geometry: Geometry;
  /** Directions of the sketch in space. */
  readonly axes: readonly [Vec3, Vec3];
  /** All faces that an entity has made, copies by patterns too. */
  facesOf(entity: Id): Item[];
}

type Taken = {
  readonly [K in Relation['kind']]?: (relation: Extract<Relation, { kind: K }>, drawn: Drawn) => Candidate | undefined;
};

/** What dimensions of sketches are on the part. */
const TAKEN: Taken = {
  distance(relation, drawn) {
    if (relation.rimA || relation.rimB) return undefined;
    const way = wayOf(relation, drawn.geometry);
    const [a, b] = [endOf(relation.a, way, drawn), endOf(relation.b, way, drawn)];
    if (!a || !b || a.reference === b.reference) return undefined;
    const [u, v] = drawn.axes;
    const space = add3(scale3(u, way[0]), scale3(v, way[1]));
    const items = [a, b];
    return {
      items,
      mark: (view, eye) => ({
        ...{ kind: 'distance', view, of: items.map(({ reference }) => reference), along: alongIn(eye, space) },
      }),
    };
  },
  diameter: ({ circle }, drawn) => roundMark('diameter', drawn.facesOf(circle)),
  radius: ({ circle }, drawn) => roundMark('radius', drawn.facesOf(circle)),
  across({ point }, drawn) {
    // the line along the axis that ends there makes what is round
    const round = linesAt(drawn.geometry, drawn.geometry.point(point))
      .flatMap((line) => drawn.facesOf(line))
      .filter((item) => faceOf(item).surface.form === 'cylinder');
    return roundMark('diameter', round.slice(0, 1));
  },
  angle({ a, b }, drawn) {
    const [f, g] = [a, b].map((line) => flat(drawn.facesOf(line)));
    if (!f || !g) return undefined;
    const items = [f, g];
    return { items, mark: (view) => ({ kind: 'angle', view, of: items.map(({ reference }) => reference) }) };
  },
};

function roundMark(kind: 'diameter' | 'radius', faces: readonly Item[]): Candidate | undefined {
  const [first] = faces;
  const radius = first && radiusOf(first);
  const items = faces.filter((item) => Math.abs((radiusOf(item) ?? NaN) - (radius ?? NaN)) < 1e-6);
  if (items.length === 0) return undefined;
  return { items, mark: (view) => ({ kind, view, of: items.map(({ reference }) => reference) }) };
}

const radiusOf = (item: Item): number | undefined => {
  const { surface } = faceOf(item);
  return 'radius' in surface ? surface.radius : undefined;
};

/** The dimensions of the sketches of a part as candidates, each with the number that it shows. */
export function fromSketches(built: BuiltPart): Candidate[] {
  const faces = allFaces(built);
  return built.stepOrder.flatMap((sketch) => {
    const step = built.steps[sketch]!;
    const solved = built.sketches.get(sketch);
    if (step.kind !== 'sketch' || !solved) return [];
    const makers = built.stepOrder.filter((id) => (built.steps[id] as { sketch?: Id }).sketch === sketch);
    const drawn: Drawn = {
      ...{ built, geometry: solved.solution.geometry, axes: [solved.frame.x, solved.frame.y] },
      facesOf: (entity) => faces.filter((item) => isOf(faceOf(item).name, makers, entity)),
    };
    return Object.entries(step.relations).flatMap(([id, relation]) => {
      if (!('value' in relation) || relation.measuring) return [];
      const take = TAKEN[relation.kind] as ((relation: Relation, drawn: Drawn) => Candidate | undefined) | undefined;
      const candidate = take?.(relation, drawn);
      if (!candidate) return [];
      const drives = { step: sketch, path: ['relations', id, 'value'] };
      return [
        {
          ...candidate,
          mark: (...where: Parameters<Candidate['mark']>) => ({ ...candidate.mark(...where), drives }),
        },
      ];
    });
  });
}

/** Was a face made by one of these steps from this entity: "s1/side/l3", and its copies by patterns. */
function isOf(name: string, makers: readonly Id[], entity: Id): boolean {
  const side = sideOf(name);
  return side !== undefined && makers.includes(side.step) && side.entities.includes(entity);
}

/** In which direction a distance of a sketch is measured. */
function wayOf({ a, b, direction }: Extract<Relation, { kind: 'distance' }>, geometry: Geometry): Vec2 {
  if (direction === 'horizontal') return [1, 0];
  if (direction === 'vertical') return [0, 1];
  const place = (id: Id) => (geometry.roleOf(id) === 'circle' ? geometry.circle(id).centre : geometry.point(id));
  if (geometry.roleOf(b) === 'line') {
    const line = geometry.line(b);
    return left2(unit(sub2(line.b, line.a)));
  }
  return unit(sub2(place(b), place(a)));
}

const unit = (way: Vec2): Vec2 => direction2(way) ?? [1, 0];

const flat = (items: readonly Item[]): Item | undefined => items.find((item) => faceOf(item).surface.form === 'plane');

/** What an end of a distance is on the part: what is round about it, a face square to the way, or the edge over it. */
function endOf(id: Id, way: Vec2, drawn: Drawn): Item | undefined {
  const { geometry } = drawn;
  if (geometry.roleOf(id) === 'line') return flat(drawn.facesOf(id));
  if (geometry.roleOf(id) === 'circle') return drawn.facesOf(id)[0];
  const at = geometry.point(id);
  const round = Object.keys(geometry.entities).filter(
    (other) => geometry.roleOf(other) === 'circle' && distance2(geometry.circle(other).centre, at) < SAME,
  );
  const axis = round.flatMap((other) => drawn.facesOf(other))[0];
  if (axis) return axis;
  const lines = linesAt(geometry, at);
  const across = lines.find((line) => {
    const { a, b } = geometry.line(line);
    return Math.abs(dot2(unit(sub2(b, a)), way)) < 1e-9;
  });
  const face = across && flat(drawn.facesOf(across));
  if (face) return face;
  const [one, other] = lines.map((line) => flat(drawn.facesOf(line)));
  return one && other && edgeBetween(one, other, drawn.built);
}
const SAME = 1e-6;

const linesAt = (geometry: Geometry, at: Vec2): Id[] =>
  Object.keys(geometry.entities).filter((id) => {
    if (geometry.entities[id]?.kind !== 'line') return false;
    const { a, b } = geometry.line(id);
    return distance2(a, at) < SAME || distance2(b, at) < SAME;
  });

function edgeBetween(a: Item, b: Item, { topologies }: BuiltPart): Item | undefined {
  const body = bodyOf(a);
  const [f, g] = [faceOf(a).name, faceOf(b).name];
  const edge = topologies[body]!.edges.find(({ faces }) => faces.includes(f) && faces.includes(g));
  return edge && edgeItem(body, edge);
}
