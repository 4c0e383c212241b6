import {
  EditBuilder,
  findFlaws,
  findRegions,
  flawWords,
  Geometry,
  mend,
  solveSketch,
  type Entities,
  type Relations,
} from '../index.ts';
import { circle, line, point, sizes } from '../test-scene.ts';

let ids = 0;
const newId = (prefix: string) => `${prefix}x${++ids}`;

/** A rectangle with one thing wrong. */
const outline = (more: Entities): Entities => ({
  p: point(0, 0),
  q: point(40, 0),
  r: point(40, 20),
  s: point(0, 20),
  pq: line('p', 'q'),
  qr: line('q', 'r'),
  rs: line('r', 's'),
  ...more,
});

const flawsOf = (entities: Entities) => {
  const geometry = new Geometry(entities);
  return findFlaws(geometry, findRegions(geometry));
};

/** The sketch with every flaw mended, one after the other. */
function mended(entities: Entities): Entities {
  let now = entities;
  let relations: Relations = {};
  for (let round = 0; round < 6; round++) {
    const [flaw] = flawsOf(now).filter(({ kind }) => kind !== 'open');
    if (!flaw) break;
    const made = mend(new EditBuilder({ geometry: new Geometry(now), relations }, newId), flaw);
    if (!made.ok) throw new Error(made.issue.code);
    const { remove } = made.value;
    const kept = Object.entries({ ...now, ...made.value.entities }).filter(([id]) => !remove.includes(id));
    relations = { ...relations, ...made.value.relations };
    now = solveSketch(Object.fromEntries(kept), relations, sizes({})).geometry.entities;
  }
  return now;
}

const areas = (entities: Entities) =>
  findRegions(new Geometry(entities)).regions.map((region) => Math.round(region.area * 1e6) / 1e6);

test.each<[string, Entities, string, string]>([
  ['a gap', { t: point(0.4, 0.3), st: line('s', 't') }, 'gap', 'gap of 0.5 mm between'],
  [
    'an end that stops short',
    { t: point(3, 20.5), u: point(3, 0.4), tu: line('t', 'u'), sp: line('s', 'p') },
    'short',
    'stops 0.4 mm short of line',
  ],
  ['an overrun', { t: point(0, -4), st: line('s', 't') }, 'overrun', 'runs 4 mm too far'],
  [
    'a doubled line',
    { sp: line('s', 'p'), t: point(40, 0), u: point(40, 20), tu: line('t', 'u') },
    'doubled',
    'lie on each other',
  ],
  [
    'an overlap',
    { sp: line('s', 'p'), t: point(30, 0), u: point(50, 0), tu: line('t', 'u') },
    'overlap',
    'share 10 mm',
  ],
])('%s is found, told and mended', (_, more, kind, words) => {
  const entities = outline(more);
  const flaws = flawsOf(entities);
  const flaw = flaws.find((found) => found.kind === kind)!;
  expect(flaws.map((found) => found.kind)).toContain(kind);
  expect(flawWords(flaw, (id) => (id.length === 1 ? 'point' : 'line'), 'mm').wrong).toContain(words);
  expect(flawsOf(mended(entities)).filter((left) => left.kind === kind)).toEqual([]);
});

test('a gap closed makes the area of the outline', () => {
  expect(areas(outline({ t: point(0.4, 0.3), st: line('s', 't') }))).toEqual([]);
  const [area] = areas(mended(outline({ t: point(0.4, 0.3), st: line('s', 't') })));
  expect(area).toBeGreaterThan(790);
});

test('circles that lie on each other, and a contained line: the shorter goes', () => {
  const rings: Entities = { m: point(0, 0), k: circle('m', 5), n: point(0, 0), l: circle('n', 5) };
  expect(flawsOf(rings).map(({ kind }) => kind)).toEqual(['doubled']);
  expect(Object.keys(mended(rings))).not.toContain('l');
  const within = outline({ sp: line('s', 'p'), t: point(10, 0), u: point(30, 0), tu: line('t', 'u') });
  const left = mended(within);
  expect(Object.keys(left)).toContain('pq');
  expect(Object.keys(left)).not.toContain('tu');
});

test('a sound outline with a hole has no flaws; an end far from everything is only told', () => {
  expect(flawsOf(outline({ sp: line('s', 'p'), m: point(20, 10), k: circle('m', 5) }))).toEqual([]);
  const lost = flawsOf(outline({ sp: line('s', 'p'), t: point(15, 9), u: point(25, 11), tu: line('t', 'u') }));
  expect(lost.map(({ kind }) => kind)).toEqual(['open', 'open']);
});
