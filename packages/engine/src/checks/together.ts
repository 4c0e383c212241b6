import { foundTogether } from '../inspect-assembly.ts';
import type { Check, CheckFinding } from './kind.ts';

/** Joints that do not hold, and parts that stand in each other. */
export const together: Check = {
  title: 'parts together',
  async look({ project, engine, pause }) {
    if (Object.keys(project.assembly?.placements ?? {}).length === 0) return [];
    const { assembled, interferences } = await engine.interference(project, { pause: () => pause('parts together') });
    return foundTogether(project, assembled, interferences).map(({ code, message, about }): CheckFinding => {
      const placements = assembled.members.flatMap(({ id }) => (about.includes(id) ? [id] : []));
      return { code, blocks: 'fit', words: message, placements };
    });
  },
};
