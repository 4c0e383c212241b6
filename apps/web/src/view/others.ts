import { Group, type Object3D } from 'three';
import {
  transformPoint,
  transformThing,
  fingerprintOf,
  sameReference,
  IDENTITY,
  type Id,
  type RigidTransform,
  type OtherReference,
  type Vec2,
  type Box3,
} from '@helb/core';
import type { ViewCamera } from './camera.ts';
import { bodyMark, type MarkLook } from './pick-marks.ts';
import { clear, lineMark, thinLines } from './marks.ts';
import { nearness } from './nearness.ts';
import { guidePick, picksOf, type Guide, type Pick } from './picks.ts';
import { matrixOf, PlacedScene, type Instance } from './placed-bodies.ts';
import { placedUnder, type MemberPick } from './placed-picks.ts';
import type { ViewTheme } from './stage.ts';
import type { ViewBody } from './viewport.ts';

/** Another part where it stands round the one that is edited. */
export interface Neighbour extends Instance {
  readonly part: Id;
  readonly name: string;
  /** Can it be referred to? A repeat can not, nor another placement of the part itself. */
  readonly named: boolean;
  /** Its datums and drawn curves, in its own coordinates. */
  readonly guides: readonly Guide[];
}

/** Farther from the eye than anything of the part itself, nearer than whole bodies. */
const BEYOND = 1e6;

/** What stands round the part: shown pale, and taken from as it lies in the space of the part. */
export class Others {
  private readonly scene = new PlacedScene();
  private neighbours: readonly Neighbour[] = [];
  private own = '';
  private readonly lines = new Group();
  /** The one whose datums and drawn curves are shown and picked. */
  private pointed: string | undefined;
  readonly object = new Group();

  constructor() {
    this.object.add(this.scene.object, this.lines);
  }

  /** Keys of the bodies that are here already. */
  get known(): string[] {
    return this.scene.known;
  }

  /** @param own the placement of the part from which they are seen */
  set(
    parts: Readonly<Record<Id, readonly ViewBody[]>>,
    neighbours: readonly Neighbour[],
    own: string,
    ink: string,
  ): void {
    [this.neighbours, this.own] = [neighbours, own];
    this.pointed = undefined;
    clear(this.lines);
    this.scene.setBodies(parts);
    this.scene.setInstances(
      (part, layer) => (layer === 'pale' ? neighbours.filter((one) => one.part === part) : []),
      ink,
    );
  }

  /** Shows the datums and drawn curves of one of them, and of no other. */
  point(member: string | undefined, { link, muted }: ViewTheme): void {
    this.pointed = member;
    clear(this.lines);
    for (const { lines, look } of this.guidesOf(member)) {
      const mark = thinLines(lines, look === 'datum' ? link : muted);
      mark.matrixAutoUpdate = false;
      mark.matrix.copy(matrixOf(this.poseOf(member!)));
      this.lines.add(mark);
    }
  }

  private guidesOf = (member: string | undefined): readonly Guide[] =>
    this.neighbours.find((one) => one.member === member)?.guides ?? [];

  /** Things under a screen place, behind all of the part itself. */
  under(view: ViewCamera, at: Vec2): Pick[] {
    const members = this.neighbours.filter(({ named }) => named).map(({ member: id, part }) => ({ id, part }));
    const found = placedUnder({ scene: this.scene, view, members, poseOf: this.poseOf }, at);
    const { pointed } = this;
    const guides = this.guidesOf(pointed).flatMap((guide): MemberPick[] => {
      const pose = this.poseOf(pointed!);
      const depth = nearness(view.screen, at, guide.lines.length, (k) => transformPoint(pose, guide.lines[k]!));
      return depth === undefined ? [] : [{ ...guidePick(guide, depth), member: pointed!, at: [0, 0, 0] }];
    });
    return [...guides, ...found.filter(({ kind }) => kind !== 'body')].flatMap((pick) =>
      this.taken({ ...pick, depth: BEYOND + pick.depth }),
    );
  }

  /** The box round all of them; undefined where there are none. */
  get box(): Box3 | undefined {
    return this.scene.boxOf(this.neighbours);
  }

  /** What a reference points to, where that is shown. */
  find({ at, on }: OtherReference): Pick[] {
    const neighbour = this.neighbours.find(({ member }) => member === at);
    if (!neighbour) return [];
    const picks = this.scene
      .keysOf(neighbour.part)
      .flatMap((key, index) => picksOf(key, index, this.scene.body(key)!.topology));
    picks.push(...neighbour.guides.map((guide) => guidePick(guide, 0)));
    const pick = picks.find(({ reference }) => sameReference(reference, on));
    return pick ? this.taken({ ...pick, member: at, at: [0, 0, 0] }) : [];
  }

  markOf(pick: Pick, look: MarkLook): Object3D | undefined {
    if (!pick.origin) return undefined;
    const { member, name } = pick.origin;
    const guide = this.guidesOf(member).find((one) => one.name === name);
    const shown = this.scene.body(pick.origin.body);
    const mark = guide ? lineMark(guide.lines.flat(), look.colour) : shown && bodyMark(pick.origin, shown, look);
    if (!mark) return undefined;
    mark.matrixAutoUpdate = false;
    mark.matrix.copy(matrixOf(this.poseOf(member)));
    return mark;
  }

  dispose(): void {
    this.scene.dispose();
  }

  private poseOf = (member: string): RigidTransform =>
    this.neighbours.find((one) => one.member === member)?.pose ?? IDENTITY;

  /** As it is taken from here. */
  private taken(pick: MemberPick): Pick[] {
    const neighbour = this.neighbours.find(({ member }) => member === pick.member);
    const { reference } = pick;
    if (!neighbour || reference.to === 'other' || reference.to === 'rule') return [];
    const thing = transformThing(pick.thing, neighbour.pose);
    const print = fingerprintOf(thing);
    return [
      {
        ...pick,
        name: `${pick.member} ${pick.name}`,
        within: neighbour.name,
        reference: { to: 'other', at: pick.member, from: this.own, on: reference, ...(print ? { print } : {}) },
        thing,
        origin: pick,
      },
    ];
  }
}
