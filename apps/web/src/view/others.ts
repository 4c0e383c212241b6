import { Group, type Object3D } from 'three';
import { movedThing, printOf, STILL, type Id, type Movement, type OtherReference, type Vec2 } from '@helb/core';
import type { ViewCamera } from './camera.ts';
import { cornerMark } from './marks.ts';
import { cornerPick, edgePick, facePick, type Pick } from './picks.ts';
import { matrixOf, PlacedScene, type Box, type Instance } from './placed-bodies.ts';
import { placedMark, placedUnder, type MemberPick } from './placed-picks.ts';
import type { ViewBody } from './viewport.ts';

/** Another part where it stands round the one that is edited. */
export interface Neighbour extends Instance {
  readonly part: Id;
  readonly name: string;
  /** Can it be referred to? A repeat can not, nor another placement of the part itself. */
  readonly named: boolean;
}

/** Farther from the eye than anything of the part itself, nearer than whole bodies. */
const BEYOND = 1e6;

/** What stands round the part: shown pale, and taken from as it lies in the space of the part. */
export class Others {
  private readonly scene = new PlacedScene();
  private neighbours: readonly Neighbour[] = [];
  private own = '';

  get object(): Group {
    return this.scene.object;
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
    this.scene.setBodies(parts);
    this.scene.setInstances(
      (part, layer) => (layer === 'pale' ? neighbours.filter((one) => one.part === part) : []),
      ink,
    );
  }

  /** Things under a screen place, behind all of the part itself. */
  under(view: ViewCamera, at: Vec2): Pick[] {
    const members = this.neighbours.filter(({ named }) => named).map(({ member: id, part }) => ({ id, part }));
    return placedUnder({ scene: this.scene, view, members, poseOf: this.poseOf }, at)
      .filter(({ kind }) => kind !== 'body')
      .flatMap((pick) => this.taken({ ...pick, depth: BEYOND + pick.depth }));
  }

  /** The box round all of them; undefined where there are none. */
  get box(): Box | undefined {
    return this.scene.boxOf(this.neighbours.map(({ member, part, pose }) => ({ id: member, part, pose })));
  }

  /** What a reference points to, where that is shown. */
  find({ at, on }: OtherReference): Pick[] {
    const neighbour = this.neighbours.find(({ member }) => member === at);
    if (!neighbour || !('name' in on) || on.to === 'origin') return [];
    for (const [index, key] of this.scene.keysOf(neighbour.part).entries()) {
      const { topology } = this.scene.body(key)!;
      const face = topology.faces.find(({ name }) => on.to === 'face' && name === on.name);
      const edge = topology.edges.find(({ name }) => on.to === 'edge' && name === on.name);
      const corner = topology.vertices.find(({ name }) => on.to === 'vertex' && name === on.name);
      const pick = face
        ? facePick(key, index, topology, face)
        : edge
          ? edgePick(key, index, edge)
          : corner
            ? cornerPick(key, index, corner)
            : undefined;
      if (pick) return this.taken({ ...pick, member: at, at: [0, 0, 0] });
    }
    return [];
  }

  markOf(pick: Pick, pixel: number, colour: string): Object3D | undefined {
    if (pick.thing.to === 'vertex') return cornerMark(pick.thing.vertex.at, 6 * pixel, colour);
    const mark = pick.origin && placedMark(this.scene, pick.origin, pixel, colour);
    if (!mark) return undefined;
    mark.matrixAutoUpdate = false;
    mark.matrix.copy(matrixOf(this.poseOf(pick.origin.member)));
    return mark;
  }

  dispose(): void {
    this.scene.dispose();
  }

  private poseOf = (member: string): Movement => this.neighbours.find((one) => one.member === member)?.pose ?? STILL;

  /** As it is taken from here. */
  private taken(pick: MemberPick): Pick[] {
    const neighbour = this.neighbours.find(({ member }) => member === pick.member);
    const { reference } = pick;
    if (!neighbour || reference.to === 'other' || reference.to === 'rule') return [];
    const thing = movedThing(pick.thing, neighbour.pose);
    const print = printOf(thing);
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
