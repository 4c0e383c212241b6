import {
  BESIDE_EYES,
  composed,
  contextOf,
  CORNER_EYE,
  drawnPart,
  fail,
  fittingMarks,
  formatAmount,
  frameOn,
  locate,
  markReferences,
  ok,
  readSeen,
  sheetFindings,
  SIDE_EYES,
  STILL,
  Witness,
  type BodyHandle,
  type BuiltPart,
  type ComposedSheet,
  type DrawnView,
  type FittingMark,
  type Frame,
  type Id,
  type Kernel,
  type NameOf,
  type Part,
  type Project,
  type Reference,
  type Result,
  type SaidMark,
  type Scene,
  type SeenMark,
  type SeenView,
  type Sheet,
  type View,
} from '@helb/core';
import type { Site } from './site.ts';
import type { Survey } from './survey.ts';
import { totalsOf } from './totals.ts';

/** Views that are kept: those of some sheets, so that only what has changed is seen anew. */
const MOST_VIEWS = 120;

/** Letters of sections; I, O and Q are mistaken for figures. */
const LETTERS = 'ABCDEFGHJKLMNPRSTUVWXYZ';

/** Called before each view that has to be seen anew; may throw to stop. */
type Pause = (done: number, of: number) => Promise<void>;

/** Draws parts on sheets. What is seen of a body from somewhere is kept as long as the body. */
export class Drafting {
  private readonly seen = new Map<string, Result<DrawnView>>();
  private scene: { readonly key: string; readonly scene: Scene } | undefined;

  constructor(
    private readonly kernel: Kernel,
    private readonly survey: Survey,
  ) {}

  /** A sheet as it is printed. Fails where the part has no body, or a view of it can not be had. */
  async drawn(project: Project, sheetId: Id, site: Site | undefined, pause?: Pause): Promise<Result<ComposedSheet>> {
    const sheet = project.sheets?.[sheetId];
    if (!sheet) return fail('sheet.unknown', { id: sheetId });
    const part = project.parts[sheet.part]!;
    if (!site || site.handles.length === 0) return fail('export.empty', { part: part.name });
    const views = await this.views(sheet, part, site, pause);
    if (!views.ok) return views;
    const marks = marksOf(sheet, site);
    const scene = this.sceneOf(site);
    const material = part.material?.name ?? '';
    const { mass_g } = totalsOf(
      site.handles.map((body) => this.kernel.measure(body)),
      part.material,
    );
    const mass = mass_g === null ? '' : `${formatAmount(mass_g, 1)} g`;
    const number = (project.sheetOrder?.indexOf(sheetId) ?? 0) + 1;
    const text = {
      project: project.name,
      part: part.name,
      material,
      mass,
      number,
      of: project.sheetOrder?.length ?? 1,
    };
    const together = composed(sheet, views.value, text, { marks, scene });
    const findings = sheetFindings({
      ...{ sheet, together, marks, scene, material },
      elsewhere: this.saidElsewhere(project, sheetId, part, site, scene),
      built: builtPart(project, sheet.part, site),
      nameOf: nameIn(project, sheet.part),
    });
    return ok({ ...together.sheet, findings });
  }

  /** The dimensions that make sense for what is picked in a view of a sheet. */
  fitting(project: Project, sheetId: Id, site: Site, view: Id, references: readonly Reference[]): FittingMark[] {
    const sheet = project.sheets?.[sheetId];
    const part = sheet && project.parts[sheet.part];
    const eye = part && eyesOf(sheet, part, site).get(view);
    if (!eye) return [];
    const picks = references.flatMap((reference) => {
      const match = locate(reference, 'shape', site);
      return match.ok ? [{ reference, thing: match.value.thing }] : [];
    });
    return fittingMarks(picks, view, eye, contextOf(NOWHERE, this.sceneOf(site), 1));
  }

  /** The part as a witness of what sizes tell, made once for as long as its bodies are the same. */
  private sceneOf(site: Site): Scene {
    const key = site.handles.join(' ');
    if (this.scene?.key !== key) {
      const topologies = site.bodies;
      this.scene = { key, scene: { topologies, witness: new Witness(topologies) } };
    }
    return this.scene.scene;
  }

