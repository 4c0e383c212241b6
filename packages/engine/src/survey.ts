import {
  TriangleTree,
  type BodyHandle,
  type BodyMesh,
  type EdgeFacts,
  type Fineness,
  type Frame,
  type Kernel,
  type Topology,
} from '@helb/core';
import type { BodyModel } from './model.ts';
import { wallsOf, type Walls } from './walls.ts';

/** What is known of bodies: each thing asked of the kernel once, until the body is forgotten. */
export class Survey {
  private readonly measured = new Map<BodyHandle, Pick<BodyModel, 'name' | 'measures'>>();
  private readonly meshes = new Map<string, BodyMesh>();
  private readonly trees = new WeakMap<BodyMesh, TriangleTree>();
  private readonly skins = new WeakMap<BodyMesh, Walls>();
  private readonly topologies = new Map<BodyHandle, Topology>();
  private readonly crossings = new Map<string, readonly EdgeFacts[]>();

  constructor(private readonly kernel: Kernel) {}

  /** The faces, edges and vertices of a body. */
  topology(body: BodyHandle): Topology {
    let known = this.topologies.get(body);
    if (!known) this.topologies.set(body, (known = this.kernel.topology(body)));
    return known;
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
    { mesh, known }: { readonly mesh?: Fineness; readonly known?: ReadonlySet<string> },
  ): BodyModel {
    let told = this.measured.get(body);
    if (!told) {
      told = { name: this.kernel.bodyName(body), measures: this.kernel.measure(body) };
      this.measured.set(body, told);
    }
    if (!mesh) return { key: `${body}`, ...told };
    const key = `${body} ${mesh.deflection} ${mesh.angle}`;
    if (known?.has(key)) return { key, ...told };
    let made = this.meshes.get(key);
    if (!made) this.meshes.set(key, (made = this.kernel.mesh(body, mesh)));
    return { key, ...told, mesh: made, topology: this.topology(body) };
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

  forget(body: BodyHandle): void {
    this.measured.delete(body);
    this.topologies.delete(body);
    for (const kept of [this.meshes, this.crossings])
      for (const key of kept.keys()) if (key.startsWith(`${body} `)) kept.delete(key);
  }
}
