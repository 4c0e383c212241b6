import { XMLParser } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { distance2, scale2, sub2, add2, type Vec2 } from '../math/index.ts';
import { fail, ok, type Result } from '../result/index.ts';
import { fromQuadratic } from '../sketch/pieces/index.ts';
import { LIMITS, type Outline, type OutlineCurve } from './outline.ts';

/** Length units of SVG in mm; a bare number is a pixel of 1/96 in. */
const UNITS: Readonly<Record<string, number>> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, px: 25.4 / 96 };

type Node = Readonly<Record<string, unknown>>;

/**
 * Paths and basic shapes of an SVG file, with their transforms, in mm with y upwards. The unit is known where the file
 * gives its size in one; else the caller has to say what a unit of it is.
 */
export function readSvg(text: string): Result<Outline> {
  if (text.length > LIMITS.bytes) return fail('outline.large', { most: LIMITS.bytes / 1024 ** 2, of: 'MB' });
  let tree: Node[];
  try {
    const parser = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '',
      preserveOrder: true,
      processEntities: false,
    });
    tree = parser.parse(text) as Node[];
  } catch (error) {
    return fail('outline.unreadable', { format: 'SVG', reason: (error as Error).message });
  }
  const svg = tree.find((node) => 'svg' in node);
  if (!svg) return fail('outline.unreadable', { format: 'SVG', reason: 'it has no svg element' });
  const reading: Reading = { curves: [], skipped: {} };
  const large = walk(svg['svg'] as Node[], '', reading);
  if (large) return large;
  if (reading.curves.length === 0) return fail('outline.empty', { format: 'SVG' });
  return ok({ ...reading, unit: unitOf(attributes(svg)) });
}

interface Reading {
  readonly curves: OutlineCurve[];
  readonly skipped: Record<string, number>;
}

const attributes = (node: Node): Readonly<Record<string, string>> => (node[':@'] ?? {}) as Record<string, string>;

/** Millimetres for a unit of the drawing, where its width is given in a real unit. */
function unitOf({ width = '', viewBox = '' }: Readonly<Record<string, string>>): number | undefined {
  const [, amount, unit] = /^\s*([\d.]+)\s*(mm|cm|in|pt|pc)\s*$/.exec(width) ?? [];
  if (!amount || !unit) return undefined;
  const box = viewBox
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const size = UNITS[unit]!;
  return box.length === 4 && box[2]! > 0 ? (Number(amount) * size) / box[2]! : size;
}

/** Known and of no shape. */
const QUIET = new Set(['#text', ':@', 'title', 'desc', 'metadata', 'style', '?xml']);

function walk(nodes: readonly Node[], transform: string, reading: Reading): Result<never> | undefined {
  for (const node of nodes) {
    const name = Object.keys(node).find((key) => key !== ':@');
    if (name === undefined || QUIET.has(name)) continue;
    const own = attributes(node);
    const here = `${transform} ${own['transform'] ?? ''}`.trim();
    if (here.length > MOST_TRANSFORM)
      return fail('outline.unreadable', { format: 'SVG', reason: 'its transforms are too long' });
    if (name === 'g' || name === 'a') {
      const large = walk(node[name] as Node[], here, reading);
      if (large) return large;
      continue;
    }
    const path = Object.hasOwn(SHAPES, name) ? SHAPES[name]!(own) : undefined;
    if (path === undefined) reading.skipped[name] = (reading.skipped[name] ?? 0) + 1;
    else if (path.length <= MOST_PATH) reading.curves.push(...curvesOf(path, here));
    if (reading.curves.length > LIMITS.curves || (path?.length ?? 0) > MOST_PATH)
      return fail('outline.large', { most: LIMITS.curves, of: 'curves' });
  }
  return undefined;
}

/** Signs of a path: more than as many curves as are read take, each with six numbers of 25 signs. */
const MOST_PATH = 150 * LIMITS.curves;
/** Signs of all transforms around a shape: they are read again for each. */
const MOST_TRANSFORM = 4000;

const number = (text: string | undefined): number => Number.parseFloat(text ?? '0') || 0;

/** Basic shapes as paths. */
const SHAPES: Readonly<Record<string, (own: Readonly<Record<string, string>>) => string | undefined>> = {
  path: ({ d }) => d,
  line: (own) => `M${number(own['x1'])} ${number(own['y1'])}L${number(own['x2'])} ${number(own['y2'])}`,
  polyline: ({ points }) => points && `M${points}`,
  polygon: ({ points }) => points && `M${points}Z`,
  rect(own) {
    const [x, y, w, h] = ['x', 'y', 'width', 'height'].map((key) => number(own[key])) as [
      number,
      number,
      number,
      number,
    ];
    if (w <= 0 || h <= 0) return undefined;
    const rx = Math.min(number(own['rx'] ?? own['ry']), w / 2);
    const ry = Math.min(number(own['ry'] ?? own['rx']), h / 2);
    if (rx <= 0 || ry <= 0) return `M${x} ${y}h${w}v${h}h${-w}Z`;
    const corner = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
    return `M${x + rx} ${y}h${w - 2 * rx}${corner(rx, ry)}v${h - 2 * ry}${corner(-rx, ry)}h${2 * rx - w}${corner(-rx, -ry)}v${2 * ry - h}${corner(rx, -ry)}Z`;
  },
  circle: (own) => ring(number(own['cx']), number(own['cy']), number(own['r']), number(own['r'])),
  ellipse: (own) => ring(number(own['cx']), number(own['cy']), number(own['rx']), number(own['ry'])),
};

