import type { z } from 'zod';
import type { LoftRequest } from '../../kernel-port/index.ts';
import { pointOf } from '../../references/index.ts';
import { fail, ok, type Result, type Words } from '../../result/index.ts';
import { profileOf } from '../areas.ts';
import { bodiesIn, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { choice, picks, schemaOf, stepsField } from '../fields.ts';

const fields = {
  /** In the order in which it goes through them. */
  sections: stepsField('sections', 1),
  from: picks('point before the first', 'point', { least: 0, many: 'point' }),
  to: picks('point after the last', 'point', { least: 0, many: 'point' }),
  course: choice('course', { smooth: 'smooth', straight: 'straight' }, 'smooth'),
  result: resultField,
  only: touchedField,
};

export const loftSchema = schemaOf('loft', fields);
export type LoftStep = z.infer<typeof loftSchema>;

interface Inputs extends ToolInputs, LoftRequest {}

export const loft = making('loft', {
  title: 'Loft',
  fields,
  sentence: 'Loft through {sections}[?, from {from}][?, to {to}], {course} → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const sections: LoftRequest['sections'][number][] = [];
    for (const id of values.sections) {
      const area = profileOf(id, 'outline', context);
      if (!area.ok) return area;
      if (area.value.profile.regions.length !== 1 || area.value.profile.regions[0]!.holes.length > 0)
        return fail('loft.areas');
      sections.push(area.value.profile);
    }
    const [first, last] = [values.from[0], values.to[0]].map((thing) => thing && { point: pointOf(thing)! });
    const all = [...(first ? [first] : []), ...sections, ...(last ? [last] : [])];
    if (all.length < 2) return fail('loft.few');
    return ok({
      sections: all,
      straight: values.course === 'straight',
      step: context.step,
      result: values.result,
      only: bodiesIn(values.only),
    });
  },
  solids: (inputs, _, kernel) => kernel.loft(inputs),
});

export const loftWords: Words = {
  'loft.areas': () => 'Each section needs exactly one closed area without openings.',
  'loft.few': () => 'A loft goes through two sections at least, or from a section to a point.',
};
