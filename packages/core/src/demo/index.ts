import { ProjectScript, type Project } from '../document/index.ts';
import { bearingBracket } from './bearing-bracket.ts';
import { crankArm } from './crank-arm.ts';
import { drumEnd } from './drum-end.ts';

const VALUES: readonly (readonly [name: string, expression: string, note: string])[] = [
  ['plate length', '72 mm', 'foot of the bracket, along the frame'],
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
  ['hub wall', '5 mm', 'round the shaft hole of the drum end'],
  ['hub height', '6 mm', ''],
];

/** A hand-cranked seed sieve: the bracket that carries the shaft, the arm of the crank, an end of the drum. */
export function seedSieve(): Project {
  const script = new ProjectScript('Seed sieve');
  for (const [name, expression, note] of VALUES)
    script.do('value.add', { id: script.newId('v'), name, expression, ...(note ? { note } : {}) });
  bearingBracket(script);
  crankArm(script);
  drumEnd(script);
  return script.project;
}
