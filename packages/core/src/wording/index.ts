import { outlineWords } from '../outlines/outline.ts';
import { tableWords } from '../formats/value-table.ts';
import { assemblyWords } from '../assembly/relations.ts';
import { documentWords } from '../document/words.ts';
import { expressionWords } from '../expressions/index.ts';
import { kernelWords } from '../kernel-port/index.ts';
import type { Issue, LengthTold, Words } from '../result/index.ts';
import { editWords } from '../sketch/index.ts';
import { referencesWords } from '../references/index.ts';
import { stepWords } from '../steps/index.ts';
import { LENGTH, measuredWords, unitWords, type LengthUnit } from '../units/index.ts';
import { cuttingWords } from '../cutting/index.ts';
import { studyWords } from '../study/index.ts';
import { fitWords } from '../fits/index.ts';
import { cutWords, markWords, sheetWords } from '../drawing/index.ts';

const engineWords: Words = {
  'engine.before': (f) => `Not built: "${f['step']}" before it has to be mended first.`,
  'part.broken': (f) =>
    `"${f['part']}" is not as it is told: its step "${f['step']}" fails. What is shown of it is the last that was good.`,
  'part.built-on': (f) =>
    `"${f['part']}" is not as it is told: it takes from "${f['from']}", which is not. What is shown of it is the last that was good.`,
  'assembly.fights': () => 'Joints and relations of the parts that are placed can not all hold.',
  'engine.suppressed': (f) => `Needs "${f['step']}", which is left out.`,
  'study.named': (f) => {
    const names = f['names'] as readonly string[];
    if (names.length === 0) return 'The project has no study: add one on Motion.';
    return f['name'] === ''
      ? `Say which study: ${names.join(', ')}.`
      : `There is no single study "${f['name']}". There are: ${names.join(', ')}.`;
  },
  'drive.joint': (f) => `There is no joint "${f['name']}" that can be driven. There are: ${f['names']}.`,
  'drive.against': (f, length) =>
    `It stops before ${f['name']}: ${f['a']} stands against ${f['b']} at ${length(f['place'] as readonly number[], 2)}.`,
  'drive.overlap': (f) =>
    `${f['a']} and ${f['b']} stand in each other at rest: what touches can not be kept apart there. Move them apart, or say that they press.`,
  'drive.limit': (f) => `"${f['name']}" can not go there: its limits do not let it.`,
  'drive.far': (f) => `The mechanism can not follow ${f['name']}: something holds it before.`,
  'export.nothing-drawn': (f) => `"${f['sketch']}" has no outline to export yet.`,
  'export.part': (f) => `There is no part "${f['part']}". The parts are: ${f['known']}.`,
  'export.sketch': (f) => `There is no sketch "${f['sketch']}" in "${f['part']}".`,
  'export.nothing-placed': () => 'Nothing is placed yet: place parts first, or export them one by one.',
  'wall.thin': (f, length) =>
    `Its thinnest wall is ${length(f['is'] as number)}; at least ${length(f['least'] as number)} are asked for.`,
  'hole.near': (f, length) => {
    const [diameter, web, least] = [f['diameter'], f['web'], f['least']].map((mm) => length(mm as number));
    return f['count'] === 1
      ? `Too little is left beside a hole of ⌀${diameter}: ${web}, where ${least} are asked for.`
      : `Too little is left beside ${f['count']} holes; beside one of ⌀${diameter} it is ${web}, where ${least} are asked for.`;
  },
  'sketch.open': (f, length) => `The outline ends at ${length(f['place'] as readonly number[])}.`,
  'number.unnamed': (f) =>
    f['count'] === 1
      ? 'One number has no name.'
      : `${f['count']} numbers have no name: what depends on what can not be seen.`,
  'sheet.dated': (f) =>
    `It went out as ${f['revision']}; ${f['count'] === 1 ? 'one thing has' : `${f['count']} things have`} changed since: let it go out anew.`,
  'export.empty': (f) => `"${f['part']}" has no body to export yet.`,
};

const WORDS: Words = {
  ...unitWords,
  ...expressionWords,
  ...editWords,
  ...stepWords,
  ...referencesWords,
  ...kernelWords,
  ...documentWords,
  ...assemblyWords,
  ...studyWords,
  ...tableWords,
  ...outlineWords,
  ...engineWords,
  ...cuttingWords,
  ...fitWords,
  ...markWords,
  ...cutWords,
  ...sheetWords,
};

/** The sentence for an issue: what is wrong and what would work. @param unit in which lengths are told */
export function explain(issue: Issue, unit: LengthUnit = 'mm'): string {
  const words = Object.hasOwn(WORDS, issue.code) ? WORDS[issue.code] : undefined;
  const length: LengthTold = (mm, digits = 2) =>
    measuredWords({ amounts: typeof mm === 'number' ? [mm] : mm, dimension: LENGTH }, unit, digits, ' / ');
  return words ? words(issue.facts, length) : `Something is wrong (${issue.code}).`;
}
