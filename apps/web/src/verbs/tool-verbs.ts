import type { ToolName } from '../editor/tools.ts';

/** A tool of sketches as it is offered. */
export interface ToolVerb {
  readonly tool: ToolName;
  /** One letter; empty for none. */
  readonly key: string;
  readonly title: string;
  readonly says: string;
}

const tool = (name: ToolName, key: string, title: string, says: string): ToolVerb => ({ tool: name, key, title, says });

/** The tools in the order in which they are offered; the rarer ones have no key and are found by their names. */
export const DRAWING_TOOLS: readonly ToolVerb[] = [
  tool('chain', 'K', 'Chain', 'Draws lines and arcs, one after the other, from click to click.'),
  tool('rectangle', 'B', 'Rectangle', 'Draws a rectangle from corner to corner.'),
  tool('circle', 'O', 'Circle', 'Draws a circle about its centre.'),
  tool('size', 'N', 'Size', 'Measures what is clicked and keeps it so: a dimension, a length, an angle, a diameter.'),
  tool('borrow', 'R', 'Borrow', 'Takes edges and outlines of the model into the sketch, which follow it.'),
  tool('arc', 'E', 'Arc', 'Draws an arc through three points.'),
  tool('centred arc', 'Z', 'Arc about a centre', 'Draws an arc from its centre, its beginning and its end.'),
  tool('centred rectangle', 'I', 'Rectangle about a centre', 'Draws a rectangle from its middle to a corner.'),
  tool('slot', '', 'Slot', 'Draws a slot with round ends, from centre to centre.'),
  tool('polygon', '', 'Polygon', 'Draws a regular polygon with its corners on a circle: a hexagon.'),
  tool('spline', '', 'Spline', 'Draws a smooth curve through points.'),
  tool('ellipse', '', 'Ellipse', 'Draws an ellipse from its middle and both axes.'),
  tool('tangent arc', '', 'Arc tangent to a curve', 'Draws an arc that leaves the end of a curve smoothly.'),
  tool('turned rectangle', '', 'Rectangle by three points', 'Draws a rectangle along any direction.'),
  tool('circle by points', '', 'Circle by three points', 'Draws the circle through three points.'),
  tool('elliptical arc', '', 'Elliptical arc', 'Draws a piece of an ellipse.'),
  tool('centred slot', '', 'Slot about its middle', 'Draws a slot from its middle to one of its ends.'),
  tool('arc slot', '', 'Slot along an arc', 'Draws a bent slot.'),
  tool('polygon round a circle', '', 'Polygon round a circle', 'Draws a regular polygon with its sides on a circle.'),
  tool('point', '', 'Point', 'Sets a point: where a hole is to be drilled.'),
  tool('text', '', 'Text', 'Writes letters whose outlines can be cut or raised.'),
];

/** Edits by the pointer: what is clicked, without a selection or on what is selected. */
export const EDIT_TOOLS: readonly ToolVerb[] = [
  tool('trim', 'T', 'Trim', 'Cuts a curve off up to where others cross it.'),
  tool('extend', 'X', 'Extend', 'Lengthens a curve up to the next one.'),
  tool('offset', 'F', 'Offset', 'Draws the same outline again, at a distance.'),
  tool('split', '', 'Split', 'Parts a curve in two where it is clicked.'),
];

/** The tool that a key takes in hand while something is drawn. */
export const toolOf = (key: string): ToolName | undefined =>
  [...DRAWING_TOOLS, ...EDIT_TOOLS].find((verb) => verb.key === key.toUpperCase())?.tool;

/** What is done with what is selected. */
export const SELECTION_TOOLS: readonly ToolVerb[] = [
  tool('offset', '0', 'Offset', 'Draws what is selected again, at a distance.'),
  tool('move', '6', 'Move', 'Shifts what is selected from point to point.'),
  tool('copy', '7', 'Copy', 'Draws what is selected again in other places.'),
  tool('turn', '8', 'Turn', 'Turns what is selected about a point: a rotation.'),
  tool('scale', '9', 'Scale', 'Makes what is selected larger or smaller about a point.'),
];
