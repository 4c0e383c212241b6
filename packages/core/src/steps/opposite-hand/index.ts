import type { BodyHandle } from '../../kernel-port/index.ts';
import { reflection, type RigidTransform } from '../../math/index.ts';
import { ORIGIN_PLANES } from '../../references/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { gathered } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, partField } from '../fields/index.ts';

const fields = {
  of: partField('part'),
  plane: choice('mirror plane', { right: 'Right', front: 'Front', top: 'Top' }, 'right'),
};

interface Inputs {
  readonly bodies: readonly BodyHandle[];
  readonly transform: RigidTransform;
  readonly step: string;
}

/** All bodies of another part, mirrored in a plane of its origin: they follow it. */
export const oppositeHand = changing('opposite-hand', {
  title: 'Opposite hand',
  verb: { key: '', says: 'The whole of another part as its mirror image, which follows it.' },
  fields,
  sentence: 'Opposite hand of {of}, mirrored in {plane}',
  inputs: ({ of, plane }, { step }): Result<Inputs> =>
    ok({ bodies: of, transform: reflection(ORIGIN_PLANES[plane]), step }),
  build({ bodies, transform, step }, before, kernel) {
    const mirrored = (body: BodyHandle, k: number): Result<BodyHandle[]> => {
      const made = kernel.transformed({ body, transform, step, instance: `m${k + 1}` });
      return made.ok ? ok([made.value]) : made;
    };
    const made = gathered(bodies, mirrored, kernel);
    return made.ok ? ok([...before, ...made.value]) : made;
  },
  words: {
    'part.empty': (f) => `"${f['name']}" has no body: there is nothing to take.`,
  },
});
