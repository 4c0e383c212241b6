import { formatAmount, formatMeasured } from '@helb/core';
import type { Inspection, PartInspection } from '../inspect.ts';
import type { AssemblyInspection } from '../inspect-assembly.ts';

const triple = (place: readonly number[] | null): string =>
  place ? place.map((c) => formatAmount(c)).join('  ') : '-';

/** The inspection as text to read. */
export function reportOf(project: string, { variant, parts, assembly, values, findings }: Inspection): string {
  return [
    `${project}, ${variant}`,
    ...parts.flatMap(partLines),
    ...(assembly ? assemblyLines(assembly) : []),
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

const freedoms = ({ freedoms: left }: { freedoms: number }) => `${left} ${left === 1 ? 'freedom' : 'freedoms'} left`;

/** Told where it would be seen. */
const unsure = (off: number): string => (off > 5e-4 ? ` ± ${formatAmount(off)}` : '');

function partLines(part: PartInspection): string[] {
  const box = part.box_mm;
  return [
    '',
    part.name,
    ...(part.from
      ? [
          `  from "${part.from.project}"${part.from.variant ? ` as ${part.from.variant}` : ''}, revision ${part.from.revision}`,
        ]
      : []),
    ...(part.from?.given ?? []).map(({ name, expression }) => `  given ${name} = ${expression}`),
    ...part.takes_from.map(({ part: from, steps }) => `  takes from ${from} by ${steps.join(', ')}`),
    ...part.steps.map(
      (step, k) => `  ${k + 1}  ${step.kind} "${step.name}"  ${step.state}${step.message ? `: ${step.message}` : ''}`,
    ),
    ...part.sketches.map(
      (sketch) =>
        `  sketch "${sketch.name}" ${sketch.state}, ${freedoms(sketch)}, residual ${sketch.residual_mm.toExponential(1)} mm`,
    ),
    ...(part.trouble === null ? [] : [`  ! ${part.trouble}`]),
    `  bodies   ${part.bodies} with ${part.faces} faces`,
    `  volume   ${formatMeasured(part.volume_mm3, part.off.volume_mm3)} mm³`,
    `  area     ${formatMeasured(part.area_mm2, part.off.area_mm2)} mm²`,
    `  mass     ${part.mass_g === null ? 'no material' : `${formatMeasured(part.mass_g, part.off.mass_g)} g`}`,
    `  centre   ${triple(part.centre_mm)}${unsure(part.off.centre_mm)} mm`,
    `  inertia  ${triple(part.inertia_g_mm2)} g mm² (xx yy zz xy xz yz, about the centre)`,
    ...part.thinnest.map(
      ({ thickness_mm, at_mm }) => `  thinnest ${formatAmount(thickness_mm)} mm at ${triple(at_mm)} mm`,
    ),
    `  box      ${box ? `${triple(box.low)} mm to ${triple(box.high)} mm` : '-'}`,
  ];
}

function assemblyLines(assembly: AssemblyInspection): string[] {
  const box = assembly.box_mm;
  const range = ({ least, most, unit }: AssemblyInspection['joints'][number]['coordinates'][number]) =>
    least === null && most === null
      ? ''
      : ` (${least === null ? '' : `from ${formatAmount(least)} `}${most === null ? '' : `to ${formatAmount(most)} `}${unit})`;
  return [
    '',
    `Assembly, ${freedoms(assembly)}`,
    ...assembly.placements.map(
      ({ name, part, at_mm, turn_deg, moves }) =>
        `  ${name} (${part})  at ${triple(at_mm)} mm, turned ${triple(turn_deg)} deg  ${moves}`,
    ),
    ...assembly.joints.flatMap(({ name, kind, coordinates, message }) => [
      `  joint "${name}" ${kind}${message ? `: ${message}` : ''}`,
      ...coordinates.map(
        (coordinate) =>
          `    ${coordinate.name} ${formatAmount(coordinate.value)} ${coordinate.unit}${range(coordinate)}`,
      ),
    ]),
    '  Make-up',
    ...assembly.makeUp.map(
      ({ name, count, material, mass_g, size_mm }) =>
        `    ${count} x ${name}, ${material ?? 'no material'}, ${mass_g === null ? '?' : `${formatAmount(mass_g)} g`} each, ${triple(size_mm)} mm`,
    ),
    `  mass     ${formatMeasured(assembly.mass_g, assembly.off.mass_g)} g${assembly.unknown > 0 ? `, without ${assembly.unknown} placements of no material` : ''}`,
    `  centre   ${triple(assembly.centre_mm)}${unsure(assembly.off.centre_mm)} mm`,
    `  box      ${box ? `${triple(box.low)} mm to ${triple(box.high)} mm` : '-'}`,
    ...(assembly.interference ?? []).map(({ a, b, overlap_mm3, at_mm, compared, pressed }) => {
      if (!compared) return `  ${a} and ${b} could not be compared`;
      return `  ${a} and ${b} overlap by ${formatAmount(overlap_mm3)} mm³ at ${triple(at_mm)} mm${pressed ? ', as they are meant to' : ''}`;
    }),
  ];
}
