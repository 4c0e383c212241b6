import {
  cutOut,
  drawnPart,
  fail,
  filled,
  findRegions,
  Geometry,
  locate,
  ok,
  outlinePieces,
  planeOf,
  projected,
  writeDxf,
  writeSvg,
  type CutOptions,
  type Id,
  type Piece,
  type Project,
  type Reference,
  type Result,
  type SolvedSketch,
  type Thing,
} from '@helb/core';
import type { BuildContext } from './build-context.ts';

/** What outlines are written as. */
export type OutlineFormat = 'dxf' | 'svg';
const WRITERS: Readonly<Record<OutlineFormat, (pieces: readonly Piece[]) => string>> = { dxf: writeDxf, svg: writeSvg };

const bytesOf = (pieces: readonly Piece[], format: OutlineFormat): Uint8Array =>
  new TextEncoder().encode(WRITERS[format](pieces));

/** The outline of a sketch, construction left out; fails where nothing is drawn. */
export function sketchOutline(
  project: Project,
  part: Id,
  sketch: Id,
  solved: SolvedSketch | undefined,
  format: OutlineFormat,
): Result<Uint8Array> {
  const name = drawnPart(project, part)?.steps[sketch]?.name ?? sketch;
  if (!solved) return fail('engine.suppressed', { step: name });
  const pieces = outlinePieces(solved);
  return pieces.length === 0 ? fail('export.nothing-drawn', { sketch: name }) : ok(bytesOf(pieces, format));
}

export interface FaceOutlineOptions extends CutOptions {
  /** Which flat face; the largest if absent. */
  readonly face?: Reference;
}

/** A flat face as it is cut out. Fails where there is none, or the cut does not fit in. */
export function faceOutline(
  part: string,
  buildContext: BuildContext,
  { face, ...options }: FaceOutlineOptions,
  format: OutlineFormat,
): Result<Uint8Array> {
  const thing = face ? locate(face, 'plane', buildContext) : undefined;
  if (thing && !thing.ok) return thing;
  const wanted = thing?.value.thing ?? largestFlat(buildContext);
  const frame = wanted && planeOf(wanted);
  if (wanted?.to !== 'face' || !frame) return fail('cut.none', { part });
  const drawn = projected(wanted, 'shape', frame, () => []);
  if (!drawn.ok) return drawn;
  const pieces = cutOut(filled(findRegions(new Geometry(drawn.value))), options);
  return pieces.ok ? ok(bytesOf(pieces.value, format)) : pieces;
}

function largestFlat({ bodies }: BuildContext): Thing | undefined {
  const flat = bodies.flatMap((topology, body) =>
    topology.faces.flatMap((face) =>
      face.surface.form === 'plane' ? [{ to: 'face', face, body, topology } as const] : [],
    ),
  );
  return flat.sort((a, b) => b.face.area - a.face.area)[0];
}
