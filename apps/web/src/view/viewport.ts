import {
  Box3,
  BufferGeometry,
  Group,
  Raycaster,
  Vector2,
  Vector3,
  type LineBasicMaterial,
  type LineSegments,
  type Object3D,
} from 'three';
import {
  fitting,
  planeOf,
  pointOf,
  type BodyMesh,
  type Frame,
  type Id,
  type Reference,
  type Topology,
  type Vec2,
  type Vec3,
  isFaceOf,
} from '@helb/core';
import type { LaidMesh, Walls } from '@helb/engine';
import type { ViewCamera } from './camera.ts';
import { Cuts } from './cuts.ts';
import {
  bodyPick,
  cornerPick,
  edgePick,
  facePick,
  frontToBack,
  guidePick,
  pickOf,
  picksOf,
  rangeAt,
  type Guide,
  type Pick,
} from './picks.ts';
import { clear, lineMark, thinLines } from './marks.ts';
import { bodyMark, type MarkLook } from './pick-marks.ts';
import type { Painting } from './painting.ts';
import { cornerNearness, nearness, type Screen } from './nearness.ts';
import { PALE, ShownBody, type Look } from './shown-body.ts';
import { Others, type Neighbour } from './others.ts';
import { Stage, type ViewTheme } from './stage.ts';
import { Underlay } from './underlay.ts';

/** A body as the engine tells it. */
export interface ViewBody {
  readonly key: string;
  readonly mesh?: BodyMesh;
  readonly topology?: Topology;
}

/** Whole bodies come last of all that lies under the pointer. */
const BEHIND = 1e7;

/** The three.js scene: a subscriber that shows what it is given, and tells what lies under the pointer. */
export class Viewport {
  readonly stage: Stage;
  private readonly bodies = new Map<string, ShownBody>();
  private readonly guideLines = new Group();
  private readonly signLines = new Group();
  private guides: readonly Guide[] = [];
  /** Keys of the bodies that are picked, in the engine's order. */
  private pickable: readonly string[] = [];
  private readonly others = new Others();
  private theme: ViewTheme;
  private faded = false;
  private ground: Reference | undefined;
  private readonly groundLines = new Group();
  private look: Look = 'shaded';
  private painting: Painting | undefined;
  /** Names of bodies that are not shown, and keys of those that are there to be seen. */
  private hidden: ReadonlySet<string> = new Set();
  private seen: ReadonlySet<string> = new Set();
  private readonly cuts: Cuts;
  private readonly underlay = new Underlay();

  constructor(element: HTMLElement, canvas: HTMLCanvasElement, theme: ViewTheme) {
    this.theme = theme;
    this.stage = new Stage(element, canvas);
    this.cuts = new Cuts(this.stage.renderer);
    this.stage.scene.add(this.underlay.object, this.others.object, this.guideLines, this.signLines);
    this.stage.scene.add(this.groundLines, this.cuts.object);
    this.setTheme(theme);
  }

  get view(): ViewCamera {
    return this.stage.view;
  }

  setTheme(theme: ViewTheme): void {
    this.theme = theme;
    this.stage.setGrid(theme);
    this.repaint();
  }

  /**
   * Shows some bodies and lets others be picked: while a step is made its result is seen, and what was there before it is
   * picked. A body without a mesh is one that the view has already.
   */
  setBodies(shown: readonly ViewBody[], pickable: readonly ViewBody[] = shown): void {
    const wanted = new Set([...shown, ...pickable].map((body) => body.key));
    for (const key of [...this.bodies.keys()]) if (!wanted.has(key)) this.removeBody(key);
    for (const { key, mesh, topology } of [...shown, ...pickable])
      if (mesh && topology && !this.bodies.has(key)) this.addBody(key, mesh, topology);
    this.pickable = pickable.flatMap(({ key }) => (this.bodies.has(key) ? [key] : []));
    this.seen = new Set(shown.map((body) => body.key));
    this.highlight([]);
    this.repaint();
  }

  /** Shows pale what stands round the part, seen from a placement of it. */
  setOthers(parts: Readonly<Record<Id, readonly ViewBody[]>>, neighbours: readonly Neighbour[] = [], own = ''): void {
    this.others.set(parts, neighbours, own, this.theme.ink);
    this.stage.redraw();
  }

  /** Shows the datums and drawn curves of one of these, to be picked. */
  pointOther(member: string | undefined): void {
    this.others.point(member, this.theme);
    this.stage.redraw();
  }

  /** The box round what stands round the part; undefined where nothing is shown. */
  get othersBox() {
    return this.others.box;
  }

  /** Keys of the bodies of other parts that the view has. */
  get knownOthers(): string[] {
    return this.others.known;
  }

  /** Shows these guides and no others. */
  setGuides(guides: readonly Guide[]): void {
    this.guides = guides;
    clear(this.guideLines);
    for (const { lines, look } of guides)
      this.guideLines.add(thinLines(lines, look === 'datum' ? this.theme.link : this.theme.muted));
    this.stage.redraw();
  }

