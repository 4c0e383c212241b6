import { LRUCache } from 'lru-cache';
import {
  BESIDE_EYES,
  composed,
  contextOf,
  CORNER_EYE,
  cutLine,
  drawnPart,
  drawnView,
  explain,
  fail,
  fittingMarks,
  formatAmount,
  frameOn,
  markReferences,
  transformTopology,
  MovingFaces,
  namesFor,
  ok,
  onceEach,
  parentOf,
  partFindings,
  readSeen,
  sectionNamesFor,
  SIDE_EYES,
  USUAL_BLOCK,
  viewWords,
  viewManner,
  assemblyFindings,
  Witness,
  type BuiltPart,
  type ComposedSheet,
  type CutLine,
  type DrawnView,
  type FittingMark,
  type Frame,
  type Id,
  type Issue,
  type Kernel,
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
import { openedBodies, uncutBody } from './opening.ts';
import type { BuildContext } from './build-context.ts';
import type { BodyQueries } from './body-queries.ts';
import type { Subject, SubjectBody } from './subject.ts';

/** Views that are kept: those of some sheets, so that only what has changed is seen anew. */
const MOST_VIEWS = 120;
/** Scenes are larger than views, and a sheet has one or two. */
const MOST_SCENES = 6;

/** Letters of sections; I, O and Q are mistaken for figures. */
const LETTERS = 'ABCDEFGHJKLMNPRSTUVWXYZ';

/** Called before each view that has to be seen anew; may throw to stop. */
type Pause = (done: number, of: number) => Promise<void>;

/** Draws parts and the whole on sheets. What is seen of bodies from somewhere is kept for as long as there is room. */
export class SheetDrawing {
  private readonly seen = new LRUCache<string, Result<DrawnView>>({ max: MOST_VIEWS });
  private readonly staged = new LRUCache<string, Staged>({ max: MOST_SCENES });

  constructor(
    private readonly kernel: Kernel,
    private readonly queries: BodyQueries,
  ) {}

  /**
   * A sheet as it is printed. Fails where there is no body, or a view can not be had.
   * @param troubles why what it shows is not as it is told
   */
  async drawn(
    project: Project,
    sheetId: Id,
    { subject, troubles }: { readonly subject: Subject; readonly troubles: readonly Issue[] },
    pause?: Pause,
  ): Promise<Result<ComposedSheet>> {
    const sheet = project.sheets![sheetId]!;
    if (subject.bodies(0).length === 0) return fail('export.empty', { part: subject.name });
    const views = await this.views(project, sheet, subject, pause);
    if (!views.ok) return views;
    const { name, material, mass_g, parts, own } = subject;
    const text = {
      ...{ project: project.name, part: name, material },
      mass: mass_g === null ? '' : `${formatAmount(mass_g, 1)} g`,
      number: (project.sheetOrder?.indexOf(sheetId) ?? 0) + 1,
      of: project.sheetOrder?.length ?? 1,
    };
    const isNumbered = Object.values(sheet.views).some(({ numbered }) => numbered);
    const marks = marksOf(sheet, subject);
    const sceneAt = onceEach((apart: number) => this.sceneOf(subject, marks.length > 0, apart).scene);
    const { scene, witness } = this.sceneOf(subject, marks.length > 0, 0);
    const block = project.titleBlock ?? USUAL_BLOCK;
    const together = composed(sheet, views.value, text, {
      ...{ block, marks, sceneAt, mirrors: witness?.mirrors ?? [] },
      parts: isNumbered ? parts : [],
    });
    const checked = { sheet, together, marks, sceneAt, block };
    const broken = troubles.map((issue) => ({ issue }));
    if (!own || !witness)
      return ok({
        ...together.sheet,
        findings: [...broken, ...assemblyFindings({ ...checked, views: views.value, parts })],
      });
    const findings = partFindings({
      ...{ ...checked, witness, material },
      elsewhere: this.saidElsewhere(project, sheetId, subject, scene),
      built: builtPart(project, own.id, own.buildContext),
      nameOf: namesFor(project, own.id),
    });
    return ok({ ...together.sheet, findings: [...broken, ...findings] });
  }

  /** The dimensions that make sense for what is picked in a view of a sheet. */
  fitting(sheet: Sheet, subject: Subject, view: Id, references: readonly Reference[]): FittingMark[] {
    const eye = eyesOf(sheet, subject).get(view);
    if (!eye) return [];
    const ways = viewManner(sheet.views, sheet.views[view]!);
    const picks = references.flatMap((reference) => {
      const thing = subject.thing(reference, ways.apart);
      return thing ? [{ reference, thing }] : [];
    });
    return fittingMarks(
      picks,
      view,
      eye,
      contextOf({ ...NOWHERE, ...ways }, this.sceneOf(subject, true, ways.apart).scene, 1),
    );
  }

  /** What is told of a subject; of a part as a witness. Made once for as long as its bodies are the same. */
  private sceneOf(subject: Subject, isTold: boolean, apart: number): Staged {
    if (!subject.own && !isTold) return NOTHING;
    const bodies = subject.bodies(apart);
    // a part and the whole may have the same bodies, but only a part has a witness
    const key = JSON.stringify([subject.own?.id, ...bodies.map(({ handle, transform }) => [handle, transform])]);
    let staged = this.staged.get(key);
    if (!staged) {
      const topologies = bodies.map(({ handle, transform }) => {
        const own = this.queries.topology(handle);
        return subject.own ? own : transformTopology(own, transform);
      });
      const witness = subject.own ? new Witness(topologies) : undefined;
      const faces = witness ?? new MovingFaces(topologies);
      staged = { scene: { topologies, faces }, ...(witness ? { witness } : {}) };
      this.staged.set(key, staged);
    }
    return staged;
  }

  /** What the other sheets of a part say. */
  private saidElsewhere(project: Project, own: Id, subject: Subject, scene: Scene): SaidMark[] {
    return Object.entries(project.sheets ?? {}).flatMap(([id, sheet]) => {
      if (id === own || sheet.part !== subject.own?.id || !sheet.marks) return [];
      const eyes = eyesOf(sheet, subject);
      return marksOf(sheet, subject).map((one): SaidMark => {
        const eye = eyes.get(one.mark.view);
        const read = eye && readSeen(one, eye, contextOf(NOWHERE, scene, 1));
        return { sheet: id, id: one.id, mark: one.mark, read: read?.ok ? read.value : undefined };
      });
    });
  }

  private async views(project: Project, sheet: Sheet, subject: Subject, pause?: Pause): Promise<Result<SeenView[]>> {
    const views: SeenView[] = [];
    const unseen = (view: View, wrong: Issue) =>
      fail('sheet.unseen-view', {
        view: viewWords(view, sheet, sectionNamesFor(project, sheet.part)),
        reason: explain(wrong),
      });
    for (const [k, id] of sheet.viewOrder.entries()) {
      const view = sheet.views[id]!;
      if (view.kind === 'detail') {
        views.push({ ...views.find((other) => other.id === view.of)!, id, view });
        continue;
      }
      const cut = cutOf(view, (section, at) => subject.plane(section, at));
      if (cut && !cut.ok) return unseen(view, cut.issue);
      const eye = EYES[view.kind](view as never, views, cut?.value.frame);
      const bodies = subject.bodies(view.apart ?? 0);
      const uncut = new Set('uncut' in view ? view.uncut : []);
      const drawn = await this.view(bodies, eye, cut && { line: cut.value, uncut }, () =>
        pause?.(k, sheet.viewOrder.length),
      );
      if (!drawn.ok) return unseen(view, drawn.issue);
      const letter = LETTERS[views.filter((other) => other.view.kind === 'section').length % LETTERS.length]!;
      views.push({
        ...{ id, view, eye, drawn: drawn.value },
        bodies: bodies.map(({ handle, signs: _, ...body }) => ({ ...body, topology: this.queries.topology(handle) })),
        ...(cut ? { cut: { line: cut.value, letter } } : {}),
      });
    }
    return ok(views);
  }

  private async view(
    bodies: readonly SubjectBody[],
    eye: Frame,
    cut: { readonly line: CutLine; readonly uncut: ReadonlySet<Id> } | undefined,
    pause: () => Promise<void> | undefined,
  ): Promise<Result<DrawnView>> {
    const key = JSON.stringify([
      bodies.map(({ handle, transform, signs }) => [handle, transform, signs]),
      eye,
      cut?.line,
      [...(cut?.uncut ?? [])],
    ]);
    let seen = this.seen.get(key);
    if (!seen) {
      await pause();
      const viewed = cut
        ? openedBodies(this.kernel, this.queries, bodies, cut.line, cut.uncut)
        : ok(bodies.map((body, k) => uncutBody(this.queries, body, k)));
      seen = viewed.ok ? ok(drawnView(viewed.value, eye)) : viewed;
      this.seen.set(key, seen);
    }
    return seen;
  }
}

/** What marks are read of; the witness of a part. */
interface Staged {
  readonly scene: Scene;
  readonly witness?: Witness;
}
const NOTHING: Staged = { scene: { topologies: [], faces: new MovingFaces([]) } };

/** Where a view is cut open, as the part is now; undefined where it is not. */
function cutOf(view: View, planeOf: Subject['plane']): Result<CutLine> | undefined {
  if (view.kind !== 'section') return undefined;
  const plane = planeOf(view.section, view.at);
  if (!plane.ok) return plane;
  const steps: { at: Frame; plane: Frame | undefined }[] = [];
  for (const step of view.steps ?? []) {
    const at = planeOf(step.at, view.at);
    if (!at.ok) return at;
    const next = step.section === undefined ? undefined : planeOf(step.section, view.at);
    if (next && !next.ok) return next;
    steps.push({ at: at.value, plane: next?.value });
  }
  return cutLine({ plane: plane.value, steps });
}

/** Where nothing is drawn, but only read. */
const NOWHERE = { factor: 1, apart: 0, isSlanted: false, at: [0, 0], box: { low: [0, 0], high: [0, 0] } } as const;

/** The marks of a sheet with what they are attached to. */
const marksOf = ({ marks = {}, markOrder = [] }: Sheet, subject: Subject): SeenMark[] =>
  markOrder.map((id) => {
    const mark = marks[id]!;
    const thingsAt = onceEach((apart: number) =>
      markReferences(mark).map((reference) => subject.thing(reference, apart)),
    );
    return { id, mark, thingsAt };
  });

const builtPart = (project: Project, id: Id, buildContext: BuildContext): BuiltPart => {
  const { steps, stepOrder } = drawnPart(project, id)!;
  return {
    topologies: buildContext.bodies,
    steps,
    stepOrder,
    sketches: buildContext.sketches,
    threads: buildContext.signs,
  };
};

/** From where the views of a sheet are seen; those without a plane are left out, with what is made of them. */
function eyesOf(sheet: Sheet, subject: Subject): Map<Id, Frame> {
  const eyes: { id: Id; eye: Frame }[] = [];
  for (const id of sheet.viewOrder) {
    const view = sheet.views[id]!;
    const parent = parentOf(view);
    const cut = cutOf(view, (section, at) => subject.plane(section, at));
    const isThere = parent === undefined || eyes.some((other) => other.id === parent);
    if (isThere && (!cut || cut.ok)) eyes.push({ id, eye: EYES[view.kind](view as never, eyes, cut?.value.frame) });
  }
  return new Map(eyes.map(({ id, eye }) => [id, eye]));
}

type Eyes = {
  readonly [K in View['kind']]: (
    view: Extract<View, { kind: K }>,
    before: readonly Pick<SeenView, 'id' | 'eye'>[],
    /** Of a section, along its planes. */
    cut: Frame | undefined,
  ) => Frame;
};
/** From where each kind of view is seen. */
const EYES: Eyes = {
  base: ({ from }) => SIDE_EYES[from],
  projected: ({ of, beside }, before) => BESIDE_EYES[beside](before.find(({ id }) => id === of)!.eye),
  corner: () => CORNER_EYE,
  detail: ({ of }, before) => before.find(({ id }) => id === of)!.eye,
  section: (_, __, cut) => frameOn([0, 0, 0], cut!.y),
};
