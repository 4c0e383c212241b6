import { edgeName, faceName } from '../naming/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { arcSlot, FigureBuilder, ORIGIN, Y_AXIS, type Pattern, type Relation } from '../sketch/index.ts';
import type { Reference } from '../references/index.ts';
import { addSketch, endOf, extruded, newPart } from './parts.ts';

/** The end of the sieve drum: a disc with the shaft hole, a ring of bolt holes, and curved slots to look in through. */
export function drumEnd(script: ProjectScript): Id {
  const part = newPart(script, 'Drum end', 2, ['Birch plywood', 680]);
  const builder = new FigureBuilder(script.newId);
  const relate = (...relations: Relation[]) => relations.forEach((relation) => builder.relate(relation));
  const centre = builder.place([0, 0]);
  const [rim, bore] = [builder.circle(centre, 60), builder.circle(centre, 6)];
  const bolt = builder.place([0, 52]);
  const hole = builder.circle(bolt, 2.75);
  const [from, to] = [builder.place([15, 28]), builder.place([-15, 28])];
  const before = new Set(Object.keys(builder.entities));
  const { spine } = arcSlot(builder, [centre, [0, 0]], [from, [15, 28]], [to, [-15, 28]], 5);
  const slot = Object.keys(builder.entities).filter((id) => !before.has(id) && isOutline(builder, id));
  const [, , startArc] = slot as [Id, Id, Id];
  relate(
    { kind: 'coincident', a: centre, b: ORIGIN },
    { kind: 'diameter', circle: rim, value: 'drum' },
    { kind: 'diameter', circle: bore, value: 'shaft' },
    { kind: 'diameter', circle: hole, value: 'bolt hole' },
    { kind: 'coincident', a: bolt, b: Y_AXIS },
    { kind: 'distance', a: centre, b: bolt, direction: 'vertical', sense: 1, value: 'bolt ring' },
    // both lie on one circle about the origin: level with each other they mirror each other
    { kind: 'horizontal', a: from, b: to },
    { kind: 'radius', circle: spine, value: 'drum * 0.27' },
    { kind: 'radius', circle: startArc, value: 'slot width / 2' },
    { kind: 'distance', a: to, b: from, direction: 'horizontal', sense: 1, value: 'drum / 4' },
  );
  const pattern = (of: readonly Id[], count: string): Pattern => ({
    layout: 'round',
    of: [...of],
    centre,
    count,
    over: '360 deg',
  });
  const sketch = addSketch(script, part, {
    kind: 'sketch',
    name: 'Disc outline',
    plane: 'front',
    ...builder.figure,
    patterns: { bolts: pattern([hole], 'drum bolts'), windows: pattern(slot, '4') },
  });
  const disc = extruded(script, part, 'Disc', sketch, 'drum sheet', 'new');
  raiseHub(script, part, disc, bore);
  return part;
}

/** A collar round the shaft hole: its inside is borrowed from the disc, so that it follows whatever the shaft is. */
function raiseHub(script: ProjectScript, part: Id, disc: Id, bore: Id): void {
  const builder = new FigureBuilder(script.newId);
  const centre = builder.place([0, 0]);
  const inside = builder.circle(centre, 6);
  const outside = builder.circle(centre, 11);
  builder.relate({ kind: 'diameter', circle: outside, value: 'shaft + 2 * hub wall', at: [-12, 14] });
  const rim: Reference = { to: 'edge', name: edgeName([faceName(disc, 'end'), faceName(disc, 'side', bore)]) };
  const collar = addSketch(script, part, {
    kind: 'sketch',
    name: 'Collar',
    plane: endOf(disc),
    ...builder.figure,
    loans: {
      [script.newId('o')]: { source: rim, how: 'shape', makes: { curve: inside, 'curve centre': centre } },
    },
  });
  extruded(script, part, 'Hub', collar, 'hub height', 'add');
}

const isOutline = ({ entities }: FigureBuilder, id: Id): boolean => {
  const entity = entities[id]!;
  return entity.kind !== 'point' && !entity.construction;
};
