import { effectScope, nextTick, shallowRef } from 'vue';
import { Snapshots } from './snapshots.ts';
import { useSnapshot } from './use-snapshot.ts';

class Counter extends Snapshots<{ readonly count: number }> {
  private count = 0;
  made = 0;
  add(by: number): void {
    this.count += by;
    this.publish();
  }
  protected present() {
    this.made++;
    return { count: this.count };
  }
}

test('a state is the same object until something changes, and stays as it was after that', () => {
  const counter = new Counter();
  const first = counter.snapshot;
  expect(counter.snapshot).toBe(first);
  counter.add(2);
  expect(first).toEqual({ count: 0 });
  expect(counter.snapshot).toEqual({ count: 2 });
  // nobody listened: it was put together for those who asked only
  expect(counter.made).toBe(2);
});

test('whoever listens is told each state once, and no more after leaving, even amid the telling', () => {
  const counter = new Counter();
  const told: number[] = [];
  const leave = counter.subscribe(({ count }) => told.push(count));
  const once = counter.subscribe(() => once());
  counter.add(1);
  counter.add(1);
  leave();
  counter.add(1);
  expect(told).toEqual([1, 2]);
  expect(counter.made).toBe(2);
});

test('the page follows what the source gives now, and lets go of what it gave before', async () => {
  const [a, b] = [new Counter(), new Counter()];
  b.add(10);
  const source = shallowRef<Counter | undefined>(a);
  const scope = effectScope();
  const state = scope.run(() => useSnapshot(() => source.value))!;
  expect(state.value).toEqual({ count: 0 });
  a.add(1);
  expect(state.value).toEqual({ count: 1 });
  source.value = b;
  expect(state.value).toEqual({ count: 10 });
  a.add(5);
  expect(state.value).toEqual({ count: 10 });
  source.value = undefined;
  expect(state.value).toBeUndefined();
  source.value = b;
  scope.stop();
  b.add(1);
  await nextTick();
  expect(state.value).toEqual({ count: 10 });
});
