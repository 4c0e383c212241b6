import { FigureBuilder, ORIGIN, rectangle, solveSketch, type Entity, type Relation, type Sizes } from '@helb/core';
import { timedByTurns, type Figure } from './measure.ts';

interface Chain {
  readonly entities: Record<string, Entity>;
  readonly relations: Record<string, Relation>;
  readonly sizes: Map<string, number>;
}

/** Rectangles in a row, each hung with its corner on the one before, each with two aligned sizes, drawn a little off. */
export function chainOf(count: number): Chain {
  let ids = 0;
  const newId = (prefix: string) => `${prefix}${++ids}`;
  const chain: Chain = { entities: {}, relations: {}, sizes: new Map() };
  let previous: string = ORIGIN;
  for (let k = 0; k < count; k++) {
    const figure = new FigureBuilder(newId);
    const [p, q, r] = rectangle(figure, [k * 10 + 0.2, 0.1], [k * 10 + 10.4, 6.3]);
    const { entities, relations } = figure;
    Object.assign(chain.entities, entities);
    Object.assign(chain.relations, relations, { [newId('o')]: { kind: 'coincident', a: p, b: previous } });
    for (const [a, b, value] of [
      [p, q, 10],
      [q, r, 6],
    ] as const) {
      const id = newId('d');
      chain.relations[id] = { kind: 'distance', a, b, direction: 'aligned', sense: 1, value: '1' };
      chain.sizes.set(id, value);
    }
    previous = q;
  }
  return chain;
}

function solved(chain: Chain, sizes: Sizes): void {
  const { state } = solveSketch(chain.entities, chain.relations, sizes);
  if (state !== 'settled') throw new Error(`the chain is ${state}`);
}

export async function sketchFigures(): Promise<Figure[]> {
  const counts = [10, 50, 200];
  const chains = counts.map(chainOf);
  const works = chains.map((chain) => (k: number) => {
    const [first] = chain.sizes.keys();
    solved(chain, new Map(chain.sizes).set(first!, 10 + (k + 1) / 50));
  });
  const times = await timedByTurns(15, works);
  return counts.map((count, k): Figure => {
    const perEntity = times[k]! / count;
    const floor = times[0]! / counts[0]!;
    const ratio = perEntity / floor;
    return {
      name: `sketch: chain of ${count} dimensioned rectangles, one size changed`,
      value: times[k]!,
      unit: 'ms',
      floor: k === 0 ? null : floor * count,
      ratio: k === 0 ? null : ratio,
      aim: k === 0 ? 'the floor of the growth' : 'time for each rectangle at most 2 x that in the chain of 10',
      met: k === 0 ? null : ratio <= 2,
    };
  });
}
