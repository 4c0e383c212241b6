import type { Thing } from '../references/index.ts';

/** Chosen edges by body: an edge itself, or all edges of a face. Each once. */
export function edgesByBody(things: readonly Thing[]): { readonly body: number; readonly edges: readonly string[] }[] {
  const found = new Map<number, Set<string>>();
  for (const thing of things) {
    if (thing.to !== 'edge' && thing.to !== 'face') continue;
    const names =
      thing.to === 'edge'
        ? [thing.edge.name]
        : thing.topology.edges.filter(({ faces }) => faces.includes(thing.face.name)).map(({ name }) => name);
    const known = found.get(thing.body) ?? new Set<string>();
    names.forEach((name) => known.add(name));
    found.set(thing.body, known);
  }
  return [...found].map(([body, edges]) => ({ body, edges: [...edges].sort() }));
}

/** Chosen faces by body, each once. */
export function facesByBody(things: readonly Thing[]): { readonly body: number; readonly faces: readonly string[] }[] {
  const found = new Map<number, string[]>();
  for (const thing of things)
    if (thing.to === 'face' && !found.get(thing.body)?.includes(thing.face.name))
      found.set(thing.body, [...(found.get(thing.body) ?? []), thing.face.name]);
  return [...found].map(([body, faces]) => ({ body, faces }));
}

/** An edge or corner name with the faces in it called otherwise. */
export const renamedEdge = (edge: string, rename: (face: string) => string): string => {
  const [, faces, number = ''] = /^(.*?)( ~\d+)?$/.exec(edge) as unknown as [string, string, string?];
  return faces.split(' | ').map(rename).sort().join(' | ') + number;
};
