import { Raycaster, Vector2 } from 'three';
import { boxCorners, transformPoint, type Id, type RigidTransform, type Vec2, type Vec3 } from '@helb/core';
import type { ViewCamera } from './camera.ts';
import { cornerNearness } from './nearness.ts';
import { bodyPick, cornerPick, edgePick, facePick, rangeAt, type Pick } from './picks.ts';
import type { PlacedScene } from './placed-bodies.ts';

// Picking among bodies that are drawn wherever their parts are placed.

/** Something of a placement under the pointer; its thing and reference are of the part. */
export interface MemberPick extends Pick {
  readonly member: string;
  /** Where the pointer meets it, in space. */
  readonly at: Vec3;
}

/** What is drawn, and where. */
interface PlacedShown {
  readonly scene: PlacedScene;
  readonly view: ViewCamera;
  readonly members: readonly { readonly id: string; readonly part: Id }[];
  poseOf(member: string): RigidTransform;
}

/** Whole bodies come last of all that lies under the pointer. */
const BEHIND = 1e7;

/** Everything of bodies under a screen place, in no order; its depth tells what lies in front. */
export function placedUnder(shown: PlacedShown, [x, y]: Vec2): MemberPick[] {
  const { scene, view, members } = shown;
  const { width, height } = view.size;
  const ray = new Raycaster();
  ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), view.camera);
  const wanted = new Set(members.map(({ id }) => id));
  const found: MemberPick[] = [];
  for (const keys of scene.all)
    for (const [index, key] of keys.entries()) {
      const { mesh, topology, pickable } = scene.body(key)!;
      for (const { faces, members: drawn } of pickable) {
        if (drawn.length === 0) continue;
        const met = new Set<string>();
        for (const hit of ray.intersectObject(faces)) {
          const member = drawn[hit.instanceId ?? 0]!;
          if (!wanted.has(member)) continue;
          const at = hit.point.toArray();
          if (!met.has(member))
            found.push({ ...bodyPick(key, index, topology), depth: BEHIND + hit.distance, member, at });
          met.add(member);
          const range = rangeAt(mesh.faces, (hit.faceIndex ?? 0) * 3);
          const face = range && topology.faces.find(({ name }) => name === range.name);
          if (face) found.push({ ...facePick(key, index, topology, face), depth: hit.distance, member, at });
        }
      }
      for (const { id, part } of members)
        if (scene.keysOf(part).includes(key) && isNear(shown, [x, y], id, key))
          found.push(...rimsNear(shown, [x, y], id, index, key));
    }
  return found;
}

/** Does the pointer come near to the body of a placement at all, seen on the screen? */
function isNear({ scene, view, poseOf }: PlacedShown, [x, y]: Vec2, member: string, key: string): boolean {
  const [pose, { toScreen }] = [poseOf(member), view.screen];
  const seen = boxCorners(scene.body(key)!.box).map((corner) => toScreen(transformPoint(pose, corner)));
  const [us, vs] = [seen.map(([u]) => u), seen.map(([, v]) => v)];
  const margin = 8;
  return (
    x > Math.min(...us) - margin &&
    x < Math.max(...us) + margin &&
    y > Math.min(...vs) - margin &&
    y < Math.max(...vs) + margin
  );
}

/** Edges and corners of a body of a placement within a few pixels. */
function rimsNear({ scene, view, poseOf }: PlacedShown, place: Vec2, member: string, index: number, key: string) {
  const { rims, topology } = scene.body(key)!;
  const [pose, screen] = [poseOf(member), view.screen];
  const edges = rims.near(screen, place, pose).flatMap(({ range, depth, at, off }): MemberPick[] => {
    const edge = topology.edges.find(({ name }) => name === range.name);
    return edge ? [{ ...edgePick(key, index, edge), depth, member, at, off }] : [];
  });
  const corners = topology.vertices.flatMap((vertex): MemberPick[] => {
    const at = transformPoint(pose, vertex.at);
    const depth = cornerNearness(screen, place, at);
    return depth === undefined ? [] : [{ ...cornerPick(key, index, vertex), depth, member, at }];
  });
  return [...edges, ...corners];
}
