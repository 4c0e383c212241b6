import {
  add3,
  boxCorners,
  distance3,
  drawnThing,
  footOnLine3,
  Geometry,
  isSketch,
  middle3,
  ORIGIN_DATUMS,
  placesAlong,
  polyline,
  referenceWords,
  scale3,
  stepKind,
  toPlane,
  toSpace,
  type Box3,
  type Datum,
  type Id,
  type Part,
  type Reference,
  type SketchStep,
  type Thing,
  type Vec3,
} from '@helb/core';
import { helpersOf } from '../editor/helpers.ts';
import type { Built } from '../stores/model.ts';
import type { Guide } from './picks.ts';

/** What is asked for decides which guides are shown besides those that always are. */
interface Wanted {
  readonly origin: boolean;
  /** Which drawn curves: of all sketches, of those that no step makes an area of, of those that no step uses at all. */
  readonly drawn: 'all' | 'lines' | 'waiting';
  /** Show drawn points too: where a point is asked for. */
  readonly points: boolean;
  /** Only what comes before this step. */
  readonly before?: Id;
  /** Sketches that are shown otherwise: the one being drawn. */
  readonly without?: Id;
}

/** What of a part was built that guides are made of. */
type Shown = Pick<Built, 'datums' | 'sketches' | 'totals'>;

const USUAL: Box3 = { low: [-40, -40, -40], high: [40, 40, 40] };

/** Datums and drawn curves as lines in the view, each to be picked by its reference. */
export function guidesOf(part: Part, built: Shown, wanted: Wanted): Guide[] {
  const box = built.totals.box_mm ?? USUAL;
  const end = wanted.before === undefined ? part.stepOrder.length : part.stepOrder.indexOf(wanted.before);
  const steps = part.stepOrder.slice(0, end < 0 ? undefined : end);
  const nameOf = (id: Id) => part.steps[id]?.name ?? '?';
  const origin = wanted.origin
    ? Object.entries(ORIGIN_DATUMS).map(([name, datum]) =>
        datumGuide({ to: 'origin', name: name as keyof typeof ORIGIN_DATUMS }, datum, box, nameOf),
      )
    : [];
  const datums = steps.flatMap((step) => {
    const datum = built.datums[step];
    return datum ? [datumGuide({ to: 'datum', step }, datum, box, nameOf)] : [];
  });
  const used = usedSketches(part, wanted.drawn);
  const drawn = steps
    .filter((step) => isSketch(part.steps[step]) && step !== wanted.without && !used.has(step))
    .flatMap((step) => {
      const guides = drawnGuides(step, built, nameOf, wanted.points ? POINT * sizeOf(box) : undefined);
      // what only holds a figure together is in the way of what is drawn
      const helpers = wanted.points ? new Set() : helpersOf(part.steps[step] as SketchStep);
      return guides.filter(({ reference }) => reference.to !== 'drawn' || !helpers.has(reference.entity));
    });
  return [...origin, ...datums, ...drawn];
}

/** The sketches that are not shown, as steps use them. */
function usedSketches(part: Part, drawn: Wanted['drawn']): ReadonlySet<Id> {
  if (drawn === 'all') return new Set();
  const using = Object.values(part.steps).filter((step) => !step.suppressed);
  if (drawn === 'waiting') return new Set(using.flatMap((step) => stepKind(step.kind).uses(step)));
  return new Set(using.flatMap((step) => ('sketch' in step ? (step.sketch ?? []) : [])));
}

function datumGuide(reference: Reference, datum: Datum, box: Box3, nameOf: (id: Id) => string): Guide {
  const lines = DATUM_LINES[datum.form](datum as never, box);
  const thing: Thing = { to: 'datum', datum };
  return {
    name: JSON.stringify(reference),
    words: referenceWords(reference, nameOf),
    reference,
    thing,
    lines,
    look: 'datum',
    label: lines[0]!,
  };
}

type LinesOf<F extends Datum['form']> = (datum: Extract<Datum, { form: F }>, box: Box3) => Vec3[];

/** How far datums reach over the part, as a share of its size. */
const MARGIN = 0.08;
const sizeOf = ({ low, high }: Box3): number => Math.max(distance3(low, high), 5);

/** A rectangle of the plane round the part as it is seen on it; a stretch of an axis; a small cross; three arms. */
const DATUM_LINES: { readonly [F in Datum['form']]: LinesOf<F> } = {
  plane({ frame }, box) {
    const seen = boxCorners(box).map((corner) => toPlane(frame, corner));
    const margin = MARGIN * sizeOf(box);
    const [us, vs] = [0, 1].map((k) => seen.map((place) => place[k]!)) as [number[], number[]];
    const [left, right] = [Math.min(...us) - margin, Math.max(...us) + margin];
    const [bottom, top] = [Math.min(...vs) - margin, Math.max(...vs) + margin];
    const outline = [
      [left, top],
      [right, top],
      [right, bottom],
      [left, bottom],
    ].map(([u, v]) => toSpace(frame, [u!, v!]));
    return outline.flatMap((corner, k) => [corner, outline[(k + 1) % 4]!]);
  },
  axis({ origin, direction }, box) {
    const foot = footOnLine3(middle3(box.low, box.high), origin, direction);
    const reach = sizeOf(box) * (0.5 + MARGIN);
    return [add3(foot, scale3(direction, reach)), add3(foot, scale3(direction, -reach))];
  },
  point: ({ at }, box) =>
    [0, 1, 2].flatMap((axis) =>
      [-1, 1].map((way) => at.map((c, k) => (k === axis ? c + way * 0.03 * sizeOf(box) : c)) as unknown as Vec3),
    ),
  curve: ({ edge: { curve } }) => placesAlong(curve).flatMap((place, k, all) => (k === 0 ? [] : [all[k - 1]!, place])),
  frame: ({ frame: { origin, x, y, z } }, box) =>
    [x, y, z].flatMap((along) => [add3(origin, scale3(along, 0.2 * sizeOf(box))), origin]),
};

/** Half the arm of the cross by which a drawn point is shown, as a share of the size of the part. */
const POINT = 0.012;

/** Each curve of a sketch by itself, and each point where they are wanted: as crosses with so long arms, mm. */
function drawnGuides(step: Id, built: Shown, nameOf: (id: Id) => string, arm: number | undefined): Guide[] {
  const sketch = built.sketches[step];
  if (!sketch) return [];
  const geometry = new Geometry(sketch.entities);
  return Object.entries(sketch.entities).flatMap(([entity, record]): Guide[] => {
    const thing = drawnThing(sketch.frame, geometry, entity);
    if (!thing || (record.kind === 'point' && arm === undefined)) return [];
    const reference: Reference = { to: 'drawn', step, entity };
    const { x, y } = sketch.frame;
    const lines =
      thing.at && arm
        ? [x, y].flatMap((along) => [add3(thing.at!, scale3(along, arm)), add3(thing.at!, scale3(along, -arm))])
        : geometry
            .pieces(entity)
            .map((piece) => polyline(piece).map((place) => toSpace(sketch.frame, place)))
            .flatMap((places) => places.slice(1).flatMap((place, k) => [places[k]!, place]));
    const words = `${record.kind} of ${nameOf(step)}`;
    return [{ name: `${step} ${entity}`, words, reference, thing, lines, look: 'drawn' }];
  });
}
