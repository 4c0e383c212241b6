import {
  basisOf,
  variantsOf,
  displayUnit,
  drawnPart,
  type Datum,
  toldOfDatum,
  explain,
  isNumber,
  type LengthUnit,
  type Origin,
  type PartLink,
  type Project,
  type Quantity,
  partLinks,
  type Vec3,
  type Box3,
  type Id,
} from '@helb/core';
import type { Assembled, Pose } from '@helb/core/assembly';
import { assemblyFindings, inspectAssembly, type AssemblyInspection } from './inspect-assembly.ts';
import { modelFindings } from './checks/of-model.ts';
import type { Interference } from './interference.ts';
import type { Model, PartModel } from './model.ts';
import { seenFrom, totalsOf, type Seen, type Totals } from './totals.ts';
import { wallsOf } from './walls.ts';

/** What `./helb inspect --json` prints; described in docs/format.md and kept stable. Units are in the key names. */
export interface Inspection {
  /** As which of its variants the project is told. */
  readonly variant: string;
  readonly variants: readonly string[];
  readonly parts: readonly PartInspection[];
  /** Null where nothing is placed. */
  readonly assembly: AssemblyInspection | null;
  readonly values: readonly {
    readonly name: string;
    readonly expression: string;
    readonly result: number | null;
    readonly unit: string | null;
  }[];
  readonly findings: readonly Finding[];
}

export interface PartInspection extends Totals {
  /** Where each body is thinnest; empty unless it was asked for. */
  readonly thinnest: readonly { readonly thickness_mm: number; readonly at_mm: Vec3; readonly face: string }[];
  readonly name: string;
  /** Why it is not as it is told: then figures are those of the last that was good. */
  readonly trouble: string | null;
  /** The project that it was brought from, and at which revision; null for a part that is drawn here. */
  readonly from: {
    readonly project: string;
    readonly revision: number;
    /** As which of its variants; null for the project itself. */
    readonly variant: string | null;
    readonly part: string;
    readonly given: readonly { readonly name: string; readonly expression: string }[];
  } | null;
  /** The parts that it takes something from, by which of its steps. */
  readonly takes_from: readonly { readonly part: string; readonly steps: readonly string[] }[];
  readonly steps: readonly {
    readonly name: string;
    readonly kind: string;
    readonly state: string;
    readonly message: string | null;
    /** What was done by another way than the plain one. */
    readonly detours: readonly string[];
    readonly references: readonly { readonly label: string; readonly fate: 'recovered' | 'gone' }[];
  }[];
  readonly sketches: readonly {
    readonly name: string;
    readonly state: string;
    readonly freedoms: number;
    readonly residual_mm: number;
    readonly borrowed: number;
  }[];
  readonly datums: readonly {
    readonly name: string;
    readonly form: string;
    readonly at_mm: Vec3;
    readonly along: Vec3 | null;
  }[];
  readonly frames: readonly ({ readonly name: string } & Seen)[];
  readonly threads: readonly {
    readonly step: string;
    readonly name: string;
    readonly length_mm: number;
    readonly hand: 'right' | 'left';
    readonly full: boolean;
  }[];
  /** Triangles that are laid under the model. */
  readonly meshes: readonly {
    readonly step: string;
    readonly triangles: number;
    readonly low_mm: Vec3;
    readonly high_mm: Vec3;
    /** Edges at which it is open. */
    readonly loose_edges: number;
    /** Null where it is not closed. */
    readonly volume_mm3: number | null;
  }[];
  readonly sections: readonly {
    readonly name: string;
    readonly at_mm: Vec3 | null;
    readonly along: Vec3 | null;
    readonly message: string | null;
  }[];
}

export interface Finding {
  readonly code: string;
  readonly part: string | null;
  readonly step: string | null;
  readonly message: string;
}

/** An assembly in the pose that is to be told. */
export interface PosedAssembly {
  readonly assembled: Assembled;
  readonly pose: Pose;
  /** Round everything that is placed, in that pose. */
  readonly box: Box3 | undefined;
  /** Where it was asked for. */
  readonly interferences?: readonly Interference[];
}

/** @param variant the variant that the project is shown as; without one it is as it stands */
export function inspect(project: Project, model: Model, variant?: Id, posed?: PosedAssembly): Inspection {
  const variants = variantsOf(project);
  const links = partLinks(project);
  return {
    variant: variants.find(({ id }) => id === variant)!.name,
    variants: variants.map(({ name }) => name),
    parts: model.parts.map((part) => inspectPart(project, part, links)),
    assembly: posed ? inspectAssembly(project, model, posed) : null,
    values: model.values.map(({ id, name, result }) => ({
      name,
      expression: project.values[id]!.expression,
      ...shown(result, project.unit),
    })),
    findings: [
      ...findings(project, model),
      ...troubleFindings(model.parts),
      ...(posed ? assemblyFindings(project, posed.assembled, posed.interferences) : []),
    ],
  };
}

