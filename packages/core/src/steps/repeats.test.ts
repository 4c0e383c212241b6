import type { Id } from '../records/index.ts';
import { isRepeatable, latestFeature, type Step } from './index.ts';

/** Steps in a line, of the kinds that are told: "extrude add" with what comes of it. */
const steps = (...told: readonly string[]): readonly (readonly [Id, Step])[] =>
  told.map((words, k) => {
    const [kind, result, suppressed] = words.split(' ');
    return [`s${k}`, { kind, ...(result && { result }), ...(suppressed && { suppressed: true }) } as Step];
  });

test.each([
  ['a cut after sketches', ['extrude new', 'sketch', 'extrude cut'], ['s2']],
  ['a groove with its rounding and bevel, and a plane since', ['revolve new', 'revolve cut', 'fillet', 'chamfer', 'datum-plane'], ['s1', 's2', 's3']],
  ['a hole', ['extrude new', 'hole'], ['s1']],
  ['not what was left out', ['extrude new', 'extrude add', 'extrude cut off'], ['s1']],
  ['no body that stands alone, nor its rounding', ['extrude new', 'fillet'], []],
  ['nothing where a shell came last', ['extrude new', 'extrude add', 'shell'], []],
  ['nothing where there is nothing', [], []],
])('a repeat is most likely of %s', (_, told, latest) => {
  expect(latestFeature(steps(...told))).toEqual(latest);
}); // prettier-ignore

test('shells, drafts and drawings are no steps to be repeated', () => {
  expect((['extrude', 'fillet', 'mirror', 'hole'] as const).filter((kind) => !isRepeatable(kind))).toEqual([]);
  expect((['shell', 'draft', 'sketch', 'offset-face'] as const).filter(isRepeatable)).toEqual([]);
});
