import { enclosedVolume, explain, writeProject, type Project } from '@helb/core';
import { Engine, type PartModel } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { Broken, same, type Outcome } from './case.ts';
import { Chance } from './chance.ts';
import { begin, more, projectOf, type Grown } from './parts.ts';

/** Within this the triangles follow the faces, mm and rad. */
const MESH = { deflection: 0.1, angle: 0.3 };
const LARGER = 1.7;
/** How far the ways in which a volume is found may be apart, relative. */
const UNSURE = 1e-4;

const total = ({ bodies }: PartModel): number => bodies.reduce((sum, { measures }) => sum + measures.volume_mm3, 0);
const faces = ({ bodies }: PartModel): number => bodies.reduce((sum, { measures }) => sum + measures.faces, 0);

/** A random part, held against laws that need no answer key. */
export async function partCase(kernel: OpenCascadeKernel, engine: Engine, seed: number): Promise<Outcome> {
  const chance = new Chance(seed);
  const refused: { kind: string; code: string }[] = [];
  const tried: string[] = [];
  let steps: Grown[] = [];
  const build = async (project: Project, of = engine) => (await of.build(project, { mesh: MESH })).parts[0]!;
  try {
    let model: PartModel | undefined;
    const wanted = chance.whole(1, 6);
    for (let n = 0; n <= wanted; n++) {
      const grow = n === 0 ? begin : more;
      const next = grow(chance, `s${n}`, model?.bodies.map(({ topology }) => topology!) ?? []);
      if (next.length === 0) continue;
      tried.push(next.at(-1)!.kind);
      const built = await build(projectOf([...steps, ...next]));
      const failed = built.steps.find(({ state }) => state === 'failed');
      if (failed) {
        refused.push({ kind: next.find(({ id }) => id === failed.id)?.kind ?? 'earlier', code: failed.issue!.code });
        if (explain(failed.issue!).startsWith('Something is wrong'))
          throw new Broken('a refusal has words', failed.issue!.code);
        if (n === 0) return { seed, refused, tried };
        continue;
      }
      steps = [...steps, ...next];
      model = built;
    }
    const larger = await lawsOf(kernel, engine, steps, model!, build);
    if (larger !== undefined) refused.push({ kind: 'larger', code: larger });
    return { seed, refused, tried };
  } catch (error) {
    const broken =
      error instanceof Broken
        ? { law: error.law, found: error.found }
        : { law: 'nothing crashes', found: error instanceof Error ? (error.stack ?? error.message) : String(error) };
    return { seed, refused, tried, broken, shown: writeProject(projectOf(steps)) };
  }
}

async function lawsOf(
  kernel: OpenCascadeKernel,
  engine: Engine,
  steps: readonly Grown[],
  model: PartModel,
  build: (project: Project, of?: Engine) => Promise<PartModel>,
): Promise<string | undefined> {
  for (const { measures, mesh } of model.bodies) {
    const { volume_mm3: volume, area_mm2: area, off } = measures;
    if (!(volume > 0)) throw new Broken('a body has a volume', `${volume}`);
    // less sure than 1e-6 it is shown with how far it may be off; this far it would be no figure
    if (off.volume_mm3 > UNSURE * volume) throw new Broken('the ways agree', `${volume} ± ${off.volume_mm3}`);
    const meshed = enclosedVolume(mesh!);
    if (Math.abs(meshed - volume) > MESH.deflection * area)
      throw new Broken('triangles enclose as much', `${meshed} and ${volume}`);
  }
  const large = await build(projectOf(steps, LARGER));
  // the library measures by absolute lengths: what it refuses in another size is counted as refused
  const failed = large.steps.find(({ state }) => state === 'failed');
  if (!failed) {
    same('all larger: volume by the cube', total(large), total(model) * LARGER ** 3, unsure(model));
    same('all larger: as many faces', faces(large), faces(model), 0);
  }
  const bodies = model.bodies.map(({ name }) => ({ to: 'body', name }));
  const moved = await build(
    projectOf([
      ...steps,
      {
        id: 'moved',
        kind: 'move',
        fields: () => ({
          bodies,
          x: '13 mm',
          y: '-7 mm',
          z: '5 mm',
          turn: 'yes',
          angle: '37 deg',
          about: [{ to: 'origin', name: 'x' }],
        }),
      },
    ]),
  );
  same('moved and turned: the same volume', total(moved), total(model), unsure(model));
  const plane = [{ to: 'origin', name: 'right' }];
  const mirrored = await build(
    projectOf([...steps, { id: 'mirrored', kind: 'mirror', fields: () => ({ what: 'bodies', bodies, plane }) }]),
  );
  same('a mirrored twin: twice the volume', total(mirrored), 2 * total(model), unsure(model));
  const anew = await build(projectOf(steps), new Engine(kernel));
  same('built anew: the same volume', total(anew), total(model), 1e-12);
  const written = await engine.partFile(projectOf(steps), 'part', 'step');
  if (!written.ok) throw new Broken('it can be written', written.issue.code);
  kernel.keepFile('fuzz', written.value);
  const read = kernel.readStep({ file: 'fuzz', step: 'r' });
  if (!read.ok) throw new Broken('what is written can be read', read.issue.code);
  const back = read.value.reduce((sum, body) => sum + kernel.measure(body).volume_mm3, 0);
  read.value.forEach((body) => kernel.release(body));
  same('written and read: the same volume', back, total(model), unsure(model));
  return failed?.issue?.code;
}

/** How exactly volumes can be compared: 1e-6, or as they tell themselves. */
const unsure = ({ bodies }: PartModel): number =>
  Math.max(1e-6, ...bodies.map(({ measures }) => (4 * measures.off.volume_mm3) / measures.volume_mm3));
