import type { TopoDS_Shape } from 'replicad-opencascadejs';
import {
  solidMoments,
  type BodyHandle,
  type BodyMeasures,
  type Box3,
  type SolidMoments,
  type SurfaceMoments,
  triangleMoments,
  type Vec3,
} from '@helb/core';
import { faceMoments } from './face-moments.ts';
import { DisposalScope, type Library } from './library.ts';
import { subShapes } from './shapes.ts';
import { ShapeCache } from './shape-cache.ts';

/** Moments of faces by their identity: an edit pays only for the faces that it made. */
class FaceMeasures {
  private readonly faces: ShapeCache<SurfaceMoments>;
  private readonly inUse = new Map<BodyHandle, () => void>();

  constructor(private readonly library: Library) {
    this.faces = new ShapeCache(library, 'faces');
  }

  of = (face: TopoDS_Shape): SurfaceMoments =>
    this.faces.get(face) ?? this.faces.put(face, faceMoments(this.library, face) ?? roughMoments(this.library, face));

  solid(shape: TopoDS_Shape): SolidMoments & { readonly hasTurnedFace: boolean } {
    const scope = new DisposalScope();
    const pieces = subShapes(this.library, scope, shape, 'TopAbs_FACE').map(this.of);
    scope.close();
    return { ...solidMoments(pieces), hasTurnedFace: pieces.some(({ area }) => area < -LEAST_AREA) };
  }

  hold(body: BodyHandle, shape: TopoDS_Shape): void {
    const scope = new DisposalScope();
    const drop = this.faces.hold(subShapes(this.library, scope, shape, 'TopAbs_FACE'));
    scope.close();
    this.release(body);
    this.inUse.set(body, drop);
  }

  release(body: BodyHandle): void {
    this.inUse.get(body)?.();
    this.inUse.delete(body);
  }

  /** Lets go what no body holds: faces of what an operation made on its way. */
  tidy = (): void => this.faces.tidy();
}

/** What rounding makes of the area of a sliver, mm^2. */
const LEAST_AREA = 1e-6;

const known = new WeakMap<Library, FaceMeasures>();

/** One for all bodies of a library. */
export function faceMeasures(library: Library): FaceMeasures {
  const found = known.get(library) ?? new FaceMeasures(library);
  known.set(library, found);
  return found;
}

/** Volume of a solid, mm^3; negative where it is turned inside out. */
export const volumeOf = (library: Library, shape: TopoDS_Shape): number => faceMeasures(library).solid(shape).volume;

/** Where the middle of a solid's mass is. */
export const centreOf = (library: Library, shape: TopoDS_Shape): Vec3 => faceMeasures(library).solid(shape).centre;

/** Area of a face and the centre of it. */
export const areaOf = (library: Library, face: TopoDS_Shape): Pick<SurfaceMoments, 'area' | 'centre'> =>
  faceMeasures(library).of(face);

/** All measures of a solid, each with how far it may be off. */
export function measures(library: Library, shape: TopoDS_Shape): BodyMeasures {
  const { volume, area, centre, inertia, uncertainty } = faceMeasures(library).solid(shape);
  const scope = new DisposalScope();
  const result: BodyMeasures = {
    volume_mm3: volume,
    area_mm2: area,
    centre_mm: centre,
    inertia_mm5: inertia,
    off: { volume_mm3: uncertainty.volume, area_mm2: uncertainty.area, centre_mm: uncertainty.centre },
    box_mm: boxOf(library, shape),
    faces: subShapes(library, scope, shape, 'TopAbs_FACE').length,
  };
  scope.close();
  return result;
}

/** The box along the axes round a shape, exact. */
export function boxOf(library: Library, shape: TopoDS_Shape): Box3 {
  const scope = new DisposalScope();
  const box = scope.keep(new library.Bnd_Box());
  library.BRepBndLib.AddOptimal(shape, box, false, false);
  const found: Box3 = {
    low: [box.GetXMin(), box.GetYMin(), box.GetZMin()],
    high: [box.GetXMax(), box.GetYMax(), box.GetZMax()],
  };
  scope.close();
  return found;
}

/** A face that can not be evaluated everywhere, by its triangles: as exact as these are. */
function roughMoments(library: Library, face: TopoDS_Shape): SurfaceMoments {
  const scope = new DisposalScope();
  const mesh = scope.keep(library.ReplicadMeshExtractor.extract(face, ROUGH.deflection, ROUGH.angle, true));
  const memory = library.wasmMemory.buffer;
  const positions = new Float32Array(memory, mesh.getVerticesPtr(), mesh.getVerticesSize()).slice();
  const corners = new Uint32Array(memory, mesh.getTrianglesPtr(), mesh.getTrianglesSize()).slice();
  scope.close();
  return triangleMoments(positions, corners, ROUGH.error);
}
const ROUGH = { deflection: 0.02, angle: 0.1, error: 1e-3 } as const;
