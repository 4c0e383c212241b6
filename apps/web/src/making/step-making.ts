import {
  lacking,
  sameReference,
  stepKind,
  type Action,
  type Id,
  type Issue,
  type Part,
  type PickField,
  type Reference,
  type Result,
  type Step,
} from '@helb/core';
import type { Side } from './beside.ts';
import { Snapshots } from '../snapshots/snapshots.ts';

/** A step that is being made or changed: shown in the view, not in the document yet. */
export interface StepInMaking {
  readonly id: Id;
  readonly step: Step;
  /** Is it made anew? Else it is in the document already. */
  readonly isNew: boolean;
  /** A step of the document as it was when somebody began to change it. */
  readonly from?: Step;
  /** Values that were named on the way: made together with the step. */
  readonly naming: readonly Action[];
}

/** One moment of it. */
interface MakingState {
  readonly draft: StepInMaking | undefined;
  /** The lines that ask to be picked, and the one that is answered by a pick now. */
  readonly fields: readonly PickField[];
  readonly asked: PickField | undefined;
}

/** What it needs of the page. */
export interface MakingPort {
  readonly part: Id;
  /** A step as it is in the document. */
  step(id: Id): Step | undefined;
  /** Where a new step goes; at the end where nothing is told. */
  placeAfter(): { readonly at?: number };
  /** Shows what would come of actions, none ends that; tells what is not possible. */
  draft(actions: readonly Action[]): Result<void>;
  act(actions: readonly Action[]): Result<void>;
  newId(prefix: string): Id;
  /** On which side of its sketch the material lies, its own left out; undefined where none is. */
  material(draft: StepInMaking): Side | undefined;
  /** Is it gone from what the step is built on? */
  isGone(step: Id, reference: Reference): boolean;
  /** What is missing still before it can be kept; undefined clears that. */
  told(issue: Issue | undefined): void;
}

/** A datum made in another way: its number means something else there, what is picked first may still do. */
function inWay(step: Step, how: unknown): Step {
  const { by: _, ...rest } = step as Step & { by?: string };
  return { ...rest, how, ...keptPicks(step, { ...step, how } as Step) } as Step;
}

/** Of what is picked for one way, what another asks for in the same places. */
function keptPicks(before: Step, after: Step): { on?: Reference[] } {
  if (!('on' in before)) return {};
  const [was, is] = [before, after].map((step) => stepKind(step.kind).picks!(step)) as [PickField[], PickField[]];
  const other = is.findIndex(({ accepts }, k) => was[k]?.accepts !== accepts);
  return { on: before.on.slice(0, other < 0 ? is.length : other) };
}

/** What was changed from one step to another, changed in the step as it is now: what came meanwhile stays. */
function carriedOver(from: Step, to: Step, now: Step): Step {
  const before = from as Readonly<Record<string, unknown>>;
  const changes = Object.entries(to).filter(
    ([field, value]) => JSON.stringify(value) !== JSON.stringify(before[field]),
  );
  return { ...now, ...Object.fromEntries(changes) };
}

/** A step put right after another that stands further up. */
export const putAfter = (part: Id, { stepOrder }: Pick<Part, 'stepOrder'>, step: Id, after: Id): Action => ({
  command: 'step.move',
  input: { part, step, to: stepOrder.indexOf(after) + 1 },
});

/** Making a step, or choosing anew what it builds on: line by line, until it is kept or left. Knows no framework. */
export class StepMaking extends Snapshots<MakingState> {
  private draft: StepInMaking | undefined;
  /** As it was begun. */
  private begun: StepInMaking | undefined;
  private asked: string | undefined;
  /** The direction that was guessed. */
  private guessed: string | undefined;

  constructor(private readonly port: MakingPort) {
    super();
  }

  protected present(): MakingState {
    const { draft } = this;
    const fields = draft ? (stepKind(draft.step.kind).picks?.(draft.step) ?? []) : [];
    return { draft, fields, asked: fields.find(({ field }) => field === this.asked) };
  }

  /** A new step; the first line that lacks something is asked. @param field that is asked where none lacks anything */
  begin(step: Step, field?: string): void {
    this.guessed = undefined;
    this.set((this.begun = { id: this.port.newId('s'), step, isNew: true, naming: [] }));
    this.askNext();
    if (!this.asked) this.ask(field);
  }

  /** A step of the document again. @param field the line to be asked; a place in a list is asked by its line */
  edit(id: Id, field?: string): void {
    const step = this.port.step(id);
    if (!step) return;
    this.guessed = undefined;
    this.set((this.begun = { id, step, from: step, isNew: false, naming: [] }));
    this.ask(this.snapshot.fields.find((line) => field === line.field || field?.startsWith(`${line.field}.`))?.field);
  }

