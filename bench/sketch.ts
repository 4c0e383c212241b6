import {
  findRegions,
  freedoms,
  Geometry,
  isSized,
  SketchDrag,
  sketchProblem,
  solve,
  solveSketch,
  type Entities,
  type Relations,
  type Sizes,
} from '@helb/core';
import { combOf, type Scene } from './combs.ts';
import { denseSolve } from './dense-solve.ts';
import { median, percentile, timed, type Figure } from './measure.ts';

const COUNTS = [10, 50, 200, 500];
/** A plain dense loop on a larger sketch would take minutes. */
const MOST_DENSE = 200;

interface Measures {
  readonly cold: number;
  readonly changed: number;
  readonly rank: number;
  readonly regions: number;
  readonly frame: number;
  readonly frame95: number;
  readonly dense: number | undefined;
}

export function sketchFigures(): Figure[] {
  // the compiler warms up on a sketch of its own: a person's first sketch of the day is not what is asked
  for (const turned of [false, true]) measured(combOf(50, turned));
  const settled = [false, true].flatMap((turned) => {
    const scenes = COUNTS.map((count) => combOf(count, turned));
    const measures = scenes.map(measured);
    return scenes.flatMap((scene, k) => figuresOf(scene, measures[k]!, [scenes[0]!, measures[0]!], turned));
  });
  return [...settled, ...roughFigures(combOf(200, true))];
}

/** Everything drawn, nothing dimensioned: one large loose part. */
function roughFigures({ count, entities, relations, last }: Scene): Figure[] {
  const rough: Relations = Object.fromEntries(Object.entries(relations).filter(([, relation]) => !isSized(relation)));
  const none: Sizes = new Map();
  const { geometry } = solveSketch(entities, rough, none);
  const drawn = geometry.entities;
  const solution = solve(sketchProblem(drawn, rough, none));
  const figure = (what: string, value: number, most: number): Figure => ({
    name: `sketch: ${count} lines and arcs without any size, ${what}`,
    value,
    unit: 'ms',
    floor: null,
    ratio: null,
    aim: `at most ${most} ms`,
    met: value <= most,
  });
  return [
    figure('solve', median(timed(9, () => solve(sketchProblem(drawn, rough, none)))), 50),
    figure('freedoms', median(timed(9, () => freedoms(solution))), 100),
    figure('95th of 100 frames of a drag', percentile(dragFrames(drawn, rough, none, last), 0.95), 16),
  ];
}

function measured({ count, entities, relations, sizes, lastWidth, last }: Scene): Measures {
  const { state, geometry } = solveSketch(entities, relations, sizes);
  if (state !== 'settled') throw new Error(`the comb of ${count} is ${state}`);
  const drawn = geometry.entities;
  const without = new Map(sizes);
  without.delete(lastWidth);
  const loose: Relations = Object.fromEntries(Object.entries(relations).filter(([id]) => id !== lastWidth));
  const solution = solve(sketchProblem(drawn, loose, without));
  const frames = dragFrames(drawn, loose, without, last);
  return {
    cold: median(timed(9, () => solveSketch(entities, relations, sizes))),
    changed: median(timed(15, (k) => solveSketch(drawn, relations, new Map(sizes).set(lastWidth, 6 + k / 50)))),
    rank: median(timed(9, () => freedoms(solution))),
    regions: median(timed(9, () => findRegions(new Geometry(drawn)))),
    frame: median(frames),
    frame95: percentile(frames, 0.95),
    dense:
      count > MOST_DENSE * 1.1
        ? undefined
        : median(timed(3, () => denseSolve(sketchProblem(entities, relations, sizes)))),
  };
}

/** The loose end pulled to and fro, each frame from the one before, as under the hand. */
function dragFrames(entities: Entities, relations: Relations, sizes: Sizes, last: string): number[] {
  const [x, y] = new Geometry(entities).point(last);
  const drag = new SketchDrag(entities, relations, sizes);
  return timed(100, (k) => {
    const out = 3 * Math.sin(k / 6);
    const moved = drag.frame({ points: [{ id: last, to: [x + out, y + out / 3] }] });
    if (!moved) throw new Error('the drag was refused');
  });
}

/** The most that each may take at this number of entities, ms; undefined where only the growth counts. */
const LIMITS: Readonly<Record<number, Partial<Measures>>> = {
  50: { frame95: 8 },
  200: { frame95: 16, changed: 50, rank: 100 },
};

function figuresOf(
  scene: Scene,
  of: Measures,
  [smallest, floor]: readonly [Scene, Measures],
  turned: boolean,
): Figure[] {
  const limits = LIMITS[COUNTS.find((count) => Math.abs(count - scene.count) <= 0.1 * count) ?? 0] ?? {};
  const name = (what: string) => `sketch: ${turned ? 'turned comb' : 'comb'} of ${scene.count} lines and arcs, ${what}`;
  const growth = scene.count / smallest.count;
  const figure = (what: string, key: 'cold' | 'changed' | 'rank' | 'regions' | 'frame' | 'frame95'): Figure => {
    const limit = limits[key];
    return {
      name: name(what),
      value: of[key],
      unit: 'ms',
      floor: scene === smallest ? null : floor[key] * growth,
      ratio: scene === smallest ? null : of[key] / (floor[key] * growth),
      aim:
        limit === undefined
          ? 'the ratio is to growth in proportion'
          : `at most ${limit} ms; the ratio is to growth in proportion`,
      met: limit === undefined ? null : of[key] <= limit,
    };
  };
  const figures = [
    figure('cold solve', 'cold'),
    figure('one size changed', 'changed'),
    figure('freedoms', 'rank'),
    figure('one frame of a drag', 'frame'),
    figure('95th of 100 frames', 'frame95'),
    figure('regions', 'regions'),
  ];
  if (of.dense === undefined) return figures;
  const ratio = of.cold / of.dense;
  return [
    ...figures,
    {
      name: name('cold solve against a plain dense loop'),
      value: of.cold,
      unit: 'ms',
      floor: of.dense,
      ratio,
      aim: 'below 1 from 50 on; it explains the freedoms too',
      met: scene === smallest ? null : ratio < 1,
    },
  ];
}