  /** What the other sheets of a part say. */
  private saidElsewhere(project: Project, own: Id, part: Part, site: Site, scene: Scene): SaidMark[] {
    return Object.entries(project.sheets ?? {}).flatMap(([id, sheet]) => {
      if (id === own || project.parts[sheet.part] !== part || !sheet.marks) return [];
      const eyes = eyesOf(sheet, part, site);
      return marksOf(sheet, site).map((one): SaidMark => {
        const eye = eyes.get(one.mark.view);
        const read = eye && readSeen(one, eye, contextOf(NOWHERE, scene, 1));
        return { sheet: id, id: one.id, mark: one.mark, read: read?.ok ? read.value : undefined };
      });
    });
  }

  private async views(sheet: Sheet, part: Part, site: Site, pause?: Pause): Promise<Result<SeenView[]>> {
    const bodies = site.handles.map((body) => ({ topology: this.survey.topology(body), movement: STILL }));
    const views: SeenView[] = [];
    for (const [k, id] of sheet.viewOrder.entries()) {
      const view = sheet.views[id]!;
      const cut = view.kind === 'section' ? site.section(part.sections![view.section]!) : undefined;
      if (cut && !cut.ok) return cut;
      const eye = EYES[view.kind](view as never, views, cut?.value);
      const drawn = await this.view(site.handles, eye, cut?.value, () => pause?.(k, sheet.viewOrder.length));
      if (!drawn.ok) return drawn;
      const letter = LETTERS[views.filter((other) => other.cut).length % LETTERS.length]!;
      views.push({
        ...{ id, view, eye, bodies, drawn: drawn.value },
        ...(cut ? { cut: { plane: cut.value, letter } } : {}),
      });
    }
    return ok(views);
  }

  private async view(
    handles: readonly BodyHandle[],
    eye: Frame,
    cut: Frame | undefined,
    pause: () => Promise<void> | undefined,
  ): Promise<Result<DrawnView>> {
    const key = JSON.stringify([handles, eye, cut]);
    let drawn = this.seen.get(key);
    if (!drawn) {
      await pause();
      drawn = this.kernel.draw({
        bodies: handles.map((body) => ({ body, movement: STILL })),
        eye,
        ...(cut ? { cut } : {}),
      });
    }
    // the one that was asked for last goes last
    this.seen.delete(key);
    this.seen.set(key, drawn);
    if (this.seen.size > MOST_VIEWS) this.seen.delete(this.seen.keys().next().value!);
    return drawn;
  }
}

/** Where nothing is drawn, but only read. */
const NOWHERE = { factor: 1, at: [0, 0], box: { low: [0, 0], high: [0, 0] } } as const;

/** The marks of a sheet with what they are attached to. */
const marksOf = ({ marks = {}, markOrder = [] }: Sheet, site: Site): SeenMark[] =>
  markOrder.map((id) => {
    const mark = marks[id]!;
    const things = markReferences(mark).map((reference) => {
      const match = locate(reference, 'shape', site);
      return match.ok ? match.value.thing : undefined;
    });
    return { id, mark, things };
  });

const builtPart = (project: Project, id: Id, site: Site): BuiltPart => {
  const { steps, stepOrder } = drawnPart(project, id)!;
  return { topologies: site.bodies, steps, stepOrder, sketches: site.sketches, threads: site.signs };
};

const nameIn =
  (project: Project, part: Id): NameOf =>
  (step) =>
    drawnPart(project, part)?.steps[step]?.name ?? step;

/** From where the views of a sheet are seen; those without a plane are left out. */
function eyesOf(sheet: Sheet, part: Part, site: Site): Map<Id, Frame> {
  const eyes: { id: Id; eye: Frame }[] = [];
  for (const id of sheet.viewOrder) {
    const view = sheet.views[id]!;
    const cut = view.kind === 'section' ? site.section(part.sections![view.section]!) : undefined;
    if (!cut || cut.ok) eyes.push({ id, eye: EYES[view.kind](view as never, eyes, cut?.value) });
  }
  return new Map(eyes.map(({ id, eye }) => [id, eye]));
}

type Eyes = {
  readonly [K in View['kind']]: (
    view: Extract<View, { kind: K }>,
    before: readonly Pick<SeenView, 'id' | 'eye'>[],
    cut: Frame | undefined,
  ) => Frame;
};
/** From where each kind of view is seen. */
const EYES: Eyes = {
  base: ({ from }) => SIDE_EYES[from],
  projected: ({ of, beside }, before) => BESIDE_EYES[beside](before.find(({ id }) => id === of)!.eye),
  corner: () => CORNER_EYE,
  section: (_, __, cut) => frameOn([0, 0, 0], cut!.z),
};
