import { transformPoint } from '../math/index.ts';
import { cornersOf, short, welded, type Solid } from './solids.ts';

/** An OBJ file (Wavefront, as everybody reads it): in millimetres, an object for each place where a part stands. */
export function writeObj(title: string, solids: readonly Solid[]): string {
  const line = (words: string) => words.replace(/[\r\n]/g, ' ');
  const lines = [`# Helb, mm: ${line(title)}`];
  let before = 1;
  for (const { meshes, places } of solids) {
    const mesh = welded(meshes);
    const [corners, { triangles }] = [cornersOf(mesh), mesh];
    for (const { name, at } of places) {
      lines.push(`o ${line(name).replace(/ /g, '_')}`);
      for (const corner of corners) lines.push(`v ${transformPoint(at, corner).map(short).join(' ')}`);
      for (let t = 0; t < triangles.length; t += 3)
        lines.push(`f ${[0, 1, 2].map((k) => triangles[t + k]! + before).join(' ')}`);
      before += corners.length;
    }
  }
  return `${lines.join('\n')}\n`;
}
