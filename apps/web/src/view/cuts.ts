import {
  AlwaysStencilFunc,
  BackSide,
  CanvasTexture,
  DecrementWrapStencilOp,
  DoubleSide,
  FrontSide,
  Group,
  IncrementWrapStencilOp,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  NotEqualStencilFunc,
  Plane,
  PlaneGeometry,
  RepeatWrapping,
  ReplaceStencilOp,
  Vector3,
  type Side,
  type WebGLRenderer,
} from 'three';
import { add3, scale3, type Frame, type Vec3 } from '@helb/core';
import type { ShownBody } from './shown-body.ts';

/** How far the cut faces reach from the origins of their planes, mm, and at least in sizes of the part. */
const REACH = 4000;
const SIZES = 4;
/** So far in front of its plane is cut, mm: a face that lies in it stays whole. */
const LIFT = 0.005;
/** How many lines of hatching there are over the size of the part. */
const HATCHES = 60;

interface CutLook {
  readonly part: string;
  readonly ink: string;
  /** Of the part, mm. */
  readonly size: number;
  readonly opacity: number;
}

/**
 * Cuts bodies open at planes and fills what is cut: for each plane the stencil counts the faces behind and in front of
 * each place of it, and where these differ there is material. Filled faces are hatched as drawings hatch them.
 */
export class Cuts {
  readonly object = new Group();
  planes: Plane[] = [];
  private frames: readonly Frame[] = [];

  constructor(private readonly renderer: WebGLRenderer) {
    renderer.localClippingEnabled = true;
  }

  /** What lies in front of a frame, on the side of its z, is left out. Tells whether that is news. */
  set(frames: readonly Frame[]): boolean {
    const lifted = frames.map((frame) => ({ ...frame, origin: add3(frame.origin, scale3(frame.z, LIFT)) }));
    if (JSON.stringify(lifted) === JSON.stringify(this.frames)) return false;
    this.frames = lifted;
    this.planes = lifted.map(({ origin, z }) =>
      new Plane().setFromNormalAndCoplanarPoint(new Vector3(...z).negate(), new Vector3(...origin)),
    );
    return true;
  }

  /** Is a place left out? */
  hides = (place: Vec3): boolean => this.planes.some((plane) => plane.distanceToPoint(new Vector3(...place)) < -1e-6);

  /** Makes the filled faces anew for these bodies. */
  fill(bodies: readonly ShownBody[], look: CutLook): void {
    this.clear();
    for (const [k, frame] of this.frames.entries()) {
      const order = 1 + 2 * k;
      for (const { faces } of bodies) {
        this.object.add(this.counting(faces, k, BackSide, order));
        this.object.add(this.counting(faces, k, FrontSide, order));
      }
      this.object.add(this.face(frame, k, order + 1, look));
    }
  }

  dispose(): void {
    this.clear();
  }

  private counting(faces: Mesh, k: number, side: Side, order: number): Mesh {
    const step = side === BackSide ? IncrementWrapStencilOp : DecrementWrapStencilOp;
    const material = new MeshBasicMaterial({
      side,
      depthWrite: false,
      depthTest: false,
      colorWrite: false,
      stencilWrite: true,
      stencilFunc: AlwaysStencilFunc,
      stencilFail: step,
      stencilZFail: step,
      stencilZPass: step,
      clippingPlanes: [this.planes[k]!],
    });
    const mesh = new Mesh(faces.geometry, material);
    mesh.renderOrder = order;
    mesh.raycast = () => {};
    mesh.userData['shared'] = true;
    return mesh;
  }

  private face(frame: Frame, k: number, order: number, { part, ink, size, opacity }: CutLook): Mesh {
    const texture = hatching(part, ink);
    const reach = Math.max(REACH, SIZES * size);
    texture.repeat.setScalar((reach / Math.max(size, 1)) * HATCHES);
    const material = new MeshBasicMaterial({
      map: texture,
      transparent: opacity < 1,
      opacity,
      side: DoubleSide,
      clippingPlanes: this.planes.filter((_, other) => other !== k),
      stencilWrite: true,
      stencilRef: 0,
      stencilFunc: NotEqualStencilFunc,
      stencilFail: ReplaceStencilOp,
      stencilZFail: ReplaceStencilOp,
      stencilZPass: ReplaceStencilOp,
    });
    const mesh = new Mesh(new PlaneGeometry(2 * reach, 2 * reach), material);
    const { origin, x, y, z } = frame;
    mesh.matrixAutoUpdate = false;
    mesh.matrix.copy(
      new Matrix4().makeBasis(new Vector3(...x), new Vector3(...y), new Vector3(...z)).setPosition(...origin),
    );
    mesh.renderOrder = order;
    mesh.raycast = () => {};
    mesh.onAfterRender = () => this.renderer.clearStencil();
    return mesh;
  }

  private clear(): void {
    for (const child of [...this.object.children] as Mesh<PlaneGeometry, MeshBasicMaterial>[]) {
      this.object.remove(child);
      child.material.map?.dispose();
      child.material.dispose();
      if (!child.userData['shared']) child.geometry.dispose();
    }
  }
}

/** A tile of hatching: lines at 45 degrees in ink on the colour of the part. */
function hatching(part: string, ink: string): CanvasTexture {
  const tile = document.createElement('canvas');
  tile.width = tile.height = 32;
  const context = tile.getContext('2d')!;
  context.fillStyle = part;
  context.fillRect(0, 0, 32, 32);
  context.strokeStyle = ink;
  context.globalAlpha = 0.55;
  context.lineWidth = 2.5;
  context.beginPath();
  for (const at of [-32, 0, 32]) {
    context.moveTo(at, 32);
    context.lineTo(at + 32, 0);
  }
  context.stroke();
  const texture = new CanvasTexture(tile);
  texture.wrapS = texture.wrapT = RepeatWrapping;
  texture.colorSpace = 'srgb';
  return texture;
}
