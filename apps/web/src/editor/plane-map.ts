import { toSpace, type Frame, type Vec2, type Vec3 } from '@helb/core';

/** Sketch millimetres to pixels of the view: affine, since the camera is orthographic. */
export class PlaneMap {
  private readonly o: Vec2;
  private readonly x: Vec2;
  private readonly y: Vec2;

  /** @param pixel millimetres for a pixel */
  constructor(
    frame: Frame,
    toScreen: (place: Vec3) => Vec2,
    readonly pixel: number,
  ) {
    const [o, x, y] = [
      [0, 0],
      [100, 0],
      [0, 100],
    ].map((place) => toScreen(toSpace(frame, place as unknown as Vec2))) as [Vec2, Vec2, Vec2];
    this.o = o;
    this.x = [(x[0] - o[0]) / 100, (x[1] - o[1]) / 100];
    this.y = [(y[0] - o[0]) / 100, (y[1] - o[1]) / 100];
  }

  get origin(): Vec2 {
    return this.o;
  }

  at = ([u, v]: Vec2): Vec2 => [this.o[0] + u * this.x[0] + v * this.y[0], this.o[1] + u * this.x[1] + v * this.y[1]];

  /** An SVG path through these places. */
  path = (places: readonly Vec2[]): string =>
    places
      .map((place, k) => {
        const [x, y] = this.at(place);
        return `${k ? 'L' : 'M'}${x.toFixed(2)} ${y.toFixed(2)}`;
      })
      .join('');

  closed = (places: readonly Vec2[]): string => `${this.path(places)}Z`;
}
