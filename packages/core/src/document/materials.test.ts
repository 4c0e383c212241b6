import { MATERIALS, materialSchema } from '../index.ts';

test('each material is there once, passes the schema of a part’s material, and says where its density comes from', () => {
  const names = MATERIALS.map(({ name }) => name);
  expect(new Set(names).size).toBe(names.length);
  for (const { name, density_kg_m3, source, group } of MATERIALS) {
    expect(materialSchema.safeParse({ name, density_kg_m3 }).success).toBe(true);
    expect(source.length).toBeGreaterThan(10);
    expect(group).not.toBe('');
  }
});

// the weights of EN 1991-1-1 in kN/m^3 over 9.81 m/s^2
test.each([
  ['Steel S235', 77, 78.5],
  ['Cast iron', 71, 72.5],
  ['Brass CW614N', 83, 85],
  ['Copper', 87, 89],
  ['Lead', 112, 114],
  ['Glass', 24, 25.5],
])('%s lies within the weights that its source gives, to a percent', (name, low, high) => {
  const { density_kg_m3 } = MATERIALS.find((entry) => entry.name === name)!;
  expect(density_kg_m3 * 9.81e-3).toBeGreaterThan(low * 0.99);
  expect(density_kg_m3 * 9.81e-3).toBeLessThan(high * 1.01);
});
