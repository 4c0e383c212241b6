import {
  BESIDE_EYES,
  composed,
  CORNER_EYE,
  fail,
  formatAmount,
  frameOn,
  ok,
  SIDE_EYES,
  STILL,
  type BodyHandle,
  type ComposedSheet,
  type DrawnView,
  type Frame,
  type Id,
  type Kernel,
  type Part,
  type Project,
  type Result,
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
    const { mass_g } = totalsOf(
      site.handles.map((body) => this.kernel.measure(body)),
      part.material,
    );
    return ok(
      composed(sheet, views.value, {
        project: project.name,
        part: part.name,
        material: part.material?.name ?? '',
        mass: mass_g === null ? '' : `${formatAmount(mass_g, 1)} g`,
        number: (project.sheetOrder?.indexOf(sheetId) ?? 0) + 1,
        of: project.sheetOrder?.length ?? 1,
      }),
    );
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

type Eyes = {
  readonly [K in View['kind']]: (
    view: Extract<View, { kind: K }>,
    before: readonly SeenView[],
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
