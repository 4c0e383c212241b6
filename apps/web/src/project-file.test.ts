import { zipSync } from 'fflate';
import { isZip, packedProject, unpackedProject } from './project-file.ts';

test('a project and its files come back as they were', async () => {
  const files = new Map([['abc', new Uint8Array([1, 2, 3])]]);
  const zip = await packedProject('{"name":"Sieve"}', files);
  expect(isZip(zip)).toBe(true);
  const { document, files: read } = await unpackedProject(zip);
  expect(document).toEqual({ name: 'Sieve' });
  expect(await Promise.all(read.map(async (blob) => [...new Uint8Array(await blob.arrayBuffer())]))).toEqual([
    [1, 2, 3],
  ]);
});

test('other zips, and too large ones, are refused in words', async () => {
  await expect(unpackedProject(zipSync({ 'a.txt': new Uint8Array(3) }))).rejects.toThrow('holds no project');
  const large = zipSync({ 'project.json': new Uint8Array(9 * 1024 * 1024) });
  await expect(unpackedProject(large)).rejects.toThrow('larger than a project may be');
  const many = Object.fromEntries(Array.from({ length: 501 }, (_, k) => [`files/${k}`, new Uint8Array(1)]));
  await expect(unpackedProject(zipSync(many))).rejects.toThrow('larger than a project may be');
  await expect(unpackedProject(zipSync({ 'project.json': new Uint8Array([123]) }))).rejects.toThrow('broken');
  await expect(unpackedProject(new Uint8Array([0x50, 0x4b, 3, 4, 5]))).rejects.toThrow('broken or cut off');
});
