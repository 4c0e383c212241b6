import { stlVolume } from '../samples/index.ts';
import { writeStl } from './index.ts';

/** A tetrahedron with corners at the origin and on the axes at 6: volume 36. */
const tetrahedron = {
  positions: Float32Array.from([0, 0, 0, 6, 0, 0, 0, 6, 0, 0, 0, 6]),
  triangles: Uint32Array.from([0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3]),
};

test('binary STL has 84 bytes and 50 a triangle, a header that is not the text form, and the exact volume', () => {
  const bytes = writeStl([tetrahedron, tetrahedron], 'Prüfkörper');
  expect(bytes).toHaveLength(84 + 50 * 8);
  expect(String.fromCharCode(...bytes.slice(0, 10))).toBe('Helb, mm: ');
  expect(stlVolume(bytes)).toBeCloseTo(72, 6);
});

test('the normal of the slanting side is (1, 1, 1) / sqrt 3', () => {
  const view = new DataView(writeStl([tetrahedron], 'x').buffer);
  for (let k = 0; k < 3; k++) expect(view.getFloat32(84 + 50 * 3 + 4 * k, true)).toBeCloseTo(1 / Math.sqrt(3), 6);
});

test('what is not binary STL has no volume', () => {
  expect(stlVolume(new Uint8Array(10))).toBeUndefined();
  expect(stlVolume(new Uint8Array(100).fill(1))).toBeUndefined();
});
