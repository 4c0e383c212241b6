import init, { type OpenCascadeInstance, type TopoDS_Shape } from 'replicad-opencascadejs';
import type { BodyHandle, Kernel, Profile, Result } from '@helb/core';
import { circle, profile, rectangle } from '@helb/core/samples';
import type { Figure } from './measure.ts';

const FINENESS = { deflection: 0.1, angle: 0.3 };
const ROWS = 20;

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(result.issue.code);
  return result.value;
};

/** A plate of 200 x 200 x 5 mm with 400 holes: how long until it can be shown, and shown again after one more hole. */
export async function plateFigures(kernel: Kernel): Promise<Figure[]> {
  const floor = await bareTime();
  const extruded = (area: Profile, from: number, to: number, step: string) =>
    value(kernel.extrude({ profile: area, from, to, step }))[0]!;
  const cut = (body: BodyHandle, tools: BodyHandle[]) => value(kernel.combine('cut', [body], tools)).bodies[0]!;
  const side = 10 * ROWS;
  const slab = extruded(profile(rectangle(0, 0, side, side)), 0, 5, 's');
  const holes = Array.from({ length: ROWS * ROWS }, (_, k) =>
    extruded(profile(circle(10 * (k % ROWS) + 5, 10 * Math.floor(k / ROWS) + 5, 3)), -1, 6, `h${k}`),
  );
  const plate = cut(slab, holes);
  const time = (body: BodyHandle) => {
    const start = performance.now();
    kernel.mesh(body, FINENESS);
    return performance.now() - start;
  };
  const first = time(plate);
  const edited = cut(plate, [extruded(profile(circle(10, 10, 1)), -1, 6, 'x')]);
  const second = time(edited);
  [slab, ...holes, plate, edited].forEach((body) => kernel.release(body));
  return [
    {
      name: 'rebuild: the mesh of a plate with 400 holes',
      value: first,
      unit: 'ms',
      floor,
      ratio: first / floor,
      aim: "at most a quarter of the library's own meshing",
      met: first <= floor / 4,
    },
    {
      name: 'rebuild: its mesh after one more hole',
      value: second,
      unit: 'ms',
      floor,
      ratio: second / floor,
      aim: "at most a tenth of the library's own meshing",
      met: second <= floor / 10,
    },
  ];
}

/** The library's own meshing of the same plate, ms. */
async function bareTime(): Promise<number> {
  const library = await init({ print() {}, printErr() {} });
  const plate = plateOf(library);
  const start = performance.now();
  library.ReplicadMeshExtractor.extract(plate, FINENESS.deflection, FINENESS.angle, false);
  return performance.now() - start;
}

function plateOf(library: OpenCascadeInstance): TopoDS_Shape {
  const at = (x: number, y: number, z: number) => new library.gp_Pnt(x, y, z);
  const list = (shapes: TopoDS_Shape[]) => {
    const made = new library.NCollection_List_TopoDS_Shape();
    shapes.forEach((shape) => made.Append(shape));
    return made;
  };
  const up = new library.gp_Dir(0, 0, 1);
  const slab = new library.BRepPrimAPI_MakeBox(at(0, 0, 0), at(10 * ROWS, 10 * ROWS, 5)).Shape();
  const holes = Array.from({ length: ROWS * ROWS }, (_, k) =>
    new library.BRepPrimAPI_MakeCylinder(
      new library.gp_Ax2(at(10 * (k % ROWS) + 5, 10 * Math.floor(k / ROWS) + 5, -1), up),
      3,
      7,
    ).Shape(),
  );
  const cut = new library.BRepAlgoAPI_Cut();
  cut.SetArguments(list([slab]));
  cut.SetTools(list(holes));
  cut.Build(new library.Message_ProgressRange());
  return cut.Shape();
}
