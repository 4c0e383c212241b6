import {
  BufferAttribute,
  BufferGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Raycaster,
  Vector2,
  Vector3,
  type Object3D,
} from 'three';
import { boxCorners, movedBy, STILL, type Id, type Movement, type Vec2, type Vec3 } from '@helb/core';
import { cornerNearness, nearness } from './nearness.ts';
import { cornerMark, faceMark, lineMark } from './marks.ts';
import { bodyPick, cornerPick, edgePick, facePick, guidePick, rangeAt, type Guide, type Pick } from './picks.ts';
import { matrixOf, PlacedScene, type Instance, type Layer } from './placed-bodies.ts';
import { Stage, type ViewTheme } from './stage.ts';
import type { ViewBody } from './viewport.ts';

/** A part where it is placed, as it is to be shown. */
export interface ShownMember {
  readonly id: string;
  readonly part: Id;
  readonly colour: string;
  readonly layer: Layer | 'hidden';
}

/** Something of a placement under the pointer; its thing and reference are of the part. */
export interface MemberPick extends Pick {
  readonly member: string;
  /** Where the pointer meets it, in space. */
  readonly at: Vec3;
}

/** Whole bodies come last of all that lies under the pointer, datums and drawn curves before them. */
const BEHIND = 1e7;
const BESIDE = 1e6;

/** Everything that is placed, in a pose. */
export class WholeView {
  readonly stage: Stage;
  private readonly placed = new PlacedScene();
  private members: readonly ShownMember[] = [];
  private poses: ReadonlyMap<string, Movement> = new Map();
  private guides: readonly { readonly member: string; readonly guide: Guide }[] = [];
  private readonly marks = new Group();
  private readonly guideLines = new Group();
  private readonly traceLines = new Group();
  private theme: ViewTheme;

  constructor(element: HTMLElement, canvas: HTMLCanvasElement, theme: ViewTheme) {
    this.theme = theme;
    this.stage = new Stage(element, canvas);
    this.stage.scene.add(this.placed.object, this.marks, this.guideLines, this.traceLines);
    this.setTheme(theme);
  }

  get view() {
    return this.stage.view;
  }

  setTheme(theme: ViewTheme): void {
    this.theme = theme;
    this.stage.setGrid(theme);
    this.show();
  }

  get known(): string[] {
    return this.placed.known;
  }

  /** A body without a mesh is one that the view has already. */
  setBodies(parts: Readonly<Record<Id, readonly ViewBody[]>>): void {
    this.placed.setBodies(parts);
  }

  setMembers(members: readonly ShownMember[], poses: ReadonlyMap<string, Movement>): void {
    [this.members, this.poses] = [members, poses];
    this.show();
  }

  /** Moves what is shown. */
  setPoses(poses: ReadonlyMap<string, Movement>): void {
    this.poses = poses;
    this.placed.move(this.poseOf);
    for (const mark of [...this.marks.children, ...this.guideLines.children]) {
      const member = mark.userData['member'] as string | undefined;
      if (member !== undefined) mark.matrix.copy(matrixOf(this.poseOf(member)));
    }
    this.stage.redraw();
  }

  private poseOf = (member: string): Movement => this.poses.get(member) ?? STILL;

  private show(): void {
    const instancesOf = (part: Id, layer: Layer) =>
      this.members.flatMap(({ id, part: own, colour, layer: on }): Instance[] =>
        own === part && on === layer ? [{ member: id, pose: this.poseOf(id), colour }] : [],
      );
    this.placed.setInstances(instancesOf, this.theme.ink);
    this.stage.redraw();
  }

