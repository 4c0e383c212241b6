import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  type Group,
  type Plane,
} from 'three';
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

/** Segments of one pixel's width, two places each. */
export function thinLines(places: readonly Vec3[], colour: string, opacity = 1): LineSegments {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(places.flat()), 3));
  return new LineSegments(geometry, new LineBasicMaterial({ color: colour, transparent: opacity < 1, opacity }));
}

/** Takes all marks of a group away. */
export function clear(group: Group): void {
  for (const child of [...group.children]) {
    group.remove(child);
    (child as Mesh).geometry.dispose();
  }
}
