import { findRegions, ORIGIN, solveSketch, type Entities, type Relations } from '@helb/core';
import { Broken, brokenBy, same, type Outcome } from './case.ts';
import { Chance } from './chance.ts';

type Place = readonly [number, number];

const apart = ([a, b]: Place, [c, d]: Place): number => Math.hypot(a - c, b - d);

/** A fan of triangles round the origin, told by its sides and turned by an angle; roughly drawn. */
export function sketchCase(seed: number): Outcome {
  const chance = new Chance(seed);
  const count = chance.whole(3, 9);
  const truth: Place[] = Array.from({ length: count }, (_, k) => {
    const angle = ((k + chance.number(0.2, 0.8)) / (count + 1)) * 1.9 * Math.PI;
    const far = chance.number(15, 60);
    return [far * Math.cos(angle), far * Math.sin(angle)];
  });
  const rough = (): number => chance.number(-0.6, 0.6);
  const entities: Record<string, Entities[string]> = {
    o: { kind: 'point', x: 0, y: 0 },
    w: { kind: 'point', x: 40, y: 0 },
    base: { kind: 'line', a: 'o', b: 'w', construction: true },
  };
  const relations: Record<string, Relations[string]> = {
    z: { kind: 'coincident', a: 'o', b: ORIGIN },
    h: { kind: 'horizontal', a: 'base' },
    bw: { kind: 'distance', a: 'o', b: 'w', direction: 'aligned', sense: 1, value: '1' },
    turn: { kind: 'angle', a: 'base', b: 's0', alongA: 1, alongB: 1, sense: 1, value: '1' },
  };
  const sizes = new Map([['bw', 40]]);
  truth.forEach(([x, y], k) => {
    entities[`p${k}`] = { kind: 'point', x: x + rough(), y: y + rough() };
    entities[`s${k}`] = { kind: 'line', a: 'o', b: `p${k}` };
    relations[`r${k}`] = { kind: 'distance', a: 'o', b: `p${k}`, direction: 'aligned', sense: 1, value: '1' };
    sizes.set(`r${k}`, apart([0, 0], truth[k]!));
    if (k === 0) return;
    entities[`e${k}`] = { kind: 'line', a: `p${k - 1}`, b: `p${k}` };
    relations[`d${k}`] = { kind: 'distance', a: `p${k - 1}`, b: `p${k}`, direction: 'aligned', sense: 1, value: '1' };
    sizes.set(`d${k}`, apart(truth[k - 1]!, truth[k]!));
  });
  const start = Math.atan2(truth[0]![1], truth[0]![0]);
  const tried = ['sketch'];
  const at = (turn: number) => {
    const solution = solveSketch(entities, relations, new Map([...sizes, ['turn', start + turn]]));
    if (solution.state !== 'settled') throw new Broken('what is told whole settles', `${solution.state} at ${turn}`);
    if (solution.residual > 1e-8) throw new Broken('relations hold', `${solution.residual}`);
    truth.forEach(([x, y], k) => {
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const off = apart(solution.geometry.point(`p${k}`), [x * c - y * s, x * s + y * c]);
      if (off > 1e-6) throw new Broken('every corner keeps its side', `p${k} is ${off} off at ${turn}`);
    });
    return findRegions(solution.geometry);
  };
  try {
    const regions = at(0);
    const want = truth.slice(1).reduce((sum, [x, y], k) => sum + Math.abs(truth[k]![0] * y - truth[k]![1] * x) / 2, 0);
    const found = (of: typeof regions) => of.regions.reduce((sum, { area }) => sum + area, 0);
    same('areas are those of the triangles', found(regions), want, 1e-7);
    for (const turn of [chance.number(-3, 3), chance.number(-7, 7)]) {
      const turned = at(turn);
      same('turned: the same areas', found(turned), want, 1e-7);
      same('turned: as many areas', turned.regions.length, regions.regions.length, 0);
    }
    return { seed, refused: [], tried };
  } catch (error) {
    const broken = brokenBy(error);
    return {
      seed,
      refused: [],
      tried,
      broken,
      shown: JSON.stringify({ entities, relations, sizes: [...sizes], start }),
    };
  }
}
