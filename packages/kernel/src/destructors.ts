import type { TopLoc_Location, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Library } from './library.ts';

// What is deleted goes for real. The glue code of the library knows no destructor for classes that have an allocator of
// their own, as nearly all of Open CASCADE's have: its `delete` only marks the object in JavaScript, and all that it holds
// stays for good (measured: the references to a box that is counted in WebAssembly memory do not change; a part of three
// steps keeps 140 kB with each rebuild). Here its memory is given back, after what it refers to.

/** What of WebAssembly is reached besides the bound classes: functions by number, memory, and the allocator. */
interface Machine {
  readonly table: WebAssembly.Table;
  readonly library: Library;
}

interface Allocator {
  ___libc_free(at: number): void;
  _malloc_usable_size(at: number): number;
}
interface Bound {
  delete(): void;
}
type Maker = new (...parameters: never[]) => Bound;

/** Without anything that they refer to. */
const FLAT = [
  ...['gp_Pnt', 'gp_Dir', 'gp_Vec', 'gp_Ax1', 'gp_Ax2', 'gp_Ax3', 'gp_Pln', 'gp_Trsf', 'gp_Circ', 'gp_Elips'],
  ...['gp_Pnt2d', 'gp_Dir2d', 'gp_XYZ', 'GProp_GProps', 'Bnd_Box'],
] as const;

/**
 * Mends `delete` of shapes, of everything that makes shapes, and of places, directions and the like. Leaves it alone where
 * the library is not as it was when this was measured.
 */
export function mendDeletes({ table, library }: Machine): void {
  const pointerOf = pointerReader(library);
  if (!pointerOf) return;
  const { ___libc_free: free, _malloc_usable_size: sizeOf } = library as unknown as Allocator;
  const classes = library as unknown as Readonly<Record<string, Maker | undefined>>;

  /** Gives the memory of objects of a class back; before that what they refer to is let go. */
  const freeing = (name: string, letGo: (object: never) => void = () => undefined) => {
    const made = classes[name] && new classes[name]();
    if (!made) return;
    const size = sizeOf(pointerOf(made));
    mend(classes[name]!, (object) => {
      const at = pointerOf(object);
      // what lies within something else is not its own to free
      if (sizeOf(at) !== size) return;
      letGo(object as never);
      free(at);
    });
    made.delete();
  };
  FLAT.forEach((name) => freeing(name));
  freeing('TopoDS_Shape', (shape: TopoDS_Shape) => shape.Nullify());
  freeing('TopLoc_Location', (location: TopLoc_Location) => location.Identity());

  // makers have virtual destructors: the second entry of the table of virtual functions destroys and frees
  // (Itanium C++ ABI, 2.5.2)
  mend(library.BRepBuilderAPI_Command, (object) => {
    const at = pointerOf(object);
    const words = new Uint32Array(library.wasmMemory.buffer);
    const destroy: unknown = table.get(words[words[at >>> 2]! / 4 + 1]!);
    if (typeof destroy === 'function') (destroy as (at: number) => void)(at);
  });
}

/** Lets a class, and those that are derived from it, do something before they are marked as deleted. */
function mend({ prototype }: Maker, before: (object: Bound) => void): void {
  const bound = prototype as Bound;
  const mark = bound.delete;
  bound.delete = function (this: Bound) {
    // who deletes twice is told so
    if (!(this as Bound & { isDeleted(): boolean }).isDeleted()) before(this);
    mark.call(this);
  };
}

/**
 * Reads where in memory a bound object lies. The names of the fields are not told by the library: they are found by a point
 * whose coordinates are known. Undefined where they are not found.
 */
export function pointerReader(library: Library): ((object: Bound) => number) | undefined {
  const point = new library.gp_Pnt(3.25, -7.5, 11.75);
  const isIt = (at: unknown): boolean =>
    typeof at === 'number' &&
    at > 0 &&
    at % 8 === 0 &&
    [3.25, -7.5, 11.75].every((c, k) => new Float64Array(library.wasmMemory.buffer)[at / 8 + k] === c);
  const fields = (of: object) => Object.getOwnPropertyNames(of);
  const inside = (of: object, name: string): unknown => (of as Record<string, unknown>)[name];
  for (const outer of fields(point)) {
    const held = inside(point, outer);
    if (typeof held !== 'object' || held === null) continue;
    const inner = fields(held).find((name) => isIt(inside(held, name)));
    if (inner !== undefined) return (object) => inside(inside(object, outer) as object, inner) as number;
  }
  return undefined;
}
