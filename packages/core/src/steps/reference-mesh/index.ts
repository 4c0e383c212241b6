import { compose, translation, IDENTITY, rotation, type RigidTransform } from '../../math/index.ts';
import { MESH_ENDINGS, meshWords } from '../../meshes/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { laying } from '../define.ts';
import { choice, fileField, number } from '../fields/index.ts';
import type { LaidFile } from '../kind.ts';

const SHIFT = { asks: LENGTH, min: -1e5, max: 1e5, initial: '0 mm' } as const;
/** Millimetres for a unit; a file that names none is in millimetres. */
const UNITS = { file: undefined, mm: 1, cm: 10, m: 1000, in: 25.4 } as const;

const fields = {
  file: fileField('STL or 3MF file', MESH_ENDINGS),
  unit: choice('unit', { file: 'of the file', mm: 'mm', cm: 'cm', m: 'm', in: 'in' }, 'file'),
  up: choice('what is up', { z: 'z', y: 'y' }, 'z'),
  x: number('along x', SHIFT),
  y: number('along y', SHIFT),
  z: number('along z', SHIFT),
  angle: number('angle', { asks: ANGLE, min: -200 * Math.PI, max: 200 * Math.PI, initial: '0 deg' }),
};

/** Triangles to build after: they are seen, measured and drawn over, but are no body. */
export const referenceMesh = laying('reference-mesh', {
  title: 'Lay a mesh under',
  noun: 'Mesh',
  verb: { key: '', says: 'Lays a scanned or downloaded mesh under the model, to draw over it.' },
  fields,
  sentence:
    'Lay the mesh {file} under the model, units {unit}, up is {up}[?, moved by {x} {y} {z}][?, turned by {angle} about z]',
  inputs({ file, unit, up, x, y, z, angle }): Result<LaidFile> {
    const turned = compose(UPRIGHT[up], rotation([0, 0, 0], [0, 0, 1], angle));
    return ok({ file, unit: UNITS[unit], at: compose(turned, translation([x, y, z])) });
  },
  words: meshWords,
});

/** Turns what is up in the file to z. */
const UPRIGHT: Readonly<Record<'y' | 'z', RigidTransform>> = {
  z: IDENTITY,
  y: [
    [1, 0, 0, 0],
    [0, 0, -1, 0],
    [0, 1, 0, 0],
  ],
};
