import { BufferGeometry, Color, DoubleSide, Mesh, MeshBasicMaterial, type Plane } from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import type { NamedRange, Vec3 } from '@helb/core';

// What is picked lights up: a veil over faces, thick lines along edges, crosses at corners.

export function faceMark(
  faces: BufferGeometry,
  { start, count }: Omit<NamedRange, 'name'>,
  colour: string,
  clippingPlanes: Plane[] | null = null,
): Mesh {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', faces.getAttribute('position'));
  geometry.setIndex(faces.getIndex());
  geometry.setDrawRange(start, count);
  const material = new MeshBasicMaterial({
    color: new Color(colour),
    transparent: true,
    opacity: 0.35,
    side: DoubleSide,
    depthWrite: false,
    clippingPlanes,
  });
  const mark = new Mesh(geometry, material);
  mark.raycast = () => {};
  return mark;
}

export function lineMark(points: Float32Array | number[], colour: string): LineSegments2 {
  const geometry = new LineSegmentsGeometry();
  geometry.setPositions(points);
  return new LineSegments2(
    geometry,
    new LineMaterial({ color: new Color(colour).getHex(), linewidth: 4, depthTest: false }),
  );
}

/** A small cross of three lines. */
export function cornerMark(at: Vec3, arm: number, colour: string): LineSegments2 {
  const arms = [0, 1, 2].flatMap((axis) => [-arm, arm].flatMap((d) => at.map((c, k) => (k === axis ? c + d : c))));
  return lineMark(arms, colour);
}
