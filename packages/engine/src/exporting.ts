import {
  fail,
  transformMesh,
  ok,
  PART_COLOURS,
  IDENTITY,
  write3mf,
  writeGlb,
  writeObj,
  writeStl,
  type BodyHandle,
  type ExportBody,
  type Id,
  type Kernel,
  type Project,
  type Result,
  type Solid,
} from '@helb/core';
import { memberPose, type Assembled } from '@helb/core/assembly';
import { EXPORT_QUALITY } from './tessellation.ts';
import type { BodyQueries } from './body-queries.ts';

/** What parts, and all that is placed, are written as: by its name, and the ending of its files. */
export const FILE_FORMATS = {
  step: { title: 'STEP', type: 'model/step', words: 'exact solids in mm, with names and colours' },
  stl: { title: 'STL', type: 'model/stl', words: 'triangles in mm' },
  '3mf': { title: '3MF', type: 'model/3mf', words: 'triangles in mm, with names and colours' },
  obj: { title: 'OBJ', type: 'model/obj', words: 'triangles in mm, with names' },
  glb: { title: 'glTF', type: 'model/gltf-binary', words: 'triangles to look at, with names and colours' },
} as const;
export type FileFormat = keyof typeof FILE_FORMATS;

/** A part, with all the places where it stands. */
interface PlacedSolid {
  readonly name: string;
  readonly colour: string;
  readonly bodies: readonly BodyHandle[];
  readonly places: Solid['places'];
}

type Writer = (title: string, solids: readonly Solid[]) => Uint8Array | Promise<Uint8Array>;
const text = (words: string) => new TextEncoder().encode(words);
const WRITERS: Readonly<Record<Exclude<FileFormat, 'step'>, Writer>> = {
  '3mf': write3mf,
  glb: writeGlb,
  obj: (title, solids) => text(writeObj(title, solids)),
  stl: (title, solids) =>
    writeStl(
      solids.flatMap(({ meshes, places }) =>
        places.flatMap(({ at }) => meshes.map((mesh) => transformMesh(mesh, 1, at))),
      ),
      title,
    ),
};

/** Writes what is built as files of other programs. */
export class Exporting {
  constructor(
    private readonly kernel: Kernel,
    private readonly queries: BodyQueries,
  ) {}

  /** One part as it is drawn; fails where it has no body. */
  async part(project: Project, id: Id, bodies: readonly BodyHandle[], format: FileFormat): Promise<Result<Uint8Array>> {
    const { name, colour } = project.parts[id]!;
    if (bodies.length === 0) return fail('export.empty', { part: name });
    const piece = { name, colour: PART_COLOURS[colour]!, bodies, places: [{ name, at: IDENTITY }] };
    return this.written(name, [piece], format, false);
  }

  /** Everything that is placed, where the design puts it; fails where there is nothing. */
  async assembly(
    project: Project,
    { members, rest }: Assembled,
    bodiesOf: (part: Id) => readonly BodyHandle[],
    format: FileFormat,
  ): Promise<Result<Uint8Array>> {
    const pieces = project.partOrder.flatMap((id): PlacedSolid[] => {
      const places = members
        .filter(({ part }) => part === id)
        .map((member) => ({ name: member.name, at: memberPose(member, rest) }));
      const bodies = bodiesOf(id);
      const { name, colour } = project.parts[id]!;
      return places.length > 0 && bodies.length > 0 ? [{ name, colour: PART_COLOURS[colour]!, bodies, places }] : [];
    });
    return pieces.length > 0 ? this.written(project.name, pieces, format, true) : fail('export.nothing-placed');
  }

  private async written(
    title: string,
    pieces: readonly PlacedSolid[],
    format: FileFormat,
    placed: boolean,
  ): Promise<Result<Uint8Array>> {
    if (format !== 'step') return ok(await WRITERS[format](title, pieces.map(this.solid)));
    const bodies = pieces.flatMap(({ name, colour, bodies: of, places }) =>
      of.map((body, k): ExportBody => ({
        ...{ name: of.length === 1 ? name : `${name} ${k + 1}`, colour, body },
        ...(placed ? { places } : {}),
      })),
    );
    return this.kernel.writeStep(title, bodies);
  }

  private solid = ({ bodies, ...piece }: PlacedSolid): Solid => ({
    ...piece,
    meshes: bodies.map((body) => this.queries.describe(body, { mesh: EXPORT_QUALITY }).mesh!),
  });
}