function inspectPart(project: Project, model: PartModel, links: readonly PartLink[]): PartInspection {
  const part = drawnPart(project, model.id)!;
  const totals = totalsOf(
    model.bodies.map((body) => body.measures),
    part.material,
  );
  return {
    name: part.name,
    from: part.from ? toldOf(part.from) : null,
    takes_from: links
      .filter((link) => link.part === model.id)
      .map(({ from, steps }) => ({ part: project.parts[from]!.name, steps: steps.map((id) => part.steps[id]!.name) })),
    steps: model.steps.map(({ id, state, issue, detours = [], references = [] }) => ({
      name: part.steps[id]!.name,
      kind: part.steps[id]!.kind,
      state,
      message: issue ? explain(issue) : null,
      detours: detours.map((way) => explain(way)),
      references: references.map(({ label, fate }) => ({ label, fate })),
    })),
    sketches: [...model.sketches].map(([id, { solution, sources }]) => ({
      name: part.steps[id]!.name,
      state: solution.state,
      freedoms: solution.freedoms,
      residual_mm: solution.residual,
      borrowed: Object.keys(sources.borrowed).length,
    })),
    datums: [...model.datums].map(([id, datum]) => ({
      name: part.steps[id]!.name,
      form: datum.form,
      ...placeOf(datum),
    })),
    frames: [...model.datums].flatMap(([id, datum]) =>
      datum.form === 'frame' ? [{ name: part.steps[id]!.name, ...seenFrom(totals, datum.frame) }] : [],
    ),
    threads: model.signs.map(({ step, name, length, left, full }) => ({
      step: part.steps[step]!.name,
      name,
      length_mm: length,
      hand: left ? 'left' : 'right',
      full,
    })),
    meshes: model.meshes.map(({ step, facts: { triangles, box, loose, volume } }) => ({
      ...{ step: part.steps[step]!.name, triangles, low_mm: box.low, high_mm: box.high, loose_edges: loose },
      volume_mm3: volume ?? null,
    })),
    sections: [...model.sections].map(([id, cut]) => ({
      name: part.sections![id]!.name,
      at_mm: cut.ok ? cut.value.origin : null,
      along: cut.ok ? cut.value.z : null,
      message: cut.ok ? null : explain(cut.issue),
    })),
    thinnest: model.bodies.flatMap(({ mesh }) => {
      if (!mesh) return [];
      const { at, ...found } = wallsOf(mesh).thinnest;
      return [{ ...found, at_mm: at }];
    }),
    trouble: model.trouble ? explain(model.trouble) : null,
    ...totals,
  };
}

const toldOf = ({ design, revision, variant, part, given = {} }: Origin) => ({
  project: design.name,
  revision,
  variant: variant === undefined ? null : basisOf(design),
  part: design.parts[part]!.name,
  given: Object.entries(given).map(([id, expression]) => ({ name: design.values[id]!.name, expression })),
});

/** A place of a datum and its direction: the normal of a plane, the z of a frame. */
function placeOf(datum: Datum): { at_mm: Vec3; along: Vec3 | null } {
  const { at, along } = toldOfDatum(datum);
  return { at_mm: at, along };
}

/** A result in the unit that it is shown in; areas and the like in powers of mm and rad, without a unit word. */
function shown(result: Quantity | undefined, unit: LengthUnit) {
  if (!result) return { result: null, unit: null };
  const display = displayUnit(result.dimension, unit);
  if (display) return { result: result.amount / display.size, unit: display.symbol };
  return { result: result.amount, unit: isNumber(result.dimension) ? '' : 'mm, rad, kg' };
}

/** Which parts are not as they are told: what is built on them is not either. */
export const troubleFindings = (parts: readonly PartModel[]): Finding[] =>
  parts.flatMap(({ trouble }) =>
    trouble ? [{ code: trouble.code, part: null, step: null, message: explain(trouble) }] : [],
  );

/** Everything that stands in the way of a finished model, by the names of what it is about. */
export const findings = (project: Project, model: Model): Finding[] =>
  modelFindings(project, model).map(({ code, words, part, step }) => ({
    ...{ code, message: words },
    part: part === undefined ? null : project.parts[part]!.name,
    step: part === undefined || step === undefined ? null : drawnPart(project, part)!.steps[step]!.name,
  }));
