import {
  BufferAttribute,
  BufferGeometry,
  GreaterDepth,
  Group,
  LineBasicMaterial,
  LineDashedMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  type Plane,
} from 'three';
import type { BodyMesh, Topology } from '@helb/core';

/** Shaded with its edges, edges alone, or edges as drawings show them: the hidden ones broken. */
export const LOOKS = { shaded: 'Shaded', wire: 'Wire', hidden: 'Hidden lines' } as const;
export type Look = keyof typeof LOOKS;

/** How much is seen of what is pale. */
export const PALE = 0.22;

export interface Paint {
  readonly look: Look;
  /** Pale, while something is sketched over it. */
  readonly faded: boolean;
  readonly part: string;
  readonly ink: string;
  /** What lies in front of these is left out. */
  readonly planes: Plane[];
  /** A dash, in mm: as long on the screen however large the part is. */
  readonly dash: number;
}

/** A body in the scene: its faces, its edges, and its edges again where they are hidden. */
export class ShownBody {
  readonly object = new Group();
  readonly faces: Mesh<BufferGeometry, MeshLambertMaterial>;
  private readonly edges: LineSegments<BufferGeometry, LineBasicMaterial>;
  private readonly behind: LineSegments<BufferGeometry, LineDashedMaterial>;

  constructor(
    readonly mesh: BodyMesh,
    readonly topology: Topology,
  ) {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
    geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
    geometry.setIndex(new BufferAttribute(mesh.triangles, 1));
    // indirect: the order of triangles is what names the faces, it must not change
    geometry.computeBoundsTree({ indirect: true });
    this.faces = new Mesh(
      geometry,
      new MeshLambertMaterial({ polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 }),
    );
    const lines = new BufferGeometry();
    lines.setAttribute('position', new BufferAttribute(mesh.edgePoints, 3));
    this.edges = new LineSegments(lines, new LineBasicMaterial());
    this.behind = new LineSegments(
      lines,
      new LineDashedMaterial({ depthFunc: GreaterDepth, depthWrite: false, transparent: true, opacity: 0.5 }),
    );
    this.behind.computeLineDistances();
    this.object.add(this.faces, this.edges, this.behind);
  }

  paint({ look, faded, part, ink, planes, dash }: Paint): void {
    const [faces, edges, behind] = [this.faces.material, this.edges.material, this.behind.material];
    faces.color.set(part);
    edges.color.set(ink);
    behind.color.set(ink);
    for (const material of [faces, edges]) {
      material.transparent = faded;
      material.opacity = faded ? PALE : 1;
    }
    faces.depthWrite = !faded;
    // of hidden lines the faces hide what lies behind, but are not seen themselves
    faces.colorWrite = look === 'shaded';
    this.faces.visible = look !== 'wire';
    this.behind.visible = look === 'hidden' && !faded;
    [behind.dashSize, behind.gapSize] = [dash, dash * 0.7];
    for (const material of [faces, edges, behind]) {
      material.clippingPlanes = planes;
      material.needsUpdate = true;
    }
  }

  dispose(): void {
    this.faces.geometry.disposeBoundsTree();
    this.faces.geometry.dispose();
    this.edges.geometry.dispose();
    for (const { material } of [this.faces, this.edges, this.behind]) material.dispose();
  }
}