const ring = (x: number, y: number, rx: number, ry: number): string | undefined =>
  rx > 0 && ry > 0 ? `M${x + rx} ${y}A${rx} ${ry} 0 1 1 ${x - rx} ${y}A${rx} ${ry} 0 1 1 ${x + rx} ${y}Z` : undefined;

const LEAST = 1e-9;

/** The curves of a path after its transforms, y upwards. */
function curvesOf(path: string, transform: string): OutlineCurve[] {
  const curves: OutlineCurve[] = [];
  let [first, here]: [Vec2, Vec2] = [
    [0, 0],
    [0, 0],
  ];
  const up = (x: number, y: number): Vec2 => [x, 0 - y];
  const to = (next: Vec2, curve?: OutlineCurve) => {
    if (distance2(here, next) > LEAST || curve) curves.push(curve ?? { form: 'line', from: here, to: next });
    here = next;
  };
  svgpath(path)
    .transform(transform)
    .abs()
    .unshort()
    .iterate((segment, _, x, y) => {
      here = up(x, y);
      const n = segment.slice(1) as number[];
      if (segment[0] === 'M') first = here = up(n[0]!, n[1]!);
      else if (segment[0] === 'L') to(up(n[0]!, n[1]!));
      else if (segment[0] === 'H') to(up(n[0]!, y));
      else if (segment[0] === 'V') to(up(x, n[0]!));
      else if (segment[0] === 'C') {
        const end = up(n[4]!, n[5]!);
        to(end, { form: 'bezier', from: here, inner: [up(n[0]!, n[1]!), up(n[2]!, n[3]!)], to: end });
      } else if (segment[0] === 'Q') {
        const end = up(n[2]!, n[3]!);
        to(end, { form: 'bezier', from: here, inner: fromQuadratic(here, up(n[0]!, n[1]!), end), to: end });
      } else if (segment[0] === 'A') {
        const end = up(n[5]!, n[6]!);
        const arc = arcOf(here, end, n as unknown as ArcNumbers);
        to(end, arc);
      } else to(first);
    });
  return joinedRings(curves).filter((curve) => curve.form !== 'line' || distance2(curve.from, curve.to) > LEAST);
}

type ArcNumbers = readonly [rx: number, ry: number, turn: number, large: number, sweep: number, x: number, y: number];

/** From end points to the centre, after the implementation notes of SVG 1.1 (F.6.5); y upwards the sweep is reversed. */
function arcOf(from: Vec2, to: Vec2, [rx0, ry0, turn, large, sweep]: ArcNumbers): OutlineCurve | undefined {
  let [rx, ry] = [Math.abs(rx0), Math.abs(ry0)];
  if (rx < LEAST || ry < LEAST || distance2(from, to) < LEAST) return undefined;
  const angle = (-turn * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const inAxes = ([x, y]: Vec2): Vec2 => [c * x + s * y, c * y - s * x];
  const outAxes = ([x, y]: Vec2): Vec2 => [c * x - s * y, s * x + c * y];
  const half = inAxes(scale2(sub2(from, to), 0.5));
  const grow = Math.sqrt(Math.max(1, (half[0] / rx) ** 2 + (half[1] / ry) ** 2));
  rx *= grow;
  ry *= grow;
  const [u, v] = [half[0] / rx, half[1] / ry];
  const root = Math.sqrt(Math.max(0, 1 / (u * u + v * v) - 1));
  const left = large === sweep ? 1 : -1;
  // centre of the unit circle through both ends, square on their join
  const own: Vec2 = [left * root * v * rx, -left * root * u * ry];
  const centre = add2(outAxes(own), scale2(add2(from, to), 0.5));
  const [a, b] = sweep === 0 ? [from, to] : [to, from];
  if (Math.abs(rx - ry) < 1e-9 * rx) return { form: 'arc', centre, radius: rx, from: a, to: b };
  return { form: 'ellipse', centre, tip: add2(centre, outAxes([rx, 0])), minor: ry, ends: [a, b] };
}

/** Two halves about one centre are the whole. */
function joinedRings(curves: readonly OutlineCurve[]): OutlineCurve[] {
  const [first, second] = curves;
  if (curves.length !== 2 || !first || first.form !== second?.form) return [...curves];
  if (first.form === 'arc' && second.form === 'arc' && distance2(first.centre, second.centre) < 1e-6)
    return [{ form: 'circle', centre: first.centre, radius: first.radius }];
  if (first.form === 'ellipse' && second.form === 'ellipse' && distance2(first.centre, second.centre) < 1e-6)
    return [{ form: 'ellipse', centre: first.centre, tip: first.tip, minor: first.minor }];
  return [...curves];
}
