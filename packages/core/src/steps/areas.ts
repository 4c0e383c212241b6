import { distance2, toSpace, type Vec3 } from '../math/index.ts';
import type { Profile } from '../kernel-port/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { filled, resolveRegions, type Region } from '../sketch/index.ts';
import type { ResolveContext, SolvedSketch } from './kind.ts';

/** The areas of a sketch that a step takes: all that its outlines fill, or chosen ones. */
export function profileOf(
  sketch: Id,
  areas: 'outline' | readonly string[],
  context: ResolveContext,
): Result<{ readonly profile: Profile; readonly drawn: SolvedSketch }> {
  if (sketch === '') return fail('area.sketch');
  const drawn = context.sketch(sketch);
  if (!drawn.ok) return drawn;
  const regions = areasOf(areas, drawn.value);
  return regions.ok
    ? ok({ profile: { frame: drawn.value.frame, regions: regions.value }, drawn: drawn.value })
    : regions;
}

function areasOf(areas: 'outline' | readonly string[], { regions }: SolvedSketch): Result<readonly Region[]> {
  if (regions.regions.length === 0)
    return fail(regions.openEnds.length > 0 ? 'area.open' : 'area.empty', {
      places: regions.openEnds.map(({ at }) => at.map((c) => Math.round(c * 100) / 100).join(' / ')),
    });
  if (areas === 'outline') return ok(filled(regions));
  const found = resolveRegions(regions, areas);
  return found.gone.length > 0 ? fail('area.gone', { gone: found.gone.length, of: areas.length }) : ok(found.regions);
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
  'area.open': (f) => `The outline is not closed: it ends at ${(f['places'] as readonly string[]).join(' and at ')}.`,
  'area.gone': (f) => `${f['gone']} of ${f['of']} areas are gone: choose again.`,
};
