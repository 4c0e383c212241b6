import { desk, move, type } from '../../test/drawing-desk.ts';

test('a tangent arc goes on from the end of a line that is there, and the chain goes on from it', () => {
  const d = desk();
  d.draw('chain', [2, 2], [30, 12]);
  d.editor.take('tangent arc');
  d.click([30, 12]);
  d.click([44, 30]);
  expect(d.kinds()).toEqual(['tangent']);
  d.click([40, 60]);
  expect(Object.values(d.editor.sketch.entities).filter(({ kind }) => kind === 'line')).toHaveLength(2);
});

test('an arc that leaves a level line ends after a quarter of its turn, where that is near', () => {
  const ends = (at: readonly [number, number]) => {
    const d = desk();
    d.draw('chain', [2, 3], [40, 3]);
    d.editor.take('tangent arc');
    d.click([40, 3]);
    d.click(at);
    return [d.kinds().toSorted(), d.state()[1]];
  };
  expect(ends([69.5, 33.2])).toEqual([['horizontal', 'horizontal', 'tangent'], 4]);
  expect(ends([69.5, -26.8])).toEqual([['horizontal', 'horizontal', 'tangent'], 4]);
  expect(ends([61, 33.2])).toEqual([['horizontal', 'tangent'], 5]);
});

test('an arc of a chain keeps what is guessed of its end beside a typed radius: level with its beginning, a quarter of a turn', () => {
  const hood = desk();
  hood.editor.take('chain');
  hood.click([60, 7]);
  move(hood, [60.3, 60]);
  type(hood, '50');
  hood.editor.key('t');
  move(hood, [-28, 57.4]);
  type(hood, '45');
  hood.editor.take('select');
  expect(hood.kinds()).toEqual(['distance', 'horizontal', 'radius', 'tangent', 'vertical']);
  // where it lies
  expect(hood.state()).toEqual(['loose', 2]);

  const bend = desk();
  bend.editor.take('chain');
  bend.click([0, 0]);
  move(bend, [30, 0.2]);
  type(bend, '20');
  bend.editor.key('t');
  move(bend, [62, 45]);
  type(bend, '50');
  bend.editor.take('select');
  expect(bend.state()[0]).toBe('settled');
  const [end] = Object.values(bend.editor.snapshot.solved.solution.geometry.entities).filter(
    ({ kind }) => kind === 'arc',
  );
  const { b } = end as { b: string };
  expect(bend.editor.geometry.point(b)).toEqual([expect.closeTo(70, 9), expect.closeTo(50, 9)]);
});
