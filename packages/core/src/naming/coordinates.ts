/** What a joint leaves free and can be driven: turns, rad, and slides, mm. */
export const COORDINATES = ['turn', 'slide', 'slide x', 'slide y'] as const;
export type Coordinate = (typeof COORDINATES)[number];

/** Is a coordinate an angle? */
export const isTurn = (coordinate: Coordinate): boolean => coordinate === 'turn';

/** A coordinate of a joint: "j1 turn". */
export type CoordinateKey = `${string} ${Coordinate}`;
/** The key of a coordinate of a joint. */
export const coordinateKey = (joint: string, coordinate: Coordinate): CoordinateKey => `${joint} ${coordinate}`;

/** The joint whose coordinate it is. */
export const jointOf = (key: CoordinateKey): string => key.slice(0, key.indexOf(' '));

/** Which coordinate of its joint it is. */
export const coordinateOf = (key: CoordinateKey): Coordinate => key.slice(key.indexOf(' ') + 1) as Coordinate;

/** Is the coordinate of a key an angle? */
export const isAngle = (key: CoordinateKey): boolean => isTurn(coordinateOf(key));
