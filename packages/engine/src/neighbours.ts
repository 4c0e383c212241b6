import {
  fail,
  compose,
  namesAlong,
  ok,
  partAt,
  IDENTITY,
  inverse,
  type Id,
  type RigidTransform,
  type Project,
  type Result,
  type Scope,
} from '@helb/core';
import { emptyAssembly, restPoses } from '@helb/core/assembly';
import type { Assembling, BuiltWorld } from './assembled.ts';
import type { PartModel, StepResult } from './model.ts';
import type { Seen } from './build-context.ts';

/** How one part saw another when it was built. */
interface Look {
  readonly part: Id;
  readonly step: Id;
  readonly at: string;
  readonly from: string | undefined;
  readonly pose: RigidTransform;
}

/**
 * The parts that are built already, where the design puts them, for the parts that take from them. What joins them to the
 * part that is being built is looked for in what there is of that before the step: where a joint needs something that
 * comes later the two stand elsewhere in the end, and that is told.
 */
export class Neighbours {
  private readonly looks: Look[] = [];
  private poses: { readonly key: string; readonly rest: ReadonlyMap<string, RigidTransform> } | undefined;

  /** @param worlds what is built, and what is being built, as it is now */
  constructor(
    private readonly project: Project,
    private readonly scope: Scope,
    private readonly worlds: ReadonlyMap<Id, BuiltWorld>,
    private readonly assembling: Assembling,
  ) {}

  /** What a step of a part sees at a placement, from one of its own or else from where it is drawn. */
  seen(part: Id, step: Id, at: string, from: string | undefined): Result<Seen> {
    const assembly = this.project.assembly ?? emptyAssembly();
    const other = partAt(this.project, assembly, at);
    if (other === undefined || (from !== undefined && partAt(this.project, assembly, from) !== part))
      return fail('reference.unplaced');
    const world = this.worlds.get(other);
    if (!world) return fail('reference.alone');
    const pose = relative(this.rest(`${part} ${step}`), at, from);
    if (!pose) return fail('reference.unplaced');
    this.looks.push({ part, step, at, from, pose });
    return ok({ world, pose });
  }

  /** The parts with the steps told that saw something where it is not in the end. */
  checked(models: readonly PartModel[]): PartModel[] {
    if (this.looks.length === 0) return [...models];
    const rest = this.rest('');
    const wrong = this.looks.filter(({ at, from, pose }) => !isSame(relative(rest, at, from), pose));
    return models.map((model) => {
      const own = wrong.filter(({ part }) => part === model.id);
      return own.length === 0 ? model : { ...model, steps: model.steps.map((step) => this.told(step, own)) };
    });
  }

  private told(step: StepResult, wrong: readonly Look[]): StepResult {
    const look = wrong.find((one) => one.step === step.id);
    if (!look || step.state !== 'built') return step;
    const name = namesAlong(this.project, look.at) ?? look.at;
    return { ...step, state: 'failed', ...fail('reference.moved', { name }) };
  }

  /** The poses at one moment: they are found anew when more is built. */
  private rest(key: string): ReadonlyMap<string, RigidTransform> {
    if (this.poses?.key === key) return this.poses.rest;
    const { project, scope, worlds } = this;
    const around = this.assembling.surroundings(project, worlds, scope);
    const rest = restPoses(project.assembly ?? emptyAssembly(), around);
    this.poses = { key, rest };
    return rest;
  }
}

/** How one placement is seen from another, or from the space of the assembly. */
function relative(
  rest: ReadonlyMap<string, RigidTransform>,
  at: string,
  from: string | undefined,
): RigidTransform | undefined {
  const [there, here] = [rest.get(at), from === undefined ? IDENTITY : rest.get(from)];
  return there && here && rounded(compose(there, inverse(here)));
}

/** What is solved is good to 1e-9: the last digits would make everything new that takes from it. */
const rounded = (pose: RigidTransform): RigidTransform =>
  pose.map(([x, y, z, shift]) => [
    ...[x, y, z].map((c) => Math.round(c * 1e10) / 1e10),
    Math.round(shift * 1e7) / 1e7,
  ]) as unknown as RigidTransform;

const isSame = (one: RigidTransform | undefined, other: RigidTransform): boolean =>
  one !== undefined && one.every((row, r) => row.every((c, k) => Math.abs(c - other[r]![k]!) < 1e-6));
