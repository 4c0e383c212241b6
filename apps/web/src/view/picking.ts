import type { Vec2 } from '@helb/core';
import { Snapshots } from '../snapshots/snapshots.ts';

/** What lies under the pointer, front to back; one of it is chosen. */
interface Under<P> {
  readonly at: Vec2;
  readonly picks: readonly P[];
  readonly chosen: number;
}

/** What is pointed at in a view; nothing where nothing lies there. */
interface PickingState<P> {
  readonly under: Under<P> | undefined;
}

/** Farther than this, px, a press is no click any more. */
const STILL = 4;

/** Pointing at things in a view and clicking them. Knows neither framework nor what the things are. */
export class Picking<P> extends Snapshots<PickingState<P>> {
  private under: Under<P> | undefined;
  private pressed: Vec2 | undefined;

  /** @param isSame do two picks mean the same thing? */
  constructor(private readonly isSame: (a: P, b: P) => boolean) {
    super();
  }

  protected present(): PickingState<P> {
    return { under: this.under };
  }

  /** What is chosen under the pointer. */
  get pointed(): P | undefined {
    return this.under?.picks[this.under.chosen];
  }

  /** The pointer came to a place where these lie, front to back. */
  hover(at: Vec2, picks: readonly P[]): void {
    this.set(picks.length > 0 ? { at, picks, chosen: 0 } : undefined);
  }

  /** Steps on to what lies behind; false where there is nothing to step to. */
  next(): boolean {
    const { under } = this;
    if (!under || under.picks.length < 2) return false;
    this.set({ ...under, chosen: (under.chosen + 1) % under.picks.length });
    return true;
  }

  forget(): void {
    this.set(undefined);
  }

  press(at: Vec2): void {
    this.pressed = at;
  }

  /** Was it a click, and no drag, that ends here? */
  release(at: Vec2): boolean {
    const from = this.pressed;
    this.pressed = undefined;
    return from !== undefined && Math.hypot(at[0] - from[0], at[1] - from[1]) <= STILL;
  }

  /** What is picked after a click on what is chosen: that alone, or with `add` besides the rest or no more. */
  picked(before: readonly P[], add: boolean): readonly P[] {
    const found = this.pointed;
    if (found === undefined) return [];
    if (!add) return [found];
    const without = before.filter((pick) => !this.isSame(pick, found));
    return without.length < before.length ? without : [...without, found];
  }

  private set(under: Under<P> | undefined): void {
    if (under === this.under) return;
    this.under = under;
    this.publish();
  }
}
