import { ORIGIN_PLANES } from '@helb/core';

/** A small drawing of what a verb does, in a field of 48 x 32. Each member is the path of an SVG. */
export interface VerbDrawing {
  /** What was there before: thin. */
  readonly given?: string;
  /** Axes and centre lines. */
  readonly axis?: string;
  /** What it makes: strong. */
  readonly made?: string;
  /** Filled areas, below all lines. */
  readonly filled?: string;
  /** What is done by hand, or which way it goes: in the one accent. */
  readonly act?: string;
  /** What is clicked. */
  readonly points?: readonly (readonly [x: number, y: number])[];
}

// ours, drawn by hand: the pieces that come more than once

const circle = (x: number, y: number, rx: number, ry = rx): string =>
  `M${x - rx} ${y}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0`;
const rectangle = (x: number, y: number, width: number, height: number): string =>
  `M${x} ${y}h${width}v${height}h${-width}z`;
const RIGHT = (x: number, y: number): string => `M${x - 10} ${y}h10m-3 -3l3 3l-3 3`;
const UP = (x: number, y: number): string => `M${x} ${y + 10}v-10m-3 3l3 -3l3 3`;
const DOWN = (x: number, y: number): string => `M${x} ${y - 10}v10m-3 -3l3 3l3 -3`;
/** A box seen from a corner, and the flat of its foot. */
const BOX = 'M12 10L24 16L36 10L24 4ZM12 10V22L24 28L36 22V10M24 16V28';
const FOOT = 'M12 22L24 28L36 22L24 16Z';
const FLAT = 'M4 20L24 30L44 20L24 10Z';
const COIL =
  'M14 27C14 31 34 29 34 25C34 21 14 23 14 19C14 23 34 21 34 17C34 13 14 15 14 11C14 15 34 13 34 9C34 6 24 5 18 6';
const HEXAGON = 'M36 16L30 26.4H18L12 16L18 5.6H30Z';
const ARROW_ROUND = 'M15 5a12 4 0 0 1 18 0m-4 -2l4 2l-3 3';
const GROUND = 'M14 27H34M16 31l4 -4M22 31l4 -4M28 31l4 -4';

