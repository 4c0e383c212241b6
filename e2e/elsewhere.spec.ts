import { formatAmount, ProjectScript } from '@helb/core';
import { placementOf } from '@helb/core/assembly';
import { circle } from '@helb/core/samples';
import { expect, test } from './house.ts';
import { bringPlate, openFile } from './plate.ts';

// What is taken from elsewhere: from other parts, and parts from other projects.

test('a sketch takes what is drawn in another part, and where its plane crosses that', async ({ page, bench }) => {
  const sketch = { kind: 'sketch', name: 'Round', plane: 'front', entities: circle(0, 20, 12), relations: {} } as const;
  const { project } = new ProjectScript('Rod in a clamp')
    .do('part.add', { id: 'rod', name: 'Rod' })
    .do('step.add', { part: 'rod', id: 's', step: sketch })
    .do('step.add', {
      part: 'rod',
      id: 'e',
      step: { kind: 'extrude', name: 'Bar', sketch: 's', distance: '60 mm', ways: 'both' },
    })
    .do('part.add', { id: 'clamp', name: 'Clamp' })
    .do('placement.add', { id: 'p', record: placementOf('Rod', { part: 'rod' }, true) })
    .do('placement.add', { id: 'q', record: placementOf('Clamp', { part: 'clamp' }, true) });
  await bench.signUp();
  await openFile(page, project);
  await bench.bodies(1);
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByTitle('Edit Clamp').click();
  await bench.press('q');
  await expect(page.getByLabel('View', { exact: true })).toHaveAttribute('data-others', '1');
  await bench.turning(() => page.getByTestId('verb-sketch-front').click());
  await bench.press('r');
  // somewhere on the rim of the rod, which is 100 mm above and below the middle of the paper
  const under = page.getByTestId('under');
  const [x, y] = await bench.at(0, 0);
  const rim = async () => {
    for (let up = 0; up < 320; up += 4) {
      await page.mouse.move(x, y - up);
      if (((await under.count()) > 0 && (await under.textContent())?.includes('crossing')) ?? false) return;
    }
    throw new Error('the rim was not met');
  };
  // what is under the pointer is known once the plane has crossed the others
  await expect(rim).toPass({ timeout: 20_000 });
  await expect(under).toContainText('circle of Round in Rod');
  const chosen = under.locator('[aria-selected=true]');
  for (let k = 0; k < 6 && !(await chosen.textContent())?.startsWith('crossing'); k++) await bench.press('Tab');
  await expect(chosen).toContainText('crossing of face · round ⌀24 mm in Rod');
  await page.mouse.down();
  await page.mouse.up();
  await expect(page.getByTestId('loans')).toContainText('crossing: a side of Bar in Rod');
  await expect(bench.title()).toContainText('settled');
});

const volume = (wide: number) => `${formatAmount(wide * 40 * 6, 1)} mm³`;

test('a part comes from another project and is given a number; it is taken anew when it has changed there, and stays when that project goes', async ({
  page,
  bench,
}) => {
  test.slow();
  const shelf = () => page.getByRole('link', { name: 'Helb' }).click();
  const parts = page.getByRole('tab', { name: 'Parts' });
  await bench.signUp();
  await bringPlate(page);
  await bench.bodies(1);
  await shelf();
  await bench.newProject();
  const host = page.url();
  await parts.click();
  await page.getByRole('button', { name: '+ from another project' }).click();
  const panel = page.getByRole('region', { name: 'From another project' });
  await panel.getByRole('button', { name: /^Box/ }).click();
  await expect(panel).toContainText('As it is now, revision 0');
  await panel.getByRole('button', { name: 'Bring Plate' }).click();
  await expect(page.getByRole('list', { name: 'Placements' })).toContainText('Plate');
  await expect(page.getByTestId('whole-Size')).toHaveText('60 × 40 × 6 mm');
  await page.getByTitle('Edit Plate').click();
  await expect(bench.figure('Volume')).toHaveText(volume(60));

  // its steps are only told, its value is given
  const sheet = page.getByLabel('A part from another project');
  await expect(sheet).toContainText('Nothing is newer there.');
  await expect(sheet.getByRole('listitem')).toHaveText([/Outline sketch/, /Sheet extrude/]);
  await expect(page.getByTestId('verb-sketch-top')).toHaveCount(0);
  await bench.chip('wide', '50 mm * 2');
  await expect(bench.figure('Volume')).toHaveText(volume(100));
  await bench.chip('wide', '20 deg');
  await expect(page.getByRole('alert').filter({ hasText: 'length' })).toBeVisible();
  await bench.press('Escape');
  await sheet.getByRole('button', { name: 'Leave wide as it is there' }).click();
  await expect(bench.figure('Volume')).toHaveText(volume(60));
  await bench.kept();

  // it is changed where it is drawn
  await sheet.getByRole('link', { name: 'Box' }).click();
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of wide', { exact: true }).fill('75 mm');
  await page.getByLabel('Expression of wide', { exact: true }).press('Enter');
  await bench.kept();
  await page.goto(host);
  await parts.click();
  await expect(page.getByRole('list', { name: 'Parts of the project' })).toContainText('newer');
  await page.getByTitle('Edit Plate').click();
  await expect(bench.figure('Volume')).toHaveText(volume(60));
  await expect(sheet.getByRole('status')).toContainText('wide: 75 mm instead of 60 mm');
  await sheet.getByRole('button', { name: 'Take revision 1' }).click();
  await expect(bench.figure('Volume')).toHaveText(volume(75));
  await expect(sheet).toContainText('Nothing is newer there.');
  await bench.press('Control+z');
  await expect(bench.figure('Volume')).toHaveText(volume(60));
  await bench.press('Control+y');
  await expect(bench.figure('Volume')).toHaveText(volume(75));
  await bench.kept();

  // the other project goes: the part stays
  await shelf();
  const card = page.getByRole('listitem').filter({ hasText: 'Box' });
  await card.getByRole('button', { name: 'More for Box' }).click();
  await page.getByRole('menuitem', { name: 'Throw away' }).click();
  await expect(card).toHaveCount(0);
  await page.goto(host);
  await parts.click();
  await expect(page.getByRole('list', { name: 'Parts of the project' })).toContainText('source gone');
  await page.getByTitle('Edit Plate').click();
  await expect(sheet).toContainText('This project is not on your shelf any more. The part stays here as it was.');
  await expect(bench.figure('Volume')).toHaveText(volume(75));
});
