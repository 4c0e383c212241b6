import { Group, Vector3, type Object3D } from 'three';
import {
  boxRound,
  transformPoint,
  IDENTITY,
  type Id,
  type RigidTransform,
  type Vec2,
  type Vec3,
  type Box3,
} from '@helb/core';
import { clear, cornerMark, lineMark, thinLines } from './marks.ts';
import { nearness } from './nearness.ts';
import { bodyPick, frontToBack, guidePick, type Guide } from './picks.ts';
import { matrixOf, PlacedScene, type Instance, type Layer } from './placed-bodies.ts';
import { bodyMark } from './pick-marks.ts';
import { placedUnder, type MemberPick } from './placed-picks.ts';
import { Stage, type ViewTheme } from './stage.ts';
import type { ViewBody } from './viewport.ts';

/** A datum or a drawn curve of a placement. */
export interface MemberGuide {
  readonly member: string;
  readonly guide: Guide;
}

/** A part where it is placed, as it is to be shown. */
interface ShownMember {
  readonly id: string;
  readonly part: Id;
  readonly colour: string;
  readonly layer: Layer | 'hidden';
}

/** Datums and drawn curves come after all faces, before whole bodies. */
const BESIDE = 1e6;

/** Everything that is placed, in a pose. */
export class AssemblyView {
  readonly stage: Stage;
  private readonly placed = new PlacedScene();
  private members: readonly ShownMember[] = [];
  private poses: ReadonlyMap<string, RigidTransform> = new Map();
  private guides: readonly MemberGuide[] = [];
  private readonly guideLines = new Group();
  private readonly traceLines = new Group();
  private theme: ViewTheme;

  constructor(element: HTMLElement, canvas: HTMLCanvasElement, theme: ViewTheme) {
    this.theme = theme;
    this.stage = new Stage(element, canvas);
    this.stage.scene.add(this.placed.object, this.guideLines, this.traceLines);
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

  setMembers(members: readonly ShownMember[], poses: ReadonlyMap<string, RigidTransform>): void {
    [this.members, this.poses] = [members, poses];
    this.show();
  }

  /** Moves what is shown. */
  setPoses(poses: ReadonlyMap<string, RigidTransform>): void {
    this.poses = poses;
    this.placed.move(this.poseOf);
    for (const mark of [...this.stage.marks.children, ...this.guideLines.children]) {
      const member = mark.userData['member'] as string | undefined;
      if (member !== undefined) mark.matrix.copy(matrixOf(this.poseOf(member)));
    }
    this.stage.redraw();
  }

  private poseOf = (member: string): RigidTransform => this.poses.get(member) ?? IDENTITY;

  private show(): void {
    const instancesOf = (part: Id, layer: Layer) =>
      this.members.flatMap(({ id, part: own, colour, layer: on }): Instance[] =>
        own === part && on === layer ? [{ member: id, pose: this.poseOf(id), colour }] : [],
      );
    this.placed.setInstances(instancesOf, this.theme.ink);
    this.stage.redraw();
  }

  /** Datums and drawn curves of some placements, to be picked. */
  setGuides(guides: readonly MemberGuide[]): void {
    this.guides = guides;
    clear(this.guideLines);
    for (const { member, guide } of guides) {
      const colour = guide.look === 'datum' ? this.theme.link : this.theme.muted;
      this.put(this.guideLines, thinLines(guide.lines, colour), member);
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
    clear(this.stage.marks);
    for (const [from, to] of rulers) {
      const far = Math.hypot(...from.map((c, k) => c - to[k]!)) > 1e-6;
      this.stage.marks.add(
        far ? lineMark([...from, ...to], this.theme.link) : cornerMark(from, 8 * this.view.pixel, this.theme.act),
      );
    }
    for (const pick of picks) {
      const mark = this.markOf(pick);
      if (mark) this.put(this.stage.marks, mark, pick.member);
    }
    this.stage.redraw();
  }

  private put(group: Group, mark: Object3D, member: string): void {
    mark.matrixAutoUpdate = false;
    mark.matrix.copy(matrixOf(this.poseOf(member)));
    mark.userData['member'] = member;
    group.add(mark);
  }

  private markOf(pick: MemberPick): Object3D | undefined {
    const { kind, name, member } = pick;
    const { act } = this.theme;
    if (kind === 'guide') {
      const found = this.guides.find((other) => other.member === member && other.guide.name === name);
      return found && lineMark(found.guide.lines.flat(), act);
    }
    const shown = this.placed.body(pick.body);
    return shown && bodyMark(pick, shown, { pixel: this.view.pixel, colour: act });
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
  pick(at: Vec2): MemberPick[] {
    const { placed: scene, view, poseOf } = this;
    const members = this.members.filter(({ layer }) => layer !== 'hidden');
    const found = placedUnder({ scene, view, members, poseOf }, at);
    for (const { member, guide } of this.guides) {
      const pose = this.poseOf(member);
      const depth = nearness(view.screen, at, guide.lines.length, (k) => transformPoint(pose, guide.lines[k]!));
      if (depth !== undefined)
        found.push({
          ...guidePick(guide, BESIDE + depth),
          member,
          at: transformPoint(pose, guide.label ?? guide.lines[0]!),
        });
    }
    return frontToBack(found);
  }

  /** The box round everything that is shown; undefined where nothing is. */
  get box(): Box3 | undefined {
    const shown = this.members.filter(({ layer }) => layer !== 'hidden');
    const solid = this.placed.boxOf(shown.map(({ id, part }) => ({ id, part, pose: this.poseOf(id) })));
    const drawn = this.guides.flatMap(({ member, guide }) =>
      guide.look === 'drawn' ? guide.lines.map((place) => transformPoint(this.poseOf(member), place)) : [],
    );
    return boxRound([...(solid ? [solid] : []), ...drawn.map((place) => ({ low: place, high: place }))]);
  }

  dispose(): void {
    this.placed.dispose();
    this.stage.dispose();
  }
}
