import { distance3, type Vec3 } from '../../math/index.ts';
import type { FaceFacts } from '../../kernel-port/index.ts';

/** Planes square to the axes of the part in which all of it is its own mirror image. */
export function mirrorsOf(faces: readonly FaceFacts[]): { across: number; at: number }[] {
  const area = faces.reduce((sum, face) => sum + face.area, 0);
  return [0, 1, 2].flatMap((across) => {
    const at = faces.reduce((sum, face) => sum + face.centre[across]! * face.area, 0) / area;
    return faces.every((face) => mirroredFace(face, faces, { across, at })) ? [{ across, at }] : [];
  });
}

/** The face that is the mirror image of another. */
export function mirroredFace<T extends Pick<FaceFacts, 'surface' | 'area' | 'centre'>>(
  face: FaceFacts,
  all: readonly T[],
  mirror: { readonly across: number; readonly at: number },
): T | undefined {
  const centre = mirrored(face.centre, mirror);
  return all.find(
    (other) =>
      other.surface.form === face.surface.form &&
      Math.abs(other.area - face.area) < 1e-6 * Math.max(1, face.area) &&
      distance3(other.centre, centre) < 1e-5,
  );
}

/** A place mirrored in a plane square to an axis. */
export const mirrored = (place: Vec3, { across, at }: { readonly across: number; readonly at: number }): Vec3 =>
  place.map((c, k) => (k === across ? 2 * at - c : c)) as unknown as Vec3;
