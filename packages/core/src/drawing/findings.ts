import type { Frame } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { issue, type Issue, type Words } from '../result/index.ts';
import { formatAmount } from '../units/index.ts';
import { referenceWords, type NameOf } from '../references/index.ts';
import { checkedSizes, type BuiltPart, type OpenView, type SaidMark } from './completeness/index.ts';
import { isBetween, isSize, markReferences, type Mark } from './marks/index.ts';
import { isSeenIn, contextOf, type SeenMark, type Scene } from './marked.ts';
import { letterHeight, type PutTogether } from './compose.ts';
import type { ListedPart } from './parts-list.ts';
import type { SeenView } from './placed-view.ts';
import { spotOf, type Witness } from './witness/index.ts';
import { parentOf, type Sheet } from './schema.ts';
import { cellKey, fieldOf, type TitleBlock } from './title/index.ts';

/** Something to mend on a sheet before it goes out. */
export interface SheetFinding {
  readonly issue: Issue;
  /** The mark or the view that it is about. */
  readonly mark?: Id;
  readonly view?: Id;
  /** The mark that would mend it. */
  readonly place?: Mark;
}

/** What findings are made from. */
interface Checked {
  readonly sheet: Sheet;
  readonly together: PutTogether;
  readonly marks: readonly SeenMark[];
  readonly sceneAt: (apart: number) => Scene;
  /** How its title block is laid out. */
  readonly block: TitleBlock;
}
/** Of a part. */
interface CheckedPart extends Checked {
  /** What other sheets of the part say. */
  readonly elsewhere: readonly SaidMark[];
  readonly built: BuiltPart;
  readonly witness: Witness;
  readonly material: string;
  readonly nameOf: NameOf;
}
/** Of the whole. */
interface CheckedAssembly extends Checked {
  readonly views: readonly SeenView[];
  readonly parts: readonly ListedPart[];
}

/** Sizes that are missing, said twice or shown at hidden lines, marks that are lost, views and words that are not needed or not there. */
export function partFindings(checked: CheckedPart): SheetFinding[] {
  return [
    ...lost(checked),
    ...sizes(checked),
    ...atHidden(checked),
    ...idleViews(checked),
    ...noMaterial(checked),
    ...unsaid(checked),
  ];
}

/** The whole need not be told: what is told has to hold, and each part has to be seen where parts are called by numbers. */
export function assemblyFindings(checked: CheckedAssembly): SheetFinding[] {
  return [...lost(checked), ...atHidden(checked), ...unseenParts(checked), ...unsaid(checked)];
}

function lost({ together, marks }: Checked): SheetFinding[] {
  return marks.flatMap(({ id }) => {
    const read = together.read.get(id);
    return read && !read.ok ? [{ issue: read.issue, mark: id }] : [];
  });
}

function sizes({ sheet, together, marks, elsewhere, built, sceneAt, witness, nameOf }: CheckedPart): SheetFinding[] {
  const own = marks.map(({ id, mark }): SaidMark => {
    const read = together.read.get(id);
    return { sheet: '', id, mark, read: read?.ok ? read.value : undefined };
  });
  const height = letterHeight(sheet);
  const scene = sceneAt(0);
  const views = together.views
    .filter(({ isSlanted }) => !isSlanted)
    .map((view): OpenView => ({
      ...{ id: view.id, eye: view.eye, context: contextOf(view, scene, height), isSeen: isSeenIn(view) },
      spotOf: spotsIn(view.eye, scene),
    }));
  const check = checkedSizes(built, witness, [...own, ...elsewhere], views);
  return [
    ...check.missing.map(({ mark, words }): SheetFinding => ({
      issue: issue('sheet.missing', {
        size: words,
        of: thingsOf(mark, nameOf),
        between: Number(isBetween(mark)),
        note: Number(!isSize(mark)),
      }),
      place: mark,
    })),
    ...check.doubled
      .filter((one) => one.sheet === '')
      .map(({ id, words, by }): SheetFinding => ({
        issue: issue('sheet.double', { size: words, by: by.slice(0, 4).join(', ') }),
        mark: id,
      })),
    ...(check.untold.length > 0 ? [{ issue: issue('sheet.untold', { count: check.untold.length }) }] : []),
  ];
}

/** What things are in a view, each looked at once. */
function spotsIn(eye: Frame, { faces }: Scene): OpenView['spotOf'] {
  const known = new Map<string, ReturnType<OpenView['spotOf']>>();
  return (thing) => {
    const key = thing.to === 'face' ? `${thing.body} ${thing.face.name}` : '';
    if (key === '') return spotOf(thing, faces, eye);
    if (!known.has(key)) known.set(key, spotOf(thing, faces, eye));
    return known.get(key);
  };
}

