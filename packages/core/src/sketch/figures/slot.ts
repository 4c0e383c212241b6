import { add2, direction2, distance2, left2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { FigureBuilder } from './builder.ts';

type Placed = readonly [id: Id, at: Vec2];

/** What a slot is measured by: from centre to centre, and the round of one end. */
interface Slot {
  readonly spine: Id;
  readonly end: Id;
}

/**
 * A slot round two centres: two lines and two arcs that go on into each other, the arcs equal, and a construction line
 * from centre to centre. Free are the centres and the radius.
 * @returns the construction line, and the arc about b
 */
export function straightSlot(builder: FigureBuilder, [a, p]: Placed, [b, q]: Placed, radius: number): Slot {
  const along = direction2(sub2(q, p)) ?? [1, 0];
  const out = scale2(left2(along), radius);
  const [aLeft, aRight] = [builder.place(add2(p, out)), builder.place(sub2(p, out))];
  const [bLeft, bRight] = [builder.place(add2(q, out)), builder.place(sub2(q, out))];
  const [back, front] = [builder.arc(a, aLeft, aRight, radius), builder.arc(b, bRight, bLeft, radius)];
  const sides = [builder.line(aLeft, bLeft), builder.line(aRight, bRight)];
  for (const side of sides)
    for (const arc of [back, front]) builder.relate({ kind: 'tangent', circle: arc, to: side, side: 1 });
  builder.relate({ kind: 'equal', a: back, b: front });
  return { spine: builder.line(a, b, true), end: front };
}

/** A slot about its middle: as between two centres, with the middle of the line between them on a point. */
export function centredSlot(builder: FigureBuilder, [middle, at]: Placed, [b, q]: Placed, radius: number): Slot {
  const opposite = sub2(scale2(at, 2), q);
  const slot = straightSlot(builder, [builder.place(opposite), opposite], [b, q], radius);
  builder.relate({ kind: 'midpoint', point: middle, line: slot.spine });
  return slot;
}

/**
 * A slot along an arc that runs counter-clockwise about `centre` from a to b. Free are the centre, both ends and the
 * width: the end arcs being round their centres and going on into the two long arcs makes them equal by itself.
 * @param width radius of the end arcs, mm
 * @returns the construction arc through the end centres, and the arc about b
 */
export function arcSlot(
  builder: FigureBuilder,
  [centre, c]: Placed,
  [a, p]: Placed,
  [b, q]: Placed,
  width: number,
): Slot {
  const radius = distance2(c, p);
  const off = (place: Vec2, by: number): Id =>
    builder.place(add2(c, scale2(direction2(sub2(place, c)) ?? [1, 0], radius + by)));
  const [aOut, aIn, bOut, bIn] = [off(p, width), off(p, -width), off(q, width), off(q, -width)];
  const outer = builder.arc(centre, aOut, bOut, radius + width);
  const inner = builder.arc(centre, aIn, bIn, radius - width);
  const [start, end] = [builder.arc(a, aIn, aOut, width), builder.arc(b, bOut, bIn, width)];
  const spine = builder.arc(centre, a, b, radius, true);
  builder.relate({ kind: 'tangent', circle: start, to: outer, side: -1 });
  builder.relate({ kind: 'tangent', circle: start, to: inner, side: 1 });
  builder.relate({ kind: 'tangent', circle: end, to: outer, side: -1 });
  return { spine, end };
}
