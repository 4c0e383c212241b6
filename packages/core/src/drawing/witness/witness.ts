import type { DualVec3, Gradient } from '../../math/index.ts';
import type { Topology } from '../../kernel-port/index.ts';
import { impliedRows } from './implied.ts';
import { mirrorsOf } from './mirrors.ts';
import { AXES, MovingFaces, STRAIGHT } from './moving-faces.ts';
import { Span } from './span.ts';

/**
 * A part whose flat and round faces can move, turn and grow, as it is at this moment: a witness of what sizes tell (the
 * witness configuration of Michelucci and Foufou, 2006, for faces instead of points). What one sees on a drawing without a
 * figure holds of itself: right angles and parallels, faces in one plane, round things on one centre line, roundings that
 * touch, and the two sides of what is symmetrical as a whole.
 */
export class Witness extends MovingFaces {
  /** What holds of itself. */
  readonly implied: Span;
  /** Where it mirrors as a whole; told by a centre line where more lies off the middle than the two outer faces. */
  readonly mirrors: readonly { readonly across: number; readonly at: number; readonly isTold: boolean }[];

  constructor(topologies: readonly Topology[]) {
    super(topologies);
    const mirrors = mirrorsOf(topologies.flatMap(({ faces }) => faces)).map(({ across, at }) => ({
      ...{ across, at },
      unknown: this.unknowns.at(`axis ${across}`, at, AXES[across]),
    }));
    this.mirrors = mirrors.map(({ across, at }) => {
      const off = this.unknowns.countOf(`axis ${across}`) + this.unknowns.countOf(`level steady ${across}`) - 1;
      return { across, at, isTold: off > 2 };
    });
    this.implied = new Span(this.count);
    for (const row of this.held()) this.implied.add(row);
    for (const row of distinct(impliedRows(this, mirrors))) this.implied.add(row);
  }

  /** The part is shifted nowhere; nor turned, where neither a face nor centre lines at several places tell how it stands. */
  private held(): Gradient[] {
    const rows = AXES.map((_, k): Gradient => {
      const at = [...this.unknowns.shifts.keys()];
      return { at, by: at.map((unknown) => this.unknowns.shifts[unknown]![k]!) };
    });
    const loose = AXES.flatMap((_, about) => {
      const turning = this.unknowns.turns.find(([axis]) => axis === about);
      const steady = this.faces.some(({ surface }) =>
        [surface.plane?.normal, surface.axis?.along].some((way) => way && isAlongAnother(way, about)),
      );
      const lines = AXES.some((_, k) => k !== about && this.unknowns.countOf(`axis ${k}`) > 1);
      return turning && !steady && !lines ? [turning[1]] : [];
    });
    return [...rows, ...loose.map((unknown): Gradient => ({ at: [unknown], by: [1] }))];
  }
}

/** Rows that are not alike: of places on one face many say the same. */
function* distinct(rows: Iterable<Gradient>): Generator<Gradient> {
  const known = new Set<string>();
  for (const row of rows) {
    let key = '';
    row.at.forEach((unknown, k) => {
      if (Math.abs(row.by[k]!) > 1e-9) key += `${unknown} ${row.by[k]!.toFixed(7)} `;
    });
    if (key === '' || known.has(key)) continue;
    known.add(key);
    yield row;
  }
}

const isAlongAnother = (way: DualVec3, about: number): boolean =>
  way.some(({ value }, k) => k !== about && Math.abs(value) > 1 - STRAIGHT);
