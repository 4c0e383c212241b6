export default async ({ page, bench, shot, verb }: any) => {
  await bench.press('i');
  await bench.click(0, 0);
  await bench.click(160, 110);
  await bench.press('Escape');
  await verb('Close sketch');
  await bench.press('x');
  await page.waitForTimeout(1500);
  await shot('x1');
};
