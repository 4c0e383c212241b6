import { LRUCache } from 'lru-cache';
import {
  add3,
  enclosedVolume,
  TriangleTree,
  type BodyHandle,
  type BodyMeasures,
  type BodyMesh,
  type Box3,
  type EdgeFacts,
  type TessellationQuality,
  type Frame,
  type Kernel,
  type RigidTransform,
  type Topology,
  type Vec3,
} from '@helb/core';
import type { BodyModel } from './model.ts';
import { wallsOf, type Walls } from './walls.ts';

/** Boxes of bodies in poses that are kept. */
const MOST_BOXES = 500;

/** What is known of bodies: each thing asked of the kernel once, until the body is forgotten. */
export class BodyQueries {
  private readonly measured = new Map<BodyHandle, Pick<BodyModel, 'name' | 'measures'>>();
  private readonly meshes = new Map<string, BodyMesh>();
  private readonly trees = new WeakMap<BodyMesh, TriangleTree>();
  private readonly skins = new WeakMap<BodyMesh, Walls>();
  private readonly topologies = new Map<BodyHandle, Topology>();
  private readonly boxes = new LRUCache<string, Box3>({ max: MOST_BOXES });
  private readonly crossings = new Map<string, readonly EdgeFacts[]>();

  constructor(private readonly kernel: Kernel) {}

  /** The faces, edges and vertices of a body. */
  topology(body: BodyHandle): Topology {
    let known = this.topologies.get(body);
    if (!known) this.topologies.set(body, (known = this.kernel.topology(body)));
    return known;
  }

  /** The box round a body in a pose. */
  box(body: BodyHandle, pose: RigidTransform): Box3 {
    const way = pose.map((row) => row[3]) as unknown as Vec3;
    // only how it is turned matters
    const turn = pose.map(([x, y, z]) => [x, y, z, 0]) as unknown as RigidTransform;
    const key = `${body} ${JSON.stringify(turn)}`;
    let box = this.boxes.get(key);
    if (!box) this.boxes.set(key, (box = this.kernel.box(body, turn)));
    const { low, high } = box;
    return { low: add3(low, way), high: add3(high, way) };
  }

  /** Where a plane crosses a body. */
  crossing(body: BodyHandle, plane: Frame): readonly EdgeFacts[] {
    const key = `${body} ${JSON.stringify(plane)}`;
    let known = this.crossings.get(key);
    if (!known) this.crossings.set(key, (known = this.kernel.crossing(body, plane)));
    return known;
  }

  /** Name and measures; with the mesh, where one is asked for that the caller does not know yet. */
  describe(
    body: BodyHandle,
    { mesh, known }: { readonly mesh?: TessellationQuality; readonly known?: ReadonlySet<string> },
  ): BodyModel {
    let measured = this.measured.get(body);
    if (!measured) {
      measured = { name: this.kernel.bodyName(body), measures: this.kernel.measure(body) };
      this.measured.set(body, measured);
    }
    if (!mesh) return { key: `${body}`, ...measured };
    const key = `${body} ${mesh.deflection} ${mesh.angle}`;
    if (known?.has(key)) return { key, ...measured };
    let made = this.meshes.get(key);
    if (!made) this.meshes.set(key, (made = this.kernel.mesh(body, mesh)));
    const measures = witnessed(measured.measures, made, mesh);
    if (measures !== measured.measures) this.measured.set(body, (measured = { ...measured, measures }));
    return { key, ...measured, mesh: made, topology: this.topology(body) };
  }

  treeOf(mesh: BodyMesh): TriangleTree {
    let tree = this.trees.get(mesh);
    if (!tree) this.trees.set(mesh, (tree = new TriangleTree(mesh.positions, mesh.triangles)));
    return tree;
  }

  wallsOf(mesh: BodyMesh): Walls {
    let walls = this.skins.get(mesh);
    if (!walls) this.skins.set(mesh, (walls = wallsOf(mesh)));
    return walls;
  }

  /** Forgets all bodies. */
  clear(): void {
    for (const kept of [this.measured, this.topologies, this.meshes, this.crossings, this.boxes]) kept.clear();
  }

  forget(body: BodyHandle): void {
    this.measured.delete(body);
    this.topologies.delete(body);
    for (const kept of [this.meshes, this.crossings, this.boxes])
      for (const key of kept.keys()) if (key.startsWith(`${body} `)) kept.delete(key);
  }
}

/** The triangles as a third witness: where they enclose another volume than they may, that is how unsure it is. */
function witnessed(measures: BodyMeasures, mesh: BodyMesh, { deflection }: TessellationQuality): BodyMeasures {
  const apart = Math.abs(enclosedVolume(mesh) - measures.volume_mm3);
  // triangles lie within their deflection of the faces, on either side
  if (apart <= deflection * measures.area_mm2 + measures.off.volume_mm3) return measures;
  return { ...measures, off: { ...measures.off, volume_mm3: Math.max(measures.off.volume_mm3, apart) } };
}