const TOOLS: Readonly<Record<string, VerbDrawing>> = {
  chain: {
    made: 'M6 24L16 8H30A8 8 0 0 1 30 24',
    points: [
      [6, 24],
      [16, 8],
      [30, 8],
      [30, 24],
    ],
  },
  rectangle: {
    made: rectangle(8, 7, 32, 18),
    points: [
      [8, 25],
      [40, 7],
    ],
  },
  circle: {
    made: circle(24, 16, 11),
    points: [
      [24, 16],
      [35, 16],
    ],
  },
  size: { given: 'M8 22H40', act: 'M8 20V6M40 20V6M8 10H40M12 8l-4 2l4 2M36 8l4 2l-4 2' },
  borrow: {
    filled: 'M4 12L18 4L32 12V22L18 30L4 22Z',
    given: 'M4 12L18 4L32 12V22L18 30L4 22Z',
    made: 'M38 8V26M42 8V26',
  },
  arc: {
    made: 'M8 24A17 17 0 0 1 40 24',
    points: [
      [8, 24],
      [24, 9.5],
      [40, 24],
    ],
  },
  'centred arc': {
    given: 'M14 26L38 26M14 26L30 8',
    made: 'M38 26A24 24 0 0 0 30 8',
    points: [
      [14, 26],
      [38, 26],
      [30, 8],
    ],
  },
  'centred rectangle': {
    given: 'M24 16L40 7',
    made: rectangle(8, 7, 32, 18),
    points: [
      [24, 16],
      [40, 7],
    ],
  },
  slot: {
    axis: 'M10 16H38',
    made: 'M14 9H34A7 7 0 0 1 34 23H14A7 7 0 0 1 14 9',
    points: [
      [14, 16],
      [34, 16],
    ],
  },
  polygon: {
    given: circle(24, 16, 12),
    made: HEXAGON,
    points: [
      [24, 16],
      [36, 16],
    ],
  },
  spline: {
    made: 'M6 22C12 2 20 6 24 16S38 30 42 10',
    points: [
      [6, 22],
      [15, 9],
      [24, 16],
      [33, 22],
      [42, 10],
    ],
  },
  ellipse: {
    axis: 'M6 16H42M24 5V27',
    made: circle(24, 16, 17, 10),
    points: [
      [24, 16],
      [41, 16],
    ],
  },
  'tangent arc': {
    given: 'M6 24H22',
    made: 'M22 24A12 12 0 0 0 34 12',
    points: [
      [22, 24],
      [34, 12],
    ],
  },
  'turned rectangle': {
    made: 'M8 18L30 6L40 16L18 28Z',
    points: [
      [8, 18],
      [30, 6],
      [40, 16],
    ],
  },
  'circle by points': {
    made: circle(24, 16, 11),
    points: [
      [14.5, 10.5],
      [24, 27],
      [33.5, 10.5],
    ],
  },
  'elliptical arc': {
    given: circle(24, 16, 17, 10),
    made: 'M41 16A17 10 0 0 0 12 8.9',
    points: [
      [24, 16],
      [41, 16],
      [12, 8.9],
    ],
  },
  'centred slot': {
    axis: 'M10 16H38',
    made: 'M14 9H34A7 7 0 0 1 34 23H14A7 7 0 0 1 14 9',
    points: [
      [24, 16],
      [34, 16],
    ],
  },
  'arc slot': {
    axis: 'M10 24A15 15 0 0 1 38 24',
    made: 'M6 24A19 19 0 0 1 42 24A4 4 0 0 1 34 24A10 10 0 0 0 14 24A4 4 0 0 1 6 24',
    points: [
      [10, 24],
      [38, 24],
    ],
  },
  'polygon round a circle': {
    given: circle(24, 16, 10.4),
    made: HEXAGON,
    points: [
      [24, 16],
      [24, 26.4],
    ],
  },
  point: { axis: 'M12 16H36M24 6V26', points: [[24, 16]] },
  text: { made: 'M10 26L17 6L24 26M12.5 19H21.5M30 6V26M30 16C30 10 40 10 40 16V26' },
  trim: { given: 'M10 4V28M38 4V28', made: 'M38 16H46', act: 'M10 16H38M20 12l8 8M28 12l-8 8' },
  extend: { given: 'M38 4V28M6 16H20', made: 'M20 16H38', act: 'M27 12l4 4l-4 4' },
  offset: { given: 'M8 28V14A6 6 0 0 1 14 8H40', made: 'M16 28V20A4 4 0 0 1 20 16H40', act: 'M32 8V16' },
  split: { given: rectangle(6, 8, 36, 16), made: 'M6 8H26L20 24H6Z', act: 'M29 2L18 30' },
  move: { given: rectangle(5, 15, 14, 12), made: rectangle(28, 5, 14, 12), act: 'M14 19L31 12m-4 -1l4 1l-2 4' },
  copy: { made: `${rectangle(5, 15, 14, 12)}${rectangle(28, 5, 14, 12)}`, act: 'M14 19L31 12m-4 -1l4 1l-2 4' },
  turn: {
    given: 'M10 26H38V18H10Z',
    made: 'M10 26L29.8 6.2L24.1 0.6L4.3 20.4Z',
    act: 'M34 16A24 24 0 0 0 29 9',
    points: [[10, 26]],
  },
  scale: { given: rectangle(8, 18, 14, 10), made: rectangle(8, 6, 31, 22), points: [[8, 28]] },
};

const EDITS: Readonly<Record<string, VerbDrawing>> = {
  fillet: { given: 'M10 28V6H40', made: 'M10 28V18A12 12 0 0 1 22 6H40' },
  chamfer: { given: 'M10 28V6H40', made: 'M10 28V18L22 6H40' },
  mirror: { axis: 'M24 2V30', given: 'M19 26H7L15 8Z', made: 'M29 26H41L33 8Z' },
  'pattern-line': {
    given: rectangle(4, 10, 9, 12),
    made: `${rectangle(19, 10, 9, 12)}${rectangle(34, 10, 9, 12)}`,
    act: 'M6 28H42m-3 -2l3 2l-3 2',
  },
  'pattern-round': {
    axis: circle(24, 16, 10),
    given: circle(34, 16, 3.6),
    made: `${circle(29, 24.7, 3.6)}${circle(19, 24.7, 3.6)}${circle(14, 16, 3.6)}${circle(19, 7.3, 3.6)}${circle(29, 7.3, 3.6)}`,
    points: [[24, 16]],
  },
  reverse: { made: 'M6 22C16 4 30 28 42 10', act: 'M11 14l-5 8l8 -1' },
  construction: { given: 'M6 9H42', axis: 'M6 23H42', act: DOWN(24, 20) },
  centreline: { axis: 'M24 2V30', made: 'M30 6H38V26H30', given: 'M18 6H10V26H18' },
  erase: { given: rectangle(10, 8, 28, 16), act: 'M17 10l14 12M31 10l-14 12' },
};

