import type { TopoDS_Shape } from 'replicad-opencascadejs';
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

export function measures(library: Library, shape: TopoDS_Shape): BodyMeasures {
  const scope = new Scope();
  const solid = scope.keep(new library.GProp_GProps());
  // the plain integration is exact for lines and round edges, but 1e-4 off where a flat face has a drawn spline for its
  // rim; the careful one takes minutes for threads and for round faces that cross each other
  if (hasDrawnSplines(library, scope, shape))
    library.BRepGProp.VolumePropertiesGK(shape, solid, 1e-8, false, true, true, true, false);
  else library.BRepGProp.VolumeProperties(shape, solid, false, false, false);
  const surface = scope.keep(new library.GProp_GProps());
  library.BRepGProp.SurfaceProperties(shape, surface, false, false);
  const centre = scope.keep(solid.CentreOfMass());
  const about = (x: number, y: number, z: number): number =>
    solid.MomentOfInertia(scope.keep(new library.gp_Ax1(centre, scope.keep(new library.gp_Dir(x, y, z)))));
  const [xx, yy, zz] = [about(1, 0, 0), about(0, 1, 0), about(0, 0, 1)] as const;
  const box = scope.keep(new library.Bnd_Box());
  library.BRepBndLib.AddOptimal(shape, box, false, false);
  const result: BodyMeasures = {
    volume_mm3: solid.Mass(),
    area_mm2: surface.Mass(),
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

/** Are there sides over drawn splines, and no freer faces? */
function hasDrawnSplines(library: Library, scope: Scope, shape: TopoDS_Shape): boolean {
  const kinds = subShapes(library, scope, shape, 'TopAbs_FACE').map((face) =>
    scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(face)), true)).GetType(),
  );
  return (
    kinds.some((kind) => kind === 'GeomAbs_SurfaceOfExtrusion') &&
    !kinds.some((kind) => kind === 'GeomAbs_BSplineSurface')
  );
}
