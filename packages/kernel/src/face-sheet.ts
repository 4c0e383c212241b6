import type {
  BRepAdaptor_Curve2d,
  BRepAdaptor_Surface,
  gp_Pnt,
  gp_Pnt2d,
  gp_Vec,
  gp_Vec2d,
  TopoDS_Face,
} from 'replicad-opencascadejs';
import { pointerReader } from './destructors.ts';
import type { Library, DisposalScope } from './library.ts';
import { explored } from './shapes.ts';

// A face as its integrals need it: places and derivatives over its own parameters, and its rim there.

/** Of what turns round, no stretch is longer. */
const QUARTER = Math.PI / 2 + 1e-9;

export type Axis = 0 | 1;
export type Lines = readonly [inner: Axis, places: number];
export type Range = readonly [number, number];

export interface Sheet {
  /** Place, then the derivatives along u and v: nine numbers. */
  jetAt(u: number, v: number): Float64Array;
  readonly bounds: readonly [u: Range, v: Range];
  /** Which parameter runs along the lines within, and how many places on each are exact; to be found out if absent. */
  readonly lines?: Lines;
  /** Where the surface goes on less smoothly, by parameter; bounds included. */
  readonly joints: readonly [u: readonly number[], v: readonly number[]];
  /** Nothing bends: along straight rims few places are exact as well. */
  readonly flat: boolean;
}

/** A stretch of the rim with the face on its left. */
export interface RimCurve {
  /** The parameters of the face, then their derivatives. */
  at(t: number): readonly [u: number, v: number, du: number, dv: number];
  readonly straight: boolean;
  readonly joints: readonly number[];
  /** Against the way in which the face lies left of it. */
  readonly against: boolean;
}

/** One direction of a surface that is a sum of products: what it is made of there. */
type Basis = 'line' | 'turn';

/** Surfaces that are known everywhere from a few places: along u and along v. */
const PRODUCTS: Readonly<Record<string, readonly [u: Basis, v: Basis]>> = {
  GeomAbs_Plane: ['line', 'line'],
  GeomAbs_Cylinder: ['turn', 'line'],
  GeomAbs_Cone: ['turn', 'line'],
  GeomAbs_Sphere: ['turn', 'turn'],
  GeomAbs_Torus: ['turn', 'turn'],
};

/** Surfaces that are polynomials along one parameter: which, and with how many places Gauss is exact. */
const POLYNOMIAL: Readonly<Record<string, Lines>> = {
  GeomAbs_Plane: [1, 2],
  GeomAbs_Cylinder: [1, 2],
  GeomAbs_SurfaceOfExtrusion: [1, 2],
  GeomAbs_Cone: [1, 3],
};

/** The surface of a face as it is integrated over: its spans and how it is evaluated. */
export function sheetOf(library: Library, scope: DisposalScope, face: TopoDS_Face): Sheet {
  const surface = scope.keep(new library.BRepAdaptor_Surface(face, true));
  const kind: string = surface.GetType();
  const bounds = [
    [surface.FirstUParameter(), surface.LastUParameter()],
    [surface.FirstVParameter(), surface.LastVParameter()],
  ] as const;
  const product = PRODUCTS[kind];
  const turning = [product?.[0] === 'turn' || kind === 'GeomAbs_SurfaceOfRevolution', product?.[1] === 'turn'];
  const jointsOf = (axis: Axis): readonly number[] => {
    const found = product ? bounds[axis] : jointsAlong(library, scope, surface, axis);
    return turning[axis] ? divided(found, QUARTER) : found;
  };
  const known = POLYNOMIAL[kind];
  const jetAt = jetReader(library, surface);
  return {
    jetAt: product ? productJet(jetAt, product) : jetAt,
    bounds,
    joints: [jointsOf(0), jointsOf(1)],
    flat: kind === 'GeomAbs_Plane',
    ...(known ? { lines: known } : {}),
  };
}

/** Where a basis is looked at, and what the coefficients of its functions are by what is found there. */
const BASES: Readonly<
  Record<
    Basis,
    { readonly at: readonly number[]; readonly from: readonly (readonly number[])[]; of(t: number): number[] }
  >
