import {
  boxCorners,
  cutAway,
  isCutAway,
  distance3,
  transformBox,
  transformFrame,
  ok,
  inverse,
  type BodyHandle,
  type Box3,
  type CutLine,
  type Id,
  type Kernel,
  type ViewedBody,
  type RigidTransform,
  type Result,
  type Topology,
  isFaceOf,
} from '@helb/core';
import { DISPLAY_QUALITY } from './tessellation.ts';
import type { SubjectBody } from './subject.ts';
import type { BodyQueries } from './body-queries.ts';

/** The step of which the faces of a cut are called; no step has such a name. */
const STEP = '~cut';

/** Bodies without what a cut takes away; what lies all in front of it is gone. Fails where the kernel can not cut one. */
export function openedBodies(
  kernel: Kernel,
  queries: BodyQueries,
  bodies: readonly SubjectBody[],
  cut: CutLine,
  uncut: ReadonlySet<Id>,
): Result<ViewedBody[]> {
  const boxes = bodies.map(({ handle, transform }) =>
    transformBox(queries.describe(handle, {}).measures.box_mm, transform),
  );
  const reach = reachOf(boxes, cut);
  const made: BodyHandle[] = [];
  // what takes away, as each body sees it from where it stands
  const tools = new Map<string, Result<readonly BodyHandle[]>>();
  const toolsFor = (transform: RigidTransform) => {
    const key = JSON.stringify(transform);
    let known = tools.get(key);
    if (!known) {
      const there = { ...cut, frame: transformFrame(cut.frame, inverse(transform)) };
      known = kernel.extrude({ profile: cutAway(there, reach), from: -reach, to: reach, step: STEP });
      if (known.ok) made.push(...known.value);
      tools.set(key, known);
    }
    return known;
  };
  try {
    const viewed: ViewedBody[] = [];
    for (const [body, { handle, transform, part, signs }] of bodies.entries()) {
      if (uncut.has(part)) {
        viewed.push(uncutBody(queries, bodies[body]!, body));
        continue;
      }
      const tool = toolsFor(transform);
      if (!tool.ok) return tool;
      const left = kernel.combine('cut', [handle], tool.value);
      if (!left.ok && left.issue.code !== 'kernel.empty') return left;
      const pieces = left.ok ? left.value.bodies : [];
      made.push(...pieces);
      for (const [k, piece] of pieces.entries()) {
        const topology = kernel.topology(piece);
        viewed.push({
          ...{ topology, mesh: kernel.mesh(piece, DISPLAY_QUALITY), transform, body, opened: openedFaces(topology) },
          ...(k === 0 ? { signs, isGone: (place) => isCutAway(cut, place) } : {}),
        });
      }
    }
    return ok(viewed);
  } finally {
    made.forEach((one) => kernel.release(one));
  }
}

/** A body as it is, to be looked at. */
export function uncutBody(queries: BodyQueries, { handle, transform, signs }: SubjectBody, body: number): ViewedBody {
  const { mesh, topology } = queries.describe(handle, { mesh: DISPLAY_QUALITY });
  return { topology: topology!, mesh: mesh!, transform, body, signs };
}

const openedFaces = ({ faces }: Topology): ReadonlySet<string> =>
  new Set(faces.flatMap(({ name }) => (isFaceOf(name, STEP) ? [name] : [])));

/** How far from the middle of a cut anything reaches at most, mm; a little more, so that nothing is left at its rim. */
function reachOf(boxes: readonly Box3[], { frame, stretches }: CutLine): number {
  const corners = boxes.flatMap(boxCorners).map((at) => distance3(at, frame.origin));
  const stations = stretches.flatMap(({ from, height = 0 }) => [Number.isFinite(from) ? from : 0, height]);
  return 1 + Math.max(...corners, ...stations.map(Math.abs));
}
