import type { Words } from '../result/index.ts';

const listed = (users: unknown, count: unknown): string => {
  const shown = users as readonly string[];
  const more = Number(count) - shown.length;
  return shown.join('; ') + (more > 0 ? ` and ${more} more` : '');
};

export const documentWords: Words = {
  'project.order': (f) => `The list of ${f['what']} does not match what is there.`,
  'step.needs': (f) => `"${f['step']}" needs "${f['needs']}" before it.`,
  'sketch.dangling': (f) => `In the sketch "${f['sketch']}", ${f['from']} refers to ${f['to']}, which is not there.`,
  'relation.kind': (f) =>
    `In the sketch "${f['sketch']}", the relation ${f['relation']} (${f['kind']}) does not suit what it refers to.`,
  'command.input': (f) => `${f['command']} can't be done: ${f['path'] ? `${f['path']}: ` : ''}${f['reason']}.`,
  'part.unknown': (f) => `There is no part ${f['id']} any more.`,
  'part.lost': (f) => `"${f['name']}" takes from a part that is not there.`,
  'part.brought': (f) => `"${f['name']}" is drawn in the project "${f['project']}": change its steps there.`,
  'part.origins': (f) =>
    `"${f['name']}" comes through more than ${f['most']} projects: bring it from where it is drawn.`,
  'part.origin': (f) => `The project "${f['project']}" has no such part as "${f['name']}" was.`,
  'part.given': (f) => `"${f['name']}" is given a value that the project "${f['project']}" does not use for it.`,
  'part.own': (f) => `"${f['name']}" is drawn here: it comes from no other project.`,
  'part.used': (f) =>
    `"${f['name']}" is taken from by ${listed(f['users'], f['count'])}. Remove or change these first.`,
  'part.loop': (f) => {
    const [first, ...others] = f['loop'] as readonly string[];
    return others.length === 1
      ? `"${first}" can not take from itself where it is placed elsewhere: take from another part.`
      : `Parts can not take from each other in a loop: "${first}" from ${others.map((name) => `"${name}"`).join(', and that from ')}.`;
  },
  'sheet.unknown': (f) => `There is no sheet ${f['id']} any more.`,
  'sheet.many': (f) => `A project has at most ${f['most']} sheets: remove one first.`,
  'sheet.whole': (f) =>
    `"${f['name']}" shows the whole: what is written there is told by where the parts are placed, { "to": "other", "at": … }.`,
  'sheet.detail': (f) =>
    `"${f['name']}": a detail is drawn as the view that it is of: set that apart, and number that.`,
  'sheet.own-part': (f) => `"${f['name']}" shows one part: what is written there is on things of that part.`,
  'sheet.apart': (f) =>
    `"${f['name']}" shows one part: only the whole is drawn apart, numbered, and cut at parts that are placed.`,
  'detail.radius': () => 'Type how far the detail reaches round its middle, in mm: 0.01 to 100000.',
  'view.fields': () => 'This kind of view can not be set so: add another view.',
  'sheet.unseen-view': (f) => `The view “${f['view']}” can not be drawn. ${f['reason']}`,
  'sheet.part': (f) => `"${f['name']}" draws a part that is not there.`,
  'sheet.section': (f) => `"${f['name']}" shows a section that "${f['part']}" does not have.`,
  'sheet.unplaced': () =>
    'The section, or the part that has it, is not there any more: take the view off, or cut elsewhere.',
  'sheet.own': (f) => `"${f['name']}" writes into a field that the title block does not have.`,
  'sheet.view': (f) => `On "${f['name']}" a view is folded out of one that does not come before it.`,
  'view.unknown': (f) => `There is no view ${f['id']} any more.`,
  'view.many': (f) => `A sheet has at most ${f['most']} views: put others on another sheet.`,
  'sheet.issued': (f) => `"${f['name']}" went out as ${f['revision']} already: give it another revision.`,
  'mark.unknown': (f) => `There is no mark ${f['id']} any more.`,
  'mark.many': (f) => `A sheet has at most ${f['most']} dimensions and notes: put others on another sheet.`,
  'mark.view': (f) => `On "${f['name']}" something is written into a view that is not there.`,
  'section.unknown': (f) => `There is no section ${f['id']} any more.`,
  'section.many': (f) => `A part has at most ${f['most']} sections: remove one first.`,
  'step.unknown': (f) => `There is no step ${f['id']} any more.`,
  'entity.gone': (f) => `${f['id']} is not in this sketch any more.`,
  'relation.gone': (f) => `The dimension ${f['id']} is not in this sketch any more.`,
  'value.gone': (f) => `There is no value ${f['id']} any more.`,
  'value.used': (f) => `"${f['name']}" is used by ${listed(f['users'], f['count'])}. Change these first.`,
  'value.outside': (f) => `${f['name']} comes to ${f['is']}, and it may be ${f['allowed']}.`,
  'variant.gone': () => 'This variant is not there any more.',
  'variant.taken': (f) => `There is a variant "${f['name']}" already: give it another name.`,
  'variant.many': (f) => `There are ${f['most']} variants already. Remove one first.`,
  'variant.unknown': (f) => `There is no variant "${f['name']}". There are: ${f['names']}.`,
  'assembly.gone': (f) => `This ${f['what']} is not there any more.`,
  'group.unknown': () => 'This group is not there any more.',
  'group.loop': (f) => `A group can not hold itself: ${(f['loop'] as readonly string[]).join(' holds ')}.`,
  'group.part': (f) => `"${f['name']}" is a part, not a group: there is nothing to take apart.`,
  'group.repeated': (f) => `"${f['name']}" stands several times: let it stand once first.`,
  'group.deep': (f) => `Groups may hold groups ${f['most']} deep at most.`,
  'placement.of': (f) => `What "${f['name']}" places is not there any more.`,
  'placement.dangling': (f) => `"${f['name']}" refers to a placement that is not there.`,
  'study.unknown': (f) => `There is no study ${f['id']} any more.`,
  'study.dangling': (f) => `"${f['name']}" drives or shows something that is not there.`,
  'joint.coordinate': (f) => `"${f['name']}" is ${f['kind']}: it has no ${f['coordinate']} to bound or to set.`,
  'ratio.self': (f) => `"${f['name']}" ties a joint to itself: choose two.`,
  'ratio.order': (f) => `"${f['name']}" goes from a way to a turn: begin with the joint that turns.`,
  'expression.gone': () => 'This number is not there any more.',
  'step.used': (f) => `"${f['name']}" is needed by ${listed(f['users'], f['count'])}. Remove or change these first.`,
  'reference.unknown': (f) => `"${f['step']}" has no such reference any more.`,
  'id.taken': (f) => `The id ${f['id']} is used already.`,
  'change.path': (f) => `The change names a path that is not allowed: ${f['path']}.`,
  'change.gone': (f) => `What this changes is not there any more (${f['path']}).`,
  'change.invalid': (f) => `The change would break the project at ${f['path']}: ${f['reason']}.`,
  'history.undo': () => 'There is nothing to undo.',
  'history.redo': () => 'There is nothing to redo.',
  'file.large': (f) => `The file is larger than ${f['most']} MB.`,
  'file.json': (f) => `This is not a readable project file: ${f['reason']}.`,
  'file.kind': () => 'This is not a Helb project file.',
  'file.deep': (f) => `The file is nested more than ${f['most']} deep.`,
  'file.newer': (f) =>
    `This project was written by a newer Helb (format ${f['version']}; this one knows up to ${f['known']}). Update Helb to open it.`,
  'file.invalid': (f) => `The project file is not right at ${f['path']}: ${f['reason']}.`,
};
