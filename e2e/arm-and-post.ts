import { ProjectScript } from '@helb/core';
import { placementOf, triple, type JointRecord } from '@helb/core/assembly';
import { rectangle } from '@helb/core/samples';

// Parts that touch: an arm on a base, and a post in its way.

/** An arm 80 x 8 about one end, 8 high, and a post 20 x 20 whose corners are at 30 / 30 and 50 / 30 from there. */
export function armAndPost(): ProjectScript {
  const script = new ProjectScript('Arm and post');
  const part = (
    id: string,
    name: string,
    at: readonly [number, number, number, number],
    placed: [number, number],
    held: boolean,
  ) => {
    script.do('part.add', { id, name });
    const sketch = {
      kind: 'sketch',
      name: 'Outline',
      plane: 'top',
      entities: rectangle(...at),
      relations: {},
    } as const;
    script.do('step.add', { part: id, id: 's', step: sketch });
    script.do('step.add', { part: id, id: 'e', step: { kind: 'extrude', name: 'Up', sketch: 's', distance: '8 mm' } });
    const where = triple(`${placed[0]} mm`, `${placed[1]} mm`, '0 mm');
    script.do('placement.add', { id, record: { ...placementOf(name, { part: id }, held), at: where } });
  };
  part('base', 'Base', [-60, -30, 20, 60], [0, 0], true);
  part('post', 'Post', [0, 0, 20, 20], [30, 30], true);
  part('arm', 'Arm', [0, -4, 80, 8], [0, 0], false);
  const record: JointRecord = {
    ...{ name: 'Hinge', kind: 'revolute', flip: false, offset: '0 mm', angle: '0 deg' },
    a: { placement: 'base', on: { to: 'origin', name: 'top' }, spot: 'middle' },
    b: { placement: 'arm', on: { to: 'origin', name: 'top' }, spot: 'middle' },
  };
  return script.do('joint.add', { id: 'hinge', record });
}

/** Its upper side is 4 off its axis, and stands where that passes through the nearer corner. */
export const STANDS = ((Math.atan2(30, 50) - Math.asin(4 / Math.hypot(30, 50))) * 180) / Math.PI;
