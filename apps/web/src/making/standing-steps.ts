import { stepSchema, type Id } from '@helb/core';
import { Snapshots } from '../snapshots/snapshots.ts';
import type { StepInMaking } from './step-making.ts';

/** What was left standing in each part: steps in the making, and the sketch that was open. */
type Standing = Readonly<Record<Id, { readonly steps: readonly StepInMaking[]; readonly sketch?: Id }>>;

/** Where it is kept over a reload. */
interface StandingStore {
  read(): string | null;
  write(text: string): void;
}

/**
 * What somebody was making when they went to another part or screen: it stands there as it was until it is gone on with, or
 * dropped. Knows no framework.
 */
export class StandingSteps extends Snapshots<Standing> {
  private standing: Standing;

  constructor(private readonly store: StandingStore) {
    super();
    this.standing = readStanding(store.read());
  }

  protected present(): Standing {
    return this.standing;
  }

  put(part: Id, step: StepInMaking): void {
    const { steps, sketch } = this.of(part);
    this.set(part, [...steps.filter(({ id }) => id !== step.id), step], sketch);
  }

  /** Takes one to go on with it, or to drop it. */
  take(part: Id, id: Id): StepInMaking | undefined {
    const { steps, sketch } = this.of(part);
    const taken = steps.find((one) => one.id === id);
    if (taken) {
      this.set(
        part,
        steps.filter((one) => one !== taken),
        sketch,
      );
    }
    return taken;
  }

  /** The sketch of a part that is open, or was when it was left; undefined once it is closed. */
  putSketch(part: Id, sketch: Id | undefined): void {
    if (this.of(part).sketch !== sketch) this.set(part, this.of(part).steps, sketch);
  }

  of(part: Id): Standing[Id] {
    return this.standing[part] ?? { steps: [] };
  }

  private set(part: Id, steps: readonly StepInMaking[], sketch: Id | undefined): void {
    const { [part]: _, ...others } = this.standing;
    const bare = steps.length === 0 && sketch === undefined;
    this.standing = bare ? others : { ...others, [part]: { steps, ...(sketch === undefined ? {} : { sketch }) } };
    this.store.write(JSON.stringify(this.standing));
    this.publish();
  }
}

/** What was kept; steps that are none any more (another version of the page wrote them) are left out. */
function readStanding(text: string | null): Standing {
  let kept: unknown;
  try {
    kept = JSON.parse(text ?? '{}');
  } catch {
    return {};
  }
  const parts = Object.entries((kept ?? {}) as Record<Id, Partial<Standing[Id]> | null>);
  return Object.fromEntries(
    parts.map(([part, of]) => {
      const steps = Array.isArray(of?.steps) ? (of.steps as StepInMaking[]) : [];
      const sketch = typeof of?.sketch === 'string' ? { sketch: of.sketch } : {};
      return [part, { steps: steps.filter(isStep), ...sketch }];
    }),
  );
}

const isStep = (one: StepInMaking | null): boolean =>
  typeof one?.id === 'string' &&
  Array.isArray(one.naming) &&
  [one.step, one.from ?? one.step].every((step) => stepSchema.safeParse(step).success);
