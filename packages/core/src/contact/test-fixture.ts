import { cross3, direction3, scale3, type Vec3 } from '../math/index.ts';
import type { BodyMesh, EdgeFacts, FaceFacts, NamedRange, Topology } from '../kernel-port/index.ts';
import type { Leg } from '../samples/index.ts';
import { contactShape, type ContactShape } from './index.ts';

// Bodies for tests of contact: outlines of lines and arcs in the plane, counter-clockwise, pulled up along z.

const CHORD = 0.1;

export function prism(start: readonly [number, number], legs: readonly Leg[], low: number, high: number): ContactShape {
  const lists = {
    positions: [] as number[],
    normals: [] as number[],
    triangles: [] as number[],
    edgePoints: [] as number[],
  };
  const ranges = { faces: [] as NamedRange[], edges: [] as NamedRange[] };
  const faces: FaceFacts[] = [];
  const edges: EdgeFacts[] = [];
  const vertices: { name: string; at: Vec3 }[] = [];
  const count = legs.length;
  let from = start;
  const directions: { begin: Vec3; end: Vec3 }[] = [];
  const lines = (name: string, places: readonly Vec3[]) => {
    ranges.edges.push({ name, start: lists.edgePoints.length / 3, count: 2 * (places.length - 1) });
    places.slice(1).forEach((place, k) => lists.edgePoints.push(...places[k]!, ...place));
  };
  legs.forEach(({ to, about, hollow = false }, k) => {
    const places = about ? arc(from, to, about, hollow) : [from, to];
    const wayOut = ([x, y]: readonly [number, number]): Vec3 => {
      if (!about) return direction3(cross3([to[0] - from[0], to[1] - from[1], 0], [0, 0, 1]))!;
      return scale3(direction3([x - about[0], y - about[1], 0])!, hollow ? -1 : 1);
    };
    const first = lists.positions.length / 3;
    for (const place of places)
      for (const z of [low, high]) {
        lists.positions.push(...place, z);
        lists.normals.push(...wayOut(place));
      }
    const begin = lists.triangles.length;
    for (let n = 0; n + 1 < places.length; n++) {
      const [a, b, c, d] = [0, 2, 3, 1].map((step) => first + 2 * n + step) as [number, number, number, number];
      lists.triangles.push(a, b, c, a, c, d);
    }
    const name = `side ${k}`;
    ranges.faces.push({ name, start: begin, count: lists.triangles.length - begin });
    const middle: Vec3 = [...places[Math.floor(places.length / 2)]!, low];
    faces.push({
      ...{ name, area: 1, centre: middle },
      surface: about
        ? {
            form: 'cylinder',
            origin: [...about, 0],
            axis: [0, 0, 1],
            radius: Math.hypot(from[0] - about[0], from[1] - about[1]),
            hollow,
          }
        : { form: 'plane', origin: [...from, 0], normal: wayOut(from) },
    });
    for (const [cap, z] of [
      ['low', low],
      ['high', high],
    ] as const) {
      const [p, q] = [[...from, z] as Vec3, [...to, z] as Vec3];
      const radius = about ? Math.hypot(from[0] - about[0], from[1] - about[1]) : 0;
      edges.push({
        ...{ name: `${cap} ${k}`, faces: [name, cap], length: 1, middle, turn: 'outer' },
        ends: [`${cap} ${k}`, `${cap} ${(k + 1) % count}`],
        curve: about
          ? { form: 'circle', centre: [...about, z], axis: [0, 0, hollow ? -1 : 1], radius, from: p, to: q }
          : { form: 'line', from: p, to: q },
      });
      lines(
        `${cap} ${k}`,
        places.map((place): Vec3 => [...place, z]),
      );
      vertices.push({ name: `${cap} ${k}`, at: p });
    }
    const heading = (place: readonly [number, number]): Vec3 => cross3([0, 0, 1], wayOut(place));
    directions.push({ begin: heading(from), end: heading(to) });
    from = to;
  });
  let corner = start;
  legs.forEach(({ to }, k) => {
    const [before, after] = [directions[(k + count - 1) % count]!.end, directions[k]!.begin];
    const turn = cross3(before, after)[2];
    edges.push({
      ...{ name: `up ${k}`, faces: [`side ${(k + count - 1) % count}`, `side ${k}`], length: high - low },
      ends: [`low ${k}`, `high ${k}`],
      middle: [...corner, low],
      turn: Math.abs(turn) < 1e-6 ? 'smooth' : turn > 0 ? 'outer' : 'inner',
      curve: { form: 'line', from: [...corner, low], to: [...corner, high] },
    });
    lines(`up ${k}`, [
      [...corner, low],
      [...corner, high],
    ]);
    corner = to;
  });
  // the caps are told and touch by their edges; their insides have no triangles
  for (const [name, z] of [
    ['low', low],
    ['high', high],
  ] as const) {
    const normal: Vec3 = [0, 0, z === low ? -1 : 1];
    faces.push({ name, area: 1, centre: [0, 0, z], surface: { form: 'plane', origin: [0, 0, z], normal } });
    const at = lists.positions.length / 3;
    lists.positions.push(...start, z, ...start, z, ...start, z);
    for (let n = 0; n < 3; n++) lists.normals.push(...normal);
    ranges.faces.push({ name, start: lists.triangles.length, count: 3 });
    lists.triangles.push(at, at + 1, at + 2);
  }
  const mesh: BodyMesh = {
    positions: Float32Array.from(lists.positions),
    normals: Float32Array.from(lists.normals),
    triangles: Uint32Array.from(lists.triangles),
    edgePoints: Float32Array.from(lists.edgePoints),
    ...ranges,
  };
  const topology: Topology = { name: 'body', faces, edges, vertices };
  return contactShape(mesh, topology, 0.05);
}

function arc(
  from: readonly [number, number],
  to: readonly [number, number],
  about: readonly [number, number],
  hollow: boolean,
): readonly (readonly [number, number])[] {
  const angle = (place: readonly [number, number]) => Math.atan2(place[1] - about[1], place[0] - about[0]);
  const radius = Math.hypot(from[0] - about[0], from[1] - about[1]);
  let sweep = angle(to) - angle(from);
  while (sweep <= 1e-9) sweep += 2 * Math.PI;
  if (hollow) while (sweep > -1e-9) sweep -= 2 * Math.PI;
  const steps = Math.ceil(Math.abs(sweep) / CHORD);
  return Array.from({ length: steps + 1 }, (_, k) => {
    const at = angle(from) + (sweep * k) / steps;
    return [about[0] + radius * Math.cos(at), about[1] + radius * Math.sin(at)] as const;
  });
}

export const block = (x: number, y: number, width: number, height: number, low = 0, high = 10): ContactShape =>
  prism(
    [x, y],
    [{ to: [x + width, y] }, { to: [x + width, y + height] }, { to: [x, y + height] }, { to: [x, y] }],
    low,
    high,
  );

/** Two halves of a cylinder. */
export const disc = (x: number, y: number, radius: number, low = 0, high = 10): ContactShape =>
  prism(
    [x + radius, y],
    [
      { to: [x - radius, y], about: [x, y] },
      { to: [x + radius, y], about: [x, y] },
    ],
    low,
    high,
  );
