import { ProjectScript, type Project, type Value } from '../document/index.ts';
import { bearingBracket } from './bearing-bracket.ts';
import { crankArm } from './crank-arm.ts';
import { connectingRod } from './connecting-rod.ts';
import { crankKnob } from './crank-knob.ts';
import { crankPin, shaft, stud, throwWheel } from './drive.ts';
import { drumEnd } from './drum-end.ts';
import { basePlate, boltHoles, rail, sidePlate } from './frame.ts';
import { hopper } from './hopper.ts';
import { drawSheets } from './sheets.ts';
import { spout } from './spout.ts';
import { putTogether } from './together.ts';
import { tray } from './tray.ts';

/** The named values, group by group. */
const VALUES: Readonly<Record<string, readonly (readonly [name: string, expression: string, note: string])[]>> = {
  Bearing: [
    ['plate length', '72 mm', 'foot of the bracket'],
    ['plate width', 'plate length * 2 / 3', ''],
    ['plate thickness', '8 mm', 'the offcuts that we have'],
    ['bolt hole', '5.5 mm', 'clearance for M5'],
    ['edge distance', 'bolt hole * 1.5', 'from hole centre to edge'],
    ['shaft', '12 mm', 'crank shaft of the sieve'],
    ['boss wall', '6 mm', ''],
    ['boss height', '20 mm', 'above the plate'],
  ],
  Crank: [
    ['crank length', '64 mm', 'from shaft to knob'],
    ['crank thickness', '6 mm', ''],
    ['crank wall', '5 mm', 'round both holes'],
    ['knob pin', '6 mm', ''],
    ['knob', '28 mm', 'the head, across'],
    ['knob height', '26 mm', ''],
    ['grips', '9', 'grooves round the knob'],
  ],
  Drum: [
    ['drum', '120 mm', 'outside'],
    ['drum sheet', '9 mm', 'plywood'],
    ['drum bolts', '8', ''],
    ['bolt ring', 'drum / 2 - edge distance', 'from the shaft to the bolts'],
    ['slot width', '10 mm', ''],
    ['hub wall', '5 mm', 'round the shaft hole'],
    ['hub height', '6 mm', ''],
  ],
  Rod: [
    ['rod length', '110 mm', 'between its pins'],
    ['rod width', '18 mm', ''],
    ['rod sheet', '5 mm', ''],
  ],
  Hopper: [
    ['hopper inlet', '120 mm', ''],
    ['hopper outlet', '36 mm', ''],
    ['hopper height', '70 mm', ''],
    ['hopper wall', '3 mm', ''],
  ],
  Tray: [
    ['tray length', '160 mm', ''],
    ['tray width', '100 mm', ''],
    ['tray height', '24 mm', ''],
    ['tray corner', '10 mm', ''],
    ['tray sheet', '1.5 mm', ''],
    ['drain', '4 mm', ''],
    ['drain pitch', '18 mm', ''],
  ],
  Frame: [
    ['frame sheet', '6 mm', 'drives tabs, slots and where all stands'],
    ['frame length', '280 mm', ''],
    ['frame width', 'tray width + 44 mm', 'between the sides'],
    ['frame height', 'shaft height + drum / 2 + 36 mm', 'up to the hopper'],
    ['tab width', '30 mm', ''],
    ['tab spacing', '160 mm', 'from tab to tab'],
    ['tab play', '0.1 mm', 'round each tab'],
    ['rail height', '10 mm', ''],
    ['shaft height', 'rail height + tray height + 10 mm + drum / 2', 'the drum clears the tray'],
  ],
  Drive: [
    ['throw', '15 mm', 'half the way of the tray'],
    ['wheel thickness', '8 mm', ''],
    ['stud flange', '14 mm', ''],
    ['stud height', '4 mm', ''],
    [
      'shaft length',
      '(frame width + tray width) / 2 + frame sheet + plate thickness + boss height + crank thickness + 4 mm',
      'through both bearings and the crank, up to the wheel',
    ],
    ['rod drop', 'shaft height - rail height - tray height / 2', 'from the shaft down to the stud of the tray'],
    ['rod reach', 'sqrt(rod length * rod length - rod drop * rod drop)', 'along the rails, in the middle of its way'],
  ],
  Spout: [
    ['spout flange', '52 mm', ''],
    ['spout neck', '28 mm', ''],
    ['spout pitch', '4 mm', 'of the thread on the neck'],
  ],
};

/** What some of them may come to. */
const ALLOWED: Readonly<Record<string, NonNullable<Value['allowed']>>> = {
  'plate thickness': { list: ['6 mm', '8 mm', '10 mm'] },
  shaft: { least: '5 mm', most: '30 mm' },
  'drum bolts': { least: '3', most: '16' },
  'tray sheet': { least: '0.8 mm', most: '3 mm' },
};

/** The sieve on the bench is as drawn; a smaller one for the table, a larger one for a school. */
const VARIANTS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  table: {
    'plate length': '66 mm',
    'crank length': '52 mm',
    'tray length': '130 mm',
    'tray width': '84 mm',
    'hopper inlet': '100 mm',
  },
  school: {
    'crank length': '76 mm',
    drum: '150 mm',
    'rod length': '130 mm',
    'hopper inlet': '150 mm',
    'tray length': '200 mm',
    'tray width': '124 mm',
    'tray sheet': '2 mm',
  },
};

/** A hand-cranked seed sieve: a frame of plates, the crank that turns the drum and shakes the tray, hopper and spout. */
export function seedSieve(): Project {
  const script = new ProjectScript('Seed sieve');
  script.do('variant.rename', { name: 'bench' });
  for (const name of Object.keys(VARIANTS)) script.do('variant.add', { id: script.newId('x'), name });
  for (const [group, values] of Object.entries(VALUES))
    for (const [name, expression, note] of values)
      addValue(script, group, { name, expression, ...(note ? { note } : {}) });
  const parts = {
    bracket: bearingBracket(script),
    crank: crankArm(script),
    drumEnd: drumEnd(script),
    knob: crankKnob(script),
    rod: connectingRod(script),
    hopper: hopper(script),
    tray: tray(script),
    spout: spout(script),
    base: basePlate(script),
    side: sidePlate(script),
    rail: rail(script),
    shaft: shaft(script),
    wheel: throwWheel(script),
    stud: stud(script),
    crankPin: crankPin(script),
  };
  putTogether(script, parts);
  boltHoles(script, parts.side, parts.bracket);
  drawSheets(script, { bracket: parts.bracket.part, knob: parts.knob, tray: parts.tray.part });
  return script.project;
}

function addValue(script: ProjectScript, group: string, value: Value): void {
  const id = script.newId('v');
  script.do('value.add', { id, ...value }).do('value.group', { id, group });
  const allowed = ALLOWED[value.name];
  if (allowed) script.do('value.allow', { id, allowed });
  for (const variant of script.project.variantOrder ?? []) {
    const expression = VARIANTS[script.project.variants![variant]!.name]![value.name];
    if (expression !== undefined) script.do('variant.set', { id: variant, value: id, expression });
  }
}
