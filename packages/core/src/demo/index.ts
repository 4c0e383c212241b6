import { ProjectScript, type Project } from '../document/index.ts';
import { bearingBracket } from './bearing-bracket.ts';
import { crankArm } from './crank-arm.ts';
import { connectingRod } from './connecting-rod.ts';
import { crankKnob } from './crank-knob.ts';
import { drumEnd } from './drum-end.ts';
import { hopper } from './hopper.ts';
import { spout } from './spout.ts';
import { tray } from './tray.ts';

const VALUES: readonly (readonly [name: string, expression: string, note: string])[] = [
  ['plate length', '72 mm', 'foot of the bracket'],
  ['plate width', 'plate length * 2 / 3', ''],
  ['plate thickness', '8 mm', 'the offcuts that we have'],
  ['bolt hole', '5.5 mm', 'clearance for M5'],
  ['edge distance', 'bolt hole * 1.5', 'from hole centre to edge'],
  ['shaft', '12 mm', 'crank shaft of the sieve'],
  ['boss wall', '6 mm', ''],
  ['boss height', '20 mm', 'above the plate'],
  ['crank length', '64 mm', 'from shaft to knob'],
  ['crank thickness', '6 mm', ''],
  ['crank wall', '5 mm', 'round both holes'],
  ['knob pin', '6 mm', ''],
  ['drum', '120 mm', 'outside'],
  ['drum sheet', '9 mm', 'plywood'],
  ['drum bolts', '8', ''],
  ['bolt ring', 'drum / 2 - edge distance', 'from the shaft to the bolts'],
  ['slot width', '10 mm', ''],
  ['hub wall', '5 mm', 'round the shaft hole'],
  ['hub height', '6 mm', ''],
  ['knob', '28 mm', 'the head, across'],
  ['knob height', '26 mm', ''],
  ['grips', '9', 'grooves round the knob'],
  ['rod length', '110 mm', 'between its pins'],
  ['rod width', '18 mm', ''],
  ['rod sheet', '5 mm', ''],
  ['hopper inlet', '120 mm', ''],
  ['hopper outlet', '36 mm', ''],
  ['hopper height', '70 mm', ''],
  ['hopper wall', '3 mm', ''],
  ['tray length', '160 mm', ''],
  ['tray width', '100 mm', ''],
  ['tray height', '24 mm', ''],
  ['tray corner', '10 mm', ''],
  ['tray sheet', '1.5 mm', ''],
  ['drain', '4 mm', ''],
  ['drain pitch', '18 mm', ''],
  ['spout flange', '52 mm', ''],
  ['spout neck', '28 mm', ''],
  ['spout pitch', '4 mm', 'of the thread on the neck'],
];

/** A hand-cranked seed sieve: bracket, crank with its knob and rod, an end of the drum, hopper, spout and tray. */
export function seedSieve(): Project {
  const script = new ProjectScript('Seed sieve');
  for (const [name, expression, note] of VALUES)
    script.do('value.add', { id: script.newId('v'), name, expression, ...(note ? { note } : {}) });
  bearingBracket(script);
  crankArm(script);
  drumEnd(script);
  crankKnob(script);
  connectingRod(script);
  hopper(script);
  tray(script);
  spout(script);
  return script.project;
}
