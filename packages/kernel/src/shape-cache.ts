import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { Library } from './library.ts';
import { ShapeMap } from './shapes.ts';

interface Kept<V> {
  readonly shape: TopoDS_Shape;
  readonly value: V;
  users: number;
}

/**
 * What was found out about faces or edges, by their identity: kept while any body that has them is held. One face may be
 * the side of two bodies, as where one was split: it then looks the other way, and is another one here.
 */
export class ShapeCache<V> {
  private readonly forward: ShapeMap<Kept<V>>;
  private readonly reversed: ShapeMap<Kept<V>>;
  /** What nobody has held yet. */
  private readonly loose = new Set<Kept<V>>();

  constructor(library: Library, of: 'faces' | 'edges') {
    this.forward = new ShapeMap(library);
    this.reversed = of === 'faces' ? new ShapeMap(library) : this.forward;
  }

  get = (shape: TopoDS_Shape): V | undefined => this.mapFor(shape).get(shape)?.value;

  private mapFor = (shape: TopoDS_Shape): ShapeMap<Kept<V>> =>
    this.reversed !== this.forward && shape.Orientation() === 'TopAbs_REVERSED' ? this.reversed : this.forward;

  /** Nobody's yet; under a handle of its own. */
  put(shape: TopoDS_Shape, value: V): V {
    const own = shape.Oriented(shape.Orientation());
    const entry = { shape: own, value, users: 0 };
    this.mapFor(shape).set(own, entry);
    this.loose.add(entry);
    return value;
  }

  /** What is there of these gets one user more; call what is returned to let them go again. */
  hold(shapes: readonly TopoDS_Shape[]): () => void {
    const entries = shapes.flatMap((shape) => this.mapFor(shape).get(shape) ?? []);
    for (const entry of entries) {
      entry.users++;
      this.loose.delete(entry);
    }
    return () => {
      for (const entry of entries) if (--entry.users === 0) this.drop(entry);
    };
  }

  /** Lets go what nobody holds. */
  tidy(): void {
    for (const entry of this.loose) this.drop(entry);
    this.loose.clear();
  }

  private drop({ shape }: Kept<V>): void {
    this.mapFor(shape).delete(shape);
    shape.delete();
  }
}
