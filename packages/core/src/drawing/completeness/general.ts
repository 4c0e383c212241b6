import { originOfFace } from '../../naming/index.ts';
import { distance3, dot3, footOnLine3, sub3, type Vec3 } from '../../math/index.ts';
import {
  alongSurface,
  axisOfSurface,
  centreOfSurface,
  radiusOfCurve,
  straightAlong,
  toldRadius,
  type Surface,
} from '../../geometry/index.ts';
import type { EdgeFacts, FaceFacts, Topology } from '../../kernel-port/index.ts';
import { allFaces, alongIn, bodyOf, edgeItem, faceOf, type BuiltPart, type Candidate, type Item } from './candidate.ts';

// What one tells of any part, whatever it was made from: sizes and places of its faces, from one base in each direction.

const references = (items: readonly Item[]) => items.map(({ reference }) => reference);

/** Candidates for all faces of a part, those that tell most first. */
export function generalCandidates(built: BuiltPart): Candidate[] {
  const faces = allFaces(built);
  const round = faces.filter((item) => 'axis' in faceOf(item).surface || faceOf(item).surface.form === 'sphere');
  return [
    ...overall(faces),
    ...circles(round),
    ...roundSizes(round, built),
    ...levels(faces, round, built),
    ...rims(faces, built),
    ...slants(faces, built),
    ...corners(faces, built),
  ];
}

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

const distanceOf = (a: Item, b: Item, way: Vec3): Candidate => ({
  items: [a, b],
  mark: (view, eye) => ({ kind: 'distance', view, of: references([a, b]), along: alongIn(eye, way) }),
});

interface Flat {
  readonly item: Item;
  readonly at: number;
  readonly area: number;
}

/** The flat faces square to a direction, from low to high; of those at one height the largest. */
function flats(faces: readonly Item[], way: Vec3): Flat[] {
  const all = faces.flatMap((item): Flat[] => {
    const { surface, area } = faceOf(item);
    if (surface.form !== 'plane' || Math.abs(dot3(surface.normal, way)) < 1 - 1e-9) return [];
    return [{ item, at: dot3(surface.origin, way), area }];
  });
  all.sort((a, b) => b.area - a.area);
  const levels: Flat[] = [];
  for (const flat of all) if (!levels.some(({ at }) => Math.abs(at - flat.at) < 1e-6)) levels.push(flat);
  return levels.sort((a, b) => a.at - b.at);
}

/** How long, wide and high the part is. */
const overall = (faces: readonly Item[]): Candidate[] =>
  AXES.flatMap((way) => {
    const all = flats(faces, way);
    return all.length > 1 ? [distanceOf(all[0]!.item, all.at(-1)!.item, way)] : [];
  });

/** Flat faces and axes from the larger of the outermost faces, or from an axis where there is none. */
function levels(faces: readonly Item[], round: readonly Item[], { topologies }: BuiltPart): Candidate[] {
  const whole = (item: Item) => isWhole(faceOf(item), topologies[bodyOf(item)]!);
  // bores and bosses before roundings
  const ordered = [...round.filter(whole), ...round.filter((item) => !whole(item))];
  return [...AXES, ...slantedWays(faces)].flatMap((way) => {
    const all = flats(faces, way);
    const across = ordered.filter((item) => isAcross(faceOf(item), way));
    const bases = [all[0], all.at(-1)].flatMap((flat) => flat ?? []).sort((a, b) => b.area - a.area);
    const base = bases[0]?.item ?? across[0];
    if (!base) return [];
    const others = [...all.map(({ item }) => item), ...across].filter((item) => item !== base);
    return others.map((item) => distanceOf(base, item, way));
  });
}

/** Has it an axis square to a direction, so that its place along that can be told; or a centre? */
function isAcross({ surface }: FaceFacts, way: Vec3): boolean {
  const axis = axisOfSurface(surface);
  return axis ? Math.abs(dot3(axis.direction, way)) < 1e-9 : centreOfSurface(surface) !== undefined;
}

