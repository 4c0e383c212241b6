import {
  boxCorners,
  cutAway,
  isCutAway,
  distance3,
  ok,
  STILL,
  type BodyHandle,
  type Box3,
  type CutLine,
  type Kernel,
  type Looked,
  type Result,
  type Sign,
  type Topology,
} from '@helb/core';
import { SHOWN } from './fineness.ts';
import type { Survey } from './survey.ts';

/** The step of which the faces of a cut are called; no step has such a name. */
const STEP = '~cut';

/** Bodies without what a cut takes away; what lies all in front of it is gone. Fails where the kernel can not cut one. */
export function openedBodies(
  kernel: Kernel,
  survey: Survey,
  bodies: readonly { readonly handle: BodyHandle; readonly signs: readonly Sign[] }[],
  cut: CutLine,
): Result<Looked[]> {
  const boxes = bodies.map(({ handle }) => survey.describe(handle, {}).measures.box_mm);
  const reach = reachOf(boxes, cut);
  const tools = kernel.extrude({ profile: cutAway(cut, reach), from: -reach, to: reach, step: STEP });
  if (!tools.ok) return tools;
  const made = [...tools.value];
  try {
    const looked: Looked[] = [];
    for (const [body, { handle, signs }] of bodies.entries()) {
      const left = kernel.combine('cut', [handle], tools.value);
      if (!left.ok && left.issue.code !== 'kernel.empty') return left;
      const pieces = left.ok ? left.value.bodies : [];
      made.push(...pieces);
      for (const [k, piece] of pieces.entries()) {
        const topology = kernel.topology(piece);
        looked.push({
          ...{ topology, mesh: kernel.mesh(piece, SHOWN), movement: STILL, body, opened: openedFaces(topology) },
          ...(k === 0 ? { signs, isGone: (place) => isCutAway(cut, place) } : {}),
        });
      }
    }
    return ok(looked);
  } finally {
    made.forEach((one) => kernel.release(one));
  }
}

const openedFaces = ({ faces }: Topology): ReadonlySet<string> =>
  new Set(faces.flatMap(({ name }) => (name.startsWith(`${STEP}/`) ? [name] : [])));

/** How far from the middle of a cut anything reaches at most, mm; a little more, so that nothing is left at its rim. */
function reachOf(boxes: readonly Box3[], { frame, stretches }: CutLine): number {
  const corners = boxes.flatMap(boxCorners).map((at) => distance3(at, frame.origin));
  const stations = stretches.flatMap(({ from, height = 0 }) => [Number.isFinite(from) ? from : 0, height]);
  return 1 + Math.max(...corners, ...stations.map(Math.abs));
}
