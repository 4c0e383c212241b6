import { execFileSync } from 'node:child_process';
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { ROOT } from './build-server.ts';

export const WEB = join(ROOT, 'apps/web/dist');

const COMPRESSIBLE = /\.(js|css|svg|wasm)$/;
/** Level 9: the kernel shrinks to a quarter in a quarter of a minute; 11 takes minutes for little more. */
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } };

/** Builds the page, and compresses what is served for ever once instead of at each request. */
export async function buildWeb(): Promise<void> {
  const vite = join(ROOT, 'node_modules/.bin/vite');
  execFileSync(vite, ['build', '--logLevel', 'error'], {
    cwd: join(ROOT, 'apps/web'),
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const assets = join(WEB, 'assets');
  const files = (await readdir(assets)).filter((name) => COMPRESSIBLE.test(name));
  await Promise.all(files.map((name) => compress(join(assets, name))));
}

async function compress(file: string): Promise<void> {
  const bytes = await readFile(file);
  if (bytes.length < 1024) return;
  await writeFile(`${file}.br`, await promisify(brotliCompress)(bytes, BROTLI));
  await writeFile(`${file}.gz`, await promisify(gzip)(bytes));
}