/** Directions of flat faces along no axis, each once. */
function slantedWays(faces: readonly Item[]): Vec3[] {
  const ways: Vec3[] = [];
  for (const item of faces) {
    const { surface } = faceOf(item);
    if (surface.form !== 'plane' || surface.normal.some((c) => Math.abs(c) > 1 - 1e-9)) continue;
    if (!ways.some((way) => Math.abs(dot3(way, surface.normal)) > 1 - 1e-9)) ways.push(surface.normal);
  }
  return ways;
}

/** What a face is called alike with: the step that it comes from, whichever copy or piece it is; and what it is hollow of. */
const kinOf = ({ name, surface }: FaceFacts): string => {
  return `${originOfFace(name)} ${'hollow' in surface ? surface.hollow : ''}`;
};

/** Diameters of what goes all round, radii of what does not; several that are alike in one. */
function roundSizes(round: readonly Item[], { topologies }: BuiltPart): Candidate[] {
  const groups = new Map<string, Item[]>();
  for (const item of round) {
    const radius = toldRadius(faceOf(item).surface);
    if (radius === undefined) continue;
    const key = `${kinOf(faceOf(item))} ${radius.toFixed(6)}`;
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  return [...groups.values()].flatMap((items): Candidate[] => {
    const [first] = items;
    const kind = isWhole(faceOf(first!), topologies[bodyOf(first!)]!) ? 'diameter' : 'radius';
    const one = (of: readonly Item[]): Candidate => ({
      items: of,
      mark: (view) => ({ kind, view, of: references(of) }),
    });
    return items.length > 1 ? [one(items), ...items.map((item) => one([item]))] : [one(items)];
  });
}

/** Does a face go round by more than half? */
function isWhole({ name, surface }: FaceFacts, { edges }: Topology): boolean {
  if (surface.form === 'sphere') return true;
  if (surface.form !== 'cylinder') return false;
  return edges.some(({ faces, curve, length }) => {
    if (!faces.includes(name) || curve.form !== 'circle') return false;
    return !curve.from || length > 1.001 * Math.PI * curve.radius;
  });
}

/** Three or more alike that lie evenly on a circle about something round. */
function circles(round: readonly Item[]): Candidate[] {
  const groups = new Map<string, Item[]>();
  for (const item of round) {
    const { surface } = faceOf(item);
    if (surface.form !== 'cylinder') continue;
    const way = surface.axis.map((c) => Math.abs(c).toFixed(6)).join(' ');
    const key = `${kinOf(faceOf(item))} ${surface.radius.toFixed(6)} ${way}`;
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  return [...groups.values()].flatMap((items): Candidate[] => {
    const each = distinctAxes(items);
    if (each.length < 3) return [];
    const axis = axisOf(each[0]!);
    const centres = each.map((item) => footOnLine3(axisOf(item).origin, axis.origin, axis.axis));
    const flatAt = each.map((item, k) => sub3(axisOf(item).origin, sub3(centres[k]!, axis.origin)));
    const middle = flatAt.reduce((sum, place) => sum.map((c, k) => c + place[k]! / each.length) as unknown as Vec3, [
      0, 0, 0,
    ] as Vec3);
    const inMiddle = round.find((item) => {
      const { surface } = faceOf(item);
      if (items.includes(item) || !('axis' in surface) || Math.abs(dot3(surface.axis, axis.axis)) < 1 - 1e-9)
        return false;
      return distance3(footOnLine3(middle, surface.origin, surface.axis), middle) < 1e-6;
    });
    if (!inMiddle) return [];
    const of = [inMiddle, ...each];
    return [{ items: of, mark: (view) => ({ kind: 'circle-of', view, of: references(of) }) }];
  });
}

const axisOf = (item: Item) => faceOf(item).surface as Extract<FaceFacts['surface'], { form: 'cylinder' }>;

function distinctAxes(items: readonly Item[]): Item[] {
  const found: Item[] = [];
  for (const item of items) {
    const { origin } = axisOf(item);
    const isKnown = found.some((other) => {
      const known = axisOf(other);
      return distance3(footOnLine3(origin, known.origin, known.axis), origin) < 1e-6;
    });
    if (!isKnown) found.push(item);
  }
  return found;
}

/** Their size shows at their rims only. */
const LEANING: ReadonlySet<Surface['form']> = new Set(['cone', 'torus']);

/** The rims of cones and rings: how wide, and how far from the base. */
function rims(faces: readonly Item[], { topologies }: BuiltPart): Candidate[] {
  const leaning = faces.filter((item) => LEANING.has(faceOf(item).surface.form));
  return leaning.flatMap((item): Candidate[] => {
    const { surface, name } = faceOf(item);
    const way = alongSurface(surface)!;
    const body = bodyOf(item);
    const edges = topologies[body]!.edges.filter(
      (edge) => edge.faces.includes(name) && radiusOfCurve(edge.curve) !== undefined,
    );
    const base = flats(faces, way)[0]?.item;
    return edges.flatMap((edge) => {
      const rim = edgeItem(body, edge);
      const wide: Candidate = {
        items: [rim],
        mark: (view) => ({ kind: 'diameter', view, of: references([rim]) }),
      };
      return base ? [distanceOf(base, rim, way), wide] : [wide];
    });
  });
}

/** How slanting faces lean against those beside them. */
function slants(faces: readonly Item[], { topologies }: BuiltPart): Candidate[] {
  const isStraight = ({ surface }: FaceFacts) =>
    surface.form === 'plane' && surface.normal.some((c) => Math.abs(c) > 1 - 1e-9);
  return faces.flatMap((item) => {
    const { surface, name } = faceOf(item);
    if (surface.form !== 'plane' || isStraight(faceOf(item))) return [];
    const beside = new Set(
      topologies[bodyOf(item)]!.edges.filter((edge) => edge.faces.includes(name)).flatMap((edge) => edge.faces),
    );
    const others = faces.filter((other) => isStraight(faceOf(other)) && beside.has(faceOf(other).name));
    const rest = faces.filter((other) => isStraight(faceOf(other)) && !others.includes(other));
    return [...others, ...rest].slice(0, 8).map((other): Candidate => ({
      items: [other, item],
      mark: (view) => ({ kind: 'angle', view, of: references([other, item]) }),
    }));
  });
}

/** Edges of slanting faces from the base, or from those on the other side. */
function corners(faces: readonly Item[], { topologies }: BuiltPart): Candidate[] {
  const slanted = faces.filter((item) => {
    const { surface } = faceOf(item);
    return surface.form === 'plane' && !surface.normal.some((c) => Math.abs(c) > 1 - 1e-9);
  });
  return AXES.flatMap((way) => {
    const edges = slanted.flatMap((item) =>
      edgesOf(item, topologies)
        .filter((edge) => isSquare(edge, way))
        .map((edge) => edgeItem(bodyOf(item), edge)),
    );
    const base = flats(faces, way)[0]?.item;
    const across = edges.flatMap((edge, k) => {
      const other = edges.slice(k + 1).find((one) => isOpposite(edge, one, way));
      return other ? [distanceOf(edge, other, way)] : [];
    });
    return [...across, ...(base ? edges.map((edge) => distanceOf(base, edge, way)) : [])];
  });
}

/** Are two edges alike, and apart only along a direction? */
function isOpposite(a: Item, b: Item, way: Vec3): boolean {
  const [e, f] = [a, b].map(({ thing }) => (thing.to === 'edge' ? thing.edge : undefined));
  if (!e || !f || Math.abs(e.length - f.length) > 1e-6) return false;
  const apart = sub3(e.middle, f.middle);
  const along = dot3(apart, way);
  return Math.abs(along) > 1e-6 && Math.hypot(...apart) - Math.abs(along) < 1e-6;
}

const edgesOf = (item: Item, topologies: readonly Topology[]): EdgeFacts[] =>
  topologies[bodyOf(item)]!.edges.filter((edge) => edge.faces.includes(faceOf(item).name));

function isSquare({ curve }: EdgeFacts, way: Vec3): boolean {
  const along = straightAlong(curve);
  return along !== undefined && Math.abs(dot3(along, way)) < 1e-9;
}
