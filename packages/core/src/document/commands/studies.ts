import { z } from 'zod';
import { idSchema } from '../../records/index.ts';
import { approachSchema, chartSchema, studySchema } from '../../study/index.ts';
import { command, insert, refuse } from './command.ts';

const { charts, approaches, ...fields } = studySchema.shape;
void charts;
void approaches;

export const studyCommands = {
  'study.add': command(z.strictObject({ id: idSchema, study: studySchema }), (draft, { id, study }) => {
    insert((draft.studies ??= {}), id, study);
    return `Add the study ${study.name}`;
  }),

  /** Sets some of what is driven and how. */
  'study.set': command(
    z.strictObject({ id: idSchema, fields: z.strictObject(fields).partial() }),
    (draft, { id, fields: changed }) => {
      const study = draft.studies?.[id] ?? refuse('study.unknown', { id });
      Object.assign(study, changed);
      return `Change ${study.name}`;
    },
  ),

  /** Says what a chart of a study shows, or takes it away. */
  'study.chart': command(
    z.strictObject({ id: idSchema, chart: idSchema, shows: chartSchema.optional() }),
    (draft, { id, chart, shows }) => {
      const study = draft.studies?.[id] ?? refuse('study.unknown', { id });
      if (shows) study.charts[chart] = shows;
      else delete study.charts[chart];
      return shows ? `Show a chart of ${study.name}` : `Take a chart from ${study.name}`;
    },
  ),

  /** Says what a study looks at for how near it comes, or looks at it no longer. */
  'study.approach': command(
    z.strictObject({ id: idSchema, approach: idSchema, looks: approachSchema.optional() }),
    (draft, { id, approach, looks }) => {
      const study = draft.studies?.[id] ?? refuse('study.unknown', { id });
      if (looks) (study.approaches ??= {})[approach] = looks;
      else delete study.approaches?.[approach];
      return looks
        ? `Look how near parts come in ${study.name}`
        : `Look no longer how near parts come in ${study.name}`;
    },
  ),

  'study.remove': command(z.strictObject({ id: idSchema }), (draft, { id }) => {
    const { name } = draft.studies?.[id] ?? refuse('study.unknown', { id });
    delete draft.studies![id];
    return `Remove the study ${name}`;
  }),
};
