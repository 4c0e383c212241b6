import { toldRadius } from '../../geometry/index.ts';
import { roleOfFace, stepOfFace, isSideOfSolids } from '../../naming/index.ts';
import type { Id } from '../../records/index.ts';
import { BOLT_NAMES, type Step } from '../../steps/index.ts';
import { alongIn, allFaces, faceOf, type BuiltPart, type Candidate, type Item } from './candidate.ts';

type Of<K extends Step['kind']> = Extract<Step, { kind: K }>;
type Taken = {
  readonly [K in Step['kind']]?: (step: Of<K>, id: Id, faces: readonly Item[], built: BuiltPart) => Candidate[];
};

const references = (items: readonly Item[]) => items.map(({ reference }) => reference);
const inRole = (faces: readonly Item[], role: string): Item[] =>
  faces.filter((item) => roleOfFace(faceOf(item).name) === role);

/** What the numbers of steps are on the part, by the kind of step. */
const TAKEN: Taken = {
  extrude(step, id, faces) {
    const [start] = inRole(faces, 'start').filter((item) => faceOf(item).surface.form === 'plane');
    const [end] = inRole(faces, 'end').filter((item) => faceOf(item).surface.form === 'plane');
    if (!start || !end) return [];
    const { surface } = faceOf(start);
    const way = surface.form === 'plane' ? surface.normal : ([0, 0, 1] as const);
    const drives =
      (step.ways ?? 'forwards') === 'forwards' && 'distance' in step ? { step: id, path: ['distance'] } : undefined;
    return [
      {
        items: [start, end],
        mark: (view, eye) => ({
          ...{ kind: 'distance', view, of: references([start, end]), along: alongIn(eye, way) },
          ...(drives ? { drives } : {}),
        }),
      },
    ];
  },
  fillet: (step, id, faces) => {
    const groups = byRadius(inRole(faces, 'round'));
    const only = groups.length === 1 && step.radius !== undefined;
    return groups.map((items): Candidate => ({
      items,
      mark: (view) => ({
        ...{ kind: 'radius', view, of: references(items) },
        ...(only ? { drives: { step: id, path: ['radius'] } } : {}),
      }),
    }));
  },
  chamfer(step, id, faces) {
    const bevels = faces.filter((item) => roleOfFace(faceOf(item).name) === 'bevel');
    const drives = step.distance === undefined ? {} : { drives: { step: id, path: ['distance'] } };
    const made = (items: readonly Item[]): Candidate => ({
      items,
      mark: (view) => ({ kind: 'chamfer', view, of: references(items), ...drives }),
    });
    // all in one, else one by one
    return bevels.length === 0 ? [] : [made(bevels), ...bevels.map((bevel) => made([bevel]))];
  },
  hole(step, id, _, built) {
    const walls = allFaces(built).filter((item) => isSideOfSolids(faceOf(item).name, id, 'wall'));
    if (walls.length === 0) return [];
    const tapped = step.fit === 'tapped' && step.size !== 'own';
    const own = step.size === 'own' && step.diameter !== undefined;
    return [
      {
        items: walls,
        mark: (view) => ({
          ...{ kind: 'hole', view, of: references(walls) },
          ...(tapped ? { thread: BOLT_NAMES[step.size ?? 'm5'] ?? '' } : {}),
          ...(own ? { drives: { step: id, path: ['diameter'] } } : {}),
        }),
      },
    ];
  },
};

/** Round faces in groups of one radius. */
function byRadius(items: readonly Item[]): Item[][] {
  const groups = new Map<string, Item[]>();
  for (const item of items) {
    const radius = toldRadius(faceOf(item).surface);
    if (radius === undefined) continue;
    const key = radius.toFixed(6);
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  return [...groups.values()];
}

/** The numbers of the steps of a part as candidates. */
export function fromSteps(built: BuiltPart): Candidate[] {
  const faces = allFaces(built);
  return built.stepOrder.flatMap((id) => {
    const step = built.steps[id]!;
    const take = TAKEN[step.kind] as Taken['extrude'] as
      ((step: Step, id: Id, faces: readonly Item[], built: BuiltPart) => Candidate[]) | undefined;
    const own = faces.filter((item) => stepOfFace(faceOf(item).name) === id);
    return take?.(step, id, own, built) ?? [];
  });
}
