import { ProjectScript, type Project } from '@helb/core';
import { placementOf, triple, type JointRecord } from '@helb/core/assembly';
import { apartOf, lockDisc, outline, rectangle, slottedWheel, type Leg } from '@helb/core/samples';

/** Parts from outlines, placed at places of the plane; each turns about z at its own origin on a base that stands still. */
export class Plates {
  readonly script = new ProjectScript('Plates');

  constructor() {
    this.part('base', [{ entities: rectangle(-5, -5, 10, 10), height: '2 mm', from: '-40 mm' }]);
    this.script.do('placement.add', { id: 'base', record: placementOf('Base', { part: 'base' }, true) });
  }

  part(id: string, layers: readonly { entities: ReturnType<typeof rectangle>; height: string; from?: string }[]): this {
    this.script.do('part.add', { id, name: id });
    layers.forEach(({ entities, height, from = '0 mm' }, k) => {
      const plane = {
        kind: 'datum-plane',
        name: `${id} plane ${k}`,
        how: 'offset',
        on: [{ to: 'origin', name: 'top' }],
        by: from,
      };
      this.script.do('step.add', { part: id, id: `d${k}`, step: plane as never });
      const sketch = {
        kind: 'sketch',
        name: `${id} ${k}`,
        plane: { to: 'datum', step: `d${k}` },
        entities,
        relations: {},
      };
      this.script.do('step.add', { part: id, id: `s${k}`, step: sketch as never });
      const step = { kind: 'extrude', name: `${id} up ${k}`, sketch: `s${k}`, distance: height };
      this.script.do('step.add', { part: id, id: `e${k}`, step: step as never });
    });
    return this;
  }

  turning(id: string, x: string): this {
    const record = { ...placementOf(id, { part: id }), at: triple(x, '0 mm', '0 mm') };
    const joint: JointRecord = {
      ...{ name: `${id} turns`, kind: 'revolute', flip: false, offset: '40 mm', angle: '0 deg' },
      a: { placement: 'base', on: { to: 'origin', name: 'top' }, spot: 'middle' },
      b: { placement: id, on: { to: 'origin', name: 'top' }, spot: 'middle' },
      aside: [x, '0 mm'],
    };
    this.script.do('placement.add', { id, record });
    this.script.do('joint.add', { id: `j-${id}`, record: { ...joint, offset: '0 mm' } });
    return this;
  }

  fixed(id: string): this {
    this.script.do('placement.add', { id, record: placementOf(id, { part: id }, true) });
    return this;
  }

  touching(): Project {
    this.script.do('contact.set', { id: 'all', contact: { on: true } });
    return this.script.project;
  }
}

/** A wheel of six slots that a pin of 8 mm with play to either side moves on, mm. */
const SLOTTED = { slots: 6, arm: 36, slot: 8.3, recess: 28.3, lock: 28, play: 0.15 } as const;

/** That wheel as parts, all of which may touch; how far its axes are apart, and the rest of its sizes, mm. */
export function slottedWheelProject(): { readonly project: Project; readonly apart: number } & typeof SLOTTED {
  const apart = apartOf(SLOTTED);
  const entitiesOf = ({ start, legs }: { start: readonly [number, number]; legs: readonly Leg[] }) =>
    outline(start, legs);
  const pin = outline(
    [-32, 0],
    [
      { to: [-40, 0], about: [-36, 0] },
      { to: [-32, 0], about: [-36, 0] },
    ],
  );
  const project = new Plates()
    .part('wheel', [{ entities: entitiesOf(slottedWheel(SLOTTED)), height: '8 mm' }])
    .part('driver', [
      { entities: entitiesOf(lockDisc(SLOTTED)), height: '8 mm' },
      { entities: pin, height: '12 mm', from: '-2 mm' },
    ])
    .turning('wheel', '0 mm')
    .turning('driver', `${apart} mm`)
    .touching();
  return { ...SLOTTED, project, apart };
}
