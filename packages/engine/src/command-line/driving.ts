import {
  ANGLE,
  evaluate,
  fail,
  LENGTH,
  ok,
  valueScope,
  type Issue,
  type Project,
  type Result,
  isTurn,
  type Coordinate,
  type CoordinateKey,
  coordinateKey,
  jointOf,
} from '@helb/core';
import { contactsOf, drive, isTouchTold, JOINTS, type Assembled, type Coordinates } from '@helb/core/assembly';
import type { Engine } from '../engine.ts';
import type { PosedAssembly } from '../inspect.ts';
import { namesIn } from '../inspect-assembly.ts';

/** The assembly of a project with joints driven where they were asked to be; undefined where nothing is placed. */
export async function poseOf(
  engine: Engine,
  project: Project,
  drives: readonly string[],
  interference: boolean,
): Promise<Result<PosedAssembly | undefined>> {
  if (!project.assembly || Object.keys(project.assembly.placements).length === 0)
    return drives.length > 0 ? fail('drive.joint', { name: drives[0]!, names: 'none' }) : ok(undefined);
  const { assembled } = await engine.assemble(project);
  const targets = targetsOf(project, assembled, drives);
  if (!targets.ok) return targets;
  const isTouching = drives.length > 0 && isTouchTold(project.assembly);
  const contacts = isTouching ? contactsOf(project.assembly, assembled, await engine.touching(project)) : undefined;
  const { mechanism, rest } = assembled;
  const [standing] = [...(contacts?.overlaps(rest) ?? [])].filter((pair) => pair !== undefined);
  if (standing) {
    const [a, b] = standing.map(namesIn(project, assembled)) as [string, string];
    return fail('drive.overlap', { a, b });
  }
  const driven = drives.length === 0 ? undefined : drive(mechanism, rest, targets.value, undefined, contacts);
  if (driven && !driven.arrived) {
    const [stop] = driven.stops;
    const [touch] = driven.against;
    if (touch) {
      const nameOf = namesIn(project, assembled);
      return fail('drive.against', {
        name: drives.join(', '),
        a: nameOf(touch.a),
        b: nameOf(touch.b),
        place: touch.at,
      });
    }
    return stop
      ? fail('drive.limit', { name: namesIn(project, assembled)(jointOf(stop)) })
      : fail('drive.far', { name: drives.join(', ') });
  }
  const pose = driven?.pose ?? assembled.rest;
  const box = await engine.extents(project, pose.poses);
  if (!interference) return ok({ assembled, pose, box });
  const { interferences } = await engine.interference(project, { poses: pose.poses });
  return ok({ assembled, pose, box, interferences });
}

/** Was it understood what is to be driven, and something stopped it? */
export const isStopped = ({ code }: Issue): boolean => STOPPED.includes(code);
const STOPPED = ['drive.limit', 'drive.far', 'drive.against', 'drive.overlap'];

/** "Shaft=90 deg", or "Guide slide=12 mm" where a joint has several coordinates. */
function targetsOf(project: Project, assembled: Assembled, drives: readonly string[]): Result<Coordinates> {
  const nameOf = namesIn(project, assembled);
  const scope = valueScope(Object.values(project.values), project.unit);
  const known = assembled.mechanism.joints.flatMap(({ id, kind }) => {
    const leaves: readonly Coordinate[] = JOINTS[kind].leaves;
    return leaves.flatMap((coordinate) => {
      const key = coordinateKey(id, coordinate);
      const full = { key, coordinate, name: `${nameOf(id)} ${coordinate}` };
      return leaves.length === 1 ? [full, { ...full, name: nameOf(id) }] : [full];
    });
  });
  const targets = new Map<CoordinateKey, number>();
  for (const entry of drives) {
    const at = entry.indexOf('=');
    const name = entry.slice(0, Math.max(0, at)).trim();
    const joint = known.find((other) => other.name === name);
    if (at < 0 || !joint)
      return fail('drive.joint', { name: at < 0 ? entry : name, names: known.map((other) => other.name).join(', ') });
    const value = evaluate(entry.slice(at + 1).trim(), isTurn(joint.coordinate) ? ANGLE : LENGTH, scope);
    if (!value.ok) return value;
    targets.set(joint.key, value.value);
  }
  return ok(targets);
}
