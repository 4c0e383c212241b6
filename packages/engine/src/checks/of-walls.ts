import { evaluate, explain, issue, LENGTH, USUAL_LIMITS, valueScope } from '@helb/core';
import { EXPORT_QUALITY } from '../tessellation.ts';
import type { Check, CheckFinding } from './kind.ts';

/** Walls thinner than can be made. */
export const ofWalls: Check = {
  title: 'walls',
  async look({ project, engine, model, pause }) {
    const scope = valueScope(Object.values(project.values), project.unit);
    const limit = evaluate(project.limits?.wall ?? USUAL_LIMITS.wall, LENGTH, scope);
    if (!limit.ok) return [{ code: limit.issue.code, blocks: 'shop', words: explain(limit.issue) }];
    const found: CheckFinding[] = [];
    for (const { id, bodies } of model.parts) {
      if (bodies.length === 0) continue;
      await pause(`walls of ${project.parts[id]!.name}`);
      const walls = await engine.walls(project, id, { mesh: EXPORT_QUALITY });
      const least = Math.min(...walls.map(({ walls: { thinnest } }) => thinnest.thickness_mm));
      if (least >= limit.value - SLACK) continue;
      const thin = issue('wall.thin', { is: least, least: limit.value });
      found.push({ code: thin.code, blocks: 'shop', words: explain(thin, project.unit), part: id });
    }
    return found;
  },
};

/** Walls are measured on a mesh, mm. */
const SLACK = 0.02;
