import { ACCEPT_WORDS } from '../references/index.ts';
import { askWords, initialWords, type StepKind } from '../steps/index.ts';

interface Register<N extends string, S> {
  readonly names: readonly N[];
  kind(name: N): StepKind<S, unknown>;
}

/** The text of docs/steps.md, from the register of steps: `./helb docs` writes it, a test compares it. */
export function stepsPage<N extends string, S>({ names, kind }: Register<N, S>): string {
  return `# The steps

This page is written by \`./helb docs\` from the register in \`packages/core/src/steps\`; a test fails when it is out of date.
Fields that are left out are as usual. Numbers are expressions, in any unit of what they ask; picks are references (see
\`format.md\`). Steps with a result are made as a new body, added, cut away, or reduced to the overlap.

${names.map((name) => stepPart(name, kind(name))).join('\n')}`;
}

function stepPart<S>(name: string, { title, verb, fields, ways, picks }: StepKind<S, unknown>): string {
  const head = `## ${title} (\`${name}\`)\n${verb ? `\n${verb.says}\n` : ''}`;
  if (ways) {
    const lines = ways.map((how) => {
      const asked = picks!({ kind: name, name: 'x', how, on: [] } as unknown as S);
      return `- \`${how}\`: ${asked.map(({ label, accepts }) => `${label} (${ACCEPT_WORDS[accepts]})`).join('; ')}`;
    });
    return `${head}\nMade in one of several ways (\`how\`); \`on\` lists what it builds on, \`by\` is the offset or the angle.\n\n${lines.join('\n')}\n`;
  }
  if (!fields) return `${head}\nDrawn: entities, relations, patterns and loans on a plane; see \`format.md\`.\n`;
  const rows = Object.entries(fields).map(
    ([field, spec]) => `| \`${field}\` | ${spec.label} | ${askWords(spec)} | ${initialWords(spec)} |`,
  );
  return `${head}\n| field | what | asks for | usual |\n| --- | --- | --- | --- |\n${rows.join('\n')}\n`;
}
