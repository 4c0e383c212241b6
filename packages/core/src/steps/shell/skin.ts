import type { FaceFacts, Topology } from '../../kernel-port/index.ts';

/** The faces that share an edge with each face, by its name. */
export function besideEach({ edges }: Topology): ReadonlyMap<string, ReadonlySet<string>> {
  const beside = new Map<string, Set<string>>();
  for (const { faces } of edges)
    for (const face of faces)
      for (const other of faces) if (other !== face) beside.set(face, (beside.get(face) ?? new Set()).add(other));
  return beside;
}

/**
 * What a skin is in without its open faces: its pieces, each by its faces, the largest first. Walls of a piece on its own
 * hang in the air, as those of a boss that stands on an open face.
 */
export function skinPieces(topology: Topology, open: readonly string[]): FaceFacts[][] {
  const beside = besideEach(topology);
  const left = new Map(topology.faces.filter(({ name }) => !open.includes(name)).map((face) => [face.name, face]));
  const pieces: FaceFacts[][] = [];
  for (const [name, first] of left) {
    left.delete(name);
    const piece = [first];
    for (const face of piece)
      for (const next of beside.get(face.name) ?? []) {
        const reached = left.get(next);
        if (reached) piece.push(reached);
        left.delete(next);
      }
    pieces.push(piece);
  }
  const areaOf = (piece: FaceFacts[]) => piece.reduce((sum, { area }) => sum + area, 0);
  return pieces.sort((a, b) => areaOf(b) - areaOf(a));
}
