import { BufferAttribute, BufferGeometry, DoubleSide, Group, Mesh, MeshLambertMaterial, type Plane } from 'three';
import { boxRound, type Box3 } from '@helb/core';
import type { LaidMesh } from '@helb/engine';

/** How much is seen of triangles under the model, and under a sketch. */
const [SEEN, FADED] = [0.45, 0.15];

interface ShownMesh {
  readonly faces: Mesh<BufferGeometry, MeshLambertMaterial>;
  readonly box: Box3;
  step: string;
}

/** Triangles that are laid under the model: seen through, never picked. */
export class Underlay {
  readonly object = new Group();
  private readonly shown = new Map<string, ShownMesh>();

  /** Keys of the meshes that are here already. */
  get known(): string[] {
    return [...this.shown.keys()];
  }

  /** The box round those that are seen. */
  get box(): Box3 | undefined {
    return boxRound([...this.shown.values()].filter(({ faces }) => faces.visible).map(({ box }) => box));
  }

  /** Shows these and no others; one without triangles is here already. */
  set(meshes: readonly LaidMesh[]): void {
    const wanted = new Set(meshes.map(({ key }) => key));
    for (const [key, { faces }] of this.shown) if (!wanted.has(key)) this.remove(key, faces);
    for (const { key, step, mesh, facts } of meshes) {
      const known = this.shown.get(key);
      if (known) known.step = step;
      else if (mesh) this.add(key, { faces: facesOf(mesh), box: facts.box, step });
    }
  }

  /** @param hidden the steps whose triangles are not shown */
  paint(look: { colour: string; faded: boolean; planes: Plane[]; hidden: ReadonlySet<string> }): void {
    for (const { faces, step } of this.shown.values()) {
      faces.visible = !look.hidden.has(step);
      faces.material.color.set(look.colour);
      faces.material.opacity = look.faded ? FADED : SEEN;
      faces.material.clippingPlanes = look.planes;
      faces.material.needsUpdate = true;
    }
  }

  dispose(): void {
    for (const [key, { faces }] of this.shown) this.remove(key, faces);
  }

  private add(key: string, mesh: ShownMesh): void {
    this.shown.set(key, mesh);
    this.object.add(mesh.faces);
  }

  private remove(key: string, faces: ShownMesh['faces']): void {
    this.shown.delete(key);
    this.object.remove(faces);
    faces.geometry.dispose();
    faces.material.dispose();
  }
}

function facesOf({ positions, triangles }: Required<LaidMesh>['mesh']): ShownMesh['faces'] {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  // files are not always sure which side is outside
  const material = new MeshLambertMaterial({
    transparent: true,
    depthWrite: false,
    flatShading: true,
    side: DoubleSide,
  });
  const faces = new Mesh(geometry, material);
  faces.raycast = () => {};
  return faces;
}