> = {
  // 1, t
  line: {
    at: [0, 1],
    from: [
      [1, 0],
      [-1, 1],
    ],
    of: (t) => [1, t, 0, 1],
  },
  // 1, cos t, sin t
  turn: {
    at: [0, Math.PI / 2, Math.PI],
    from: [
      [0.5, 0, 0.5],
      [0.5, 0, -0.5],
      [-0.5, 1, -0.5],
    ],
    of: (t) => [1, Math.cos(t), Math.sin(t), 0, -Math.sin(t), Math.cos(t)],
  },
};

/** Places of a surface of products without asking the library for each. */
function productJet(jetAt: Sheet['jetAt'], [u, v]: readonly [Basis, Basis]): Sheet['jetAt'] {
  const [across, along] = [BASES[u], BASES[v]];
  const known = across.at.map((a) => along.at.map((b) => jetAt(a, b).slice(0, 3)));
  const factors = across.from.map((shares) =>
    along.from.map((others) =>
      [0, 1, 2].map((k) =>
        shares.reduce(
          (sum, share, i) => sum + others.reduce((part, other, j) => part + share * other * known[i]![j]![k]!, 0),
          0,
        ),
      ),
    ),
  );
  const jet = new Float64Array(9);
  return (a, b) => {
    const [us, vs] = [across.of(a), along.of(b)];
    const [m, n] = [factors.length, factors[0]!.length];
    jet.fill(0);
    for (let i = 0; i < m; i++)
      for (let j = 0; j < n; j++) {
        const [place, du, dv] = [us[i]! * vs[j]!, us[m + i]! * vs[j]!, us[i]! * vs[n + j]!];
        const factor = factors[i]![j]!;
        for (let k = 0; k < 3; k++) {
          jet[k]! += place * factor[k]!;
          jet[3 + k]! += du * factor[k]!;
          jet[6 + k]! += dv * factor[k]!;
        }
      }
    return jet;
  };
}

/** Where a surface is not smooth to any order, between its bounds. */
function jointsAlong(library: Library, scope: DisposalScope, surface: BRepAdaptor_Surface, axis: Axis): number[] {
  const order = library.GeomAbs_Shape.GeomAbs_CN;
  const count = axis === 0 ? surface.NbUIntervals(order) : surface.NbVIntervals(order);
  const list = scope.keep(new library.NCollection_Array1_double(1, count + 1));
  if (axis === 0) surface.UIntervals(list, order);
  else surface.VIntervals(list, order);
  return Array.from({ length: count + 1 }, (_, k) => list.Value(k + 1));
}

/** The same stretches, those that are longer than `most` in equal pieces. */
function divided(joints: readonly number[], most: number): number[] {
  return joints.slice(1).reduce<number[]>(
    (list, to, k) => {
      const from = joints[k]!;
      const count = Math.max(1, Math.ceil((to - from) / most));
      return [...list, ...Array.from({ length: count }, (_, n) => from + ((n + 1) * (to - from)) / count)];
    },
    [joints[0]!],
  );
}

/** What the library writes places and derivatives into, and how these are read. Made once. */
class Scratch {
  private readonly place: gp_Pnt;
  private readonly along: gp_Vec;
  private readonly across: gp_Vec;
  private readonly flatPlace: gp_Pnt2d;
  private readonly flatAlong: gp_Vec2d;
  private readonly starts: readonly number[] | undefined;
  private memory: Float64Array;

  constructor(private readonly library: Library) {
    this.place = new library.gp_Pnt(0, 0, 0);
    [this.along, this.across] = [new library.gp_Vec(0, 0, 0), new library.gp_Vec(0, 0, 0)];
    this.flatPlace = new library.gp_Pnt2d(0, 0);
    this.flatAlong = new library.gp_Vec2d(0, 0);
    const pointerOf = pointerReader(library);
    const objects = [this.place, this.along, this.across, this.flatPlace, this.flatAlong];
    this.starts = pointerOf && objects.map((object) => pointerOf(object) / 8);
    this.memory = new Float64Array(library.wasmMemory.buffer);
  }

