import type { Vec2 } from '../../math/index.ts';
import { fullCircle } from '../../sketch/pieces/index.ts';
import { segment, type Stroke } from '../picture.ts';
import type { Sheet } from '../schema.ts';

/** Width and height of the sign, mm. */
export const SIGN_SIZE = [16.4, 6.6] as const;

/** The sign of first- or third-angle projection (ISO 5456-2): a cone cut off, from its side and from its end. */
export function projectionSign(projection: Sheet['projection'], [x, y]: Vec2, scale = 1): Stroke[] {
  const [small, large, length, apart] = [1.2, 2.3, 4, 4.6];
  // in first angle the view from the left stands at the right of the cone that opens towards it
  const cone = projection === 'first' ? -apart : apart;
  const rings = -cone;
  const at = (u: number, v: number): Vec2 => [x + scale * u, y + scale * v];
  const [near, far] = [cone - length / 2, cone + length / 2];
  const side = [
    segment(at(near, -small), at(near, small)),
    segment(at(far, -large), at(far, large)),
    segment(at(near, small), at(far, large)),
    segment(at(near, -small), at(far, -large)),
  ];
  const circles = [small, large].map((radius) => fullCircle('', at(rings, 0), scale * radius));
  return [
    { line: 'thin', pieces: [...side, ...circles] },
    {
      line: 'centre',
      pieces: [
        segment(at(near - 1, 0), at(far + 1, 0)),
        segment(at(rings - large - 1, 0), at(rings + large + 1, 0)),
        segment(at(rings, -large - 1), at(rings, large + 1)),
      ],
    },
  ];
}
