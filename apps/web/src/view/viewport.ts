import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  GridHelper,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  Raycaster,
  Scene,
  Timer,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import { acceleratedRaycast, computeBoundsTree, disposeBoundsTree } from 'three-mesh-bvh';
import type { BodyMesh, NamedRange, Vec2, Vec3 } from '@helb/core';
import { ViewCamera } from './camera.ts';

Mesh.prototype.raycast = acceleratedRaycast;
BufferGeometry.prototype.computeBoundsTree = computeBoundsTree;
BufferGeometry.prototype.disposeBoundsTree = disposeBoundsTree;

/** Something of a body that can be picked. */
export interface Pick {
  readonly kind: 'face' | 'edge';
  readonly body: string;
  readonly name: string;
  readonly words: string;
  /** Distance from the eye, for the order front to back. */
  readonly depth: number;
}

export interface ViewTheme {
  readonly ink: string;
  readonly rule: string;
  readonly act: string;
  readonly part: string;
}

interface Shown {
  readonly mesh: BodyMesh;
  readonly faces: Mesh<BufferGeometry, MeshLambertMaterial>;
  readonly edges: LineSegments<BufferGeometry, LineBasicMaterial>;
}

const PICK_PIXELS = 6;

/** The three.js scene: a subscriber that shows what it is given, and tells what lies under the pointer. */
export class Viewport {
  readonly view: ViewCamera;
  /** Called after each frame in which the camera or the size has changed. */
  onView: () => void = () => {};
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly bodies = new Map<string, Shown>();
  private readonly marks = new Group();
  private readonly light = new DirectionalLight(0xffffff, 1.5);
  private readonly timer = new Timer();
  private readonly observer: ResizeObserver;
  private grid: GridHelper | undefined;
  private theme: ViewTheme;
  private faded = false;
  private dirty = true;
  private frame = 0;
  /** Frames drawn so far: for benches and tests. */
  drawn = 0;

  constructor(
    private readonly element: HTMLElement,
    canvas: HTMLCanvasElement,
    theme: ViewTheme,
  ) {
    this.theme = theme;
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
    this.renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    this.view = new ViewCamera(element, matchMedia('(prefers-reduced-motion: reduce)').matches);
    this.scene.add(new AmbientLight(0xffffff, 1.7), this.light, this.light.target, this.marks);
    this.setTheme(theme);
    this.observer = new ResizeObserver(() => this.redraw(true));
    this.observer.observe(element);
    this.loop = this.loop.bind(this);
    this.frame = requestAnimationFrame(this.loop);
  }

  setTheme(theme: ViewTheme): void {
    this.theme = theme;
    if (this.grid) this.scene.remove(this.grid);
    this.grid = new GridHelper(400, 20, theme.rule, theme.rule);
    this.grid.rotateX(Math.PI / 2);
    this.grid.material.depthWrite = false;
    this.grid.renderOrder = -1;
    this.grid.visible = !this.faded;
    this.scene.add(this.grid);
    for (const { faces, edges } of this.bodies.values()) {
      faces.material.color.set(theme.part);
      edges.material.color.set(theme.ink);
    }
    this.dirty = true;
  }

  /** Shows these bodies and no others; a body without a mesh is one that is shown already. */
  setBodies(bodies: readonly { readonly key: string; readonly mesh?: BodyMesh }[]): void {
    const wanted = new Set(bodies.map((body) => body.key));
    for (const key of [...this.bodies.keys()]) if (!wanted.has(key)) this.removeBody(key);
    for (const { key, mesh } of bodies) if (mesh && !this.bodies.has(key)) this.addBody(key, mesh);
    this.highlight([]);
    this.dirty = true;
  }

  get known(): string[] {
    return [...this.bodies.keys()];
  }

  /** Draws bodies pale, while something is sketched over them. */
  fade(on: boolean): void {
    this.faded = on;
    for (const shown of this.bodies.values()) this.paint(shown);
    if (this.grid) this.grid.visible = !on;
    this.dirty = true;
  }

