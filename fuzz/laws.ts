import { enclosedVolume, perform, type Action, type Id, type Project } from '@helb/core';
import { Engine, type PartModel } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { rectangle } from '@helb/core/samples';
import { Broken, same } from './case.ts';

// What holds of every part, whatever it is: laws that need no answer key.

/** Within this the triangles follow the faces, mm and rad. */
export const MESH = { deflection: 0.1, angle: 0.3 };
/** So far apart the ways in which a volume is found would be a failure of the step, relative. */
const UNSURE = 1e-3;
/** From here on a figure is shown with how far it may be off. */
export const TOLD = 1e-6;

export const volumeOf = ({ bodies }: PartModel): number =>
  bodies.reduce((sum, { measures }) => sum + measures.volume_mm3, 0);
export const facesOf = ({ bodies }: PartModel): number => bodies.reduce((sum, { measures }) => sum + measures.faces, 0);

/** The faces of a part that are no slivers: what the library leaves where a round goes on from one curve to the next. */
export const wholeFacesOf = ({ bodies }: PartModel): number =>
  bodies.reduce(
    (sum, { topology, measures }) =>
      sum + topology!.faces.filter(({ area }) => area > SLIVER * measures.area_mm2).length,
    0,
  );
/** As a share of the skin. */
const SLIVER = 1e-6;

/** How exactly volumes can be compared: 1e-6, or as they tell themselves. */
export const unsure = ({ bodies }: PartModel): number =>
  Math.max(1e-6, ...bodies.map(({ measures }) => (4 * measures.off.volume_mm3) / measures.volume_mm3));

/**
 * By what share the volume is another in another size, as the library works by lengths of its own: what it fills a corner
 * with where rounds go in and out, and how near it follows the walls of free faces.
 */
export function fills(model: PartModel): number {
  const free = model.bodies.flatMap(({ topology }) => topology!.faces).filter(({ surface }) => surface.form === 'free');
  const all = model.bodies.reduce((total, { measures }) => total + measures.area_mm2, 0);
  const sum = (role: string, of: (area: number) => number, most = Infinity) =>
    free
      .filter(({ name, area }) => name.includes(`/${role}/`) && area < most)
      .reduce((total, { area }) => total + of(area), 0);
  const sheet = (area: number) => FILLED * area ** 1.5;
  // where a round runs over a smaller one the sheet counts as part of the round
  const sheets = sum('corner', sheet) + sum('round', sheet, SMALL * all);
  return (sheets + sum('inside', (area) => FOLLOWED * area)) / volumeOf(model);
}
const SMALL = 2e-3;
const FILLED = 0.02;
/** mm: at an opening a wall that leans is cut out of the free face carried on beyond its end, as the library sees fit. */
const FOLLOWED = 1e-3;

/** The figures of each body have their witnesses. */
export function witnessed({ bodies }: PartModel): void {
  for (const { measures, mesh } of bodies) {
    const { volume_mm3: volume, area_mm2: area, off } = measures;
    if (!(volume > 0)) throw new Broken('a body has a volume', `${volume}`);
    // less sure than 1e-6 it is shown with how far it may be off; this far it would be no figure
    if (off.volume_mm3 > UNSURE * volume) throw new Broken('the ways agree', `${volume} ± ${off.volume_mm3}`);
    const meshed = enclosedVolume(mesh!);
    if (Math.abs(meshed - volume) > MESH.deflection * area)
      throw new Broken('triangles enclose as much', `${meshed} and ${volume}`);
  }
}

/** A part with another step at its end, and others before that, as it is built. */
type Onwards = (kind: string, fields: object, earlier?: Readonly<Record<Id, object>>) => Promise<PartModel>;

/** Builds one part of a project, with more steps at its end where they are asked for. */
export function builderOf(engine: Engine, project: Project, part: Id) {
  const build = async (of: Project, by = engine): Promise<PartModel> =>
    (await by.build(of, { mesh: MESH, parts: [part] })).parts.find(({ id }) => id === part)!;
  const onwards: Onwards = async (kind, fields, earlier = {}) => {
    const steps = Object.entries({ ...earlier, fuzz: { kind, name: kind, ...fields } });
    const added = perform(
      project,
      steps.map(([id, step]) => ({ command: 'step.add', input: { part, id, step } }) as Action),
    );
    if (!added.ok) throw new Broken('a step can be added', JSON.stringify(added.issue));
    return build(added.value.project);
  };
  return { build, onwards };
}

/** What is held against a law: a part with the model that was built of it. */
interface Held {
  readonly kernel: OpenCascadeKernel;
  readonly engine: Engine;
  readonly project: Project;
  readonly part: Id;
  readonly model: PartModel;
}
type Law = (held: Held & ReturnType<typeof builderOf>) => Promise<void>;

/** Laws that each build something of the part. All of them are held against samples, of many random parts each in turn. */
const LAWS: readonly Law[] = [
  ...[movedAgrees, twinAgrees, cutInTwo, joinedIsSymmetric, anewAgrees, readAgrees],
  cutTogetherAgrees,
];

/** Holds a part against all laws, or against the witness and the one whose turn it is. */
export async function holdTrue(held: Held, turn?: number): Promise<void> {
  witnessed(held.model);
  const built = { ...held, ...builderOf(held.engine, held.project, held.part) };
  for (const law of turn === undefined ? LAWS : [LAWS[turn % LAWS.length]!]) await law(built);
}

const named = ({ bodies }: PartModel): readonly object[] => bodies.map(({ name }) => ({ to: 'body', name }));
/** The plane in which it is mirrored. */
const PLANE: readonly object[] = [{ to: 'origin', name: 'right' }];

