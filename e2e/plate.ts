import type { Page } from '@playwright/test';
import { ProjectScript, writeProject, type Project } from '@helb/core';
import { placementOf } from '@helb/core/assembly';
import { rectangle, rectangleSizes } from '@helb/core/samples';

/** A plate `wide` x 40 x 6 mm with its corner at the origin, placed as drawn. */
function plate(): ProjectScript {
  const script = new ProjectScript('Box').do('value.add', { id: 'v', name: 'wide', expression: '60 mm' });
  script.do('part.add', { id: 'plate', name: 'Plate' });
  const sketch = {
    kind: 'sketch',
    name: 'Outline',
    plane: 'top',
    entities: rectangle(0, 0, 60, 40),
    relations: rectangleSizes('wide', '40 mm'),
  } as const;
  script.do('step.add', { part: 'plate', id: 's', step: sketch });
  const extrusion = { kind: 'extrude', name: 'Sheet', sketch: 's', distance: '6 mm' } as const;
  script.do('step.add', { part: 'plate', id: 'e', step: extrusion });
  return script.do('placement.add', { id: 'p', record: placementOf('Plate', { part: 'plate' }, true) });
}

/** From the shelf: a project from a file. */
export async function openFile(page: Page, project: Project): Promise<void> {
  const buffer = Buffer.from(writeProject(project));
  await page.locator('input[type=file]').setInputFiles({ name: 'a.json', mimeType: 'application/json', buffer });
}

/** From the shelf: the project of the plate, called Box. */
export const bringPlate = (page: Page): Promise<void> => openFile(page, plate().project);
