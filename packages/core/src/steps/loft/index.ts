import type { z } from 'zod';
import type { LoftRequest, Profile } from '../../kernel-port/index.ts';
import { heightOver, scale3, add3 } from '../../math/index.ts';
import { pointOf } from '../../references/index.ts';
import { LENGTH } from '../../units/index.ts';
import { fail, ok, type Result, type Words } from '../../result/index.ts';
import { profileOf, thinFields } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { choice, number, picks, schemaOf, stepsField, type Filled } from '../fields.ts';
import { matched } from './matching.ts';

const smooth = ({ course }: Filled) => course === 'smooth';
const square = ({ leave }: Filled) => leave !== 'free';

const fields = {
  /** In the order in which it goes through them. */
  sections: stepsField('sections', 1),
  from: picks('point before the first', 'point', { least: 0, many: 'point' }),
  to: picks('point after the last', 'point', { least: 0, many: 'point' }),
  /** One on each outline; where one has none, the nearest to that before it. */
  starts: picks('starting points', 'point', { least: 0, most: 100, many: 'starting points' }),
  course: choice('course', { smooth: 'smooth', straight: 'straight' }, 'smooth'),
  leave: choice(
    'at the ends',
    {
      free: 'as it comes',
      first: 'square out of the first',
      last: 'square into the last',
      both: 'square at both ends',
    },
    'free',
    smooth,
  ),
  /** How far it goes on square to a section before it bends. */
  lead: number('for a way of', {
    asks: LENGTH,
    least: 1e-3,
    most: 1e4,
    usual: '2 mm',
    when: (step) => smooth(step) && square(step),
  }),
  ...thinFields,
  result: resultField,
  only: touchedField,
};

export const loftSchema = schemaOf('loft', fields);
export type LoftStep = z.infer<typeof loftSchema>;

interface Inputs extends ToolInputs, LoftRequest {}

export const loft = making('loft', {
  title: 'Loft',
  fields,
  sentence:
    'Loft through {sections}[?, from {from}][?, to {to}][?, begun at {starts}], {course}[?, {leave}][ for {lead}][?, {body}][ of {wall}][ {lies}] → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const sections: Profile[] = [];
    for (const id of values.sections) {
      const area = profileOf(id, 'outline', context, values);
      if (!area.ok) return area;
      if (area.value.profile.regions.length !== 1) return fail('loft.areas');
      sections.push(area.value.profile);
    }
    const openings = new Set(sections.map(({ regions }) => regions[0]!.holes.length));
    const pointed = values.from.length + values.to.length > 0;
    if (openings.size > 1 || (pointed && !openings.has(0))) return fail('loft.openings');
    const starts = values.starts.map((thing) => pointOf(thing)!);
    const paired = starts.length > 0 ? matched(sections, starts) : sections;
    const led = values.course === 'smooth' ? withLeads(paired, values.leave, values.lead) : paired;
    const [first, last] = [values.from[0], values.to[0]].map((thing) => thing && { point: pointOf(thing)! });
    const all = [...(first ? [first] : []), ...led, ...(last ? [last] : [])];
    if (all.length < 2) return fail('loft.few');
    return ok({
      sections: all,
      ...(starts.length > 0 ? { matched: true } : {}),
      straight: values.course === 'straight',
      ...onBodies(values, context),
    });
  },
  solids: (inputs, _, kernel) => kernel.loft(inputs),
});

/** The same sections with copies of the outermost ones a little further in: between the two it goes straight. */
function withLeads(sections: readonly Profile[], leave: 'free' | 'first' | 'last' | 'both', lead: number): Profile[] {
  const copy = (section: Profile, towards: Profile): Profile => {
    const { frame } = section;
    const side = Math.sign(heightOver(frame, towards.frame.origin)) || 1;
    return { ...section, frame: { ...frame, origin: add3(frame.origin, scale3(frame.z, side * lead)) } };
  };
  const [first, last] = [sections[0]!, sections.at(-1)!];
  if (sections.length < 2) return [...sections];
  return [
    first,
    ...(leave === 'first' || leave === 'both' ? [copy(first, sections[1]!)] : []),
    ...sections.slice(1, -1),
    ...(leave === 'last' || leave === 'both' ? [copy(last, sections.at(-2)!)] : []),
    last,
  ];
}

export const loftWords: Words = {
  'loft.areas': () => 'Each section needs exactly one closed area.',
  'loft.openings': () => 'All sections need the same number of openings, and none where the loft ends in a point.',
  'loft.few': () => 'A loft goes through two sections at least, or from a section to a point.',
};
