export default async ({ page, bench, shot, verb }: any) => {
  // a bracket profile: chain with tangent arc, then edits
  await bench.press('k');
  await bench.click(-220, -80);
  await bench.click(120, -80);
  await bench.click(120, 40);
  await bench.press('t');
  await bench.click(20, 140);
  await bench.click(-100, 140);
  await bench.click(-100, 60);
  await bench.click(-220, 60);
  await bench.click(-220, -76);
  await bench.press('o');
  await bench.click(-160, -10);
  await bench.click(-130, -10);
  await bench.press('Escape');
  await page.waitForTimeout(400);
  await shot('p1');
  // gap: mend
  const offers = page.getByRole('button', { name: /join|reach it|cut off/ });
  console.log('offers', await offers.count());
  if (await offers.count()) await offers.first().click();
  await page.waitForTimeout(300);
  // fillet a corner
  await bench.click(120, -80);
  await bench.press('1');
  await page.getByLabel('Radius', { exact: true }).fill('8 mm');
  await bench.press('Enter');
  await page.waitForTimeout(300);
  // offset inwards
  await verb('Offset');
  await bench.click(-220, 0);
  await bench.click(-205, 0);
  await page.getByLabel('Offset distance', { exact: true }).fill('3 mm');
  await bench.press('Enter');
  await page.waitForTimeout(500);
  await shot('p2');
  await bench.press('Escape');
  await page.getByRole('button', { name: 'Settle the rest' }).click();
  await page.waitForTimeout(800);
  await shot('p3');
  await page.getByRole('button', { name: 'Accept' }).click();
  await page.waitForTimeout(800);
  await bench.fit();
  await shot('p4');
};
