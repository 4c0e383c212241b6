import {
  boxCorners,
  cutAway,
  isCutAway,
  distance3,
  movedBox,
  movedFrame,
  ok,
  undone,
  type BodyHandle,
  type Box3,
  type CutLine,
  type Id,
  type Kernel,
  type Looked,
  type Movement,
  type Result,
  type Topology,
} from '@helb/core';
import { SHOWN } from './fineness.ts';
import type { SubjectBody } from './subject.ts';
import type { Survey } from './survey.ts';

/** The step of which the faces of a cut are called; no step has such a name. */
const STEP = '~cut';

/** Bodies without what a cut takes away; what lies all in front of it is gone. Fails where the kernel can not cut one. */
export function openedBodies(
  kernel: Kernel,
  survey: Survey,
  bodies: readonly SubjectBody[],
  cut: CutLine,
  uncut: ReadonlySet<Id>,
): Result<Looked[]> {
  const boxes = bodies.map(({ handle, movement }) => movedBox(survey.describe(handle, {}).measures.box_mm, movement));
  const reach = reachOf(boxes, cut);
  const made: BodyHandle[] = [];
  // what takes away, as each body sees it from where it stands
  const tools = new Map<string, Result<readonly BodyHandle[]>>();
  const toolsFor = (movement: Movement) => {
    const key = JSON.stringify(movement);
    let known = tools.get(key);
    if (!known) {
      const there = { ...cut, frame: movedFrame(cut.frame, undone(movement)) };
      known = kernel.extrude({ profile: cutAway(there, reach), from: -reach, to: reach, step: STEP });
      if (known.ok) made.push(...known.value);
      tools.set(key, known);
    }
    return known;
  };
  try {
    const looked: Looked[] = [];
    for (const [body, { handle, movement, part, signs }] of bodies.entries()) {
      if (uncut.has(part)) {
        looked.push(wholeBody(survey, bodies[body]!, body));
        continue;
      }
      const tool = toolsFor(movement);
      if (!tool.ok) return tool;
      const left = kernel.combine('cut', [handle], tool.value);
      if (!left.ok && left.issue.code !== 'kernel.empty') return left;
      const pieces = left.ok ? left.value.bodies : [];
      made.push(...pieces);
      for (const [k, piece] of pieces.entries()) {
        const topology = kernel.topology(piece);
        looked.push({
          ...{ topology, mesh: kernel.mesh(piece, SHOWN), movement, body, opened: openedFaces(topology) },
          ...(k === 0 ? { signs, isGone: (place) => isCutAway(cut, place) } : {}),
        });
      }
    }
    return ok(looked);
  } finally {
    made.forEach((one) => kernel.release(one));
  }
}

/** A body as it is, to be looked at. */
export function wholeBody(survey: Survey, { handle, movement, signs }: SubjectBody, body: number): Looked {
  const { mesh, topology } = survey.describe(handle, { mesh: SHOWN });
  return { topology: topology!, mesh: mesh!, movement, body, signs };
}

const openedFaces = ({ faces }: Topology): ReadonlySet<string> =>
  new Set(faces.flatMap(({ name }) => (name.startsWith(`${STEP}/`) ? [name] : [])));

/** How far from the middle of a cut anything reaches at most, mm; a little more, so that nothing is left at its rim. */
function reachOf(boxes: readonly Box3[], { frame, stretches }: CutLine): number {
  const corners = boxes.flatMap(boxCorners).map((at) => distance3(at, frame.origin));
  const stations = stretches.flatMap(({ from, height = 0 }) => [Number.isFinite(from) ? from : 0, height]);
  return 1 + Math.max(...corners, ...stations.map(Math.abs));
}