  /** Shows threads by lines on their faces. */
  setSigns(lines: readonly (readonly Vec3[])[]): void {
    clear(this.signLines);
    for (const places of lines) this.signLines.add(thinLines(places, this.theme.ink, 0.6));
    this.repaint();
  }

  get known(): string[] {
    return [...this.bodies.keys(), ...this.underlay.known];
  }

  /** Shows triangles under the model. */
  setMeshes(meshes: readonly LaidMesh[]): void {
    this.underlay.set(meshes);
    this.repaint();
  }

  /** The box round the triangles under the model; undefined where none are seen. */
  get underlayBox() {
    return this.underlay.box;
  }

  /** Draws bodies pale, while something is sketched over them, but for the rim of what it is sketched on. */
  fade(on: boolean, ground?: Reference): void {
    this.faded = on;
    this.ground = ground;
    this.repaint();
  }

  /** @param painting for looks that paint the faces; without it they are shaded until it is known */
  setLook(look: Look, painting?: Painting): void {
    this.look = look;
    this.painting = painting;
    this.repaint();
  }

  /** The walls of bodies by their keys. */
  setWalls(walls: readonly { readonly key: string; readonly walls: Walls }[]): void {
    for (const { key, walls: skin } of walls) this.bodies.get(key)?.setWalls(skin);
    this.repaint();
  }

  /** Cuts all bodies open at these planes: what lies in front of them is neither seen nor picked. */
  setCuts(frames: readonly Frame[]): void {
    if (this.cuts.set(frames)) this.repaint();
  }

  /** Bodies that are not shown, by name. */
  setHidden(names: ReadonlySet<string>): void {
    this.hidden = names;
    this.repaint();
  }

  private repaint(): void {
    const { look, faded, theme } = this;
    const size = this.size();
    const { part, ink } = theme;
    const painting = this.painting ? { painting: this.painting } : {};
    const paint = { look, faded, part, ink, planes: this.cuts.planes, dash: size / 60, ...painting };
    const visible: ShownBody[] = [];
    for (const [key, shown] of this.bodies) {
      shown.object.visible = this.seen.has(key) && !this.hidden.has(shown.topology.name);
      if (shown.object.visible) visible.push(shown);
      shown.paint(paint);
    }
    // lines alone are cut, not filled
    const opacity = faded ? PALE : 1;
    this.cuts.fill(look === 'wire' ? [] : visible, { part, ink, size, opacity });
    for (const sign of this.signLines.children as LineSegments<BufferGeometry, LineBasicMaterial>[])
      sign.material.clippingPlanes = this.cuts.planes;
    this.underlay.paint({ colour: this.theme.muted, faded, planes: this.cuts.planes, hidden: this.hidden });
    this.signLines.visible = !faded;
    this.drawGround();
    this.stage.showGrid(!faded && look !== 'hidden');
    this.stage.redraw();
  }

  private drawGround(): void {
    clear(this.groundLines);
    for (const { body, name } of this.faded && this.ground ? this.find(this.ground) : []) {
      const { mesh, topology } = this.bodies.get(body) ?? {};
      const rims = topology?.edges.filter(({ faces }) => faces.includes(name)).map((edge) => edge.name);
      for (const { start, count } of mesh?.edges.filter((edge) => rims?.includes(edge.name)) ?? []) {
        const points = [...mesh!.edgePoints.slice(3 * start, 3 * (start + count))];
        const places = Array.from({ length: count }, (_, k) => points.slice(3 * k, 3 * k + 3) as unknown as Vec3);
        this.groundLines.add(thinLines(places, this.theme.ink));
      }
    }
  }

  /** The largest extent of what is shown, mm. */
  private size(): number {
    const box = new Box3();
    for (const { faces } of this.bodies.values()) {
      if (!faces.geometry.boundingBox) faces.geometry.computeBoundingBox();
      box.union(faces.geometry.boundingBox!);
    }
    return box.isEmpty() ? 100 : Math.max(...box.getSize(new Vector3()).toArray());
  }

  /** Lights up what is picked, and where two things come nearest. */
  highlight(picks: readonly Pick[], ruler?: readonly [Vec3, Vec3]): void {
    clear(this.stage.marks);
    if (ruler) this.stage.marks.add(lineMark(ruler.flat(), this.theme.link));
    for (const pick of picks) {
      const mark = this.markOf(pick);
      if (mark) this.stage.marks.add(mark);
    }
    this.stage.redraw();
  }

  private markOf(pick: Pick): Object3D | undefined {
    const { kind, body, name } = pick;
    const look: MarkLook = { pixel: this.view.pixel, colour: this.theme.act };
    if (pick.origin) return this.others.markOf(pick, look);
    if (kind === 'guide') {
      const guide = this.guides.find((other) => other.name === name);
      return guide && lineMark(guide.lines.flat(), this.theme.act);
    }
    const shown = this.bodies.get(body);
    if (!shown) return undefined;
    const { mesh, faces } = shown;
    return bodyMark(pick, { mesh, geometry: faces.geometry, cuts: faces.material.clippingPlanes }, look);
  }

