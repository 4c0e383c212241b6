import { frameOn, type Vec3 } from '../math/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { ANGLE, LENGTH, type Dimension } from '../units/index.ts';
import type { BodyIndex, Direction, Equation, Place } from './equations.ts';
import type { Facing } from './mechanism.ts';

/** What a relation takes of a body, in its own coordinates: a flat face, what is round or straight, a place. */
export type Feature = { readonly body: BodyIndex } & (
  | { readonly form: 'plane'; readonly at: Vec3; readonly along: Vec3 }
  /** `radius` of a round face; none of a bare axis. Of a rim `at` is its centre. */
  | {
      readonly form: 'axis';
      readonly at: Vec3;
      readonly along: Vec3;
      readonly radius?: number;
      readonly isRim?: boolean;
    }
  | { readonly form: 'point'; readonly at: Vec3 }
);
type Form = Feature['form'];
type Plane = Extract<Feature, { form: 'plane' }>;
type Axis = Extract<Feature, { form: 'axis' }>;
type Point = Extract<Feature, { form: 'point' }>;

const place = ({ body, at }: Feature): Place => ({ body, at });
const along = ({ body, along: u }: Plane | Axis): Direction => ({ body, along: u });
const square = (u: Direction, v: Direction, is = 0): Equation => ({ form: 'dot', a: u, b: v, is });
const span = (from: Feature, to: Feature, u: Direction, is = 0): Equation => ({
  form: 'span',
  from: place(from),
  to: place(to),
  along: u,
  is,
});
/** Two directions square to one of the same body, and to each other. */
function acrossOf({ body, along: u }: Plane | Axis): [Direction, Direction] {
  const { x, y } = frameOn([0, 0, 0], u);
  return [
    { body, along: x },
    { body, along: y },
  ];
}
const lined = (a: Plane | Axis, b: Plane | Axis): Equation[] => acrossOf(b).map((across) => square(along(a), across));

/** For a pair of forms, in the order point, axis, plane; `amount` in mm or rad. */
type Pairs = {
  readonly [A in Form]?: {
    readonly [B in Form]?: (
      a: Extract<Feature, { form: A }>,
      b: Extract<Feature, { form: B }>,
      amount: number,
    ) => Equation[] | undefined;
  };
};

const touching = {
  'point point': (a: Point, b: Point): Equation[] =>
    (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as const
    ).map((u) => span(a, b, { body: a.body, along: u })),
  'point axis': (a: Point, b: Axis): Equation[] => acrossOf(b).map((u) => span(b, a, u)),
  'point plane': (a: Point, b: Plane, amount = 0): Equation[] => [span(b, a, along(b), amount)],
  'axis plane': (a: Axis, b: Plane, amount = 0): Equation[] => [
    square(along(a), along(b)),
    span(b, a, along(b), amount),
  ],
  'plane plane': (a: Plane, b: Plane, amount = 0): Equation[] => [...lined(a, b), span(a, b, along(a), amount)],
  'axis axis': (a: Axis, b: Axis): Equation[] => [...lined(a, b), ...acrossOf(a).map((u) => span(a, b, u))],
};
const apart = (a: Feature, b: Feature, is: number, across?: Direction): Equation => ({
  form: 'away',
  from: place(a),
  to: place(b),
  is,
  ...(across ? { across } : {}),
});

/**
 * Kinds of relations, each by the pairs of things that it can stand between. What an equation leaves open (on which side a
 * distance counts; which way round, where no facing is told) stays as it is in the pose from which it is solved.
 */
/** An angle whose sine is smaller is straight. */
const STRAIGHT = 1e-6;

const RELATIONS = {
  coincident: {
    title: 'coincident',
    asks: undefined,
    facing: 'against',
    pairs: {
      point: {
        point: touching['point point'],
        axis: touching['point axis'],
        plane: (a, b) => touching['point plane'](a, b),
      },
      axis: { axis: touching['axis axis'], plane: (a, b) => touching['axis plane'](a, b) },
      plane: { plane: (a, b) => touching['plane plane'](a, b) },
    },
  },
  flush: {
    title: 'flush',
    asks: undefined,
    facing: 'along',
    pairs: { plane: { plane: (a, b) => touching['plane plane'](a, b) } },
  },
  concentric: {
    title: 'concentric',
    asks: undefined,
    pairs: { axis: { axis: touching['axis axis'] }, point: { axis: touching['point axis'] } },
  },
  seated: {
    title: 'rim to rim',
    asks: undefined,
    pairs: {
      axis: {
        axis: (a, b) =>
          a.isRim && b.isRim ? [...lined(a, b), ...[...acrossOf(a), along(a)].map((u) => span(a, b, u))] : undefined,
      },
    },
  },
  parallel: {
    title: 'parallel',
    asks: undefined,
    pairs: {
      axis: { axis: lined, plane: (a, b) => [square(along(a), along(b))] },
      plane: { plane: lined },
    },
  },
  perpendicular: {
    title: 'perpendicular',
    asks: undefined,
    pairs: {
      axis: { axis: (a, b) => [square(along(a), along(b))], plane: lined },
      plane: { plane: (a, b) => [square(along(a), along(b))] },
    },
  },
  distance: {
    title: 'at a distance',
    asks: LENGTH,
    initial: '0 mm',
    pairs: {
      point: {
        point: (a, b, amount) => [apart(a, b, amount)],
        axis: (a, b, amount) => [apart(b, a, amount, along(b))],
        plane: touching['point plane'],
      },
      axis: {
        axis: (a, b, amount) => [...lined(a, b), apart(a, b, amount, along(a))],
        plane: touching['axis plane'],
      },
      plane: { plane: touching['plane plane'] },
    },
  },
  angle: {
    title: 'at an angle',
    asks: ANGLE,
    initial: '90 deg',
    // parallel: every direction across is as good
    wrong: (amount) => (Math.abs(Math.sin(amount)) < STRAIGHT ? 'relation.straight' : undefined),
    pairs: {
      axis: {
        axis: (a, b, amount) => [square(along(a), along(b), Math.cos(amount))],
        // from the plane itself, not from its normal
        plane: (a, b, amount) => [square(along(a), along(b), Math.sin(amount))],
      },
      plane: { plane: (a, b, amount) => [square(along(a), along(b), Math.cos(amount))] },
    },
  },
  tangent: {
    title: 'tangent',
    asks: undefined,
    pairs: {
      axis: {
        axis: (a, b) =>
          a.radius && b.radius ? [...lined(a, b), apart(a, b, a.radius + b.radius, along(a))] : undefined,
        plane: (a, b) => (a.radius ? touching['axis plane'](a, b, a.radius) : undefined),
      },
    },
  },
} as const satisfies Record<string, RelationKind>;
export type AssemblyRelationName = keyof typeof RELATIONS;

