import { USUAL_BLOCK, defaultSheet, defaultAssemblySheet, withField, type View } from '../drawing/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { SHEET_MARKS } from './sheet-marks.ts';

/** Three parts on sheets, a bearing cut open, a turned knob cut open by half, and the tray; and the whole, taken apart. */
export function drawSheets(script: ProjectScript, parts: Readonly<Record<'bracket' | 'knob' | 'tray', Id>>): void {
  const { bracket, knob, tray } = parts;
  const sectionOf = (part: Id, name: string, plane: 'front' | 'right', turned = false): Id => {
    const id = script.newId('c');
    const section = { name, plane: { to: 'origin', name: plane }, offset: '0 mm', turned } as const;
    script.do('section.add', { part, id, section });
    return id;
  };
  const shaft = sectionOf(bracket, 'Through the shaft', 'front');
  const across = sectionOf(tray, 'Across', 'front');
  const middle = sectionOf(knob, 'Through the middle', 'front');
  const half = sectionOf(knob, 'Right of the middle', 'right', true);
  // whose the drawings are stands on all of them
  const owner = { own: 'owner', label: 'Owner', words: 'Village seed library', share: 6 };
  script.do('sheet.block', { block: withField(USUAL_BLOCK, 0, owner)!.block });
  const title = { drawn: 'seed library', date: '2026-11', revision: 'A', tolerance: 'ISO 2768-mK' };
  const sheetOf = (part: Id, views: Readonly<Record<Id, View>>) => {
    const { name } = script.project.parts[part]!;
    const record = defaultSheet({ id: part, name }, { paper: 'A4', projection: 'first' });
    const marks = SHEET_MARKS[name] ?? {};
    script.do('sheet.add', {
      id: script.newId('d'),
      record: { ...record, title, views, viewOrder: Object.keys(views), marks, markOrder: Object.keys(marks) },
    });
  };
  sheetOf(bracket, {
    top: { kind: 'base', from: 'top' },
    cut: { kind: 'section', section: shaft },
    corner: { kind: 'corner' },
  });
  sheetOf(knob, {
    front: { kind: 'section', section: middle, steps: [{ at: half }] },
    top: { kind: 'projected', of: 'front', beside: 'above', hidden: false },
    corner: { kind: 'corner' },
  });
  sheetOf(tray, {
    top: { kind: 'base', from: 'top' },
    cut: { kind: 'section', section: across },
    corner: { kind: 'corner' },
  });
  const whole = defaultAssemblySheet({ paper: 'A3', projection: 'first' });
  // the throw wheel is seen from the other side only
  const left: View = { kind: 'base', from: 'left', apart: 0.25, numbered: true, hidden: false };
  const { tolerance: _, ...heading } = title;
  const views = { ...whole.views, left };
  const marks = SHEET_MARKS[whole.name] ?? {};
  script.do('sheet.add', {
    id: script.newId('d'),
    record: { ...whole, title: heading, views, viewOrder: Object.keys(views), marks, markOrder: Object.keys(marks) },
  });
}
