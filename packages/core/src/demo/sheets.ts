import { usualSheet, type View } from '../drawing/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { SHEET_MARKS } from './sheet-marks.ts';

/** Three parts on sheets: a bearing cut open, a turned knob, and the tray. */
export function drawSheets(script: ProjectScript, parts: Readonly<Record<'bracket' | 'knob' | 'tray', Id>>): void {
  const { bracket, knob, tray } = parts;
  const section = script.newId('c');
  const plane = { to: 'origin', name: 'front' } as const;
  script.do('section.add', {
    part: bracket,
    id: section,
    section: { name: 'Through the shaft', plane, offset: '0 mm', turned: false },
  });
  const across = script.newId('c');
  script.do('section.add', {
    part: tray,
    id: across,
    section: { name: 'Across', plane, offset: '0 mm', turned: false },
  });
  const sheetOf = (part: Id, views: Readonly<Record<Id, View>>) => {
    const { name } = script.project.parts[part]!;
    const record = usualSheet({ id: part, name }, { paper: 'A4', projection: 'first' });
    const title = { drawn: 'seed library', date: '2026-11', revision: 'A', tolerance: 'ISO 2768-mK' };
    const marks = SHEET_MARKS[name] ?? {};
    script.do('sheet.add', {
      id: script.newId('d'),
      record: { ...record, title, views, viewOrder: Object.keys(views), marks, markOrder: Object.keys(marks) },
    });
  };
  sheetOf(bracket, {
    top: { kind: 'base', from: 'top' },
    cut: { kind: 'section', section },
    corner: { kind: 'corner' },
  });
  sheetOf(knob, {
    front: { kind: 'base', from: 'front', hidden: false },
    top: { kind: 'projected', of: 'front', beside: 'above', hidden: false },
    corner: { kind: 'corner' },
  });
  sheetOf(tray, {
    top: { kind: 'base', from: 'top' },
    cut: { kind: 'section', section: across },
    corner: { kind: 'corner' },
  });
}
