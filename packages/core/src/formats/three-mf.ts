import { strToU8, zipSync } from 'fflate';
import type { RigidTransform } from '../math/index.ts';
import { cornersOf, escapedXml, short, welded, type Solid } from './solids.ts';

const XML = '<?xml version="1.0" encoding="UTF-8"?>\n';
const CONTENT_TYPES = `${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`;
const RELATIONS = `${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`;

/**
 * A 3MF file (3MF Core Specification 1.3): in millimetres, an object for each part with its name and colour, and an item
 * for each place where it stands.
 */
export function write3mf(title: string, solids: readonly Solid[]): Uint8Array {
  const bases = solids.map(
    ({ name, colour }) => `<base name="${escapedXml(name)}" displaycolor="${colour.toUpperCase()}FF"/>`,
  );
  const objects = solids.map((solid, k) => objectOf(solid, k));
  const items = solids.flatMap(({ places }, k) =>
    places.map(
      ({ name, at }) => `<item objectid="${k + 2}" transform="${rows(at)}" partnumber="${escapedXml(name)}"/>`,
    ),
  );
  const model = [
    `${XML}<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">`,
    `<metadata name="Title">${escapedXml(title)}</metadata>`,
    '<resources>',
    `<basematerials id="1">${bases.join('')}</basematerials>`,
    ...objects,
    '</resources>',
    `<build>${items.join('')}</build>`,
    '</model>',
  ].join('\n');
  return zipSync({
    '[Content_Types].xml': strToU8(CONTENT_TYPES),
    '_rels/.rels': strToU8(RELATIONS),
    '3D/3dmodel.model': strToU8(model),
  });
}

function objectOf({ name, meshes }: Solid, k: number): string {
  const mesh = welded(meshes);
  const { triangles } = mesh;
  const vertices = cornersOf(mesh).map(([x, y, z]) => `<vertex x="${short(x)}" y="${short(y)}" z="${short(z)}"/>`);
  const faces: string[] = [];
  for (let t = 0; t < triangles.length; t += 3)
    faces.push(`<triangle v1="${triangles[t]}" v2="${triangles[t + 1]}" v3="${triangles[t + 2]}"/>`);
  return `<object id="${k + 2}" type="model" name="${escapedXml(name)}" pid="1" pindex="${k}"><mesh><vertices>${vertices.join('')}</vertices><triangles>${faces.join('')}</triangles></mesh></object>`;
}

/** The images of the axes one after the other, then the shift: places are rows there. */
const rows = (at: RigidTransform): string => [0, 1, 2, 3].flatMap((k) => at.map((row) => short(row[k as 0]))).join(' ');
