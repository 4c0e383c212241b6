import { ACCEPT_WORDS } from '../references/index.ts';
import { isNumber } from '../units/index.ts';
import { STEP_NAMES, stepKind, type Field, type Step } from '../steps/index.ts';

/** The text of docs/steps.md, from the register of steps: `./helb docs` writes it, a test compares it. */
export function stepsPage(): string {
  return `# The steps

This page is written by \`./helb docs\` from the register in \`packages/core/src/steps\`; a test fails when it is out of date.
Fields that are left out are as usual. Numbers are expressions, in any unit of what they ask; picks are references (see
\`format.md\`). Steps with a result are made as a new body, added, cut away, or reduced to the overlap.

${STEP_NAMES.map(stepPart).join('\n')}`;
}

function stepPart(name: (typeof STEP_NAMES)[number]): string {
  const { title, fields, ways, picks } = stepKind(name);
  const head = `## ${title} (\`${name}\`)\n`;
  if (ways) {
    const lines = ways.map((how) => {
      const asked = picks!({ kind: name, name: 'x', how, on: [] } as unknown as Step);
      return `- \`${how}\`: ${asked.map(({ label, accepts }) => `${label} (${ACCEPT_WORDS[accepts]})`).join('; ')}`;
    });
    return `${head}\nMade in one of several ways (\`how\`); \`on\` lists what it builds on, \`by\` is the offset or the angle.\n\n${lines.join('\n')}\n`;
  }
  if (!fields) return `${head}\nDrawn: entities, relations, patterns and loans on a plane; see \`format.md\`.\n`;
  const rows = Object.entries(fields).map(
    ([field, spec]) => `| \`${field}\` | ${spec.label} | ${askWords(spec)} | ${usualWords(spec)} |`,
  );
  return `${head}\n| field | what | asks for | usual |\n| --- | --- | --- | --- |\n${rows.join('\n')}\n`;
}

function askWords(field: Field): string {
  if (field.type === 'number') {
    const { asks, min, max, integer } = field;
    if (asks.angle === 1) return `an angle from ${degrees(min)} to ${degrees(max)} deg`;
    if (asks.length === 1) return `a length from ${min} to ${max} mm`;
    return `${integer ? 'a whole number' : isNumber(asks) ? 'a number' : 'a quantity'} from ${min} to ${max}`;
  }
  if (field.type === 'choice')
    return Object.entries(field.options)
      .map(([value, words]) => `\`${value}\` ${words}`)
      .join(', ');
  if (field.type === 'picks')
    return `${field.min === field.max ? field.min : `${field.min} to ${field.max}`} of: ${ACCEPT_WORDS[field.accepts]}`;
  if (field.type === 'steps') return 'earlier steps';
  if (field.type === 'file') return `a file of the project (${field.endings.join(', ')}): its hash, name and size`;
  return {
    part: 'another part',
    sketch: 'a sketch before it',
    areas: '`outline` or region keys',
    skip: 'numbers of instances',
  }[field.type];
}

const degrees = (rad: number): number => Math.round((rad * 180) / Math.PI);

function usualWords(field: Field): string {
  if (field.type === 'number' || field.type === 'choice') return `\`${field.initial}\``;
  return field.type === 'areas' ? '`outline`' : '';
}