  /** Datums and drawn curves of some placements, to be picked. */
  setGuides(guides: readonly { readonly member: string; readonly guide: Guide }[]): void {
    this.guides = guides;
    clear(this.guideLines);
    for (const { member, guide } of guides) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(Float32Array.from(guide.lines.flat()), 3));
      const colour = guide.look === 'datum' ? this.theme.link : this.theme.muted;
      this.put(this.guideLines, new LineSegments(geometry, new LineBasicMaterial({ color: colour })), member);
    }
    this.stage.redraw();
  }

  /** Where points have come along, as lines through places in space. */
  setTraces(traces: readonly (readonly Vec3[])[]): void {
    clear(this.traceLines);
    for (const places of traces) {
      const points = places.slice(1).flatMap((place, k) => [...places[k]!, ...place]);
      if (points.length > 0) this.traceLines.add(lineMark(points, this.theme.link));
    }
    this.stage.redraw();
  }

  /** Lights up what is picked, and lines between places in space. */
  highlight(picks: readonly MemberPick[], rulers: readonly (readonly [Vec3, Vec3])[] = []): void {
    clear(this.marks);
    for (const [from, to] of rulers) {
      const far = Math.hypot(...from.map((c, k) => c - to[k]!)) > 1e-6;
      this.marks.add(
        far ? lineMark([...from, ...to], this.theme.link) : cornerMark(from, 8 * this.view.pixel, this.theme.act),
      );
    }
    for (const pick of picks) {
      const mark = this.markOf(pick);
      if (mark) this.put(this.marks, mark, pick.member);
    }
    this.stage.redraw();
  }

  private put(group: Group, mark: Object3D, member: string): void {
    mark.matrixAutoUpdate = false;
    mark.matrix.copy(matrixOf(this.poseOf(member)));
    mark.userData['member'] = member;
    group.add(mark);
  }

  private markOf({ kind, body, name, thing, member }: MemberPick): Object3D | undefined {
    const { act } = this.theme;
    if (kind === 'guide') {
      const found = this.guides.find((other) => other.member === member && other.guide.name === name);
      return found && lineMark(found.guide.lines.flat(), act);
    }
    const shown = this.placed.body(body);
    if (!shown) return undefined;
    if (kind === 'body') return faceMark(shown.geometry, { start: 0, count: Infinity }, act);
    if (kind === 'corner')
      return thing.to === 'vertex' ? cornerMark(thing.vertex.at, 6 * this.view.pixel, act) : undefined;
    const range = shown.mesh[kind === 'face' ? 'faces' : 'edges'].find((other) => other.name === name);
    if (!range) return undefined;
    if (kind === 'face') return faceMark(shown.geometry, range, act);
    return lineMark(shown.mesh.edgePoints.slice(3 * range.start, 3 * (range.start + range.count)), act);
  }

  /** A place in space moved by pixels on the screen. */
  shifted(at: Vec3, right: number, down: number): Vec3 {
    const { camera, pixel } = this.view;
    const [x, y] = [new Vector3(1, 0, 0), new Vector3(0, 1, 0)].map((axis) => axis.applyQuaternion(camera.quaternion));
    return new Vector3(...at)
      .addScaledVector(x!, right * pixel)
      .addScaledVector(y!, -down * pixel)
      .toArray();
  }

  /** The bodies of a placement as they are picked. */
  bodiesOf(member: string): MemberPick[] {
    const part = this.members.find(({ id }) => id === member)?.part;
    return (part === undefined ? [] : this.placed.keysOf(part)).map((key, k) => ({
      ...bodyPick(key, k, this.placed.body(key)!.topology),
      member,
      at: [0, 0, 0],
    }));
  }

  /** Everything under a screen place, front to back; an edge before the faces that it bounds. */
  pick([x, y]: Vec2): MemberPick[] {
    const { width, height } = this.view.size;
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), this.view.camera);
    const found: MemberPick[] = [];
    for (const keys of this.placed.all)
      for (const [index, key] of keys.entries()) {
        const { mesh, topology, pickable } = this.placed.body(key)!;
        for (const { faces, members } of pickable) {
          if (members.length === 0) continue;
          const met = new Set<number>();
          for (const hit of ray.intersectObject(faces)) {
            const k = hit.instanceId ?? 0;
            const member = members[k]!;
            const at = hit.point.toArray();
            if (!met.has(k))
              found.push({ ...bodyPick(key, index, topology), depth: BEHIND + hit.distance, member, at });
            met.add(k);
            const range = rangeAt(mesh.faces, (hit.faceIndex ?? 0) * 3);
            const face = range && topology.faces.find(({ name }) => name === range.name);
            if (face) found.push({ ...facePick(key, index, topology, face), depth: hit.distance, member, at });
          }
        }
        for (const { id, layer } of this.members)
          if (layer !== 'hidden' && this.isNear([x, y], id, key)) found.push(...this.rimsNear([x, y], id, index, key));
      }
    for (const { member, guide } of this.guides) {
      const pose = this.poseOf(member);
      const depth = nearness(this.view, [x, y], guide.lines.length, (k) => movedBy(pose, guide.lines[k]!));
      if (depth !== undefined)
        found.push({ ...guidePick(guide, BESIDE + depth), member, at: movedBy(pose, guide.label ?? guide.lines[0]!) });
    }
    return found.sort((a, b) => a.depth - b.depth);
  }

  /** Does the pointer come near to the body of a placement at all, seen on the screen? */
  private isNear([x, y]: Vec2, member: string, key: string): boolean {
    const part = this.members.find(({ id }) => id === member)!.part;
    if (!this.placed.keysOf(part).includes(key)) return false;
    const { geometry } = this.placed.body(key)!;
    if (!geometry.boundingBox) geometry.computeBoundingBox();
    const box = { low: geometry.boundingBox!.min.toArray(), high: geometry.boundingBox!.max.toArray() };
    const pose = this.poseOf(member);
    const seen = boxCorners(box).map((corner) => this.view.toScreen(movedBy(pose, corner)));
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
  private rimsNear(at: Vec2, member: string, index: number, key: string): MemberPick[] {
    const { mesh, topology } = this.placed.body(key)!;
    const pose = this.poseOf(member);
    const edges = mesh.edges.flatMap((range): MemberPick[] => {
      const point = (k: number): Vec3 => {
        const first = 3 * (range.start + k);
        return movedBy(pose, [mesh.edgePoints[first]!, mesh.edgePoints[first + 1]!, mesh.edgePoints[first + 2]!]);
      };
      const depth = nearness(this.view, at, range.count, point);
      const edge = depth === undefined ? undefined : topology.edges.find(({ name }) => name === range.name);
      return edge ? [{ ...edgePick(key, index, edge), depth: depth!, member, at: point(0) }] : [];
    });
    const corners = topology.vertices.flatMap((vertex): MemberPick[] => {
      const place = movedBy(pose, vertex.at);
      const depth = cornerNearness(this.view, at, place);
      return depth === undefined ? [] : [{ ...cornerPick(key, index, vertex), depth, member, at: place }];
    });
    return [...edges, ...corners];
  }

  /** The box round everything that is shown; undefined where nothing is. */
  get box(): { readonly low: Vec3; readonly high: Vec3 } | undefined {
    const corners = this.members.flatMap(({ id, part, layer }) =>
      layer === 'hidden'
        ? []
        : this.placed.keysOf(part).flatMap((key) => {
            const { geometry } = this.placed.body(key)!;
            if (!geometry.boundingBox) geometry.computeBoundingBox();
            const { min, max } = geometry.boundingBox!;
            return boxCorners({ low: min.toArray(), high: max.toArray() }).map((at) => movedBy(this.poseOf(id), at));
          }),
    );
    if (corners.length === 0) return undefined;
    const bound = (pick: (...values: number[]) => number) =>
      [0, 1, 2].map((k) => pick(...corners.map((at) => at[k]!))) as unknown as Vec3;
    return { low: bound(Math.min), high: bound(Math.max) };
  }

  dispose(): void {
    this.placed.dispose();
    this.stage.dispose();
  }
}

function clear(group: Group): void {
  for (const child of [...group.children]) {
    group.remove(child);
    (child as LineSegments).geometry.dispose();
  }
}