const RELATIONS: Readonly<Record<string, VerbDrawing>> = {
  coincident: { given: 'M6 24L22 14M42 26L26 15', made: circle(24, 14, 2.4), act: 'M24 4v6' },
  horizontal: { given: 'M8 21L40 13', made: 'M8 24H40' },
  vertical: { given: 'M20 28L30 4', made: 'M20 28V4' },
  parallel: { made: 'M8 24L30 6M18 28L40 10' },
  perpendicular: { made: 'M10 26H40M20 26V5', act: 'M20 20H26V26' },
  equal: { made: 'M8 10H32M16 24H40', act: 'M18 7v6M22 7v6M26 21v6M30 21v6' },
  midpoint: { made: 'M6 20H42', act: 'M13 16v8M35 16v8', points: [[24, 20]] },
  tangent: { made: `M6 26H42${circle(24, 16, 10)}`, points: [[24, 26]] },
  concentric: { made: `${circle(24, 16, 12)}${circle(24, 16, 6)}`, points: [[24, 16]] },
  collinear: { axis: 'M4 24L44 8', made: 'M6 23.2L18 18.4M30 13.6L42 8.8' },
  symmetric: { axis: 'M24 2V30', made: 'M19 26H7L15 8ZM29 26H41L33 8Z' },
  fixed: { made: 'M8 12H40', act: 'M24 12V22M16 22H32M18 26l3 -4M24 26l3 -4M30 26l3 -4' },
  uncurved: { made: 'M6 24C18 24 20 8 40 8', axis: 'M26 8H46', points: [[40, 8]] },
  across: { axis: 'M6 16H42', given: 'M10 5H32V16', act: 'M38 5V27M36 9l2 -4l2 4M36 23l2 4l2 -4' },
  distance: { given: 'M10 18V30M38 18V30', act: 'M10 16V4M38 16V4M10 9H38M14 7l-4 2l4 2M34 7l4 2l-4 2' },
  diameter: { given: circle(24, 16, 12), act: 'M15.5 24.5L32.5 7.5M17 20l-1.5 4.5l4.5 -1.5M31 12l1.5 -4.5l-4.5 1.5' },
  radius: { given: 'M12 26A18 18 0 0 1 38 10', act: 'M32 28L20 13M20.5 17.5l-0.5 -4.5l4 2', points: [[32, 28]] },
  'radius-across': { given: circle(24, 16, 18, 10), act: 'M24 16V6M22 9l2 -3l2 3', points: [[24, 16]] },
  axis: { given: circle(24, 16, 18, 10), act: 'M6 16H42M10 14l-4 2l4 2M38 14l4 2l-4 2' },
  angle: { given: 'M8 26H42M8 26L32 6', act: 'M28 26A20 20 0 0 0 23.4 13.2' },
  'arc-length': { given: 'M8 26A18 18 0 0 1 40 26', act: 'M5 20A22 22 0 0 1 43 20' },
};

