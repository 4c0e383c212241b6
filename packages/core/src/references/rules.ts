import { isFaceOf, roleOfFace, stepOfFace } from '../naming/index.ts';
import { straightAlong } from '../geometry/index.ts';
import type { EdgeFacts, Topology } from '../kernel-port/index.ts';
import { type Family, type Rule } from './reference.ts';
import { nameOfThing, type Thing } from './things/index.ts';

// Picking by rule: it survives every change by nature, since it names nothing that could go.

/** What fits a rule on these bodies. Edges over which a body just goes on are none. */
export function fitting(rule: Rule, bodies: readonly Topology[]): Thing[] {
  return bodies.flatMap((topology, body): Thing[] =>
    rule.gives === 'faces'
      ? topology.faces.filter(({ name }) => isOf(name, rule.of)).map((face) => ({ to: 'face', face, body, topology }))
      : topology.edges.filter((edge) => edgeFits(edge, rule)).map((edge) => ({ to: 'edge', edge, body })),
  );
}

const isOf = (face: string, family: Family | undefined): boolean =>
  family === undefined ||
  (isFaceOf(face, family.step) &&
    (family.role === undefined || roleOfFace(face) === family.role || isFaceOf(face, family.step, family.role)));

function edgeFits({ faces, turn, curve }: EdgeFacts, rule: Rule): boolean {
  if (turn === undefined || turn === 'smooth' || (rule.turn !== undefined && turn !== rule.turn)) return false;
  if (rule.along !== undefined && axisAlong(curve) !== rule.along) return false;
  if (rule.and === undefined) return faces.some((face) => isOf(face, rule.of));
  const [a, b] = faces as [string, string];
  return (isOf(a, rule.of) && isOf(b, rule.and)) || (isOf(b, rule.of) && isOf(a, rule.and));
}

/** The axis of the part along which a straight curve runs. */
function axisAlong(curve: EdgeFacts['curve']): 'x' | 'y' | 'z' | undefined {
  const along = straightAlong(curve);
  return (['x', 'y', 'z'] as const).find((_, k) => along && Math.abs(along[k]!) > 1 - 1e-9);
}

/** A rule that something which was picked fits, and how many others do. */
export interface Wider {
  readonly rule: Rule;
  readonly count: number;
}

/** Rules that a picked edge or face fits together with others, the narrowest first; none twice by what fits it. */
export function widened(thing: Thing, bodies: readonly Topology[]): Wider[] {
  const seen = new Set<string>();
  return rulesFor(thing)
    .map((rule) => ({ rule, things: fitting(rule, bodies) }))
    .filter(({ things }) => {
      const names = things.map(nameOfThing).join();
      const fresh = things.length > 1 && !seen.has(names);
      seen.add(names);
      return fresh;
    })
    .map(({ rule, things }) => ({ rule, count: things.length }))
    .sort((a, b) => a.count - b.count);
}

const familyOf = (face: string): Family => {
  const role = roleOfFace(face);
  return { step: stepOfFace(face), ...(role === '' ? {} : { role }) };
};

function rulesFor(thing: Thing): Rule[] {
  if (thing.to === 'face') {
    const { step, role } = familyOf(thing.face.name);
    const faces: Rule = { to: 'rule', gives: 'faces', of: { step } };
    return [...(role === undefined ? [] : [{ ...faces, of: { step, role } }]), faces];
  }
  if (thing.to !== 'edge') return [];
  const { faces, turn, curve } = thing.edge;
  if (turn === undefined || turn === 'smooth') return [];
  const edges = { to: 'rule', gives: 'edges' } as const;
  const families = faces.map(familyOf) as [Family, Family];
  const along = axisAlong(curve);
  const steps = [...new Set(families.map(({ step }) => step))].map((step): Family => ({ step }));
  return [
    { ...edges, of: families[0], and: families[1] },
    ...(along ? steps.map((of): Rule => ({ ...edges, of, turn, along })) : []),
    ...(along ? [{ ...edges, turn, along }] : []),
    ...steps.map((of): Rule => ({ ...edges, of })),
    { ...edges, turn },
  ];
}
