/** Something told in the help. */
export interface Topic {
  readonly title: string;
  readonly says: string;
}

/** What is told besides the verbs: by chapters, in the order of the page. */
export const TOPICS: Readonly<Record<string, readonly Topic[]>> = {
  Beginning: [
    {
      title: 'A first part',
      says: 'New project on the shelf; 1, 2 or 3 begins a sketch on a plane. B draws a rectangle: click a corner, type the width, Tab, the height, Enter. L closes the sketch, X extrudes it: type how high, Enter.',
    },
    {
      title: 'The build sheet',
      says: 'On the left each step is a sentence with its numbers in it. Click a number, type another, Enter: everything after it is built anew. ⋮ beside a step has the rest: rename, duplicate, leave out, move, remove, build up to here.',
    },
    {
      title: 'The desk',
      says: 'On the right stands what is picked or made: what is still asked for, line by line, what it measures, and what is still open in this part with a word that does something about it.',
    },
    {
      title: 'The verb strip',
      says: 'Below the view stands what can be done with what is picked, most likely first, each with its key. Space and typing finds all the rest, also what can not be done yet, with what to pick for it.',
    },
    {
      title: 'Undo',
      says: 'Ctrl+Z undoes and Ctrl+Shift+Z does again, as far back as you like, also after the page was loaded anew.',
    },
    {
      title: 'What is half done',
      says: 'A sketch, a step or a size in the making stays as it was while you look elsewhere, also over a reload; the build sheet tells where one stands open, and a word goes on with it.',
    },
    {
      title: 'Without a server',
      says: 'When the server is away you go on. The top line says that the work is safe on this computer and not kept yet; it is sent by itself when the server is back. Two windows on one project come together, and what clashes is asked.',
    },
  ],
  Numbers: [
    {
      title: 'Numbers as you write them',
      says: '12 is in the unit of the project; 12 mm, 3 in, 2-1/8", 1\'-3 1/2" and 30 deg are as they say. 12,5 is asked about, not guessed. 1e3 and -4 are numbers too.',
    },
    {
      title: 'Expressions and names',
      says: 'Wherever a number is asked, width / 2 - 4 works as well. A name that is not there yet can be made on the spot: wall = 2.4 makes the value "wall" and uses it.',
    },
    {
      title: 'The unit of a project',
      says: 'It is changed in the top line: millimetres, centimetres, metres or inches. What was typed keeps its meaning; figures, lists and first sizes follow.',
    },
    {
      title: 'Values',
      says: 'The screen Values has every number of the project in one table: what was typed, what it comes to, where it is used. Give a number a name there and use it elsewhere. The table goes to a spreadsheet and comes back.',
    },
    {
      title: 'Variants',
      says: 'A variant is the same project with some values set otherwise, or with steps left out. They stand side by side on Values, and the top line switches between them.',
    },
    {
      title: 'Tying two sizes',
      says: 'While a size asks for its number, click another size in the sketch: from then on the two are the same. A size whose number is emptied is gone.',
    },
  ],
  'Drawing well': [
    {
      title: 'Loose, settled, clashing',
      says: 'Thin ochre lines with open ends can still move; strong lines with filled ends are settled; toothed crimson lines are told things that can not all hold. The desk says in words what can move, and plays it.',
    },
    {
      title: 'Settle the rest',
      says: 'While something is loose the desk offers one word that adds what is missing, as the drawing measures now: looked at first, kept by Enter, changed afterwards.',
    },
    {
      title: 'Guesses while drawing',
      says: 'What would be taken is shown at the pointer before the click: level, upright, tangent, on a curve, level with a point. Tab goes through the choice; holding Q places freely.',
    },
    {
      title: 'Places by numbers',
      says: 'With a figure in hand and nothing clicked yet, touch a point, which gets the sign 0, and type: how far level, Tab, how far upright from it, on the side of the pointer; a minus is to the left or below. Nothing touched, numbers count from the origin. Level with the point or straight below it one number is enough. They become dimensions.',
    },
    {
      title: 'Names for numbers',
      says: 'While a figure or a size waits for its number a letter begins a name: bore, or bore = 8 to make one. Where letters are verbs, as in a step, where parts are joined and before the first click of a figure, = goes before the name: =width. Enter on a number that was typed into the view keeps the step too.',
    },
    {
      title: 'Drawing to the model',
      says: 'Edges, corners, centres and axes of the part and of its neighbours are places to draw to and to measure from. They are borrowed into the sketch with what uses them, and follow when the model changes. Borrow (R) takes whole outlines.',
    },
    {
      title: 'Half a profile',
      says: 'Draw one side, make its axis a centre line, and size from it: diameters across the axis are offered. Revolve finds the axis by itself and closes the profile along it.',
    },
    {
      title: 'Beside what is drawn',
      says: 'Offset (F) draws a chain again at a distance; B both sides of it, with square ends: an arm round its centre lines. What comes of it is seen before. Where the chain goes on later, Offset on what is new, with the pointer on the side of the outline, lets that go on as well.',
    },
    {
      title: 'Open ends and gaps',
      says: 'An area is what closed lines enclose; it is hatched when it can be built of. Where ends nearly meet, lines cross or lie on each other, the desk tells it, shows it and mends it.',
    },
  ],
  Picking: [
    {
      title: 'What lies under the pointer',
      says: 'Hovering lists it from front to back. Tab goes through it and what was chosen stays chosen until the click; a right click holds the list, which can be clicked. Shift adds to what is picked.',
    },
    {
      title: 'Edges by rule',
      says: 'Instead of picking ten edges, take one and choose a wider pick on the desk: all round a face, all of one direction, all outer ones. The rule holds when the part changes.',
    },
    {
      title: 'Which step a verb takes',
      says: 'A verb takes what is chosen: click a step in the list beside its words, or several by their numbers, and extrude, loft or repeat them. With nothing chosen it takes the sketch that waits for a step, or what was made last.',
    },
    {
      title: 'What was picked is gone',
      says: 'When a change takes away what a step was built on, its sentence says which thing it was and offers what is likely meant now. In the step itself a pick takes the place of what is gone. What is built on it says so as well; nothing stale is shown as if it held.',
    },
  ],
  'Parts together': [
    {
      title: 'Placing parts',
      says: 'Parts, beside Steps, lists all parts and where they are placed: as often as you like, in rows, round an axis, in groups. The first part stands still by itself; H holds another one still or lets it go.',
    },
    {
      title: 'Joints and relations',
      says: 'Pick a face, an edge or a hole of one part and of another, then a joint (how it may move) or Relate (how it has to lie). A number typed keeps them so far apart; W turns it the other way; K joins both as they stand, also where one is only drawn yet. Enter takes it, and so does the next thing that you pick: it begins another. Two rims come to lie on each other.',
    },
    {
      title: 'What can still move',
      says: 'Beside each placement stands how many freedoms it has left; the desk says them in words. Pull a part by the pointer, or drive it by a number; 0 puts everything back to rest.',
    },
    {
      title: 'Drawing among the others',
      says: 'The part that is edited is shown where it stands among the others, which are pale. Sketches lie on their faces, extrusions go up to them, outlines are borrowed from them.',
    },
  ],
  'From here to the shop': [
    {
      title: 'Motion',
      says: 'Joints are driven by sliders and numbers within their limits, run by themselves and traced; overlaps and gaps are found for the pose that is shown. What is told to touch is not passed through: it stops what is driven or pulled, which is said, or is pushed along; where it stopped becomes the limit by a click. A study drives joints over a time by a law or a table, is played and stepped through, and shows where things are, how fast they go, what touches when and what holds them against their weight; it tells how near parts come on the way, and where they come nearer than they may.',
    },
    {
      title: 'Sheets',
      says: 'Views, sections and details are laid on a sheet and follow the part. Sizes are taken over from the model; the sheet tells which are missing and which are said twice. As PDF, DXF or SVG.',
    },
    {
      title: 'Checks',
      says: 'Every finding of the project, by what it stands in the way of: thin walls, holes near an edge, steps that failed, sketches that are loose. Each is shown where it is, and mended where that can be.',
    },
    {
      title: 'Output',
      says: 'Parts and the whole as STEP, STL, 3MF, OBJ and glTF, flat faces for cutting, lists of parts and material. What is not as told is asked about before it is written.',
    },
    {
      title: 'Figures and how sure they are',
      says: 'Volume, area, mass, centre and inertia are found in two independent ways. Where these do not agree to a millionth the figure says how far it may be off.',
    },
    {
      title: 'Before anything is made',
      says: 'Nothing here proves strength. Fits, loads and machines are the business of manuals, local rules and licensed people; have somebody else look at what goes to the shop.',
    },
  ],
};