  /** The faces that a step has made. */
  facesOf(step: string): Pick[] {
    return this.things().filter(({ kind, name }) => kind === 'face' && isFaceOf(name, step));
  }

  /** What a reference points to, where it is shown; several things for a rule. */
  find(reference: Reference): Pick[] {
    if (reference.to === 'rule') {
      const keys = this.pickable;
      return fitting(reference, this.topologies).flatMap((thing) =>
        'body' in thing ? [pickOf(keys[thing.body]!, thing)] : [],
      );
    }
    if (reference.to === 'other') return this.others.find(reference);
    const found = this.things().find(({ kind, name, reference: other }) =>
      kind === 'guide'
        ? JSON.stringify(other) === JSON.stringify(reference)
        : 'name' in reference && other.to === reference.to && name === reference.name,
    );
    return found ? [found] : [];
  }

  /** The bodies that are picked, in the engine's order. */
  get topologies(): readonly Topology[] {
    return this.pickableBodies.map(([, { topology }]) => topology);
  }

  private things(): Pick[] {
    const ofBodies = this.pickableBodies.flatMap(([body, { topology }], k) => picksOf(body, k, topology));
    return [...ofBodies, ...this.guides.map((guide) => guidePick(guide, 0))];
  }

  private get pickableBodies(): (readonly [string, ShownBody])[] {
    return this.pickable.map((key) => [key, this.bodies.get(key)!] as const);
  }

  /** The direction in which a flat thing looks; undefined for others. */
  normalOf = ({ thing }: Pick): Vec3 | undefined => planeOf(thing)?.z;

  /** Everything under a screen place, front to back; an edge before the faces that it bounds. */
  pick([x, y]: Vec2): Pick[] {
    const { screen, size } = this.view;
    const { width, height } = size;
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), this.view.camera);
    const found: Pick[] = [];
    for (const [k, [body, shown]] of this.pickableBodies.entries()) {
      if (this.hidden.has(shown.topology.name)) continue;
      const hits = ray.intersectObject(shown.faces).filter(({ point }) => !this.cuts.hides(point.toArray()));
      if (hits.length > 0) found.push({ ...bodyPick(body, k, shown.topology), depth: BEHIND + hits[0]!.distance });
      for (const hit of hits) {
        const range = rangeAt(shown.mesh.faces, (hit.faceIndex ?? 0) * 3);
        const face = range && shown.topology.faces.find(({ name }) => name === range.name);
        if (face) found.push({ ...facePick(body, k, shown.topology, face), depth: hit.distance });
      }
      found.push(
        ...this.edgesNear(screen, [x, y], body, k, shown),
        ...this.cornersNear(screen, [x, y], body, k, shown),
      );
    }
    for (const guide of this.guides) {
      const depth = nearness(screen, [x, y], guide.lines.length, (at) => guide.lines[at]!, this.cuts.hides);
      if (depth !== undefined) found.push(guidePick(guide, depth));
    }
    found.push(...this.others.under(this.view, [x, y]));
    return frontToBack(found).filter(
      (pick, k, all) => all.findIndex((other) => other.name === pick.name && other.body === pick.body) === k,
    );
  }

  /** Round edges whose centre lies near a screen place. */
  centresNear(at: Vec2): Pick[] {
    const { screen } = this.view;
    return this.pickableBodies.flatMap(([body, { topology }], index) =>
      topology.edges.flatMap((edge): Pick[] => {
        const pick = edgePick(body, index, edge);
        const centre = pointOf(pick.thing);
        const depth = centre && cornerNearness(screen, at, centre);
        return depth === undefined ? [] : [{ ...pick, depth }];
      }),
    );
  }

  png = (): Promise<Blob> => this.stage.png();

  dispose(): void {
    for (const key of [...this.bodies.keys()]) this.removeBody(key);
    this.cuts.dispose();
    this.others.dispose();
    this.underlay.dispose();
    this.stage.dispose();
  }

  private addBody(key: string, mesh: BodyMesh, topology: Topology): void {
    const shown = new ShownBody(mesh, topology);
    this.stage.scene.add(shown.object);
    this.bodies.set(key, shown);
  }

  private removeBody(key: string): void {
    const shown = this.bodies.get(key)!;
    this.bodies.delete(key);
    this.stage.scene.remove(shown.object);
    shown.dispose();
  }

  /** Edges within a few pixels, measured on the screen. */
  private edgesNear(screen: Screen, at: Vec2, body: string, index: number, { rims, topology }: ShownBody): Pick[] {
    return rims.near(screen, at, undefined, this.cuts.hides).flatMap(({ range, depth, off }): Pick[] => {
      const edge = topology.edges.find(({ name }) => name === range.name);
      return edge ? [{ ...edgePick(body, index, edge), depth, off }] : [];
    });
  }

  private cornersNear(screen: Screen, at: Vec2, body: string, index: number, { topology }: ShownBody): Pick[] {
    return topology.vertices.flatMap((vertex): Pick[] => {
      const depth = cornerNearness(screen, at, vertex.at);
      return depth === undefined || this.cuts.hides(vertex.at) ? [] : [{ ...cornerPick(body, index, vertex), depth }];
    });
  }
}
