import { LRUCache } from 'lru-cache';
import {
  fail,
  locate,
  ok,
  type EdgeFacts,
  type Frame,
  type Id,
  type Project,
  type Scope,
  type World,
} from '@helb/core';
import { assemble, emptyAssembly, restPose, type Assembled, type Rest, type Surroundings } from '@helb/core/assembly';
import type { Model } from './model.ts';

/** The parts that are placed as they were built, and how they come together. */
export interface AssembledModel {
  readonly model: Model;
  readonly assembled: Assembled;
}

/** A part as it is built, or as far as it is, and how large it is. */
export interface BuiltWorld extends World {
  /** The diagonal of its box, mm; 0 without a body. */
  readonly size: number;
  /** Where a plane crosses its bodies. */
  crossings(plane: Frame): EdgeFacts[];
}

/** Brings parts together as they are built; a rest pose that was found once is known when all of its mechanism comes again. */
export class Assembling {
  private readonly known = new LRUCache<string, Rest>({ max: MOST_POSES });

  /** What assembling needs to know of parts. */
  surroundings({ groups = {} }: Project, worlds: ReadonlyMap<Id, BuiltWorld>, scope: Scope): Surroundings {
    return {
      scope,
      groups,
      find(part, reference) {
        const world = worlds.get(part);
        if (!world) return fail('part.unknown', { id: part });
        const match = locate(reference, 'shape', world);
        return match.ok ? ok(match.value.thing) : match;
      },
      sizeOf: (part) => worlds.get(part)?.size ?? 0,
      restPose: this.restPose,
    };
  }

  assembled(project: Project, worlds: ReadonlyMap<Id, BuiltWorld>, scope: Scope): Assembled {
    return assemble(project.assembly ?? emptyAssembly(), this.surroundings(project, worlds, scope));
  }

  private restPose: typeof restPose = (mechanism, given) => {
    const key = JSON.stringify([mechanism, [...mechanism.limits], [...given]]);
    let pose = this.known.get(key);
    if (!pose) this.known.set(key, (pose = restPose(mechanism, given)));
    return pose;
  };
}
const MOST_POSES = 60;