const STEPS: Readonly<Record<string, VerbDrawing>> = {
  extrude: { filled: FOOT, given: FOOT, made: 'M12 10L24 16L36 10L24 4ZM12 10V22M24 16V28M36 10V22', act: UP(42, 8) },
  revolve: {
    axis: 'M24 1V31',
    filled: 'M24 10H36V25H24Z',
    made: 'M12 10a12 4 0 1 0 24 0a12 4 0 1 0 -24 0M12 10V24a12 4 0 0 0 24 0V10',
    act: ARROW_ROUND,
  },
  hole: { given: FLAT, made: circle(24, 20, 7, 3.5), act: DOWN(24, 15) },
  shell: { given: 'M8 10V22L24 30L40 22V10M24 18V30', made: 'M8 10L24 2L40 10L24 18ZM13 10L24 4.5L35 10L24 15.5Z' },
  loft: {
    given: `${circle(24, 25, 16, 5)}${circle(24, 6, 7, 2.5)}`,
    made: 'M8 25C10 16 16 14 17 6M40 25C38 16 32 14 31 6',
  },
  sweep: {
    axis: 'M6 25C22 25 16 8 42 8',
    given: circle(6, 25, 2, 5),
    made: 'M6 20C16 20 12 3 42 3M6 30C26 30 22 13 42 13M42 3V13',
  },
  helix: { axis: 'M24 1V31', made: COIL, given: circle(16, 6, 2.5) },
  combine: {
    filled: 'M24 9.3A9 9 0 1 0 24 22.7A9 9 0 1 0 24 9.3',
    given: 'M24 9.3A9 9 0 0 1 24 22.7A9 9 0 0 1 24 9.3',
    made: 'M24 9.3A9 9 0 1 0 24 22.7A9 9 0 1 0 24 9.3',
  },
  draft: { given: 'M14 6V26M34 6V26', made: 'M14 6H34L39 26H9Z', act: 'M34 18A12 12 0 0 0 37 18' },
  'offset-face': { given: rectangle(6, 8, 22, 16), made: 'M28 8H38V24H28', act: RIGHT(45, 16) },
  thicken: { given: 'M6 22C16 8 30 8 42 16', made: 'M3 17C15 1 32 1 45 10L42 16M3 17L6 22' },
  thread: { given: 'M6 8H42V24H6Z', made: 'M10 24L14 8M16 24L20 8M22 24L26 8M28 24L32 8M34 24L38 8' },
  'full-round': { given: 'M15 30V6H33V30', made: 'M15 30V15A9 9 0 0 1 33 15V30' },
  'helix-curve': { axis: 'M24 1V31', act: COIL },
  'pattern-path': {
    axis: 'M6 26C16 4 30 30 42 6',
    made: `${rectangle(3, 22, 7, 7)}${rectangle(20.5, 12.5, 7, 7)}${rectangle(38, 3, 7, 7)}`,
  },
  'bring-in': {
    given: 'M4 4H14L18 8V28H4Z',
    act: RIGHT(26, 16),
    made: 'M29 12L37 8L45 12V22L37 26L29 22ZM29 12L37 16L45 12M37 16V26',
  },
  'reference-mesh': { given: 'M6 22L16 8L26 20L38 6L44 24L26 20L6 22M16 8L38 6M26 20L32 30L44 24M6 22L32 30' },
  'opposite-hand': { axis: 'M24 2V30', given: 'M4 8H10V20H20V26H4Z', made: 'M44 8H38V20H28V26H44Z' },
  'datum-plane': { given: BOX, act: 'M6 8L30 20L44 13L20 1Z' },
  'datum-axis': { given: BOX, act: 'M24 1V31' },
  'datum-point': { given: BOX, points: [[24, 16]] },
  'datum-frame': { act: 'M20 22V6M18 9l2 -3l2 3M20 22L38 28M35 25l3 3l-4 1M20 22L6 28M10 28l-4 0l2 -3' },
  section: { filled: 'M24 16L36 10V22L24 28Z', given: BOX, act: 'M18 2L42 14V30' },
  'sketch-here': { filled: FLAT, given: FLAT, made: 'M16 20L24 16L32 20L24 24Z', act: 'M30 17L40 5l3 2L33 19l-4 1z' },
};

