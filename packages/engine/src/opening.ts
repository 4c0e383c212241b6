import {
  boxCorners,
  cutAway,
  isCutAway,
  length3,
  ok,
  STILL,
  sub3,
  type BodyHandle,
  type CutLine,
  type Kernel,
  type Looked,
  type Result,
  type Sign,
  type Topology,
} from '@helb/core';
import { SHOWN } from './fineness.ts';

/** The step of which the faces of a cut are called; no step has such a name. */
const STEP = '~cut';

/** Bodies without what a cut takes away; what lies all in front of it is gone. Fails where the kernel can not cut one. */
export function openedBodies(
  kernel: Kernel,
  bodies: readonly { readonly handle: BodyHandle; readonly signs: readonly Sign[] }[],
  cut: CutLine,
): Result<Looked[]> {
  const reach = 1 + Math.max(0, ...bodies.map(({ handle }) => reachOf(kernel, handle, cut)));
  const tools = kernel.extrude({ profile: cutAway(cut, reach), from: -reach, to: reach, step: STEP });
  if (!tools.ok) return tools;
  try {
    const looked: Looked[] = [];
    for (const [body, { handle, signs }] of bodies.entries()) {
      const left = kernel.combine('cut', [handle], tools.value);
      if (!left.ok && left.issue.code !== 'kernel.empty') return left;
      for (const [k, piece] of (left.ok ? left.value.bodies : []).entries()) {
        const topology = kernel.topology(piece);
        looked.push({
          ...{ topology, mesh: kernel.mesh(piece, SHOWN), movement: STILL, body, opened: openedFaces(topology) },
          ...(k === 0 ? { signs, isGone: (place) => isCutAway(cut, place) } : {}),
        });
        kernel.release(piece);
      }
    }
    return ok(looked);
  } finally {
    tools.value.forEach((tool) => kernel.release(tool));
  }
}

const openedFaces = ({ faces }: Topology): ReadonlySet<string> =>
  new Set(faces.flatMap(({ name }) => (name.startsWith(`${STEP}/`) ? [name] : [])));

/** How far from the middle of a cut a body reaches at most, mm. */
function reachOf(kernel: Kernel, body: BodyHandle, { frame, stretches }: CutLine): number {
  const far = Math.max(...boxCorners(kernel.measure(body).box_mm).map((at) => length3(sub3(at, frame.origin))));
  const stations = stretches.flatMap(({ from, height }) => [Number.isFinite(from) ? from : 0, height ?? 0]);
  return Math.max(far, ...stations.map(Math.abs));
}
