import {
  borrowingOf,
  FigureBuilder,
  fingerprintOfFace,
  ORIGIN,
  perform,
  projected,
  ProjectScript,
  rectangle,
  type Action,
  type Borrowing,
  type Id,
  type Project,
  type Reference,
  type Step,
  type Thing,
} from '@helb/core';
import type { OpenCascadeKernel } from '@helb/kernel';
import { Engine, type PartModel } from './index.ts';

// What tests of what is borrowed are put together from.

/** How finely they are shown. */
export const MESH = { deflection: 0.5, angle: 0.5 };

/** A part whose plate is `wide` x 30 x `thick` with a bore of `bore` at (15, 15). */
export class Plate {
  readonly script = new ProjectScript('Plate');
  readonly part: Id;
  readonly ids: Record<string, Id> = {};
  private readonly engine: Engine;

  constructor(private readonly kernel: OpenCascadeKernel) {
    this.engine = new Engine(kernel);
    const { script } = this;
    for (const [name, expression] of Object.entries({ wide: '40 mm', thick: '6 mm', bore: '8 mm' }))
      script.do('value.add', { id: script.newId('v'), name, expression });
    this.part = script.newId('part');
    script.do('part.add', { id: this.part, name: 'Plate' });
    const builder = new FigureBuilder(script.newId);
    const corners = rectangle(builder, [0, 0], [40, 30]);
    const centre = builder.place([15, 15]);
    const bore = builder.circle(centre, 4);
    const size = (a: Id, b: Id, direction: 'horizontal' | 'vertical', value: string) =>
      builder.relate({ kind: 'distance', a, b, direction, sense: 1, value });
    builder.relate({ kind: 'coincident', a: corners[0], b: ORIGIN });
    size(corners[0], corners[1], 'horizontal', 'wide');
    size(corners[1], corners[2], 'vertical', '30 mm');
    size(ORIGIN, centre, 'horizontal', '15 mm');
    size(ORIGIN, centre, 'vertical', '15 mm');
    builder.relate({ kind: 'diameter', circle: bore, value: 'bore' });
    Object.assign(this.ids, { bore, centre });
    this.add('sketch', { kind: 'sketch', name: 'Outline', plane: 'top', ...builder.figure });
    this.extrude('plate', 'sketch', 'thick', 'new');
  }

  add(key: string, step: Step): void {
    this.ids[key] = this.script.newId('s');
    this.script.do('step.add', { part: this.part, id: this.ids[key], step });
  }

  extrude(key: string, sketch: string, distance: string, result: 'new' | 'add' | 'cut'): void {
    const where = { sketch: this.ids[sketch]!, areas: 'outline', distance, ways: 'forwards', result } as const;
    this.add(key, { kind: 'extrude', name: key, ...where });
  }

  async model(project: Project = this.script.project): Promise<PartModel> {
    return (await this.engine.build(project, { mesh: MESH })).parts[0]!;
  }

  /** A face of the part as it is now. */
  async face(name: string): Promise<{ reference: Reference; thing: Thing }> {
    const { topology } = (await this.model()).bodies[0]!;
    const face = topology!.faces.find((other) => other.name === name)!;
    const thing: Thing = { to: 'face', face, body: 0, topology: topology! };
    return { reference: { to: 'face', name, print: fingerprintOfFace(face) }, thing };
  }

  /** Borrows a face into a sketch, as the page does it. */
  async borrow(sketch: string, name: string, how: Borrowing = 'shape'): Promise<void> {
    const { reference, thing } = await this.face(name);
    const step = this.ids[sketch]!;
    const model = await this.model();
    const { frame } = model.sketches.get(step)!;
    const crossings =
      model.bodies.length > 0 ? this.kernel.crossing(Number(model.bodies[0]!.key.split(' ')[0]), frame) : [];
    const seen = projected(thing, how, frame, () => crossings);
    if (!seen.ok) throw new Error(seen.issue.code);
    const { newId } = this.script;
    const borrowed = borrowingOf(seen.value, reference, how, { loans: {}, construction: false, newId });
    this.script.do('sketch.borrow', { part: this.part, step, id: newId('o'), ...borrowed });
  }

  set(name: string, expression: string): Project {
    return changed(this.script.project, {
      command: 'value.set',
      input: { id: this.valueNamed(name), expression },
    });
  }

  private valueNamed(name: string): Id {
    const { values } = this.script.project;
    return Object.keys(values).find((id) => values[id]!.name === name)!;
  }
}

/** A project after gestures. */
export function changed(project: Project, ...actions: Action[]): Project {
  const result = perform(project, actions);
  if (!result.ok) throw new Error(JSON.stringify(result.issue));
  return result.value.project;
}
