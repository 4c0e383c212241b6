/**
 * Something that changes and hands out its state as values that never do: whoever has one may keep it, compare it, draw it.
 * Knows no framework; the page follows it by `useSnapshot`.
 */
export abstract class Snapshots<S extends object> {
  // hard private: who extends this has a state of its own
  readonly #listeners = new Set<(state: S) => void>();
  #now: S | undefined;

  /** The state as it is now: the same object until something changes. */
  get snapshot(): S {
    return (this.#now ??= this.present());
  }

  /** Tells each new state from now on. @returns what ends that */
  subscribe(listener: (state: S) => void): () => void {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  }

  /** Puts the state together. */
  protected abstract present(): S;

  /** Something has changed: the next state is told to all who listen. */
  protected publish(): void {
    this.#now = undefined;
    if (this.#listeners.size === 0) return;
    const { snapshot } = this;
    for (const listener of [...this.#listeners]) listener(snapshot);
  }
}