/** Moved and turned it is as large as before. */
async function movedAgrees({ model, onwards }: Parameters<Law>[0]): Promise<void> {
  const moved = await onwards('move', {
    ...{ bodies: named(model), x: '13 mm', y: '-7 mm', z: '5 mm' },
    ...{ turn: 'yes', angle: '37 deg', about: [{ to: 'origin', name: 'x' }] },
  });
  same('moved and turned: the same volume', volumeOf(moved), volumeOf(model), unsure(model));
}

/** A mirrored twin is as large as the part. */
async function twinAgrees({ model, onwards }: Parameters<Law>[0]): Promise<void> {
  const mirrored = await onwards('mirror', { what: 'bodies', bodies: named(model), plane: PLANE });
  same('a mirrored twin: twice the volume', volumeOf(mirrored), 2 * volumeOf(model), unsure(model));
}

/**
 * What is built anew by an engine that has built nothing yet is the same, to the last digit that it tells: where the library
 * leaves gaps, these depend on where in memory things lie.
 */
async function anewAgrees({ kernel, project, model, build }: Parameters<Law>[0]): Promise<void> {
  const anew = await build(project, new Engine(kernel));
  const states = ({ steps }: PartModel) => steps.map(({ id, state }) => `${id} ${state}`).join();
  if (states(anew) !== states(model)) throw new Broken('built anew: the same steps are built', states(anew));
  const gaps = [...anew.bodies, ...model.bodies].reduce((sum, { measures }) => sum + measures.off.volume_mm3, 0);
  same('built anew: the same volume', volumeOf(anew), volumeOf(model), Math.max(1e-12, gaps / volumeOf(model)));
}

/** What is written to a file and read again is as large as before. */
async function readAgrees({ kernel, engine, project, part, model }: Parameters<Law>[0]): Promise<void> {
  const written = await engine.partFile(project, part, 'step');
  // read back already and refused in words: nothing wrong leaves
  if (!written.ok && written.issue.code === 'kernel.unread') return;
  if (!written.ok) throw new Broken('it can be written', written.issue.code);
  kernel.keepFile('fuzz', written.value);
  const read = kernel.readStep({ file: 'fuzz', step: 'r' });
  if (!read.ok) throw new Broken('what is written can be read', read.issue.code);
  const back = read.value.reduce((sum, body) => sum + kernel.measure(body).volume_mm3, 0);
  read.value.forEach((body) => kernel.release(body));
  same('written and read: the same volume', back, volumeOf(model), unsure(model));
}

const failed = ({ steps }: PartModel) => steps.find(({ id }) => id === 'fuzz')?.state === 'failed';
const isBeyondLibrary = ({ steps }: PartModel) =>
  steps.find(({ id }) => id === 'fuzz')?.issue?.code.startsWith('kernel.') ?? false;

/** What lies before a plane and what lies behind it are the whole. */
async function cutInTwo({ model, onwards }: Parameters<Law>[0]): Promise<void> {
  for (const name of ['front', 'right']) {
    const by = [{ to: 'origin', name }];
    const [before, behind] = [
      await onwards('split', { by, keep: 'front' }),
      await onwards('split', { by, keep: 'back' }),
    ];
    // a plane that misses it is refused both times
    if (failed(before) !== failed(behind)) throw new Broken('both sides of a cut, or none', name);
    if (failed(before)) continue;
    const within = Math.max(...[model, before, behind].map(unsure));
    same('cut in two: both are the whole', volumeOf(before) + volumeOf(behind), volumeOf(model), within);
  }
}

/** Joined to its mirror image it is symmetric: its centre lies in the plane. */
async function joinedIsSymmetric({ model, onwards }: Parameters<Law>[0]): Promise<void> {
  const joined = await onwards('mirror', { what: 'bodies', bodies: named(model), plane: PLANE, copies: 'add' });
  // where it lies wholly beyond the plane, or is symmetric already, nothing is joined
  if (failed(joined)) return;
  const volume = volumeOf(joined);
  const moment = joined.bodies.reduce((sum, { measures }) => sum + measures.volume_mm3 * measures.centre_mm[0], 0);
  const reach = Math.max(...joined.bodies.flatMap(({ measures }) => measures.box_mm.high.map(Math.abs)));
  if (Math.abs(moment / volume) > unsure(joined) * 10 * reach)
    throw new Broken('symmetric by its making', `its centre is ${moment / volume} off`);
}

/** A slot along the mirror plane takes as much from a part as from its mirror image that may stand in it. */
async function cutTogetherAgrees({ model, onwards }: Parameters<Law>[0]): Promise<void> {
  const entities = rectangle(-SLOT, -SLOT, 2 * SLOT, 2 * SLOT);
  const sketch = { kind: 'sketch', name: 'slot', plane: { to: 'origin', name: 'top' }, entities, relations: {} };
  const cut = { sketch: 'fuzz-slot', extent: 'through', ways: 'both', result: 'cut' };
  const image = { kind: 'mirror', name: 'image', what: 'bodies', bodies: named(model), plane: PLANE };
  const alone = await onwards('extrude', cut, { 'fuzz-slot': sketch });
  const both = await onwards('extrude', cut, { 'fuzz-image': image, 'fuzz-slot': sketch });
  // what the library can not cut in one place it may cut in another; a slot that misses one misses both
  if ([alone, both].some(isBeyondLibrary)) return;
  if (failed(alone) !== failed(both)) throw new Broken('cut with its image, or not at all', `${failed(alone)}`);
  if (failed(alone)) return;
  const within = Math.max(...[model, alone, both].map(unsure));
  same('cut together with its image: twice what is left', volumeOf(both), 2 * volumeOf(alone), within);
}
/** Half the width of that slot, mm. */
const SLOT = 6;
