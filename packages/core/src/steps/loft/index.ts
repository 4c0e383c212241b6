import type { LoftRequest, Profile } from '../../kernel-port/index.ts';
import { pointOf } from '../../references/index.ts';
import { LENGTH } from '../../units/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { profileOf, profileOfFace, thinFields } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { choice, number, picks, stepsField, type Filled } from '../fields/index.ts';
import { matched } from './matching.ts';

const smooth = ({ course }: Filled) => course === 'smooth';
const square = ({ leave }: Filled) => leave !== 'free';

const fields = {
  /** In the order in which it goes through them. */
  sections: stepsField('sections', { min: 1, of: 'sketches', order: 'chosen' }),
  /** Flat faces of what is there go before the first sketch and after the last. */
  before: picks('face before the first', 'face', { min: 0, many: 'face' }),
  after: picks('face after the last', 'face', { min: 0, many: 'face' }),
  from: picks('point before the first', 'point', { min: 0, many: 'point' }),
  to: picks('point after the last', 'point', { min: 0, many: 'point' }),
  /** One on each outline; where one has none, the nearest to that before it. */
  starts: picks('starting points', 'point', { min: 0, max: 100, many: 'starting points' }),
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
  /** How long its tangents are where it is square to a section. */
  lead: number('length of the tangents', {
    asks: LENGTH,
    min: 1e-3,
    max: 1e4,
    initial: '10 mm',
    when: (step) => smooth(step) && square(step),
  }),
  ...thinFields,
  result: resultField,
  only: touchedField,
};

interface Inputs extends ToolInputs, LoftRequest {}

export const loft = making('loft', {
  title: 'Loft',
  verb: { key: 'L', says: 'Blends from one outline into the next, through as many as there are.' },
  fields,
  sentence:
    'Loft through {sections}[?, from the face {before}][?, to the face {after}][?, from {from}][?, to {to}][?, begun at {starts}], {course}[?, {leave}][ by tangents of {lead}][?, {body}][ of {wall}][ {lies}] → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const sections: Profile[] = [];
    const found = [
      ...values.before.map((face) => profileOfFace(face, values)),
      ...values.sections.map((id) => {
        const area = profileOf(id, 'outline', context, values);
        return area.ok ? ok(area.value.profile) : area;
      }),
      ...values.after.map((face) => profileOfFace(face, values)),
    ];
    for (const profile of found) {
      if (!profile.ok) return profile;
      if (profile.value.regions.length !== 1) return fail('loft.areas');
      sections.push(profile.value);
    }
    const openings = new Set(sections.map(({ regions }) => regions[0]!.holes.length));
    const pointed = values.from.length + values.to.length > 0;
    if (openings.size > 1 || (pointed && !openings.has(0))) return fail('loft.openings');
    const starts = values.starts.map((thing) => pointOf(thing)!);
    const { leave, lead } = values;
    const squared = values.course === 'smooth' && leave !== 'free' && sections.length > 0;
    const square = {
      ...(leave === 'first' || leave === 'both' ? { first: lead } : {}),
      ...(leave === 'last' || leave === 'both' ? { last: lead } : {}),
    };
    const paired = starts.length > 0 || squared ? matched(sections, starts) : sections;
    const [first, last] = [values.from[0], values.to[0]].map((thing) => thing && { point: pointOf(thing)! });
    const all = [...(first ? [first] : []), ...paired, ...(last ? [last] : [])];
    if (all.length < 2) return fail('loft.few');
    return ok({
      sections: all,
      ...(paired === sections ? {} : { matched: true }),
      ...(squared ? { square } : {}),
      straight: values.course === 'straight',
      ...onBodies(values, context),
    });
  },
  solids: (inputs, _, kernel) => kernel.loft(inputs),
  words: {
    'loft.areas': () => 'Each section needs exactly one closed area.',
    'loft.openings': () => 'All sections need the same number of openings, and none where the loft ends in a point.',
    'loft.few': () => 'A loft goes through two sections at least, or from a section to a point.',
  },
});
