import { stepOfFace } from '../../../naming/index.ts';
import { z } from 'zod';
import { distance3, dot3, dotD3, footOnLine3, type Dual, type Vec3 } from '../../../math/index.ts';
import type { EdgeFacts, FaceFacts } from '../../../kernel-port/index.ts';
import { fail, ok, type Result } from '../../../result/index.ts';
import { formatAmount } from '../../../units/index.ts';
import type { LabelRow } from '../../label.ts';
import { pointOn, type WitnessedFace } from '../../witness/index.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import { onePlain, whereEndOn } from '../tries.ts';
import { labelOf, leaderPlaces, toRim } from '../ink.ts';
import type { Held, MarkContext, MarkKind, ReadMark } from '../kind.ts';
import { pointing } from '../pointing.ts';
import { timesRow } from '../round.ts';

/** Drilled holes with all that belongs to them: how many, how wide, how deep, with which head and thread. */
const holeSchema = z.strictObject({
  kind: z.literal('hole'),
  ...sizeFields,
  /** The walls of the holes. */
  of: things(1),
  /** Said instead of the diameter of the drill: "M5". */
  thread: z.string().max(40).optional(),
});
type HoleMark = z.infer<typeof holeSchema>;

export const holeMark: MarkKind<HoleMark> = {
  schema: holeSchema,
  title: 'Hole',
  sized: true,
  tries: onePlain('hole'),
  cost: whereEndOn,
  read(mark, held, context): Result<ReadMark> {
    const holes = held.flatMap((one) => drilled(one, context) ?? []);
    const [first] = holes;
    if (!first || holes.length < held.length) return fail('mark.round');
    if (
      holes.some((hole) => hole.tells.some((size, k) => Math.abs(size.value - (first.tells[k]?.value ?? NaN)) > 1e-6))
    )
      return fail('mark.unlike');
    const before = timesRow(held.length);
    const size = mark.thread
      ? ok<LabelRow>([...before, mark.thread])
      : sizeRow([...before, { sign: 'diameter' }], 2 * first.radius.value, '', mark);
    if (!size.ok) return size;
    const rows: LabelRow[] = [
      first.depth
        ? [...size.value, ' ', { sign: 'depth' }, formatAmount(first.depth.value)]
        : [...size.value, ...(first.head ? [] : [' through'])],
      ...(first.head ? [first.head] : []),
    ];
    return ok({
      tells: holes.flatMap(({ tells }) => tells),
      words: rows.map(rowWords).join(', '),
      ...called(held[0]!, rows, context),
    });
  },
};

/** A hole as it is: its sizes, each as it depends on the part. */
interface Drilled {
  readonly radius: Dual;
  readonly depth?: Dual;
  readonly head?: LabelRow;
  readonly tells: readonly Dual[];
}

/** All faces of one hole: those of its step that go round its axis or lie across it. */
function drilled({ thing }: Held, context: MarkContext): Drilled | undefined {
  if (thing.to !== 'face') return undefined;
  const { body, face } = thing;
  const { faces: all, topologies } = context;
  const wall = all.face(body, face.name);
  if (!wall?.surface.radius || !wall.surface.axis) return undefined;
  const edges = topologies[body]!.edges;
  const own = topologies[body]!.faces.flatMap((other) => {
    const seen = isOfHole(other, wall.face) ? all.face(body, other.name) : undefined;
    return seen ? [seen] : [];
  });
  const names = new Set(own.map((one) => one.face.name));
  // where the hole comes out of the part: a flat face of something else
  const mouth = edges.find(
    ({ faces, curve }) =>
      curve.form === 'circle' &&
      faces.some((name) => names.has(name)) &&
      faces.some((name) => !names.has(name) && all.face(body, name)?.surface.plane),
  );
  const entry =
    mouth &&
    all.face(
      body,
      mouth.faces.find((name) => !names.has(name))!,
    )?.surface.plane;
  const under = (place: Vec3, faces: readonly string[]): Dual | undefined => {
    const on = pointOn(
      faces.flatMap((name) => all.face(body, name)?.surface ?? []),
      place,
    );
    return entry && on && dotD3(entry.normal, on).sub(entry.height).abs();
  };
  const bottom = deepest(own, edges, wall);
  const depth = bottom && under(bottom.edge.middle, bottom.edge.faces);
  const head = headOf(own, edges, wall, under);
  const tells = [wall.surface.radius.scaled(2), ...(depth ? [depth] : []), ...(bottom?.half ? [bottom.half] : [])];
  return {
    radius: wall.surface.radius,
    ...(depth ? { depth } : {}),
    ...(head ? { head: head.row } : {}),
    tells: [...tells, ...(head?.tells ?? [])],
  };
}

