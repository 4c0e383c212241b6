import type { ReadStepRequest } from '../../kernel-port/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { fileField } from '../fields/index.ts';

const fields = {
  file: fileField('STEP file', ['.step', '.stp']),
  result: resultField,
  only: touchedField,
};

interface Inputs extends ToolInputs, ReadStepRequest {}

export const bringIn = making('bring-in', {
  title: 'Bring in bodies',
  verb: { key: '', says: 'Brings in the bodies of a file of another program, to build on them.' },
  fields,
  sentence: 'Bring in the bodies of {file} → {result}[? {only}]',
  inputs: (values, context): Result<Inputs> => ok({ file: values.file.hash, ...onBodies(values, context) }),
  solids: (inputs, _, kernel) => kernel.readStep(inputs),
  words: {
    'step-file.unreadable': () =>
      'This is no STEP file that can be read (ISO 10303-21). Write it anew where it comes from.',
    'step-file.empty': (f) =>
      `The file holds no solid body${Number(f['faces']) > 0 ? `, only ${f['faces']} loose faces: close them where they come from` : ''}.`,
    'step-file.unsound': (f) =>
      `${f['bad']} of ${f['of']} bodies in the file are not sound (not closed, or crossing themselves): mend them where they come from.`,
  },
});
