import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { Library } from './library.ts';
import { ShapeMap } from './shapes.ts';

interface Kept<V> {
  readonly shape: TopoDS_Shape;
  readonly value: V;
  users: number;
}

/** What was found out about faces or edges, by their identity: kept while any body that has them is held. */
export class Shelf<V> {
  private readonly kept: ShapeMap<Kept<V>>;

  constructor(library: Library) {
    this.kept = new ShapeMap(library);
  }

  get = (shape: TopoDS_Shape): V | undefined => this.kept.get(shape)?.value;

  /** Nobody's yet; under a handle of its own. */
  put(shape: TopoDS_Shape, value: V): V {
    const own = shape.Oriented(shape.Orientation());
    this.kept.set(own, { shape: own, value, users: 0 });
    return value;
  }

  /** What is there of these gets one user more; call what is returned to let them go again. */
  hold(shapes: readonly TopoDS_Shape[]): () => void {
    const entries = shapes.flatMap((shape) => this.kept.get(shape) ?? []);
    for (const entry of entries) entry.users++;
    return () => {
      for (const entry of entries) {
        if (--entry.users > 0) continue;
        this.kept.delete(entry.shape);
        entry.shape.delete();
      }
    };
  }
}
