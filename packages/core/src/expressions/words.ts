import type { Words } from '../result/index.ts';

const list = (value: unknown): string => (Array.isArray(value) ? value.join(', ') : String(value));

export const expressionWords: Words = {
  'expression.empty': () => 'Type a number, for example 12 mm, or the name of a value.',
  'expression.long': (f) =>
    `This is ${f['length']} characters long; the most is ${f['most']}. Name a part of it as a value.`,
  'expression.deep': (f) => `This is nested more than ${f['most']} deep. Name a part of it as a value.`,
  'expression.unit': (f) =>
    `"${f['word']}" is not a unit. Known: mm, cm, m, in, ft, deg, rad, g, kg; between a number and a name write *.`,
  'expression.character': (f) => `"${f['char']}" has no meaning here.`,
  'expression.unexpected': (f) => `Did not expect ${f['what']} at place ${f['position']} of "${f['text']}".`,
  'expression.comma': (f) =>
    `Is "${f['text']}" meant as ${f['point']}? Numbers are written with a point here; commas stand between the numbers of a function.`,
  'expression.dash': (f) =>
    `"${f['whole']}-${f['part']}" can be read in two ways: write "${f['whole']} ${f['part']}" for the mixed number, or "${f['whole']} - ${f['part']}" for the difference.`,
  'expression.function': (f) => `There is no function "${f['name']}". Known: ${list(f['known'])}.`,
  'expression.count': (f) => `${f['name']} takes ${f['least']} number or more, not ${f['given']}.`,
  'expression.argument': (f) => `${f['name']} takes ${f['what']}, not ${f['given']}.`,
  'expression.zero': () => 'This divides by zero.',
  'expression.power': () => 'A power must be a plain number, and a whole one for a length or an angle.',
  'expression.finite': () => 'This has no finite result.',
  'value.unknown': (f) =>
    `There is no value named "${f['name']}".${f['near'] ? ` Did you mean "${f['near']}"?` : ' Give it a number first.'}`,
  'value.loop': (f) =>
    `These values need each other in a loop: ${Array.isArray(f['loop']) ? f['loop'].join(' → ') : ''}.`,
  'value.name': (f) =>
    `"${f['name']}" can't be a name: begin with a letter, then letters, digits, single spaces; at most 40.`,
  'value.reserved': (f) => `"${f['name']}" is a unit or a function; choose another name.`,
  'value.taken': (f) => `There is already a value named "${f['name']}".`,
};
