import { explain, placeFurtherUp, writeProject, type Issue } from '@helb/core';
import type { Engine, PartModel } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { Broken, brokenBy, same, type Outcome, type Refusal } from './case.ts';
import { Chance } from './chance.ts';
import { facesOf, fills, holdTrue, MESH, TOLD, unsure, volumeOf, wholeFacesOf } from './laws.ts';
import { areDisjoint } from './orders.ts';
import { begin, more, projectOf, type Grown } from './parts.ts';

const LARGER = 1.7;

/** Steps that belong together: a sketch and what is made of it. */
type Group = readonly Grown[];
/** What builds, and the law whose turn it is where not all are held. */
interface Given {
  readonly kernel: OpenCascadeKernel;
  readonly engine: Engine;
  readonly turn?: number;
}

/** A random part, held against laws that need no answer key; what breaks one is shrunk to as few steps as show it. */
export async function partCase(
  kernel: OpenCascadeKernel,
  engine: Engine,
  seed: number,
  inTurn = false,
): Promise<Outcome> {
  const given: Given = { kernel, engine, ...(inTurn && { turn: seed }) };
  const chance = new Chance(seed);
  const refused: Refusal[] = [];
  const tried: string[] = [];
  const groups: Group[] = [];
  const build = builderFor(engine);
  try {
    let model: PartModel | undefined;
    const wanted = chance.whole(1, 6);
    for (let n = 0; n <= wanted; n++) {
      const bodies = model?.bodies.map(({ topology, mesh }) => ({ topology: topology!, mesh: mesh! })) ?? [];
      const next = (n === 0 ? begin : more)(chance, `s${n}`, bodies);
      if (next.length === 0) continue;
      tried.push(next.at(-1)!.kind);
      let [group, built] = [next, await build([...groups, next])];
      const failed = built.steps.find(({ state }) => state === 'failed');
      if (failed) {
        const issue = failed.issue!;
        const smaller = asNamed(next, failed.id, issue);
        const kind = next.find(({ id }) => id === failed.id)?.kind ?? 'earlier';
        const after = placeFurtherUp(issue);
        refused.push({ kind, code: issue.code, ...((smaller || after !== undefined) && { isNamed: true }) });
        if (explain(issue).startsWith('Something is wrong')) throw new Broken('a refusal has words', issue.code);
        if (after !== undefined) await buildsFurtherUp(build, groups, next, after);
        if (!smaller && n === 0) return { seed, refused, tried };
        if (!smaller) continue;
        [group, built] = [smaller, await build([...groups, smaller])];
        if (built.steps.some(({ state }) => state === 'failed'))
          throw new Broken(
            'what is said to build builds',
            `${JSON.stringify(next.at(-1)!.fields(1))}: ${explain(issue)}`,
          );
      }
      // what one edge gives another may take
      const isSame = model && Math.abs(volumeOf(built) - volumeOf(model)) < 1e-9 * volumeOf(model);
      if (isSame && facesOf(built) === facesOf(model!))
        throw new Broken('every step changes something', next.at(-1)!.id);
      groups.push(group);
      model = built;
    }
    refused.push(...(await judged(given, groups)));
    const isTold = model!.bodies.some(({ measures }) => measures.off.volume_mm3 > TOLD * measures.volume_mm3);
    if (isTold) refused.push({ kind: 'figures', code: 'shown-with-their-uncertainty' });
    return { seed, refused, tried };
  } catch (error) {
    const broken = brokenBy(error);
    const fewest = await shrunk(given, groups, broken.law);
    return { seed, refused, tried, broken, shown: writeProject(projectOf(fewest.flat())) };
  }
}

/** Right after the step that a refusal names its own is built. */
async function buildsFurtherUp(
  build: ReturnType<typeof builderFor>,
  groups: readonly Group[],
  refused: Group,
  after: string,
): Promise<void> {
  const steps = groups.flat();
  const before = steps.slice(0, steps.findIndex(({ id }) => id === after) + 1);
  const { steps: built } = await build([before, refused]);
  if (built.some(({ state }) => state === 'failed')) throw new Broken('it builds where it is said to build', after);
}

/** The number of a step that a refusal may speak of. */
const SIZES: Readonly<Record<string, string>> = { shell: 'wall', fillet: 'radius', chamfer: 'distance' };

/** The same steps, with as much as a refusal says builds; undefined where it names nothing. */
function asNamed(group: Group, failed: string, { facts }: Issue): Group | undefined {
  const most = Number(facts['most']);
  if (!(most > 0)) return undefined;
  return group.map((step) => {
    const size = SIZES[step.kind];
    if (step.id !== failed || size === undefined) return step;
    return {
      ...step,
      fields(scale) {
        const before = step.fields(scale);
        const sign = String(before[size]).startsWith('-') ? '-' : '';
        return { ...before, [size]: `${sign}${most * scale} mm` };
      },
    };
  });
}

/** Holds a part of steps against all laws, or against those whose turn it is; what is refused in another size or order. */
async function judged(given: Given, groups: readonly Group[]): Promise<Refusal[]> {
  const { kernel, engine, turn } = given;
  const steps = groups.flat();
  const build = builderFor(engine);
  const model = await build(groups);
  await holdTrue({ kernel, engine, project: projectOf(steps), part: 'part', model }, turn);
  const swapped = await orderIsNoMatter(build, groups, model);
  const large = await build(groups, LARGER);
  // the library measures by absolute lengths: what it refuses in another size is counted as refused
  const failed = large.steps.find(({ state }) => state === 'failed');
  if (!failed) {
    same(
      'all larger: volume by the cube',
      volumeOf(large),
      volumeOf(model) * LARGER ** 3,
      unsure(model) + fills(model),
    );
    same('all larger: as many faces', wholeFacesOf(large), wholeFacesOf(model), 0);
  }
  const refused = { 'other-order': swapped, larger: failed?.issue?.code };
  return Object.entries(refused).flatMap(([kind, code]) => (code === undefined ? [] : [{ kind, code }]));
}

const builderFor =
  (engine: Engine) =>
  async (groups: readonly Group[], scale = 1): Promise<PartModel> =>
    (await engine.build(projectOf(groups.flat(), scale), { mesh: MESH })).parts[0]!;

/** The last two steps in the other order, where they have nothing to do with each other. */
async function orderIsNoMatter(
  build: ReturnType<typeof builderFor>,
  groups: readonly Group[],
  after: PartModel,
): Promise<string | undefined> {
  const [first, second] = groups.slice(-2) as [Group, Group];
  if (groups.length < 3) return undefined;
  const base = groups.slice(0, -2);
  const before = await build(base);
  if (!areDisjoint([before, await build([...base, first]), after], first, second)) return undefined;
  const swapped = await build([...base, second, first]);
  const failed = swapped.steps.find(({ state }) => state === 'failed');
  // the library measures by what is there already: what it refuses in another order is counted as refused
  if (failed) return failed.issue!.code;
  same('disjoint steps in any order: the same volume', volumeOf(swapped), volumeOf(after), unsure(after));
  return undefined;
}

/** As few steps as break the same law: one group after the other is left out where that does not mend it. */
async function shrunk(given: Given, groups: readonly Group[], law: string): Promise<readonly Group[]> {
  let left = groups;
  for (const group of groups.slice(1).toReversed()) {
    const without = left.filter((other) => other !== group);
    const breaks = await judged(given, without).then(
      () => false,
      (error: unknown) => brokenBy(error).law === law,
    );
    if (breaks) left = without;
  }
  return left;
}
