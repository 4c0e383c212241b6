/** What a joint leaves free: turns, rad, and slides, mm. */
export type Coordinate = 'turn' | 'slide' | 'slide x' | 'slide y';

/** A coordinate of a joint: "j1 turn". */
export type CoordinateKey = `${string} ${Coordinate}`;
/** The key of a coordinate of a joint. */
export const coordinateKey = (joint: string, coordinate: Coordinate): CoordinateKey => `${joint} ${coordinate}`;

/** Is a coordinate an angle? The name of the coordinate is the end of its key. */
export const isAngle = (key: CoordinateKey): boolean => key.endsWith(' turn');

/** The joint whose coordinate it is. */
export const jointOf = (key: CoordinateKey): string => key.slice(0, key.indexOf(' '));

/** Which coordinate of its joint it is. */
export const coordinateOf = (key: CoordinateKey): Coordinate => key.slice(key.indexOf(' ') + 1) as Coordinate;
