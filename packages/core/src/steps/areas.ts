import { distance2, toSpace, type Vec2, type Vec3 } from '../math/index.ts';
import type { Profile } from '../kernel-port/index.ts';
import type { Id } from '../records/index.ts';
import { idOfName } from '../naming/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { planeOf, projected, type Thing } from '../references/index.ts';
import {
  entityKind,
  filled,
  findRegions,
  Geometry,
  resolveRegions,
  wallsAlong,
  type Entities,
  type Region,
} from '../sketch/index.ts';
import { LENGTH } from '../units/index.ts';
import { choice, number, type Filled } from './fields/index.ts';
import type { ResolveContext, SolvedSketch } from './kind.ts';

const thin = ({ body }: Filled) => body === 'thin';

/** Is what the lines enclose filled, or do walls go along them? */
export const thinFields = {
  body: choice('body', { solid: 'solid', thin: 'as thin walls' }, 'solid'),
  wall: number('wall thickness', { asks: LENGTH, min: 1e-3, max: 1e4, initial: '2 mm', when: thin }),
  lies: choice(
    'walls lie',
    { middle: 'on both sides of the lines', left: 'inside (left of) the lines', right: 'outside (right of) the lines' },
    'middle',
    thin,
  ),
};

interface ThinValues {
  readonly body: 'solid' | 'thin';
  readonly wall: number;
  readonly lies: 'middle' | 'left' | 'right';
}

/** The areas of a sketch that a step takes: all that its outlines fill, chosen ones, or the walls along its lines. */
export function profileOf(
  sketch: Id,
  areas: 'outline' | readonly string[],
  context: ResolveContext,
  walls?: ThinValues,
): Result<{ readonly profile: Profile; readonly drawn: SolvedSketch }> {
  if (sketch === '') return fail('area.sketch');
  const drawn = context.sketch(sketch);
  if (!drawn.ok) return drawn;
  const regions = walls?.body === 'thin' ? wallsOf(walls, drawn.value.solution.geometry) : areasOf(areas, drawn.value);
  return regions.ok
    ? ok({ profile: { frame: drawn.value.frame, regions: regions.value }, drawn: drawn.value })
    : regions;
}

function wallsOf({ wall, lies }: ThinValues, geometry: Geometry): Result<readonly Region[]> {
  const share = { middle: [0.5, 0.5], left: [1, 0], right: [0, 1] } as const;
  const [left, right] = share[lies];
  return wallsAlong(geometry, { left: left * wall, right: right * wall });
}

function areasOf(areas: 'outline' | readonly string[], { regions }: SolvedSketch): Result<readonly Region[]> {
  if (regions.regions.length === 0)
    return fail(regions.openEnds.length > 0 ? 'area.open' : 'area.empty', {
      places: regions.openEnds.map(({ at }) => at),
    });
  if (areas === 'outline') return ok(filled(regions));
  if (areas.length === 0) return fail('area.none');
  const found = resolveRegions(regions, areas);
  return found.gone.length > 0 ? fail('area.gone', { gone: found.gone.length, of: areas.length }) : ok(found.regions);
}

/**
 * What a flat face of a body encloses, as if it were drawn, or the walls along its rims. Its sides are called by what the
 * edges are, so that they stay the same when others come or go.
 */
export function profileOfFace(face: Thing, walls: ThinValues): Result<Profile> {
  const frame = planeOf(face);
  if (!frame || face.to !== 'face') return fail('area.flat');
  const seen = projected(face, 'shape', frame, () => []);
  if (!seen.ok) return seen;
  const drawn = Object.entries(seen.value).map(([key, entity]) => [
    idOfName(key),
    entityKind(entity.kind).onto(entity, idOfName),
  ]);
  const geometry = new Geometry(Object.fromEntries(drawn) as Entities);
  const regions = walls.body === 'thin' ? wallsOf(walls, geometry) : ok(filled(findRegions(geometry)));
  if (!regions.ok) return regions;
  return regions.value.length === 0 ? fail('area.flat') : ok({ frame, regions: regions.value });
}

/** The only centre line of a sketch as an axis in space; undefined where it has none or several. */
export function centreLineOf({ frame, solution }: SolvedSketch): { origin: Vec3; direction: Vec3 } | undefined {
  const { geometry } = solution;
  const lines = Object.entries(geometry.entities).filter(([, entity]) => entity.kind === 'line' && entity.centreline);
  if (lines.length !== 1) return undefined;
  const { a, b } = geometry.line(lines[0]![0]);
  const length = distance2(a, b);
  if (length < 1e-9) return undefined;
  const [from, to] = [toSpace(frame, a), toSpace(frame, b)];
  return { origin: from, direction: to.map((c, k) => (c - from[k]!) / length) as unknown as Vec3 };
}

export const areaWords: Words = {
  'area.sketch': () => 'Choose a sketch for this: click one of its lines.',
  'area.empty': () => 'The sketch has no closed area yet: draw an outline first.',
  'area.open': (f, length) =>
    `The outline is not closed: it ends at ${(f['places'] as readonly Vec2[]).map((at) => length(at)).join(' and at ')}.`,
  'area.flat': () => 'A face that is taken as a section has to be flat: choose a flat one, or draw the section.',
  'area.none': () => 'No area is chosen: tick at least one of the areas of the sketch.',
  'area.gone': (f) =>
    `${f['gone']} of the ${f['of']} chosen areas ${f['gone'] === 1 ? 'is' : 'are'} not in the sketch any more: drop ${f['gone'] === 1 ? 'it' : 'them'}, or tick what is there instead.`,
};
