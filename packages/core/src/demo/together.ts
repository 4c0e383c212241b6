import { faceName } from '../naming/index.ts';
import { placementOf, triple, type JointRecord, type Placement, type Side, type Triple } from '../assembly/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import type { OriginThing, Reference } from '../references/index.ts';
import type { Bracket } from './bearing-bracket.ts';
import type { Shaft, ThrowWheel } from './drive.ts';

/** The parts of the sieve, and what of them is joined. */
interface SieveParts {
  readonly base: Id;
  readonly side: Id;
  readonly rail: Id;
  readonly bracket: Bracket;
  readonly shaft: Shaft;
  readonly wheel: ThrowWheel;
  readonly stud: Id;
  readonly drumEnd: Id;
  readonly crank: { readonly part: Id; readonly sketch: Id; readonly pinHole: Id };
  readonly crankPin: Id;
  readonly knob: Id;
  readonly rod: { readonly part: Id; readonly sketch: Id; readonly near: Id; readonly far: Id };
  /** The long side of the tray that the stud stands on. */
  readonly tray: { readonly part: Id; readonly wall: Reference };
  readonly hopper: Id;
  readonly spout: Id;
}

/** x is the way of the tray, y across, z up; the base lies under z = 0. */
export function putTogether(script: ProjectScript, parts: SieveParts): void {
  const place = (id: Id, name: string, part: Id, more: Partial<Placement> = {}) =>
    script.do('placement.add', { id, record: { ...placementOf(name, { part }), ...more } });
  const shaftAt = (y: string): Triple => triple('0 mm', y, 'shaft height');
  const towards = { front: triple('90 deg', '0 deg', '0 deg'), back: triple('-90 deg', '0 deg', '0 deg') };
  place('base', 'Base', parts.base, { held: true });
  place('side-r', 'Right side', parts.side, { at: triple('0 mm', '-frame width / 2', '0 mm') });
  place('side-l', 'Left side', parts.side, { at: triple('0 mm', 'frame width / 2 + frame sheet', '0 mm') });
  place('rails', 'Rail', parts.rail, {
    at: triple('0 mm', '-(tray width / 2 - 12 mm)', '0 mm'),
    repeat: { layout: 'line', count: '2', by: triple('0 mm', 'tray width - 24 mm', '0 mm') },
  });
  place('outer', 'Outer bearing', parts.bracket.part, {
    at: shaftAt('-(frame width / 2 + frame sheet)'),
    turn: towards.front,
  });
  // both on one side: where the rod passes the shaft has to end
  place('inner', 'Inner bearing', parts.bracket.part, { at: shaftAt('-frame width / 2'), turn: towards.back });
  place('shaft', 'Shaft', parts.shaft.part, { at: shaftAt('tray width / 2'), turn: towards.front });
  place('wheel', 'Throw wheel', parts.wheel.part, {
    at: shaftAt('tray width / 2 - wheel thickness'),
    turn: towards.back,
  });
  place('drum-a', 'Left drum end', parts.drumEnd, { at: shaftAt('tray width / 2 - wheel thickness - 2 mm') });
  place('drum-b', 'Right drum end', parts.drumEnd, { at: shaftAt('24 mm - tray width / 2') });
  place('crank', 'Crank', parts.crank.part);
  place('pin', 'Crank pin', parts.crankPin);
  place('knob', 'Knob', parts.knob);
  place('throw', 'Throw stud', parts.stud);
  place('rod', 'Rod', parts.rod.part, { turn: towards.back });
  place('tray', 'Tray', parts.tray.part, { at: triple('-rod reach', '0 mm', 'rail height') });
  place('lug', 'Tray stud', parts.stud);
  place('hopper', 'Hopper', parts.hopper, { at: triple('0 mm', '0 mm', 'shaft height + drum / 2 + 36 mm') });
  place('spout', 'Spout', parts.spout, {
    at: triple('0 mm', '0 mm', 'shaft height + drum / 2 + 36 mm'),
    turn: triple('180 deg', '0 deg', '0 deg'),
  });

  const on = (placement: Id, reference: OriginThing | Reference, spot: Side['spot'] = 'middle'): Side => ({
    placement,
    on: typeof reference === 'string' ? { to: 'origin', name: reference } : reference,
    spot,
  });
  const drawn = (step: Id, entity: Id): Reference => ({ to: 'drawn', step, entity });
  const join = (
    name: string,
    kind: JointRecord['kind'],
    a: Side,
    b: JointRecord['b'],
    more: Partial<JointRecord> = {},
  ) =>
    script.do('joint.add', {
      id: script.newId('j'),
      record: { name, kind, a, b, flip: false, offset: '0 mm', angle: '0 deg', ...more },
    });
  // drawn in place: these stay where they are drawn
  for (const [name, placement] of [
    ['Right side in its slots', 'side-r'],
    ['Left side in its slots', 'side-l'],
    ['Rails on the base', 'rails'],
    ['Hopper on the frame', 'hopper'],
  ] as const)
    join(name, 'rigid', on('base', 'origin'), { placement });
  join('Outer bearing on its side', 'rigid', on('side-r', 'front'), { placement: 'outer' });
  join('Inner bearing on its side', 'rigid', on('side-r', 'front'), { placement: 'inner' });
  join('Spout under the hopper', 'rigid', on('hopper', 'origin'), { placement: 'spout' });
  join('Shaft', 'revolute', on('outer', 'z'), { placement: 'shaft' }, { rest: { turn: '40 deg' } });
  join('Wheel on the shaft', 'rigid', on('shaft', 'z'), { placement: 'wheel' });
  join('Left drum end on the shaft', 'rigid', on('shaft', 'z'), { placement: 'drum-a' });
  join('Right drum end on the shaft', 'rigid', on('shaft', 'z'), { placement: 'drum-b' });
  // brought together
  join(
    'Crank on the shaft',
    'rigid',
    on('shaft', { to: 'face', name: faceName(parts.shaft.end, 'end') }),
    on('crank', 'top'),
    {
      offset: '-crank thickness',
    },
  );
  const pinHole = drawn(parts.crank.sketch, parts.crank.pinHole);
  join('Pin in the crank', 'rigid', on('crank', pinHole), on('pin', 'top'));
  join('Knob on its pin', 'revolute', on('crank', pinHole), on('knob', 'top'), {
    offset: 'crank thickness',
    rest: { turn: '0 deg' },
  });
  join('Stud on the wheel', 'rigid', on('wheel', drawn(parts.wheel.sketch, parts.wheel.seat)), on('throw', 'top'), {
    offset: 'wheel thickness',
  });
  join('Rod on the wheel', 'revolute', on('throw', 'top'), on('rod', drawn(parts.rod.sketch, parts.rod.near)), {
    offset: 'stud height',
  });
  join('Stud on the tray', 'rigid', on('tray', parts.tray.wall), on('lug', 'top'));
  join('Rod on the tray', 'revolute', on('lug', 'top'), on('rod', drawn(parts.rod.sketch, parts.rod.far)), {
    offset: 'stud height',
  });
  join('Tray on its rails', 'prismatic', on('base', 'x'), { placement: 'tray' });
  script.do('trace.add', {
    id: script.newId('t'),
    record: { name: 'End of the rod', placement: 'rod', on: drawn(parts.rod.sketch, parts.rod.near) },
  });
  const idOf = (name: string): Id =>
    Object.entries(script.project.assembly!.joints).find(([, joint]) => joint.name === name)![0];
  const tray = { joint: idOf('Tray on its rails'), coordinate: 'slide' } as const;
  script.do('study.add', {
    id: script.newId('sy'),
    study: {
      name: 'One turn',
      drives: [{ joint: idOf('Shaft'), coordinate: 'turn', from: '0 deg', to: '360 deg' }],
      ...{ law: 'even', seconds: '2', steps: '72', touching: true },
      charts: {
        way: { of: 'coordinate', end: tray, shown: 'value' },
        shake: { of: 'coordinate', end: tray, shown: 'acceleration' },
      },
    },
  });
}
