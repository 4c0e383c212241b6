import { doorsFigures } from './doors.ts';
import { handFigures } from './hand.ts';
import { houseFigures } from './house.ts';
import type { Family, Figure } from './measure.ts';
import { motionFigures } from './motion.ts';
import { pageFigures } from './page.ts';
import { rebuildFigures } from './rebuild.ts';
import { sheetFigures } from './sheets.ts';
import { sketchFigures } from './sketch.ts';
import { stepFigures } from './steps.ts';
import { survivalFigures } from './survival.ts';
import { truthFigures } from './truth.ts';

/** The register: later families are a file and a line here. */
const FAMILIES: readonly Family[] = [
  { name: 'sketch', run: sketchFigures },
  { name: 'steps', run: stepFigures },
  { name: 'rebuild', run: rebuildFigures },
  { name: 'survival', run: survivalFigures },
  { name: 'motion', run: motionFigures },
  { name: 'sheets', run: sheetFigures },
  { name: 'truth', run: truthFigures },
  { name: 'doors', run: doorsFigures },
  { name: 'page', run: pageFigures },
  { name: 'hand', run: handFigures },
  { name: 'house', run: houseFigures },
];

const args = process.argv.slice(2);
const json = args.includes('--json');
const name = args.find((arg) => !arg.startsWith('--'));
const chosen = FAMILIES.filter((family) => name === undefined || family.name === name);

if (chosen.length === 0) {
  process.stderr.write(`There is no bench "${name}". Known: ${FAMILIES.map((family) => family.name).join(', ')}.\n`);
  process.exitCode = 1;
} else {
  const figures: Figure[] = [];
  for (const family of chosen) figures.push(...(await family.run()));
  process.stdout.write(json ? `${JSON.stringify(figures, null, 2)}\n` : `${figures.map(line).join('\n')}\n`);
}

function line({ name: title, value, unit, floor, ratio, aim, met }: Figure): string {
  const number = (n: number) => (n >= 100 ? n.toFixed(0) : n.toFixed(2));
  const against = floor === null || ratio === null ? '' : `  floor ${number(floor)} ${unit}, ratio ${ratio.toFixed(2)}`;
  const verdict = met === null ? '' : met ? '  met' : '  NOT MET';
  return `${title}: ${number(value)} ${unit}${against}${aim ? `  (${aim})` : ''}${verdict}`;
}
