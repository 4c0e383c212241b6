import type { Words } from '../../result/index.ts';

export const markWords: Words = {
  'mark.leans': () => 'In this view what it belongs to is seen slantwise: choose a view in which it is seen square.',
  'mark.slant': () => 'These are not parallel: tell the angle between them, or a distance between places.',
  'mark.same': () => 'These lie at the same place in this view: there is no distance to tell.',
  'mark.lines': () => 'An angle is told between two faces or edges that are seen as lines.',
  'mark.parallel': () => 'These are parallel: tell the distance between them.',
  'mark.round': () => 'This is not round: a diameter or radius is told of a round face or edge.',
  'mark.unlike': () => 'These are not alike any more: tell each by itself.',
  'mark.bevel': () => 'This is no bevel between a flat face and another.',
  'mark.uneven': () => 'These do not lie evenly on a circle about the first: tell their places one by one.',
};
