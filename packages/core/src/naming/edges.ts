import { isOneOf, isSeveral, kinOfFace, type FaceName } from './faces.ts';

/** The lasting name of an edge: the faces that meet there, in order. */
type EdgeName = string & { readonly brand?: 'edge' };
/** The lasting name of a vertex: all faces that meet there, in order. */
type VertexName = string & { readonly brand?: 'vertex' };

const MEETS = ' | ';
const CORNER = 'corner ';

/** An edge by the faces that meet there, told in any order. */
export const edgeName = (faces: readonly FaceName[]): EdgeName => [...faces].sort().join(MEETS);
/** A vertex by all faces that meet there, told in any order. */
export const vertexName = (faces: readonly FaceName[]): VertexName => `${CORNER}${[...faces].sort().join(MEETS)}`;

/** One of several edges or vertices of one name, numbered from 1. */
export const numberedEdge = (name: string, number: number): string => `${name} ~${number}`;
const numberOf = (name: string): string => / ~\d+$/.exec(name)?.[0] ?? '';

/** The names of the faces that meet in an edge or a vertex; of a face itself alone. */
export const facesOfName = (name: string): FaceName[] =>
  (name.startsWith(CORNER) ? name.slice(CORNER.length) : name).replace(/ ~\d+$/, '').split(MEETS);

/** An id for what comes of something named, which lasts as long as its name: the 64-bit FNV-1a hash, in base 36. */
export function idOfName(name: string): string {
  let hash = 0xcbf29ce484222325n;
  for (let k = 0; k < name.length; k++) hash = BigInt.asUintN(64, (hash ^ BigInt(name.charCodeAt(k))) * 0x100000001b3n);
  return `n${hash.toString(36)}`;
}

/** The faces that meet there without what tells pieces apart: the same for all that may be meant where a name is gone. */
export const kinOfName = (name: string): string => edgeName(facesOfName(name).map(kinOfFace));

/**
 * Does the name of a face, edge or corner mean the one that is called so now? A side of several lines in a row carries the
 * names of all of them ("s1/side/a,b"), and is found by each.
 */
export function isCalled(wanted: string, now: string): boolean {
  if (wanted === now) return true;
  if (!isSeveral(now) || numberOf(wanted) !== numberOf(now)) return false;
  const left = facesOfName(now);
  return (
    facesOfName(wanted).length === left.length &&
    facesOfName(wanted).every((face) => {
      const k = left.findIndex((other) => isOneOf(face, other));
      if (k >= 0) left.splice(k, 1);
      return k >= 0;
    })
  );
}