/** Faces of the step of a hole about its axis. */
function isOfHole(face: FaceFacts, wall: FaceFacts): boolean {
  if (wall.surface.form !== 'cylinder' || stepOfFace(face.name) !== stepOfFace(wall.name)) return false;
  const { origin, axis } = wall.surface;
  const onAxis = (place: Vec3) => distance3(place, footOnLine3(place, origin, axis)) < 1e-6;
  const { surface } = face;
  if (surface.form === 'plane') return Math.abs(dot3(surface.normal, axis)) > 1 - 1e-9 && onAxis(face.centre);
  return (surface.form === 'cylinder' || surface.form === 'cone') && onAxis(surface.origin);
}

const touch = (edges: readonly EdgeFacts[], a: WitnessedFace, b: WitnessedFace): EdgeFacts | undefined =>
  edges.find(({ faces }) => faces.includes(a.face.name) && faces.includes(b.face.name));

/** The end of the wall inside the part: at a flat floor, or at the tip that the drill leaves. */
function deepest(
  own: readonly WitnessedFace[],
  edges: readonly EdgeFacts[],
  wall: WitnessedFace,
): { edge: EdgeFacts; half?: Dual } | undefined {
  for (const other of own) {
    const edge = other === wall ? undefined : touch(edges, other, wall);
    if (!edge) continue;
    const rims = edges.filter(({ faces }) => faces.includes(other.face.name));
    // a seat or a countersink has a second rim
    if (rims.length > 1) continue;
    return { edge, ...(other.surface.half ? { half: other.surface.half } : {}) };
  }
  return undefined;
}

type Under = (place: Vec3, faces: readonly string[]) => Dual | undefined;

/** A wider mouth: its row, and its sizes. */
function headOf(
  own: readonly WitnessedFace[],
  edges: readonly EdgeFacts[],
  wall: WitnessedFace,
  under: Under,
): { row: LabelRow; tells: Dual[] } | undefined {
  const wide = own.find(({ surface }) => surface.radius && surface.radius.value > wall.surface.radius!.value + 1e-9);
  if (wide) {
    const seat = edges.find(
      ({ faces }) =>
        faces.includes(wide.face.name) && own.some((one) => one.surface.plane && faces.includes(one.face.name)),
    );
    const deep = seat && under(seat.middle, seat.faces);
    const radius = wide.surface.radius!;
    if (!deep) return undefined;
    return {
      row: [
        { sign: 'counterbore' },
        ' ',
        { sign: 'diameter' },
        formatAmount(2 * radius.value),
        ' ',
        { sign: 'depth' },
        formatAmount(deep.value),
      ],
      tells: [radius.scaled(2), deep],
    };
  }
  const sunk = own.find(
    (one) => one.surface.half && edges.filter(({ faces }) => faces.includes(one.face.name)).length > 1,
  );
  const foot = sunk && touch(edges, sunk, wall);
  const mouth = sunk && edges.find((edge) => edge !== foot && edge.faces.includes(sunk.face.name));
  const deep = foot && under(foot.middle, foot.faces);
  if (!sunk?.surface.half || !mouth || !deep) return undefined;
  const radius = mouth.curve.form === 'circle' ? mouth.curve.radius : 0;
  return {
    row: [
      { sign: 'countersink' },
      ' ',
      { sign: 'diameter' },
      formatAmount(2 * radius),
      ` × ${formatAmount((2 * sunk.surface.half.value * 180) / Math.PI, 1)}°`,
    ],
    // how wide it is at its mouth follows from how deep it goes, and the other way round
    tells: [sunk.surface.half, deep],
  };
}

/** Seen from its end the callout points to the rim, else to the wall. */
function called(held: Held, rows: readonly LabelRow[], context: MarkContext): Pick<ReadMark, 'places' | 'draw'> {
  const { spot } = held;
  if (!spot?.endOn || !spot.point) return pointing(held, rows, context);
  const label = labelOf(context, ...rows);
  const centre = context.paper([spot.point[0].value, spot.point[1].value]);
  const radius = spot.radius!.value * context.factor;
  return {
    places: () => leaderPlaces(centre, radius, label, context),
    draw: (at) => toRim(centre, radius, at, label, context),
  };
}
