import { formatAmount } from '@helb/core';
import type { Inspection, PartInspection } from '../inspect.ts';

const triple = (place: readonly number[] | null): string =>
  place ? place.map((c) => formatAmount(c)).join('  ') : '-';

/** The inspection as text to read. */
export function reportOf(project: string, { variant, parts, values, findings }: Inspection): string {
  return [
    `${project}, ${variant}`,
    ...parts.flatMap(partLines),
    '',
    'Values',
    ...values.map(
      ({ name, expression, result, unit }) =>
        `  ${name} = ${expression}  →  ${result === null ? '?' : `${formatAmount(result)} ${unit}`}`,
    ),
    '',
    findings.length === 0 ? 'No findings.' : 'Findings',
    ...findings.map(
      ({ part, step, message }) => `  ${[part, step].filter(Boolean).join(' · ')}${part ? ': ' : ''}${message}`,
    ),
  ].join('\n');
}

function partLines(part: PartInspection): string[] {
  const box = part.box_mm;
  return [
    '',
    part.name,
    ...part.steps.map(
      (step, k) => `  ${k + 1}  ${step.kind} "${step.name}"  ${step.state}${step.message ? `: ${step.message}` : ''}`,
    ),
    ...part.sketches.map(
      (sketch) =>
        `  sketch "${sketch.name}" ${sketch.state}, ${sketch.freedoms} freedoms left, residual ${sketch.residual_mm.toExponential(1)} mm`,
    ),
    `  bodies   ${part.bodies} with ${part.faces} faces`,
    `  volume   ${formatAmount(part.volume_mm3)} mm³`,
    `  area     ${formatAmount(part.area_mm2)} mm²`,
    `  mass     ${part.mass_g === null ? 'no material' : `${formatAmount(part.mass_g)} g`}`,
    `  centre   ${triple(part.centre_mm)} mm`,
    `  inertia  ${triple(part.inertia_g_mm2)} g mm² (xx yy zz xy xz yz, about the centre)`,
    ...part.thinnest.map(
      ({ thickness_mm, at_mm }) => `  thinnest ${formatAmount(thickness_mm)} mm at ${triple(at_mm)} mm`,
    ),
    `  box      ${box ? `${triple(box.low)} mm to ${triple(box.high)} mm` : '-'}`,
  ];
}
