import { solidOf } from '../../naming/index.ts';
import type { Profile } from '../../kernel-port/index.ts';
import { add2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { arcBetween, reversed, type Piece, type Region } from '../../sketch/index.ts';
import { bodiesIn, gathered } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { picks } from '../fields/index.ts';
import { stretchesOf, type RimPair } from './rims.ts';

const fields = {
  faces: picks('rims', 'face', { max: 100, many: 'rims' }),
};

/** What is cut away of a stretch: a section, and the way that it goes. */
interface Shaving extends Pick<RimPair, 'way'> {
  readonly profile: Profile;
}

interface Inputs extends ToolInputs {
  readonly shavings: readonly Shaving[];
  readonly step: string;
}

export const fullRound = making('full-round', {
  title: 'Round in full',
  verb: { key: '', says: 'Rounds rims of walls fully, from one side over to the other.' },
  fields,
  sentence: 'Round {faces} in full, from side to side',
  inputs({ faces }, { step }): Result<Inputs> {
    const shavings: Shaving[] = [];
    for (const thing of faces) {
      const stretches = thing.to === 'face' ? stretchesOf(thing.face, thing.topology) : [];
      if (stretches.length === 0) return fail('full-round.rim');
      for (const stretch of stretches) {
        const profile = sectionOf(stretch);
        if (!profile) return fail('full-round.depth');
        shavings.push({ profile, way: stretch.way });
      }
    }
    return ok({ shavings, step, result: 'cut', only: bodiesIn(faces) });
  },
  solids: ({ shavings, step }, _, kernel) =>
    gathered(
      shavings,
      ({ profile, way }, k) => {
        const named = shavings.length > 1 ? solidOf(step, k + 1) : step;
        return way.form === 'straight'
          ? kernel.extrude({ profile, from: 0, to: way.length, step: named })
          : kernel.revolve({ profile, origin: way.origin, axis: way.axis, from: 0, to: way.angle, step: named });
      },
      kernel,
    ),
  words: {
    'full-round.rim': () =>
      'This face is no rim of even width with a wall on either side: choose the narrow flat face between two walls, straight or round, that ends square. Fillets of a little less than half its width do for others.',
    'full-round.depth': () => 'The walls below this rim are lower than half its width: there is no room for the round.',
  },
});

/**
 * What lies above the circle that touches the rim and both walls. With the angles a and b between rim and walls its
 * radius is the width over cot(a/2) + cot(b/2): the tangents from each edge are of one length. Undefined where it would
 * touch a wall below its foot.
 */
function sectionOf({ frame, width, walls, depth }: RimPair): Profile | undefined {
  const half = [Math.acos(walls[0][0]) / 2, Math.acos(-walls[1][0]) / 2] as const;
  const radius = width / half.reduce((sum, angle) => sum + 1 / Math.tan(angle), 0);
  const centre: Vec2 = [radius / Math.tan(half[0]), -radius];
  const touching = ([along, corner]: readonly [Vec2, Vec2], angle: number): Vec2 =>
    add2(corner, scale2(along, radius / Math.tan(angle)));
  const [left, right] = [touching([walls[0], [0, 0]], half[0]), touching([walls[1], [width, 0]], half[1])];
  if (Math.max(-left[1], -right[1]) > depth + 1e-9) return undefined;
  // a little beyond the walls and the rim, so that nothing of them is left
  const over = width / 20;
  const out = (place: Vec2): Vec2 => add2(place, scale2(sub2(place, centre), over / radius));
  const beyond: Vec2[] = [
    right,
    out(right),
    [Math.max(out(right)[0], width) + over, over],
    [Math.min(out(left)[0], 0) - over, over],
    out(left),
    left,
  ];
  const outer: Piece[] = [
    reversed(arcBetween('round', centre, radius, right, left)),
    ...beyond.slice(1).map((to, k): Piece => ({ form: 'segment', entity: `beyond-${k}`, from: beyond[k]!, to })),
  ];
  const region: Region = { key: 'rim', outer, holes: [], area: 0, depth: 0 };
  return { frame, regions: [region] };
}