  /** Goes on with one that was left standing. */
  resume(left: StepInMaking): void {
    const now = this.port.step(left.id);
    this.guessed = undefined;
    this.set(left.from && now ? { ...left, from: now, step: carriedOver(left.from, left.step, now) } : left);
    this.askNext();
  }

  /** What has been made of it, if anything: what is lost when it is left. */
  get made(): StepInMaking | undefined {
    return this.draft === this.begun ? undefined : this.draft;
  }

  set(next: StepInMaking): Result<void> {
    this.draft = next;
    const done = this.port.draft(this.actions(next));
    this.publish();
    return done;
  }

  setField(field: string, value: unknown): Result<void> {
    const { step } = this.draft!;
    // another way asks for other things: what comes first may still do
    const next = field === 'how' ? inWay(step, value) : this.withWay({ ...step, [field]: value }, field);
    const done = this.set({ ...this.draft!, step: next });
    // another word may ask for something that was not asked before; who picks several goes on with that
    const { fields, asked } = this.snapshot;
    const isLacking = fields.some(({ picked, min }) => picked.length < min);
    const isPicked = fields.some((line) => line.field.split('.')[0] === field);
    if (field === 'how' || (isLacking && !(asked && isPicked))) this.askNext();
    return done;
  }

  /** What is cut away goes into the material, until somebody says which way. */
  private withWay(step: Step, field: string): Step {
    const { ways, ...rest } = step as Step & { result?: string; ways?: string };
    if (field !== 'result' || ways !== this.guessed || !stepKind(step.kind).turned?.(rest)) return step;
    const isCut = rest.result === 'cut' || rest.result === 'overlap';
    this.guessed = isCut ? this.port.material(this.draft!) : undefined;
    return { ...rest, ...(this.guessed ? { ways: this.guessed } : {}) } as Step;
  }

  /** Turns it the other way round; false where it has none. */
  turn(): boolean {
    const { step } = this.draft!;
    const turned = stepKind(step.kind).turned?.(step);
    if (turned) this.set({ ...this.draft!, step: { ...step, ...turned } });
    return turned !== undefined;
  }

  /** The line that picks go to from now on; undefined for none. */
  ask(field: string | undefined): void {
    if (this.asked === field) return;
    this.asked = field;
    this.publish();
  }

  /** The first line that lacks something; of a new step else the first that takes several, so that more can be picked. */
  private askNext(): void {
    const { fields } = this.snapshot;
    const missing = fields.find(({ picked, min }) => picked.length < min);
    const open = this.draft?.isNew ? fields.find(({ max, min }) => max > 1 && min > 0) : undefined;
    this.ask((missing ?? open)?.field);
  }

  /** Puts what was picked into the line that is asked, in the place of what is gone there, or takes it out again. */
  answer(reference: Reference): void {
    const line = this.snapshot.asked;
    if (!line) return;
    this.setPicks(line, this.answered(line, reference).slice(-line.max));
    if (line.max === 1) this.askNext();
  }

  private answered({ picked, max }: PickField, reference: Reference): readonly Reference[] {
    if (max === 1) return [reference];
    const has = picked.filter((other) => !sameReference(other, reference));
    if (has.length < picked.length) return has;
    const gone = picked.findIndex((other) => this.port.isGone(this.draft!.id, other));
    return gone < 0 ? [...picked, reference] : picked.with(gone, reference);
  }

  setPicks(line: PickField, references: readonly Reference[]): void {
    this.setField(line.field.split('.')[0]!, line.with(references));
  }

  /** Keeps it, with what was named on the way and what is to be done then; refused while something is missing, and that is asked. */
  accept(then: readonly Action[] = []): Result<void> {
    const missing = lacking(this.draft!.step);
    if (missing) {
      this.ask(missing.field);
      this.port.told(missing.issue);
      return { ok: false, issue: missing.issue };
    }
    const done = this.port.act([...this.actions(this.draft!), ...then]);
    if (!done.ok) return done;
    this.leave();
    this.port.told(undefined);
    return done;
  }

  leave(): void {
    if (!this.draft) return;
    this.draft = this.asked = undefined;
    this.port.draft([]);
    this.publish();
  }

  private actions({ id, step, isNew, naming }: StepInMaking): Action[] {
    const where = { part: this.port.part };
    if (isNew) return [...naming, { command: 'step.add', input: { ...where, id, step, ...this.port.placeAfter() } }];
    // where it is gone meanwhile the document says so
    const before = (this.port.step(id) ?? {}) as Readonly<Record<string, unknown>>;
    const changes = Object.entries(step).filter(([field, value]) => before[field] !== value);
    if (changes.length === 0) return [...naming];
    return [...naming, { command: 'step.set', input: { ...where, step: id, fields: Object.fromEntries(changes) } }];
  }
}
