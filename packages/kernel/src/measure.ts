import type { GProp_GProps, TopoDS_Shape } from 'replicad-opencascadejs';
import type { BodyMeasures } from '@helb/core';
import { Scope, type Library } from './library.ts';
import { subShapes } from './shapes.ts';

/** Volume of a solid, mm^3. */
export function volumeOf(library: Library, shape: TopoDS_Shape): number {
  const scope = new Scope();
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.VolumeProperties(shape, properties, false, false, false);
  const volume = properties.Mass();
  scope.close();
  return volume;
}

/** Area of faces, mm^2. */
export function areaOf(library: Library, shape: TopoDS_Shape): number {
  const scope = new Scope();
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.SurfaceProperties(shape, properties, false, false);
  const area = properties.Mass();
  scope.close();
  return area;
}

export function measures(library: Library, shape: TopoDS_Shape): BodyMeasures {
  const scope = new Scope();
  const solid = scope.keep(new library.GProp_GProps());
  integrate(library, scope, shape, solid);
  const centre = scope.keep(solid.CentreOfMass());
  const about = (x: number, y: number, z: number): number =>
    solid.MomentOfInertia(scope.keep(new library.gp_Ax1(centre, scope.keep(new library.gp_Dir(x, y, z)))));
  const [xx, yy, zz] = [about(1, 0, 0), about(0, 1, 0), about(0, 0, 1)] as const;
  const box = scope.keep(new library.Bnd_Box());
  library.BRepBndLib.AddOptimal(shape, box, false, false);
  const result: BodyMeasures = {
    volume_mm3: solid.Mass(),
    area_mm2: areaOf(library, shape),
    centre_mm: [centre.X(), centre.Y(), centre.Z()],
    // the matrix itself is not bound: products from moments about the diagonals
    inertia_mm5: [
      xx,
      yy,
      zz,
      about(1, 1, 0) - (xx + yy) / 2,
      about(1, 0, 1) - (xx + zz) / 2,
      about(0, 1, 1) - (yy + zz) / 2,
    ],
    box_mm: {
      low: [box.GetXMin(), box.GetYMin(), box.GetZMin()],
      high: [box.GetXMax(), box.GetYMax(), box.GetZMax()],
    },
    faces: subShapes(library, scope, shape, 'TopAbs_FACE').length,
  };
  scope.close();
  return result;
}

/**
 * The plain integration is exact for flat and round faces within lines and round edges. It is 1e-4 off where a flat face
 * has a drawn spline for its rim: there the careful one (Gauss-Kronrod) is taken. That takes minutes for threads, which
 * the plain one has half a percent off: for free faces it is refined until it holds still.
 */
function integrate(library: Library, scope: Scope, shape: TopoDS_Shape, solid: GProp_GProps): void {
  const kinds = new Set(
    subShapes(library, scope, shape, 'TopAbs_FACE').map((face) =>
      scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(face)), true)).GetType(),
    ),
  );
  if (kinds.has('GeomAbs_BSplineSurface')) library.BRepGProp.VolumeProperties(shape, solid, 1e-5, false, false);
  else if (kinds.has('GeomAbs_SurfaceOfExtrusion'))
    library.BRepGProp.VolumePropertiesGK(shape, solid, 1e-8, false, true, true, true, false);
  else library.BRepGProp.VolumeProperties(shape, solid, false, false, false);
}