const JOINTS: Readonly<Record<string, VerbDrawing>> = {
  rigid: { given: rectangle(5, 10, 20, 12), made: rectangle(25, 10, 18, 12), act: 'M21 6v20M29 6v20' },
  revolute: { axis: 'M24 1V31', given: rectangle(6, 18, 36, 8), made: circle(24, 12, 10, 4), act: ARROW_ROUND },
  prismatic: { given: 'M4 20V28H44V20', made: rectangle(12, 12, 18, 12), act: 'M34 16H44M41 13l3 3l-3 3' },
  cylindrical: {
    axis: 'M2 16H46',
    given: rectangle(18, 8, 14, 16),
    made: 'M18 12H6V20H18M32 12H42V20H32',
    act: 'M8 5h10m-3 -3l3 3l-3 3M36 27a6 10 0 0 0 0 -22m-2 3l2 -3l3 3',
  },
  'pin-in-slot': { given: 'M12 9H36A7 7 0 0 1 36 23H12A7 7 0 0 1 12 9', made: circle(18, 16, 5), act: RIGHT(38, 16) },
  planar: { given: FLAT, made: 'M16 17L24 13L32 17L24 21Z', act: 'M34 22l7 -3.5M38 18l3 0.5l-1 3M14 22l-6 -3' },
  spherical: { given: 'M12 14A12 12 0 0 0 36 14', made: `${circle(24, 13, 9)}M24 4V0`, act: ARROW_ROUND },
};

const WHOLE: Readonly<Record<string, VerbDrawing>> = {
  relate: { given: rectangle(4, 6, 16, 20), made: rectangle(22, 6, 16, 12), act: 'M21 2V30' },
  opposite: STEPS['opposite-hand']!,
  'cut-open': { filled: 'M24 16L36 10V22L24 28Z', given: BOX, act: 'M18 2L42 14V30' },
  among: { given: `${rectangle(4, 6, 12, 20)}${rectangle(34, 6, 10, 20)}`, made: rectangle(18, 10, 14, 16) },
  interference: {
    given: `${rectangle(6, 5, 22, 14)}${rectangle(18, 13, 24, 14)}`,
    filled: rectangle(18, 13, 10, 6),
    act: rectangle(18, 13, 10, 6),
  },
  only: { made: rectangle(16, 8, 16, 16), axis: `${rectangle(2, 10, 10, 12)}${rectangle(36, 10, 10, 12)}` },
  hide: { axis: rectangle(16, 8, 16, 16), given: `${rectangle(2, 10, 10, 12)}${rectangle(36, 10, 10, 12)}` },
  'show-all': { made: `${rectangle(16, 8, 16, 16)}${rectangle(2, 10, 10, 12)}${rectangle(36, 10, 10, 12)}` },
  hold: { made: rectangle(14, 8, 20, 16), act: GROUND },
  trace: { given: 'M10 26L22 14', made: circle(10, 26, 2), act: 'M22 14C24 2 42 4 40 14S26 26 22 14' },
  gather: { made: `${rectangle(8, 10, 12, 12)}${rectangle(26, 10, 14, 12)}`, axis: rectangle(3, 4, 42, 24) },
  dissolve: {
    axis: rectangle(3, 4, 42, 24),
    made: `${rectangle(6, 10, 12, 12)}${rectangle(30, 10, 12, 12)}`,
    act: 'M22 16h4',
  },
  handle: {
    given: rectangle(14, 12, 16, 14),
    act: 'M22 19V3M19 6l3 -3l3 3M22 19H42M39 16l3 3l-3 3M8 26a14 14 0 0 0 8 4',
  },
  put: { given: rectangle(5, 8, 14, 14), made: rectangle(28, 10, 14, 14), act: `${RIGHT(27, 12)}M28 27H42` },
  reset: { axis: rectangle(5, 10, 14, 14), given: rectangle(28, 6, 14, 14), act: 'M30 13H18m4 -4l-4 4l4 4' },
  remove: { given: rectangle(14, 8, 20, 16), act: 'M17 10l14 12M31 10l-14 12' },
};

const DRAWINGS: Readonly<Record<string, VerbDrawing>> = {
  ...TOOLS,
  ...EDITS,
  ...RELATIONS,
  ...STEPS,
  ...Object.fromEntries(Object.entries(JOINTS).map(([kind, drawing]) => [`joint-${kind}`, drawing])),
  ...Object.fromEntries(Object.keys(ORIGIN_PLANES).map((plane) => [`sketch-${plane}`, STEPS['sketch-here']!])),
  ...WHOLE,
};

/** The drawing of a verb by its id; undefined where words say it all. */
export const pictureOf = (id: string): VerbDrawing | undefined => DRAWINGS[id.replace(/^then-/, '')];
