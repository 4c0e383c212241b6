import { perform, ProjectScript, type Project } from '../../document/index.ts';
import { valueScope } from '../../expressions/index.ts';
import type { SketchStep } from '../../steps/index.ts';
import { solved } from '../../steps/index.ts';
import { explain } from '../../wording/index.ts';
import { FigureBuilder, filled, rectangle, type Pattern } from '../index.ts';

/** A plate with a hole in its left part, the hole repeated. */
function plate(pattern: Pattern) {
  let ids = 0;
  const b = new FigureBuilder((prefix) => `${prefix}${++ids}`);
  rectangle(b, [0, 0], [100, 60]);
  const centre = b.place([50, 30]);
  b.circle(b.place([12, 30]), 4);
  const sketch: SketchStep = { kind: 'sketch', name: 'S', plane: 'top', entities: b.entities, relations: {} };
  const script = new ProjectScript('T').do('part.add', { id: 'p', name: 'P' });
  script.do('value.add', { id: 'v', name: 'holes', expression: '5' });
  script.do('step.add', { part: 'p', id: 's', step: sketch });
  const hole = Object.keys(b.entities).find((id) => b.entities[id]!.kind === 'circle')!;
  const floor = Object.keys(b.entities).find((id) => b.entities[id]!.kind === 'line')!;
  const full: Pattern = { ...pattern, of: [hole], ...(pattern.layout === 'line' ? { along: floor } : { centre }) };
  return { project: script.project, full, hole, centre };
}

const act = (project: Project, ...actions: Parameters<typeof perform>[1]) => {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
};
const sketchOf = (project: Project) => project.parts['p']!.steps['s'] as SketchStep;
const drawnOf = (project: Project) => solved(sketchOf(project), valueScope(Object.values(project.values), 'mm'));
const openings = (project: Project) => filled(drawnOf(project).regions)[0]!.holes.length;

const row: Pattern = { layout: 'line', of: ['x'], along: 'x', count: 'holes', spacing: '18 mm' };
const ring: Pattern = { layout: 'round', of: ['x'], centre: 'x', count: '6', over: '360 deg' };

test('along a line: as many as the value says, as far apart as typed; both can change', () => {
  const { project, full, hole } = plate(row);
  const after = act(project, { command: 'sketch.pattern', input: { part: 'p', step: 's', id: 'pt', pattern: full } });
  expect(openings(after)).toBe(5);
  const { copies } = drawnOf(after);
  const third = copies[`pt.2.${hole}`] as { centre: string };
  expect(copies[third.centre]).toMatchObject({ x: 12 + 36, y: 30 });
  const fewer = act(after, { command: 'value.set', input: { id: 'v', expression: '3' } });
  expect(openings(fewer)).toBe(3);
});

test('round a centre: a full turn evenly, a part of it from end to end', () => {
  const { project, full, hole } = plate({ ...ring, over: '180 deg', count: '3' });
  const half = act(project, { command: 'sketch.pattern', input: { part: 'p', step: 's', id: 'pt', pattern: full } });
  const { copies } = drawnOf(half);
  const last = copies[`pt.2.${hole}`] as { centre: string };
  const { x, y } = copies[last.centre] as { x: number; y: number };
  expect([x, y].map((c) => Math.round(c * 1e9) / 1e9)).toEqual([88, 30]);
});

test('a count that is no whole number is told, the rest of the sketch stays', () => {
  const { project, full } = plate(row);
  const after = act(project, {
    command: 'sketch.pattern',
    input: { part: 'p', step: 's', id: 'pt', pattern: { ...full, count: '2.5' } },
  });
  expect(explain(drawnOf(after).issue!)).toContain('not a whole number');
  expect(openings(after)).toBe(1);
});

test('the pattern goes with what it repeats, and by itself; the copies are no entities of the sketch', () => {
  const { project, full, hole } = plate(row);
  const after = act(project, { command: 'sketch.pattern', input: { part: 'p', step: 's', id: 'pt', pattern: full } });
  expect(
    sketchOf(act(after, { command: 'sketch.erase', input: { part: 'p', step: 's', ids: [hole] } })).patterns,
  ).toBeUndefined();
  expect(
    sketchOf(act(after, { command: 'sketch.erase', input: { part: 'p', step: 's', ids: ['pt'] } })).patterns,
  ).toBeUndefined();
  expect(Object.keys(sketchOf(after).entities)).toHaveLength(Object.keys(sketchOf(project).entities).length);
});

test('a pattern of what is not there is refused', () => {
  const { project, full } = plate(row);
  const input = { part: 'p', step: 's', id: 'pt', pattern: { ...full, of: ['nothing'] } };
  expect(perform(project, [{ command: 'sketch.pattern', input }]).ok).toBe(false);
});
