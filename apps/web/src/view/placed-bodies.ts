import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DynamicDrawUsage,
  Group,
  InstancedBufferAttribute,
  InstancedBufferGeometry,
  InstancedMesh,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  MeshLambertMaterial,
} from 'three';
import {
  boxRound,
  transformBox,
  type BodyMesh,
  type Box3,
  type Id,
  type RigidTransform,
  type Topology,
} from '@helb/core';
import './quick-rays.ts';
import { Rims } from './rims.ts';
import type { ViewBody } from './viewport.ts';

export const matrixOf = ([a, b, c]: RigidTransform): Matrix4 => new Matrix4().set(...a, ...b, ...c, 0, 0, 0, 1);

/** How placements are drawn: as they are, or pale behind what is looked at. */
export type Layer = 'strong' | 'pale';

export interface Instance {
  readonly member: string;
  readonly pose: RigidTransform;
  readonly colour: string;
}

const OPACITY: Readonly<Record<Layer, number>> = { strong: 1, pale: 0.16 };

/** A body of a part wherever that is placed: one call for its faces and one for its edges, however often it is there. */
class PlacedBody {
  readonly object = new Group();
  private readonly faces: BufferGeometry;
  private readonly layers = new Map<Layer, InstancedLayer>();
  readonly rims: Rims;

  constructor(
    readonly mesh: BodyMesh,
    readonly topology: Topology,
  ) {
    this.rims = new Rims(mesh);
    this.faces = new BufferGeometry();
    this.faces.setAttribute('position', new BufferAttribute(mesh.positions, 3));
    this.faces.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
    this.faces.setIndex(new BufferAttribute(mesh.triangles, 1));
    // indirect: the order of triangles is what names the faces, it must not change
    this.faces.computeBoundsTree({ indirect: true });
  }

  set(layer: Layer, instances: readonly Instance[], ink: string): void {
    let shown = this.layers.get(layer);
    if (shown && shown.room < instances.length) {
      this.object.remove(shown.object);
      shown.dispose();
      shown = undefined;
    }
    if (!shown) {
      if (instances.length === 0) return void this.layers.delete(layer);
      shown = new InstancedLayer(this.faces, this.mesh.edgePoints, instances.length, OPACITY[layer]);
      this.layers.set(layer, shown);
      this.object.add(shown.object);
    }
    shown.set(instances, ink);
  }

  /** Moves what is shown, without a look at anything else. */
  move(poseOf: (member: string) => RigidTransform): void {
    for (const layer of this.layers.values()) layer.move(poseOf);
  }

  /** What can be met by a ray: the faces of each layer, and which member an instance is. */
  get pickable(): readonly InstancedLayer[] {
    return [...this.layers.values()];
  }

  get geometry(): BufferGeometry {
    return this.faces;
  }

  /** In the coordinates of its part. */
  get box(): Box3 {
    if (!this.faces.boundingBox) this.faces.computeBoundingBox();
    const { min, max } = this.faces.boundingBox!;
    return { low: min.toArray(), high: max.toArray() };
  }

  dispose(): void {
    for (const layer of this.layers.values()) layer.dispose();
    this.faces.disposeBoundsTree();
    this.faces.dispose();
  }
}

/** The bodies of all parts that are placed, in a scene. */
export class PlacedScene {
  readonly object = new Group();
  private readonly bodies = new Map<string, PlacedBody>();
  /** Keys of the bodies of each part. */
  private parts: ReadonlyMap<Id, readonly string[]> = new Map();

  get known(): string[] {
    return [...this.bodies.keys()];
  }

  /** A body without a mesh is one that is here already. */
  setBodies(parts: Readonly<Record<Id, readonly ViewBody[]>>): void {
    const wanted = new Set(Object.values(parts).flatMap((bodies) => bodies.map(({ key }) => key)));
    for (const [key, body] of this.bodies)
      if (!wanted.has(key)) {
        this.object.remove(body.object);
        body.dispose();
        this.bodies.delete(key);
      }
    for (const { key, mesh, topology } of Object.values(parts).flat())
      if (mesh && topology && !this.bodies.has(key)) {
        const body = new PlacedBody(mesh, topology);
        this.bodies.set(key, body);
        this.object.add(body.object);
      }
    this.parts = new Map(
      Object.entries(parts).map(([part, bodies]) => [
        part,
        bodies.map(({ key }) => key).filter((key) => this.bodies.has(key)),
      ]),
    );
  }

