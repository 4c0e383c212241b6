import type { Ref } from 'vue';
import { boxRound, distance3, isBuiltIn, isSized, toSpace, type Box3, type Vec2, type Vec3 } from '@helb/core';
import { useModel } from '../stores/model.ts';
import { useWorkbench } from '../stores/workbench.ts';
import type { Viewport } from './viewport.ts';

/** What a view shows in which nothing is yet, mm. */
const USUAL: Box3 = { low: [-40, -40, -40], high: [40, 40, 40] };
/** And what a sketch does. */
export const PAPER: Box3 = { low: [-50, -50, -50], high: [50, 50, 50] };

const known = (boxes: readonly (Box3 | null | undefined)[]): Box3 | undefined =>
  boxRound(boxes.filter((box) => box !== undefined && box !== null));

/** How much of what is drawn is left free on each side for what comes next. */
const ROOM = 0.5;
const widened = ({ low, high }: Box3): Box3 => {
  const room = ROOM * distance3(low, high);
  return { low: low.map((at) => at - room) as unknown as Vec3, high: high.map((at) => at + room) as unknown as Vec3 };
};

/**
 * What the view of a part is to show, and how it is brought into it.
 * @param during counts a motion of the camera
 */
export function useFitting(
  viewport: Ref<Viewport | undefined>,
  during: (motion: Promise<unknown> | undefined) => Promise<void>,
) {
  const bench = useWorkbench();
  const model = useModel();

  /** Round the bodies and what is laid under them. */
  const shownBox = (): Box3 | undefined => known([model.built?.totals.box_mm, viewport.value?.underlayBox]);
  /** Round the part and what stands round it. */
  const allBox = (): Box3 | undefined => known([shownBox(), viewport.value?.othersBox]);

  /** Round what is drawn in the open sketch, with the numbers that stand beside it. */
  function drawnBox(): Box3 | undefined {
    const { sketching } = bench;
    const box = sketching?.geometry.box();
    if (!sketching || !box) return undefined;
    const sized = Object.values(sketching.relations).filter(isSized);
    const numbers = sized.flatMap((relation): Vec2[] => (relation.at ? [relation.at] : []));
    // sizes from the origin reach there
    const isFromOrigin = sized.some((relation) =>
      Object.values(relation).some((of) => typeof of === 'string' && isBuiltIn(of)),
    );
    if (isFromOrigin) numbers.push([0, 0]);
    const places = [box.low, box.high, ...numbers].map((place) => toSpace(sketching.solved.frame, place));
    const round = boxRound(places.map((place) => ({ low: place, high: place })));
    // what is on its way goes on somewhere
    return round && sketching.tool.isBusy ? widened(round) : round;
  }

  function fit(): Promise<void> | undefined {
    // of another part that was just chosen nothing is known yet: it is fitted when it comes
    if (model.built && model.built.part !== bench.partId) return undefined;
    const { low, high } = drawnBox() ?? shownBox() ?? viewport.value?.othersBox ?? USUAL;
    return during(viewport.value?.view.fit(low, high));
  }

  let fitted: string | undefined;
  /** A part that was just chosen is fitted, or what stands round it while nothing of it is drawn. */
  function fitAtFirst(): boolean {
    const [part, view] = [model.built?.part, viewport.value];
    const box = shownBox() ?? view?.othersBox;
    if (!view || !box || part !== bench.partId || fitted === part || bench.editor) return false;
    fitted = part;
    void view.view.fit(box.low, box.high, false);
    return true;
  }

  let before: Box3 | undefined;
  /** A number that throws a part out of the view brings the view after it, unless one looks closer on purpose. */
  function followGrowth(): void {
    const [was, box] = [before, shownBox()];
    before = box;
    if (!fitAtFirst() && box && !bench.editor && isSeenWhole(was) && !isSeenWhole(box)) void fit();
  }
  const isSeenWhole = (box: Box3 | undefined): boolean => !box || (viewport.value?.view.shows(box) ?? true);

  /** Turns the view; what was seen whole is so afterwards. */
  async function turning(turn: () => Promise<unknown> | undefined): Promise<void> {
    const isWhole = isSeenWhole(shownBox());
    await during(turn());
    if (isWhole && !isSeenWhole(shownBox())) await fit();
  }

  return { fit, fitAtFirst, followGrowth, turning, shownBox, drawnBox, allBox };
}
