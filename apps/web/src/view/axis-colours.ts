/** In which colours the axes of space are drawn. */
export const AXIS_COLOURS = { x: '#B5452F', y: '#3E7A56', z: '#3D5A8A' } as const;
