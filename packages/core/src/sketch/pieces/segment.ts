import { add2, cross2, distance2, dot2, scale2, sub2 } from '../../math/index.ts';
import { boxAround, type CurveForm, type PieceBase } from './form.ts';

export interface Segment extends PieceBase {
  readonly form: 'segment';
}

export const segment: CurveForm<Segment> = {
  at: ({ from, to }, t) => add2(from, scale2(sub2(to, from), t)),
  derivatives: ({ from, to }) => [sub2(to, from), [0, 0]],
  length: ({ from, to }) => distance2(from, to),
  nearest({ from, to }, place) {
    const u = sub2(to, from);
    return Math.min(1, Math.max(0, dot2(sub2(place, from), u) / Math.max(dot2(u, u), 1e-18)));
  },
  areaShare: ({ from, to }) => cross2(from, to) / 2,
  reversed: (piece) => piece,
  scaled: (piece) => piece,
  stretch: (piece) => piece,
  summits: () => [],
  box: ({ from, to }) => boxAround([from, to]),
  steps: () => 1,
};