/** What a mark is attached to, in words; of many the first few. */
function thingsOf(mark: Mark, nameOf: NameOf): string {
  const words = [...new Set(markReferences(mark).map((reference) => referenceWords(reference, nameOf)))];
  if (isBetween(mark) && words.length === 1)
    return words[0]!.replace(/^a (side|face)/, 'two $1s').replace(/^an edge/, 'two edges');
  return words.length > 2 ? `${words.slice(0, 2).join(', ')} and ${words.length - 2} more` : words.join(' and ');
}

/** Dimensions should stand where what they tell is seen (ISO 129-1). */
function atHidden({ together, marks, sceneAt }: Checked): SheetFinding[] {
  return marks.flatMap(({ id, mark, thingsAt }): SheetFinding[] => {
    const [view, read] = [together.views.find((one) => one.id === mark.view), together.read.get(id)];
    if (!view || !read?.ok || read.value.tells.length === 0) return [];
    const isSeen = isSeenIn(view);
    const { toCentres } = read.value;
    const scene = sceneAt(view.apart);
    const hidden = thingsAt(view.apart).some((thing) => {
      const spot = thing && spotOf(thing, scene.faces, view.eye);
      return spot && !(toCentres && spot.endOn) && !isSeen({ thing, spot });
    });
    return hidden ? [{ issue: issue('sheet.hidden', { size: read.value.words }), mark: id }] : [];
  });
}

/** Views in which nothing is told, on a sheet that has dimensions. */
function idleViews({ sheet, marks }: Checked): SheetFinding[] {
  if (marks.length === 0) return [];
  const used = new Set(marks.map(({ mark }) => mark.view));
  const parents = new Set(Object.values(sheet.views).map(parentOf));
  return sheet.viewOrder
    .filter((id) => {
      const kind = sheet.views[id]!.kind;
      return (kind === 'base' || kind === 'projected') && !used.has(id) && !parents.has(id);
    })
    .map((view) => ({ issue: issue('sheet.idle'), view }));
}

const noMaterial = ({ material }: CheckedPart): SheetFinding[] =>
  material === '' ? [{ issue: issue('sheet.material') }] : [];

/** What the title block has to say, however it is laid out (ISO 5455, ISO 5456-2); of a part what it is made of, too. */
const NEEDED = ['scale', 'projection'] as const;
function unsaid({ sheet, block }: Checked): SheetFinding[] {
  const said = new Set(block.rows.flatMap(({ cells }) => cells.map(cellKey)));
  const needed = sheet.part === undefined ? NEEDED : [...NEEDED, 'material' as const];
  return needed
    .filter((field) => !said.has(field))
    .map((field) => ({ issue: issue('sheet.unsaid', { field: fieldOf(field).label.toLowerCase() }) }));
}

/** Parts of the list that no view shows that calls parts by their numbers. */
function unseenParts({ views, parts }: CheckedAssembly): SheetFinding[] {
  const numbered = views.filter(({ view }) => view.numbered);
  if (numbered.length === 0) return [];
  const seen = new Set(
    numbered.flatMap(({ drawn, bodies }) =>
      drawn.lines.flatMap(({ hidden, body }) => (hidden ? [] : [bodies[body]!.part])),
    ),
  );
  return parts.flatMap(({ part, name }, k) =>
    seen.has(part) ? [] : [{ issue: issue('sheet.unseen', { number: k + 1, part: name }), view: numbered[0]!.id }],
  );
}

/** What is said of a sheet on which nothing is to be mended. */
export const nothingFound = ({ part }: Sheet): string =>
  part === undefined ? 'Every part is seen where it has its number.' : 'All sizes are told, each once.';

export const sheetWords: Words = {
  'sheet.unseen': (f) =>
    `${f['number']}, ${f['part']}, is not seen where parts have their numbers: draw that view further apart, or number another view.`,
  'sheet.missing': (f) =>
    f['note'] === 1
      ? `No word tells the shape of ${f['of']}.`
      : `Missing: ${f['size']}, ${f['between'] === 1 ? 'between' : 'of'} ${f['of']}.`,
  'sheet.double': (f) =>
    f['by']
      ? `${f['size']} is said twice: it follows from ${f['by']}.`
      : `${f['size']} need not be said: it shows by itself.`,
  'sheet.untold': (f) =>
    `Something of ${formatAmount(Number(f['count']), 0)} faces can not be told in these views: add a view from which they are seen square, or a section.`,
  'sheet.hidden': (f) =>
    `${f['size']} is told at a hidden edge: put it into a view where that is seen, or into a section.`,
  'sheet.idle': () => 'Nothing is told in this view: is it needed?',
  'sheet.material': () => 'The part has no material: the title block says nothing of it.',
  'sheet.unsaid': (f) => `The title block does not say the ${f['field']}: lay it out with a field for it.`,
  'mark.gone': () => 'What this was attached to is gone: choose again, or remove it.',
  'mark.apart': () =>
    'Its view draws apart what this is between: draw it together again, or put this into a view in which all stands together.',
  'mark.slanted': () =>
    'Its view shows nothing at its true size: put this into a view from the front, a side or above.',
  'mark.unseen': () => 'Its view shows nothing any more.',
};