interface RelationKind {
  readonly title: string;
  /** The number that it takes. */
  readonly asks: Dimension | undefined;
  /** Of these: until somebody types one. */
  readonly initial?: string;
  /** How flat faces look in it unless somebody says otherwise; absent where either is usual. */
  readonly facing?: FacingName;
  /** The code of what is wrong with a number, mm or rad. */
  wrong?(amount: number): string | undefined;
  readonly pairs: Pairs;
}

export const ASSEMBLY_RELATIONS: Readonly<Record<AssemblyRelationName, Omit<RelationKind, 'pairs'>>> = RELATIONS;

/** How two flat faces can look: against each other, as where they touch, or the same way, as where they are flush. */
export const FACINGS = { against: 'looking against each other', along: 'looking the same way' } as const;
export type FacingName = keyof typeof FACINGS;

/** How flat faces usually look in a relation of a kind; undefined where either is usual. */
export const usualFacing = (kind: AssemblyRelationName): FacingName | undefined => ASSEMBLY_RELATIONS[kind].facing;

/** Which way round two things come to lie; undefined for what has no way round. */
export const facingOf = (first: Feature, second: Feature, facing: FacingName | undefined): Facing | undefined =>
  facing && first.form === 'plane' && second.form === 'plane'
    ? { a: along(first), b: along(second), is: facing === 'along' ? 1 : -1 }
    : undefined;

const ORDER: readonly Form[] = ['point', 'axis', 'plane'];
const FORM_WORDS: Readonly<Record<Form, string>> = { point: 'point', axis: 'axis', plane: 'flat face' };

/**
 * The equations of a relation between two things.
 * @param amount mm or rad, where the relation takes one
 */
export function related(kind: AssemblyRelationName, first: Feature, second: Feature, amount = 0): Result<Equation[]> {
  if (first.body === second.body) return fail('relation.self');
  const [a, b] = [first, second].sort((p, q) => ORDER.indexOf(p.form) - ORDER.indexOf(q.form)) as [Feature, Feature];
  const { pairs, title, wrong }: RelationKind = RELATIONS[kind];
  const make = pairs[a.form]?.[b.form] as
    ((a: Feature, b: Feature, amount: number) => Equation[] | undefined) | undefined;
  const code = wrong?.(amount);
  if (code !== undefined) return fail(code);
  const equations = make?.(a, b, amount);
  if (equations) return ok(equations);
  return fail('relation.pair', { title, a: FORM_WORDS[a.form], b: FORM_WORDS[b.form] });
}

export const assemblyWords: Words = {
  'relation.self': () => 'Both lie on the same part: choose something of another part.',
  'joint.self': () => 'A joint needs two placements that can move against each other: choose something of another one.',
  'joint.frame': () =>
    'This has no middle and no axis to join: choose a flat or round face, a straight or round edge, or a point.',
  'joint.limits': () => 'The least that it may come to is more than the most.',
  'joint.beyond': () => 'Its rest value lies beyond its limits: change the one or the other.',
  'joint.outside': () =>
    'Nothing that fits the rest of the assembly lies within its limits: it stands beyond them. Change the limits, or what holds it there.',
  'joint.rest': () =>
    'It can not be where the design puts it while everything else holds: change its rest value, or another one.',
  'ratio.joint': () => 'One of its two joints is missing, or does not move in this way.',
  'group.clash': () => 'What is in this group can not all hold together.',
  'placement.gone': () => 'A placement that this needs is not there, or not where it was.',
  'placement.count': (f) => `The count must be a whole number from 1 to ${f['most']}.`,
  'placement.axis': () => 'To stand round it an axis is needed: a straight edge, a round face or an axis.',
  'assembly.many': (f) => `More than ${f['most']} placements with all repeats: make the counts smaller.`,
  'relation.straight': () => 'At this angle the two are parallel: use the relation parallel instead.',
  'relation.pair': (f) =>
    `This ${f['a'] as string} and this ${f['b'] as string} can not be ${f['title'] as string}: choose other things.`,
};