  /** Where they lie in memory they are read: nine questions less for each place. */
  jetAt(surface: BRepAdaptor_Surface, u: number, v: number, jet: Float64Array): void {
    const { place, along, across, starts } = this;
    surface.D1(u, v, place, along, across);
    if (!starts) {
      [place, along, across].forEach((object, n) => jet.set([object.X(), object.Y(), object.Z()], 3 * n));
      return;
    }
    const memory = this.view();
    for (let n = 0; n < 3; n++) for (let k = 0; k < 3; k++) jet[3 * n + k] = memory[starts[n]! + k]!;
  }

  alongAt(curve: BRepAdaptor_Curve2d, t: number): readonly [u: number, v: number, du: number, dv: number] {
    const { flatPlace, flatAlong, starts } = this;
    curve.D1(t, flatPlace, flatAlong);
    if (!starts) return [flatPlace.X(), flatPlace.Y(), flatAlong.X(), flatAlong.Y()];
    const memory = this.view();
    const [from, to] = [starts[3]!, starts[4]!];
    return [memory[from]!, memory[from + 1]!, memory[to]!, memory[to + 1]!];
  }

  /** The memory may have grown, and older views of it are dead. */
  private view(): Float64Array {
    if (this.memory.length === 0) this.memory = new Float64Array(this.library.wasmMemory.buffer);
    return this.memory;
  }
}
const scratches = new WeakMap<Library, Scratch>();
function scratchOf(library: Library): Scratch {
  const known = scratches.get(library) ?? new Scratch(library);
  scratches.set(library, known);
  return known;
}

function jetReader(library: Library, surface: BRepAdaptor_Surface): Sheet['jetAt'] {
  const scratch = scratchOf(library);
  const jet = new Float64Array(9);
  return (u, v) => {
    scratch.jetAt(surface, u, v, jet);
    return jet;
  };
}

/** The curves that bound a face, in its parameters. */
export function rimOf(library: Library, scope: DisposalScope, face: TopoDS_Face): RimCurve[] {
  // seams come twice, once each way
  return explored(library, scope, face, 'TopAbs_EDGE').flatMap((edge): RimCurve[] => {
    const way = edge.Orientation();
    if (way !== 'TopAbs_FORWARD' && way !== 'TopAbs_REVERSED') return [];
    const curve = scope.keep(new library.BRepAdaptor_Curve2d(scope.keep(library.TopoDS.Edge(edge)), face));
    return [{ ...curveOf(library, scope, curve), against: way === 'TopAbs_REVERSED' }];
  });
}

function curveOf(library: Library, scope: DisposalScope, curve: BRepAdaptor_Curve2d): Omit<RimCurve, 'against'> {
  const scratch = scratchOf(library);
  const kind = curve.GetType();
  const ends = [curve.FirstParameter(), curve.LastParameter()] as const;
  const at = (t: number) => scratch.alongAt(curve, t);
  if (kind === 'GeomAbs_Line') {
    const [u, v, du, dv] = at(ends[0]);
    return { at: (t) => [u + du * (t - ends[0]), v + dv * (t - ends[0]), du, dv], straight: true, joints: ends };
  }
  if (kind === 'GeomAbs_Circle' || kind === 'GeomAbs_Ellipse') {
    const [from, , right, up] = at(0);
    const [, , back, down] = at(Math.PI / 2);
    const middle = [from + back, at(0)[1] + down] as const;
    return {
      at(t) {
        const [c, s] = [Math.cos(t), Math.sin(t)];
        return [
          middle[0] - c * back + s * right,
          middle[1] - c * down + s * up,
          s * back + c * right,
          s * down + c * up,
        ];
      },
      straight: false,
      joints: divided(ends, QUARTER),
    };
  }
  const order = library.GeomAbs_Shape.GeomAbs_CN;
  const count = curve.NbIntervals(order);
  const list = scope.keep(new library.NCollection_Array1_double(1, count + 1));
  curve.Intervals(list, order);
  return { at, straight: false, joints: Array.from({ length: count + 1 }, (_, k) => list.Value(k + 1)) };
}
