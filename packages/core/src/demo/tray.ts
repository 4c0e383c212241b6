import { edgeName, faceName } from '../naming/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import type { Reference } from '../references/index.ts';
import { centredRectangle, FigureBuilder, ORIGIN } from '../sketch/index.ts';
import { addSketch, addStep, endOf, newPart } from './parts.ts';

/** The tray under the drum: a shell with soft corners, and rows of drain holes in its floor. */
export function tray(script: ProjectScript): { part: Id; wall: Reference } {
  const part = newPart(script, 'Tray', 5, ['Stainless steel 1.4301', 7900]);
  const builder = new FigureBuilder(script.newId);
  const [p, q, r] = centredRectangle(builder, ORIGIN, [0, 0], [80, 50]);
  builder.relate({ kind: 'distance', a: p, b: q, direction: 'horizontal', sense: 1, value: 'tray length' });
  builder.relate({ kind: 'distance', a: q, b: r, direction: 'vertical', sense: 1, value: 'tray width' });
  const sides = Object.keys(builder.entities).filter((id) => {
    const entity = builder.entities[id]!;
    return entity.kind === 'line' && !entity.construction;
  });
  const outline = addSketch(script, part, { kind: 'sketch', name: 'Floor', plane: 'top', ...builder.figure });
  const block = addStep(script, part, { kind: 'extrude', name: 'Block', sketch: outline, distance: 'tray height' });
  const side = (k: number) => faceName(block, 'side', sides[k % 4]);
  const upright = [0, 1, 2, 3].map((k): Reference => ({ to: 'edge', name: edgeName([side(k), side(k + 1)]) }));
  addStep(script, part, { kind: 'fillet', name: 'Soft corners', edges: upright, radius: 'tray corner' });
  addStep(script, part, { kind: 'shell', name: 'Walls', open: [endOf(block)], wall: 'tray sheet' });
  drain(script, part);
  // the long side towards +y
  return { part, wall: { to: 'face', name: side(2) } };
}

/** One hole near a corner, then rows of it. */
function drain(script: ProjectScript, part: Id): void {
  const builder = new FigureBuilder(script.newId);
  const centre = builder.place([-60, -30]);
  const hole = builder.circle(centre, 2);
  builder.relate({ kind: 'diameter', circle: hole, value: 'drain' });
  builder.relate({
    kind: 'distance',
    a: centre,
    b: ORIGIN,
    direction: 'horizontal',
    sense: 1,
    value: 'drain pitch * 3',
  });
  builder.relate({
    kind: 'distance',
    a: centre,
    b: ORIGIN,
    direction: 'vertical',
    sense: 1,
    value: 'drain pitch * 1.5',
  });
  const sketch = addSketch(script, part, { kind: 'sketch', name: 'Drain', plane: 'top', ...builder.figure });
  const cut = addStep(script, part, {
    kind: 'extrude',
    name: 'Drain hole',
    sketch,
    distance: 'tray sheet',
    result: 'cut',
  });
  addStep(script, part, {
    kind: 'pattern-line',
    name: 'Drain holes',
    steps: [cut],
    along: [{ to: 'origin', name: 'x' }],
    count: '7',
    spacing: 'drain pitch',
    directions: 'two',
    across: [{ to: 'origin', name: 'y' }],
    rows: '4',
    apart: 'drain pitch',
  });
}
