import type { Page } from '@playwright/test';
import { ProjectScript, type Step } from '@helb/core';
import { circle, rectangle } from '@helb/core/samples';
import { openFile } from '@helb/e2e/plate.ts';
import { median, percentile, type Figure } from './measure.ts';

const ROWS = 25;
const COLUMNS = 40;
const MOVES = 200;

/** A perforated sheet: its six sides and 1000 holes. */
function sheet(): ProjectScript {
  const script = new ProjectScript('Perforated').do('part.add', { id: 'p', name: 'Sheet' });
  const sketch = (name: string, entities: ReturnType<typeof circle>) =>
    ({ kind: 'sketch', name, plane: 'top', entities, relations: {} }) as const;
  script.do('step.add', { part: 'p', id: 's', step: sketch('Outline', rectangle(0, 0, COLUMNS * 4, ROWS * 4)) });
  script.do('step.add', {
    part: 'p',
    id: 'e',
    step: { kind: 'extrude', name: 'Stock', sketch: 's', distance: '2 mm' },
  });
  script.do('step.add', { part: 'p', id: 'c', step: sketch('Hole', circle(2, 2, 1)) });
  const hole = { kind: 'extrude', name: 'First hole', sketch: 'c', extent: 'through', result: 'cut' } as const;
  script.do('step.add', { part: 'p', id: 'h', step: hole });
  const rows: Step = {
    kind: 'pattern-line',
    name: 'Holes',
    steps: ['h'],
    along: [{ to: 'origin', name: 'x' }],
    count: String(COLUMNS),
    spacing: '4 mm',
    directions: 'two',
    across: [{ to: 'origin', name: 'y' }],
    rows: String(ROWS),
    apart: '4 mm',
  };
  return script.do('step.add', { part: 'p', id: 'r', step: rows });
}

/** What the page does from a moved pointer to what lies under it being lit up, on a body of 1006 faces. */
export async function pickFigures(page: Page, address: string): Promise<Figure[]> {
  await page.goto(address);
  await openFile(page, sheet().project);
  await page.locator('[data-bodies="1"]').waitFor({ timeout: 120_000 });
  const times = await page.getByTestId('model-canvas').evaluate((canvas, moves) => {
    const { left, top, width, height } = canvas.getBoundingClientRect();
    return Array.from({ length: moves }, (_, k) => {
      // over the middle of the view, which the sheet fills, by two steps that have no common measure
      const [x, y] = [0.3 + 0.4 * ((k * 0.618) % 1), 0.35 + 0.3 * ((k * 0.414) % 1)];
      const at = { clientX: left + x * width, clientY: top + y * height, bubbles: true, pointerType: 'mouse' };
      const start = performance.now();
      canvas.dispatchEvent(new PointerEvent('pointermove', at));
      return performance.now() - start;
    });
  }, MOVES);
  // what was measured is what finds something
  const { x, y, width, height } = (await page.getByTestId('model-canvas').boundingBox())!;
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.move(x + width / 2 + 1, y + height / 2);
  await page.locator('[aria-current="true"]').first().waitFor();
  await page.getByRole('button', { name: 'Top', exact: true }).click();
  const load = (await page.getByLabel('View', { exact: true }).getAttribute('data-load')) ?? '';
  const [calls = 0, triangles = 0] = load.split(' ').map(Number);
  const figure = (name: string, value: number, unit: string, aim: string, met: boolean | null): Figure => ({
    name: `page: a body of 1006 faces, ${name}`,
    value,
    unit,
    floor: null,
    ratio: null,
    aim,
    met,
  });
  return [
    figure('pick, median', median(times), 'ms', 'under 5 ms', median(times) < 5),
    figure('pick, p95', percentile(times, 0.95), 'ms', '', null),
    // far from what any graphics card draws 60 times a second
    figure('draw calls of a frame', calls, 'calls', 'at most 20', calls > 0 && calls <= 20),
    figure('triangles of a frame', triangles, 'triangles', 'at most 500000', triangles > 0 && triangles <= 5e5),
  ];
}
