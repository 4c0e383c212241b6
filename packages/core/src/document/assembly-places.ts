import { isTurn, type Coordinate } from '../naming/index.ts';
import { ASSEMBLY_RELATIONS, type Assembly, type Placement, type Triple } from '../assembly/index.ts';
import type { Study } from '../study/index.ts';
import { ANGLE, LENGTH, NUMBER, type Dimension } from '../units/index.ts';
import type { PlacedExpression } from './expression-places.ts';
import type { Project } from './schema.ts';

/** All expressions of the assembly, of the groups and of the studies. */
export const placedInAssemblies = ({ assembly, groups = {}, studies = {} }: Project): PlacedExpression[] => [
  ...(assembly ? placesOf(assembly, ['assembly'], '') : []),
  ...Object.entries(groups).flatMap(([id, group]) => placesOf(group, ['groups', id], `${group.name} · `)),
  ...Object.entries(studies).flatMap(([id, study]) => ofStudy(study, ['studies', id])),
];

function placesOf(assembly: Assembly, at: readonly string[], before: string): PlacedExpression[] {
  const place = (kind: string, id: string, name: string) => {
    return (path: readonly string[], text: string, asks: Dimension, label: string): PlacedExpression => ({
      path: [...at, kind, id, ...path],
      text,
      asks,
      label: `${before}${name} · ${label}`,
    });
  };
  const placements = Object.entries(assembly.placements).flatMap(([id, placement]) =>
    ofPlacement(placement, place('placements', id, placement.name)),
  );
  const joints = Object.entries(assembly.joints).flatMap(
    ([id, { name, offset, aside = [], angle, limits = {}, rest = {} }]) => {
      const own = place('joints', id, name);
      const asks = (coordinate: string) => (isTurn(coordinate as Coordinate) ? ANGLE : LENGTH);
      return [
        own(['offset'], offset, LENGTH, 'offset'),
        ...aside.map((text, k) => own(['aside', `${k}`], text, LENGTH, `offset along ${'xy'[k]}`)),
        own(['angle'], angle, ANGLE, 'angle'),
        ...Object.entries(limits).flatMap(([coordinate, range]) =>
          (['least', 'most'] as const).flatMap((bound) => {
            const text = range[bound];
            return text === undefined
              ? []
              : [own(['limits', coordinate, bound], text, asks(coordinate), `${coordinate} ${bound}`)];
          }),
        ),
        ...Object.entries(rest).map(([coordinate, text]) =>
          own(['rest', coordinate], text, asks(coordinate), `${coordinate} at rest`),
        ),
      ];
    },
  );
  const relations = Object.entries(assembly.relations).flatMap(([id, { name, kind, amount }]) => {
    const { asks, title } = ASSEMBLY_RELATIONS[kind];
    if (!asks || amount === undefined) return [];
    return [place('relations', id, name)(['amount'], amount, asks, title)];
  });
  const ratios = Object.entries(assembly.ratios).map(([id, { name, first, second, factor }]) =>
    place('ratios', id, name)(
      ['factor'],
      factor,
      isTurn(first.coordinate) && !isTurn(second.coordinate) ? LENGTH : NUMBER,
      'factor',
    ),
  );
  return [...placements, ...joints, ...relations, ...ratios];
}

function ofStudy({ name, drives, seconds, steps, approaches = {} }: Study, at: readonly string[]): PlacedExpression[] {
  const own = (path: readonly string[], text: string, asks: Dimension, label: string): PlacedExpression => ({
    ...{ path: [...at, ...path], text, asks },
    label: `${name} · ${label}`,
  });
  return [
    ...drives.flatMap(({ coordinate, from, to }, k) => {
      const asks = isTurn(coordinate) ? ANGLE : LENGTH;
      return [own(['drives', `${k}`, 'from'], from, asks, 'from'), own(['drives', `${k}`, 'to'], to, asks, 'to')];
    }),
    own(['seconds'], seconds, NUMBER, 'seconds'),
    own(['steps'], steps, NUMBER, 'steps'),
    ...Object.entries(approaches).flatMap(([id, { least }]) =>
      least === undefined ? [] : [own(['approaches', id, 'least'], least, LENGTH, 'how near')],
    ),
  ];
}

function ofPlacement(
  { at, turn, repeat }: Placement,
  own: (path: readonly string[], text: string, asks: Dimension, label: string) => PlacedExpression,
): PlacedExpression[] {
  const along = (field: string, texts: Triple, asks: Dimension, word: string, path: readonly string[] = []) =>
    (['x', 'y', 'z'] as const).map((axis) => own([...path, field, axis], texts[axis], asks, `${word} ${axis}`));
  const pose = [...along('at', at, LENGTH, 'at'), ...along('turn', turn, ANGLE, 'turned about')];
  if (!repeat) return pose;
  const count = own(['repeat', 'count'], repeat.count, NUMBER, 'count');
  const more =
    repeat.layout === 'line'
      ? along('by', repeat.by, LENGTH, 'apart along', ['repeat'])
      : [own(['repeat', 'over'], repeat.over, ANGLE, 'over')];
  return [...pose, count, ...more];
}