  setInstances(instancesOf: (part: Id, layer: Layer) => readonly Instance[], ink: string): void {
    for (const [part, keys] of this.parts)
      for (const layer of ['strong', 'pale'] as const) {
        const instances = instancesOf(part, layer);
        for (const key of keys) this.bodies.get(key)!.set(layer, instances, ink);
      }
  }

  move(poseOf: (member: string) => RigidTransform): void {
    for (const body of this.bodies.values()) body.move(poseOf);
  }

  keysOf = (part: Id): readonly string[] => this.parts.get(part) ?? [];

  body = (key: string): PlacedBody | undefined => this.bodies.get(key);

  /** Every part with the keys of its bodies. */
  get all(): readonly (readonly string[])[] {
    return [...this.parts.values()];
  }

  /** The box round placements; undefined where none of them has a body. */
  boxOf(placed: readonly { readonly part: Id; readonly pose: RigidTransform }[]): Box3 | undefined {
    return boxRound(
      placed.flatMap(({ part, pose }) => this.keysOf(part).map((key) => transformBox(this.bodies.get(key)!.box, pose))),
    );
  }

  dispose(): void {
    for (const body of this.bodies.values()) body.dispose();
  }
}

class InstancedLayer {
  readonly object = new Group();
  readonly faces: InstancedMesh<BufferGeometry, MeshLambertMaterial>;
  private readonly edges: LineSegments<InstancedBufferGeometry, LineBasicMaterial>;
  private readonly places: InstancedBufferAttribute;
  members: readonly string[] = [];

  constructor(
    faces: BufferGeometry,
    edgePoints: Float32Array,
    readonly room: number,
    opacity: number,
  ) {
    const transparent = opacity < 1;
    const material = new MeshLambertMaterial({
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
      transparent,
      opacity,
      depthWrite: !transparent,
    });
    this.faces = new InstancedMesh(faces, material, room);
    this.faces.frustumCulled = false;
    const lines = new InstancedBufferGeometry();
    lines.setAttribute('position', new BufferAttribute(edgePoints, 3));
    this.places = new InstancedBufferAttribute(new Float32Array(16 * room), 16).setUsage(DynamicDrawUsage);
    lines.setAttribute('instanceMatrix', this.places);
    const ink = new LineBasicMaterial({ transparent, opacity: transparent ? opacity * 1.6 : 1 });
    // lines are placed as instanced faces are: the shader has it, three offers it for meshes only
    ink.defines = { USE_INSTANCING: '' };
    this.edges = new LineSegments(lines, ink);
    this.edges.frustumCulled = false;
    this.edges.raycast = () => {};
    this.object.add(this.faces, this.edges);
  }

  set(instances: readonly Instance[], ink: string): void {
    this.members = instances.map(({ member }) => member);
    this.faces.count = this.edges.geometry.instanceCount = instances.length;
    this.object.visible = instances.length > 0;
    instances.forEach(({ pose, colour }, k) => {
      this.faces.setColorAt(k, new Color(colour));
      this.put(k, pose);
    });
    if (this.faces.instanceColor) this.faces.instanceColor.needsUpdate = true;
    this.edges.material.color.set(ink);
    this.moved();
  }

  move(poseOf: (member: string) => RigidTransform): void {
    this.members.forEach((member, k) => this.put(k, poseOf(member)));
    this.moved();
  }

  private put(k: number, pose: RigidTransform): void {
    const matrix = matrixOf(pose);
    this.faces.setMatrixAt(k, matrix);
    matrix.toArray(this.places.array, 16 * k);
  }

  private moved(): void {
    this.faces.instanceMatrix.needsUpdate = this.places.needsUpdate = true;
    this.faces.boundingSphere = null;
  }

  dispose(): void {
    this.faces.dispose();
    this.faces.material.dispose();
    this.edges.geometry.dispose();
    this.edges.material.dispose();
  }
}
