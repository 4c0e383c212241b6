import { emptyProject, ProjectScript, seedSieve } from '@helb/core';
import { packed, packedSync, unpacked } from './snapshots.ts';

/** Names with all that a line or a packed text could stumble over. */
const odd = () => {
  const script = new ProjectScript('Zeile\n"zwei" \u2028 🜂 \u0000');
  for (const id of ['p1', 'p2', 'p0']) script.do('part.add', { id, name: `part\\n${id}` });
  return script.project;
};

test.each([
  ['the demo', seedSieve],
  ['one without parts', () => emptyProject('Empty')],
  ['odd names', odd],
])('%s comes back as it was, its parts in their order', async (_, made) => {
  const document = made();
  for (const bytes of [await packed(document), packedSync(document)]) {
    const back = await unpacked(bytes);
    expect(back).toEqual(document);
    expect(JSON.stringify(back)).toBe(JSON.stringify(document));
  }
});

test('it is smaller than its text, and what is damaged is no project', async () => {
  const bytes = packedSync(seedSieve());
  expect(bytes.length).toBeLessThan(JSON.stringify(seedSieve()).length / 4);
  await expect(unpacked(bytes.subarray(0, bytes.length - 20))).rejects.toThrow();
});
