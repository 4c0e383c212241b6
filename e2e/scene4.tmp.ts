export default async ({ page, bench, shot, verb }: any) => {
  await bench.press('k');
  await bench.click(-200, -100); await bench.click(60, -100); await bench.click(110, 20);
  await bench.move(62, 42);
  await page.waitForTimeout(200);
  await shot('g1');
  await bench.click(62, 42);
  await bench.move(-200, 44);
  await page.waitForTimeout(200);
  await shot('g2');
};
