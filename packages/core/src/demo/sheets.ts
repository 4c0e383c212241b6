import { usualSheet, type Sheet } from '../drawing/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';

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
  const sheetOf = (part: Id, more: Partial<Sheet> = {}) => {
    const { name } = script.project.parts[part]!;
    const record = usualSheet({ id: part, name }, { paper: 'A4', projection: 'first' });
    const title = { drawn: 'seed library', date: '2026-11', revision: 'A', tolerance: 'ISO 2768-mK' };
    script.do('sheet.add', { id: script.newId('d'), record: { ...record, title, ...more } });
  };
  sheetOf(bracket, {
    views: {
      top: { kind: 'base', from: 'top' },
      cut: { kind: 'section', section },
      corner: { kind: 'corner' },
    },
    viewOrder: ['top', 'cut', 'corner'],
  });
  sheetOf(knob);
  sheetOf(tray);
}