  /** Lights up faces and edges by their names. */
  highlight(picks: readonly Pick[]): void {
    for (const child of [...this.marks.children]) {
      this.marks.remove(child);
      (child as Mesh).geometry.dispose();
    }
    for (const pick of picks) {
      const shown = this.bodies.get(pick.body);
      const range = shown?.mesh[pick.kind === 'face' ? 'faces' : 'edges'].find(({ name }) => name === pick.name);
      if (shown && range)
        this.marks.add(pick.kind === 'face' ? this.faceMark(shown, range) : this.edgeMark(shown, range));
    }
    this.dirty = true;
  }

  /** The faces that a step has made. */
  facesOf(step: string): Pick[] {
    return [...this.bodies].flatMap(([body, { mesh }]) =>
      mesh.faces
        .filter(({ name }) => name.startsWith(`${step}/`))
        .map(({ name, words }): Pick => ({ kind: 'face', body, name, words, depth: 0 })),
    );
  }

  /** The direction in which a flat face looks; undefined for others. */
  normalOf({ kind, body, name, words }: Pick): Vec3 | undefined {
    const mesh = this.bodies.get(body)?.mesh;
    const range = mesh?.faces.find((face) => face.name === name);
    if (kind !== 'face' || words !== 'flat' || !mesh || !range) return undefined;
    const corner = mesh.triangles[range.start]!;
    return [...mesh.normals.subarray(3 * corner, 3 * corner + 3)] as unknown as Vec3;
  }

