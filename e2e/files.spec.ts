import { readFile } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import { expect, test } from './house.ts';
import { stepVolume } from './step-volume.ts';

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="100" viewBox="0 0 100 60">
  <rect x="0" y="0" width="100" height="60" rx="10"/>
  <circle cx="50" cy="30" r="12"/>
  <text x="5" y="5">not an outline</text>
</svg>`;

test('an outline from a file is drawn into the sketch, and goes out again as DXF and SVG', async ({ page, bench }) => {
  await bench.newSketch();
  const choosing = page.waitForEvent('filechooser');
  await bench.verb('outline from');
  await (await choosing).setFiles({ name: 'lid.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(SVG) });

  // the file names no unit: it is asked for, and the size is told with it
  const incoming = page.getByTestId('incoming');
  await expect(incoming).toContainText('4 lines, 4 arcs, 1 circle');
  await expect(incoming).toContainText('Left out: 1 × text');
  await expect(incoming).toContainText('100.00 × 60.00 mm');
  await page.getByLabel('Unit of the file').selectOption('cm');
  await expect(incoming).toContainText('1000.00 × 600.00 mm');
  await page.getByLabel('Unit of the file').selectOption('mm');
  await page.getByRole('button', { name: 'Draw it' }).click();
  await expect(incoming).toHaveCount(0);
  await expect(bench.desk).toContainText('2 closed areas, 1 opening inside');
  await bench.press('Control+z');
  await expect(bench.desk).toContainText('No closed area yet');
  await bench.press('Control+Shift+z');

  // out again
  await page.getByRole('link', { name: 'Output' }).click();
  const written: Record<string, string> = {};
  for (const format of ['DXF', 'SVG']) {
    const download = page.waitForEvent('download');
    await page.getByLabel(`Download ${format} of Sketch 1`).click();
    written[format] = await readFile(await (await download).path(), 'utf8');
  }
  expect(written['DXF']!.match(/^ARC$/gm)).toHaveLength(4);
  expect(written['DXF']!.match(/^CIRCLE$/gm)).toHaveLength(1);
  expect(written['SVG']).toContain('width="100mm" height="60mm"');
});

test('a file that can not be read is told in words, and nothing is drawn', async ({ page, bench }) => {
  await bench.newSketch();
  const choosing = page.waitForEvent('filechooser');
  await bench.verb('outline from');
  await (await choosing).setFiles({ name: 'broken.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from('no') });
  await expect(page.getByRole('alert')).toContainText('DXF');
  await expect(page.getByRole('alert')).not.toContainText('takes more than');
  await expect(page.getByTestId('incoming')).toHaveCount(0);
});

test('a body from a STEP file comes in and is worked on; what is no STEP file is told', async ({ page, bench }) => {
  // the list of parts shows all of them together: twice the whole demo is built first, from nothing
  test.setTimeout(300_000);
  const whole = { timeout: 90_000 };
  await bench.signUp();
  await bench.newDemo();
  const volume = await bench.figure('Volume').textContent();
  await page.getByRole('link', { name: 'Output' }).click();
  const download = page.waitForEvent('download');
  await page.getByLabel('Download STEP of Bearing bracket').click();
  const bytes = await readFile(await (await download).path());
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByRole('button', { name: 'new part' }).click();
  await page.keyboard.press('Enter');
  await bench.verb('Bring in bodies');
  // nothing is kept without a file
  await bench.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Choose the STEP file.');
  const field = page.getByLabel('STEP file');
  await field.setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no') });
  await expect(bench.desk).toContainText('notes.txt does not end in .step or .stp.');
  await field.setInputFiles({ name: 'broken.step', mimeType: 'model/step', buffer: Buffer.from('no') });
  await expect(bench.desk).toContainText('This is no STEP file that can be read');
  await field.setInputFiles({ name: 'bracket.step', mimeType: 'model/step', buffer: bytes });
  await bench.bodies(1);
  await page.getByRole('button', { name: /^Accept/ }).click();
  await expect(bench.figure('Volume')).toHaveText(volume!);
  await expect(page.getByTestId('step-Bring in bodies 1')).toContainText('Bring in the bodies of bracket.step');
  // its edges have names that last: one is rounded, and it is all there again after a reload
  await bench.fit();
  await bench.click(90, -92);
  await page.getByTestId('verb-fillet').click();
  await bench.press('Enter');
  await expect(bench.figure('Volume')).not.toHaveText(volume!);
  const rounded = await bench.figure('Volume').textContent();
  await bench.kept();
  await page.reload();
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page
    .getByRole('list', { name: 'Parts of the project' })
    .getByRole('button', { name: 'Part 16', exact: true })
    .click();
  await expect(bench.figure('Volume')).toHaveText(rounded!, whole);
  // with the file that it brings in it goes out as a zip, and comes in again for somebody else
  await page.getByRole('link', { name: 'Output' }).click();
  const zip = page.waitForEvent('download');
  await page.getByRole('button', { name: 'as a zip' }).click();
  const packed = await readFile(await (await zip).path());
  expect(Object.keys(unzipSync(packed)).filter((path) => path.startsWith('files/'))).toHaveLength(1);
  await page.getByRole('link', { name: 'Helb' }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await bench.signUp();
  const shelf = page.locator('input[type=file]');
  await shelf.setInputFiles({ name: 'a.zip', mimeType: 'application/zip', buffer: Buffer.from('PK no') });
  await expect(page.getByRole('alert')).toBeVisible();
  await shelf.setInputFiles({ name: 'sieve.helb.zip', mimeType: 'application/zip', buffer: packed });
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page
    .getByRole('list', { name: 'Parts of the project' })
    .getByRole('button', { name: 'Part 16', exact: true })
    .click();
  await expect(bench.figure('Volume')).toHaveText(rounded!, whole);
});

test('all parts of all variants go out in one zip, a folder for each', async ({ page, bench }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('link', { name: 'Output' }).click();
  const batch = page.getByTestId('batch');
  // stopped on the way nothing comes
  await batch.getByRole('button', { name: 'STEP of all variants' }).click();
  await batch.getByRole('button', { name: 'stop' }).click();
  await expect(batch.getByRole('button', { name: 'STEP of all variants' })).toBeVisible({ timeout: 60_000 });
  const download = page.waitForEvent('download', { timeout: 100_000 });
  await batch.getByRole('button', { name: 'STEP of all variants' }).click();
  await expect(batch.getByRole('status')).toContainText('of 45');
  const files = unzipSync(await readFile(await (await download).path()));
  expect(Object.keys(files)).toHaveLength(45);
  expect(Object.keys(files).filter((path) => path.startsWith('school/'))).toHaveLength(15);
  // the plate of the variant for the table is 66 x 44 instead of 72 x 48
  const volume = (path: string) => stepVolume(files[path]!);
  const plate = 72 * 48 * 8 - 66 * 44 * 8;
  expect((await volume('bench/bearing-bracket.step')) - (await volume('table/bearing-bracket.step'))).toBeCloseTo(
    plate,
    4,
  );
});

test('a mesh is laid under the part, measured, moved, hidden, and drawn over', async ({ page, bench }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('link', { name: 'Output' }).click();
  const written: Record<string, Buffer> = {};
  for (const format of ['STL', '3MF']) {
    const download = page.waitForEvent('download');
    await page.getByLabel(`Download ${format} of Bearing bracket`).click();
    written[format] = await readFile(await (await download).path());
  }
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByRole('button', { name: 'new part' }).click();
  await page.keyboard.press('Enter');
  await bench.verb('Lay a mesh under');
  const field = page.getByLabel('STL or 3MF file');
  await field.setInputFiles({ name: 'broken.stl', mimeType: 'model/stl', buffer: Buffer.from('no') });
  await expect(bench.desk).toContainText('This is no STL file that can be read');
  await field.setInputFiles({ name: 'bracket.stl', mimeType: 'model/stl', buffer: written['STL']! });
  await expect(bench.desk).not.toContainText('can be read');
  await page.getByRole('button', { name: /^Accept/ }).click();
  const meshes = page.getByTestId('meshes');
  await expect(meshes).toContainText('72 × 48 × 28 mm');
  await expect(meshes).toContainText('closed');
  await expect(meshes).toContainText('The file names no unit: it is taken as mm.');
  await meshes.getByLabel('Show Mesh 1').uncheck();
  await expect(meshes.getByText('Mesh 1')).toHaveClass(/line-through/);
  await meshes.getByLabel('Show Mesh 1').check();
  // told in inches it is as much larger; what says its unit itself is taken by its word
  const sentence = page.getByTestId('step-Mesh 1');
  await sentence.getByRole('button', { name: 'unit: of the file' }).click();
  await page.getByRole('option', { name: 'in', exact: true }).click();
  await expect(meshes).toContainText('1828.8 × 1219.2 × 711.2 mm');
  await bench.press('Control+z');
  await expect(meshes).toContainText('72 × 48 × 28 mm');
  await bench.sketchOnTop();
  await expect(page.getByTestId('underlay')).toHaveCount(1);
  await bench.press('l');
  await bench.verb('Lay a mesh under');
  await field.setInputFiles({ name: 'bracket.3mf', mimeType: 'model/3mf', buffer: written['3MF']! });
  await expect(bench.desk).toContainText('bracket.3mf');
  await page.getByRole('button', { name: /^Accept/ }).click();
  await expect(meshes.getByText('72 × 48 × 28 mm')).toHaveCount(2);
  await expect(meshes.getByText('The file names no unit')).toHaveCount(1);
  // it is all there again after a reload
  await bench.kept();
  await page.reload();
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page
    .getByRole('list', { name: 'Parts of the project' })
    .getByRole('button', { name: 'Part 16', exact: true })
    .click();
  await expect(meshes.getByText('72 × 48 × 28 mm')).toHaveCount(2);
});
