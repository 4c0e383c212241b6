import { assemblyFindings } from '../inspect-assembly.ts';
import type { Check, CheckFinding } from './kind.ts';

/** Joints that do not hold, and parts that stand in each other. */
export const together: Check = {
  title: 'parts together',
  async look({ project, engine, pause }) {
    if (Object.keys(project.assembly?.placements ?? {}).length === 0) return [];
    const { assembled, encounters } = await engine.interference(project, { pause: () => pause('parts together') });
    const members = new Map(assembled.members.map(({ id, name }) => [name, id]));
    return assemblyFindings(project, assembled, encounters).map(({ code, message }): CheckFinding => {
      const placements = [...members].flatMap(([name, id]) => (message.includes(name) ? [id] : []));
      return { code, blocks: 'fit', words: message, placements };
    });
  },
};