  /** Everything under a screen place, front to back; an edge before the faces that it bounds. */
  pick([x, y]: Vec2): Pick[] {
    const { width, height } = this.view.size;
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), this.view.camera);
    const found: Pick[] = [];
    for (const [body, shown] of this.bodies) {
      for (const hit of ray.intersectObject(shown.faces)) {
        const range = rangeAt(shown.mesh.faces, (hit.faceIndex ?? 0) * 3);
        if (range) found.push({ kind: 'face', body, name: range.name, words: range.words, depth: hit.distance });
      }
      found.push(...this.edgesNear([x, y], body, shown));
    }
    found.sort((a, b) => a.depth - b.depth);
    return found.filter(
      (pick, k) => found.findIndex((other) => other.name === pick.name && other.body === pick.body) === k,
    );
  }

  /** A small PNG of what is shown now, as base64. */
  picture(width: number, height: number): string {
    this.renderer.render(this.scene, this.view.camera);
    const source = this.renderer.domElement;
    const small = document.createElement('canvas');
    small.width = width;
    small.height = height;
    const scale = Math.max(width / source.width, height / source.height);
    const context = small.getContext('2d')!;
    context.drawImage(
      source,
      (width - source.width * scale) / 2,
      (height - source.height * scale) / 2,
      source.width * scale,
      source.height * scale,
    );
    return small.toDataURL('image/png').split(',')[1]!;
  }

  redraw(resized = false): void {
    if (resized) this.view.resize(this.renderer);
    this.dirty = true;
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.observer.disconnect();
    for (const key of [...this.bodies.keys()]) this.removeBody(key);
    this.view.controls.dispose();
    this.renderer.dispose();
  }

  private loop(): void {
    this.frame = requestAnimationFrame(this.loop);
    this.timer.update();
    const moved = this.view.controls.update(this.timer.getDelta());
    if (!moved && !this.dirty) return;
    this.dirty = false;
    this.light.position
      .copy(this.view.camera.position)
      .add(new Vector3(0.2, 0.1, 0.6).applyQuaternion(this.view.camera.quaternion).multiplyScalar(80));
    this.light.target.position.copy(this.view.controls.getTarget(new Vector3()));
    this.renderer.render(this.scene, this.view.camera);
    this.drawn++;
    this.onView();
  }

  private addBody(key: string, mesh: BodyMesh): void {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
    geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
    geometry.setIndex(new BufferAttribute(mesh.triangles, 1));
    // indirect: the order of triangles is what names the faces, it must not change
    geometry.computeBoundsTree({ indirect: true });
    const faces = new Mesh(
      geometry,
      new MeshLambertMaterial({
        color: this.theme.part,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      }),
    );
    const lines = new BufferGeometry();
    lines.setAttribute('position', new BufferAttribute(mesh.edgePoints, 3));
    const edges = new LineSegments(lines, new LineBasicMaterial({ color: this.theme.ink }));
    const shown = { mesh, faces, edges };
    this.paint(shown);
    this.scene.add(faces, edges);
    this.bodies.set(key, shown);
  }

  private paint({ faces, edges }: Shown): void {
    for (const material of [faces.material, edges.material]) {
      material.transparent = this.faded;
      material.opacity = this.faded ? 0.22 : 1;
      material.needsUpdate = true;
    }
    faces.material.depthWrite = !this.faded;
  }

  private removeBody(key: string): void {
    const { faces, edges } = this.bodies.get(key)!;
    this.bodies.delete(key);
    this.scene.remove(faces, edges);
    faces.geometry.disposeBoundsTree();
    for (const object of [faces, edges]) {
      object.geometry.dispose();
      object.material.dispose();
    }
  }

  private faceMark({ faces }: Shown, { start, count }: NamedRange): Mesh {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', faces.geometry.getAttribute('position'));
    geometry.setIndex(faces.geometry.getIndex());
    geometry.setDrawRange(start, count);
    const material = new MeshBasicMaterial({
      color: new Color(this.theme.act),
      transparent: true,
      opacity: 0.35,
      side: DoubleSide,
      depthWrite: false,
    });
    const mark = new Mesh(geometry, material);
    mark.raycast = () => {};
    return mark;
  }

  private edgeMark({ mesh }: Shown, { start, count }: NamedRange): LineSegments2 {
    const geometry = new LineSegmentsGeometry();
    geometry.setPositions(mesh.edgePoints.subarray(3 * start, 3 * (start + count)));
    return new LineSegments2(
      geometry,
      new LineMaterial({ color: new Color(this.theme.act).getHex(), linewidth: 4, depthTest: false }),
    );
  }

  /** Edges within a few pixels, measured on the screen. */
  private edgesNear([x, y]: Vec2, body: string, { mesh }: Shown): Pick[] {
    const found: Pick[] = [];
    const eye = this.view.camera.position;
    const sight = new Vector3();
    this.view.camera.getWorldDirection(sight);
    for (const range of mesh.edges) {
      let nearest = PICK_PIXELS;
      let depth = Infinity;
      for (let k = range.start; k < range.start + range.count; k += 2) {
        const [a, b] = [k, k + 1].map((at) => [...mesh.edgePoints.subarray(3 * at, 3 * at + 3)] as unknown as Vec3) as [
          Vec3,
          Vec3,
        ];
        const { distance, t } = toSegment([x, y], this.view.toScreen(a), this.view.toScreen(b));
        if (distance > nearest) continue;
        nearest = distance;
        const place = new Vector3(...a).lerp(new Vector3(...b), t);
        // a little nearer than it is: where an edge and its faces are equally far, the edge was meant
        depth = place.sub(eye).dot(sight) - this.view.pixel * PICK_PIXELS;
      }
      if (depth < Infinity) found.push({ kind: 'edge', body, name: range.name, words: range.words, depth });
    }
    return found;
  }
}

function rangeAt(ranges: readonly NamedRange[], index: number): NamedRange | undefined {
  return ranges.find(({ start, count }) => index >= start && index < start + count);
}

function toSegment([x, y]: Vec2, [ax, ay]: Vec2, [bx, by]: Vec2): { distance: number; t: number } {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / Math.max(dx * dx + dy * dy, 1e-12)));
  return { distance: Math.hypot(x - ax - t * dx, y - ay - t * dy), t };
}
