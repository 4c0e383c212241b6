import { fail, ok, type Issue, type LengthTold } from '../../result/index.ts';
import { LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { furtherUp, unlessSized } from '../earlier.ts';
import { byBody, edgesByBody } from '../edges.ts';
import { choice, number, picks } from '../fields/index.ts';
import { pullOutOfEdge } from '../pulls.ts';

const SIZE = { asks: LENGTH, min: 1e-3, max: 1e4 } as const;

const isChosen = (picked: unknown): boolean => (picked as readonly unknown[]).length > 0;

const fields = {
  edges: picks('edges', 'edges', { max: 500, many: 'edges' }),
  radius: number('radius', { ...SIZE, initial: '2 mm' }),
  also: picks('edges of another radius', 'edges', { min: 0, max: 500, many: 'edges' }),
  other: number('their radius', { ...SIZE, initial: '3 mm', when: ({ also }) => isChosen(also) }),
  third: picks('edges of a third radius', 'edges', { min: 0, max: 500, many: 'edges' }),
  another: number('the third radius', { ...SIZE, initial: '4 mm', when: ({ third }) => isChosen(third) }),
  course: choice('course', { even: 'all along', growing: 'growing to' }, 'even'),
  to: number('radius at the other end', { ...SIZE, initial: '4 mm', when: ({ course }) => course === 'growing' }),
};

interface Rounded {
  readonly name: string;
  readonly radius: number;
  readonly to?: number;
}

interface Inputs {
  readonly rounds: readonly { readonly body: number; readonly edges: readonly Rounded[] }[];
  /** The radius that the others are shrunk with while the largest that builds is looked for. */
  readonly radius: number;
  readonly step: string;
}

export const fillet = changing('fillet', {
  title: 'Fillet',
  verb: {
    key: 'U',
    title: 'Round',
    likely: ['edge'],
    says: 'Rounds edges: a fillet of one radius, or of one that grows along them.',
  },
  fields,
  sentence: 'Round {edges} by {radius}, {course}[ {to}][?; {also} by {other}][?; {third} by {another}]',
  pulls: ({ edges }, seen) => pullOutOfEdge('radius', edges, seen),
  inputs({ edges, radius, also, other, third, another, course, to }, { step }) {
    const groups = [
      { chosen: edges, size: { radius, ...(course === 'growing' ? { to } : {}) } },
      { chosen: also, size: { radius: other } },
      { chosen: third, size: { radius: another } },
    ];
    const rounds = new Map<number, Map<string, Rounded>>();
    for (const { chosen, size } of groups)
      for (const { body, edges: names } of edgesByBody(chosen)) {
        const known = rounds.get(body) ?? new Map<string, Rounded>();
        // an edge of several groups has the size that is given for it last
        names.forEach((name) => known.set(name, { name, ...size }));
        rounds.set(body, known);
      }
    return ok<Inputs>({
      rounds: [...rounds].map(([body, known]) => ({ body, edges: [...known.values()] })),
      radius,
      step,
    });
  },
  build: ({ rounds, radius, step }, before, kernel) =>
    changedBodies(
      before,
      rounds.map(({ body, edges }) => ({
        body,
        make(handle) {
          const sized = (size: number) =>
            kernel.fillet({ body: handle, edges: edges.map(scaled(size / radius)), step });
          const made = sized(radius);
          if (made.ok || made.issue.code === 'kernel.gone') return made;
          return fail('round.size', { most: largest(sized, radius, kernel.release.bind(kernel)) });
        },
      })),
      kernel,
    ),
  yields: unlessSized('round.size'),
  edges: ({ rounds }) => rounds.flatMap(({ body, edges }) => edges.map(({ name }) => ({ body, name }))),
  again: (inputs, insteadOf) => ({
    ...inputs,
    rounds: byBody(
      inputs.rounds.flatMap(({ body, edges }) =>
        edges.flatMap((edge) => insteadOf({ body, name: edge.name }).map((other) => ({ ...edge, ...other }))),
      ),
    ).map(([body, edges]) => ({ body, edges: edges.map(({ body: _, ...edge }) => edge) })),
  }),
  words: {
    'round.size': (f, length) => `These edges can not be rounded by so much.${upTo(f, length)}`,
    'chamfer.corner': () =>
      'Where these edges meet no clear corner is found. Choose all edges of that corner, or cut them off in several steps.',
    'chamfer.size': (f, length) => `These edges can not be cut off by so much.${upTo(f, length)}`,
  },
});

const scaled =
  (by: number) =>
  ({ name, radius, to }: Rounded): Rounded => ({
    name,
    radius: radius * by,
    ...(to === undefined ? {} : { to: to * by }),
  });

/**
 * The largest size that builds, by bisection: to a fiftieth of what was asked; 0 where none does.
 * @param known a size that builds
 * @param rounds each halves what is left
 */
export function largest(
  make: (size: number) => { readonly ok: true; readonly value: number } | { readonly ok: false },
  asked: number,
  release: (body: number) => void,
  known = 0,
  rounds = 6,
): number {
  let [good, bad] = [known, asked];
  for (let k = 0; k < rounds; k++) {
    const size = (good + bad) / 2;
    const made = make(size);
    if (made.ok) {
      release(made.value);
      good = size;
    } else bad = size;
  }
  return good > 0 ? roundedDown(make, good, release) : 0;
}

/** A size that builds, as it is told: with few digits where that builds as well, since not all that is smaller does. */
export function roundedDown(
  make: (size: number) => { readonly ok: true; readonly value: number } | { readonly ok: false },
  good: number,
  release: (body: number) => void,
): number {
  for (const places of [1e2, 1e3]) {
    const size = Math.floor(good * places) / places;
    if (size === good) break;
    const made = size > 0 && make(size);
    if (!made || !made.ok) continue;
    release(made.value);
    return size;
  }
  return good;
}

const upTo = (facts: Issue['facts'], length: LengthTold): string =>
  Number(facts['most']) > 0
    ? ` About ${length(facts['most'] as number, 3)} is the most that builds.`
    : ` No smaller size builds either. ${furtherUp(facts, 'Choose fewer edges.')}`;
