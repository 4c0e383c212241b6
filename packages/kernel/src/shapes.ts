import type {
  NCollection_List_TopoDS_Shape,
  TopAbs_ShapeEnum,
  TopExp_Explorer,
  TopoDS_Shape,
} from 'replicad-opencascadejs';
import type { Library, DisposalScope } from './library.ts';

const HASH_BOUND = 2147483647;

/** A map keyed by the identity of shapes (same geometry and place; orientation does not matter). */
export class ShapeMap<V> {
  private readonly buckets = new Map<number, { shape: TopoDS_Shape; value: V }[]>();

  constructor(private readonly library: Library) {}

  get(shape: TopoDS_Shape): V | undefined {
    return this.buckets.get(this.hash(shape))?.find((entry) => entry.shape.IsSame(shape))?.value;
  }

  set(shape: TopoDS_Shape, value: V): void {
    const hash = this.hash(shape);
    const bucket = this.buckets.get(hash);
    const entry = bucket?.find((other) => other.shape.IsSame(shape));
    if (entry) entry.value = value;
    else if (bucket) bucket.push({ shape, value });
    else this.buckets.set(hash, [{ shape, value }]);
  }

  delete(shape: TopoDS_Shape): void {
    const hash = this.hash(shape);
    const rest = this.buckets.get(hash)?.filter((other) => !other.shape.IsSame(shape)) ?? [];
    if (rest.length > 0) this.buckets.set(hash, rest);
    else this.buckets.delete(hash);
  }

  private hash = (shape: TopoDS_Shape): number => this.library.ReplicadShapeHasher.HashCode(shape, HASH_BOUND);
}

/** Sub-shapes of a kind in the library's own, repeatable order; each once. The scope owns them. */
export function subShapes(
  library: Library,
  scope: DisposalScope,
  shape: TopoDS_Shape,
  kind: TopAbs_ShapeEnum,
): TopoDS_Shape[] {
  const seen = new ShapeMap<true>(library);
  return explored(library, scope, shape, kind).filter((current) => {
    const known = seen.get(current);
    seen.set(current, true);
    return !known;
  });
}

/** Sub-shapes of a kind as often as they are used, each as it is turned there. The scope owns them. */
export function explored(
  library: Library,
  scope: DisposalScope,
  shape: TopoDS_Shape,
  kind: TopAbs_ShapeEnum,
): TopoDS_Shape[] {
  const explorer = explorerOf(library);
  explorer.Init(shape, kind, library.TopAbs_ShapeEnum.TopAbs_SHAPE);
  const found: TopoDS_Shape[] = [];
  for (; explorer.More(); explorer.Next()) found.push(scope.keep(explorer.Current()));
  return found;
}

/** One explorer for everything: each that is made keeps half a kilobyte for good, even when deleted. */
const explorers = new WeakMap<Library, TopExp_Explorer>();

function explorerOf(library: Library): TopExp_Explorer {
  let explorer = explorers.get(library);
  if (!explorer) explorers.set(library, (explorer = new library.TopExp_Explorer()));
  return explorer;
}

/** The members of a list. Lists can't be iterated in this build: a copy is emptied from the front. */
export function members(library: Library, scope: DisposalScope, list: NCollection_List_TopoDS_Shape): TopoDS_Shape[] {
  const copy = scope.keep(new library.NCollection_List_TopoDS_Shape(list));
  const found: TopoDS_Shape[] = [];
  while (copy.Size() > 0) {
    found.push(scope.keep(copy.First()));
    copy.RemoveFirst();
  }
  return found;
}

/** A list of shapes; the scope owns it. */
export function listOf(
  library: Library,
  scope: DisposalScope,
  shapes: readonly TopoDS_Shape[],
): NCollection_List_TopoDS_Shape {
  const list = scope.keep(new library.NCollection_List_TopoDS_Shape());
  for (const shape of shapes) list.Append(shape);
  return list;
}
