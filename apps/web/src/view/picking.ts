import type { Vec2 } from '@helb/core';
import { Snapshots } from '../snapshots/snapshots.ts';

/** What lies under the pointer, front to back; one of it is chosen. */
interface Under<P> {
  /** Where the pointer was when it came there. */
  readonly at: Vec2;
  readonly picks: readonly P[];
  readonly chosen: number;
  /** Does the list stay till the pointer goes, so that it can be clicked? */
  readonly isHeld: boolean;
}

/** What is pointed at in a view; nothing where nothing lies there. */
interface PickingState<P> {
  readonly under: Under<P> | undefined;
}

/** Farther than this, px, a press is no click any more. */
const STILL = 4;
/** So far, px, the pointer goes and the list stays where it is: its corner can be reached. */
const NEAR = 32;

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

  /** The pointer came to a place where these lie, front to back. @param near how far the list stays where it is */
  hover(at: Vec2, picks: readonly P[], near = NEAR): void {
    const { under } = this;
    if (under && Math.hypot(at[0] - under.at[0], at[1] - under.at[1]) <= near) {
      if (under.isHeld) return;
      if (this.areSame(picks, under.picks)) return void (this.under = { ...under, picks });
    }
    this.set(picks.length > 0 ? { at, picks, chosen: 0, isHeld: false } : undefined);
  }

  private areSame(picks: readonly P[], others: readonly P[]): boolean {
    return picks.length === others.length && picks.every((pick, k) => this.isSame(pick, others[k]!));
  }

  /** Steps on to what lies behind; false where there is nothing to step to. */
  next(): boolean {
    const { under } = this;
    if (!under || under.picks.length < 2) return false;
    this.choose((under.chosen + 1) % under.picks.length);
    return true;
  }

  /** This of the list is meant, and stays meant till the pointer goes. */
  choose(k: number): void {
    if (this.under?.picks[k]) this.set({ ...this.under, chosen: k, isHeld: true });
  }

  /** The list stays till the pointer goes. */
  hold(): void {
    if (this.under) this.set({ ...this.under, isHeld: true });
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
    if (this.under?.isHeld) this.set({ ...this.under, isHeld: false });
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
