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
  type ShaderMaterial,
  type Plane,
} from 'three';
import type { BodyMesh, Topology } from '@helb/core';
import type { Walls } from '@helb/engine';
import './quick-rays.ts';
import { paintOf, type Painting } from './painting.ts';
import { Rims } from './rims.ts';

/**
 * Shaded with its edges, edges alone, edges as drawings show them (the hidden ones broken), or painted by how thick the
 * walls are or how far the faces lean.
 */
export const LOOKS = {
  shaded: 'Shaded',
  wire: 'Wire',
  hidden: 'Hidden lines',
  walls: 'Wall thickness',
  lean: 'Lean of faces',
} as const;
export type Look = keyof typeof LOOKS;

/** How much is seen of what is pale. */
export const PALE = 0.22;

interface Paint {
  readonly look: Look;
  /** Pale, while something is sketched over it. */
  readonly faded: boolean;
  readonly part: string;
  readonly ink: string;
  /** What lies in front of these is left out. */
  readonly planes: Plane[];
  /** A dash, in mm: as long on the screen however large the part is. */
  readonly dash: number;
  /** How the faces are painted, where they are. */
  readonly painting?: Painting;
}

/** A body in the scene: its faces, its edges, and its edges again where they are hidden. */
export class ShownBody {
  readonly object = new Group();
  readonly rims: Rims;
  readonly faces: Mesh<BufferGeometry, MeshLambertMaterial>;
  private readonly edges: LineSegments<BufferGeometry, LineBasicMaterial>;
  private painted: Mesh<BufferGeometry, ShaderMaterial> | undefined;
  private skin: Walls | undefined;
  private readonly behind: LineSegments<BufferGeometry, LineDashedMaterial>;

  constructor(
    readonly mesh: BodyMesh,
    readonly topology: Topology,
  ) {
    this.rims = new Rims(mesh);
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

  /** Its skin with the thickness of its walls, for painting. */
  setWalls(walls: Walls): void {
    this.skin = walls;
  }

  paint({ look, faded, part, ink, planes, dash, painting }: Paint): void {
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
    faces.colorWrite = look !== 'hidden';
    this.setPainted(faded ? undefined : painting, ink);
    this.faces.visible = look !== 'wire' && !this.painted;
    this.behind.visible = look === 'hidden' && !faded;
    [behind.dashSize, behind.gapSize] = [dash, dash * 0.7];
    for (const material of [faces, edges, behind, ...(this.painted ? [this.painted.material] : [])]) {
      material.clippingPlanes = planes;
      material.needsUpdate = true;
    }
  }

  /** Painted faces are shown instead of the plain ones: of the body itself, or of its finer skin. */
  private setPainted(painting: Painting | undefined, ink: string): void {
    if (this.painted) {
      this.object.remove(this.painted);
      this.painted.material.dispose();
      if (this.painted.geometry !== this.faces.geometry) this.painted.geometry.dispose();
      this.painted = undefined;
    }
    if (!painting || (!painting.towards && !this.skin)) return;
    const geometry = painting.towards ? this.faces.geometry : skinGeometry(this.skin!);
    this.painted = new Mesh(geometry, paintOf(painting, ink));
    this.painted.raycast = () => {};
    this.object.add(this.painted);
  }

  dispose(): void {
    this.setPainted(undefined, '');
    this.faces.geometry.disposeBoundsTree();
    this.faces.geometry.dispose();
    this.edges.geometry.dispose();
    for (const { material } of [this.faces, this.edges, this.behind]) material.dispose();
  }
}

function skinGeometry({ positions, normals, triangles, thickness }: Walls): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(normals, 3));
  geometry.setAttribute('figure', new BufferAttribute(thickness, 1));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  return geometry;
}
